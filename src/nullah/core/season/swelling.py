"""How much every part is wider or narrower in each month than it is now."""

from __future__ import annotations

from collections.abc import Sequence
from operator import itemgetter

from nullah.core.identity import kept_by_identity, kept_by_value
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis
from nullah.core.rack.board import Board
from nullah.core.rack.drying import Room, usual_days
from nullah.core.wood.climate import Climate, year_of
from nullah.core.wood.finishes import FINISHES, NO_FINISH
from nullah.core.wood.movement import GrainCut, coefficient
from nullah.core.wood.species import Species

#: Twelve figures, from January.
Year = tuple[float, ...]


class StaveWood(NamedTuple):
    """The wood of one stave: what share of its part's width it has, its species, cut and moisture now, %."""

    share: float
    species: Species
    cut: GrainCut
    now: float


class WoodMoisture(NamedTuple):
    """The wood of a part: its species and cut, its moisture now, and in the middle of every month, %.

    What is glued up of staves moves as each of them does; species, cut and moisture are then those of the first.
    """

    species: Species
    cut: GrainCut
    now: float
    year: Year
    staves: tuple[StaveWood, ...] = ()


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


_ON_EDGE = {GrainCut.FLAT: GrainCut.QUARTER, GrainCut.QUARTER: GrainCut.FLAT, GrainCut.RIFT: GrainCut.RIFT}


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
    return _growth(part, stock, axis) if size is None else _growth_of(part, stock, axis, size)


@kept_by_identity(4096)
def _growth(part: Part, stock: WoodMoisture, axis: Axis) -> Year:
    return _growth_of(part, stock, axis, float(part.box.size(axis)))


def _growth_of(part: Part, stock: WoodMoisture, axis: Axis, size: float) -> Year:
    if axis is part.grain:
        return (0.0,) * 12
    staves = stock.staves or (StaveWood(1.0, stock.species, stock.cut, stock.now),)

    through = axis is part.face
    points = [
        (wood, size * coefficient(wood.species, seen_on_edge(wood.cut) if through else wood.cut)) for wood in staves
    ]
    if through:
        # It is as thick as its thickest stave.
        most, by_point = max(points, key=itemgetter(1))
        return tuple(by_point * (moisture - most.now) for moisture in stock.year)
    return tuple(
        sum(wood.share * by_point * (moisture - wood.now) for wood, by_point in points) for moisture in stock.year
    )


def seen_on_edge(cut: GrainCut) -> GrainCut:
    """Return how rings run through the thickness of a board of that cut: flat-sawn wood on its edge is quarter-sawn."""
    return _ON_EDGE[cut]


def moisture_now(board: Board | None, room: Room, climate: Climate) -> float:
    """Return the moisture of wood today, %: its board's last reading, else the room's, else that of the year."""
    if board is not None and board.readings:
        return float(max(board.readings, key=lambda reading: reading.day).percent)
    return room.target if room.target is not None else sum(climate.moisture) / 12


def through_year(part: Part, staves: Sequence[StaveWood], climate: Climate, finish: str) -> WoodMoisture:
    """Return the wood of a part with its moisture now and in every month: behind the air by its size and its finish.

    Parameters
    ----------
    part : Part
    staves : sequence of StaveWood
        What it is glued up of; one with all of its width where it is whole.
    climate : Climate
        Of the room where it will live.
    finish : str
        One of `FINISHES`.
    """
    return _moisture(tuple(staves), climate, round(_days(part) * FINISHES.get(finish, FINISHES[NO_FINISH]).slows, 1))


@kept_by_identity(4096)
def _days(part: Part) -> float:
    return usual_days(float(part.length), float(part.width), float(part.thickness))


@kept_by_value(4096)
def _moisture(staves: tuple[StaveWood, ...], climate: Climate, behind: float) -> WoodMoisture:
    """Return wood through the year, so many days behind the air: the very same for parts that are alike."""
    first = staves[0]
    year = year_of(climate, behind)
    return WoodMoisture(first.species, first.cut, first.now, year, staves if len(set(staves)) > 1 else ())


@kept_by_identity(4096)
def part_year(part: Part, stock: WoodMoisture) -> PartYear:
    """Return a part through the year."""
    return PartYear(part, stock, float(part.box.size(part.across)), growth(part, stock, part.across))
