"""A piece that no form covers, from nothing: boards added, typed, dragged, snapped, joined, shaped, proved."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QFileDialog
from tests.desk.conftest import as_read

from nullah.core.forms.own_boards import LIES
from nullah.core.lengths import mm
from nullah.core.piece.form import View
from nullah.core.piece.shaping import Arch, Traced
from nullah.core.plan import work_out
from nullah.core.stations.piece import flat_at
from nullah.files.project_file import read_project


def choose(user, box, text):
    """Choose an entry of a choice by its words, as a click on it does."""
    index = box.findText(text)
    assert index >= 0, [box.itemText(i) for i in range(box.count())]
    box.setCurrentIndex(index)
    box.activated.emit(index)


@pytest.fixture
def own(beginner):
    """A user who makes a piece of their own."""
    desk = beginner.window.desk(0)
    choose(beginner, desk.form, "A piece of one's own")
    assert beginner.window.bench.drawing.elements == ()
    assert beginner.reads_on_card("Add a board")
    beginner.rows = desk.own
    return beginner


def add(user, name, lie, sizes, at):
    user.press("Add a board")
    rows = user.rows
    rows.name.setFocus()
    rows.name.selectAll()
    user.bot.keyClicks(rows.name, name)
    user.bot.keyClick(rows.name, Qt.Key.Key_Return)
    choose(user, rows.lies, lie)
    for figure, text in zip(("length", "width", "thickness", "x", "y", "z"), (*sizes, *at), strict=True):
        user.type_in(rows.figures.fields[figure], text)
    return user.window.document.selection.part


def drag_in(user, view, part, start, by):
    """Drag a part on a view from a share of its width and height, by mm of the drawing."""
    (left, top), (right, bottom) = flat_at(user.plan, view, user.plan.part(part).box)
    a = (left + (right - left) * start[0], top + (bottom - top) * start[1])
    user.drag(a, (a[0] + by[0], a[1] + by[1]))


@pytest.mark.dear
def test_a_wall_bracket_from_nothing(own, tmp_path):
    side = add(own, "upright", "upright, facing a side", ("300", "120", "20"), ("0", "0", "0"))
    arm = add(own, "arm", "along, flat", ("200", "120", "18"), ("60", "0", "200"))
    assert [part.name for part in own.plan.parts] == ["upright", "arm"]
    # Drag the arm to the upright by its middle: its end snaps to the outer face.
    drag_in(own, View.FRONT, arm, (0.5, 0.5), (-58.5, 0))
    assert own.plan.ledger[f"{arm}.x"] == 0
    assert own.window.header.undo.toolTip() == "Undo: move arm"
    # And back by typing, to lie in the upright by 8 mm.
    own.type_in(own.rows.figures.fields["x"], "12")
    assert own.reads_on_card("fill the same space, 8.0 × 120.0 × 18.0 mm, and no joint shares it out.")
    assert own.chip(arm).told == "does not fit"
    own.press("arm into a dado in upright")
    assert own.reads_on_card("goes together")
    assert own.plan.assembly.joints[0].hold.value == "glued"
    # Longer by its end, dragged.
    drag_in(own, View.FRONT, arm, (0.995, 0.5), (50, 0))
    assert abs(own.plan.ledger[f"{arm}.length"] - 250) <= 1, "a pixel of the screen"
    assert own.window.header.undo.toolTip() == "Undo: size arm"
    # An arch under it, and the corner of the upright rounded.
    own.press("Shape it")
    choose(own, own.rows.contours.kind, "Arch")
    choose(own, own.rows.contours.place, "front")
    own.rows.contours.sizes[0].line.setText("160")
    own.rows.contours.sizes[1].line.setText("25")
    own.press("Cut it so")
    assert own.plan.part(arm).shapings == (Arch(own.plan.part(arm).shapings[0].side, own.plan.part(arm).face, 160, 25),)
    assert own.rows.contours.off.itemText(1) == "take off: arch front"
    own.window.document.pick_part(side)
    choose(own, own.rows.contours.kind, "Round corner or edge")
    own.press("Cut it so")
    assert len(own.plan.part(side).shapings) == 1
    assert own.reads_on_card("goes together")
    # It is saved and comes back the same, and turns.
    own.window.papers.save_path(tmp_path / "bracket.nullah")
    again = work_out(read_project(tmp_path / "bracket.nullah"), milling=False)
    assert again.parts == own.plan.parts and again.proof.clean
    own.press("Turn it")
    assert own.window.place.currentWidget().glass.picture is not None


def test_a_wrong_place_shows_and_undo_takes_every_step_back(own):
    side = add(own, "side", "upright, facing a side", ("300", "120", "20"), ("0", "0", "0"))
    shelf = add(own, "shelf", "along, flat", ("200", "120", "18"), ("12", "0", "150"))
    choose(own, own.rows.joints, "shelf into a dado in side · side")
    assert own.reads_on_card("goes together")
    own.type_in(own.rows.figures.fields["x"], "40")
    assert own.reads_on_card("do not meet")
    own.press("Undo")
    assert own.reads_on_card("goes together")
    assert "take apart: dado, side and shelf" in [own.rows.joints.itemText(i) for i in range(own.rows.joints.count())]
    choose(own, own.rows.joints, "take apart: dado, side and shelf")
    assert own.plan.assembly.joints == () and own.plan.failing == 1
    own.window.document.pick_part(shelf)
    own.press("Remove board")
    assert [part.id for part in own.plan.parts] == [side]
    while own.window.header.undo.isEnabled():
        own.press("Undo")
    assert own.plan.parts[0].id == "front", "back at the box one began with"


def test_boards_move_by_keys_and_go_with_delete(own):
    part = add(own, "rail", "along, flat", ("200", "60", "18"), ("0", "0", "0"))
    bench = own.window.bench
    bench.setFocus()
    shift = Qt.KeyboardModifier.ShiftModifier
    for key in (Qt.Key.Key_Right, Qt.Key.Key_Up, Qt.Key.Key_PageUp):
        QTest.keyClick(bench, key, shift)
    QTest.keyClick(bench, Qt.Key.Key_Left, shift | Qt.KeyboardModifier.ControlModifier)
    ledger = own.plan.ledger
    assert [ledger[f"{part}.{axis}"] for axis in "xyz"] == [-9, 1, 1]
    QTest.keyClick(bench, Qt.Key.Key_Delete)
    assert own.plan.parts == ()


def test_dragging_can_be_given_up_and_depth_is_dragged_from_the_side(own):
    add(own, "side", "upright, facing a side", ("300", "120", "20"), ("0", "0", "0"))
    part = add(own, "shelf", "along, flat", ("200", "80", "18"), ("20", "10", "150"))
    bench = own.window.bench
    (left, top), (right, bottom) = flat_at(own.plan, View.SECTION, own.plan.part(part).box)
    middle = bench.scale.put(((left + right) / 2, (top + bottom) / 2)).toPoint()
    QTest.mousePress(bench, Qt.MouseButton.LeftButton, pos=middle)
    own.bot.mouseMove(bench, pos=middle * 1.05)
    assert bench.overlay.elements
    QTest.keyClick(bench, Qt.Key.Key_Escape)
    assert not bench.overlay.elements and own.plan.ledger[f"{part}.y"] == 10
    drag_in(own, View.SECTION, part, (0.5, 0.5), (29, 0))
    assert own.plan.ledger[f"{part}.y"] == 40, "its back edge snaps to the side's"
    assert own.plan.ledger[f"{part}.x"] == 20, "what the view does not show stays"


def test_what_is_wrong_with_a_contour_is_said_and_a_template_is_read(own, tmp_path, monkeypatch):
    part = add(own, "foot", "along, on edge", ("200", "80", "18"), ("0", "0", "0"))
    own.press("Shape it")
    choose(own, own.rows.contours.kind, "Arch")
    own.rows.contours.sizes[1].line.setText("900")
    own.press("Cut it so")
    assert as_read(own.rows.contours.told) == "The rise is larger than the board."
    own.rows.contours.sizes[1].line.setText("much")
    own.press("Cut it so")
    assert "not a length" in as_read(own.rows.contours.sizes[1].sentence)
    assert own.plan.part(part).shapings == ()
    (tmp_path / "t.csv").write_text("along,in\n0,10\n100,25\n200,10\n")
    choose(own, own.rows.contours.kind, "Edge traced from a template")
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(tmp_path / "t.csv"), ""))
    own.press("Template …")
    choose(own, own.rows.contours.place, "top")
    own.press("Cut it so")
    (shaping,) = own.plan.part(part).shapings
    assert isinstance(shaping, Traced) and shaping.points[1] == (100.0, 25.0)
    choose(own, own.rows.contours.off, "take off: traced edge top")
    assert own.plan.part(part).shapings == ()
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(tmp_path / "none.csv"), ""))
    own.press("Template …")
    assert "cannot be read" in as_read(own.rows.contours.told)


def test_a_board_is_added_to_a_form_and_keeps_with_it(user):
    user.rows = user.window.desk(0).own
    user.press("Add a board")
    part = user.window.document.selection.part
    assert user.plan.part(part).box.low[2] == user.plan.ledger["box.outside_height"]
    assert len(user.plan.parts) == 6
    choose(user, user.rows.joints, "Against each other, glued · front")
    assert user.plan.assembly.joints[-1].type.id == "butt"
    user.type_figure("contents.height", "130 mm")
    assert user.reads_on_card("▲"), "the box grew into the board, and the board says so"
    user.press("Undo")
    assert user.chip(part).told == "no wood yet"
    assert user.plan.part(part).length == mm(300)


def test_a_board_can_lie_every_way_there_is(own):
    add(own, "board", "along, flat", ("300", "100", "20"), ("0", "0", "0"))
    lies = {own.rows.lies.itemData(index) for index in range(own.rows.lies.count())}
    assert lies == set(LIES)
    extents = set()
    for index in range(own.rows.lies.count()):
        choose(own, own.rows.lies, own.rows.lies.itemText(index))
        part = own.plan.parts[0]
        assert (part.length, part.width, part.thickness) == (mm(300), mm(100), mm(20))
        extents.add(part.box.high)
    assert len(extents) == 6
