"""Flat shapes in floating point: the hull of points, and what of a polygon lies on one side of a line."""

from __future__ import annotations

from collections.abc import Sequence

Point = tuple[float, float]


def hull(points: Sequence[Point]) -> list[Point]:
    """Return the convex hull of some points, in order (Andrew's monotone chain, 1979).

    Parameters
    ----------
    points : sequence of (float, float)
        mm.

    Examples
    --------
    >>> hull([(0, 0), (2, 0), (1, 1), (2, 2), (0, 2)])
    [(0, 0), (2, 0), (2, 2), (0, 2)]
    """
    ordered = sorted(set(points))
    if len(ordered) < 3:
        return ordered

    def chain(some: Sequence[Point]) -> list[Point]:
        found: list[Point] = []
        for point in some:
            while len(found) > 1 and _turn(found[-2], found[-1], point) <= 0:
                found.pop()
            found.append(point)
        return found[:-1]

    return chain(ordered) + chain(ordered[::-1])


def _turn(a: Point, b: Point, c: Point) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def beyond(polygon: Sequence[Point], through: Point, normal: Point) -> list[Point]:
    """Return what of a polygon lies on the side of a line to which a normal points (Sutherland and Hodgman, 1974).

    Parameters
    ----------
    polygon : sequence of (float, float)
        Its corners in order, mm.
    through, normal : (float, float)
        A point of the line, mm, and a direction square to it.

    Examples
    --------
    >>> beyond([(0, 0), (4, 0), (4, 2), (0, 2)], (1, 0), (1, 0))
    [(1.0, 0.0), (4, 0), (4, 2), (1.0, 2.0)]
    """

    def off(point: Point) -> float:
        return (point[0] - through[0]) * normal[0] + (point[1] - through[1]) * normal[1]

    found: list[Point] = []
    for one, other in zip(polygon, [*polygon[1:], *polygon[:1]], strict=True):
        here, there = off(one), off(other)
        if here >= -1e-9:
            found.append(one)
        if (here >= -1e-9) is not (there >= -1e-9):
            share = here / (here - there)
            found.append((one[0] + share * (other[0] - one[0]), one[1] + share * (other[1] - one[1])))
    return found
