"""What thickness each rough part can reach, whole and cut first, against what it needs."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nullah.core.bits import Bits, at_once
from nullah.core.breakdown.asks import can_supply
from nullah.core.breakdown.cuts import portions, within
from nullah.core.breakdown.layout import FirstCut, Rect
from nullah.core.breakdown.rough import RoughPart
from nullah.core.fraction import Fraction
from nullah.core.identity import kept_by_value
from nullah.core.lengths import Length, mm
from nullah.core.milling.adjust import adjust
from nullah.core.milling.faces import survey_patch
from nullah.core.milling.slab import thickest_slab
from nullah.core.rack.board import Board

#: A grid that was surveyed is good to this, a standard deviation, mm (common practice).
GRID_SD = 0.1


@dataclass(frozen=True, slots=True)
class Forecast:
    """The thickness a part (or the stave of it that is `piece`) can be had at, from its place on its board.

    `whole` if the board is flattened before the part is sawn out (the board, or what a first cut
    left of it), `cut_first` if the rough part is sawn out and flattened by itself;
    `cut_first_chosen` says which of the two is planned. `lows` is how deep lows may stay on
    its hidden face, which both figures have in them already; `doubt` how far off they may
    be, a standard deviation; `better` a first cut that would help, and what it gives.
    """

    part: str
    piece: str
    board: str
    needs: Length
    whole: Length
    cut_first: Length
    cut_first_chosen: bool
    lows: Length = mm(0)
    doubt: float = 0.0
    better: tuple[FirstCut, Length] | None = None

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
    """Return the thickness a patch of that size (mm) reaches on a board whose four figures were measured.

    Cup and bow are parabolas and twist an even wind: what they are over a patch does not hang
    on where it lies, for moving a parabola or a wind only tilts it.

    Parameters
    ----------
    board : Board
        Known by its four figures.
    along : float
        Size of the patch along the board, mm.
    across : float
        Size of the patch across it, mm.
    """
    along, across = min(along, float(board.length)), min(across, float(board.width))
    return reach(board, 0.0, along, 0.0, across)


def thickest_on(part: RoughPart, boards: tuple[Board, ...]) -> tuple[Length, str]:
    """Return the most that flattening leaves of a rough part cut out of any board that may give it, and that board."""
    return _thickest_on(part.nameless, boards)


@kept_by_value(512)
def _thickest_on(part: RoughPart, boards: tuple[Board, ...]) -> tuple[Length, str]:
    return at_once(thickest_in_bits(part, boards))


def thickest_in_bits(part: RoughPart, boards: tuple[Board, ...]) -> Bits[tuple[Length, str]]:
    """Work out the same board by board."""
    best, name = Length(Fraction(0)), ""
    for board in boards:
        if can_supply(part, board) and part.along <= board.length and part.across <= board.width:
            most = max(most_of(part, board, step) for step in (0.0, 0.5, 1.0))
            yield
            if most > best or not name:
                best, name = most, board.name
    return best, name


def most_of(part: RoughPart, board: Board, share: float) -> Length:
    """Return what flattening leaves of a part cut out at a share of a board's length, in the middle of its width.

    Parameters
    ----------
    part : RoughPart
        A rough part.
    board : Board
    share : float
        0 at the left end of the board, 1 at the right.

    Returns
    -------
    Length
        Down to 0.1 mm.
    """
    along, across = float(part.along), float(part.across)
    if board.by_figures:
        return reach_anywhere(board, along, across)
    x, y = (float(board.length) - along) * share, (float(board.width) - across) / 2
    return reach(board, x, x + along, y, y + across)


@kept_by_value(4096)
def forecast(
    part: tuple[str, str],
    board: Board,
    patch: Patch,
    needs: Length,
    cut_first: bool,
    portion: Rect | None = None,
    lows: Length = mm(0),
) -> Forecast:
    """Forecast the thickness a part that `needs` so much reaches from its patch of a board.

    `part` is its id, and that of the piece it comes of: of a stave its own.
    `portion` is what a first cut leaves of the board with the part in it; the whole board if None.

    Parameters
    ----------
    part : tuple[str, str]
        Its id, and that of the piece it comes of.
    board : Board
        It comes out of.
    patch : Patch
        Of the board it lies on.
    needs : Length
        Its finished thickness.
    cut_first : bool
        Whether it is cut out before it is flattened.
    portion : Rect or None
        Of the board that a first cut leaves, mm; None: the whole.
    lows : Length
        How deep they may stay on a face that is not seen.
    """
    stock = portion or Rect(0.0, 0.0, float(board.length), float(board.width))
    whole = reach(board, stock.x, stock.end, stock.y, stock.top)
    # A place that reaches over the board's edge is complained of elsewhere; here it is cut off.
    x_from, x_to = max(patch.x_from, 0.0), min(patch.x_to, float(board.length))
    y_from, y_to = max(patch.y_from, 0.0), min(patch.y_to, float(board.width))
    on_board = x_to > x_from and y_to > y_from
    alone = reach(board, x_from, x_to, y_from, y_to) if on_board else Length(Fraction(0))
    doubt = 0.0
    if on_board:
        doubt = (
            doubt_of(board, x_from, x_to, y_from, y_to)
            if cut_first
            else doubt_of(board, stock.x, stock.end, stock.y, stock.top)
        )
    return Forecast(*part, board.id, needs, whole + lows, alone + lows, cut_first, lows, doubt)


def best_first_cut(board: Board, placed: Sequence[tuple[Rect, Length]], kerf: float) -> tuple[FirstCut, float] | None:
    """Find the cut through a board, clear of the parts on it, that leaves the worst off of them best off.

    Parameters
    ----------
    board : Board
    placed : sequence of (Rect, Length)
        Where the parts lie, and what each needs.
    kerf : float
        mm.

    Returns
    -------
    (FirstCut, float) or None
        The cut and by how much the part that is worst off then passes what it needs, mm; None where
        no cut passes between the parts.
    """
    whole = Rect(0.0, 0.0, float(board.length), float(board.width))
    best: tuple[FirstCut, float] | None = None
    for crosswise in (True, False):
        for at in _lines_clear_of([rect for rect, _ in placed], whole, crosswise, kerf):
            sides = portions(whole, crosswise, at, kerf)
            homes = [next((side for side in sides if within(rect, side)), None) for rect, _ in placed]
            if not placed or None in homes:
                continue  # a part that reaches over the board's edge is complained of elsewhere
            margin = min(
                float(reach(board, *_sides(home))) - float(needs)
                for home, (_, needs) in zip(homes, placed, strict=True)
                if home is not None
            )
            if best is None or margin > best[1] + 1e-6:
                best = FirstCut(board.id, crosswise, at), margin
    return best


def _sides(rect: Rect) -> tuple[float, float, float, float]:
    return rect.x, rect.end, rect.y, rect.top


def _lines_clear_of(rects: Sequence[Rect], whole: Rect, crosswise: bool, kerf: float) -> list[float]:
    """Return where a cut right through passes between parts: just behind one, just before the next, and midway."""
    spans = sorted((rect.x, rect.end) if crosswise else (rect.y, rect.top) for rect in rects)
    far = whole.end if crosswise else whole.top
    found: list[float] = []
    behind = 0.0
    for low, high in [*spans, (far, far)]:
        room = low - behind - kerf
        if room >= -1e-6 and behind > 0:
            found += [behind, behind + max(0.0, room)] if room < far / 20 else [behind, behind + room / 2, low - kerf]
        behind = max(behind, high)
    # A cut off the very end changes nothing.
    return [at for at in found if far * 0.02 < at < far * 0.98 - kerf]


@kept_by_value(1024)
def doubt_of(board: Board, x_from: float, x_to: float, y_from: float, y_to: float) -> float:
    """Return how far off a thickness may be that was worked out for a patch of a board, a standard deviation, mm.

    Parameters
    ----------
    board : Board
    x_from : float
        Patch along the board, mm.
    x_to : float
        Patch along the board, mm.
    y_from : float
        Patch across the board, mm.
    y_to : float
        Patch across the board, mm.

    Returns
    -------
    float
        A standard deviation, mm.
    """
    if board.surface is not None:
        return GRID_SD
    slab = thickest_slab(survey_patch(board, x_from, x_to, y_from, y_to))
    return adjust(board).slab_sd(slab.touching)


@kept_by_value(4096)
def reach(board: Board, x_from: float, x_to: float, y_from: float, y_to: float) -> Length:
    """Return the thickness that a patch of a board (mm) can be flattened to, down to 0.1 mm.

    Parameters
    ----------
    board : Board
    x_from : float
        Patch along the board, mm.
    x_to : float
        Patch along the board, mm.
    y_from : float
        Patch across the board, mm.
    y_to : float
        Patch across the board, mm.

    Returns
    -------
    Length
        Down to 0.1 mm.
    """
    slab = thickest_slab(survey_patch(board, x_from, x_to, y_from, y_to))
    # Down to 0.1 mm: no survey of four figures is worth more, and never promise what is not there.
    return Length(Fraction(int(slab.thickness * 10 + 1e-6), 10))
