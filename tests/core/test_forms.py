"""Every form: with each of its options it goes together, and its figures are the trade's."""

import math
from fnmatch import fnmatchcase
from fractions import Fraction
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.said import said
from tests.told import planned

from nullah.core import actions
from nullah.core.card import Severity
from nullah.core.forms import FORMS
from nullah.core.joints.mitre import MITRE
from nullah.core.ledger import Origin, QuantityKind
from nullah.core.lengths import inch, mm
from nullah.core.piece.joint import Hold
from nullah.core.piece.solids import recipe
from nullah.core.piece.space import Axis
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project


def made(form, given=(), measured=(), **choices):
    """Work out a piece of a form; underscores in names stand for dots."""
    piece = Piece(form, choices=tuple(choices.items()), given=tuple(dict(given).items()))
    project = Project(piece)
    for name, value in dict(measured).items():
        project = actions.measure(project, name, value)
    return work_out(project, milling=False)


def complaints(plan):
    return [said(remark, plan) for remark in plan.remarks if remark.weight is not Severity.NOTE]


SINGLE = [
    (form.id, {choice.name: option})
    for form in FORMS.values()
    for choice in form.choices
    for option, _ in choice.options
]
TOGETHER = [
    ("case", {"drawers": "all", "columns": "2", "dividers": "frame"}),
    ("case", {"drawers": "all", "drawer_bottom": "slips", "heights": "stepped"}),
    ("case", {"corners": "rabbeted", "dados": "shouldered", "back": "1", "sizing": "contents"}),
    ("table", {"drawer": "one", "rear": "mitred"}),
    ("table", {"drawer": "one", "drawer_bottom": "slips", "legs": "four"}),
    ("top", {"of": "slab", "ends": "battens"}),
    ("top", {"of": "slab", "ends": "none", "underside": "rough"}),
    ("top", {"of": "slab", "ends": "none"}),
    ("box", {"corners": "grooved", "lid": "hinged", "sizing": "contents"}),
    ("box", {"corners": "rabbeted", "lid": "sliding", "sizing": "inside"}),
    ("tray", {"ends": "dovetailed", "dividers": "6", "sizing": "contents"}),
]


@pytest.mark.sampled(7)
@pytest.mark.parametrize(("form", "chosen"), SINGLE + TOGETHER, ids=lambda value: str(value))
def test_every_option_of_every_form_goes_together(form, chosen):
    plan = made(form, **chosen)
    assert not plan.problem and plan.parts
    if chosen == {"grooves": "through"}:
        assert all("shows in the end" in text for text in complaints(plan)), "that is what stopping is for"
    else:
        assert complaints(plan) == []


@pytest.mark.parametrize("form", [form.id for form in FORMS.values() if form.id != "own"])
def test_every_form_declares_what_it_uses(form):
    plan = made(form)
    for part in plan.parts:
        assert all(name in plan.ledger.quantities for name in part.quantities), part.id
        assert part.box.low < part.box.high
    for name in FORMS[form].size:
        assert name in plan.ledger.quantities
    for measure in plan.assembly.measures:
        quantity = plan.ledger.quantity(measure.quantity)
        drawn = [abs(end - start) for start, end in zip(measure.start, measure.end, strict=True)]
        # What a dimension says is what lies between its ends.
        assert max(drawn) == quantity.value, measure.quantity
        assert quantity.definition.kind is QuantityKind.LENGTH


@pytest.mark.dear
@pytest.mark.parametrize("form", [f.id for f in FORMS.values() if any(c.name == "sizing" for c in f.choices)])
def test_sized_three_ways(form):
    prefix = next(name for name in made(form).ledger.quantities if ".outside_" in name).split(".")[0]
    outside = made(form, sizing="outside").ledger
    sizes = {name: outside.length(name) for name in outside.quantities if name.startswith(f"{prefix}.inside_")}
    assert len(sizes) >= 2
    inside = made(form, sizing="inside", given=sizes).ledger
    for name in sizes:
        other = name.replace("inside", "outside")
        assert inside[other] == outside[other], "inside and outside agree"
    contents = made(form, sizing="contents").ledger
    clear = contents["contents.clearance"]
    for name in sizes:
        content = f"contents.{name.rpartition('_')[2]}"
        extra = contents[name] - contents[content]
        assert extra in (0, clear, 2 * clear), "the contents and a clearance"


@pytest.mark.sampled(4)
@pytest.mark.parametrize("form", [form.id for form in FORMS.values() if form.id != "own"])
@pytest.mark.parametrize("value", [mm(0), mm("0.5"), mm(4000)])
def test_no_figure_breaks_a_form(form, value):
    plan = made(form)
    for name, quantity in plan.ledger.quantities.items():
        if quantity.definition.kind is QuantityKind.LENGTH:
            spoilt = work_out(actions.give(plan.project, name, value), milling=False, proving=False)
            assert spoilt.parts or spoilt.remarks, f"{name} leaves nothing, without a word"


# --- the trade's figures --------------------------------------------------------------------------


@pytest.mark.dear
def test_a_chests_notches_follow_its_rabbets():
    plan = made("chest", {"rabbet.depth": mm(7), "sides.thickness": mm(18)})
    assert plan.ledger["notch.depth"] == 11, "what the rabbet leaves"
    measured = made("chest", measured={"rabbet.depth": mm("6.4")})
    assert measured.ledger["notch.depth"] == mm("11.6").mm, "the notch follows what was cut"
    assert complaints(measured) == []
    held = {joint.hold for joint in plan.assembly.joints if joint.second in ("front", "back")}
    assert held == {Hold.NAILS}


def test_a_tables_taper_starts_below_the_apron():
    plan = made("table", {"taper.below": mm(0)})
    remark = next(remark for remark in plan.remarks if "mistake" in said(remark, plan))
    mended = work_out(actions.give(plan.project, "taper.below", mm(10)))
    assert remark.fixes[0].quantity == "taper.below" and not complaints(mended)


@pytest.mark.parametrize(("legs", "off"), [("four", "3/8"), ("inner", "3/4")])
def test_a_leg_from_an_inch_and_a_half_to_three_quarters(legs, off):
    plan = made("table", {"leg.section": inch("1.5"), "leg.foot": inch("0.75")}, legs=legs)
    assert plan.ledger["taper.off"] == inch(Fraction(off)).mm


def test_a_tables_joints_are_the_usual_ones():
    plan = made("table", drawer="one")
    names = {
        joint.id: joint.type.name(joint, plan.part(joint.first), plan.part(joint.second))
        for joint in plan.assembly.joints
    }
    assert names["leg1-lower_rail"] == "double tenon"
    assert names["leg3-back_apron"] == "mortise and tenon"
    assert names["upper_rail-leg1"] == "half-blind dovetail", "lapped into the top of the leg, hidden by the top"
    assert names["top-left_kicker"] == "butt joint, screwed in slots"
    mitred = made("table", rear="mitred")
    assert any(joint.type is MITRE for joint in mitred.assembly.joints)


def test_a_holder_is_sized_by_what_stands_in_it():
    # Content, a clearance a side, the walls, a margin: that gives the base.
    given_ = {
        "contents.length": mm(100),
        "contents.width": mm(60),
        "contents.clearance": inch("0.125"),
        "walls.thickness": mm(10),
        "base.margin": mm(20),
    }
    ledger = made("holder", given_).ledger
    assert ledger["base.length"] == 100 + 2 * inch("0.125").mm + 2 * 10 + 2 * 20
    assert ledger["base.width"] == 60 + 2 * inch("0.125").mm + 2 * 10 + 2 * 20


def test_cleats_come_out_of_one_board():
    plan = made("hanging rack", {"cleat.board": mm(90), "cleat.bevel": mm(8)})
    wide = plan.ledger["cleat.width"]
    # Laid bevel to bevel the two make the board again.
    assert 2 * wide - plan.ledger["cleat.bevel"] == 90
    steep = made("hanging rack", {"cleat.bevel": mm(30)})
    assert any("bevel" in text for text in complaints(steep))


def test_a_breadboard_end_is_glued_in_the_middle_only():
    plan = made("top", staves="5")
    joint = next(each for each in plan.assembly.joints if each.first == "left_end")
    tenons, mortises = joint.shares[1:], joint.channels[1:]
    assert joint.second == "panel" and joint.glued == tenons[2].size(Axis.Y)
    # Whatever is not glued moves, and the farther out the more.
    rooms = [float(mortise.size(Axis.Y) - tenon.size(Axis.Y)) for tenon, mortise in zip(tenons, mortises, strict=True)]
    assert rooms == [6, 3, 0, 3, 6]
    narrow = made("top", {"slot.room": mm("0.5")})
    text, fix = next((said(r, narrow), r.fixes[0]) for r in narrow.remarks if r.weight is Severity.WARNING)
    assert "until the dampest month" in text and fix.quantity == "slot.room"


def test_a_drawers_bottom_slides_out_under_its_back():
    plan = made("drawer")
    back, bottom = plan.part("drawer_back").box, plan.part("drawer_bottom").box
    assert back.low[2] >= bottom.high[2], "the back stands on the bottom"
    assert plan.part("drawer_bottom").grain.name == "X", "its grain runs side to side"
    assert plan.part("drawer_front").width.mm - plan.part("drawer_left").width.mm == 2, "sides a little lower"
    slips = made("drawer", bottom="slips")
    assert {"drawer_slip1", "drawer_slip2"} <= {part.id for part in slips.parts}
    hold = next(j.hold for j in slips.assembly.joints if j.id == "drawer_left-drawer_bottom")
    assert hold is Hold.NAILS


@pytest.mark.dear
def test_drawers_fit_openings_and_wait_for_them():
    plan = made("case", drawers="all", rows="4", heights="stepped")
    heights = [plan.ledger[f"row{row}.height"] for row in range(1, 5)]
    assert [b - a for a, b in pairwise(heights)] == [12, 12, 12]
    front = plan.part("drawer11_front")
    assert plan.waiting(front) == ("column.width", "row1.height")
    measured = made(
        "case", drawers="all", rows="4", heights="stepped", measured={"column.width": mm(383), "row1.height": mm(80)}
    )
    assert measured.part("drawer11_front").length.mm == 383 - 2 * mm("0.8").mm
    assert measured.ledger.quantity("drawer11_front.length").origin is Origin.FITTED
    assert measured.waiting(measured.part("drawer11_front")) == ()


def test_shelves_carry_what_they_are_asked_to():
    light = made("wall shelf", {"shelf.load": 10})
    heavy = made("wall shelf", {"shelf.load": 60, "shelf.outside_width": mm(1000)})
    assert not complaints(light)
    text = next(text for text in complaints(heavy) if "sags" in text)
    assert "it passes" in text


def test_stepped_rows_that_come_to_nothing_are_said():
    plan = made("case", {"rows.step": mm(400)}, rows="4", heights="stepped")
    assert not plan.parts and "row 1" in said(plan.remarks[0], plan)


@settings(max_examples=30)
@given(st.sampled_from([form.id for form in FORMS.values() if form.id != "own"]), st.data())
def test_any_choices_together_can_be_worked_out(form, data):
    chosen = {
        choice.name: data.draw(st.sampled_from([option for option, _ in choice.options]), label=choice.name)
        for choice in FORMS[form].choices
    }
    plan = work_out(Project(Piece(form, choices=tuple(chosen.items()))), milling=False, proving=False)
    assert not plan.problem
    assert plan.parts or said(plan.remarks[0], plan).endswith("nothing is left of it.")


def test_a_stay_stops_the_lid_a_little_past_upright():
    ledger = made("box", lid="hinged").ledger
    # The chord of 95° (exact): 2 p sin 47.5°.
    chord = 2 * float(ledger["stay.from_hinge"]) * math.sin(math.radians(47.5))
    assert float(ledger["stay.length"]) == pytest.approx(chord, rel=0.001)


def _as_made(plan, parts):
    """Return what each part is cut to, where, and on how many faces it is planed, by its id."""
    assembly = plan.assembly
    there = {part.id: part for part in assembly.parts}
    return {
        part: (recipe(there[part], assembly.joints, there), there[part].one_face) for part in parts if part in there
    }


def _by(part, others, plan):
    """Return whether a part stands against one of the others."""
    return any(
        all(part.box.low[n] <= other.box.high[n] and other.box.low[n] <= part.box.high[n] for n in range(3))
        for other in plan.parts
        if other.id in others
    )


def _any(pattern, parts):
    return any(fnmatchcase(part, pattern) for part in parts)


@pytest.mark.sampled(7)
@pytest.mark.parametrize("form", [form.id for form in FORMS.values() if form.choices])
def test_a_choice_is_offered_beside_the_parts_it_changes_and_no_others(form):
    usual, last = ({each.name: each.options[at][0] for each in FORMS[form].choices} for at in (0, -1))
    for choice in FORMS[form].choices:
        about, changed, beside = set[str](), set[str](), set[str]()
        for others in (usual, last):
            chosen = others | ({choice.when[0]: choice.when[1][0]} if choice.when[0] else {})
            made = [
                planned(form, tuple(sorted(FORMS[form].settled(chosen | {choice.name: value}).items())))
                for value, _ in choice.options
            ]
            ids = {part.id for plan in made for part in plan.parts}
            recipes = [_as_made(plan, ids) for plan in made]
            changed |= (new := {part for part in ids if len({each.get(part) for each in recipes}) > 1})
            beside |= {part.id for plan in made for part in plan.parts if _by(part, new, plan)}
            about |= {part for part in ids if choice.concerns(part)}
        if choice.name == "sizing":
            assert not about, "sizes are a matter of the piece"
            continue
        alike = {part for part in about for p in choice.parts if fnmatchcase(part, p) and _any(p, changed)}
        assert about and about <= changed | beside | alike, (choice.name, about - changed)
        assert about & changed and all(_any(pattern, changed | beside) for pattern in choice.parts), choice.name
