"""The thickness of every part that is laid, from its place on its board, with the cut that would help."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

from nullah.core.bits import Bits, at_once
from nullah.core.breakdown.cuts import portions, within
from nullah.core.breakdown.layout import PlacedPart, Rect
from nullah.core.fraction import Fraction
from nullah.core.lengths import Length, mm
from nullah.core.milling.forecast import Forecast, Patch, best_first_cut, forecast
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.form import Assembly
from nullah.core.piece.part import INSIDE
from nullah.core.project import Project
from nullah.core.rack.board import Board

Laid = tuple[Board, Sequence[PlacedPart]]


class Stock(NamedTuple):
    """What is flattened in one piece: a board, what a first cut left of it, or a rough part sawn out before.

    `parts` are the parts that lie on it, `needs` the thickest of them, None where there is none.
    """

    board: Board
    rect: Rect
    parts: tuple[str, ...] = ()
    needs: Length | None = None
    lows: Length = mm(0)


def stocks(project: Project, assembly: Assembly, boards: Sequence[Laid]) -> tuple[Stock, ...]:
    """Return all that is flattened in one piece, board by board; a board with nothing on it is whole."""
    found: list[Stock] = []
    for board, placed in boards:
        whole = Rect(0, 0, float(board.length), float(board.width))
        cut = project.first_cut(board.id)
        rects = [whole] if cut is None else list(portions(whole, cut.crosswise, cut.at, float(project.shop.kerf)))
        if board.id in project.cut_first:
            rects = [item.rect for item in placed]
        for rect in rects:
            parts = [part for item in placed if within(item.rect, rect) for part in item.part.parts]
            known = [part for each in parts if (part := assembly.part(each)) is not None]
            thick = [
                item.part.finished or part.thickness for item in placed for part in known if part.id in item.part.parts
            ]
            hidden = bool(known) and all(part.species_role in INSIDE for part in known)
            found.append(
                Stock(board, rect, tuple(parts), max(thick, default=None), project.lows_left if hidden else mm(0))
            )
    return tuple(found)


def forecasts(project: Project, assembly: Assembly, boards: Sequence[Laid]) -> tuple[Forecast, ...]:
    """Forecast every part that is laid; of one made of staves, each stave."""
    return at_once(forecasts_in_bits(project, assembly, boards))


def forecasts_in_bits(project: Project, assembly: Assembly, boards: Sequence[Laid]) -> Bits[tuple[Forecast, ...]]:
    """Forecast the same part by part."""
    found: list[Forecast] = []
    for board, placed in boards:
        first = board.id in project.cut_first
        of_board: list[Forecast] = []
        for item in placed:
            for part_id in item.part.parts:
                part = assembly.part(part_id)
                if part is None or (len(item.part.parts) > 1 and not item.part.strip and part_id != item.part.parts[0]):
                    continue
                patch = Patch(item.rect.x, item.rect.end, item.rect.y, item.rect.top)
                lows = project.lows_left if part.species_role in INSIDE else Length(Fraction(0))
                of_board.append(
                    forecast(
                        (part.id, item.part.id),
                        board,
                        patch,
                        item.part.finished or part.thickness,
                        first,
                        _portion(project, board, item.rect),
                        lows,
                    )
                )
                yield
        found += _with_better_cut(project, board, placed, of_board)
    return tuple(found)


def _portion(project: Project, board: Board, rect: Rect) -> Rect | None:
    """Return what a first cut leaves of a board with a part in it; None without one, or if it goes through the part."""
    cut = project.first_cut(board.id)
    if cut is None:
        return None
    whole = Rect(0, 0, float(board.length), float(board.width))
    sides = portions(whole, cut.crosswise, cut.at, float(project.shop.kerf))
    return next((side for side in sides if within(rect, side)), None)


def _with_better_cut(
    project: Project, board: Board, laid: Sequence[PlacedPart], found: list[Forecast]
) -> list[Forecast]:
    """Add to the forecasts of one board the first cut that would help those that are too thin, if one does."""
    short = any(each.short.mm > 0 and not each.cut_first_chosen for each in found)
    if project.first_cut(board.id) is not None or not short:
        return found
    needs = {each.part: each.needs - each.lows for each in found}
    placed = [(item.rect, needs[part]) for item in laid for part in item.part.parts if part in needs]
    best = best_first_cut(board, placed, float(project.shop.kerf))
    if best is None or best[1] < min(float(each.reach - each.needs) for each in found) + 0.1:
        return found
    cut, margin = best
    gives = Length(Fraction(math.floor(margin * 10 + 1e-6), 10))
    return [replace(each, better=(cut, each.needs + gives)) if each.short.mm > 0 else each for each in found]
