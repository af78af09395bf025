"""Each board of the rack with what lies on it: its cuts in order, what they leave, and what is wrong."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from types import MappingProxyType

from nullah.core.breakdown.cuts import Left, NotSawableError, SawCut, cut_through_first, taken_apart
from nullah.core.breakdown.facts import Complaint, NoKerf, OverPart, SawFact, Unmatched
from nullah.core.breakdown.layout import FirstCut, PlacedPart, Rect, complaints, consumed, place, set_complaints
from nullah.core.breakdown.rough import RoughPart
from nullah.core.breakdown.sawing import Sawing
from nullah.core.identity import kept_by_value
from nullah.core.named_tuple import NamedTuple
from nullah.core.project import Project
from nullah.core.rack.board import Board
from nullah.core.wood.species import SpeciesError, find_species


class BoardPlan(NamedTuple):
    """One board with what lies on it, its cuts in order, and what is wrong, by part id."""

    board: Board
    placed: tuple[PlacedPart, ...]
    cuts: tuple[SawCut, ...]
    wrong: Mapping[str, Complaint]
    not_sawable: SawFact | None = None
    left: tuple[Left, ...] = ()

    @property
    def consumed(self) -> float:
        """Wood used, mm²."""
        return consumed(self.board, self.placed)

    def told_wrong(self) -> Iterator[tuple[PlacedPart, Complaint]]:
        """Yield what lies wrongly, and why: of two that lie over one another only the first."""
        told: set[frozenset[str]] = set()
        for item in self.placed:
            why = self.wrong.get(item.part.id)
            if isinstance(why, OverPart | NoKerf):
                pair = frozenset((item.part.name, why.other))
                if pair in told:
                    continue
                told.add(pair)
            if why is not None:
                yield item, why


def board_plans(project: Project, rough: tuple[RoughPart, ...]) -> tuple[BoardPlan, ...]:
    """Return every board of the rack with what lies on it, sawn as it will be."""
    by_id = {part.id: part for part in rough}
    laid = [place(by_id[item.part], item) for item in project.layout if item.part in by_id]
    apart = set_complaints(rough, laid, project.shop.kerf)
    return tuple(
        _board_plan(board, tuple(item for item in laid if item.board == board.id), project, apart)
        for board in project.boards
    )


def _board_plan(
    board: Board, placed: tuple[PlacedPart, ...], project: Project, apart: Mapping[str, Unmatched]
) -> BoardPlan:
    wrong = complaints(board, placed, project.shop.kerf)
    for item in placed:
        if item.part.id in apart:
            wrong.setdefault(item.part.id, apart[item.part.id])
    cuts, left, problem = _sawn(board, placed, float(project.shop.kerf), project.first_cut(board.id))
    return BoardPlan(board, placed, () if wrong else cuts, MappingProxyType(wrong), None if wrong else problem, left)


@kept_by_value(512)
def _sawn(
    board: Board, placed: tuple[PlacedPart, ...], kerf: float, first: FirstCut | None
) -> tuple[tuple[SawCut, ...], tuple[Left, ...], SawFact | None]:
    """Return the cuts of a board, what they leave, and why there are none."""
    whole = Rect(0, 0, float(board.length), float(board.width))
    sawing = sawing_of(board)
    try:
        if first is None or not placed:
            cuts, left = taken_apart(whole, placed, kerf, sawing, stopped=True)
        else:
            cuts, left = cut_through_first(whole, placed, kerf, sawing, first.crosswise, first.at, stopped=True)
        return cuts, left, None
    except NotSawableError as error:
        return (), (), error.fact


def sawing_of(board: Board) -> Sawing:
    """Return what sawing a board costs, by its thickness and hardness."""
    try:
        return Sawing(thickness=float(board.thickness), hardness=find_species(board.species).hardness)
    except SpeciesError:
        return Sawing(thickness=float(board.thickness))
