"""Sessions as calendar events: whose they are, and names of any kind."""

from datetime import datetime, timedelta

import icalendar
import pytest

from nullah.core.bench.hours import Stint
from nullah.core.bench.task_facts import SawBoard
from nullah.core.bench.tasks import Task
from nullah.core.bench.trades import Trade
from nullah.core.reader import Reader
from nullah.files.calendar import CalendarError, calendar_text, write_calendar

AT = datetime(2026, 11, 26, 18, 30)


def stints(board="Ford 1"):
    task = Task("saw/1", SawBoard(board, 2), Trade.SAW, ("left",))
    return [Stint(task, AT + timedelta(days=day), AT + timedelta(days=day, hours=1)) for day in range(3)]


def events(name, stints, at, identity):
    return icalendar.Calendar.from_ical(calendar_text(name, stints, at, Reader(), identity)).walk("VEVENT")


def uids(*arguments):
    return {str(event["uid"]) for event in events(*arguments)}


def test_two_pieces_never_take_each_others_place():
    mine = uids("New piece", stints(), AT, "box /home/a.nullah")
    assert len(mine) == 3
    assert not mine & uids("New piece", stints(), AT, "box /home/b.nullah")
    assert not mine & uids("Other piece", stints(), AT, "box /home/a.nullah")
    assert mine == uids("New piece", stints(), AT + timedelta(days=1), "box /home/a.nullah"), "written again: the same"


@pytest.mark.parametrize("name", ["a\nb", "a\r\nEND:VCALENDAR\r\nb", "\x00\x1b", "a;b,c\\n", "\ud800", "x" * 500])
def test_a_name_of_any_kind_breaks_nothing(name):
    found = events(name, stints(name), AT, name)
    assert len(found) == 3
    assert all("\n" not in str(event["summary"]) for event in found)


def test_a_calendar_that_cannot_be_written_is_a_sentence(tmp_path):
    with pytest.raises(CalendarError, match="there is no such folder"):
        write_calendar(tmp_path / "no" / "a.ics", "box", stints(), AT, Reader())
