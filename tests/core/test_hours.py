"""The calendar: bench hours, waits overnight, what decides the end."""

from datetime import datetime, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nullah.core.bench.hours import (
    Hours,
    HoursBackwards,
    HoursError,
    HoursFault,
    NoHours,
    plan_days,
    read_hours,
    write_hours,
)
from nullah.core.bench.tasks import Task
from nullah.core.bench.trades import Trade

EVENINGS = Hours(((1080, 1200),) * 7)  # 18 to 20 h, every day
MONDAY = datetime(2026, 1, 5, 12)


def task(name, after=(), waits=0.0, whole=False, trade=Trade.JOINT):
    return Task(name, name, trade, (), tuple(after), waits=waits, whole=whole)


def at(calendar, name):
    return next(stint.begin for stint in calendar.stints if stint.task.id == name)


def test_work_goes_into_bench_hours_and_over_the_night():
    calendar = plan_days((task("a"), task("b", ("a",))), {"a": 90, "b": 60}, EVENINGS, MONDAY)
    spans = [(stint.begin.isoformat()[5:16], stint.end.isoformat()[11:16]) for stint in calendar.stints]
    assert spans == [("01-05T18:00", "19:30"), ("01-05T19:30", "20:00"), ("01-06T18:00", "18:30")]


def test_what_must_wait_goes_last_in_the_day_for_its_wait_runs_through_the_night():
    glue = task("glue", waits=10)
    calendar = plan_days(
        (glue, task("saw"), task("clean", ("glue",))), {"glue": 20, "saw": 60, "clean": 30}, EVENINGS, MONDAY
    )
    assert at(calendar, "saw") < at(calendar, "glue") < MONDAY + timedelta(hours=8)
    assert at(calendar, "clean").day == 6


def test_a_short_wait_is_begun_at_once_for_it_is_over_the_same_day():
    day = Hours(((480, 1080),) * 7)
    short = task("glue", waits=1)
    calendar = plan_days(
        (short, task("saw"), task("clean", ("glue",))),
        {"glue": 20, "saw": 60, "clean": 30},
        day,
        MONDAY.replace(hour=8),
    )
    assert at(calendar, "glue") < at(calendar, "saw") and at(calendar, "clean").day == 5


def test_what_must_not_be_left_half_done_is_begun_where_it_can_be_ended():
    calendar = plan_days((task("a"), task("glue", ("a",), whole=True)), {"a": 100, "glue": 40}, EVENINGS, MONDAY)
    assert at(calendar, "glue").isoformat()[5:16] == "01-06T18:00"
    # What is longer than any session is begun all the same.
    long = plan_days((task("glue", whole=True),), {"glue": 200}, EVENINGS, MONDAY)
    assert len(long.stints) == 2


def test_what_costs_no_labour_waits_by_itself():
    dry = task("dry", waits=48, trade=Trade.DRY)
    calendar = plan_days(
        (dry, task("mill", ("dry",)), task("other")), {"dry": 0, "mill": 30, "other": 30}, EVENINGS, MONDAY
    )
    assert at(calendar, "other").day == 5 and at(calendar, "mill").day == 7
    assert calendar.why["mill"] == "wait" and calendar.chain == ("dry", "mill")


def test_the_chain_says_what_decides_the_end():
    tasks = (task("a"), task("b", ("a",), waits=12), task("c", ("b",)), task("d"))
    calendar = plan_days(tasks, dict.fromkeys("abcd", 30.0), EVENINGS, MONDAY)
    assert calendar.chain[-1] == "c" and calendar.why["c"] == "wait"
    assert calendar.finish == max(calendar.free.values())


@pytest.mark.dear
def test_hours_that_never_come_are_refused():
    with pytest.raises(HoursError) as refused:
        plan_days((task("a"),), {"a": 5}, Hours((None,) * 7), MONDAY)
    assert refused.value.fact is HoursFault.NONE_IN_THE_WEEK
    with pytest.raises(HoursError) as refused:
        plan_days((task("a"), task("b", ("a",))), {"a": 9e5, "b": 9e5}, Hours(((0, 10), *(None,) * 6)), MONDAY)
    assert refused.value.fact is HoursFault.TAKES_TOO_LONG


@pytest.mark.parametrize(("text", "span"), [("18:30-21", (1110, 1260)), ("9–12:30", (540, 750)), (" ", None)])
def test_hours_are_read_as_people_write_them(text, span):
    assert read_hours(text) == span and read_hours(write_hours(span)) == span


@pytest.mark.parametrize(
    ("text", "fact"),
    [("evening", NoHours), ("21-18", HoursBackwards), ("9:75-10", NoHours), ("9-25", NoHours), ("9", NoHours)],
)
def test_hours_that_are_none_are_refused(text, fact):
    with pytest.raises(HoursError) as refused:
        read_hours(text)
    assert refused.value.fact == fact(text)


@settings(max_examples=60)
@given(st.data())
def test_every_plan_keeps_to_hours_waits_and_what_comes_after_what(data):
    count = data.draw(st.integers(1, 12))
    tasks, minutes = [], {}
    for number in range(count):
        after = data.draw(st.lists(st.integers(0, number - 1), max_size=3, unique=True)) if number else []
        waits = data.draw(st.sampled_from((0.0, 0.0, 2.0, 14.0)))
        tasks.append(task(str(number), map(str, after), waits, data.draw(st.booleans())))
        minutes[str(number)] = data.draw(st.integers(0, 170))
    calendar = plan_days(tuple(tasks), minutes, EVENINGS, MONDAY)
    begins, ends = {}, {}
    for stint in calendar.stints:
        begins.setdefault(stint.task.id, stint.begin)
        ends[stint.task.id] = stint.end
        assert stint.begin.hour >= 18 and stint.end <= stint.begin.replace(hour=20, minute=0)
    for one, two in zip(calendar.stints, calendar.stints[1:], strict=False):
        assert one.end <= two.begin, "one pair of hands"
    assert set(calendar.free) == {each.id for each in tasks}
    for each in tasks:
        done = sum((s.end - s.begin).total_seconds() / 60 for s in calendar.stints if s.task.id == each.id)
        assert done == pytest.approx(minutes[each.id])
        for before in each.after:
            if each.id in begins:
                assert calendar.free[before] <= begins[each.id]
