"""Opening and saving the project file.

Saving writes beside, flushes to the disk, then replaces; the last few versions are kept
as hidden files beside it (`.name.nullah.1` is the newest).
"""

from __future__ import annotations

import os
from pathlib import Path
from typing import Any

from nullah.core.project import Project
from nullah.files.errors import ProjectFileError

#: How many earlier versions stay beside the file.
VERSIONS_KEPT = 3


def read_project(path: Path) -> Project:
    """Read a project file.

    Raises
    ------
    ProjectFileError
        For a file that is missing, unreadable, cut short, no JSON, no project, from a newer
        version, or holds something this version does not know.
    """
    try:
        text = path.read_text(encoding="utf-8")
    except FileNotFoundError as error:
        raise ProjectFileError(f"There is no file {path}.") from error
    except UnicodeDecodeError as error:
        raise ProjectFileError(f"{path.name} is not a Nullah project: it is not text.") from error
    except OSError as error:
        raise ProjectFileError(f"{path.name} cannot be read: {error.strerror or error}.") from error
    return parse_project(text, path.name)


def parse_project(text: str, name: str) -> Project:
    """Read a project from the text of its file; `name` is what errors call it."""
    from pydantic import ValidationError

    from nullah.core.bench.book import BookError
    from nullah.core.bench.hours import HoursError
    from nullah.core.lengths import LengthError
    from nullah.core.rack.board import BoardError
    from nullah.files.schema import ProjectModel, from_model

    data = _read_json(text, name)
    _check_version(data, name)
    try:
        return from_model(ProjectModel.model_validate(data))
    except ValidationError as error:
        raise ProjectFileError(f"{name} cannot be opened. {_first_complaint(error.errors()[0])}") from error
    except (LengthError, BoardError, BookError, HoursError) as error:
        raise ProjectFileError(f"{name} cannot be opened. {error}") from error


def _read_json(text: str, name: str) -> dict[str, Any]:
    if not text.strip():
        raise ProjectFileError(f"{name} is empty. An earlier version may stand beside it as .{name}.1.")
    import json

    try:
        data = json.loads(text)
    except (json.JSONDecodeError, RecursionError) as error:
        if text.lstrip().startswith("{") and isinstance(error, json.JSONDecodeError):
            cut_short = error.pos >= len(text.rstrip()) - 1 or "Unterminated" in error.msg
            what = "is cut short" if cut_short else f"is damaged at line {error.lineno}"
            raise ProjectFileError(f"{name} {what}. An earlier version may stand beside it as .{name}.1.") from error
        raise ProjectFileError(f"{name} is not a Nullah project: it is not JSON.") from error
    if not isinstance(data, dict) or data.get("format") != "nullah project":
        raise ProjectFileError(f"{name} is not a Nullah project.")
    return data


def _check_version(data: dict[str, Any], name: str) -> None:
    from nullah.files.schema import VERSION

    version = data.get("version")
    if isinstance(version, int) and version > VERSION:
        raise ProjectFileError(
            f"{name} was saved by a newer Nullah (file version {version}; this one reads up to {VERSION}). "
            "Open it there; nothing was changed."
        )
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise ProjectFileError(f"{name} does not say which version of the file it is.")


def _first_complaint(error: Any) -> str:
    place = " → ".join(str(step) for step in error["loc"])
    if error["type"] == "extra_forbidden":
        return f"It holds “{place}”, which this version does not know."
    if error["type"] == "missing":
        return f"“{place}” is missing."
    message = str(error["msg"]).removeprefix("Value error, ").rstrip(".")
    return f"At {place}: {message}."


def project_text(project: Project) -> str:
    """Give the text of a project's file."""
    import json

    from nullah.files.schema import to_data

    return json.dumps(to_data(project), indent=1, ensure_ascii=False) + "\n"


def write_project(project: Project, path: Path) -> None:
    """Save a project; the file that stood there before is kept as an earlier version.

    Raises
    ------
    ProjectFileError
        If the disk refuses; whatever stood there before is whole.
    """
    try:
        keep_version(path)
        write_whole(path, project_text(project))
    except OSError as error:
        raise ProjectFileError(
            f"{path} could not be saved: {error.strerror or error}. Your work is safe here; save it elsewhere."
        ) from error


def write_whole(path: Path, text: str) -> None:
    """Write a text file so that at every moment either the old or the new one stands there whole."""
    import tempfile

    handle, beside_name = tempfile.mkstemp(prefix=f".{path.name}.", suffix=".part", dir=path.parent)
    beside = Path(beside_name)
    try:
        with os.fdopen(handle, "w", encoding="utf-8") as stream:
            stream.write(text)
            stream.flush()
            os.fsync(stream.fileno())
        beside.chmod(0o644)
        beside.replace(path)
    finally:
        beside.unlink(missing_ok=True)


def keep_version(path: Path) -> None:
    """Move the earlier versions up by one and copy the file as the newest of them."""
    if not path.exists():
        return
    import shutil

    versions = [path.with_name(f".{path.name}.{number}") for number in range(1, VERSIONS_KEPT + 1)]
    for older, newer in zip(reversed(versions), [*reversed(versions[:-1]), path], strict=True):
        if newer is path:
            shutil.copy2(path, older)
        elif newer.exists():
            newer.replace(older)
