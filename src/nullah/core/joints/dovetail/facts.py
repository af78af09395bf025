"""What is to be minded at a dovetailed corner, as facts; `core/wording/corners.py` says them."""

from __future__ import annotations

from enum import Enum, auto

from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length, Slope

# --- figures that cannot be laid out -----------------------------------------------------------------


class NoTails(FrozenRecord):
    """A corner needs one tail at least."""

    tails: int


class TooManyTails(FrozenRecord):
    """So many tails must be a slip of the key."""

    tails: int


class CornerSize(Enum):
    """Which size of a corner is meant."""

    WIDTH = auto()
    TAIL_BOARD = auto()
    PIN_BOARD = auto()


class NoSize(FrozenRecord):
    """A board of a corner has no size."""

    side: CornerSize
    size: Length


class PinBelowNothing(FrozenRecord):
    """A pin is less than nothing wide."""


LayoutRefusal = NoTails | TooManyTails | NoSize | PinBelowNothing

# --- layouts that cannot be made, or only just -------------------------------------------------------


class NothingForTails(FrozenRecord):
    """The pins take all the width; `most` tails would go, 0 if not even one."""

    tails: int
    pin: Length
    width: Length
    most: int


class TailsRunToPoint(FrozenRecord):
    """Tails end before the baseline, their slope taking more than they have; `most` tails would go."""

    tail: Length
    slope: Slope
    taken: Length
    most: int


class PinsTooFine(FrozenRecord):
    """Pins are finer than saw, knife and chisel can make."""

    pin: Length
    finest: Length


class NoChiselBetween(FrozenRecord):
    """No chisel of the shop enters between two tails."""

    pin: Length


class NoChiselForSocket(FrozenRecord):
    """No chisel of the shop enters a socket."""

    socket: Length


class TailsBreakOff(FrozenRecord):
    """Tails are much narrower at the baseline than at the end."""

    tail: Length
    base: Length


class HalfPinWeak(FrozenRecord):
    """A half-pin is narrow for its board; what is usual."""

    half_pin: Length
    usual: Length


class SlopeCrumbles(FrozenRecord):
    """The corners of the tails are short grain."""

    slope: Slope


class SlopeSlips(FrozenRecord):
    """The tails hold little more than straight fingers."""

    slope: Slope


class BaselineInside(FrozenRecord):
    """The baseline lies inside flush; the widest setting of the gauge."""

    by: Length
    gauge: Length


#: About how many tails there are and how fine the pins between them: what the piece itself is to be told.
TailFact = NothingForTails | TailsRunToPoint | PinsTooFine | NoChiselBetween | NoChiselForSocket | TailsBreakOff
CornerFact = TailFact | HalfPinWeak | SlopeCrumbles | SlopeSlips | BaselineInside

# --- the groove for a bottom -------------------------------------------------------------------------


class GrooveInTail(FrozenRecord):
    """The groove runs inside a tail, counted from the lower edge, and does not show."""

    tail: int
    lapped: bool


class StopOnTailBoards(FrozenRecord):
    """The groove would show in the end of a tail; where to stop it."""

    stop: Length
    past_baseline: Length


class StopOnPinBoards(FrozenRecord):
    """The groove would show in the end of a pin; where to stop it."""

    stop: Length


class GrooveCutsSlope(FrozenRecord):
    """The groove cuts the slope between a tail and a pin."""


GrooveFact = GrooveInTail | StopOnTailBoards | StopOnPinBoards | GrooveCutsSlope
