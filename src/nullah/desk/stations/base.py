"""What every station's desk has, and the row it puts its choices in."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import TypeVar

from PySide6.QtCore import QEvent, QRect, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import (
    QButtonGroup,
    QComboBox,
    QHBoxLayout,
    QLabel,
    QLayout,
    QLayoutItem,
    QLineEdit,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from nullah.core.fixes import Fix
from nullah.core.refs import Ref
from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document


class StationDesk(QWidget):
    """A station on the desk: the widget is its row of choices, `tool` what the pointer does.

    `page_wanted` tells that something else is to stand in the place of the drawing, or nothing.
    """

    page_wanted = Signal()
    #: The rows want another height than they had.
    resized = Signal()

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__()
        self.document, self.bench = document, bench
        self.tool: Tool = Tool()
        self.rows = QVBoxLayout(self)
        self.rows.setContentsMargins(14, 6, 14, 4)
        self.rows.setSpacing(2)

    def event(self, event: QEvent) -> bool:
        done = super().event(event)
        if event.type() == QEvent.Type.LayoutRequest:
            self.resized.emit()
        return done

    def refresh(self) -> None:
        """Show what the document holds now."""

    def page(self) -> QWidget | None:
        """Return what stands in the place of the drawing, if anything does."""
        return None

    def leave(self) -> None:
        """Stop whatever runs aside: the window closes."""

    def clicked(self, ref: Ref | None) -> bool:
        """Take a click on something of one's own; False leaves it to the frame."""
        return False

    def fix(self, fix: Fix) -> None:
        """Carry out a way out that is this station's own."""

    def row(self) -> Flow:
        """Begin a row of choices; where the window is narrow it goes on in the next line."""
        layout = Flow()
        self.rows.addLayout(layout)
        return layout


class Flow(QLayout):
    """A row that goes on in the next line where there is no room."""

    def __init__(self) -> None:
        super().__init__()
        self._items: list[QLayoutItem] = []
        self.setSpacing(8)

    def addItem(self, item: QLayoutItem) -> None:
        self._items.append(item)

    def count(self) -> int:
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        return self._items.pop(index) if 0 <= index < len(self._items) else None

    def insert(self, place: int, widget: QWidget) -> None:
        """Put a widget before what stands at `place`."""
        self.addWidget(widget)
        self._items.insert(place, self._items.pop())
        self.invalidate()

    def hasHeightForWidth(self) -> bool:
        return True

    def heightForWidth(self, width: int) -> int:
        return self._place(QRect(0, 0, width, 0), move=False)

    def sizeHint(self) -> QSize:
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        widest = max((item.minimumSize().width() for item in self._items), default=0)
        return QSize(widest, max((item.sizeHint().height() for item in self._items), default=0))

    def setGeometry(self, room: QRect) -> None:
        super().setGeometry(room)
        self._place(room, move=True)

    def _place(self, room: QRect, move: bool) -> int:
        """Put the items in lines; give the height they take."""
        lines: list[list[QLayoutItem]] = [[]]
        x = 0
        for item in self._items:
            if item.isEmpty():
                continue
            wide = item.sizeHint().width()
            if lines[-1] and x + wide > room.width():
                lines.append([])
                x = 0
            lines[-1].append(item)
            x += wide + self.spacing()
        y = room.y()
        for line in lines:
            high = max((item.sizeHint().height() for item in line), default=0)
            x = room.x()
            for item in line:
                size = item.sizeHint()
                if move:
                    item.setGeometry(
                        QRect(x, y + (high - size.height()) // 2, min(size.width(), room.width()), size.height())
                    )
                x += size.width() + self.spacing()
            y += high + 3
        return y - 3 - room.y()


def words(text: str, row: QLayout, quiet: bool = True) -> QLabel:
    """Put words into a row."""
    label = QLabel(text)
    label.setTextFormat(Qt.TextFormat.PlainText)
    label.setProperty("quiet", "true" if quiet else "false")
    label.setMinimumWidth(label.sizeHint().width() if text else 0)
    row.addWidget(label)
    return label


class Chooser(QComboBox):
    """A choice, as wide as what is chosen, with a mark at its right that says it opens."""

    def sizeHint(self) -> QSize:
        # Not the base's hint, which measures every option there is.
        wanted = self.fontMetrics().horizontalAdvance(self.currentText() or "…") + 40
        return QSize(max(wanted, 48), max(32, self.fontMetrics().height() + 14))

    def minimumSizeHint(self) -> QSize:
        return self.sizeHint()

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        painter = QPainter(self)
        painter.setPen(self.palette().color(self.foregroundRole()))
        box = QRectF(self.width() - 24, 0, 18, self.height())
        painter.drawText(box, int(Qt.AlignmentFlag.AlignCenter), "▾")
        painter.end()


def labelled(text: str, widget: QWidget, row: QLayout) -> QWidget:
    """Put a field into a row with its words before it, never parted by the end of a line; give the pair."""
    pair = QWidget()
    beside = QHBoxLayout(pair)
    beside.setContentsMargins(0, 0, 0, 0)
    beside.setSpacing(6)
    words(text, beside)
    beside.addWidget(widget)
    row.addWidget(pair)
    return pair


def entry(name: str, width: int, entered: Callable[[], object] | None = None) -> QLineEdit:
    """Make a bare line to type in: its name for those who cannot see it, and what Enter does."""
    field = QLineEdit()
    field.setAccessibleName(name)
    field.setFixedWidth(width)
    field.setMinimumHeight(32)
    if entered is not None:
        field.returnPressed.connect(entered)
    return field


def chooser(
    name: str, options: list[tuple[str, str]], chosen: Callable[[str], None], row: QLayout, label: str = ""
) -> QComboBox:
    """Put a choice into a row, after `label`; `options` are pairs of value and words."""
    box = Chooser()
    box.setAccessibleName(name)
    for value, text in options:
        box.addItem(text, value)
    # Its width is that of what is chosen, whoever chose it.
    box.currentIndexChanged.connect(lambda _: box.updateGeometry())
    box.activated.connect(lambda _: chosen(str(box.currentData())))
    if label:
        labelled(label, box, row)
    else:
        row.addWidget(box)
    return box


def show_choice(box: QComboBox, value: str) -> None:
    """Show a value in a choice without choosing it."""
    index = box.findData(value)
    if index >= 0 and index != box.currentIndex():
        box.setCurrentIndex(index)


Way = TypeVar("Way")


def tabs(
    owner: QWidget, options: Iterable[tuple[Way, str]], chosen: Callable[[Way], None], row: QLayout
) -> dict[Way, QPushButton]:
    """Put ways of looking into a row, of which one is chosen; `options` are pairs of value and words."""
    group = QButtonGroup(owner)
    made: dict[Way, QPushButton] = {}
    for value, text in options:
        button = QPushButton(text)
        button.setCheckable(True)
        button.setProperty("tab", "true")
        button.setAccessibleName(text)
        button.setMinimumHeight(32)
        button.clicked.connect(lambda _=False, value=value: chosen(value))
        group.addButton(button)
        row.addWidget(button)
        made[value] = button
    return made


def action(text: str, done: Callable[[], object], row: QLayout, main: bool = False) -> QPushButton:
    """Put something to do into a row."""
    button = QPushButton(text)
    button.setAccessibleName(text)
    button.setProperty("main", "true" if main else "false")
    button.setMinimumHeight(32)
    button.clicked.connect(lambda: done())
    row.addWidget(button)
    return button
