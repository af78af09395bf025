"""The outline of a crooked or tapered board, and the wood that is missing inside its rectangle."""

from __future__ import annotations

from bisect import bisect_right
from itertools import pairwise

from nullah.core.rack.board import Board, EdgePoint

#: The missing wood is told in steps of at most this length, mm: what a saw line could follow.
_STEP = 60.0


def edge_at(board: Board, x: float, high: bool) -> float:
    """Return where an edge of the board stands at a place along it, mm from the lower edge of its rectangle.

    Parameters
    ----------
    board : Board
    x : float
        Along it, mm.
    high : bool
        Whether the upper edge is meant.

    Returns
    -------
    float
        mm.

    Examples
    --------
    >>> from nullah.core.lengths import mm
    >>> tapered = Board("1", "a", "", mm(1000), mm(200), mm(25), high_edge=((mm(0), mm(200)), (mm(1000), mm(150))))
    >>> edge_at(tapered, 500, high=True), edge_at(tapered, 500, high=False)
    (175.0, 0.0)
    """
    points = board.high_edge if high else board.low_edge
    straight = float(board.width) if high else 0.0
    if not points:
        return straight
    xs, ys = _placed(points)
    if x <= xs[0]:
        return ys[0]
    if x >= xs[-1]:
        return ys[-1]
    after = bisect_right(xs, x)
    share = (x - xs[after - 1]) / (xs[after] - xs[after - 1])
    return ys[after - 1] + share * (ys[after] - ys[after - 1])


def outline(board: Board) -> tuple[tuple[float, float], ...]:
    """Return the corners of a board as (along, across), mm, round it from the lower left."""
    low = [(x, edge_at(board, x, False)) for x in _stations(board, board.low_edge)]
    high = [(x, edge_at(board, x, True)) for x in _stations(board, board.high_edge)]
    return (*low, *reversed(high))


def missing(board: Board) -> tuple[tuple[float, float, float, float], ...]:
    """Return the wood missing at crooked edges as rectangles (from, low, to, high), mm, a little too large.

    Each covers a step of the edge whole, so that what lies clear of all of them lies on wood.
    """
    found: list[tuple[float, float, float, float]] = []
    width = float(board.width)
    for high, points in ((False, board.low_edge), (True, board.high_edge)):
        if not points:
            continue
        for start, end in pairwise(_steps(_stations(board, points))):
            at = edge_at(board, start, high), edge_at(board, end, high)
            if high and min(at) < width:
                found.append((start, min(at), end, width))
            elif not high and max(at) > 0:
                found.append((start, 0.0, end, max(at)))
    return tuple(found)


def _placed(points: tuple[EdgePoint, ...]) -> tuple[list[float], list[float]]:
    return [float(x) for x, _ in points], [float(y) for _, y in points]


def _stations(board: Board, points: tuple[EdgePoint, ...]) -> list[float]:
    return sorted({0.0, float(board.length), *(float(x) for x, _ in points)})


def _steps(stations: list[float]) -> list[float]:
    steps = [stations[0]]
    for start, end in pairwise(stations):
        count = max(1, -(-(end - start) // _STEP))
        steps += [start + (end - start) * (index + 1) / count for index in range(int(count))]
    return steps
