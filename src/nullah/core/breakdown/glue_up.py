"""How staves go together: which face up, which edge to the seam, and the marks that keep them so."""

from __future__ import annotations

import math
from collections.abc import Sequence

from nullah.core.breakdown.layout import PlacedPart
from nullah.core.breakdown.rough import Staves
from nullah.core.named_tuple import NamedTuple
from nullah.core.rack.board import Board
from nullah.core.wood.movement import GrainCut


class Stave(NamedTuple):
    """One stave in its place in the panel, from the left.

    `heart_up` is whether the side of the heart lies up; `straighter_left` whether the edge with
    the straighter grain is on the left. None where the board's end was never looked at.
    """

    name: str
    board: str
    heart_up: bool | None
    straighter_left: bool | None


def arranged(staves: Staves, laid: Sequence[tuple[PlacedPart, Board]]) -> tuple[Stave, ...]:
    """Choose for each stave which face is up and which way round it lies.

    The straighter edge of each goes to a seam where it can, so that the seam hides; arcs
    alternate or lie all one way, as was chosen.
    """
    found = []
    for index, (item, board) in enumerate(laid):
        heart_up = (index % 2 == 1) if staves.alternate else False
        low, high = edge_angles(board, item.rect.y, item.rect.top) if board.heart is not None else (None, None)
        straighter_left: bool | None = None
        if low is not None and high is not None and abs(low - high) > 3:
            # The outer staves turn their straighter edge inwards; of an inner one either edge is at a seam.
            straighter_left = index > 0
        found.append(
            Stave(item.part.name, board.name, heart_up if board.cut is not GrainCut.QUARTER else None, straighter_left)
        )
    return tuple(found)


def edge_angles(board: Board, low: float, high: float) -> tuple[float, float]:
    """Return the angle in degrees between rings and face at two places across a board; 90 is straight on the face.

    Parameters
    ----------
    board : Board
        A board whose heart is known.
    low : float
        The one place, mm across from the lower edge.
    high : float
        The other.

    Examples
    --------
    >>> from nullah.core.lengths import mm
    >>> board = Board("1", "a", "", mm(1000), mm(200), mm(20), heart=(0.0, 10.0))
    >>> edge_angles(board, 0, 200)[1]
    90.0
    """
    if board.heart is None:
        return 0.0, 0.0
    across, up = board.heart
    middle = float(board.thickness) / 2

    def angle(y: float) -> float:
        return math.degrees(math.atan2(abs(y - across), abs(middle - up)))

    return angle(low), angle(high)
