"""Little drawings of wood: how its rings run, of how many staves it is made, how it is resawn, how a part lies."""

from __future__ import annotations

import math
from collections.abc import Iterator

from nullah.core.drawing import Drawing, Element, Fill, Path, Role, drawing, grain_lines, line, rectangle
from nullah.core.lengths import mm
from nullah.core.rack.board import Board
from nullah.core.stations.rack import end_rings
from nullah.core.wood.movement import GrainCut

_WIDE, _THICK = 96, 30


def rings_picture(cut: GrainCut | None, species: str) -> Drawing:
    """Draw the end of a board of a cut; without rings where any cut will do."""
    return drawing(_end(0, 0, _WIDE, _THICK, cut, species))


def staves_picture(count: int, alternate: bool, species: str) -> Drawing:
    """Draw the end of a part that is glued up of so many staves, every second one turned over, or none."""
    wide = _WIDE / count
    return drawing(
        element
        for number in range(count)
        for element in _end(number * wide, 0, wide, _THICK, GrainCut.FLAT, species, alternate and number % 2 == 1)
    )


def resawn_picture(species: str) -> Drawing:
    """Draw the end of a board that two parts are sawn out of, with the saw between them."""
    whole = _end(0, 0, _WIDE, _THICK, GrainCut.FLAT, species)
    return drawing(whole, [line((-4, _THICK / 2), (_WIDE + 4, _THICK / 2), Role.CHALK)])


def laying_picture(flipped: bool, over: bool, species: str) -> Drawing:
    """Draw a part as it lies on its board: where its reference end is, and its face side's mark, dashed from below."""
    x = _WIDE if flipped else 0.0
    inward = -1.0 if flipped else 1.0
    middle, role = _THICK / 2, Role.HIDDEN if over else Role.KNIFE
    end = ((x, middle - 7), (x + 9 * inward, middle), (x, middle + 7))
    loop = tuple(
        (_WIDE / 2 + 9 * math.sin(2 * angle), middle + 8 * math.cos(angle))
        for angle in (math.pi * step / 24 - math.pi / 2 for step in range(5, 44))
    )
    return drawing(
        rectangle(0, 0, _WIDE, _THICK, fill=Fill.WOOD, species=species),
        grain_lines(0, 0, _WIDE, _THICK, "lies"),
        [Path(end, Role.CHALK, closed=True, fill=Fill.LIT), Path(loop, role)],
    )


def _end(
    x: float, y: float, wide: float, thick: float, cut: GrainCut | None, species: str, turned: bool = False
) -> Iterator[Element]:
    yield rectangle(x, y, wide, thick, fill=Fill.END_GRAIN, species=species)
    if cut is None:
        return
    board = Board("", "", species, mm(400), mm(str(round(wide, 3))), mm(str(thick)), cut=cut)
    for ring in end_rings(board):
        points = tuple((x + across, y + (up if turned else thick - up)) for across, up in ring)
        yield Path(points, Role.PENCIL)
