"""The air of a room through a year, and the moisture wood has in it month by month."""

from __future__ import annotations

import math
from collections.abc import Sequence

from nullah.core.catalogue import N_
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import kept_by_value
from nullah.core.named_tuple import NamedTuple
from nullah.core.wood.moisture import (
    ClimateError,
    HumidityOutside,
    TemperatureOutside,
    air_outside,
    equilibrium_moisture,
)

MONTHS = (
    N_("January"),
    N_("February"),
    N_("March"),
    N_("April"),
    N_("May"),
    N_("June"),
    N_("July"),
    N_("August"),
    N_("September"),
    N_("October"),
    N_("November"),
    N_("December"),
)
#: Mean length of a month, days.
_MONTH = 365.2425 / 12


class Air(NamedTuple):
    """Air of a month: temperature in °C and relative humidity in %."""

    temperature: float
    humidity: float


class Climate(NamedTuple):
    """Twelve months of air, from January, and what they are called."""

    name: str
    months: tuple[Air, ...]

    @property
    def moisture(self) -> tuple[float, ...]:
        """The moisture wood would settle at in each month's air, %."""
        return _settled(self.months)

    @property
    def swing(self) -> float:
        """How far apart its driest and its dampest month are, points of moisture."""
        return max(self.moisture) - min(self.moisture)


@kept_by_value(64)
def _settled(months: tuple[Air, ...]) -> tuple[float, ...]:
    return tuple(equilibrium_moisture(air.temperature, air.humidity) for air in months)


class NotTwelveMonths(FrozenRecord):
    """So many months as no year has."""

    months: int


class OfMonth(FrozenRecord):
    """What cannot be of the air of a month, from 0 for January."""

    month: int
    air: TemperatureOutside | HumidityOutside


def climate_of(name: str, months: Sequence[tuple[float, float]]) -> Climate:
    """Make a climate of twelve pairs of °C and %.

    Parameters
    ----------
    name : str
        What it is called.
    months : Sequence[tuple[float, float]]
        Air of each month from January: °C and % relative humidity.

    Raises
    ------
    ClimateError
        For other than twelve months, or air that cannot be; the fact names the month.
    """
    if len(months) != 12:
        raise ClimateError(NotTwelveMonths(len(months)))
    found = []
    for month, (temperature, humidity) in enumerate(months):
        outside = air_outside(temperature, humidity)
        if outside is not None:
            raise ClimateError(OfMonth(month, outside))
        found.append(Air(float(temperature), float(humidity)))
    return Climate(name, tuple(found))


def _preset(name: str, temperatures: Sequence[float], humidities: Sequence[float]) -> Climate:
    pairs = zip(temperatures, humidities, strict=True)
    return Climate(name, tuple(Air(float(t), float(h)) for t, h in pairs))


#: Rooms made up to begin with, none of a real place: a heated home swings by about 3 points (common practice).
PRESETS = (
    _preset(N_("heated house, cold winters"),
            (20, 20, 20, 21, 21, 22, 23, 23, 22, 21, 20, 20), (34, 35, 38, 42, 47, 52, 54, 53, 50, 45, 39, 35)),
    _preset(N_("house in a mild, wet country"),
            (18, 18, 18, 19, 20, 21, 22, 22, 21, 20, 19, 18), (52, 51, 50, 50, 53, 57, 61, 62, 60, 58, 55, 53)),
    _preset(N_("house in dry uplands"),
            (20, 20, 20, 20, 21, 23, 25, 25, 22, 21, 20, 20), (25, 25, 26, 28, 30, 33, 38, 40, 36, 31, 27, 25)),
    _preset(N_("shed without heating"),
            (3, 4, 7, 11, 15, 18, 20, 20, 16, 12, 7, 4), (84, 80, 74, 68, 66, 66, 67, 70, 75, 81, 85, 86)),
)  # fmt: skip
USUAL = PRESETS[0]


@kept_by_value(512)
def year_of(climate: Climate, days: float) -> tuple[float, ...]:
    """Return the moisture of wood in the middle of every month, %, year after year the same.

    Parameters
    ----------
    climate : Climate
    days : float
        Days after which 1/e of a difference to the air is left; 0 follows the air at once.

    Notes
    -----
    dm/dt = (EMC − m) / τ with each month's EMC constant: over a month m nears it by e^(−t/τ) (exact). The year
    closes where the moisture at its end is that of its beginning.

    Examples
    --------
    >>> thin, thick = year_of(USUAL, 3.0), year_of(USUAL, 60.0)
    >>> max(thick) - min(thick) < max(thin) - min(thin) <= USUAL.swing + 1e-9
    True
    """
    settled = climate.moisture
    if days <= 0:
        return settled
    month, half = math.exp(-_MONTH / days), math.exp(-_MONTH / 2 / days)
    # After a year m becomes gain · m + gathered; the year that repeats begins at gathered / (1 − gain).
    gathered = 0.0
    for emc in settled:
        gathered = emc + (gathered - emc) * month
    now = gathered / (1 - month**12)
    found = []
    for emc in settled:
        found.append(emc + (now - emc) * half)
        now = emc + (now - emc) * month
    return tuple(found)
