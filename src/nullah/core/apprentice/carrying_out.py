"""Carrying operations out on a blank, and holding what was made against what was designed."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from itertools import product

import manifold3d
import numpy as np

from nullah.core.apprentice.facts import NotDrawn, PlaneMustStop, Refusal, SawnClosed
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.lines import Line
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import BeyondRegion, BoreRegion, HullRegion, PrismRegion, Region
from nullah.core.operations.stock import Stock
from nullah.core.operations.taking import RUNS_THROUGH, SAWN, Take
from nullah.core.piece.solids import ROUND, Solid, turned

#: Two places nearer than this are one, mm.
_NEAR = 1e-6


class Built(NamedTuple):
    """A part as its operations make it, and what could not be carried out."""

    solid: Solid
    refused: tuple[Refusal, ...]


def carry_out(stock: Stock, operations: Sequence[Operation]) -> Built:
    """Do operations to a blank, one after the other.

    Parameters
    ----------
    stock : Stock
        The blank as milled.
    operations : sequence of Operation
        Of one part, in their order.
    """
    solid = manifold3d.Manifold.cube([float(size) for size in stock])
    drawn: dict[str, Line] = {}
    refused: list[Refusal] = []
    for operation in operations:
        refused += _refusals(operation, drawn)
        drawn |= {line.name: line for line in operation.draws}
        for region in operation.takes:
            solid = without(solid, region)
    return Built(solid, tuple(dict.fromkeys(refused)))


def _refusals(operation: Operation, drawn: dict[str, Line]) -> Iterator[Refusal]:
    """Yield why an operation cannot be carried out on what is there."""
    for line in operation.needs:
        if drawn.get(line.name) != line:
            yield NotDrawn(operation, line.name)
    if isinstance(operation, Take):
        ends = operation.places[0]
        open_ends = [abs(float(ends[0])) < _NEAR, abs(float(ends[1] - operation.stock.length)) < _NEAR]
        if operation.cut in RUNS_THROUGH and not all(open_ends):
            yield PlaneMustStop(operation)
        if operation.cut in SAWN and not _open_somewhere(operation):
            yield SawnClosed(operation)


def _open_somewhere(operation: Take) -> bool:
    """Return whether a saw can run out of a cut at one end of it at least, besides the surface it is cut into."""
    for axis, (low, high) in enumerate(operation.places):
        if axis == operation.into.axis:
            continue
        if abs(float(low)) < _NEAR or abs(float(high - operation.stock[axis])) < _NEAR:
            return True
    return False


def without(solid: Solid, region: Region) -> Solid:
    """Return a solid less a region."""
    match region:
        case BeyondRegion(point, normal):
            length = float(np.linalg.norm(normal))
            away = [-each / length for each in normal]
            return solid.trim_by_plane(away, float(np.dot(away, point)))
        case _:
            return solid - region_solid(region)


def region_solid(region: PrismRegion | BoreRegion | HullRegion) -> Solid:
    """Return a bounded region as a solid."""
    match region:
        case PrismRegion(axis, polygon, start, end):
            points = np.array(polygon)
            area = np.sum(points[:, 0] * np.roll(points[:, 1], -1) - points[:, 1] * np.roll(points[:, 0], -1))
            section = manifold3d.CrossSection([points if area > 0 else points[::-1]])
            return turned(manifold3d.Manifold.extrude(section, end - start).translate((0, 0, start)), axis)
        case BoreRegion(axis, centre, diameter, start, end, to_diameter):
            radii = [diameter / 2, (diameter if to_diameter is None else to_diameter) / 2]
            if start > end:
                start, end, radii = end, start, radii[::-1]
            cone = manifold3d.Manifold.cylinder(end - start, radii[0], radii[1], ROUND)
            return turned(cone.translate((*centre, start)), axis)
        case HullRegion(points):
            return manifold3d.Manifold.hull_points(np.array(points))


_DIRECTIONS = [np.array(each) / np.linalg.norm(each) for each in product((-1.0, 0.0, 1.0), repeat=3) if any(each)]


def ball(diameter: float) -> float:
    """Return the volume of a ball, mm³; its diameter in mm.

    Parameters
    ----------
    diameter : float
        mm.
    """
    return math.pi / 6 * diameter**3


def thickest(solid: Solid, least: float) -> float:
    """Return the diameter of the largest ball that fits into a difference, to a fifth; 0 where under `least`, mm.

    Parameters
    ----------
    solid : Solid
        The difference.
    least : float
        What is not worth telling, mm.
    """
    found = 0.0
    for piece in solid.decompose():
        low, high = piece.bounding_box()[:3], piece.bounding_box()[3:]
        # What is smaller than the ball cannot hold it, which spares most of the work.
        limit = min(
            *(b - a for a, b in zip(low, high, strict=True)), (6 / math.pi * max(piece.volume(), 0.0)) ** (1 / 3)
        )
        first = found * 1.2 if found else least
        if first > limit or not _holds(piece, first):
            continue
        # Each ball is a fifth larger than the one before; the largest that fits is found by halving.
        fits, beyond = 0, int(math.log(limit / first) / math.log(1.2)) + 1
        while beyond - fits > 1:
            middle = (fits + beyond) // 2
            fits, beyond = (middle, beyond) if _holds(piece, first * 1.2**middle) else (fits, middle)
        found = first * 1.2**fits
    return found


def _holds(solid: Solid, diameter: float) -> bool:
    worn = solid
    for direction in _DIRECTIONS:
        worn ^= solid.translate(tuple(direction * diameter / 2))
        if worn.is_empty():
            return False
    return bool(worn.volume() > 1e-6)
