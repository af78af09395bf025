"""Where dowels stand in two parts that touch, and the holes they take."""

from __future__ import annotations

from nullah.core.fraction import Fraction
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.cuts import Removal, RoundHole
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Side, side_at


class DowelRow(NamedTuple):
    """A row of dowels, in the piece.

    Parameters
    ----------
    side : Side
        Of the first part, on which the second lies.
    along : Axis
        The row's own.
    places : tuple of Fraction
        Along it, mm of the piece.
    level : Fraction
        Where the row lies across, mm of the piece.
    diameter : Length
        As the bit was bought.
    deep : (Fraction, Fraction)
        How deep the holes are in the first and in the second part, mm.
    prefix : str
        The ledger's prefix of these figures.
    """

    side: Side
    along: Axis
    places: tuple[Fraction, ...]
    level: Fraction
    diameter: Length
    deep: tuple[Fraction, Fraction]
    prefix: str = ""

    @property
    def across(self) -> Axis:
        """The axis across the row, in the surface."""
        return next(axis for axis in Axis if axis not in (self.along, self.side.axis))


def row_between(
    first: Part,
    second: Part,
    touch: Box,
    count: int,
    diameter: Length,
    deep: tuple[Fraction, Fraction],
    inset: Fraction,
) -> DowelRow:
    """Return a row along the longer way of a surface, in its middle, evenly between its first and its last dowel.

    Parameters
    ----------
    first, second : Part
    touch : Box
        Where they touch: flat along one axis.
    count : int
        How many; fewer than one are one.
    diameter : Length
    deep : (Fraction, Fraction)
        In the first and in the second part, mm.
    inset : Fraction
        From either end of the surface to the nearest dowel, mm.
    """
    axis = next(each for each in Axis if touch.size(each) == 0)
    along = max((each for each in Axis if each is not axis), key=touch.size)
    across = next(each for each in Axis if each not in (axis, along))
    low, high = touch.low[along.value], touch.high[along.value]
    level = (touch.low[across.value] + touch.high[across.value]) / 2
    side = side_at(axis, first.box.high[axis.value] <= second.box.low[axis.value])
    if count <= 1 or 2 * inset >= high - low:
        places: tuple[Fraction, ...] = ((low + high) / 2,)
    else:
        step = (high - low - 2 * inset) / (count - 1)
        places = tuple(low + inset + number * step for number in range(count))
    return DowelRow(side, along, places, level, diameter, deep)


def holes_of(row: DowelRow, part: Part, is_first: bool) -> Removal:
    """Return the holes of a row in one of its parts."""
    axis = row.side.axis
    towards_high = row.side.high is is_first
    low, high = float(part.box.low[axis.value]), float(part.box.high[axis.value])
    deep = float(row.deep[0 if is_first else 1])
    ends = (high - deep, high) if towards_high else (low, low + deep)
    wide, first = float(row.diameter), Axis((axis.value + 1) % 3)

    def centre(at: Fraction) -> tuple[float, float]:
        pair = (float(at), float(row.level))
        return pair if first is row.along else (pair[1], pair[0])

    return Removal(holes=tuple(RoundHole(axis, centre(at), *ends, wide, wide) for at in row.places))
