"""What is chosen after a piece was begun: nothing is wrong with it, it stays as large, and what was typed stays."""

from dataclasses import replace
from itertools import combinations, product

import pytest
from tests.core.test_snapping import MARKS
from tests.told import each_choice

from nullah.core import actions
from nullah.core.beginning import begun
from nullah.core.card import Severity
from nullah.core.choosing import choose, take_form
from nullah.core.forms import FORMS
from nullah.core.forms.sizing import SIZING
from nullah.core.lengths import Marks, Unit, inch, mm
from nullah.core.plan import prove_plan, work_out
from nullah.core.project import Piece, Project
from nullah.core.wording.facts import fact_words

OTHERWISE = [
    (form, tuple(each for each in chosen if FORMS[form].settled({})[each[0]] != each[1]))
    for form in sorted(FORMS.keys() - {"own"})
    for chosen in each_choice(form)
]
#: Any two options of two choices of a form that apply together and are not as usual both.
PAIRS = [
    (form, ((one.name, first), (two.name, second)))
    for form in sorted(FORMS.keys() - {"own"})
    for one, two in combinations(FORMS[form].choices, 2)
    for (first, _), (second, _) in product(one.options, two.options)
    for settled in (FORMS[form].settled({one.name: first, two.name: second}),)
    if (one.applies(settled), two.applies(settled)) == (True, True)
    and (first, second) != (FORMS[form].settled({})[one.name], FORMS[form].settled({})[two.name])
]
SIZED = sorted(form for form in FORMS if SIZING in FORMS[form].choices)
WAYS = [way for way, _ in SIZING.options]
#: Grooves that run through do show at a dovetailed corner: that is what is chosen.
SHOWN = ("grooves", "through")


def planned(project):
    return work_out(project, milling=False, proving=False)


def wrong_with(form, chosen, marks):
    """Return what is said to be wrong with a piece that is begun and then chosen otherwise."""
    project = begun(Project(marks=marks), form)
    for choice, option in chosen:
        project = choose(project, choice, option)
    plan = planned(project)
    remarks = [*plan.remarks, *(finding.remark for finding in prove_plan(plan).findings)]
    return {fact_words(each.fact, plan.reader) for each in remarks if each.weight is not Severity.NOTE}


@pytest.mark.dear
@pytest.mark.sampled(19)
@pytest.mark.parametrize("marks", MARKS, ids=lambda marks: f"{marks.rule_mark} {marks.unit.value}")
@pytest.mark.parametrize(("form", "chosen"), OTHERWISE)
def test_nothing_is_wrong_with_a_piece_at_its_usual_sizes_whatever_is_chosen_then(form, chosen, marks):
    wrong = wrong_with(form, chosen, marks)
    assert bool(wrong) == (form == "box" and SHOWN in chosen), wrong


@pytest.mark.dear
@pytest.mark.sampled(61)
@pytest.mark.parametrize("marks", (Marks(), Marks(Unit.INCH)), ids=lambda marks: marks.unit.value)
@pytest.mark.parametrize(("form", "chosen"), PAIRS)
def test_nothing_is_wrong_with_it_whatever_two_things_are_chosen(form, chosen, marks):
    wrong = wrong_with(form, chosen, marks)
    crowded = dict(chosen).get("rows") in ("8", "10") and dict(chosen).get("drawers") in ("all", "lowest")
    assert bool(wrong) == ((form == "box" and SHOWN in chosen) or crowded), wrong


@pytest.mark.parametrize("marks", (Marks(), Marks(Unit.INCH)), ids=lambda marks: marks.unit.value)
@pytest.mark.parametrize("form", SIZED)
def test_a_piece_that_is_sized_another_way_stays_as_large_as_it_is(form, marks):
    project = begun(Project(marks=marks), form)
    plan = planned(project)
    given = [name for name, each in plan.ledger.quantities.items() if ".outside_" in name and not each.definition.rule]
    first = next(name for name in plan.ledger.quantities if ".inside_" in name or ".outside_" in name)
    larger = planned(actions.give(project, given[0] if given else first, plan.ledger.length(first) + mm(7)))
    for one, other in product(WAYS, repeat=2):
        found = planned(choose(choose(larger.project, "sizing", one), "sizing", other))
        assert found.choices["sizing"] == other
        for name, quantity in larger.ledger.quantities.items():
            if name in found.ledger.quantities and (".inside_" in name or ".outside_" in name):
                assert found.ledger[name] == quantity.value, (one, other, name)
        assert [part.box for part in found.parts] == [part.box for part in larger.parts]


def test_what_no_longer_goes_round_anything_is_at_its_usual_size():
    """Around its contents, with a clearance that leaves nothing of them."""
    project = actions.give(Project(Piece("box", choices=(("sizing", "inside"),))), "box.inside_length", mm(5))
    found = choose(project, "sizing", "contents")
    assert "contents.length" not in dict(found.piece.given) and "contents.width" in dict(found.piece.given)


def test_usual_sizes_follow_a_choice_and_what_was_typed_does_not():
    project = begun(Project(marks=Marks(Unit.INCH)), "table")
    assert planned(project).ledger["apron.width"] == inch("13/4").mm
    assert planned(choose(project, "drawer", "one")).ledger["apron.width"] == inch("9/2").mm
    typed = actions.give(project, "apron.width", inch("4"))
    assert planned(choose(typed, "drawer", "one")).ledger["apron.width"] == inch("4").mm
    again = choose(choose(project, "drawer", "one"), "drawer", "none")
    assert dict(again.piece.given) == dict(project.piece.given)


def test_a_piece_that_was_begun_in_millimetres_keeps_its_sizes_in_inches():
    project = actions.show_in(begun(Project(), "table"), Marks(Unit.INCH))
    assert choose(project, "drawer", "one").piece.given == project.piece.given


def test_another_form_begins_at_round_sizes_too():
    project = take_form(begun(Project(marks=Marks(Unit.INCH)), "box"), "table")
    fresh = begun(Project(marks=Marks(Unit.INCH)), "table")
    assert replace(project.piece, name="") == replace(fresh.piece, name="")
