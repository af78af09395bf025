"""The largest clear rectangles of a board: where a part can lie at all.

A rectangle here is ``(from, low, to, high)`` in mm, as plain numbers, for the search asks
for them by the thousand.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from nullah.core.breakdown.asks import TOLERANCE, Rect, spoilt
from nullah.core.breakdown.rough import RoughPart
from nullah.core.rack.board import Board, Faces

Area = tuple[float, float, float, float]


def clear_areas(length: float, width: float, flaws: Iterable[Area], least: tuple[float, float]) -> tuple[Area, ...]:
    """Return every clear rectangle that cannot grow, from the left.

    Parameters
    ----------
    length, width : float
        Of the board.
    flaws : iterable of Area
        What may not be covered.
    least : (along, across)
        Smaller ones are of no use.

    Examples
    --------
    >>> clear_areas(100, 50, [(40, 0, 60, 20)], (10, 10))
    ((0.0, 0.0, 40, 50), (0.0, 20, 100, 50), (60, 0.0, 100, 50))
    """
    areas: list[Area] = [(0.0, 0.0, length, width)]
    for flaw in flaws:
        parted: set[Area] = set()
        for area in areas:
            if _apart(area, flaw):
                parted.add(area)
                continue
            for piece in (
                (area[0], area[1], flaw[0], area[3]),
                (flaw[2], area[1], area[2], area[3]),
                (area[0], area[1], area[2], flaw[1]),
                (area[0], flaw[3], area[2], area[3]),
            ):
                if piece[2] - piece[0] >= least[0] - TOLERANCE and piece[3] - piece[1] >= least[1] - TOLERANCE:
                    parted.add(piece)
        areas = largest(list(parted))
    fitting = (
        area
        for area in areas
        if area[2] - area[0] >= least[0] - TOLERANCE and area[3] - area[1] >= least[1] - TOLERANCE
    )
    return tuple(sorted(fitting))


def _apart(area: Area, flaw: Area) -> bool:
    return (
        flaw[0] >= area[2] - TOLERANCE
        or flaw[2] <= area[0] + TOLERANCE
        or flaw[1] >= area[3] - TOLERANCE
        or flaw[3] <= area[1] + TOLERANCE
    )


def largest(areas: Sequence[Area]) -> list[Area]:
    """Leave out rectangles that lie within another; of equal ones the first stays."""
    kept = []
    for index, one in enumerate(areas):
        x, y, far, high = one
        for number, (near, low, end, top) in enumerate(areas):
            if (
                near <= x
                and low <= y
                and end >= far
                and top >= high
                and number != index
                and (number < index or areas[number] != one)
            ):
                break
        else:
            kept.append(one)
    return kept


def areas_for(parts: Sequence[RoughPart], board: Board, face: Faces, least: tuple[float, float]) -> tuple[Area, ...]:
    """Return the clear rectangles of a board for parts that lie together, their face side that face of it.

    Parameters
    ----------
    parts : Sequence[RoughPart]
        Rough parts that lie together.
    board : Board
        The board, with its flaws.
    face : Faces
        Which face of the board their face side is.
    least : tuple[float, float]
        Least length and width that are of use, mm.

    Returns
    -------
    tuple[Area, ...]
        Largest clear rectangles, mm on the board as drawn.
    """
    flaws = sorted({area_of(rect) for part in parts for rect in spoilt(board, part, face)})
    return clear_areas(float(board.length), float(board.width), flaws, least)


def area_of(rect: Rect) -> Area:
    """Return a rectangle as plain numbers."""
    return rect.x, rect.y, rect.end, rect.top
