"""Little drawings of ends of wood: how its rings run, of how many staves it is made, how it is resawn."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.drawing import Drawing, Element, Fill, Path, Role, drawing, line, rectangle
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
