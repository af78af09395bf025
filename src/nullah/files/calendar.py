"""The calendar of the work as an iCalendar file (RFC 5545): a session at the bench is an event."""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from datetime import datetime
from pathlib import Path

from nullah.core.bench.hours import Stint
from nullah.core.limits import shown
from nullah.core.reader import Reader
from nullah.core.wording.task_titles import task_title
from nullah.writing import why, write_file


class CalendarError(Exception):
    """A calendar that cannot be written, in a sentence."""


def calendar_text(piece: str, stints: Sequence[Stint], stamp: datetime, reader: Reader, identity: str = "") -> str:
    """Write sessions as iCalendar; what follows without a break is one event, its tasks in the description.

    Times are those of the shop's own clock, without a zone (floating), as they are meant wherever the file is opened.
    `identity` tells the piece from others of its name: what is brought in again takes the place of the same piece's
    sessions, and of no other's.
    """
    from icalendar import Calendar, Event

    piece = shown(piece)
    known_by = hashlib.sha256(f"{shown(identity)}\n{piece}".encode()).hexdigest()[:16]

    calendar = Calendar()
    calendar.add("prodid", "-//Nullah//Day Book//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", piece)
    for number, session in enumerate(_sessions(stints)):
        event = Event()
        begin, end = session[0].begin, session[-1].end
        titles = list(dict.fromkeys(shown(task_title(stint.task, reader)) for stint in session))
        event.add("summary", f"{piece}: {titles[0]}" + (f" and {len(titles) - 1} more" if len(titles) > 1 else ""))
        event.add("description", "\n".join(titles))
        event.add("dtstart", begin.replace(microsecond=0))
        event.add("dtend", end.replace(microsecond=0))
        event.add("dtstamp", stamp.replace(microsecond=0))
        event.add("uid", f"{known_by}-{begin:%Y%m%dT%H%M}-{number}@nullah.invalid")
        calendar.add_component(event)
    return str(calendar.to_ical(), "utf-8")


def _sessions(stints: Sequence[Stint]) -> list[list[Stint]]:
    found: list[list[Stint]] = []
    for stint in stints:
        if found and (stint.begin - found[-1][-1].end).total_seconds() < 60:
            found[-1].append(stint)
        else:
            found.append([stint])
    return found


def write_calendar(
    path: Path, piece: str, stints: Sequence[Stint], stamp: datetime, reader: Reader, identity: str = ""
) -> int:
    """Write the calendar, and give how many sessions it has.

    Raises
    ------
    CalendarError
    """
    try:
        write_file(path, calendar_text(piece, stints, stamp, reader, identity))
    except OSError as error:
        raise CalendarError(f"{path} cannot be written: {why(error)}.") from error
    return len(_sessions(stints))
