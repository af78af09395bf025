"""What every station's desk has, and the row it puts its choices in."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QBoxLayout, QComboBox, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document


class StationDesk(QWidget):
    """A station on the desk: the widget is its row of choices, `tool` what the pointer does."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__()
        self.document, self.bench = document, bench
        self.tool: Tool = Tool()
        self.rows = QVBoxLayout(self)
        self.rows.setContentsMargins(14, 6, 14, 4)
        self.rows.setSpacing(2)

    def refresh(self) -> None:
        """Show what the document holds now."""

    def clicked(self, of: str) -> bool:
        """Take a click on something of one's own; False leaves it to the frame."""
        return False

    def row(self) -> QHBoxLayout:
        """Begin a row of choices."""
        layout = QHBoxLayout()
        layout.setSpacing(8)
        self.rows.addLayout(layout)
        return layout


def words(text: str, row: QBoxLayout, quiet: bool = True) -> QLabel:
    """Put words into a row."""
    label = QLabel(text)
    label.setTextFormat(Qt.TextFormat.PlainText)
    label.setProperty("quiet", "true" if quiet else "false")
    label.setMinimumWidth(label.sizeHint().width() if text else 0)
    row.addWidget(label)
    return label


class Chooser(QComboBox):
    """A choice, with a mark at its right that says it opens."""

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        painter = QPainter(self)
        painter.setPen(self.palette().color(self.foregroundRole()))
        box = QRectF(self.width() - 24, 0, 18, self.height())
        painter.drawText(box, int(Qt.AlignmentFlag.AlignCenter), "▾")
        painter.end()


def chooser(name: str, options: list[tuple[str, str]], chosen: Callable[[str], None], row: QBoxLayout) -> QComboBox:
    """Put a choice into a row; `options` are pairs of value and words."""
    box = Chooser()
    box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToContents)
    box.setAccessibleName(name)
    for value, text in options:
        box.addItem(text, value)
    box.activated.connect(lambda _: chosen(str(box.currentData())))
    row.addWidget(box)
    return box


def show_choice(box: QComboBox, value: str) -> None:
    """Show a value in a choice without choosing it."""
    index = box.findData(value)
    if index >= 0 and index != box.currentIndex():
        box.setCurrentIndex(index)


def action(text: str, done: Callable[[], object], row: QBoxLayout, main: bool = False) -> QPushButton:
    """Put something to do into a row."""
    button = QPushButton(text)
    button.setAccessibleName(text)
    button.setProperty("main", "true" if main else "false")
    button.setMinimumHeight(32)
    button.clicked.connect(lambda: done())
    row.addWidget(button)
    return button
