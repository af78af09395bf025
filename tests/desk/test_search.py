"""The search beside the window."""

import time
from dataclasses import replace

import pytest

from nullah.core import actions
from nullah.core.laying import task_of
from nullah.core.lengths import Marks, mm
from nullah.core.plan import work_out
from nullah.core.rack.board import Board
from nullah.demo.seed_box import seed_box
from nullah.desk.search import SearchRunner


@pytest.fixture
def runner(qtbot):
    made = SearchRunner()
    made.seconds = 2.0
    yield made
    made.wait()
    qtbot.waitUntil(lambda: not made.running)


@pytest.mark.dear
def test_it_tells_of_progress_and_gives_its_best(runner, qtbot):
    plan = work_out(actions.accept_layout(seed_box(), ()), milling=False)
    told = []
    runner.progress.connect(told.append)
    with qtbot.waitSignal(runner.found) as found:
        runner.start(task_of(plan), plan.marks)
        assert runner.running
    layout = found.args[0]
    assert not layout.unplaced and len(layout.placements) == 5
    assert told[0] == "Looking …" and "all laid" in told[-1]


def test_it_stops_at_once_and_keeps_what_it_has(runner, qtbot):
    plan = work_out(seed_box(), milling=False)
    with qtbot.waitSignal(runner.found) as found:
        runner.start(task_of(plan), plan.marks)
        time.sleep(0.05)
        runner.stop()
    assert found.args[0].placements


def test_a_second_start_while_it_runs_changes_nothing(runner, qtbot):
    plan = work_out(seed_box(), milling=False)
    with qtbot.waitSignal(runner.found):
        runner.start(task_of(plan), plan.marks)
        first = runner._aside
        runner.start(task_of(plan), plan.marks)
        assert runner._aside is first
        runner.stop()


@pytest.mark.dear
def test_without_boards_it_says_so_and_lays_nothing(runner, qtbot):
    from nullah.core.project import Project

    with qtbot.waitSignal(runner.found) as found:
        runner.start(task_of(work_out(Project(), milling=False)), Marks())
    assert len(found.args[0].unplaced) == 5 and not found.args[0].placements


@pytest.mark.dear
def test_what_it_ends_with_is_thick_enough_though_the_first_answer_did_not_ask(runner, qtbot):
    bent = Board("1", "bent", "black cherry", mm(2000), mm(300), mm(19), mm(25), mm(8), mm(12))
    project = actions.accept_layout(replace(seed_box(), boards=(bent,)), ())
    shown = []
    runner.better.connect(shown.append)
    with qtbot.waitSignal(runner.found) as found:
        runner.start(task_of(work_out(project, milling=False)), Marks())
    assert not {"front", "left"} & {item.part.id for item in shown[0].unplaced}, "shown at once"
    assert {"front", "left"} <= {item.part.id for item in found.args[0].unplaced}, "but not ended with"
