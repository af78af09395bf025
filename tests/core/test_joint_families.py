"""What each family of joints tells: settings, steps, limits."""

from dataclasses import replace

import pytest
from tests.said import said

from nullah.core import actions
from nullah.core.card import Severity
from nullah.core.drawing import Dimension, Fill, Path
from nullah.core.forms import FORMS
from nullah.core.joints.cutouts import Cutout
from nullah.core.joints.dovetail.joint_type import DOVETAIL
from nullah.core.joints.fasteners import FastenerError, FastenerFault, fastening, nail_withdrawal
from nullah.core.joints.kinds import kinds_of
from nullah.core.joints.let_in import LET_IN
from nullah.core.joints.mate_views import mate_views
from nullah.core.joints.tenon import TENON
from nullah.core.joints.tolerance import ToleranceError, dovetail, opening
from nullah.core.joints.types import cautions_of
from nullah.core.lengths import mm
from nullah.core.piece.joint import Hold
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.shop import SCHOOLS, Hands, Schools, Shop
from nullah.core.stations import STATIONS
from nullah.core.stations.selected_joint import selected_kind
from nullah.core.stations.selection import JointsSelection, Selection
from nullah.core.wording.operations import step_words
from nullah.core.work.joint_work import at_bench, joint_work
from nullah.demo.seed_cabinet import seed_cabinet

JOINTS = next(station for station in STATIONS if station.id == "joints")


@pytest.fixture(scope="module")
def cabinet():
    return work_out(seed_cabinet(), milling=False, proving=False)


def kind(plan, name):
    return next(each for each in kinds_of(plan.assembly) if each.name == name)


def test_equal_joints_are_one_kind(cabinet):
    found = kinds_of(cabinet.assembly)
    assert sum(len(each.all) for each in found) == len(cabinet.assembly.joints)
    assert len(kind(cabinet, "stopped dado").all) == 6
    assert len({each.id for each in found}) == len(found)


def test_a_stopped_dado_is_measured_from_end_edge_and_face(cabinet):
    dado = kind(cabinet, "stopped dado")
    (cut,) = dado.first.cutouts
    assert isinstance(cut, Cutout)
    assert (cut.size(0), cut.size(2)) == (12, 5) and cut.across[0] == 10
    # The mate's corner is notched to cover the stop, as deep as the dado.
    (notch,) = dado.second.cutouts
    assert notch.size(0) == 5 and notch.size(1) == 10
    card = JOINTS.card(cabinet, Selection(joints=JointsSelection(dado.id)))
    figures = {(setting.tool, setting.figure) for setting in card.set}
    assert {("Depth", "5 mm"), ("Stop", "10 mm"), ("Chisel", "12 mm")} <= figures


def test_every_joint_of_every_form_tells_how_it_is_made():
    seen = set()
    for form in FORMS:
        plan = work_out(Project(piece=Piece(form, form)), milling=False, proving=False)
        for each in kinds_of(plan.assembly):
            seen.add(each.joint.type)
            card = JOINTS.card(plan, Selection(joints=JointsSelection(each.id)))
            assert card.title and card.mark, each.title
            assert all(step.endswith((".", "!")) for step in card.mark), card.mark
            shapes = list(mate_views(each.first, "black cherry", plan.marks))
            hatched = [e for e in shapes if isinstance(e, Path) and e.fill is Fill.WASTE]
            assert bool(hatched) or not each.first.cutouts
    assert {LET_IN, DOVETAIL, TENON} <= seen


def test_figures_of_the_ledger_can_be_clicked_on_the_drawing(cabinet):
    shown = JOINTS.draw(cabinet, Selection(part="divider21"))
    named = {e.ref.name for e in shown.elements if isinstance(e, Dimension) and e.ref}
    assert {"dado.width", "dado.depth"} <= named


def test_the_part_in_hand_brings_its_own_joint(cabinet):
    assert selected_kind(cabinet, Selection(part="divider31")).second.part.id == "divider31"
    assert selected_kind(cabinet, Selection()).id == kinds_of(cabinet.assembly)[0].id
    assert selected_kind(work_out(Project()), Selection()) is None or kinds_of(work_out(Project()).assembly)


@pytest.mark.parametrize(
    ("given", "words"),
    [
        ({"dado.depth": mm(9)}, "more than a third"),
        ({"dado.depth": mm("14.5")}, "left under it: that breaks"),
        ({"back.rabbet": mm(12)}, "more than half"),
    ],
)
def test_limits_are_said_with_their_figure(given, words):
    plan = work_out(actions.give_all(seed_cabinet(), given), milling=False, proving=False)
    remarks = [r for each in kinds_of(plan.assembly) for r in cautions_of(at_bench(plan, each))]
    assert any(words in said(remark, plan) and remark.weight is not Severity.NOTE for remark in remarks)


def test_ways_of_working_change_the_steps(cabinet):
    dado = kind(cabinet, "stopped dado")
    for floor in SCHOOLS["floor"]:
        project = replace(seed_cabinet(), shop=Shop(schools=Schools(floor=floor)))
        plan = work_out(project, milling=False, proving=False)
        steps = JOINTS.card(plan, Selection(joints=JointsSelection(dado.id))).mark
        assert any(("router plane" in text) is (floor == "router plane") for text in steps if "level" in text)
    cards = []
    for way in SCHOOLS["dovetail"]:
        project = replace(seed_cabinet(), shop=Shop(schools=Schools(dovetail=way)))
        plan = work_out(project, milling=False, proving=False)
        cards.append(JOINTS.card(plan, Selection(joints=JointsSelection(kind(plan, "through dovetail").id))).mark)
    assert "Lay the tails of" in " ".join(cards[0]) and "Stand the pins of" not in " ".join(cards[0])
    assert "Stand the pins of" in " ".join(cards[1]) and "Lay the tails of" not in " ".join(cards[1])


# --- nails and screws -----------------------------------------------------------------------------------------


def test_nails_and_screws_are_chosen_by_thickness():
    nails = fastening(False, 9, 17, 300, 0.5, True, False)
    assert (nails.long, nails.thick) == (20, 1.2), "the longest that is sold up to 22.5"
    assert nails.places[0] == nails.places[-1] * 0 + 25 and nails.places[-1] == pytest.approx(275)
    gaps = {round(b - a, 6) for a, b in zip(nails.places, nails.places[1:], strict=False)}
    assert len(gaps) == 1 and gaps.pop() <= 90
    screws = fastening(True, 12, 40, 200, 0.5, False, True)
    assert screws.pilot < screws.thick and screws.enters == pytest.approx(18)
    side = fastening(True, 12, 40, 200, 0.5, False, False)
    assert screws.holds == pytest.approx(0.75 * side.holds)
    # Never through what it holds.
    assert fastening(False, 12, 10, 100, 0.5, True, False).long <= 19


@pytest.mark.parametrize(
    ("wrong", "fault"),
    [
        (lambda: nail_withdrawal(0.09, 2, 10), FastenerFault.NO_WOOD),
        (lambda: nail_withdrawal(1.31, 2, 10), FastenerFault.NO_WOOD),
        (lambda: nail_withdrawal(0.5, 0, 10), FastenerFault.NO_THICKNESS),
        (lambda: fastening(True, 0, 10, 100, 0.5, True, False), FastenerFault.NOTHING_TO_FASTEN),
    ],
)
def test_what_cannot_be_nailed_is_refused(wrong, fault):
    with pytest.raises(FastenerError) as refused:
        wrong()
    assert refused.value.fact is fault


def test_slotted_screws_let_the_part_move(cabinet):
    slots = next(each for each in kinds_of(cabinet.assembly) if each.joint.hold is Hold.SLOTS)
    told = list(cautions_of(at_bench(cabinet, slots)))
    steps = [step_words(step, cabinet.reader) for step in joint_work(cabinet, slots).steps]
    assert any("make slots across" in step or "make a slot across" in step for step in steps), steps
    assert "Test nail or screw and its pilot in scrap" in said(told[-1])


# --- hands -----------------------------------------------------------------------------------------------------


def test_hands_and_trials_that_cannot_be_are_refused():
    for wrong in (
        lambda: dovetail(2, Hands(marking=-1)),
        lambda: dovetail(0),
        lambda: dovetail(2, trials=3),
        lambda: opening(0),
    ):
        with pytest.raises(ToleranceError):
            wrong()


def test_chances_are_the_same_each_time_and_add_up():
    one, two = dovetail(3, trials=3000), dovetail(3, trials=3000)
    assert one == two
    for chances in (one.drawing, one.traced):
        assert 0 <= chances.good <= 1 and chances.gap + chances.tight + chances.good == pytest.approx(1)
