"""Sheets for the planing bench: a piece of stock with its highs pencilled, and every step with its test."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.drawing import Anchor, Drawing, Element, Label, Role, drawing
from nullah.core.forecasts import Stock
from nullah.core.milling.decide import BoardFace
from nullah.core.milling.grain import grain_of
from nullah.core.milling.job import FaceWork, Job, job_of
from nullah.core.milling.steps import MillingStep, steps_of
from nullah.core.plan import Plan
from nullah.core.reader import Reader
from nullah.core.sheets.page import MARGIN, PAGE, Sheet, SheetKind, heading, paragraph
from nullah.core.stations.stock import stock_name, stocks_of
from nullah.core.stations.surveying import draw_face
from nullah.core.wording.milling import face_side_words
from nullah.core.wording.sheets import FACES, face_lies_words, milled_parts_note, milling_title
from nullah.core.wording.strokes import in_all_words, milling_step_words, sheet_foot, step_minutes, strokes_words

_WIDE = PAGE[0] - 2 * MARGIN
_MOST_HIGH = 34.0


def milling_sheets(plan: Plan) -> Iterator[Sheet]:
    """Make a sheet for every piece of stock that has parts on it."""
    for each in plan.boards:
        if not each.placed:
            continue
        for number, stock in enumerate(stocks_of(plan, each.board), start=1):
            if stock.parts:
                yield _sheet(plan, stock, f"milling-{each.board.id}-{number}")


def _sheet(plan: Plan, stock: Stock, name: str) -> Sheet:
    job = job_of(stock.board, stock.rect, plan.project.shop, stock.needs, stock.lows)
    title = milling_title(stock_name(plan, stock), plan.reader)
    parts = [part.name for part_id in stock.parts if (part := plan.part(part_id)) is not None]
    found: list[Element] = heading(plan.project.piece.name, title[:58], plan.reader.text(stock.board.species))
    words, y = paragraph(milled_parts_note(parts, plan.reader), MARGIN, 23, _WIDE, 3.0, Role.FAINT)
    found += words
    for face, title_of in zip(job.faces, FACES, strict=True):
        picture, y = _face(plan, stock, job, face, title_of, y + 4)
        found += picture.elements
    y += 3
    steps = steps_of(job, plan.project.shop)
    for number, step in enumerate(steps, start=1):
        words, y = _step(number, step, job, plan.reader, y)
        found += words
    in_all = in_all_words(steps, plan.reader)
    found.append(Label((PAGE[0] - MARGIN, y + 3), in_all, 3.0, Anchor.END, Role.FAINT))
    words, y = paragraph(sheet_foot(plan.reader), MARGIN, y + 6, _WIDE, 3.0)
    return Sheet(name, title, drawing(found, words), SheetKind.MILLING)


def _face(plan: Plan, stock: Stock, job: Job, face: FaceWork, title: str, y: float) -> tuple[Drawing, float]:
    long, wide = stock.rect.length, stock.rect.width
    scale = min(_WIDE / long, _MOST_HIGH / wide)
    why = face_side_words(job.first, plan.reader) if face is job.faces[0] else ""
    grain = grain_of(stock.board, face.face).to_right
    lies = face_lies_words(title, face.face is BoardFace.UPPER, grain, why, plan.reader)
    words, below = paragraph(lies, MARGIN, y, _WIDE, 3.0)
    # A patch of a face lies on paper from its own corner; heights of lines are in mm of wood.
    shown = drawing(draw_face(stock.board, face, plan.marks)).moved(MARGIN, below + 2, scale)
    elements = tuple(each._replace(size_mm=2.4) if isinstance(each, Label) else each for each in shown.elements)
    return Drawing((*words, *elements)), below + 2 + wide * scale


def _step(number: int, step: MillingStep, job: Job, reader: Reader, y: float) -> tuple[list[Element], float]:
    told = milling_step_words(step, job, reader)
    found: list[Element] = [
        Label((MARGIN, y + 2.2), f"{number}", 3.0, Anchor.START, Role.FAINT, running=True),
        Label((MARGIN + 6, y + 2.2), told.title, 3.2, Anchor.START, bold=True, running=True),
        Label((MARGIN + 58, y + 2.2), told.tool, 3.0, Anchor.START, running=True),
        Label((PAGE[0] - MARGIN - 16, y + 2.2), strokes_words(step, reader), 3.0, Anchor.END),
        Label((PAGE[0] - MARGIN, y + 2.2), step_minutes(step, reader), 3.0, Anchor.END),
    ]
    # What was said above of plane and strokes is not said again: the last sentence is the test.
    said = told.steps[-1] if step.stage is not None else " ".join(told.steps)
    words, y = paragraph(said, MARGIN + 6, y + 4.4, _WIDE - 6, 2.6, Role.FAINT)
    return found + words, y + 1.6
