"""What hands and trials cannot be."""

from __future__ import annotations

from enum import Enum, auto

#: Hands are off by at most so many mm; fewer trials than these say nothing.
MOST_OFF, LEAST_TRIALS = 5, 100


class ToleranceFault(Enum):
    """What cannot be tried."""

    NO_TAIL = auto()
    NO_OPENING = auto()
    HANDS = auto()
    TOO_FEW_TRIALS = auto()
