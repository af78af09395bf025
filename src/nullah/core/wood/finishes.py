"""Finishes: their coats, and how much slower finished wood follows its room."""

from __future__ import annotations

from nullah.core.catalogue import N_
from nullah.core.named_tuple import NamedTuple


class Finish(NamedTuple):
    """A finish (common practice, no published source; the maker's sheet decides).

    Parameters
    ----------
    coats : int
    hours : float
        Between two coats.
    slows : float
        How many times slower the wood takes up the air of its room: no finish keeps water out.
    """

    coats: int
    hours: float
    slows: float


USUAL_FINISH = N_("oil or wax")
NO_FINISH = N_("none")
FINISHES = {
    NO_FINISH: Finish(0, 0.0, 1.0),
    USUAL_FINISH: Finish(2, 24.0, 1.5),
    N_("shellac"): Finish(4, 3.0, 3.0),
    N_("paint or varnish"): Finish(3, 16.0, 4.0),
}
