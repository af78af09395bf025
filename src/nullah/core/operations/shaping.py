"""Operations that shape a part when its joints are cut."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from nullah.core.fraction import Fraction
from nullah.core.operations.lines import Line, LineKind
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import Number, Region, prism
from nullah.core.operations.settings import ToolSetting
from nullah.core.operations.stock import Stock, Surface

#: Chords of a curve, to a quarter of a circle: at a radius of 300 mm they are 0.04 mm off.
_CHORDS = 48


@dataclass(frozen=True, kw_only=True)
class PlaneTaper(Operation):
    """A surface planed to a straight taper along the grain.

    Parameters
    ----------
    end : Surface
        The end at which it takes most.
    toe : ToolSetting
        How much there, from the surface that is planed.
    start : ToolSetting, optional
        How far from the other end it begins; None: at that end.
    """

    end: Surface
    toe: ToolSetting
    start: ToolSetting | None = None

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """Toe and start."""
        return (self.toe,) if self.start is None else (self.toe, self.start)

    @property
    def takes(self) -> tuple[Region, ...]:
        """A wedge."""
        assert isinstance(self.toe.origin, Surface)
        planed = self.toe.origin
        level, toe = self.stock.at(planed), self.toe.place(self.stock)
        begin = self.stock.at(self.end.opposite) if self.start is None else self.start.place(self.stock)
        end = self.stock.at(self.end)
        corners = ((begin, level), (end, level), (end, toe))
        # The axis of the prism lies across the surface; its polygon is in the two others, in cyclic order.
        across = 3 - planed.axis
        flat = corners if (across + 1) % 3 == 0 else tuple((b, a) for a, b in corners)
        return (prism(across, flat, 0, self.stock[across]),)


@dataclass(frozen=True, kw_only=True)
class BevelEdge(Operation):
    """The edge between two surfaces planed off to a line on each: a chamfer, a long bevel, the border of a panel.

    Parameters
    ----------
    over : ToolSetting
        From the second surface, over the first.
    down : ToolSetting
        From the first surface, down the second.
    """

    over: ToolSetting
    down: ToolSetting

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """Both."""
        return self.over, self.down

    @property
    def draws(self) -> tuple[Line, ...]:
        """A line on each surface."""
        first, second = _surface(self.down), _surface(self.over)
        return (
            Line(LineKind.BEVEL, second.axis, self.over.place(self.stock), (first,), second, of=first.value),
            Line(LineKind.BEVEL, first.axis, self.down.place(self.stock), (second,), first, of=second.value),
        )

    @property
    def takes(self) -> tuple[Region, ...]:
        """A wedge all along the edge."""
        first, second = _surface(self.down), _surface(self.over)
        tip = (self.stock.at(second), self.stock.at(first))
        corners = (tip, (self.over.place(self.stock), tip[1]), (tip[0], self.down.place(self.stock)))
        return (_profile(self.stock, second.axis, first.axis, corners),)


@dataclass(frozen=True, kw_only=True)
class RoundEdge(Operation):
    """The edge between two surfaces rounded to a radius.

    Parameters
    ----------
    over, down : ToolSetting
        From either surface to where the round begins: the radius, and on top of it what an end was left long.
    """

    over: ToolSetting
    down: ToolSetting

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """Both."""
        return self.over, self.down

    @property
    def radius(self) -> Fraction:
        """The radius, mm: the lesser of both."""
        return min(self.over.figure, self.down.figure)

    @property
    def draws(self) -> tuple[Line, ...]:
        """The round."""
        first, second = _surface(self.down), _surface(self.over)
        return (Line(LineKind.CURVE, on=(first, second), end=second, of=first.value, radius=self.radius),)

    @property
    def takes(self) -> tuple[Region, ...]:
        """What lies outside the round."""
        first, second = _surface(self.down), _surface(self.over)
        tip = (self.stock.at(second), self.stock.at(first))
        centre = tuple(float(each.place(self.stock)) for each in (self.over, self.down))
        a, b = (-1 if surface.high else 1 for surface in (second, first))
        radius = float(self.radius)
        arc = [
            (centre[0] - a * radius * math.sin(turn), centre[1] - b * radius * math.cos(turn))
            for turn in _turns(0.0, math.pi / 2)
        ]
        corners: list[tuple[Number, Number]] = [tip, (centre[0], tip[1]), *arc, (tip[0], centre[1])]
        return (_profile(self.stock, second.axis, first.axis, corners),)


@dataclass(frozen=True, kw_only=True)
class SawArch(Operation):
    """An arc sawn out of an edge.

    Parameters
    ----------
    start, end : ToolSetting
        From either end of the edge to the ends of the arc.
    rise : ToolSetting
        From the edge to the middle of the arc.
    """

    start: ToolSetting
    end: ToolSetting
    rise: ToolSetting

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """All three."""
        return self.start, self.end, self.rise

    @property
    def chord(self) -> Fraction:
        """From one end of the arc to the other, mm."""
        return self.end.place(self.stock) - self.start.place(self.stock)

    @property
    def radius(self) -> Fraction:
        """The radius, from chord c and rise h: c²/8h + h/2 (exact), mm."""
        return self.chord**2 / (8 * self.rise.figure) + self.rise.figure / 2

    @property
    def draws(self) -> tuple[Line, ...]:
        """The arc."""
        return (Line(LineKind.CURVE, on=(_surface(self.rise),), of="arch", radius=self.radius),)

    @property
    def takes(self) -> tuple[Region, ...]:
        """What lies between the arc and the edge."""
        edge = _surface(self.rise)
        half, rise, radius = float(self.chord) / 2, float(self.rise.figure), float(self.radius)
        middle = float(self.start.place(self.stock)) + half
        turn = math.asin(min(1.0, half / radius))
        turn = math.pi - turn if rise > half else turn
        level = float(self.stock.at(edge))
        inwards = -1 if edge.high else 1
        corners = [
            (middle + radius * math.sin(at), level + inwards * (radius * math.cos(at) - radius + rise))
            for at in _turns(-turn, turn)
        ]
        return (_profile(self.stock, _surface(self.start).axis, edge.axis, corners),)


@dataclass(frozen=True, kw_only=True)
class SawOgee(Operation):
    """An edge cut back between two feet, or beside one: from each foot an ogee of two equal arcs to a straight line.

    Parameters
    ----------
    feet : tuple of (ToolSetting, ToolSetting)
        Of each foot, from its end of the edge: how long it is, and where the ogee meets the straight line.
    rise : ToolSetting
        From the edge to the straight line.
    """

    feet: tuple[tuple[ToolSetting, ToolSetting], ...]
    rise: ToolSetting

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """Both of each foot, and the rise."""
        return (*(each for foot in self.feet for each in foot), self.rise)

    @property
    def radius(self) -> Fraction:
        """The radius of the arcs, from run r and rise h: (r² + h²) / 4h (exact), mm."""
        foot, top = self.feet[0]
        run = top.figure - foot.figure
        return (run**2 + self.rise.figure**2) / (4 * self.rise.figure)

    @property
    def draws(self) -> tuple[Line, ...]:
        """The ogees."""
        return (Line(LineKind.CURVE, on=(_surface(self.rise),), of="ogee", radius=self.radius),)

    @property
    def takes(self) -> tuple[Region, ...]:
        """What lies between the ogees and the edge."""
        edge, along = _surface(self.rise), _surface(self.feet[0][0]).axis
        rise, level = float(self.rise.figure), float(self.stock.at(edge))
        inwards = -1 if edge.high else 1
        corners: list[tuple[float, float]] = []
        for foot, top in self.feet:
            high = _surface(foot).high
            start, end = float(foot.place(self.stock)), float(top.place(self.stock))
            curve = [(start + (end - start) * a, level + inwards * rise * b) for a, b in _ogee(abs(end - start), rise)]
            corners += curve[::-1] if high else curve
        if len(self.feet) == 1:
            far = float(self.stock[along]) if not _surface(self.feet[0][0]).high else 0.0
            beyond = [(far, level + inwards * rise), (far, level)]
            corners = [*beyond[::-1], *corners] if far == 0.0 else [*corners, *beyond]
        return (_profile(self.stock, along, edge.axis, corners),)


@dataclass(frozen=True, kw_only=True)
class SawOutline(Operation):
    """An edge cut to an outline: straight from point to point, each so far along it and so far in.

    Parameters
    ----------
    side : Surface
        The edge or end that is cut.
    along : int
        The axis along which the points follow one another, measured from its low end.
    points : tuple of (Fraction, Fraction)
        Along the edge, and in from it, mm.
    """

    side: Surface
    along: int
    points: tuple[tuple[Fraction, Fraction], ...]

    @property
    def draws(self) -> tuple[Line, ...]:
        """The outline."""
        return (Line(LineKind.CURVE, on=(self.side,), of="outline", offsets=self.points),)

    @property
    def takes(self) -> tuple[Region, ...]:
        """What lies outside it."""
        level = float(self.stock.at(self.side))
        inwards = -1 if self.side.high else 1
        points = [(float(at), level + inwards * float(deep)) for at, deep in self.points]
        size = float(self.stock[self.along])
        out = level - inwards
        corners = [(0.0, out), (0.0, points[0][1]), *points, (size, points[-1][1]), (size, out)]
        return (_profile(self.stock, self.along, self.side.axis, corners),)


@dataclass(frozen=True, kw_only=True)
class SawCorners(Operation):
    """What lies between straight lines that join corners, sawn or chopped out: through, or down to a floor.

    Parameters
    ----------
    into : Surface
        The surface it is marked on.
    corners : tuple of (ToolSetting, ToolSetting)
        Each from two surfaces, in the axes after that of `into`, in cyclic order.
    depth : ToolSetting, optional
        From `into`; None: through.
    """

    into: Surface
    corners: tuple[tuple[ToolSetting, ToolSetting], ...]
    depth: ToolSetting | None = None

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """Both of each corner, and the depth."""
        places = tuple(dict.fromkeys(each for corner in self.corners for each in corner))
        return places if self.depth is None else (*places, self.depth)

    @property
    def takes(self) -> tuple[Region, ...]:
        """What lies between the lines."""
        floor = self.stock.at(self.into.opposite) if self.depth is None else self.depth.place(self.stock)
        polygon = [(a.place(self.stock), b.place(self.stock)) for a, b in self.corners]
        low, high = sorted((self.stock.at(self.into), floor))
        return (prism(self.into.axis, polygon, low, high),)


def _surface(setting: ToolSetting) -> Surface:
    assert isinstance(setting.origin, Surface)
    return setting.origin


def _turns(start: float, end: float) -> list[float]:
    """Return angles from one to another, both included."""
    steps = max(8, math.ceil(abs(end - start) / (math.pi / 2) * _CHORDS))
    return [start + (end - start) * step / steps for step in range(steps + 1)]


def _ogee(run: float, rise: float) -> list[tuple[float, float]]:
    """Return an ogee from (0, 0) to (1, 1), in shares of its run and its rise."""
    radius, turn = (run * run + rise * rise) / (4 * rise), 2 * math.atan2(rise, run)
    first = [(radius * math.sin(at) / run, radius * (1 - math.cos(at)) / rise) for at in _turns(0.0, turn)]
    return [*first, *((1 - a, 1 - b) for a, b in reversed(first[:-1]))]


def _profile(stock: Stock, along: int, into: int, corners: Sequence[tuple[Number, Number]]) -> Region:
    """Return a shape in two axes, pushed through the whole blank along the third."""
    through = 3 - along - into
    flat = corners if (through + 1) % 3 == along else [(b, a) for a, b in corners]
    return prism(through, flat, 0, stock[through])
