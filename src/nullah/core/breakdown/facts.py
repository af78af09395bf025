"""Why a part cannot lie where it does, and why one lies nowhere, as facts; `core/wording/laying.py` says them.

Boards and other parts are told by their names.
"""

from __future__ import annotations

from enum import Enum, auto

from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.rack.board import Faces, FlawKind
from nullah.core.wood.movement import GrainCut

# --- a board that does not suit a part ---------------------------------------------------------------


class OtherWood(FrozenRecord):
    """A part is to be of one wood and the board is of another."""

    wanted: str
    board: str
    species: str


class TooThin(FrozenRecord):
    """A part needs more thickness, rough, than the board has."""

    needs: Length
    board: str
    thickness: Length


class NotStraight(FrozenRecord):
    """A part asks for straight grain."""

    board: str


class NotFigured(FrozenRecord):
    """A part asks for figure."""

    board: str


class SawnOtherwise(FrozenRecord):
    """A part asks for a board cut otherwise from the log."""

    wanted: GrainCut
    board: str
    cut: GrainCut


GrainRefusal = NotStraight | NotFigured | SawnOtherwise
Refusal = OtherWood | TooThin | GrainRefusal

# --- a place that does not suit it -------------------------------------------------------------------


class OverEdge(FrozenRecord):
    """A part reaches over the edge of a board, or over what is missing at a crooked one."""

    board: str
    crooked: bool


class OverFlaw(FrozenRecord):
    """A part lies over a flaw; `turned` if it might lie there the other way up."""

    flaw: FlawKind
    faces: Faces
    board: str
    turned: bool


class OverPart(FrozenRecord):
    """A part lies over another."""

    other: str


class NoKerf(FrozenRecord):
    """A part leaves no room for the saw to another."""

    other: str


class Match(Enum):
    """How parts that are to match fail to."""

    OTHER_BOARD = auto()
    NOT_IN_ORDER = auto()
    NOT_BESIDE = auto()


class Unmatched(FrozenRecord):
    """A part does not lie as it should to another of its set."""

    match: Match
    other: str
    set: str


class SawnUp(FrozenRecord):
    """A board is sawn up already."""

    board: str


class Inseparable(FrozenRecord):
    """No straight cut would part a part from the others on its board."""


Placed = OverEdge | OverFlaw | OverPart | NoKerf | Unmatched | SawnUp | Inseparable
Complaint = Refusal | Placed

# --- a board that cannot be sawn ---------------------------------------------------------------------


class NotSawable(FrozenRecord):
    """No cut from edge to edge separates these parts."""

    parts: tuple[str, ...]


class Struck(FrozenRecord):
    """The cut that comes before flattening goes through these parts."""

    parts: tuple[str, ...]


SawFact = NotSawable | Struck


class BoardNotSawable(FrozenRecord):
    """What is pinned on a board keeps it from being sawn."""

    board: str
    why: SawFact


class TooManyParts(FrozenRecord):
    """More parts are asked for than anyone makes."""

    number: int
    most: int


# --- a part that lies nowhere ------------------------------------------------------------------------


class StavesDo(NamedTuple):
    """So many staves of about this width, out of a board, would make the part."""

    number: int
    wide: Length
    board: str


class NoBoards(FrozenRecord):
    """There is no board on the rack."""


class NoWood(FrozenRecord):
    """There is no board of the wood that was chosen."""

    wood: str


class NoneThick(FrozenRecord):
    """No board is thick enough."""

    needs: Length
    thickest: Length


class GrainNowhere(FrozenRecord):
    """No board that is thick enough has the grain that is asked."""

    refusal: GrainRefusal


class NoneWide(FrozenRecord):
    """No board that suits is wide enough."""

    across: Length
    widest: Length
    staves: StavesDo | None


class NoneLong(FrozenRecord):
    """No board that suits is long enough."""

    along: Length
    longest: Length


class NoneClear(FrozenRecord):
    """No board has so wide a clear strip; the widest there is, and on which."""

    across: Length
    along: Length
    clear: Length
    board: str
    staves: StavesDo | None


class FitsOn(FrozenRecord):
    """It fits on boards where nothing lies yet."""

    boards: tuple[str, ...]


class RoomOn(FrozenRecord):
    """There is room for it on boards as things lie."""

    boards: tuple[str, ...]


class TakenUp(FrozenRecord):
    """It would fit on boards, but other parts lie there."""

    boards: tuple[str, ...]


class FlatteningLeaves(FrozenRecord):
    """Flattening leaves too little of every board; the most there is, and of which."""

    most: Length
    board: str
    needs: Length


Nowhere = (
    NoBoards
    | NoWood
    | NoneThick
    | GrainNowhere
    | NoneWide
    | NoneLong
    | NoneClear
    | FitsOn
    | RoomOn
    | TakenUp
    | FlatteningLeaves
)

# --- what is told of a whole layout ------------------------------------------------------------------


class LieNowhere(FrozenRecord):
    """Parts lie on no board, all for one reason."""

    parts: tuple[str, ...]
    why: Nowhere


class LiesWrongly(FrozenRecord):
    """A part cannot lie where it does, and why."""

    part: str
    why: Complaint


class DepthUnknown(FrozenRecord):
    """A flaw in one face lies under a part, and nobody knows how deep it goes."""

    part: str
    flaw: FlawKind
    upper: bool
    board: str


class ToBuyOne(NamedTuple):
    """Boards of one size to ask the yard for; `trade_name` such as 4/4, empty where there is none."""

    number: int
    wood: str
    thickness: Length
    trade_name: str
    width: Length
    length: Length


class BoardsToBuy(FrozenRecord):
    """What to ask the yard for, with so many per cent over for flaws."""

    percent: int
    boards: tuple[ToBuyOne, ...]


class BoardsBeingCounted(FrozenRecord):
    """What to ask the yard for is still being worked out."""


class SawInWaste(FrozenRecord):
    """Where to saw, and what is allowed for the saw."""

    kerf: Length


LayoutFact = LieNowhere | LiesWrongly | DepthUnknown | BoardsToBuy | BoardsBeingCounted | SawInWaste
