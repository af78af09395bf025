"""What is measured changes what is cut to it, and nothing else: not the order of work, not whether the piece proves."""

import pytest
from tests.early import worked_too_early
from tests.told import each_choice, planned

from nullah.core import actions
from nullah.core.card import Severity
from nullah.core.forms import FORMS
from nullah.core.ledger import Measured
from nullah.core.lengths import from_float, mm
from nullah.core.operations.taking import CutToSize
from nullah.core.plan import prove_plan, work_out
from nullah.core.project import Piece, Project
from nullah.core.work.order_of_work import order_of_work

TRIED = [(form, chosen) for form in sorted(FORMS.keys() - {"own", "joint"}) for chosen in each_choice(form)]


def failing(plan):
    return [each.remark.fact for each in prove_plan(plan).findings if each.remark.weight is Severity.FAILURE]


@pytest.mark.dear
@pytest.mark.sampled(31)
@pytest.mark.parametrize("chosen", TRIED)
@pytest.mark.parametrize("off", [0.6, -0.6])
def test_a_measurement_changes_neither_the_order_nor_whether_it_proves(chosen, off):
    plan = planned(*chosen)
    before = order_of_work(plan).tasks
    project = plan.project
    names = [name for task in before for name in task.measures]
    for number, name in enumerate(names):
        found = from_float(float(plan.ledger[name]) + (off if number % 2 else -off))
        project = actions.measure(project, name, Measured(found))
    after = work_out(project, milling=False, proving=False)
    told = order_of_work(after)
    assert [task.id for task in told.tasks] == [task.id for task in before]
    assert [task.between for task in told.tasks] == [task.between for task in before]
    assert [task.joins for task in told.tasks] == [task.joins for task in before]
    assert told.faults == ()
    assert len(failing(after)) <= len(failing(plan))


@pytest.mark.parametrize(("off", "trusted"), [("5", True), ("5.1", False)])
def test_a_measurement_is_trusted_as_far_as_wood_comes_out_otherwise(off, trusted):
    plan = planned("case", (("drawers", "all"),))
    project = actions.measure(plan.project, "divider.opening", mm(float(plan.ledger["divider.opening"]) - float(off)))
    after = work_out(project, milling=False, proving=False)
    assert (after.as_designed is not None) is trusted
    assert bool(failing(after)) is not trusted


def test_what_is_measured_of_what_other_things_enter_is_proved_as_it_is():
    plan = planned("case", ())
    project = actions.measure(plan.project, "dado.width", mm(float(plan.ledger["dado.width"]) - 1))
    assert failing(work_out(project, milling=False, proving=False)), "a dado that was cut too narrow is"


def test_boards_that_wait_only_for_their_length_have_their_width_at_once():
    plan = planned("wall shelf", ())
    rail = plan.part("rail")
    assert plan.ledger.waits_for(rail.quantities[0]) == ("rail.opening",)
    assert plan.ledger.waits_for(rail.quantities[1]) == ()
    project = Project(piece=Piece("wall shelf", "shelf"))
    told = [each for task in order_of_work(work_out(project, proving=False)).tasks for each in task.operations]
    cut = [each for each in told if each.part == "rail" and type(each).__name__ == "CutToSize"]
    assert [each.setting.quantity for each in cut] == [rail.quantities[0]]


@pytest.mark.parametrize("chosen", TRIED)
def test_what_is_told_to_be_shaved_until_it_goes_in_lies_in_or_on_what_is_there(chosen):
    plan = planned(*chosen)
    moving = {mover.group for mover in plan.assembly.movers}
    for made in (each for task in order_of_work(plan).tasks for each in task.operations):
        part = plan.part(made.part)
        if not isinstance(made, CutToSize) or part.group in moving:
            continue
        flat = [axis.value for axis in (part.grain, part.across)]
        own = [joint for joint in plan.assembly.joints if part.id in (joint.first, joint.second)]
        if any(joint.type.id == "dovetail" for joint in own):
            # Its length has the tails in it.
            assert not made.goes_in, part.id
            continue
        entering = [joint.first for joint in own if joint.second == part.id]
        inside = [plan.part(joint.second).box for joint in own if joint.first == part.id]
        past = [
            part.box.low[axis] < box.low[axis] and box.high[axis] < part.box.high[axis]
            for box in inside
            for axis in flat
        ]
        encloses = bool(past) and all(past)
        assert made.goes_in == (bool(entering) or not encloses), (part.id, made.goes_in)


@pytest.mark.dear
@pytest.mark.parametrize(
    ("form", "chosen", "given"),
    [
        *((*each, ()) for each in TRIED),
        # Slips so thin that they have no groove of the bottom's, and a back so thick that the bottom is nailed to it.
        ("drawer", (("bottom", "slips"),), (("slip.thickness", mm("7.5")),)),
        ("case", (), (("back.thickness", mm(12)),)),
    ],
    ids=str,
)
def test_nothing_is_worked_at_an_end_or_edge_that_is_still_to_be_cut_to_fit(form, chosen, given):
    assert not list(worked_too_early(order_of_work(planned(form, chosen, given)).tasks))
