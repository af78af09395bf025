"""What is said of a piece through the year as a whole, as facts; `core/wording/season.py` says them.

A `Fit` and a `Strain` are facts themselves.
"""

from __future__ import annotations

from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length
from nullah.core.season.fits import Fit
from nullah.core.season.strain import Strain


class NothingMoves(FrozenRecord):
    """There is no piece, or no wood of it is known."""


class MostStrained(FrozenRecord):
    """The joints that are strained most across the grain without cracking."""

    strains: tuple[Strain, ...]


class GluedAcross(FrozenRecord):
    """So many joints are glued across the grain, over no more than wood bears."""

    joints: int
    widest: Length


class TooWet(FrozenRecord):
    """Parts that are wetter now, the wettest so many per cent, than they will ever be in the room."""

    parts: tuple[str, ...]
    moisture: float


class WoodNotChosen(FrozenRecord):
    """Some parts have no wood yet and are reckoned as the usual one."""

    wood: str


class MustMove(FrozenRecord):
    """Parts that must never be glued in."""

    parts: tuple[str, ...]


class RoomInYear(FrozenRecord):
    """What room something has through the year, beside what the season asks."""

    fit: Fit


SeasonFact = NothingMoves | MostStrained | GluedAcross | TooWet | WoodNotChosen | MustMove | RoomInYear
