"""Joints by themselves: one of each family made up, cut as solids and put together."""

import itertools

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.said import said

from nullah.core.card import Severity
from nullah.core.drawing import Label, Path, Role
from nullah.core.joints.made_up import FAMILIES, JointError, make_up
from nullah.core.piece.cuts import block_of
from nullah.core.piece.solids import block_solid, build, recipe
from nullah.core.plan import work_out
from nullah.core.project import Project
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import JointsSelection, Selection

JOINTS = next(station for station in STATIONS if station.id == "joints")


def usual(family):
    return tuple(value for _, value in FAMILIES[family].figures)


def solids_of(made):
    parts = {part.id: part for part in made.assembly.parts}
    return [build(recipe(part, made.assembly.joints, parts)) for part in made.assembly.parts]


@pytest.mark.parametrize("family", FAMILIES)
def test_its_solids_go_together_and_each_is_in_one_piece(family):
    made = make_up(family, usual(family))
    solids = solids_of(made)
    for part, solid in zip(made.assembly.parts, solids, strict=True):
        assert len(solid.decompose()) == 1, f"{part.name} falls apart"
        assert 0 < solid.volume() < float(part.box.volume) * 1.0001
    for (one, a), (two, b) in itertools.combinations(zip(made.assembly.parts, solids, strict=True), 2):
        assert (a ^ b).volume() < 0.01, f"{one.name} and {two.name} collide"


@pytest.mark.parametrize("family", [family for family in FAMILIES if family not in ("tusk", "breadboard", "drawbore")])
def test_together_they_fill_what_they_share(family):
    made = make_up(family, usual(family))
    one, two = made.assembly.parts[:2]
    shared = one.box.overlap(two.box)
    room = block_solid(block_of(shared))
    filled = sum((solid ^ room).volume() for solid in solids_of(made))
    assert filled == pytest.approx(float(shared.volume), rel=1e-6)


def test_a_breadboard_end_has_room_for_the_season_and_none_in_the_middle():
    made = make_up("breadboard", usual("breadboard"))
    tongue, *tenons = made.assembly.joints[0].shares
    groove, *mortises = made.assembly.joints[0].channels
    assert tongue == groove
    slack = [
        float(m.size(type(m and made.assembly.parts[0].grain)(1)) - t.size(made.assembly.parts[0].across))
        for m, t in zip(mortises, tenons, strict=True)
    ]
    assert slack == pytest.approx([3, 0, 3])


def test_a_drawbored_hole_is_nearer_to_the_shoulder_in_the_tenon():
    made = make_up("drawbore", usual("drawbore"))
    leg, rail = made.assembly.parts
    (in_leg,), (in_rail,) = leg.shapings, rail.shapings

    def middle(slant, part):
        xs = [x for _, x in slant.points]
        return (min(xs) + max(xs)) / 2 + float(part.box.low[0])

    # The shoulder is the leg's face at the rail's side; the tenon's hole is 1.5 nearer to it.
    assert middle(in_rail, rail) - middle(in_leg, leg) == pytest.approx(1.5)
    assert middle(in_rail, rail) < float(leg.box.high[0])


def test_figures_of_the_trade():
    # trade: a tusk's wedge of 1 in 12 to 1 in 8; a drawbore's offset about 1/16 in; common practice.
    assert make_up("dado", usual("dado")).told is None, "it is told as for a piece, in the shop there is"
    assert not any(r.weight is Severity.WARNING for r in make_up("tusk", usual("tusk")).told.remarks)
    assert any("steep" in said(r) for r in make_up("tusk", (*usual("tusk")[:-1], 6)).told.remarks)
    assert any("never comes out" in said(r) for r in make_up("tusk", (*usual("tusk")[:-1], 15)).told.remarks)
    # Neck = board - 2 · depth ÷ slope (exact).
    neck = next(s for s in make_up("sliding", (150, 20, 18, 7, 7)).told.settings if s.tool == "Neck")
    assert neck.figure == "16 mm"


@pytest.mark.parametrize(
    ("family", "figures", "words"),
    [
        ("sliding", (150, 20, 18, 25, 7), "less deep"),
        ("sliding", (150, 20, 5, 9, 7), "of neck are left"),
        ("sliding", (0, 20, 18, 7, 7), "more than nothing"),
        ("lapped", (38, 18, 44, 25, 10, 7), "Nothing is left of the tail"),
        ("lapped", (38, 18, 44, 6, 60, 7), "lap must be less"),
        ("haunched", (44, 70, 20, 25, 28, 16), "thinner than its rail"),
        ("haunched", (44, 70, 20, 7, 50, 16), "come out of a leg"),
        ("drawbore", (44, 70, 20, 7, 34, 8, 6), "under half the peg"),
        ("tusk", (60, 60, 24, 18, 20, 14, 10), "too little wood behind"),
        ("tusk", (60, 60, 24, 18, 60, 14, 2), "jumps out"),
        ("breadboard", (300, 20, 60, 19, 20, 40, 3), "one to nine tenons"),
        ("breadboard", (300, 6, 60, 19, 3, 40, 3), "under 3 mm"),
        ("bridle", (40, 4), "a lap does better"),
        ("keyed", (40, 18, 20, 20), "thinner than the boards"),
        ("through", (50, 15, 15, 9, 6, 5, 7), "fewer tails"),
        ("through", (50, 15, 15, 0, 6, 5, 7), "one to sixty"),
        ("halfblind", (90, 12, 18, 3, 6, 5, 7, 18), "lap must be less"),
        ("dado", (150, 18, 12, 18, 0), "less deep"),
        ("rabbet", (90, 18, 100, 8), "thicker than"),
        ("groove", (90, 14, 6, 4, 88), "runs out of the board"),
        ("cross", (40, float("nan"), 20), "nothing or more"),
        ("cross", (40, -1, 20), "nothing or more"),
    ],
)
def test_what_cannot_be_made_is_refused_with_what_could(family, figures, words):
    with pytest.raises(JointError, match=words):
        make_up(family, figures)
    card = JOINTS.card(work_out(Project()), Selection(joints=JointsSelection(family=family, figures=figures)))
    assert any(remark.weight is Severity.FAILURE for remark in card.mind)


@settings(max_examples=30, deadline=None)
@given(st.data())
def test_whatever_is_typed_it_is_a_joint_that_goes_together_or_a_sentence(data):
    family = data.draw(st.sampled_from(list(FAMILIES)))
    figures = tuple(round(value * data.draw(st.floats(0.3, 2.5)), 2) for value in usual(family))
    try:
        made = make_up(family, figures)
    except JointError as error:
        assert str(error).endswith((".", "usual.", "enough."))
        return
    for a, b in itertools.combinations(solids_of(made), 2):
        assert (a ^ b).volume() < 0.05


@pytest.mark.parametrize("family", FAMILIES)
def test_every_one_is_drawn_and_told(family):
    selection = Selection(joints=JointsSelection(family=family))
    shown = JOINTS.draw(work_out(Project()), selection)
    names = {part.name for part in make_up(family, usual(family)).assembly.parts}
    words = {e.text for e in shown.elements if isinstance(e, Label)}
    assert names <= words and "together, front" in words
    assert not any(isinstance(e, Path) and e.role is Role.WARN for e in shown.elements)
    card = JOINTS.card(work_out(Project()), selection)
    assert card.title == FAMILIES[family].title and card.set and len(card.mark) >= 2


def test_a_breadboard_end_says_what_room_the_season_asks():
    plan = work_out(Project(), milling=False, proving=False)
    figures = [value for _, value in FAMILIES["breadboard"].figures]
    names = [name for name, _ in FAMILIES["breadboard"].figures]

    def told(moves):
        made = tuple(moves if name == "moves" else value for name, value in zip(names, figures, strict=True))
        card = JOINTS.card(plan, Selection(joints=JointsSelection(family="breadboard", figures=made)))
        return next(remark for remark in card.mind if "over the year" in said(remark))

    tight, wide = told(0.5), told(9.0)
    assert tight.weight is Severity.WARNING and "give it at least that" in said(tight)
    assert wide.weight is Severity.NOTE and "there is room for it" in said(wide)
