"""Building the parts of a piece by their operations, and holding them against the parts as designed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from nullah.core.apprentice.carrying_out import ball, carry_out, region_solid, thickest
from nullah.core.apprentice.facts import BuildingFact, CutAway, LeftStanding
from nullah.core.identity import kept_by_value
from nullah.core.lengths import from_float
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import BeyondRegion
from nullah.core.operations.stock import Stock
from nullah.core.piece.frame import Frame
from nullah.core.piece.solids import Recipe, Solid, build, shifted
from nullah.core.piece.space import Axis


def in_own_frame(solid: Solid, frame: Frame) -> Solid:
    """Return a part's solid, which stands in the piece, in the frame of its blank.

    A frame may be left-handed: that of a part which mirrors another.
    """
    return _in_frame(solid, frame.axes, frame.turned, tuple(map(float, frame.low)), tuple(map(float, frame.high)))


def _in_frame(
    solid: Solid, axes: Sequence[Axis], turned: Sequence[bool], low: Sequence[float], high: Sequence[float]
) -> Solid:
    matrix = [[0.0, 0.0, 0.0, 0.0] for _ in range(3)]
    for row, (axis, back) in enumerate(zip(axes, turned, strict=True)):
        matrix[row][axis.value] = -1.0 if back else 1.0
        matrix[row][3] = high[row] if back else -low[row]
    return solid.transform(matrix)


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
    low = [0.0, 0.0, 0.0]
    for axis, at in zip(frame.axes, frame.low, strict=True):
        low[axis.value] = float(at)
    moved = shifted(designed, (-low[0], -low[1], -low[2]))
    return otherwise_at_origin(frame.part.id, frame.axes, frame.turned, blank, operations, moved, mark)


@kept_by_value(512)
def otherwise_at_origin(
    part: str,
    axes: tuple[Axis, Axis, Axis],
    turned: tuple[bool, bool, bool],
    blank: Stock,
    operations: tuple[Operation, ...],
    designed: Recipe,
    mark: float,
) -> tuple[BuildingFact, ...]:
    """Do so for a part whose blank stands at the origin: one that only moves is not built again.

    Parameters
    ----------
    part : str
        Its id.
    axes : tuple[Axis, Axis, Axis]
        Of the piece, along the blank's length, width and thickness.
    turned : tuple[bool, bool, bool]
        Whether each of them runs the other way.
    blank : Stock
        Its sizes.
    operations : tuple[Operation, ...]
        In their order.
    designed : Recipe
        What it should become.
    mark : float
        The smallest mark of the rule, mm: nothing thinner is told.
    """
    built = carry_out(blank, operations)
    wanted = _in_frame(build(designed), axes, turned, (0.0, 0.0, 0.0), tuple(map(float, blank)))
    found: list[BuildingFact] = list(built.refused)
    standing = built.solid - wanted
    standing_volume = standing.volume()
    gone_volume = wanted.volume() - built.solid.volume() + standing_volume
    # Where the volume is less than that of the ball, no difference is thicker, without looking at each.
    if standing_volume >= ball(mark):
        found += _thick(LeftStanding, part, standing, operations, mark)
    if gone_volume >= ball(mark):
        found += _thick(CutAway, part, wanted - built.solid, operations, mark)
    return tuple(found)


def _thick(
    fact: type[LeftStanding | CutAway], part: str, difference: Solid, operations: tuple[Operation, ...], mark: float
) -> Iterator[BuildingFact]:
    """Yield where a difference is thicker than the mark."""
    thick = thickest(difference, mark)
    if thick:
        low, high = difference.bounding_box()[:3], difference.bounding_box()[3:]
        yield fact(part, from_float(round(thick, 1)), _nearest(difference, operations), (low, high))


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
