"""Everything the mouse can do, by keys; and the bench told to those who cannot see it."""

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QAccessible
from PySide6.QtWidgets import QAbstractButton, QApplication, QButtonGroup
from tests.desk.conftest import as_read

from nullah.core import actions
from nullah.core.joints.channel_dragging import handles
from nullah.core.joints.kinds import kinds_of
from nullah.core.lengths import mm
from nullah.core.rack.board import FlawKind
from nullah.core.refs import BoardRef, FlawRef, HeartRef, QuantityRef
from nullah.core.stations import STATIONS
from nullah.core.stations.rack import board_places
from nullah.core.stations.selected_joint import selected_kind
from nullah.core.stations.selection import MillingView

_ARROWS = {
    (-1, 0): Qt.Key.Key_Left, (1, 0): Qt.Key.Key_Right, (0, -1): Qt.Key.Key_Up, (0, 1): Qt.Key.Key_Down
}  # fmt: skip


def keys_to(user, widget, pointer, at):
    """Bring the pointer to a point of the widget by arrows alone: large steps, usual ones, small ones."""
    steps = (
        (40, Qt.KeyboardModifier.ControlModifier),
        (8, Qt.KeyboardModifier.NoModifier),
        (1, Qt.KeyboardModifier.ShiftModifier),
    )
    for axis in (0, 1):
        for size, modifier in steps:
            for _ in range(200):
                off = (at - pointer.at).toTuple()[axis]
                if abs(off) < size:
                    break
                way = (1 if off > 0 else -1, 0) if axis == 0 else (0, 1 if off > 0 else -1)
                user.bot.keyClick(widget, _ARROWS[way], modifier)
    assert (at - pointer.at).manhattanLength() < 2.1


def drag_by_keys(user, start, end):
    """Drag on the bench between two points given in mm of the drawing, with keys alone."""
    bench = user.window.bench
    if bench.pointer.at is None:
        bench.setFocus()
        user.bot.keyClick(user.window, Qt.Key.Key_F4)
    a, b = (bench.scale.put(point) for point in (start, end))
    keys_to(user, bench, bench.pointer, a)
    user.bot.keyClick(bench, Qt.Key.Key_Space)
    keys_to(user, bench, bench.pointer, b)
    user.bot.keyClick(bench, Qt.Key.Key_Space)


@pytest.fixture
def rack(user):
    user.go("rack")
    board = user.project.boards[0]
    left, top = board_places(user.project.boards)[board.id]
    return user, board, left, top


def test_a_flaw_is_marked_moved_and_widened(rack):
    user, board, left, top = rack
    before = len(board.flaws)
    drag_by_keys(user, (left + 300, top + 30), (left + 360, top + 80))
    flaws = user.project.boards[0].flaws
    assert len(flaws) == before + 1
    near = 4 / user.window.bench.scale.per_mm
    assert abs(float(flaws[-1].start) - 300) < near and abs(float(flaws[-1].end) - 360) < near
    drag_by_keys(user, (left + 330, top + 55), (left + 430, top + 55))
    assert abs(float(user.project.boards[0].flaws[-1].start) - 400) < near
    user.bot.keyClick(user.window.bench, Qt.Key.Key_Escape)
    assert user.window.bench.pointer.at is None


def test_what_is_held_is_given_up_by_escape(rack):
    user, board, left, top = rack
    bench = user.window.bench
    user.bot.keyClick(user.window, Qt.Key.Key_F4)
    keys_to(user, bench, bench.pointer, bench.scale.put((left + 300, top + 30)))
    user.bot.keyClick(bench, Qt.Key.Key_Space)
    assert bench.pointer.held
    user.bot.keyClick(bench, Qt.Key.Key_Right, Qt.KeyboardModifier.ControlModifier)
    user.bot.keyClick(bench, Qt.Key.Key_Escape)
    assert not bench.pointer.held and bench.pointer.at is not None and not bench.overlay.elements
    user.bot.keyClick(bench, Qt.Key.Key_Space)
    user.bot.keyClick(user.window, Qt.Key.Key_F4)
    assert bench.pointer.at is None and user.project.boards[0] == board


def test_an_edge_is_drawn_in_and_the_heart_is_found(rack):
    user, board, left, top = rack
    desk = user.window.desk(1)
    user.choose(desk.kind, "edge")
    drag_by_keys(user, (left + 500, top + 10), (left + 500, top + 25))
    assert user.project.boards[0].high_edge
    heart = user.window.bench.scale.back(*user.window.bench.place_of(HeartRef(board.id)).toTuple())
    drag_by_keys(user, heart, (heart[0] + 10, heart[1] + 10))
    assert user.project.boards[0].heart is not None and user.project.boards[0].heart != board.heart


def test_a_part_is_laid_elsewhere(user):
    user.go("breakdown")
    part = user.project.layout[0]
    bench = user.window.bench
    start = bench.scale.back(*bench.place_of(user.on_bench(part.part)).toTuple())
    other = next(b for b in user.project.boards if b.id != part.board)
    left, top = board_places(user.project.boards)[other.id]
    drag_by_keys(user, start, (left + float(other.length) / 2, top + float(other.width) / 2))
    assert user.window.document.undo_name.startswith(("move", "lift")) or as_read(user.window.desk(2).progress)


@pytest.mark.dear
def test_a_line_of_a_joint_is_dragged(cabinetmaker):
    cabinetmaker.go("joints")
    found = next(each for each in kinds_of(cabinetmaker.plan.assembly) if "stopped dado" in each.name)
    cabinetmaker.choose(cabinetmaker.window.desk(4).corners, found.id)
    shown = selected_kind(cabinetmaker.plan, cabinetmaker.window.document.selection)
    (_, start, end) = next(each for each in handles(shown) if each[0].what == "stop")
    middle = ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
    drag_by_keys(cabinetmaker, middle, (middle[0] + 8, middle[1] + 8))
    assert cabinetmaker.window.document.undo_name.startswith("stop")


@pytest.mark.dear
def test_a_gauge_is_laid_on_the_board_and_the_plane_driven(miller):
    miller.press("Survey")
    bench = miller.window.bench
    board = next(ref for ref in bench.targets() if isinstance(ref, BoardRef))
    middle = bench.place_of(board)
    bench.setFocus()
    miller.bot.keyClick(miller.window, Qt.Key.Key_F4)
    keys_to(miller, bench, bench.pointer, middle + QPointF(-120, 20))
    miller.bot.keyClick(bench, Qt.Key.Key_Space)
    keys_to(miller, bench, bench.pointer, middle + QPointF(120, 20))
    miller.bot.keyClick(bench, Qt.Key.Key_Space)
    assert miller.window.document.selection.milling.reading is not None
    miller.press("Plane it")
    page = miller.window.desk(3).planing
    board = page.board
    board.setFocus()
    miller.bot.keyClick(miller.window, Qt.Key.Key_F4)
    keys_to(miller, board, board.pointer, board.place_in_widget((100.0, 100.0)))
    miller.bot.keyClick(board, Qt.Key.Key_Space)
    keys_to(miller, board, board.pointer, board.place_in_widget((600.0, 100.0)))
    miller.bot.keyClick(board, Qt.Key.Key_Space)
    said = as_read(page.sentence)
    assert "A shaving" in said or "Nothing taken" in said, "the plane was driven over it"


def test_the_drawing_is_moved_by_keys(user):
    bench = user.window.bench
    bench.setFocus()
    before = bench.scale.origin
    user.bot.keyClick(bench, Qt.Key.Key_Left, Qt.KeyboardModifier.ControlModifier)
    user.bot.keyClick(bench, Qt.Key.Key_Down, Qt.KeyboardModifier.ControlModifier)
    assert bench.scale.origin == (before[0] + 60, before[1] - 60)


# --- for those who cannot see it ---


@pytest.fixture
def reader():
    QAccessible.setActive(True)
    yield
    QAccessible.setActive(False)


def interface(widget):
    return QAccessible.queryAccessibleInterface(widget)


def told(user):
    """Return name, description and role of everything a screen reader finds on the bench."""
    bench = interface(user.window.bench)
    children = [bench.child(number) for number in range(bench.childCount())]
    return {
        each.text(QAccessible.Text.Name): each.text(QAccessible.Text.Description)
        for each in children
        if each.role() == QAccessible.Role.Button
    }


@pytest.mark.dear
@pytest.mark.sampled(3)
@pytest.mark.parametrize("station", [station.id for station in STATIONS])
def test_everything_that_can_be_picked_has_a_name(cabinetmaker, reader, station):
    cabinetmaker.go(station)
    objects, targets = cabinetmaker.window.showing.objects.objects, cabinetmaker.window.bench.targets()
    assert len(objects) == min(len(targets), 300)
    for each in objects:
        assert each.accessibleName().strip(), each.ref
        assert each.accessibleName() not in (str(each.ref), "None")
    names = told(cabinetmaker)
    assert set(names) >= {each.accessibleName() for each in objects}


@pytest.mark.parametrize("view", list(MillingView)[:4])
def test_the_views_of_milling_have_names_too(miller, reader, view):
    miller.window.show_station(3)
    miller.window.desk(3).show_look(view)
    assert all(each.accessibleName().strip() for each in miller.window.showing.objects.objects)


def test_an_object_has_its_value_and_is_taken_by_its_action(user, reader):
    user.go("piece")
    name = user.plan.reader.title("sides.thickness")
    (found,) = [each for each in user.window.showing.objects.objects if each.ref == QuantityRef("sides.thickness")]
    assert found.accessibleName() == name and found.accessibleDescription() == "16 mm, given"
    found.click()
    assert user.window.editor.ref == QuantityRef("sides.thickness")
    user.window.document.do("thin", lambda p: actions.give(p, "sides.thickness", mm(14)))
    (found,) = [each for each in user.window.showing.objects.objects if each.ref == QuantityRef("sides.thickness")]
    assert "14 mm" in found.accessibleDescription()


def test_a_flaw_tells_where_it_is_and_what_can_be_done(user, reader):
    user.go("rack")
    flaws = [each for each in user.window.showing.objects.objects if isinstance(each.ref, FlawRef)]
    kinds = {kind.value for kind in FlawKind}
    assert flaws and all(any(kind in each.accessibleName() for kind in kinds) for each in flaws)
    assert all("along" in each.accessibleDescription() and "Delete" in each.accessibleDescription() for each in flaws)


def test_what_is_done_and_what_the_keyboard_points_at_is_announced(user, reader, monkeypatch):
    said = []
    monkeypatch.setattr(QAccessible, "updateAccessibility", lambda event: said.append(event.message()))
    user.bot.keyClick(user.window.bench, Qt.Key.Key_Right)
    assert said and said[-1]
    user.window.document.do("name it Chest", lambda p: actions.rename(p, "Chest"))
    assert said[-1].startswith("name it Chest. ")
    user.press("Undo")
    assert said[-1].startswith("Undo: name it Chest. ")


def test_one_of_several_is_told_as_one_of_several(cabinetmaker):
    for number in range(len(STATIONS)):
        cabinetmaker.window.show_station(number)
    QApplication.processEvents()
    seen = 0
    for group in cabinetmaker.window.findChildren(QButtonGroup):
        for button in group.buttons() if group.exclusive() else ():
            seen += 1
            assert interface(button).role() == QAccessible.Role.RadioButton, button.text()
    assert seen > 15
    shown = [each for each in cabinetmaker.window.findChildren(QAbstractButton) if each.isVisible()]
    assert all(each.accessibleName() or each.text() for each in shown)
