"""The practice joint: tries on offcuts, whether they get better, and what they say of the hands."""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence
from typing import NamedTuple

from nullah.core.shop import Hands

#: Where a joint can be tight.
TIGHT = ("nowhere", "at one cheek", "at several cheeks", "at the baseline", "did not close")
# So many tries make a beginning and an end to be compared.
_FEW = 3


class JointTry(NamedTuple):
    """One practice joint: the day, how long it took (min), its widest gap (mm), and where it was tight."""

    day: str
    minutes: float
    gap: float
    tight: str


class PracticeError(ValueError):
    """A try that cannot have been; the message says why."""


def check(done: JointTry) -> None:
    """Raise `PracticeError` for a try that cannot have been."""
    if not 0 < done.minutes <= 600:
        raise PracticeError("Minutes from 1 to 600.")
    if not 0 <= done.gap <= 10:
        raise PracticeError("A gap of 0 to 10 mm.")
    if done.tight not in TIGHT:
        raise PracticeError(f"It was tight {', or '.join(TIGHT)}.")


def progress_in_words(tries: Sequence[JointTry]) -> str:
    """Return how it goes, first tries against last ones.

    Examples
    --------
    >>> progress_in_words([JointTry("2026-11-25", 50, 0.6, "nowhere")])
    '1 practice joint: 50 min, widest gap 0.6 mm. Two more and there is something to compare.'
    """
    if not tries:
        return "No practice joint yet. Two offcuts about 15 mm thick, 50 wide, 75 long do."
    last = tries[-1]
    said = f"{len(tries)} practice joint{'s' * (len(tries) > 1)}: {last.minutes:g} min, widest gap {last.gap:g} mm."
    if len(tries) < _FEW:
        more = {1: "One", 2: "Two"}[_FEW - len(tries)]
        return f"{said} {more} more and there is something to compare."
    first, now = tries[:_FEW], tries[-_FEW:]
    gaps = [statistics.median(each.gap for each in some) for some in (first, now)]
    minutes = [statistics.median(each.minutes for each in some) for some in (first, now)]
    return (
        f"{said} Gaps {_change(gaps[0], gaps[1], 'mm')}, time {_change(minutes[0], minutes[1], 'min')}. {_habit(tries)}"
    ).strip()


def _change(before: float, after: float, unit: str) -> str:
    if abs(after - before) < 0.05 * max(before, 1e-9):
        return f"as before ({after:g} {unit})"
    return f"{'down' if after < before else 'up'} from {before:g} to {after:g} {unit}"


def _habit(tries: Sequence[JointTry]) -> str:
    """Return what comes again and again, with what helps."""
    last = [each.tight for each in tries[-5:]]
    often = max(set(last), key=last.count)
    if last.count(often) < 3 or often == "nowhere":
        return ""
    helps = {
        "at one cheek": "look which way the saw leans: start it with the line in the light",
        "at several cheeks": "the tails were traced too wide, or the saw left the line in: split the knife line",
        "at the baseline": "chop a little hollow, and clear the corners of the sockets",
        "did not close": "pare only what is burnished, and try by hand before the mallet",
    }
    return f"Often tight {often}: {helps[often]}." if often != "did not close" else f"Often it {often}: {helps[often]}."


def hands_of(tries: Sequence[JointTry], tails: int = 3) -> Hands:
    """Say what the tries tell of the hands: how far off their saw is; the usual guess where there are too few.

    The widest of so many gaps is about √(2 ln n) standard deviations out, n cheeks (extreme values, large n).
    """
    usual = Hands()
    if len(tries) < _FEW:
        return usual
    widest = statistics.median(each.gap for each in tries[-5:])
    return usual._replace(sawing=round(max(widest / math.sqrt(2 * math.log(2 * max(tails, 1) + 1)), 0.02), 3))
