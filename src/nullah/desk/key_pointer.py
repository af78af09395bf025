"""A pointer on a drawing that is moved by keys: whatever can be dragged with the mouse can be dragged with it."""

from __future__ import annotations

from typing import Protocol, runtime_checkable

from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPen
from PySide6.QtWidgets import QWidget

from nullah.paper.palette import Palette

#: Pixels it moves with an arrow: alone, with Shift, with Ctrl.
_STEP, _SMALL, _LARGE = 8.0, 1.0, 40.0
_ARM = 14.0
_WAYS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}


class Pointed(Protocol):
    """What can be pressed and dragged at points of a widget."""

    def press_at(self, at: QPointF) -> None:
        """Press."""

    def move_to(self, at: QPointF) -> None:
        """Move, pressed or not."""

    def release_at(self, at: QPointF) -> None:
        """Let go."""

    def give_up(self) -> None:
        """Give up what is being dragged."""


class KeyPointer:
    """Moves by the arrows; Space or Return presses, and lets go; Escape gives up, or takes the pointer away."""

    def __init__(self, widget: QWidget, pointed: Pointed) -> None:
        self._widget, self._pointed = widget, pointed
        self.at: QPointF | None = None
        self.held = False

    def take(self, at: QPointF) -> None:
        """Put the pointer on a point; take it away where it is there already."""
        if self.at is not None:
            self.put_away()
            return
        self.at = at
        self._widget.setFocus()
        self._widget.update()

    def put_away(self) -> None:
        """Take the pointer away, and give up what it drags."""
        if self.held:
            self._pointed.give_up()
        self.at, self.held = None, False
        self._widget.update()

    def key(self, event: QKeyEvent) -> bool:
        """Take a key; False leaves it to the widget."""
        if self.at is None:
            return False
        key = Qt.Key(event.key())
        if key in _WAYS:
            self._move(_WAYS[key], event.modifiers())
        elif key in (Qt.Key.Key_Space, Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._press_or_let_go(self.at)
        elif key == Qt.Key.Key_Escape and self.held:
            self.held = False
            self._pointed.give_up()
        elif key == Qt.Key.Key_Escape:
            self.put_away()
        else:
            return False
        self._widget.update()
        return True

    def _move(self, way: tuple[int, int], modifiers: Qt.KeyboardModifier) -> None:
        assert self.at is not None
        step = _STEP
        if modifiers & Qt.KeyboardModifier.ShiftModifier:
            step = _SMALL
        elif modifiers & Qt.KeyboardModifier.ControlModifier:
            step = _LARGE
        x = min(max(self.at.x() + way[0] * step, 0.0), self._widget.width() - 1.0)
        y = min(max(self.at.y() + way[1] * step, 0.0), self._widget.height() - 1.0)
        self.at = QPointF(x, y)
        self._pointed.move_to(self.at)

    def _press_or_let_go(self, at: QPointF) -> None:
        self.held = not self.held
        if self.held:
            self._pointed.press_at(at)
        else:
            self._pointed.release_at(at)

    def paint(self, painter: QPainter, palette: Palette) -> None:
        """Paint it, where it is: a cross, with a ring while it holds something."""
        if self.at is None:
            return
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for colour, wide in ((palette.sheet, 5.0), (palette.accent, 2.0)):
            painter.setPen(QPen(QColor(colour), wide))
            for x, y in _WAYS.values():
                painter.drawLine(self.at + QPointF(x, y) * 3, self.at + QPointF(x, y) * _ARM)
            if self.held:
                painter.drawEllipse(self.at, _ARM, _ARM)


@runtime_checkable
class HasPointer(Protocol):
    """What can be pointed at by keys."""

    def take_pointer(self) -> None:
        """Put the pointer on it, or take it away."""
