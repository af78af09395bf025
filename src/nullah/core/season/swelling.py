"""How much every part is wider or narrower in each month than it is now."""

from __future__ import annotations

from typing import NamedTuple

from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis
from nullah.core.wood.movement import GrainCut, coefficient
from nullah.core.wood.species import Species

#: How much slower finished wood follows its room (common practice, no published source: no finish keeps water out).
FINISHES = {"none": 1.0, "oil or wax": 1.5, "shellac": 3.0, "paint or varnish": 4.0}

#: Twelve figures, from January.
Year = tuple[float, ...]


class WoodMoisture(NamedTuple):
    """The wood of a part: its species and cut, its moisture now, and in the middle of every month, %."""

    species: Species
    cut: GrainCut
    now: float
    year: Year


class PartYear(NamedTuple):
    """A part through the year: its width now, mm, and how much it is more or less in each month, mm."""

    part: Part
    stock: WoodMoisture
    width: float
    change: Year

    @property
    def swing(self) -> float:
        """How far its widest and its narrowest month are apart, mm."""
        return max(self.change) - min(self.change)


def growth(part: Part, stock: WoodMoisture, axis: Axis, size: float | None = None) -> Year:
    """Return how much a part (or so much of it, mm) is longer along an axis in each month than now, mm.

    Along the grain nothing; across it by the coefficient of its cut; through its thickness by that of the other cut
    (Wood Handbook, ch. 13: a flat-sawn board moves radially in its thickness).

    Parameters
    ----------
    part : Part
    stock : WoodMoisture
        Its wood, with its moisture through the year.
    axis : Axis
        The axis that is measured along.
    size : float, optional
        How much of the part, mm, or None for all of it.

    Returns
    -------
    Year
        Twelve figures from January, mm.
    """
    if axis is part.grain:
        return (0.0,) * 12
    if axis is part.face:
        cut = {GrainCut.FLAT: GrainCut.QUARTER, GrainCut.QUARTER: GrainCut.FLAT, GrainCut.RIFT: GrainCut.RIFT}[
            stock.cut
        ]
    else:
        cut = stock.cut
    size = float(part.box.size(axis)) if size is None else size
    by_point = size * coefficient(stock.species, cut)
    return tuple(by_point * (moisture - stock.now) for moisture in stock.year)


def part_year(part: Part, stock: WoodMoisture) -> PartYear:
    """Return a part through the year."""
    return PartYear(part, stock, float(part.box.size(part.across)), growth(part, stock, part.across))
