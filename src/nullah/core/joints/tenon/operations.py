"""How mortise and tenon are made: gauged alike on both parts, chopped to the chisel, sawn to the shoulder."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from nullah.core.card import JointStage
from nullah.core.fraction import Fraction
from nullah.core.joints.making import BenchStep, Making
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.lines import Edge, Line, LineKind
from nullah.core.operations.marking import Gauge, Marker
from nullah.core.operations.settings import ByMate, OfTool, ToolSetting, by_mate, by_rule, of_tool
from nullah.core.operations.stock import Surface, surface_at
from nullah.core.operations.taking import Bounds, Cut, Take
from nullah.core.operations.tenons import GaugePair, SawTenon
from nullah.core.piece.frame import Frame
from nullah.core.piece.space import Axis, Box, Side, side_at

Place = tuple[Fraction, Fraction]


class Tenons(NamedTuple):
    """Tenons as they stand in the piece: all of one section and length, in rows and columns.

    Parameters
    ----------
    long, deep : Fraction
        How long the tenons are, and how deep their mortises, mm.
    into : Side
        The side of the host through which they go in.
    thick, wide : Axis
        The axes along which they are thin and wide.
    rows, columns : tuple of (Fraction, Fraction)
        From where to where they go along these axes, mm of the piece.
    gauged : Side
        The side from which both parts are gauged.
    """

    long: Fraction
    deep: Fraction
    into: Side
    thick: Axis
    wide: Axis
    rows: tuple[Place, ...]
    columns: tuple[Place, ...]
    gauged: Side


def tenon_steps(making: Making) -> tuple[BenchStep, ...] | None:
    """Return the steps of tenons and their mortises; None where they are not plain ones in rows."""
    tenons = tenons_of(making)
    if tenons is None:
        return None
    host, guest = MortisedPart(making, tenons), TenonedPart(making, tenons)
    return (
        BenchStep(JointStage.GAUGED, "both", (*host.gauged(), *guest.gauged())),
        BenchStep(JointStage.MARKED, "first", tuple(host.ends())),
        BenchStep(JointStage.CUT, "first", tuple(host.chopped())),
        BenchStep(JointStage.MARKED, "second", (guest.shoulder, *guest.edges())),
        BenchStep(JointStage.SAWN, "second", (guest.sawn,)),
    )


def tenons_of(making: Making) -> Tenons | None:
    """Return the tenons of a joint; None where they are not plain ones in rows."""
    host, guest, joint = making.first.part, making.second.part, making.joint
    along = guest.grain
    if host.grain is along or not joint.shares or any(joint.room) or guest.spare:
        return None
    one, two = (axis for axis in Axis if axis is not along)
    overlap = host.box.overlap(guest.box)
    if overlap is None or any(overlap.size(axis) != guest.box.size(axis) for axis in (one, two)):
        return None
    first = joint.shares[0]
    thick, wide = (one, two) if first.size(one) <= first.size(two) else (two, one)
    rows, columns = (_places(joint.shares, axis) for axis in (thick, wide))
    mortises = joint.channels or joint.shares
    whole = len(joint.shares) == len(rows) * len(columns) == len(mortises)
    if not whole or _places(mortises, thick) != rows or _places(mortises, wide) != columns:
        return None
    if len(_places(joint.shares, along)) > 1 or len(_places(mortises, along)) > 1:
        return None
    low, high = host.box.low, host.box.high
    inwards = guest.box.low[along.value] + guest.box.high[along.value] > low[along.value] + high[along.value]
    near, far = rows[0][0] - low[thick.value], high[thick.value] - rows[-1][1]
    return Tenons(
        first.size(along),
        mortises[0].size(along),
        side_at(along, inwards),
        thick,
        wide,
        rows,
        columns,
        side_at(thick, far < near),
    )


def _places(boxes: Iterable[Box], axis: Axis) -> tuple[Place, ...]:
    """Return from where to where boxes go along an axis, each place once, from low to high."""
    return tuple(sorted({(box.low[axis.value], box.high[axis.value]) for box in boxes}))


class _Side:
    """What both parts have in common: their frame, and where the tenons lie in it."""

    def __init__(self, making: Making, tenons: Tenons, frame: Frame) -> None:
        self._making, self._tenons, self._frame = making, tenons, frame
        self._part, self._stock = frame.part.id, frame.stock
        self._through, self._across = (frame.axes.index(axis) for axis in (tenons.thick, tenons.wide))

    def _spans(self, places: tuple[Place, ...], axis: int) -> tuple[Place, ...]:
        """Return places of the piece along one of the blank's axes, from low to high, mm."""
        spans = (self._frame.span(axis, *place) for place in places)
        return tuple(sorted((Fraction(low), Fraction(high)) for low, high in spans))

    @property
    def rows(self) -> tuple[Place, ...]:
        """From where to where tenons go through the thickness."""
        return self._spans(self._tenons.rows, self._through)

    @property
    def columns(self) -> tuple[Place, ...]:
        """From where to where they go across."""
        return self._spans(self._tenons.columns, self._across)

    def _pair(self, number: int, on: tuple[Surface, ...], end: Surface | None) -> GaugePair:
        """Return the cheek lines of a row, from the side from which both parts are gauged."""
        low, high = self.rows[number]
        place = self._tenons.rows[:: -1 if self._frame.turned[self._through] else 1][number]
        wide = pins_apart(self._making, high - low, self._tenons.thick)
        # A tool or a mark that is not quite as wide lies in the middle of what it should be.
        shift = (high - low - wide.figure) / 2
        surface, near = nearer_cheek(self._making.second, self._tenons.gauged, place)
        # Both are set so that faces lie as they should: what the mark does to the one it does to the other.
        off = by_rule("nearer pin", near + shift, surface, self._making.marks).figure - near
        surface, near = nearer_cheek(self._frame, self._tenons.gauged, place)
        return GaugePair(
            part=self._part,
            stock=self._stock,
            kind=LineKind.CHEEK,
            near=by_rule("nearer pin", near + off, surface, self._making.marks),
            wide=wide,
            on=on,
            end=end,
            of=f"{self._making.joint.id} {number + 1}",
        )


class MortisedPart(_Side):
    """The part with the mortises."""

    def __init__(self, making: Making, tenons: Tenons) -> None:
        super().__init__(making, tenons, making.first)
        self.into = making.first.surface(tenons.into)

    def gauged(self) -> Iterator[GaugePair]:
        """Yield the mortise gauge along both cheeks of every row."""
        for number in range(len(self.rows)):
            yield self._pair(number, (self.into,), None)

    def _end(self, column: int, high: bool) -> Gauge | None:
        """Return the line of one end of the mortises of a column; None where they lie open."""
        low, top = self.columns[column]
        size, at = self._stock[self._across], (low, top)[high]
        if at in (0, size):
            return None
        # A slot that is open at an end is as long as its mate is wide there.
        opens = [surface_at(self._across, far) for far, place in ((False, low == 0), (True, top == size)) if place]
        marks, mate = self._making.marks, self._making.second.part.id
        setting = (
            by_mate("mortise end", top - low, opens[0], mate)
            if opens
            else by_rule("mortise end", at, surface_at(self._across, False), marks)
        )
        return Gauge(
            part=self._part,
            stock=self._stock,
            kind=LineKind.MORTISE_END,
            setting=setting,
            tool=Marker.KNIFE,
            on=(self.into,),
            number=2 * column + high + 1,
            of=self._making.joint.id,
        )

    def ends(self) -> Iterator[Gauge]:
        """Yield the lines of the ends of all mortises."""
        for column in range(len(self.columns)):
            yield from (line for high in (False, True) if (line := self._end(column, high)) is not None)

    def chopped(self) -> Iterator[Take]:
        """Yield the chopping of every mortise."""
        through = self._tenons.deep >= self._stock[self.into.axis]
        for pair in self.gauged():
            for column in range(len(self.columns)):
                ends = self._end(column, False), self._end(column, True)
                bounds: dict[int, Bounds] = {
                    self._across: _bounds(*ends, self._across),
                    self._through: _sorted(pair.draws),
                    self.into.axis: self._depth(through),
                }
                yield Take(
                    part=self._part,
                    stock=self._stock,
                    cut=Cut.MORTISE if not through else Cut.THROUGH_MORTISE if all(ends) else Cut.OPEN_MORTISE,
                    into=self.into,
                    x=bounds[0],
                    y=bounds[1],
                    z=bounds[2],
                    tools=self._making.chisel(pair.wide.figure),
                    of=self._making.joint.id,
                    router=False,
                )

    def _depth(self, through: bool) -> Bounds:
        if through:
            return surface_at(self.into.axis, False), surface_at(self.into.axis, True)
        name = self._making.joint.names.reach
        # The same figure as the tenon is long; the words say to go a hair deeper.
        setting = by_rule("depth", self._tenons.deep, self.into, self._making.marks, quantity=name)
        return (setting, self.into) if self.into.high else (self.into, setting)


class TenonedPart(_Side):
    """The part with the tenons."""

    def __init__(self, making: Making, tenons: Tenons) -> None:
        super().__init__(making, tenons, making.second)
        self._end = making.second.surface(side_at(tenons.into.axis, not tenons.into.high))

    def gauged(self) -> Iterator[GaugePair | Gauge]:
        """Yield the lines of the cheeks: a pair; one where a tenon lies at a face; none where it is all there is."""
        on = (self._end, surface_at(self._across, False), surface_at(self._across, True))
        thick = self._stock[self._through]
        for number, (low, high) in enumerate(self.rows):
            if low > 0 and high < thick:
                yield self._pair(number, on, self._end)
            elif low > 0 or high < thick:
                far = low > 0
                yield Gauge(
                    part=self._part,
                    stock=self._stock,
                    kind=LineKind.CHEEK,
                    setting=by_rule(
                        "cheek", thick - low if far else high, surface_at(self._through, far), self._making.marks
                    ),
                    on=on,
                    end=self._end,
                    of=f"{self._making.joint.id} {number + 1}",
                )

    def _cheeks(self) -> Iterator[tuple[Edge, Edge]]:
        """Yield what lies on either side of each row: cheek lines, or the part's own surfaces."""
        lines = sorted((line for made in self.gauged() for line in made.draws), key=lambda line: line.at)
        for low, high in self.rows:
            below: Edge = lines.pop(0) if low > 0 else surface_at(self._through, False)
            above: Edge = lines.pop(0) if high < self._stock[self._through] else surface_at(self._through, True)
            yield below, above

    @property
    def shoulder(self) -> Gauge:
        """The knife line round the part."""
        name = self._making.joint.names.reach
        return Gauge(
            part=self._part,
            stock=self._stock,
            kind=LineKind.SHOULDER,
            setting=by_rule("tenon length", self._tenons.long, self._end, self._making.marks, quantity=name),
            tool=Marker.KNIFE,
            on=(Surface.FACE_SIDE, Surface.FACE_EDGE, Surface.OTHER_FACE, Surface.OTHER_EDGE),
            end=self._end,
        )

    def _edge(self, column: int, high: bool) -> Gauge | None:
        """Return the line of one edge of the tenons of a column; None where the part's own edge is theirs."""
        at, size = self.columns[column][high], self._stock[self._across]
        if at in (0, size):
            return None
        return Gauge(
            part=self._part,
            stock=self._stock,
            kind=LineKind.TENON_EDGE,
            setting=self._edge_setting(at),
            on=(self._end,),
            end=self._end,
            number=2 * column + high + 1,
        )

    def _edge_setting(self, at: Fraction) -> ToolSetting:
        """Return where an edge of a tenon lies: by its mortise where an edge of both parts is level, or with a rule."""
        size, level = self._stock[self._across], self._level_edge
        far = 2 * at > size
        if level is None:
            surface = surface_at(self._across, far)
            return by_rule("tenon edge", size - at if far else at, surface, self._making.marks)
        return by_mate("tenon edge", size - at if level.high else at, level, self._making.first.part.id)

    @property
    def _level_edge(self) -> Surface | None:
        """The edge that is level with one of the mortised part; None where neither is."""
        host, guest = self._making.first.part, self._making.second.part
        sides = (side_at(self._tenons.wide, high) for high in (False, True))
        return next((self._frame.surface(side) for side in sides if host.box.at(side) == guest.box.at(side)), None)

    def edges(self) -> Iterator[Gauge]:
        """Yield the lines of the edges of all tenons."""
        for column in range(len(self.columns)):
            yield from (line for high in (False, True) if (line := self._edge(column, high)) is not None)

    @property
    def sawn(self) -> SawTenon:
        """The sawing of cheeks and shoulders."""
        return SawTenon(
            part=self._part,
            stock=self._stock,
            end=self._end,
            shoulder=self.shoulder.line,
            through=self._through,
            cheeks=tuple(self._cheeks()),
            edges=tuple(
                _bounds(self._edge(column, False), self._edge(column, True), self._across)
                for column in range(len(self.columns))
            ),
            shoulders_first=self._making.shop.schools.tenon == "shoulders first",
        )


def nearer_cheek(frame: Frame, gauged: Side, place: Place) -> tuple[Surface, Fraction]:
    """Return from which surface a row's nearer cheek is gauged on a part, and how far it lies from it, mm."""
    surface = frame.surface(gauged)
    low, high = frame.span(surface.axis, *place)
    return surface, Fraction(frame.stock[surface.axis] - high if surface.high else low)


def _bounds(low: Gauge | None, high: Gauge | None, axis: int) -> tuple[Edge, Edge]:
    """Return two lines, or the surfaces that stand in for them."""
    return (surface_at(axis, False) if low is None else low.line, surface_at(axis, True) if high is None else high.line)


def pins_apart(making: Making, wide: Fraction, axis: Axis) -> ToolSetting:
    """Return what sets the pins: the part itself where a tenon is as thick, the chisel that is as wide, or a figure.

    Parameters
    ----------
    making : Making
        The joint, and the tools.
    wide : Fraction
        Of the mortise, mm.
    axis : Axis
        Across it.
    """
    name, guest = making.joint.names.guest, making.second.part
    if wide == guest.box.size(axis):
        return ToolSetting("pins apart", wide, OfTool(), ByMate(guest.id), quantity=name)
    chisel = next((each for each in making.shop.chisels if each.mm == wide), None)
    if chisel is not None:
        return of_tool("chisel", chisel, name)
    return ToolSetting("pins apart", making.marks.to_mark(Length(wide)).mm, OfTool(), quantity=name)


def _sorted(lines: tuple[Line, ...]) -> tuple[Line, Line]:
    low, high = sorted(lines, key=lambda line: line.at)
    return low, high
