"""Boards as they stand on the rack: rough size, four figures of shape, and flaws."""

from __future__ import annotations

import math
import re
from dataclasses import replace
from enum import Enum, auto
from itertools import pairwise

from nullah.core.errors import FactError
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length, mm
from nullah.core.limits import DayError, read_day
from nullah.core.named_tuple import NamedTuple
from nullah.core.rack.shape_readings import Calliper, Gap, ShapeReading
from nullah.core.wood.movement import GrainCut


class FlawKind(Enum):
    """What can be wrong with a place on a board."""

    CHECK = "check"
    SPLIT = "split"
    KNOT = "knot"
    SAP = "sap"
    WANE = "wane"
    RUNOUT = "runout"


#: Flaws that a part which is seen nowhere may have; the others weaken or are missing wood.
TOLERABLE = frozenset({FlawKind.KNOT, FlawKind.SAP})


class Faces(Enum):
    """Which faces of the board, as it is drawn, a flaw is seen on."""

    THROUGH = "through"
    UP = "upper"
    DOWN = "lower"


class GrainFigure(Enum):
    """How the grain of a board looks along it."""

    PLAIN = "plain"
    STRAIGHT = "straight"
    FIGURED = "figured"


class Rise(Enum):
    """Towards which end, as it is drawn, the grain rises to the upper face of a board."""

    UNKNOWN = "unknown"
    RIGHT = "right"
    LEFT = "left"


class BoardFault(Enum):
    """What cannot be of a board, or of a reading on it."""

    OUTLINE_OUTSIDE = auto()
    EDGE_BACKWARDS = auto()
    CALLIPER_OUTSIDE = auto()
    STRAIGHTEDGE_OUTSIDE = auto()
    STRAIGHTEDGE_SHORT = auto()
    STICKS_OUTSIDE = auto()
    CUT_OUTSIDE = auto()


class SizeFault(Enum):
    """Which size of a board, or which reading on it, cannot be."""

    NOT_LONG = auto()
    NOT_WIDE = auto()
    NOT_THICK = auto()
    CUP = auto()
    BOW = auto()
    TWIST = auto()
    CALLIPER = auto()
    GAP = auto()
    STICKS_APART = auto()


class NoBoard(FrozenRecord):
    """What cannot be of a board, by the board's name."""

    fault: BoardFault
    board: str


class NoSize(FrozenRecord):
    """A size that a board or a reading on it cannot have."""

    fault: SizeFault
    board: str
    size: Length


class NoPrice(FrozenRecord):
    """Text that is no price."""

    text: str


class NoReading(FrozenRecord):
    """A moisture that no meter reads, %."""

    percent: Fraction


class FlawOutside(FrozenRecord):
    """A flaw that lies outside its board."""

    flaw: FlawKind
    board: str


class NoHumidity(FrozenRecord):
    """A relative humidity that no air has, %."""

    percent: Fraction


class NoTemperature(FrozenRecord):
    """A temperature that no room has, °C."""

    celsius: Fraction


BoardFact = NoBoard | NoSize | NoPrice | NoReading | FlawOutside | NoHumidity | NoTemperature


class BoardError(FactError):
    """A board or flaw that cannot be; the message says which and why."""


class Flaw(FrozenRecord):
    """A rectangle of a board that is not clear wood.

    `start`-`end` along the length, `low`-`high` across the width, from the board's lower
    left corner as it is drawn. `depth` is how deep it goes from its face, None where
    nobody knows; a flaw that is seen on both faces goes through.
    """

    kind: FlawKind
    start: Length
    end: Length
    low: Length
    high: Length
    faces: Faces = Faces.THROUGH
    depth: Length | None = None


class Reading(NamedTuple):
    """What a moisture meter showed: the day, such as ``2026-11-23``, and per cent."""

    day: str
    percent: Fraction


#: A point of an outline: where along the board, and how far across it, from the lower edge.
EdgePoint = tuple[Length, Length]


class Board(FrozenRecord):
    """A rough board.

    Parameters
    ----------
    id, name : str
        `id` is what the rest of the project calls it by; `name` is the user's.
    length, width, thickness : Length
        Rough, as it stands.
    cup, bow, twist : Length
        Cup: how far the middle of the width stands above the edges. Bow: how far the middle
        of the length stands above the ends. Twist: how far one corner stands up when the
        other three lie flat. May be negative.
    flaws : tuple of Flaw
    price : Fraction
        What the whole board cost, in whatever money it was paid; 0 where that is not known.
    colour, source : str
        A note on its colour; where it is from.
    dressed : bool
        Whether it was planed when it was bought.
    figure : GrainFigure
    heart : (across, up) or None
        Where the heart of the tree lies, seen on the board's left end: mm from its lower edge
        and above its lower face. None where nobody looked; `cut` says the rest.
    low_edge, high_edge : tuple of EdgePoint
        A crooked or tapered outline: the edge runs straight from point to point. Empty where
        the edge is straight.
    readings : tuple of Reading
        Of the moisture meter, oldest first.
    surface : Surface or None
        A survey of the board as a grid; it overrules the four figures and the shape readings.
    shape : tuple of ShapeReading
        What straightedge, winding sticks and calliper gave; it overrules the four figures.
    rises : Rise
        Which way its grain rises, seen on its upper edge as it is drawn.
    sawn : bool
        Whether it is sawn up already: what lies on it stays, and nothing more can.
    """

    id: str
    name: str
    species: str
    length: Length
    width: Length
    thickness: Length
    cup: Length = mm(0)
    bow: Length = mm(0)
    twist: Length = mm(0)
    cut: GrainCut = GrainCut.FLAT
    flaws: tuple[Flaw, ...] = ()
    price: Fraction = Fraction(0)
    colour: str = ""
    source: str = ""
    dressed: bool = False
    figure: GrainFigure = GrainFigure.PLAIN
    heart: tuple[float, float] | None = None
    low_edge: tuple[EdgePoint, ...] = ()
    high_edge: tuple[EdgePoint, ...] = ()
    readings: tuple[Reading, ...] = ()
    surface: Surface | None = None
    shape: tuple[ShapeReading, ...] = ()
    rises: Rise = Rise.UNKNOWN
    sawn: bool = False

    @property
    def by_figures(self) -> bool:
        """Whether its shape is known by its four figures alone."""
        return self.surface is None and not self.shape

    @property
    def straight(self) -> bool:
        """Whether the board is a rectangle."""
        return not self.low_edge and not self.high_edge


class Surface(NamedTuple):
    """Heights of both faces over a full grid, mm: `top[i][j]` stands at ``xs[i], ys[j]``."""

    xs: tuple[float, ...]
    ys: tuple[float, ...]
    top: tuple[tuple[float, ...], ...]
    bottom: tuple[tuple[float, ...], ...]


def cut_from_heart(width: float, thickness: float, heart: tuple[float, float]) -> GrainCut:
    """Name the cut of a board from where the heart lies, by how its rings meet the face in the middle of the end.

    Rings run square to the line from the heart. Under 30° to the face is flat-sawn, over 60°
    quarter-sawn, between them rift: the usual limits, common practice.

    Parameters
    ----------
    width : float
        Of the board, mm.
    thickness : float
        Of the board, mm.
    heart : tuple[float, float]
        Across from the lower edge and above the lower face, mm.

    Examples
    --------
    >>> cut_from_heart(200, 25, (100, -80)), cut_from_heart(200, 25, (-300, 12))
    (<GrainCut.FLAT: 'flat'>, <GrainCut.QUARTER: 'quarter'>)
    """
    across, up = width / 2 - heart[0], thickness / 2 - heart[1]
    rings = math.degrees(math.atan2(abs(across), abs(up)))
    return GrainCut.FLAT if rings < 30 else GrainCut.RIFT if rings <= 60 else GrainCut.QUARTER


def read_price(text: str) -> Fraction:
    """Read a price: a plain number with up to two places after the point or comma, or nothing.

    Raises
    ------
    BoardError
        For what is none.

    Examples
    --------
    >>> read_price(" 42,50 "), read_price("")
    (Fraction(85, 2), Fraction(0, 1))
    """
    text = text.strip().replace(",", ".")
    if not text:
        return Fraction(0)
    if not re.fullmatch(r"[0-9]{1,7}(\.[0-9]{1,2})?", text):
        raise BoardError(NoPrice(text))
    return Fraction(text)


def write_price(price: Fraction) -> str:
    """Write a price to two places; nothing for a price of nothing.

    Parameters
    ----------
    price : Fraction
        In whatever money.
    """
    return f"{float(price):.2f}" if price else ""


def _no_board(board: Board, fault: BoardFault) -> BoardError:
    return BoardError(NoBoard(fault, board.name))


def _no_size(board: Board, fault: SizeFault, size: Length) -> BoardError:
    return BoardError(NoSize(fault, board.name, size))


def check_board(board: Board) -> None:
    """Raise `BoardError` for a board that cannot be: no size, or a shape past its thickness."""
    for fault, size in (
        (SizeFault.NOT_LONG, board.length),
        (SizeFault.NOT_WIDE, board.width),
        (SizeFault.NOT_THICK, board.thickness),
    ):
        if size.mm <= 0:
            raise _no_size(board, fault, size)
    for fault, size in ((SizeFault.CUP, board.cup), (SizeFault.BOW, board.bow), (SizeFault.TWIST, board.twist)):
        if abs(size.mm) > min(board.length.mm, board.width.mm):
            raise _no_size(board, fault, size)
    for edge in (board.low_edge, board.high_edge):
        if any(x.mm < 0 or x > board.length or y.mm < 0 or y > board.width for x, y in edge):
            raise _no_board(board, BoardFault.OUTLINE_OUTSIDE)
        if any(after[0] <= before[0] for before, after in pairwise(edge)):
            raise _no_board(board, BoardFault.EDGE_BACKWARDS)
    for reading in board.readings:
        check_reading(reading)
    for taken in board.shape:
        _check_shape(board, taken)


def _check_shape(board: Board, reading: ShapeReading) -> None:
    """Raise `BoardError` for a reading that lies off the board or cannot have been taken."""
    long, wide = float(board.length) + 0.5, float(board.width) + 0.5

    def off(place: tuple[float, float]) -> bool:
        return not (-0.5 <= place[0] <= long and -0.5 <= place[1] <= wide)

    if isinstance(reading, Calliper):
        if off(reading.at):
            raise _no_board(board, BoardFault.CALLIPER_OUTSIDE)
        if not 0 < reading.thickness.mm < 4 * board.thickness.mm:
            raise _no_size(board, SizeFault.CALLIPER, reading.thickness)
    elif isinstance(reading, Gap):
        if off(reading.start) or off(reading.end) or off(reading.at):
            raise _no_board(board, BoardFault.STRAIGHTEDGE_OUTSIDE)
        if math.dist(reading.start, reading.end) < 20:
            raise _no_board(board, BoardFault.STRAIGHTEDGE_SHORT)
        if abs(reading.gap.mm) > board.width.mm:
            raise _no_size(board, SizeFault.GAP, reading.gap)
    else:
        if off((reading.near, 0.0)) or off((reading.far, 0.0)) or abs(reading.far - reading.near) < 20:
            raise _no_board(board, BoardFault.STICKS_OUTSIDE)
        if reading.stick.mm <= 0 or abs(reading.rise.mm) > reading.stick.mm:
            raise _no_size(board, SizeFault.STICKS_APART, reading.rise)


def check_reading(reading: Reading) -> None:
    """Raise `BoardError` for a reading that no meter gives, or a day that is none."""
    if not 0 <= reading.percent <= 200:
        raise BoardError(NoReading(reading.percent))
    try:
        read_day(reading.day)
    except DayError as error:
        raise BoardError(error.fact) from None


def fitted_flaw(board: Board, flaw: Flaw) -> Flaw:
    """Return the flaw put right way round and cut to the board's outline.

    Raises
    ------
    BoardError
        If nothing of it lies on the board.
    """
    start, end = sorted((flaw.start, flaw.end), key=lambda length: length.mm)
    low, high = sorted((flaw.low, flaw.high), key=lambda length: length.mm)
    zero = mm(0)
    cut = replace(
        flaw, start=max(start, zero), end=min(end, board.length), low=max(low, zero), high=min(high, board.width)
    )
    if cut.start >= cut.end or cut.low >= cut.high:
        raise BoardError(FlawOutside(flaw.kind, board.name))
    return cut
