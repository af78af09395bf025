"""The order of work: derived, sound in any piece, glue-ups sized to the glue; and what the checks find."""

import random
from collections import Counter
from dataclasses import replace
from datetime import datetime
from fractions import Fraction

import pytest
from tests.told import each_choice
from tests.told import planned as made

from nullah.core import actions
from nullah.core.bench.rates import Learned
from nullah.core.bench.task_facts import (
    CutToMeasure,
    CutUnmeasured,
    FindWood,
    GlueUp,
    JointDone,
    LineNotDrawn,
    LineTakenOff,
    MakeJoint,
    MeasureSizes,
    PlaneInside,
    SawBoard,
    WorkedWhenGlued,
)
from nullah.core.bench.tasks import Join, Joining, JointStep, LayoutLine, OrderError, Task, faults, in_order
from nullah.core.bench.trades import Trade
from nullah.core.forms import FORMS
from nullah.core.joints.kinds import kinds_of
from nullah.core.ledger import Measured
from nullah.core.lengths import Length, mm
from nullah.core.operations.fastening import Bore
from nullah.core.operations.lines import LineKind
from nullah.core.operations.marking import Gauge
from nullah.core.operations.settings import ByMate
from nullah.core.operations.stock import Surface
from nullah.core.piece.joint import Hold
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.rack.board import Reading
from nullah.core.reader import Reader
from nullah.core.stations.next_step import task_card
from nullah.core.wording.facts import error_words
from nullah.core.wording.operations import alike_operations
from nullah.core.wording.shop_list import shop_list_words
from nullah.core.wording.task_titles import task_title, task_words
from nullah.core.wording.tasks import measuring_steps
from nullah.core.wording.tools import where_words
from nullah.core.work.assembling import sequence
from nullah.core.work.bench_work import measured_for
from nullah.core.work.day_book import standing, task_minutes
from nullah.core.work.joint_work import kinds_by_host
from nullah.core.work.order_of_work import derive, order_of_work
from nullah.core.work.shop_list import RagsNeeded, shop_list
from nullah.demo.seed_cabinet import seed_cabinet, short_of_wood


def planned(project):
    return work_out(project, milling=False, proving=False)


@pytest.fixture(scope="module")
def cabinet():
    return planned(seed_cabinet())


@pytest.fixture(scope="module")
def order(cabinet):
    return order_of_work(cabinet)


CUT, GLUED = SawBoard("1", 2), GlueUp(("side",), 1, 1, False)
GAUGED, CHOPPED = (MakeJoint("dado", done, ("side",), ()) for done in (JointDone.GAUGED, JointDone.CUT))
PLANED, FITTED = PlaneInside(("side",)), CutToMeasure(("bottom",))


def place(order, start):
    return next(number for number, task in enumerate(order.tasks) if task.id.startswith(start))


# --- the graph ----------------------------------------------------------------------------------------------------


def test_a_circle_and_what_is_not_there_are_refused_with_their_names():
    with pytest.raises(OrderError) as circle:
        in_order((Task("a", CUT, Trade.SAW, (), ("b",)), Task("b", GLUED, Trade.GLUE, (), ("a",))))
    assert error_words(circle.value) == (
        "These wait for each other in a circle: Saw 1 apart: 2 cuts; Glue up side: 1 joint, 1 clamp."
    )
    with pytest.raises(OrderError) as nothing:
        in_order((Task("a", CUT, Trade.SAW, (), ("x",)),))
    assert error_words(nothing.value) == "Something comes after what is not there: x."


def test_a_line_planed_away_before_its_last_use_is_found():
    line = LayoutLine("side", "baseline")
    gauge = Task("g", GAUGED, Trade.JOINT, ("side",), draws=(line,))
    plane = Task("p", PLANED, Trade.SMOOTH, ("side",), removes=(("side", "face"),))
    chop = Task("c", CHOPPED, Trade.JOINT, ("side",), uses=(line,))
    assert faults((gauge, chop, plane)) == ()
    assert faults((gauge, plane, chop)) == (LineTakenOff(CHOPPED, "baseline", PLANED),)
    assert faults((chop,)) == (LineNotDrawn(CHOPPED, "baseline"),)


def test_a_line_on_another_surface_survives():
    line = LayoutLine("side", "tail lines", "end")
    gauge = Task("g", GAUGED, Trade.JOINT, ("side",), draws=(line,))
    plane = Task("p", PLANED, Trade.SMOOTH, ("side",), removes=(("side", "face"),))
    assert faults((gauge, plane, Task("c", CHOPPED, Trade.JOINT, ("side",), uses=(line,)))) == ()


def test_what_is_cut_to_fit_before_it_is_measured_is_found():
    cut = Task("c", FITTED, Trade.FIT, ("bottom",), fits=("opening.length",))
    measure = Task("m", MeasureSizes(("opening.length",)), Trade.MEASURE, ("front",), measures=("opening.length",))
    assert faults((measure, cut)) == ()
    assert faults((cut, measure)) == (CutUnmeasured(FITTED, "opening.length"),)
    assert faults((cut,), measured=("opening.length",)) == ()


def test_what_is_glued_and_must_still_be_planed_is_found():
    glue = Task("g", GLUED, Trade.GLUE, ("front", "side"))
    plane = Task("p", PLANED, Trade.MILL, ("side",))
    assert faults((plane, glue)) == ()
    assert faults((glue, plane)) == (WorkedWhenGlued(PLANED, GLUED, "side"),)


# --- derived --------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize("form", [form for form in FORMS if form != "own"])
def test_every_form_has_a_sound_order_of_work(form):
    found = order_of_work(planned(Project(piece=Piece(form, form))))
    assert len(found.tasks) > 10 and found.faults == ()
    assert len({task.id for task in found.tasks}) == len(found.tasks)


@pytest.mark.sampled(7)
@pytest.mark.parametrize(
    ("choice", "option"), [(each.name, value) for each in FORMS["case"].choices for value, _ in each.options]
)
def test_every_choice_of_the_case_has_a_sound_order_with_drawers(choice, option):
    project = Project(piece=Piece("case", "x", choices=((choice, option), ("drawers", "all"))))
    assert order_of_work(planned(project)).faults == ()


def test_the_cabinet_is_made_as_a_woodworker_would(order):
    assert order.faults == ()
    # Sawn before milled, dado before the case is glued; the dividers, which slide in from behind, are cut to it then.
    assert place(order, "saw/1") < place(order, "mill/sides") < place(order, "joint/left-top/1")
    assert place(order, "joint/left-divider11/2") < place(order, "smooth/piece") < place(order, "glue/piece/1")
    assert place(order, "glue/piece/1") < place(order, "measure/divider.opening") < place(order, "fit/divider")
    # What is notched at its ends is cut to length first.
    assert place(order, "fit/divider") < place(order, "joint/left-divider11/3")
    assert place(order, "fit/divider") < place(order, "smooth/piece/later") < place(order, "glue/piece/2")
    assert place(order, "glue/piece/2") < place(order, "fit/drawer11") < place(order, "glue/drawer11/1")
    assert place(order, "clean/drawer11") < place(order, "finish/1")
    # What stood wetter than the room is let dry after it is sawn oversize, and milled then.
    dry = order.task("dry/4")
    assert dry.after == ("saw/4",) and dry.waits >= 24 and not dry.work
    assert "dry/4" in order.task("mill/drawer11_front").after


def test_every_task_is_sound_in_whatever_order_it_may_be_done(order):
    """Not only the order shown: any that keeps to what comes after what is without fault."""
    for number in range(6):
        shuffled = list(order.tasks)
        random.Random(number).shuffle(shuffled)
        assert faults(in_order(shuffled)) == ()


FRAMED = (("columns", "2"), ("dividers", "frame"), ("drawers", "all"), ("rows", "3"))


def test_equal_frames_go_in_together_those_of_one_opening_before_the_next():
    plan = made("case", FRAMED)
    order = order_of_work(plan)
    frames = {unit.name: set(unit.parts) for unit in plan.assembly.units}
    added = [
        {name for name, parts in frames.items() if parts <= set(each.adds)} for each in order.gluings if not each.unit
    ]
    assert [names for names in added if names] == [{"divider 1", "divider 3"}, {"divider 2", "divider 4"}]
    # What is cut to the second opening is not needed for the first.
    assert place(order, "glue/piece/3") < place(order, "fit/rail2") or place(order, "fit/rail") < place(
        order, "fit/rail2"
    )


@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", sorted(FORMS.keys() - {"own"}))
def test_what_lies_loose_goes_into_a_frame_at_one_go_and_a_drawer_is_cut_to_fit_at_one_go(form):
    for chosen in each_choice(form):
        plan = made(form, chosen)
        order = order_of_work(plan)
        loose = Counter(each.unit for each in order.gluings if each.unit and not each.glues)
        assert not loose or max(loose.values()) == 1
        cut = Counter(task.what.mover for task in order.tasks if task.trade is Trade.FIT and task.what.mover)
        assert all(number == 1 for number in cut.values())


def test_equal_drawers_are_cleaned_inside_together_and_glued_up_each_by_itself():
    plan = made("case", FRAMED)
    order = order_of_work(plan)
    fronts = {f"drawer{row}{column}_front" for row in (1, 2, 3) for column in (1, 2)}
    (smooth,) = [task for task in order.tasks if task.trade is Trade.SMOOTH and set(task.parts) & fronts]
    assert fronts <= set(smooth.parts) and "left side, back, and right side of drawer 1 to 6" in task_title(
        smooth, plan.reader
    )
    glued = [task for task in order.tasks if task.trade is Trade.GLUE and set(task.parts) & fronts]
    assert len(glued) == 6 and all(len(set(task.parts) & fronts) == 1 for task in glued)


def test_the_backs_boards_go_in_after_glue_and_their_opening_is_measured_then(order):
    measure = next(task for task in order.tasks if "back.opening_width" in task.measures)
    assert "glue/piece/2" in measure.after
    back = [task for task in order.tasks if task.trade is Trade.PUT_IN and "back1" in task.parts]
    assert back and back[0].what.holds == (Hold.NAILS,)


def test_a_board_wetter_than_thought_makes_its_parts_wait():
    project = actions.read_moisture(seed_cabinet(), "1", Reading("2026-11-20", Fraction(14)))
    found = order_of_work(planned(project))
    assert found.task("dry/1") is not None and found.task("dry/1").waits > 0
    assert "dry/1" in found.task("mill/sides").after and found.faults == ()


def test_parts_without_wood_are_told_first_and_staves_are_glued_before_they_are_milled():
    bare = order_of_work(planned(Project(piece=Piece("box"))))
    assert bare.tasks[0].id == "wood" and isinstance(bare.tasks[0].what, FindWood)
    staves = order_of_work(planned(short_of_wood()))
    assert staves.faults == () and place(staves, "staves/top") < place(staves, "mill/top")


def test_what_was_sawn_needs_no_sawing():
    project = seed_cabinet()
    sawn = actions.change_board(project, replace(project.board("1"), sawn=True))
    assert order_of_work(planned(sawn)).task("saw/1") is None


# --- putting together -----------------------------------------------------------------------------------------------


def test_parts_go_together_one_side_first_and_what_is_not_glued_last(cabinet):
    order = [each.parts for each in sequence(cabinet.assembly, "")]
    assert order[0] == ("left",) and order[-3:] == [("back1",), ("back2",), ("back3",)]
    # Dividers slide in from behind, through the rabbet of the back, when the case stands.
    assert order.index(("right",)) < order.index(("divider11",)) < len(order) - 3
    drawer = [each.parts for each in sequence(cabinet.assembly, "drawer11")]
    assert drawer[-1] == ("drawer11_bottom",), "it slides in under the back"


@pytest.mark.parametrize("form", [form for form in FORMS if form != "own"])
def test_every_part_goes_in_once(form):
    plan = planned(Project(piece=Piece(form, form)))
    for group in {part.group for part in plan.parts}:
        parts = [part for each in sequence(plan.assembly, group) for part in each.parts]
        assert sorted(parts) == sorted(part.id for part in plan.parts if part.group == group)


@pytest.mark.parametrize(
    ("form", "choices", "words"),
    [
        ("chest", (), "Try lid on: "),
        ("box", (("lid", "lift"),), "Try lid on: "),
        ("table", (("drawer", "one"),), "Fit drawer in its opening"),
    ],
)
def test_what_lies_on_top_has_no_opening_to_be_fitted_in(form, choices, words):
    plan = planned(Project(piece=Piece(form, form, choices=choices)))
    titles = [task_title(task, plan.reader) for task in order_of_work(plan).tasks if task.trade is Trade.CLEAN]
    assert any(title.startswith(words) for title in titles)
    assert not words.startswith("Try") or not any("in its opening" in title for title in titles)


@pytest.mark.parametrize("columns", ["2", "3"])
def test_a_framed_case_of_several_columns_has_an_order(columns):
    choices = (("columns", columns), ("dividers", "frame"))
    order = order_of_work(planned(Project(piece=Piece("case", "case", choices=choices))))
    assert order.tasks and order.faults == ()


@pytest.mark.dear
@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", [form for form in FORMS if form != "own"])
def test_what_is_measured_between_parts_stands_together_before(form):
    """Trade practice (no published source): an opening is measured when all that bounds it stands."""
    for chosen in each_choice(form):
        standing = []
        for task in order_of_work(planned(Project(piece=Piece(form, form, choices=chosen)))).tasks:
            if task.measures and len(task.between) > 1:
                assert any(set(task.between) <= each for each in standing), (chosen, task.what)
            for join in task.joins:
                if join.how is Joining.STARTED:
                    continue
                together = set(join.parts).union(*(each for each in standing if each & set(join.parts)))
                standing = [each for each in standing if not each & together] + [together]


@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", sorted(FORMS.keys() - {"own"}))
def test_what_makes_an_opening_is_cut_before_what_goes_into_it_is_cut_to_fit(form):
    """Trade practice (no published source): nothing is tried in a groove that is not there yet."""
    for chosen in each_choice(form):
        plan = made(form, chosen)
        tasks = order_of_work(plan).tasks
        for number, task in enumerate(tasks):
            if task.trade is not Trade.FIT:
                continue
            for part in map(plan.part, task.parts):
                waits = zip((part.grain, part.across), measured_for(plan.ledger, part), strict=True)
                along = {axis for axis, names in waits if names}
                entered = {
                    (kind.id, joint.first)
                    for kind in kinds_of(plan.assembly)
                    for joint in kind.all
                    if joint.second == part.id and not kind.corner_prefix and plan.part(joint.first).face in along
                }
                later = [
                    each
                    for after in tasks[number:]
                    for each in after.operations
                    if isinstance(after.subject, JointStep)
                    and (after.subject.kind, each.part) in entered
                    and each.takes
                    and not isinstance(each, Bore)
                ]
                assert not later, (chosen, task.id, later[0])


@pytest.mark.parametrize("bottom", ["grooved", "slips"])
def test_a_bottom_is_cut_to_its_drawer_when_that_is_glued(bottom):
    plan = made("drawer", (("bottom", bottom),))
    order = order_of_work(plan)
    measure = next(task for task in order.tasks if task.measures == ("drawer_bottom.opening",))
    assert {"drawer_front", "drawer_left", "drawer_right"} <= set(measure.between)
    assert "glue/drawer/1" in measure.after
    parts = next(task.parts for task in order.tasks if task.id == "fit/drawer")
    assert set(parts) == {"drawer_front", "drawer_left", "drawer_right", "drawer_back"}
    into = next(each.id for each in order.gluings if "drawer_bottom" in each.adds)
    assert place(order, measure.id) < place(order, "fit/drawer_bottom") < place(order, into)
    # Measured 2 mm wider, the bottom is cut 2 mm longer, and nothing else changes.
    wider = give_measured(plan, "drawer_bottom.opening", 2)
    changed = {part.id for part in plan.parts if wider.part(part.id).cut_length != part.cut_length}
    assert changed == {"drawer_bottom"}
    assert wider.part("drawer_bottom").length.mm == plan.part("drawer_bottom").length.mm + 2


def give_measured(plan, name, more):
    """A plan with a quantity measured so much more than it was worked out."""
    found = Measured(Length(plan.ledger[name] + more))
    return work_out(actions.measure(plan.project, name, found))


def test_a_glue_up_is_no_longer_than_the_glue_stays_open_if_it_can_be_parted():
    # Slow hands: the two joints of a side or a divider are too long for white glue, and cannot be parted.
    slow_hands = seed_cabinet().working._replace(rates=(("glue", Learned(3.0, 0.1, 9)),))
    cabinet = planned(replace(seed_cabinet(), working=slow_hands))
    gluings = [each for each in order_of_work(cabinet).gluings if each.glues]
    for each in gluings:
        assert each.minutes <= each.open_minutes or len(each.adds) == 1, "one part with two joints cannot be parted"
    assert any(each.too_long for each in gluings)
    slow = cabinet.project.working._replace(glue="epoxy")
    fewer = order_of_work(planned(replace(cabinet.project, working=slow)))
    assert sum(each.glues for each in fewer.gluings) < len(gluings)
    assert not any(each.too_long for each in fewer.gluings)


def test_a_second_pair_of_hands_halves_the_glueing(cabinet, order):
    two = replace(cabinet.project, working=cabinet.project.working._replace(people=2))
    helped = order_of_work(planned(two))
    assert sum(each.minutes for each in helped.gluings) == pytest.approx(sum(e.minutes for e in order.gluings) / 2)
    assert not any(each.too_long for each in helped.gluings)


def test_clamps_are_counted_by_the_length_of_the_joints(order):
    first = next(each for each in order.gluings if each.glues)
    # Boards 230 mm deep: two clamps to a joint, and a row reaches over both ends of top and bottom.
    assert first.clamps == 2 * 2


# --- minutes and the shop list --------------------------------------------------------------------------------------


def test_more_wood_takes_more_time(cabinet):
    order = order_of_work(cabinet)
    thick = planned(actions.give(seed_cabinet(), "sides.thickness", mm(12)))
    after = order_of_work(thick)
    mill, milled = order.task("mill/sides"), after.task("mill/sides")
    # The same rough boards planed down further.
    assert task_minutes(thick, milled) > 0 and dict(mill.work)["plane"] > 0
    wide = planned(actions.give(seed_cabinet(), "tails.count", 7))
    saw = "joint/left-top/3"
    assert task_minutes(wide, order_of_work(wide).task(saw)) > task_minutes(cabinet, order.task(saw))


@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", sorted(FORMS.keys() - {"own"}))
def test_every_choice_of_every_form_has_an_order_of_work(form):
    for chosen in each_choice(form):
        order = order_of_work(planned(Project(Piece(form, form, choices=chosen))))
        assert order.tasks and not order.faults, (chosen, order.faults)
        titles = Counter((task.id.rpartition("/")[0], task.what) for task in order.tasks if task.id[:6] == "joint/")
        assert not [title for title, count in titles.items() if count > 1], "two steps of one joint have one name"


def test_the_shop_list_tells_tools_and_what_is_used_up(cabinet):
    found = {
        title: {need.what: need for need in needs}
        for title, needs in shop_list_words(shop_list(cabinet), cabinet.reader)
    }
    assert {"Dividers", "Marking gauge", "Router plane", "Fine saw", "Chisel"} <= set(found["Tools"])
    used = found["Used up"]
    assert int(used["Nails"].much) >= 12 and used["Oil or wax"].much.endswith("ml") and "Rags" in used
    assert "ignite" in used["Rags"].why
    bare = shop_list(planned(replace(seed_cabinet(), finish="none")))
    assert RagsNeeded() not in bare.used and RagsNeeded() in shop_list(cabinet).used


class _Watched:
    """Something whose fields are written down as they are asked for."""

    def __init__(self, watched, asked):
        self._watched, self._asked = watched, asked

    def __getattr__(self, name):
        self._asked.add(name)
        return getattr(self._watched, name)


def test_an_order_is_kept_by_all_that_it_is_derived_from(monkeypatch):
    """What the order asks of a project is part of what it is kept by: otherwise a change would not be seen."""
    kept = []
    monkeypatch.setattr("nullah.core.work.order_of_work.IdentityKey", lambda carried, *parts: kept.append(parts))
    monkeypatch.setattr("nullah.core.work.order_of_work._order", lambda key: None)
    for sample in (seed_cabinet(), Project(piece=Piece("top", choices=(("of", "slab"),)))):
        plan = work_out(sample, milling=False, proving=False)
        asked = set()
        watched = replace(plan, project=_Watched(sample, asked))
        # The piece with its fasteners is part of what it is kept by, whatever those hang on.
        assert watched.assembly
        asked.clear()
        derive(watched)
        order_of_work(plan)
        by = {id(each) for each in kept[-1]}
        # Methods are asked of fields, and of the piece only its woods.
        fields = asked - {"piece", "first_cut", "set_out_mark"}
        assert {"working", "shop"} <= fields
        assert {name for name in fields if id(getattr(sample, name)) not in by} == set()


def test_what_holds_the_ends_apart_stands_when_the_opening_is_measured():
    plan = planned(Project(piece=Piece("hanging rack", "hanging rack")))
    (measuring,) = [task for task in order_of_work(plan).tasks if "back.opening" in task.measures]
    # The shelf enters the back too, which waits; but the ends stand as far apart as the shelf holds them.
    assert set(measuring.between) == {"left", "right", "shelf"}


def test_tenons_beside_each_other_are_knifed_over_from_their_mortises():
    plan = planned(Project(piece=Piece("tray", "tray")))
    edges = [
        each.setting
        for task in order_of_work(plan).tasks
        for each in task.operations
        if isinstance(each, Gauge) and each.kind is LineKind.TENON_EDGE
    ]
    assert edges and {each.by for each in edges} == {ByMate("left"), ByMate("right")}


@pytest.mark.parametrize("dividers", ["solid", "frame"])
def test_dividers_of_every_column_are_cut_to_their_own_opening(dividers):
    plan = planned(Project(piece=Piece("case", "case", choices=(("columns", "3"), ("dividers", dividers)))))
    order = order_of_work(plan)
    assert not order.faults
    measuring = {name: task for task in order.tasks for name in task.measures if name.endswith(".opening")}
    upright = measuring.pop("upright.opening")
    assert {"top", "bottom"} <= set(upright.between)
    assert set(measuring) == {"divider.opening", "divider2.opening", "divider3.opening"}
    for column, name in enumerate(sorted(measuring), start=1):
        hosts = {"left" if column == 1 else f"upright{column - 1}", "right" if column == 3 else f"upright{column}"}
        assert hosts <= set(measuring[name].between)
        cut = [task for task in order.tasks if measuring[name].id in task.after and task.trade is Trade.FIT]
        assert {part[len("divider1")] for task in cut for part in task.parts} == {str(column)}


@pytest.mark.parametrize("chosen", each_choice("table"), ids=str)
def test_a_table_stands_on_two_side_frames_and_its_buttons_go_in_with_the_top(chosen):
    plan = made("table", chosen)
    glued = [task for task in order_of_work(plan).tasks if task.id.startswith("glue/") and "drawer" not in task.id]
    assert [set(task.parts) for task in glued[:2]] == [
        {"leg1", "leg3", "left_apron"}, {"leg2", "leg4", "right_apron"}
    ]  # fmt: skip
    buttons = {part.id for part in plan.parts if part.id.startswith("button")}
    for task in glued:
        there = buttons & {part for join in task.joins for part in join.parts}
        assert there == (buttons if "top" in task.parts else set())


@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", sorted(FORMS.keys() - {"own"}))
def test_both_ends_are_told_only_of_parts_that_are_worked_at_both(form):
    for chosen in each_choice(form):
        plan = made(form, chosen)
        for task in order_of_work(plan).tasks:
            for alike in alike_operations(task.operations):
                worked = {}
                for each in alike:
                    if isinstance(end := getattr(each, "end", None), Surface):
                        worked.setdefault(each.part, set()).add(end)
                if not worked:
                    continue
                said = where_words(alike, plan.reader)
                for part, ends in worked.items():
                    alone = plan.reader.together([other for other, its in worked.items() if its == ends])
                    assert alone in said and (f"both ends of {alone}" in said) is (len(ends) == 2), (part, said)


def test_every_step_of_a_joint_is_called_otherwise():
    said = [task_words(MakeJoint("dado", done, ("left",), ("top",)), Reader()) for done in JointDone]
    assert len(set(said)) == len(said) and all(each.startswith("Dado: ") and "left" in each for each in said)


@pytest.mark.dear
@pytest.mark.parametrize("form", ["case", "table", "chest", "tray", "drawer"])
def test_what_both_hosts_of_a_joint_get_is_gauged_and_cut_at_one_go(form):
    """A gauge that is set serves all that is equal and there, though what enters is cut to different openings."""
    for chosen in each_choice(form):
        plan = made(form, chosen)
        done = Counter()
        for kinds in kinds_by_host(plan):
            hosts = {joint.first for kind in kinds for joint in kind.all}
            joints = {joint.id for kind in kinds for joint in kind.all}
            for task in order_of_work(plan).tasks:
                if task.id.split("/")[1:2] and task.id.split("/")[1] in joints and set(task.parts) <= hosts:
                    done[kinds[0].id, task.what.done] += isinstance(task.what, MakeJoint)
        split = {
            key: number for key, number in done.items() if number > 1 and key[1] in (JointDone.GAUGED, JointDone.CUT)
        }
        assert not split, (chosen, split)


def test_shelves_that_are_glued_later_hold_the_sides_meanwhile():
    plan = made("wall shelf", (("shelves", "4"),))
    order = order_of_work(plan)
    first, later = (each for each in order.gluings if set(each.adds) & {"shelf1", "shelf3"})
    assert first.steadied_by == ("shelf3", "shelf4") == later.adds and not later.steadied_by
    assert Join((*first.parts, "shelf3", "shelf4"), Joining.DRY) in order.task(first.id).joins
    card = task_card(plan, standing(plan, datetime(2026, 1, 5, 18)), order.task(first.id))
    assert card.mark[0].startswith("Put shelf 3 and 4 in dry")


@pytest.mark.sampled(7)
@pytest.mark.parametrize("form", sorted(FORMS.keys() - {"own"}))
def test_what_steadies_a_glue_up_is_there_whole_and_comes_in_later(form):
    for chosen in each_choice(form):
        order = order_of_work(made(form, chosen))
        place_of = {task.id: number for number, task in enumerate(order.tasks)}
        for number, each in enumerate(order.gluings):
            dry = set(each.steadied_by)
            assert dry <= {part for later in order.gluings[number + 1 :] for part in later.adds}
            worked = [task for task in order.tasks if dry & set(task.parts) and task.trade in (Trade.JOINT, Trade.FIT)]
            assert all(place_of[task.id] < place_of[each.id] for task in worked if not task.on_assembly), chosen


def test_guides_are_cut_to_what_is_between_the_legs_when_the_frame_is_glued():
    plan = made("table", (("drawer", "one"),))
    order = order_of_work(plan)
    measure = next(task for task in order.tasks if task.measures == ("guide.opening",))
    assert {"glue/left_frame/1", "glue/right_frame/1"} <= set(measure.after)
    assert {"leg1", "leg3"} <= set(measure.between) and "top" not in measure.between
    assert place(order, measure.id) < place(order, "fit/runner") < place(order, "measure/opening.width")


def test_the_rabbets_of_a_back_are_gauged_at_one_setting():
    order = order_of_work(made("case", (("back", "2"),)))
    (gauge,) = [
        task
        for task in order.tasks
        if isinstance(task.what, MakeJoint) and task.what.values[:2] == ("rabbet", JointDone.GAUGED)
    ]
    assert set(gauge.parts) == {"left", "right", "top", "bottom"}


@pytest.mark.parametrize(("places", "said"), [(1, "the smallest counts. Enter it"), (2, "of all the largest")])
def test_an_opening_where_several_go_is_measured_at_every_place(places, said):
    assert said in measuring_steps(places, False, Reader())[1]


@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", sorted(FORMS.keys() - {"own"}))
def test_only_what_is_measured_over_something_is_as_large_as_its_largest(form):
    over = set()
    for chosen in (*each_choice(form), *((("drawers", "all"), ("drawer_bottom", "slips")),) * (form == "case")):
        plan = made(form, chosen)
        for task in order_of_work(plan).tasks:
            if task.measures:
                mark = task_card(plan, standing(plan, datetime(2026, 3, 1)), task).mark
                over |= {task.measures[0] for step in mark if "the largest counts" in step}
    # What lies under walls, or under a drawer.
    assert all(name == "walls.length" or name.endswith("_bottom.opening") for name in over)
    assert bool(over) is (form in ("case", "drawer", "holder"))


def test_a_rail_that_is_dovetailed_into_a_frame_is_cut_to_it_as_it_stands_dry():
    plan = made("table", (("drawer", "one"),))
    order = order_of_work(plan)
    measure = next(task for task in order.tasks if task.measures == ("rail.opening",))
    assert measure.joins == (Join(measure.between, Joining.DRY),)
    assert {"leg1", "leg2", "lower_rail"} <= set(measure.between) and "upper_rail" not in measure.between
    # Its sockets are cut into the legs before these are glued.
    sockets = next(
        task.id
        for task in order.tasks
        if task.what.values[:2] == ("half-blind dovetail", JointDone.CUT) and "leg1" in task.parts
    )
    assert place(order, measure.id) < place(order, "fit/upper_rail") < place(order, sockets)
    assert place(order, sockets) < place(order, "glue/left_frame/1")
