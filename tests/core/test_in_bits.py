"""What takes long of a plan is worked out bit by bit: what is asked afterwards is there, and the same."""

import sys
from dataclasses import replace
from datetime import datetime, timedelta

import pytest
from tests.told import each_choice

from nullah.core import actions
from nullah.core.breakdown import reasons
from nullah.core.forms import FORMS
from nullah.core.identity import let_go
from nullah.core.joints.kinds import kinds_of
from nullah.core.lengths import mm
from nullah.core.milling import forecast
from nullah.core.plan import prove_plan, work_out
from nullah.core.project import Piece, Project
from nullah.core.stations.in_bits import work_out_in_bits
from nullah.core.work.day_book import standing, standing_in_bits
from nullah.core.work.seasons import season_of
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet

#: What works out one of the many: a row of nails, why a part lies nowhere, what a board leaves, a year, a fit, a kind,
#: a corner, a forecast.
SLOW = {
    *("row_of", "_why_nowhere", "_thickest_on", "part_year", "_moving_fit", "_loose_fit", "_likeness"),
    *("_corner", "forecasts_in_bits"),
}
MILLED = {"_thickest_on", "forecasts_in_bits"}


def asked(plan):
    """Return what cards and states ask of a plan."""
    return plan.assembly, plan.unplaced, season_of(plan), kinds_of(plan.assembly), plan.corners, plan.milling


def called(function, slow=SLOW):
    """Return what a function gives, and the names of the slow functions that were called for it."""
    names = set()

    def watch(frame, event, _):
        if event == "call":
            names.add(frame.f_code.co_name)

    sys.setprofile(watch)
    try:
        found = function()
    finally:
        sys.setprofile(None)
    return found, names & slow


def bare_cabinet():
    """Return the sample cabinet with next to nothing laid, dovetailed at the top and with its back nailed."""
    sample = seed_cabinet()
    return replace(sample, layout=sample.layout[:2], first_cuts=())


@pytest.fixture(autouse=True)
def nothing_known():
    let_go()


@pytest.mark.parametrize("milling", [False, True])
def test_what_is_asked_afterwards_is_there(milling):
    project = actions.give(bare_cabinet(), "back.rabbet", mm("7.9"))
    anew, slow = called(lambda: asked(work_out(project, milling=milling, proving=False)))
    assert slow == SLOW - (set() if milling else MILLED), "all of it is asked"
    let_go()
    plan = work_out(project, milling=milling, proving=False)
    bits = sum(1 for _ in work_out_in_bits(plan))
    assert bits > len(plan.parts), "part by part at least"
    found, slow = called(lambda: asked(plan))
    assert not slow and found == anew
    _, slow = called(lambda: list(work_out_in_bits(plan)))
    assert not slow, "nor is any of it worked out a second time"


@pytest.mark.sampled(4)
@pytest.mark.parametrize("form", FORMS)
def test_every_form_is_the_same_bit_by_bit(form):
    boards = seed_cabinet().boards
    for choices in each_choice(form):
        project = Project(Piece(form, choices), boards=boards)
        plan = work_out(project, milling=False, proving=False)
        for _ in work_out_in_bits(plan):
            pass
        found = asked(plan)
        let_go()
        assert found == asked(work_out(project, milling=False, proving=False)), choices


def test_how_the_work_stands_is_worked_out_task_by_task_and_once():
    project, now, slow = seed_box(), datetime(2026, 11, 30, 9), {"planned"}
    anew, found = called(lambda: standing(work_out(project, milling=False, proving=False), now), slow)
    assert found == slow and anew.calendar is not None
    let_go()
    plan = work_out(project, milling=False, proving=False)
    assert sum(1 for _ in standing_in_bits(plan, now)) >= len(anew.order.tasks)
    assert called(lambda: standing(plan, now), slow) == (anew, set())
    assert called(lambda: standing(plan.with_proof(prove_plan(plan)), now), slow) == (anew, set()), "a proof is no work"
    later = now + timedelta(minutes=1)
    working = replace(project, working=project.working._replace(people=3))
    for other, when in ((project, later), (working, now)):
        assert called(lambda o=other, w=when: standing(work_out(o, milling=False, proving=False), w), slow)[1] == slow


def test_why_a_part_lies_nowhere_hangs_on_nothing_of_its_name():
    plan = work_out(bare_cabinet(), milling=False, proving=False)
    boards = plan.project.boards
    assert len({part.nameless for part in plan.rough}) < len(plan.rough), "some are equal"
    for part in plan.rough:
        for there in (boards, boards[:2], boards[3:5], ()):
            named = reasons._why_nowhere.__wrapped__(part, there, frozenset(), ())
            assert reasons.why_nowhere(part, there, frozenset()) == named
            assert forecast.thickest_on(part, there) == forecast._thickest_on.__wrapped__(part, there)


@pytest.mark.parametrize(
    "change",
    [
        {"length": mm(301)}, {"width": mm(61)}, {"thickness": mm(21)}, {"turned": True}, {"wood": "black walnut"},
        {"stave": 1}, {"makes": ("a", "b")}, {"strip": True}, {"finished": mm(18)},
    ],
)  # fmt: skip
def test_pieces_of_wood_that_differ_are_not_taken_for_the_same(change):
    part = work_out(bare_cabinet(), milling=False, proving=False).rough[0]._replace(finished=mm(17))
    assert part._replace(id="x", name="y", number=7, together="z").nameless == part.nameless
    assert part._replace(**change).nameless != part.nameless
