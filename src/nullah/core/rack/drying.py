"""Is it dry? Meter readings against the room, a drying curve through them, and the day a board should be ready.

Wood nears the moisture of the room as a share of what is left each day: with the difference
d₀ at first, d(t) = d₀·e^(−t/τ). τ is not known beforehand; a usual one for the board's
thickness is believed in as far as readings do not speak against it. What comes out is a
range, not a day.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from datetime import date, timedelta

from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import kept_by_value
from nullah.core.named_tuple import NamedTuple
from nullah.core.rack.board import Board, Reading
from nullah.core.wood.moisture import ClimateError, equilibrium_moisture

#: Dry enough: within about one point of the piece that lives in the room (common practice).
NEAR_ENOUGH = 1.0
#: Days after which 1/e of the difference is left in a 25 mm board: about a week for thin dressed stock, a couple of
#: weeks for small parts, longer for thick (common practice, no published source).
_USUAL_DAYS_25 = 14.0
#: How sure that is: a factor of e^0.6, about 1.8, either way.
_USUAL_SPREAD = 0.6
#: What two readings of the same wood differ by, points (common practice).
_METER_SPREAD = 0.5
#: Water leaves through end grain so many times as fast as through faces and edges (common practice).
_END_GRAIN = 10.0
_LONGEST_DAYS = 3650


class Room(FrozenRecord):
    """Where the piece will live: its air, and readings of a piece of wood that has always lived there.

    The readings come first: meters disagree with each other, and the difference is what counts.
    """

    temperature: Fraction | None = None
    humidity: Fraction | None = None
    reference: tuple[Reading, ...] = ()

    @property
    def target(self) -> float | None:
        """The moisture wood settles at there, in per cent; None if nothing is known of it."""
        if self.reference:
            latest = self.reference[-3:]
            return sum(float(reading.percent) for reading in latest) / len(latest)
        if self.temperature is None or self.humidity is None:
            return None
        try:
            return equilibrium_moisture(float(self.temperature), float(self.humidity))
        except ClimateError:
            return None


class Readiness(NamedTuple):
    """How a board stands against the room.

    Parameters
    ----------
    difference : float
        Points above (or below) the room at the last reading.
    last : str
        The day of it.
    days : (float, float, float)
        Days after the first reading until it is within `NEAR_ENOUGH`: early, middle, late; one
        in ten falls before the first and one in ten after the last.
    time_constant : float
        τ in days, in the middle.
    start : float
        The difference at the first reading, as fitted, points.
    first : str
        The day of the first reading.
    """

    difference: float
    last: str
    days: tuple[float, float, float]
    time_constant: float
    start: float
    first: str

    @property
    def ready(self) -> bool:
        """Whether it is dry enough already."""
        return abs(self.difference) <= NEAR_ENOUGH

    @property
    def on(self) -> tuple[str, str, str]:
        """The days by the calendar: early, middle, late."""
        began = date.fromisoformat(self.first)
        early, middle, late = (
            (began + timedelta(days=min(_LONGEST_DAYS, math.ceil(days)))).isoformat() for days in self.days
        )
        return early, middle, late


@kept_by_value(512)
def readiness(board: Board, room: Room, rough_size: tuple[float, float] | None = None) -> Readiness | None:
    """Fit a drying curve to a board's readings and say when it should be ready; None without readings or a room.

    Parameters
    ----------
    board : Board
    room : Room
    rough_size : (length, width), mm, optional
        Of the parts, if they are sawn out now: the rest of the drying goes faster.

    Returns
    -------
    Readiness or None

    Notes
    -----
    τ runs over a grid; for each, the difference at first is fitted by least squares. What the
    meter's scatter and the usual τ make of it is weighed by Bayes' rule.

    Examples
    --------
    >>> from nullah.core.lengths import mm
    >>> damp = Board("1", "a", "", mm(1000), mm(150), mm(25), readings=(Reading("2026-03-01", Fraction(14)),
    ...              Reading("2026-03-15", Fraction(11))))
    >>> found = readiness(damp, Room(reference=(Reading("2026-03-01", Fraction(9)),)))
    >>> found.difference, found.ready, found.on[0] < found.on[1] < found.on[2]
    (2.0, False, True)
    """
    target = room.target
    if target is None or not board.readings:
        return None
    readings = sorted(board.readings, key=lambda reading: reading.day)
    first = date.fromisoformat(readings[0].day)
    days = [float((date.fromisoformat(reading.day) - first).days) for reading in readings]
    over = [float(reading.percent) - target for reading in readings]
    usual = usual_days(float(board.length), float(board.width), float(board.thickness))
    faster = 1.0
    if rough_size is not None:
        faster = usual_days(*rough_size, float(board.thickness)) / usual
    weighed: list[tuple[float, float, float, float]] = []
    for step in range(-40, 41):
        tau = usual * math.exp(step * 0.05)
        start, misfit = _fitted(days, over, tau)
        weight = math.exp(-misfit / (2 * _METER_SPREAD**2) - (step * 0.05 / _USUAL_SPREAD) ** 2 / 2)
        # Readings that jump about leave the difference at first unsure too.
        weighed.append((_until(start, tau, days[-1], faster), tau, start, weight))
    until = _quantiles([(item[0], item[3]) for item in weighed])
    middle = _quantiles([(item[1], item[3]) for item in weighed])[1]
    begun = _quantiles([(item[2], item[3]) for item in weighed])[1]
    return Readiness(over[-1], readings[-1].day, until, middle, begun, readings[0].day)


def usual_days(length: float, width: float, thickness: float) -> float:
    """Return the usual τ, days, of a piece of that size, mm: it goes with (volume / surface)², end grain counted more.

    Parameters
    ----------
    length : float
        mm.
    width : float
        mm.
    thickness : float
        mm.

    Returns
    -------
    float
        Days.

    Examples
    --------
    >>> usual_days(2000, 200, 25) > usual_days(400, 200, 25) > usual_days(400, 100, 25)
    True
    """

    def depth(size: tuple[float, float, float]) -> float:
        a, b, c = size
        return a * b * c / (2 * (a * b + a * c) + 2 * _END_GRAIN * b * c)

    return _USUAL_DAYS_25 * (depth((length, width, thickness)) / depth((2000.0, 200.0, 25.0))) ** 2


def curve(found: Readiness, days: Sequence[float]) -> list[float]:
    """Return the fitted difference to the room in points, so many days after the first reading.

    Parameters
    ----------
    found : Readiness
        What was fitted to the readings.
    days : Sequence[float]
        After the first reading.

    Returns
    -------
    list[float]
        Points of moisture content.
    """
    return [found.start * math.exp(-day / found.time_constant) for day in days]


def _fitted(days: Sequence[float], over: Sequence[float], tau: float) -> tuple[float, float]:
    """Fit d₀ of d₀·e^(−t/τ) by least squares; give it and the squares that are left."""
    shape = [math.exp(-day / tau) for day in days]
    start = sum(s * d for s, d in zip(shape, over, strict=True)) / sum(s * s for s in shape)
    return start, sum((d - start * s) ** 2 for s, d in zip(shape, over, strict=True))


def _until(start: float, tau: float, last: float, faster: float) -> float:
    """Return the days until the difference is small; from the last reading on a changed board dries `faster` τ."""
    if abs(start) <= NEAR_ENOUGH:
        return 0.0
    days = tau * math.log(abs(start) / NEAR_ENOUGH)
    return days if days <= last else last + (days - last) * faster


def _quantiles(values: list[tuple[float, float]]) -> tuple[float, float, float]:
    """Return the weighted tenth, half and nine tenths."""
    ordered = sorted(values)
    whole = sum(weight for _, weight in ordered) or 1.0
    found, gone, wanted = [], 0.0, [0.1, 0.5, 0.9]
    for value, weight in ordered:
        gone += weight / whole
        while wanted and gone >= wanted[0] - 1e-12:
            found.append(value)
            wanted.pop(0)
    while len(found) < 3:
        found.append(ordered[-1][0])
    return found[0], found[1], found[2]
