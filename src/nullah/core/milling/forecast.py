"""What thickness each rough part can reach, whole and cut first, against what it needs."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache

from nullah.core.breakdown.asks import takes
from nullah.core.breakdown.rough import RoughPart
from nullah.core.lengths import Length
from nullah.core.milling.slab import thickest_slab
from nullah.core.milling.survey import survey_patch
from nullah.core.rack.board import Board


@dataclass(frozen=True, slots=True)
class Forecast:
    """The thickness a part can be had at, from its place on its board.

    `whole` if the board is flattened before it is cut, `cut_first` if the rough part is
    sawn out and flattened by itself; `cut_first_chosen` says which of the two is planned.
    """

    part: str
    board: str
    needs: Length
    whole: Length
    cut_first: Length
    cut_first_chosen: bool

    @property
    def reach(self) -> Length:
        """What the chosen way gives."""
        return self.cut_first if self.cut_first_chosen else self.whole

    @property
    def short(self) -> Length:
        """How much is missing; nothing or less if the part can be had."""
        return self.needs - self.reach


@dataclass(frozen=True, slots=True)
class Patch:
    """The rectangle of a board that a rough part takes, mm."""

    x_from: float
    x_to: float
    y_from: float
    y_to: float


def reach_anywhere(board: Board, along: float, across: float) -> Length:
    """Give the thickness a patch of that size (mm) reaches on a board whose four figures were measured.

    Cup and bow are parabolas and twist an even wind: what they are over a patch does not hang
    on where it lies, for moving a parabola or a wind only tilts it.
    """
    along, across = min(along, float(board.length)), min(across, float(board.width))
    return reach(board, 0.0, along, 0.0, across)


def thickest_on(part: RoughPart, boards: Sequence[Board]) -> tuple[Length, str]:
    """Give the most that flattening leaves of a rough part cut out of any board that may give it, and that board."""
    best, name = Length(Fraction(0)), ""
    for board in boards:
        if takes(part, board) and part.along <= board.length and part.across <= board.width:
            most = max(most_of(part, board, step) for step in (0.0, 0.5, 1.0))
            if most > best or not name:
                best, name = most, board.name
    return best, name


def most_of(part: RoughPart, board: Board, share: float) -> Length:
    """Give what flattening leaves of a part cut out at a share of the way along a board, in the middle of its width."""
    along, across = float(part.along), float(part.across)
    if board.surface is None:
        return reach_anywhere(board, along, across)
    x, y = (float(board.length) - along) * share, (float(board.width) - across) / 2
    return reach(board, x, x + along, y, y + across)


def forecast(part: str, board: Board, patch: Patch, needs: Length, cut_first: bool) -> Forecast:
    """Forecast the thickness a part that `needs` so much reaches from its patch of a board."""
    whole = reach(board, 0.0, float(board.length), 0.0, float(board.width))
    # A place that reaches over the board's edge is complained of elsewhere; here it is cut off.
    x_from, x_to = max(patch.x_from, 0.0), min(patch.x_to, float(board.length))
    y_from, y_to = max(patch.y_from, 0.0), min(patch.y_to, float(board.width))
    on_board = x_to > x_from and y_to > y_from
    alone = reach(board, x_from, x_to, y_from, y_to) if on_board else Length(Fraction(0))
    return Forecast(part, board.id, needs, whole, alone, cut_first)


@lru_cache(maxsize=4096)
def reach(board: Board, x_from: float, x_to: float, y_from: float, y_to: float) -> Length:
    """Give the thickness that a patch of a board (mm) can be flattened to, down to 0.1 mm."""
    slab = thickest_slab(survey_patch(board, x_from, x_to, y_from, y_to))
    # Down to 0.1 mm: no survey of four figures is worth more, and never promise what is not there.
    return Length(Fraction(int(slab.thickness * 10 + 1e-6), 10))
