"""A part as hands made it beside the part as it was told, felt along straight lines."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import manifold3d
import numpy as np
from numpy.typing import NDArray

from nullah.core.identity import kept_by_value
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.regions import BeyondRegion, BoreRegion, HullRegion, PrismRegion, Region
from nullah.core.piece.frame import Frame
from nullah.core.piece.space import Axis

Floats = NDArray[np.float64]

#: How deep in the wood a feeler starts towards a surface at the most, mm, and what is no more than a skin.
_DEEP, _SKIN = 2.0, 0.1
#: So far back wood is looked for that is not where it should be, mm.
_BACK = 12.0
#: Two places nearer than this are one, mm.
NEAR = 1e-6
#: Corners of a round hole.
_CORNERS = 12


Point = tuple[float, float, float]
#: Where a face is looked at along its sides, of their length.
_SHARES = (0.1, 0.5, 0.9)


class Face(NamedTuple):
    """A flat face of what is taken: its outward normal, and some points on it; in the frame of a blank, mm."""

    normal: Point
    points: tuple[Point, ...]


#: Wood that is taken: what lies within all of its faces.
Body = tuple[Face, ...]


@kept_by_value(8192)
def bodies(region: Region) -> tuple[Body, ...]:
    """Return a region as bodies without hollows, each by its faces; none where it is empty."""
    match region:
        case BeyondRegion(point, normal):
            return ((Face((-normal[0], -normal[1], -normal[2]), (point,)),),)
        case PrismRegion(axis, polygon, start, end):
            return tuple(_prism(axis, flat, start, end) for flat in _convex(polygon)) if end > start else ()
        case BoreRegion(axis, centre, diameter, start, end, to_diameter):
            wide = diameter / 2 if to_diameter is None else (diameter + to_diameter) / 4
            turns = np.linspace(0, 2 * np.pi, _CORNERS, endpoint=False)
            circle = [(centre[0] + wide * np.cos(turn), centre[1] + wide * np.sin(turn)) for turn in turns]
            return (_prism(axis, circle, min(start, end), max(start, end)),)
        case HullRegion(points):
            return (_hull(points),)


def _prism(axis: int, polygon: Sequence[tuple[float, float]], start: float, end: float) -> Body:
    """Return a prism by its faces; the corners of its polygon run counter-clockwise."""
    one, other = (axis + 1) % 3, (axis + 2) % 3

    def at(a: float, b: float, c: float) -> Point:
        place = {axis: c, one: a, other: b}
        return place[0], place[1], place[2]

    found = []
    for (a, b), (c, d) in zip(polygon, (*polygon[1:], polygon[0]), strict=True):
        long = float(np.hypot(c - a, d - b))
        if long > NEAR:
            points = (
                at(a + (c - a) * over, b + (d - b) * over, start + (end - start) * along)
                for over in _SHARES
                for along in _SHARES
            )
            found.append(Face(at((d - b) / long, (a - c) / long, 0.0), tuple(points)))
    middle = np.mean(np.array(polygon), axis=0)
    inner = [middle, *(middle + 0.9 * (np.array(corner) - middle) for corner in polygon)]
    for place, way in ((start, -1.0), (end, 1.0)):
        found.append(Face(at(0.0, 0.0, way), tuple(at(float(a), float(b), place) for a, b in inner)))
    return tuple(found)


def _convex(polygon: Sequence[tuple[float, float]]) -> Iterator[list[tuple[float, float]]]:
    """Yield a polygon, counter-clockwise; where it has hollows, the triangles it is made of."""
    points = np.array(polygon)
    ahead = np.roll(points, -1, axis=0)
    area = float(np.sum(points[:, 0] * ahead[:, 1] - points[:, 1] * ahead[:, 0])) / 2
    if abs(area) < NEAR:
        return
    if area < 0:
        points = points[::-1]
    edges = np.roll(points, -1, axis=0) - points
    following = np.roll(edges, -1, axis=0)
    if (edges[:, 0] * following[:, 1] - edges[:, 1] * following[:, 0] > -NEAR).all():
        yield [(float(a), float(b)) for a, b in points]
        return
    for corners in manifold3d.triangulate([points]):
        yield [(float(a), float(b)) for a, b in points[list(corners)]]


def _hull(points: Sequence[tuple[float, float, float]]) -> Body:
    from scipy.spatial import ConvexHull

    hull = ConvexHull(np.array(points), qhull_options="QJ")
    return tuple(
        Face((float(a), float(b), float(c)), (_triple(hull.points[corners].mean(axis=0)),))
        for (a, b, c, _), corners in zip(hull.equations, hull.simplices, strict=True)
    )


def _triple(values: Floats) -> Point:
    return float(values[0]), float(values[1]), float(values[2])


def cross(one: Floats, other: Floats) -> Floats:
    """Return the cross product of two vectors (3,): many times as quick as the one for arrays of them.

    Parameters
    ----------
    one : Floats
        Shape (3,).
    other : Floats
        Shape (3,).

    Examples
    --------
    >>> cross(np.array([1.0, 0, 0]), np.array([0, 1.0, 0])).tolist()
    [0.0, 0.0, 1.0]
    """
    (a, b, c), (d, e, f) = one.tolist(), other.tolist()
    return np.array([b * f - c * e, c * d - a * f, a * e - b * d])


class Planes(NamedTuple):
    """A body as what lies within planes: their normals (n, 3), and how far along them they stand (n,), mm."""

    normals: Floats
    offsets: Floats


def planes_of(body: Body, moved: Sequence[float] = ()) -> Planes:
    """Return a body as planes.

    Parameters
    ----------
    body : Body
    moved : sequence of float
        How far each face has come outwards, mm; none: where it is.
    """
    normals = np.array([face.normal for face in body])
    offsets = np.einsum("ij,ij->i", normals, np.array([face.points[0] for face in body]))
    return Planes(normals, offsets + np.array(moved) if len(moved) else offsets)


class Boundary(NamedTuple):
    """Where a straight line passes between wood and air: how far along it, mm, and whether the wood ends there."""

    at: float
    ends: bool


_Stacked = tuple[tuple[Planes, ...], tuple[Floats, Floats, NDArray[np.intp]]]


class Wood:
    """A blank and what was taken from it, in its own frame.

    Parameters
    ----------
    size : sequence of float
        Length, width and thickness of the blank, mm.
    """

    def __init__(self, size: Sequence[float]) -> None:
        self.size = tuple(size)
        self.taken: list[Planes] = []
        #: What was taken when its planes were put together last, and these.
        none = np.zeros(0)
        self._stacked: _Stacked = ((), (none, none, np.zeros(0, dtype=np.intp)))
        for axis, long in enumerate(size):
            way = np.zeros(3)
            way[axis] = 1.0
            self.taken += [Planes(way[None, :], np.zeros(1)), Planes(-way[None, :], np.array([-long]))]

    def _planes(self) -> tuple[Floats, Floats, NDArray[np.intp]]:
        """Return the planes of all that was taken: normals (n, 3), offsets (n,), and at which each body begins."""
        if not self._stacked_of(self.taken):
            normals = np.concatenate([body.normals for body in self.taken])
            offsets = np.concatenate([body.offsets for body in self.taken])
            first = np.cumsum([0, *(len(body.offsets) for body in self.taken[:-1])])
            self._stacked = (tuple(self.taken), (normals, offsets, first))
        return self._stacked[1]

    def _stacked_of(self, taken: Sequence[Planes]) -> bool:
        bodies = self._stacked[0]
        return len(bodies) == len(taken) and all(one is other for one, other in zip(bodies, taken, strict=True))

    def _spans(self, points: Floats, ways: Floats) -> tuple[Floats, Floats]:
        """Return from where to where straight lines pass through each body that was taken; the end first where not.

        Parameters
        ----------
        points, ways : (m, 3)
            Where each line starts, mm, and its direction.

        Returns
        -------
        (bodies, m), (bodies, m)
            How far along each line, mm.
        """
        normals, offsets, first = self._planes()
        along = normals @ ways.T
        room = offsets[:, None] - normals @ points.T
        with np.errstate(divide="ignore", invalid="ignore"):
            at = room / along
        low = np.maximum.reduceat(np.where(along < -NEAR, at, -np.inf), first)
        high = np.minimum.reduceat(np.where(along > NEAR, at, np.inf), first)
        outside = np.logical_or.reduceat((np.abs(along) <= NEAR) & (room < 0), first)
        return np.where(outside, np.inf, low), np.where(outside, -np.inf, high)

    def there(self, point: Floats) -> bool:
        """Return whether there is wood at a point.

        Parameters
        ----------
        point : Floats
            Shape (3,), mm.
        """
        normals, offsets, first = self._planes()
        return not np.logical_and.reduceat(normals @ point <= offsets + NEAR, first).any()

    def to_air(self, points: Floats, ways: Floats, deep: Floats) -> Floats:
        """Return how far from each point the wood reaches that begins behind it, mm; NaN where none is there.

        Where the wood ends before that, it is looked for further back.

        Parameters
        ----------
        points, ways : (m, 3)
            Where the surface should be, and its outward normal.
        deep : (m,)
            How far behind it there should be wood, mm.
        """
        starts, ends = self._spans(points, ways)
        ends = np.where(ends > starts, ends, -np.inf)
        found = np.full(len(points), np.nan)
        start = -deep
        for _ in range(len(self.taken)):
            # What covers the start is gone through backwards, until there is wood behind it.
            covers = (starts <= start) & (ends > start)
            back = np.where(covers, starts, np.inf).min(axis=0)
            further = np.isfinite(back) & (back > -_BACK)
            if not further.any():
                break
            start = np.where(further, back - 1e-6, start)
        covered = ((starts <= start) & (ends > start)).any(axis=0)
        ahead = np.where((ends > start) & (starts > start), starts, np.inf).min(axis=0)
        return np.where(covered, found, ahead)

    def deep(self, points: Floats, ways: Floats) -> Floats:
        """Return how far behind each point of a surface wood is for certain, mm: half of it, and no more than needed.

        Parameters
        ----------
        points, ways : (m, 3)
            Of the surface, and its outward normal.
        """
        low, high = self._spans(points, -ways)
        meets = (high > low) & (high > _SKIN)
        least = np.where(meets, np.maximum(low, _SKIN), 2 * _DEEP).min(axis=0)
        return np.asarray(np.minimum(least, 2 * _DEEP) / 2)

    def boundaries(self, point: Floats, axis: int) -> list[Boundary]:
        """Return where a line along an axis through a point passes between wood and air, along that axis, mm.

        Parameters
        ----------
        point : Floats
            Shape (3,), mm.
        axis : int
            0, 1 or 2.
        """
        way = np.zeros(3)
        way[axis] = 1.0
        start = point.copy()
        start[axis] = 0.0
        low, high = (each[:, 0] for each in self._spans(start[None, :], way[None, :]))
        through = high > low + NEAR
        air = sorted(zip(low[through].tolist(), high[through].tolist(), strict=True))
        found: list[Boundary] = []
        reached = -np.inf
        for low_, high_ in air:
            if low_ > reached + 1e-4 and np.isfinite(reached):
                found += [Boundary(reached, False), Boundary(low_, True)]
            reached = max(reached, high_)
        return found


class MadePart:
    """A part in two states: as it was told, and as it came out.

    Parameters
    ----------
    frame : Frame
    told : sequence of float
        Size of the blank as told, mm.
    found : sequence of float
        As it was milled, mm.
    """

    def __init__(self, frame: Frame, told: Sequence[float], found: Sequence[float]) -> None:
        self.frame = frame
        self.told, self.found = Wood(told), Wood(found)
        #: Its size along each axis as it is now, mm.
        self.size = [float(each) for each in found]
        self._places = [axis.value for axis in frame.axes]
        self._signs = np.array([-1.0 if turned else 1.0 for turned in frame.turned])
        self._zero = np.array(
            [
                float(high if turned else low)
                for turned, low, high in zip(frame.turned, frame.low, frame.high, strict=True)
            ]
        )

    def planed(self, corners: Floats, normal: Floats) -> None:
        """Take off all that stands out of a plane.

        Parameters
        ----------
        corners : (3, 3)
            Points on it, in the piece, mm, not in one line.
        normal : (3,)
            Which way is out of it, as near as is known.
        """
        one, other, third = self.own(corners)
        way = cross(other - one, third - one)
        way /= np.linalg.norm(way)
        if way @ self.own_ways(normal) < 0:
            way = -way
        self.found.taken.append(Planes(-way[None, :], np.array([-float(way @ one)])))

    def own(self, points: Floats) -> Floats:
        """Return points (…, 3) of the piece in the frame of the blank.

        Parameters
        ----------
        points : Floats
            Shape (..., 3), mm.
        """
        return np.asarray((points[..., self._places] - self._zero) * self._signs)

    def own_ways(self, ways: Floats) -> Floats:
        """Return directions (…, 3) of the piece in the frame of the blank.

        Parameters
        ----------
        ways : Floats
            Shape (..., 3), without unit.
        """
        return np.asarray(ways[..., self._places] * self._signs)

    def in_piece(self, points: Floats) -> Floats:
        """Return points (…, 3) of the blank in the piece, as it was designed.

        Parameters
        ----------
        points : Floats
            Shape (..., 3), mm.
        """
        found = np.empty_like(points)
        found[..., self._places] = points * self._signs + self._zero
        return found

    def own_axis(self, axis: Axis) -> int:
        """Return which of the blank's axes lies along an axis of the piece."""
        return self.frame.axes.index(axis)

    def stands_out(self, points: Floats, normals: Floats) -> Floats:
        """Return by how much the wood found reaches beyond points of its surface, mm.

        Parameters
        ----------
        points, normals : (m, 3)
            Of the piece: where the surface was designed to be, and its outward normal.
        """
        return self.felt(self.own(points), self.own_ways(normals))

    def felt(self, points: Floats, normals: Floats) -> Floats:
        """Return the same of points in the frame of the blank, mm.

        Parameters
        ----------
        points : Floats
            Shape (..., 3), mm.
        normals : Floats
            Shape (..., 3), of length 1.
        """
        return self.found.to_air(points, normals, self.told.deep(points, normals))
