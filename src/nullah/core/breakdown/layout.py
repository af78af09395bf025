"""Where rough parts lie on boards, and whether a layout can stand.

x runs along a board and y across it, from the lower left corner. Positions are floats in
millimetres here: chalk lines, good to `TOLERANCE`.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from itertools import pairwise

from nullah.core.breakdown.asks import TOLERANCE, Rect, flaw_rect, refusal, rules_out, spoilt
from nullah.core.breakdown.facts import Complaint, Match, NoKerf, Nowhere, OverEdge, OverFlaw, OverPart, Unmatched
from nullah.core.breakdown.rough import RoughPart
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import kept_by_value
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.part import Needs
from nullah.core.rack.board import Board, Faces
from nullah.core.rack.outline import missing

__all__ = [
    "TOLERANCE",
    "FirstCut",
    "PlacedPart",
    "Placement",
    "Rect",
    "Unplaced",
    "complaints",
    "consumed",
    "flaw_rect",
    "place",
    "set_complaints",
    "spoilt",
]

#: Neighbours that are to match may stand this much farther apart than the kerf, mm.
_NEAR = 30.0


class FirstCut(NamedTuple):
    """A cut through a whole board before it is flattened: across it (`at` mm along), or along it (`at` mm across)."""

    board: str
    crosswise: bool
    at: float


class Placement(FrozenRecord):
    """A rough part's place on a board: its corner nearest the board's lower left, in mm.

    A `pinned` one stays where it is when the search lays the rest. `flipped` is laid end for
    end; where `over`, its face side is the board's lower face.
    """

    part: str
    board: str
    x: float
    y: float
    pinned: bool = False
    flipped: bool = False
    over: bool = False


class PlacedPart(NamedTuple):
    """A rough part and the rectangle it takes on its board."""

    part: RoughPart
    board: str
    rect: Rect
    pinned: bool = False
    flipped: bool = False
    over: bool = False

    @property
    def face(self) -> Faces:
        """Which face of the board becomes the part's face side."""
        return Faces.DOWN if self.over else Faces.UP


class Unplaced(NamedTuple):
    """A part that lies nowhere, why, and how many staves would do; 0 where that is no way out."""

    part: RoughPart
    why: Nowhere
    staves: int = 0


def place(part: RoughPart, placement: Placement) -> PlacedPart:
    """Put a rough part at its place."""
    rect = Rect(placement.x, placement.y, float(part.along), float(part.across))
    return PlacedPart(part, placement.board, rect, placement.pinned, placement.flipped, placement.over)


def complaints(board: Board, placed: Iterable[PlacedPart], kerf: Length) -> dict[str, Complaint]:
    """Return, by part id, why a part cannot lie where it does; empty if all can.

    Neighbours stand a kerf apart; the board's edges and a flaw's border need none.

    Parameters
    ----------
    board : Board
    placed : Iterable[PlacedPart]
        Parts on it.
    kerf : Length
        Of the saw.
    """
    return dict(_complaints(board, tuple(placed), float(kerf)))


@kept_by_value(512)
def _complaints(board: Board, parts: tuple[PlacedPart, ...], kerf: float) -> tuple[tuple[str, Complaint], ...]:
    gone = tuple(Rect(start, low, end - start, high - low) for start, low, end, high in missing(board))
    found = ((item.part.id, _complaint(board, item, parts, kerf, gone)) for item in parts)
    return tuple((part, why) for part, why in found if why is not None)


def _complaint(
    board: Board, item: PlacedPart, others: tuple[PlacedPart, ...], kerf: float, gone: tuple[Rect, ...]
) -> Complaint | None:
    rect, part = item.rect, item.part
    refused = refusal(part, board)
    if refused is not None:
        return refused
    over_end, over_edge = rect.end - float(board.length), rect.top - float(board.width)
    if min(rect.x, rect.y) < -TOLERANCE or over_end > TOLERANCE or over_edge > TOLERANCE:
        return OverEdge(board.name, crooked=False)
    if any(rect.meets(each) for each in gone):
        return OverEdge(board.name, crooked=True)
    for flaw in board.flaws:
        if rect.meets(flaw_rect(flaw)) and rules_out(flaw, part, board, item.face):
            turned = part.needs is Needs.ONE_FACE and not any(
                rect.meets(flaw_rect(each)) and rules_out(each, part, board, _other(item.face)) for each in board.flaws
            )
            return OverFlaw(flaw.kind, flaw.faces, board.name, turned)
    for other in others:
        if other.part.id != part.id and rect.meets(other.rect, kerf):
            return OverPart(other.part.name) if rect.meets(other.rect) else NoKerf(other.part.name)
    return None


def consumed(board: Board, placed: Iterable[PlacedPart]) -> float:
    """Return the wood used of a board in mm²: its width times the farthest end of any part."""
    return float(board.width) * max((item.rect.end for item in placed), default=0.0)


def _other(face: Faces) -> Faces:
    return Faces.UP if face is Faces.DOWN else Faces.DOWN


def set_complaints(pieces: Sequence[RoughPart], placed: Iterable[PlacedPart], kerf: Length) -> dict[str, Unmatched]:
    """Return, by piece id, which parts that are to match do not lie as they should; empty if all do.

    Parts that come from one board in order lie end to end as they are numbered; neighbours
    touch but for a saw cut and a little.

    Parameters
    ----------
    pieces : Sequence[RoughPart]
        All rough parts.
    placed : Iterable[PlacedPart]
        Those that lie on boards.
    kerf : Length
        Of the saw.
    """
    at = {item.part.id: item for item in placed}
    sets: dict[str, list[RoughPart]] = {}
    for piece in pieces:
        if piece.together and piece.id in at:
            sets.setdefault(piece.together, []).append(piece)
    found: dict[str, Unmatched] = {}
    for name, members in sets.items():
        members.sort(key=lambda piece: piece.number)
        for one, two in pairwise(members):
            first, second = at[one.id], at[two.id]
            if first.board != second.board:
                found[two.id] = Unmatched(Match.OTHER_BOARD, one.name, name)
            elif one.in_order and not _follows(first.rect, second.rect, float(kerf)):
                found[two.id] = Unmatched(Match.NOT_IN_ORDER, one.name, name)
            elif not first.rect.meets(second.rect, float(kerf) + _NEAR):
                found[two.id] = Unmatched(Match.NOT_BESIDE, one.name, name)
    return found


def _follows(one: Rect, two: Rect, kerf: float) -> bool:
    """Return whether one rectangle follows another along the board, either way round, in the same lane."""
    side = min(one.top, two.top) - max(one.y, two.y) > min(one.width, two.width) / 2
    gap = max(two.x - one.end, one.x - two.end)
    return side and -TOLERANCE <= gap <= kerf + _NEAR
