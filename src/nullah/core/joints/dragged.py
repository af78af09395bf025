"""What a line of a joint comes to as it is dragged, and why it goes no further."""

from __future__ import annotations

from enum import Enum, auto

from nullah.core.fraction import Fraction
from nullah.core.lengths import Length, mm
from nullah.core.named_tuple import NamedTuple


class Held(Enum):
    """Why a line goes no further."""

    SHY = auto()
    PLANED_OFF = auto()
    EDGE_BREAKS = auto()
    TAILS_POINTED = auto()
    TAIL_BESIDE_POINTED = auto()
    TOO_FINE = auto()
    HOLDS_NOTHING = auto()
    BREAKS_UNDER = auto()
    NOTHING_LEFT = auto()
    NOTHING_ENTERS = auto()
    RATTLES = auto()


class KeptOut(NamedTuple):
    """A line goes no further because a part would not enter any more."""

    part: str


class Dragged(NamedTuple):
    """What a drag comes to: the figure and its value, and why it goes no further; None where it does.

    Where tails are not equal a pin between two of them goes alone: `widths` are then all tails' widths, mm.
    """

    figure: str
    value: Length
    held: Held | KeptOut | None = None
    widths: tuple[Fraction, ...] = ()


def held_within(
    figure: str, value: float, least: float, most: float, below: Held | KeptOut | None, above: Held
) -> Dragged:
    """Return a figure held between two limits, to 0.1 mm.

    Parameters
    ----------
    figure : str
        What is dragged.
    value, least, most : float
        To where, and how far it may go, mm; the larger of the limits counts where they cross.
    below, above : Held, KeptOut or None
        Why it goes no further there.
    """
    most = max(most, least)
    exact = mm(Fraction(round(min(max(value, least), most) * 10), 10))
    return Dragged(figure, exact, below if value < least - 0.05 else above if value > most + 0.05 else None)
