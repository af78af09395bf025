"""The cuts of a board one at a time: what is on the bench before each, and what is in hand after it."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.breakdown.asks import TOLERANCE, Rect
from nullah.core.breakdown.cuts import CutKind, Reach, SawCut
from nullah.core.breakdown.layout import PlacedPart
from nullah.core.named_tuple import NamedTuple


class CutSide(NamedTuple):
    """What a cut leaves on one side: the piece, and the parts in it; waste or an offcut where there are none."""

    piece: Rect
    parts: tuple[PlacedPart, ...]


class SawStep(NamedTuple):
    """One cut: what lies aside already, the piece in hand, and what comes of it (near the start, and beyond).

    `hanging` is what hangs on the piece in hand beside a rip that stopped.
    """

    cut: SawCut
    aside: tuple[CutSide, ...]
    near: CutSide
    beyond: CutSide
    hanging: tuple[CutSide, ...] = ()


def saw_steps(cuts: Sequence[SawCut], placed: Sequence[PlacedPart], board: Rect, kerf: float) -> tuple[SawStep, ...]:
    """Return what there is before and after each cut, in order.

    Parameters
    ----------
    cuts : sequence of SawCut
        Of one board, in order.
    placed : sequence of PlacedPart
        What lies on it.
    board : Rect
        The whole board, mm.
    kerf : float
        mm.
    """
    pieces = [board]
    slit: list[Rect] = []
    steps = []
    for cut in cuts:
        pieces.remove(cut.piece)
        sides = _parted(cut, kerf)
        hanging = [piece for piece in pieces if piece in slit and cut.reach is Reach.TO_RIP]
        near, beyond, *others = (CutSide(each, _within(each, placed)) for each in (*sides, *hanging))
        aside = tuple(CutSide(piece, _within(piece, placed)) for piece in pieces if piece not in hanging)
        steps.append(SawStep(cut, aside, near, beyond, tuple(others)))
        pieces += sides
        if cut.reach is Reach.STOPPED:
            slit = list(sides)
        elif cut.reach is Reach.TO_RIP:
            slit += [side.piece for side in (near, beyond) if not side.parts]
    return tuple(steps)


def _parted(cut: SawCut, kerf: float) -> tuple[Rect, Rect]:
    piece = cut.piece
    if cut.kind is CutKind.CROSS:
        start = cut.x + kerf
        return (
            Rect(piece.x, piece.y, cut.x - piece.x, piece.width),
            Rect(start, piece.y, max(0.0, piece.end - start), piece.width),
        )
    start = cut.y + kerf
    return (
        Rect(piece.x, piece.y, piece.length, cut.y - piece.y),
        Rect(piece.x, start, piece.length, max(0.0, piece.top - start)),
    )


def _within(piece: Rect, placed: Sequence[PlacedPart]) -> tuple[PlacedPart, ...]:
    return tuple(
        item
        for item in placed
        if item.rect.x >= piece.x - TOLERANCE
        and item.rect.y >= piece.y - TOLERANCE
        and item.rect.end <= piece.end + TOLERANCE
        and item.rect.top <= piece.top + TOLERANCE
    )
