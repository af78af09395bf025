"""The one painter: a drawing onto any paint device, at any scale.

The screen, PDF, SVG and PNG all come through `paint`, so what is printed is what was seen.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from dataclasses import replace
from itertools import groupby, starmap
from typing import cast

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QPainter, QPainterPath, QPen, QPolygonF, QTransform

from nullah.core.drawing import Dimension, Drawing, Element, Fill, Label, Path, Point, Ring, Role, hatch_lines
from nullah.core.identity import kept_by_identity, runs
from nullah.core.label_placing import LabelBox
from nullah.core.named_tuple import NamedTuple
from nullah.core.refs import Ref
from nullah.core.wood.species import SpeciesError, find_species
from nullah.paper.labels import PlacedText, PlacedTexts, dimension_line, placed_texts, text_of
from nullah.paper.lettering import cap_height, typeface, width_of
from nullah.paper.palette import INK, Palette, wood_tone
from nullah.paper.scale import Scale
from nullah.paper.svg import SvgPainter
from nullah.paper.tiles import Painting, Tiles, touched, word_box


class Stroke(NamedTuple):
    """How a line is drawn: its colour, its width in paper mm, its dashes in widths."""

    colour: str
    width: float
    dashes: tuple[float, ...] = ()


def stroke_of(role: Role, palette: Palette) -> Stroke:
    """Return the pen of a role: the shop's own conventions; widths in paper mm, dashes in widths."""
    match role:
        case Role.KNIFE:
            return Stroke(palette.text, 0.18)
        case Role.GAUGE:
            return Stroke(palette.text, 0.22, (14.0, 6.0))
        case Role.PENCIL:
            return Stroke(palette.pencil, 0.35)
        case Role.HIDDEN:
            return Stroke(palette.pencil, 0.22, (5.0, 4.0))
        case Role.WASTE:
            return Stroke(palette.pencil, 0.16)
        case Role.GRAIN:
            return Stroke(palette.grain, 0.13)
        case Role.FLAW:
            return Stroke(palette.flaw, 0.35)
        case Role.CHALK:
            return Stroke(palette.chalk, 0.5)
        case Role.STROKE:
            return Stroke(palette.chalk, 0.2)
        case Role.DIMENSION | Role.FAINT:
            return Stroke(palette.pencil, 0.16)
        case Role.WARN:
            return Stroke(palette.wrong, 0.6)
        case _:
            return Stroke(palette.wood_line, 0.32)


#: No word stands nearer to the edge of a page, mm: what printers leave white.
_PAGE_EDGE = 4.0


def paint(
    painter: QPainter | SvgPainter,
    drawing: Drawing,
    scale: Scale,
    palette: Palette,
    *,
    lit: frozenset[Ref] = frozenset(),
    hot: Ref | None = None,
    texts: PlacedTexts | None = None,
) -> None:
    """Paint a drawing: its lines and areas in their order, then its words, over all of them.

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
    texts : PlacedTexts, optional
        Where its words stand; placed here if left out.
    """
    texts = placed_texts(drawing, scale) if texts is None else texts
    for _ in paint_in_steps(painter, Painting(drawing, texts, lit, hot), scale, palette):
        pass


def paint_in_steps(
    painter: QPainter | SvgPainter, painting: Painting, scale: Scale, palette: Palette, tiles: Tiles | None = None
) -> Iterator[None]:
    """Paint a drawing, and rest after a few of its elements each time.

    Parameters
    ----------
    painter : QPainter or SvgPainter
        Already begun on its device.
    painting : Painting
    scale : Scale
    palette : Palette
    tiles : Tiles, optional
        What lies in none of these squares is left out.
    """
    drawing, texts, lit, hot = painting
    work = _Work(painter, scale, palette, lit, hot)
    elements: Iterable[Element] = drawing.elements
    told = [(words, text) for index, text in texts.of.items() if not isinstance(words := drawing.elements[index], Path)]
    if tiles is not None:
        elements = touched(tiles, painting, scale)
        told = [(words, text) for words, text in told if tiles.touch(word_box(text))]
    painter.save()
    try:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        yield from work.elements(elements)
        for words, text in told:
            work.ground(words, text)
        for words, text in told:
            work.text(words, text)
            yield
        for note in texts.notes:
            work.words(note, palette.text)
    finally:
        painter.restore()


def paint_page(
    painter: QPainter | SvgPainter, page: Drawing, size_mm: tuple[float, float], per_mm: float, palette: Palette = INK
) -> None:
    """Paint a page of paper at full size: no word reaches over its edge.

    Parameters
    ----------
    painter : QPainter or SvgPainter
        Already begun on its device.
    page : Drawing
    size_mm : (width, height)
        Of the page, mm.
    per_mm : float
        Dots of the device to the millimetre.
    palette : Palette
        Ink on paper, if left out.
    """
    scale = Scale(per_mm, per_mm)
    edge = _PAGE_EDGE * per_mm
    room = LabelBox(edge, edge, size_mm[0] * per_mm - edge, size_mm[1] * per_mm - edge)
    paint(painter, page, scale, palette, texts=placed_texts(page, scale, room))


#: How lines and areas are painted: role, closed, fill, species, held or pointed at, held.
_Look = tuple[Role, bool, Fill, str, bool, bool]


@kept_by_identity(20_000)
def _polygon(points: tuple[Point, ...]) -> QPolygonF:
    """Return the points of a path, in mm; most paths are painted again after a change that leaves them alone."""
    return QPolygonF(list(starmap(QPointF, points)))


def _stroke(lines: list[tuple[Point, ...]]) -> QPainterPath:
    """Return lines, in mm, as one path."""
    path = QPainterPath()
    for run in runs(tuple(lines)):
        path.addPath(_run_of_stroke(*run))
    return path


@kept_by_identity(4096)
def _run_of_stroke(*lines: tuple[Point, ...]) -> QPainterPath:
    path = QPainterPath()
    for each in lines:
        path.addPolygon(_polygon(each))
    return path


class _Work:
    def __init__(
        self, painter: QPainter | SvgPainter, scale: Scale, palette: Palette, lit: frozenset[Ref], hot: Ref | None
    ) -> None:
        self.painter = painter
        self.scale = scale
        self.palette = palette
        self.lit = lit
        self.in_hand = lit if hot is None else lit | {hot}
        self._placing = QTransform(scale.per_mm, 0.0, 0.0, scale.per_mm, *scale.origin)
        self._pens: dict[tuple[Role, bool], QPen] = {}

    def pen(self, role: Role, hot: bool = False) -> QPen:
        """Return the pen of a role; many lines have the same."""
        kept = self._pens.get((role, hot))
        if kept is None:
            kept = self._pens[role, hot] = self._new_pen(role, hot)
        return kept

    def _new_pen(self, role: Role, hot: bool) -> QPen:
        stroke = stroke_of(role, self.palette)
        colour = self.palette.chalk if hot else stroke.colour
        width = stroke.width * (1.6 if hot else 1.0) * self.scale.paper
        pen = QPen(QColor(colour), width)
        pen.setCapStyle(Qt.PenCapStyle.FlatCap)
        pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
        if stroke.dashes:
            pen.setDashPattern(list(stroke.dashes))
        return pen

    def look(self, element: Element) -> _Look | None:
        """Return how a line or an area is painted; None for anything else."""
        if type(element) is not Path:
            return None
        _, role, closed, fill, species, ref = element
        held = ref is not None and ref in self.in_hand
        return role, closed, fill if closed else Fill.NONE, species, held, held and ref in self.lit

    def elements(self, elements: Iterable[Element]) -> Iterator[None]:
        """Paint lines and areas in their order; words come after all of them."""
        for look, run in groupby(elements, self.look):
            if look is not None:
                self.paths(look, cast(Iterator[Path], run))
                yield
                continue
            for element in run:
                if isinstance(element, Dimension):
                    self.dimension(element)
                elif isinstance(element, Ring) and not element.text:
                    self.ring(element.role, text_of(element, self.scale))
            yield

    def paths(self, look: _Look, paths: Iterator[Path]) -> None:
        """Paint lines and areas that follow each other and look alike."""
        role, closed, fill, _, held, _ = look
        filled, hatched = fill not in (Fill.NONE, Fill.PENCIL), fill in (Fill.WASTE, Fill.FLAW, Fill.PENCIL)
        pen = Qt.PenStyle.NoPen if role is Role.BARE else self.pen(role, held and role is Role.OUTLINE)
        brush = QBrush(QColor(self.area(look))) if filled else Qt.BrushStyle.NoBrush
        self.painter.setBrush(brush)
        self.painter.setPen(Qt.PenStyle.NoPen if hatched else pen)
        if not closed:
            self.lines([path.points for path in paths])
            return
        for path in paths:
            polygon = self._placing.map(_polygon(path.points))
            self.painter.drawPolygon(polygon)
            if hatched:
                self.hatch(path)
                self.painter.setBrush(Qt.BrushStyle.NoBrush)
                self.painter.setPen(pen)
                self.painter.drawPolygon(polygon)
                self.painter.setBrush(brush)
                self.painter.setPen(Qt.PenStyle.NoPen)

    def lines(self, lines: list[tuple[Point, ...]]) -> None:
        """Draw lines, in mm, with the pen in hand, all of them in one stroke."""
        if isinstance(self.painter, SvgPainter):
            self.painter.drawPolylines([self._placing.map(_polygon(each)) for each in lines])
        else:
            self.painter.drawPath(self._placing.map(_stroke(lines)))

    def area(self, look: _Look) -> str:
        """Return the colour of an area."""
        _, _, fill, species, _, lit = look
        match fill:
            case Fill.WOOD | Fill.END_GRAIN:
                return wood_tone(_tone(species), self.palette, lit=lit, end_grain=fill is Fill.END_GRAIN)
            case Fill.WASTE:
                return self.palette.sheet
            case Fill.FLAW:
                return self.palette.look_ground
            case Fill.LIT:
                return self.palette.lit
            case Fill.PAPER:
                return self.palette.raised
            case _:
                return self.palette.ground

    def hatch(self, path: Path) -> None:
        flaw = path.fill is Fill.FLAW
        spacing = (1.5 if flaw else 2.2) * self.scale.paper
        corners = [(p.x(), p.y()) for p in (self.scale.put(point) for point in path.points)]
        roles = {Fill.FLAW: Role.FLAW, Fill.PENCIL: Role.PENCIL}
        self.painter.setPen(self.pen(roles.get(path.fill, Role.WASTE)))
        pen = QPen(self.painter.pen())
        pen.setWidthF(0.16 * self.scale.paper)
        self.painter.setPen(pen)
        for start, end in hatch_lines(corners, spacing):
            self.painter.drawLine(QPointF(*start), QPointF(*end))

    def words(self, text: PlacedText, colour: str) -> None:
        """Write a line of words where it was placed."""
        font = typeface(text.pixels, text.bold)
        width = width_of(text.words, text.pixels, text.bold)
        at = QPointF(-width / 2, cap_height(text.pixels, text.bold) / 2)
        with self.turned(text):
            if isinstance(self.painter, SvgPainter):
                self.painter.words(at, text.words, font, colour)
            else:
                self.painter.setFont(font)
                self.painter.setPen(QColor(colour))
                self.painter.drawText(at, text.words)

    @contextmanager
    def turned(self, text: PlacedText) -> Iterator[None]:
        """Paint in the frame of a line of words: its middle at (0, 0)."""
        self.painter.save()
        self.painter.translate(QPointF(*text.middle))
        self.painter.rotate(text.angle)
        yield
        self.painter.restore()

    def ground(self, element: Label | Ring | Dimension, text: PlacedText) -> None:
        """Clear the ground under figures and under quiet or coloured words, which lines and wood would drown."""
        if text.radius or (isinstance(element, Label) and element.role is Role.LABEL and text.led_from is None):
            return
        pad = 1.2 if isinstance(element, Label) else text.pixels * 0.2
        high = cap_height(text.pixels, text.bold) + 2 * pad
        wide = width_of(text.words, text.pixels, text.bold) + 2 * pad
        with self.turned(text):
            self.painter.setPen(Qt.PenStyle.NoPen)
            self.painter.setBrush(QColor(self.palette.sheet))
            self.painter.drawRect(QRectF(-wide / 2, -high / 2, wide, high))

    def lead(self, text: PlacedText) -> None:
        """Draw a line from what words are about to where they stand."""
        if text.led_from is None:
            return
        box, (x, y) = text.box(), text.led_from
        end = QPointF(min(max(x, box.left), box.right), min(max(y, box.top), box.bottom))
        self.painter.setPen(self.pen(Role.FAINT))
        self.painter.drawLine(QPointF(x, y), end)

    def text(self, element: Label | Ring | Dimension, text: PlacedText) -> None:
        self.lead(text)
        if text.radius:
            self.ring(element.role if isinstance(element, Ring) else Role.FAINT, text)
            return
        match element:
            case Label():
                roles = {
                    Role.CHALK: self.palette.accent,
                    Role.WARN: self.palette.fails,
                    Role.FLAW: self.palette.look,
                    Role.FAINT: self.palette.quiet,
                    Role.PENCIL: self.palette.quiet,
                }
                self.words(text, roles.get(element.role, self.palette.text))
            case Dimension():
                hot = element.ref is not None and element.ref in self.in_hand
                colour = self.palette.look if element.state in _STATE_LOOK else self.palette.text
                self.words(replace(text, bold=hot), self.palette.accent if hot else colour)

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
        hot = dimension.ref is not None and dimension.ref in self.in_hand
        self.painter.setPen(self.pen(Role.DIMENSION, hot))
        gap, over = math.copysign(1.0 * paper, offset), math.copysign(1.2 * paper, offset)
        for foot, head in ((start, a), (end, b)):
            self.painter.drawLine(
                QPointF(foot.x() + nx * gap, foot.y() + ny * gap), QPointF(head.x() + nx * over, head.y() + ny * over)
            )
        self.painter.drawLine(a, b)
        for point in (a, b):
            self.tick(point, ux, uy, hot)

    def tick(self, at: QPointF, ux: float, uy: float, hot: bool) -> None:
        """Draw a knife tick across the end of a dimension line."""
        reach = 1.1 * self.scale.paper
        pen = QPen(self.pen(Role.KNIFE, hot))
        pen.setWidthF(0.35 * self.scale.paper)
        self.painter.setPen(pen)
        cx, cy = (ux - uy) * reach * 0.7, (uy + ux) * reach * 0.7
        self.painter.drawLine(QPointF(at.x() - cx, at.y() - cy), QPointF(at.x() + cx, at.y() + cy))

    def ring(self, role: Role, text: PlacedText) -> None:
        stroke = QPen(self.pen(role))
        stroke.setWidthF(0.35 * self.scale.paper)
        self.painter.setPen(stroke)
        self.painter.setBrush(QColor(self.palette.raised))
        self.painter.drawEllipse(QPointF(*text.middle), text.radius, text.radius)
        self.words(text, stroke.color().name())


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
    box = text_of(element, scale).rect()
    if not isinstance(element, Dimension):
        return box
    a, b = dimension_line(element, scale)
    beyond = 2.0 * scale.paper
    return QRectF(a, b).normalized().adjusted(-beyond, -beyond, beyond, beyond).united(box)
