"""What comes of a rehearsal: how a piece went together that was built by the order of work alone."""

from __future__ import annotations

from enum import Enum

from nullah.core.bench.task_facts import OrderFault
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.shop import Hands

#: What is still so much too tight after fitting did not go in, and a gap that shows is wider than this, mm.
TOO_TIGHT, OPEN = 0.15, 0.5
#: No more than this is shaved off as something is tried; what is tighter was cut wrongly, mm (practice).
SHAVED = 1.0


class Skill(Enum):
    """How steady hands are: how many times the errors that the shop holds of its own."""

    STEADY = "steady"
    CAREFUL = "careful"
    USUAL = "usual"
    ROUGH = "rough"


_TIMES = {Skill.STEADY: 0.0, Skill.CAREFUL: 0.5, Skill.USUAL: 1.0, Skill.ROUGH: 2.5}


def hands_of(own: Hands, skill: Skill) -> Hands:
    """Return how far off hands of some skill are, from those of the shop."""
    return Hands(*(each * _TIMES[skill] for each in own))


class Joined(NamedTuple):
    """Two parts as they came together, mm.

    `gap` is what is open beyond what was planned, `tight` by how much the one does not go in; `shows` whether some of
    the gap is seen.
    """

    parts: tuple[str, str]
    gap: float
    tight: float
    open_to_view: float


class Found(NamedTuple):
    """Something measured: what was planned, and what was found."""

    quantity: str
    planned: Length
    found: Length


class MadeAgain(NamedTuple):
    """A part that had to be made again: a measurement changed what was cut already."""

    part: str


class NotFound(NamedTuple):
    """A quantity was to be measured where nothing is so far apart."""

    quantity: str


class NoOrder(NamedTuple):
    """There is no order of work."""


class OutOfOrder(NamedTuple):
    """Something is done too early or too late."""

    fault: OrderFault


Refused = MadeAgain | NotFound | NoOrder | OutOfOrder


class Rehearsal(NamedTuple):
    """A piece as it came out; `refused` is what could not be done as it was told."""

    joints: tuple[Joined, ...]
    measured: tuple[Found, ...]
    refused: tuple[Refused, ...] = ()

    @property
    def goes_together(self) -> bool:
        """Whether every part went in, none had to be made again, and no gap shows."""
        good = (each.tight <= TOO_TIGHT and each.open_to_view <= OPEN for each in self.joints)
        return not self.refused and all(good)
