"""A new piece starts at sizes that are round in the unit its maker thinks in, and is no worse for it."""

from dataclasses import replace

import pytest
from tests.told import each_choice

from nullah.core.beginning import begun, rounded
from nullah.core.card import Severity
from nullah.core.forms import FORMS
from nullah.core.ledger import Origin, QuantityKind
from nullah.core.lengths import Marks, Unit, Weight, inch, mm
from nullah.core.my_shop import MyShop, planned_with, shop_of, usual_shop
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project

CASES = [(form, chosen) for form in FORMS if form != "own" for chosen in each_choice(form)]


_FROM = {Severity.WARNING: (Severity.WARNING, Severity.FAILURE), Severity.FAILURE: (Severity.FAILURE,)}


def remarks(project, least):
    return [each.fact for each in work_out(project, milling=False).remarks if each.weight in _FROM[least]]


def in_inches(form, chosen=()):
    return planned_with(Project(Piece(form, choices=chosen), marks=Marks(Unit.INCH)), usual_shop(Unit.INCH))


@pytest.mark.dear
@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", [form for form in FORMS if form != "own"])
def test_a_piece_begun_in_inches_is_round_and_has_no_more_wrong_with_it(form):
    project = begun(Project(marks=Marks(Unit.INCH)), form)
    assert [length.text for length in project.shop.chisels] == [
        "1/8 in",
        "1/4 in",
        "3/8 in",
        "1/2 in",
        "3/4 in",
        "1 in",
    ]
    for name, length in project.piece.given:
        if not isinstance(length, Weight):
            assert (length.mm / inch("1/32").mm).denominator == 1, name
    for name, quantity in work_out(project, milling=False, proving=False).ledger.quantities.items():
        if quantity.origin is Origin.GIVEN and quantity.definition.kind is QuantityKind.LENGTH and quantity.value >= 25:
            assert (quantity.value / inch("1/8").mm).denominator == 1, f"{name} is a size of the piece"
    assert len(remarks(project, Severity.WARNING)) <= len(remarks(begun(Project(), form), Severity.WARNING))


@pytest.mark.dear
@pytest.mark.sampled(29)
@pytest.mark.parametrize(("form", "chosen"), CASES)
def test_no_choice_fails_for_being_round(form, chosen):
    whole = in_inches(form, chosen)
    assert len(remarks(rounded(whole), Severity.FAILURE)) <= len(remarks(whole, Severity.FAILURE))


def test_small_figures_are_round_too_where_that_does_no_harm():
    given = dict(begun(Project(marks=Marks(Unit.INCH)), "box").piece.given)
    assert given["tails.proud"].mm == inch("1/32").mm
    assert "groove.depth" not in given, "it hangs on the thickness of the boards"
    assert "groove.height" not in given, "at 3/8 in the groove would run out through a pin"


def test_what_was_given_and_what_is_round_in_mm_stay():
    project = Project(Piece("box", given=(("box.outside_length", mm(333)),)), marks=Marks(Unit.INCH))
    assert dict(rounded(project).piece.given)["box.outside_length"] == mm(333)
    assert begun(Project(), "box") == replace(Project(Piece("box")), shop=Project().shop)


def test_tools_that_somebody_has_told_of_are_kept():
    mine = MyShop(replace(MyShop().shop, chisels=(mm(7),)))
    assert shop_of(begun(planned_with(Project(marks=Marks(Unit.INCH)), mine), "box")) == mine
