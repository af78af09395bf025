"""Unsaved work, kept while the program runs and found again if it was killed.

Each running desk owns one folder, named for its process, with the project and where it
belongs. A folder whose process is gone holds work that was lost. What reads and writes is loaded
when it is first needed: the window does not wait for it.
"""

from __future__ import annotations

import os
from pathlib import Path
from typing import NamedTuple

from nullah.core.project import Project

TYPE_CHECKING = False
if TYPE_CHECKING:
    from datetime import datetime


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
    """Keeps the work of this process under `root`."""

    def __init__(self, root: Path) -> None:
        self._folder = root / f"desk-{os.getpid()}"
        self._root = root

    def keep(self, project: Project, file: Path | None) -> None:
        """Keep the project as it is now; quietly does nothing if the disk refuses."""
        import json

        from nullah.files.project_file import project_text, write_whole

        try:
            self._folder.mkdir(parents=True, exist_ok=True)
            write_whole(self._folder / "work.nullah", project_text(project))
            write_whole(self._folder / "where.json", json.dumps({"file": str(file) if file else None}))
        except OSError:
            return

    def set_aside(self, project: Project, file: Path | None) -> Lost | None:
        """Keep unsaved work that leaves the desk for another piece; None if the disk refuses."""
        from datetime import datetime

        self.keep(project, file)
        number = 1
        while (aside := self._root / f"desk-left-{os.getpid()}-{number}").exists():
            number += 1
        try:
            self._folder.rename(aside)
        except OSError:
            return None
        return Lost(aside, file, datetime.now())

    def done(self) -> None:
        """Forget the kept work: it was saved, or the desk closes with nothing unsaved."""
        _remove(self._folder)

    def lost(self) -> list[Lost]:
        """Find work left by desks that are gone, newest first."""
        from datetime import datetime

        found = []
        for folder in self._root.glob("desk-*"):
            work = folder / "work.nullah"
            number = folder.name.removeprefix("desk-")
            if folder == self._folder or not work.exists() or (number.isdigit() and _runs(int(number))):
                continue
            when = datetime.fromtimestamp(work.stat().st_mtime)
            found.append(Lost(folder, _where(folder), when))
        return sorted(found, key=lambda lost: lost.when, reverse=True)


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


def _runs(process: int) -> bool:
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return True
