"""Operations as hands do them: each figure a little off, what is set from the mate set from the mate as it came out."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import fields, replace
from itertools import product
from typing import Any, cast

import numpy as np

from nullah.core.apprentice.made_part import Body, Boundary, Face, Floats, MadePart, bodies, planes_of
from nullah.core.fraction import Fraction
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.dovetails import ChopBlindSockets, CutPins, CutTails, Outline, SawBlindPins
from nullah.core.operations.fastening import TracePlaces
from nullah.core.operations.lines import Line, LineKind
from nullah.core.operations.marking import Gauge, SetOff, StepOff, Trace
from nullah.core.operations.milling import LeaveOver, LeaveRough, WorkTo
from nullah.core.operations.mitres import MitreEnd
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ENTERING, ByMate, ByMeasure, ByStepping, OfMate, OfTool, ToolSetting
from nullah.core.operations.shaping import BevelEdge, PlaneTaper, RoundEdge
from nullah.core.operations.sliding import SlopeTail
from nullah.core.operations.stock import Stock, Surface
from nullah.core.operations.taking import RUNS_THROUGH, Beside, Cut, CutToSize, PlaneOff, Take
from nullah.core.operations.tenons import GaugePair
from nullah.core.shop import Hands

#: What is planed to a line, as often a little over it as under; all else is sawn, and the saw stays in the waste.
_PLANED = (PlaneOff, CutToSize, PlaneTaper, BevelEdge, RoundEdge, SlopeTail)
_TRACED = (CutTails, CutPins, SawBlindPins, ChopBlindSockets)
#: What is told to be cut a hair deeper than what enters it is long.
_DEEPER = frozenset({Cut.MORTISE, Cut.HAUNCH_SOCKET})
#: What is traced where two slopes come out: as far apart as the slopes are, wherever they are felt.
_SLOPED = "neck"
#: A cut that runs out of the wood goes on so far, mm.
_RUNS_OUT = 2.0
#: So far outside a face it is looked whether wood stays there, mm.
_OUTSIDE = 0.05
#: How far two figures for the same thing may be apart, mm: what rounding to a mark leaves.
_SAME = 1.7
#: So much may a figure be off its design that is worked out from what was measured, mm.
_MEASURED_OFF = 3.5
#: How far beside an overlap the mate is measured too, mm.
_BESIDE = 4.0
#: Where along an overlap it is measured: usually, on a narrow shoulder too; and where the longest of several counts,
#: which may lie anywhere.
_HERE_AND_THERE, _EVERYWHERE = (0.025, 0.25, 0.5), tuple((each + 0.5) / 12 for each in range(12))


class Bench:
    """The parts of a piece as they are made, and the lines on them.

    Parameters
    ----------
    hands : Hands
    chance : numpy.random.Generator
        Where errors come from.
    measured : bool
        Whether what waits for a measurement is set to it; otherwise to the figure of the drawing, with a rule.
    """

    def __init__(self, hands: Hands, chance: np.random.Generator, measured: bool = True) -> None:
        self.hands, self.chance, self.measured = hands, chance, measured
        self.parts: dict[str, MadePart] = {}
        self._drawn: dict[tuple[str, str], Line] = {}
        self._traced_from: dict[tuple[str, str], str] = {}
        self._outlines: dict[tuple[str, Surface, Outline], Outline] = {}
        self._set: dict[tuple[object, ...], float] = {}

    def off(self, deviation: float) -> float:
        """Return how far off something is that is off by this standard deviation, mm.

        Parameters
        ----------
        deviation : float
            Standard deviation, mm.
        """
        return float(self.chance.standard_normal() * deviation)

    def do(self, operations: Iterable[Operation]) -> None:
        """Do the operations of a task: what is set to one figure in it is set once."""
        self._set.clear()
        for told in operations:
            if told.part in self.parts:
                self._do(told)

    def milled(self, told: Sequence[float], operations: Iterable[Operation]) -> tuple[float, float, float]:
        """Return the size of a blank as it was milled, mm; what no operation works to is as told.

        Parameters
        ----------
        told : sequence of float
            Its size as told, mm.
        operations : iterable of Operation
            Its milling.
        """
        found = [float(size) for size in told]
        for each in operations:
            if isinstance(each, WorkTo | LeaveOver | LeaveRough):
                assert isinstance(each.setting.origin, Surface)
                axis = each.setting.origin.axis
                like = self.parts.get(each.setting.by.part) if isinstance(each.setting.by, ByMate) else None
                if like is None:
                    figure = float(self._setting(each, each.setting).figure)
                else:
                    figure = like.size[axis] + self.off(self.hands.tracing)
                found[axis] = figure + self.off(self.hands.planing)
        return found[0], found[1], found[2]

    def _do(self, told: Operation) -> None:
        part = self.parts[told.part]
        done = self._done(told)
        for planned, found in zip(told.draws, done.draws, strict=True):
            stepped = isinstance(told, StepOff | SetOff | TracePlaces) and found.axis is not None
            at = found.at + _exact(self.off(self.hands.tracing)) if stepped else found.at
            self._drawn[told.part, planned.name] = found._replace(at=at)
        if isinstance(told, Trace):
            self._traced_from[told.part, told.line.name] = told.mate
        if isinstance(told, CutToSize) and isinstance(done, CutToSize):
            axis = cast(Surface, told.setting.origin).axis
            part.size[axis] = float(done.setting.figure)
        planned_bodies = [body for region in told.takes for body in bodies(region)]
        found_bodies = [body for region in done.takes for body in bodies(region)]
        alike = len(planned_bodies) == len(found_bodies)
        moved = [self._cut_off(told, part, body) if alike else () for body in planned_bodies]
        part.told.taken += [planes_of(body) for body in planned_bodies]
        for number, body in enumerate(found_bodies):
            part.found.taken.append(
                planes_of(body, _of_same_faces(body, planned_bodies[number], moved[number]) if alike else ())
            )

    # --- cutting ----------------------------------------------------------------------------------

    def _cut_off(self, told: Operation, part: MadePart, body: Body) -> tuple[float, ...]:
        """Return by how much each face of what is taken comes out further than it was set, mm."""
        along: dict[int, float] = {}

        def one(face: Face) -> float:
            # The corners may all lie on the surface of the blank: its middle does not.
            places = np.array([*face.points, np.mean(face.points, axis=0)])
            outside = places + _OUTSIDE * np.array(face.normal)
            if len(body) > 1 and not any(part.told.there(point) for point in outside):
                return _RUNS_OUT
            axis = int(np.argmax(np.abs(face.normal)))
            if isinstance(told, Take):
                if any(isinstance(bound, Beside) for bound in told.bounds[axis]):
                    # As wide as the tool is: both walls go the same way.
                    along.setdefault(axis, self.off(self.hands.planing))
                    return along[axis] * float(np.sign(face.normal[axis]))
                if told.cut in RUNS_THROUGH or axis == told.into.axis:
                    floor = axis == told.into.axis
                    off = self._router_plane(told) if floor and told.router else self.off(self.hands.planing)
                    return abs(off) if floor and told.cut in _DEEPER else off
            if isinstance(told, _PLANED):
                return self.off(self.hands.planing)
            return -abs(self.off(self.hands.sawing))

        return tuple(one(face) for face in body)

    def _router_plane(self, told: Take) -> float:
        """Return how far off a router plane is: it is set once, and levels all floors of one depth in a task."""
        depth = [each.value for each in told.settings if each.name == "depth"]
        depth += [line.at for line in told.needs if line.kind is LineKind.DEPTH]
        return self._set.setdefault(("router plane", told.into, *depth), self.off(self.hands.planing))

    # --- setting ----------------------------------------------------------------------------------

    def _done(self, told: Operation) -> Operation:
        """Return an operation with what it is set to and works to as it came out."""
        changes = {
            field.name: self._changed(told, getattr(told, field.name))
            for field in fields(told)
            if field.name not in ("part", "of", "quantity")
        }
        if isinstance(told, StepOff):
            changes["half_pin"] = told.half_pin + _exact(self._marking((told.half_pin,)))
        if isinstance(told, SetOff):
            changes["places"] = tuple(place + _exact(self.off(self.hands.marking)) for place in told.places)
        if isinstance(told, MitreEnd) and told.back.value == told.deep.value:
            # The board that it is shot on gives the angle.
            changes["deep"] = told.deep._replace(value=changes["back"].value)
        return replace(told, **changes)

    def _changed(self, told: Operation, value: Any) -> Any:
        match value:
            case ToolSetting():
                return self._setting(told, value)
            case Line():
                return self._drawn.get((told.part, value.name), value)
            case Beside(tool):
                return Beside(self._setting(told, tool))
            case Stock():
                part = self.parts[told.part]
                return Stock(*map(_exact, part.size))
            case Outline() if isinstance(told, _TRACED):
                return self._outline(told, value)
        if type(value) is tuple:
            return tuple(self._changed(told, each) for each in value)
        return value

    def _marking(self, key: tuple[object, ...]) -> float:
        """Return how far off a figure of a rule is; one figure is set once in a task."""
        if key not in self._set:
            self._set[key] = self.off(self.hands.marking)
        return self._set[key]

    def _setting(self, told: Operation, setting: ToolSetting) -> ToolSetting:
        """Return a setting as it came out."""
        if setting.value is None or setting.value == 0 or isinstance(setting.origin, OfMate):
            return setting
        if isinstance(setting.by, ByStepping) or (isinstance(setting.by, ByMeasure) and self.measured):
            return setting
        if isinstance(setting.by, ByMate):
            key = (told.part, setting.name, setting.value, setting.origin, setting.by)
            if key not in self._set:
                self._set[key] = self._by_mate(told, setting, setting.by.part) + self.off(self.hands.tracing)
            off = self._set[key]
        elif isinstance(setting.origin, OfTool):
            return setting
        else:
            off = self._marking((setting.name, setting.value, setting.origin))
        return setting._replace(value=max(setting.value + _exact(off), Fraction(0)))

    # --- measuring on the mate --------------------------------------------------------------------

    def _by_mate(self, told: Operation, setting: ToolSetting, mate_id: str) -> float:
        """Return by how much a figure that the mate sets is more on the mate as it came out, mm."""
        mate, part = self.parts.get(mate_id), self.parts[told.part]
        axis, start = _measured_along(told, setting)
        if mate is None or axis is None:
            return 0.0
        figure = float(setting.figure)
        way = -1.0 if isinstance(setting.origin, Surface) and setting.origin.high else 1.0
        if isinstance(told, Gauge) and told.base is not None and told.backwards:
            way = -1.0
        in_piece = part.frame.axes[axis].value
        ends = np.zeros((2, 3))
        ends[:, axis] = start, start + way * figure
        first, last = np.sort(part.in_piece(ends)[:, in_piece])
        # What goes in is as long as the cut is deep there; a deeper one beside it is another cut.
        entering = isinstance(told, Gauge) and told.kind is LineKind.WALL and setting.name in ENTERING
        floor_high = part.in_piece(ends)[0, in_piece] > part.in_piece(ends)[1, in_piece]
        best, least = 0.0, np.inf
        # A depth is taken where what enters is longest.
        longest = setting.name == "depth"
        found = _extremes(self._felt(_reach(told, part), mate, in_piece, longest))
        for (low, low_off, at_low), (high, high_off, at_high) in product(found, found):
            there = (at_high if floor_high else at_low) if entering else at_low or at_high
            if there and abs(high - low - figure) < _MEASURED_OFF and high > low:
                away = abs(high - low - figure) * 3 + abs(low - first) + abs(high - last)
                more = high_off - low_off + (0.0 if setting.name == _SLOPED else high - low - figure)
                if away < least - 1e-6 or (longest and away < least + 1e-6 and more > best):
                    best, least = more, away
        return best

    def _felt(
        self, reach: tuple[Floats, Floats], mate: MadePart, axis: int, everywhere: bool = False
    ) -> Iterator[tuple[float, float, bool]]:
        """Yield the surfaces of a mate along an axis of the piece, where it meets what is cut and beside that.

        Each with where it was designed, how far beyond that along the axis it lies, mm, and whether it was felt where
        the part goes in (anywhere, where it does not): once, or wherever it was felt.
        """
        other = mate.frame.part.box
        low = np.maximum(reach[0], np.array(other.low, dtype=float))
        high = np.minimum(reach[1], np.array(other.high, dtype=float))
        meets = all(low[each] < high[each] for each in range(3) if each != axis)
        low, high = np.minimum(low, high), np.maximum(low, high)
        along = max((each for each in range(3) if each != axis), key=lambda each: high[each] - low[each])
        places = []
        for each, (a, b) in enumerate(zip(low, high, strict=True)):
            shares = _EVERYWHERE if everywhere and each == along else _HERE_AND_THERE
            between = [a + (b - a) * share for share in shares]
            places.append([(a + b) / 2] if each == axis else [a - _BESIDE, *between, b + _BESIDE])
        seen: set[tuple[float, bool]] = set()
        for place in product(*places):
            beside = any(at in (every[0], every[-1]) for at, every in zip(place, places, strict=True) if len(every) > 1)
            for at, off, _ in felt_along(mate, np.array(place), axis):
                if everywhere or (round(at, 3), beside) not in seen:
                    seen.add((round(at, 3), beside))
                    yield at, off, not (meets and beside)

    def _outline(self, told: CutTails | CutPins | SawBlindPins | ChopBlindSockets, outline: Outline) -> Outline:
        """Return a tail as it was traced from the mate."""
        key = (told.part, told.end, outline)
        if key not in self._outlines:
            line = told.tails if isinstance(told, CutTails) else told.pins
            mate = self.parts.get(self._traced_from.get((told.part, line.name), ""))
            if mate is None:
                self._outlines[key] = outline
            else:
                outer, inner = (
                    tuple(
                        at + _exact(self._edge(told, mate, outline, side, outer) + self.off(self.hands.tracing))
                        for side, at in enumerate(ends)
                    )
                    for outer, ends in ((True, outline.outer), (False, outline.inner))
                )
                self._outlines[key] = Outline((outer[0], outer[1]), (inner[0], inner[1]))
        return self._outlines[key]

    def _edge(
        self,
        told: CutTails | CutPins | SawBlindPins | ChopBlindSockets,
        mate: MadePart,
        outline: Outline,
        side: int,
        outer: bool,
    ) -> float:
        """Return how far the edge of a tail or a socket of the mate lies from where it was drawn, across, mm."""
        part = self.parts[told.part]
        tails = isinstance(told, CutTails)
        # A tail is traced across its own length, a socket across its thickness.
        face, deep = 0.0, float(told.stock.thickness)
        if isinstance(told, SawBlindPins | ChopBlindSockets):
            face, deep = float(told.stock.at(told.inside)), float(told.lap.at)
        share = 0.8 if outer else 0.2
        at = float(outline.inner[side]) + share * float(outline.outer[side] - outline.inner[side])
        end, base = float(told.stock.at(told.end)), float(told.baseline.at)
        place = np.zeros(3)
        place[1] = at
        if tails:
            place[0], place[2] = base + share * (end - base), float(told.stock.thickness) / 2
        else:
            place[0], place[2] = (end + base) / 2, face + share * (deep - face)
        axis = part.frame.axes[1].value
        in_piece = part.in_piece(place)
        near = min(felt_along(mate, in_piece, axis), key=lambda felt: abs(felt.at - in_piece[axis]), default=None)
        if near is None or abs(near.at - in_piece[axis]) > _SAME:
            return 0.0
        off = near.at - float(in_piece[axis]) + near.off
        return -off if part.frame.turned[1] else off


def _of_same_faces(body: Body, planned: Body, figures: Sequence[float]) -> tuple[float, ...]:
    """Return what figures of a planned body's faces are for those of the body as found, which may be in another order.

    Both are convex: what looks the same way is the same face.
    """
    ways = np.array([face.normal for face in planned])
    return tuple(figures[int(np.argmax(ways @ np.array(face.normal)))] for face in body)


def _extremes(felt: Iterable[tuple[float, float, bool]]) -> list[tuple[float, float, bool]]:
    """Return of surfaces that were felt at many places only where each lies lowest and where highest."""
    low: dict[tuple[float, bool], tuple[float, float, bool]] = {}
    high: dict[tuple[float, bool], tuple[float, float, bool]] = {}
    for each in felt:
        key = round(each[0], 3), each[2]
        low[key] = min(low.get(key, each), each, key=lambda one: one[1])
        high[key] = max(high.get(key, each), each, key=lambda one: one[1])
    return [*low.values(), *high.values()]


def _reach(told: Operation, part: MadePart) -> tuple[Floats, Floats]:
    """Return how far what is cut reaches in the piece, mm; of what is only marked, how far the part does."""
    box = part.frame.part.box
    whole = np.array(box.low, dtype=float), np.array(box.high, dtype=float)
    points = [point for region in told.takes for body in bodies(region) for face in body for point in face.points]
    if not points:
        return whole
    there = part.in_piece(np.array(points))
    return np.maximum(whole[0], there.min(axis=0)), np.minimum(whole[1], there.max(axis=0))


class Felt(NamedTuple):
    """A surface met on a line: where it was told, how far beyond that it was found, mm, and whether wood ends there."""

    at: float
    off: float
    ends: bool


def felt_along(part: MadePart, place: Floats, axis: int) -> list[Felt]:
    """Return where a line along an axis of the piece meets surfaces of a part.

    Parameters
    ----------
    part : MadePart
    place : (3,)
        A point of the line, mm.
    axis : int
        Of the piece.

    Returns
    -------
    list of Felt
        All along the axis.
    """
    own = next(index for index, each in enumerate(part.frame.axes) if each.value == axis)
    sign = -1.0 if part.frame.turned[own] else 1.0
    start = part.own(place)
    beside = [each for each in range(3) if each != own]
    if any(not 0 < start[each] < part.told.size[each] for each in beside):
        return []  # the line passes the blank by
    met: list[Boundary] = part.told.boundaries(start, own)
    if not met:
        return []
    points = np.repeat(start[None, :], len(met), axis=0)
    points[:, own] = [each.at for each in met]
    ways = np.zeros((len(met), 3))
    ways[:, own] = [1.0 if each.ends else -1.0 for each in met]
    out = part.felt(points, ways) * ways[:, own]
    places = part.in_piece(points)[:, axis]
    there = zip(places, out, met, strict=True)
    return [Felt(float(at), float(off) * sign, each.ends == (sign > 0)) for at, off, each in there if abs(off) < _SAME]


def _measured_along(told: Operation, setting: ToolSetting) -> tuple[int | None, float]:
    """Return the axis of a blank along which something is set, and where it begins, mm."""
    if isinstance(setting.origin, Surface):
        return setting.origin.axis, float(told.stock.at(setting.origin))
    if isinstance(told, Gauge) and told.base is not None and told.base.axis is not None:
        return told.base.axis, float(told.base.at)
    if isinstance(told, GaugePair) and isinstance(told.near.origin, Surface):
        return told.near.origin.axis, float(told.stock.place(told.near.origin, told.near.figure))
    return None, 0.0


def _exact(value: float) -> Fraction:
    """Return a figure as a fraction that arithmetic stays quick with: to a thousandth."""
    return Fraction(round(value * 1024), 1024)
