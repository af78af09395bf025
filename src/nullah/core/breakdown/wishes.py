"""What a layout should be good at."""

from __future__ import annotations

from nullah.core.frozen_record import FrozenRecord


class SearchWeights(FrozenRecord):
    """What a layout should be good at besides using little wood: shares from 0 (not at all) to 1.

    Parameters
    ----------
    sawing : float
        Little to saw.
    value : float
        The dear boards kept whole.
    risk : float
        Parts away from flaws.
    """

    sawing: float = 0.0
    value: float = 0.0
    risk: float = 0.0
