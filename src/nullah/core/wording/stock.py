"""What wood on the bench is called: a board, a piece of one, a part that was sawn out first."""

from __future__ import annotations

from enum import Enum

from nullah.core.catalogue import N_
from nullah.core.reader import Reader


class Cutoff(Enum):
    """Which piece of a board it is; the value is how it is called."""

    LEFT = N_("{board}, its left length")
    RIGHT = N_("{board}, its right length")
    LOWER = N_("{board}, its lower width")
    UPPER = N_("{board}, its upper width")


def piece_words(board: str, which: Cutoff, reader: Reader) -> str:
    """Return what a piece of a board is called."""
    return reader.text(which.value, board=board)


def stock_words(board: str, part: str | None, reader: Reader) -> str:
    """Return what a part that was sawn out first is called; None for one that is not known any more."""
    if part is None:
        return reader.text("a rough part, out of {board}", board=board)
    return reader.text("{part}, out of {board}", part=part, board=board)
