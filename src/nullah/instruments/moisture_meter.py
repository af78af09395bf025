"""A moisture meter: what the desk asks of one, one that is typed by a keyboard wedge, and a simulated one."""

from __future__ import annotations

import math
import random
import re
from typing import Protocol

from nullah.core.fraction import Fraction
from nullah.core.limits import LENGTH_TEXT, quoted


class MeterError(ValueError):
    """What came from a meter is no reading; the message says what came."""


class MoistureMeter(Protocol):
    """Whatever gives a moisture content when its pins are pressed into wood."""

    @property
    def name(self) -> str:
        """What it is called on the desk."""

    def read(self, specimen: str, day: int) -> Fraction:
        """Return the moisture of a piece of wood in per cent; `day` counts from when it came into the room."""


def read_line(line: str) -> Fraction:
    """Read a line as a meter types or sends it, such as ``MC 11.5 %`` or ``11,5``.

    Raises
    ------
    MeterError

    Examples
    --------
    >>> read_line("MC  11.5 %")
    Fraction(23, 2)
    """
    found = re.findall(r"-?[0-9]{1,9}(?:[.,][0-9]{1,9})?", line[:LENGTH_TEXT])
    if len(found) != 1:
        raise MeterError(f"{quoted(line)} is not a reading: one number is wanted.")
    percent = Fraction(found[0].replace(",", "."))
    if not 0 <= percent <= 200:
        raise MeterError(f"{float(percent):g} % is not a moisture a meter gives.")
    return percent


class SimulatedMeter:
    """A meter on simulated wood that dries towards its room, with the scatter a pin meter has.

    Parameters
    ----------
    start, room : float
        Moisture in per cent of wood that comes in, and of wood that has always lived there.
    time_constant : float
        Days until 1/e of the difference is left.
    scatter : float
        Standard deviation of a reading, points.
    seed : int
        The same seed gives the same readings.
    """

    name = "simulated meter"

    def __init__(
        self, start: float = 13.0, room: float = 9.0, time_constant: float = 12.0, scatter: float = 0.3, seed: int = 1
    ) -> None:
        self._start, self._room, self._tau, self._scatter = start, room, time_constant, scatter
        self._seed = seed

    def true_moisture(self, day: float) -> float:
        """Return what the wood really holds, in per cent."""
        return self._room + (self._start - self._room) * math.exp(-day / self._tau)

    def read(self, specimen: str, day: int) -> Fraction:
        """Return a reading to half a point; the room's own piece is called ``reference``."""
        true = self._room if specimen == "reference" else self.true_moisture(day)
        shown = true + random.Random(f"{self._seed} {specimen} {day}").gauss(0.0, self._scatter)
        return Fraction(round(max(0.0, shown) * 2), 2)
