"""Tapers and shaped edges drawn: guide lines, order and starts, for the task in hand."""

from __future__ import annotations

import math
from collections.abc import Iterator

from nullah.core.card import Card, Remark, Severity
from nullah.core.drawing import (
    Anchor,
    Dimension,
    Drawing,
    Element,
    Fill,
    Label,
    Path,
    Point,
    Ring,
    Role,
    drawing,
    line,
    rectangle,
)
from nullah.core.lengths import from_float
from nullah.core.milling.edge_facts import EdgeError, GuideLine
from nullah.core.milling.edge_tasks import KINDS, EdgeTask, Planned, tasks_of
from nullah.core.milling.edges import BevelRip, ShapedEdge
from nullah.core.milling.tapers import TaperPlan
from nullah.core.plan import Plan
from nullah.core.reader import Reader
from nullah.core.stations.selection import Selection
from nullah.core.wording.edges import (
    BEVEL_SECTION,
    STROKES_RINGED,
    TOE_END_ON,
    drawn_across_note,
    edge_section_note,
    out_of_square_words,
    round_words,
    shaping_remarks,
    shaping_settings,
    shaping_steps,
    shaping_why,
)
from nullah.core.wording.facts import error_words


def selected_task(plan: Plan, selection: Selection) -> EdgeTask:
    """Return the task that was typed, or the first of the part in hand, or of any part, or a leg as an example."""
    if selection.milling.edge_task is not None:
        return EdgeTask(*selection.milling.edge_task)
    part = plan.part(selection.part)
    for each in ([part] if part is not None else []) + list(plan.parts):
        found = next(tasks_of(each), None)
        if found is not None:
            return found
    kind = next(iter(KINDS))
    return EdgeTask(kind, KINDS[kind].usual)


def _planned(task: EdgeTask) -> Planned | EdgeError:
    try:
        return task.planned()
    except EdgeError as error:
        return error


# --- the drawing ----------------------------------------------------------------------------------


def draw_edge_work(plan: Plan, selection: Selection) -> Drawing:
    """Draw the task in hand."""
    task = selected_task(plan, selection)
    found = _planned(task)
    title = plan.reader.text(KINDS[task.kind].title) + (f" · {task.part}" if task.part else "")
    if isinstance(found, EdgeError):
        why = error_words(found, plan.reader)
        return drawing(
            Label((0, 0), title, 3.6, Anchor.START, bold=True), Label((0, 10), why, 3.2, Anchor.START, Role.WARN)
        )
    if isinstance(found, TaperPlan):
        return drawing(_taper(found, task, plan.reader), _heading(title, 0))
    if isinstance(found, BevelRip):
        return drawing(_bevel(found, task, plan.reader), _heading(title, 0))
    return drawing(_edge(found, plan.reader), _heading(title, 0))


def _heading(title: str, top: float) -> Label:
    return Label((0, top), title, 3.6, Anchor.START, bold=True, nudge_mm=(0, -14))


def _taper(found: TaperPlan, task: EdgeTask, reader: Reader) -> Iterator[Element]:
    """Draw a face of the leg lying, its toe at the right, with the line and where each stroke starts."""
    length, thick = task.figures[0], task.figures[1]
    # A leg is long and thin: across it is drawn larger.
    tall = max(1.0, length / 6 / thick)
    high, start = thick * tall, length - found.run
    off = found.off * tall
    yield rectangle(0, 0, length, high, fill=Fill.WOOD, species="black cherry")
    yield Path(((start, 0), (length, 0), (length, off)), Role.OUTLINE, closed=True, fill=Fill.WASTE)
    across = found.toe[0] < thick - found.off - 1e-6
    if across:
        yield Path(((start, high), (length, high), (length, high - off)), Role.OUTLINE, closed=True, fill=Fill.WASTE)
        yield line((start, high), (length, high - off), Role.KNIFE)
    yield line((start, 0), (length, off), Role.KNIFE)
    every = max(1, len(found.strokes) // 8)
    for number, stroke in enumerate(found.strokes, start=1):
        x = length - stroke.start
        yield line((x, 0), (x, high * 0.12), Role.CHALK)
        if number == 1 or number % every == 0:
            yield Ring((x, 0), str(number), 2.4, Role.CHALK, nudge_mm=(0, -4))
    write = reader.marks.write
    yield Dimension((start, high), (0, high), write(from_float(start)), -8)
    yield Dimension((length, high), (start, high), write(from_float(found.run)), -8)
    toe = thick - found.off * (2 if across else 1)
    low = high - (off if across else 0)
    yield Dimension((length, low), (length, off), write(from_float(toe)), 9)
    if tall > 1.01:
        yield Label((0, high), drawn_across_note(tall, reader), 2.9, Anchor.START, Role.FAINT, nudge_mm=(0, 18))
    yield Label((length, high), reader.text(STROKES_RINGED), 2.9, Anchor.END, Role.FAINT, nudge_mm=(0, 18))
    yield from _end_views(found, task, high, length, reader)


def _end_views(found: TaperPlan, task: EdgeTask, high: float, length: float, reader: Reader) -> Iterator[Element]:
    """Draw the toe end on, once for each round: which faces are planed, with their order."""
    thick = task.figures[1]
    size = length / 9
    scale = size / thick
    y = high + length * 0.16
    left = {"A": 0.0, "B": 0.0, "C": 0.0, "D": 0.0}
    number = 0
    for index, faces in enumerate(found.rounds):
        x = index * size * 2.2 + size * 0.4
        yield rectangle(x, y, size, size, Role.HIDDEN)
        for face in faces:
            number += 1
            left[face.face] = found.off * scale
            at: dict[str, Point] = {
                "A": (x + size / 2, y),
                "B": (x + size, y + size / 2),
                "C": (x + size / 2, y + size),
                "D": (x, y + size / 2),
            }
            yield Ring(at[face.face], str(number), 2.6, Role.CHALK)
        inner = (x + left["D"], y + left["A"], size - left["D"] - left["B"], size - left["A"] - left["C"])
        yield rectangle(*inner, fill=Fill.END_GRAIN, species="black cherry")
        names = round_words([face.face for face in faces], index == 0, reader)
        yield Label((x + size * 1.15, y + size / 2), names, 3.0, Anchor.START)
    yield Label((0, y + size), reader.text(TOE_END_ON), 2.9, Anchor.START, Role.FAINT, nudge_mm=(0, 5))


def _edge(found: ShapedEdge, reader: Reader) -> Iterator[Element]:
    """Draw the corner in section, the face above: what goes, round by round, and the guide lines."""
    corners = [corner for flats in found.rounds for flat in flats for corner in flat.corners]
    reach = max(max(x, y) for x, y in corners)
    rabbet = dict(found.gauge)
    wide_rabbet, deep_rabbet = rabbet.get(GuideLine.RABBET_WIDE, 0.0), rabbet.get(GuideLine.RABBET_DEEP, 0.0)
    wide, high = max(reach, wide_rabbet) * 1.8, max(reach * 1.5, deep_rabbet * 2)
    # The corner stands at the right; x counts in over the face, so it is mirrored.
    yield rectangle(0, 0, wide, high, Role.HIDDEN)

    def put(corner: Point) -> Point:
        return wide - corner[0], corner[1]

    last = [flat for flats in found.rounds for flat in flats]
    finished = sorted((corner for flat in last for corner in flat.corners), key=lambda c: (-c[0], c[1]))
    profile: list[Point] = []
    if wide_rabbet:
        profile += [put((wide_rabbet, 0.0)), put((wide_rabbet, deep_rabbet))]
    if len(found.rounds) == 1:
        profile += [put(finished[0]), put(finished[-1])]
    else:
        radius = _radius(found)
        for step in range(13):
            turn = math.radians(90 * step / 12)
            profile.append(put((radius * (1 - math.sin(turn)), deep_rabbet + radius * (1 - math.cos(turn)))))
    yield Path(
        (*profile, (wide, high), (0, high), (0, 0)),
        Role.OUTLINE,
        closed=True,
        fill=Fill.END_GRAIN,
        species="black cherry",
    )
    waste = [put((wide_rabbet, 0.0)) if wide_rabbet else profile[0], *profile[1 if wide_rabbet else 0 :], (wide, 0)]
    yield Path(tuple(waste), Role.BARE, closed=True, fill=Fill.WASTE)
    for number, flats in enumerate(found.rounds, start=1):
        for flat in flats:
            a, b = (put(corner) for corner in flat.corners)
            yield line(a, b, Role.KNIFE if number == 1 else Role.PENCIL)
            yield Ring(((a[0] + b[0]) / 2, (a[1] + b[1]) / 2), str(number), 2.2, Role.CHALK, nudge_mm=(3, -3))
    first = found.rounds[0][0]
    if first.on_face is not None:
        at = first.on_face
        yield Dimension((wide - at, 0), (wide, 0), reader.fine(from_float(round(at, 1))), 8)
    if first.down_edge is not None:
        yield Dimension((wide, 0), (wide, first.down_edge), reader.fine(from_float(round(first.down_edge, 1))), 8)
    words = edge_section_note(len(found.rounds), reader)
    yield Label((0, high), words, 2.9, Anchor.START, Role.FAINT, nudge_mm=(0, 6))


def _radius(found: ShapedEdge) -> float:
    """Return the radius of a round from its first flat, whose lines lie r·(2 − √2) from the corner."""
    line_at = found.rounds[0][0].on_face or 0.0
    return line_at / (2 - math.sqrt(2))


def _bevel(found: BevelRip, task: EdgeTask, reader: Reader) -> Iterator[Element]:
    width, thick = task.figures[0], task.figures[1]
    yield rectangle(0, 0, width, thick, fill=Fill.END_GRAIN, species="black cherry")
    yield line((found.on_face, 0), (found.on_back, thick), Role.KNIFE)
    write = reader.marks.write_fine
    yield Dimension((0, 0), (found.on_face, 0), write(from_float(round(found.on_face, 1))), 8)
    yield Dimension((found.on_back, thick), (0, thick), write(from_float(round(found.on_back, 1))), 8)
    yield Label((width, thick), out_of_square_words(found.degrees, reader), 3.0, Anchor.END, nudge_mm=(0, 12))
    yield Label((0, thick), reader.text(BEVEL_SECTION), 2.9, Anchor.START, Role.FAINT, nudge_mm=(0, 18))


# --- the card -------------------------------------------------------------------------------------


def edge_card(plan: Plan, selection: Selection) -> Card:
    """Return the task in hand: what to set, the steps, what to mind."""
    task, reader = selected_task(plan, selection), plan.reader
    found = _planned(task)
    title = reader.text(KINDS[task.kind].title)
    if isinstance(found, EdgeError):
        return Card(title, mind=(Remark(found.fact, Severity.FAILURE),))
    return Card(
        title,
        shaping_settings(found, task.figures[1], reader),
        shaping_steps(found, reader),
        shaping_remarks(found, reader),
        shaping_why(found, reader),
    )
