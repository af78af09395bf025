"""The survey of a board: what was read where, what stands high, and what follows from it."""

from __future__ import annotations

import math
from collections.abc import Iterator

from nullah.core.card import Card
from nullah.core.drawing import Anchor, Drawing, Element, Fill, Label, Path, Point, Ring, Role, drawing, line, rectangle
from nullah.core.lengths import Length, Marks, from_float
from nullah.core.milling.adjust import usual_readings
from nullah.core.milling.best_ways import survey_findings, whole_job
from nullah.core.milling.contours import areas_above, contour_lines, even_heights, smoothed
from nullah.core.milling.decide import BoardFace
from nullah.core.milling.job import FaceWork, Job
from nullah.core.plan import Plan
from nullah.core.rack.board import Board
from nullah.core.rack.shape_readings import Calliper, Gap, ShapeReading, Wind, shape_place
from nullah.core.reader import Reader
from nullah.core.refs import BoardRef, ReadingRef, Ref, WantedReadingRef
from nullah.core.stations.selection import Selection
from nullah.core.stations.stock import face_up, selected_board
from nullah.core.wording import survey as words

_NOTHING_LEFT = 0.05


# --- the drawing ----------------------------------------------------------------------------------


def draw_survey(plan: Plan, selection: Selection) -> Drawing:
    """Draw the face that lies up with its highs and lows as pencilled on it, and the readings where they were taken."""
    board = selected_board(plan, selection)
    if board is None:
        return Drawing()
    job = whole_job(board, plan.project.shop)
    face = face_up(selection, job.first.face)
    return drawing(
        draw_face(board, job.face(face), plan.marks),
        _readings(board, face, selection, plan.reader),
        _title(board, face, job, plan.reader),
    )


def _title(board: Board, face: BoardFace, job: Job, reader: Reader) -> Iterator[Element]:
    long, wide = float(board.length), float(board.width)
    title = words.face_words(board, face, face is job.first.face, reader)
    figures, pencilled, ringed = words.legend_words(reader)
    above, below = (0, -16), (0, 17)
    yield Label((0, 0), title, 3.6, Anchor.START, bold=True, nudge_mm=above)
    yield Label((long, 0), figures, 2.9, Anchor.END, Role.FAINT, nudge_mm=above)
    yield Label((0, wide), pencilled, 2.9, Anchor.START, Role.FAINT, nudge_mm=below)
    yield Label((long, wide), ringed, 2.9, Anchor.END, Role.FAINT, nudge_mm=below)


def _tenths(millimetres: float) -> Length:
    return from_float(round(millimetres, 1))


def draw_face(board: Board, work: FaceWork, marks: Marks, lows: bool = True) -> Iterator[Element]:
    """Draw a face as it lies, from its lower left corner up: contour lines, the highest third hatched, lows ringed."""
    long, wide = float(work.x[-1]), float(work.y[-1])
    ref = BoardRef(board.id)
    yield rectangle(0, 0, long, wide, fill=Fill.WOOD, species=board.species, ref=ref)
    x, y, heights = smoothed(work.x, work.y, work.heights)
    highest = float(heights.max())
    levels = even_heights(highest)
    at_x, at_y, most = work.highest

    def put(points: tuple[Point, ...]) -> tuple[Point, ...]:
        return tuple((px, wide - py) for px, py in points)

    if levels:
        high = next((level for level in levels if level >= highest * 0.6), levels[-1])
        for area in areas_above(x, y, heights, high):
            yield Path(put(area), Role.BARE, closed=True, fill=Fill.PENCIL, ref=ref)
    for level in levels:
        for points in contour_lines(x, y, heights, level):
            yield Path(put(points), Role.PENCIL, ref=ref)
        longest = max(contour_lines(x, y, heights, level), key=len, default=())
        if longest:
            at = put(longest)[len(longest) // 2]
            if math.dist(at, (at_x, wide - at_y)) > wide / 4:
                yield Label(at, marks.write_short(level), 2.9, role=Role.PENCIL)
    if most >= 0.1:
        yield Label(
            (at_x, wide - at_y),
            f"▲ {marks.write_fine(_tenths(most))}",
            3.2,
            Anchor.START if at_x < long / 2 else Anchor.END,
            Role.CHALK,
            bold=True,
            nudge_mm=(2 if at_x < long / 2 else -2, 3 if at_y > wide / 2 else -3),
        )
    if lows:
        yield from _lows(work, wide)


def _lows(work: FaceWork, wide: float) -> Iterator[Element]:
    """Ring the places where nothing may come off any more, those side by side only once."""
    seen: list[Point] = []
    for i, x in enumerate(work.x):
        for j, y in enumerate(work.y):
            at = (float(x), wide - float(y))
            if work.heights[i, j] < 0.02 and all(abs(at[0] - a) + abs(at[1] - b) > wide / 3 for a, b in seen):
                seen.append(at)
                yield Ring(at, "0", 2.4, Role.CHALK)


def as_it_lies(board: Board, upper: bool, place: Point) -> Point:
    """Return where a place of the board (from its lower left corner, upper face up) is drawn with that face up.

    It is its own inverse in y.
    """
    return place[0], float(board.width) - place[1] if upper else place[1]


def _readings(board: Board, face: BoardFace, selection: Selection, reader: Reader) -> Iterator[Element]:
    """Draw what was read on the face that lies up, what one would read next, and what is about to be."""
    upper = face is BoardFace.UPPER
    taken = {shape_place(reading) for reading in board.shape}
    if board.surface is None:
        for number, reading in enumerate(usual_readings(board)[:_SHOWN]):
            if shape_place(reading) not in taken and _is_up(reading, upper):
                yield from _mark(board, reading, upper, "", WantedReadingRef(number), Role.FAINT, reader)
    for number, reading in enumerate(board.shape):
        if _is_up(reading, upper):
            figure = words.reading_figure(reading, reader, unit=False)
            yield from _mark(board, reading, upper, figure, ReadingRef(number), Role.KNIFE, reader)
    if selection.milling.reading is not None and _is_up(selection.milling.reading, upper):
        yield from _mark(board, selection.milling.reading, upper, "?", None, Role.CHALK, reader)


# Readings that are offered on the drawing: both faces once; those in between are for doubts.
_SHOWN = 28


def _is_up(reading: ShapeReading, upper: bool) -> bool:
    return isinstance(reading, Calliper) or reading.upper is upper


def _mark(
    board: Board, reading: ShapeReading, upper: bool, figure: str, ref: Ref | None, role: Role, reader: Reader
) -> Iterator[Element]:
    """Draw a reading at its place: a line and its figure."""
    long, wide = float(board.length), float(board.width)

    def put(place: Point) -> Point:
        return as_it_lies(board, upper, place)

    written = Role.CHALK if role is Role.CHALK else Role.FAINT if role is Role.FAINT else Role.LABEL
    if isinstance(reading, Gap):
        yield line(put(reading.start), put(reading.end), role)
        yield from _handle(put(_told_at(board, reading)), board, figure, written, role, ref)
        return
    if isinstance(reading, Wind):
        # Sticks lie across; their line and figure stand clear of the board, below it.
        row = _wind_row(board, reading)
        for x in (reading.near, reading.far):
            yield line((x, wide), (x, wide + row), role)
        yield line((reading.near, wide + row), (reading.far, wide + row), role)
        yield Label(
            ((reading.near + reading.far) / 2, wide + row),
            words.wind_words(figure, reader),
            2.9,
            role=written,
            bold=bool(figure),
            ref=ref,
            nudge_mm=(0, 2),
        )
        return
    x, y = put(reading.at)
    outside = (0.0, -4.0) if y < wide / 2 else (0.0, 4.0)
    anchor = Anchor.START if x < 1 else Anchor.END if x > long - 1 else Anchor.MIDDLE
    if figure:
        yield Label((x, y), figure, 3.0, anchor, written, bold=True, ref=ref, nudge_mm=outside)
    else:
        yield Ring((x, y), "", 0.9, role, ref=ref, nudge_mm=(0.0, outside[1] / 3))


def _told_at(board: Board, reading: Gap) -> Point:
    """Return where a straightedge's figure is written: where it was read, those that cross there each to one side."""
    middle = float(board.length) / 2, float(board.width) / 2
    if abs(reading.at[0] - middle[0]) + abs(reading.at[1] - middle[1]) > float(board.width) / 10:
        return reading.at
    (x0, y0), (x1, y1) = reading.start, reading.end
    share = 0.14 if abs(x1 - x0) > 1 else 0.3
    return x0 + (x1 - x0) * share, y0 + (y1 - y0) * share


def _handle(at: Point, board: Board, figure: str, written: Role, role: Role, ref: Ref | None) -> Iterator[Element]:
    """Draw a reading's figure inside the board, or the small ring where one is wanted."""
    if figure:
        left, right = at[0] < 1, at[0] > float(board.length) - 1
        anchor = Anchor.START if left else Anchor.END if right else Anchor.MIDDLE
        nudge = (1.0 if left else -1.0 if right else 0.0, 2.4 if at[1] < float(board.width) / 20 else -2.0)
        yield Label(at, figure, 3.0, anchor, written, bold=True, ref=ref, nudge_mm=nudge)
    else:
        yield Ring(at, "", 0.9, role, ref=ref)


def _wind_row(board: Board, reading: Wind) -> float:
    """Return how far below the board the line of a pair of sticks stands: the whole length lowest."""
    share = abs(reading.far - reading.near) / float(board.length)
    return float(board.width) * (0.3 if share > 0.9 else 0.18)


# --- the cards ------------------------------------------------------------------------------------


def survey_card(plan: Plan, selection: Selection) -> Card:
    """Return what the survey tells."""
    board = selected_board(plan, selection)
    if board is None:
        return words.no_board_card(plan.reader)
    found = survey_findings(board, plan.project.shop)
    face = face_up(selection, found.job.first.face)
    return words.survey_card(board, found, face, plan.project.shop, plan.project.lows_left, plan.reader)


def sticks_card(plan: Plan, selection: Selection) -> Card:
    """Return how winding sticks are read."""
    return words.sticks_card(plan.reader)
