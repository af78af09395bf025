"""How a breadboard end is made: tongue and tenons on the glued panel, groove and mortises in the end, then the pegs."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from itertools import pairwise

from nullah.core.card import JointStage
from nullah.core.fraction import Fraction
from nullah.core.joints.breadboard.pegs import Pegs, pegged, shoulder_of
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.row_steps import carried
from nullah.core.joints.tenon.operations import nearer_cheek, pins_apart
from nullah.core.lengths import Direction, Length
from nullah.core.operations.fastening import Bore, BoreSlots, Pin, TracePlaces
from nullah.core.operations.lines import Edge, Line, LineKind
from nullah.core.operations.marking import Gauge, Marker
from nullah.core.operations.settings import ToolSetting, by_mate, by_rule, of_line, of_tool
from nullah.core.operations.stock import Surface, X, Y, Z, surface_at
from nullah.core.operations.taking import Bounds, Cut, Take
from nullah.core.operations.tenons import GaugePair
from nullah.core.piece.frame import Frame
from nullah.core.piece.space import side_at


def breadboard_steps(making: Making) -> tuple[BenchStep, ...] | None:
    """Return the steps of a breadboard end; None where the two do not overlap, or no pegs were laid out."""
    if not making.joint.channels or not isinstance(making.joint.figures, Pegs):
        return None
    panel = _Panel(making)
    end = _End(making, panel)
    return (
        BenchStep(JointStage.GAUGED, "both", (end.cheeks, panel.cheeks)),
        BenchStep(JointStage.MARKED, "second", (panel.shoulder, panel.tongue_end, *panel.edges())),
        BenchStep(JointStage.CUT, "second", tuple(panel.rabbeted())),
        BenchStep(JointStage.SAWN, "second", tuple(panel.sawn_out())),
        BenchStep(JointStage.SAWN, "first", (end.groove,)),
        BenchStep(JointStage.MARKED, "first", tuple(end.mortise_lines())),
        BenchStep(JointStage.CUT, "first", tuple(end.mortises())),
        BenchStep(JointStage.MARKED, "first", (end.row, *end.places)),
        BenchStep(JointStage.CUT, "first", (end.bored,)),
        BenchStep(JointStage.MARKED, "second", (panel.traced(end), panel.drawn(end))),
        BenchStep(JointStage.CUT, "second", tuple(panel.bored(end))),
    )


class _Side:
    """What the panel and its end have in common."""

    def __init__(self, making: Making, frame: Frame) -> None:
        assert isinstance(making.joint.figures, Pegs)
        self._making, self._frame, self._pegs = making, frame, making.joint.figures
        self._joint, self._marks = making.joint, making.marks
        self._part, self._stock = frame.part.id, frame.stock
        guest = making.second.part
        self._shoulder, self._way = shoulder_of(making.joint, guest)

    def _gauged(self, on: tuple[Surface, ...], end: Surface | None) -> GaugePair:
        """Return both cheek lines: from the face side of the panel, on both parts alike."""
        guest = self._making.second.part
        axis = guest.face
        tongue = self._joint.shares[0]
        place = tongue.low[axis.value], tongue.high[axis.value]
        side = side_at(axis, self._making.second.turned[Z])
        surface, near = nearer_cheek(self._frame, side, place)
        return GaugePair(
            part=self._part,
            stock=self._stock,
            kind=LineKind.CHEEK,
            near=by_rule("nearer pin", near, surface, self._marks),
            wide=pins_apart(self._making, place[1] - place[0], axis),
            on=on,
            end=end,
            of=self._joint.id,
        )

    def _line(self, kind: LineKind, setting: ToolSetting, on: tuple[Surface, ...], **more: object) -> Gauge:
        return Gauge(
            part=self._part,
            stock=self._stock,
            kind=kind,
            setting=setting,
            on=on,
            of=self._joint.id,
            **more,  # type: ignore[arg-type]
        )

    def _take(self, cut: Cut, into: Surface, bounds: dict[int, Bounds], router: bool = False) -> Take:
        return Take(
            part=self._part,
            stock=self._stock,
            cut=cut,
            into=into,
            x=bounds[X],
            y=bounds[Y],
            z=bounds[Z],
            of=self._joint.id,
            router=router,
        )


class _Panel(_Side):
    """The panel, glued up and flat."""

    def __init__(self, making: Making) -> None:
        super().__init__(making, making.second)
        self._end = making.second.surface(side_at(making.second.part.grain, self._way > 0))
        self._faces = (Surface.FACE_SIDE, Surface.OTHER_FACE)

    @property
    def cheeks(self) -> GaugePair:
        """The lines of tongue and tenons, on the end and both edges."""
        return self._gauged((self._end, Surface.FACE_EDGE, Surface.OTHER_EDGE), self._end)

    @property
    def shoulder(self) -> Gauge:
        """The knife line round the end."""
        long = self._joint.shares[1].size(self._making.second.part.grain)
        setting = by_rule("tenon length", long, self._end, self._marks, quantity=self._joint.names.reach)
        on = (*self._faces, Surface.FACE_EDGE, Surface.OTHER_EDGE)
        return self._line(LineKind.SHOULDER, setting, on, tool=Marker.KNIFE, end=self._end)

    @property
    def tongue_end(self) -> Gauge:
        """How far the tongue goes between the tenons."""
        long = self._joint.shares[0].size(self._making.second.part.grain)
        base = self.shoulder.line
        setting = by_rule("tongue", long, of_line(base), self._marks, quantity=self._joint.names.depth)
        backwards = not self._end.high
        return self._line(LineKind.TONGUE, setting, self._faces, end=self._end, base=base, backwards=backwards)

    def _edge_lines(self) -> tuple[tuple[Edge, Edge], ...]:
        lines = [self._edge(number, high) for number in range(len(self._joint.shares) - 1) for high in (False, True)]
        edges: list[Edge] = [each if isinstance(each, Surface) else each.line for each in lines]
        return tuple(zip(edges[::2], edges[1::2], strict=True))

    def _edge(self, number: int, high: bool) -> Gauge | Surface:
        """Return the line of an edge of a tenon, counted from the face edge; the panel's own edge where it is that."""
        across = self._making.second.part.across.value
        spans = sorted(self._frame.span(Y, tenon.low[across], tenon.high[across]) for tenon in self._joint.shares[1:])
        at = Fraction(spans[number][high])
        if at in (0, self._stock.width):
            return surface_at(Y, high)
        setting = by_rule("tenon edge", at, Surface.FACE_EDGE, self._marks)
        number = 2 * number + high + 1
        return self._line(LineKind.TENON_EDGE, setting, (self._end, *self._faces), end=self._end, number=number)

    def edges(self) -> Iterator[Gauge]:
        """Yield the lines of the edges of all tenons."""
        for number in range(len(self._joint.shares) - 1):
            for high in (False, True):
                line = self._edge(number, high)
                if isinstance(line, Gauge):
                    yield line

    def _along(self, inner: Line) -> Bounds:
        """Return the bounds along the grain from a line to the end."""
        return (inner, self._end) if self._end.high else (self._end, inner)

    def rabbeted(self) -> Iterator[Take]:
        """Yield the rabbets across both faces that leave tongue and tenons."""
        low, high = sorted(self.cheeks.draws, key=lambda line: line.at)
        whole: Bounds = (Surface.FACE_EDGE, Surface.OTHER_EDGE)
        for into, deep in (
            (Surface.FACE_SIDE, (Surface.FACE_SIDE, low)),
            (Surface.OTHER_FACE, (high, Surface.OTHER_FACE)),
        ):
            bounds: dict[int, Bounds] = {X: self._along(self.shoulder.line), Y: whole, Z: deep}
            yield self._take(Cut.PANEL_RABBET, into, bounds, self._making.shop.schools.floor == "router plane")

    def sawn_out(self) -> Iterator[Take]:
        """Yield what goes between the tenons, and beside the outer ones, down to the tongue."""
        edges = self._edge_lines()
        gaps: list[tuple[Edge, Edge]] = [
            (Surface.FACE_EDGE, edges[0][0]),
            *((one[1], other[0]) for one, other in pairwise(edges)),
            (edges[-1][1], Surface.OTHER_EDGE),
        ]
        for gap in gaps:
            if isinstance(gap[0], Surface) and gap[0] is gap[1]:
                continue
            bounds: dict[int, Bounds] = {X: self._along(self.tongue_end.line), Y: gap, Z: self._faces}
            yield self._take(Cut.BETWEEN_TENONS, self._end, bounds)

    def traced(self, end: _End) -> TracePlaces:
        """Return the marking of the pegs' places through the holes of the end."""
        return TracePlaces(
            part=self._part, stock=self._stock, mate=end.part, lines=(self._row(end), *self._places(end))
        )

    def _row(self, end: _End) -> Line:
        at = carried(end.frame, self._frame, self._making.second.part.grain, end.row.line)
        return Line(LineKind.ROW, X, at, self._faces, self._end, of=self._joint.id)

    def _places(self, end: _End) -> tuple[Line, ...]:
        across = self._making.second.part.across
        return tuple(
            Line(
                LineKind.PLACE,
                Y,
                carried(end.frame, self._frame, across, each.line),
                self._faces,
                self._end,
                number,
                self._joint.id,
            )
            for number, each in enumerate(end.places, start=1)
        )

    def drawn(self, end: _End) -> Gauge:
        """Return the row of the holes in the tenons: nearer to the shoulder, so that the pegs draw it tight."""
        base = self._row(end)
        setting = by_rule("draw", self._pegs.draw, of_line(base), self._marks)
        return self._line(LineKind.DRAWN_ROW, setting, self._faces, end=self._end, base=base, backwards=self._end.high)

    def bored(self, end: _End) -> Iterator[Bore | BoreSlots]:
        """Yield the hole in the glued tenon, and slots in the others as long as their mortises let them move."""
        row, places = self.drawn(end).line, self._places(end)
        travels = [each.travel for each in pegged(self._joint, self._making.second.part.across)]
        by_travel: dict[Fraction, list[Line]] = {}
        for place, travel in zip(places, travels, strict=True):
            by_travel.setdefault(travel, []).append(place)
        for travel, some in sorted(by_travel.items()):
            if travel:
                yield BoreSlots(
                    part=self._part,
                    stock=self._stock,
                    into=Surface.FACE_SIDE,
                    row=row,
                    places=tuple(some),
                    along=Y,
                    bit=self._making.bit(self._pegs.bit),
                    travel=self._marks.to_mark(Length(travel), Direction.UP).mm,
                )
            else:
                yield Bore(
                    part=self._part,
                    stock=self._stock,
                    into=Surface.FACE_SIDE,
                    row=row,
                    places=tuple(some),
                    bit=self._making.bit(self._pegs.bit),
                    stays=True,
                    pin=Pin.PEG,
                )


class _End(_Side):
    """The board across the panel's end."""

    def __init__(self, making: Making, panel: _Panel) -> None:
        super().__init__(making, making.first)
        self._panel = panel
        self._into = making.first.surface(side_at(making.second.part.grain, self._way < 0))

    @property
    def part(self) -> str:
        """Its id."""
        return self._part

    @property
    def frame(self) -> Frame:
        """Its frame."""
        return self._frame

    @property
    def cheeks(self) -> GaugePair:
        """The walls of groove and mortises."""
        return self._gauged((self._into, Surface.REFERENCE_END, Surface.FAR_END), None)

    def _walls(self) -> Bounds:
        low, high = sorted(self.cheeks.draws, key=lambda line: line.at)
        return low, high

    def _deep(self, name: str, deep: Fraction, quantity: str) -> Bounds:
        # What goes in is cut already: the depth is taken from it, so that shoulder and end close together.
        setting = by_mate(name, deep, self._into, self._making.second.part.id, quantity)
        return (setting, self._into) if self._into.high else (self._into, setting)

    @property
    def groove(self) -> Take:
        """The groove for the tongue, from end to end."""
        shop, wide = self._making.shop, self._joint.channels[0].size(self._making.second.part.face)
        deep = self._joint.channels[0].size(self._making.second.part.grain)
        iron = shop.plough_iron(Length(wide)) if deep <= shop.plough_deepest.mm else None
        made = self._take(
            Cut.CHISEL_GROOVE if iron is None else Cut.PLOUGH_TO_LINES,
            self._into,
            {
                X: (Surface.REFERENCE_END, Surface.FAR_END),
                Y: self._deep("depth", deep, self._joint.names.depth),
                Z: self._walls(),
            },
        )
        return replace(made, tools=self._making.chisel(wide) if iron is None else (of_tool("iron", iron),))

    def _mortise(self, number: int) -> tuple[tuple[Gauge, Gauge], tuple[Gauge, ...]]:
        """Return the lines of a tenon's edges, traced, and those of the mortise where it is longer."""
        axis = self._making.second.part.across
        pairs = sorted(
            (self._frame.span(X, tenon.low[axis.value], tenon.high[axis.value]), mortise)
            for tenon, mortise in zip(self._joint.shares[1:], self._joint.channels[1:], strict=True)
        )
        (low, high), mortise = pairs[number]
        panel = self._making.second.part.id
        one, other = (
            self._line(
                LineKind.TENON_EDGE,
                by_mate("tenon edge", Fraction(at), Surface.REFERENCE_END, panel),
                (self._into,),
                number=2 * number + far + 1,
                tool=Marker.KNIFE,
            )
            for far, at in ((False, low), (True, high))
        )
        room = (mortise.size(axis) - Fraction(high - low)) / 2
        if not room:
            return (one, other), ()
        beyond = tuple(
            self._line(
                LineKind.SLOT_END,
                by_rule("room", room, of_line(line.line), self._marks, Direction.UP),
                (self._into,),
                number=2 * number + far + 1,
                base=line.line,
                backwards=not far,
            )
            for far, line in ((False, one), (True, other))
        )
        return (one, other), beyond

    def mortise_lines(self) -> Iterator[Gauge]:
        """Yield the edges of all tenons, traced; then the ends of the mortises that are longer."""
        made = [self._mortise(number) for number in range(len(self._joint.shares) - 1)]
        for traced, _ in made:
            yield from traced
        for _, beyond in made:
            yield from beyond

    def mortises(self) -> Iterator[Take]:
        """Yield the chopping of every mortise."""
        deep = self._joint.channels[1].size(self._making.second.part.grain)
        wide = self._joint.channels[0].size(self._making.second.part.face)
        for number in range(len(self._joint.shares) - 1):
            traced, beyond = self._mortise(number)
            low, high = (line.line for line in beyond or traced)
            bounds: dict[int, Bounds] = {
                X: (low, high),
                Y: self._deep("depth", deep, self._joint.names.reach),
                Z: self._walls(),
            }
            yield replace(self._take(Cut.MORTISE, self._into, bounds), tools=self._making.chisel(wide))

    @property
    def row(self) -> Gauge:
        """The row of the pegs, from the edge that meets the shoulder."""
        setting = by_rule("pegs", self._pegs.inset, self._into, self._marks)
        return self._line(LineKind.ROW, setting, (Surface.FACE_SIDE,))

    @property
    def places(self) -> tuple[Gauge, ...]:
        """One over the middle of every tenon."""
        across = self._making.second.part.across
        middles = sorted(Fraction(self._frame.span(X, each.at, each.at)[0]) for each in pegged(self._joint, across))
        return tuple(
            self._line(
                LineKind.PLACE,
                by_rule("peg", at, Surface.REFERENCE_END, self._marks),
                (Surface.FACE_SIDE,),
                number=number,
            )
            for number, at in enumerate(middles, start=1)
        )

    @property
    def bored(self) -> Bore:
        """The holes, through both cheeks."""
        return Bore(
            part=self._part,
            stock=self._stock,
            into=Surface.FACE_SIDE,
            row=self.row.line,
            places=tuple(each.line for each in self.places),
            bit=self._making.bit(self._pegs.bit),
            pin=Pin.PEG,
        )
