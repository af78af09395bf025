"""The frame of the window: rod, bench, column, strip and what stands above them; the same at every station."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QGridLayout, QMainWindow, QSplitter, QStackedWidget, QVBoxLayout, QWidget

from nullah.desk.banner import Banner
from nullah.desk.bench import Bench
from nullah.desk.column import USUAL, Column
from nullah.desk.document import Document
from nullah.desk.header import Header
from nullah.desk.rod import Rod
from nullah.desk.settings import Settings
from nullah.desk.strip import PartStrip
from nullah.desk.tag import Tag

#: The window is no smaller, where the screen is not, pixels.
_LEAST = (900, 600)


class FrameWindow(QMainWindow):
    """A window with everything in its place, and nothing shown in it yet."""

    def __init__(self, document: Document, settings: Settings) -> None:
        super().__init__()
        self.document, self.settings = document, settings
        self.header, self.banner = Header(document), Banner()
        self.rod, self.bench, self.column, self.strip = Rod(), Bench(), Column(), PartStrip()
        self.card = self.column.card
        self.tag = Tag(self.bench)
        self.lines = QStackedWidget()
        self.lines.setFixedHeight(40)
        self.place = QStackedWidget()
        self.place.addWidget(self.bench)
        middle = QWidget()
        inner = QVBoxLayout(middle)
        inner.setContentsMargins(0, 0, 0, 0)
        inner.setSpacing(0)
        inner.addWidget(self.lines)
        inner.addWidget(self.place, 1)
        self.split = QSplitter(Qt.Orientation.Horizontal)
        self.split.setHandleWidth(5)
        self.split.addWidget(middle)
        self.split.addWidget(self.column)
        self.split.setCollapsible(0, False)
        self.split.setStretchFactor(0, 1)
        self.split.setStretchFactor(1, 0)
        self.split.setSizes([10_000, USUAL])
        self.frame = QWidget()
        self.frame.setObjectName("frame")
        grid = QGridLayout(self.frame)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(0)
        grid.addWidget(self.header, 0, 0, 1, 2)
        grid.addWidget(self.banner, 1, 0, 1, 2)
        grid.addWidget(self.rod, 2, 0)
        grid.addWidget(self.split, 2, 1)
        grid.addWidget(self.strip, 3, 0, 1, 2)
        grid.setColumnStretch(1, 1)
        grid.setRowStretch(2, 1)
        self.setCentralWidget(self.frame)

    def come_back(self) -> None:
        """Come back where and how the window was left, and never larger than the screen's free room."""
        free = self.screen().availableGeometry()
        self.setMinimumSize(min(_LEAST[0], free.width()), min(_LEAST[1], free.height()))
        self.resize(min(1280, free.width()), min(800, free.height()))
        self.restoreGeometry(self.settings.window("geometry"))
        self.resize(min(self.width(), free.width()), min(self.height(), free.height()))
        self.split.restoreState(self.settings.window("column"))

    def fold_column(self) -> None:
        """Fold the column away, or fold it out again."""
        whole = sum(self.split.sizes())
        folded = not self.split.sizes()[1]
        self.split.setSizes([whole - USUAL, USUAL] if folded else [whole, 0])

    def change_full_screen(self) -> None:
        """Fill the screen, or no longer."""
        if self.isFullScreen():
            self.showNormal()
        else:
            self.showFullScreen()

    def copy_drawing(self) -> None:
        """Put what stands in the middle on the clipboard as a picture."""
        QApplication.clipboard().setPixmap(self.place.grab())
