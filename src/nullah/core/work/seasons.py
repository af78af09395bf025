"""The piece of a plan through a year in the room where it will live."""

from __future__ import annotations

from typing import NamedTuple

from nullah.core.identity import IdentityKey, kept_by_identity, kept_by_value
from nullah.core.ledger import Ledger
from nullah.core.lengths import Direction, Length
from nullah.core.piece.form import Assembly
from nullah.core.plan import Plan
from nullah.core.season.fits import Fit, fits_of
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
    stocks = tuple((part.id, stock) for part in plan.parts if (stock := stock_of(plan, part.id)) is not None)
    if plan.ledger is None:
        return Season(plan.project.climate, (), (), ())
    return _season(plan.assembly, IdentityKey(plan.ledger), stocks, plan.project.climate)


@kept_by_value(16)
def _season(
    assembly: Assembly, ledger: IdentityKey[Ledger], stocks: tuple[tuple[str, WoodMoisture], ...], climate: Climate
) -> Season:
    known = dict(stocks)
    parts = tuple(part_year(part, known[part.id]) for part in assembly.parts if part.id in known)
    return Season(climate, parts, fits_of(assembly, ledger.carried, known), strains_of(assembly, known))


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
