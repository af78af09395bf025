"""Laying a whole piece out: what the search is given, and what taking its answer means."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace

from nullah.core.actions import accept_layout, add_boards, change_board, cut_first, make_of_staves, make_whole
from nullah.core.breakdown.asks import can_supply
from nullah.core.breakdown.facts import FitsOn, RoomOn
from nullah.core.breakdown.layout import Placement
from nullah.core.breakdown.reasons import MOST_STAVES, NARROWEST_STAVE, widest_clear
from nullah.core.breakdown.rough import RoughPart, Staves, equal_staves, resawable
from nullah.core.breakdown.sawing import worth_keeping
from nullah.core.fraction import Fraction
from nullah.core.lengths import Length, mm
from nullah.core.plan import Plan, whole_pieces, work_out
from nullah.core.project import Project
from nullah.core.rack.board import Board
from nullah.core.rack.offcuts import SawnPiece, offcuts
from nullah.core.wood.movement import GrainCut

TYPE_CHECKING = False
if TYPE_CHECKING:  # the window stands before the search has loaded
    from nullah.core.breakdown.buying import Shortage
    from nullah.core.breakdown.search import LayoutTask

#: Places along a surveyed board at which a part's thickness is asked for, at most, and how far apart at least, mm.
_MOST_PLACES, _APART = 24, 20.0


def task_of(plan: Plan, more: tuple[Board, ...] = ()) -> LayoutTask:
    """Return what the search needs to lay a plan's parts out, with `more` boards than there are.

    Where parts are thick enough is not worked out here: `reached` does it beside the window.
    """
    from nullah.core.breakdown.search import LayoutTask

    project = plan.project
    known = {board.id: board for board in project.boards}
    pinned = tuple(item for item in project.layout if item.board in known and (item.pinned or known[item.board].sawn))
    boards = (*project.boards, *more)
    return LayoutTask(_of_most_wood(plan.rough, boards), boards, project.shop.kerf, project.wishes, pinned)


def shortage_of(plan: Plan) -> Shortage:
    """Return what a plan has no wood for: where the rack has enough of it for parts that fit, they only wait."""
    from nullah.core.breakdown.buying import Shortage

    fitting = [each.part for each in plan.unplaced if isinstance(each.why, FitsOn | RoomOn)]
    free = sum(
        each.board.length.mm * each.board.width.mm - _area(item.part for item in each.placed)
        for each in plan.boards
        if any(can_supply(part, each.board) for part in fitting)
    )
    wait = {part.id for part in fitting} if _area(fitting) <= free else set()
    parts = tuple(each.part for each in plan.unplaced if each.part.id not in wait)
    return Shortage(parts, plan.project.flawed_share, plan.project.shop.kerf)


def _area(parts: Iterable[RoughPart]) -> Fraction:
    return sum((part.along.mm * part.across.mm for part in parts), Fraction(0))


def _of_most_wood(pieces: tuple[RoughPart, ...], boards: tuple[Board, ...]) -> tuple[RoughPart, ...]:
    """Ask one wood of all staves of a part of which none was asked: that of which there is most for them."""
    woods: dict[str, str] = {}
    for piece in pieces:
        if not piece.stave or piece.wood or piece.parts[0] in woods:
            continue
        there: dict[str, Fraction] = {}
        for board in boards:
            if can_supply(piece, board):
                there[board.species] = there.get(board.species, Fraction(0)) + board.length.mm * board.width.mm
        woods[piece.parts[0]] = max(there, key=lambda species: there[species], default="")
    return tuple(
        piece._replace(wood=woods[piece.parts[0]]) if piece.stave and not piece.wood else piece for piece in pieces
    )


def reached(task: LayoutTask) -> LayoutTask:
    """Return the task with the places at which each part can be had at its thickness.

    A part that flattening a whole board leaves thick enough may lie anywhere on it. Else it is
    asked of the slab of its own patch: for the four figures that hangs only on its size, for
    a surveyed board also on where it lies.
    """
    found: dict[tuple[str, str], tuple[tuple[float, float], ...]] = {}
    known: dict[tuple[str, float, float, Length], tuple[tuple[float, float], ...] | None] = {}
    for part in task.parts:
        if part.finished is None:
            continue
        for board in task.boards:
            if not can_supply(part, board) or part.along > board.length or part.across > board.width:
                continue
            key = (board.id, float(part.along), float(part.across), part.finished)
            if key not in known:
                known[key] = _places(part, board)
            places = known[key]
            if places is not None:
                found[part.id, board.id] = places
    return replace(task, reaches=found)


def _places(part: RoughPart, board: Board) -> tuple[tuple[float, float], ...] | None:
    """Return intervals of x for a part's near end, mm; None for anywhere."""
    from nullah.core.milling.forecast import reach, reach_anywhere

    wanted = part.finished
    if wanted is None or (board.by_figures and not (board.cup.mm or board.bow.mm or board.twist.mm)):
        return None
    long, wide = float(board.length), float(board.width)
    if reach(board, 0.0, long, 0.0, wide) >= wanted:
        return None
    along, across = float(part.along), float(part.across)
    if board.by_figures:
        return None if reach_anywhere(board, along, across) >= wanted else ()
    room = long - along
    count = max(1, min(_MOST_PLACES, int(room / _APART)))
    xs = [room * index / count for index in range(count + 1)]
    ys = sorted({0.0, (wide - across) / 2, wide - across})
    good = [all(reach(board, x, x + along, y, y + across) >= wanted for y in ys) for x in xs]
    return tuple(_runs(xs, good))


def _runs(xs: list[float], good: list[bool]) -> Iterator[tuple[float, float]]:
    """Yield the stretches in which every place that was asked is good."""
    start = None
    for index, (x, fine) in enumerate(zip(xs, good, strict=True)):
        if fine and start is None:
            start = x
        if start is not None and (not fine or index == len(xs) - 1):
            yield start, x if fine else xs[index - 1]
            start = None


def take_layout(project: Project, placements: tuple[Placement, ...]) -> Project:
    """Accept a layout; boards that only then leave their parts thick enough are sawn before they are flattened."""
    project = accept_layout(project, placements)
    plan = work_out(project, proving=False)
    for board in project.boards:
        forecasts = [item for item in plan.milling or () if item.board == board.id]
        if any(item.whole < item.needs <= item.cut_first for item in forecasts):
            project = cut_first(project, board.id, True)
    return project


def saw_up(project: Project, board_id: str) -> Project:
    """Say that a board is sawn up: what lies on it stays, and what is worth keeping of the rest comes to the rack."""
    plan = work_out(project, milling=False, proving=False)
    board_plan = next((each for each in plan.boards if each.board.id == board_id), None)
    if board_plan is None or board_plan.board.sawn:
        return project
    kept = [
        SawnPiece(*left.rect, left.sawn_out)
        for left in board_plan.left
        if worth_keeping(left.rect.length, left.rect.width)
    ]
    project = change_board(project, replace(board_plan.board, sawn=True))
    from nullah.core.milling.faces import with_surface

    return add_boards(project, offcuts(with_surface(board_plan.board), kept, project.marks.catalogue))


def offer_staves(plan: Plan, part_id: str, count: int = 0) -> Staves | None:
    """Choose staves for a part by the boards there are: their number (unless given), widths and arrangement.

    The fewest that fit. Equal ones where some board is wide enough for each; else the widest
    clear strip gives the first, and the rest share what is left. Flat-sawn staves alternate,
    so that their cups cancel; straighter ones lie all one way, as their seams hide best.

    Parameters
    ----------
    plan : Plan
        Of the piece.
    part_id : str
        Of the part.
    count : int
        How many; 0: as few as do.
    """
    part = plan.part(part_id)
    rough = next((piece for piece in whole_pieces(plan.project, plan.assembly) if piece.id == part_id), None)
    if part is None or rough is None:
        return None
    project = plan.project
    boards = [board for board in project.boards if can_supply(rough, board)]
    clear = sorted((widest_clear(board, rough) for board in boards), reverse=True)
    alternate = not boards or sum(board.cut is GrainCut.FLAT for board in boards) * 2 >= len(boards)
    spare = project.allowances.joint.mm + project.allowances.edge.mm / 2
    counts = [count] if count else range(2, MOST_STAVES + 1)
    for number in counts:
        widths = equal_staves(part.width, number)
        fits = bool(clear) and widths[0].mm + spare <= clear[0].mm
        if fits or (count and not clear):
            return Staves(part_id, widths, alternate)
        if number == 2 and len(clear) > 1 and clear[0].mm + clear[1].mm >= part.width.mm + 2 * spare:
            first = mm(int(clear[0].mm - spare))
            if part.width.mm - first.mm >= NARROWEST_STAVE:
                return Staves(part_id, (first, part.width - first), alternate)
    return Staves(part_id, equal_staves(part.width, count), alternate) if count else None


def resaw_twins(plan: Plan, part_id: str) -> tuple[str, ...]:
    """Return the parts that could come out of one blank with this one."""
    whole = whole_pieces(plan.project, plan.assembly)
    one = next((piece for piece in whole if piece.id == part_id), None)
    return () if one is None else tuple(piece.id for piece in whole if resawable(one, piece))


def with_staves(project: Project, part_id: str, count: int) -> Project:
    """Make a part of staves as `offer_staves` chooses them; unchanged where that cannot be, whole for one.

    Parameters
    ----------
    part_id : str
        Of the part.
    count : int
        How many.
    """
    if count < 2:
        return make_whole(project, part_id)
    staves = offer_staves(work_out(project, milling=False, proving=False), part_id, count)
    return project if staves is None else make_of_staves(project, staves)
