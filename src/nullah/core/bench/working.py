"""How one works: hours, glue, clamps, how many hands, and the rates that were learned."""

from __future__ import annotations

from nullah.core.bench.hours import Hours
from nullah.core.bench.rates import Learned
from nullah.core.catalogue import N_
from nullah.core.named_tuple import NamedTuple


class Glue(NamedTuple):
    """A glue: minutes it stays open, hours in the clamps, hours until it may be worked (common practice)."""

    open_minutes: float
    clamp_hours: float
    cure_hours: float


#: Makers differ; read the label (common practice, no published source).
GLUES = {
    N_("white glue"): Glue(8.0, 1.0, 12.0),
    N_("slow white glue"): Glue(20.0, 2.0, 24.0),
    N_("hide glue"): Glue(12.0, 2.0, 16.0),
    N_("epoxy"): Glue(35.0, 8.0, 24.0),
}


class Working(NamedTuple):
    """How one works at this piece.

    `begin` is the day on which work begins (ISO), empty for today; `people` how many spread glue; `rates` pairs of
    rate and what was learned of it.
    """

    hours: Hours = Hours()
    glue: str = "white glue"
    clamps: int = 12
    people: int = 1
    begin: str = ""
    rates: tuple[tuple[str, Learned], ...] = ()

    @property
    def learned(self) -> dict[str, Learned]:
        """What was learned, by rate."""
        return dict(self.rates)
