"""A hygrometer's log as a table: ``time,temperature,humidity``; what it makes of the twelve months of a year."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from pathlib import Path

from nullah.core.limits import quoted, read_number
from nullah.core.named_tuple import NamedTuple
from nullah.core.wood.climate import MONTHS, Climate, climate_of
from nullah.files.tables import Row, TableError, each, read_rows

_TIME, _TEMPERATURE, _HUMIDITY = "time", "temperature", "humidity"


class Log(NamedTuple):
    """What a log made of a year, and what is to be said of it."""

    climate: Climate
    said: tuple[str, ...]


def read_hygrometer_log(path: Path, otherwise: Climate) -> Log:
    """Read a log; months it does not have are filled from `otherwise`, moved by how the others differ from it.

    Raises
    ------
    TableError
        For a file that cannot be read, lacks a column, or holds air that cannot be; the message names the line.
    """
    readings = each(path, read_rows(path, (_TIME, _TEMPERATURE, _HUMIDITY)), _reading)
    return year_of_log(readings, path.stem, otherwise)


def _reading(row: Row) -> tuple[datetime, float, float]:
    temperature, humidity = read_number(row[_TEMPERATURE]), read_number(row[_HUMIDITY])
    try:
        at = datetime.fromisoformat(row[_TIME]).replace(tzinfo=None)
    except ValueError:
        at = None
    if at is None or temperature is None or humidity is None:
        raise ValueError(
            f"{quoted(', '.join(filter(None, row.values())))} is not a time (such as "
            "2026-03-01T08:00), a temperature and a humidity."
        )
    if not 0 <= humidity <= 100:
        raise ValueError(f"a humidity of {humidity:g} % cannot be: it runs from 0 to 100 %.")
    if not -40 <= temperature <= 60:
        raise ValueError(f"{temperature:g} °C is no air of a room; it wants -40 to 60 °C.")
    return at, temperature, humidity


def year_of_log(readings: Iterable[tuple[datetime, float, float]], name: str, otherwise: Climate) -> Log:
    """Make the twelve months of readings: each the mean of its days, so that a busy day counts no more than others.

    Raises
    ------
    TableError
        Without any reading.
    """
    days: dict[tuple[int, int, int], list[tuple[float, float]]] = {}
    said: list[str] = []
    back, last = 0, None
    for at, temperature, humidity in readings:
        if last is not None and at < last:
            back += 1
        last = at
        days.setdefault((at.year, at.month, at.day), []).append((temperature, humidity))
    if not days:
        raise TableError(f"{name} has no reading in it.")
    if back:
        said.append(f"The clock went back at {back} place{'s' * (back != 1)}; readings are put to the day they name.")
    found: dict[int, tuple[float, float]] = {}
    for month in range(1, 13):
        of_days = [_mean(pairs) for (_, each, _), pairs in days.items() if each == month]
        if of_days:
            found[month] = _mean(of_days)
    gaps = [month for month in range(1, 13) if month not in found]
    if gaps:
        said.append(
            f"It has nothing of {', '.join(MONTHS[month - 1] for month in gaps)}: filled after “{otherwise.name}”."
        )
    off = []
    for month, (temperature, humidity) in found.items():
        usual = otherwise.months[month - 1]
        off.append((temperature - usual.temperature, humidity - usual.humidity))
    shift = _mean(off)
    months = []
    for month in range(1, 13):
        usual = otherwise.months[month - 1]
        months.append(found.get(month, (usual.temperature + shift[0], min(max(usual.humidity + shift[1], 0.0), 100.0))))
    rounded = [(round(temperature, 1), round(humidity, 1)) for temperature, humidity in months]
    return Log(climate_of(name, rounded), tuple(said))


def _mean(pairs: list[tuple[float, float]]) -> tuple[float, float]:
    return sum(a for a, _ in pairs) / len(pairs), sum(b for _, b in pairs) / len(pairs)
