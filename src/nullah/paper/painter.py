"""The one painter: a drawing onto any paint device, at any scale.

The screen, PDF, SVG and PNG all come through `paint`, so what is printed is what was seen.
"""

from __future__ import annotations

import math
from typing import NamedTuple

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QPainter, QPen

from nullah.core.drawing import Anchor, Dimension, Drawing, Element, Fill, Label, Path, Point, Ring, Role, hatch_lines
from nullah.core.refs import Ref
from nullah.core.wood.species import SpeciesError, find_species
from nullah.paper.lettering import cap_height, typeface, width_of
from nullah.paper.palette import Palette, mixed
from nullah.paper.svg import SvgPainter


class Scale(NamedTuple):
    """How a drawing lies on a device.

    `per_mm` is device pixels for a millimetre of the drawing, `paper` for a millimetre of
    paper (type, pens, offsets); `origin` is where the drawing's (0, 0) comes to lie.
    """

    per_mm: float
    paper: float
    origin: tuple[float, float] = (0.0, 0.0)

    def put(self, point: Point) -> QPointF:
        """Return the device point of a drawing point."""
        return QPointF(self.origin[0] + point[0] * self.per_mm, self.origin[1] + point[1] * self.per_mm)

    def back(self, x: float, y: float) -> Point:
        """Return the drawing point of a device point."""
        return (x - self.origin[0]) / self.per_mm, (y - self.origin[1]) / self.per_mm


class _Stroke(NamedTuple):
    colour: str
    width: float
    dashes: tuple[float, ...] = ()


def _stroke(role: Role, palette: Palette) -> _Stroke:
    """Return the pen of a role: the shop's own conventions; widths in paper mm, dashes in widths."""
    match role:
        case Role.KNIFE:
            return _Stroke(palette.text, 0.18)
        case Role.GAUGE:
            return _Stroke(palette.text, 0.22, (14.0, 6.0))
        case Role.PENCIL:
            return _Stroke(palette.quiet, 0.35)
        case Role.HIDDEN:
            return _Stroke(palette.quiet, 0.22, (5.0, 4.0))
        case Role.WASTE:
            return _Stroke(palette.quiet, 0.16)
        case Role.GRAIN:
            return _Stroke(palette.grain, 0.13)
        case Role.FLAW:
            return _Stroke(palette.look, 0.35)
        case Role.CHALK:
            return _Stroke(palette.accent, 0.5)
        case Role.STROKE:
            return _Stroke(palette.accent, 0.2)
        case Role.DIMENSION | Role.FAINT:
            return _Stroke(palette.quiet, 0.16)
        case Role.WARN:
            return _Stroke(palette.fails, 0.6)
        case _:
            return _Stroke(palette.wood_line, 0.32)


def paint(
    painter: QPainter | SvgPainter,
    drawing: Drawing,
    scale: Scale,
    palette: Palette,
    *,
    lit: frozenset[Ref] = frozenset(),
    hot: Ref | None = None,
) -> None:
    """Paint a drawing.

    Parameters
    ----------
    painter : QPainter or SvgPainter
        Already begun on its device.
    drawing : Drawing
    scale : Scale
    palette : Palette
    lit : frozenset of Ref
        What is drawn as in hand.
    hot : Ref, optional
        What is under the pointer, whose dimension or outline is drawn in chalk blue.
    """
    work = _Work(painter, scale, palette, lit, hot)
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    for element in drawing.elements:
        work.element(element)
    painter.restore()


class _Work:
    def __init__(
        self, painter: QPainter | SvgPainter, scale: Scale, palette: Palette, lit: frozenset[Ref], hot: Ref | None
    ) -> None:
        self.painter = painter
        self.scale = scale
        self.palette = palette
        self.lit = lit
        self.hot = hot

    def element(self, element: Element) -> None:
        match element:
            case Path():
                self.path(element)
            case Label():
                self.label(element)
            case Dimension():
                self.dimension(element)
            case Ring():
                self.ring(element)

    def pen(self, role: Role, hot: bool = False) -> QPen:
        stroke = _stroke(role, self.palette)
        colour = self.palette.accent if hot else stroke.colour
        width = stroke.width * (1.6 if hot else 1.0) * self.scale.paper
        pen = QPen(QColor(colour), width)
        pen.setCapStyle(Qt.PenCapStyle.FlatCap)
        pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
        if stroke.dashes:
            pen.setDashPattern(list(stroke.dashes))
        return pen

    def path(self, path: Path) -> None:
        polygon = [self.scale.put(point) for point in path.points]
        if path.closed and path.fill is not Fill.NONE:
            if path.fill is not Fill.PENCIL:
                self.painter.setPen(Qt.PenStyle.NoPen)
                self.painter.setBrush(QBrush(QColor(self.area(path))))
                self.painter.drawPolygon(polygon)
            if path.fill in (Fill.WASTE, Fill.FLAW, Fill.PENCIL):
                self.hatch(path)
        self.painter.setBrush(Qt.BrushStyle.NoBrush)
        if path.role is Role.BARE:
            return
        hot = path.ref is not None and path.ref in (self.hot, *self.lit) and path.role is Role.OUTLINE
        self.painter.setPen(self.pen(path.role, hot))
        if path.closed:
            self.painter.drawPolygon(polygon)
        else:
            self.painter.drawPolyline(polygon)

    def area(self, path: Path) -> str:
        palette = self.palette
        match path.fill:
            case Fill.WOOD | Fill.END_GRAIN:
                tone = mixed(_tone(path.species), palette.ground, palette.wood_shade)
                if path.ref in self.lit:
                    tone = mixed(tone, palette.lit, 0.62)
                return mixed(tone, palette.wood_line, 0.14) if path.fill is Fill.END_GRAIN else tone
            case Fill.WASTE:
                return palette.sheet
            case Fill.FLAW:
                return palette.look_ground
            case Fill.LIT:
                return palette.lit
            case Fill.PAPER:
                return palette.raised
            case _:
                return palette.ground

    def hatch(self, path: Path) -> None:
        flaw = path.fill is Fill.FLAW
        spacing = (1.5 if flaw else 2.2) * self.scale.paper
        corners = [(p.x(), p.y()) for p in (self.scale.put(point) for point in path.points)]
        roles = {Fill.FLAW: Role.FLAW, Fill.PENCIL: Role.PENCIL}
        self.painter.setPen(self.pen(roles.get(path.fill, Role.WASTE)))
        pen = self.painter.pen()
        pen.setWidthF(0.16 * self.scale.paper)
        self.painter.setPen(pen)
        for start, end in hatch_lines(corners, spacing):
            self.painter.drawLine(QPointF(*start), QPointF(*end))

    def words(
        self,
        at: QPointF,
        text: str,
        pixels: float,
        colour: str,
        *,
        bold: bool = False,
        anchor: Anchor = Anchor.MIDDLE,
        angle: float = 0.0,
        ground: str = "",
    ) -> None:
        """Write one line, centred on `at` in height."""
        font = typeface(pixels, bold)
        width = width_of(text, pixels, bold)
        x = {Anchor.START: 0.0, Anchor.MIDDLE: -width / 2, Anchor.END: -width}[anchor]
        base = cap_height(pixels, bold) / 2
        self.painter.save()
        self.painter.translate(at)
        self.painter.rotate(angle)
        if ground:
            self.painter.setPen(Qt.PenStyle.NoPen)
            self.painter.setBrush(QColor(ground))
            pad = pixels * 0.2
            self.painter.drawRect(QRectF(x - pad, -base - pad, width + 2 * pad, 2 * base + 2 * pad))
        if isinstance(self.painter, SvgPainter):
            self.painter.words(QPointF(x, base), text, font, colour)
        else:
            self.painter.setFont(font)
            self.painter.setPen(QColor(colour))
            self.painter.drawText(QPointF(x, base), text)
        self.painter.restore()

    def label(self, label: Label) -> None:
        roles = {
            Role.CHALK: self.palette.accent,
            Role.WARN: self.palette.fails,
            Role.FLAW: self.palette.look,
            Role.FAINT: self.palette.quiet,
            Role.PENCIL: self.palette.quiet,
        }
        colour = roles.get(label.role, self.palette.text)
        at = self.scale.put(label.at) + QPointF(*label.nudge_mm) * self.scale.paper
        self.words(
            at,
            label.text,
            label.size_mm * self.scale.paper,
            colour,
            bold=label.bold,
            anchor=label.anchor,
            angle=label.angle,
        )

    def dimension(self, dimension: Dimension) -> None:
        start, end = self.scale.put(dimension.start), self.scale.put(dimension.end)
        dx, dy = end.x() - start.x(), end.y() - start.y()
        length = math.hypot(dx, dy)
        if length < 1e-6:
            return
        ux, uy = dx / length, dy / length
        # Left of start → end, with y downwards.
        nx, ny = uy, -ux
        paper = self.scale.paper
        offset = dimension.offset_mm * paper
        a = QPointF(start.x() + nx * offset, start.y() + ny * offset)
        b = QPointF(end.x() + nx * offset, end.y() + ny * offset)
        hot = dimension.ref is not None and dimension.ref in (self.hot, *self.lit)
        self.painter.setPen(self.pen(Role.DIMENSION, hot))
        gap, over = math.copysign(1.0 * paper, offset), math.copysign(1.2 * paper, offset)
        for foot, head in ((start, a), (end, b)):
            self.painter.drawLine(
                QPointF(foot.x() + nx * gap, foot.y() + ny * gap), QPointF(head.x() + nx * over, head.y() + ny * over)
            )
        self.painter.drawLine(a, b)
        for point in (a, b):
            self.tick(point, ux, uy, hot)
        self.dimension_words(dimension, hot)

    def tick(self, at: QPointF, ux: float, uy: float, hot: bool) -> None:
        """Draw a knife tick across the end of a dimension line."""
        reach = 1.1 * self.scale.paper
        pen = self.pen(Role.KNIFE, hot)
        pen.setWidthF(0.35 * self.scale.paper)
        self.painter.setPen(pen)
        cx, cy = (ux - uy) * reach * 0.7, (uy + ux) * reach * 0.7
        self.painter.drawLine(QPointF(at.x() - cx, at.y() - cy), QPointF(at.x() + cx, at.y() + cy))

    def dimension_words(self, dimension: Dimension, hot: bool) -> None:
        place = dimension_text(dimension, self.scale)
        colour = self.palette.look if dimension.state in _STATE_LOOK else self.palette.text
        self.words(
            place.middle,
            place.words,
            place.pixels,
            self.palette.accent if hot else colour,
            bold=hot,
            angle=place.angle,
            ground=self.palette.sheet,
        )

    def ring(self, ring: Ring) -> None:
        at = self.scale.put(ring.at) + QPointF(*ring.nudge_mm) * self.scale.paper
        radius = ring.radius_mm * self.scale.paper
        stroke = self.pen(ring.role)
        stroke.setWidthF(0.35 * self.scale.paper)
        self.painter.setPen(stroke)
        self.painter.setBrush(QColor(self.palette.raised))
        self.painter.drawEllipse(at, radius, radius)
        self.words(at, ring.text, radius * 1.15, stroke.color().name(), bold=True)


# A sign as well as a colour for what a dimension's figure is worth.
_STATE_SIGNS = {"measured": " ✓", "overruled": " ✎", "wait for a measurement": " …"}
_STATE_LOOK = frozenset({"overruled", "wait for a measurement"})


def _tone(species: str) -> str:
    try:
        return find_species(species).tone
    except SpeciesError:
        return "#c9b193"


def extent(drawing: Drawing, scale: Scale) -> QRectF:
    """Return the room a drawing takes on the device, with its type and dimensions."""
    if not drawing.elements:
        return QRectF()
    left, top, right, bottom = drawing.bounds()
    room = QRectF(scale.put((left, top)), scale.put((right, bottom)))
    for element in drawing.elements:
        if not isinstance(element, Path):
            room = room.united(_room(element, scale))
    return room


def _room(element: Label | Ring | Dimension, scale: Scale) -> QRectF:
    match element:
        case Ring():
            at = scale.put(element.at) + QPointF(*element.nudge_mm) * scale.paper
            radius = element.radius_mm * scale.paper
            return QRectF(at.x() - radius, at.y() - radius, 2 * radius, 2 * radius)
        case Label():
            at = scale.put(element.at) + QPointF(*element.nudge_mm) * scale.paper
            width = width_of(element.text, element.size_mm * scale.paper)
            left = {Anchor.START: 0.0, Anchor.MIDDLE: -width / 2, Anchor.END: -width}[element.anchor]
            high = element.size_mm * scale.paper
            return QRectF(at.x() + left, at.y() - high / 2, width, high)
        case Dimension():
            a, b = dimension_line(element, scale)
            beyond = 2.0 * scale.paper
            line = QRectF(a, b).normalized().adjusted(-beyond, -beyond, beyond, beyond)
            return line.united(dimension_text(element, scale).box())


class DimensionText(NamedTuple):
    """Where a dimension's figure stands on the device: its middle, turn in degrees, and size in pixels."""

    words: str
    middle: QPointF
    angle: float
    width: float
    pixels: float

    def box(self) -> QRectF:
        """Return the upright box round the figure."""
        turned = abs(self.angle) > 45
        wide, high = (self.pixels, self.width) if turned else (self.width, self.pixels)
        return QRectF(self.middle.x() - wide / 2, self.middle.y() - high / 2, wide, high)


def dimension_text(dimension: Dimension, scale: Scale) -> DimensionText:
    """Place a dimension's figure: between its ticks, or beyond the second where there is no room.

    It reads from below or from the right, as drawings are read.
    """
    a, b = dimension_line(dimension, scale)
    length = math.hypot(b.x() - a.x(), b.y() - a.y()) or 1.0
    ux, uy = (b.x() - a.x()) / length, (b.y() - a.y()) / length
    words = dimension.text + _STATE_SIGNS.get(dimension.state, "")
    pixels = 3.4 * scale.paper
    angle = math.degrees(math.atan2(uy, ux))
    if angle > 89.5:
        angle -= 180
    elif angle <= -90.5:
        angle += 180
    middle = QPointF((a.x() + b.x()) / 2, (a.y() + b.y()) / 2)
    width = width_of(words, pixels) + 2 * scale.paper
    if width > length:
        push = width / 2 + 1.5 * scale.paper
        middle = QPointF(b.x() + ux * push, b.y() + uy * push)
    return DimensionText(words, middle, angle, width, pixels)


def dimension_line(dimension: Dimension, scale: Scale) -> tuple[QPointF, QPointF]:
    """Return both ends of a dimension's line on the device, for pointing at it."""
    start, end = scale.put(dimension.start), scale.put(dimension.end)
    dx, dy = end.x() - start.x(), end.y() - start.y()
    length = math.hypot(dx, dy) or 1.0
    offset = dimension.offset_mm * scale.paper
    nx, ny = dy / length * offset, -dx / length * offset
    return QPointF(start.x() + nx, start.y() + ny), QPointF(end.x() + nx, end.y() + ny)
