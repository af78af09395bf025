"""Kept work: what is not saved yet, kept while the program runs and found again if it was killed.

Each desk that has unsaved work owns one folder and holds a lock in it, which the system lets
go when the desk ends, however it ends. A folder that nobody holds is work that was left. What
reads and writes is loaded when it is first needed: the window does not wait for it.
"""

from __future__ import annotations

import os
from collections.abc import Callable
from pathlib import Path
from typing import TypeVar

from nullah.core.named_tuple import NamedTuple
from nullah.core.project import Project

TYPE_CHECKING = False
if TYPE_CHECKING:
    from concurrent.futures import Future, ThreadPoolExecutor
    from datetime import datetime

    from nullah.files.fingerprint import Fingerprint


Result = TypeVar("Result")

_LOCK = "held"
# How folders are named: while they are made, and when there is work in them.
_MAKING, _DESK = "making-", "desk-"
_WORK = "work.nullah"
_WHERE = "where.json"


class Kept(NamedTuple):
    """Work left by a desk that did not save it.

    Parameters
    ----------
    folder : Path
        Where it is kept.
    file : Path or None
        The file it belongs to, from the root of the disk.
    when : datetime
        When it was kept.
    base : Fingerprint or None
        What that file held when the work on it began.
    """

    folder: Path
    file: Path | None
    when: datetime
    base: Fingerprint | None = None

    def read(self) -> Project:
        """Read the work; `ProjectFileError` if it is damaged."""
        from nullah.files.project_file import read_project

        return read_project(self.folder / _WORK)

    @property
    def file_is_newer(self) -> bool:
        """Whether the file was written by somebody after the work on it began."""
        from nullah.files.fingerprint import fingerprint

        if self.file is None:
            return False
        now = fingerprint(self.file)
        return now is not None and not now.same_content(self.base)

    def drop(self) -> None:
        """Throw the kept work away."""
        _remove(self.folder)


class Autosave:
    """Keeps the work of this desk under `root`.

    All of it is done in one thread, one after the other: a disk can take its time, and the window need not wait.
    """

    def __init__(self, root: Path) -> None:
        self._root = root
        self._folder: Path | None = None
        self._lock = -1
        self._thread: ThreadPoolExecutor | None = None

    def keep(self, project: Project, file: Path | None, base: Fingerprint | None = None) -> str:
        """Keep the project as it is now; give an empty text, or the sentence why it cannot be kept."""
        return self.keep_beside(project, file, base).result()

    def keep_beside(self, project: Project, file: Path | None, base: Fingerprint | None = None) -> Future[str]:
        """Keep the project as it is now, beside whoever asks for it."""
        return self._in_turn(lambda: self._keep(project, file, base))

    def _in_turn(self, work: Callable[[], Result]) -> Future[Result]:
        """Have something done when all that was asked for before is done."""
        from concurrent.futures import ThreadPoolExecutor

        if self._thread is None:
            self._thread = ThreadPoolExecutor(max_workers=1, thread_name_prefix="keeping work")
        return self._thread.submit(work)

    def _keep(self, project: Project, file: Path | None, base: Fingerprint | None) -> str:
        import json

        from nullah.files.project_file import project_text
        from nullah.writing import why, write_file

        try:
            folder = self._own_folder()
            where = {
                # A name on the disk is bytes, and need not be text.
                "file": file.absolute().as_uri() if file else None,
                "base": [str(each) for each in base] if base else None,
            }
            write_file(folder / _WHERE, json.dumps(where))
            write_file(folder / _WORK, project_text(project, in_one_line=True))
            self._show_folder(folder)
        except OSError as error:
            return f"Unsaved work cannot be kept in {self._root}: {why(error)}. Save it to a file."
        return ""

    def _show_folder(self, folder: Path) -> None:
        """Let a folder be found, once the work and what belongs to it are whole in it."""
        if folder.name.startswith(_MAKING):
            shown = folder.with_name(folder.name.replace(_MAKING, _DESK, 1))
            folder.rename(shown)
            self._folder = shown

    def _own_folder(self) -> Path:
        """Return this desk's folder, made and locked at the first call."""
        import fcntl
        import tempfile

        if self._folder is None or not self._folder.exists():
            self._leave()
            self._root.mkdir(parents=True, exist_ok=True)
            self._folder = Path(tempfile.mkdtemp(prefix=_MAKING, dir=self._root))
            self._lock = os.open(self._folder / _LOCK, os.O_CREAT | os.O_RDWR | os.O_CLOEXEC, 0o600)
            fcntl.flock(self._lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        return self._folder

    def leave(self) -> None:
        """Let the kept work go, for this or another desk to find."""
        if self._thread is not None:
            self._in_turn(self._leave).result()

    def _leave(self) -> None:
        if self._lock >= 0:
            os.close(self._lock)
        self._lock, self._folder = -1, None

    def set_aside(self, project: Project, file: Path | None, base: Fingerprint | None = None) -> Kept | None:
        """Keep unsaved work that leaves the desk for another piece; None if the disk refuses."""
        from datetime import datetime

        if self.keep(project, file, base) or self._folder is None:
            return None
        aside = Kept(self._folder, file, datetime.now(), base)
        self.leave()
        return aside

    def done(self) -> None:
        """Forget the kept work: it was saved, or the desk closes with nothing unsaved."""
        if self._thread is not None:
            self._in_turn(self._forget).result()

    def _forget(self) -> None:
        folder = self._folder
        self._leave()
        if folder is not None:
            _remove(folder)

    def kept(self) -> list[Kept]:
        """Find work left by desks that are gone, newest first; folders in which none is left are removed."""
        from datetime import datetime

        found = []
        for folder in self._root.glob(f"{_MAKING}*"):
            if not _held(folder):
                _remove_if_old(folder)
        for folder in self._root.glob(f"{_DESK}*"):
            if _held(folder):
                continue
            try:
                when = datetime.fromtimestamp((folder / _WORK).stat().st_mtime)
            except FileNotFoundError:
                _remove_if_old(folder)
                continue
            except OSError:
                continue
            found.append(_kept(folder, when))
        return sorted(found, key=lambda kept: kept.when, reverse=True)


def _kept(folder: Path, when: datetime) -> Kept:
    """Return the work in a folder; what belongs to which file is told as far as it can be read."""
    from nullah.files.fingerprint import Fingerprint
    from nullah.files.reading import ReadingError, read_json_file

    try:
        where = read_json_file(folder / _WHERE, 100_000)
        named, base = where["file"], where.get("base")
        file = _path_of(named) if isinstance(named, str) else None
        known = Fingerprint(int(base[0]), int(base[1]), str(base[2])) if base else None
    except (ReadingError, KeyError, TypeError, ValueError, IndexError, AttributeError):
        return Kept(folder, None, when)
    return Kept(folder, file, when, known)


def _path_of(named: str) -> Path:
    """Return the path of a file by its URI, or by its bare name as older desks wrote it."""
    from urllib.parse import unquote_to_bytes

    return Path(os.fsdecode(unquote_to_bytes(named.removeprefix("file://"))) if named.startswith("file://") else named)


def _held(folder: Path) -> bool:
    """Return whether a desk that runs, this one or another, holds a folder."""
    import fcntl

    try:
        lock = os.open(folder / _LOCK, os.O_RDWR | os.O_CLOEXEC)
    except OSError:
        return False
    try:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        return True
    finally:
        os.close(lock)
    return False


def _remove_if_old(folder: Path) -> None:
    """Remove a folder without work; a young one may be another desk's that is just being made."""
    import time

    try:
        old = time.time() - folder.stat().st_mtime > 60
    except OSError:
        return
    if old:
        _remove(folder)


def _remove(folder: Path) -> None:
    import shutil  # not needed before the window stands

    shutil.rmtree(folder, ignore_errors=True)
