"""What the proof can find wrong, as facts; `core/wording/proof.py` says them. Parts are told by their ids."""

from __future__ import annotations

from enum import Enum, auto

from nullah.core.catalogue import N_
from nullah.core.errors import Fact
from nullah.core.fixes import Fix
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length, Slope
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.space import Axis, Box, Side

Sizes = tuple[Length, Length, Length]


class FaultKind(Enum):
    """The kinds of things that can be wrong; the value is a short name for a list."""

    COLLISION = N_("collision")
    GAP = N_("gap")
    APART = N_("do not meet")
    SHOWS = N_("shows")
    THIN = N_("wall too thin")
    NOTCH = N_("notched wrong")
    FIT = N_("does not fit")
    PIN = N_("pin too fine")
    PASS = N_("cannot come out")
    TRAPPED = N_("cannot be assembled")
    CROSS_GRAIN = N_("cross-grain")
    SEASON = N_("no room for the season")
    SAG = N_("sags")
    MADE_OTHERWISE = N_("made otherwise")


class Channel(Enum):
    """What is cut into a board to take another; the value is its name."""

    RABBET = N_("rabbet")
    GROOVE = N_("groove")
    DADO = N_("dado")
    MORTISE = N_("mortise")
    NOTCH = N_("notch")


class Collision(FrozenRecord):
    """Two parts fill the same space of these sizes; `joined` where a joint should have shared it out."""

    first: str
    second: str
    sizes: Sizes
    joined: bool


class Void(FrozenRecord):
    """A gap of these sizes is left in a joint."""

    first: str
    second: str
    sizes: Sizes


class Apart(FrozenRecord):
    """Two parts that are joined do not reach each other; `joint` is what their joint is called."""

    first: str
    second: str
    gap: Length
    joint: str


class NoCorner(FrozenRecord):
    """Two parts do not make the corner that their joint asks for; `joined` says how they were to be joined."""

    first: str
    second: str
    joined: str


class ButtGap(FrozenRecord):
    """Two parts that should touch stand apart."""

    first: str
    second: str
    gap: Length


class EdgesOnly(FrozenRecord):
    """Two parts touch along an edge only."""

    first: str
    second: str


class TailsShort(FrozenRecord):
    """Tails end inside the pin board, or leave too thick a lap."""

    tail: str
    pin: str
    short: Length
    lapped: bool


class NoLap(FrozenRecord):
    """Tails come through where a lap was to hide them."""

    tail: str
    pin: str


class PinsShort(FrozenRecord):
    """Pins end inside the tail board."""

    pin: str
    tail: str
    short: Length


class StandsOut(FrozenRecord):
    """A board's tails, or its pins, stand out of its mate."""

    part: str
    mate: str
    by: Length
    pins: bool


class Misfit(Enum):
    """How what enters a channel does not fit it along the channel."""

    TOO_DEEP = auto()
    TOO_SHALLOW = auto()
    NOTCHED_TOO_LITTLE = auto()
    NOTCHED_TOO_MUCH = auto()
    PAST_THE_END = auto()
    OPEN_AT_THE_END = auto()


class DoesNotFit(FrozenRecord):
    """A part does not fit its channel along it, or in its depth."""

    misfit: Misfit
    guest: str
    host: str
    channel: Channel
    by: Length


class Width(Enum):
    """How a part's thickness does not suit the width of its channel."""

    PROUD = auto()
    TIGHT = auto()
    LOOSE = auto()


class WidthOff(FrozenRecord):
    """A part is thicker or thinner than its channel is wide."""

    width: Width
    guest: str
    host: str
    channel: Channel
    thickness: Length
    wide: Length
    by: Length


class ShowsWhere(Enum):
    """In which surface of its board a channel shows."""

    END = auto()
    EDGE = auto()
    FACE = auto()


class Shows(FrozenRecord):
    """A channel comes out in a side that is seen."""

    channel: Channel
    guest: str
    host: str
    surface: ShowsWhere
    side: Side


class ThinFloor(FrozenRecord):
    """A channel leaves too little of its board's thickness."""

    host: str
    channel: Channel
    left: Length
    thickness: Length
    least: Length


class Shallow(FrozenRecord):
    """A part goes too little way into another to hold."""

    host: str
    guest: str
    reach: Length
    least: Length


class ThinTongue(FrozenRecord):
    """Too little is left of a part's thickness where it goes into another."""

    guest: str
    host: str
    left: Length
    thickness: Length
    least: Length


class WeakTail(FrozenRecord):
    """A sliding dovetail has too little neck, or slopes that are too steep to hold."""

    guest: str
    host: str
    neck: Length
    least: Length
    slope: Slope
    steepest: Slope


class BoredThrough(FrozenRecord):
    """Holes for dowels come out, or nearly, on the other side of a part."""

    part: str
    other: str
    deep: Length
    size: Length


class DowelsTooMany(FrozenRecord):
    """Dowels stand so near to each other that what is between them splits."""

    first: str
    second: str
    number: int
    apart: Length
    diameter: Length


class PegNearEnd(FrozenRecord):
    """Too little of a tenon is left behind its peg."""

    guest: str
    host: str
    left: Length
    least: Length


class DrawnTooFar(FrozenRecord):
    """The holes of a drawbored tenon lie so far apart that its peg does not find its way."""

    guest: str
    host: str
    draw: Length
    most: Length


class HaunchTooLarge(FrozenRecord):
    """A haunch takes so much of a tenon that too little enters the mortise."""

    guest: str
    haunch: Length
    left: Length


class WedgeShears(FrozenRecord):
    """Too little wood is left of a tenon behind the slot of its wedge."""

    guest: str
    left: Length
    least: Length


class WedgeSlope(FrozenRecord):
    """A wedge is so steep that it jumps out, or so shallow that it never comes out again."""

    guest: str
    slope: Slope
    steepest: Slope
    shallowest: Slope


class ThinEdge(FrozenRecord):
    """A channel leaves too little beside it."""

    host: str
    channel: Channel
    left: Length
    least: Length


class ThinBetween(FrozenRecord):
    """Two channels from either face leave too little between them."""

    host: str
    one: Channel
    two: Channel
    left: Length
    least: Length


class CannotComeOut(FrozenRecord):
    """A part of what moves is too large to pass another; `mover` is the name of what moves."""

    mover: str
    part: str
    other: str
    axis: Axis
    by: Length


class Trapped(FrozenRecord):
    """Parts that hold each other, so that they go together in no order."""

    parts: tuple[str, ...]


class CrossGrain(FrozenRecord):
    """A part is held solid across the grain of one that moves; `change` over the year, 0 if the wood is not known."""

    fixed: str
    to: str
    moving: str
    screwed: bool
    held: Length
    limit: Length
    change: Length


class NoRoom(FrozenRecord):
    """Parts move more over the year than they have room; where they shrink, on what they hold."""

    parts: tuple[str, ...]
    change: Length
    room: Length
    shrinks: bool = False


class Sags(FrozenRecord):
    """A shelf sags so that it shows; `passing` is the span at which it would not. The load is in kg."""

    part: str
    load: float
    drop: Length
    span: Length
    passing: Length


class Repeated(FrozenRecord):
    """The same fact of several places."""

    fact: Fact
    places: int


class NothingReaches(FrozenRecord):
    """No nail or screw, or not the one `chosen`, reaches from one part into the other without coming out of it."""

    first: str
    second: str
    screws: bool
    chosen: Length | None = None


MeetingFact = Collision | Void | Apart | NoCorner | ButtGap | EdgesOnly
TailsFact = TailsShort | NoLap | PinsShort | StandsOut
ChannelFact = DoesNotFit | WidthOff | Shows | ThinFloor | ThinEdge | ThinBetween | Shallow | ThinTongue
HoldFact = (
    WeakTail
    | BoredThrough
    | DowelsTooMany
    | PegNearEnd
    | DrawnTooFar
    | HaunchTooLarge
    | WedgeShears
    | WedgeSlope
    | NothingReaches
)
MovingFact = CannotComeOut | Trapped | CrossGrain | NoRoom | Sags
ProofFact = MeetingFact | TailsFact | ChannelFact | HoldFact | MovingFact


class Fault(NamedTuple):
    """Something of a joint that does not fit.

    Parameters
    ----------
    trouble : FaultKind
    fact : ProofFact
    parts : (str, str)
        The one that is at fault first.
    follow : tuple of str
        The quantities to let follow their rules again, those that were overruled.
    quantity : str
        The one to look at.
    place : Box, optional
    ways_out : tuple of Fix
        What mends it besides.
    """

    trouble: FaultKind
    fact: ProofFact
    parts: tuple[str, str]
    follow: tuple[str, ...] = ()
    quantity: str = ""
    place: Box | None = None
    ways_out: tuple[Fix, ...] = ()
