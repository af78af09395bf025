from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nullah.core.identity import let_go
from nullah.core.ledger import Definition, LedgerError, Measured, Origin, QuantityKind, work_out_ledger
from nullah.core.lengths import mm, read_length
from nullah.core.reader import Reader
from nullah.core.rules import Circle, DividesByNothing, NotDeclared, RuleHolds, RuleUnreadable
from nullah.core.wording.ledger import why

RULES = (
    Definition("case.width", "width of the case", default=mm(200)),
    Definition("side", "thickness of a side", default=mm(18)),
    Definition("inside", "inside width", "case.width - 2 * side"),
    Definition("groove", "depth of the groove", "side / 3"),
    Definition("opening", "groove to groove", "inside + 2 * groove"),
    Definition("bottom", "width of the bottom", "opening - 1", fits=("opening",)),
    Definition("count", "number of tails", default=3, kind=QuantityKind.COUNT),
)


def why_of(ledger, name):
    """Return the sum behind a quantity, as the card tells it."""
    titles = {each.definition.name: each.definition.title for each in ledger.quantities.values()}
    return why(ledger, name, Reader(titles=titles))


def test_works_out_exactly_in_any_order():
    for rules in (RULES, tuple(reversed(RULES))):
        ledger = work_out_ledger(rules, {"side": mm(16)}, {})
        assert ledger["inside"] == 168
        assert ledger["opening"] == 168 + Fraction(32, 3)


def test_a_given_value_overrules_a_rule_and_flows_on():
    ledger = work_out_ledger(RULES, {"groove": mm(5)}, {})
    assert ledger.quantity("groove").origin is Origin.OVERRULED
    assert ledger["opening"] == 164 + 10


def test_a_measurement_overrules_everything_and_remembers_the_plan():
    ledger = work_out_ledger(RULES, {"side": mm(18)}, {"side": mm("16.3")})
    side = ledger.quantity("side")
    assert (side.origin, side.value, side.planned) == (Origin.MEASURED, Fraction(163, 10), 18)
    assert ledger["inside"] == 200 - Fraction(326, 10)


def test_what_is_worked_out_from_what_waits_waits_too():
    rules = (*RULES, Definition("slip", "length of the slip", "bottom / 2"))
    ledger = work_out_ledger(rules, {}, {})
    assert ledger.quantity("slip").origin is Origin.WAITS and ledger.waits_for("slip") == ("opening",)
    fitted = work_out_ledger(rules, {}, {"opening": mm("175.4")})
    assert fitted.quantity("slip").origin is Origin.FITTED and fitted["slip"] == Fraction(872, 10)
    given = work_out_ledger(rules, {"bottom": mm(170)}, {})
    assert given.quantity("slip").origin is Origin.WORKED_OUT and given["slip"] == 85, "its figure was given after all"


def test_what_is_made_before_a_measurement_stays_as_designed():
    rules = (*RULES, Definition("ends", "width of the ends", "opening + 2"))
    planned = work_out_ledger(rules, {}, {})
    measured = work_out_ledger(rules, {}, {"opening": mm("175.4")})
    assert measured["ends"] == planned["ends"] != Fraction(1774, 10)
    assert measured.made_before("ends") == ("opening",) and planned.made_before("ends") == ()
    assert why_of(measured, "ends")[0].endswith("It is as designed: made before groove to groove is measured.")
    assert "made before" not in " ".join(why_of(measured, "bottom") + why_of(planned, "ends"))
    thicker = work_out_ledger(rules, {}, {"side": mm(19)})
    assert thicker["ends"] == planned["ends"] - 2 + Fraction(2, 3), "a board as it came out changes all that follows"


def test_what_fits_waits_until_its_opening_is_measured():
    ledger = work_out_ledger(RULES, {}, {})
    assert ledger.quantity("bottom").origin is Origin.WAITS
    assert ledger.waits_for("bottom") == ("opening",)
    assert ledger["bottom"] == ledger["opening"] - 1, "it has a value to plan with"
    fitted = work_out_ledger(RULES, {}, {"opening": mm("175.4")})
    assert fitted.quantity("bottom").origin is Origin.FITTED
    assert fitted["bottom"] == Fraction(1744, 10)
    assert fitted.waits_for("bottom") == ()


def test_says_what_hangs_on_a_quantity():
    ledger = work_out_ledger(RULES, {}, {})
    assert ledger.hangs_on("side") == ("inside", "groove", "opening", "bottom")
    assert ledger.hangs_on("bottom") == ()
    # Once measured, the opening no longer hangs on the sides.
    assert work_out_ledger(RULES, {}, {"opening": mm(170)}).hangs_on("side") == ("inside", "groove")


def test_says_why_back_to_what_was_given():
    told = why_of(work_out_ledger(RULES, {"side": mm(16)}, {}), "opening")
    assert told[0] == "Groove to groove: 178.5 mm = inside width + 2 × depth of the groove."
    assert "Thickness of a side: 16 mm, given." in told
    assert len(told) == 5, "each quantity once"


def test_refuses_a_circle_with_its_names():
    rules = (Definition("a", "a", "b + 1"), Definition("b", "b", "c"), Definition("c", "c", "a * 2"))
    with pytest.raises(LedgerError) as refusal:
        work_out_ledger(rules, {}, {})
    assert isinstance(refusal.value.fact, Circle) and set(refusal.value.fact.quantities) == {"a", "b", "c"}
    # Given one of them, there is no circle any more.
    assert work_out_ledger(rules, {"c": mm(4)}, {})["a"] == 5


@pytest.mark.parametrize(
    ("rule", "fact"),
    [("nobody + 1", NotDeclared("nobody")), ("side / (side - side)", DividesByNothing("side / (side - side)")),
     ("side ** 2", RuleHolds("side ** 2")), ("open('x')", RuleHolds("open('x')")), ("side +", RuleUnreadable("side +")),
     ("1.5 * side", RuleHolds("1.5"))],
)  # fmt: skip
def test_refuses_rules_it_cannot_keep_exact(rule, fact):
    with pytest.raises(LedgerError) as refusal:
        work_out_ledger((*RULES, Definition("x", "x", rule)), {}, {})
    assert refusal.value.fact == fact and type(refusal.value.fact) is type(fact)


@given(st.fractions(min_value=1, max_value=500, max_denominator=64), st.integers(1, 9))
def test_rules_are_exact_for_any_fraction(side, parts):
    rules = (
        Definition("side", "side"),
        Definition("part", "part", f"side / {parts}"),
        Definition("whole", "whole", f"max(part, 0) * {parts} - min(0, side)"),
    )
    assert work_out_ledger(rules, {"side": mm(side)}, {})["whole"] == side


# --- measured, overruled, and what that changes -----------------------------------------------------


def test_a_measurement_says_when_and_by_what():
    reading = Measured(read_length("17.6 mm"), "2026-11-23", "with the caliper")
    ledger = work_out_ledger(RULES, {"side": mm(18)}, {"side": reading})
    assert ledger.quantity("side").origin is Origin.MEASURED and ledger.quantity("side").reading == reading
    told = why_of(ledger, "side")[0]
    assert told == "Thickness of a side: 17.6 mm, measured on 2026-11-23 with the caliper (planned 18 mm)."
    bare = why_of(work_out_ledger(RULES, {"side": mm(18)}, {"side": mm(17)}), "side")[0]
    assert bare == "Thickness of a side: 17 mm, measured (planned 18 mm)."


def test_overruling_tells_what_the_rule_would_say_and_can_be_taken_back():
    overruled = work_out_ledger(RULES, {"opening": mm(180)}, {})
    quantity = overruled.quantity("opening")
    assert quantity.origin is Origin.OVERRULED
    followed = work_out_ledger(RULES, {}, {})
    assert quantity.planned == followed["opening"], "what it would be"
    assert "overruled by you (it would be" in why_of(overruled, "opening")[0]
    assert overruled.hangs_on("side") == ("inside", "groove"), "it follows no more"


def test_changes_are_those_that_read_otherwise_or_stand_otherwise():
    before = work_out_ledger(RULES, {}, {})
    assert before.changes(before) == ()
    thicker = work_out_ledger(RULES, {"side": mm(20)}, {})
    assert [change.name for change in before.changes(thicker)] == ["side", "inside", "groove", "opening", "bottom"]
    change = before.changes(thicker)[0]
    assert (change.before.value, change.after.value) == (18, 20)
    same = work_out_ledger(RULES, {}, {"opening": before.length("opening")})
    # The figure is the same, but it is settled now, and what waited for it is too.
    assert [(c.name, c.after.origin) for c in before.changes(same)] == [
        ("opening", Origin.MEASURED),
        ("bottom", Origin.FITTED),
    ]


@given(st.fractions(min_value=1, max_value=60, max_denominator=16), st.fractions(-5, 5, max_denominator=16))
def test_exactly_what_hangs_on_a_figure_changes_with_it(side, by):
    before = work_out_ledger(RULES, {"side": mm(side)}, {})
    after = work_out_ledger(RULES, {"side": mm(side + by)}, {})
    changed = {change.name for change in before.changes(after)}
    assert changed <= {"side", *before.hangs_on("side")}
    assert ("side" in changed) == (by != 0)


_FIGURES = st.dictionaries(
    st.sampled_from(["case.width", "side", "inside", "groove", "opening", "bottom"]),
    st.integers(5, 400).map(mm),
    max_size=3,
)


@given(st.lists(st.tuples(_FIGURES, _FIGURES), min_size=2, max_size=5))
def test_after_any_changes_all_is_as_from_nothing(runs):
    """What hangs on nothing that changed is taken from the run before: given, overruled and measured in turn."""
    for figures, measured in runs:
        found = work_out_ledger(RULES, figures, measured)
    let_go()
    assert found == work_out_ledger(RULES, *runs[-1])


def test_what_hangs_on_nothing_that_changed_is_the_very_same_quantity():
    before, after = (work_out_ledger(RULES, {"side": mm(side), "opening": mm(180)}, {}) for side in (18, 20))
    same = {name for name, quantity in after.quantities.items() if quantity is before.quantities[name]}
    assert same == {"case.width", "bottom", "count"}, "of what is overruled it is told what its rule would make of it"
