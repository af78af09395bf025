"""The picture on the bench: painted in part, moved, stretched or in steps, it ends as if it were painted as a whole."""

import numpy as np
import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QApplication

from nullah.core import actions
from nullah.core.drawing import Drawing, Fill, Label, drawing, rectangle
from nullah.core.lengths import mm
from nullah.core.plan import work_out
from nullah.core.refs import PartRef
from nullah.core.stations import STATIONS, Selection
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.desk.bench import Bench
from nullah.desk.picture import Picture
from nullah.paper import tiles
from nullah.paper.palette import NIGHT

#: Painted in part, a line that is cut off by a square comes out a hair lighter or darker, of 255.
HAIR = 8
#: A widget that was asked for its screen and is forgotten takes the screen with it.
KEPT = []
WAYS = [(number, each.id) for number, each in enumerate(STATIONS) if each.id != "daybook"]


def drawn(number, project):
    plan = work_out(project, milling=True, proving=False)
    part = plan.parts[0].id
    return STATIONS[number].draw(plan, Selection(part=part, board=project.boards[0].id if project.boards else ""))


@pytest.fixture
def bench(qtbot):
    made = Bench()
    qtbot.addWidget(made)
    made.setFocusPolicy(Qt.FocusPolicy.NoFocus)
    made.resize(800, 560)
    made.show()
    return made


def shown(bench):
    return bench.grab().toImage().convertToFormat(QImage.Format.Format_RGB32)


def as_a_whole(qtbot, bench):
    """Return what another bench shows that has painted nothing before."""
    other = Bench()
    qtbot.addWidget(other)
    KEPT.append(other)
    other.setFocusPolicy(Qt.FocusPolicy.NoFocus)
    other.resize(bench.size())
    other.show()
    other.palette_ = bench.palette_
    other.scale, other._fitted = bench.scale, False
    other.show_drawing(Drawing(bench.drawing.elements), bench.invitation, bench.lit, False, bench.to_scale)
    other.hot = bench.hot
    other.keep_clear(bench._clear)
    return shown(other)


def words_box(bench):
    """Return where words stand that give way when something else stands there."""
    moving = (text for index, text in bench.texts().of.items() if isinstance(bench.drawing.elements[index], Label))
    return next(moving).rect()


def differ(one, other):
    """Return by how much two pictures differ where they differ most, of 255."""
    return int(np.abs(levels(one) - levels(other)).max())


def levels(image):
    whole = np.frombuffer(image.constBits(), np.uint8).reshape(image.height(), image.bytesPerLine())
    return whole[:, : 4 * image.width()].astype(int)


@pytest.fixture
def in_part(monkeypatch):
    """Paint in part whatever changed, however much it is, and count how often that was done."""
    monkeypatch.setattr(tiles, "_MOST_OTHERS", 2.0)
    monkeypatch.setattr("nullah.desk.picture._MOST", 2.0)
    found = []
    touched = tiles.touched
    monkeypatch.setattr("nullah.paper.painter.touched", lambda *given: found.append(1) or touched(*given))
    return found


@pytest.mark.parametrize(("number", "_name"), WAYS)
def test_what_changed_is_painted_as_if_all_were(number, _name, bench, qtbot, in_part):
    project = seed_cabinet()

    def show(of, lit=frozenset(), refit=False):
        bench.show_drawing(drawn(number, of), "", lit, refit, STATIONS[number].to_scale)

    show(project, refit=True)
    shown(bench)
    steps = [
        lambda: show(actions.give(project, "back.rabbet", mm(6))),
        lambda: show(actions.give(project, "back.rabbet", mm(6)), frozenset({PartRef("left"), PartRef("top")})),
        lambda: setattr(bench, "hot", bench.targets()[len(bench.targets()) // 2]),
        lambda: bench.keep_clear(words_box(bench)),
        lambda: show(actions.give(project, "sides.thickness", mm(20))),
        lambda: show(project),
        lambda: show(seed_box()),
    ]
    for count, step in enumerate(steps, start=1):
        step()
        assert differ(shown(bench), as_a_whole(qtbot, bench)) <= HAIR, f"after step {count}"
    assert in_part, "nothing was ever painted in part"


def test_what_lies_over_another_in_another_order_is_painted_anew(bench, qtbot, in_part):
    low = rectangle(0, 0, 100, 60, fill=Fill.WOOD, species="black cherry")
    high = rectangle(40, 20, 100, 60, fill=Fill.PAPER)
    words = Label((70, 100), "over it")
    bench.show_drawing(drawing(low, high, words), "", frozenset(), True)
    before = shown(bench)
    bench.show_drawing(drawing(high, low, words), "", frozenset(), False)
    assert shown(bench) == as_a_whole(qtbot, bench) != before


def test_the_same_element_twice_is_no_hindrance(bench, qtbot, in_part):
    one, other = rectangle(0, 0, 100, 60), rectangle(200, 0, 100, 60)
    for elements in ((one, other, one), (one, other), (other, one, other)):
        bench.show_drawing(Drawing(elements), "", frozenset(), elements[-1] is one and len(elements) == 3)
        assert shown(bench) == as_a_whole(qtbot, bench)


def test_only_what_is_another_one_is_painted(bench, in_part):
    """A pointer over a part paints the part, and not all the others."""
    bench.show_drawing(drawn(0, seed_cabinet()), "", frozenset(), True)
    shown(bench)
    bench.hot = next(ref for ref in bench.targets() if isinstance(ref, PartRef))
    before, now = bench._picture._of, bench._to_paint()
    changed = tiles.changed_tiles(before, now, bench.scale, (bench.width(), bench.height()))
    assert 0 < changed.share < 0.7
    assert len(tiles.touched(changed, now, bench.scale)) < len(bench.drawing.elements)


def moved_by(qtbot, bench, by):
    start = QPoint(400, 300)
    qtbot.mousePress(bench, Qt.MouseButton.MiddleButton, pos=start)
    qtbot.mouseMove(bench, pos=start + by)
    seen = shown(bench)
    qtbot.mouseRelease(bench, Qt.MouseButton.MiddleButton, pos=start + by)
    return seen


def test_a_view_that_is_moved_stands_there_at_once_and_is_painted_whole_soon(bench, qtbot):
    bench.show_drawing(drawn(0, seed_cabinet()), "", frozenset(), True)
    before = shown(bench)
    moving = moved_by(qtbot, bench, QPoint(60, 30))
    part = before.copy(100, 100, 400, 300)
    assert moving.copy(160, 130, 400, 300) == part
    qtbot.waitUntil(lambda: shown(bench) == as_a_whole(qtbot, bench))


def test_a_view_that_is_zoomed_is_stretched_at_once_and_painted_sharp_soon(bench, qtbot):
    bench.show_drawing(drawn(1, seed_cabinet()), "", frozenset(), True)
    before = shown(bench)
    bench.zoom(1.5, QPointF(400, 280))
    stretched = shown(bench)
    assert stretched != before
    whole = as_a_whole(qtbot, bench)
    assert stretched != whole
    qtbot.waitUntil(lambda: shown(bench) == whole)


def test_a_view_that_comes_back_before_it_was_painted_anew_is_not_painted(bench, qtbot):
    bench.show_drawing(drawn(0, seed_box()), "", frozenset(), True)
    before, scale = shown(bench), bench.scale
    bench.pan(QPointF(20, 10))
    shown(bench)
    assert bench._painting_for
    bench.pan(QPointF(-20, -10))
    assert bench.scale == scale and shown(bench) == before
    assert not bench._painting_for
    qtbot.wait(150)
    assert shown(bench) == before


def test_a_picture_that_cannot_be_painted_aside_is_tried_as_a_whole(bench, qtbot, monkeypatch):
    bench.show_drawing(drawn(0, seed_box()), "", frozenset(), True)
    shown(bench)
    steps = Picture.steps

    def fails(self, of, at):
        monkeypatch.setattr(Picture, "steps", steps)
        raise ValueError("no memory")
        yield

    monkeypatch.setattr(Picture, "steps", fails)
    bench.pan(QPointF(20, 10))
    with qtbot.captureExceptions() as raised:
        shown(bench)
        qtbot.waitUntil(lambda: bool(raised))
    assert shown(bench) == as_a_whole(qtbot, bench)


def test_another_theme_or_size_never_shows_the_old_picture(bench, qtbot):
    bench.show_drawing(drawn(0, seed_box()), "", frozenset(), True)
    shown(bench)
    bench.zoom(1.2, QPointF(400, 280))
    bench.set_palette(NIGHT)
    assert shown(bench) == as_a_whole(qtbot, bench)
    bench.zoom(1.2, QPointF(400, 280))
    bench.resize(700, 500)
    assert shown(bench) == as_a_whole(qtbot, bench)


def test_what_is_painted_at_leisure_gives_way_to_what_was_typed(bench, qtbot):
    bench.show_drawing(drawn(0, seed_cabinet()), "", frozenset(), True)
    before = shown(bench)
    other = drawn(0, actions.give(seed_cabinet(), "case.outside_height", mm(400)))
    bench.show_drawing(other, "", frozenset(), False, at_leisure=True)
    assert shown(bench) == before
    typed = drawn(0, actions.give(seed_cabinet(), "case.outside_height", mm(300)))
    bench.show_drawing(typed, "", frozenset(), False)
    there = shown(bench)
    assert there == as_a_whole(qtbot, bench) != before
    for _ in range(50):
        QApplication.processEvents()
    qtbot.wait(120)
    assert shown(bench) == there


def test_what_is_painted_at_leisure_comes(bench, qtbot):
    bench.show_drawing(drawn(0, seed_cabinet()), "", frozenset(), True)
    shown(bench)
    other = drawn(0, actions.give(seed_cabinet(), "case.outside_height", mm(400)))
    bench.show_drawing(other, "", frozenset(), False, at_leisure=True)
    qtbot.waitUntil(lambda: shown(bench) == as_a_whole(qtbot, bench))
