"""Where parts come to stand when they are put together as they came out.

Every part is rigid; it is pushed and turned a little. What should touch is drawn together as by clamps, and nothing
goes into anything unless there is no other way: a linear programme, for the turns are small.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from typing import Any, cast

import numpy as np
from scipy.optimize import linprog
from scipy.sparse import coo_array

from nullah.core.apprentice.contacts import Contact
from nullah.core.apprentice.made_part import Floats, MadePart, cross
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.space import around

#: What wood that goes into wood costs beside a gap as wide, and what it costs where it may be shaved off.
_TIGHT, _SHAVED = 30.0, 0.5
#: What it costs to move without need, and how far anything may.
_IDLE, _FAR = 1e-3, 60.0
#: What is so far from where it should be is another surface, if others are nearer; further off it is one always, mm.
_LOST, _MOST = 3.0, 20.0
#: How far the ends of anything go astray at the most, mm: what is put together is held square.
_ASKEW = 1.0


class Place(NamedTuple):
    """How far a part has come from where it was designed: pushed along the axes, mm, and turned, rad, about a point."""

    pushed: Floats
    turned: Floats
    about: Floats

    def shift(self, point: Floats) -> Floats:
        """Return how far a point of the part has come, mm.

        Parameters
        ----------
        point : Floats
            Shape (3,), mm.
        """
        return np.asarray(self.pushed + cross(self.turned, point - self.about))

    def moved(self, by: Place) -> Place:
        """Return the place after the part was moved on."""
        return Place(self.pushed + by.shift(self.about), self.turned + by.turned, self.about)


class Standing(NamedTuple):
    """Parts put together.

    Parameters
    ----------
    places : mapping of part id to Place
    gaps : tuple of tuples of float
        Of every contact: how far it is open at each of its points, mm; nothing where no wood was felt.
    tight : tuple of float
        Of every contact: how far wood would go into wood, mm.
    """

    places: Mapping[str, Place]
    gaps: tuple[tuple[float, ...], ...]
    tight: tuple[float, ...]


def unmoved(made: MadePart) -> Place:
    """Return the place of a part that is where it was designed."""
    box = made.frame.part.box
    middle = np.array([float(low + high) / 2 for low, high in zip(box.low, box.high, strict=True)])
    return Place(np.zeros(3), np.zeros(3), middle)


class _Rows:
    """The rows of a linear programme, as they are gathered."""

    def __init__(self) -> None:
        self.rows: list[int] = []
        self.columns: list[int] = []
        self.values: list[float] = []

    def add(self, row: int, column: int, value: float) -> None:
        """Put a value into the matrix."""
        self.rows.append(row)
        self.columns.append(column)
        self.values.append(value)


def stand(
    parts: Mapping[str, MadePart],
    touching: Sequence[Contact],
    worn: Sequence[float],
    shaved: Collection[Contact],
    bodies: Sequence[Collection[str]],
    places: Mapping[str, Place],
) -> Standing:
    """Put parts together.

    Parameters
    ----------
    parts : mapping of part id to MadePart
    touching : sequence of Contact
        Between bodies.
    worn : sequence of float
        How much of each was shaved off already, mm.
    shaved : collection of Contact
        Those at which what enters is shaved until it goes in.
    bodies : sequence of collections of part ids
        What is glued to each other already; what none of them holds is by itself.
    places : mapping of part id to Place
        Where parts are, before.
    """
    loose = [{part} for part in parts if not any(part in body for body in bodies)]
    whole = [body for body in (*bodies, *loose) if any(part in parts for part in body)]
    body_of = {part: number for number, body in enumerate(whole) for part in body}
    middles = [np.mean([places[part].about for part in body if part in parts], axis=0) for body in whole]
    room = _room(parts, touching, places) + np.repeat(worn, [len(contact.points) for contact in touching])
    moves = 6 * len(whole)
    cost = np.zeros(2 * moves + len(touching))
    cost[: 2 * moves] = _IDLE
    made = _Rows()
    row = 0
    for index, contact in enumerate(touching):
        normal = np.array(contact.normal)
        cheap = contact in shaved
        cost[2 * moves + index] = (_SHAVED if cheap else _TIGHT) * len(contact.points)
        for point in contact.points:
            # What should touch is drawn together: gap = room + normal · (shift of second - shift of first).
            drawn = contact.room == 0.0 and room[row] < _FAR / 2
            for part, way in ((contact.second, 1.0), (contact.first, -1.0)):
                body = body_of[part]
                turn = cross(np.array(point) - middles[body], normal)
                for each, value in enumerate((*(way * normal), *(way * turn))):
                    if abs(value) > 1e-12:
                        made.add(row, 6 * body + each, -value)
                        made.add(row, moves + 6 * body + each, value)
                        if drawn:
                            cost[6 * body + each] += value
                            cost[moves + 6 * body + each] -= value
            made.add(row, 2 * moves + index, -1.0)
            # What goes in is no less of a gap elsewhere.
            cost[2 * moves + index] += drawn
            row += 1
    if not row:
        return Standing(places, (), ())
    matrix = coo_array((made.values, (made.rows, made.columns)), shape=(row, len(cost))).tocsr()
    most = np.concatenate([np.repeat([_FAR, _ASKEW / _reach(parts, body)], 3) for body in whole])
    # The first body stays where it is.
    most[:6] = 0.0
    limits = np.zeros((len(cost), 2))
    limits[:, 1] = np.concatenate([most, most, np.full(len(touching), np.inf)])
    solved = linprog(cost, A_ub=cast(Any, matrix), b_ub=room, bounds=cast(Any, limits), method="highs")
    # How far wood goes into wood has no bound: there is always a way.
    assert solved.x is not None
    moved = solved.x[:moves] - solved.x[moves : 2 * moves]
    found = dict(places)
    for part in parts:
        by = moved[6 * body_of[part] : 6 * body_of[part] + 6]
        found[part] = places[part].moved(Place(by[:3], by[3:], middles[body_of[part]]))
    slack = room - matrix @ solved.x
    gaps, row = [], 0
    for contact in touching:
        rows = slice(row, row + len(contact.points))
        gaps.append(tuple(np.where(room[rows] < _FAR / 2, slack[rows], 0.0).clip(min=0.0).tolist()))
        row += len(contact.points)
    return Standing(found, tuple(gaps), tuple(float(each) for each in solved.x[2 * moves :]))


def _reach(parts: Mapping[str, MadePart], body: Collection[str]) -> float:
    """Return half of how long a body is, mm."""
    whole = around(tuple(parts[part].frame.part.box for part in body if part in parts))
    return max(float(high - low) for low, high in zip(whole.low, whole.high, strict=True)) / 2


def _room(parts: Mapping[str, MadePart], touching: Sequence[Contact], places: Mapping[str, Place]) -> Floats:
    """Return how far apart surfaces are at every point of every contact, before anything moves, mm."""
    felt: dict[str, list[tuple[int, Floats, Floats]]] = {part: [] for part in parts}
    rooms: list[float] = []
    for contact in touching:
        normal = np.array(contact.normal)
        for each in contact.points:
            point = np.array(each)
            felt[contact.first].append((len(rooms), point, normal))
            felt[contact.second].append((len(rooms), point + normal * contact.room, -normal))
            apart = places[contact.second].shift(point) - places[contact.first].shift(point)
            rooms.append(contact.room + float(normal @ apart))
    found = np.array(rooms)
    for part, all_felt in felt.items():
        if all_felt:
            rows, points, normals = zip(*all_felt, strict=True)
            found[list(rows)] -= parts[part].stands_out(np.array(points), np.array(normals))
    return _there(touching, found)


def _there(touching: Sequence[Contact], found: Floats) -> Floats:
    """Return the same without points at which nothing is touched since a border came out elsewhere.

    A point where wood is missing or stands far out says nothing where others of the surface say something.
    """
    row = 0
    for contact in touching:
        rows = slice(row, row + len(contact.points))
        here = found[rows]
        off = np.abs(here - contact.room)
        near, known = off < _LOST, off < _MOST
        found[rows] = np.where(near if near.any() else known, here, _FAR)
        row += len(contact.points)
    return found
