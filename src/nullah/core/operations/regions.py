"""The wood that an operation takes away, in the frame of the blank, mm."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TypeAlias

from nullah.core.fraction import Fraction
from nullah.core.named_tuple import NamedTuple

Number: TypeAlias = Fraction | float
Span = tuple[Number, Number]


class PrismRegion(NamedTuple):
    """A polygon pushed along an axis; its points are in the two other axes in cyclic order: y z, z x, x y."""

    axis: int
    polygon: tuple[tuple[float, float], ...]
    start: float
    end: float


class BoreRegion(NamedTuple):
    """A round hole along an axis; where `to_diameter` is another it is a cone."""

    axis: int
    centre: tuple[float, float]
    diameter: float
    start: float
    end: float
    to_diameter: float | None = None


class HullRegion(NamedTuple):
    """All that lies between some points."""

    points: tuple[tuple[float, float, float], ...]


class BeyondRegion(NamedTuple):
    """All wood on the side of a plane to which its normal points."""

    point: tuple[float, float, float]
    normal: tuple[float, float, float]


Region = PrismRegion | BoreRegion | HullRegion | BeyondRegion


def prism(axis: int, polygon: Sequence[tuple[Number, Number]], start: Number, end: Number) -> PrismRegion:
    """Return a prism with its points in floating point.

    Parameters
    ----------
    axis : int
        It runs along, 0 to 2.
    polygon : Sequence[tuple[Number, Number]]
        In the two axes after that, mm.
    start : Number
        Along the axis, mm.
    end : Number
        Along the axis, mm.
    """
    # Pins may come to a point: the same corner twice is one.
    corners = dict.fromkeys((float(a), float(b)) for a, b in polygon)
    return PrismRegion(axis, tuple(corners), float(start), float(end))


def block(x: Span, y: Span, z: Span) -> PrismRegion:
    """Return a rectangular region, pushed along the grain.

    Examples
    --------
    >>> block((0, 400), (10, 16), (0, 6)).polygon
    ((10.0, 0.0), (16.0, 0.0), (16.0, 6.0), (10.0, 6.0))
    """
    return prism(0, ((y[0], z[0]), (y[1], z[0]), (y[1], z[1]), (y[0], z[1])), *x)


def spans(places: dict[int, Span]) -> PrismRegion:
    """Return a rectangular region between places along all three axes.

    Parameters
    ----------
    places : dict[int, Span]
        From and to along each axis of the blank, mm.
    """
    return block(places[0], places[1], places[2])
