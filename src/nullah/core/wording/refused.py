"""What is said of what cannot be: lengths and days that cannot be read, boards, air, wood, hours and figures."""

from __future__ import annotations

from typing import assert_never, get_args

from nullah.core.bench.book import HasZone
from nullah.core.bench.hours import HoursBackwards, HoursFact, HoursFault, NoHours
from nullah.core.catalogue import N_
from nullah.core.joints.dovetail.spacing import SpacingFault
from nullah.core.joints.fasteners import FastenerFault
from nullah.core.joints.tolerance_facts import LEAST_TRIALS, ToleranceFault
from nullah.core.lengths import LengthFault, NoLength
from nullah.core.limits import (
    COUNT,
    DIGITS,
    LENGTH_TEXT,
    LONGEST_MM,
    WEIGHT_KG,
    YEARS,
    DayFact,
    NotADay,
    NotATime,
    YearOutside,
    quoted,
)
from nullah.core.milling.survey_facts import FacesCross, SurveyFact, SurveyFault, SurveyGaps
from nullah.core.past_limits import (
    Counted,
    CountedOfBoard,
    LimitFact,
    TextTooLong,
    TooMany,
    TooManyFigures,
    TooManyOfBoard,
)
from nullah.core.piece.contours import ContourFault, NoContour
from nullah.core.rack.board import (
    BoardFact,
    BoardFault,
    FlawOutside,
    NoBoard,
    NoHumidity,
    NoPrice,
    NoReading,
    NoSize,
    NoTemperature,
    SizeFault,
)
from nullah.core.rack.sizes import NoYardSize
from nullah.core.reader import Reader
from nullah.core.wood.climate import MONTHS, NotTwelveMonths, OfMonth
from nullah.core.wood.moisture import HumidityOutside, TemperatureOutside
from nullah.core.wood.movement import MoistureOutside
from nullah.core.wood.species import NoSpecies
from nullah.core.wording.laying import FLAWS
from nullah.core.wording.worders import worders

_LENGTHS = {
    LengthFault.TEXT_TOO_LONG: N_("{text} is too long for a length: {characters} characters at most."),
    LengthFault.NOTHING: N_("Type a length, such as 1 7/8 in or 47.5 mm."),
    LengthFault.TOO_MANY_DIGITS: N_("{text} has more than {digits} digits in a row: check the number."),
    LengthFault.TOO_LONG: N_("{text} is longer than {metres} m: check the number."),
    LengthFault.TWO_SIGNS: N_("{text}: two signs follow each other."),
    LengthFault.NO_LENGTH: N_("{text} is not a length. Try 1 7/8 in, 47.5 mm or 18+0.5."),
    LengthFault.UNKNOWN_UNIT: N_("{text} is not a unit known here. Use mm, cm, m, in or ft."),
    LengthFault.TWO_LENGTHS: N_("{text}: put + or - between the two lengths."),
    LengthFault.ENDS_IN_SIGN: N_("{text} ends in a sign with nothing behind it."),
    LengthFault.UNIT_MISSING: N_("{text}: write the unit behind {number} too."),
    LengthFault.OVER_NOTHING: N_("{text} over 0: a fraction cannot have 0 below the line."),
    LengthFault.NO_SLOPE: N_("{text} is not a slope. Write it as 1:7."),
    LengthFault.SLOPE_OUTSIDE: N_("A slope of 1:{number} cannot be sawn or would not hold. Use 1:4 to 1:12."),
    LengthFault.NO_WEIGHT: N_("{text} is not a weight. Try 12 kg or 25 lb."),
    LengthFault.TOO_HEAVY: N_("{text} is more than {kilograms} kg: check the number."),
    LengthFault.NO_COUNT: N_("{text} is not a number of pieces. Use 1 to {most}."),
}
_CONTOURS = {
    ContourFault.NOT_POSITIVE: N_("The {figure} must be more than nothing."),
    ContourFault.LARGER_THAN_BOARD: N_("The {figure} is larger than the board."),
    ContourFault.TWO_LENGTHS_WANTED: N_("Line {line} of the template: two lengths are wanted, along and in."),
    ContourFault.TOO_FEW_POINTS: N_("A template needs at least two points, one a line: along, in."),
}
_BOARDS = {
    BoardFault.OUTLINE_OUTSIDE: N_("{board}: its outline reaches over the board it was drawn on."),
    BoardFault.EDGE_BACKWARDS: N_("{board}: the points of an edge must follow one another along the board."),
    BoardFault.CALLIPER_OUTSIDE: N_("{board}: a caliper reading lies off the board."),
    BoardFault.STRAIGHTEDGE_OUTSIDE: N_("{board}: a straightedge reading lies off the board."),
    BoardFault.STRAIGHTEDGE_SHORT: N_("{board}: a straightedge over so little tells nothing."),
    BoardFault.STICKS_OUTSIDE: N_("{board}: winding sticks stand on the board, well apart."),
    BoardFault.CUT_OUTSIDE: N_("{board}: a cut before flattening must go through the board."),
}
_SIZES = {
    SizeFault.NOT_LONG: N_("{board}: a board cannot be {size} long."),
    SizeFault.NOT_WIDE: N_("{board}: a board cannot be {size} wide."),
    SizeFault.NOT_THICK: N_("{board}: a board cannot be {size} thick."),
    SizeFault.CUP: N_("{board}: a cup of {size} is more than the board is wide."),
    SizeFault.BOW: N_("{board}: a bow of {size} is more than the board is wide."),
    SizeFault.TWIST: N_("{board}: a twist of {size} is more than the board is wide."),
    SizeFault.CALLIPER: N_("{board}: the caliper cannot have read {size} there."),
    SizeFault.GAP: N_("{board}: a gap of {size} is more than the board is wide."),
    SizeFault.STICKS_APART: N_("{board}: the sticks cannot stand {size} out of line."),
}
_COUNTED = {
    Counted.BOARDS: N_("There are at most {most} boards on the rack."),
    Counted.OWN_BOARDS: N_("There are at most {most} boards of one's own."),
    Counted.BOOK_ENTRIES: N_("There are at most {most} entries in the Day Book."),
    Counted.PLACES: N_("There are at most {most} places of parts."),
    Counted.TOOLS: N_("There are at most {most} tools of a kind."),
    Counted.STAVES: N_("A panel has at most {most} staves."),
    Counted.SHAPINGS: N_("A board has at most {most} shapings."),
    Counted.SURVEY_PLACES: N_("A survey has at most {most} places."),
}
_COUNTED_OF_BOARD = {
    CountedOfBoard.FLAWS: N_("There are at most {most} flaws on {board}."),
    CountedOfBoard.READINGS: N_("There are at most {most} readings of {board}."),
    CountedOfBoard.SHAPE_READINGS: N_("There are at most {most} readings of the shape of {board}."),
    CountedOfBoard.EDGE_POINTS: N_("There are at most {most} points of an edge of {board}."),
}
_SURVEYS = {
    SurveyFault.NO_READINGS: N_("There are no readings."),
    SurveyFault.NOT_A_NUMBER: N_("A reading is not a number."),
    SurveyFault.TOO_FEW: N_("Readings at two places along and two across are the least that make a surface."),
    SurveyFault.TWO_AT_ONE_PLACE: N_("Two readings are at the same place."),
}
_FIGURES = {
    ToleranceFault.NO_TAIL: N_("A dovetail has one tail or more."),
    ToleranceFault.NO_OPENING: N_("An opening has a size: give more than nothing."),
    ToleranceFault.HANDS: N_("No hands are so far off."),
    ToleranceFault.TOO_FEW_TRIALS: N_("Fewer than {least} trials say nothing."),
    SpacingFault.ODD_MARKS: N_("Give both edges of every tail: an even number of marks."),
    SpacingFault.MARKS_BACKWARDS: N_("The marks must grow from one edge of the board to its width, which comes last."),
    SpacingFault.NO_WIDTH: N_("The board here must be more than nothing wide."),
    FastenerFault.NO_WOOD: N_("No wood has such a specific gravity."),
    FastenerFault.NO_THICKNESS: N_("A nail or screw has a thickness, and goes in: give more than nothing."),
    FastenerFault.NOTHING_TO_FASTEN: N_(
        "What is fastened has a thickness, and so has what holds it: give more than nothing."
    ),
}


def no_length_words(fact: NoLength, reader: Reader) -> str:
    """Return why text is no length, slope, weight or count."""
    return reader.text(
        _LENGTHS[fact.fault],
        text=quoted(fact.text),
        number=fact.number,
        characters=LENGTH_TEXT,
        digits=DIGITS,
        metres=LONGEST_MM // 1000,
        kilograms=WEIGHT_KG,
        most=COUNT,
    )


def no_contour_words(fact: NoContour, reader: Reader) -> str:
    """Return why a contour cannot be."""
    return reader.text(_CONTOURS[fact.fault], figure=fact.figure, line=fact.line)


def day_words(fact: DayFact | HasZone, reader: Reader) -> str:
    """Return why text is no day or time of a piece of work."""
    match fact:
        case NotADay(text):
            return reader.text("{text} is not a day, such as 2026-12-05.", text=quoted(text))
        case NotATime(text):
            return reader.text("{text} is not a time, such as 2026-12-05T10:30.", text=quoted(text))
        case YearOutside(year):
            return reader.text(
                "{year} is not a year of a piece of work: {first} to {last}.", year=year, first=YEARS[0], last=YEARS[1]
            )
        case HasZone(text):
            return reader.text("{text} has a zone: the book keeps the time of the shop's own clock.", text=quoted(text))
    assert_never(fact)


def hours_words(fact: HoursFact, reader: Reader) -> str:
    """Return why hours at the bench cannot be."""
    match fact:
        case HoursFault.NONE_IN_THE_WEEK:
            return reader.text("There are no hours at the bench in the week: nothing will ever be done.")
        case HoursFault.TAKES_TOO_LONG:
            return reader.text("At these hours it would take more than ten years.")
        case NoHours(text):
            return reader.text("{text} are no hours: such as 18:30-21:00, or nothing.", text=quoted(text))
        case HoursBackwards(text):
            return reader.text("{text} ends before it begins.", text=quoted(text))
    assert_never(fact)


def board_words(fact: BoardFact, reader: Reader) -> str:
    """Return what cannot be of a board, or of the air it lies in."""
    match fact:
        case NoBoard(fault, board):
            return reader.text(_BOARDS[fault], board=board)
        case NoSize(fault, board, size):
            return reader.text(_SIZES[fault], board=board, size=reader.typed(size))
        case NoPrice(text):
            return reader.text("{text} is not a price. Write a number, such as 42.50.", text=quoted(text))
        case NoReading(percent):
            return reader.text("A moisture of {percent} % cannot be; write 0 to 200.", percent=f"{float(percent):g}")
        case FlawOutside(flaw, board):
            return reader.text("The {flaw} lies outside {board}.", flaw=reader.text(FLAWS[flaw]), board=board)
        case NoHumidity(percent):
            return _humidity(float(percent), reader)
        case NoTemperature(celsius):
            return reader.text("{celsius} °C is no air of a room.", celsius=f"{float(celsius):g}")
    assert_never(fact)


def no_yard_size_words(fact: NoYardSize, reader: Reader) -> str:
    """Return that a yard's name of a size is not known."""
    return reader.text("{name} is not a yard size known here. Try 1x12, 2x6 or 4/4.", name=quoted(fact.name))


def limit_words(fact: LimitFact, reader: Reader) -> str:
    """Return what is more than a file may hold."""
    match fact:
        case TooMany(what, most):
            return reader.text(_COUNTED[what], most=f"{most:,}")
        case TooManyOfBoard(what, board, most):
            return reader.text(_COUNTED_OF_BOARD[what], board=board, most=f"{most:,}")
        case TextTooLong(text, most):
            return reader.text(
                "{text} has {count} characters; {most} at most.",
                text=quoted(text),
                count=f"{len(text):,}",
                most=f"{most:,}",
            )
        case TooManyFigures(most):
            return reader.text(
                "A piece holds at most about {most} figures: begin another, or take surveys off boards.",
                most=f"{most:,}",
            )
    assert_never(fact)


def survey_words(fact: SurveyFact, reader: Reader) -> str:
    """Return why readings make no survey; places are said as the table has them."""
    match fact:
        case SurveyFault():
            return reader.text(_SURVEYS[fact])
        case SurveyGaps(places, x, y):
            return reader.count(
                places,
                "The grid has a gap at x {x}, y {y}.",
                "The grid has {n} gaps; the first is at x {x}, y {y}.",
                x=f"{x:g}",
                y=f"{y:g}",
            )
        case FacesCross(x, y):
            return reader.text("At x {x}, y {y} the upper face lies below the lower one.", x=f"{x:g}", y=f"{y:g}")
    assert_never(fact)


AirFact = TemperatureOutside | HumidityOutside | NotTwelveMonths | OfMonth


def air_words(fact: AirFact, reader: Reader) -> str:
    """Return what cannot be of air, or of a year of it."""
    match fact:
        case TemperatureOutside(celsius):
            return reader.text(
                "{celsius} °C is outside what the formula covers: -20 to 110 °C.", celsius=f"{celsius:g}"
            )
        case HumidityOutside(percent):
            return _humidity(percent, reader)
        case NotTwelveMonths(months):
            return reader.text("A year has twelve months; {months} were given.", months=months)
        case OfMonth(month, air):
            return f"{reader.text(MONTHS[month])}: {air_words(air, reader)}"
    assert_never(fact)


def _humidity(percent: float, reader: Reader) -> str:
    return reader.text("A relative humidity of {percent} % cannot be: it runs from 0 to 100 %.", percent=f"{percent:g}")


def wood_words(fact: MoistureOutside | NoSpecies, reader: Reader) -> str:
    """Return why nothing can be said of some wood."""
    match fact:
        case MoistureOutside(percent):
            return reader.text(
                "A moisture content of {percent} % is out of reach here: 0 to 30 %, above which wood does not swell.",
                percent=f"{percent:g}",
            )
        case NoSpecies(name, known):
            return reader.text(
                "{name} is not in the table of species. It holds: {known}.", name=quoted(name), known=", ".join(known)
            )
    assert_never(fact)


def figure_words(fact: ToleranceFault | SpacingFault | FastenerFault, reader: Reader) -> str:
    """Return why figures make no trial, no row of tails and no fastening."""
    return reader.text(_FIGURES[fact], least=LEAST_TRIALS)


#: What says the facts of this room.
WORDERS = worders(
    ((NoLength,), no_length_words),
    ((NoContour,), no_contour_words),
    ((*get_args(DayFact), HasZone), day_words),
    (get_args(HoursFact), hours_words),
    (get_args(BoardFact), board_words),
    ((NoYardSize,), no_yard_size_words),
    (get_args(SurveyFact), survey_words),
    (get_args(LimitFact), limit_words),
    (get_args(AirFact), air_words),
    ((MoistureOutside, NoSpecies), wood_words),
    ((ToleranceFault, SpacingFault, FastenerFault), figure_words),
)
