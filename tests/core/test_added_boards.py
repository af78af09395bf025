"""A board that is added to a form, and joined to a part: the order of work takes it in, no opening hangs on it."""

import pytest
from tests.told import planned

from nullah.core import actions
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import OwnBoard, offers
from nullah.core.lengths import Length, mm
from nullah.core.piece.space import Axis, Side
from nullah.core.plan import work_out
from nullah.core.wording.operations import operation_words
from nullah.core.work.order_of_work import order_of_work

FORMS_TO_ADD_TO = sorted(FORMS.keys() - {"own"})
LONG, WIDE, THICK = mm(60), mm(20), mm(12)


def cleat_on(part, side, deep, name="cleat"):
    """Return a small board that lies in the middle of a side of a part, or is let in by so many mm."""
    flat = [axis for axis in Axis if axis is not side.axis]
    along = max(flat, key=part.box.size)
    sizes = dict.fromkeys(flat, WIDE) | {along: LONG, side.axis: THICK}
    at = {axis: (part.box.low[axis.value] + part.box.high[axis.value] - sizes[axis].mm) / 2 for axis in flat}
    face = part.box.at(side)
    at[side.axis] = face - deep if side.high else face - THICK.mm + deep
    lie = "xyz"[along.value] + "xyz"[side.axis.value]
    return OwnBoard("own1", name, (LONG, WIDE, THICK), tuple(Length(at[axis]) for axis in Axis), lie)


@pytest.mark.sampled(24)
@pytest.mark.parametrize(("form", "part"), [(f, part.id) for f in FORMS_TO_ADD_TO for part in planned(f, ()).parts])
def test_a_cleat_is_added_to_any_side_of_any_part_by_any_joint_that_is_offered(form, part):
    plan = planned(form, ())
    for side in Side:
        for deep in (0, 5):
            with_cleat = actions.add_own(plan.project, cleat_on(plan.part(part), side, deep))
            placed = work_out(with_cleat, milling=False, proving=False)
            for offer in offers(placed.part(part), placed.part("own1"), "ownjoint1"):
                now = work_out(actions.join_own(with_cleat, offer.joint), milling=False)
                if now.failing:
                    continue
                order, how = order_of_work(now), (side, deep, offer.joint.type, offer.joint.hold)
                assert order.tasks and not order.faults, how
                assert not any("own1" in task.between for task in order.tasks if task.measures), how
                assert all(operation_words([made], now.reader) for task in order.tasks for made in task.operations), how


def test_a_board_without_a_name_is_called_by_its_number():
    """A name may be left out of a file; what is set to such a board was told without a word."""
    shelf = planned("wall shelf", ())
    post = OwnBoard("own1", "", (mm(300), mm(80), mm(30)), (mm(40), mm(60), mm(10)), "zx")
    project = actions.add_own(shelf.project, post)
    assert work_out(project, milling=False, proving=False).part("own1").name == "board 1"
    named = actions.change_own(project, post._replace(name="post"))
    assert work_out(named, milling=False, proving=False).part("own1").name == "post"
