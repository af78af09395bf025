"""The practice joint: tries on offcuts, whether they get better, and what they say of the hands."""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence
from enum import Enum, auto

from nullah.core.catalogue import N_
from nullah.core.errors import FactError
from nullah.core.named_tuple import NamedTuple
from nullah.core.shop import Hands

#: Where a joint can be tight.
TIGHT = (N_("nowhere"), N_("at one cheek"), N_("at several cheeks"), N_("at the baseline"), N_("did not close"))
#: So many tries make a beginning and an end to be compared.
FEW = 3
#: No try takes longer, minutes, or gapes wider, mm.
MOST_MINUTES, MOST_GAP = 600, 10


class JointTry(NamedTuple):
    """One practice joint: the day, how long it took (min), its widest gap (mm), and where it was tight."""

    day: str
    minutes: float
    gap: float
    tight: str


class PracticeWrong(Enum):
    """Why a try cannot have been."""

    MINUTES = auto()
    GAP = auto()
    TIGHT = auto()


class PracticeError(FactError):
    """A try that cannot have been; `fact` is why."""

    fact: PracticeWrong


def check(done: JointTry) -> None:
    """Raise `PracticeError` for a try that cannot have been."""
    if not 0 < done.minutes <= MOST_MINUTES:
        raise PracticeError(PracticeWrong.MINUTES)
    if not 0 <= done.gap <= MOST_GAP:
        raise PracticeError(PracticeWrong.GAP)
    if done.tight not in TIGHT:
        raise PracticeError(PracticeWrong.TIGHT)


class Change(NamedTuple):
    """A figure at first and now."""

    before: float
    after: float

    @property
    def as_before(self) -> bool:
        """Whether it has hardly changed."""
        return abs(self.after - self.before) < 0.05 * max(self.before, 1e-9)


class Progress(NamedTuple):
    """First tries against last ones: the median of their widest gaps, mm, and of how long they took, minutes."""

    gap: Change
    minutes: Change


def progress(tries: Sequence[JointTry]) -> Progress | None:
    """Return how it goes; None where there is not enough to compare."""
    if len(tries) < FEW:
        return None
    ends = (tries[:FEW], tries[-FEW:])
    return Progress(
        Change(*(statistics.median(each.gap for each in some) for some in ends)),
        Change(*(statistics.median(each.minutes for each in some) for some in ends)),
    )


def often_tight(tries: Sequence[JointTry]) -> str:
    """Return where it was tight three times of the last five, one of `TIGHT`; empty where nowhere was."""
    last = [each.tight for each in tries[-5:]]
    often = max(set(last), key=last.count, default=TIGHT[0])
    return often if last.count(often) >= FEW and often != TIGHT[0] else ""


def hands_of(tries: Sequence[JointTry], tails: int = 3) -> Hands:
    """Say what the tries tell of the hands: how far off their saw is; the usual guess where there are too few.

    The widest of so many gaps is about √(2 ln n) standard deviations out, n cheeks (extreme values, large n).

    Parameters
    ----------
    tries : Sequence[JointTry]
        The practice joints, oldest first.
    tails : int
        Of each.
    """
    usual = Hands()
    if len(tries) < FEW:
        return usual
    widest = statistics.median(each.gap for each in tries[-5:])
    return usual._replace(sawing=round(max(widest / math.sqrt(2 * math.log(2 * max(tails, 1) + 1)), 0.02), 3))
