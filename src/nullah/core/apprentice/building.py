"""Building the parts of a piece by their operations, and holding them against the parts as designed."""

from __future__ import annotations

from functools import lru_cache

from nullah.core.apprentice.carrying_out import carry_out, region_solid, thickest
from nullah.core.apprentice.facts import BuildingFact, CutAway, LeftStanding
from nullah.core.lengths import from_float
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import BeyondRegion
from nullah.core.operations.stock import Stock
from nullah.core.piece.frame import Frame
from nullah.core.piece.solids import Recipe, Solid, build


def in_own_frame(solid: Solid, frame: Frame) -> Solid:
    """Return a part's solid, which stands in the piece, in the frame of its blank.

    A frame may be left-handed: that of a part which mirrors another.
    """
    matrix = [[0.0, 0.0, 0.0, 0.0] for _ in range(3)]
    for row, (axis, turned) in enumerate(zip(frame.axes, frame.turned, strict=True)):
        matrix[row][axis.value] = -1.0 if turned else 1.0
        matrix[row][3] = float(frame.high[row]) if turned else -float(frame.low[row])
    return solid.transform(matrix)


@lru_cache(maxsize=512)
def built_otherwise(
    frame: Frame, blank: Stock, operations: tuple[Operation, ...], designed: Recipe, mark: float
) -> tuple[BuildingFact, ...]:
    """Carry a part's operations out; return what could not be done, and where it comes out otherwise than designed.

    Parameters
    ----------
    frame : Frame
    blank : Stock
        As it was milled.
    operations : tuple of Operation
        In their order.
    designed : Recipe
        What makes the part's solid.
    mark : float
        No difference may be thicker, mm.
    """
    built = carry_out(blank, operations)
    wanted = in_own_frame(build(designed), frame)
    found: list[BuildingFact] = list(built.refused)
    for fact, difference in ((LeftStanding, built.solid - wanted), (CutAway, wanted - built.solid)):
        thick = thickest(difference, mark)
        if thick:
            low, high = difference.bounding_box()[:3], difference.bounding_box()[3:]
            nearest = _nearest(difference, operations)
            found.append(fact(frame.part.id, from_float(round(thick, 1)), nearest, (low, high)))
    return tuple(found)


def _nearest(difference: Solid, operations: tuple[Operation, ...]) -> Operation | None:
    """Return the operation that takes most of a difference; where none does, the one that comes nearest to it."""
    best, least = None, float("inf")
    for operation in operations:
        for region in operation.takes:
            if isinstance(region, BeyondRegion):
                continue
            solid = region_solid(region)
            shared = (solid ^ difference).volume()
            away = -shared if shared > 1e-6 else solid.min_gap(difference, 1000.0)
            if away < least:
                best, least = operation, away
    return best
