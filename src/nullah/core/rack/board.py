"""Boards as they stand on the rack: rough size, four figures of shape, and flaws."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from enum import Enum
from fractions import Fraction

from nullah.core.lengths import Length, mm
from nullah.core.wood.movement import Cut


class FlawKind(Enum):
    """What can be wrong with a place on a board."""

    CHECK = "check"
    SPLIT = "split"
    KNOT = "knot"
    SAP = "sap"
    WANE = "wane"
    RUNOUT = "runout"


#: Flaws that a part which is seen nowhere may have; the others weaken or are missing wood.
TOLERABLE = frozenset({FlawKind.KNOT, FlawKind.SAP})


class BoardError(ValueError):
    """A board or flaw that cannot be; the message says which and why."""


@dataclass(frozen=True, slots=True)
class Flaw:
    """A rectangle of a board that is not clear wood.

    `start`-`end` along the length, `low`-`high` across the width, from the board's lower
    left corner as it is drawn.
    """

    kind: FlawKind
    start: Length
    end: Length
    low: Length
    high: Length


@dataclass(frozen=True, slots=True)
class Board:
    """A rough board.

    Parameters
    ----------
    id, name : str
        `id` is what the rest of the project calls it by; `name` is the user's.
    length, width, thickness : Length
        Rough, as it stands.
    cup, bow, twist : Length
        Cup: how far the middle of the width stands above the edges. Bow: how far the middle
        of the length stands above the ends. Twist: how far one corner stands up when the
        other three lie flat. May be negative.
    flaws : tuple of Flaw
    price : Fraction
        What the whole board cost, in whatever money it was paid; 0 where that is not known.
    """

    id: str
    name: str
    species: str
    length: Length
    width: Length
    thickness: Length
    cup: Length = mm(0)
    bow: Length = mm(0)
    twist: Length = mm(0)
    cut: Cut = Cut.FLAT
    flaws: tuple[Flaw, ...] = ()
    price: Fraction = Fraction(0)


def read_price(text: str) -> Fraction:
    """Read a price: a plain number with up to two places after the point or comma, or nothing.

    Raises
    ------
    BoardError
        With a sentence.

    Examples
    --------
    >>> read_price(" 42,50 "), read_price("")
    (Fraction(85, 2), Fraction(0, 1))
    """
    text = text.strip().replace(",", ".")
    if not text:
        return Fraction(0)
    if not re.fullmatch(r"\d{1,7}(\.\d{1,2})?", text):
        raise BoardError(f"“{text}” is not a price. Write a number, such as 42.50.")
    return Fraction(text)


def write_price(price: Fraction) -> str:
    """Write a price to two places; nothing for a price of nothing."""
    return f"{float(price):.2f}" if price else ""


def check_board(board: Board) -> None:
    """Raise `BoardError` for a board that cannot be: no size, or a shape past its thickness."""
    for word, size in (("long", board.length), ("wide", board.width), ("thick", board.thickness)):
        if size.mm <= 0:
            raise BoardError(f"{board.name}: a board cannot be {size.as_text()} {word}.")
    for word, size in (("cup", board.cup), ("bow", board.bow), ("twist", board.twist)):
        if abs(size.mm) > min(board.length.mm, board.width.mm):
            raise BoardError(f"{board.name}: a {word} of {size.as_text()} is more than the board is wide.")


def fitted_flaw(board: Board, flaw: Flaw) -> Flaw:
    """Give the flaw put right way round and cut to the board's outline.

    Raises
    ------
    BoardError
        If nothing of it lies on the board.
    """
    start, end = sorted((flaw.start, flaw.end), key=lambda length: length.mm)
    low, high = sorted((flaw.low, flaw.high), key=lambda length: length.mm)
    zero = mm(0)
    cut = replace(
        flaw,
        start=max(start, zero), end=min(end, board.length), low=max(low, zero), high=min(high, board.width),
    )  # fmt: skip
    if cut.start >= cut.end or cut.low >= cut.high:
        raise BoardError(f"The {flaw.kind.value} lies outside {board.name}.")
    return cut
