"""A proven lower bound on the wood that any layout consumes, even one that no straight cut could saw.

Slice a layout across the board at any place: the parts met there stand side by side with a
kerf between them. So whatever the layout, each board is used along its length by such
slices, and the slices together are as long as the parts are. The cheapest such mix of slices
is a linear programme with a column for each way to fill a slice; columns are made as they
are wanted, by a knapsack. That parts must be whole, and that slices of one part lie beside
one another, is left out, so the answer is a bound. (The principle is that of the classical
cutting-stock programme; the proof is the argument above.)
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import linprog

#: Widths are counted in halves of a millimetre, parts rounded down and boards up: the bound stays proven.
_STEPS_BY_MM = 2.0
_MOST_ROUNDS = 400

_Floats = NDArray[np.float64]


class Strip(NamedTuple):
    """Parts of one width: their lengths added up (each with a kerf), how many, and on which boards they may lie."""

    width: float
    length: float
    number: int
    boards: frozenset[int]


class Plank(NamedTuple):
    """A board for the bound: its size, how far it is used already, and where its first clear wood begins."""

    length: float
    width: float
    used_to: float = 0.0
    begins: float = 0.0


def lower_bounds(strips: Sequence[Strip], planks: Sequence[Plank], kerf: float) -> Iterator[float]:
    """Give better and better lower bounds on what is consumed, in mm².

    Parameters
    ----------
    strips : sequence of Strip
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
    for _ in range(_MOST_ROUNDS):
        solved = programme.solve()
        if solved is None:
            return
        bound, gained = 0.0, False
        for step in programme.priced():
            bound, gained = step
            yield best
        best = max(best, bound)
        yield best
        if not gained or solved - best <= 1e-4 * solved:
            return


class _Group(NamedTuple):
    """Boards of one width that may take the same parts."""

    width: float
    takes: tuple[bool, ...]
    cost: float
    room: float


class _Programme:
    def __init__(self, strips: Sequence[Strip], planks: Sequence[Plank], kerf: float) -> None:
        self._strips = strips
        self._groups = _grouped(strips, planks, kerf)
        self._weights = [math.floor((strip.width + kerf) * _STEPS_BY_MM) for strip in strips]
        self._rooms = [math.ceil((group.width + kerf) * _STEPS_BY_MM) for group in self._groups]
        self._wanted = np.array([strip.length for strip in strips])
        self._columns: list[_Floats] = []
        self._of: list[int] = []
        self._duals: _Floats = np.zeros(0)
        for number, group in enumerate(self._groups):
            for index, strip in enumerate(strips):
                if group.takes[index] and self._weights[index] <= self._rooms[number]:
                    column = np.zeros(len(strips))
                    column[index] = min(strip.number, self._rooms[number] // max(1, self._weights[index]))
                    self._add(number, column)
        self._dear = 40.0 * max((group.cost for group in self._groups), default=1.0)

    def _add(self, group: int, column: _Floats) -> None:
        self._columns.append(column)
        self._of.append(group)

    def solve(self) -> float | None:
        """Solve with the columns there are; give the value, or None if that fails."""
        strips, groups, count = len(self._strips), len(self._groups), len(self._columns)
        cover = np.array(self._columns).T if count else np.zeros((strips, 0))
        rooms = np.zeros((groups, count))
        rooms[self._of, range(count)] = 1.0
        table = np.block([[-cover, -np.eye(strips)], [rooms, np.zeros((groups, strips))]])
        costs = np.concatenate([[self._groups[number].cost for number in self._of], np.full(strips, self._dear)])
        limits = np.concatenate([-self._wanted, [group.room for group in self._groups]])
        found = linprog(costs, A_ub=table, b_ub=limits, method="highs")
        if found.status != 0:
            return None
        self._duals = np.maximum(0.0, -found.ineqlin.marginals)
        return float(found.fun) if found.fun is not None else None

    def priced(self) -> Iterator[tuple[float, bool]]:
        """Make the best column of every kind of board; the last step carries the proven bound."""
        worth, rent = self._duals[: len(self._strips)], self._duals[len(self._strips) :]
        bound, gained = float(worth @ self._wanted), False
        for number, group in enumerate(self._groups):
            value, column = self._best_slice(number, worth)
            # Any prices prove a bound: what slices can earn over their cost is taken off it.
            bound -= group.room * max(0.0, value - group.cost)
            if value > group.cost + rent[number] + 1e-7 * max(group.cost, 1.0):
                self._add(number, column)
                gained = True
            yield bound, gained

    def _best_slice(self, number: int, worth: _Floats) -> tuple[float, _Floats]:
        """Fill one slice of a board with the widths that earn most: a knapsack with so many of each."""
        room, group = self._rooms[number], self._groups[number]
        best: _Floats = np.zeros(room + 1)
        taken: list[tuple[int, NDArray[np.int64]]] = []
        for index, strip in enumerate(self._strips):
            weight = self._weights[index]
            if not group.takes[index] or weight > room or worth[index] <= 1e-12:
                continue
            reached, counts = best, np.zeros(room + 1, dtype=np.int64)
            for count in range(1, min(strip.number, room // max(1, weight)) + 1):
                tried = np.full(room + 1, -1.0)
                tried[count * weight :] = best[: room + 1 - count * weight] + count * worth[index]
                better = tried > reached + 1e-12
                reached = np.where(better, tried, reached)
                counts[better] = count
            best = reached
            taken.append((index, counts))
        column, left = np.zeros(len(self._strips)), room
        for index, counts in reversed(taken):
            column[index] = counts[left]
            left -= int(counts[left]) * self._weights[index]
        return float(best[room]), column


def _grouped(strips: Sequence[Strip], planks: Sequence[Plank], kerf: float) -> list[_Group]:
    """Put stretches of board together that are alike, with what a mm of slice on them costs at least."""
    rooms: dict[tuple[float, tuple[bool, ...]], list[tuple[float, float]]] = {}
    for number, plank in enumerate(planks):
        takes = tuple(number in strip.boards for strip in strips)
        if any(takes):
            shortest = min(strip.length / strip.number for strip, may in zip(strips, takes, strict=True) if may)
            rooms.setdefault((plank.width, takes), []).extend(_stretches(plank, kerf, shortest))
    return [
        _Group(width, takes, width * share, room)
        for (width, takes), stretches in rooms.items()
        for share, room in _by_share(stretches)
    ]


def _by_share(stretches: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """Add up the room of stretches that cost the same."""
    added: dict[float, float] = {}
    for share, room in stretches:
        added[share] = added.get(share, 0.0) + room
    return [(share, room) for share, room in added.items() if room > 0]


def _stretches(plank: Plank, kerf: float, shortest: float) -> list[tuple[float, float]]:
    """Give what each mm of slice consumes of a board at least, as shares of a mm, and for how many mm.

    Slices of length S reach at least to ``begins + S - kerf``, for the last part needs no
    kerf. Up to where the board is used already they cost nothing.
    """
    if plank.used_to > 0:
        return [(0.0, plank.used_to + kerf), (1.0, plank.length - plank.used_to)]
    room = plank.length - plank.begins + kerf
    if plank.begins >= kerf:
        return [(plank.length / room, room)] if room > kerf else []
    # The share is least where the least is cut: one part, which has a kerf of slices more than its length.
    return [(1 - (kerf - plank.begins) / max(shortest, kerf), room)]
