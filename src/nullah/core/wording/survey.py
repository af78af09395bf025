"""What is said of a board's survey: its readings, what stands high, and what follows from it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from nullah.core.card import Card, Remark, Setting, Severity
from nullah.core.catalogue import N_
from nullah.core.lengths import Length, from_float, mm
from nullah.core.milling.adjust import KNOWN_WITHIN, Adjusted, adjust
from nullah.core.milling.best_ways import SurveyFindings
from nullah.core.milling.decide import BestCut, BoardFace, Corner, Twist, twist_of
from nullah.core.milling.faces import survey_of
from nullah.core.milling.forecast import GRID_SD
from nullah.core.milling.strokes import strokes_per_mm
from nullah.core.rack.board import Board, Rise
from nullah.core.rack.shape_readings import Calliper, Gap, ShapeReading, Wind
from nullah.core.reader import Reader
from nullah.core.shop import PlaneKind, Shop
from nullah.core.wording.milling import face_side_words

#: What is thinner than this is nothing, mm; what stands up less is not worth saying.
_NOTHING_LEFT, _STANDS = 0.05, 0.1
#: A twist begins inside a board where so much of its length is true before it.
_TRUE_SHARE = 0.1

_FACES = {BoardFace.UPPER: N_("upper face"), BoardFace.LOWER: N_("lower face")}
_CORNERS = {
    Corner(upper=True, right=False): N_("upper left"),
    Corner(upper=True, right=True): N_("upper right"),
    Corner(upper=False, right=False): N_("lower left"),
    Corner(upper=False, right=True): N_("lower right"),
}
#: By how far along and across, each in thirds.
_WHERE = {
    (0, 0): N_("at the lower left corner"),
    (1, 0): N_("half way along the lower edge"),
    (2, 0): N_("at the lower right corner"),
    (0, 1): N_("at the left end, half way up"),
    (1, 1): N_("in the middle"),
    (2, 1): N_("at the right end, half way up"),
    (0, 2): N_("at the upper left corner"),
    (1, 2): N_("half way along the upper edge"),
    (2, 2): N_("at the upper right corner"),
}

_BEGINS = N_("Wind of {wind} over the width: it begins {place} from the left end; to the left of that it is true.")
_ENDS = N_("Wind of {wind} over the width: it ends {place} from the left end; to the right of that it is true.")
_THROUGHOUT = N_("Wind of {wind} over the width: it runs through the whole length.")
#: A calliper stands at the lower edge, or farther up than this, mm.
_EDGE = 20


# --- readings -------------------------------------------------------------------------------------


def reading_figure(reading: ShapeReading, reader: Reader, unit: bool = True) -> str:
    """Return what was read."""
    figure = reading.gap if isinstance(reading, Gap) else reading.rise if isinstance(reading, Wind) else None
    return reader.marks.write_fine(reading.thickness if isinstance(reading, Calliper) else figure or mm(0), unit)


def reading_words(reading: ShapeReading, reader: Reader) -> str:
    """Return where a reading is taken and with what."""

    def at(place: float) -> str:
        return reader.length(from_float(round(place)))

    if isinstance(reading, Calliper):
        words = N_("caliper at {place}, upper edge") if reading.at[1] > _EDGE else N_("caliper at {place}, lower edge")
        return reader.text(words, place=at(reading.at[0]))
    face = reader.text(_FACES[BoardFace.UPPER if reading.upper else BoardFace.LOWER])
    if isinstance(reading, Wind):
        return reader.text("sticks at {near} and {far}, {face}", near=at(reading.near), far=at(reading.far), face=face)
    (x0, y0), (x1, y1) = reading.start, reading.end
    if abs(x1 - x0) < 1:
        return reader.text("straightedge across at {place}, {face}", place=at(x0), face=face)
    if abs(y1 - y0) < 1:
        return reader.text(
            "straightedge along, {up} up, {face}, gap at {place}", up=at(y0), face=face, place=at(reading.at[0])
        )
    if (y1 - y0) * (x1 - x0) > 0:
        return reader.text("straightedge on the diagonal rising to the right, {face}", face=face)
    return reader.text("straightedge on the diagonal falling to the right, {face}", face=face)


def wind_words(figure: str, reader: Reader) -> str:
    """Return what stands at a pair of sticks: the wind that was read, or that they are wanted."""
    return reader.text("wind {figure}", figure=figure) if figure else reader.text("sticks")


# --- the drawing ----------------------------------------------------------------------------------


def face_words(board: Board, face: BoardFace, face_side: bool, reader: Reader) -> str:
    """Return what a drawn face is."""
    which = N_("face side") if face_side else N_("second face")
    words = (
        N_("{board}: {face} · {which}")
        if face is BoardFace.UPPER
        else N_("{board}: {face}, turned over about its length · {which}")
    )
    return reader.text(words, board=board.name, face=reader.text(_FACES[face]), which=reader.text(which))


def legend_words(reader: Reader) -> tuple[str, str, str]:
    """Return what the figures, the pencilled areas and the rings on a drawn face are."""
    return (
        reader.text("what stands above the flat face inside, {unit}", unit=reader.marks.style.name),
        reader.text("pencilled: take down first"),
        reader.text("ringed 0: the lows that set the limit"),
    )


# --- the cards ------------------------------------------------------------------------------------


def no_board_card(reader: Reader) -> Card:
    """Return what is told where there is no board."""
    return Card(reader.text("Survey"), mind=(Remark(reader.text("Put a board on the rack first.")),))


def survey_card(
    board: Board, found: SurveyFindings, face: BoardFace, shop: Shop, lows_left: Length, reader: Reader
) -> Card:
    """Return what the survey of a board tells.

    Parameters
    ----------
    board : Board
    found : SurveyFindings
        What follows from it.
    face : BoardFace
        The face that lies up.
    shop : Shop
    lows_left : Length
        How deep lows may stay on a face that is not seen.
    reader : Reader
    """
    adjusted = adjust(board) if board.shape and board.surface is None else None
    return Card(
        reader.text("Survey of {board}", board=board.name),
        tuple(_settings(board, found, shop, lows_left, reader)),
        tuple(_steps(board, found, face, reader)),
        tuple(_remarks(board, found, adjusted, reader)),
        (_why(board, adjusted, reader),),
    )


def _settings(board: Board, found: SurveyFindings, shop: Shop, lows: Length, reader: Reader) -> Iterator[Setting]:
    write = reader.fine
    first = found.job.first
    yield Setting(reader.text("Face side"), reader.text(first.face.value), face_side_words(first, reader))
    doubt = GRID_SD if board.surface is not None else adjust(board).slab_sd(found.job.slab.touching)
    whole = _down(found.job.slab.thickness)
    yield Setting(reader.text("Whole"), write(whole), reader.text("give or take {doubt}", doubt=write(_tenths(doubt))))
    at = _at(found.crosscut.crosscut, reader)
    yield Setting(
        reader.text("Crosscut"),
        _each(found.crosscut, reader),
        reader.text("best at {place} from the left end", place=at),
    )
    at = _at(found.rip.rips[0], reader)
    yield Setting(
        reader.text("Ripped"), _each(found.rip, reader), reader.text("best at {place} from the lower edge", place=at)
    )
    at, one, two = (_at(each, reader) for each in (found.both.crosscut, *found.both.rips))
    ways = reader.text("crosscut at {place}, then ripped at {one} and {two}", place=at, one=one, two=two)
    yield Setting(reader.text("Both"), write(_down(found.both.least)), ways)
    if lows.mm > 0:
        deep = reader.text("lows of {depth} on the face that is not seen", depth=write(lows))
        yield Setting(reader.text("With lows left"), write(whole + lows), deep)
    plane = shop.plane(PlaneKind.JACK, PlaneKind.FORE, PlaneKind.JOINTER, PlaneKind.SMOOTHER)
    if plane is not None:
        number = round(strokes_per_mm(float(board.length), float(board.width), plane))
        yield Setting(
            reader.text("Each {figure} costs", figure=write(mm(1))),
            reader.count(number, "{n} stroke", "{n} strokes"),
            reader.text("of the {plane}, over one whole face", plane=reader.text(plane.kind.value)),
        )


def _each(cut: BestCut, reader: Reader) -> str:
    return reader.listed([reader.fine(_down(reach)) for reach in cut.reaches])


def _tenths(millimetres: float) -> Length:
    return from_float(round(millimetres, 1))


def _down(millimetres: float) -> Length:
    return from_float(int(millimetres * 10 + 1e-6) / 10)


def _at(millimetres: float | None, reader: Reader) -> str:
    return reader.length(from_float(round(millimetres or 0.0)))


def _steps(board: Board, found: SurveyFindings, face: BoardFace, reader: Reader) -> Iterator[str]:
    x, y, most = found.job.face(face).highest
    if most > _STANDS:
        high = reader.fine(_tenths(most))
        yield reader.text("Begin {where}: {high} stands there.", where=_where(x, y, board, reader), high=high)
    twist = twist_of(survey_of(board), face)
    yield reader.text("The face is not in wind.") if twist is None else _twist_words(twist, face, board, reader)
    yield reader.text("Where a ringed 0 stands nothing comes off: stop when the plane first cuts there.")


def _where(x: float, y: float, board: Board, reader: Reader) -> str:
    def third(place: float, whole: float) -> int:
        return 0 if place < whole / 3 else 2 if place > whole * 2 / 3 else 1

    return reader.text(_WHERE[third(x, float(board.length)), third(y, float(board.width))])


def _twist_words(twist: Twist, face: BoardFace, board: Board, reader: Reader) -> str:
    long = float(board.length)
    left, right = twist.start, long - twist.end
    if left > long * _TRUE_SHARE and left >= right:
        place, runs = twist.start, _BEGINS
    elif right > long * _TRUE_SHARE:
        place, runs = twist.end, _ENDS
    else:
        place, runs = 0.0, _THROUGHOUT
    said = reader.text(runs, wind=reader.fine(_tenths(abs(twist.wind))), place=_at(place, reader))
    # A lower face is drawn turned over: what is the upper edge of the board is the lower one then.
    high = [each if face is BoardFace.UPPER else each.turned_over for each in twist.high]
    corners = reader.listed([reader.text(_CORNERS[each]) for each in high])
    return f"{said} {reader.text('High: {corners}.', corners=corners)}"


def _remarks(board: Board, found: SurveyFindings, adjusted: Adjusted | None, reader: Reader) -> Iterator[Remark]:
    write = reader.fine
    if found.job.slab.thickness < _NOTHING_LEFT:
        nothing = reader.text(
            "Nothing of {board} is left flat at any thickness: the hollows of one face lie past those of the other. "
            "Crosscut first it gives {cut}, cut both ways {both}.",
            board=board.name,
            cut=write(_down(found.crosscut.least)),
            both=write(_down(found.both.least)),
        )
        yield Remark(nothing, Severity.FAILURE)
    if adjusted is not None and adjusted.contradiction is not None:
        wrong = adjusted.contradiction
        two = _readings(board, (wrong.first, wrong.second), reader)
        said = reader.text(
            "Two readings contradict each other by {apart}: {readings}. Take both again.",
            apart=write(_tenths(wrong.apart)),
            readings=two,
        )
        yield Remark(said, Severity.FAILURE)
    if adjusted is not None and not adjusted.known and adjusted.next_reading is not None:
        said = reader.text(
            "The readings do not fix both faces yet: they are known to {doubt} on the whole, {enough} is enough. Take "
            "next: {reading}.",
            doubt=write(_tenths(adjusted.doubt)),
            enough=write(from_float(KNOWN_WITHIN)),
            reading=reading_words(adjusted.next_reading, reader),
        )
        yield Remark(said, Severity.WARNING)
    elif adjusted is not None:
        yield Remark(reader.text("Both faces are known to {doubt} on the whole.", doubt=write(_tenths(adjusted.doubt))))
    elif board.surface is None:
        yield Remark(
            reader.text(
                "Known by its four figures only: evenly cupped, bowed and wound. Readings at stations tell where."
            )
        )
    if board.rises is Rise.UNKNOWN:
        yield Remark(
            reader.text("Nobody has looked which way the grain rises: see it on the edge, and enter it under Strokes.")
        )
    yield Remark(reader.text("Lift with straight knees; rough faces hold splinters and grit."))


def _readings(board: Board, numbers: Sequence[int], reader: Reader) -> str:
    readings = [board.shape[number] for number in numbers]
    return reader.listed([f"{reading_words(each, reader)} ({reading_figure(each, reader)})" for each in readings])


def _why(board: Board, adjusted: Adjusted | None, reader: Reader) -> str:
    if board.surface is not None:
        return reader.text("From a grid of heights of both faces, taken as it is between its stations.")
    if adjusted is None:
        return reader.text("From cup, bow and twist as parabolas and an even wind, and the thickness.")
    return reader.count(
        len(board.shape),
        "From {n} reading by least squares; what it leaves open is filled in as boards usually are, and told as doubt "
        "(a standard deviation).",
        "From {n} readings by least squares; what they leave open is filled in as boards usually are, and told as "
        "doubt (a standard deviation).",
    )


def sticks_card(reader: Reader) -> Card:
    """Return how winding sticks are read."""
    return Card(
        reader.text("Winding sticks"),
        (
            Setting(
                reader.text("Long"),
                reader.text("twice the width"),
                reader.text("the wind shows twice as large at their ends"),
            ),
        ),
        (
            reader.text("Stand the sticks across both ends, parallel, each in the middle of its length."),
            reader.text("Step back and crouch until the far edge just shows over the near one."),
            reader.text("One end of the far stick shows more: that corner is high. In line from end to end: no wind."),
            reader.text(
                "How much: at the stick’s end, against the pale inlaid edge, {deep} deep.", deep=reader.length(mm(7))
            ),
            reader.text("Move the far stick in: where it first comes into line, the wind begins."),
        ),
        (Remark(reader.text("A tilted head tilts both edges alike: look at the gap between them, not at either.")),),
    )
