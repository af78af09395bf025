from datetime import date

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from tests.desk.conftest import as_read

from nullah.core.ledger import Origin
from nullah.core.lengths import Unit, inch, mm
from nullah.core.refs import QuantityRef


def test_a_typed_figure_flows_through_everything(user):
    user.type_figure("contents.length", "400 mm")
    assert user.plan.ledger["box.outside_length"] == 400 + 6 + 32
    assert user.reads_on_card("439 × 130 × 16 mm")
    assert user.window.rod.marks[0].state == "438 × 218 × 130 mm"
    assert user.window.header.undo.toolTip() == "Undo: length of the contents 400 mm"


def test_what_is_wrong_stays_in_the_field_with_a_sentence(user):
    user.type_figure("contents.length", "four hundred")
    field = user.window.editor.field
    assert field.line.text() == "four hundred"
    assert "not a length" in as_read(field.sentence) and field.sentence.isVisible()
    field.line.selectAll()
    user.bot.keyClicks(field.line, "0")
    user.bot.keyClick(field.line, Qt.Key.Key_Return)
    assert "more than nothing" in as_read(user.window.editor.field.sentence)
    user.bot.keyClick(field.line, Qt.Key.Key_Escape)
    assert user.window.editor.field is None
    assert user.plan.ledger["contents.length"] == 340, "nothing changed"
    assert user.window.document.undo_name == ""


def test_every_way_of_writing_a_length_is_read(user):
    for text, length in (("1/2 of 700", mm(350)), ("340+5.5", mm("345.5")), ('13-3/8"', inch("13.375"))):
        user.type_figure("contents.length", text)
        assert user.plan.ledger.length("contents.length").mm == length.mm


def test_overruling_a_figure_and_taking_it_back(user):
    user.type_figure("ends.thickness", "20 mm")
    assert user.plan.ledger.quantity("ends.thickness").origin is Origin.OVERRULED
    user.click_bench("ends.thickness")
    user.press("Take back")
    assert user.plan.ledger.quantity("ends.thickness").origin is Origin.WORKED_OUT
    assert user.plan.part("left").thickness == mm(16)


def test_a_measurement_releases_the_bottom(user):
    for name, value in (("opening.length", "355 mm"), ("opening.width", "196 mm")):
        user.type_figure(name, value, "Measured")
    assert user.chip("bottom").told == "planned"
    assert user.reads_on_card("354 × 195 × 6 mm") and not user.reads_on_card("leave ")


def test_measuring_through_the_slip(user):
    user.type_figure("sides.thickness", "16.3", "Measured")
    quantity = user.plan.ledger.quantity("sides.thickness")
    assert quantity.origin is Origin.MEASURED and quantity.planned == 16
    today = date.today().isoformat()
    assert user.reads_on_card(f"measured on {today} with the caliper (planned 16 mm)")


def test_sizing_by_choice(user):
    user.bot.keyClicks(user.window.desk(0).boxes["sizing"], "o")
    assert user.plan.choices["sizing"] == "outside"
    assert QuantityRef("box.outside_length") in user.window.bench.targets()
    assert QuantityRef("contents.length") not in user.window.bench.targets()
    user.press("Undo")
    assert user.plan.choices["sizing"] == "contents"
    assert user.window.desk(0).boxes["sizing"].currentText() == "around its contents"


def test_a_piece_begun_in_inches_and_sized_another_way_stays_as_it_is(beginner):
    user = beginner
    user.press("inches")
    user.begin("Wall shelf")
    user.type_figure("shelf.outside_width", "23 1/4")
    for way in ("inside", "contents", "outside"):
        user.choose(user.window.desk(0).boxes["sizing"], way)
        assert user.plan.choices["sizing"] == way
        assert user.plan.ledger["shelf.outside_width"] == inch("23.25").mm
        assert user.plan.proof.clean
        assert user.window.rod.marks[0].state.startswith("23 1/4")


@pytest.mark.dear
def test_a_box_too_small_says_why_and_can_be_undone(user):
    user.type_figure("contents.height", "1 mm")
    user.type_figure("groove.height", "0.01 mm")
    user.go("joints")
    assert user.plan.parts
    user.go("piece")
    user.type_figure("sides.thickness", "2 m")
    assert "piece cannot be made" in user.window.header.unsettled.text() or user.plan.parts
    for _ in range(3):
        user.press("Undo")
    assert user.plan.ledger["contents.height"] == 110


def test_a_dimension_can_be_typed_with_keys_alone(user):
    bench = user.window.bench
    bench.setFocus()
    while bench.hot != QuantityRef("contents.length"):
        QTest.keyClick(bench, Qt.Key.Key_Right)
    QTest.keyClick(bench, Qt.Key.Key_Return)
    line = user.window.editor.field.line
    line.selectAll()
    user.bot.keyClicks(line, "300")
    user.bot.keyClick(line, Qt.Key.Key_Return)
    assert user.plan.ledger["contents.length"] == 300
    assert user.window.editor.field is None
    assert bench.hasFocus()


def test_a_card_figure_says_why(user):
    user.type_in(user.window.desk(0).fields["bottom.clearance"], "0.3")
    user.click_bench("bottom")
    assert user.window.document.selection.part == "bottom"
    assert user.reads_on_card("grows 0.9 mm until the dampest month")
    user.press("Make the clearance of the bottom, each edge 1.0 mm")
    assert user.plan.ledger["bottom.clearance"] == 1
    assert user.reads_on_card("planned 354 × 194 × 6 mm; measure first")
    user.press("leave long and wide")
    assert user.reads_on_card("groove to groove, along − 2 × clearance of the bottom")


def test_small_clearances_are_typed_in_the_row(user):
    fields = user.window.desk(0).fields
    user.type_in(fields["bottom.clearance"], "1")
    assert user.plan.ledger["bottom.length"] == 356 - 2
    user.type_in(fields["contents.clearance"], "-2")
    assert "0 or more" in as_read(fields["contents.clearance"].sentence)
    user.type_in(fields["contents.clearance"], "1/8 in")
    assert float(user.plan.ledger["box.inside_length"]) == 340 + 6.35
    user.bot.keyClicks(user.window.desk(0).boxes["sizing"], "o")
    assert not fields["contents.clearance"].isVisible(), "a box sized outside has no contents"


def test_bare_numbers_follow_the_unit_shown(user):
    user.press("inches")
    assert user.project.marks.unit is Unit.INCH
    user.type_figure("contents.length", "14 1/2")
    assert user.plan.ledger.length("contents.length").mm == inch("14.5").mm
    assert user.plan.ledger.length("contents.length").text == "14 1/2 in"
    user.press("mm")
    assert user.window.rod.marks[0].state.startswith("406.5 ×")
