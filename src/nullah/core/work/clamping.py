"""Clamps and spreading of glue: how many, how long, and what is too much for one go. Whoever asks is told the same."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

from nullah.core.bench.rates import minutes_of
from nullah.core.bench.working import GLUES, Working
from nullah.core.fraction import Fraction
from nullah.core.identity import kept_by_identity
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.frames import frames_of
from nullah.core.piece.joint import Joint
from nullah.core.piece.overlap import contact
from nullah.core.piece.part import Part
from nullah.core.plan import Plan

#: Clamps across seams stand this far apart, mm: over edges, over joints, over glued faces (common practice).
_EDGES_APART, _JOINTS_APART, FACES_APART = 200, 120, 100
#: Faces wider than this are clamped along both edges, mm (common practice).
_ONE_ROW = 75
#: Of the time of a joint of 1 dm², so much is for handling it, and so much for each dm² that is spread (practice).
_HANDLING, _SPREADING = 0.75, 0.25
#: Of a seam between staves, which only wants to be brushed and laid down, the first is less (practice).
_SEAM_HANDLING = 0.2


def row_of_clamps(long: float, apart: float) -> int:
    """Return how many clamps stand along a length: one at its beginning, and one after each stretch.

    Parameters
    ----------
    long : float
        mm.
    apart : float
        mm.

    Examples
    --------
    >>> row_of_clamps(900, 100), row_of_clamps(99, 100)
    (10, 1)
    """
    return int(long / apart) + 1


def spreading(areas: Iterable[float], seams: bool = False) -> float:
    """Return how much spreading and drawing up some joints are, counted in joints of 1 dm²; areas in mm².

    Parameters
    ----------
    areas : iterable of float
        Of each, mm².
    seams : bool
        Whether they are seams between staves.

    Examples
    --------
    >>> spreading([10_000, 10_000]), spreading([10_000], seams=True)
    (2.0, 0.45)
    """
    handling = _SEAM_HANDLING if seams else _HANDLING
    return sum(handling + _SPREADING * area / 10_000 for area in areas)


def spread_minutes(work: float, working: Working) -> float:
    """Return how long glue is spread and drawn up, shared among the hands, min; `work` as `spreading` counts it.

    Parameters
    ----------
    work : float
        As `spreading` counts it.
    working : Working
        Glue, clamps and people.
    """
    return minutes_of((("glue", work),), working.learned) / max(1, working.people)


def glued_area(plan: Plan, joint: Joint) -> float:
    """Return the area of a joint that is spread, mm²: its two longer ways."""
    touching = _touching(plan, joint)
    if touching is None:
        return 0.0
    _, middle, longest = sorted(touching)
    return middle * longest


def clamps_for(plan: Plan, joints: Sequence[Joint]) -> int:
    """Return how many clamps draw some joints up at one go.

    A row of clamps reaches over both joints at the ends of a part: it is counted once.
    """
    rows: dict[str, int] = {}
    for joint in joints:
        touching = _touching(plan, joint)
        clamps = max(1, math.ceil(max(touching) / _JOINTS_APART)) if touching is not None else 1
        first, second = plan.part(joint.first), plan.part(joint.second)
        spanning = _spans(joint, first, second) if first is not None and second is not None else joint.id
        rows[spanning] = max(rows.get(spanning, 0), clamps)
    return sum(rows.values())


def _spans(joint: Joint, first: Part, second: Part) -> str:
    """Return the part along which a joint is drawn up: that whose end, or whose face, comes against the other."""
    if second.grain is not first.grain:
        return second.id
    return joint.id


def _touching(plan: Plan, joint: Joint) -> tuple[float, float, float] | None:
    first, second = plan.part(joint.first), plan.part(joint.second)
    return None if first is None or second is None else _sizes_of_contact(first, second)


@kept_by_identity(2048)
def _sizes_of_contact(first: Part, second: Part) -> tuple[float, float, float] | None:
    box = contact(first, second)
    if box is None:
        return None
    x, y, z = (float(high - low) for low, high in zip(box.low, box.high, strict=True))
    return x, y, z


class StavesGlueUp(NamedTuple):
    """How a part is glued up of its staves.

    Parameters
    ----------
    part : str
    number : int
        How many staves.
    laminated : bool
        Whether face to face.
    goes : tuple of int
        How many staves are glued at each go; where there are several, these are glued to each other at last.
    clamps : int
        At each go: one row reaches over all seams.
    apart : Length
    minutes : float
        How long the longest go takes to spread and draw up.
    open_minutes : float
        How long the glue stays open.
    """

    part: str
    number: int
    laminated: bool
    goes: tuple[int, ...]
    clamps: int
    apart: Length
    minutes: float
    open_minutes: float

    @property
    def too_long(self) -> bool:
        """Whether a go takes longer than the glue stays open, though no less can be done at one go."""
        return self.minutes > self.open_minutes


def staves_glue_up(plan: Plan, part: Part) -> StavesGlueUp | None:
    """Return how a part is glued up, in several goes where one takes longer than the glue stays open; None if whole."""
    count = max(len(plan.pieces_of(part.id)), part.staves)
    if count < 2:
        return None
    working, stock = plan.project.working, frames_of(plan.assembly)[part.id].stock
    # Strips of a slab stand on edge: what is glued is as high as the slab is thick, as it is between staves.
    long, high = float(stock.length), float(stock.thickness)
    apart = FACES_APART if part.laminated else _EDGES_APART
    rows = 2 if part.laminated and high > _ONE_ROW else 1

    def takes(staves: int) -> float:
        return spread_minutes(spreading([long * high] * (staves - 1), seams=True), working)

    most = GLUES[working.glue].open_minutes
    # As few goes as will do, each of two staves at least.
    enough = (goes for goes in range(1, count // 2 + 1) if takes(math.ceil(count / goes)) <= most)
    number = next(enough, max(1, count // 2))
    goes = tuple(count // number + (each < count % number) for each in range(number))
    clamps = rows * row_of_clamps(long, apart)
    longest = max(takes(each) for each in (*goes, number))
    return StavesGlueUp(part.id, count, part.laminated, goes, clamps, Length(Fraction(apart)), longest, most)


def staves_glue_ups(plan: Plan) -> tuple[StavesGlueUp, ...]:
    """Return how all parts are glued up that are made of staves, equal ones once."""
    found = {part.alike: made for part in plan.parts if (made := staves_glue_up(plan, part)) is not None}
    return tuple(found.values())
