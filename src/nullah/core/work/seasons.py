"""The piece of a plan through a year in the room where it will live."""

from __future__ import annotations

from collections.abc import Mapping

from nullah.core.bits import Bits, at_once
from nullah.core.identity import IdentityKey, RecentResults, kept_by_identity
from nullah.core.ledger import Ledger
from nullah.core.lengths import Direction, Length, from_float
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.form import Assembly
from nullah.core.plan import Plan
from nullah.core.season.fits import Fit, fits_in_bits
from nullah.core.season.strain import Strain, strains_of
from nullah.core.season.swelling import PartYear, WoodMoisture, part_year
from nullah.core.wood.climate import Climate


class Season(NamedTuple):
    """A piece through the year: its parts, what has room to move, and its joints across the grain."""

    climate: Climate
    parts: tuple[PartYear, ...]
    fits: tuple[Fit, ...]
    strains: tuple[Strain, ...]

    def part(self, part_id: str) -> PartYear | None:
        """Return a part through the year, if its wood is known."""
        return next((each for each in self.parts if each.part.id == part_id), None)

    def fit_of(self, part_id: str) -> Fit | None:
        """Return the first fit a part has a share in."""
        return next((fit for fit in self.fits if part_id in fit.parts), None)


@kept_by_identity(2)
def season_of(plan: Plan) -> Season:
    """Return the piece of a plan through the year; parts whose wood is not known are left out."""
    return at_once(season_in_bits(plan))


def season_in_bits(plan: Plan) -> Bits[Season]:
    """Work out the piece of a plan through the year, part by part."""
    # Which nails hold it changes nothing of how it moves.
    stocks = tuple((part.id, stock) for part in plan.parts if (stock := stock_of(plan, part.id)) is not None)
    if plan.ledger is None:
        return Season(plan.project.climate, (), (), ())
    key = plan.unfastened, IdentityKey(plan.ledger), stocks, plan.project.climate
    found = _SEASONS.found(key)
    if found is None:
        found = yield from _season(plan.unfastened, plan.ledger, dict(stocks), plan.project.climate)
        _SEASONS.keep(key, found)
    return found


#: What is undone is shown at once.
_SEASONS: RecentResults[Season] = RecentResults(8)


def _season(assembly: Assembly, ledger: Ledger, stocks: Mapping[str, WoodMoisture], climate: Climate) -> Bits[Season]:
    parts = []
    for part in assembly.parts:
        if part.id in stocks:
            parts.append(part_year(part, stocks[part.id]))
            yield
    fits = yield from fits_in_bits(assembly, ledger, stocks)
    return Season(climate, tuple(parts), fits, strains_of(assembly, stocks))


def stock_of(plan: Plan, part_id: str) -> WoodMoisture | None:
    """Return the wood of a part with its moisture now and through the year; None where it is not in the table."""
    part = plan.part(part_id)
    return None if part is None else plan.wood_through_year(part)


def room_to_leave(plan: Plan, season: Season, fit: Fit) -> Length | None:
    """Return what the figure that sets a fit's room should be, to the mark and on the safe side; None without one.

    Where it sets the room of several, the one that needs most decides.
    """
    wanted = [each.value for each in season.fits if each.quantity == fit.quantity and each.value is not None]
    if not wanted or plan.ledger is None or not fit.quantity:
        return None
    return plan.marks.to_setting(Length(max(wanted)), Direction.UP)


def part_movement(plan: Plan, part_id: str) -> tuple[Length, str] | None:
    """Return how much a part's width changes over the year, and its species; None where no wood is known."""
    part, found = plan.part(part_id), season_of(plan).part(part_id)
    if found is None or part is None or not plan.species_of(part):
        return None
    return from_float(found.swing), found.stock.species.name
