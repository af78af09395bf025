"""A proven lower bound on the wood that any layout consumes, even one that no straight cut could saw.

Let every part have a kerf more of length and of width, and every board too: then parts touch at
most. Slice a board across at any place: the parts met there stand side by side in what flaws
leave of its width. A board is used from its near end up to somewhere; all of that is consumed,
whatever its slices hold. So a layout is, for each board, a stretch from the near end filled with
slices, and the slices together are as long as the parts are. The cheapest such choice is a linear
programme with a column for each way to use a board; columns are made as they are wanted. That
parts must be whole, and that the slices of one part lie beside one another, is left out, so the
answer is a bound.

For any prices on the parts, the value of all parts less what the boards can earn at most over
their wood is a bound too (Lagrange); it is what is told, so that every step proves something. The
principle is that of the classical cutting-stock programme; the proof is the argument above.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import linprog

from nullah.core.named_tuple import NamedTuple

#: Widths are counted in halves of a millimetre, parts rounded down and boards up: the bound stays proven.
_STEPS_BY_MM = 2.0
_MOST_ROUNDS = 300
#: How far the prices tried keep to the best ones so far: prices of the programme alone jump about.
_STEADY = 0.7

_Floats = NDArray[np.float64]
#: What may not be covered by any part: (from, low, to, high), mm.
Spoilt = tuple[float, float, float, float]


class WidthGroup(NamedTuple):
    """Parts of one width: their lengths added up (each with a kerf), how many, and on which boards they may lie."""

    width: float
    length: float
    number: int
    boards: frozenset[int]


class Plank(NamedTuple):
    """A board for the bound: its size, how far it is used already, and what no part may cover."""

    length: float
    width: float
    used_to: float = 0.0
    spoilt: tuple[Spoilt, ...] = ()


def lower_bounds(strips: Sequence[WidthGroup], planks: Sequence[Plank], kerf: float) -> Iterator[float]:
    """Yield better and better lower bounds on what is consumed beyond what is used already, in mm².

    Parameters
    ----------
    strips : sequence of WidthGroup
        All the parts.
    planks : sequence of Plank
    kerf : float
        mm.

    Yields
    ------
    float
        The best bound so far, again and again between small steps; ends when none is left to gain.
    """
    if not strips or not planks:
        yield 0.0
        return
    programme = _Programme(strips, planks, kerf)
    best = 0.0
    # Wood by its area is a first guess at the prices.
    prices: _Floats = np.array([strip.width for strip in strips])
    kept = prices
    for _ in range(_MOST_ROUNDS):
        bound = 0.0
        for proven in programme.priced(prices):
            bound = proven
            yield best
        if bound > best:
            best, kept = bound, prices
        yield best
        solved = programme.solve()
        if solved is None or solved - best <= 2e-4 * solved:
            return
        prices = _STEADY * kept + (1 - _STEADY) * programme.prices


class _Stretch(NamedTuple):
    """A stretch of a board along which flaws leave the same widths, in steps; `length` in mm."""

    length: float
    gaps: tuple[int, ...]


class _Programme:
    """The linear programme over ways to use boards, and the best way for given prices."""

    def __init__(self, strips: Sequence[WidthGroup], planks: Sequence[Plank], kerf: float) -> None:
        self._strips, self._planks, self._kerf = strips, planks, kerf
        self._weights = [max(1, math.floor((strip.width + kerf) * _STEPS_BY_MM)) for strip in strips]
        self._wanted = np.array([strip.length for strip in strips])
        self._stretches = [_stretches(plank, kerf) for plank in planks]
        self._takes = [
            tuple(i for i, strip in enumerate(strips) if board in strip.boards) for board in range(len(planks))
        ]
        self._widest = max((gap for board in self._stretches for each in board for gap in each.gaps), default=0)
        self._columns: list[_Floats] = []
        self._costs: list[float] = []
        self._of: list[int] = []
        self.prices: _Floats = np.zeros(len(strips))

    def solve(self) -> float | None:
        """Solve with the columns there are; give the value, or None if that fails."""
        strips, boards, count = len(self._strips), len(self._planks), len(self._columns)
        table = np.zeros((strips + boards, count + strips))
        if count:
            table[:strips, :count] = -np.array(self._columns).T
            table[strips + np.array(self._of), np.arange(count)] = 1.0
        table[:strips, count:] = -np.eye(strips)
        # A part that no board gives is dearer than any wood.
        dear = 30.0 * max(plank.width for plank in self._planks)
        costs = np.concatenate([self._costs, np.full(strips, dear)])
        limits = np.concatenate([-self._wanted, np.ones(boards)])
        found = linprog(costs, A_ub=table, b_ub=limits, method="highs")
        if found.status != 0 or found.fun is None:
            return None
        self.prices = np.maximum(0.0, -found.ineqlin.marginals[:strips])
        return float(found.fun)

    def priced(self, prices: _Floats) -> Iterator[float]:
        """Find the best way to use each board at these prices; the last step gives the proven bound."""
        bound = float(prices @ self._wanted)
        slices: dict[tuple[int, ...], _Slices] = {}
        for board, takes in enumerate(self._takes):
            if not takes:
                continue
            if takes not in slices:
                slices[takes] = _Slices(
                    [(i, self._weights[i], prices[i], self._strips[i].number) for i in takes], self._widest
                )
                yield bound
            bound -= self._best_use(board, slices[takes])
        yield bound

    def _best_use(self, board: int, slices: _Slices) -> float:
        """Return what a board earns at most over its wood, and keep that way to use it."""
        plank, kerf = self._planks[board], self._kerf
        shortest = min(self._strips[i].length / self._strips[i].number for i in self._takes[board])
        reach = earned = 0.0
        best, last, total, chosen = 0.0, 0.0, 0.0, 0
        uses: list[tuple[_Stretch, float]] = []
        for stretch in self._stretches[board]:
            value = sum(slices.value(gap) for gap in stretch.gaps)
            # What is earned grows evenly along a stretch, so the best place to stop is at one of its
            # ends; the very first may be as near as the shortest part, with its kerf, is long.
            stops = [stretch.length]
            if not plank.used_to and reach < shortest < reach + stretch.length:
                stops.insert(0, shortest - reach)
            for stop in stops:
                if reach + stop < shortest - 1e-9 and not plank.used_to:
                    continue
                cost = plank.width * max(0.0, reach + stop - kerf - plank.used_to)
                if earned + value * stop - cost > best + 1e-9:
                    best, chosen = earned + value * stop - cost, len(uses)
                    last, total = stop, cost
            uses.append((stretch, stretch.length))
            reach, earned = reach + stretch.length, earned + value * stretch.length
        if best > 0:
            column = np.zeros(len(self._strips))
            for stretch, length in (*uses[:chosen], (uses[chosen][0], last)):
                for gap in stretch.gaps:
                    slices.fill(gap, length, column)
            self._columns.append(column)
            self._costs.append(total)
            self._of.append(board)
        return best


class _Slices:
    """The best way to fill a width with parts, for every width at once: a knapsack with so many of each."""

    def __init__(self, parts: list[tuple[int, int, float, int]], widest: int) -> None:
        best: _Floats = np.zeros(widest + 1)
        self._taken: list[tuple[int, int, NDArray[np.int64]]] = []
        for index, weight, worth, number in parts:
            if weight > widest or worth <= 1e-12:
                continue
            reached, counts = best, np.zeros(widest + 1, dtype=np.int64)
            for count in range(1, min(number, widest // weight) + 1):
                tried = np.full(widest + 1, -1.0)
                tried[count * weight :] = best[: widest + 1 - count * weight] + count * worth
                better = tried > reached + 1e-12
                reached = np.where(better, tried, reached)
                counts[better] = count
            best = reached
            self._taken.append((index, weight, counts))
        self._best = best

    def value(self, width: int) -> float:
        """Return what a mm of slice of that width, in steps, earns."""
        return float(self._best[width])

    def fill(self, width: int, length: float, column: _Floats) -> None:
        """Add the parts of such a slice, so many mm long, to a column."""
        for index, weight, counts in reversed(self._taken):
            column[index] += counts[width] * length
            width -= int(counts[width]) * weight


def _stretches(plank: Plank, kerf: float) -> tuple[_Stretch, ...]:
    """Cut a board, a kerf longer and wider, at the ends of its flaws; tell the widths left in each stretch."""
    # The kerf behind a part may lie over a flaw, the part may not: a flaw begins a kerf later.
    spoilt = [(start + kerf, low, end, high) for start, low, end, high in plank.spoilt if end > start + kerf]
    length = plank.length + kerf
    ends = sorted({0.0, length, *(x for s in spoilt for x in (s[0], s[2]) if 0 < x < length)})
    found = []
    for start, end in pairwise(ends):
        middle = (start + end) / 2
        # Across, likewise: the kerf above a part may lie over a flaw, so each gap is a kerf wider.
        gaps, low = [], 0.0
        for _, bottom, _, top in sorted((s for s in spoilt if s[0] < middle < s[2]), key=lambda s: s[1]):
            if bottom > low:
                gaps.append(bottom - low)
            low = max(low, top)
        if plank.width > low:
            gaps.append(plank.width - low)
        found.append(_Stretch(end - start, tuple(math.ceil((gap + kerf) * _STEPS_BY_MM) for gap in gaps)))
    return tuple(found)
