"""The seed cabinet built in the Day Book from first cut to record; what goes wrong on the way is handled to the end."""

from dataclasses import replace
from fractions import Fraction

import pytest
from tests.said import said

from nullah.core.actions import read_moisture
from nullah.core.bench.book import Event
from nullah.core.lengths import mm
from nullah.core.plan import work_out
from nullah.core.rack.board import Reading
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import DayBookSelection, Selection
from nullah.core.wording.record import record_words
from nullah.core.wording.task_titles import task_title
from nullah.core.work import recording
from nullah.core.work.day_book import deviations, record_of, standing
from nullah.core.work.order_of_work import order_of_work
from nullah.core.work.recording import ComesOutOf
from nullah.demo.built import OFF, build
from nullah.demo.seed_cabinet import seed_cabinet

DAYBOOK = next(station for station in STATIONS if station.id == "daybook")
SEEN: dict[str, object] = {}


def spoil(project, task, now):
    """What goes wrong besides sides too thin and openings narrower: a wet board, a bottom cut short."""
    plan = work_out(project, milling=False, proving=False)
    if task.id == "saw/1" and "wet" not in SEEN:
        # Fresh faces: the meter says more than it did on the outside.
        project = read_moisture(project, "1", Reading(recording.stamp(now)[:10], Fraction(27, 2)))
        SEEN["wet"] = order_of_work(work_out(project, milling=False, proving=False)).task("dry/1")
    if task.id == "fit/drawer31_bottom" and "short" not in SEEN:
        came = recording.remake(plan, "drawer31_bottom", "cut 4 mm short", now, str)
        SEEN["short"] = came
        return came.project
    return project


@pytest.mark.dear
def test_the_cabinet_is_built_from_first_cut_to_record():
    """One build, looked at from all sides: it takes seconds."""
    SEEN.clear()
    project, now = build(seed_cabinet(), told=spoil)
    built = work_out(project, milling=False, proving=False), now
    for look in (
        it_is_finished_and_every_task_stands_in_the_book,
        sides_too_thin_flowed_on_into_the_joints,
        a_narrower_opening_made_the_dividers_and_drawers_narrower,
        a_board_wetter_than_thought_was_let_dry_before_its_parts_were_milled,
        the_short_bottom_was_made_again_out_of_other_wood,
        its_record_tells_what_was_learned,
        the_station_says_that_it_is_made,
        how_well_times_are_known_is_told,
    ):
        look(built)


def it_is_finished_and_every_task_stands_in_the_book(built):
    plan, now = built
    stand = standing(plan, now)
    assert stand.finished and stand.next is None and stand.order.faults == ()
    done = {entry.task for entry in plan.project.book if entry.event is Event.DONE}
    assert {task.id for task in stand.order.tasks if not task.measures} <= done
    times = [entry.when for entry in plan.project.book]
    assert times == sorted(times)


def sides_too_thin_flowed_on_into_the_joints(built):
    plan, _ = built
    assert plan.ledger["sides.thickness"] == 17 + OFF["sides.thickness"]
    # The pins are as long as the sides really are thick, and half a millimetre to be planed flush.
    assert plan.corner.layout.gauge_pin_board.mm == plan.ledger["sides.thickness"] + mm("0.5").mm
    told = next(each for each in deviations(plan) if each.name == "sides.thickness")
    assert told.off == pytest.approx(-0.8) and told.follows


def a_narrower_opening_made_the_dividers_and_drawers_narrower(built):
    plan, _ = built
    assert plan.ledger["divider.length"] == plan.ledger["divider.opening"]
    assert plan.ledger.quantity("divider.opening").reading is not None
    assert plan.ledger["drawer11_front.length"] == plan.ledger["column.width"] - 2 * plan.ledger["drawer.reveal"]


def a_board_wetter_than_thought_was_let_dry_before_its_parts_were_milled(built):
    plan, _ = built
    assert SEEN["wet"].waits >= 24
    when = {entry.task: entry.when for entry in plan.project.book if entry.event is Event.DONE}
    assert (when["mill/sides"] - when["saw/1"]).total_seconds() / 3600 >= SEEN["wet"].waits


def the_short_bottom_was_made_again_out_of_other_wood(built):
    plan, _ = built
    came = SEEN["short"]
    (told,) = came.said
    assert isinstance(told, ComesOutOf) and told.other
    again = work_out(came.project, milling=False, proving=False)
    old = work_out(seed_cabinet(), milling=False, proving=False).board_of("drawer31_bottom").board.name
    assert again.board_of("drawer31_bottom").board.name != old and not again.board_of("drawer31_bottom").wrong
    story = [entry for entry in plan.project.book if "drawer31_bottom" in entry.parts]
    kinds = [entry.event for entry in story if entry.task.startswith(("mill/", "fit/")) or not entry.task]
    # Milled, cut, made again, milled, cut.
    assert kinds == [Event.DONE, Event.DONE, Event.REMADE, Event.DONE, Event.DONE]
    assert "cut 4 mm short" in next(e for e in story if e.event is Event.REMADE).text


def its_record_tells_what_was_learned(built):
    plan, _ = built
    record = record_of(plan)
    assert record.remade == 1 and record.finished and 0.2 < record.waste < 0.8
    # Made-up times lie about a third over the guesses; the rates come to it.
    assert 1.2 < record.minutes / record.guessed < 1.7
    rates = dict(record.rates)
    assert 1.1 < rates["lay out"].factor < 1.7 and rates["lay out"].records > 20
    assert record.tolerance is not None and record.tolerance < 1
    words = " ".join(record_words(record, plan.reader))
    assert "% waste" in words and "made again" in words


def how_well_times_are_known_is_told(built):
    plan, now = built
    half = replace(plan.project, book=plan.project.book[:60])
    card = DAYBOOK.card(
        work_out(half, milling=False, proving=False),
        Selection(daybook=DayBookSelection(calendar=True, now=recording.stamp(now))),
    )
    assert any("times the guess" in line and "records" in line for line in card.why)


def the_station_says_that_it_is_made(built):
    plan, now = built
    selection = Selection(daybook=DayBookSelection(now=recording.stamp(now)))
    card = DAYBOOK.card(plan, selection)
    assert card.title == "Seed cabinet is made." and any("waste" in line for line in card.mark)
    assert DAYBOOK.draw(plan, selection).elements


@pytest.mark.dear
def test_half_built_there_is_a_next_step_with_all_that_goes_with_it():
    project, now = build(seed_cabinet(), until=lambda stand: stand.done >= 45)
    plan = work_out(project, milling=False, proving=False)
    stand = standing(plan, now)
    assert stand.next is not None and stand.done >= 45
    card = DAYBOOK.card(plan, Selection(daybook=DayBookSelection(now=recording.stamp(now))))
    assert card.mark and card.title == task_title(stand.next, plan.reader)
    # What was off is told where it matters: at the joints of the sides.
    at_sides = DAYBOOK.card(
        plan, Selection(daybook=DayBookSelection("joint/left-divider11/2", now=recording.stamp(now)))
    )
    assert any("hickness of the sides measured 0.8 mm less" in said(remark, plan) for remark in at_sides.mind)
    assert f"{stand.done} of {stand.total} tasks done" in " ".join(card.why)
