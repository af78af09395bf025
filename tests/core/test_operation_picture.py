"""The picture of an operation: what goes is hatched at its true size, and every figure stands where it is measured."""

import math
from dataclasses import replace
from fractions import Fraction

import pytest
from tests.told import each_choice, every_operation, planned

from nullah.core.drawing import Dimension, Fill, Label, Path, Role
from nullah.core.forms import FORMS
from nullah.core.joints.kinds import kinds_of
from nullah.core.lengths import Length, Marks
from nullah.core.operations.settings import ToolSetting, by_rule
from nullah.core.operations.shaping import SawArch
from nullah.core.operations.stock import Stock, Surface
from nullah.core.operations.taking import Cut, PlaneOff, Take
from nullah.core.reader import Reader
from nullah.core.stations.joints import draw_mates
from nullah.core.stations.next_step import draw_task
from nullah.core.stations.operation_picture import draw_operations, draw_part, room_above
from nullah.core.wording.tools import figure_words, view_words
from nullah.core.work.order_of_work import order_of_work

STOCK = Stock(Fraction(300), Fraction(120), Fraction(18))


def area(path):
    pairs = zip(path.points, (*path.points[1:], path.points[0]), strict=True)
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in pairs)) / 2


def hatched(shown):
    return [each for each in shown.elements if isinstance(each, Path) and each.fill is Fill.WASTE]


def arch(rise=30):
    return SawArch(
        part="p",
        stock=STOCK,
        start=by_rule("arc", Fraction(50), Surface.REFERENCE_END, Marks()),
        end=by_rule("arc", Fraction(70), Surface.FAR_END, Marks()),
        rise=by_rule("rise", Fraction(rise), Surface.FACE_EDGE, Marks()),
    )


def test_an_arch_is_hatched_at_its_true_size():
    """The segment of a circle: r²(θ - sin θ)/2 (exact)."""
    (path,) = hatched(draw_operations([arch()], Reader()))
    radius = 180**2 / (8 * 30) + 30 / 2
    turn = 2 * math.asin(180 / 2 / radius)
    assert area(path) == pytest.approx(radius**2 * (turn - math.sin(turn)) / 2, rel=1e-3)
    assert min(x for x, _ in path.points) == pytest.approx(50) and max(x for x, _ in path.points) == pytest.approx(230)
    assert max(y for _, y in path.points) == pytest.approx(30)


def test_figures_stand_between_the_surface_and_the_place():
    shown = draw_operations([arch()], Reader())
    told = {(each.text, each.start, each.end) for each in shown.elements if isinstance(each, Dimension)}
    assert told == {
        ("50 mm", (0, 0), (50, 0)), ("70 mm", (230, 0), (300, 0)), ("30 mm", (0, 30), (0, 0)),
    }  # fmt: skip
    assert room_above(shown) > max(each.offset_mm for each in shown.elements if isinstance(each, Dimension))


def test_behind_the_board_there_is_only_the_outline():
    dashed = [each for each in draw_operations([arch()], Reader()).elements if isinstance(each, Path)]
    assert sum(each.role is Role.HIDDEN for each in dashed) == 2, "in the view of the edge and of the end"


def test_what_is_planed_flush_is_hatched_in_the_views_that_show_it():
    proud = by_rule("proud", Fraction(2), Surface.FAR_END, Marks())
    found = hatched(draw_operations([PlaneOff(part="p", stock=STOCK, setting=proud)], Reader()))
    assert sorted(area(each) for each in found) == [2 * 18, 2 * 120]


def test_whatever_goes_is_seen_and_another_figure_makes_another_picture():
    for operation in every_operation():
        if operation.takes:
            _every_figure_is_seen(operation)


def _every_figure_is_seen(operation):
    reader = Reader(Marks(mm_mark=Fraction(1, 10)))
    shown = draw_operations([operation], reader)
    outlines = [
        each
        for each in shown.elements
        if isinstance(each, Path) and (each.fill is Fill.WASTE or each.role is Role.HIDDEN)
    ]
    assert outlines
    for name in ("over", "down", "toe", "rise", "back", "deep", "depth", "setting"):
        setting = getattr(operation, name, None)
        if isinstance(setting, ToolSetting) and setting.value:
            other = replace(operation, **{name: setting._replace(value=setting.value + Fraction(1, 2))})
            assert draw_operations([other], reader) != shown, name


def test_a_long_blank_is_broken_off_but_its_figures_are_whole():
    long = Stock(Fraction(2000), Fraction(120), Fraction(18))
    first = by_rule("first wall", Fraction(1000), Surface.REFERENCE_END, Marks())
    other = by_rule("second wall", Fraction(1012), Surface.REFERENCE_END, Marks())
    edges = (Surface.FACE_EDGE, Surface.OTHER_EDGE)
    depth = by_rule("depth", Fraction(6), Surface.FACE_SIDE, Marks())
    dado = Take(
        part="p",
        stock=long,
        cut=Cut.DADO,
        into=Surface.FACE_SIDE,
        x=(first, other),
        y=edges,
        z=(Surface.FACE_SIDE, depth),
    )
    shown = draw_part(long, [dado], [dado], [], Reader())
    assert {"1000 mm", "1012 mm", "6 mm"} <= {e.text for e in shown.elements if isinstance(e, Dimension)}
    faces = [e for e in shown.elements if isinstance(e, Path) and e.fill is Fill.WOOD]
    assert [max(x for x, _ in each.points) for each in faces] == [102, 102], "45 mm on either side of it"
    # Done already it is gone, and its figures are not told again.
    after = draw_part(long, [dado], [], [dado], Reader())
    assert any(isinstance(e, Path) and e.fill is Fill.PAPER for e in after.elements)
    assert not [e for e in after.elements if isinstance(e, Dimension)]


@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", sorted(FORMS.keys() - {"own"}))
def test_every_task_of_shaping_has_its_picture_and_its_figures(form):
    for chosen in each_choice(form):
        plan = planned(form, chosen)
        order = order_of_work(plan)
        for task in order.tasks:
            if not task.operations or task.subject is not None:
                continue
            shown, part = draw_task(plan, task), task.operations[0].part
            texts = {each.text for each in shown.elements if isinstance(each, Dimension)}
            for setting in (s for each in task.operations if each.part == part for s in each.settings):
                if isinstance(setting.origin, Surface) and setting.value:
                    assert figure_words(setting, plan.reader) in texts, (task.title, setting)


def test_each_view_is_named_after_the_surface_on_which_its_lines_lie():
    behind = 0
    for each in every_operation():
        lines = [line for line in (*each.draws, *each.needs) if line.axis is not None]
        said = {element.text for element in draw_operations([each], Reader()).elements if isinstance(element, Label)}
        for seen in (Surface.FACE_SIDE, Surface.FACE_EDGE, Surface.REFERENCE_END):
            on = [surfaces for line in lines if (surfaces := set(line.on) & {seen, seen.opposite})]
            only_behind = bool(on) and all(seen not in surfaces for surfaces in on)
            behind += only_behind
            named = {view_words(seen, False, Reader()), view_words(seen.opposite, True, Reader())} & said
            assert named == {view_words(seen.opposite if only_behind else seen, only_behind, Reader())}
    assert behind > 3


def test_a_line_on_the_surface_behind_is_dashed():
    plan = planned("table", ())
    task = next(task for task in order_of_work(plan).tasks if task.id.endswith("left_apron/1"))
    gauged = [each for each in task.operations if each.part == "leg1"]
    assert gauged[0].on == (Surface.OTHER_EDGE,)
    before = replace(gauged[0], on=(Surface.FACE_EDGE,))
    drawn = draw_part(gauged[0].stock, [before, gauged[0]], [before], [gauged[0]], Reader())
    roles = [each.role for each in drawn.elements if isinstance(each, Path) and len(each.points) == 2]
    assert roles.count(Role.KNIFE) == 2


def test_the_joint_is_measured_in_its_picture_from_where_it_is_on_the_card():
    plan = planned("table", ())
    pair = {"leg1", "left_apron"}
    kind = next(each for each in kinds_of(plan.assembly) if {each.first.part.id, each.second.part.id} == pair)
    told = {each.text for each in draw_mates(plan, kind).elements if isinstance(each, Dimension)}
    top, wall = plan.ledger["tenon.above"], plan.part("leg1").box.low[0]
    mortise = next(joint for joint in plan.assembly.joints if {joint.first, joint.second} == pair).channels[0]
    assert plan.marks.write_setting(Length(top)) in told
    assert plan.marks.write_setting(Length(mortise.low[0] - wall)) in told
    assert plan.marks.write_setting(Length(plan.ledger["leg.length"] - plan.ledger["apron.width"])) not in told
