"""Free choices are put on the rule's marks or on a tool once, in the ledger; what was typed never is."""

from fractions import Fraction

import pytest
from tests.told import each_choice, planned

from nullah.core import actions
from nullah.core.forms import FORMS
from nullah.core.ledger import Origin, QuantityKind, Snap, Snapping, given, ruled, work_out_ledger
from nullah.core.lengths import Length, Marks, Unit, mm, write_bought
from nullah.core.piece.facts import SetOutElsewhere
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.reader import Reader
from nullah.core.shop import Shop
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.core.wording.facts import fact_words
from nullah.core.wording.fixes import fix_words
from nullah.core.wording.ledger import why

MARKS = [
    *(Marks(Unit.INCH, inch_mark=Fraction(1, part)) for part in (16, 32, 64)),
    *(Marks(Unit.MM, mm_mark=Fraction(1, part)) for part in (1, 2, 10)),
]
THERE = Snapping(Fraction(1), chisels=(Fraction(6), Fraction(10)), irons=(Fraction(5), Fraction(8)))


@pytest.mark.sampled(4)
@pytest.mark.parametrize("form", sorted(FORMS.keys() - {"own"}))
@pytest.mark.parametrize("marks", MARKS, ids=lambda marks: f"{marks.rule_mark} {marks.unit.value}")
def test_every_free_choice_of_every_form_stands_on_a_mark_or_is_a_tool(form, marks):
    there = {Snap.MARK: 0, Snap.CHISEL: 0, Snap.IRON: 0}
    shop = Shop()
    for chosen in each_choice(form):
        for quantity in planned(form, chosen, marks=marks).ledger.quantities.values():
            snap = quantity.definition.snap
            if snap in (Snap.MARK, Snap.MARK_BELOW):
                assert quantity.value % marks.smallest.mm == 0, quantity
            if snap is Snap.CHISEL:
                assert Length(quantity.value) in shop.chisels, quantity
            if snap in (Snap.IRON, Snap.IRON_BELOW):
                assert Length(quantity.value) in shop.plough_irons, quantity
            if snap in there:
                there[snap] += 1
                assert quantity.value > 0 or quantity.definition.default == mm(0), quantity
    assert there[Snap.MARK] > 5


@pytest.mark.parametrize("form", sorted(FORMS.keys() - {"own"}))
@pytest.mark.parametrize("marks", MARKS, ids=lambda marks: f"{marks.rule_mark} {marks.unit.value}")
def test_a_piece_that_is_shown_in_other_units_keeps_every_size(form, marks):
    set_out = planned(form, each_choice(form)[0], marks=marks)
    project = set_out.project
    for other in (*MARKS, Marks(Unit.CM), marks):
        project = actions.show_in(project, other)
        shown = work_out(project, milling=False, proving=False)
        assert shown.marks == other
        for name, quantity in set_out.ledger.quantities.items():
            assert shown.ledger[name] == quantity.value, name
    anew = work_out(actions.set_out_to(project, MARKS[0].smallest), milling=False, proving=False)
    there = planned(form, each_choice(form)[0], marks=MARKS[0]).ledger
    assert all(each.value == anew.ledger[name] for name, each in there.quantities.items())


@pytest.mark.parametrize(
    ("marks", "other", "offered"),
    [
        (MARKS[0], MARKS[2], None),
        (MARKS[2], MARKS[0], "Set it out to 1/16″"),
        (MARKS[1], MARKS[4], "Set it out to 0.5 mm"),
        (MARKS[3], MARKS[5], None),
    ],
)
def test_marks_that_the_rule_shown_does_not_have_are_said_with_a_way_out(marks, other, offered):
    plan = work_out(actions.show_in(Project(Piece("box"), marks=marks), other), milling=False)
    minded = [each for each in STATIONS[0].card(plan, Selection()).mind if isinstance(each.fact, SetOutElsewhere)]
    assert [fix_words(fix, plan.reader) for each in minded for fix in each.fixes] == ([offered] if offered else [])
    for remark in minded:
        assert write_bought(remark.fact.mark) in fact_words(remark.fact, plan.reader)


@pytest.mark.parametrize("form", sorted(FORMS.keys() - {"own"}))
def test_sizes_that_a_form_gives_are_free_unless_they_are_gaps_or_hardware(form):
    """Whoever adds a figure says which it is: one without a rule that is no gap stands on a mark."""
    small = ("clearance", "gap", "reveal", "proud")
    for quantity in planned(form, each_choice(form)[0]).ledger.quantities.values():
        definition = quantity.definition
        if definition.kind is QuantityKind.LENGTH and not definition.rule:
            loose = definition.name.endswith(small) or definition.name.startswith("hinge.")
            loose = (loose or definition.name.endswith("slot.room")) and definition.name != "drawer.end_gap"
            assert (definition.snap is Snap.NOTHING) == loose, definition.name


@pytest.mark.parametrize(
    ("value", "snap", "found"),
    [
        ("7.49", Snap.MARK, 7),
        ("7.5", Snap.MARK, 8),
        ("0.2", Snap.MARK, 1),
        ("0", Snap.MARK, 0),
        ("7.99", Snap.CHISEL, 6),
        ("8", Snap.CHISEL, 6),
        ("8.01", Snap.CHISEL, 10),
        ("40", Snap.CHISEL, 10),
        ("6.51", Snap.IRON, 8),
        ("6.49", Snap.IRON, 5),
        ("7.99", Snap.MARK_BELOW, 7),
        ("8", Snap.MARK_BELOW, 8),
        ("0.2", Snap.MARK_BELOW, 1),
        ("7.99", Snap.IRON_BELOW, 5),
        ("8", Snap.IRON_BELOW, 8),
        ("4", Snap.IRON_BELOW, 5),
    ],
)
def test_it_is_the_nearest_there_is_or_the_next_below(value, snap, found):
    assert THERE.snapped(Fraction(value), snap) == found


def test_without_tools_it_is_the_nearest_mark():
    assert Snapping(Fraction(1)).snapped(Fraction(20, 3), Snap.CHISEL) == 7


RULES = (
    given("apron", "thickness of the apron", 20),
    ruled("tenon", "thickness of the tenon", "apron / 3", snap=Snap.CHISEL),
    ruled("mortise", "width of the mortise", "tenon"),
)


def test_what_follows_uses_the_figure_it_was_put_on():
    ledger = work_out_ledger(RULES, {}, {}, THERE)
    assert (ledger["tenon"], ledger["mortise"]) == (6, 6)
    assert ledger.quantity("tenon").exact == Fraction(20, 3)
    assert ledger.quantity("mortise").exact is None


def test_what_was_typed_or_measured_is_left_alone():
    typed = work_out_ledger(RULES, {"tenon": mm("6.7"), "apron": mm("20.3")}, {}, THERE)
    assert (typed["tenon"], typed["apron"]) == (Fraction("6.7"), Fraction("20.3"))
    assert typed.quantity("tenon").origin is Origin.OVERRULED
    assert typed.quantity("tenon").planned == 6
    measured = work_out_ledger(RULES, {}, {"apron": mm("19.4")}, THERE)
    assert measured["apron"] == Fraction("19.4")


def test_the_sum_says_what_it_was_put_on():
    ledger = work_out_ledger(RULES, {}, {}, THERE)
    titles = {each.definition.name: each.definition.title for each in ledger.quantities.values()}
    told = why(ledger, "tenon", Reader(titles=titles))
    assert "6 mm, the chisel nearest to 6.7 mm" in told[0]
    assert "3" in told[0]


def test_a_box_in_inches_has_no_millimetres_in_it():
    plan = work_out(Project(Piece("box"), marks=Marks(Unit.INCH, inch_mark=Fraction(1, 16))), milling=False)
    assert plan.ledger["groove.depth"] == Fraction(3, 16) * Fraction("25.4")
    assert plan.ledger["bottom.thickness"] == Fraction(1, 4) * Fraction("25.4")
