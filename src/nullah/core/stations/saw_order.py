"""Saw order: one cut at a time, the board getting smaller."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.board_plans import BoardPlan, sawing_of
from nullah.core.breakdown.asks import Rect
from nullah.core.breakdown.cuts import CutKind, SawCut
from nullah.core.breakdown.rough import RoughPart
from nullah.core.breakdown.saw_order import CutSide, SawStep, saw_steps
from nullah.core.breakdown.sawing import worth_keeping
from nullah.core.card import Card
from nullah.core.drawing import Anchor, Drawing, Element, Fill, Label, Ring, Role, drawing, grain_lines, line, rectangle
from nullah.core.plan import Plan
from nullah.core.refs import PieceRef
from nullah.core.stations.rack import draw_flaws
from nullah.core.wording.operations import operation_settings, operation_words
from nullah.core.wording.saw_order import nothing_to_saw, saw_caution, saw_settings, saw_title, sawing_words
from nullah.core.wording.stock_work import board_surface_words
from nullah.core.work.sawing import saw_operations


def short_name(plan: Plan, piece: RoughPart) -> str:
    """Return the number of the part a piece is for, with which stave of it; of two parts both."""
    numbers = [str(part.number) for part_id in piece.parts if (part := plan.part(part_id)) is not None]
    return f"{'+'.join(numbers)}{f'/{piece.stave}' if piece.stave else ''}" or piece.name


def steps_of(plan: Plan, board_plan: BoardPlan) -> tuple[SawStep, ...]:
    """Return the cuts of a board one by one."""
    board = board_plan.board
    whole = Rect(0, 0, float(board.length), float(board.width))
    return saw_steps(board_plan.cuts, board_plan.placed, whole, float(plan.project.shop.kerf))


def draw_step(plan: Plan, board_plan: BoardPlan, number: int) -> Drawing:
    """Draw what there is at a cut: the piece in hand, the line, which side is waste; what lies aside faint."""
    steps = steps_of(plan, board_plan)
    return drawing(_step(plan, board_plan, steps[min(number, len(steps) - 1)], len(steps))) if steps else Drawing()


def _step(plan: Plan, board_plan: BoardPlan, step: SawStep, count: int) -> Iterator[Element]:
    board, cut = board_plan.board, step.cut
    width = float(board.width)
    # The frame stays the whole board, so that one sees it get smaller.
    yield rectangle(0, 0, float(board.length), width, Role.HIDDEN, Fill.NONE)
    for side in step.aside:
        yield from _side(plan, board_plan, side, faint=True)
    for side in step.hanging:
        # An offcut that hangs together is named once.
        yield from _side(plan, board_plan, side, faint=False, named=bool(side.parts))
    for side in (step.near, step.beyond):
        yield from _side(plan, board_plan, side, faint=False)
    piece = cut.piece
    yield rectangle(piece.x, width - piece.top, piece.length, piece.width, Role.OUTLINE)
    yield from draw_flaws(board, plan.marks.catalogue)
    yield from _line(cut, width)
    words = plan.reader.text("{board}, cut {number} of {count}", board=board.name, number=cut.order, count=count)
    yield Label((0, 0), words, 4.2, Anchor.START, Role.LABEL, bold=True, nudge_mm=(0, -8))


def _side(plan: Plan, board_plan: BoardPlan, side: CutSide, faint: bool, named: bool = True) -> Iterator[Element]:
    """Draw a piece: with the parts that are in it, or as what it is for."""
    piece, board = side.piece, board_plan.board
    if piece.length <= 0 or piece.width <= 0:
        return
    top = float(board.width) - piece.top
    keep = bool(side.parts) or worth_keeping(piece.length, piece.width)
    fill = Fill.WOOD if keep else Fill.WASTE
    yield rectangle(
        piece.x,
        top,
        piece.length,
        piece.width,
        Role.FAINT if faint else Role.BARE,
        Fill.PAPER if faint else fill,
        board.species,
    )
    if keep and not faint:
        yield from grain_lines(piece.x, top, piece.length, piece.width, board.name)
    for item in side.parts:
        rect = item.rect
        y = float(board.width) - rect.top
        yield rectangle(
            rect.x, y, rect.length, rect.width, Role.FAINT if faint else Role.CHALK, ref=PieceRef(item.part.id)
        )
        number = short_name(plan, item.part)
        words = f"{number}  {item.part.name}" if len(item.part.name) * 17 < rect.length else number
        role = Role.FAINT if faint else Role.LABEL
        yield Label((rect.x + rect.length / 2, y + rect.width / 2), words, 3.4, role=role, ref=PieceRef(item.part.id))
    if named and not side.parts and not faint and piece.length > 60:
        words = "offcut" if keep else "waste"
        yield Label((piece.x + piece.length / 2, top + piece.width / 2), words, 3.4, role=Role.FAINT)


def _line(cut: SawCut, width: float) -> Iterator[Element]:
    if cut.kind is CutKind.CROSS:
        low, high = width - cut.y - cut.length, width - cut.y
        yield rectangle(cut.x - 5, low, 10, high - low, Role.BARE, Fill.LIT)
        yield line((cut.x, low - 14), (cut.x, high + 14), Role.KNIFE)
        yield Ring((cut.x, high), str(cut.order), 3.2, nudge_mm=(0, 6))
        return
    y = width - cut.y
    yield rectangle(cut.x, y - 5, cut.length, 10, Role.BARE, Fill.LIT)
    yield line((cut.x - 14, y), (cut.x + cut.length + 14, y), Role.KNIFE)
    yield Ring((cut.x, y), str(cut.order), 3.2, nudge_mm=(-6, 0))


def step_card(plan: Plan, board_plan: BoardPlan, number: int) -> Card:
    """Return the card of one cut."""
    steps = steps_of(plan, board_plan)
    if not steps:
        title, remark = nothing_to_saw(plan.reader)
        return Card(title, mind=(remark,))
    number = min(number, len(steps) - 1)
    step, told = steps[number], saw_operations(plan, board_plan)[number]
    cut, board = step.cut, board_plan.board
    cross = cut.kind is CutKind.CROSS
    minutes = sawing_of(board).minutes(cross, cut.length)
    line, *_ = operation_settings([told], plan.reader)
    settings = (
        line._replace(note=board_surface_words(told, plan.reader)),
        *saw_settings(cut.length, minutes, cross, plan.reader),
    )
    marks = (operation_words([told], plan.reader), *sawing_words(step, plan.reader))
    title = saw_title(board.name, cut.order, len(steps), plan.reader)
    return Card(title, settings, marks, (saw_caution(plan.reader),))
