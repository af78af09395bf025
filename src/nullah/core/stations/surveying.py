"""The survey of a board: what was read where, what stands high, and what follows from it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

from nullah.core.breakdown.layout import Rect
from nullah.core.card import Card, Remark, Setting, Severity
from nullah.core.drawing import Anchor, Drawing, Element, Fill, Label, Path, Point, Ring, Role, drawing, line, rectangle
from nullah.core.identity import kept_by_value
from nullah.core.lengths import Length, Marks, from_float, mm
from nullah.core.milling.adjust import KNOWN_WITHIN, Adjusted, adjust, usual_readings
from nullah.core.milling.contours import areas_above, contour_lines, even_heights, smoothed
from nullah.core.milling.decide import BestCut, BoardFace, Twist, best_both, best_crosscut, best_rip, twist_of
from nullah.core.milling.faces import survey_of
from nullah.core.milling.forecast import GRID_SD
from nullah.core.milling.job import FaceWork, Job, job_of
from nullah.core.milling.strokes import strokes_per_mm
from nullah.core.plan import Plan
from nullah.core.rack.board import Board, Rise
from nullah.core.rack.shape_readings import Calliper, Gap, ShapeReading, Wind, shape_place
from nullah.core.refs import BoardRef, ReadingRef, Ref, WantedReadingRef
from nullah.core.shop import PlaneKind, Shop
from nullah.core.stations.selection import Selection
from nullah.core.stations.stock import face_up, selected_board
from nullah.core.wording.milling import face_side_words

_NOTHING_LEFT = 0.05


class SurveyFindings(NamedTuple):
    """What the survey of a whole board tells: the ways of cutting it first, and how it is milled whole."""

    job: Job
    crosscut: BestCut
    rip: BestCut
    both: BestCut


def survey_findings(board: Board, shop: Shop) -> SurveyFindings:
    """Work out what the survey of a board tells."""
    return SurveyFindings(whole_job(board, shop), *_cuts(board))


def whole_job(board: Board, shop: Shop) -> Job:
    """Return how a whole board is milled to all it can give."""
    return job_of(board, Rect(0.0, 0.0, float(board.length), float(board.width)), shop, None, mm(0))


@kept_by_value(64)
def _cuts(board: Board) -> tuple[BestCut, BestCut, BestCut]:
    """Find the best cuts of a board: they hang on its shape alone."""
    survey = survey_of(board)
    return best_crosscut(survey), best_rip(survey), best_both(survey)


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
        _readings(board, face, selection, plan.marks),
        _title(board, face, job, plan.marks),
    )


def _title(board: Board, face: BoardFace, job: Job, marks: Marks) -> Iterator[Element]:
    long, wide = float(board.length), float(board.width)
    words = "face side" if face is job.first.face else "second face"
    turned = "" if face is BoardFace.UPPER else ", turned over about its length"
    yield Label(
        (0, 0), f"{board.name}: {face.value} face{turned} · {words}", 3.6, Anchor.START, bold=True, nudge_mm=(0, -16)
    )
    yield Label(
        (long, 0),
        f"what stands above the flat face inside, {marks.style.name}",
        2.9,
        Anchor.END,
        Role.FAINT,
        nudge_mm=(0, -16),
    )
    yield Label((0, wide), "pencilled: take down first", 2.9, Anchor.START, Role.FAINT, nudge_mm=(0, 17))
    yield Label((long, wide), "ringed 0: the lows that set the limit", 2.9, Anchor.END, Role.FAINT, nudge_mm=(0, 17))


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


def _readings(board: Board, face: BoardFace, selection: Selection, marks: Marks) -> Iterator[Element]:
    """Draw what was read on the face that lies up, what one would read next, and what is about to be."""
    upper = face is BoardFace.UPPER
    taken = {shape_place(reading) for reading in board.shape}
    if board.surface is None:
        for number, reading in enumerate(usual_readings(board)[:_SHOWN]):
            if shape_place(reading) not in taken and _is_up(reading, upper):
                yield from _mark(board, reading, upper, "", WantedReadingRef(number), Role.FAINT)
    for number, reading in enumerate(board.shape):
        if _is_up(reading, upper):
            yield from _mark(
                board, reading, upper, in_figures(reading, marks, unit=False), ReadingRef(number), Role.KNIFE
            )
    if selection.milling.reading is not None and _is_up(selection.milling.reading, upper):
        yield from _mark(board, selection.milling.reading, upper, "?", None, Role.CHALK)


# Readings that are offered on the drawing: both faces once; those in between are for doubts.
_SHOWN = 28


def _is_up(reading: ShapeReading, upper: bool) -> bool:
    return isinstance(reading, Calliper) or reading.upper is upper


def in_figures(reading: ShapeReading, marks: Marks, unit: bool = True) -> str:
    """Write what was read."""
    figure = reading.gap if isinstance(reading, Gap) else reading.rise if isinstance(reading, Wind) else None
    return marks.write_fine(reading.thickness if isinstance(reading, Calliper) else figure or mm(0), unit)


def in_words(reading: ShapeReading, marks: Marks) -> str:
    """Return where a reading is taken and with what."""

    def at(place: float) -> str:
        return marks.write(from_float(round(place)))

    if isinstance(reading, Calliper):
        return f"calliper at {at(reading.at[0])}, {'upper' if reading.at[1] > 20 else 'lower'} edge"
    face = "upper" if reading.upper else "lower"
    if isinstance(reading, Wind):
        return f"sticks at {at(reading.near)} and {at(reading.far)}, {face} face"
    (x0, y0), (x1, y1) = reading.start, reading.end
    if abs(x1 - x0) < 1:
        return f"straightedge across at {at(x0)}, {face} face"
    if abs(y1 - y0) < 1:
        return f"straightedge along, {at(y0)} up, {face} face, gap at {at(reading.at[0])}"
    way = "rising" if (y1 - y0) * (x1 - x0) > 0 else "falling"
    return f"straightedge on the diagonal {way} to the right, {face} face"


def _mark(
    board: Board, reading: ShapeReading, upper: bool, figure: str, ref: Ref | None, role: Role
) -> Iterator[Element]:
    """Draw a reading at its place: a line and its figure."""
    long, wide = float(board.length), float(board.width)

    def put(place: Point) -> Point:
        return as_it_lies(board, upper, place)

    words = Role.CHALK if role is Role.CHALK else Role.FAINT if role is Role.FAINT else Role.LABEL
    if isinstance(reading, Gap):
        yield line(put(reading.start), put(reading.end), role)
        yield from _handle(put(_told_at(board, reading)), board, figure, words, role, ref)
        return
    if isinstance(reading, Wind):
        # Sticks lie across; their line and figure stand clear of the board, below it.
        row = _wind_row(board, reading)
        for x in (reading.near, reading.far):
            yield line((x, wide), (x, wide + row), role)
        yield line((reading.near, wide + row), (reading.far, wide + row), role)
        yield Label(
            ((reading.near + reading.far) / 2, wide + row),
            f"wind {figure}" if figure else "sticks",
            2.9,
            role=words,
            bold=bool(figure),
            ref=ref,
            nudge_mm=(0, 2),
        )
        return
    x, y = put(reading.at)
    outside = (0.0, -4.0) if y < wide / 2 else (0.0, 4.0)
    anchor = Anchor.START if x < 1 else Anchor.END if x > long - 1 else Anchor.MIDDLE
    if figure:
        yield Label((x, y), figure, 3.0, anchor, words, bold=True, ref=ref, nudge_mm=outside)
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


def _handle(at: Point, board: Board, figure: str, words: Role, role: Role, ref: Ref | None) -> Iterator[Element]:
    """Draw a reading's figure inside the board, or the small ring where one is wanted."""
    if figure:
        left, right = at[0] < 1, at[0] > float(board.length) - 1
        anchor = Anchor.START if left else Anchor.END if right else Anchor.MIDDLE
        nudge = (1.0 if left else -1.0 if right else 0.0, 2.4 if at[1] < float(board.width) / 20 else -2.0)
        yield Label(at, figure, 3.0, anchor, words, bold=True, ref=ref, nudge_mm=nudge)
    else:
        yield Ring(at, "", 0.9, role, ref=ref)


def _wind_row(board: Board, reading: Wind) -> float:
    """Return how far below the board the line of a pair of sticks stands: the whole length lowest."""
    share = abs(reading.far - reading.near) / float(board.length)
    return float(board.width) * (0.3 if share > 0.9 else 0.18)


# --- the card -------------------------------------------------------------------------------------


def survey_card(plan: Plan, selection: Selection) -> Card:
    """Return what the survey tells."""
    board = selected_board(plan, selection)
    if board is None:
        return Card("Survey", mind=(Remark("Put a board on the rack first."),))
    found = survey_findings(board, plan.project.shop)
    adjusted = adjust(board) if board.shape and board.surface is None else None
    return Card(
        f"Survey of {board.name}",
        tuple(_settings(plan, board, found)),
        tuple(_steps(board, found, face_up(selection, found.job.first.face), plan.marks)),
        tuple(_remarks(plan, board, found, adjusted)),
        (_why(board, adjusted),),
    )


def _tenths(millimetres: float) -> Length:
    return from_float(round(millimetres, 1))


def _doubt(board: Board, found: SurveyFindings) -> float:
    return GRID_SD if board.surface is not None else adjust(board).slab_sd(found.job.slab.touching)


def _settings(plan: Plan, board: Board, found: SurveyFindings) -> Iterator[Setting]:
    write = plan.marks.write_fine
    first = found.job.first
    yield Setting("Face side", first.face.value, face_side_words(first, plan.reader))
    whole, doubt = _down(found.job.slab.thickness), _tenths(_doubt(board, found))
    yield Setting("Whole", write(whole), f"give or take {write(doubt)}")
    at = _at(plan, found.crosscut.crosscut)
    yield Setting("Crosscut", _each(plan, found.crosscut), f"best at {at} from the left end")
    yield Setting("Ripped", _each(plan, found.rip), f"best at {_at(plan, found.rip.rips[0])} from the lower edge")
    at, one, two = (_at(plan, each) for each in (found.both.crosscut, *found.both.rips))
    yield Setting("Both", write(_down(found.both.least)), f"crosscut at {at}, then ripped at {one} and {two}")
    lows = plan.project.lows_left
    if lows.mm > 0:
        yield Setting("With lows left", write(whole + lows), f"lows of {write(lows)} on the face that is not seen")
    plane = plan.project.shop.plane(PlaneKind.JACK, PlaneKind.FORE, PlaneKind.JOINTER, PlaneKind.SMOOTHER)
    if plane is not None:
        number = strokes_per_mm(float(board.length), float(board.width), plane)
        yield Setting(
            f"Each {plan.marks.write_fine(mm(1))} costs",
            f"{number:.0f} strokes",
            f"of the {plane.kind.value}, over one whole face",
        )


def _each(plan: Plan, cut: BestCut) -> str:
    return " and ".join(plan.marks.write_fine(_down(reach)) for reach in cut.reaches)


def _down(millimetres: float) -> Length:
    return from_float(int(millimetres * 10 + 1e-6) / 10)


def _at(plan: Plan, millimetres: float | None) -> str:
    return plan.marks.write(from_float(round(millimetres or 0.0)))


def _steps(board: Board, found: SurveyFindings, face: BoardFace, marks: Marks) -> Iterator[str]:
    work = found.job.face(face)
    x, y, most = work.highest
    if most > 0.1:
        yield f"Begin {_where(x, y, board)}: {marks.write_fine(_tenths(most))} stands there."
    twist = twist_of(survey_of(board), face)
    yield "The face is not in wind." if twist is None else _twist_in_words(twist, face, board, marks)
    yield "Where a ringed 0 stands nothing comes off: stop when the plane first cuts there."


def _where(x: float, y: float, board: Board) -> str:
    long, wide = float(board.length), float(board.width)
    across = "lower" if y < wide / 3 else "upper" if y > wide * 2 / 3 else "middle"
    along = "left" if x < long / 3 else "right" if x > long * 2 / 3 else "middle"
    if across == along == "middle":
        return "in the middle"
    if along == "middle":
        return f"half way along the {across} edge"
    return f"at the {along} end, half way up" if across == "middle" else f"at the {across} {along} corner"


def _twist_in_words(twist: Twist, face: BoardFace, board: Board, marks: Marks) -> str:
    long = float(board.length)
    wind = marks.write_fine(_tenths(abs(twist.wind)))
    left, right = twist.start, long - twist.end
    if left > long / 10 and left >= right:
        where = (
            f"it begins {marks.write(from_float(round(twist.start)))} from the left end; to the left of that it is true"
        )
    elif right > long / 10:
        where = (
            f"it ends {marks.write(from_float(round(twist.end)))} from the left end; to the right of that it is true"
        )
    else:
        where = "it runs through the whole length"
    corner = twist.corner
    if face is BoardFace.LOWER:
        # It lies turned over: what is the upper edge of the board is the lower one now.
        corner = corner.replace("upper", "·").replace("lower", "upper").replace("·", "lower")
    return f"Wind of {wind} over the width: {where}. High: {corner}."


def _remarks(plan: Plan, board: Board, found: SurveyFindings, adjusted: Adjusted | None) -> Iterator[Remark]:
    write = plan.marks.write_fine
    if found.job.slab.thickness < _NOTHING_LEFT:
        cut, both = write(_down(found.crosscut.least)), write(_down(found.both.least))
        yield Remark(
            f"Nothing of {board.name} is left flat at any thickness: the hollows of one face lie past those of the "
            f"other. Crosscut first it gives {cut}, cut both ways {both}.",
            Severity.FAILURE,
        )
    if adjusted is not None and adjusted.contradiction is not None:
        wrong = adjusted.contradiction
        one, two = board.shape[wrong.first], board.shape[wrong.second]
        said = " and ".join(f"{in_words(each, plan.marks)} ({in_figures(each, plan.marks)})" for each in (one, two))
        apart = write(_tenths(wrong.apart))
        yield Remark(f"Two readings contradict each other by {apart}: {said}. Take both again.", Severity.FAILURE)
    if adjusted is not None and not adjusted.known and adjusted.next_reading is not None:
        yield Remark(
            f"The readings do not fix both faces yet: they are known to {write(_tenths(adjusted.doubt))} on the whole, "
            f"{write(from_float(KNOWN_WITHIN))} is enough. Take next: {in_words(adjusted.next_reading, plan.marks)}.",
            Severity.WARNING,
        )
    elif adjusted is not None:
        yield Remark(f"Both faces are known to {write(_tenths(adjusted.doubt))} on the whole.")
    elif board.surface is None:
        yield Remark("Known by its four figures only: evenly cupped, bowed and wound. Readings at stations tell where.")
    if board.rises is Rise.UNKNOWN:
        yield Remark("Nobody has looked which way the grain rises: see it on the edge, and enter it under Strokes.")
    yield Remark("Lift with straight knees; rough faces hold splinters and grit.")


def _why(board: Board, adjusted: Adjusted | None) -> str:
    if board.surface is not None:
        return "From a grid of heights of both faces, taken as it is between its stations."
    if adjusted is None:
        return "From cup, bow and twist as parabolas and an even wind, and the thickness."
    return (
        f"From {len(board.shape)} readings by least squares; what they leave open is filled in as boards usually are, "
        "and told as doubt (a standard deviation)."
    )


def sticks_card(plan: Plan, selection: Selection) -> Card:
    """Return how winding sticks are read."""
    return Card(
        "Winding sticks",
        (Setting("Long", "twice the width", "the wind shows twice as large at their ends"),),
        (
            "Stand the sticks across both ends, parallel, each in the middle of its length.",
            "Step back and crouch until the far edge just shows over the near one.",
            "One end of the far stick shows more: that corner is high. In line from end to end: no wind.",
            f"How much: at the stick's end, against the pale inlaid edge, {plan.marks.write(mm(7))} deep.",
            "Move the far stick in: where it first comes into line, the wind begins.",
        ),
        (Remark("A tilted head tilts both edges alike: look at the gap between them, not at either."),),
    )
