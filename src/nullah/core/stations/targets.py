"""What stands on a drawing as facts, so that it can be named."""

from __future__ import annotations

from datetime import datetime
from typing import assert_never

from nullah.core.lengths import Length
from nullah.core.plan import Plan
from nullah.core.refs import (
    BoardRef,
    BoardSizeRef,
    FlawRef,
    HeartRef,
    PartRef,
    PieceRef,
    QuantityRef,
    ReadingRef,
    Ref,
    StepRef,
    TaskRef,
    WantedReadingRef,
)
from nullah.core.stations.selection import Selection
from nullah.core.wording.targets import (
    BoardFigureTarget,
    FigureTarget,
    FlawTarget,
    HeartTarget,
    NamedTarget,
    ReadingTarget,
    SizedTarget,
    Target,
)
from nullah.core.wording.task_titles import task_title
from nullah.core.work.day_book import standing


def target_of(ref: Ref, plan: Plan, selection: Selection) -> Target | None:
    """Return what a reference points at; None where it is there no more, or only its own words tell it."""
    match ref:
        case PartRef(part_id):
            part = plan.part(part_id)
            return None if part is None else SizedTarget(part.name, (part.length, part.width, part.thickness))
        case PieceRef(piece):
            rough = plan.rough_part(piece)
            return None if rough is None else SizedTarget(rough.name, (rough.length, rough.width, rough.thickness))
        case QuantityRef(name):
            ledger = plan.ledger
            if ledger is None or name not in ledger.quantities:
                return None
            return FigureTarget(ledger.quantity(name))
        case BoardRef() | HeartRef() | BoardSizeRef() | FlawRef():
            return _of_board(ref, plan)
        case ReadingRef() | WantedReadingRef():
            return _reading(ref, plan, selection)
        case StepRef():
            return None
        case TaskRef():
            task = standing(plan, _now(selection)).order.task(ref.task)
            return None if task is None else NamedTarget(task_title(task, plan.reader))
        case _:
            assert_never(ref)


def _of_board(ref: BoardRef | HeartRef | BoardSizeRef | FlawRef, plan: Plan) -> Target | None:
    board = plan.project.board(ref.board)
    if board is None:
        return None
    match ref:
        case BoardRef():
            return SizedTarget(board.name, (board.length, board.width, board.thickness))
        case HeartRef():
            return HeartTarget(board.name)
        case BoardSizeRef(_, figure):
            value = getattr(board, figure)
            return BoardFigureTarget(board.name, figure, value) if isinstance(value, Length) else None
        case FlawRef(_, number):
            return FlawTarget(board, board.flaws[number]) if number < len(board.flaws) else None
        case _:
            assert_never(ref)


def _reading(ref: ReadingRef | WantedReadingRef, plan: Plan, selection: Selection) -> Target | None:
    # NumPy's: not before it is looked at.
    from nullah.core.milling.adjust import usual_readings
    from nullah.core.stations.stock import selected_board
    from nullah.core.wording.survey import reading_figure, reading_words

    board = selected_board(plan, selection)
    if board is None:
        return None
    there = board.shape if isinstance(ref, ReadingRef) else usual_readings(board)
    if ref.number >= len(there):
        return None
    reading = there[ref.number]
    read = reading_figure(reading, plan.reader) if isinstance(ref, ReadingRef) else ""
    return ReadingTarget(reading_words(reading, plan.reader), read)


def _now(selection: Selection) -> datetime:
    try:
        return datetime.fromisoformat(selection.daybook.now).replace(tzinfo=None)
    except ValueError:
        return datetime(2026, 1, 8, 18, 30)
