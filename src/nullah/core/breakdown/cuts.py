"""The cuts that take a laid-out board apart, each from edge to edge of the piece in hand."""

from __future__ import annotations

from collections.abc import Sequence
from enum import Enum
from typing import NamedTuple

from nullah.core.breakdown.layout import TOLERANCE, PlacedPart, Rect
from nullah.core.lengths import Direction


class CutKind(Enum):
    """Across the grain or along it."""

    CROSS = "cross"
    RIP = "rip"


class SawCut(NamedTuple):
    """One cut: where it starts, how long it is (mm), and its place in the order.

    The saw takes the kerf beyond the line: from x to x + kerf for a crosscut, y to y + kerf
    for a rip. `piece` is what was in hand. `keeps_low` says that a part ends at the line, so
    that its mark may only be rounded up; otherwise what is kept begins beyond the kerf, and
    the mark may only be rounded down.
    """

    order: int
    kind: CutKind
    x: float
    y: float
    length: float
    piece: Rect
    keeps_low: bool

    @property
    def at(self) -> float:
        """Where the line is: along the board for a crosscut, across it for a rip, mm."""
        return self.x if self.kind is CutKind.CROSS else self.y

    @property
    def rounding(self) -> Direction:
        """Which way its mark is rounded so that no part comes out short."""
        return Direction.UP if self.keeps_low else Direction.DOWN


class NotSawableError(ValueError):
    """No straight cut from edge to edge separates these parts."""

    def __init__(self, names: tuple[str, ...]) -> None:
        listed = ", ".join(names[:-1]) + f" and {names[-1]}"
        super().__init__(f"No cut from edge to edge separates {listed}: move one of them.")
        self.names = names


class _Line(NamedTuple):
    kind: CutKind
    at: float
    parts_below: tuple[PlacedPart, ...]
    parts_above: tuple[PlacedPart, ...]


def saw_cuts(board: Rect, placed: Sequence[PlacedPart], kerf: float) -> tuple[SawCut, ...]:
    """Give the cuts in order, crosscuts first wherever they part the board's parts.

    Parameters
    ----------
    board : Rect
        The whole board, mm.
    placed : sequence of PlacedPart
        What lies on it; nothing overlaps.
    kerf : float
        mm.

    Raises
    ------
    NotSawableError
        If some parts cannot be taken apart by cuts that run edge to edge.
    """
    cuts: list[SawCut] = []

    def take_apart(piece: Rect, parts: tuple[PlacedPart, ...]) -> None:
        if not parts:
            return
        line = _next_line(piece, parts, kerf)
        if line is None:
            if len(parts) > 1:
                raise NotSawableError(tuple(item.part.name for item in parts))
            return
        cross, keeps_low = line.kind is CutKind.CROSS, bool(line.parts_below)
        at = max(line.at, piece.x if cross else piece.y)
        if cross:
            cuts.append(SawCut(len(cuts) + 1, line.kind, at, piece.y, piece.width, piece, keeps_low))
        else:
            cuts.append(SawCut(len(cuts) + 1, line.kind, piece.x, at, piece.length, piece, keeps_low))
        take_apart(_below(piece, line), line.parts_below)
        take_apart(_above(piece, line, kerf), line.parts_above)

    take_apart(board, tuple(placed))
    return tuple(cuts)


def _next_line(piece: Rect, parts: tuple[PlacedPart, ...], kerf: float) -> _Line | None:
    """Choose the next cut: one that parts the parts, across before along; else one that trims."""
    for kind in (CutKind.CROSS, CutKind.RIP):
        for item in sorted(parts, key=lambda each: _far(each.rect, kind)):
            line = _line_at(_far(item.rect, kind), kind, parts, kerf)
            if line is not None and line.parts_below and line.parts_above:
                return line
    return _trimming_line(piece, parts, kerf) if len(parts) == 1 else None


def _line_at(at: float, kind: CutKind, parts: tuple[PlacedPart, ...], kerf: float) -> _Line | None:
    below = tuple(item for item in parts if _far(item.rect, kind) <= at + TOLERANCE)
    above = tuple(item for item in parts if _near(item.rect, kind) >= at + kerf - TOLERANCE)
    if len(below) + len(above) != len(parts):
        return None
    return _Line(kind, at, below, above)


def _trimming_line(piece: Rect, parts: tuple[PlacedPart, ...], kerf: float) -> _Line | None:
    """Cut waste off a single part: far end, near end, far edge, near edge.

    A sliver before it that is thinner than the saw is planed off, not sawn.
    """
    rect = parts[0].rect
    if piece.end - rect.end > TOLERANCE:
        return _Line(CutKind.CROSS, rect.end, parts, ())
    if rect.x - piece.x >= kerf - TOLERANCE and rect.x - piece.x > TOLERANCE:
        return _Line(CutKind.CROSS, rect.x - kerf, (), parts)
    if piece.top - rect.top > TOLERANCE:
        return _Line(CutKind.RIP, rect.top, parts, ())
    if rect.y - piece.y >= kerf - TOLERANCE and rect.y - piece.y > TOLERANCE:
        return _Line(CutKind.RIP, rect.y - kerf, (), parts)
    return None


def _below(piece: Rect, line: _Line) -> Rect:
    if line.kind is CutKind.CROSS:
        return Rect(piece.x, piece.y, line.at - piece.x, piece.width)
    return Rect(piece.x, piece.y, piece.length, line.at - piece.y)


def _above(piece: Rect, line: _Line, kerf: float) -> Rect:
    start = line.at + kerf
    if line.kind is CutKind.CROSS:
        return Rect(start, piece.y, piece.end - start, piece.width)
    return Rect(piece.x, start, piece.length, piece.top - start)


def _far(rect: Rect, kind: CutKind) -> float:
    return rect.end if kind is CutKind.CROSS else rect.top


def _near(rect: Rect, kind: CutKind) -> float:
    return rect.x if kind is CutKind.CROSS else rect.y
