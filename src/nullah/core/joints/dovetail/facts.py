"""What is to be minded at a dovetailed corner, as facts; `core/wording/corners.py` says them."""

from __future__ import annotations

from enum import Enum, auto
from typing import NamedTuple

from nullah.core.lengths import Length, Slope

# --- figures that cannot be laid out -----------------------------------------------------------------


class NoTails(NamedTuple):
    """A corner needs one tail at least."""

    tails: int


class TooManyTails(NamedTuple):
    """So many tails must be a slip of the key."""

    tails: int


class CornerSize(Enum):
    """Which size of a corner is meant."""

    WIDTH = auto()
    TAIL_BOARD = auto()
    PIN_BOARD = auto()


class NoSize(NamedTuple):
    """A board of a corner has no size."""

    side: CornerSize
    size: Length


class PinBelowNothing(NamedTuple):
    """A pin is less than nothing wide."""


LayoutRefusal = NoTails | TooManyTails | NoSize | PinBelowNothing

# --- layouts that cannot be made, or only just -------------------------------------------------------


class NothingForTails(NamedTuple):
    """The pins take all the width; `most` tails would go, 0 if not even one."""

    tails: int
    pin: Length
    width: Length
    most: int


class TailsRunToPoint(NamedTuple):
    """Tails end before the baseline, their slope taking more than they have; `most` tails would go."""

    tail: Length
    slope: Slope
    taken: Length
    most: int


class PinsTooFine(NamedTuple):
    """Pins are finer than saw, knife and chisel can make."""

    pin: Length
    finest: Length


class NoChiselBetween(NamedTuple):
    """No chisel of the shop enters between two tails."""

    pin: Length


class NoChiselForSocket(NamedTuple):
    """No chisel of the shop enters a socket."""

    socket: Length


class TailsBreakOff(NamedTuple):
    """Tails are much narrower at the baseline than at the end."""

    tail: Length
    base: Length


class HalfPinWeak(NamedTuple):
    """A half-pin is narrow for its board; what is usual."""

    half_pin: Length
    usual: Length


class SlopeCrumbles(NamedTuple):
    """The corners of the tails are short grain."""

    slope: Slope


class SlopeSlips(NamedTuple):
    """The tails hold little more than straight fingers."""

    slope: Slope


class BaselineInside(NamedTuple):
    """The baseline lies inside flush; the widest setting of the gauge."""

    by: Length
    gauge: Length


#: About how many tails there are and how fine the pins between them: what the piece itself is to be told.
TailFact = NothingForTails | TailsRunToPoint | PinsTooFine | NoChiselBetween | NoChiselForSocket | TailsBreakOff
CornerFact = TailFact | HalfPinWeak | SlopeCrumbles | SlopeSlips | BaselineInside

# --- the groove for a bottom -------------------------------------------------------------------------


class GrooveInTail(NamedTuple):
    """The groove runs inside a tail, counted from the lower edge, and does not show."""

    tail: int
    lapped: bool


class StopOnTailBoards(NamedTuple):
    """The groove would show in the end of a tail; where to stop it."""

    stop: Length
    past_baseline: Length


class StopOnPinBoards(NamedTuple):
    """The groove would show in the end of a pin; where to stop it."""

    stop: Length


class GrooveCutsSlope(NamedTuple):
    """The groove cuts the slope between a tail and a pin."""


GrooveFact = GrooveInTail | StopOnTailBoards | StopOnPinBoards | GrooveCutsSlope
