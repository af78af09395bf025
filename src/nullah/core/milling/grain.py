"""Which way to plane each face: uphill with the grain, and where it turns."""

from __future__ import annotations

from nullah.core.milling.decide import BoardFace
from nullah.core.named_tuple import NamedTuple
from nullah.core.rack.board import Board, Faces, FlawKind, Rise

# Around a knot the grain turns for about this much of its size on both ends (common practice).
_ROUND_A_KNOT = 0.75


class TurnsHere(NamedTuple):
    """A place, mm along and across the board, where the grain turns, and what is there."""

    start: float
    end: float
    low: float
    high: float
    what: str


class GrainOf(NamedTuple):
    """How to plane a face: `to_right` as the board is drawn (None where nobody looked), and where it tears."""

    to_right: bool | None
    turns: tuple[TurnsHere, ...]


def grain_of(board: Board, face: BoardFace) -> GrainOf:
    """Say which way to plane a face of a board.

    Fibres that rise to the right on the upper face run down to the right under the lower one: what
    is uphill on the one is against the grain on the other.
    """
    to_right: bool | None = None
    if board.rises is not Rise.UNKNOWN:
        to_right = (board.rises is Rise.RIGHT) == (face is BoardFace.UPPER)
    seen = Faces.UP if face is BoardFace.UPPER else Faces.DOWN
    turns = []
    for flaw in board.flaws:
        if flaw.faces not in (seen, Faces.THROUGH) or flaw.kind not in (FlawKind.KNOT, FlawKind.RUNOUT):
            continue
        more = float(flaw.end - flaw.start) * (_ROUND_A_KNOT if flaw.kind is FlawKind.KNOT else 0.0)
        what = "knot" if flaw.kind is FlawKind.KNOT else "run-out"
        turns.append(
            TurnsHere(
                max(0.0, float(flaw.start) - more),
                min(float(board.length), float(flaw.end) + more),
                float(flaw.low),
                float(flaw.high),
                what,
            )
        )
    return GrainOf(to_right, tuple(turns))
