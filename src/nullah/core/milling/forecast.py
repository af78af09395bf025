"""What thickness each rough part can reach, whole and cut first, against what it needs."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache

from nullah.core.lengths import Length
from nullah.core.milling.slab import thickest_slab
from nullah.core.milling.survey import from_figures
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


def forecast(part: str, board: Board, patch: Patch, needs: Length, cut_first: bool) -> Forecast:
    """Forecast the thickness a part that `needs` so much reaches from its patch of a board."""
    whole = _reach(board, 0.0, float(board.length), 0.0, float(board.width))
    # A place that reaches over the board's edge is complained of elsewhere; here it is cut off.
    x_from, x_to = max(patch.x_from, 0.0), min(patch.x_to, float(board.length))
    y_from, y_to = max(patch.y_from, 0.0), min(patch.y_to, float(board.width))
    on_board = x_to > x_from and y_to > y_from
    alone = _reach(board, x_from, x_to, y_from, y_to) if on_board else Length(Fraction(0))
    return Forecast(part, board.id, needs, whole, alone, cut_first)


@lru_cache(maxsize=4096)
def _reach(board: Board, x_from: float, x_to: float, y_from: float, y_to: float) -> Length:
    slab = thickest_slab(from_figures(board, x_from, x_to, y_from, y_to))
    # Down to 0.1 mm: no survey of four figures is worth more, and never promise what is not there.
    return Length(Fraction(int(slab.thickness * 10 + 1e-6), 10))
