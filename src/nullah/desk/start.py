"""Opening the desk."""

from __future__ import annotations

import gc
import os
import sys
from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QThread, QTimer
from PySide6.QtWidgets import QApplication

from nullah.core.lengths import Marks, Unit
from nullah.core.project import Project
from nullah.desk.document import Document
from nullah.desk.errors import ErrorWatch
from nullah.desk.settings import Settings
from nullah.desk.shutdown import ShutdownWatch
from nullah.desk.state import settings_file, state_folder
from nullah.desk.theme import dress
from nullah.desk.window import Window
from nullah.files.catalogues import catalogue_for, load
from nullah.files.recovery import Autosave
from nullah.paper.palette import DAY


def application(text_size: int = 100) -> QApplication:
    """Return the one application object, made at the first call with text and controls of a size in percent."""
    running = QApplication.instance()
    if isinstance(running, QApplication):
        return running
    if text_size != 100:
        # Everything grows with it, so that no word is cut off; Qt takes it only before the application is made.
        os.environ.setdefault("QT_SCALE_FACTOR", str(text_size / 100))
    # Before the application is made, or it would first make another style and drop it.
    QApplication.setStyle("Fusion")
    app = QApplication(sys.argv[:1])
    app.setApplicationName("Nullah")
    # What Wayland and the panel know the window by: the name of the desktop entry.
    app.setDesktopFileName("nullah")
    return app


class Loader(QThread):
    """Loads some libraries beside the window, which stands before they are there."""

    def __init__(self, load: Callable[[], None]) -> None:
        super().__init__()
        self._load = load

    def run(self) -> None:
        self._load()


def _numbers() -> None:
    import nullah.core.milling.forecast
    import nullah.core.proof.prove  # noqa: F401


def _files() -> None:
    # Work is kept a second after the first change: the window would stand still for as long as this takes.
    import nullah.files.schema  # noqa: F401


def spare_the_collector() -> None:
    """Have what stands when the window is whole passed over by the collector, and young things looked at less often.

    Otherwise it goes through all modules and tables in the middle of a change, and the window waits.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)


def make_window(project: Project, root: Path, file: Path | None = None, settings: Settings | None = None) -> Window:
    """Make the window on a project, with unsaved work kept under `root`; without settings with none of its own."""
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
        return Window(Document(project, autosave, file, catalogue), autosave, settings)
    finally:
        gc.enable()


def open_desk(path: Path | None, demo: bool = False) -> int:
    """Open the desk on a file, on the sample piece, or on a new piece; gives the exit status."""
    settings = Settings(settings_file())
    app = application(settings.text_size)
    project = Project(marks=Marks(settings.unit or Unit.MM))
    if demo:
        from nullah.demo.seed_cabinet import seed_cabinet

        project = seed_cabinet()
    window = make_window(project, state_folder() / "unsaved", settings=settings)
    watch, ending = ErrorWatch(window, state_folder()), ShutdownWatch(window.keep)
    window.appearance.follow_theme()
    app.styleHints().colorSchemeChanged.connect(lambda _: window.appearance.follow_theme())
    if path is None and not demo:
        window.show_start()
    if path is not None:
        window.open_path(path)
    window.papers.offer_kept()
    window.show()
    numbers, files = Loader(_numbers), Loader(_files)
    numbers.finished.connect(window.document.numbers_ready)
    numbers.finished.connect(files.start)
    files.finished.connect(spare_the_collector)
    # After the first paint: the window is usable before NumPy has loaded.
    QTimer.singleShot(60, numbers.start)
    status = app.exec()
    ending.end()
    watch.end()
    numbers.wait()
    files.wait()
    # A proof that is still under way must not outlive what it proves.
    window.document.rest()
    window.rest()
    if window.start_again:
        _start_again(window.document)
    return status


def _start_again(document: Document) -> None:
    """Put a new program in the place of this one, on the same file; what is unsaved is kept and offered there."""
    os.environ.pop("QT_SCALE_FACTOR", None)
    file = [str(document.file)] if document.file is not None and not document.unsaved else []
    os.execv(sys.executable, [sys.executable, "-m", "nullah", *file])
