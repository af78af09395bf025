"""How wide the tails of a corner are beside each other: equal, graduated, or each by itself."""

from __future__ import annotations

from collections.abc import Sequence
from enum import Enum, auto

from nullah.core.catalogue import N_
from nullah.core.errors import FactError
from nullah.core.fraction import Fraction
from nullah.core.named_tuple import NamedTuple

Widths = tuple[Fraction, ...]

#: What may be chosen; ``by hand`` is whatever was dragged or matched.
EQUAL, BELOW, MIDDLE, BY_HAND = N_("equal"), N_("wider below"), N_("wider in the middle"), N_("each by itself")
SPACINGS = (EQUAL, BELOW, MIDDLE, BY_HAND)

#: The widest tail of a graduated row against its narrowest (a choice, no published source).
GRADE = Fraction(8, 5)


class SpacingFault(Enum):
    """Why marks are no row of tails."""

    ODD_MARKS = auto()
    MARKS_BACKWARDS = auto()
    NO_WIDTH = auto()


class SpacingError(FactError):
    """Marks that are no row of tails, in a sentence."""


class Matched(NamedTuple):
    """A row of tails taken over from a corner that exists, for a board of another width; mm."""

    number: int
    half_pin: Fraction
    pin: Fraction
    widths: Widths


def graded(spacing: str, number: int) -> Widths:
    """Return the relative widths of tails, from the lower edge up; empty where all are equal.

    Parameters
    ----------
    spacing : str
        One of `SPACINGS`.
    number : int
        Of tails.

    Examples
    --------
    >>> [str(width) for width in graded("wider in the middle", 3)]
    ['1', '8/5', '1']
    >>> graded("equal", 3)
    ()
    """
    if spacing == EQUAL or number < 2:
        return ()
    if spacing == BELOW:
        return tuple(GRADE - (GRADE - 1) * Fraction(place, number - 1) for place in range(number))
    if spacing == MIDDLE:
        reach = Fraction(number - 1, 2)
        far = reach % 1  # with an even number two tails share the middle
        span = reach - far or Fraction(1)
        return tuple(GRADE - (GRADE - 1) * (abs(place - reach) - far) / span for place in range(number))
    return (Fraction(1),) * number


def spacing_of(widths: Widths, number: int) -> str:
    """Name what relative widths are.

    Parameters
    ----------
    widths : Widths
        Against each other, from the lower edge up.
    number : int
        Of tails.
    """
    if len(widths) != number or number < 2:
        return EQUAL
    return next((name for name in (BELOW, MIDDLE) if graded(name, number) == widths), BY_HAND)


def matched(edges: Sequence[Fraction], there: Fraction, here: Fraction) -> Matched:
    """Take a row of tails over by count, in proportion, for a board of another width.

    Parameters
    ----------
    edges : sequence of Fraction
        Both edges of every tail at the end of the board that exists, mm from one edge of it, in order.
    there, here : Fraction
        Its width and that of the new one, mm.

    Raises
    ------
    SpacingError
        Where the marks are no row of tails on such a board.
    """
    if len(edges) < 2 or len(edges) % 2:
        raise SpacingError(SpacingFault.ODD_MARKS)
    if any(a >= b for a, b in zip([Fraction(0), *edges], [*edges, there], strict=True)):
        raise SpacingError(SpacingFault.MARKS_BACKWARDS)
    if here <= 0:
        raise SpacingError(SpacingFault.NO_WIDTH)
    number = len(edges) // 2
    lows, highs = edges[::2], edges[1::2]
    pins = [low - high for low, high in zip(lows[1:], highs, strict=False)]
    scale = here / there
    half = (edges[0] + there - edges[-1]) / 2 * scale
    pin = sum(pins, Fraction(0)) / len(pins) * scale if pins else Fraction(0)
    tails = tuple(high - low for low, high in zip(lows, highs, strict=True))
    even = all(tail == tails[0] for tail in tails)
    least = Fraction(min(tails))
    return Matched(number, half, pin, () if even else tuple(tail / least for tail in tails))


def pin_moved(tails: Sequence[Fraction], place: int, by: Fraction, least: Fraction) -> tuple[Widths, bool]:
    """Move the pin above tail `place` up by so much: the one tail grows, the other shrinks, none below `least`.

    Parameters
    ----------
    tails : Sequence[Fraction]
        How wide tails are against each other, from below.
    place : int
        Number of the tail below the pin, from 0.
    by : Fraction
        How far up the pin moves, in the same measure.
    least : Fraction
        Narrowest that a tail may become.

    Returns
    -------
    tuple[Widths, bool]
        The new widths, and whether it could move so far.

    Returns
    -------
    widths : tuple of Fraction
        The tails' widths after it, mm.
    held : bool
        Whether it would have gone further.
    """
    low, high = least - tails[place], tails[place + 1] - least
    if low > high:
        return tuple(tails), True
    within = min(max(by, low), high)
    moved = list(tails)
    moved[place] += within
    moved[place + 1] -= within
    return tuple(moved), within != by
