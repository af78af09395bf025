"""Nails and screws: which part they go through, what they meet, where they are bored, what is too short for them."""

from dataclasses import replace
from fractions import Fraction
from itertools import product

import pytest
from manifold3d import Manifold
from tests.same import untyped
from tests.told import each_choice, planned

from nullah.core import actions
from nullah.core.apply_fix import action_of
from nullah.core.bench.tasks import Joining
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import LIES, OwnBoard, OwnJoint
from nullah.core.joints.fastened import row_in
from nullah.core.joints.fasteners import inch_sizes, metric_sizes
from nullah.core.joints.rows import holes_in, row_of, sizes_that_hold
from nullah.core.ledger import Measured
from nullah.core.lengths import Length, Marks, Unit, mm
from nullah.core.operations.fastening import Bore, Pin, TracePlaces
from nullah.core.piece.faults import NothingReaches
from nullah.core.piece.joint import Hold, PlannedRow, RowChoice, RowInput, WoodHeld
from nullah.core.piece.solids import build, recipe
from nullah.core.piece.space import Side
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.shop import Shop
from nullah.core.wording.facts import fact_words
from nullah.core.wording.fastening import size_words
from nullah.core.work.order_of_work import order_of_work
from nullah.core.work.stock_tasks import waits_of
from nullah.files.project_file import read_project, write_project

FASTENED = (Hold.NAILS, Hold.SCREWS, Hold.SLOTS)
#: Of a nail or screw, so much may lie in no wood, mm³: its hole comes near a chamfer or the like.
NOTHING = 0.5
#: A head may stand in a taper, mm.
HEAD = 1.5


def _filled(made):
    return build(made._replace(cuts=tuple(cut._replace(holes=()) for cut in made.cuts)))


def _shank(row, place, parts):
    """Return a nail or screw as a cylinder in the piece, from below its head to its point."""
    axis, through = row.side.axis.value, parts[row.through].box
    head = float(through.high[axis] - HEAD if row.side.high else through.low[axis] + HEAD)
    tip = float(row.meets) + (-1 if row.side.high else 1) * row.fastening.enters
    made = Manifold.cylinder(abs(head - tip), row.fastening.thick / 2, row.fastening.thick / 2, 12)
    turned = (made.rotate((0, 90, 0)), made.rotate((-90, 0, 0)), made)[axis]
    at = [0.0, 0.0, 0.0]
    at[axis], at[row.along.value], at[row.across.value] = min(head, tip), float(place), float(row.level)
    return turned.translate(at)


@pytest.mark.dear
@pytest.mark.parametrize("form", [form for form in FORMS if form != "own"])
def test_every_nail_and_screw_lies_in_the_wood_of_its_two_parts_and_in_no_other(form):
    for chosen in each_choice(form):
        plan = planned(form, chosen)
        parts = {part.id: part for part in plan.parts}
        solids = {part.id: _filled(recipe(part, plan.assembly.joints, parts)) for part in plan.parts}
        for joint in plan.assembly.joints:
            if joint.hold not in FASTENED or not (joint.type.touches or joint.type.captures):
                continue
            row = row_in(joint)
            assert row is not None, (chosen, joint.id)
            others = [solid for part, solid in solids.items() if part not in (row.through, row.into)]
            for place in row.places:
                shank = _shank(row, place, parts)
                out = shank - solids[row.through] - solids[row.into]
                assert out.volume() < NOTHING, (chosen, joint.id, float(place), out.bounding_box())
                assert not any((shank ^ other).volume() > NOTHING for other in others), (chosen, joint.id, float(place))


def _boards(*sizes, hold=Hold.NAILS):
    """Return the piece of two boards of one's own, held so."""
    boards = tuple(
        OwnBoard(f"own{number}", name, tuple(map(mm, size)), tuple(map(mm, at)), lie)
        for number, name, (size, at, lie) in zip((1, 2), ("lower", "upper"), sizes, strict=True)
    )
    return Piece("own", "pair", own=boards, own_joints=(OwnJoint("ownjoint1", "butt", "own1", "own2", hold.value),))


def _plan(piece, proving=False):
    return work_out(Project(piece=piece), milling=False, proving=proving)


def _row(piece):
    (joint,) = _plan(piece).assembly.joints
    return row_in(joint)


def _lid(thick=16, batten=18, long=300, wide=40, hold=Hold.SCREWS):
    """Return a board on a batten that runs across it."""
    return _boards(((400, long, thick), (0, 0, batten), "xz"), ((long, wide, batten), (50, 0, 0), "yz"), hold=hold)


def test_screws_go_in_where_they_are_not_seen_and_nails_where_they_hold():
    lid = _lid()
    seen = lid.own[0]._replace(shows="t")
    lid = replace(lid, own=(seen, lid.own[1]))
    assert (_row(lid).through, _row(lid).side) == ("own2", Side.UNDER), "from below, through the batten"
    weak = _lid(thick=8, batten=30)
    weak = replace(weak, own=(weak.own[0]._replace(shows="t"), weak.own[1]))
    assert _row(weak).through == "own1", "through 30 mm none holds in 8"


@pytest.mark.parametrize(("long", "number"), [(59, 1), (60, 1), (61, 2), (115, 2), (170, 2), (171, 3)])
def test_what_is_short_is_held_by_one_in_its_middle(long, number):
    row = _row(_lid(long=long))
    assert len(row.places) == number
    assert sum(row.places) / number == Fraction(long, 2)


@pytest.mark.parametrize(("left", "reaches"), [(Fraction(101, 100), True), (Fraction(99, 100), False)])
def test_a_nail_whose_point_would_come_out_is_none(left, reaches):
    # The shortest nail that is sold is 10 mm long.
    thin = 10 + left
    lower, upper = ((200, 60, thin / 2), (0, 0, 0), "xz"), ((200, 60, thin / 2), (0, 0, thin / 2), "xz")
    plan = _plan(
        _boards(
            *(
                (tuple(map(str, map(float, size))), at, lie)
                for size, at, lie in ((s, tuple(map(str, map(float, a))), way) for s, a, way in (lower, upper))
            )
        ),
        proving=True,
    )
    told = [f.remark.fact for f in plan.findings if isinstance(f.remark.fact, NothingReaches)]
    assert bool(told) is not reaches
    assert (row_in(plan.assembly.joints[0]) is not None) is reaches


def test_size_number_and_distance_are_chosen_and_go_with_the_file(tmp_path):
    usual = _row(_lid())
    choice = RowChoice(mm(25), mm("3.5"), 4, mm(30))
    project = actions.fasten(Project(piece=_lid()), ("own1-own2",), choice)
    write_project(project, tmp_path / "lid.nullah")
    assert untyped(read_project(tmp_path / "lid.nullah")) == untyped(project)
    row = _row(project.piece)
    assert (row.fastening.long, row.fastening.thick, len(row.places), row.places[0]) == (25, 3.5, 4, 30)
    assert (usual.fastening.long, usual.fastening.thick) != (25, 3.5) and usual.places[0] != 30
    assert row.fastening.holds > usual.fastening.holds * 0.5 and row.bit.mm == 4
    back = actions.fasten(project, ("own1-own2",), RowChoice())
    assert back.piece.rows == () and _row(back.piece) == usual
    long = actions.fasten(project, ("own1-own2",), RowChoice(mm(45)))
    assert _row(long.piece) is None, "it would come out above"


@pytest.mark.parametrize(("thick", "reaches"), [("21.5", True), ("21.6", False), ("30", False)])
def test_one_that_was_chosen_and_is_too_short_is_told_and_left_with_a_press(thick, reaches):
    # A nail that goes in by less than it is thick holds nothing.
    piece = replace(_lid(thick=thick, batten=30, hold=Hold.NAILS), rows=(("own1-own2", RowChoice(mm(25), mm("3.5"))),))
    plan = _plan(piece, proving=True)
    row = row_in(plan.assembly.joints[0])
    assert (row is not None) is reaches
    told = [f.remark for f in plan.findings if isinstance(f.remark.fact, NothingReaches)]
    assert bool(told) is not reaches
    if told:
        assert "25 mm" in fact_words(told[0].fact, plan.reader)
        (fix,) = told[0].fixes
        assert action_of(fix, Unit.MM)(plan.project).piece.rows == ()


@pytest.mark.parametrize("hold", FASTENED)
def test_however_two_boards_touch_nails_and_screws_enter_both_or_there_are_none(hold):
    """Through the width of a wide board none is long enough; what is told then must not be less than nothing."""
    reached = set()
    for one, other in product(("xz", "zy"), LIES):
        for axis, thick in product(range(3), (8, 22, 60)):
            at = [0, 0, 0]
            at[axis] = _reach(one, axis, (330, 150, thick))
            piece = _boards(((330, 150, thick), (0, 0, 0), one), ((420, 110, 18), at, other), hold=hold)
            plan = _plan(piece, proving=True)
            parts, row = {part.id: part for part in plan.parts}, row_in(plan.assembly.joints[0])
            told = [f for f in plan.findings if isinstance(f.remark.fact, NothingReaches)]
            assert bool(told) is (row is None), (one, other, axis)
            reached.add(row is not None)
            if row is None:
                continue
            assert row.fastening.enters >= row.fastening.thick, (one, other, axis)
            for part in parts.values():
                bored = holes_in(row, part).holes
                assert bored and all(hole.low < hole.high for hole in bored), (one, other, axis, part.id)
            for place in row.places:
                out = _shank(row, place, parts)
                for part in plan.parts:
                    out -= _filled(recipe(part, plan.assembly.joints, parts))
                assert out.volume() < NOTHING, (one, other, axis, thick, float(place))
    assert reached == {True, False}


def _reach(lie, axis, sizes):
    """Return how far a board so laid reaches along an axis."""
    long, thick = ("xyz".index(letter) for letter in lie)
    return sizes[0] if axis == long else sizes[2] if axis == thick else sizes[1]


def test_every_size_that_is_offered_holds_and_stays_inside():
    plan = _plan(_lid())
    row, parts = row_in(plan.assembly.joints[0]), {part.id: part for part in plan.parts}
    offered = sizes_that_hold(row, parts[row.through], parts[row.into], plan.marks)
    assert len(offered) > 5 and row.fastening.size in offered
    for size in offered:
        choice = RowChoice(size.long, size.thick)
        chosen = _row(actions.fasten(Project(piece=_lid()), ("own1-own2",), choice).piece)
        assert chosen is not None and chosen.fastening.size == size
        assert chosen.fastening.enters >= float(size.thick) - 1e-9


@pytest.mark.parametrize("hold", [Hold.NAILS, Hold.SCREWS])
def test_a_piece_set_out_in_inches_has_nails_and_screws_that_are_sold_in_inches_and_keeps_them(hold):
    inches = Project(piece=_lid(hold=hold), marks=Marks(Unit.INCH))
    metric = Project(piece=_lid(hold=hold))
    projects = inches, metric, actions.show_in(inches, Marks()), actions.show_in(metric, Marks(Unit.INCH))
    plans = [work_out(project, milling=False, proving=False) for project in projects]
    one, other, shown, back = (row_in(plan.assembly.joints[0]) for plan in plans)
    assert one == shown and other == back, "showing another unit changes no hole"
    assert one.fastening.size in (*inch_sizes().nails, *inch_sizes().screws)
    assert other.fastening.size in (*metric_sizes().nails, *metric_sizes().screws)
    words = size_words(one.fastening.size, plans[0].reader)
    assert "″" in words and (("No. " in words) is (hold is Hold.SCREWS))


def test_nails_of_a_case_keep_away_from_what_is_cut_into_it():
    # With uprights or shelves behind a back, nails evenly spaced would go into their dados.
    for columns, rows in ((2, 1), (3, 3), (4, 4)):
        plan = planned("case", (("columns", str(columns)), ("rows", str(rows)), ("back", "3")))
        dados = [
            joint.channels[0]
            for joint in plan.assembly.joints
            if "upright" in joint.second or "divider" in joint.second
        ]
        for joint in plan.assembly.joints:
            row = row_in(joint)
            if row is None or joint.type.touches:
                continue
            for place in row.places:
                spot = {row.along: place, row.across: row.level, row.side.axis: row.meets - 1}
                for dado in dados:
                    inside = all(dado.low[axis.value] < at < dado.high[axis.value] for axis, at in spot.items())
                    assert not inside, (joint.id, float(place))


@pytest.mark.dear
@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", [form for form in FORMS if form != "own"])
def test_what_holds_is_bored_as_a_part_is_put_in_its_place(form):
    """Holes are traced through a part that is held there: with it, or just before, and after it has its own holes."""
    for chosen in each_choice(form):
        plan = planned(form, chosen)
        bored, joined, assembled = {}, {}, set()
        for task in order_of_work(plan).tasks:
            for each in task.operations:
                if isinstance(each, Bore) and each.pin is Pin.SCREW:
                    bored.setdefault((each.part, each.row.of), task)
                if isinstance(each, TracePlaces) and (each.mate, each.lines[0].of) in bored:
                    assert bored[each.mate, each.lines[0].of].id != task.id
                    assert task.on_assembly is (each.part in assembled), (chosen, task.id, each.part)
                    bored[each.part, each.lines[0].of] = task
            for join in task.joins:
                if join.how in (Joining.NAILS, Joining.SCREWS):
                    joined |= {part: task for part in join.parts}
                if join.how not in (Joining.DRY, Joining.LOOSE, Joining.STARTED):
                    assembled |= set(join.parts)
        for joint in plan.assembly.joints:
            row = row_in(joint)
            if row is not None:
                task = bored[row.into, joint.id]
                assert task.joins or "bore" in task.id, (chosen, task.id)


@pytest.mark.sampled(9)
@pytest.mark.parametrize(
    "chosen",
    [
        *((form, chosen) for form in sorted(FORMS) for chosen in each_choice(form)),
        # Nails just as long behind the rabbet as before it: a hair more, and they would go another way.
        ("hanging rack", (), (("ends.thickness", mm("12.5")), ("back.thickness", mm(12)))),
    ],
    ids=str,
)
@pytest.mark.parametrize("off", [Fraction(-3, 10), Fraction(3, 10)])
def test_nails_stay_what_they_are_when_what_they_hold_was_cut_to_a_measurement(chosen, off):
    plan = planned(*chosen)
    project = plan.project
    for name in {name for names in waits_of(plan).values() for name in names}:
        project = actions.measure(project, name, Measured(Length(plan.ledger[name] + off)))
    now = work_out(project, milling=False, proving=False)
    before, after = (
        {
            joint.id: (row.through, row.into, row.side, row.fastening.size, len(row.places))
            for joint in each.assembly.joints
            if (row := row_in(joint)) is not None
        }
        for each in (plan, now)
    )
    assert after == before


@pytest.mark.parametrize(("long", "kept"), [(33, True), ("33.1", False)])
def test_what_was_planned_and_would_come_out_now_is_chosen_anew(long, kept):
    """A millimetre is left before its point: in a lid and batten of 34 mm the longest that stays inside is 33."""
    plan = _plan(_lid(thick=16, batten=18))
    usual, (joint,) = _row(_lid(thick=16, batten=18)), plan.assembly.joints
    before = PlannedRow(usual.through, usual.side, mm(long), mm(4), 3)
    first, second = plan.part(joint.first), plan.part(joint.second)
    row = row_of(joint, first, second, RowInput((WoodHeld(), WoodHeld()), Shop(), Marks(), planned=before))
    assert (row.fastening.long == float(long)) is kept


@pytest.mark.parametrize(("apart", "held"), [(Fraction(2), True), (Fraction(201, 100), False)])
def test_a_part_a_little_short_of_its_channel_is_nailed_all_the_same(apart, held):
    plan = planned("hanging rack", ())
    short = actions.measure(plan.project, "back.opening", Measured(Length(plan.ledger["back.opening"] - apart)))
    joints = work_out(short, milling=False, proving=False).assembly.joints
    row = next(row_in(each) for each in joints if each.id == "right-back")
    assert (row is not None and row.side is Side.RIGHT) is held
