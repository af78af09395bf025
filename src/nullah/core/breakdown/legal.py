"""Where a part may be put down by hand: the nearest legal place, or why there is none near."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from nullah.core.breakdown.asks import Rect, spoilt
from nullah.core.breakdown.cuts import sawable
from nullah.core.breakdown.facts import Complaint, Inseparable, SawnUp
from nullah.core.breakdown.layout import PlacedPart, complaints
from nullah.core.breakdown.rough import RoughPart
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.rack.board import Board

#: So many of the nearest places are tried for whether a saw could still part everything.
_MOST_TRIED = 40


class LegalPlace(NamedTuple):
    """The nearest legal place of a part on a board, mm, and what is wrong with where it was held."""

    x: float
    y: float
    over: bool
    why: Complaint | None = None


def nearest_legal(
    part: RoughPart,
    board: Board,
    others: Sequence[PlacedPart],
    kerf: Length,
    at: tuple[float, float],
    reach: float,
    over: bool,
) -> tuple[LegalPlace | None, Complaint | None]:
    """Find the nearest place to `at` where a part may lie, not farther than `reach` mm.

    Parameters
    ----------
    part, board
    others : sequence of PlacedPart
        What lies on the board besides.
    kerf : Length
    at : (x, y)
        Where its lower left corner is held, mm.
    reach : float
        mm.
    over : bool
        Whether it lies face down.

    Returns
    -------
    spot : LegalPlace or None
    why : Complaint or None
        Why it cannot lie just where it is held; None if it can.
    """
    if board.sawn:
        return None, SawnUp(board.name)
    held = _complaint(part, board, others, kerf, at, over)
    if held is None:
        return LegalPlace(at[0], at[1], over), None
    for x, y in list(_places(part, board, others, float(kerf), at, reach))[:_MOST_TRIED]:
        if _complaint(part, board, others, kerf, (x, y), over) is None:
            return LegalPlace(x, y, over, held), held
    return None, held


def _complaint(
    part: RoughPart, board: Board, others: Sequence[PlacedPart], kerf: Length, at: tuple[float, float], over: bool
) -> Complaint | None:
    item = PlacedPart(part, board.id, Rect(at[0], at[1], float(part.along), float(part.across)), over=over)
    wrong = complaints(board, [*others, item], kerf)
    if part.id in wrong:
        return wrong[part.id]
    return None if sawable((*others, item), float(kerf)) else Inseparable()


def _places(
    part: RoughPart, board: Board, others: Sequence[PlacedPart], kerf: float, at: tuple[float, float], reach: float
) -> Iterator[tuple[float, float]]:
    """Yield places to try, the nearest first: against edges, neighbours and flaws, or straight beside them."""
    long, wide = float(part.along), float(part.across)
    far_x, far_y = float(board.length) - long, float(board.width) - wide
    xs, ys = {0.0, far_x, at[0]}, {0.0, far_y, at[1]}
    for item in others:
        xs |= {item.rect.end + kerf, item.rect.x - kerf - long, item.rect.x}
        ys |= {item.rect.top + kerf, item.rect.y - kerf - wide, item.rect.y}
    for rect in spoilt(board, part):
        xs |= {rect.end, rect.x - long}
        ys |= {rect.top, rect.y - wide}
    near = [
        ((x - at[0]) ** 2 + (y - at[1]) ** 2, x, y)
        for x in xs
        if -0.01 <= x <= far_x + 0.01 and abs(x - at[0]) <= reach
        for y in ys
        if -0.01 <= y <= far_y + 0.01 and abs(y - at[1]) <= reach
    ]
    for _, x, y in sorted(near):
        yield round(max(0.0, x), 3), round(max(0.0, y), 3)
