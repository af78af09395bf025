"""Reading what stands on the command line, and writing answers."""

from __future__ import annotations

import json
import os
import stat
import sys
from dataclasses import replace
from pathlib import Path
from typing import Any

from nullah.core.lengths import Length, LengthError, Marks, read_length
from nullah.core.limits import one_sentence, quoted, read_count, read_number
from nullah.files.catalogues import catalogue_for
from nullah.language import tr
from nullah.writing import why, write_file

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.core.errors import Fact
    from nullah.core.project import Project
    from nullah.core.reader import Reader


class RefusedError(Exception):
    """Bad input: the message is the one sentence to print."""


def error_words(error: Exception) -> str:
    """Return an error in words; those of the whole house are loaded only now: most answers need none of them."""
    from nullah.core.wording import facts

    return facts.error_words(error)


def fact_words(fact: Fact, whose: Reader) -> str:
    """Return a fact in words, loaded only now as well."""
    from nullah.core.wording import facts

    return facts.fact_words(fact, whose)


def reader() -> Reader:
    """Return whoever reads in this terminal: the terms of its locale, and millimetres."""
    from nullah.core.reader import Reader

    return Reader(Marks(catalogue=catalogue_for(os.environ)))


def say(sentence: str) -> None:
    """Print a sentence on standard error."""
    print(f"nullah: {one_sentence(sentence)}", file=sys.stderr)


def length(text: str, option: str, least: int | None = 1) -> Length:
    """Read a length; `least` 1 asks for more than nothing, 0 for nothing or more, None for anything."""
    try:
        found = read_length(text)
    except LengthError as error:
        raise RefusedError(f"{option}: {error_words(error)}") from error
    if least is not None and (found.mm < 0 or (least and found.mm == 0)):
        wanted = tr("more than nothing") if least else tr("0 or more")
        raise RefusedError(
            tr("{option}: {typed} cannot be; it must be {wanted}.", option=option, typed=quoted(text), wanted=wanted)
        )
    return found


def number(text: str, option: str) -> float:
    """Read a number."""
    found = read_number(text)
    if found is None:
        raise RefusedError(tr("{option}: {typed} is not a number.", option=option, typed=quoted(text)))
    return found


def count(text: str, option: str, what: str) -> int:
    """Read how many."""
    found = read_count(text)
    if found is None:
        raise RefusedError(
            tr("{option}: {typed} is not a number of {what}.", option=option, typed=quoted(text), what=what)
        )
    return found


def project(file: Path) -> Project:
    """Read a project file."""
    from nullah.files.errors import ProjectFileError
    from nullah.files.project_file import read_project

    try:
        found = read_project(file)
        return replace(found, marks=replace(found.marks, catalogue=reader().marks.catalogue))
    except ProjectFileError as error:
        raise RefusedError(error_words(error)) from error


def write_json(target: str, answer: dict[str, Any]) -> int:
    """Write an answer as JSON into a file, or to standard output for ``-``; gives the exit status."""
    text = json.dumps(answer, indent=1, ensure_ascii=False, allow_nan=False) + "\n"
    if target == "-":
        sys.stdout.write(text)
        sys.stdout.flush()
        return 0
    path = Path(target)
    try:
        if _is_device(path):
            with path.open("w", encoding="utf-8") as stream:
                stream.write(text)
        else:
            write_file(path, text)
    except OSError as error:
        raise RefusedError(tr("{name} cannot be written: {why}.", name=quoted(target, 120), why=why(error))) from error
    return 0


def _is_device(path: Path) -> bool:
    """Whether a path is something that is written into, not replaced: a device, a pipe."""
    try:
        mode = os.stat(path).st_mode
    except OSError:
        return False
    return not stat.S_ISREG(mode) and not stat.S_ISDIR(mode)


def no_screen_needed() -> None:
    """Let what follows draw without a screen."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
