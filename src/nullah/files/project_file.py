"""Opening and saving the project file.

Saving writes beside, flushes to the disk, then replaces; the earlier versions stay beside it
(see `versions`).
"""

from __future__ import annotations

import contextlib
import os
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from nullah.core.limits import PROJECT_BYTES, one_sentence, quoted
from nullah.core.project import Project
from nullah.files.errors import FileChangedError, ProjectFileError
from nullah.files.fingerprint import Fingerprint, fingerprint
from nullah.writing import why, write_file


def read_project(path: Path) -> Project:
    """Read a project file.

    Raises
    ------
    ProjectFileError
        For a file that is missing, unreadable, cut short, no JSON, no project, from a newer
        version, past the limits, or holds something this version does not know.
    """
    return parse_project(read_project_text(path), path.name)


def read_project_text(path: Path) -> str:
    """Return the text of a project file; `ProjectFileError` if it cannot be read as text."""
    from nullah.files.reading import MissingError, ReadingError, read_bytes, read_text

    try:
        return read_text(read_bytes(path, PROJECT_BYTES))
    except MissingError as error:
        raise ProjectFileError(f"There is no file {quoted(str(path), 120)}.") from error
    except ReadingError as error:
        raise ProjectFileError(f"{_named(path.name)} {error}.") from error


def parse_project(text: str, name: str) -> Project:
    """Read a project from the text of its file; `name` is what errors call it."""
    from pydantic import ValidationError

    from nullah.files.schema import project_reader

    name = _named(name)
    data = _read_json(text, name)
    _check_version(data, name)
    try:
        return project_reader().validate_python(data)
    except ValidationError as error:
        said = _first_complaint(data, error.errors(include_url=False)[0])
        raise ProjectFileError(one_sentence(f"{name} cannot be opened. {said}")) from error


def _named(name: str) -> str:
    return quoted(name, 60)[1:-1]


def _read_json(text: str, name: str) -> dict[str, Any]:
    from json import JSONDecodeError

    from nullah.files.reading import ReadingError, parse_json

    if not text.strip():
        raise ProjectFileError(f"{name} is empty. Look at its earlier versions.")
    try:
        data = parse_json(text)
    except JSONDecodeError as error:
        if text.lstrip().startswith("{"):
            cut_short = error.pos >= len(text.rstrip()) - 1 or "Unterminated" in error.msg
            what = "is cut short" if cut_short else f"is damaged at line {error.lineno}"
            raise ProjectFileError(f"{name} {what}. Look at its earlier versions.") from error
        raise ProjectFileError(f"{name} is not a Nullah project: it is not JSON.") from error
    except ReadingError as error:
        raise ProjectFileError(one_sentence(f"{name} {error}.")) from error
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


def _first_complaint(data: Any, error: Any) -> str:
    place = " → ".join(quoted(str(step), 30)[1:-1] for step in _steps(data, error["loc"])[:6])
    if error["type"] == "extra_forbidden":
        return f"It holds “{place}”, which this version does not know."
    if error["type"] == "missing":
        return f"“{place}” is missing."
    from nullah.core.wording.facts import error_words

    cause = error.get("ctx", {}).get("error")
    said = error_words(cause) if isinstance(cause, ValueError) else str(error["msg"])
    message = said.rstrip(".")
    return f"At {place}: {message}."


def _steps(data: Any, place: Sequence[int | str]) -> list[int | str]:
    """Return the steps of a place that lead into the data; the others name alternatives of the schema."""
    found = []
    for number, step in enumerate(place):
        if isinstance(data, dict) and (step in data or number == len(place) - 1):
            data = data.get(step)
        elif isinstance(data, list) and isinstance(step, int) and step < len(data):
            data = data[step]
        else:
            continue
        found.append(step)
    return found


def project_text(project: Project, in_one_line: bool = False) -> str:
    """Return the text of a project's file, line by line for people, or in one line, which takes a third of the time.

    In one line it is written item by item: where it is written in a thread, others have their turn between two of them.
    """
    import json

    from nullah.files.schema import FORMAT, PROJECT, VERSION

    data = {"format": FORMAT, "version": VERSION, **PROJECT.write(project)}
    if not in_one_line:
        return json.dumps(data, indent=1, ensure_ascii=False) + "\n"
    write = json.JSONEncoder(ensure_ascii=False).encode
    values = (f"[{', '.join(map(write, each))}]" if isinstance(each, list) else write(each) for each in data.values())
    return f"{{{', '.join(f'{write(name)}: {value}' for name, value in zip(data, values, strict=True))}}}\n"


def write_project(project: Project, path: Path, expected: Fingerprint | None = None) -> None:
    """Save a project; the file that stood there before is kept as an earlier version.

    Parameters
    ----------
    project : Project
    path : Path
    expected : Fingerprint, optional
        What the file is to hold still; where it holds something else, nothing is written.

    Raises
    ------
    FileChangedError
        If somebody else has written the file.
    ProjectFileError
        If the disk refuses; whatever stood there before, and every earlier version, is as it was.
    """
    from nullah.files.versions import set_aside, settle

    def ready(target: Path) -> None:
        now = fingerprint(target, expected) if expected is not None else None
        if now is not None and not now.same_content(expected):
            raise FileChangedError(f"{_named(path.name)} was changed by another program or window.")
        set_aside(target)

    target = Path(os.path.realpath(path))
    try:
        try:
            write_file(path, project_text(project), before_replacing=ready)
        finally:
            with contextlib.suppress(OSError):
                settle(target)
    except OSError as error:
        raise ProjectFileError(
            f"{quoted(str(path), 120)} could not be saved: {why(error)}. Your work is safe here; save it elsewhere."
        ) from error
