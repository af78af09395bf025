"""Days and times of day."""

from __future__ import annotations

from datetime import date, datetime, time

from nullah.core.bench.hours import DAYS
from nullah.core.catalogue import N_
from nullah.core.reader import Reader
from nullah.core.wood.climate import MONTHS

_SHORT_DAYS = (N_("Mon"), N_("Tue"), N_("Wed"), N_("Thu"), N_("Fri"), N_("Sat"), N_("Sun"))
_SHORT_MONTHS = (
    N_("Jan"),
    N_("Feb"),
    N_("Mar"),
    N_("Apr"),
    N_("May"),
    N_("Jun"),
    N_("Jul"),
    N_("Aug"),
    N_("Sep"),
    N_("Oct"),
    N_("Nov"),
    N_("Dec"),
)


def day_of(at: date, reader: Reader) -> str:
    """Return a day without its year.

    Examples
    --------
    >>> day_of(date(2026, 12, 5), Reader())
    'Saturday, December 5'
    """
    weekday, month = reader.text(DAYS[at.weekday()]), reader.text(MONTHS[at.month - 1])
    return reader.text("{weekday}, {month} {day}", weekday=weekday, month=month, day=at.day)


def short_day(at: date, reader: Reader) -> str:
    """Return a day as it stands in tables and drawings.

    Examples
    --------
    >>> short_day(date(2026, 12, 5), Reader())
    'Sat, Dec 5'
    """
    weekday, month = reader.text(_SHORT_DAYS[at.weekday()]), reader.text(_SHORT_MONTHS[at.month - 1])
    return reader.text("{weekday}, {month} {day}", weekday=weekday, month=month, day=at.day)


def whole_date(at: date, reader: Reader) -> str:
    """Return a day with its year.

    Examples
    --------
    >>> whole_date(date(2026, 12, 5), Reader())
    'Sat, December 5, 2026'
    """
    weekday, month = reader.text(_SHORT_DAYS[at.weekday()]), reader.text(MONTHS[at.month - 1])
    return reader.text("{weekday}, {month} {day}, {year}", weekday=weekday, month=month, day=at.day, year=at.year)


def clock(at: datetime | time) -> str:
    """Return a time of day.

    Examples
    --------
    >>> clock(datetime(2026, 12, 5, 9, 30))
    '09:30'
    """
    return f"{at:%H:%M}"
