"""What a user can do: each action takes a project and gives the next one.

Undo is the project before. Nothing here works anything out.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import replace
from typing import TypeVar

from nullah.core.breakdown.layout import FirstCut, Placement
from nullah.core.breakdown.rough import Resawn, Staves, WoodRequirement
from nullah.core.breakdown.wishes import SearchWeights
from nullah.core.forms.own_boards import OwnBoard, OwnJoint, next_own_id
from nullah.core.fraction import Fraction
from nullah.core.joints.dovetail.spacing import Matched
from nullah.core.ledger import Measured, Value
from nullah.core.lengths import Length, Marks, entered, mm
from nullah.core.limits import NAME_TEXT, read_count, shown
from nullah.core.milling.edge_facts import LowsTooDeep
from nullah.core.piece.joint import RowChoice
from nullah.core.project import Piece, Project
from nullah.core.rack.board import (
    Board,
    BoardError,
    BoardFault,
    Flaw,
    NoBoard,
    NoHumidity,
    NoTemperature,
    Reading,
    check_board,
    check_reading,
    fitted_flaw,
)
from nullah.core.rack.drying import Room
from nullah.core.rack.shape_readings import ShapeReading, shape_place
from nullah.core.wood.climate import Climate

_T = TypeVar("_T")
_Pairs = tuple[tuple[str, _T], ...]
#: No low that stays is deeper.
_DEEPEST_LOWS = mm(5)


def _with(pairs: _Pairs[_T], name: str, value: _T | None) -> _Pairs[_T]:
    """Return the pairs with `name` set, or without it where `value` is None."""
    if value is None:
        return tuple(pair for pair in pairs if pair[0] != name)
    if any(known == name for known, _ in pairs):
        return tuple((known, value if known == name else old) for known, old in pairs)
    return (*pairs, (name, value))


def rename(project: Project, name: str) -> Project:
    """Name the piece; what cannot be printed is shown as a sign, and what is past `NAME_TEXT` cut off."""
    return replace(project, piece=replace(project.piece, name=shown(name).strip()[:NAME_TEXT]))


def choose(project: Project, choice: str, option: str) -> Project:
    """Choose an option of the form."""
    return replace(project, piece=replace(project.piece, choices=_with(project.piece.choices, choice, option)))


def give(project: Project, name: str, value: Value | None) -> Project:
    """Return a quantity, overruling its rule if it has one; None takes it back."""
    return replace(project, piece=replace(project.piece, given=_with(project.piece.given, name, value)))


def measure(project: Project, name: str, value: Value | Measured | None) -> Project:
    """Enter what was measured at the bench, with day and tool if known; None takes it back."""
    reading = value if value is None or isinstance(value, Measured) else Measured(value)
    return replace(project, piece=replace(project.piece, measured=_with(project.piece.measured, name, reading)))


def take_form(project: Project, form: str) -> Project:
    """Take another form for the piece: sizes of the old one go; boards of one's own stay with theirs.

    The new one is set out to the marks shown.
    """
    own = {board.id for board in project.piece.own}
    joints = tuple(joint for joint in project.piece.own_joints if {joint.first, joint.second} <= own)
    theirs = (*(f"{board}." for board in own), *(f"{joint.id}_" for joint in joints))
    kept = tuple(pair for pair in project.piece.given if pair[0].startswith(theirs))
    piece = Piece(form, project.piece.name, (), kept, (), project.piece.woods, (), project.piece.own, joints)
    return replace(project, piece=piece, set_out=None, layout=(), asks=(), staves=(), resawn=())


def make_of(project: Project, role: str, species: str) -> Project:
    """Say what wood is used for what: role ``shown`` or ``inside``."""
    return replace(project, piece=replace(project.piece, woods=_with(project.piece.woods, role, species)))


def hold(project: Project, joint: str, how: str | None) -> Project:
    """Hold a joint another way (the value of a `Hold`); None takes it back."""
    return replace(project, piece=replace(project.piece, holds=_with(project.piece.holds, joint, how)))


def hold_all(project: Project, joints: Iterable[str], how: str | None) -> Project:
    """Hold some joints another way; None takes it back."""
    for joint in joints:
        project = hold(project, joint, how)
    return project


def fasten(project: Project, joints: Iterable[str], choice: RowChoice) -> Project:
    """Choose the nails or screws of some joints; what is all as usual is no choice."""
    rows = project.piece.rows
    for joint in joints:
        rows = _with(rows, joint, None if choice == RowChoice() else choice)
    return replace(project, piece=replace(project.piece, rows=rows))


def take_usual_size(project: Project, long: Length) -> Project:
    """Let nails and screws be as the wood wants them wherever ones of a length were chosen.

    Parameters
    ----------
    project : Project
    long : Length
        Of those that were chosen.
    """
    for joint, choice in project.piece.rows:
        if choice.long == long:
            project = fasten(project, (joint,), choice._replace(long=None, thick=None))
    return project


def live_in(project: Project, climate: Climate) -> Project:
    """Say what the air is like through the year where the piece will live."""
    return replace(project, climate=climate)


def finish_with(project: Project, finish: str) -> Project:
    """Say what goes on the wood in the end."""
    return replace(project, finish=finish)


def space_tails(project: Project, prefix: str, widths: tuple[Fraction, ...]) -> Project:
    """Make the tails of a corner as wide against each other as said, from its lower edge; empty: equal.

    Parameters
    ----------
    prefix : str
        Of the corner's figures.
    widths : tuple[Fraction, ...]
        Of the tails against each other, from the lower edge up; empty: equal.
    """
    spacings = _with(project.piece.spacings, prefix, widths or None)
    return replace(project, piece=replace(project.piece, spacings=spacings))


def match_tails(project: Project, prefix: str, row: Matched) -> Project:
    """Lay a corner out as one that exists: as many tails, half-pin, pin and widths as that row has."""
    project = give(project, f"{prefix}.count", row.number)
    project = give(project, f"{prefix}.half_pin", Length(row.half_pin))
    if row.number > 1:
        project = give(project, f"{prefix}.pin", Length(row.pin))
    return space_tails(project, prefix, row.widths)


def add_own(project: Project, board: OwnBoard) -> Project:
    """Add a board of one's own; it gets an id if it has none."""
    if not board.id:
        board = board._replace(id=next_own_id(project.piece.own))
    board = board._replace(name=shown(board.name))
    return replace(project, piece=replace(project.piece, own=(*project.piece.own, board)))


def change_own(project: Project, board: OwnBoard) -> Project:
    """Put a board of one's own in the place of the one with its id."""
    board = board._replace(name=shown(board.name))
    own = tuple(board if old.id == board.id else old for old in project.piece.own)
    return replace(project, piece=replace(project.piece, own=own))


def remove_own(project: Project, board_id: str) -> Project:
    """Take a board of one's own away, with its figures and its joints."""
    piece = project.piece
    return lift(
        replace(
            project,
            piece=replace(
                piece,
                own=tuple(board for board in piece.own if board.id != board_id),
                own_joints=tuple(j for j in piece.own_joints if board_id not in (j.first, j.second)),
                given=tuple(pair for pair in piece.given if not pair[0].startswith(f"{board_id}.")),
                measured=tuple(pair for pair in piece.measured if not pair[0].startswith(f"{board_id}.")),
            ),
        ),
        board_id,
    )


def join_own(project: Project, joint: OwnJoint) -> Project:
    """Join two parts, in the place of any joint they had."""
    pair = {joint.first, joint.second}
    kept = tuple(old for old in project.piece.own_joints if {old.first, old.second} != pair)
    return replace(project, piece=replace(project.piece, own_joints=(*kept, joint)))


def part_own(project: Project, joint_id: str) -> Project:
    """Take a joint of one's own apart again."""
    kept = tuple(old for old in project.piece.own_joints if old.id != joint_id)
    return replace(project, piece=replace(project.piece, own_joints=kept))


def give_all(project: Project, values: dict[str, Value]) -> Project:
    """Return several quantities at once, as one step."""
    for name, value in values.items():
        project = give(project, name, value)
    return project


def next_board_id(project: Project) -> str:
    """Return an id that no board of the project has."""
    numbers = [read_count(board.id) or 0 for board in project.boards]
    return str(max(numbers, default=0) + 1)


def add_board(project: Project, board: Board) -> Project:
    """Put a board on the rack; `BoardError` if it cannot be."""
    board = _printable(board)
    check_board(board)
    return replace(project, boards=(*project.boards, board))


def _printable(board: Board) -> Board:
    """Return a board with whatever of its words cannot be printed as signs."""
    words = (board.name, board.species, board.colour, board.source)
    if all(text.isprintable() for text in words):
        return board
    name, species, colour, source = map(shown, words)
    return replace(board, name=name, species=species, colour=colour, source=source)


def change_board(project: Project, board: Board) -> Project:
    """Put `board` in the place of the one with its id; flaws are cut to its outline."""
    board = _printable(board)
    check_board(board)
    kept = tuple(flaw for flaw in (_fitted_or_none(board, flaw) for flaw in board.flaws) if flaw is not None)
    board = replace(board, flaws=kept)
    return replace(project, boards=tuple(board if old.id == board.id else old for old in project.boards))


def _fitted_or_none(board: Board, flaw: Flaw) -> Flaw | None:
    on_board = flaw.start < board.length and flaw.low < board.width
    return fitted_flaw(board, flaw) if on_board else None


def remove_board(project: Project, board_id: str) -> Project:
    """Take a board off the rack, with whatever was laid on it."""
    return replace(
        project,
        boards=tuple(board for board in project.boards if board.id != board_id),
        layout=tuple(item for item in project.layout if item.board != board_id),
        cut_first=project.cut_first - {board_id},
        first_cuts=tuple(cut for cut in project.first_cuts if cut.board != board_id),
    )


def add_flaw(project: Project, board_id: str, flaw: Flaw) -> Project:
    """Mark a flaw on a board; `BoardError` if it lies outside."""
    board = _board(project, board_id)
    return change_board(project, replace(board, flaws=(*board.flaws, fitted_flaw(board, flaw))))


def change_flaw(project: Project, board_id: str, index: int, flaw: Flaw) -> Project:
    """Put `flaw` in the place of the board's flaw number `index` (from 0).

    Parameters
    ----------
    board_id : str
        Of the board.
    index : int
        Of the flaw, from 0.
    flaw : Flaw
        The new one.
    """
    board = _board(project, board_id)
    fitted = fitted_flaw(board, flaw)
    flaws = tuple(fitted if number == index else old for number, old in enumerate(board.flaws))
    return change_board(project, replace(board, flaws=flaws))


def remove_flaw(project: Project, board_id: str, index: int) -> Project:
    """Rub a flaw out.

    Parameters
    ----------
    board_id : str
        Of the board.
    index : int
        Of the flaw, from 0.
    """
    board = _board(project, board_id)
    flaws = tuple(flaw for number, flaw in enumerate(board.flaws) if number != index)
    return change_board(project, replace(board, flaws=flaws))


def _board(project: Project, board_id: str) -> Board:
    board = project.board(board_id)
    if board is None:
        raise KeyError(board_id)
    return board


def accept_layout(project: Project, placements: tuple[Placement, ...]) -> Project:
    """Take a layout as the plan for sawing."""
    return replace(project, layout=placements)


def add_boards(project: Project, boards: tuple[Board, ...]) -> Project:
    """Put several boards on the rack at once; `BoardError` if one of them cannot be."""
    for board in boards:
        project = add_board(project, replace(board, id=next_board_id(project)))
    return project


def read_moisture(project: Project, board_id: str, reading: Reading) -> Project:
    """Enter what the meter showed on a board; a second reading of one day takes the place of the first."""
    check_reading(reading)
    board = _board(project, board_id)
    kept = tuple(old for old in board.readings if old.day != reading.day)
    return change_board(project, replace(board, readings=tuple(sorted((*kept, reading)))))


def set_room(project: Project, room: Room) -> Project:
    """Say what the room is like in which the piece will live; `BoardError` for a reading that cannot be."""
    for reading in room.reference:
        check_reading(reading)
    if room.humidity is not None and not 0 <= room.humidity <= 100:
        raise BoardError(NoHumidity(room.humidity))
    if room.temperature is not None and not -60 <= room.temperature <= 100:
        raise BoardError(NoTemperature(room.temperature))
    return replace(project, room=replace(room, reference=tuple(sorted(room.reference))))


def ask_of_wood(project: Project, part_id: str, ask: WoodRequirement) -> Project:
    """Say what a part asks of its wood; an `WoodRequirement` that asks nothing takes it back."""
    return replace(project, asks=_with(project.asks, part_id, None if ask == WoodRequirement() else ask))


def make_whole(project: Project, part_id: str) -> Project:
    """Have a part in one piece again."""
    staves = {piece for made in project.staves if made.part == part_id for piece in made.pieces}
    lifted = staves | {pair.piece for pair in project.resawn if part_id in pair}
    return replace(
        project,
        staves=tuple(made for made in project.staves if made.part != part_id),
        resawn=tuple(pair for pair in project.resawn if part_id not in pair),
        layout=tuple(item for item in project.layout if item.part not in lifted),
        asks=tuple(pair for pair in project.asks if pair[0] not in staves),
    )


def make_of_staves(project: Project, staves: Staves) -> Project:
    """Glue a part up from staves."""
    project = lift(make_whole(project, staves.part), staves.part)
    return replace(project, staves=(*project.staves, staves))


def resaw(project: Project, pair: Resawn) -> Project:
    """Have two parts out of one thick blank."""
    for part_id in pair:
        project = lift(make_whole(project, part_id), part_id)
    return replace(project, resawn=(*project.resawn, pair))


def lift_all(project: Project) -> Project:
    """Take all parts off the boards but those that are pinned or sawn out."""
    sawn = {board.id for board in project.boards if board.sawn}
    return replace(project, layout=tuple(item for item in project.layout if item.pinned or item.board in sawn))


def pin(project: Project, piece_id: str, pinned: bool) -> Project:
    """Pin a laid part where it is, or let it go."""
    return _change_placement(project, piece_id, lambda item: replace(item, pinned=pinned))


def flip(project: Project, piece_id: str) -> Project:
    """Lay a part end for end."""
    return _change_placement(project, piece_id, lambda item: replace(item, flipped=not item.flipped))


def turn_over(project: Project, piece_id: str) -> Project:
    """Turn a part over: its face side is the other face of the board."""
    return _change_placement(project, piece_id, lambda item: replace(item, over=not item.over))


def swap(project: Project, one: str, two: str) -> Project:
    """Let two laid parts change places: each takes the other's corner."""
    at = {item.part: item for item in project.layout}
    if one not in at or two not in at:
        return project
    first, second = at[one], at[two]
    project = lay(project, replace(first, board=second.board, x=second.x, y=second.y))
    return lay(project, replace(second, board=first.board, x=first.x, y=first.y))


def _change_placement(project: Project, piece_id: str, change: Callable[[Placement], Placement]) -> Project:
    layout = tuple(change(item) if item.part == piece_id else item for item in project.layout)
    return replace(project, layout=layout)


def wish(project: Project, wishes: SearchWeights) -> Project:
    """Say what the search is to weigh."""
    return replace(project, wishes=wishes)


def expect_flaws(project: Project, share: Fraction) -> Project:
    """Say what share of bought wood flaws will take, to a whole per cent: it is a guess.

    Parameters
    ----------
    share : Fraction
        Of bought wood, 0 to 1.
    """
    return replace(project, flawed_share=Fraction(round(min(max(share, Fraction(0)), Fraction(9, 10)) * 100), 100))


def lay(project: Project, placement: Placement) -> Project:
    """Lay one part at a place, wherever it lay before."""
    others = tuple(item for item in project.layout if item.part != placement.part)
    return replace(project, layout=(*others, placement))


def lift(project: Project, part_id: str) -> Project:
    """Take one part off the boards."""
    return replace(project, layout=tuple(item for item in project.layout if item.part != part_id))


def cut_first(project: Project, board_id: str, first: bool) -> Project:
    """Plan to saw a board's rough parts out before flattening, or to flatten it whole."""
    chosen = project.cut_first | {board_id} if first else project.cut_first - {board_id}
    return replace(project, cut_first=chosen)


def cut_at(project: Project, board_id: str, cut: FirstCut | None) -> Project:
    """Plan to cut a board through once before it is flattened, or not to (None); `BoardError` off the board."""
    board = _board(project, board_id)
    if cut is not None and not 1 < cut.at < float(board.length if cut.crosswise else board.width) - 1:
        raise BoardError(NoBoard(BoardFault.CUT_OUTSIDE, board.name))
    others = tuple(each for each in project.first_cuts if each.board != board_id)
    return replace(project, first_cuts=others if cut is None else (*others, cut))


class LowsError(BoardError):
    """Lows that may not stay; `fact` is why."""

    fact: LowsTooDeep


def leave_lows(project: Project, deep: Length) -> Project:
    """Say how deep lows may stay on faces that are not seen; `LowsError` for less than nothing or past sense.

    Parameters
    ----------
    deep : Length
        How deep they may stay.
    """
    if not 0 <= deep.mm <= _DEEPEST_LOWS.mm:
        raise LowsError(LowsTooDeep(_DEEPEST_LOWS))
    return replace(project, lows_left=deep)


def take_shape(project: Project, board_id: str, reading: ShapeReading) -> Project:
    """Enter what was read of a board's shape; a second reading at one place takes the place of the first."""
    board = _board(project, board_id)
    place = shape_place(reading)
    kept = tuple(old for old in board.shape if shape_place(old) != place)
    return change_board(project, replace(board, shape=(*kept, reading)))


def take_shapes(project: Project, board_id: str, readings: Sequence[ShapeReading]) -> Project:
    """Enter several readings of a board's shape at once."""
    for reading in readings:
        project = take_shape(project, board_id, reading)
    return project


def drop_shape(project: Project, board_id: str, index: int) -> Project:
    """Rub a reading of a board's shape out.

    Parameters
    ----------
    board_id : str
        Of the board.
    index : int
        Of the reading, from 0.
    """
    board = _board(project, board_id)
    kept = tuple(old for number, old in enumerate(board.shape) if number != index)
    return change_board(project, replace(board, shape=kept))


def drop_shapes(project: Project, board_id: str) -> Project:
    """Rub all readings of a board's shape out."""
    return change_board(project, replace(_board(project, board_id), shape=()))


def show_in(project: Project, marks: Marks) -> Project:
    """Show figures in another unit or to another mark; no size of the piece changes."""
    if marks.smallest == project.marks.smallest:
        return replace(project, marks=marks)
    before = project.set_out or entered(project.marks.smallest, project.marks.unit)
    return replace(project, marks=marks, set_out=before)


def set_out_to(project: Project, mark: Length) -> Project:
    """Put the free sizes of a piece on the marks of another rule.

    Parameters
    ----------
    mark : Length
        The smallest mark of the rule.
    """
    return replace(project, set_out=mark)
