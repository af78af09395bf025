"""The Day Book's rules: progress, parts made again, timers that were forgotten, clocks that go backwards, searching."""

from dataclasses import replace
from datetime import datetime, timedelta

import pytest
from tests.said import said

from nullah.core import actions
from nullah.core.bench.book import (
    BookEntry,
    BookError,
    ClockWentBack,
    Event,
    HasZone,
    Timer,
    TimerForgotten,
    added,
    can_be_done,
    found,
    left_to_do,
    progress,
    timed,
)
from nullah.core.bench.hours import Hours
from nullah.core.bench.rates import Learned
from nullah.core.bench.task_facts import CleanPiece, GlueUp, MeasureSizes, MillParts
from nullah.core.bench.tasks import Task
from nullah.core.bench.trades import Trade
from nullah.core.fixes import MakeAgain, Shim
from nullah.core.lengths import mm
from nullah.core.limits import NotATime
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.reader import Reader
from nullah.core.refs import QuantityRef
from nullah.core.stations import STATIONS
from nullah.core.stations.next_step import draw_next, task_card
from nullah.core.stations.selection import DayBookSelection, Selection
from nullah.core.wording.durations import time_words
from nullah.core.wording.facts import fact_words
from nullah.core.wording.task_titles import task_title
from nullah.core.work import recording
from nullah.core.work.day_book import deviations, standing
from nullah.demo.seed_cabinet import seed_cabinet

DAYBOOK = next(station for station in STATIONS if station.id == "daybook")
NOW = datetime(2026, 3, 2, 19, 0)
MILL = Task("mill/sides", MillParts(("left", "right"), False, False), Trade.MILL, ("left", "right"))
GLUE = Task("glue/1", GlueUp(("left", "right"), 1, 1, False), Trade.GLUE, ("left", "right"), ("mill/sides",), waits=12)
CLEAN = Task("clean/1", CleanPiece(), Trade.CLEAN, ("left", "right"), ("glue/1",))
TASKS = (MILL, GLUE, CLEAN)


def done(task, at=NOW):
    return BookEntry(
        recording.stamp(at), Event.DONE, "mill the sides" if task is MILL else "glue up", task.id, task.parts
    )


def planned(project):
    return work_out(project, milling=False, proving=False)


# --- how far it is ------------------------------------------------------------------------------------------------


def test_what_comes_after_glue_waits_until_it_is_dry():
    far = progress(TASKS, (done(MILL), done(GLUE)))
    assert can_be_done(TASKS, far, NOW + timedelta(hours=3)) == ()
    assert can_be_done(TASKS, far, NOW + timedelta(hours=13)) == (CLEAN,)
    kept, minutes = left_to_do(TASKS, far, {task.id: 30.0 for task in TASKS}, NOW + timedelta(hours=3))
    waiting = next(task for task in kept if task.id == "glue/1")
    assert waiting.waits == pytest.approx(9) and minutes == {"mill/sides": 0, "glue/1": 0, "clean/1": 30}


def test_a_part_made_again_takes_up_what_was_done_to_it_and_no_more():
    book = (done(MILL), BookEntry(recording.stamp(NOW), Event.REMADE, "left side", parts=("left",)))
    far = progress(TASKS, book)
    assert far.open(MILL) and far.again["mill/sides"] == ("left",)
    _, minutes = left_to_do(TASKS, far, {task.id: 30.0 for task in TASKS}, NOW)
    assert minutes["mill/sides"] == 15, "one of two parts"
    after = progress(TASKS, (*book, done(MILL)))
    assert not after.open(MILL) and not after.again


def test_what_is_measured_already_needs_no_measuring():
    measure = Task("measure/x", MeasureSizes(("x",)), Trade.MEASURE, ("left",), measures=("x",))
    assert progress((measure,), ()).open(measure)
    assert not progress((measure,), (), ("x",)).open(measure)


# --- timers and clocks --------------------------------------------------------------------------------------------

EVENING = Hours(((1080, 1260),) * 7)  # 18 to 21 h


def test_a_timer_is_read():
    assert timed(Timer("a", "2026-03-02T18:30"), NOW, 40, EVENING) == (30, None)
    assert timed(None, NOW, 40, EVENING) == (0.0, None)


@pytest.mark.parametrize("since", ["2026-03-01T18:30", "2026-02-20T18:30"])
def test_a_timer_that_was_forgotten_counts_as_guessed_and_it_is_said(since):
    minutes, said = timed(Timer("a", since), NOW, 40, EVENING)
    ran = (NOW - datetime.fromisoformat(since)).total_seconds() / 60
    assert minutes == 40 and said == TimerForgotten(ran, 40)
    assert "40 min" in fact_words(said, Reader())


def test_a_timer_whose_clock_went_back_counts_nothing_and_it_is_said():
    minutes, said = timed(Timer("a", "2026-03-02T21:30"), NOW, 40, EVENING)
    assert minutes == 0 and said == ClockWentBack()


def test_the_book_takes_entries_whatever_the_clock_says_but_no_times_that_are_none():
    book = added((done(MILL),), done(GLUE, NOW - timedelta(days=40)))
    assert len(book) == 2, "nothing is lost when the clock goes back"
    with pytest.raises(BookError) as refused:
        added((), BookEntry("yesterday", Event.NOTE, ""))
    assert refused.value.fact == NotATime("yesterday")
    with pytest.raises(BookError) as refused:
        added((), BookEntry("2026-03-02T19:00+01:00", Event.NOTE, ""))
    assert refused.value.fact == HasZone("2026-03-02T19:00+01:00")


def test_the_book_is_searched_by_all_words_newest_first():
    book = (done(MILL), done(GLUE), BookEntry("2026-03-03T10:00", Event.NOTE, "", text="the left side has a check"))
    assert [entry.title for entry in found(book, "UP glue")] == ["glue up"]
    assert found(book, "left check")[0].event is Event.NOTE and found(book, "oak") == ()
    assert found(book, "") == tuple(reversed(book))


@pytest.mark.parametrize(("minutes", "words"), [(0, "0 min"), (0.2, "1 min"), (59.6, "1 h"), (125, "2 h 5 min")])
def test_times_are_written_as_people_say_them(minutes, words):
    assert time_words(minutes, Reader()) == words


# --- done, noted, measured ----------------------------------------------------------------------------------------


def test_done_writes_time_work_and_guess_and_lets_the_timer_go():
    plan = planned(seed_cabinet())
    task = standing(plan, NOW).next
    running = recording.start_timer(plan.project, task, NOW - timedelta(minutes=22))
    came = recording.finish(planned(running), task, "done", NOW)
    (entry,) = came.project.book
    assert entry.minutes == 22 and entry.guess > 0 and entry.work == task.work and came.project.timer is None
    typed = recording.finish(plan, task, "done", NOW, 35.0)
    assert typed.project.book[0].minutes == 35


def test_a_board_that_was_sawn_leaves_its_offcuts_on_the_rack():
    plan = planned(seed_cabinet())
    task = next(task for task in standing(plan, NOW).order.tasks if task.id == "saw/2")
    came = recording.finish(plan, task, "done", NOW, 4.0)
    assert came.project.board("2").sawn and len(came.project.boards) > len(plan.project.boards)
    assert came.said == (recording.OffcutsCame(len(came.project.boards) - len(plan.project.boards)),)


def test_a_measurement_goes_to_the_ledger_and_to_the_book_with_what_was_planned():
    plan = planned(seed_cabinet())
    after = planned(recording.measured(plan, "column.width", mm("325.2"), NOW))
    assert after.ledger["column.width"] == mm("325.2").mm
    (entry,) = after.project.book
    assert entry.event is Event.MEASURED and "325.2 mm, planned 326.0 mm" in entry.text
    (told,) = deviations(after)
    assert told.off == pytest.approx(-0.8)
    card = DAYBOOK.card(after, Selection(daybook=DayBookSelection(now=recording.stamp(NOW))))
    remark = next(remark for remark in card.mind if remark.ref == QuantityRef("column.width"))
    assert "0.8 mm less than planned" in said(remark, plan) and "follow" in said(remark, plan)
    assert [type(fix) for fix in remark.fixes] == [Shim]


def test_a_thickness_short_can_be_shimmed_or_its_part_made_again():
    plan = planned(recording.measured(planned(seed_cabinet()), "divider.thickness", mm("11.2"), NOW))
    remark = next(
        r
        for r in DAYBOOK.card(plan, Selection(daybook=DayBookSelection(now=recording.stamp(NOW)))).mind
        if r.ref == QuantityRef("divider.thickness")
    )
    assert [type(fix) for fix in remark.fixes] == [Shim, MakeAgain]
    shimmed = planned(recording.shim(plan, "divider.thickness", NOW))
    assert shimmed.ledger["divider.thickness"] == 12 and "Shim of 0.8 mm" in shimmed.project.book[-1].text
    assert deviations(shimmed) == ()


def test_a_hair_off_is_not_made_much_of():
    plan = planned(recording.measured(planned(seed_cabinet()), "column.width", mm("325.9"), NOW))
    assert deviations(plan) == ()


# --- made again ---------------------------------------------------------------------------------------------------


def test_wood_for_another_is_the_smallest_that_will_do():
    plan = planned(seed_cabinet())
    woods = recording.wood_for(plan, "drawer11_back")
    assert woods and [wood.left for wood in woods] == sorted(wood.left for wood in woods)
    came = recording.remake(plan, "drawer11_back", "split", NOW, str)
    again = planned(came.project)
    assert again.board_of("drawer11_back").board.id == woods[0].board and not again.board_of("drawer11_back").wrong
    picked = recording.remake(plan, "drawer11_back", "split", NOW, str, woods[-1].board)
    assert planned(picked.project).board_of("drawer11_back").board.id == woods[-1].board


def test_where_no_wood_will_do_it_is_said_and_stands_first_in_the_order():
    project = seed_cabinet()
    for board in ("1", "2", "3", "4"):
        project = actions.change_board(project, replace(project.board(board), sawn=True))
    for board in ("5", "6", "7", "8"):
        project = actions.remove_board(project, board)
    came = recording.remake(planned(project), "left", "dropped", NOW, str)
    assert came.said == (recording.NoWoodForAnother("left"),) and came.project.book[-1].event is Event.REMADE
    assert came.project.book[-1].text == f"dropped; {came.said[0]}"
    stand = standing(planned(came.project), NOW)
    wood = next(task for task in stand.order.tasks if task.id == "wood")
    assert (
        "left" in wood.parts and task_title(wood, planned(project).reader) == f"Find wood for {len(wood.parts)} parts"
    )
    assert recording.remake(planned(project), "nothing", "x", NOW, str).said == (recording.NoSuchPart("nothing"),)


def test_what_was_measured_of_the_old_part_alone_is_not_so_of_the_new():
    plan = planned(recording.measured(planned(Project(Piece("box"))), "bottom.length", mm(300), NOW))
    assert "bottom.length" in dict(plan.project.piece.measured)
    came = recording.remake(plan, "bottom", "short", NOW, str)
    assert "bottom.length" not in dict(came.project.piece.measured)


# --- the station --------------------------------------------------------------------------------------------------


def test_every_task_of_the_cabinet_has_a_picture_and_a_card():
    plan = planned(seed_cabinet())
    stand = standing(plan, NOW)
    for task in stand.order.tasks:
        card = task_card(plan, stand, task)
        assert card.title and card.mark, task.id
        assert len(draw_next(plan, stand, task).elements) > 2, task.id


def test_saws_glue_and_finish_say_what_bites():
    plan = planned(seed_cabinet())
    for task, words in (("saw/1", "hold what falls"), ("glue/piece/1", "Never force"), ("finish/1", "ignite")):
        texts = [
            said(remark, plan)
            for remark in DAYBOOK.card(plan, Selection(daybook=DayBookSelection(task, now=recording.stamp(NOW)))).mind
        ]
        assert any(words in text for text in texts), task


def test_a_glue_up_too_long_for_its_glue_says_so():
    slow_hands = seed_cabinet().working._replace(rates=(("glue", Learned(3.0, 0.1, 9)),))
    plan = planned(replace(seed_cabinet(), working=slow_hands))
    texts = [
        said(r, plan)
        for r in DAYBOOK.card(plan, Selection(daybook=DayBookSelection("glue/piece/3", now=recording.stamp(NOW)))).mind
    ]
    assert any("longer than the glue stays open" in text for text in texts)
    few = planned(replace(plan.project, working=plan.project.working._replace(clamps=3)))
    texts = [
        said(r, few)
        for r in DAYBOOK.card(few, Selection(daybook=DayBookSelection("glue/piece/3", now=recording.stamp(NOW)))).mind
    ]
    assert any("there are 3" in text for text in texts)


def test_the_calendar_is_drawn_and_says_when_it_is_done_and_what_decides_it():
    plan = planned(seed_cabinet())
    selection = Selection(daybook=DayBookSelection(calendar=True, now=recording.stamp(NOW)))
    card = DAYBOOK.card(plan, selection)
    assert card.set[0].tool == "Done on" and any("What decides it" in line for line in card.why)
    assert any("done on" in getattr(e, "text", "") for e in DAYBOOK.draw(plan, selection).elements)
    never = planned(replace(plan.project, working=plan.project.working._replace(hours=Hours((None,) * 7))))
    assert any("no hours at the bench" in said(remark, never) for remark in DAYBOOK.card(never, selection).mind)
    assert DAYBOOK.draw(never, selection).elements


def test_an_empty_piece_has_nothing_to_do():
    plan = planned(Project(Piece("own")))
    assert not DAYBOOK.draw(plan, Selection()).elements and DAYBOOK.state(plan) == "not begun"
    assert "no piece" in said(DAYBOOK.card(plan, Selection()).mind[0], plan)
