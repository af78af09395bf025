"""Earlier versions of a project file: hidden files beside it, ``.NAME.1`` the newest.

A version is a name for the very file that was replaced, so keeping one takes neither room nor
time. While a save is under way the file that is about to be replaced is also known as ``.NAME.0``;
a save that was killed is taken up by the next.
"""

from __future__ import annotations

import contextlib
import os
import shutil
from datetime import datetime
from pathlib import Path

from nullah.core.named_tuple import NamedTuple

#: How many earlier versions stay beside a file.
VERSIONS_KEPT = 3


class Version(NamedTuple):
    """An earlier version of a file: its number, 1 the newest, where it is, and when it was saved."""

    number: int
    path: Path
    saved: datetime


def version_path(path: Path, number: int) -> Path:
    """Return where a version of a file stands."""
    return path.with_name(f".{path.name}.{number}")


def versions_of(path: Path) -> list[Version]:
    """Return the earlier versions of a file that are there, newest first."""
    target = Path(os.path.realpath(path))
    found = []
    for number in range(VERSIONS_KEPT + 1):
        place = version_path(target, number)
        with contextlib.suppress(OSError):
            if number == 0 and _same(place, target):
                continue
            found.append(Version(number, place, datetime.fromtimestamp(place.stat().st_mtime)))
    return found


def set_aside(target: Path) -> None:
    """Give the file that is about to be replaced a second name, ``.NAME.0``; `OSError` if the disk refuses."""
    settle(target)
    if not target.exists():
        return
    aside = version_path(target, 0)
    try:
        os.link(target, aside)
    except OSError:
        # A file system without links: a copy, made whole under another name first.
        beside = target.with_name(f".nullah-{os.getpid()}-version.part")
        try:
            shutil.copy2(target, beside)
            os.replace(beside, aside)
        finally:
            beside.unlink(missing_ok=True)


def settle(target: Path) -> None:
    """Put ``.NAME.0`` among the versions, the oldest giving way; drop it where the save never came to its end."""
    aside = version_path(target, 0)
    if not aside.exists():
        return
    if _same(aside, target):
        aside.unlink()
        return
    free = next((n for n in range(1, VERSIONS_KEPT + 1) if not version_path(target, n).exists()), VERSIONS_KEPT)
    for number in range(free, 0, -1):
        os.replace(version_path(target, number - 1), version_path(target, number))


def _same(one: Path, other: Path) -> bool:
    """Whether two names are of one file, or of two that hold the same."""
    try:
        if os.path.samefile(one, other):
            return True
        return one.stat().st_size == other.stat().st_size and one.read_bytes() == other.read_bytes()
    except OSError:
        return False
