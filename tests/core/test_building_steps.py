"""Steps of building a piece: what they looked at decides whether they are taken again, and nothing else."""

import pytest
from tests.told import each_choice

from nullah.core.actions import give
from nullah.core.forms import FORMS
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.fraction import Fraction
from nullah.core.identity import let_go
from nullah.core.joints.let_in import LET_IN
from nullah.core.ledger import QuantityKind, work_out_ledger
from nullah.core.lengths import Length, mm
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project

DEFINITIONS = (
    *board_sizes("side", "the side", "300", "200", 20),
    *board_sizes("lid", "the lid", "400", "100", 15),
    *board_sizes("foot", "the foot", "80", "60", 18),
)
BUILT = []


def ledger(**given):
    return work_out_ledger(DEFINITIONS, {name.replace("_", "."): mm(value) for name, value in given.items()}, {})


def put_side(m):
    m.board("side", "side", "side", (0, 0, 0), "xz")


def put_lid(m, above):
    BUILT.append("lid")
    m.board("lid", "lid", "lid", (0, 0, above), "xz")
    if m.has("side") and m.part("side").box.size(m.part("side").face) > 30:
        m.let_in("side", "lid")


@pytest.fixture(autouse=True)
def _nothing_built():
    let_go()
    BUILT.clear()


def built(sizes, *, first=put_side, above=Fraction(50)):
    m = Maker(sizes)
    if first is not None:
        first(m)
    m.step(put_lid, above)
    return m.finish()


def test_a_step_is_not_taken_again_where_nothing_changed_that_it_looked_at():
    one, other = built(ledger()), built(ledger(foot_width=61))
    assert BUILT == ["lid"] and one.parts[1] is other.parts[1]
    assert other == one


@pytest.mark.parametrize(
    ("other", "thickness", "joints"),
    [
        (lambda: built(ledger(lid_thickness=16)), 16, 0),
        (lambda: built(ledger(side_thickness=31)), 15, 1),
        (lambda: built(ledger(), above=Fraction(51)), 15, 0),
        (lambda: built(ledger(), first=None), 15, 0),
        (lambda: built(ledger(), first=lambda m: [put_side(m), m.board("leg", "leg", "side", (0, 0, 0), "xz")]), 15, 0),
    ],
    ids=["a size", "a part that was there", "what is given", "no part before", "another number"],
)
def test_a_step_is_taken_again_where_something_changed_that_it_looked_at(other, thickness, joints):
    built(ledger())
    after = other()
    assert BUILT == ["lid", "lid"]
    assert after.parts[-1].thickness == mm(thickness) and len(after.joints) == joints
    assert [part.number for part in after.parts] == list(range(1, len(after.parts) + 1))
    assert all(joint.type is LET_IN for joint in after.joints)


def test_a_step_that_goes_through_all_quantities_is_always_taken():
    def count(m):
        BUILT.append(len(m.ledger.quantities))
        m.remark(BUILT[-1])

    for _ in range(2):
        m = Maker(ledger())
        m.step(count)
    assert [len(DEFINITIONS)] * 2 == BUILT


def test_a_step_that_leaves_nothing_says_so_every_time():
    for _ in range(2):
        assert built(ledger(lid_width=0)).remarks and not built(ledger(lid_width=0)).parts
    assert len(built(ledger()).parts) == 2


def test_a_step_that_shapes_a_part_that_was_there_shapes_it_every_time():
    def shaped(m, shaping):
        m.shape("side", shaping)

    for _ in range(2):
        m = Maker(ledger())
        put_side(m)
        m.step(shaped, "rounded")
        assert m.part("side").shapings == ("rounded",)


@pytest.mark.sampled(40)
@pytest.mark.parametrize(
    ("form", "chosen"), [(form, chosen) for form in sorted(FORMS.keys() - {"own"}) for chosen in each_choice(form)]
)
def test_every_form_is_built_after_a_change_as_from_nothing(form, chosen):
    project = Project(Piece(form, form, choices=chosen))
    plan = work_out(project, milling=False, proving=False)
    sizes = [name for name, each in plan.ledger.quantities.items() if each.definition.kind is QuantityKind.LENGTH]
    for name in sizes[:: max(1, len(sizes) // 5)]:
        changed = give(project, name, Length(plan.ledger[name] + 1))
        after = work_out(changed, milling=False, proving=False)
        let_go()
        anew = work_out(changed, milling=False, proving=False)
        assert (after.ledger, after.unfastened, after.rough) == (anew.ledger, anew.unfastened, anew.rough), name
        assert repr(after.unfastened.parts) == repr(anew.unfastened.parts)
        work_out(project, milling=False, proving=False)
