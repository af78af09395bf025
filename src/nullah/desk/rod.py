"""The rod: a marked stick at the left, one knife mark a station, in the order of work."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QFocusEvent, QKeyEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QAbstractButton, QSizePolicy, QVBoxLayout, QWidget

from nullah.core.stations import STATIONS
from nullah.desk.tips import plain_tip
from nullah.language import tr
from nullah.paper.lettering import typeface
from nullah.paper.palette import DAY, Palette, mixed

_STICK = 15
_LEFT = 14


class _Mark(QAbstractButton):
    """One station's mark on the rod, with its title and its state in words."""

    def __init__(self, title: str, number: int) -> None:
        super().__init__()
        self.setCheckable(True)
        self.setAutoExclusive(True)
        self.setText(title)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setToolTip(tr("{title} (Ctrl+{number})", title=title, number=number))
        self.palette_: Palette = DAY
        self.state = ""

    def sizeHint(self) -> QSize:
        return QSize(164, 72)

    def minimumSizeHint(self) -> QSize:
        return QSize(150, 46)

    def paintEvent(self, event: QPaintEvent) -> None:
        palette = self.palette_
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        wood = mixed("#cfb78f", palette.ground, 0.35)
        painter.fillRect(QRectF(_LEFT, 0, _STICK, self.height()), QColor(wood))
        middle = self.height() / 2
        chosen = self.isChecked()
        painter.setPen(QPen(QColor(palette.accent if chosen else palette.wood_line), 3 if chosen else 1.2))
        painter.drawLine(QPointF(_LEFT, middle), QPointF(_LEFT + _STICK + (10 if chosen else 5), middle))
        left = _LEFT + _STICK + 17
        room = self.width() - left - 4
        painter.setFont(typeface(17, bold=chosen))
        painter.setPen(QColor(palette.accent if chosen else palette.text))
        painter.drawText(QRectF(left, middle - 23, room, 24), int(Qt.AlignmentFlag.AlignVCenter), self.text())
        font = typeface(13)
        painter.setFont(font)
        painter.setPen(QColor(palette.quiet))
        words = painter.fontMetrics().elidedText(self.state, Qt.TextElideMode.ElideRight, int(room))
        painter.drawText(QRectF(left, middle + 1, room, 20), int(Qt.AlignmentFlag.AlignVCenter), words)
        if self.hasFocus():
            painter.setPen(QPen(QColor(palette.accent), 2))
            painter.drawRect(QRectF(left - 6, middle - 25, room + 6, 49))
        painter.end()

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        self.update()


class Rod(QWidget):
    """The way round: `chosen` carries the number of the station picked."""

    chosen = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("Stations"))
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 10, 0, 10)
        column.setSpacing(0)
        self.marks: list[_Mark] = []
        for index, station in enumerate(STATIONS):
            mark = _Mark(tr(station.title), index + 1)
            mark.clicked.connect(lambda _=False, i=index: self.chosen.emit(i))
            column.addWidget(mark)
            self.marks.append(mark)
        self.setFixedWidth(176)

    def show_states(self, states: list[str], current: int) -> None:
        """Show each station's state and which one is open."""
        for index, (mark, state) in enumerate(zip(self.marks, states, strict=True)):
            mark.state = state
            mark.setChecked(index == current)
            mark.setAccessibleName(f"{mark.text()}: {state}")
            mark.setToolTip(plain_tip(f"{mark.text()}: {state} (Ctrl+{index + 1})"))
            mark.update()

    def set_palette(self, palette: Palette) -> None:
        """Take another theme."""
        for mark in self.marks:
            mark.palette_ = palette
            mark.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        way = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()), 0)
        current = next((i for i, mark in enumerate(self.marks) if mark.isChecked()), 0)
        if way and 0 <= current + way < len(self.marks):
            self.chosen.emit(current + way)
            self.marks[current + way].setFocus()
        else:
            super().keyPressEvent(event)
