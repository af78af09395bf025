"""The day's sheet, the whole Day Book, and the shop list, on paper."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import datetime

from nullah.core.bench.book import BookEntry, Event
from nullah.core.bench.tasks import Task
from nullah.core.bench.trades import Trade
from nullah.core.drawing import Element, Role, drawing, line
from nullah.core.plan import Plan
from nullah.core.reader import Reader
from nullah.core.sheets.page import MARGIN, PAGE, Sheet, SheetKind, heading, paragraph
from nullah.core.stations.daybook import time_of
from nullah.core.stations.next_step import task_card
from nullah.core.stations.selection import Selection
from nullah.core.wording.card import worded
from nullah.core.wording.dates import clock, day_of
from nullah.core.wording.durations import time_words
from nullah.core.wording.sheets import SHOP_LIST, paged, shop_list_note
from nullah.core.wording.shop_list import shop_list_words
from nullah.core.wording.task_titles import task_title
from nullah.core.work.day_book import WorkState, standing
from nullah.core.work.shop_list import shop_list

_WIDE = PAGE[0] - 2 * MARGIN
_HIGHEST, _LOWEST = 26.0, PAGE[1] - 16
#: A block that no page holds is begun on a page with at least so much room, mm.
_TORN = 60.0
# All cuts of a board are told, of other work the first steps.
_MOST_CUTS = 24


def day_sheets(plan: Plan, now: datetime | None = None) -> Iterator[Sheet]:
    """Make the sheet of the next day at the bench: what is to be done, with its settings, a box to tick each."""
    stand = standing(plan, now or time_of(plan, Selection()))
    calendar = stand.calendar
    if calendar is None or not calendar.stints:
        return
    first = calendar.stints[0].begin
    stints = [each for each in calendar.stints if each.begin.date() == first.date()]
    tasks: dict[str, tuple[datetime, Task]] = {}
    for stint in stints:
        tasks.setdefault(stint.task.id, (stint.begin, stint.task))
    blocks = [list(_task_lines(plan, stand, begin, task)) for begin, task in tasks.values()]
    title = day_of(first, plan.reader)
    note = plan.reader.text("{begin} to {end}", begin=clock(first), end=clock(stints[-1].end))
    yield from _paged(plan, "day", title, note, blocks)


_Line = tuple[str, float, Role, bool]


def _task_lines(plan: Plan, stand: WorkState, begin: datetime, task: Task) -> Iterator[_Line]:
    card = worded(task_card(plan, stand, task), plan.reader)
    about = time_words(stand.minutes.get(task.id, 0.0), plan.reader)
    yield (
        plan.reader.text(
            "☐ {time}  {task}, about {minutes}", time=clock(begin), task=task_title(task, plan.reader), minutes=about
        ),
        3.6,
        Role.LABEL,
        True,
    )
    if card.set:
        yield "    " + " · ".join(f"{each.tool} {each.figure}" for each in card.set[:6]), 3.2, Role.LABEL, False
    for text in card.mark[: _MOST_CUTS if task.trade is Trade.SAW else 4]:
        yield f"    {text}", 2.9, Role.LABEL, False
    for remark in card.mind[:2]:
        yield f"    – {remark.text}", 2.7, Role.FAINT, False


def book_sheets(plan: Plan) -> Iterator[Sheet]:
    """Make the pages of the whole book, in the order in which it was written; none while it is empty."""
    book = plan.project.book
    if not book:
        return
    blocks = [list(_entry_lines(entry, plan.reader)) for entry in book]
    yield from _paged(
        plan, "book", plan.reader.text("Day Book"), plan.reader.count(len(book), "{n} line", "{n} lines"), blocks
    )


def _entry_lines(entry: BookEntry, reader: Reader) -> Iterator[_Line]:
    when = entry.when
    words = f"{day_of(when, reader)}, {clock(when)}  {reader.text(entry.event.value)}: {entry.title}"
    if entry.event is Event.DONE and entry.minutes:
        words += f", {time_words(entry.minutes, reader)}"
    yield words, 3.0, Role.LABEL, entry.event in (Event.REMADE, Event.MEASURED)
    if entry.text:
        yield f"    {entry.text}", 2.9, Role.LABEL, False
    if entry.file:
        yield f"    {entry.file}", 2.6, Role.FAINT, False


def shop_sheets(plan: Plan) -> Iterator[Sheet]:
    """Make the shop list: what to have at hand, and what is used up."""
    blocks: list[list[_Line]] = []
    for title, needs in shop_list_words(shop_list(plan), plan.reader):
        blocks.append([(title, 4.0, Role.LABEL, True)])
        for need in needs:
            words = f"☐ {need.what}" + (f"  {need.much}" if need.much else "") + (f"  ({need.why})" if need.why else "")
            blocks.append([(words, 3.2, Role.LABEL, False)])
    if blocks:
        yield from _paged(plan, "shop-list", plan.reader.text(SHOP_LIST), shop_list_note(plan.reader), blocks)


def _paged(plan: Plan, name: str, title: str, note: str, blocks: Sequence[list[_Line]]) -> Iterator[Sheet]:
    """Set blocks of lines on as many pages as they take; a block is torn apart only where no page holds it."""
    pages: list[list[Element]] = [[]]
    y = _HIGHEST
    for block in blocks:
        high = _height_of(block)
        if pages[-1] and y + high > _LOWEST and (high < _LOWEST - _HIGHEST or y > _LOWEST - _TORN):
            pages.append([])
            y = _HIGHEST
        for text, size, role, bold in block:
            words, low = paragraph(text, MARGIN, y, _WIDE, size, role, bold)
            if low > _LOWEST and pages[-1]:
                pages.append([])
                words, low = paragraph(text, MARGIN, _HIGHEST, _WIDE, size, role, bold)
            pages[-1] += words
            y = low + 0.6
        y += 1.6
        pages[-1].append(line((MARGIN, y - 0.8), (PAGE[0] - MARGIN, y - 0.8), Role.FAINT))
    for number, page in enumerate(pages, start=1):
        told = paged(note, number, len(pages), plan.reader)
        suffix = "" if len(pages) == 1 else f"-page{number}"
        yield Sheet(
            f"{name}{suffix}", title, drawing(heading(plan.project.piece.name, title, told), page), SheetKind.BOOK
        )


def _height_of(block: list[_Line]) -> float:
    """Return how high a block of lines is, mm."""
    return sum(paragraph(text, 0, 0, _WIDE, size, role, bold)[1] + 0.6 for text, size, role, bold in block)
