"""The steps of every joint, one by one: pictures, checks, lines that must survive, cautions where it bites."""

import re
from dataclasses import replace
from fractions import Fraction
from itertools import combinations

import pytest
from tests.said import said
from tests.told import corner_of_own, each_choice, operations_of, planned

from nullah.core import actions
from nullah.core.card import JointStage, lines_to_keep
from nullah.core.drawing import Fill, Path, Role
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.joints.butt import BUTT
from nullah.core.joints.cutouts import sizes_of
from nullah.core.joints.kinds import kinds_of
from nullah.core.joints.steps import joint_steps
from nullah.core.joints.types import holes_of
from nullah.core.joints.views import between_tails
from nullah.core.lengths import Direction, Marks, Unit, mm
from nullah.core.operations.taking import Cut, Take
from nullah.core.piece.frames import frames_of
from nullah.core.piece.joint import Hold
from nullah.core.piece.solids import build, recipe
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.shop import Schools, Shop
from nullah.core.stations import STATIONS
from nullah.core.stations.joint_steps import draw_step, step_card
from nullah.core.stations.joints import joint_card
from nullah.core.stations.selection import JointsSelection, Selection
from nullah.core.wording.operations import step_words
from nullah.core.work.joint_work import at_bench, joint_work, steps_of_corner
from nullah.demo.seed_cabinet import seed_cabinet

JOINTS = next(station for station in STATIONS if station.id == "joints")


@pytest.fixture(scope="module")
def cabinet():
    return work_out(seed_cabinet(), milling=False, proving=False)


def every_work():
    for form in FORMS:
        plan = work_out(Project(piece=Piece(form, form)), milling=False, proving=False)
        for kind in kinds_of(plan.assembly):
            work = joint_work(plan, kind)
            if work.steps:
                yield plan, work


def test_no_step_of_any_joint_uses_a_line_that_was_not_drawn_before():
    count = 0
    for _, work in every_work():
        drawn = set()
        for step in work.steps:
            missing = set(step.uses) - drawn
            assert not missing, (work.kind.title, step.text, missing)
            drawn |= set(step.draws)
            count += 1
    assert count > 100


@pytest.mark.parametrize("way", ["tails first", "pins first"])
def test_the_baseline_of_a_dovetail_must_survive_until_the_last_chopping(cabinet, way):
    shop = replace(cabinet.project.shop, schools=Schools(dovetail=way))
    plan = work_out(replace(cabinet.project, shop=shop), milling=False, proving=False)
    steps = steps_of_corner(plan, plan.corner)
    last = dict(lines_to_keep(steps, 0))["baseline"]
    assert steps[last].stage is JointStage.CUT and not any("baseline" in step.uses for step in steps[last + 1 :])


def test_every_step_that_cuts_with_knife_saw_or_chisel_says_to_take_care():
    for plan, work in every_work():
        for step in work.steps:
            text = step_words(step, plan.reader)
            assert step.care or not re.search(r"\b([Ss]aw|[Cc]hop|[Kk]nife|[Pp]are) ", text), text


def test_every_step_has_a_picture_and_the_pictures_go_on(cabinet):
    dado = next(kind for kind in kinds_of(cabinet.assembly) if kind.name == "stopped dado")
    work = joint_work(cabinet, dado)

    def paths(number):
        return [e for e in draw_step(cabinet, work, number).elements if isinstance(e, Path)]

    gauged = next(n for n, step in enumerate(work.steps) if step.stage is JointStage.GAUGED)
    assert not any(path.fill is Fill.WASTE for path in paths(gauged))
    cut = next(n for n, step in enumerate(work.steps) if step.stage is JointStage.CUT)
    # What goes is hatched while it is cut, and gone after.
    assert any(path.fill is Fill.WASTE for path in paths(cut)) and not any(p.fill is Fill.PAPER for p in paths(cut))
    assert any(path.fill is Fill.PAPER for path in paths(cut + 1))


@pytest.mark.dear
def test_a_long_part_is_broken_off_beside_what_is_done_to_it():
    plan = work_out(actions.give(Project(piece=Piece("case", "case")), "case.outside_height", mm(1900)), milling=False)
    dado = next(kind for kind in kinds_of(plan.assembly) if kind.name == "stopped dado")
    work = joint_work(plan, dado)
    shown = draw_step(plan, work, 1)
    breaks = [e for e in shown.elements if isinstance(e, Path) and e.role is Role.FAINT and len(e.points) == 4]
    assert breaks and shown.bounds()[2] - shown.bounds()[0] < 1200


def test_pictures_are_drawn_for_all_steps_of_all_joints():
    for plan, work in every_work():
        for number in range(len(work.steps)):
            shown = draw_step(plan, work, number)
            assert shown.elements and all(abs(c) < 1e5 for c in shown.bounds())


def test_the_station_goes_step_by_step_with_its_settings_and_what_to_check(cabinet):
    selection = Selection(joints=JointsSelection(step=0))
    card = JOINTS.card(cabinet, selection)
    assert card.title.startswith("Step 1 of ") and len(card.mark) == 1
    texts = [said(remark, cabinet) for remark in card.mind]
    assert any(text.startswith("Check: ") for text in texts)
    assert any(text.startswith("Leave these lines: baseline (until step") for text in texts)
    assert [(setting.tool, setting.note) for setting in card.set] == [
        ("Baseline", "set to top and left side"), ("Proud", ""),
    ]  # fmt: skip
    assert JOINTS.draw(cabinet, selection).elements != JOINTS.draw(cabinet, Selection()).elements


def test_a_step_past_the_last_shows_the_last(cabinet):
    work = joint_work(cabinet, kinds_of(cabinet.assembly)[0])
    assert step_card(cabinet, work, 99) == step_card(cabinet, work, len(work.steps) - 1)


# --- a moulded edge turns the corner ------------------------------------------------------------------------------


def corner_of(plan):
    return next(corner for corner in plan.corners if "own1" in (*corner.tail_boards, *corner.pin_boards))


def test_where_both_boards_are_moulded_at_an_edge_the_half_pin_there_is_mitred():
    plan = corner_of_own("front", "side")
    corner = corner_of(plan)
    assert corner.layout.spec.mitres == (mm(0), mm(6))
    told = [step_words(step, plan.reader) for step in steps_of_corner(plan, corner)]
    assert "Gauge the miter line, 6 mm from the other edge, which is molded" in told[0]
    assert "down to the miter line only" in told[2]
    assert "of front and side, on the other edge, draw the miter from the baseline inside" in told[5]
    # The half-pin at the mitred edge is not sawn off: less waste is hatched there.
    shapes = list(between_tails(corner.layout, 15.0))
    assert max(level for _, level in shapes[-1]) == float(corner.layout.spec.width) - 6


def test_the_solids_of_a_mitred_corner_fill_it_and_do_not_collide():
    plain, mitred = corner_of_own(), corner_of_own("front", "side")
    for plan in (plain, mitred):
        parts = {part.id: part._replace(shapings=()) for part in plan.parts}
        joints = plan.assembly.joints
        one, two = (build(recipe(parts[name], joints, parts)) for name in ("own1", "own2"))
        assert (one ^ two).volume() < 0.01
        overlap = parts["own1"].box.overlap(parts["own2"].box)
        both = float(parts["own1"].box.volume + parts["own2"].box.volume - overlap.volume)
        assert (one + two).volume() == pytest.approx(both, rel=1e-6)
    volumes = [
        build(recipe(plan.part("own1"), plan.assembly.joints, {p.id: p for p in plan.parts})).volume()
        for plan in (plain, mitred)
    ]
    assert volumes[0] != pytest.approx(volumes[1], rel=1e-6)
    assert work_out(mitred.project).failing == work_out(plain.project).failing


def test_an_edge_that_only_one_board_has_is_no_moulding_that_turns_a_corner():
    assert corner_of(corner_of_own("front")).layout.spec.mitres == (mm(0), mm(0))


# --- settings rounded the safe way, and tools there are -----------------------------------------------------------


def test_settings_are_rounded_where_it_does_no_harm():
    marks = Marks(Unit.INCH)
    assert marks.write_setting(mm("6.5"), Direction.UP) == "9/32″"
    assert marks.write_setting(mm("6.5"), Direction.DOWN) == "1/4″"
    assert marks.off_true(mm("6.5"), Direction.DOWN).endswith("bare")
    assert Marks().to_setting(mm("6.32"), Direction.DOWN).mm == Fraction(63, 10)


def test_bits_and_irons_that_are_there():
    shop = Shop()
    assert shop.bit_for(mm("2.1")) == mm(2) and shop.bit_for(mm(40)) is None
    assert shop.plough_iron(mm(7)) == mm(6) and shop.plough_iron(mm(2)) is None
    assert replace(shop, plough_irons=()).plough_iron(mm(7)) is None


def test_a_groove_the_plough_cannot_make_is_told(cabinet):
    groove = next(kind for kind in kinds_of(cabinet.assembly) if kind.name == "groove")
    wide = joint_work(cabinet, groove)
    cuts = {each.cut for step in wide.steps for each in step.operations if isinstance(each, Take)}
    assert cuts and cuts <= {Cut.PLOUGH, Cut.PLOUGH_TO_LINES, Cut.CHISEL_GROOVE}
    shop = replace(cabinet.project.shop, plough_irons=(mm(25),), plough_deepest=mm(1))
    plan = work_out(replace(cabinet.project, shop=shop), milling=False, proving=False)
    card = JOINTS.card(plan, Selection(groove.first.part.id, joints=JointsSelection(groove.id)))
    texts = " ".join(said(remark, cabinet) for remark in card.mind)
    assert "No iron of the plow enters" in texts and "The plow stops at 1.0 mm" in texts


# --- nails and screws on the drawing ------------------------------------------------------------------------------


def held_by(hold):
    for form in FORMS:
        plan = work_out(Project(piece=Piece(form, form)), milling=False, proving=False)
        for kind in kinds_of(plan.assembly):
            if kind.joint.type is BUTT and kind.joint.hold is hold:
                yield plan, kind


@pytest.mark.parametrize("hold", [Hold.NAILS, Hold.SCREWS, Hold.SLOTS])
def test_nails_and_screws_stand_on_the_thinner_part_as_many_as_the_card_says(hold):
    count = 0
    for plan, kind in held_by(hold):
        at = at_bench(plan, kind)
        part_id, found = holes_of(at)
        row = joint_card(plan, kind).set[0]
        assert row.tool == ("Nails" if hold is Hold.NAILS else "Screws")
        assert (f"{len(found)} in the row" if len(found) > 1 else "one in the row") in row.note
        thin = plan.part(part_id)
        sizes = sizes_of(thin)
        for hole in found:
            assert all(0 <= at <= size for at, size in zip(hole[:3], sizes, strict=True)), (kind.title, hole)
        count += 1
    assert count


def test_a_glued_joint_has_no_holes():
    own = (
        OwnBoard("own1", "one", (mm(300), mm(80), mm(20)), (mm(0), mm(0), mm(0))),
        OwnBoard("own2", "other", (mm(300), mm(80), mm(20)), (mm(0), mm(80), mm(0))),
    )
    project = actions.join_own(Project(piece=Piece("own", own=own)), OwnJoint("ownjoint1", "butt", "own1", "own2"))
    plan = work_out(project, milling=False, proving=False)
    (kind,) = kinds_of(plan.assembly)
    assert kind.joint.hold is Hold.GLUE and holes_of(at_bench(plan, kind)) == ("", ())


def _plans_of_each_choice():
    for form in FORMS:
        for chosen in each_choice(form):
            yield form, chosen, planned(form, chosen)


def _through(take):
    """Return whether it is a hole, a notch or a slot: several of those in line are no channel."""
    return take.cut not in (Cut.DADO, Cut.STOPPED_DADO, Cut.PLOUGH, Cut.PLOUGH_TO_LINES, Cut.CHISEL_GROOVE, Cut.RABBET)


@pytest.mark.dear
def test_what_enters_one_channel_in_line_is_told_one_channel():
    count = 0
    for form, chosen, plan in _plans_of_each_choice():
        for part in plan.parts:
            takes = [each for each in operations_of(plan, part) or () if isinstance(each, Take)]
            spans = [each.places for each in takes if not _through(each)]
            for one, other in combinations(spans, 2):
                alike = [axis for axis in range(3) if one[axis] == other[axis]]
                count += 1
                if len(alike) == 2:
                    (along,) = {0, 1, 2} - set(alike)
                    (_, end), (start, _) = sorted((one[along], other[along]))
                    assert start > end, (form, chosen, part.id, one, other)
    assert count


@pytest.mark.dear
def test_equal_joints_are_made_in_equal_steps():
    for form, chosen, plan in _plans_of_each_choice():
        frames = frames_of(plan.assembly)
        for kind in kinds_of(plan.assembly):
            told = [joint_steps(frames, joint, plan.marks, plan.project.shop) or () for joint in kind.all]
            stages = {tuple(step.stage for step in steps) for steps in told}
            assert len(stages) == 1, (form, chosen, kind.title, stages)
