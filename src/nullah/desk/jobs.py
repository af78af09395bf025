"""What is done in a process of its own: writing all sheets, the solids, laying the sheets out for a printer."""

from __future__ import annotations

import os
import sys
from collections.abc import Generator
from datetime import datetime
from pathlib import Path

from nullah.background import Refused
from nullah.core.project import Project
from nullah.core.wording.facts import error_words
from nullah.language import speak, tr

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.core.sheets.page import Sheet


def _without_screen() -> object:
    """Return an application that needs no screen: type is measured and drawn without one."""
    from PySide6.QtGui import QGuiApplication

    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    return QGuiApplication.instance() or QGuiApplication(sys.argv[:1])


def write_sheets(project: Project, folder: Path, paper: str, now: datetime) -> Generator[str, None, int | Refused]:
    """Write every sheet and list of a project into a folder; return how many files."""
    application = _without_screen()
    speak(project.marks.catalogue)
    from nullah.desk.bundle import write_bundle
    from nullah.paper.files import PAPERS, PaperError

    count = 0
    try:
        yield tr("Laying the sheets out …")
        for written in write_bundle(project, folder, PAPERS[paper], now):
            count = written.number
            yield tr("Writing {number} of {of}: {name}", number=written.number, of=written.of, name=written.path.name)
    except PaperError as error:
        return Refused(error_words(error))
    del application
    return count


def write_solids(project: Project, target: Path) -> Generator[str, None, Refused | None]:
    """Write the solids of a project."""
    from nullah.core.plan import work_out
    from nullah.files.solids import SolidsError
    from nullah.files.solids import write_solids as write

    speak(project.marks.catalogue)
    yield tr("Building the solids …")
    try:
        plan = work_out(project, milling=False)
        yield tr("Writing {name} …", name=target.name)
        write(plan, target)
    except SolidsError as error:
        return Refused(error_words(error))
    return None


def all_sheets_of(project: Project, now: datetime) -> Generator[str, None, tuple[Sheet, ...]]:
    """Return every sheet of a project, laid out."""
    application = _without_screen()
    speak(project.marks.catalogue)
    from nullah.core.plan import work_out
    from nullah.core.sheets.sheets import all_sheets

    yield tr("Laying the sheets out …")
    sheets = all_sheets(work_out(project), now)
    del application
    return tuple(sheets)
