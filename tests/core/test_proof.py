"""The proof: what is right proves clean, what is wrong is said exactly, and what is offered mends it."""

from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import HealthCheck, given
from hypothesis import strategies as st
from tests.examples import tried
from tests.said import said

from nullah.core import actions
from nullah.core.apply_fix import action_of
from nullah.core.card import Severity
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.identity import let_go
from nullah.core.joints.dovetail.joint_type import DOVETAIL
from nullah.core.lengths import Marks, Slope, Unit, mm
from nullah.core.piece.faults import FaultKind
from nullah.core.piece.joint import Hold, Joint
from nullah.core.piece.order import assembly_order
from nullah.core.piece.space import Side
from nullah.core.plan import known_proof, prove_plan, work_out
from nullah.core.project import Piece, Project
from nullah.core.proof.finding import ProofInput
from nullah.core.proof.prove import StoppedError
from nullah.core.rack.drying import Reading
from nullah.core.wood.climate import PRESETS
from nullah.core.wording.fixes import fix_words
from nullah.demo.seed_cabinet import seed_cabinet


def proved(project):
    return work_out(project, milling=False)


def spoil(project, **given_):
    return actions.give_all(project, {name.replace("__", "."): value for name, value in given_.items()})


def mended(plan, finding):
    """Carry out the first fix of a finding, as the desk does."""
    return proved(action_of(finding.remark.fixes[0], plan.marks.unit)(plan.project))


def test_the_sample_proves_clean():
    plan = proved(seed_cabinet())
    assert plan.proof.clean and plan.failing == 0
    assert len(plan.parts) == 30 and len(plan.assembly.joints) == 50


@pytest.mark.parametrize(
    ("given_", "trouble", "words"),
    [
        ({"back__rabbet_width": mm(6)}, FaultKind.FIT,
         "Back board 1 is 9.0 mm thick and its rabbet in the top 6.0 mm wide: it stands 3.0 mm proud."),
        ({"dado__width": mm(11)}, FaultKind.FIT,
         "Divider 1 is 12.0 mm thick and its dado in the left side 11.0 mm wide: 1.0 mm too tight."),
        ({"dado__width": mm("12.5")}, FaultKind.GAP, "0.5 mm loose"),
        ({"divider__notch": mm(4)}, FaultKind.NOTCH,
         "Divider 1 is notched 6.0 mm too little: it runs past the end of the stopped dado in the left side."),
        ({"divider__notch": mm(13)}, FaultKind.NOTCH, "Divider 1 is notched 3.0 mm too much"),
        ({"divider__length": mm(340)}, FaultKind.FIT,
         "Divider 1 reaches 4.0 mm deeper than the dado in the right side."),
        ({"divider__length": mm(330)}, FaultKind.APART, "do not meet"),
        ({"divider__length": mm(334)}, FaultKind.GAP, "Divider 1 stops 2.0 mm short of the floor of the dado"),
        ({"drawer21_front__width": mm(90)}, FaultKind.PASS,
         "Drawer 2 cannot come out: its front is 2.5 mm too high to pass divider 1."),
        ({"drawer11_front__length": mm(330)}, FaultKind.PASS, "too wide to pass the right side."),
        ({"dado__depth": mm(13)}, FaultKind.THIN,
         "The dado leaves only 4.0 mm of the 17.0 mm of the left side; 5.7 mm is the least."),
        ({"sides__length": mm(443)}, FaultKind.FIT,
         "The left side is 3.0 mm too long: its tails would stand so far out"),
        ({"sides__length": mm(437)}, FaultKind.GAP, "The left side is 3.0 mm short"),
        ({"top__length": mm(363)}, FaultKind.FIT, "The top is 3.0 mm too long: its pins would stand so far out"),
        ({"back__gap": mm("0.2")}, FaultKind.SEASON, "until the dampest month"),
    ],
)  # fmt: skip
def test_one_wrong_figure_gives_an_exact_complaint(given_, trouble, words):
    plan = proved(spoil(seed_cabinet(), **given_))
    found = [finding for finding in plan.findings if finding.trouble is trouble]
    assert any(words in said(finding, plan) for finding in found), [said(f, plan) for f in plan.findings]
    assert all(said(finding, plan).endswith(".") for finding in found)


@pytest.mark.parametrize(
    "given_",
    [
        {"back__rabbet_width": mm(6)}, {"dado__width": mm(11)}, {"dado__width": mm("12.5")}, {"divider__notch": mm(4)},
        {"divider__length": mm(340)}, {"divider__length": mm(330)}, {"sides__length": mm(443)}, {"dado__depth": mm(13)},
        {"drawer21_front__width": mm(90)}, {"back__gap": mm("0.2")},
    ],
)  # fmt: skip
def test_what_is_offered_mends_it(given_):
    plan = proved(spoil(seed_cabinet(), **given_))
    finding = next(f for f in plan.findings if f.remark.fixes)
    assert mended(plan, finding).proof.clean, finding.remark.fixes[0]


def test_five_ways_to_break_it_give_five_complaints():
    ways = (
        {"back__rabbet_width": mm(6)},
        {"divider__notch": mm(4)},
        {"drawer21_front__width": mm(90)},
        {"sides__length": mm(443)},
        {"dado__width": mm(11)},
    )
    plans = [proved(spoil(seed_cabinet(), **way)) for way in ways]
    texts = [said(plan.findings[0], plan) for plan in plans]
    assert len(set(texts)) == 5


def test_equal_parts_are_complained_of_once():
    plan = proved(spoil(seed_cabinet(), divider__notch=mm(4)))
    notched = [f for f in plan.findings if f.trouble is FaultKind.NOTCH]
    assert len(notched) == 1 and said(notched[0], plan).endswith("So in 6 places.")
    assert {"divider11", "divider21", "divider31"} <= set(notched[0].parts)


def test_rows_that_do_not_add_up_are_said():
    plan = proved(spoil(seed_cabinet(), row1__height=mm(70)))
    assert any("7.5 mm less than the inside height" in said(remark, plan) for remark in plan.remarks)


@pytest.mark.dear
def test_complaints_are_written_in_the_unit_that_is_shown():
    project = spoil(seed_cabinet(), dado__width=mm(11))
    inches = proved(actions.show_in(project, replace(project.marks, unit=Unit.INCH)))
    text = said(inches.findings[0], inches)
    assert "″" in text and "mm" not in text


def test_a_groove_that_shows_is_said_where_it_shows():
    plan = proved(Project(Piece("box", choices=(("grooves", "through"),))))
    shown = [f for f in plan.findings if f.trouble is FaultKind.SHOWS]
    assert "shows in the end of the front, on the left" in said(shown[0], plan)
    assert shown[0].place is not None
    assert mended(plan, shown[0]).proof.clean
    for tails_on in ("sides", "ends"):
        project = Project(Piece("box", choices=(("grooves", "through"), ("tails_on", tails_on))))
        hosts = {part for f in proved(project).findings for part in f.parts} - {"bottom"}
        # On the tail boards it shows in the end of a tail; on the pin boards a socket hides it.
        assert hosts == ({"front", "back"} if tails_on == "sides" else {"left", "right"})


def test_a_board_glued_across_the_grain_is_said_until_it_may_slide():
    sizes = (mm(400), mm(200), mm(18))
    boards = (
        OwnBoard("own1", "panel", sizes, (mm(0), mm(0), mm(0)), "xz"),
        OwnBoard("own2", "batten", (mm(190), mm(50), mm(20)), (mm(50), mm(5), mm(18)), "yz"),
    )
    project = Project(Piece("own", own=boards, own_joints=(OwnJoint("ownjoint1", "butt", "own1", "own2"),)))
    plan = proved(project)
    (finding,) = plan.findings
    assert finding.trouble is FaultKind.CROSS_GRAIN and "190.0 mm of the grain of the panel" in said(finding, plan)
    after = mended(plan, finding)
    assert after.proof.clean and after.assembly.joints[0].hold is Hold.SLOTS
    short = replace(project.piece, own=(boards[0], boards[1]._replace(sizes=(mm(90), mm(50), mm(20)))))
    assert proved(Project(short)).proof.clean, "up to about 100 mm wood puts up with it"


def test_parts_that_trap_each_other_are_named():
    # A key in a pocket that is closed all round can be brought in no way at all.
    post = OwnBoard("own1", "post", (mm(300), mm(60), mm(60)), (mm(0), mm(0), mm(0)), "zx")
    key = OwnBoard("own2", "key", (mm(40), mm(20), mm(10)), (mm(20), mm(20), mm(100)), "zx")
    joint = OwnJoint("ownjoint1", "let in", "own1", "own2")
    plan = proved(Project(Piece("own", own=(post, key), own_joints=(joint,))))
    (finding,) = [f for f in plan.findings if f.trouble is FaultKind.TRAPPED]
    assert said(finding, plan).startswith("These cannot be put together in any order: post and key.")
    # Open to one side, it goes in from there.
    open_ = key._replace(at=(mm(20), mm(0), mm(100)))
    free = proved(Project(Piece("own", own=(post, open_), own_joints=(joint,))))
    assert not [f for f in free.findings if f.trouble is FaultKind.TRAPPED]
    assert [step.way for step in free.proof.order.steps if step.parts == ("own2",)] == [Side.BACK]


def test_boards_locked_in_a_ring_still_come_apart_in_pairs():
    # Tails on one end of each wall and pins on its other: no wall comes off alone, but two at once do.
    box = proved(Project())
    tails = box.assembly.joints[0].figures
    walls = tuple(part for part in box.parts if part.id != "bottom")
    ring = [
        Joint(f"{a}-{b}", DOVETAIL, a, b, figures=tails)
        for a, b in (("front", "left"), ("left", "back"), ("back", "right"), ("right", "front"))
    ]
    order = assembly_order(walls, ring)
    assert not order.trapped
    assert len(order.steps[-1].parts) == 2


def test_the_order_takes_lids_and_drawers_last_and_whole():
    plan = proved(seed_cabinet())
    steps = plan.proof.order.steps
    whole = [step for step in steps if len(step.parts) == 5]
    assert len(whole) == 4 and all(step.way is Side.BACK for step in whole)
    seen: set[str] = set()
    for step in steps:
        assert not set(step.parts) & set(step.onto)
        seen |= set(step.parts) | set(step.onto)
    assert seen == {part.id for part in plan.parts}
    index = {step.parts: number for number, step in enumerate(steps)}
    assert index[("left",)] < min(index[step.parts] for step in whole), "the case stands before its drawers go in"


def test_what_was_cut_to_a_measurement_is_trusted():
    project = seed_cabinet()
    for name, value in (("column.width", mm("325.2")), ("row1.height", mm("78.1"))):
        project = actions.measure(project, name, value)
    plan = proved(project)
    assert plan.part("drawer11_front").length == mm("323.6")
    assert not plan.findings, [said(f, plan) for f in plan.findings]


@pytest.mark.dear
def test_a_thickness_that_came_out_different_is_followed_or_said():
    # The rabbet of the back follows the back's thickness as measured; a dado already cut does not.
    follows = proved(actions.measure(seed_cabinet(), "back.thickness", mm("9.6")))
    assert follows.proof.clean and follows.ledger["back.rabbet_width"] == mm("9.6").mm
    cut = actions.measure(seed_cabinet(), "dado.width", mm(12))
    thick = proved(actions.measure(cut, "divider.thickness", mm("12.4")))
    assert any("0.4 mm too tight" in said(f, thick) for f in thick.findings)


def test_a_tail_too_fine_for_saw_or_chisel_is_said():
    plan = proved(spoil(Project(Piece("box")), tails__pin=mm("0.4")))
    assert any("pin" in said(remark, plan).lower() for remark in plan.remarks if remark.weight is not Severity.NOTE)


def _proof_input_of(plan):
    woods = {part.id: plan.wood_through_year(part) for part in plan.parts}
    return ProofInput(plan.assembly, plan.ledger, plan.project.shop, plan.marks, woods, plan.designed)


def _another_board(project, **changed):
    return actions.change_board(project, replace(project.boards[0], **changed))


CHANGES = {
    "finish": lambda p: actions.finish_with(p, "paint or varnish"),
    "climate": lambda p: actions.live_in(p, PRESETS[-1] if p.climate != PRESETS[-1] else PRESETS[0]),
    "moisture": lambda p: actions.read_moisture(p, p.boards[0].id, Reading("2026-11-29", Fraction(19))),
    "species": lambda p: _another_board(p, species="white oak"),
    "figure": lambda p: actions.give(p, "divider.thickness", mm(11)),
    "measured": lambda p: actions.measure(p, "divider.thickness", mm("12.4")),
    "choice": lambda p: actions.choose(p, "dividers", "frame"),
    "shop": lambda p: replace(p, shop=replace(p.shop, bits=p.shop.bits[:1])),
    "marks": lambda p: actions.show_in(p, replace(p.marks, unit=Unit.INCH)),
}


@pytest.mark.dear
@pytest.mark.parametrize("change", CHANGES)
def test_a_proof_that_is_kept_is_shown_only_of_what_it_was_made_of(change):
    project = seed_cabinet()
    one, same, other = (
        work_out(each, milling=False, proving=False) for each in (project, project, CHANGES[change](project))
    )
    assert _proof_input_of(one) != _proof_input_of(other), "it is a change"
    assert one.proof_key == same.proof_key != other.proof_key
    first = prove_plan(one)
    assert known_proof(same) is first is prove_plan(same) is not prove_plan(other)


def test_a_proof_can_be_stopped():
    plan = work_out(spoil(seed_cabinet(), divider__thickness=mm("11.7")), milling=False, proving=False)
    with pytest.raises(StoppedError):
        prove_plan(plan, lambda: True)


@pytest.mark.dear
def test_a_proof_again_is_the_same_and_asks_nothing_new():
    from nullah.core.piece import solids

    plan = work_out(seed_cabinet(), milling=False, proving=False)

    def cut(proof):
        """Cut every solid of a proof; give how many were not kept from before."""
        before = solids.cut_at_origin.cache_info().misses
        for made in proof.recipes.values():
            solids.build(made)
        return solids.cut_at_origin.cache_info().misses - before

    first = prove_plan(plan)
    cut(first)
    let_go()
    again = prove_plan(plan)
    assert again.findings == first.findings
    assert cut(again) == 0, "no solid is cut again"
    before = solids.cut_at_origin.cache_info().misses
    thicker = work_out(actions.give(seed_cabinet(), "drawer11_back.thickness", mm(11)), milling=False)
    cut(thicker.proof)
    assert 0 < solids.cut_at_origin.cache_info().misses - before < len(thicker.parts) / 2, (
        "only what changed is cut again"
    )


# --- six pieces, at random ------------------------------------------------------------------------

_SIZES = {
    "box": ("box.outside_length", "box.outside_width", "box.outside_height"),
    "tray": ("tray.outside_length", "tray.outside_width"),
    "chest": ("chest.outside_length", "chest.outside_width", "chest.outside_height"),
    "case": ("case.outside_width", "case.outside_depth", "case.outside_height"),
    "wall shelf": ("shelf.outside_width", "shelf.outside_depth", "shelf.outside_height"),
    "table": ("table.length", "table.width", "table.height"),
}
# Figures that hang on others: overruled by 4 mm either way, something cannot go together any more.
_WRONG = {
    "box": ("groove.width", "bottom.length", "bottom.width", "ends.length", "sides.length"),
    "tray": ("groove.width", "dado.width", "divider.length", "bottom.length"),
    "chest": ("notch.depth", "dado.width", "bottom.length", "sides.length", "till_side.length"),
    "case": ("dado.width", "divider.length", "divider.notch", "sides.length", "top.length", "back.rabbet_width"),
    "wall shelf": ("dado.width", "shelves.length", "rail.length"),
    "table": ("long_apron.length", "side_apron.length"),
}


@pytest.mark.dear
@tried(24, suppress_health_check=[HealthCheck.too_slow])
@given(st.sampled_from(sorted(_SIZES)), st.data())
def test_any_piece_of_sensible_size_proves_clean_and_any_wrong_figure_is_caught(form, data):
    plain = work_out(Project(Piece(form)), milling=False, proving=False)
    shares = st.fractions(min_value=Fraction(9, 10), max_value=Fraction(5, 4), max_denominator=40)
    given_ = {name: plain.ledger[name] * data.draw(shares, label=name) for name in _SIZES[form]}
    project = actions.give_all(Project(Piece(form)), {name: mm(value) for name, value in given_.items()})
    plan = proved(project)
    season = {FaultKind.SEASON, FaultKind.SAG}
    assert [said(f, plan) for f in plan.findings if f.trouble not in season] == []
    wrong = data.draw(st.sampled_from(_WRONG[form]), label="wrong")
    by = data.draw(st.sampled_from([-4, 4]), label="by")
    spoilt = proved(actions.give(project, wrong, mm(plan.ledger[wrong] + by)))
    found = [f for f in spoilt.findings if f.trouble not in season]
    assert found, f"{wrong} {by:+d} is not caught"


@pytest.mark.dear
def test_slopes_and_counts_can_be_wrong_too():
    steep = proved(actions.give(Project(Piece("box")), "tails.slope", Slope(Fraction(1))))
    assert steep.failing
    many = proved(actions.give(Project(Piece("box")), "tails.count", 60))
    assert many.failing
    assert FORMS["box"].id == "box"


@pytest.mark.dear
def test_what_a_form_says_is_in_the_unit_that_is_shown_too():
    short = actions.give(seed_cabinet(), "row1.height", mm(70))
    for project, words in ((short, "7.5 mm less"), (actions.show_in(short, replace(short.marks, unit=Unit.INCH)), "″")):
        texts = [said(remark, project) for remark in proved(project).remarks]
        (text,) = [text for text in texts if "than the inside height" in text]
        assert words in text


@pytest.mark.sampled(4)
@pytest.mark.parametrize("form", FORMS)
def test_what_is_said_of_a_form_is_in_inches_where_they_are_shown(form):
    plan = proved(actions.show_in(Project(Piece(form)), Marks(Unit.INCH)))
    texts = [said(remark, plan) for remark in plan.remarks] + [
        fix_words(fix, plan.reader) for r in plan.remarks for fix in r.fixes
    ]
    assert not any(" mm" in text for text in texts), texts
