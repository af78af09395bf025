"""How hands work, as chances: what fits at once, what must be fitted, measured from the drawing or traced.

Every figure that is marked, sawn, planed or transferred is off by a little, normally distributed. Trials of that
(Monte Carlo) give the chance of a gap that shows and of a part that will not go in.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nullah.core.errors import FactError
from nullah.core.joints.tolerance_facts import LEAST_TRIALS, MOST_OFF, ToleranceFault
from nullah.core.shop import Hands

Grid = NDArray[np.float64]

#: A gap wider than this shows, mm.
SHOWS = 0.2
#: So much a cheek is pressed together as a joint is driven, and a panel as it is pushed in, mm (common practice).
CHEEK_GIVES, PANEL_GIVES = 0.15, 0.05
#: Trials that are made when nothing else is said.
TRIALS = 20_000


class ToleranceError(FactError):
    """Hands or trials that cannot be; the message says why."""


@dataclass(frozen=True, slots=True)
class Chances:
    """Out of 1: a gap over `SHOWS`, a part that does not go in as it comes, and both fits at once."""

    gap: float
    tight: float

    @property
    def good(self) -> float:
        """Neither a gap that shows nor any fitting."""
        return max(0.0, 1 - self.gap - self.tight)


@dataclass(frozen=True, slots=True)
class Compared:
    """The same joint or part made both ways."""

    drawing: Chances
    traced: Chances

    @property
    def far_better(self) -> bool:
        """Whether tracing or measuring what is there is worth insisting on."""
        return self.traced.good > self.drawing.good + 0.15


def _chances(clearance: Grid, gives: float, planned: float = 0.0) -> Chances:
    """Judge clearances, shape (trials, places): the worst place of each trial counts.

    Wood gives by `gives` mm before a part must be fitted; what was `planned` to be open is no gap.
    """
    widest, tightest = clearance.max(axis=1) - planned, clearance.min(axis=1)
    tight = tightest < -gives
    return Chances(float(np.mean((widest > SHOWS) & ~tight)), float(np.mean(tight)))


def dovetail(tails: int, hands: Hands = Hands(), trials: int = TRIALS, seed: int = 1) -> Compared:
    """Return the chances of a dovetailed corner: its pins laid out from the drawing too, or traced from the tails.

    A cheek closes where the socket's side and the tail's meet. From the drawing both are marked and sawn by
    themselves; traced, the tail as it came is copied, and only the pin's saw is off.

    Parameters
    ----------
    tails : int
        How many.
    hands : Hands
        How far off they are, standard deviations in mm.
    trials : int
        How many corners.
    seed : int
        Of their chance.
    """
    _check(trials, hands)
    if tails < 1:
        raise ToleranceError(ToleranceFault.NO_TAIL)
    chance = np.random.default_rng(seed)
    shape = (trials, 2 * tails)
    sawn = hands.sawing * chance.standard_normal(shape)
    both = np.hypot(hands.marking, hands.sawing) * chance.standard_normal(shape)
    # One leaves the line: the saw is kept in the waste by half a shaving.
    kept = -0.02
    drawing = both + np.hypot(hands.marking, hands.sawing) * chance.standard_normal(shape) + kept
    traced = hands.tracing * chance.standard_normal(shape) + sawn + kept
    return Compared(_chances(drawing, CHEEK_GIVES), _chances(traced, CHEEK_GIVES))


def opening(
    size: float, hands: Hands = Hands(), clearance: float = 0.0, joints: int = 2, trials: int = TRIALS, seed: int = 1
) -> Compared:
    """Return the chances of a part that fits an opening: cut from the drawing, or to the opening as it was measured.

    Parameters
    ----------
    size : float
        Of the opening, mm: long ones are marked a little worse.
    clearance : float
        Planned, mm, on the whole.
    joints : int
        Corners whose gauge lines and shoulders go into the opening.
    """
    _check(trials, hands)
    if size <= 0 or joints < 0:
        raise ToleranceError(ToleranceFault.NO_OPENING)
    chance = np.random.default_rng(seed)
    longer = math.sqrt(1 + (size / 1000) ** 2)

    def off(sd: float) -> Grid:
        return np.asarray(sd * chance.standard_normal((trials, 1)), dtype=np.float64)

    there = off(hands.marking * longer) + off(math.sqrt(2) * hands.sawing)
    for _ in range(joints):
        there = there + off(math.hypot(hands.tracing, hands.planing))
    cut = off(math.hypot(hands.sawing, hands.planing))
    drawing = clearance + there - off(hands.marking * longer) - cut
    measured = clearance + off(hands.measuring) - cut
    return Compared(_chances(drawing, PANEL_GIVES, clearance), _chances(measured, PANEL_GIVES, clearance))


def box(
    inside: tuple[float, float],
    tails: int,
    hands: Hands = Hands(),
    clearance: float = 0.0,
    trials: int = TRIALS,
    seed: int = 1,
) -> tuple[Compared, Compared]:
    """Return the chances of all four corners of a box, and of its bottom going in both ways.

    Parameters
    ----------
    inside : tuple[float, float]
        Length and width of the inside, mm.
    tails : int
        At each corner.
    hands : Hands, default Hands()
        How far off they are.
    clearance : float, default 0.0
        What the bottom is narrower than its grooves, mm.
    trials : int, default TRIALS
        How many boxes are made up.
    seed : int, default 1
        Of the random numbers.

    Returns
    -------
    tuple[Compared, Compared]
        Of the corners, and of the bottom.
    """
    _check(trials, hands)
    chance = np.random.default_rng(seed)
    corners = [dovetail(tails, hands, trials, int(chance.integers(1 << 30))) for _ in range(4)]
    sides = [opening(size, hands, clearance, 2, trials, int(chance.integers(1 << 30))) for size in inside]
    return _all(corners), _all(sides)


def _all(parts: list[Compared]) -> Compared:
    """Put independent parts together: good when all are; tight when one is."""

    def joined(chances: list[Chances]) -> Chances:
        good = math.prod(each.good for each in chances)
        tight = 1 - math.prod(1 - each.tight for each in chances)
        return Chances(max(0.0, 1 - good - tight), tight)

    return Compared(joined([each.drawing for each in parts]), joined([each.traced for each in parts]))


def _check(trials: int, hands: Hands) -> None:
    if not all(math.isfinite(each) and 0 <= each <= MOST_OFF for each in hands):
        raise ToleranceError(ToleranceFault.HANDS)
    if trials < LEAST_TRIALS:
        raise ToleranceError(ToleranceFault.TOO_FEW_TRIALS)
