"""A first box in ten minutes: the walk through the real window, done as it is told."""

import re

import pytest
from PySide6.QtCore import QRect, Qt
from PySide6.QtWidgets import QApplication
from tests.desk.conftest import as_read

from nullah.core.lengths import Unit
from nullah.core.stations import STATIONS
from nullah.desk.tour import STEPS, told


def at(user, title):
    QApplication.processEvents()
    tour = user.window.tour
    assert as_read(tour.title) == title and tour.isVisible()
    ring, window = tour._ring, user.window.rect()
    assert not ring.isVisible() or window.contains(ring.geometry())
    assert window.contains(tour.geometry()), "all of it is seen"
    inner = ring.geometry().adjusted(8, 8, -8, -8)
    if ring.isVisible() and ring.width() < 300:
        assert not tour.geometry().intersects(inner), "it does not cover what it is about"
    return tour


def board_of_the_text(unit):
    """Return the figures of the board that the text names."""
    text = next(text for title, text in told() if title == "Put a board on the rack")
    metric, inches = re.search(r"of ([\d ×]+) mm \(([^)]+) in\)", text).groups()
    return [figure.strip() for figure in (metric if unit is Unit.MM else inches).split("×")]


@pytest.mark.dear
@pytest.mark.sampled(2)
@pytest.mark.parametrize(("unit", "length"), [(Unit.INCH, "15 1/2"), (Unit.MM, "400")])
def test_whoever_does_what_each_step_says_comes_to_the_end(user, unit, length):
    user.enter("Help", "A first box in ten minutes")
    page = user.window.over.start
    at(user, "Begin a box")
    user.bot.mouseClick(page.units.button(list(Unit).index(unit)), Qt.MouseButton.LeftButton)
    user.bot.mouseClick(page.forms["box"], Qt.MouseButton.LeftButton)
    at(user, "Make it your size")
    user.type_figure("box.outside_length", length)
    at(user, "See how it is made")
    assert user.window.column.choices.isVisible()
    user.press("Next")
    at(user, "Put a board on the rack")
    user.go("rack")
    desk = user.window.desk(1)
    for name, figure in zip(("length", "width", "thickness"), board_of_the_text(unit), strict=True):
        desk.fields[name].line.setFocus()
        user.bot.keyClicks(desk.fields[name].line, figure)
    user.bot.keyClick(desk.fields["thickness"].line, Qt.Key.Key_Return)
    at(user, "Lay the parts out")
    user.go("breakdown")
    user.press("Lay the parts out")
    user.bot.waitUntil(lambda: user.window.tour.title.text() != "Lay the parts out")
    user.window.desk(2).runner.wait()
    at(user, "Look how thick they come out")
    user.press("Next")
    tour = at(user, "Lay out the corner")
    mark = user.window.rod.marks[4]
    assert tour._ring.geometry().contains(mark.mapTo(user.window, mark.rect().center())), "the way there is ringed"
    user.go("joints")
    assert user.window.column.card.isVisible()
    user.press("Next")
    at(user, "Take the corner with you")
    user.press("Next")
    at(user, "Do what comes next")
    user.press("Finish")
    assert user.window.tour is None
    assert not user.plan.unplaced and user.project.piece.given


def test_it_can_be_left_gone_back_in_and_begun_again(user):
    user.enter("Help", "A first box in ten minutes")
    user.press("Next")
    at(user, "Make it your size")
    user.press("Back")
    at(user, "Begin a box")
    user.press("Leave")
    assert user.window.tour is None
    user.enter("Help", "A first box in ten minutes")
    user.enter("Help", "A first box in ten minutes")
    at(user, "Begin a box")
    user.press("Leave")
    project = user.project
    user.window.over.leave()
    assert user.project is project, "what is open stays"


def test_every_step_has_its_words_and_a_station():
    assert len(told()) == len(STEPS) and all(title and text for title, text in told())
    assert {step.station for step in STEPS} <= {station.id for station in STATIONS}


@pytest.mark.dear
@pytest.mark.parametrize("size", [(1024, 700), (1280, 800)])
def test_no_step_is_cut_off_or_covers_what_it_is_about(user, size):
    user.window.resize(*size)
    user.enter("Help", "A first box in ten minutes")
    user.begin("Box")
    for number, step in enumerate(STEPS[1:], 1):
        user.window.tour.go(number)
        at(user, told()[number][0])
        user.go(step.station)
        tour = at(user, told()[number][0])
        assert QRect(tour.geometry()).height() >= tour.heightForWidth(tour.width())
