"""Shapings: what is taken off a part after its joints are cut, as prisms of wood.

Every shaping (taper, chamfer, round-over, arch, ogee foot, long bevel, raised panel, notch,
round corner, traced edge) comes down to prisms: a polygon, the axis it runs along, and from
where to where. Curves are polygons fine enough for a knife line.
"""

from __future__ import annotations

import math
from collections.abc import Iterator

from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.space import Axis, Box, Side

#: Segments of a quarter circle: at a radius of 100 mm it is never more than 0.02 mm off.
_QUARTER = 40

Flat = tuple[float, float]


class Taper(NamedTuple):
    """A leg's taper: `sides` lose `toe` mm each at the `end` side, from `start` mm below the other end."""

    sides: frozenset[Side]
    end: Side
    start: float
    toe: float


class Chamfer(NamedTuple):
    """The edge between two sides taken off at 45°, `width` mm on each."""

    edge: tuple[Side, Side]
    width: float


class RoundOver(NamedTuple):
    """The edge between two sides rounded to `radius` mm."""

    edge: tuple[Side, Side]
    radius: float


class Arch(NamedTuple):
    """An arc cut into the edge `side`, `chord` mm wide, `rise` mm high, centred, through `through`."""

    side: Side
    through: Axis
    chord: float
    rise: float


class OgeeFoot(NamedTuple):
    """The edge `side` cut away between two feet: each `foot` mm long, then an ogee `run` mm to `rise` mm.

    Where `only` is a side, the one foot stands there, and the other end is cut away too.
    """

    side: Side
    through: Axis
    foot: float
    run: float
    rise: float
    only: Side | None = None


class LongBevel(NamedTuple):
    """The edge between two sides planed off: `run` mm over the first, `fall` mm down the second."""

    edge: tuple[Side, Side]
    run: float
    fall: float


class RaisedPanel(NamedTuple):
    """A face bevelled down by `fall` mm over `width` mm along all four edges (or those named)."""

    face: Side
    width: float
    fall: float
    edges: frozenset[Side] = frozenset()


class Notch(NamedTuple):
    """A box of wood taken out, in mm from the low corner of the part."""

    low: tuple[float, float, float]
    high: tuple[float, float, float]


class Traced(NamedTuple):
    """An edge cut to a template: `points` are (along, in from the side) in mm; the wood outside them goes."""

    side: Side
    through: Axis
    points: tuple[Flat, ...]


class Slant(NamedTuple):
    """A slanted rabbet, groove or hole: a prism with these corners, in mm from the low corner, along `along`.

    `points` are in the two axes after `along` (cyclic: Y Z, Z X, X Y). It goes all the way
    through, or between `ends`, mm from the low side.
    """

    along: Axis
    points: tuple[Flat, ...]
    ends: tuple[float, float] | None = None


class Slot(NamedTuple):
    """A hole with round ends through a part, such as a hand hole.

    `middle` is in the two axes after `along` (cyclic), mm from the low corner of the part; it is `length` mm long over
    all in the direction of the first of them, and `height` mm high.
    """

    along: Axis
    middle: Flat
    length: float
    height: float


Shaping = Taper | Chamfer | RoundOver | Arch | OgeeFoot | LongBevel | RaisedPanel | Notch | Traced | Slant | Slot


class Prism(NamedTuple):
    """Wood to take off: a polygon in the two axes after `along` (cyclic: Y Z, Z X, X Y), and its ends."""

    along: Axis
    points: tuple[Flat, ...]
    low: float
    high: float


def prisms(shaping: Shaping, box: Box) -> Iterator[Prism]:
    """Yield the wood a shaping takes off a part of that box, in mm of the piece."""
    match shaping:
        case Taper():
            yield from _taper(shaping, box)
        case Chamfer(edge, width):
            yield _edge_prism(box, edge, _wedge(width, width))
        case RoundOver(edge, radius):
            yield _edge_prism(box, edge, _rounded(radius))
        case LongBevel(edge, run, fall):
            yield _edge_prism(box, edge, _wedge(run, fall))
        case Arch():
            yield _profile(box, shaping.side, shaping.through, _arch(shaping, box))
        case OgeeFoot():
            yield _profile(box, shaping.side, shaping.through, _ogee(shaping, box))
        case Traced():
            yield _profile(box, shaping.side, shaping.through, _traced(shaping, box))
        case RaisedPanel():
            yield from _raised(shaping, box)
        case Notch(low, high):
            at = [float(c) for c in box.low]
            corners = (
                (at[0] + low[0], at[1] + low[1]),
                (at[0] + high[0], at[1] + low[1]),
                (at[0] + high[0], at[1] + high[1]),
                (at[0] + low[0], at[1] + high[1]),
            )
            yield Prism(Axis.Z, corners, at[2] + low[2], at[2] + high[2])
        case Slot(along):
            yield from prisms(Slant(along, _slot(shaping)), box)
        case Slant(along, points, ends):
            u, v = _plane(along)
            shift = (float(box.low[u.value]), float(box.low[v.value]))
            moved = tuple((x + shift[0], y + shift[1]) for x, y in points)
            floor, roof = float(box.low[along.value]), float(box.high[along.value])
            low_end, high_end = (floor, roof) if ends is None else (floor + ends[0], floor + ends[1])
            yield Prism(along, moved, low_end, high_end)


def _slot(made: Slot) -> tuple[Flat, ...]:
    """Return the outline of a hole with round ends."""
    radius = made.height / 2
    reach = max(0.0, made.length / 2 - radius)
    u, v = made.middle
    right = [(u + reach + radius * math.cos(t), v + radius * math.sin(t)) for t in _turn(-math.pi / 2, math.pi / 2)]
    left = [(u - reach - radius * math.cos(t), v - radius * math.sin(t)) for t in _turn(-math.pi / 2, math.pi / 2)]
    return (*right, *left)


def arch_radius(chord: float, rise: float) -> float:
    """Return the radius of an arch from its chord and rise: R = c²/8h + h/2 (exact), all in mm.

    Parameters
    ----------
    chord : float
        mm.
    rise : float
        mm.

    Returns
    -------
    float
        mm.

    Examples
    --------
    >>> arch_radius(200, 100), round(arch_radius(600, 40), 1)
    (100.0, 1145.0)
    """
    return chord * chord / (8 * rise) + rise / 2


def bevel_degrees(run: float, fall: float) -> float:
    """Return the angle of a bevel that falls `fall` over `run`, in degrees (exact).

    Parameters
    ----------
    run : float
        mm.
    fall : float
        mm.

    Returns
    -------
    float
        Degrees.

    Examples
    --------
    >>> round(bevel_degrees(1.875, 0.25), 1), round(bevel_degrees(1.875, 0.1875), 1)
    (7.6, 5.7)
    """
    return math.degrees(math.atan2(fall, run))


# --- prisms in the frame of a box -----------------------------------------------------------------


def _plane(along: Axis) -> tuple[Axis, Axis]:
    return Axis((along.value + 1) % 3), Axis((along.value + 2) % 3)


def _from(box: Box, side: Side, depth: float) -> float:
    """Return the coordinate `depth` mm in from a side."""
    at = float(box.at(side))
    return at - depth if side.high else at + depth


def _edge_prism(box: Box, edge: tuple[Side, Side], shape: tuple[Flat, ...]) -> Prism:
    """Put a shape (mm in from the second side's plane along the first, and the other way) at an edge.

    In `shape` the first figure runs over the first side, away from the edge; the second down
    the second side.
    """
    first, second = edge
    along = next(axis for axis in Axis if axis not in (first.axis, second.axis))
    u, _ = _plane(along)
    points = []
    for over_first, down_second in shape:
        # Over the first side means away from the second; down the second, away from the first.
        on_second, on_first = _from(box, second, over_first), _from(box, first, down_second)
        points.append((on_second, on_first) if second.axis is u else (on_first, on_second))
    return Prism(along, tuple(points), float(box.low[along.value]), float(box.high[along.value]))


def _profile(box: Box, side: Side, through: Axis, shape: tuple[Flat, ...]) -> Prism:
    """Put a shape (mm along the edge from its low end, mm in from the side) at a side."""
    along = next(axis for axis in Axis if axis not in (side.axis, through))
    u, _ = _plane(through)
    start = float(box.low[along.value])
    points = tuple(
        (start + at, _from(box, side, depth)) if along is u else (_from(box, side, depth), start + at)
        for at, depth in shape
    )
    return Prism(through, points, float(box.low[through.value]), float(box.high[through.value]))


def _wedge(over: float, down: float) -> tuple[Flat, ...]:
    """Return what is planed off an edge, so far over and so far down.

    The slant goes on beyond both surfaces: ending just at a surface, rounding would leave slivers along it.
    """
    a, b = over * 0.05, down * 0.05
    return ((-a, -b), (-a, down + b), (over + a, -b))


def _rounded(radius: float) -> tuple[Flat, ...]:
    arc = [(radius * (1 - math.sin(t)), radius * (1 - math.cos(t))) for t in _turn(0, math.pi / 2)]
    return ((0.0, 0.0), *arc)


def _turn(start: float, end: float, steps: int = _QUARTER) -> list[float]:
    return [start + (end - start) * step / steps for step in range(steps + 1)]


def _taper(shaping: Taper, box: Box) -> Iterator[Prism]:
    end = shaping.end
    length = float(box.size(end.axis))
    run = length - shaping.start
    for side in sorted(shaping.sides, key=lambda s: s.value):
        through = next(axis for axis in Axis if axis not in (end.axis, side.axis))
        # The slant goes on beyond the surface: ending just at it, rounding would leave slivers along the line.
        shape: tuple[Flat, ...] = ((0.0, -1.0), (run * (1 + 1 / shaping.toe), -1.0), (0.0, shaping.toe))
        if end.high:
            shape = tuple((length - at, depth) for at, depth in shape)
        yield _profile(box, side, through, shape)


def _arch(shaping: Arch, box: Box) -> tuple[Flat, ...]:
    along = next(axis for axis in Axis if axis not in (shaping.side.axis, shaping.through))
    middle = float(box.size(along)) / 2
    radius = arch_radius(shaping.chord, shaping.rise)
    half = math.asin(min(1.0, shaping.chord / 2 / radius))
    if shaping.rise > shaping.chord / 2:
        half = math.pi - half
    drop = radius - shaping.rise
    return tuple((middle + radius * math.sin(t), radius * math.cos(t) - drop) for t in _turn(-half, half, 2 * _QUARTER))


def _ogee(shaping: OgeeFoot, box: Box) -> tuple[Flat, ...]:
    """Return the cut between two feet, or beside one; each ogee is two equal arcs, tangent in its middle."""
    along = next(axis for axis in Axis if axis not in (shaping.side.axis, shaping.through))
    length = float(box.size(along))
    left = ((shaping.foot, 0.0), *((shaping.foot + u, v) for u, v in ogee(shaping.run, shaping.rise)))
    right = tuple((length - at, depth) for at, depth in reversed(left))
    if shaping.only is None:
        return (*left, *right)
    if shaping.only.high:
        return ((0.0, 0.0), (0.0, shaping.rise), *right)
    return (*left, (length, shaping.rise), (length, 0.0))


def ogee(run: float, rise: float) -> list[Flat]:
    """Return an ogee from (0, 0) to (run, rise): two equal arcs, level at both ends, mm.

    Each arc spans half the chord; its radius is (run² + rise²) / 4·rise (exact).

    Parameters
    ----------
    run : float
        mm.
    rise : float
        mm.

    Returns
    -------
    list[Flat]
        Points, mm.
    """
    if rise <= 0 or run <= 0:
        return [(0.0, 0.0), (run, rise)]
    radius = (run * run + rise * rise) / (4 * rise)
    turn = 2 * math.atan2(rise, run)
    first = [(radius * math.sin(t), radius * (1 - math.cos(t))) for t in _turn(0, turn, _QUARTER)]
    second = [(run - x, rise - y) for x, y in reversed(first)]
    return [*first, *second[1:]]


def _traced(shaping: Traced, box: Box) -> tuple[Flat, ...]:
    along = next(axis for axis in Axis if axis not in (shaping.side.axis, shaping.through))
    length = float(box.size(along))
    line = [(0.0, shaping.points[0][1]), *shaping.points, (length, shaping.points[-1][1])]
    # A hair beyond the edge, so that nothing of it is left standing.
    return ((0.0, -1.0), *line, (length, -1.0))


def _raised(shaping: RaisedPanel, box: Box) -> Iterator[Prism]:
    face = shaping.face
    edges = shaping.edges or frozenset(side for side in Side if side.axis is not face.axis)
    for side in sorted(edges, key=lambda s: s.value):
        yield _edge_prism(box, (face, side), _wedge(shaping.width, shaping.fall))
