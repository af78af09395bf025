"""How a part is shaped when its joints are cut: every shaping as operations, in the frame of its blank."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import Phrase
from nullah.core.fraction import Fraction
from nullah.core.lengths import Direction, Length, Marks, from_float
from nullah.core.operations.fastening import BoreSlots, SetOutRow
from nullah.core.operations.lines import LineKind
from nullah.core.operations.marking import Gauge
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ToolSetting, by_rule
from nullah.core.operations.shaping import BevelEdge, PlaneTaper, RoundEdge, SawArch, SawCorners, SawOgee, SawOutline
from nullah.core.operations.stock import Surface, X, surface_at
from nullah.core.operations.taking import Bound, Cut, Take
from nullah.core.piece.frame import Frame
from nullah.core.piece.shaping import (
    Arch,
    Chamfer,
    Flat,
    LongBevel,
    Notch,
    OgeeFoot,
    RaisedPanel,
    RoundOver,
    Shaping,
    Slant,
    Slot,
    Taper,
    Traced,
)
from nullah.core.piece.space import Axis, Box, Side
from nullah.core.polygons import beyond


def shaping_operations(frame: Frame, shaping: Shaping, marks: Marks) -> tuple[Operation, ...] | None:
    """Return how a shaping is made; None for one whose figures lie outside the part."""
    made = _Shaped(frame, marks)
    match shaping:
        case Taper():
            return tuple(made.tapers(shaping))
        case Chamfer(edge, width):
            return (made.bevel(edge, width, width),)
        case LongBevel(edge, run, fall):
            return (made.bevel(edge, run, fall),)
        case RaisedPanel():
            return tuple(made.raised(shaping))
        case RoundOver(edge, radius):
            return (made.round(edge, radius),)
        case Arch():
            return made.arch(shaping)
        case OgeeFoot():
            return made.ogee(shaping)
        case Traced():
            return (made.traced(shaping),)
        case Notch():
            return tuple(_recess(frame, shaping, marks))
        case Slot():
            return tuple(made.slot(shaping))
        case Slant():
            return made.slant(shaping)


class _Shaped:
    """A part that is shaped; places are told in the frame of its blank."""

    def __init__(self, frame: Frame, marks: Marks) -> None:
        self._frame, self._marks = frame, marks
        self._part, self._stock = frame.part.id, frame.stock
        self._box = frame.part.box

    # --- settings ---

    def _in(self, name: str, side: Side, distance: float) -> ToolSetting:
        """Return a setting from a side of the part; what an end is left long is added."""
        surface = self._frame.surface(side)
        proud = self._frame.proud if surface.axis == X else Fraction(0)
        return by_rule(name, from_float(distance).mm + proud, surface, self._marks)

    def _axis(self, axis: Axis) -> int:
        return self._frame.axes.index(axis)

    def _place(self, axis: Axis, at: float) -> Fraction:
        """Return a place so far from the low side of the part, along an axis of the blank, mm."""
        value = self._box.low[axis.value] + from_float(at).mm
        return Fraction(self._frame.span(self._axis(axis), value, value)[0])

    def _from_either(self, name: str, axis: Axis, at: float) -> ToolSetting:
        """Return a setting to a place, from the surface that is nearer."""
        index, place = self._axis(axis), self._place(axis, at)
        far = 2 * place > self._stock[index]
        return by_rule(name, self._stock[index] - place if far else place, surface_at(index, far), self._marks)

    def _from(self, name: str, axis: Axis, at: float, far: bool) -> ToolSetting:
        index, place = self._axis(axis), self._place(axis, at)
        return by_rule(name, self._stock[index] - place if far else place, surface_at(index, far), self._marks)

    # --- kinds ---

    def tapers(self, taper: Taper) -> Iterator[PlaneTaper]:
        """Yield the taper of each side."""
        for side in sorted(taper.sides, key=lambda side: side.value):
            yield PlaneTaper(
                part=self._part,
                stock=self._stock,
                end=self._frame.surface(taper.end),
                toe=self._in("toe", side, taper.toe),
                start=self._in("start", taper.end.opposite, taper.start) if taper.start else None,
            )

    def bevel(self, edge: tuple[Side, Side], over: float, down: float) -> BevelEdge:
        """Return the edge between two sides off, so far over the first and so far down the second."""
        first, second = edge
        return BevelEdge(
            part=self._part, stock=self._stock, over=self._in("over", second, over), down=self._in("down", first, down)
        )

    def raised(self, panel: RaisedPanel) -> Iterator[BevelEdge]:
        """Yield the bevels round a face: across the grain first, so that what breaks out is planed away."""
        sides = panel.edges or frozenset(side for side in Side if side.axis is not panel.face.axis)
        for side in sorted(sides, key=lambda side: (side.axis is not self._frame.part.grain, side.value)):
            yield self.bevel((panel.face, side), panel.width, panel.fall)

    def round(self, edge: tuple[Side, Side], radius: float) -> RoundEdge:
        """Return the edge between two sides rounded."""
        first, second = edge
        over, down = self._in("radius", second, radius), self._in("radius", first, radius)
        return RoundEdge(part=self._part, stock=self._stock, over=over, down=down)

    def arch(self, arch: Arch) -> tuple[SawArch] | None:
        """Return the arc in the middle of an edge."""
        along = _along(arch.side, arch.through)
        size = float(self._box.size(along))
        low = (size - arch.chord) / 2
        if low < 0 or not arch.rise:
            return None
        ends = sorted(
            (self._from("arc", along, at, far) for at, far in ((low, False), (size - low, True))),
            key=lambda each: each.place(self._stock),
        )
        rise = self._in("rise", arch.side, arch.rise)
        return (SawArch(part=self._part, stock=self._stock, start=ends[0], end=ends[1], rise=rise),)

    def ogee(self, made: OgeeFoot) -> tuple[SawOgee] | None:
        """Return the cut between two feet, or beside one."""
        along = _along(made.side, made.through)
        size = float(self._box.size(along))
        if made.rise <= 0 or made.run <= 0 or made.foot + made.run > size / (2 if made.only is None else 1) + 1e-9:
            return None
        at_high = (False, True) if made.only is None else (made.only.high,)
        turned = self._frame.turned[self._axis(along)]
        feet = []
        for high in at_high:
            far = high is not turned
            foot, top = ((size - at if high else at) for at in (made.foot, made.foot + made.run))
            feet.append((self._from("foot", along, foot, far), self._from("ogee", along, top, far)))
        feet.sort(key=lambda pair: pair[0].place(self._stock))
        rise = self._in("rise", made.side, made.rise)
        return (SawOgee(part=self._part, stock=self._stock, feet=tuple(feet), rise=rise),)

    def traced(self, made: Traced) -> SawOutline:
        """Return an edge cut to points."""
        along = _along(made.side, made.through)
        mark, ends = self._marks.to_mark, self._frame.proud if self._axis(along) == X else Fraction(0)
        proud = self._frame.proud if self._frame.surface(made.side).axis == X else Fraction(0)
        points = sorted(
            (mark(Length(self._place(along, at))).mm if at else ends, mark(from_float(deep)).mm + proud)
            for at, deep in made.points
        )
        surface = self._frame.surface(made.side)
        return SawOutline(
            part=self._part, stock=self._stock, side=surface, along=self._axis(along), points=tuple(points)
        )

    def slot(self, made: Slot) -> Iterator[Operation]:
        """Yield a hole with round ends: its middle set out, two holes bored, the wood between taken out."""
        long, high = (Axis((made.along.value + step) % 3) for step in (1, 2))
        into = Surface.FACE_SIDE if self._axis(made.along) == 2 else surface_at(self._axis(made.along), False)
        laid = SetOutRow(
            part=self._part,
            stock=self._stock,
            row=self._from_either("row", high, made.middle[1]),
            first=self._from_either("place", long, made.middle[0]),
            last=None,
            count=1,
            on=into,
            of="hole",
        )
        yield laid
        yield BoreSlots(
            part=self._part,
            stock=self._stock,
            into=into,
            row=laid.line,
            places=laid.places,
            along=self._axis(long),
            bit=self._marks.to_mark(from_float(made.height)),
            travel=self._marks.to_mark(from_float(made.length - made.height)).mm,
            stays=False,
            bought=False,
        )

    def slant(self, made: Slant) -> tuple[SawCorners, ...] | None:
        """Return what lies between slanted lines, its corners told where the lines cross the part's own edges."""
        first, second = (Axis((made.along.value + step) % 3) for step in (1, 2))
        sizes = (float(self._box.size(first)), float(self._box.size(second)))
        corners = within(made.points, sizes)
        if len(corners) < 3:
            return ()
        depth, into = None, surface_at(self._axis(made.along), False)
        if made.ends is not None:
            low, high = self._frame.span(
                self._axis(made.along), *(self._box.low[made.along.value] + from_float(end).mm for end in made.ends)
            )
            size = self._stock[into.axis]
            if low > 0 and high < size:
                return None
            into = surface_at(into.axis, low > 0)
            depth = by_rule("depth", Fraction(size - low if low > 0 else high), into, self._marks)
        told = [
            {
                axis: self._from_either(Phrase("corner {number}", number=str(n)), axis, at)
                for axis, at in zip((first, second), corner, strict=True)
            }
            for n, corner in enumerate(corners, start=1)
        ]
        # The corners of a prism are told in the two axes after its own, as the blank counts them.
        order = [self._frame.axes[(into.axis + step) % 3] for step in (1, 2)]
        pairs = tuple((each[order[0]], each[order[1]]) for each in told)
        return (SawCorners(part=self._part, stock=self._stock, into=into, corners=pairs, depth=depth),)


def _along(side: Side, through: Axis) -> Axis:
    return next(axis for axis in Axis if axis not in (side.axis, through))


def within(points: tuple[Flat, ...], sizes: Flat) -> tuple[Flat, ...]:
    """Return what of a convex polygon lies within a rectangle from (0, 0), each corner once; none where nothing does.

    Parameters
    ----------
    points : tuple of (float, float)
        Of the polygon, in order, mm.
    sizes : (float, float)
        The rectangle's, mm.

    Examples
    --------
    >>> within(((-5, 2), (5, 2), (5, 8), (-5, 8)), (10, 6))
    ((0.0, 2.0), (5.0, 2.0), (5.0, 6.0), (0.0, 6.0))
    """
    found = [(float(a), float(b)) for a, b in points]
    for corner, sign in (((0.0, 0.0), 1.0), (sizes, -1.0)):
        for inwards in ((sign, 0.0), (0.0, sign)):
            found = beyond(found, corner, inwards)
    kept: list[Flat] = []
    for point in found:
        if all(max(abs(point[0] - other[0]), abs(point[1] - other[1])) > 1e-6 for other in kept):
            kept.append(point)
    return tuple(kept)


def _recess(frame: Frame, notch: Notch, marks: Marks) -> Iterator[Operation]:
    """Yield the lines of a recess where it ends inside the wood, and its chopping."""
    corner = frame.part.box.low
    low, high = (
        tuple(base + Fraction(str(at)) for base, at in zip(corner, place, strict=True))
        for place in (notch.low, notch.high)
    )
    spans = frame.spans(Box((low[0], low[1], low[2]), (high[0], high[1], high[2])))
    name = Phrase("recess at {place}", place=f"{float(spans[0][0]):.0f}")
    bounds: list[tuple[Bound, Bound]] = []
    into = Surface.OTHER_EDGE
    for axis, (start, end) in enumerate(spans):
        whole = frame.finished[axis]
        pair: list[Bound] = []
        for number, (at, is_high, border) in enumerate(((start, False, whole[0]), (end, True, whole[1]))):
            surface = surface_at(axis, is_high)
            if (at >= border) if is_high else (at <= border):
                pair.append(surface)
                into = surface if axis == 1 else into
                continue
            nearer = surface_at(axis, 2 * at > frame.stock[axis])
            distance = frame.stock[axis] - at if nearer.high else at
            line = Gauge(
                part=frame.part.id,
                stock=frame.stock,
                kind=LineKind.OUTLINE,
                setting=by_rule("outline", distance, nearer, marks, Direction.NEAREST),
                number=2 * axis + number + 1,
                of=name,
            )
            yield line
            pair.append(line.line)
        bounds.append((pair[0], pair[1]))
    through = all(isinstance(bound, Surface) for bound in bounds[2])
    yield Take(
        part=frame.part.id,
        stock=frame.stock,
        cut=Cut.SAW_NOTCH if through else Cut.RECESS,
        into=into,
        x=bounds[0],
        y=bounds[1],
        z=bounds[2],
        of=name,
    )
