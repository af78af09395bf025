"""What goes to what stands already: housed under it, laid on it, cut to what it was found to be."""

from fractions import Fraction
from itertools import combinations

import manifold3d
import numpy as np
import pytest
from tests.core.test_rehearsal import FORMS_MADE, STEADY, blanks_of, built, contacts_of_plan
from tests.told import each_choice, planned, planned_in_inches

from nullah.core import actions
from nullah.core.apprentice import by_hand
from nullah.core.apprentice.contacts import TOUCHES
from nullah.core.apprentice.levelling import highest_below
from nullah.core.apprentice.made_part import bodies
from nullah.core.apprentice.standing import unmoved
from nullah.core.bench.task_facts import PlaneLevel, TryOn
from nullah.core.bench.tasks import Joining
from nullah.core.bench.trades import Trade
from nullah.core.card import Severity
from nullah.core.ledger import Measured
from nullah.core.lengths import Length, from_float
from nullah.core.operations.marking import Gauge
from nullah.core.operations.mitres import MitreEnd
from nullah.core.operations.regions import HullRegion
from nullah.core.operations.settings import ByMeasure, OfLine
from nullah.core.operations.stock import Surface
from nullah.core.operations.taking import Take
from nullah.core.piece.faults import Shows
from nullah.core.piece.frames import frames_of
from nullah.core.piece.solids import build, flat_faces, recipe
from nullah.core.piece.space import Axis, Side
from nullah.core.plan import work_out
from nullah.core.shop import Hands
from nullah.core.work import rehearsing
from nullah.core.work.order_of_work import order_of_work
from nullah.core.work.rehearsal import OPEN, TOO_TIGHT
from nullah.core.work.rehearsing import rehearse

CORNERS = ("dovetailed", "rabbeted", "mitred")
HOLDERS = [(("corners", corners),) for corners in CORNERS]
EVERY = [(form, chosen) for form in FORMS_MADE for chosen in each_choice(form)]


def ids_of(plan):
    return [task.id for task in order_of_work(plan).tasks]


def gauged(plan, kind=Gauge):
    return [each for task in order_of_work(plan).tasks for each in task.operations if isinstance(each, kind)]


# --- in inches ------------------------------------------------------------------------------------


@pytest.mark.dear
@pytest.mark.sampled(37)
@pytest.mark.parametrize(("form", "chosen"), EVERY)
def test_with_steady_hands_all_joints_close_within_a_mark_in_inches(form, chosen):
    plan = planned_in_inches(form, chosen)
    found = rehearse(plan, STEADY, 1)
    mark = float(plan.marks.smallest.mm)
    wrong = [each for each in found.joints if each.gap > mark + 0.02 or each.tight > TOO_TIGHT]
    assert found.refused == () and wrong == [] and found.goes_together


def _is_film(one, other):
    """Whether two faces that look apart lie in one plane, square to an axis, over some of their area."""
    axis = int(np.argmax(np.abs(one.normal)))
    apart = abs(one.loops[0][0][axis] - other.loops[0][0][axis])
    if np.dot(one.normal, other.normal) > -0.9999 or abs(one.normal[axis]) < 0.9999 or apart > 1e-6:
        return False
    first, second = (
        manifold3d.CrossSection(
            [np.delete(np.array(loop), axis, axis=1) for loop in face.loops], manifold3d.FillRule.EvenOdd
        )
        for face in (one, other)
    )
    return (first ^ second).area() > 1e-3


@pytest.mark.dear
@pytest.mark.sampled(23)
@pytest.mark.parametrize(("form", "chosen"), EVERY)
def test_no_film_stays_where_something_ends_in_a_surface(form, chosen):
    plan = planned_in_inches(form, chosen)
    parts = {part.id: part for part in plan.parts}
    for part in plan.parts:
        faces = flat_faces(build(recipe(part, plan.assembly.joints, parts), 0.0))
        assert not any(_is_film(one, other) for one, other in combinations(faces, 2)), part.id


# --- what is seen ---------------------------------------------------------------------------------


@pytest.mark.parametrize("chosen", HOLDERS)
@pytest.mark.parametrize("begin", [planned, planned_in_inches])
def test_a_seam_beside_what_stands_on_a_board_is_seen(begin, chosen):
    plan = begin("holder", chosen)
    beside = [each for each in contacts_of_plan(plan) if "base" in (each.first, each.second)]
    seen = {each.axis != 2: bool(rehearsing._seen(plan, each)) for each in beside}
    assert seen == {True: True, False: False}, "the wall of a housing is, its floor is not"


# --- measured over --------------------------------------------------------------------------------


@pytest.mark.parametrize("quantity", ["walls.length", "holder.inside_length"])
def test_what_is_over_parts_is_measured_at_its_widest_and_what_is_between_at_its_tightest(quantity):
    plan = planned("holder", HOLDERS[0])
    parts = {part: made for part, made in built(plan).parts.items() if part != "base"}
    box = plan.part("left").box
    face, way = (box.low[0], -1.0) if quantity == "walls.length" else (box.high[0], 1.0)
    # The left end is planed to a slant: nothing at its lower edge, a millimetre at its upper one.
    corners = [(face, 0, box.low[2]), (face, 50, box.low[2]), (face - Fraction(way), 0, box.high[2])]
    parts["left"].planed(np.array(corners, dtype=float), np.array([way, 0.0, 0.0]))
    places = {part: unmoved(made) for part, made in parts.items()}
    inside = plan.part("left").box.set(Axis.X, Fraction(0), plan.part("right").box.high[0]).set(Axis.Y, *_INSIDE)
    found = rehearsing._measured(parts, places, float(plan.ledger[quantity]), [inside])
    assert found == pytest.approx(0.0, abs=0.12)


_INSIDE = (Fraction(20), Fraction(90))


# --- walls on their base --------------------------------------------------------------------------


@pytest.mark.parametrize("chosen", HOLDERS)
def test_walls_are_glued_and_cleaned_before_their_base_is_cut_to_them(chosen):
    names = ids_of(planned("holder", chosen))
    order = ["glue/walls/1", "clean/walls", "measure/walls.length+walls.width", "fit/base", "joint/base-left/1"]
    assert [name for name in names if name in order] == order
    (tried,) = [task for task in order_of_work(planned("holder", chosen)).tasks if isinstance(task.what, TryOn)]
    assert tried.what == TryOn(("base",), ("left", "right", "front", "back"))
    assert max(names.index(f"joint/base-{wall}/2") for wall in ("left", "front")) < names.index(tried.id)
    assert names.index(tried.id) < names.index("glue/piece/1")


@pytest.mark.parametrize("chosen", HOLDERS)
@pytest.mark.parametrize("off", [-0.6, 0.7])
def test_housings_lie_as_far_apart_as_the_walls_came_out(chosen, off):
    plan = planned("holder", chosen)
    project = plan.project
    for name in ("walls.length", "walls.width"):
        found = from_float(float(plan.ledger[name]) + off)
        project = actions.measure(project, name, Measured(found))
    told = {
        each.setting.by.quantity: each
        for each in gauged(work_out(project, milling=False, proving=False))
        if isinstance(each.setting.by, ByMeasure)
    }
    for name, axis in (("walls.length", 0), ("walls.width", 1)):
        apart = told[name].line.at - told[name].base.at
        assert isinstance(told[name].setting.origin, OfLine) and told[name].line.axis == axis
        assert float(apart) == pytest.approx(float(plan.ledger[name]) + off, abs=1e-6)


@pytest.mark.dear
@pytest.mark.sampled(3)
@pytest.mark.parametrize("corners", CORNERS)
@pytest.mark.parametrize("begin", [planned, planned_in_inches])
def test_walls_go_into_their_base_whatever_usual_hands_made_of_them(begin, corners):
    plan = begin("holder", (("corners", corners),))
    built_ones = [rehearse(plan, Hands(), seed) for seed in range(6)]
    assert [each.goes_together for each in built_ones].count(True) >= 5


# --- laid on a frame ------------------------------------------------------------------------------


TABLES = [chosen for form, chosen in EVERY if form == "table"]


@pytest.mark.parametrize("chosen", TABLES)
def test_a_frame_is_planed_level_before_its_top_goes_on_and_before_what_holds_it_is_cut(chosen):
    plan = planned("table", chosen)
    tasks = order_of_work(plan).tasks
    (level,) = [number for number, task in enumerate(tasks) if isinstance(task.what, PlaneLevel)]
    glued = [number for number, task in enumerate(tasks) if task.trade is Trade.GLUE and "leg1" in task.parts]
    on = [number for number, task in enumerate(tasks) if task.trade is Trade.PUT_IN and "top" in task.parts]
    held = [
        number
        for number, task in enumerate(tasks)
        if task.id.startswith("joint/") and task.operations and all("button" in part for part in task.parts)
    ]
    assert max(glued) < level < min((*on, *held))
    assert {"leg1", "leg2", "leg3", "leg4"} <= set(tasks[level].parts)


@pytest.mark.dear
def test_on_a_frame_that_was_planed_level_a_top_lies_all_over():
    plan = planned("table", TABLES[0])
    for seed in range(5):
        found = rehearse(plan, Hands(), seed)
        open_at_top = [each.gap for each in found.joints if "top" in each.parts and "leg" in "".join(each.parts)]
        assert len(open_at_top) == 4 and max(open_at_top) < OPEN


def test_the_plane_that_is_planed_to_takes_off_no_more_than_it_must():
    points = np.random.default_rng(2).uniform(-200, 200, (30, 3))
    points[:, 2] = 70.0
    up = np.array([0.0, 0.0, 1.0])
    lean = 0.3 + points[:, 0] * 1e-3 - points[:, 1] * 2e-3
    assert highest_below(points, up, lean).at(points) == pytest.approx(lean, abs=1e-6)
    rough = lean + np.abs(np.random.default_rng(3).normal(0, 0.2, 30))
    found = highest_below(points, up, rough)
    left = rough - found.at(points)
    assert left.min() > -1e-9 and np.sort(left)[:3] == pytest.approx(0.0, abs=1e-6), "it touches at three points"


# --- tenons ---------------------------------------------------------------------------------------


def test_ends_of_tenons_that_are_mitred_stay_clear_of_each_other():
    plan = planned("table", next(chosen for chosen in TABLES if ("rear", "mitred") in chosen))
    facing = [each for each in contacts_of_plan(plan) if {"left_apron", "back_apron"} == {each.first, each.second}]
    assert facing and all(each.room > TOUCHES for each in facing)
    assert [each.holds for each in gauged(plan, MitreEnd)].count(True) == 0
    assert rehearse(plan, STEADY, 1).goes_together


@pytest.mark.dear
def test_a_tenon_that_touches_the_bottom_is_shortened_until_its_shoulders_close():
    plan = planned("stand", ())
    tried = [join for task in order_of_work(plan).tasks for join in task.joins if join.how is Joining.DRY]
    assert tried
    bottoms = [each for each in rehearsing._shaved(plan, contacts_of_plan(plan)) if each.axis == 0]
    ends = {float(each.points[0][0]) for each in bottoms}
    left, right = plan.part("left").box, plan.part("right").box
    assert len(ends) == 2 and all(left.low[0] < at < left.high[0] or right.low[0] < at < right.high[0] for at in ends)
    seeds = [rehearse(plan, Hands(), seed) for seed in range(12)]
    assert all(each.goes_together for each in seeds)


@pytest.mark.dear
def test_what_goes_in_is_as_long_as_its_own_cut_is_deep_not_as_another_one_beside_it():
    """An upright longer than drawn goes into its dado as far as that is deep, not as the back's rabbet beside it is."""
    chosen = next(each for each in each_choice("case") if ("columns", "3") in each)
    plan = planned_in_inches("case", chosen)
    longer = [float(found.found) - float(found.planned) for found in rehearse(plan, Hands(), 2).measured]
    assert longer[0] > 1.2, "so much longer that the rabbet is nearer to the figure"
    assert all(rehearse(plan, Hands(), seed).goes_together for seed in (2, 5, 10))


def test_a_rail_cut_to_what_was_measured_has_its_shoulders_as_far_apart():
    plan = planned("table", next(chosen for chosen in TABLES if ("drawer", "one") in chosen))
    project = actions.measure(plan.project, "rail.opening", Measured(Length(plan.ledger["rail.opening"] + 1)))
    after = work_out(project, milling=False, proving=False)
    (far,) = [each for each in gauged(after) if isinstance(each.setting.by, ByMeasure)]
    assert far.line.at - far.base.at == plan.ledger["rail.opening"] + 1
    names = ids_of(plan)
    assert names.index("measure/rail.opening") < names.index("joint/upper_rail-leg1/1")


@pytest.mark.dear
@pytest.mark.sampled(19)
@pytest.mark.parametrize(("form", "chosen"), EVERY)
def test_what_is_begun_in_inches_goes_together(form, chosen):
    plan = work_out(planned_in_inches(form, chosen).project, milling=False)
    failing = [each.remark.fact for each in plan.proof.findings if each.remark.weight is Severity.FAILURE]
    if ("grooves", "through") in chosen:
        failing = [fact for fact in failing if not isinstance(fact.fact, Shows)]  # that is what stopping is for
    assert failing == [] and plan.proof.order.trapped == ()


@pytest.mark.parametrize(
    ("form", "chosen"), [("table", (("drawer", "one"),)), ("case", (("drawers", "all"),)), ("box", (("lid", "lift"),))]
)
def test_what_goes_in_and_out_is_planed_where_it_runs(form, chosen):
    plan = planned(form, chosen)
    touching = contacts_of_plan(plan)
    shaved = rehearsing._shaved(plan, touching)
    moving = {part.id for mover in plan.assembly.movers for part in plan.parts if part.group == mover.group}
    beside = [each for each in touching if each.room > 0.0 and len({each.first, each.second} & moving) == 1]
    assert beside and shaved.issuperset(beside)


@pytest.mark.dear
def test_a_drawer_is_planed_until_it_runs_between_guides_that_stand_out():
    plan = planned("table", (("drawer", "one"),))
    found = rehearse(plan, Hands(), 15)
    assert found.goes_together
    assert any("spacer" in each.parts[0] for each in found.joints if set(each.parts) & {"drawer_left", "drawer_right"})


def test_only_what_is_open_near_where_it_is_seen_counts_as_seen():
    # At its back the shelf's end faces the floor of the rabbet, which the back board covers; in front it is seen.
    plan = planned("hanging rack", ())
    (end,) = [each for each in contacts_of_plan(plan) if (each.first, each.second, each.axis) == ("left", "shelf", 0)]
    depth = [point[1] for point in end.points]
    assert {depth[number] for number in rehearsing._seen(plan, end)} == {min(depth)}
    gaps = tuple(0.9 if at == max(depth) else 0.1 for at in depth)
    closed = {each: rehearsing._Closed((0.0,) * len(each.points), 0.0) for each in contacts_of_plan(plan)}
    found = rehearsing._joined(plan, contacts_of_plan(plan), closed | {end: rehearsing._Closed(gaps, 0.0)}, frozenset())
    (joined,) = [each for each in found if each.parts == ("left", "shelf")]
    assert (joined.gap, joined.open_to_view) == (0.9, 0.1)


# --- by hand --------------------------------------------------------------------------------------


@pytest.mark.dear
def test_sockets_come_out_as_traced_whichever_way_the_reference_faces_look():
    # Legs are measured from outside: the sockets of the upper rail are sawn from the other face.
    plan = planned("table", (("drawer", "one"),))
    leg = plan.part("leg1")
    assert frames_of(plan.assembly)["leg1"].surface(Side.LEFT) is Surface.FACE_SIDE and leg.references
    for seed in (1000, 1007, 1019):
        found = [each for each in rehearse(plan, Hands(), seed).joints if "upper_rail" in each.parts]
        assert found and all(each.open_to_view < 1.0 for each in found)


def test_a_face_keeps_what_it_was_told_in_whatever_order_the_faces_come():
    (body,) = bodies(HullRegion(((0, 0, 0), (9, 0, 0), (0, 7, 0), (0, 0, 5), (9, 7, 0), (9, 0, 5))))
    figures = [float(number) for number in range(len(body))]
    told = by_hand._of_same_faces(body[::-1], body, figures)
    ways = {figure: face.normal for figure, face in zip(figures, body, strict=True)}
    assert all(np.allclose(ways[figure], face.normal) for figure, face in zip(told, body[::-1], strict=True))


def test_floors_of_one_depth_are_levelled_by_one_setting_of_the_router_plane():
    plan = planned("wall shelf", (("shelves", "4"),))
    bench = blanks_of(plan)
    bench.hands = Hands(marking=0.0, tracing=0.0, sawing=0.0, planing=0.3, measuring=0.0)
    cut = next(task for task in order_of_work(plan).tasks if any(_is_floor(each) for each in task.operations))
    bench.do(cut.operations)
    floors = [each for each in cut.operations if _is_floor(each) and each.part == "left"]
    places = np.array([[float(sum(span)) / 2 for span in told.places[:2]] for told in floors])
    deep = [float(max(told.places[2])) for told in floors]
    offs = bench.parts["left"].felt(np.column_stack([places, deep]), np.tile((0.0, 0.0, -1.0), (len(floors), 1)))
    assert len(floors) > 2 and np.ptp(offs) < 1e-9 and abs(offs[0]) > 1e-3


def _is_floor(told):
    return isinstance(told, Take) and told.router


def test_ends_left_proud_are_planed_to_the_faces_they_stand_out_of():
    # A holder's base is set off from its walls: their ends stand level with the faces beside them, however they err.
    plan = planned("holder", (("corners", "dovetailed"),))
    for seed in (9, 34, 51):
        assert rehearse(plan, Hands(), 2000 + seed).goes_together


def test_a_housing_is_as_deep_as_the_tail_came_out_though_its_shoulders_are_narrow():
    plan = planned_in_inches("joint", (("joint", "sliding dovetail"),))
    assert all(rehearse(plan, Hands(), seed).goes_together for seed in (1001, 1007, *range(6)))
