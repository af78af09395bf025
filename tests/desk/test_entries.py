"""What is typed comes back: the last entry of each figure, in its own unit and words, through the real document."""

from dataclasses import replace

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from nullah.core import actions
from nullah.core.ledger import Measured
from nullah.core.lengths import Length, LengthError, Marks, Unit, inch, mm, read_length
from nullah.core.wording.facts import error_words
from nullah.demo.seed_box import seed_box
from nullah.desk.document import Document
from nullah.files.project_file import parse_project, project_text
from nullah.files.recovery import Autosave

#: The same few sizes in many words, so that equal sizes typed differently follow each other often.
TEXTS = (
    "12 in", "304.8 mm", "304.8", '12"', "1 ft", "1'", "30.48 cm", "12.0 in", "300 mm + 4.8 mm", "1/2 of 24 in",
    "12 1/2 in", "12.5 in", "317.5", "317,5 mm", "12½ in", "12-1/2 in", "12 inches + 1/2 in", "0.3175 m", 
    "18+0.5", "18.5",
)  # fmt: skip
LEDGER = ("contents.length", "contents.width", "contents.height", "sides.thickness")


def board_with(project, entry):
    return actions.change_board(project, replace(project.boards[0], length=entry))


#: Every other figure that a project keeps as it was typed: how it is entered, and where it is kept.
KEPT = {
    "board": (board_with, lambda p: p.boards[0].length),
    "end": (lambda p, e: replace(p, allowances=replace(p.allowances, end=e)), lambda p: p.allowances.end),
    "kerf": (lambda p, e: replace(p, shop=replace(p.shop, kerf=e)), lambda p: p.shop.kerf),
    "chisel": (lambda p, e: replace(p, shop=replace(p.shop, chisels=(e,))), lambda p: p.shop.chisels[0]),
    "measured": (
        lambda p, e: actions.measure(p, "contents.clearance", Measured(e)),
        lambda p: dict(p.piece.measured)["contents.clearance"].value,
    ),
}


@pytest.mark.dear
@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    entries=st.lists(st.tuples(st.sampled_from((*LEDGER, *KEPT)), st.sampled_from(TEXTS)), min_size=1, max_size=12),
    unit=st.sampled_from(Unit),
)
def test_each_figure_shows_exactly_the_last_entry(tmp_path, qapp, entries, unit):
    document = Document(replace(seed_box(), marks=Marks(unit)), Autosave(tmp_path))
    last, history = {}, []
    for figure, text in entries:
        entry = read_length(text, unit)
        history.append((document.project, dict(last)))
        if figure in KEPT:
            assert document.do(figure, lambda p, f=figure, e=entry: KEPT[f][0](p, e)) == ""
        else:
            assert document.do(figure, lambda p, f=figure, e=entry: actions.give(p, f, e)) == ""
        if history[-1][0] is document.project:
            assert last[figure] == entry, "only the very same words are no change"
            history.pop()
        last[figure] = entry
        check(document.project, document.plan, last)
    check_saved = parse_project(project_text(document.project), "saved")
    check(check_saved, None, last)
    for project, before in reversed(history):
        document.undo()
        assert document.project == project
        check(document.project, document.plan, before)


def check(project, plan, last):
    for figure, entry in last.items():
        kept = KEPT[figure][1](project) if figure in KEPT else dict(project.piece.given)[figure]
        assert (kept.text, kept.unit, kept.mm) == (entry.text, entry.unit, entry.mm)
        if plan is None or figure in KEPT or plan.ledger is None:
            continue
        quantity, marks = plan.ledger.quantity(figure), project.marks
        assert quantity.write_to_edit(marks) == entry.text
        if entry.unit is marks.unit:
            assert quantity.write(marks).removesuffix("″").startswith(entry.text[:2])


@pytest.mark.parametrize(("text", "unit", "kept"), [
    ("12½ in", Unit.MM, "12½ in"), ("1 7/8", Unit.INCH, "1 7/8 in"), ("18+0.5", Unit.MM, "18 mm + 0.5 mm"),
    ("1/2 of 1/2 of 19", Unit.MM, "1/2 of 1/2 of 19 mm"), ("  2'  3 1/2\"", Unit.MM, "2' 3 1/2\""),
])  # fmt: skip
def test_an_entry_is_what_was_typed_with_its_unit(text, unit, kept):
    entry = read_length(text, unit)
    assert entry.text == kept
    for other in Unit:
        assert read_length(entry.text, other) == entry


def test_an_entry_and_a_length_are_never_taken_for_each_other():
    typed, other, bare = read_length("12 in"), read_length("304.8 mm"), mm("304.8")
    assert typed.mm == other.mm == bare.mm == inch(12).mm
    assert len({typed, other, bare}) == 3 and typed != bare and bare != other
    assert bare == inch(12) and {bare: 1}[inch(12)] == 1
    assert type(typed + other) is Length and typed + other == bare * 2
    assert typed <= other <= typed and not typed < other


@pytest.mark.dear
def test_typed_on_the_bench_it_stands_in_the_field_again(user):
    for text in ("12 in", "304.8 mm", "12 1/2 in", "12.5 in", "1/2 of 700", "13 1/4 in + 1 mm"):
        user.type_figure("contents.length", text)
        user.click_bench("contents.length")
        assert user.window.editor.field.line.text() == read_length(text).text
        user.bot.keyClick(user.window.editor.field.line, "\x0d")
        assert user.plan.ledger.length("contents.length").text == read_length(text).text, "Enter changes nothing"
        user.window._put_slip_away()


@pytest.mark.parametrize("text", ["9" * 5000, "1/2 of " * 5000 + "9", "1" * 13, "²", "1e9", "١٢", "5 0000000000000/1"])
def test_what_is_past_all_sense_is_refused_at_once(text):
    with pytest.raises(LengthError) as refused:
        read_length(text)
    said = error_words(refused.value)
    assert len(said) < 300 and "\n" not in said


def test_twelve_digits_and_fifty_metres_are_just_inside():
    assert read_length("0.123456789012 mm").mm and read_length("50 m").mm == 50_000
    for text in ("0.1234567890123 mm", "50.001 m"):
        with pytest.raises(LengthError):
            read_length(text)
    assert read_length("1/2 of " * 13 + "19 mm").mm and len("1/2 of " * 13 + "19 mm") <= 100
