"""How long something takes, as people say it."""

from __future__ import annotations

from nullah.core.reader import Reader


def time_words(minutes: float, reader: Reader) -> str:
    """Return a time to the minute.

    Examples
    --------
    >>> [time_words(each, Reader()) for each in (0, 0.2, 12.4, 95, 600)]
    ['0 min', '1 min', '12 min', '1 h 35 min', '10 h']
    """
    whole = max(1, round(minutes)) if minutes > 0 else 0
    hours, rest = divmod(whole, 60)
    if not hours:
        return reader.text("{n} min", n=rest)
    return reader.text("{h} h {n} min", h=hours, n=rest) if rest else reader.text("{h} h", h=hours)


def about_words(minutes: float, reader: Reader) -> str:
    """Return a time no finer than it can be known.

    Examples
    --------
    >>> [about_words(each, Reader()) for each in (0.4, 7.2, 52, 138)]
    ['1 min', '7 min', '50 min', '2 h 20 min']
    """
    if minutes < 20:
        return time_words(max(1, round(minutes)), reader)
    return time_words(round(minutes / 5) * 5 if minutes < 60 else round(minutes, -1), reader)
