"""Unsaved work, kept while the program runs and found again if it was killed.

Each desk that has unsaved work owns one folder and holds a lock in it, which the system lets
go when the desk ends, however it ends. A folder that nobody holds is work that was left. What
reads and writes is loaded when it is first needed: the window does not wait for it.
"""

from __future__ import annotations

import os
from pathlib import Path
from typing import NamedTuple

from nullah.core.project import Project

TYPE_CHECKING = False
if TYPE_CHECKING:
    from datetime import datetime


_LOCK = "held"


class Lost(NamedTuple):
    """Work left by a desk that did not close: where it is kept, the file it belongs to, and when."""

    folder: Path
    file: Path | None
    when: datetime

    def read(self) -> Project:
        """Read the work; `ProjectFileError` if it is damaged."""
        from nullah.files.project_file import read_project

        return read_project(self.folder / "work.nullah")

    def drop(self) -> None:
        """Throw the kept work away."""
        _remove(self.folder)


class Autosave:
    """Keeps the work of this desk under `root`."""

    def __init__(self, root: Path) -> None:
        self._root = root
        self._folder: Path | None = None
        self._lock = -1

    def keep(self, project: Project, file: Path | None) -> str:
        """Keep the project as it is now; give an empty text, or the sentence why it cannot be kept."""
        import json

        from nullah.files.project_file import project_text, write_whole

        try:
            folder = self._own_folder()
            write_whole(folder / "work.nullah", project_text(project))
            write_whole(folder / "where.json", json.dumps({"file": str(file) if file else None}))
        except OSError as error:
            return f"Unsaved work cannot be kept in {self._root}: {error.strerror or error}. Save it to a file."
        return ""

    def _own_folder(self) -> Path:
        """Give this desk's folder, made and locked at the first call."""
        import fcntl
        import tempfile

        if self._folder is None or not self._folder.exists():
            self.leave()
            self._root.mkdir(parents=True, exist_ok=True)
            self._folder = Path(tempfile.mkdtemp(prefix="desk-", dir=self._root))
            self._lock = os.open(self._folder / _LOCK, os.O_CREAT | os.O_RDWR, 0o600)
            fcntl.flock(self._lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        return self._folder

    def leave(self) -> None:
        """Let the kept work go, for this or another desk to find."""
        if self._lock >= 0:
            os.close(self._lock)
        self._lock, self._folder = -1, None

    def set_aside(self, project: Project, file: Path | None) -> Lost | None:
        """Keep unsaved work that leaves the desk for another piece; None if the disk refuses."""
        from datetime import datetime

        if self.keep(project, file) or self._folder is None:
            return None
        aside = Lost(self._folder, file, datetime.now())
        self.leave()
        return aside

    def done(self) -> None:
        """Forget the kept work: it was saved, or the desk closes with nothing unsaved."""
        folder = self._folder
        self.leave()
        if folder is not None:
            _remove(folder)

    def lost(self) -> list[Lost]:
        """Find work left by desks that are gone, newest first."""
        from datetime import datetime

        found = []
        for folder in self._root.glob("desk-*"):
            work = folder / "work.nullah"
            if work.exists() and not _held(folder):
                when = datetime.fromtimestamp(work.stat().st_mtime)
                found.append(Lost(folder, _where(folder), when))
        return sorted(found, key=lambda lost: lost.when, reverse=True)


def _held(folder: Path) -> bool:
    """Say whether a desk that runs, this one or another, holds a folder."""
    import fcntl

    try:
        lock = os.open(folder / _LOCK, os.O_RDWR)
    except OSError:
        return False
    try:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        return True
    finally:
        os.close(lock)
    return False


def _remove(folder: Path) -> None:
    import shutil  # not needed before the window stands

    shutil.rmtree(folder, ignore_errors=True)


def _where(folder: Path) -> Path | None:
    import json

    try:
        named = json.loads((folder / "where.json").read_text(encoding="utf-8"))["file"]
    except (OSError, ValueError, KeyError, TypeError):
        return None
    return Path(named) if isinstance(named, str) else None
