"""The window as it was last seen: shown while the window itself is being made.

Nothing of the piece is loaded here, so that it is there as soon as a bare window.
"""

from __future__ import annotations

import contextlib
from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QBuffer, QByteArray, QCryptographicHash, QIODevice, Qt
from PySide6.QtGui import QCloseEvent, QImage, QImageWriter, QPainter, QPaintEvent
from PySide6.QtWidgets import QApplication, QWidget

from nullah.desk.application import application
from nullah.desk.state import settings_file, state_folder
from nullah.desk.window_settings import WindowSettings

#: So many pictures are kept, of what was opened last.
MOST_KEPT = 8
#: Under which names a picture holds the title of the window and the number of the station.
_TITLE, _STATION = "Title", "Station"


class LastView(QWidget):
    """A picture of the window in its place.

    `closed_by_user` says whether it was closed by whoever looks at it, `station` which station is seen, by its number.
    """

    def __init__(self, picture: QImage, geometry: QByteArray) -> None:
        super().__init__()
        self._picture = picture
        self.closed_by_user = False
        station = picture.text(_STATION)
        self.station = int(station) if station.isdecimal() else 0
        self.setWindowTitle(picture.text(_TITLE))
        self.setCursor(Qt.CursorShape.BusyCursor)
        self.resize(picture.deviceIndependentSize().toSize())
        self.restoreGeometry(geometry)

    def paintEvent(self, event: QPaintEvent) -> None:
        QPainter(self).drawImage(self.rect(), self._picture)

    def closeEvent(self, event: QCloseEvent) -> None:
        self.closed_by_user = True

    def make_way(self) -> None:
        """Go once the window itself is painted."""
        QApplication.processEvents()
        self.hide()
        self.deleteLater()


def show_last_view(file: Path | None, demo: bool = False) -> LastView | None:
    """Show how the window was last seen with a file, the sample or the start page; None where that was never seen."""
    settings = WindowSettings(settings_file())
    application(settings.text_size)
    seen = last_view(opened_name(file, demo), views_folder(), settings.window("geometry"))
    if seen is not None:
        seen.show()
        QApplication.processEvents()
    return seen


def opened_name(file: Path | None, demo: bool) -> str:
    """Return under which name a picture is kept: of a file its path, else of the sample or the start page."""
    return str(file.absolute()) if file is not None else "sample" if demo else "start"


def views_folder() -> Path:
    """Return the folder where pictures of the window are kept."""
    return state_folder() / "views"


def last_view(opened: str, folder: Path, geometry: QByteArray) -> LastView | None:
    """Return how the window was last seen with something opened; None where no picture of that is kept.

    Parameters
    ----------
    opened : str
        What is being opened: the path of a file, or a name of something else.
    folder : Path
        Where pictures are kept.
    geometry : QByteArray
        Where the window was left.
    """
    picture = QImage()
    file = _picture_file(opened, folder)
    if not file.is_file() or not picture.load(str(file)):
        return None
    return LastView(picture, geometry)


def keep_view(
    window: QWidget, opened: str, folder: Path, write: Callable[[Path, bytes], None], station: int = 0
) -> None:
    """Keep how a window looks; a disk that refuses only leaves the next start without a picture.

    Parameters
    ----------
    window : QWidget
    opened : str
        What is open in it.
    folder : Path
        Where pictures are kept: those of the last `MOST_KEPT` things opened.
    write : callable
        Writes a whole file.
    station : int
        The number of the station that is seen.
    """
    picture = window.grab().toImage()
    picture.setText(_TITLE, window.windowTitle())
    picture.setText(_STATION, str(station))
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    QImageWriter(buffer, QByteArray(b"png")).write(picture)
    with contextlib.suppress(OSError):
        folder.mkdir(parents=True, exist_ok=True)
        write(_picture_file(opened, folder), bytes(buffer.data().data()))
        for old in sorted(folder.glob("*.png"), key=lambda file: file.stat().st_mtime, reverse=True)[MOST_KEPT:]:
            old.unlink()


def _picture_file(opened: str, folder: Path) -> Path:
    name = QCryptographicHash.hash(opened.encode(), QCryptographicHash.Algorithm.Sha256).toHex().toStdString()
    return folder / f"{name[:16]}.png"
