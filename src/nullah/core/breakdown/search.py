"""Laying rough parts on boards: a first, honest method.

Parts are put one after another into what straight cuts leave of the boards, at the place
that consumes least; the order and the first cut are varied again and again, and the best
layout so far is given out each time one is found. Whatever it gives can be sawn edge to
edge, for it was made by such cuts.
"""

from __future__ import annotations

import random
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from nullah.core.breakdown.layout import (
    TOLERANCE,
    PlacedPart,
    Placement,
    Rect,
    Unplaced,
    consumed,
    forbidden,
    place,
)
from nullah.core.breakdown.reasons import first_clear, why_unplaced
from nullah.core.breakdown.rough import RoughPart
from nullah.core.lengths import Length, Marks
from nullah.core.piece.part import Needs
from nullah.core.rack.board import Board
from nullah.core.wood.species import same_wood

#: More parts than this in one list are a slip of the key.
MOST_PARTS = 5000


class BreakdownError(ValueError):
    """A list of parts or boards that cannot be laid out at all."""


@dataclass(frozen=True, slots=True)
class Layout:
    """One way to lay the parts out; areas in mm². `bound` is proven: no layout consumes less."""

    placements: tuple[Placement, ...]
    unplaced: tuple[Unplaced, ...]
    consumed: float
    bound: float

    @property
    def rank(self) -> tuple[int, float]:
        """Fewer unplaced parts first, then less wood."""
        return len(self.unplaced), self.consumed


@dataclass(frozen=True, slots=True)
class _Spot:
    """A place for a part in a free region, with what it costs."""

    cost: tuple[float, float, float]
    board: int
    region: int
    x: float
    y: float


class _Bench:
    """The boards while parts are being laid on them: what is free, and how far each is used."""

    def __init__(self, boards: Sequence[Board], kerf: float) -> None:
        self.boards = boards
        self.kerf = kerf
        self.free: list[list[Rect]] = [[Rect(0, 0, float(b.length), float(b.width))] for b in boards]
        self.used_to = [0.0] * len(boards)

    def best_spot(self, part: RoughPart, flaws: dict[tuple[int, Needs], list[Rect]]) -> _Spot | None:
        along, across = float(part.along), float(part.across)
        best: _Spot | None = None
        for index, board in enumerate(self.boards):
            if part.thickness.mm > board.thickness.mm or not same_wood(part.wood, board.species):
                continue
            spare_thickness = float(board.thickness - part.thickness)
            for number, region in enumerate(self.free[index]):
                if along > region.length + TOLERANCE or across > region.width + TOLERANCE:
                    continue
                found = first_clear(region, along, across, flaws[index, part.needs])
                if found is None:
                    continue
                x, y = found
                more = max(0.0, x + along - self.used_to[index]) * float(board.width)
                cost = (more + spare_thickness * along * across * 0.02, region.length * region.width, x)
                if best is None or cost < best.cost:
                    best = _Spot(cost, index, number, x, y)
        return best

    def put(self, part: RoughPart, spot: _Spot, cross_first: bool) -> Placement:
        region = self.free[spot.board].pop(spot.region)
        taken = Rect(spot.x, spot.y, float(part.along), float(part.across))
        self.used_to[spot.board] = max(self.used_to[spot.board], taken.end)
        self.free[spot.board] += _left_over(region, taken, self.kerf, cross_first)
        return Placement(part.id, self.boards[spot.board].id, spot.x, spot.y)


def _left_over(region: Rect, taken: Rect, kerf: float, cross_first: bool) -> list[Rect]:
    """Give the rectangles that edge-to-edge cuts leave round a part taken from a region."""
    before, after = taken.x - kerf - region.x, region.end - taken.end - kerf
    below, above = taken.y - kerf - region.y, region.top - taken.top - kerf
    if cross_first:
        pieces = [
            Rect(region.x, region.y, before, region.width),
            Rect(taken.end + kerf, region.y, after, region.width),
            Rect(taken.x, region.y, taken.length, below),
            Rect(taken.x, taken.top + kerf, taken.length, above),
        ]
    else:
        pieces = [
            Rect(region.x, region.y, region.length, below),
            Rect(region.x, taken.top + kerf, region.length, above),
            Rect(region.x, taken.y, before, taken.width),
            Rect(taken.end + kerf, taken.y, after, taken.width),
        ]
    return [piece for piece in pieces if piece.length > 1 and piece.width > 1]


def search(
    parts: Sequence[RoughPart], boards: Sequence[Board], kerf: Length, marks: Marks, rounds: int = 400, seed: int = 1
) -> Iterator[Layout]:
    """Give better and better layouts: unplaced parts first, then wood consumed.

    Parameters
    ----------
    parts : sequence of RoughPart
    boards : sequence of Board
    kerf : Length
    marks : Marks
        To write figures in reasons.
    rounds : int
        How many orders to try.
    seed : int
        The same seed gives the same layouts.

    Yields
    ------
    Layout
        After every round the best so far, so that whoever listens can stop at any round.

    Raises
    ------
    BreakdownError
        For more parts than anyone makes.
    """
    if len(parts) > MOST_PARTS:
        raise BreakdownError(f"{len(parts)} parts are asked for; more than {MOST_PARTS} must be a slip of the key.")
    flaws = {(i, needs): forbidden(b, needs) for i, b in enumerate(boards) for needs in Needs}
    chance = random.Random(seed)
    order = sorted(parts, key=_size, reverse=True)
    by_id = {part.id: part for part in parts}
    best: Layout | None = None
    best_order = order
    for number in range(max(1, rounds)):
        tried, left = _one_round(order, boards, kerf, flaws, chance, number)
        used = _consumed(tried, by_id, boards)
        if best is None or (len(left), used) < best.rank:
            bound = _bound(parts, len(parts) - len(left))
            unplaced = tuple(Unplaced(part, why_unplaced(part, boards, marks)) for part in left)
            best = Layout(tuple(tried), unplaced, used, bound)
            best_order = order
        yield best
        if not best.unplaced and best.consumed <= best.bound + 1:
            return
        order = _varied(best_order, chance)


def _size(part: RoughPart) -> tuple[float, float]:
    return float(part.across), float(part.along)


def _varied(order: Sequence[RoughPart], chance: random.Random) -> list[RoughPart]:
    varied = list(order)
    for _ in range(chance.randint(1, max(1, len(varied) // 3))):
        i, j = chance.randrange(len(varied)), chance.randrange(len(varied))
        varied.insert(j, varied.pop(i))
    return varied


def _one_round(
    order: Sequence[RoughPart], boards: Sequence[Board], kerf: Length,
    flaws: dict[tuple[int, Needs], list[Rect]], chance: random.Random, number: int,
) -> tuple[list[Placement], list[RoughPart]]:  # fmt: skip
    bench = _Bench(boards, float(kerf))
    placements: list[Placement] = []
    left: list[RoughPart] = []
    for part in order:
        spot = bench.best_spot(part, flaws)
        if spot is None:
            left.append(part)
            continue
        cross_first = number == 0 or chance.random() < 0.5
        placements.append(bench.put(part, spot, cross_first))
    return placements, left


def _consumed(placements: Sequence[Placement], by_id: dict[str, RoughPart], boards: Sequence[Board]) -> float:
    placed: dict[str, list[PlacedPart]] = {board.id: [] for board in boards}
    for placement in placements:
        placed[placement.board].append(place(by_id[placement.part], placement))
    return sum(consumed(board, placed[board.id]) for board in boards)


def _bound(parts: Sequence[RoughPart], placed: int) -> float:
    """Bound the wood from below: a layout that places as many parts covers at least the smallest.

    Every part lies within the stretch of its board that counts as consumed, and parts do
    not overlap, so their areas add up to no more than it.
    """
    areas = sorted(float(part.length) * float(part.width) for part in parts)
    return sum(areas[:placed])
