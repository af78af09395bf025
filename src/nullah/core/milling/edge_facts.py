"""What is told of planing, as facts: steps and guide lines of edges, and why something cannot be. Figures are mm.

`core/wording/edges.py` says them.
"""

from __future__ import annotations

from enum import Enum, auto

from nullah.core.errors import FactError
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple

# --- why one cannot be planed ----------------------------------------------------------------------


class EdgeWrong(Enum):
    """What is wrong with the figures of an edge or a taper, where no figure needs to be named."""

    NO_EDGE = auto()
    IS_A_BEVEL = auto()
    NO_LENGTH = auto()
    NO_CHAMFER = auto()
    NO_ROUND = auto()
    NO_THUMBNAIL = auto()
    NO_PANEL = auto()
    BEVEL_ANGLE = auto()
    TAPER_BELOW_TOE = auto()
    NO_TAPER = auto()
    NO_FACES = auto()


class RoundTooWide(FrozenRecord):
    """A round does not fit into its rabbet."""

    radius: float
    rabbet: float


class ThumbnailTooDeep(FrozenRecord):
    """Shoulder and round take more than the board has."""

    taken: float
    thickness: float


class FallTooDeep(FrozenRecord):
    """A bevel leaves nothing of a panel."""

    fall: float
    thickness: float


class EdgeTooThick(FrozenRecord):
    """The edge of a panel does not enter its groove."""

    edge: float
    groove: float


class BevelTooWide(FrozenRecord):
    """A slanting cut reaches over the whole board."""

    degrees: float
    reach: float
    width: float


class TaperTooDeep(FrozenRecord):
    """Nothing is left at the toe; `most` is what must not be reached."""

    most: float


class LowsTooDeep(FrozenRecord):
    """Lows that deep may not stay, not even on a face that is hidden."""

    most: Length


EdgeFact = (
    LowsTooDeep | EdgeWrong | RoundTooWide | ThumbnailTooDeep | FallTooDeep | EdgeTooThick | BevelTooWide | TaperTooDeep
)


class EdgeError(FactError):
    """An edge or a taper that cannot be planed so; `fact` is why."""

    fact: EdgeFact


# --- steps -----------------------------------------------------------------------------------------


class EdgeWork(Enum):
    """A step at an edge that needs no figure."""

    PENCIL = auto()
    ENDS_FIRST = auto()
    TO_BOTH_LINES = auto()
    ROLL_OVER = auto()
    PLANE_RABBET = auto()
    ACROSS_ENDS_FIRST = auto()
    CORNERS_TOGETHER = auto()
    TRY_GROOVE = auto()


class ChamferToLines(NamedTuple):
    """Chamfer at 45° to lines so far from the corner on both sides."""

    line: float


class CornersOff(NamedTuple):
    """Plane the corners off again: so many flats."""

    flats: int


class CutRabbet(NamedTuple):
    """Knife and gauge a rabbet, so far in from the edge and so deep."""

    wide: float
    deep: float


class GaugeBevel(NamedTuple):
    """Gauge so far from the back round all edges, and so far in on the face."""

    edge: float
    wide: float


class EaseLip(NamedTuple):
    """At the groove's lip the bevel is too thick: ease it."""

    thick: float
    groove: float


EdgeStep = EdgeWork | ChamferToLines | CornersOff | CutRabbet | GaugeBevel | EaseLip


class GuideLine(Enum):
    """What a guide line of an edge is measured from."""

    ON_FACE = auto()
    DOWN_EDGE = auto()
    FROM_CORNER = auto()
    RABBET_WIDE = auto()
    RABBET_DEEP = auto()
    ROUND_FROM_CORNER = auto()
    FROM_BACK = auto()
    IN_ON_FACE = auto()
