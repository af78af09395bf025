"""Opening the desk."""

from __future__ import annotations

import gc
import os
import sys
from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QThread, QTimer

from nullah.core.lengths import Marks, Unit
from nullah.core.project import Project
from nullah.core.stations import STATIONS
from nullah.desk.application import application
from nullah.desk.document import Document
from nullah.desk.errors import ErrorWatch
from nullah.desk.last_view import LastView, keep_view, opened_name, views_folder
from nullah.desk.settings import Settings
from nullah.desk.shutdown import ShutdownWatch
from nullah.desk.state import settings_file, state_folder
from nullah.desk.theme import dress
from nullah.desk.window import Window
from nullah.files.catalogues import catalogue_for, load
from nullah.files.recovery import Autosave
from nullah.language import speak
from nullah.memory import collect_seldom
from nullah.paper.palette import DAY
from nullah.writing import write_file

#: The start page is kept as it looks when nobody left it for so long, ms.
_START_PAGE_RESTS = 1500


class Loader(QThread):
    """Loads some libraries beside the window, which stands before they are there."""

    def __init__(self, load: Callable[[], None]) -> None:
        super().__init__()
        self._load = load

    def run(self) -> None:
        self._load()


def _numbers() -> None:
    import nullah.background
    import nullah.core.milling.forecast
    import nullah.core.proof.prove  # noqa: F401


def _files() -> None:
    # Work is kept a second after the first change: the window would stand still for as long as this takes.
    import nullah.files.schema  # noqa: F401


def spare_the_collector() -> None:
    """Have what stands when the window is whole passed over by the collector, lest the window waits for it."""
    gc.collect()
    collect_seldom()


def make_window(
    project: Project, root: Path, file: Path | None = None, settings: Settings | None = None, patient: bool = False
) -> Window:
    """Make the window on a project, with unsaved work kept under `root`; without settings with none of its own.

    A `patient` one waits for its numbers and for every proof: for pictures and tests.
    """
    # The collector rests until the window is made: nothing of it can be let go yet.
    gc.disable()
    try:
        autosave = Autosave(root)
        app = application()
        # A caret that blinks wakes the processor twice a second, for ever.
        app.setCursorFlashTime(0)
        dress(app, DAY)
        settings = settings or Settings(root / "desk.ini")
        catalogue = load(settings.terms) if settings.terms else catalogue_for(os.environ)
        speak(catalogue)
        document = Document(project, autosave, file, catalogue)
        if patient:
            document.numbers_ready(patient=True)
        return Window(document, autosave, settings)
    finally:
        gc.freeze()
        gc.enable()


def open_desk(path: Path | None, demo: bool = False, seen: LastView | None = None) -> int:
    """Open the desk on a file, on the sample piece, or on a new piece; gives the exit status.

    Parameters
    ----------
    path : Path, optional
        The file.
    demo : bool
        Whether the sample is opened.
    seen : LastView, optional
        What is shown until the window is there; whoever closes it wants no window.
    """
    settings = Settings(settings_file())
    app = application(settings.text_size)
    project = Project(marks=Marks(settings.unit or Unit.MM))
    if demo:
        from nullah.demo.seed_cabinet import seed_cabinet

        project = seed_cabinet()
    window = make_window(project, state_folder() / "unsaved", settings=settings)
    app.processEvents()
    if seen is not None and seen.closed_by_user:
        return 0
    watch, ending = ErrorWatch(window, state_folder()), ShutdownWatch(window.keep)
    window.appearance.follow_theme()
    app.styleHints().colorSchemeChanged.connect(lambda _: window.appearance.follow_theme())
    if path is None and not demo:
        window.show_start()
        QTimer.singleShot(_START_PAGE_RESTS, lambda: _keep_start_page(window))
    if path is not None:
        window.open_path(path)
    window.papers.offer_kept()
    if seen is not None and 0 < seen.station < len(STATIONS):
        window.show_station(seen.station)
    window.show()
    if seen is not None:
        seen.make_way()
        window.activateWindow()
    numbers, files = Loader(_numbers), Loader(_files)
    numbers.finished.connect(window.document.numbers_ready)
    numbers.finished.connect(files.start)
    files.finished.connect(spare_the_collector)
    # After the first paint: the window is usable before NumPy has loaded.
    QTimer.singleShot(60, numbers.start)
    # Whoever was quick has closed it already, and nothing would end the loop.
    status = app.exec() if window.isVisible() else 0
    ending.end()
    watch.end()
    numbers.wait()
    files.wait()
    # A proof that is still under way must not outlive what it proves.
    window.document.rest()
    window.rest()
    # Who looked at the sample may have begun a piece of their own: that is not what the next sight of it should be.
    still_sample = demo and window.document.project.piece.name == project.piece.name
    if still_sample or window.document.file is not None:
        keep_view(window, opened_name(window.document.file, demo), views_folder(), write_file, window.station)
    if window.start_again:
        _start_again(window.document)
    return status


def _keep_start_page(window: Window) -> None:
    if window.over.start.isVisible():
        keep_view(window, opened_name(None, demo=False), views_folder(), write_file)


def _start_again(document: Document) -> None:
    """Put a new program in the place of this one, on the same file; what is unsaved is kept and offered there."""
    os.environ.pop("QT_SCALE_FACTOR", None)
    file = [str(document.file)] if document.file is not None and not document.unsaved else []
    os.execv(sys.executable, [sys.executable, "-m", "nullah", *file])
