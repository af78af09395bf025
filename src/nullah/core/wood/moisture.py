"""Water in wood: the moisture content at which wood settles."""

from __future__ import annotations

from nullah.core.errors import FactError
from nullah.core.frozen_record import FrozenRecord


class TemperatureOutside(FrozenRecord):
    """A temperature that the formula does not cover, °C."""

    celsius: float


class HumidityOutside(FrozenRecord):
    """A relative humidity that air cannot have, %."""

    percent: float


class ClimateError(FactError):
    """A temperature or humidity that air cannot have or the formula does not cover."""


def air_outside(temperature: float, humidity: float) -> TemperatureOutside | HumidityOutside | None:
    """Return what of air is outside what `equilibrium_moisture` covers; None where nothing is.

    Parameters
    ----------
    temperature : float
        °C.
    humidity : float
        Relative, %.

    Examples
    --------
    >>> air_outside(21, 100), air_outside(21, 101)
    (None, HumidityOutside(percent=101))
    """
    if not -20 <= temperature <= 110:
        return TemperatureOutside(temperature)
    return None if 0 <= humidity <= 100 else HumidityOutside(humidity)


def equilibrium_moisture(temperature: float, humidity: float) -> float:
    """Return the equilibrium moisture content (EMC) of wood in air.

    Parameters
    ----------
    temperature : float
        Of the air, °C, from -20 to 110.
    humidity : float
        Relative humidity, %, 0 to 100.

    Returns
    -------
    float
        EMC in % of the dry weight.

    Raises
    ------
    ClimateError
        Outside those ranges.

    Notes
    -----
    Hailwood-Horrobin form, *Wood Handbook* (USDA FPL-GTR-282), ch. 4, eq. 4-5, with its
    constants for °C; constants from memory, checked against the Handbook's table in
    `tests/outside`.

    Examples
    --------
    >>> round(equilibrium_moisture(21, 50), 1)
    9.2
    """
    outside = air_outside(temperature, humidity)
    if outside is not None:
        raise ClimateError(outside)
    t, h = temperature, humidity / 100
    w = 349 + 1.29 * t + 0.0135 * t**2
    k = 0.805 + 0.000736 * t - 0.00000273 * t**2
    k1 = 6.27 - 0.00938 * t - 0.000303 * t**2
    k2 = 1.91 + 0.0407 * t - 0.000293 * t**2
    kh = k * h
    bound = (k1 * kh + 2 * k1 * k2 * kh**2) / (1 + k1 * kh + k1 * k2 * kh**2)
    return 1800 / w * (kh / (1 - kh) + bound)
