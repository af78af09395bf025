"""Piece looked at in other ways: turned, as figures, as a cut list; and the proof on the desk."""

import csv
import io
from dataclasses import replace
from fractions import Fraction

import pytest
from PySide6.QtCore import QEvent, QPoint, QPointF, Qt
from PySide6.QtGui import QGuiApplication, QMouseEvent, QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QFileDialog
from tests.desk.conftest import as_read
from tests.said import said

from nullah.core import actions
from nullah.core.forms import FORMS
from nullah.core.lengths import mm
from nullah.core.refs import BoardRef, QuantityRef
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.desk.start import make_window


def page(user, title):
    user.press(title)
    return user.window.place.currentWidget()


def choose(box, text):
    index = box.findText(text)
    assert index >= 0, [box.itemText(i) for i in range(box.count())]
    box.setCurrentIndex(index)
    box.activated.emit(index)


# --- turned ---------------------------------------------------------------------------------------


@pytest.mark.dear
def test_it_turns_by_mouse_and_keys_and_what_is_clicked_is_in_hand(cabinetmaker):
    glass = page(cabinetmaker, "Turn it").glass
    cabinetmaker.press("Front")
    middle = QPoint(glass.width() // 2, glass.height() // 2)
    QTest.mouseClick(glass, Qt.MouseButton.LeftButton, pos=middle)
    in_hand = cabinetmaker.window.document.selection.part
    assert in_hand.endswith("_front") and in_hand.startswith("drawer")
    before = glass.eye
    start, end = QPointF(middle), QPointF(middle) + QPointF(80, 20)
    for kind, at in ((QEvent.Type.MouseButtonPress, start), (QEvent.Type.MouseMove, end)):
        button = Qt.MouseButton.LeftButton
        QGuiApplication.sendEvent(
            glass, QMouseEvent(kind, at, glass.mapToGlobal(at), button, button, Qt.KeyboardModifier.NoModifier)
        )
    QTest.mouseRelease(glass, Qt.MouseButton.LeftButton, pos=end.toPoint())
    assert glass.eye.turn == pytest.approx(before.turn + 40) and glass.eye.tilt == pytest.approx(before.tilt + 10)
    assert cabinetmaker.window.document.selection.part == in_hand, "a drag picks nothing"
    QTest.keyClick(glass, Qt.Key.Key_Left)
    assert glass.eye.turn == pytest.approx(before.turn + 34)
    QTest.keyClick(glass, Qt.Key.Key_Plus)
    assert glass.closer == pytest.approx(1.2)
    QTest.keyClick(glass, Qt.Key.Key_0)
    assert glass.closer == 1.0
    for _ in range(40):
        QTest.keyClick(glass, Qt.Key.Key_Up)
    assert glass.eye.tilt == 90, "from straight above, no further"
    wheel = QWheelEvent(
        QPointF(middle),
        QPointF(middle),
        QPoint(),
        QPoint(0, 240),
        Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.NoModifier,
        Qt.ScrollPhase.NoScrollPhase,
        False,
    )
    QGuiApplication.sendEvent(glass, wheel)
    assert glass.closer > 1


@pytest.mark.dear
def test_it_opens_and_closes_and_the_ground_picks_nothing(cabinetmaker):
    view = page(cabinetmaker, "Turn it")
    closed = view.glass.picture.parts.copy()
    view.slider.setValue(60)
    opened = view.glass.picture.parts
    assert (closed != opened).mean() > 0.05
    cabinetmaker.window.document.pick_part("back1")
    cabinetmaker.press("Open only the part in hand")
    assert view.glass.only_in_hand
    view.slider.setValue(0)
    assert (view.glass.picture.parts == closed).mean() > 0.99
    QTest.mouseClick(view.glass, Qt.MouseButton.LeftButton, pos=QPoint(3, 3))
    assert cabinetmaker.window.document.selection.part == ""


@pytest.mark.dear
def test_a_change_is_seen_at_once_by_day_and_night(cabinetmaker):
    view = page(cabinetmaker, "Turn it")
    before = view.glass.picture.parts.copy()
    choose(cabinetmaker.window.desk(0).boxes["rows"], "3")
    assert len(cabinetmaker.plan.parts) < 30
    assert (view.glass.picture.parts != before).any()
    ground = view.grab().toImage().pixelColor(5, view.height() - 5).lightness()
    cabinetmaker.enter("View", "Night")
    assert view.grab().toImage().pixelColor(5, view.height() - 5).lightness() < 80 < ground


@pytest.mark.dear
def test_the_proof_is_worked_out_aside_and_arrives(qtbot, tmp_path):
    window = make_window(seed_cabinet(), tmp_path / "unsaved")
    window.document.numbers_ready()
    window.show()
    window.document.do("thinner", lambda p: actions.give(p, "dado.width", mm(11)))
    assert window.document.plan.proof is None
    qtbot.waitUntil(lambda: "…" in [setting.figure for setting in window.card.card.set])
    qtbot.waitUntil(lambda: window.document.plan.proof is not None)
    assert window.document.plan.failing
    # A change while it is at it: only the newest answer counts.
    window.document.do("mend", lambda p: actions.give(p, "dado.width", None))
    window.document.do("spoil", lambda p: actions.give(p, "divider.notch", mm(4)))
    qtbot.waitUntil(lambda: window.document.plan.proof is not None)
    assert "notched" in said(window.document.plan.findings[0], window.document.plan)
    window.close()


@pytest.mark.dear
def test_a_fine_picture_is_painted_beside_the_window_and_only_the_newest_is_shown(qtbot, tmp_path):
    window = make_window(seed_cabinet(), tmp_path / "unsaved")
    window.document.numbers_ready()
    window.show()
    qtbot.waitUntil(lambda: window.document.plan.proof is not None)
    window.desk(0).show_look("turn")
    glass = window.place.currentWidget().glass
    qtbot.waitUntil(lambda: glass.picture is not None)
    for _ in range(3):
        glass.turn(10, 0)
    coarse = glass.picture.parts.shape
    assert coarse[0] < glass.height() * 0.6, "at once, but coarse"
    qtbot.waitUntil(lambda: glass.picture.parts.shape[0] > coarse[0])
    fine = glass.picture
    glass.draw(coarse=False)
    glass.turn(90, 0)
    qtbot.waitUntil(lambda: not glass._runs and glass.picture.parts.shape == fine.parts.shape)
    assert (glass.picture.parts != fine.parts).mean() > 0.05, "the turned one, not the one it was asked for before"
    glass.draw(coarse=False)
    window.close()
    assert not any(run.isRunning() for run in glass._runs)


# --- figures --------------------------------------------------------------------------------------


def test_every_figure_is_found_told_and_typed_in_the_table(cabinetmaker):
    table = page(cabinetmaker, "Figures")
    assert table.count.text() == f"{len(cabinetmaker.plan.ledger.quantities)} figures"
    cabinetmaker.bot.keyClicks(table.finder, "depth of the dados")
    assert table.found.rowCount() == 1
    index = table.found.index(0, 0)
    assert table.found.data(index) == "Depth of the dados"
    QTest.mouseClick(table.table.viewport(), Qt.MouseButton.LeftButton, pos=table.table.visualRect(index).center())
    assert cabinetmaker.reads_on_card("Depth of the dados: 5 mm, given.")
    assert cabinetmaker.reads_on_card("On it hang:")
    table.table.setFocus()
    table.table.setCurrentIndex(index)
    QTest.keyClick(table.table, Qt.Key.Key_Return)
    editor = cabinetmaker.window.editor
    assert editor.ref == QuantityRef("dado.depth")
    editor.field.line.selectAll()
    cabinetmaker.bot.keyClicks(editor.field.line, "6")
    told = as_read(editor._told)
    assert told.startswith("Changes with it: ") and "length of the dividers 336 mm → 338 mm" in told
    cabinetmaker.bot.keyClick(editor.field.line, Qt.Key.Key_Return)
    assert cabinetmaker.plan.ledger["divider.length"] == 338


def test_a_load_is_typed_in_pounds_beside_inches_and_in_kilograms_beside_millimetres(user):
    user.press("inches")
    user.begin("Wall shelf")
    table = page(user, "Figures")
    user.bot.keyClicks(table.finder, "load on each shelf")
    load = table.found.index(0, 1)
    assert table.found.data(load) == "25 lb"
    table.table.setFocus()
    table.table.setCurrentIndex(table.found.index(0, 0))
    QTest.keyClick(table.table, Qt.Key.Key_Return)
    line = user.window.editor.field.line
    line.selectAll()
    user.bot.keyClicks(line, "100")
    user.bot.keyClick(line, Qt.Key.Key_Return)
    assert table.found.data(load) == "100 lb"
    user.press("mm")
    assert table.found.data(load) == "45 kg"
    user.press("inches")
    assert table.found.data(load) == "100 lb", "as it was typed"


def test_all_that_would_change_can_be_read_while_it_is_typed(cabinetmaker):
    cabinetmaker.click_bench("case.outside_width")
    editor = cabinetmaker.window.editor
    editor.field.line.selectAll()
    # As fast as somebody types: what was laid out for the last key is not yet there at the next.
    cabinetmaker.bot.keyClicks(editor.field.line, "410")
    QApplication.processEvents()
    told = editor._told
    assert told.isVisible() and len(told.text()) > 100
    assert told.height() >= told.heightForWidth(told.width()), "a line of it is cut off"


def test_what_would_change_is_said_before_a_measurement_is_accepted(user):
    user.click_bench("sides.thickness")
    editor = user.window.editor
    editor.field.line.selectAll()
    user.bot.keyClicks(editor.field.line, "16.3")
    told = as_read(editor._told)
    assert "thickness of the ends 16 mm → 16.5 mm" in told or "→" in told
    assert "and" in told and user.plan.ledger["sides.thickness"] == 16, "nothing is taken yet"
    editor.field.line.selectAll()
    user.bot.keyClicks(editor.field.line, "400")
    assert "cannot be made" in editor._told.text() or "→" in editor._told.text()
    user.bot.keyClick(editor.field.line, Qt.Key.Key_Escape)
    assert user.plan.ledger["sides.thickness"] == 16


# --- the cut list ---------------------------------------------------------------------------------


def test_the_cut_list_is_sorted_picked_and_copied(cabinetmaker):
    table = page(cabinetmaker, "Cut list")
    assert as_read(table.told).startswith("30 parts, 17 sizes · 0.016")
    table.table.sortByColumn(2, Qt.SortOrder.DescendingOrder)
    lengths = [float(table.sorted.index(row, 2).data().partition("\n")[0]) for row in range(table.sorted.rowCount())]
    assert lengths == sorted(lengths, reverse=True)
    box = table.table.visualRect(table.sorted.index(0, 1))
    QTest.mouseClick(table.table.viewport(), Qt.MouseButton.LeftButton, pos=box.center())
    assert cabinetmaker.window.document.selection.part == "left"
    QTest.mouseClick(table.table.viewport(), Qt.MouseButton.LeftButton, pos=box.center())
    assert cabinetmaker.window.document.selection.part == "right", "click again for the next of the same size"
    cabinetmaker.press("Copy")
    rows = list(csv.reader(io.StringIO(QGuiApplication.clipboard().text()), delimiter="\t"))
    assert rows[0][:3] == ["×", "Part", "Length"] and len(rows) == 18
    assert rows[1][1] == "left side and right side" and rows[1][2] == "441"
    left = {row[1]: (row[2].endswith(", leave long"), row[3].endswith(", leave wide")) for row in rows[1:]}
    assert left["left side and right side"] == (False, False)
    assert left["divider 1 to 3"] == (True, False), "its width is known"
    assert left["drawer 1 bottom and 3 alike"] == (True, True)
    assert left["drawer 1 front"] == (True, True)


@pytest.mark.dear
def test_boards_are_pasted_from_a_spreadsheet(cabinetmaker):
    table = page(cabinetmaker, "Cut list")
    QGuiApplication.clipboard().setText("part\tquantity\tlength\twidth\tthickness\nslat\t3\t12 in\t40\t10\n")
    cabinetmaker.press("Paste boards")
    names = [part.name for part in cabinetmaker.plan.parts if part.id.startswith("own")]
    assert names == ["slat 1", "slat 2", "slat 3"]
    assert cabinetmaker.plan.ledger.length("own1.length").text == "12 in", "as it was typed"
    assert cabinetmaker.window.header.undo.toolTip() == "Undo: add 3 boards from a list"
    QGuiApplication.clipboard().setText("slat,thin,40,10")
    cabinetmaker.press("Paste boards")
    assert as_read(table.told).startswith("Line 1") and len(cabinetmaker.plan.parts) == 33
    cabinetmaker.press("Undo")
    assert len(cabinetmaker.plan.parts) == 30


@pytest.mark.dear
def test_the_cut_list_is_written_and_read_as_files(cabinetmaker, tmp_path, monkeypatch):
    table = page(cabinetmaker, "Cut list")
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "list.csv"), ""))
    cabinetmaker.press("Write CSV …")
    rows = list(csv.DictReader((tmp_path / "list.csv").open(encoding="utf-8")))
    assert len(rows) == 30
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "no" / "list.csv"), ""))
    cabinetmaker.press("Write CSV …")
    assert "cannot be written" in as_read(table.told)
    (tmp_path / "boards.csv").write_text("ledge; 300; 40; 10\n")
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(tmp_path / "boards.csv"), ""))
    cabinetmaker.press("Boards from a list …")
    assert cabinetmaker.plan.parts[-1].name == "ledge"


# --- forms and the proof on the desk --------------------------------------------------------------


@pytest.mark.dear
@pytest.mark.sampled(17)
@pytest.mark.parametrize("form", [form.id for form in FORMS.values() if form.id not in ("box", "own")])
def test_every_form_is_taken_looked_at_and_taken_back(beginner, form):
    desk = beginner.window.desk(0)
    choose(desk.form, FORMS[form].title)
    assert beginner.plan.form.id == form
    assert beginner.reads_on_card("goes together")
    assert set(desk.boxes) | set(desk.drawn) == {choice.name for choice in FORMS[form].choices}
    for choice in FORMS[form].choices:
        if choice.name in desk.drawn and desk.drawn[choice.name].isVisible():
            beginner.choose(desk.drawn[choice.name], choice.options[1][0])
        elif choice.name in desk.boxes and desk.boxes[choice.name].isVisible():
            choose(desk.boxes[choice.name], choice.options[1][1])
    assert beginner.plan.parts
    for station in ("rack", "breakdown", "milling", "joints", "season", "daybook", "piece"):
        beginner.go(station)
    for title in ("Turn it", "Figures", "Cut list", "Views"):
        beginner.press(title)
        assert beginner.window.grab().width() > 0
    while beginner.window.header.undo.isEnabled():
        beginner.press("Undo")
    assert beginner.plan.form.id == "box"


@pytest.mark.dear
def test_five_ways_to_break_the_cabinet_and_the_way_back(cabinetmaker):
    user = cabinetmaker
    complaints = set()
    for name, value, mend in (
        ("back.rabbet_width", "6", "Let the width of the back's rabbet follow again"),
        ("divider.notch", "4", "Let the notch in the dividers' front corners follow again"),
        ("drawer21_front.width", "90", "Let the width of the front of drawer 2 follow again"),
        ("sides.length", "443", "Let the length of the sides follow again"),
        ("dado.width", "11", "Let the width of the dados follow again"),
    ):
        table = page(user, "Figures")
        table.figure.emit(QuantityRef(name))
        line = user.window.editor.field.line
        line.selectAll()
        user.bot.keyClicks(line, value)
        user.bot.keyClick(line, Qt.Key.Key_Return)
        assert user.window.rod.marks[0].state.endswith("to mend")
        first = next(text for text in user.card_texts() if text.startswith("▲ 1"))
        complaints.add(first)
        user.press("Views")
        marks = [e.text for e in user.window.bench.drawing.elements if getattr(e, "text", "").startswith("▲")]
        assert "▲1" in marks, "the place is marked on the drawing"
        user.press(mend)
        assert user.reads_on_card("goes together"), name
    assert len(complaints) == 5


def test_woods_are_chosen_for_what_is_seen_and_what_is_not(beginner):
    desk = beginner.window.desk(0)
    beginner.bot.waitUntil(lambda: desk.woods["inside"].count() > 40)
    choose(desk.woods["shown"], "black walnut")
    choose(desk.woods["inside"], "eastern white pine")
    assert beginner.plan.species_of(beginner.plan.part("front")) == "black walnut"
    assert beginner.plan.species_of(beginner.plan.part("bottom")) == "eastern white pine"
    assert beginner.window.header.undo.toolTip() == "Undo: inside eastern white pine"


@pytest.mark.dear
def test_solids_are_written_from_the_menu(cabinetmaker, tmp_path, monkeypatch):
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "cabinet.glb"), ""))
    cabinetmaker.window.papers.exports.ask_solids()
    cabinetmaker.wait_for_files()
    assert (tmp_path / "cabinet.glb").stat().st_size > 10000
    assert "The solids are in" in as_read(cabinetmaker.window.banner.words)
    cabinetmaker.window.papers.exports.write_solids(tmp_path / "x.obj")
    cabinetmaker.wait_for_files()
    assert ".stl or .glb" in as_read(cabinetmaker.window.banner.words)


@pytest.mark.dear
def test_what_a_board_cost_is_typed_and_shared_out(cabinetmaker):
    # What the other boards cost is taken back, so that only Ford 3's three dividers bear a price.
    for board in cabinetmaker.project.boards:
        unpaid = replace(board, price=Fraction(24) if board.id == "3" else Fraction(0))
        cabinetmaker.window.document.do("price", lambda p, b=unpaid: actions.change_board(p, b))
    cabinetmaker.go("rack")
    cabinetmaker.click_bench(BoardRef("3"))
    rack = cabinetmaker.window.desk(1)
    cabinetmaker.type_in(rack.price, "lots")
    assert "is not a price" in as_read(rack.price.sentence) and cabinetmaker.project.board("3").price == 24
    cabinetmaker.type_in(rack.price, "36")
    assert cabinetmaker.project.board("3").price == 36
    assert cabinetmaker.window.header.undo.toolTip() == "Undo: Ford 3: price 36.00"
    cabinetmaker.go("piece")
    assert "30.24 of the boards' prices" in as_read(page(cabinetmaker, "Cut list").told)


def test_another_figure_for_what_was_measured_is_another_measurement(user):
    user.type_figure("sides.thickness", "16.3", "Measured")
    user.type_figure("sides.thickness", "16.4")
    quantity = user.plan.ledger.quantity("sides.thickness")
    assert quantity.origin.value == "measured" and quantity.value == mm("16.4").mm
    assert user.window.document.undo_name == "measure thickness of front and back 16.4 mm"
