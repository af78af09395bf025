"""The bench: a drawing to scale that is worked on directly."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterator

from PySide6.QtCore import QEvent, QPoint, QPointF, QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import (
    QColor,
    QContextMenuEvent,
    QKeyEvent,
    QMouseEvent,
    QPaintEngine,
    QPainter,
    QPaintEvent,
    QPolygonF,
    QResizeEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QWidget

from nullah.core.drawing import Dimension, Drawing, Element, Label, Path, Point, Ring, Role
from nullah.core.label_placing import LabelBox
from nullah.core.refs import Ref
from nullah.desk.key_pointer import KeyPointer
from nullah.desk.picture import Picture, Place
from nullah.language import tr
from nullah.paper.labels import PlacedText, PlacedTexts, as_boxes, dimension_line, placed_texts, text_of
from nullah.paper.lettering import typeface, width_of
from nullah.paper.painter import extent, paint
from nullah.paper.palette import DAY, Palette
from nullah.paper.scale import Scale
from nullah.paper.tiles import Painting, path_box

#: Pixels for a millimetre of paper: a fifth larger than true at 96 dpi, for whoever stands a metre off.
PAPER_PX = 96 / 25.4 * 1.2
_MARGIN = 22
#: No word stands nearer to the edge of the bench, pixels.
_EDGE = 3.0
#: What is clicked is at least so large each way, pixels.
_TARGET = 26.0
#: The drawing is painted anew when it was not moved for so long, ms, and no longer than this at a stretch, s.
_REST, _STRETCH = 60, 0.006
#: So much of what no longer holds is covered.
_WASH = 0.8
#: Pixels that Ctrl and an arrow move the drawing, and which way.
_PAN = 60.0
_PANS = {Qt.Key.Key_Left: (1, 0), Qt.Key.Key_Right: (-1, 0), Qt.Key.Key_Up: (0, 1), Qt.Key.Key_Down: (0, -1)}


def _grown(box: QRectF) -> QRectF:
    """Return a box grown to what a pointer hits."""
    wide, high = max(_TARGET - box.width(), 12.0) / 2, max(_TARGET - box.height(), 12.0) / 2
    return box.adjusted(-wide, -high, wide, high)


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
    Right go through what can be typed or picked, Enter takes it; a pointer that keys move drags.
    """

    clicked = Signal(object, QPointF)
    #: What lies under the pointer and where on the screen: its menu is wanted.
    menu_wanted = Signal(object, QPoint)
    #: The drawing lies elsewhere on the bench than before.
    moved = Signal()
    #: The keyboard points at something else.
    pointed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAccessibleName(tr("Bench"))
        self.palette_ = DAY
        self.drawing = Drawing()
        self.overlay = Drawing()
        self.invitation = ""
        #: Why what is shown no longer holds, while what takes its place is worked out.
        self.outdated = ""
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
        self._clicked_at = QPointF(-1, -1)
        self.pointer = KeyPointer(self, self)
        self._texts_of, self._texts_for = Drawing(), tuple[object, ...]()
        self._texts = PlacedTexts({})
        self._picture = Picture()
        self._picture_for: tuple[object, ...] = ()
        #: What is left of painting the next picture, of what and for what, where the last stands in for it.
        self._painting: Iterator[None] = iter(())
        self._painting_for: tuple[object, ...] = ()
        self._at_leisure = False
        self._resting = QTimer(self)
        self._resting.setSingleShot(True)
        self._resting.timeout.connect(self._paint_on)

    def minimumSizeHint(self) -> QSize:
        return QSize(360, 160)

    # --- what is shown ---

    def show_drawing(
        self,
        drawing: Drawing,
        invitation: str,
        lit: frozenset[Ref],
        refit: bool,
        to_scale: bool = True,
        at_leisure: bool = False,
    ) -> None:
        """Show a drawing; `refit` puts the whole of it on the bench, `at_leisure` lets others go before it."""
        # Most changes are of something else: what is equal stays the very same, and is not painted again.
        self.drawing, self.outdated = drawing.like(self.drawing), ""
        self._at_leisure = at_leisure
        self.invitation, self.lit, self.to_scale = invitation, lit, to_scale
        if self.hot is not None and self.hot not in self.targets():
            self.hot = None
        self.setAccessibleDescription("" if drawing.elements else invitation)
        if refit and not self._dragging:
            self.fit()
        self.update()

    def say_outdated(self, why: str) -> None:
        """Say over what is shown that it no longer holds; a drawing that is shown next takes its place."""
        self.outdated = why
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
        self._fitted, self._at_leisure = False, True
        self._lies_elsewhere()

    def zoom_middle(self, factor: float) -> None:
        """Zoom about the middle of the bench."""
        self.zoom(factor, QPointF(self.width() / 2, self.height() / 2))

    def texts(self) -> PlacedTexts:
        """Return where the words of the drawing stand, worked out anew when anything lies elsewhere."""
        clear = self._clear
        key = (self.scale, self.size(), clear, self.lit)
        if self.drawing is not self._texts_of or key != self._texts_for:
            self._texts_of, self._texts_for = self.drawing, key
            scale = [self._scale_box()] if self.to_scale else []
            taken = as_boxes([*scale, *([clear] if clear is not None else [])])
            self._texts = placed_texts(self.drawing, self.scale, self._room(), taken, self.lit)
        return self._texts

    def _room(self) -> LabelBox:
        return LabelBox(_EDGE, _EDGE, self.width() - _EDGE, self.height() - _EDGE)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        if painter.paintEngine().type() is QPaintEngine.Type.Raster:
            self._paint_picture()
            self._picture.show(painter, self.scale)
        else:
            painter.fillRect(self.rect(), QColor(self.palette_.sheet))
            paint(*(painter, self.drawing, self.scale, self.palette_), lit=self.lit, hot=self.hot, texts=self.texts())
        if self.overlay.elements:
            over = placed_texts(self.overlay, self.scale, self._room(), tuple(self.texts().boxes()))
            paint(painter, self.overlay, self.scale, self.palette_, lit=self.lit, texts=over)
        if self.outdated:
            wash = QColor(self.palette_.sheet)
            wash.setAlphaF(_WASH)
            painter.fillRect(self.rect(), wash)
            self._paint_words(painter, self.outdated)
        elif not self.drawing.elements:
            self._paint_words(painter, self.invitation)
        elif self.to_scale:
            self._paint_scale(painter)
        if self.hasFocus():
            painter.setPen(QColor(self.palette_.accent))
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))
        self.pointer.paint(painter, self.palette_)
        painter.end()

    def _paint_picture(self) -> None:
        """Paint the drawing if it is another one, or have it painted as soon as there is time."""
        at = Place(self.scale, self.size(), self.devicePixelRatioF(), self.palette_)
        key = (self.drawing, at, self._clear, self.lit, self.hot)
        if self._is(key, self._picture_for):
            self._drop_painting()
        elif not self._at_leisure or not self._picture.can_stand_in(at):
            self._drop_painting()
            self._picture.paint(self._to_paint(), at)
            self._picture_for = key
        elif not self._is(key, self._painting_for):
            self._painting, self._painting_for = self._in_steps(at), key
            self._resting.start(_REST)

    def _drop_painting(self) -> None:
        self._painting, self._painting_for, self._at_leisure = iter(()), (), False

    @staticmethod
    def _is(key: tuple[object, ...], other: tuple[object, ...]) -> bool:
        # Drawings are told apart by what they are: to compare thousands of elements takes too long.
        return bool(other) and key[0] is other[0] and key[1:] == other[1:]

    def _to_paint(self) -> Painting:
        return Painting(self.drawing, self.texts(), self.lit, self.hot)

    def _in_steps(self, at: Place) -> Iterator[None]:
        to_paint = self._to_paint()
        yield
        yield from self._picture.steps(to_paint, at)

    def _paint_on(self) -> None:
        """Go on with the next picture for as long as nobody notices; show it once it is whole."""
        if not self._painting_for:
            return
        end = time.monotonic() + _STRETCH
        try:
            for _ in self._painting:
                if time.monotonic() > end:
                    self._resting.start(0)
                    return
        except BaseException:
            # The next paint tries it as a whole, where it is told.
            self._drop_painting()
            raise
        self._picture_for, self._painting_for = self._painting_for, ()
        self.update()

    def _scale_words(self) -> str:
        ratio = self.screen().physicalDotsPerInch() / 25.4 / self.scale.per_mm
        return tr("true size") if abs(ratio - 1) < 0.01 else f"1 : {ratio:.1f}" if ratio > 1 else f"{1 / ratio:.1f} : 1"

    def _scale_box(self) -> QRectF:
        """Return where it is said how large things are drawn: at the lower left, or right where a tag stands there."""
        wide = width_of(self._scale_words(), 13) + 6
        left = QRectF(10, self.height() - 25, wide, 20)
        if self._clear is None or not self._clear.intersects(left):
            return left
        return left.translated(self.width() - wide - 20, 0)

    def _paint_scale(self, painter: QPainter) -> None:
        box = self._scale_box()
        painter.fillRect(box.adjusted(-4, 2, 4, 2), QColor(self.palette_.sheet))
        painter.setFont(typeface(13))
        painter.setPen(QColor(self.palette_.quiet))
        painter.drawText(box.bottomLeft() - QPointF(0, 4), self._scale_words())

    def _paint_words(self, painter: QPainter, words: str) -> None:
        """Write words across the middle, on clear ground."""
        painter.setFont(typeface(19))
        wide = QRectF(self.rect()).adjusted(self.width() * 0.18, 0, -self.width() * 0.18, 0)
        how = int(Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap)
        box = painter.boundingRect(wide, how, words)
        painter.fillRect(box.adjusted(-10, -6, 10, 6), QColor(self.palette_.sheet))
        painter.setPen(QColor(self.palette_.quiet))
        painter.drawText(wide, how, words)

    # --- pointing ---

    def targets(self) -> tuple[Ref, ...]:
        """Return what on the drawing can be picked or typed, in reading order, each once."""
        return tuple(dict.fromkeys(e.ref for e in self.drawing.elements if e.ref is not None))

    def at(self, position: QPointF) -> Ref | None:
        """Return what lies at a point of the widget, the uppermost first."""
        found: Ref | None = None
        texts = self.texts()
        for index in range(len(self.drawing.elements) - 1, -1, -1):
            element = self.drawing.elements[index]
            if element.ref is not None and self._covers(element, texts.of.get(index), position):
                # A figure to type is small: it goes before names that stand over it.
                if isinstance(element, Dimension):
                    return element.ref
                found = found or element.ref
        return found

    def _covers(self, element: Element, text: PlacedText | None, position: QPointF) -> bool:
        match element:
            case Path(closed=True):
                if not path_box(element, self.scale).holds(position.x(), position.y()):
                    return False
                polygon = QPolygonF([self.scale.put(point) for point in element.points])
                return polygon.containsPoint(position, Qt.FillRule.OddEvenFill)
            case Dimension():
                line = QRectF(*dimension_line(element, self.scale)).normalized().adjusted(-3, -3, 3, 3)
                return line.contains(position) or (text is not None and _grown(text.rect()).contains(position))
            case Label() | Ring():
                if isinstance(element, Ring) and not element.text:
                    text = text_of(element, self.scale)
                return text is not None and _grown(text.rect()).contains(position)
            case _:
                return False

    def box_of(self, ref: Ref) -> QRectF | None:
        """Return the box of the widget round what shows something, where it was clicked; None where nothing does."""
        # Where words stand if nothing is in their way: a tag that stands by them must not push them about.
        boxes = [
            self._box(index, each) if isinstance(each, Path) else text_of(each, self.scale).rect()
            for index, each in enumerate(self.drawing.elements)
            if each.ref == ref
        ]
        if not boxes:
            return None
        # A part stands on several views: the tag belongs to the one at which it was taken.
        found = next((box for box in boxes if box.contains(self._clicked_at)), boxes[0])
        for box in boxes:
            if box.intersects(found):
                found = found.united(box)
        return found

    def drawn_boxes(self) -> list[QRectF]:
        """Return the boxes of the widget in which something is drawn, words as they would stand alone."""
        boxes: list[QRectF] = []
        for each in self.drawing.elements:
            if isinstance(each, Path) and not each.closed and each.role is not Role.CHALK:
                continue
            boxes.append(self._box(0, each) if isinstance(each, Path) else text_of(each, self.scale).rect())
            if isinstance(each, Dimension):
                boxes.append(QRectF(*dimension_line(each, self.scale)).normalized().adjusted(-4, -4, 4, 4))
        return boxes

    def place_of(self, ref: Ref) -> QPointF:
        """Return a point of the widget on it: the middle of its dimension or area."""
        for index, element in enumerate(self.drawing.elements):
            if element.ref == ref:
                return self._box(index, element).center()
        return QPointF(self.width() / 2, self.height() / 2)

    def _box(self, index: int, element: Element) -> QRectF:
        if isinstance(element, Path):
            return QPolygonF([self.scale.put(point) for point in element.points]).boundingRect()
        text = self.texts().of.get(index)
        return text.rect() if text is not None else text_of(element, self.scale).rect()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        position = event.position()
        self._clicked_at = position
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        if event.button() == Qt.MouseButton.MiddleButton or self._space:
            self._moving = position
            self.setCursor(Qt.CursorShape.ClosedHandCursor)
            return
        if event.button() == Qt.MouseButton.LeftButton:
            self.press_at(position)

    def press_at(self, at: QPointF) -> None:
        """Press at a point of the widget: begin to drag what lies there, or click it."""
        self._clicked_at = at
        ref = self.at(at)
        if self.tool.press(self.scale.back(at.x(), at.y()), ref):
            self._dragging = True
            return
        self.pointer.held = False
        self.clicked.emit(ref, at)

    def move_to(self, at: QPointF) -> None:
        """Move to a point of the widget: drag what is held, or show what lies there."""
        point = self.scale.back(at.x(), at.y())
        if self._dragging:
            self.tool.drag(point)
            self.update()
            return
        ref = self.at(at)
        if ref != self.hot:
            self.hot = ref
            self.update()
        self.setCursor(self.tool.cursor(point, ref))

    def release_at(self, at: QPointF) -> None:
        """Let go of what is dragged."""
        if self._dragging:
            self._dragging = False
            self.tool.release(self.scale.back(at.x(), at.y()))
            self.update()

    @property
    def dragging(self) -> bool:
        """Whether something is being dragged."""
        return self._dragging

    def give_up(self) -> None:
        """Give up what is being dragged."""
        if self._dragging:
            self._dragging = False
            self.tool.cancel()
            self.update()

    def take_pointer(self) -> None:
        """Put a pointer on the bench that keys move, at what they point at; or take it away."""
        self.pointer.take(self.place_of(self.hot) if self.hot is not None else QRectF(self.rect()).center())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        position = event.position()
        if self._moving is not None:
            self.pan(position - self._moving)
            self._moving = position
        else:
            self.move_to(position)

    def pan(self, shift: QPointF) -> None:
        """Move the drawing by so many pixels."""
        origin = (self.scale.origin[0] + shift.x(), self.scale.origin[1] + shift.y())
        self.scale = Scale(self.scale.per_mm, PAPER_PX, origin)
        self._fitted, self._at_leisure = False, True
        self._lies_elsewhere()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self._moving is not None:
            self._moving = None
            self.setCursor(Qt.CursorShape.ArrowCursor)
        else:
            self.release_at(event.position())

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
        if self.pointer.key(event):
            return
        if self.tool.key(event):
            self.update()
            return
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier and key in _PANS:
            x, y = _PANS[Qt.Key(key)]
            self.pan(QPointF(x, y) * _PAN)
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
            self.give_up()
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
            self.pointed.emit()
