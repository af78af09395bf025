"""A face on the planing bench: its heights as shades with pencilled lines, the plane on it, what is laid on it."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF, QTransform
from PySide6.QtWidgets import QWidget

from nullah.core.milling.contours import contour_lines, even_heights
from nullah.core.milling.planing import SOLE_BEYOND_IRON, Stroke, Work
from nullah.core.shop import Plane
from nullah.desk.key_pointer import KeyPointer
from nullah.language import tr
from nullah.paper.lettering import typeface
from nullah.paper.palette import DAY, Palette, mixed, wood_tone

Place = tuple[float, float]

# Room about the board, where the plane runs on and off, mm; and how far below the line a low shows as gone, mm.
_AROUND, _GONE = 90.0, 0.05
_TONES = 48
# Lines lower than this would be the marks of the plane, mm.
_LEAST = 0.1


class PlaningBoard(QWidget):
    """Shows a face and lets one drag over it.

    `dragged` carries where a drag began and ended, mm on the face.
    """

    dragged = Signal(tuple, tuple)
    again = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.palette_: Palette = DAY
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("The face on the bench: drag the plane over it; Space strokes again"))
        self.work: Work | None = None
        self.tone = "#c8ab90"
        self.write: Callable[[float], str] = "{:g}".format
        self.stroke: Stroke | None = None
        self.plane: Plane | None = None
        self.laid: tuple[Place, Place] | None = None
        self._highest = 1.0
        self._image = QImage()
        self._lines: list[tuple[float, list[QPolygonF]]] = []
        self._from: Place | None = None
        self._to: Place = (0.0, 0.0)
        self.pointer = KeyPointer(self, self)

    def sizeHint(self) -> QSize:
        return QSize(640, 240)

    def minimumSizeHint(self) -> QSize:
        return QSize(320, 110)

    def set_palette(self, palette: Palette) -> None:
        """Take another theme."""
        self.palette_ = palette
        self.show_work(self.work, self._highest)

    def show_work(self, work: Work | None, highest: float) -> None:
        """Show a face; shades run from the line up to `highest`, mm."""
        self.work, self._highest = work, max(highest, 0.1)
        if work is not None:
            self._image = self._shaded(work)
            self._lines = self._pencilled(work)
        self.update()

    def _shaded(self, work: Work) -> QImage:
        """Paint the heights: the higher the darker; what is missing below the line in the colour of what fails."""
        ground = wood_tone(self.tone, self.palette_)
        dark = mixed(ground, self.palette_.wood_line, 0.72)
        tones = [mixed(ground, dark, step / (_TONES - 1)) for step in range(_TONES)]
        table = np.array([[int(t[i : i + 2], 16) for i in (1, 3, 5)] for t in tones], dtype=np.uint8)
        share = np.clip(work.heights / self._highest, 0.0, 1.0)
        pixels = table[(share * (_TONES - 1)).astype(int)]
        gone = mixed(ground, self.palette_.fails, 0.55)
        pixels[work.heights < -_GONE] = [int(gone[i : i + 2], 16) for i in (1, 3, 5)]
        # Rows of the picture run across the board, its upper edge first.
        kept = np.ascontiguousarray(np.flip(pixels.transpose(1, 0, 2), axis=0))
        high, wide = kept.shape[:2]
        return QImage(kept.tobytes(), wide, high, 3 * wide, QImage.Format.Format_RGB888).copy()

    def _pencilled(self, work: Work) -> list[tuple[float, list[QPolygonF]]]:
        found = []
        for height in even_heights(float(work.heights.max()), 5):
            if height < _LEAST:
                continue
            lines = contour_lines(work.x, work.y, work.heights, height)
            found.append((height, [QPolygonF([QPointF(x, work.width - y) for x, y in line]) for line in lines]))
        return found

    # --- painting ---

    def _to_widget(self) -> QTransform:
        """Return how mm of the drawing (y down from the board's upper edge) become pixels."""
        work = self.work
        long, wide = (work.length, work.width) if work is not None else (900.0, 180.0)
        scale = min(self.width() / (long + 2 * _AROUND), self.height() / (wide + 2 * _AROUND))
        shift = ((self.width() - long * scale) / 2, (self.height() - wide * scale) / 2)
        return QTransform(scale, 0, 0, scale, *shift)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(self.palette_.sheet))
        if self.work is None:
            painter.setFont(typeface(19))
            painter.setPen(QColor(self.palette_.quiet))
            painter.drawText(self.rect(), int(Qt.AlignmentFlag.AlignCenter), tr("Put a board on the rack first."))
        else:
            self._paint_face(painter, self.work)
        if self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QColor(self.palette_.accent))
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))
        self.pointer.paint(painter, self.palette_)
        painter.end()

    def _paint_face(self, painter: QPainter, work: Work) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        to = self._to_widget()
        painter.save()
        painter.setTransform(to)
        painter.drawImage(QRectF(0, 0, work.length, work.width), self._image)
        outline = QPen(QColor(self.palette_.wood_line), 1.2)
        outline.setCosmetic(True)
        painter.setPen(outline)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(QRectF(0, 0, work.length, work.width))
        pencil = QPen(QColor(self.palette_.quiet), 1.1)
        pencil.setCosmetic(True)
        painter.setPen(pencil)
        for _, lines in self._lines:
            for each in lines:
                painter.drawPolyline(each)
        painter.restore()
        self._paint_heights(painter, to)
        if self._from is not None:
            self._paint_line(painter, to, self._from, self._to)
        elif self.laid is not None:
            self._paint_line(painter, to, *self.laid)
        if self.stroke is not None:
            self._paint_plane(painter, to, self.stroke)

    def _paint_heights(self, painter: QPainter, to: QTransform) -> None:
        painter.setFont(typeface(13))
        painter.setPen(QColor(self.palette_.text))
        for height, lines in self._lines:
            if lines:
                longest = max(lines, key=lambda each: each.size())
                painter.drawText(to.map(longest.at(longest.size() // 2)) + QPointF(3, -2), self.write(height))

    def _put(self, to: QTransform, place: Place) -> QPointF:
        assert self.work is not None
        return to.map(QPointF(place[0], self.work.width - place[1]))

    def _paint_line(self, painter: QPainter, to: QTransform, start: Place, end: Place) -> None:
        pen = QPen(QColor(self.palette_.accent), 2.2)
        painter.setPen(pen)
        a, b = self._put(to, start), self._put(to, end)
        painter.drawLine(a, b)
        painter.setBrush(QColor(self.palette_.raised))
        painter.drawEllipse(a, 4, 4)

    def _paint_plane(self, painter: QPainter, to: QTransform, stroke: Stroke) -> None:
        """Draw the sole where the stroke ends, its mouth on the end of the stroke."""
        plane, way = stroke.plane, math.dist(stroke.start, stroke.end)
        if way < 1e-6:
            return
        (x0, y0), (x1, y1) = stroke.start, stroke.end
        ax, ay = (x1 - x0) / way, (y1 - y0) / way
        toe, heel = float(plane.sole) * plane.mouth, -float(plane.sole) * (1 - plane.mouth)
        half, iron = (float(plane.iron) + SOLE_BEYOND_IRON) / 2, float(plane.iron) / 2

        def at(along: float, across: float) -> QPointF:
            return self._put(to, (x1 + along * ax - across * ay, y1 + along * ay + across * ax))

        painter.setPen(QPen(QColor(self.palette_.accent), 1.0))
        painter.drawLine(self._put(to, stroke.start), self._put(to, stroke.end))
        painter.setPen(QPen(QColor(self.palette_.wood_line), 1.4))
        body = QColor(self.palette_.raised)
        body.setAlpha(120)
        painter.setBrush(body)
        painter.drawPolygon(QPolygonF([at(heel, -half), at(toe, -half), at(toe, half), at(heel, half)]))
        painter.setPen(QPen(QColor(self.palette_.accent), 2.4))
        painter.drawLine(at(0, -iron), at(0, iron))

    # --- dragging ---

    def _place(self, at: QPointF) -> Place:
        inverse, _ = self._to_widget().inverted()
        point = inverse.map(at)
        return point.x(), (self.work.width if self.work is not None else 0.0) - point.y()

    def place_in_widget(self, place: Place) -> QPointF:
        """Return where a place of the face (mm) stands in the widget."""
        return self._put(self._to_widget(), place)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        if event.button() == Qt.MouseButton.LeftButton:
            self.press_at(event.position())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        self.move_to(event.position())

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self.release_at(event.position())

    def press_at(self, at: QPointF) -> None:
        """Begin to drag at a point of the widget."""
        if self.work is not None:
            self._from = self._to = self._place(at)
            self.update()

    def move_to(self, at: QPointF) -> None:
        """Drag to a point of the widget."""
        if self._from is not None:
            self._to = self._place(at)
            self.update()

    def give_up(self) -> None:
        """Give up what is being dragged."""
        self._from = None
        self.update()

    def take_pointer(self) -> None:
        """Put a pointer on the face that keys move, or take it away."""
        self.pointer.take(QRectF(self.rect()).center())

    def release_at(self, at: QPointF) -> None:
        """Tell what was dragged over."""
        if self._from is None:
            return
        start, end, self._from = self._from, self._place(at), None
        self.update()
        if math.dist(start, end) > 15:
            self.dragged.emit(start, end)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if self.pointer.key(event):
            return
        if event.key() == Qt.Key.Key_Escape and self._from is not None:
            self.give_up()
        elif event.key() == Qt.Key.Key_Space:
            self.again.emit()
        else:
            super().keyPressEvent(event)
