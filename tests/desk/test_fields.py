import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QTextLayout
from tests.desk.conftest import as_read
from tests.same import untyped

from nullah.core.ledger import QuantityKind, wrong_value
from nullah.core.lengths import Slope, Unit, inch, mm
from nullah.desk.fields import ValueField


@pytest.fixture
def field(qtbot):
    def make(kind=QuantityKind.LENGTH, unit=Unit.MM):
        made = ValueField("a figure", kind, unit)
        qtbot.addWidget(made)
        made.show()
        return made

    return make


@pytest.mark.parametrize(
    ("kind", "text", "value"),
    [
        (QuantityKind.LENGTH, "1 7/8 in", inch("15/8")),
        (QuantityKind.LENGTH, "18+0.5", mm("18.5")),
        (QuantityKind.COUNT, "4", 4),
        (QuantityKind.SLOPE, "1:8", Slope(8)),
    ],
)
def test_enter_tells_the_value(field, qtbot, kind, text, value):
    made = field(kind)
    qtbot.keyClicks(made.line, text)
    with qtbot.waitSignal(made.entered) as seen:
        qtbot.keyClick(made.line, Qt.Key.Key_Return)
    assert untyped(tuple(seen.args)) == (value,)
    assert not made.sentence.isVisible()


@pytest.mark.parametrize(
    ("kind", "text", "words"),
    [
        (QuantityKind.LENGTH, "soon", "not a length"),
        (QuantityKind.COUNT, "0", "1 to 200"),
        (QuantityKind.SLOPE, "1:90", "cannot be sawn"),
    ],
)
def test_what_is_wrong_stays_with_a_sentence_until_it_is_typed_over(field, qtbot, kind, text, words):
    made = field(kind)
    qtbot.keyClicks(made.line, text)
    with qtbot.assertNotEmitted(made.entered):
        qtbot.keyClick(made.line, Qt.Key.Key_Return)
    assert made.line.text() == text
    assert words in as_read(made.sentence) and made.sentence.isVisible()
    qtbot.keyClick(made.line, Qt.Key.Key_End)
    qtbot.keyClicks(made.line, "1")
    assert not made.sentence.isVisible()


def test_a_field_being_typed_in_is_not_overwritten(field, qtbot):
    made = field()
    made.activateWindow()
    made.line.setFocus()
    qtbot.waitUntil(made.line.hasFocus)
    qtbot.keyClicks(made.line, "12")
    made.show_value("99 mm")
    assert made.line.text() == "12"
    made.line.clear()
    made.line.setModified(False)
    made.show_value("99 mm")
    assert made.line.text() == "99 mm"


def test_lists_of_lengths_are_set_apart_by_commas_and_spaces(field, qtbot):
    made = field(unit=Unit.INCH)
    for text, lengths in (("1/4, 1/2", (inch("1/4"), inch("1/2"))), ("6 mm; 12,5 mm", (mm(6), mm("12.5"))), ("", ())):
        made.line.setText(text)
        assert untyped(made.lengths()) == lengths
    for text in ("1/4, wide", "0, 1/2"):
        made.line.setText(text)
        assert made.lengths() is None and made.sentence.isVisible()


def test_escape_leaves(field, qtbot):
    made = field()
    with qtbot.waitSignal(made.left):
        qtbot.keyClick(made.line, Qt.Key.Key_Escape)


@pytest.mark.parametrize(
    ("name", "value", "refused"),
    [
        ("box.outside_length", mm(0), True),
        ("box.outside_length", mm(-1), True),
        ("bottom.clearance", mm(0), False),
        ("bottom.clearance", mm(-1), True),
        ("tails.proud", mm(-1), False),
        ("sides.thickness", mm(1), False),
    ],
)
def test_which_figures_may_be_nothing_or_less(name, value, refused):
    assert bool(wrong_value(name, QuantityKind.LENGTH, value)) is refused


def test_what_is_typed_is_never_taken_for_markup_and_no_figure_is_broken_over_lines(qtbot):
    made = ValueField("width")
    qtbot.addWidget(made)
    made.resize(120, 200)
    made.show()
    made.line.setText("<b>no</b>")
    made.enter()
    assert "<b>no</b>" in as_read(made.sentence)
    assert made.sentence.textFormat() is Qt.TextFormat.PlainText
    # However narrow: “15” at the end of a line and “1/32 in” on the next are read as two figures.
    for width in range(30, 400, 3):
        made.complain("The width is 15 1/32 in, and at most 17 mm.")
        lines = QTextLayout(made.sentence.text(), made.sentence.font())
        lines.beginLayout()
        shown = []
        while (line := lines.createLine()).isValid():
            line.setLineWidth(width)
            shown.append(lines.text()[line.textStart() : line.textStart() + line.textLength()].strip(" "))
        lines.endLayout()
        assert sum("15\u00a01/32\u00a0in" in each for each in shown) == 1
        assert sum("17\u00a0mm" in each for each in shown) == 1
