import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import QAbstractButton, QApplication, QComboBox, QLineEdit

from nullah.core.lengths import mm
from nullah.core.refs import QuantityRef
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import DayBookSelection
from nullah.paper.palette import NIGHT


def test_the_rod_goes_round_by_mouse_and_keys(user):
    titles = [mark.text() for mark in user.window.rod.marks]
    assert titles == ["Piece", "Rack", "Breakdown", "Milling", "Joints", "Season", "Day Book"]
    for station in STATIONS:
        user.go(station.id)
        assert user.window.card.card.title
    user.window.rod.marks[6].setFocus()
    user.bot.keyClick(user.window.rod.marks[6], Qt.Key.Key_Up)
    assert user.window.station == 5
    user.bot.keyClick(user.window, Qt.Key.Key_2, Qt.KeyboardModifier.ControlModifier)
    assert user.window.station == 1


def test_season_and_day_book_say_what_they_will_do(user):
    user.go("season")
    assert "year in its room" in user.window.bench.invitation
    assert user.reads_on_card("of room is left")
    user.go("daybook")
    measuring = DayBookSelection("measure/opening.length")
    user.window.document.select(user.window.document.selection._replace(daybook=measuring))
    assert user.reads_on_card("Measure groove to groove, along on front")
    user.press("356 mm")
    user.window.editor.field.line.selectAll()
    user.bot.keyClicks(user.window.editor.field.line, "355.4")
    user.press("Measured")
    assert user.plan.ledger.quantity("opening.length").origin.value == "measured"


def test_day_and_night_are_switched_live(user):
    before = user.window.grab().toImage().pixelColor(640, 20).lightness()
    user.enter("View", "Night")
    assert user.window.appearance.palette is NIGHT
    after = user.window.grab().toImage().pixelColor(640, 20).lightness()
    assert before > 200 > 80 > after
    user.enter("View", "Day")


def test_undo_and_redo_have_names(user):
    user.type_figure("contents.length", "300")
    user.type_figure("contents.width", "150")
    user.bot.keyClick(user.window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert user.window.header.redo.toolTip() == "Redo: width of the contents 150 mm"
    assert user.plan.ledger["contents.width"] == 180
    user.press("Redo")
    assert user.plan.ledger["contents.width"] == 150
    user.press("Undo")
    user.press("Undo")
    assert not user.window.header.undo.isEnabled()


def test_undo_keeps_the_unit_that_is_shown(user):
    user.type_figure("contents.length", "300")
    user.press("inches")
    user.press("Undo")
    assert user.window.rod.marks[0].state.endswith("″")


@pytest.mark.dear
def test_showing_another_unit_changes_no_size_and_what_is_laid_stays_laid(cabinetmaker):
    user = cabinetmaker
    before = {name: each.value for name, each in user.plan.ledger.quantities.items()}
    wrong = user.window.header.unsettled.text()
    user.press("inches")
    assert {name: each.value for name, each in user.plan.ledger.quantities.items()} == before
    assert "wrongly laid" not in wrong and user.window.header.unsettled.text() == wrong
    assert user.reads_on_card("set out to marks of 0.5 mm")
    user.press("Set it out to 1/32″")
    after = user.plan.ledger
    assert {name: each.value for name, each in after.quantities.items()} != before
    assert user.window.header.undo.toolTip() == "Undo: Set it out to 1/32″"
    user.press("Undo")
    user.press("mm")
    assert {name: each.value for name, each in user.plan.ledger.quantities.items()} == before
    assert not any("set out to marks" in text for text in user.card_texts())


def test_a_mark_that_is_chosen_is_the_one_the_piece_is_set_out_to(user):
    chooser = user.window.header.mark
    user.press("mm")
    user.choose(chooser, "1/10")
    assert user.project.set_out_mark.mm == user.project.marks.smallest.mm == mm("0.1").mm
    user.press("Undo")
    assert user.project.set_out_mark.mm == mm("0.5").mm and user.project.marks.smallest == mm("0.1")
    user.press("inches")
    user.choose(chooser, "1/64")
    assert user.project.set_out_mark.mm == mm("0.5").mm, "shown only: the piece was not set out in inches"


def test_everything_to_press_or_type_in_has_a_name_and_room(user):
    for station in STATIONS:
        user.go(station.id)
        for kind in (QAbstractButton, QComboBox, QLineEdit):
            for widget in user.window.findChildren(kind):
                if widget.isVisible() and widget.parent() is not None and "qt_" not in widget.objectName():
                    assert widget.accessibleName() or getattr(widget, "text", str)(), widget
                    assert widget.height() >= 30, (widget, widget.height())


@pytest.mark.dear
@pytest.mark.parametrize(("width", "height"), [(1024, 700), (1280, 800), (2600, 1400)])
def test_the_window_works_at_every_size(user, width, height):
    user.window.resize(width, height)
    for station in STATIONS:
        user.go(station.id)
        QApplication.processEvents()
        assert user.window.width() == width, "nothing pushes the window wider"
        bench = user.window.bench
        if bench.drawing.elements:
            for ref in bench.targets():
                assert bench.rect().contains(bench.place_of(ref).toPoint()), (station.id, ref)
        assert user.window.card.horizontalScrollBar().maximum() == 0, station.id


def test_names_are_plain_text_everywhere(user):
    user.type_line(user.window.header.name, "<b>x</b>")
    assert user.project.piece.name == "<b>x</b>"
    assert user.window.header.name.text() == "<b>x</b>"
    assert user.window.windowTitle().startswith("<b>x</b>")


def test_the_bench_zooms_moves_and_fits(user):
    bench = user.window.bench
    fitted = bench.scale
    at = QPointF(300, 300)
    under = bench.scale.back(at.x(), at.y())
    wheel = QWheelEvent(
        at,
        bench.mapToGlobal(at),
        QPoint(),
        QPoint(0, 240),
        Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.NoModifier,
        Qt.ScrollPhase.NoScrollPhase,
        False,
    )
    bench.wheelEvent(wheel)
    assert bench.scale.per_mm > fitted.per_mm
    assert bench.scale.back(at.x(), at.y()) == pytest.approx(under), "zooms about the pointer"
    user.bot.mousePress(bench, Qt.MouseButton.MiddleButton, pos=QPoint(200, 200))
    user.bot.mouseMove(bench, pos=QPoint(260, 230))
    user.bot.mouseRelease(bench, Qt.MouseButton.MiddleButton, pos=QPoint(260, 230))
    assert bench.scale.back(at.x() + 60, at.y() + 30) == pytest.approx(under)
    user.bot.keyClick(bench, Qt.Key.Key_0)
    assert bench.scale == fitted
    user.bot.keyClick(bench, Qt.Key.Key_1)
    assert bench.scale.per_mm == pytest.approx(bench.screen().physicalDotsPerInch() / 25.4)


def test_a_click_on_nothing_changes_nothing(user):
    before = user.project
    user.bot.mouseClick(user.window.bench, Qt.MouseButton.LeftButton, pos=QPoint(4, 4))
    assert user.project is before and user.window.editor.field is None


def test_the_smallest_mark_is_chosen_and_belongs_to_the_unit(user):
    chooser = user.window.header.mark
    user.type_figure("contents.length", "340.3")
    assert user.window.rod.marks[0].state.startswith("378.5 ×")
    user.bot.keyClicks(chooser, "1")
    assert user.window.rod.marks[0].state.startswith("378 ×")
    user.press("inches")
    assert [chooser.itemText(i) for i in range(chooser.count())] == ["1/16″", "1/32″", "1/64″"]
    assert chooser.currentText() == "1/32″"
    user.press("mm")
    assert chooser.currentText() == "1 mm"


def test_the_focus_stays_where_it_was_on_the_card(user):
    user.go("joints")
    user.press("1:7")
    assert user.window.editor.ref == QuantityRef("tails.slope")
    user.bot.keyClick(user.window.editor.field.line, Qt.Key.Key_Escape)
    assert user.window.bench.hasFocus()
