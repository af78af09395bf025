"""The bench: a drawing to scale that is worked on directly."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QEvent, QPoint, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QContextMenuEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPolygonF,
    QResizeEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QWidget

from nullah.core.drawing import Dimension, Drawing, Element, Label, Path, Point, Ring
from nullah.core.refs import Ref
from nullah.paper.lettering import typeface
from nullah.paper.painter import Scale, dimension_line, dimension_text, extent, paint
from nullah.paper.palette import DAY, Palette

#: Pixels for a millimetre of paper: a fifth larger than true at 96 dpi, for whoever stands a metre off.
PAPER_PX = 96 / 25.4 * 1.2
_MARGIN = 22


class Tool:
    """What the pointer does on the bench; a station gives its own. All points in mm of the drawing."""

    def press(self, at: Point, ref: Ref | None) -> bool:
        """Begin to drag something; False leaves the press to the bench (pick, or type a figure)."""
        return False

    def drag(self, at: Point) -> None:
        """Follow the pointer."""

    def release(self, at: Point) -> None:
        """Finish the drag."""

    def cancel(self) -> None:
        """Give the drag up (Escape)."""

    def cursor(self, at: Point, ref: Ref | None) -> Qt.CursorShape:
        """Return the pointer's shape over something."""
        return Qt.CursorShape.ArrowCursor

    def key(self, event: QKeyEvent) -> bool:
        """Take a key; False leaves it to the bench."""
        return False


class Bench(QWidget):
    """Shows a drawing, zooms and moves it, and tells what was clicked.

    `clicked` carries the reference of what was clicked (None for the ground) and where, in the
    widget. Wheel zooms, the middle button or Space with the left moves, 0 fits, 1 is true size. Left and
    Right go through what can be typed or picked, Enter takes it.
    """

    clicked = Signal(object, QPointF)
    #: What lies under the pointer and where on the screen: its menu is wanted.
    menu_wanted = Signal(object, QPoint)
    #: The drawing lies elsewhere on the bench than before.
    moved = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAccessibleName("Bench")
        self.palette_ = DAY
        self.drawing = Drawing()
        self.overlay = Drawing()
        self.invitation = ""
        self.lit: frozenset[Ref] = frozenset()
        self.hot: Ref | None = None
        self.to_scale = True
        self.tool = Tool()
        self.scale = Scale(1.0, PAPER_PX)
        self._fitted = True
        self._dragging = False
        self._moving: QPointF | None = None
        self._space = False
        self._clear: QRectF | None = None

    def minimumSizeHint(self) -> QSize:
        return QSize(360, 160)

    # --- what is shown ---

    def show_drawing(
        self, drawing: Drawing, invitation: str, lit: frozenset[Ref], refit: bool, to_scale: bool = True
    ) -> None:
        """Show a drawing; `refit` puts the whole of it on the bench."""
        self.drawing, self.invitation, self.lit, self.to_scale = drawing, invitation, lit, to_scale
        if self.hot not in self.targets():
            self.hot = None
        self.setAccessibleDescription("" if drawing.elements else invitation)
        if refit and not self._dragging:
            self.fit()
        self.update()

    def set_palette(self, palette: Palette) -> None:
        """Take another theme."""
        self.palette_ = palette
        self.update()

    def fit(self) -> None:
        """Put the whole drawing on the bench."""
        self._fitted = True
        if not self.drawing.elements or self.width() < 10:
            return
        left, top, right, bottom = self.drawing.bounds()
        wide, high = max(right - left, 1.0), max(bottom - top, 1.0)
        room = QRectF(self.rect()).adjusted(_MARGIN, _MARGIN, -_MARGIN, -_MARGIN)
        per_mm = min(room.width() / wide, room.height() / high)
        # Type and dimensions do not shrink with the drawing: leave them the room they take.
        taken = extent(self.drawing, Scale(per_mm, PAPER_PX))
        fixed_wide, fixed_high = taken.width() - wide * per_mm, taken.height() - high * per_mm
        per_mm = min((room.width() - fixed_wide) / wide, (room.height() - fixed_high) / high)
        per_mm = max(per_mm, 0.01)
        taken = extent(self.drawing, Scale(per_mm, PAPER_PX))
        shift = room.center() - taken.center()
        self.scale = Scale(per_mm, PAPER_PX, (shift.x(), shift.y()))
        self._lies_elsewhere()

    def _lies_elsewhere(self) -> None:
        self.update()
        self.moved.emit()

    def keep_clear(self, box: QRectF | None) -> None:
        """Keep labels away from a box of the widget: something else stands there."""
        if box != self._clear:
            self._clear = box
            self.update()

    def true_size(self) -> None:
        """Show the drawing at its true size on this screen, about the middle of the bench."""
        screen = self.screen().physicalDotsPerInch() / 25.4
        self.zoom(screen / self.scale.per_mm, QPointF(self.width() / 2, self.height() / 2))

    def zoom(self, factor: float, about: QPointF) -> None:
        """Zoom about a point of the widget."""
        per_mm = min(40.0, max(0.02, self.scale.per_mm * factor))
        factor = per_mm / self.scale.per_mm
        x = about.x() - (about.x() - self.scale.origin[0]) * factor
        y = about.y() - (about.y() - self.scale.origin[1]) * factor
        self.scale = Scale(per_mm, PAPER_PX, (x, y))
        self._fitted = False
        self._lies_elsewhere()

    def zoom_middle(self, factor: float) -> None:
        """Zoom about the middle of the bench."""
        self.zoom(factor, QPointF(self.width() / 2, self.height() / 2))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(self.palette_.sheet))
        paint(painter, self.drawing, self.scale, self.palette_, lit=self.lit, hot=self.hot)
        paint(painter, self.overlay, self.scale, self.palette_, lit=self.lit)
        if not self.drawing.elements:
            self._paint_invitation(painter)
        elif self.to_scale:
            self._paint_scale(painter)
        if self.hasFocus():
            painter.setPen(QColor(self.palette_.accent))
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))
        painter.end()

    def _paint_scale(self, painter: QPainter) -> None:
        """Say at the lower left how large things are drawn."""
        ratio = self.screen().physicalDotsPerInch() / 25.4 / self.scale.per_mm
        words = "true size" if abs(ratio - 1) < 0.01 else f"1 : {ratio:.1f}" if ratio > 1 else f"{1 / ratio:.1f} : 1"
        painter.setFont(typeface(13))
        painter.setPen(QColor(self.palette_.quiet))
        painter.drawText(QPointF(10, self.height() - 9), words)

    def _paint_invitation(self, painter: QPainter) -> None:
        painter.setFont(typeface(19))
        painter.setPen(QColor(self.palette_.quiet))
        box = QRectF(self.rect()).adjusted(self.width() * 0.18, 0, -self.width() * 0.18, 0)
        painter.drawText(box, int(Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap), self.invitation)

    # --- pointing ---

    def targets(self) -> tuple[Ref, ...]:
        """Return what on the drawing can be picked or typed, in reading order, each once."""
        return tuple(dict.fromkeys(e.ref for e in self.drawing.elements if e.ref is not None))

    def at(self, position: QPointF) -> Ref | None:
        """Return what lies at a point of the widget, the uppermost first."""
        found: Ref | None = None
        for element in reversed(self.drawing.elements):
            if element.ref is not None and self._covers(element, position):
                # A figure to type is small: it goes before names that stand over it.
                if isinstance(element, Dimension):
                    return element.ref
                found = found or element.ref
        return found

    def _covers(self, element: Element, position: QPointF) -> bool:
        match element:
            case Dimension():
                a, b = dimension_line(element, self.scale)
                words = dimension_text(element, self.scale).box().adjusted(-6, -8, 6, 8)
                return words.contains(position) or QRectF(a, b).normalized().adjusted(-3, -3, 3, 3).contains(position)
            case Path(closed=True):
                polygon = QPolygonF([self.scale.put(point) for point in element.points])
                return polygon.containsPoint(position, Qt.FillRule.OddEvenFill)
            case Label():
                return self._box_of(element).contains(position)
            case Ring():
                at = self.scale.put(element.at) + QPointF(*element.nudge_mm) * PAPER_PX
                return QRectF(at.x() - 16, at.y() - 16, 32, 32).contains(position)
            case _:
                return False

    def _box_of(self, label: Label) -> QRectF:
        """Return about where the words of a label stand."""
        at = self.scale.put(label.at) + QPointF(*label.nudge_mm) * PAPER_PX
        wide = max(len(label.text) * label.size_mm * PAPER_PX * 0.5, 24.0)
        left = {"start": 0.0, "middle": -wide / 2, "end": -wide}[label.anchor.value]
        return QRectF(at.x() + left, at.y() - 12, wide, 24)

    def box_of(self, ref: Ref) -> QRectF | None:
        """Return the box of the widget round what shows something; None where nothing does."""
        found: QRectF | None = None
        for element in self.drawing.elements:
            if element.ref != ref:
                continue
            match element:
                case Path():
                    box = QPolygonF([self.scale.put(point) for point in element.points]).boundingRect()
                case Label():
                    box = self._box_of(element)
                case Ring():
                    at = self.scale.put(element.at) + QPointF(*element.nudge_mm) * PAPER_PX
                    box = QRectF(at.x() - 12, at.y() - 12, 24, 24)
                case Dimension():
                    box = dimension_text(element, self.scale).box()
            found = box if found is None else found.united(box)
        return found

    def place_of(self, ref: Ref) -> QPointF:
        """Return a point of the widget on it: the middle of its dimension or area."""
        for element in self.drawing.elements:
            if element.ref != ref:
                continue
            match element:
                case Dimension():
                    return dimension_text(element, self.scale).middle
                case Path():
                    return QPolygonF([self.scale.put(point) for point in element.points]).boundingRect().center()
                case Label():
                    return self._box_of(element).center()
                case Ring():
                    return self.scale.put(element.at) + QPointF(*element.nudge_mm) * PAPER_PX
        return QPointF(self.width() / 2, self.height() / 2)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        position = event.position()
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        if event.button() == Qt.MouseButton.MiddleButton or self._space:
            self._moving = position
            self.setCursor(Qt.CursorShape.ClosedHandCursor)
            return
        if event.button() != Qt.MouseButton.LeftButton:
            return
        ref = self.at(position)
        if self.tool.press(self.scale.back(position.x(), position.y()), ref):
            self._dragging = True
            return
        self.clicked.emit(ref, position)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        position = event.position()
        point = self.scale.back(position.x(), position.y())
        if self._moving is not None:
            shift = position - self._moving
            origin = (self.scale.origin[0] + shift.x(), self.scale.origin[1] + shift.y())
            self.scale = Scale(self.scale.per_mm, PAPER_PX, origin)
            self._moving, self._fitted = position, False
            self._lies_elsewhere()
        elif self._dragging:
            self.tool.drag(point)
            self.update()
        else:
            ref = self.at(position)
            if ref != self.hot:
                self.hot = ref
                self.update()
            self.setCursor(self.tool.cursor(point, ref))

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self._moving is not None:
            self._moving = None
            self.setCursor(Qt.CursorShape.ArrowCursor)
        elif self._dragging:
            self._dragging = False
            self.tool.release(self.scale.back(event.position().x(), event.position().y()))
            self.update()

    def leaveEvent(self, event: QEvent) -> None:
        if not self._dragging and self.hot:
            self.hot = None
            self.update()

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        if event.reason() is QContextMenuEvent.Reason.Mouse:
            self.menu_wanted.emit(self.at(QPointF(event.pos())), event.globalPos())
            return
        # By the key: of what the keyboard points at.
        at = self.place_of(self.hot) if self.hot is not None else QPointF(self.width() / 2, self.height() / 2)
        self.menu_wanted.emit(self.hot, self.mapToGlobal(at.toPoint()))

    def wheelEvent(self, event: QWheelEvent) -> None:
        self.zoom(1.0015 ** event.angleDelta().y(), event.position())

    def resizeEvent(self, event: QResizeEvent) -> None:
        if self._fitted:
            self.fit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = event.key()
        if self.tool.key(event):
            self.update()
            return
        keys: dict[int, Callable[[], None]] = {
            Qt.Key.Key_0: self.fit,
            Qt.Key.Key_1: self.true_size,
            Qt.Key.Key_Plus: lambda: self.zoom_middle(1.25),
            Qt.Key.Key_Equal: lambda: self.zoom_middle(1.25),
            Qt.Key.Key_Minus: lambda: self.zoom_middle(0.8),
            Qt.Key.Key_Right: lambda: self._go(1),
            Qt.Key.Key_Left: lambda: self._go(-1),
        }
        if key == Qt.Key.Key_Space:
            self._space = True
        elif key == Qt.Key.Key_Escape and self._dragging:
            self._dragging = False
            self.tool.cancel()
            self.update()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.hot:
            self.clicked.emit(self.hot, self.place_of(self.hot))
        elif key in keys:
            keys[key]()
        else:
            super().keyPressEvent(event)

    def keyReleaseEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Space:
            self._space = False

    def _go(self, way: int) -> None:
        """Point at the next thing that can be picked or typed."""
        targets = self.targets()
        if targets:
            index = targets.index(self.hot) + way if self.hot in targets else (0 if way > 0 else -1)
            self.hot = targets[index % len(targets)]
            self.update()
