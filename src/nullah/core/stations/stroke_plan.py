"""The stroke plan: every step of the milling in order, with its plane, strokes, test and time; one of them drawn."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import islice

import numpy as np

from nullah.core.card import Card
from nullah.core.drawing import Anchor, Drawing, Element, Fill, Label, Path, Point, Ring, Role, drawing, line, rectangle
from nullah.core.forecasts import Stock
from nullah.core.milling.decide import BoardFace
from nullah.core.milling.grain import GrainOf, grain_of
from nullah.core.milling.job import Job
from nullah.core.milling.planing import Work
from nullah.core.milling.steps import MillingStep, StepKind, steps_of
from nullah.core.milling.strokes import strokes_of_set
from nullah.core.plan import Plan
from nullah.core.reader import Reader
from nullah.core.refs import PieceRef, StepRef
from nullah.core.stations.selection import Selection
from nullah.core.stations.stock import selected_job, stock_name
from nullah.core.stations.surveying import draw_face
from nullah.core.wording import strokes as words

# More strokes than this are not drawn.
_MOST_DRAWN = 36


def selected_step(plan: Plan, selection: Selection) -> tuple[Stock, Job, tuple[MillingStep, ...], MillingStep] | None:
    """Return the stock in hand, its job, all steps and the one that is shown."""
    found = selected_job(plan, selection)
    if found is None:
        return None
    stock, job = found
    steps = steps_of(job, plan.project.shop)
    return stock, job, steps, steps[min(max(selection.milling.step, 0), len(steps) - 1)]


def draw_strokes(plan: Plan, selection: Selection) -> Drawing:
    """Draw the step in hand, and below it the list of all."""
    found = selected_step(plan, selection)
    if found is None:
        return Drawing()
    stock, job, steps, step = found
    long, wide = stock.rect.length, stock.rect.width
    if step.face is not None:
        top = drawing(_face(plan, stock, job, step))
    elif step.kind is StepKind.EDGE:
        top = drawing(_edge(job, long, wide, plan.reader))
    else:
        top = drawing(_outline(plan, stock, step))
    title = words.milling_step_words(step, job, plan.reader).title
    heading = Label((0, 0), f"{stock_name(plan, stock)} · {title}", 3.6, Anchor.START, bold=True, nudge_mm=(0, -6))
    return top + drawing(heading, _list(steps, step, job, (long, wide), plan.reader))


def _face(plan: Plan, stock: Stock, job: Job, step: MillingStep) -> Iterator[Element]:
    """Draw the face with its highs, where the first set of this stage goes, and which way."""
    face = step.face
    assert face is not None
    yield from draw_face(stock.board, face, plan.marks, lows=False)
    wide = stock.rect.width
    grain = grain_of(stock.board, face.face)
    yield from _turns(stock, face.face, grain, plan.reader)
    yield from _grain_arrow(grain, stock, plan.reader)
    if step.stage is None:
        return
    before = Work(np.minimum(face.work.heights, step.from_height), face.work.spacing_x, face.work.spacing_y)
    for way in step.stage.ways:
        strokes = list(strokes_of_set(before, step.stage, way))
        every = max(1, len(strokes) * len(step.stage.ways) // _MOST_DRAWN)
        for stroke in islice(strokes, 0, None, every):
            start, end = ((x, wide - y) for x, y in (stroke.start, stroke.end))
            yield from arrow(_held(start, stock), _held(end, stock), stock.rect.length / 110)


def _held(at: Point, stock: Stock) -> Point:
    """Keep the end of a stroke near the board it goes over."""
    beyond = stock.rect.length / 60
    return (min(max(at[0], -beyond), stock.rect.length + beyond), min(max(at[1], -beyond), stock.rect.width + beyond))


def arrow(start: Point, end: Point, head: float, role: Role = Role.STROKE) -> Iterator[Element]:
    """Draw an arrow from start to end, its head so long in mm."""
    way = np.subtract(end, start)
    long = float(np.hypot(*way))
    if long < 1e-6:
        return
    u = way / long * head
    across = np.array([-u[1], u[0]]) * 0.45
    tip = np.array(end)
    yield line(start, end, role)
    yield Path((_point(tip - u + across), end, _point(tip - u - across)), role)


def _point(at: np.ndarray) -> Point:
    return float(at[0]), float(at[1])


def _turns(stock: Stock, face: BoardFace, grain: GrainOf, reader: Reader) -> Iterator[Element]:
    """Draw where the grain turns."""
    rect = stock.rect
    for turn in grain.turns:
        x, end = max(turn.start - rect.x, 0.0), min(turn.end - rect.x, rect.length)
        low, high = max(turn.low - rect.y, 0.0), min(turn.high - rect.y, rect.width)
        if end <= x or high <= low:
            continue
        y = rect.width - high if face is BoardFace.UPPER else low
        yield rectangle(x, y, end - x, high - low, Role.FLAW, Fill.FLAW)
        tears = words.tears_words(turn.what, reader)
        yield Label((x + (end - x) / 2, y + high - low), tears, 2.8, role=Role.FLAW, nudge_mm=(0, 2.5))


def _grain_arrow(grain: GrainOf, stock: Stock, reader: Reader) -> Iterator[Element]:
    """Say which way to plane with the grain, above the board."""
    role = Role.FAINT if grain.to_right is None else Role.CHALK
    said = words.grain_words(grain.to_right, reader)
    yield Label((stock.rect.length, 0), said, 2.9, Anchor.END, role, nudge_mm=(0, -6))


def _edge(job: Job, long: float, wide: float, reader: Reader) -> Iterator[Element]:
    """Draw the stopped strokes along the edge, shortest first, and the partial passes across it."""
    straight, square = job.edge
    along, across = words.edge_words(len(square.partial), reader)
    bars = straight.stopped[-14:]
    room = wide * 0.62
    row = room / max(len(bars), 4)
    yield rectangle(0, 0, long, room, Role.OUTLINE, Fill.PAPER)
    for number, (start, end) in enumerate(bars):
        y = row * (number + 0.5)
        yield from arrow((start, y), (end, y), long / 90)
        if start == 0.0 and end < long:
            yield from arrow((long, y), (long - end, y), long / 90)
    yield Label((0, room), along, 2.9, Anchor.START, Role.FAINT, nudge_mm=(0, 3))
    thick = max(job.thickness, 1.0)
    scale = long / 4 / thick
    left, top = long * 0.02, room * 1.75
    high = wide * 0.3
    yield rectangle(left, top, thick * scale, high, Role.OUTLINE, Fill.END_GRAIN)
    for number, reach in enumerate(square.partial, start=1):
        x = left + reach * scale
        yield line((left, top - high * 0.06 * number), (x, top - high * 0.06 * number), Role.CHALK)
        yield line((x, top - high * 0.06 * number), (x, top + high * 0.2), Role.PENCIL)
    yield Label((left + thick * scale * 1.08, top), across, 2.9, Anchor.START, Role.FAINT, nudge_mm=(0, 4))


def _outline(plan: Plan, stock: Stock, step: MillingStep) -> Iterator[Element]:
    rect = stock.rect
    yield rectangle(0, 0, rect.length, rect.width, fill=Fill.WOOD, species=stock.board.species)
    write = plan.marks.write
    for part_id in stock.parts:
        part = plan.part(part_id)
        placed = next((i.rect for each in plan.boards for i in each.placed if part_id in i.part.parts), None)
        if part is None or placed is None:
            continue
        x, y = placed.x - rect.x, rect.width - (placed.top - rect.y)
        yield rectangle(x, y, placed.length, placed.width, Role.CHALK, ref=PieceRef(part_id))
        size = write(part.width) if step.kind is StepKind.WIDTH else write(part.cut_length)
        yield Label((x + placed.length / 2, y + placed.width / 2), f"{part.name} {size}", 3.0, ref=PieceRef(part_id))


def _list(
    steps: tuple[MillingStep, ...], chosen: MillingStep, job: Job, size: tuple[float, float], reader: Reader
) -> Iterator[Element]:
    """List all steps, that in hand in chalk."""
    long, wide = size
    row = max(long * 0.042, 1.0)
    y = wide * 1.0 + row * 2.2
    if chosen.kind is StepKind.EDGE:
        y = wide * 1.45 + row * 1.2
    yield Label((long * 0.87, y - row), reader.text("strokes"), 2.9, Anchor.END, Role.FAINT, running=True)
    for number, step in enumerate(steps):
        at, lit = y + number * row, step is chosen
        ref, said = StepRef(number), words.milling_step_words(step, job, reader)
        role = Role.CHALK if lit else Role.LABEL
        if lit:
            yield rectangle(-long * 0.02, at - row / 2, long * 1.04, row, Role.BARE, Fill.LIT, ref=ref)
        yield Ring((0, at), str(number + 1), 2.0, role, ref=ref, running=True)
        yield Label((long * 0.035, at), said.title, 3.1, Anchor.START, role, bold=lit, ref=ref, running=True)
        yield Label((long * 0.33, at), said.tool, 3.0, Anchor.START, role, ref=ref, running=True)
        strokes = str(step.strokes) if step.strokes else ""
        yield Label((long * 0.87, at), strokes, 3.0, Anchor.END, role, ref=ref, running=True)
        minutes = words.step_minutes(step, reader)
        yield Label((long, at), minutes, 3.0, Anchor.END, role, ref=ref, running=True)
    in_all = words.in_all_words(steps, reader)
    yield Label((long, y + len(steps) * row), in_all, 3.0, Anchor.END, Role.FAINT)


# --- the card -------------------------------------------------------------------------------------


def strokes_card(plan: Plan, selection: Selection) -> Card:
    """Return the step in hand in full, and what to mind at it."""
    found = selected_step(plan, selection)
    if found is None:
        return words.no_strokes_card(plan.reader)
    stock, job, _, step = found
    has_planes = bool(plan.project.shop.planes)
    return words.strokes_card(stock, stock_name(plan, stock), job, step, has_planes, plan.reader)
