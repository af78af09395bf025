"""The project file: what stands in it, record by record, where the core's own fields do not say it.

Lengths stand as typed, with their unit. `docs/file-format.md` and the JSON Schema beside it are made
from this module by `script/schema`.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import replace
from functools import cache
from itertools import pairwise
from operator import methodcaller
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Discriminator, Field, Tag, TypeAdapter

from nullah.core.bench.book import BookEntry, Timer
from nullah.core.bench.hours import Hours, read_hours, write_hours
from nullah.core.bench.rates import RATES, Learned
from nullah.core.bench.working import GLUES, Working
from nullah.core.breakdown.layout import FirstCut, Placement
from nullah.core.breakdown.rough import Resawn, Staves, WoodRequirement
from nullah.core.breakdown.wishes import SearchWeights
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import LIES, OwnBoard, OwnJoint
from nullah.core.fraction import Fraction
from nullah.core.joints.types import TYPES
from nullah.core.ledger import Measured, Value
from nullah.core.lengths import Length, Marks, read_length, read_slope, read_weight
from nullah.core.limits import (
    BOARDS,
    BOOK_ENTRIES,
    CLAMPS,
    COUNT,
    FLAWS,
    MARK_LEAST,
    MARK_MOST,
    NOTE_TEXT,
    OTHERS,
    OWN_BOARDS,
    PEOPLE,
    READINGS,
    SURVEY_PLACES,
    quoted,
    read_day,
    read_time,
)
from nullah.core.my_shop import MyShop
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.joint import Hold, RowChoice
from nullah.core.piece.part import Needs
from nullah.core.project import Piece, Project
from nullah.core.rack.board import (
    Board,
    Flaw,
    GrainFigure,
    Reading,
    Surface,
    check_board,
    fitted_flaw,
    read_price,
    write_price,
)
from nullah.core.rack.drying import Room
from nullah.core.rack.shape_readings import Calliper, Gap, Wind
from nullah.core.shop import SCHOOLS, Hands, Plane, Schools, Shop
from nullah.core.wood.climate import Climate, climate_of
from nullah.core.wood.finishes import FINISHES
from nullah.core.wood.movement import GrainCut
from nullah.files.records import (
    LENGTH,
    NAME,
    PLACE_MM,
    Kind,
    choice_of,
    coded,
    either,
    named,
    number,
    one_of,
    optional,
    or_empty,
    plain,
    record,
    several,
    tagged,
    together,
    whole,
)
from nullah.files.shapings import SHAPING

FORMAT = "nullah project"
VERSION = 7

# --- values ---------------------------------------------------------------------------------------


def _day(text: str) -> str:
    if text:
        read_day(text)
    return text


def _time(text: str) -> str:
    found = read_time(text).isoformat()
    # The shop's own clock has no zone.
    return text if found.startswith(text) else found


#: A share or a mark: a whole number, a fraction or a decimal of a few digits.
_RATIO = re.compile(r"[0-9]{1,6}(/[0-9]{1,6}|\.[0-9]{1,6})?")


def _ratio(least: Fraction, most: Fraction, *examples: str) -> Kind:
    """Return the kind of fractions within limits, which stand as texts."""

    def read(text: str) -> Fraction:
        try:
            if _RATIO.fullmatch(text) and least <= (found := Fraction(text)) <= most:
                return found
        except ZeroDivisionError:
            pass
        raise ValueError(f"{quoted(text)} is not a number from {least} to {most}")

    return coded(Annotated[str, Field(examples=list(examples))], read, str)


def _decimal(least: float, most: float) -> Kind:
    """Return the kind of exact numbers that stand as decimals."""
    return coded(number(least, most).form, lambda value: Fraction(str(value)), float)


def _known(what: str, ids: Iterable[str]) -> Kind:
    """Return the kind of the ids of what the program knows."""
    known = tuple(ids)

    def check(text: str) -> str:
        if text not in known:
            raise ValueError(f"{quoted(text)} is no {what} that this version knows: {', '.join(known)}")
        return text

    return plain(str, AfterValidator(check), Field(json_schema_extra={"enum": list(known)}))


#: How a weight ends where it was typed; no length does.
_WEIGHTS = ("kg", "lb")


def _read_value(found: int | str) -> Value:
    if isinstance(found, int):
        return found
    if ":" in found:
        return read_slope(found)
    return read_weight(found) if found.endswith(_WEIGHTS) else read_length(found)


def _write_value(value: Value) -> int | str:
    return value if isinstance(value, int) else value.as_text()


DAY = plain(str, AfterValidator(_day), Field(examples=["2026-11-23"]))
TIME = plain(str, AfterValidator(_time), Field(examples=["2026-11-23T18:30"]))
NOTE = plain(str, Field(max_length=NOTE_TEXT))
#: A count, a length or weight as typed, or a slope such as ``1:7``.
VALUE = coded(Annotated[int, Field(ge=0, le=COUNT)] | NAME.form, _read_value, _write_value)
MARK = _ratio(Fraction(1, 1000), Fraction(10), "1/32", "0.5")


def _on_a_rule(mark: Length) -> Length:
    if not MARK_LEAST <= mark.mm <= MARK_MOST:
        raise ValueError(f"{quoted(mark.as_text())} is no mark on a rule")
    return mark


MARK_LENGTH = coded(LENGTH.form, _on_a_rule, methodcaller("as_text"))
SHARE = number(0, 1)
#: What older files call a joint that is held so that it can move.
_ONCE_HELD = {"held by buttons": Hold.SLOTS.value}
HOLD = coded(
    Literal[tuple([*(hold.value for hold in Hold), *_ONCE_HELD])], lambda text: _ONCE_HELD.get(text, text), str
)

ROW = record(
    RowChoice,
    {
        "long": or_empty(LENGTH),
        "thick": or_empty(LENGTH),
        "number": plain(int, Field(ge=0, le=COUNT)),
        "from_end": or_empty(LENGTH),
    },
)

# --- the piece ------------------------------------------------------------------------------------

_READ = record(Measured, {"value": VALUE, "on": DAY})
#: The first versions had the value alone.
MEASURED = Kind(
    Annotated[
        Annotated[VALUE.form, AfterValidator(Measured), Tag("value")] | Annotated[_READ.form, Tag("reading")],
        Discriminator(lambda found: "reading" if isinstance(found, dict) else "value"),
    ],
    _READ.write,
)


class _OwnBoard(NamedTuple):
    """A board of one's own. `lie` is the axis of its length and of its thickness, such as ``xz``."""

    id: str
    name: str
    length: Length
    width: Length
    thickness: Length
    at: tuple[Length, Length, Length]
    lie: str = OwnBoard._field_defaults["lie"]
    shows: str = ""
    inside: bool = False
    shapings: tuple[Any, ...] = ()


_OWN_BOARD = record(
    _OwnBoard,
    {
        "id": plain(str, Field(pattern=r"^own[1-9][0-9]{0,8}$")),
        "lie": one_of(LIES),
        "shows": plain(str, Field(pattern=r"^[lrfbut]*$")),
        "shapings": several(SHAPING, 50),
    },
)
OWN_BOARD = coded(
    _OWN_BOARD.form,
    lambda found: OwnBoard(found.id, found.name, found[2:5], *found[5:]),
    lambda board: _OWN_BOARD.write(_OwnBoard(board.id, board.name, *board.sizes, *board[3:])),
)
OWN_JOINT = record(
    OwnJoint,
    {"id": plain(str, Field(pattern=r"^ownjoint[1-9][0-9]{0,8}$")), "type": _known("joint", TYPES), "hold": HOLD},
    names={"type": "sharing"},
    about="A joint of one's own: `second` enters `first`, or `first` carries the tails.",
)


def _each_once(what: str, kind: Kind, most: int) -> Kind:
    """Return the kind of lists of things with ids, each id once."""

    def check(found: tuple[Any, ...]) -> tuple[Any, ...]:
        if len({each.id for each in found}) != len(found):
            raise ValueError(f"Two {what} have the same id.")
        return found

    listed = several(kind, most)
    return coded(listed.form, check, listed.write)


PIECE = record(
    Piece,
    {
        "form": _known("form", FORMS),
        "choices": named(NAME),
        "given": named(VALUE),
        "measured": named(MEASURED),
        "woods": named(NAME, one_of(("shown", "inside"))),
        "holds": named(HOLD),
        "own": _each_once("boards of one's own", OWN_BOARD, OWN_BOARDS),
        "own_joints": _each_once("joints of one's own", OWN_JOINT, OTHERS),
        "spacings": named(several(_ratio(Fraction(1, 1000), Fraction(1000), "8/5"), COUNT)),
        "rows": named(ROW),
    },
    required=("form", "name"),
    about="What is to be made. Values are lengths and weights as typed, counts, or slopes such as ``1:7``.",
)

# --- the rack and the breakdown -------------------------------------------------------------------

FLAW = record(
    Flaw,
    {"depth": or_empty(LENGTH)},
    names={"start": "from", "end": "to"},
    about="A rectangle of a board: `from` to `to` along it, `low` to `high` across it. `faces` says on which face of "
    "the board as it is drawn it is seen, `depth` how deep it goes from there, empty where nobody knows.",
)
READING = record(Reading, {"day": DAY, "percent": _decimal(0, 200)})


def _full_grid(found: Surface) -> Surface:
    for places in (found.xs, found.ys):
        if any(after <= before for before, after in pairwise(places)):
            raise ValueError("the places of a survey must follow one another")
    if len(found.xs) * len(found.ys) > SURVEY_PLACES:
        raise ValueError(f"a survey may have {SURVEY_PLACES:,} places")
    for face in (found.top, found.bottom):
        if len(face) != len(found.xs) or any(len(row) != len(found.ys) for row in face):
            raise ValueError("a survey must be a full grid")
    return found


_PLACES = several(PLACE_MM, SURVEY_PLACES, 2)
_HEIGHTS = several(several(PLACE_MM, SURVEY_PLACES), SURVEY_PLACES)
SURFACE = record(
    Surface,
    {"xs": _PLACES, "ys": _PLACES, "top": _HEIGHTS, "bottom": _HEIGHTS},
    names={"xs": "xs_mm", "ys": "ys_mm", "top": "top_mm", "bottom": "bottom_mm"},
    check=_full_grid,
    about="A survey as a full grid: heights of both faces in mm; a row for each place along the board.",
)

_FACE = {"upper": either("upper", "lower")}
SHAPE = tagged(
    "kind",
    {
        Gap: (
            "gap",
            record(
                Gap,
                _FACE,
                names={"upper": "face", "start": "from_mm", "end": "to_mm", "at": "at_mm"},
                tags={"kind": ("gap",)},
                about="The gap under a straightedge from `from_mm` to `to_mm`, read at `at_mm` (mm on the board).",
            ),
        ),
        Wind: (
            "wind",
            record(
                Wind,
                _FACE,
                names={"upper": "face", "near": "near_mm", "far": "far_mm"},
                tags={"kind": ("wind",)},
                about="What winding sticks `stick` long show that stand at `near_mm` and `far_mm` along the board.",
            ),
        ),
        Calliper: (
            "calliper",
            record(
                Calliper,
                names={"at": "at_mm"},
                tags={"kind": ("calliper",)},
                about="A thickness at a place, in mm on the board as drawn.",
            ),
        ),
    },
)


def _checked(board: Board) -> Board:
    check_board(board)
    return replace(board, flaws=tuple(fitted_flaw(board, flaw) for flaw in board.flaws))


_EDGE = several(together(LENGTH, LENGTH), COUNT)
BOARD = record(
    Board,
    {
        "id": plain(NAME.form, Field(min_length=1)),
        "flaws": several(FLAW, FLAWS),
        "price": coded(Annotated[NAME.form, Field(examples=["42.50"])], read_price, write_price),
        "low_edge": _EDGE,
        "high_edge": _EDGE,
        "readings": several(READING, READINGS),
        "surface": optional(SURFACE),
        "shape": several(SHAPE, READINGS),
    },
    names={"heart": "heart_mm"},
    check=_checked,
    about="A rough board. `heart_mm` is where the tree's heart lies seen on the left end: mm across and up.",
)
PLACEMENT = record(
    Placement,
    names={"x": "x_mm", "y": "y_mm"},
    about="A rough part's place on a board: its corner nearest the board's lower left corner, in mm.",
)
ASK = record(
    WoodRequirement,
    {
        "needs": or_empty(choice_of(Needs)),
        "figure": or_empty(choice_of(GrainFigure)),
        "rings": or_empty(choice_of(GrainCut)),
    },
    about="What a part asks of its wood; empty asks nothing. Parts with one `together` come from one board.",
)
STAVES = record(
    Staves, {"widths": several(LENGTH, COUNT)}, about="A part glued up from staves of these finished widths."
)
RESAWN = coded(together(NAME, NAME).form, lambda pair: Resawn(*pair), list)
FIRST_CUT = record(
    FirstCut,
    {"crosswise": either("cross", "rip")},
    names={"crosswise": "kind", "at": "at_mm"},
    about="A cut through a whole board before it is flattened, mm along it or across it.",
)
WISHES = record(SearchWeights, {"sawing": SHARE, "value": SHARE, "risk": SHARE})
ROOM = record(
    Room,
    {
        "temperature": optional(_decimal(-60, 100)),
        "humidity": optional(_decimal(0, 100)),
        "reference": several(READING, READINGS),
    },
    names={"temperature": "temperature_c", "humidity": "humidity_percent"},
    about="Where the piece will live: °C, %, and readings of a piece of wood that has always lived there.",
)

# --- the shop and time ----------------------------------------------------------------------------

_SIZES = several(LENGTH, COUNT)
SHOP = record(
    Shop,
    {
        "chisels": _SIZES,
        "planes": several(record(Plane, {"mouth": plain(float, Field(gt=0.05, lt=0.95))}), COUNT),
        "schools": record(Schools, {name: one_of(ways) for name, ways in SCHOOLS.items()}),
        "hands": record(
            Hands, dict.fromkeys(Hands._fields, number(0, 5)), about="How far off hands are, standard deviations in mm."
        ),
        "bits": _SIZES,
        "plough_irons": _SIZES,
    },
    required=("chisels", "kerf", "fine_kerf", "narrowest_pin"),
    about="The tools there are.",
)
MARKS = record(
    Marks,
    {"inch_mark": MARK, "mm_mark": MARK},
    required=("unit",),
    left_out=("catalogue",),
    about="The unit figures are shown in, and the smallest mark of each unit, in that unit.",
)
CLIMATE = record(
    Climate,
    {"months": several(together(number(-20, 60), number(0, 100)), 12, 12)},
    check=lambda found: climate_of(found.name, found.months),
    about="The air where the piece will live: twelve months of °C and % humidity, from January.",
)
LEARNED = record(
    Learned,
    {"factor": plain(float, Field(gt=0, le=100)), "spread": number(0, 10), "records": whole(0, 1_000_000)},
    required=Learned._fields,
)
_LEARNED = named(LEARNED)
HOURS = coded(
    several(coded(NAME.form, read_hours, write_hours), 7, 7).form,
    Hours,
    lambda hours: [write_hours(span) for span in hours.week],
)
_GLUING = {"clamps": whole(0, CLAMPS), "people": whole(1, PEOPLE)}
MY_SHOP = record(MyShop, {"shop": SHOP, "hours": HOURS, **_GLUING})
WORKING = record(
    Working,
    {
        "hours": HOURS,
        "glue": one_of(GLUES),
        **_GLUING,
        "begin": DAY,
        # A rate that this version does not know is of no use to it.
        "rates": coded(_LEARNED.form, lambda pairs: tuple(p for p in pairs if p[0] in RATES), _LEARNED.write),
    },
    required=("hours",),
    about="How one works: hours of each weekday from Monday (such as ``18:30-21:00`` or nothing), glue, clamps, hands.",
)
_MINUTES = number(0, 1_000_000)
ENTRY = record(
    BookEntry,
    {
        "at": TIME,
        "title": NOTE,
        "minutes": _MINUTES,
        "guess": _MINUTES,
        "work": several(together(NAME, plain(float))),
        "text": NOTE,
        "file": NOTE,
    },
    about="A line of the Day Book. `at` is ISO to the minute; `work` how much of what was done.",
)
TIMER = record(Timer, {"since": TIME})

# --- the whole ------------------------------------------------------------------------------------

PROJECT = record(
    Project,
    {
        "piece": PIECE,
        "boards": _each_once("boards", BOARD, BOARDS),
        "shop": SHOP,
        "marks": MARKS,
        "set_out": optional(MARK_LENGTH),
        "layout": several(PLACEMENT),
        "first_cuts": several(FIRST_CUT),
        "asks": named(ASK),
        "staves": several(STAVES),
        "resawn": several(RESAWN),
        "wishes": WISHES,
        "flawed_share": _decimal(0, 0.9),
        "room": ROOM,
        "climate": CLIMATE,
        "finish": one_of(FINISHES),
        "working": WORKING,
        "book": several(ENTRY, BOOK_ENTRIES),
        "timer": optional(TIMER),
    },
    required=("piece", "allowances", "shop", "marks"),
    tags={"format": (FORMAT,), "version": tuple(range(1, VERSION + 1))},
    about="A Nullah project file.",
)


@cache
def project_reader() -> TypeAdapter[Project]:
    """Return what reads a project; it takes a moment to make."""
    return TypeAdapter(PROJECT.form)
