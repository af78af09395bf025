"""How joints may be held: otherwise than usual, and still to be made in some order; or in one way only."""

import pytest
from tests.early import worked_too_early
from tests.told import each_choice, planned

from nullah.core import actions
from nullah.core.apply_fix import action_of
from nullah.core.fixes import SlotScrews
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.joints.kinds import kinds_of
from nullah.core.lengths import Length, Unit, mm
from nullah.core.piece.faults import CrossGrain
from nullah.core.piece.joint import Hold
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.work.order_of_work import order_of_work

EVERY = [(form, chosen) for form in sorted(FORMS) if form != "own" for chosen in each_choice(form)]


@pytest.mark.sampled(12)
@pytest.mark.parametrize("case", EVERY)
def test_however_a_joint_is_held_there_is_an_order_of_work(case):
    plan = planned(*case)
    for kind in kinds_of(plan.assembly):
        ids = [joint.id for joint in kind.all]
        for hold in (hold for hold in kind.joint.ways_to_hold if hold is not kind.joint.hold):
            for held in (ids[:1], ids) if len(ids) > 1 else (ids,):
                now = work_out(actions.hold_all(plan.project, held, hold.value), milling=False, proving=False)
                order = order_of_work(now)
                assert order.tasks and not order.faults, (held, hold)
                assert not list(worked_too_early(order.tasks)), (held, hold)


@pytest.mark.sampled(6)
@pytest.mark.parametrize("case", EVERY)
def test_what_moves_is_glued_to_nothing_that_stays(case):
    plan = planned(*case)
    group_of = {part.id: part.group for part in plan.parts}
    for joint in plan.assembly.joints:
        if group_of[joint.first] == group_of[joint.second]:
            continue
        assert joint.ways_to_hold == (Hold.DRY,)
        glued = actions.hold(plan.project, joint.id, Hold.GLUE.value)
        (same,) = (
            each for each in work_out(glued, milling=False, proving=False).assembly.joints if each.id == joint.id
        )
        assert same.hold is Hold.DRY


def test_a_knob_is_glued_or_screwed_to_a_drawer_though_that_moves():
    drawer = planned("drawer", ())
    front = drawer.part("drawer_front").box
    at = tuple(Length(each) for each in (front.low[0] + 50, front.low[1] - 20, front.low[2] + 20))
    knob = OwnBoard("own1", "knob", (mm(30), mm(30), mm(20)), at, "xy")
    project = actions.add_own(drawer.project, knob)
    project = actions.join_own(project, OwnJoint("ownjoint1", "butt", "drawer_front", "own1"))
    for hold in (Hold.GLUE, Hold.SCREWS):
        now = work_out(actions.hold(project, "drawer_front-own1", hold.value), milling=False, proving=False)
        (joint,) = (each for each in now.assembly.joints if each.second == "own1")
        assert joint.hold is hold and hold in joint.ways_to_hold


@pytest.mark.parametrize(("joint", "slots"), [("let in", True), ("mortise and tenon", False), ("lap", False)])
def test_slots_are_offered_only_where_screws_can_hold(joint, slots):
    """Wood glued across the grain over 150 mm splits; a tenon is not screwed in slots all the same."""
    post = OwnBoard("own1", "post", (mm(400), mm(200), mm(40)), (mm(0), mm(0), mm(0)), "zx")
    rail = OwnBoard("own2", "rail", (mm(300), mm(150), mm(18)), (mm(20), mm(90), mm(100)), "xy")
    piece = Piece("own", own=(post, rail), own_joints=(OwnJoint("ownjoint1", joint, "own1", "own2"),))
    plan = work_out(Project(piece=piece), milling=False)
    crossing = [each.remark for each in plan.findings if isinstance(each.remark.fact, CrossGrain)]
    offered = [fix for remark in crossing for fix in remark.fixes if isinstance(fix, SlotScrews)]
    assert crossing and bool(offered) is slots
    for fix in offered:
        now = action_of(fix, Unit.MM)(plan.project)
        assert not any(isinstance(f.remark.fact, CrossGrain) for f in work_out(now, milling=False).findings)
