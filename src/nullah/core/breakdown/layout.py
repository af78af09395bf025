"""Where rough parts lie on boards, and whether a layout can stand.

x runs along a board and y across it, from the lower left corner. Positions are floats in
millimetres here: chalk lines, good to `TOLERANCE`.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import NamedTuple

from nullah.core.breakdown.rough import RoughPart
from nullah.core.lengths import Length, Marks
from nullah.core.piece.part import Needs
from nullah.core.rack.board import TOLERABLE, Board, Flaw
from nullah.core.wood.species import same_wood

#: mm; below a sawyer's and far below a pencil's accuracy.
TOLERANCE = 0.01


@dataclass(frozen=True, slots=True)
class Placement:
    """A part's place on a board: its corner nearest the board's lower left, in mm."""

    part: str
    board: str
    x: float
    y: float


class Rect(NamedTuple):
    """A rectangle on a board, mm."""

    x: float
    y: float
    length: float
    width: float

    @property
    def end(self) -> float:
        """Its far end along the board."""
        return self.x + self.length

    @property
    def top(self) -> float:
        """Its far edge across the board."""
        return self.y + self.width

    def meets(self, other: Rect, apart: float = 0.0) -> bool:
        """Say whether the two come closer than `apart` mm in both directions at once."""
        return (
            self.x < other.end + apart - TOLERANCE
            and other.x < self.end + apart - TOLERANCE
            and self.y < other.top + apart - TOLERANCE
            and other.y < self.top + apart - TOLERANCE
        )


class PlacedPart(NamedTuple):
    """A rough part and the rectangle it takes on its board."""

    part: RoughPart
    board: str
    rect: Rect


class Unplaced(NamedTuple):
    """A part that lies nowhere, and why, in a sentence."""

    part: RoughPart
    why: str


def flaw_rect(flaw: Flaw) -> Rect:
    """Give the rectangle of a flaw in mm."""
    return Rect(float(flaw.start), float(flaw.low), float(flaw.end - flaw.start), float(flaw.high - flaw.low))


def forbidden(board: Board, needs: Needs) -> list[Rect]:
    """Give the flaws that a part with these needs may not cover."""
    return [flaw_rect(flaw) for flaw in board.flaws if needs is Needs.CLEAR or flaw.kind not in TOLERABLE]


def place(part: RoughPart, placement: Placement) -> PlacedPart:
    """Put a rough part at its place."""
    rect = Rect(placement.x, placement.y, float(part.along), float(part.across))
    return PlacedPart(part, placement.board, rect)


def complaints(board: Board, placed: Iterable[PlacedPart], kerf: Length, marks: Marks) -> dict[str, str]:
    """Say, by part id, why a part cannot lie where it does; empty if all can.

    Neighbours stand a kerf apart; the board's edges and a flaw's border need none.
    """
    found: dict[str, str] = {}
    parts = list(placed)
    for item in parts:
        why = _complaint(board, item, parts, float(kerf), marks)
        if why:
            found[item.part.id] = why
    return found


def _complaint(board: Board, item: PlacedPart, others: list[PlacedPart], kerf: float, marks: Marks) -> str:
    rect, part = item.rect, item.part
    if not same_wood(part.wood, board.species):
        return f"is to be {part.wood}, and {board.name} is {board.species}"
    if part.thickness.mm > board.thickness.mm:
        return f"needs {marks.write(part.thickness)} rough, and {board.name} is {marks.write(board.thickness)} thick"
    over_end, over_edge = rect.end - float(board.length), rect.top - float(board.width)
    if min(rect.x, rect.y) < -TOLERANCE or over_end > TOLERANCE or over_edge > TOLERANCE:
        return f"reaches over the edge of {board.name}"
    for flaw in board.flaws:
        if (part.needs is Needs.CLEAR or flaw.kind not in TOLERABLE) and rect.meets(flaw_rect(flaw)):
            return f"lies over the {flaw.kind.value} on {board.name}"
    for other in others:
        if other.part.id != part.id and rect.meets(other.rect, kerf):
            if rect.meets(other.rect):
                return f"lies over the {other.part.name}"
            return f"leaves no kerf between itself and the {other.part.name}"
    return ""


def consumed(board: Board, placed: Iterable[PlacedPart]) -> float:
    """Give the wood used of a board in mm²: its width times the farthest end of any part."""
    return float(board.width) * max((item.rect.end for item in placed), default=0.0)
