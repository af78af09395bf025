"""A hygrometer that keeps a log: what the desk asks of one, how a line of a real one is read, and a simulated one."""

from __future__ import annotations

import math
import random
import re
from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Protocol

from nullah.core.limits import LENGTH_TEXT, quoted
from nullah.core.named_tuple import NamedTuple
from nullah.core.wood.climate import USUAL, Climate


class HygrometerError(ValueError):
    """What came from a hygrometer is no reading; the message says what came."""


class AirReading(NamedTuple):
    """Air at a time: °C and % relative humidity."""

    at: datetime
    temperature: float
    humidity: float


class Hygrometer(Protocol):
    """Whatever tells of the air it hangs in."""

    @property
    def name(self) -> str:
        """What it is called on the desk."""

    def read(self, at: datetime) -> AirReading:
        """Return the air at a time."""


def read_air_line(line: str, at: datetime) -> AirReading:
    """Read a line as a hygrometer types or sends it, such as ``21.5 C 47 %``.

    Raises
    ------
    HygrometerError

    Examples
    --------
    >>> found = read_air_line("T 21.5 C  RH 47 %", datetime(2026, 3, 1))
    >>> found.temperature, found.humidity
    (21.5, 47.0)
    """
    found = re.findall(r"-?[0-9]{1,9}(?:[.,][0-9]{1,9})?", line[:LENGTH_TEXT])
    numbers = [float(each.replace(",", ".")) for each in found]
    if len(numbers) != 2:
        raise HygrometerError(f"{quoted(line)} is not what a hygrometer sends: temperature and humidity are wanted.")
    temperature, humidity = numbers
    if not 0 <= humidity <= 100:
        raise HygrometerError(f"A humidity of {humidity:g} % cannot be: it runs from 0 to 100 %.")
    if not -40 <= temperature <= 60:
        raise HygrometerError(f"{temperature:g} °C is no air to work in; a hygrometer gives -40 to 60 °C.")
    return AirReading(at, temperature, humidity)


class SimulatedHygrometer:
    """A hygrometer in a room made up after a climate, with days and weather in it.

    Parameters
    ----------
    climate : Climate
    seed : int
        The same seed gives the same air.
    """

    name = "simulated hygrometer"

    def __init__(self, climate: Climate = USUAL, seed: int = 1) -> None:
        self._climate, self._seed = climate, seed

    def read(self, at: datetime) -> AirReading:
        """Return the air at a time: that of the season, a daily wave, and the weather of the day."""
        place = (at.timetuple().tm_yday - 15.5) / (365.25 / 12)
        month, share = math.floor(place), place - math.floor(place)
        one, two = self._climate.months[month % 12], self._climate.months[(month + 1) % 12]
        chance = random.Random(f"{self._seed} {at.date().isoformat()}")
        wave = math.sin((at.hour - 9) / 24 * 2 * math.pi)
        temperature = one.temperature + share * (two.temperature - one.temperature) + wave + chance.gauss(0, 0.6)
        humidity = one.humidity + share * (two.humidity - one.humidity) - 2 * wave + chance.gauss(0, 3)
        return AirReading(at, round(temperature, 1), round(min(max(humidity, 5.0), 98.0), 0))

    def year(self, begin: datetime, every_hours: int = 6) -> Iterator[AirReading]:
        """Yield its log of a year."""
        for step in range(365 * 24 // every_hours):
            yield self.read(begin + timedelta(hours=step * every_hours))
