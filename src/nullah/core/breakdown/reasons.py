"""Where a part finds clear wood on a board, and why it lies nowhere."""

from __future__ import annotations

from collections.abc import Collection, Sequence

from nullah.core.breakdown.layout import TOLERANCE, Rect, forbidden
from nullah.core.breakdown.rough import RoughPart
from nullah.core.lengths import Marks, from_float
from nullah.core.rack.board import Board
from nullah.core.wood.species import same_wood


def first_clear(region: Rect, along: float, across: float, flaws: list[Rect]) -> tuple[float, float] | None:
    """Give the place nearest the region's start that is clear of flaws.

    A part pushed as far back and down as it goes touches the region's border or a flaw's
    far side, so those are the only places to try.
    """
    near = [f for f in flaws if f.meets(region)]
    xs = sorted({region.x, *(f.end for f in near if region.x < f.end <= region.end - along + TOLERANCE)})
    ys = sorted(
        {region.y, region.top - across, *(f.top for f in near if region.y < f.top <= region.top - across + TOLERANCE)}
    )
    for x in xs:
        for y in ys:
            spot = Rect(x, y, along, across)
            if not any(spot.meets(flaw) for flaw in near):
                return x, y
    return None


def why_unplaced(part: RoughPart, boards: Sequence[Board], marks: Marks, bare: Collection[str] = ()) -> str:
    """Say why a part lies on no board: the nearest that any board comes to it.

    `bare` are the ids of the boards on which nothing lies.
    """
    if not boards:
        return "There is no board on the rack."
    boards = [board for board in boards if same_wood(part.wood, board.species)]
    if not boards:
        return f"There is no {part.wood} on the rack."
    thick = [board for board in boards if board.thickness.mm >= part.thickness.mm]
    if not thick:
        most = max(board.thickness for board in boards)
        return f"It needs {marks.write(part.thickness)} rough; the thickest board is {marks.write(most)}."
    wide = [board for board in thick if float(board.width) >= float(part.across) - TOLERANCE]
    if not wide:
        most = max(board.width for board in thick)
        return (
            f"It is {marks.write(part.across)} wide rough; the widest board thick enough is {marks.write(most)}, "
            f"{marks.write(part.across - most)} too narrow."
        )
    long_enough = [board for board in wide if float(board.length) >= float(part.along) - TOLERANCE]
    if not long_enough:
        most = max(board.length for board in wide)
        return (
            f"It is {marks.write(part.along)} long rough; the longest board wide and thick enough is "
            f"{marks.write(most)}."
        )
    clear = [
        board for board in long_enough
        if first_clear(Rect(0, 0, float(board.length), float(board.width)), float(part.along), float(part.across),
                        forbidden(board, part.needs))
    ]  # fmt: skip
    if not clear:
        best = max(long_enough, key=lambda board: _widest_clear(board, part))
        width = from_float(int(_widest_clear(best, part)))
        return (
            f"No board is clear for {marks.write(part.along)} × {marks.write(part.across)}: "
            f"the widest clear strip that long is about {marks.write(width)}, on {best.name}."
        )
    free = [board for board in clear if board.id in bare]
    if free:
        return f"It fits on {_either(free)}, where nothing lies yet."
    return f"It would fit on {_either(clear)}, but other parts lie there. One more board of that size would place it."


def _either(boards: Sequence[Board]) -> str:
    return " or ".join(board.name for board in boards[:2])


def _widest_clear(board: Board, part: RoughPart) -> float:
    """Give the width in mm of the widest clear strip as long as the part."""
    flaws = forbidden(board, part.needs)
    whole = Rect(0, 0, float(board.length), float(board.width))
    low, high = 0.0, whole.width
    while high - low > 0.5:
        middle = (low + high) / 2
        if first_clear(whole, float(part.along), middle, flaws):
            low = middle
        else:
            high = middle
    return low
