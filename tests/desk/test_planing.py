"""The planing bench and the winding sticks as a user works them."""

import pytest
from PySide6.QtCore import Qt
from tests.desk.conftest import as_read

from nullah.core.lengths import mm
from nullah.core.milling.sighting import shown_rise
from nullah.core.rack.board import Board

pytestmark = pytest.mark.usefixtures("practice")


def desk(user):
    return user.window.desk(3)


# --- planing ------------------------------------------------------------------------------------------------------


@pytest.fixture
def planer(miller):
    """At the planing bench with a small board, which takes few strokes."""
    from nullah.core import actions

    small = Board("9", "Small", "black cherry", mm(300), mm(90), mm(20), cup=mm("0.6"), twist=mm(1))
    miller.window.document.do("put a small board on", lambda p: actions.add_board(p, small))
    miller.choose(desk(miller).boards, "9")
    miller.press("Plane it")
    return miller


def page(user):
    return desk(user).planing


def drag_face(user, start, end):
    face = page(user).board
    a, b = (face.place_in_widget(place).toPoint() for place in (start, end))
    user.bot.mousePress(face, Qt.MouseButton.LeftButton, pos=a)
    for share in (0.4, 1.0):
        user.bot.mouseMove(face, pos=a + (b - a) * share)
    user.bot.mouseRelease(face, Qt.MouseButton.LeftButton, pos=b)


@pytest.mark.dear
def test_the_plan_is_played_to_the_end_stopped_and_taken_back(planer):
    assert "out of flat, 0.10 mm is enough" in as_read(page(planer).words)
    planer.choose(page(planer).speed, "400")
    planer.press("Play the plan")
    planer.bot.waitUntil(lambda: page(planer).trial.strokes > 5)
    planer.press("Stop")
    there = page(planer).trial.strokes
    assert there > 5
    planer.press("Play the plan")
    planer.bot.waitUntil(lambda: page(planer).play.isEnabled() and page(planer).trial.strokes > there)
    assert "Flat within 0.0" in as_read(page(planer).words) or "Flat within 0.1" in as_read(page(planer).words)
    assert page(planer).trial.out_of_flat <= 0.1
    planer.press("Take back")
    assert page(planer).trial.strokes == 0


def test_strokes_by_hand_are_counted_tested_and_taken_back(planer):
    drag_face(planer, (-40, 80), (340, 80))
    assert "A shaving" in as_read(page(planer).sentence) or "Nothing taken" in as_read(page(planer).sentence)
    drag_face(planer, (-20, 10), (80, 85))
    first = page(planer).trial
    planer.press("Stroke again")
    assert page(planer).trial.strokes >= first.strokes
    planer.press("A whole set like it")
    planer.bot.waitUntil(lambda: page(planer).whole_set.isEnabled())
    assert page(planer).trial.shaved > first.shaved
    planer.press("Take back")
    planer.press("Take back")
    assert page(planer).trial.shaved == pytest.approx(first.shaved)
    planer.type_in(page(planer).set, "9 mm")
    drag_face(planer, (-20, 45), (320, 45))
    assert "up to 2 mm" in as_read(page(planer).set.sentence)
    assert page(planer).trial.shaved == pytest.approx(first.shaved)


def test_heights_are_written_in_the_unit_that_is_shown(planer):
    assert "mm above the line" in as_read(page(planer).words)
    planer.press("inches")
    assert "″ above the line" in as_read(page(planer).words) and " mm" not in as_read(page(planer).words)


def test_straightedge_and_sticks_show_what_is_there(planer):
    planer.choose(page(planer).hand, "edge")
    drag_face(planer, (150, 2), (150, 88))
    assert as_read(page(planer).sentence).startswith(("Light: ", "It rocks"))
    assert page(planer).testing.shown.elements
    planer.choose(page(planer).hand, "sticks")
    drag_face(planer, (5, 45), (295, 45))
    assert "stands" in as_read(page(planer).sentence) and "mm high" in as_read(page(planer).sentence)
    assert page(planer).trial.strokes == 0


def test_the_board_as_it_really_is_differs_from_its_survey(planer):
    surveyed = page(planer).trial.work.heights
    planer.choose(page(planer).on, "truth")
    assert abs(page(planer).trial.work.heights - surveyed).max() > 0.05
    planer.choose(page(planer).face, "second")
    assert page(planer).trial.strokes == 0


@pytest.mark.dear
def test_another_board_begins_anew_and_leaving_stops_it(planer):
    planer.press("Play the plan")
    planer.bot.waitUntil(lambda: page(planer).trial.strokes > 0)
    planer.choose(desk(planer).boards, "2")
    assert page(planer).trial.strokes == 0 and page(planer).play.isEnabled()
    planer.press("Play the plan")
    planer.go("rack")
    planer.bot.wait(200)
    there = page(planer).trial.strokes
    planer.bot.wait(200)
    assert page(planer).trial.strokes == there


# --- the sticks ---------------------------------------------------------------------------------------------------


def answer(user, high, rise, begins):
    sticks = desk(user).sighting
    user.choose(sticks.high, high)
    user.choose(sticks.begins, str(begins))
    user.type_line(sticks.rise, str(rise))


def test_reading_the_sticks_is_marked_at_once_and_the_record_is_kept(miller, practice):
    miller.press("Read the sticks")
    sticks = desk(miller).sighting
    for number in range(4):
        wound = sticks.exercise.wound
        rise = shown_rise(wound, 0, wound.length, sticks.exercise.stick)
        high = "true" if abs(rise) < 0.05 else "right" if rise > 0 else "left"
        before = len(sticks.view.shown.elements)
        answer(miller, high, round(abs(rise), 1), wound.begins)
        assert as_read(sticks.told).startswith("Right. ")
        assert len(sticks.view.shown.elements) > before, "the surface is shown"
        assert f"{number + 1} board" in as_read(sticks.progress)
        miller.press("Next board")
    assert sticks.exercise.level == 1, "three right in a row lead up a step"
    answer(miller, "true" if sticks.exercise.wound.wind else "left", 50, 0.0)
    assert as_read(sticks.told).startswith("Not which end")
    assert practice.exists()


def test_an_answer_without_a_figure_is_asked_for(miller):
    miller.press("Read the sticks")
    sticks = desk(miller).sighting
    miller.choose(sticks.high, "left")
    sticks.rise.setText("some")
    miller.press("Compare")
    assert "A guess is an answer" in as_read(sticks.told) and sticks.marked is None
    far = sticks.view.shown
    miller.choose(sticks.at, "0.5")
    assert sticks.view.shown != far, "the far stick has moved in"


def test_the_sticks_are_read_in_inches_where_inches_are_shown(miller, practice):
    miller.press("inches")
    miller.press("Read the sticks")
    sticks = desk(miller).sighting
    assert "″" in as_read(sticks.ask) and " mm" not in as_read(sticks.ask)
    while not sticks.exercise.wound.wind:  # now and then the board is true, and there is nothing to measure
        miller.press("Next board")
    wound = sticks.exercise.wound
    rise = shown_rise(wound, 0, wound.length, sticks.exercise.stick)
    assert abs(rise) > 0.3
    answer(miller, "right" if rise > 0 else "left", f"{abs(rise) / 25.4:.3f}", wound.begins)
    assert as_read(sticks.told).startswith("Right. ") and "″ high at the stick" in as_read(sticks.told)
    miller.press("Next board")
    answer(miller, "left", "2 in", 0.0)
    assert "″ off" in as_read(sticks.progress)
