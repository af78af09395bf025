"""Why a part lies nowhere: the nearest that any board comes to it, and what would place it."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.breakdown.asks import TOLERANCE, grain_refusal, length_of, shows, spoilt
from nullah.core.breakdown.clear_wood import Area, area_of, areas_for, clear_areas
from nullah.core.breakdown.facts import (
    FitsOn,
    GrainNowhere,
    NoBoards,
    NoneClear,
    NoneLong,
    NoneThick,
    NoneWide,
    Nowhere,
    NoWood,
    RoomOn,
    StavesDo,
    TakenUp,
)
from nullah.core.breakdown.rough import RoughPart
from nullah.core.identity import kept_by_value
from nullah.core.lengths import Length
from nullah.core.rack.board import Board
from nullah.core.wood.species import same_wood

#: More staves than this are never proposed.
MOST_STAVES = 8
#: A stave narrower than this, mm, is not worth jointing (common practice).
NARROWEST_STAVE = 40.0


#: What lies on a board already: its id, and each part's rectangle with the kerf round it.
Taken = tuple[tuple[str, tuple[Area, ...]], ...]


def why_nowhere(part: RoughPart, boards: tuple[Board, ...], bare: frozenset[str], taken: Taken = ()) -> Nowhere:
    """Return why a part lies on no board: the nearest that any board comes to it, and what would place it.

    `bare` are the ids of the boards on which nothing lies, `taken` what lies on the others.
    """
    return _why_nowhere(part.nameless, boards, bare, taken)


@kept_by_value(512)
def _why_nowhere(part: RoughPart, boards: tuple[Board, ...], bare: frozenset[str], taken: Taken) -> Nowhere:
    if not boards:
        return NoBoards()
    boards = tuple(board for board in boards if same_wood(part.wood, board.species))
    if not boards:
        return NoWood(part.wood)
    thick = tuple(board for board in boards if board.thickness.mm >= part.thickness.mm)
    if not thick:
        return NoneThick(part.thickness, max(board.thickness for board in boards))
    right = tuple(board for board in thick if grain_refusal(part, board) is None)
    if not right:
        refused = grain_refusal(part, thick[0])
        assert refused is not None
        return GrainNowhere(refused)
    wide = tuple(board for board in right if float(board.width) >= float(part.across) - TOLERANCE)
    if not wide:
        return NoneWide(part.across, max(board.width for board in right), _staves(part, right))
    long_enough = tuple(board for board in wide if float(board.length) >= float(part.along) - TOLERANCE)
    if not long_enough:
        return NoneLong(part.along, max(board.length for board in wide))
    clear = tuple(board for board in long_enough if _widest_clear(board, part) >= float(part.across) - TOLERANCE)
    if not clear:
        best = max(long_enough, key=lambda board: _widest_clear(board, part))
        width = length_of(_widest_clear(best, part))
        return NoneClear(part.across, part.along, width, best.name, _staves(part, right))
    free = [board for board in clear if board.id in bare]
    if free:
        return FitsOn(_first_two(free))
    lying = dict(taken)
    room = [board for board in clear if board.id in lying and _has_room(board, part, lying[board.id])]
    return RoomOn(_first_two(room)) if room else TakenUp(_first_two(clear))


def staves_of(why: Nowhere) -> int:
    """Return the number of staves that would place a part, 0 where staves are no way out."""
    return why.staves.number if isinstance(why, NoneWide | NoneClear) and why.staves is not None else 0


def _first_two(boards: Sequence[Board]) -> tuple[str, ...]:
    return tuple(board.name for board in boards[:2])


def _has_room(board: Board, part: RoughPart, taken: tuple[Area, ...]) -> bool:
    """Return whether a part finds clear wood on a board beside what lies there."""
    if board.sawn:
        return False
    least = (float(part.along), float(part.across))
    for face in shows(part):
        flaws = [area_of(rect) for rect in spoilt(board, part, face)]
        if clear_areas(float(board.length), float(board.width), [*flaws, *taken], least):
            return True
    return False


def _staves(part: RoughPart, boards: Sequence[Board]) -> StavesDo | None:
    """Return how many staves out of which board would make the part, if any would."""
    found = staves_that_do(part, boards)
    if found is None or len(part.parts) > 1 or part.stave:
        return None
    count, board = found
    return StavesDo(count, length_of(float(part.across) / count + 3), board.name)


def staves_that_do(part: RoughPart, boards: Sequence[Board]) -> tuple[int, Board] | None:
    """Return the fewest equal staves that would make a part, and a board that has the clear width for one."""
    for count in range(2, MOST_STAVES + 1):
        wide = float(part.across) / count + 3
        if wide < NARROWEST_STAVE:
            return None
        having = [board for board in boards if _widest_clear(board, part) >= wide]
        if having:
            return count, max(having, key=lambda board: _widest_clear(board, part))
    return None


@kept_by_value(2048)
def _widest_clear(board: Board, part: RoughPart) -> float:
    """Return the width in mm of the widest clear strip as long as the part; 0 where there is none."""
    if float(board.length) < float(part.along) - TOLERANCE:
        return 0.0
    areas = [area for face in shows(part) for area in areas_for((part,), board, face, (float(part.along), 1.0))]
    return max((area[3] - area[1] for area in areas), default=0.0)


def widest_clear(board: Board, part: RoughPart) -> Length:
    """Return the widest clear strip of a board that is as long as the part, in whole mm."""
    return length_of(_widest_clear(board, part))
