"""Why a part lies nowhere: the nearest that any board comes to it, and what would place it."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from functools import lru_cache
from typing import NamedTuple

from nullah.core.breakdown.asks import TOLERANCE, grain_refusal, length_of, shows, spoilt
from nullah.core.breakdown.clear_wood import Area, area_of, areas_for, clear_areas
from nullah.core.breakdown.rough import RoughPart
from nullah.core.lengths import Length, Marks
from nullah.core.rack.board import Board
from nullah.core.wood.species import same_wood

#: More staves than this are never proposed.
MOST_STAVES = 8
#: A stave narrower than this, mm, is not worth jointing (common practice).
NARROWEST_STAVE = 40.0


class Reason(NamedTuple):
    """A sentence, and the number of staves that would do, 0 where staves are no way out."""

    why: str
    staves: int = 0


def why_unplaced(part: RoughPart, boards: Sequence[Board], marks: Marks, bare: Collection[str] = ()) -> str:
    """Say why a part lies on no board; see `reason`."""
    return reason(part, tuple(boards), marks, frozenset(bare)).why


#: What lies on a board already: its id, and each part's rectangle with the kerf round it.
Taken = tuple[tuple[str, tuple[Area, ...]], ...]


@lru_cache(maxsize=512)
def reason(part: RoughPart, boards: tuple[Board, ...], marks: Marks, bare: frozenset[str], taken: Taken = ()) -> Reason:
    """Say why a part lies on no board: the nearest that any board comes to it, and what would place it.

    `bare` are the ids of the boards on which nothing lies, `taken` what lies on the others.
    """
    if not boards:
        return Reason("There is no board on the rack.")
    boards = tuple(board for board in boards if same_wood(part.wood, board.species))
    if not boards:
        return Reason(f"There is no {part.wood} on the rack.")
    thick = tuple(board for board in boards if board.thickness.mm >= part.thickness.mm)
    if not thick:
        most = max(board.thickness for board in boards)
        return Reason(f"It needs {marks.write(part.thickness)} rough; the thickest board is {marks.write(most)}.")
    right = tuple(board for board in thick if not grain_refusal(part, board))
    if not right:
        return Reason(f"It {grain_refusal(part, thick[0])}, nor is any other board thick enough.")
    wide = tuple(board for board in right if float(board.width) >= float(part.across) - TOLERANCE)
    if not wide:
        most = max(board.width for board in right)
        why = (
            f"It is {marks.write(part.across)} wide rough; the widest board thick enough is {marks.write(most)}, "
            f"{marks.write(part.across - most)} too narrow."
        )
        return _with_staves(why, part, right, marks)
    long_enough = tuple(board for board in wide if float(board.length) >= float(part.along) - TOLERANCE)
    if not long_enough:
        most = max(board.length for board in wide)
        return Reason(
            f"It is {marks.write(part.along)} long rough; the longest board wide and thick enough is "
            f"{marks.write(most)}, {marks.write(part.along - most)} too short."
        )
    clear = tuple(board for board in long_enough if _widest_clear(board, part) >= float(part.across) - TOLERANCE)
    if not clear:
        best = max(long_enough, key=lambda board: _widest_clear(board, part))
        width = length_of(_widest_clear(best, part))
        why = (
            f"It is {marks.write(part.across - width)} wider than the widest clear strip "
            f"{marks.write(part.along)} long, which is {marks.write(width)}, on {best.name}."
        )
        return _with_staves(why, part, right, marks)
    free = [board for board in clear if board.id in bare]
    if free:
        return Reason(f"It fits on {_either(free)}, where nothing lies yet.")
    lying = dict(taken)
    room = [board for board in clear if board.id in lying and _has_room(board, part, lying[board.id])]
    if room:
        return Reason(f"There is room for it on {_either(room)} as things lie: drag it there, or lay the parts out.")
    return Reason(
        f"It would fit on {_either(clear)}, but other parts lie there. One more board of that size would place it."
    )


def _either(boards: Sequence[Board]) -> str:
    return " or ".join(board.name for board in boards[:2])


def _has_room(board: Board, part: RoughPart, taken: tuple[Area, ...]) -> bool:
    """Say whether a part finds clear wood on a board beside what lies there."""
    if board.sawn:
        return False
    least = (float(part.along), float(part.across))
    for face in shows(part):
        flaws = [area_of(rect) for rect in spoilt(board, part, face)]
        if clear_areas(float(board.length), float(board.width), [*flaws, *taken], least):
            return True
    return False


def _with_staves(why: str, part: RoughPart, boards: Sequence[Board], marks: Marks) -> Reason:
    """Add how many staves out of which board would make the part, if any would."""
    found = staves_that_do(part, boards)
    if found is None or len(part.parts) > 1 or "/" in part.id:
        return Reason(why)
    count, board = found
    words = {2: "Two", 3: "Three", 4: "Four", 5: "Five", 6: "Six", 7: "Seven", 8: "Eight"}
    wide = marks.write(length_of(float(part.across) / count + 3))
    return Reason(f"{why} {words[count]} staves of about {wide} out of {board.name} would do.", count)


def staves_that_do(part: RoughPart, boards: Sequence[Board]) -> tuple[int, Board] | None:
    """Give the fewest equal staves that would make a part, and a board that has the clear width for one."""
    for count in range(2, MOST_STAVES + 1):
        wide = float(part.across) / count + 3
        if wide < NARROWEST_STAVE:
            return None
        having = [board for board in boards if _widest_clear(board, part) >= wide]
        if having:
            return count, max(having, key=lambda board: _widest_clear(board, part))
    return None


@lru_cache(maxsize=2048)
def _widest_clear(board: Board, part: RoughPart) -> float:
    """Give the width in mm of the widest clear strip as long as the part; 0 where there is none."""
    if float(board.length) < float(part.along) - TOLERANCE:
        return 0.0
    areas = [area for face in shows(part) for area in areas_for((part,), board, face, (float(part.along), 1.0))]
    return max((area[3] - area[1] for area in areas), default=0.0)


def widest_clear(board: Board, part: RoughPart) -> Length:
    """Give the widest clear strip of a board that is as long as the part, in whole mm."""
    return length_of(_widest_clear(board, part))
