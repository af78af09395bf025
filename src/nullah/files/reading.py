"""Reading files: bytes into text and data, within the limits, whatever they hold."""

from __future__ import annotations

import contextlib
import json
import os
import stat
from pathlib import Path
from typing import Any

from nullah.core.limits import NESTING, NOTE_TEXT, PROJECT_VALUES, shown

#: Largest number of a project file, of whatever it is a number.
_LARGEST = 1e9


class ReadingError(Exception):
    """A file that cannot be read; the message says why, and fits behind its name: “is not text”."""


class MissingError(ReadingError):
    """There is no such file."""


def read_bytes(path: Path, most: int) -> bytes:
    """Return what a file holds.

    Parameters
    ----------
    path : Path
    most : int
        Bytes it may have.

    Raises
    ------
    ReadingError
        If it is missing, is no ordinary file, is too large, or the disk refuses.
    """
    try:
        # Never waits: a pipe that nobody writes into is no file to read.
        handle = os.open(path, os.O_RDONLY | os.O_NONBLOCK | os.O_CLOEXEC)
        with os.fdopen(handle, "rb") as stream:
            found = os.fstat(handle)
            if not stat.S_ISREG(found.st_mode):
                raise ReadingError("cannot be read: it is not an ordinary file")
            if found.st_size > most:
                raise ReadingError(f"is too large: {found.st_size / 1e6:,.0f} MB, and {most / 1e6:,.0f} MB at most")
            return stream.read(most + 1)[:most]
    except FileNotFoundError as error:
        raise MissingError("cannot be read: there is no such file") from error
    except (OSError, ValueError) as error:
        said = (getattr(error, "strerror", None) or "its name cannot be used").lower()
        raise ReadingError(f"cannot be read: {said}") from error


def read_text(data: bytes) -> str:
    """Return bytes as text: UTF-8, with or without a mark at its beginning; `ReadingError` for anything else."""
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise ReadingError("is not text in UTF-8") from error


def cleaned(data: Any) -> Any:
    """Return JSON data with control characters and lone surrogates of every text as visible signs.

    Raises
    ------
    ReadingError
        For data past the limits: nested too deep, too many values, too long a text, a number past sense.
    """
    return _Cleaning().clean(data, 0, "the top")


class _Cleaning:
    """Goes through data and counts what it has seen."""

    def __init__(self) -> None:
        self._seen = 0

    def clean(self, data: Any, depth: int, place: str) -> Any:
        self._seen += 1
        if self._seen > PROJECT_VALUES:
            raise ReadingError(f"holds more than {PROJECT_VALUES:,} values")
        if depth > NESTING:
            raise ReadingError(f"is nested more than {NESTING} deep")
        if isinstance(data, str):
            return self._text(data, place)
        if isinstance(data, bool) or data is None:
            return data
        if isinstance(data, int | float):
            # A number that is none (NaN) is not within any limits either.
            if not abs(data) <= _LARGEST:
                raise ReadingError(f"holds a number past all sense at {place}")
            return data
        if isinstance(data, list):
            return [self.clean(item, depth + 1, place) for item in data]
        return {
            self.clean(key, depth + 1, "a name"): self.clean(value, depth + 1, shown(key[:40]))
            for key, value in data.items()
        }

    def _text(self, text: str, place: str) -> str:
        if len(text) > NOTE_TEXT:
            raise ReadingError(f"holds a text of {len(text):,} characters at {place}; {NOTE_TEXT:,} at most")
        return text if text.isprintable() else "\n".join(shown(line) for line in text.split("\n"))


def parse_json(text: str) -> Any:
    """Return JSON text as data, cleaned.

    Raises
    ------
    ReadingError
        For data past the limits.
    json.JSONDecodeError
        For text that is no JSON.
    """
    try:
        data = json.loads(text)
    except RecursionError as error:
        raise ReadingError(f"is nested more than {NESTING} deep") from error
    except json.JSONDecodeError:
        raise
    except ValueError as error:
        # Python reads no whole number of more than 4300 digits.
        raise ReadingError("holds a number past all sense") from error
    return cleaned(data)


def read_json_file(path: Path, most: int) -> Any:
    """Return what a small file of the program's own holds, cleaned.

    Parameters
    ----------
    path : Path
    most : int
        Bytes it may have.

    Raises
    ------
    ReadingError
        If it cannot be read, is no JSON, or is past the limits.
    """
    try:
        return parse_json(read_text(read_bytes(path, most)))
    except json.JSONDecodeError as error:
        raise ReadingError("is not JSON") from error


def keep_damaged(path: Path) -> None:
    """Give a file that cannot be read a second name, ``NAME.damaged``, before it is written anew."""
    with contextlib.suppress(OSError):
        aside = path.with_name(f"{path.name}.damaged")
        aside.unlink(missing_ok=True)
        os.link(path, aside)
