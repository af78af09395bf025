"""Sheets for the saw bench and for the yard: a board with its cuts in order, and what to buy."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.board_plans import BoardPlan
from nullah.core.breakdown.buying import BuyingLine, buying_list
from nullah.core.breakdown.facts import LiesWrongly
from nullah.core.card import Card, Remark, Severity
from nullah.core.drawing import Anchor, Element, Label, Role, drawing
from nullah.core.laying import shortage_of
from nullah.core.plan import Plan
from nullah.core.rack.sizes import board_feet, quarters_name
from nullah.core.sheets.page import MARGIN, PAGE, Sheet, SheetKind, card_on_pages, heading, paragraph
from nullah.core.stations.breakdown import draw_one_board, wood_to_buy
from nullah.core.wording.card import worded
from nullah.core.wording.operations import operation_words
from nullah.core.wording.sheets import SAW_SAFELY, TO_BUY, board_title, buying_foot, paged, without_wood_note
from nullah.core.work.sawing import saw_operations

_WIDE = PAGE[0] - 2 * MARGIN


def board_sheets(plan: Plan, board_plan: BoardPlan) -> Iterator[Sheet]:
    """Yield the pages of one board: its parts to scale, and the cuts in order."""
    board = board_plan.board
    title = board_title(board.name, plan.reader)
    found: list[Element] = heading(plan.project.piece.name, title, plan.reader.text(board.species))
    shown = draw_one_board(plan, board_plan)
    scale = min(_WIDE / float(board.length), 90 / float(board.width))
    picture = shown.moved(MARGIN, 36, scale)
    y = 36 + float(board.width) * scale + 14
    steps = [operation_words([cut], plan.reader) for cut in saw_operations(plan, board_plan)]
    remarks = [Remark(LiesWrongly(item.part.name, why), Severity.FAILURE) for item, why in board_plan.told_wrong()]
    remarks.append(Remark(plan.reader.text(SAW_SAFELY)))
    card = worded(Card("", mark=tuple(steps), mind=tuple(remarks)), plan.reader)
    pages = card_on_pages(card, MARGIN, y, _WIDE)
    for page, words in enumerate(pages, start=1):
        again = heading(
            plan.project.piece.name, title, paged(plan.reader.text(board.species), page, len(pages), plan.reader)
        )
        head = [*found, *picture.elements] if page == 1 else again
        yield Sheet(
            f"board-{board.id}" + (f"-page{page}" if page > 1 else ""), title, drawing(head, words), SheetKind.BOARD
        )


def buying_sheets(plan: Plan) -> Iterator[Sheet]:
    """Make the list to take to the yard, if the rack is not enough."""
    shortage = shortage_of(plan)
    if not shortage.parts:
        return
    title = plan.reader.text(TO_BUY)
    found = heading(plan.project.piece.name, title, without_wood_note(len(shortage.parts), plan.reader))
    y = 32.0
    for item in buying_list(shortage):
        words, y = _to_buy(plan, item, y)
        found += words
    foot = buying_foot(float(plan.project.flawed_share), plan.reader)
    words, _ = paragraph(foot, MARGIN, y + 4, _WIDE, 3.0, Role.FAINT)
    yield Sheet("to-buy", title, drawing(found, words))


def _to_buy(plan: Plan, item: BuyingLine, y: float) -> tuple[list[Element], float]:
    write = plan.marks.write
    name = quarters_name(item.thickness)
    thick = f"{write(item.thickness)}{f' ({name})' if name else ''}"
    size = f"{thick} × {write(item.width)} × {write(item.length)}"
    wood = wood_to_buy(plan, item.wood, item.asks)
    feet = float(board_feet(item.length, item.width, item.thickness)) * item.number
    found: list[Element] = [
        Label((MARGIN, y), f"{item.number} ×", 5.2, Anchor.START, bold=True, running=True),
        Label((MARGIN + 16, y), size, 5.2, Anchor.START, bold=True, running=True),
        Label(
            (MARGIN + 16, y + 7),
            plan.reader.text(
                "{wood}, {feet:.1f} board feet, {volume:.3f} m³", wood=wood, feet=feet, volume=float(item.volume) / 1e9
            ),
            3.4,
            Anchor.START,
            running=True,
        ),
    ]
    words, end = paragraph(
        plan.reader.text("for {parts}", parts=", ".join(item.parts)), MARGIN + 16, y + 11, _WIDE - 16, 2.8, Role.FAINT
    )
    return [*found, *words], end + 6
