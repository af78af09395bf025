"""Pieces built by their order of work alone: feeling, milling, putting together, measuring; and whole builds."""

from dataclasses import replace
from fractions import Fraction

import numpy as np
import pytest
from tests.told import each_choice, operations_of, planned, planned_in_inches

from nullah.core import actions
from nullah.core.apprentice.by_hand import Bench, felt_along
from nullah.core.apprentice.carrying_out import carry_out
from nullah.core.apprentice.contacts import contacts
from nullah.core.apprentice.made_part import MadePart, Wood, bodies, planes_of
from nullah.core.apprentice.standing import stand, unmoved
from nullah.core.bench.trades import Trade
from nullah.core.forms import FORMS
from nullah.core.ledger import Measured
from nullah.core.lengths import Length, Marks, mm
from nullah.core.operations.dovetails import CutPins
from nullah.core.operations.lines import LineKind
from nullah.core.operations.marking import Gauge
from nullah.core.operations.regions import BeyondRegion, BoreRegion, HullRegion, block, prism
from nullah.core.operations.settings import ByMate
from nullah.core.operations.taking import Cut, CutToSize
from nullah.core.piece.frames import frames_of
from nullah.core.piece.solids import recipe
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.shop import Hands
from nullah.core.wording.task_titles import task_title
from nullah.core.work import rehearsing
from nullah.core.work.bench_work import blank_of
from nullah.core.work.order_of_work import order_of_work
from nullah.core.work.rehearsal import OPEN, TOO_TIGHT, Joined, Rehearsal, Skill, hands_of
from nullah.core.work.rehearsing import rehearse
from nullah.core.work.stock_tasks import waits_of

STEADY, USUAL = hands_of(Hands(), Skill.STEADY), Hands()
FORMS_MADE = sorted(FORMS.keys() - {"own"})


def shift(wood, body, face, further):
    """Let a face of what was taken lie further out, mm."""
    planes = wood.taken[body]
    offsets = planes.offsets.copy()
    offsets[face] -= further
    wood.taken[body] = planes._replace(offsets=offsets)


def blanks_of(plan, **thicker):
    """A bench of steady hands with the blanks of a plan, some so much thicker, mm."""
    bench = Bench(STEADY, np.random.default_rng(1))
    for part in plan.parts:
        size = [float(each) for each in blank_of(plan, part)]
        found = [*size[:2], size[2] + thicker.get(part.id, 0.0)]
        bench.parts[part.id] = MadePart(frames_of(plan.assembly)[part.id], size, found)
    return bench


def built(plan):
    """The parts of a plan as steady hands make them."""
    bench = blanks_of(plan)
    for task in order_of_work(plan).tasks:
        if task.trade not in (Trade.SAW, Trade.DRY, Trade.MILL):
            bench.do(task.operations)
    return bench


# --- wood that is felt ----------------------------------------------------------------------------


@pytest.mark.parametrize(
    "region",
    [
        block((10, 40), (5, 15), (0, 6)),
        prism(2, ((10, 5), (40, 5), (30, 20), (20, 20)), 2, 9),
        prism(1, ((2, 10), (9, 10), (9, 40), (6, 25)), 0, 30),
        BeyondRegion((50.0, 0.0, 0.0), (1.0, 0.2, 0.0)),
        HullRegion(((10, 5, 0), (40, 5, 0), (10, 15, 0), (10, 5, 8))),
        BoreRegion(2, (30.0, 15.0), 8.0, 0.0, 12.0),
    ],
)
def test_what_is_taken_is_gone_where_the_solids_say_so(region):
    wood = Wood((60.0, 30.0, 12.0))
    wood.taken += [planes_of(body) for body in bodies(region)]
    from nullah.core.apprentice.carrying_out import region_solid, without
    from nullah.core.piece.solids import block_solid

    blank = block_solid(((0.0, 0.0, 0.0), (60.0, 30.0, 12.0)))
    left = without(blank, region)
    points = np.random.default_rng(3).uniform((0, 0, 0), (60, 30, 12), (4000, 3))
    share = np.mean([wood.there(point) for point in points])
    assert share == pytest.approx(left.volume() / blank.volume(), abs=0.02)
    if not isinstance(region, BeyondRegion):
        inside = region_solid(region)
        for point in points[:150]:
            speck = block_solid((tuple(point - 1e-3), tuple(point + 1e-3)))
            gone = (speck ^ inside).volume() / speck.volume()
            if gone in (0.0, 1.0) or abs(gone - 1) < 1e-6:
                near_round = isinstance(region, BoreRegion) and 3.8 < np.hypot(point[0] - 30, point[1] - 15) < 4.1
                assert near_round or wood.there(point) is (gone < 0.5)


def test_a_surface_is_felt_where_it_is():
    wood = Wood((60.0, 30.0, 12.0))
    wood.taken += [planes_of(body) for body in bodies(block((10, 40), (5, 15), (0, 6)))]
    points = np.array([(25.0, 10.0, 6.5), (25.0, 4.0, 3.0), (25.0, 25.0, 12.3)])
    ways = np.array([(0.0, 0.0, -1.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)])
    assert wood.to_air(points, ways, np.full(3, 2.0)) == pytest.approx([0.5, 1.0, -0.3])
    assert [tuple(each) for each in wood.boundaries(np.array([25.0, 10.0, 0.0]), 2)] == [(6.0, False), (12.0, True)]
    assert [tuple(each) for each in wood.boundaries(np.array([25.0, 0.0, 3.0]), 1)] == [
        (0.0, False), (5.0, True), (15.0, False), (30.0, True),
    ]  # fmt: skip


@pytest.mark.sampled(29)
@pytest.mark.parametrize("chosen", [(form, chosen) for form in FORMS_MADE for chosen in each_choice(form)])
def test_what_steady_hands_make_has_the_volume_of_what_is_carried_out_on_solids(chosen):
    plan = planned(*chosen)
    bench, frames = built(plan), frames_of(plan.assembly)
    chance = np.random.default_rng(5)
    for part in plan.parts[:6]:
        solid = carry_out(frames[part.id].stock, operations_of(plan, part)).solid
        size = np.array([float(each) for each in frames[part.id].stock])
        points = chance.uniform(0, size, (1500, 3))
        share = np.mean([bench.parts[part.id].found.there(point) for point in points])
        assert share == pytest.approx(solid.volume() / float(np.prod(size)), abs=0.05), part.id


# --- hands ----------------------------------------------------------------------------------------


def test_hands_are_so_many_times_those_of_the_shop():
    own = Hands(0.2, 0.05, 0.08, 0.08, 0.1)
    assert hands_of(own, Skill.STEADY) == Hands(0, 0, 0, 0, 0)
    assert hands_of(own, Skill.CAREFUL).marking == 0.1
    assert hands_of(own, Skill.USUAL) == own
    assert hands_of(own, Skill.ROUGH).measuring == pytest.approx(0.25)


@pytest.mark.parametrize("thicker", [-0.6, 0.4])
def test_what_is_set_from_the_mate_follows_the_mate_as_it_came_out(thicker):
    plan = planned("box", (("corners", "dovetailed"),))
    bench = blanks_of(plan, left=thicker)
    told = [each for task in order_of_work(plan).tasks for each in task.operations]
    gauges = [each for each in told if isinstance(each, Gauge) and each.part == "front"]
    baseline = next(each for each in gauges if each.setting.by == ByMate("left"))
    bench.do([baseline])
    drawn = bench._drawn["front", baseline.line.name]
    assert float(drawn.at - baseline.line.at) == pytest.approx(thicker, abs=0.01)


def test_pins_are_traced_from_the_tails_as_they_came_out():
    plan = planned("box", (("corners", "dovetailed"),))
    bench = built(plan)
    traced = next(each for part in plan.parts for each in operations_of(plan, part) if isinstance(each, CutPins))
    key = next(key for key in bench._outlines if key[0] == traced.part and key[2] == traced.outlines[0])
    for told, found in zip(traced.outlines[0], bench._outlines[key], strict=True):
        assert [float(each) for each in found] == pytest.approx([float(each) for each in told], abs=0.02)
    # Hands that err saw other tails, and the pins follow those by no more than tracing is off.
    erring = Bench(Hands(marking=0.5, tracing=0, sawing=0.3, planing=0), np.random.default_rng(2))
    for part in plan.parts:
        size = [float(each) for each in blank_of(plan, part)]
        erring.parts[part.id] = MadePart(frames_of(plan.assembly)[part.id], size, size)
    for task in order_of_work(plan).tasks:
        if task.trade is Trade.JOINT:
            erring.do(task.operations)
    corner = [each for each in contacts_of_plan(plan) if {each.first, each.second} == {"back", "left"}]
    cheeks = [each for each in corner if abs(each.normal[2]) > 0.5]
    assert len(cheeks) > 3
    for each in cheeks:
        first, second = (erring.parts[part] for part in (each.first, each.second))
        points, normal = np.array(each.points), np.array(each.normal)
        ways = np.repeat(normal[None, :], len(points), axis=0)
        room = -(first.stands_out(points, ways) + second.stands_out(points, -ways))
        assert np.nanmax(np.abs(room)) < 0.9, "as far off as both saws are, never as the marking"


def contacts_of_plan(plan):
    parts = {part.id: part for part in plan.parts}
    return contacts({part.id: recipe(part, plan.assembly.joints, parts) for part in plan.parts})


@pytest.mark.parametrize(
    ("form", "chosen", "part", "mate", "kind"),
    [
        ("box", (("lid", "sliding"),), "front", "right", LineKind.WALL),  # the lid runs out over the low end
        ("box", (("lid", "sliding"),), "left", "right", LineKind.WALL),
        ("box", (("lid", "sliding"),), "front", "right", LineKind.BORDER),  # a tail board is wider than the low end
        ("chest", (), "left", "back", LineKind.WALL),  # the lid lies on both
    ],
)
@pytest.mark.parametrize("wider", [-0.7, 0.5])
def test_a_line_that_a_part_comes_level_with_follows_it(form, chosen, part, mate, kind, wider):
    plan = planned(form, chosen)
    frames = frames_of(plan.assembly)
    bench = Bench(STEADY, np.random.default_rng(1))
    for each in plan.parts:
        size = [float(side) for side in blank_of(plan, each)]
        found = [size[0], size[1] + (wider if each.id == mate else 0.0), size[2]]
        bench.parts[each.id] = MadePart(frames[each.id], size, found)
    told = [each for each in operations_of(plan, plan.part(part)) if isinstance(each, Gauge)]
    lines = [each for each in told if each.kind is kind and each.setting.by == ByMate(mate)]
    assert lines
    bench.do(lines)
    for each in lines:
        off = float(bench._drawn[part, each.line.name].at - each.line.at)
        assert off == pytest.approx(-wider if each.setting.origin.high else wider, abs=0.01)


@pytest.mark.sampled(7)
@pytest.mark.parametrize("chosen", [(form, chosen) for form in FORMS_MADE for chosen in each_choice(form)])
def test_a_channel_is_traced_only_from_what_is_as_wide(chosen):
    plan = planned(*chosen)
    frames = frames_of(plan.assembly)
    for part in plan.parts:
        for each in operations_of(plan, part):
            if isinstance(each, Gauge) and each.kind is LineKind.SECOND_WALL and isinstance(each.setting.by, ByMate):
                spans = frames[each.setting.by.part].finished
                assert each.setting.value in [high - low for low, high in spans], each


@pytest.mark.parametrize("thicker", [-0.6, 0.4])
def test_a_housing_is_as_wide_as_the_tail_that_was_traced(thicker):
    plan = planned("joint", (("joint", "sliding dovetail"),))
    bench = blanks_of(plan, other=thicker)
    for task in order_of_work(plan).tasks:
        if task.trade is Trade.JOINT:
            bench.do(task.operations)
    necks = [line for (_, _), line in bench._drawn.items() if line.kind is LineKind.NECK]
    told = plan.part("other").thickness.mm - 2
    assert float(abs(necks[1].at - necks[0].at)) == pytest.approx(float(told) + thicker, abs=0.01)


@pytest.mark.parametrize("longer", [-0.8, 0.0, 0.7])
def test_the_socket_of_a_haunch_is_as_deep_as_the_haunch_came_out(longer):
    plan = planned("joint", (("joint", "haunched tenon"),))
    bench = blanks_of(plan)
    for task in order_of_work(plan).tasks:
        for each in task.operations:
            if task.trade is Trade.JOINT:
                bench.do([each])
                if getattr(each, "cut", None) is Cut.HAUNCH:
                    # The end of what was sawn off lies otherwise: the haunch is so much longer.
                    shift(bench.parts["other"].found, -1, -1, longer)
    told, found = (sides.taken[-1] for sides in (bench.parts["one"].told, bench.parts["one"].found))
    deep = [abs(a - b) for a, b, way in zip(told.offsets, found.offsets, told.normals, strict=True) if way[2] > 0.9]
    assert deep == [pytest.approx(abs(longer), abs=0.01)]


# --- putting together -----------------------------------------------------------------------------


def _shelf_between(longer, thinner=0.0):
    """A wall shelf of through dados with its shelves so much longer and its dados so much shallower; how it stands."""
    plan = planned("wall shelf", (("dados", "through"), ("shelves", "3")))
    bench = built(plan)
    for name in ("shelf1", "shelf2", "shelf3"):
        made = bench.parts[name]
        shift(made.found, 1, 0, longer.get(name, 0.0))
    touching = [each for each in contacts_of_plan(plan) if each.axis == 0 and each.normal[0]]
    ids = {"left", "right", "shelf1", "shelf2", "shelf3"}
    touching = [each for each in touching if {each.first, each.second} <= ids]
    parts = {part: bench.parts[part] for part in sorted(ids)}
    places = {part: unmoved(made) for part, made in parts.items()}
    return touching, stand(parts, touching, [0.0] * len(touching), (), (), places)


def test_what_is_as_long_closes_and_what_is_shorter_leaves_a_gap():
    _, standing = _shelf_between({})
    assert max(map(max, standing.gaps)) == pytest.approx(0.0, abs=1e-6)
    assert max(standing.tight) == pytest.approx(0.0, abs=1e-6)
    # All longer: the ends move out, and all closes again.
    _, standing = _shelf_between({"shelf1": 0.7, "shelf2": 0.7, "shelf3": 0.7})
    assert max(standing.tight) < 1e-6
    assert float(standing.places["right"].pushed[0] - standing.places["left"].pushed[0]) == pytest.approx(0.7, abs=0.05)


def test_what_may_be_shaved_is_shaved_and_what_may_not_pushes_apart():
    touching, pushed = _shelf_between({"shelf2": 0.6})
    shelf = [index for index, each in enumerate(touching) if "shelf2" in (each.first, each.second)]
    assert max(pushed.tight[index] for index in shelf) < 0.01
    assert max(map(max, pushed.gaps)) > 0.3, "the others do not close any more"


# --- measuring ------------------------------------------------------------------------------------


@pytest.mark.dear
@pytest.mark.parametrize("off", [-0.9, 0.8])
def test_an_opening_is_found_as_it_came_out(off, monkeypatch):
    plan = planned("case", ())
    milled = Bench.milled

    def otherwise(self, told, operations):
        found = milled(self, told, operations)
        # Both boards that span the case are longer; what is measured between the sides follows.
        spans = [each.part for each in operations if each.part in ("top", "bottom")]
        return (found[0] + off, *found[1:]) if spans else found

    monkeypatch.setattr(Bench, "milled", otherwise)
    found = {each.quantity: float(each.found - each.planned) for each in rehearse(plan, STEADY, 1).measured}
    assert found["divider.opening"] == pytest.approx(off, abs=0.05)
    assert found["back.opening_width"] == pytest.approx(off, abs=0.05)
    assert found["back.opening_height"] == pytest.approx(0.0, abs=0.05)


@pytest.mark.dear
@pytest.mark.sampled(31)
@pytest.mark.parametrize("chosen", [(form, chosen) for form in FORMS_MADE for chosen in each_choice(form)])
def test_whatever_waits_is_measured(chosen):
    plan = planned(*chosen)
    wanted = {name for names in waits_of(plan).values() for name in names}
    found = rehearse(plan, STEADY, 1)
    assert {each.quantity for each in found.measured} == wanted
    assert all(abs(each.found.mm - each.planned.mm) <= plan.marks.smallest.mm * 2 for each in found.measured)


@pytest.mark.sampled(17)
@pytest.mark.parametrize("begin", [planned, planned_in_inches])
@pytest.mark.parametrize("chosen", [(form, chosen) for form in FORMS_MADE for chosen in each_choice(form)])
def test_nothing_that_is_made_before_an_opening_is_measured_is_told_otherwise_after(begin, chosen):
    plan, done = begin(*chosen), {}
    while (task := next((each for each in order_of_work(plan).tasks if each.id not in done), None)) is not None:
        done[task.id] = task
        if task.trade is Trade.MEASURE:
            project = plan.project
            for name in task.measures:
                project = actions.measure(project, name, Measured(Length(plan.ledger[name] - Fraction(9, 10))))
            plan = work_out(project, milling=False, proving=False)
            assert list(rehearsing._changed(order_of_work(plan).tasks, done)) == [], task.id


# --- whole builds ---------------------------------------------------------------------------------


@pytest.mark.dear
@pytest.mark.sampled(31)
@pytest.mark.parametrize("chosen", [(form, chosen) for form in FORMS_MADE for chosen in each_choice(form)])
def test_with_steady_hands_all_joints_close_within_a_mark(chosen):
    plan = planned(*chosen)
    found = rehearse(plan, STEADY, 1)
    mark = float(plan.marks.smallest.mm)
    assert found.refused == ()
    wrong = [each for each in found.joints if each.gap > mark + 0.02 or each.tight > TOO_TIGHT]
    assert wrong == [] and found.goes_together


@pytest.mark.dear
@pytest.mark.parametrize("form", ["drawer", "hanging rack", "stand"])
def test_hands_err_as_often_as_their_seed_says(form):
    plan = planned(form, ())
    one, same, other = (rehearse(plan, USUAL, seed) for seed in (1, 1, 2))
    assert one == same
    assert one != other


@pytest.mark.dear
@pytest.mark.sampled(3)
@pytest.mark.parametrize(
    ("form", "chosen"),
    [
        ("box", (("lid", "sliding"),)),
        ("case", (("columns", "4"),)),
        ("chest", ()),
        ("drawer", ()),
        ("hanging rack", ()),
        ("holder", ()),
        ("stand", ()),
        ("table", ()),
        ("tray", ()),
        ("tray", (("ends", "dovetailed"),)),
    ],
)
def test_with_usual_hands_pieces_go_together(form, chosen):
    plan = planned(form, chosen)
    assert [rehearse(plan, USUAL, seed).goes_together for seed in range(2)] == [True] * 2


@pytest.mark.dear
def test_with_rough_hands_fewer_go_together_than_with_careful_ones():
    plan = planned("stand", ())
    rough, careful = (
        sum(rehearse(plan, hands_of(Hands(), skill), seed).goes_together for seed in range(8))
        for skill in (Skill.ROUGH, Skill.CAREFUL)
    )
    assert rough < careful == 8


@pytest.mark.dear
def test_from_the_drawing_nothing_is_measured_and_less_goes_together():
    plan = planned("wall shelf", ())
    drawn = [rehearse(plan, USUAL, seed, measured=False) for seed in range(12)]
    assert all(each.measured == () for each in drawn)
    measured = [rehearse(plan, USUAL, seed) for seed in range(12)]
    assert sum(each.goes_together for each in drawn) < sum(each.goes_together for each in measured)


def test_a_part_is_tried_when_it_is_notched_at_both_ends():
    plan = planned("case", (("columns", "2"),))
    tasks = order_of_work(plan).tasks
    names = [task_title(task, plan.reader) for task in tasks]
    for pair in ("1 and 3", "2 and 4"):
        notched = max(number for number, name in enumerate(names) if name == f"Stopped dado: cut divider {pair}")
        assert notched < min(number for number, name in enumerate(names) if f": try divider {pair}" in name)


def _wrongly_told(plan, wrong):
    """An order of work in which a figure of one operation is told wrongly."""
    true = order_of_work(plan)

    def told(now):
        order = order_of_work(now)
        tasks = tuple(task._replace(operations=tuple(map(wrong, task.operations))) for task in order.tasks)
        return order._replace(tasks=tasks)

    assert told(plan).tasks != true.tasks
    return told


@pytest.mark.dear
@pytest.mark.parametrize(("form", "part", "sort"), [("case", "divider11", CutToSize), ("wall shelf", "left", Gauge)])
def test_a_figure_that_is_told_wrongly_is_built_wrongly(form, part, sort, monkeypatch):
    plan = planned(form, ())
    assert rehearse(plan, STEADY, 1).goes_together

    def wrong(each):
        if each.part != part or not isinstance(each, sort):
            return each
        return replace(each, setting=each.setting._replace(value=each.setting.value - 2))

    monkeypatch.setattr(rehearsing, "order_of_work", _wrongly_told(plan, wrong))
    assert not rehearse(plan, STEADY, 1).goes_together


def test_what_goes_together_is_decided_just_at_its_limits():
    def found(gap, tight, seen):
        return Rehearsal((Joined(("a", "b"), gap, tight, seen),), ()).goes_together

    assert found(3.0, TOO_TIGHT, OPEN)
    assert not found(0.0, TOO_TIGHT + 0.001, 0.0)
    assert not found(OPEN + 0.001, 0.0, OPEN + 0.001)
    assert (TOO_TIGHT, OPEN) == (0.15, 0.5), "as the contract has it"


def test_felt_along_gives_places_of_the_piece():
    plan = planned("box", ())
    bench = built(plan)
    left = plan.part("left")
    place = np.array([float(left.box.low[0]), float(left.box.low[1] + left.box.high[1]) / 2, 60.0])
    met = felt_along(bench.parts["left"], place, 0)
    low, high = sorted(met)
    assert [low.at, high.at] == pytest.approx([float(left.box.low[0]), float(left.box.high[0])])
    assert [low.off, high.off] == pytest.approx([0.0, 0.0])
    assert (low.ends, high.ends) == (False, True)


@pytest.mark.sampled(3)
@pytest.mark.parametrize(
    ("form", "chosen"),
    [
        ("joint", (("joint", "tongue"),)),
        ("joint", (("joint", "haunched tenon"),)),
        ("joint", (("joint", "breadboard end"),)),
        ("joint", (("joint", "sliding dovetail"),)),
        ("wall shelf", (("shelves", "4"),)),
        ("drawer", (("bottom", "slips"),)),
    ],
)
def test_what_is_set_to_its_mate_and_steadied_goes_together(form, chosen):
    """A tongue is as thick and as long as its groove lies; sides stay parallel by shelves that are glued later."""
    plan = planned(form, chosen)
    assert sum(rehearse(plan, USUAL, seed).goes_together for seed in range(8)) >= 7


def test_what_a_mate_sets_from_either_face_is_measured_from_that_face():
    """The two cheeks of a tongue: a groove off the middle lies otherwise from the one face than from the other."""
    plan = planned("joint", (("joint", "tongue"),))
    for seed in range(8):
        found = rehearse(plan, USUAL, seed)
        assert all(each.gap < 0.5 for each in found.joints), seed


@pytest.mark.dear
def test_equal_parts_are_cut_to_the_largest_of_their_openings_and_shot_to_their_own():
    plan = planned("case", (("dados", "shouldered"),))
    assert all(rehearse(plan, USUAL, seed).goes_together for seed in (3, 4, 5, 6))


def test_each_column_is_measured_by_itself_though_the_next_one_is_planned_as_wide():
    """Set out to whole millimetres the upright stands half of one off the middle, as the dados are told."""
    sizes = (("case.outside_width", mm(510)), ("case.outside_depth", mm(260)), ("case.outside_height", mm(480)))
    piece = Piece("case", "case", (("columns", "2"), ("corners", "rabbeted"), ("rows", "2")), sizes)
    plan = work_out(Project(piece=piece, marks=Marks().with_smallest(Fraction(1))), milling=False)
    assert plan.ledger["divider.opening"] == plan.ledger["divider2.opening"] == Fraction(479, 2)
    found = {each.quantity: float(each.found) for each in rehearse(plan, STEADY, 1, True).measured}
    assert found["divider.opening"] + found["divider2.opening"] == pytest.approx(479, abs=0.5)
    assert abs(found["divider.opening"] - found["divider2.opening"]) == pytest.approx(1, abs=0.5)
