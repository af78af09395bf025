"""What is told has been carried out: operations against solids, and what of a plan their words and regions follow."""

import ast
from dataclasses import fields, replace
from fractions import Fraction
from pathlib import Path

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from tests.examples import tried
from tests.told import choices_of, corner_of_own, each_choice, every_operation, operations_of, planned

from nullah.core.apprentice.building import built_otherwise
from nullah.core.apprentice.carrying_out import carry_out, region_solid, thickest
from nullah.core.apprentice.facts import CutAway, LeftStanding, NotDrawn, NotTold, PlaneMustStop, SawnClosed
from nullah.core.card import Severity
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import OwnBoard, offers
from nullah.core.identity import let_go
from nullah.core.joints.steps import flush, joint_steps
from nullah.core.lengths import Length, Marks, Unit, mm, write_bought
from nullah.core.operations.dovetails import SawMitre
from nullah.core.operations.fastening import BoreSlots
from nullah.core.operations.lines import Line, LineKind
from nullah.core.operations.marking import Gauge
from nullah.core.operations.regions import BeyondRegion, block
from nullah.core.operations.settings import ByMate, OfMate, OfTool, ToolSetting, by_rule, of_tool
from nullah.core.operations.shaping import PlaneTaper
from nullah.core.operations.stock import Stock, Surface
from nullah.core.operations.taking import Cut, Take
from nullah.core.piece.contours import CONTOURS, traced
from nullah.core.piece.frame import frames_among
from nullah.core.piece.frames import frames_of
from nullah.core.piece.shaping import Slant
from nullah.core.piece.solids import recipe
from nullah.core.piece.space import Axis, Side
from nullah.core.plan import join_as_offered, prove_plan, work_out
from nullah.core.project import Piece, Project
from nullah.core.proof.finding import FaultKind
from nullah.core.reader import Reader
from nullah.core.shop import Schools, Shop
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.core.wording.marking import ENTERING
from nullah.core.wording.operations import operation_words

MARKS = [
    *(Marks(Unit.INCH, Fraction(1, part)) for part in (16, 32, 64)),
    *(Marks(Unit.MM, mm_mark=mark) for mark in (Fraction(1), Fraction(1, 2), Fraction(1, 10))),
]
SIZES = (mm(300), mm(90), mm(20))
MADE_OTHERWISE = FaultKind.MADE_OTHERWISE
ALL = [(form, chosen) for form in ("box", "drawer") for chosen in choices_of(form)]


def wrong(plan):
    """What comes out otherwise of any part of a plan, built by its operations."""
    frames, parts, found = frames_of(plan.assembly), {part.id: part for part in plan.parts}, []
    for part in plan.parts:
        told = operations_of(plan, part)
        assert told is not None, f"{part.id} is not told as operations"
        designed = recipe(part, plan.assembly.joints, parts)
        frame = frames[part.id]
        found += built_otherwise(frame, frame.stock, told, designed, float(plan.marks.smallest.mm) + 0.02)
    return found


@pytest.mark.dear
@pytest.mark.sampled(7)
@pytest.mark.parametrize(
    "chosen", [(form, chosen) for form in sorted(FORMS.keys() - {"own"}) for chosen in each_choice(form)]
)
def test_every_part_of_every_choice_comes_out_as_designed(chosen):
    for marks in (MARKS[0], MARKS[-1]) if chosen[0] in ("box", "drawer", "table") else MARKS[:1]:
        assert wrong(planned(*chosen, marks=marks)) == []


@pytest.mark.sampled(2)
@pytest.mark.parametrize("by", ["-1", "-0.5", "0", "0.5", "2"])
@pytest.mark.parametrize("form", ["box", "case", "holder"])
def test_ends_stand_proud_of_a_corner_or_inside_it_as_told(form, by):
    marks = MARKS[-2]
    plan = planned(form, (), given=[("tails.proud", mm(by))], marks=marks)
    assert wrong(plan) == []
    told = "" if by == "0" else f", less {by[1:]} mm" if by < "0" else f", and {by} mm more"
    baselines = [operation_words([each], Reader(marks=marks)) for each in _baselines(plan)]
    assert baselines and all(told in each for each in baselines)
    if by == "0":
        assert not any("less" in each or "more" in each for each in baselines)


@pytest.mark.dear
def test_rounded_corners_of_ends_that_are_set_inside_are_not_told_and_the_proof_says_so():
    for by, fine in (("0", True), ("-0.5", False)):
        plan = planned("tray", (("ends", "dovetailed"),), given=[("tails.proud", mm(by))], marks=MARKS[-2])
        assert (wrong(plan) == []) is fine
        assert any(each.trouble is MADE_OTHERWISE for each in prove_plan(plan).findings) is not fine


def _baselines(plan, *parts):
    """The gauging of baselines in the work on these parts, or on all."""
    told = [each for part in plan.parts if part.id in parts or not parts for each in operations_of(plan, part) or ()]
    return [each for each in told if isinstance(each, Gauge) and each.kind is LineKind.BASELINE]


@pytest.mark.sampled(11)
@pytest.mark.parametrize(
    "chosen", [(form, chosen) for form in sorted(FORMS.keys() - {"own"}) for chosen in each_choice(form)]
)
def test_a_corner_is_drawn_with_the_gauges_that_are_told(chosen):
    plan = planned(*chosen)
    for corner in plan.corners:
        for boards, drawn in (
            (corner.tail_boards, corner.layout.gauge_tail_board),
            (corner.pin_boards, corner.layout.gauge_pin_board),
        ):
            told = {each.setting.figure + (each.over.figure if each.over else 0) for each in _baselines(plan, *boards)}
            assert drawn.mm in told, (corner.prefix, boards)


mm_of = st.builds(lambda n, d: Fraction(n, d), st.integers(1, 4000), st.sampled_from([1, 2, 4, 10]))


@pytest.mark.dear
@given(st.data(), st.sampled_from(ALL), st.sampled_from(MARKS))
@tried(25)
def test_at_any_size_it_comes_out_as_designed(data, chosen, marks):
    def size(low, high):
        return Length(Fraction(data.draw(st.integers(low * 10, high * 10)), 10))

    form, choices = chosen
    sized = dict(choices).get("sizing", "outside")
    room = {"outside": "box.outside_", "inside": "box.inside_", "contents": "contents."}[sized]
    given_ = (
        {
            f"{room}length": size(150, 500), f"{room}width": size(100, 350), f"{room}height": size(60, 220),
            "sides.thickness": size(9, 20), "ends.thickness": size(9, 20), "groove.depth": size(2, 6),
            "groove.height": size(5, 14), "bottom.thickness": size(3, 9), "tails.count": data.draw(st.integers(1, 5)),
        }
        if form == "box"
        else {
            "opening.width": size(120, 500), "opening.height": size(60, 220), "opening.depth": size(150, 450),
            "drawer.front_thickness": size(15, 24), "drawer.side_thickness": size(8, 13), "drawer.lap": size(3, 7),
            "drawer.bottom_thickness": size(4, 9), "drawer_tails.count": data.draw(st.integers(1, 4)),
        }
    )  # fmt: skip
    plan = planned(form, choices, given_.items(), marks=marks)
    # What cannot be a piece need not be told: the proof refuses it without asking how it is made.
    failing = [f for f in prove_plan(plan).findings if f.remark.weight is Severity.FAILURE]
    assume(plan.parts and not [f for f in failing if not isinstance(f.remark.fact, LeftStanding | CutAway)])
    assume(all(corner.layout.tail_base.mm > 2 * plan.project.shop.fine_kerf.mm for corner in plan.corners))
    assert wrong(plan) == []


def own_pair(meeting, draw):
    """Two boards of one's own that meet in some way: an upright from the floor, and what stands against it."""

    def size(low, high):
        return Fraction(draw(st.integers(low * 10, high * 10)), 10)

    long, wide, thick, other = size(150, 500), size(60, 250), size(10, 25), size(8, 22)
    deep = min(size(2, 20), thick - 3)
    up, run = size(30, 110), size(150, 400)
    stands = {
        "at a corner": ((run, wide, other), (0, 0, long - other), "xz"),
        "in its side": ((run, wide, other), (thick - deep, 0, up), "xz"),
        "in its side, back from the edge": ((run, wide - 12, other), (thick - deep, 12, up), "xz"),
        "in the middle of its side": ((run, wide / 2, other), (thick - deep, wide / 4, up), "xz"),
        "along its edge": ((long, run, size(5, 9)), (thick - deep, wide - size(9, 20), 0), "zy"),
        "in its edge": ((long, run, thick / 3), (thick / 3, wide - size(4, 12), 0), "zx"),
        "on its face": ((long - up / 2, wide - 8, other), (thick, size(0, 8), size(0, 12)), "zx"),
    }
    if meeting in FRAMED:
        return framed(meeting, size)
    upright = OwnBoard("own1", "upright", tuple(map(Length, (long, wide, thick))), (Length(Fraction(0)),) * 3, "zx")
    sizes, at, lie = stands[meeting]
    held = OwnBoard("own2", "board", tuple(map(Length, sizes)), tuple(Length(Fraction(each)) for each in at), lie)
    return upright, held


def framed(meeting, size):
    """Two rails that lie flat, one along and one across."""
    long, wide, broad, thick = size(200, 400), size(40, 80), size(40, 80), size(16, 30)
    zero = Fraction(0)
    along, across = {
        "crossing": ((zero, size(20, 80), zero), (size(20, 80), zero, zero)),
        "framed at a corner": ((zero, zero, zero), (zero, zero, zero)),
        "framed at the far corner": ((zero, zero, zero), (long - broad, zero, zero)),
        "ending on the other": ((zero, Fraction(150), zero), (size(20, 80), size(10, 40), zero)),
        "across an end": ((zero, zero, zero), (zero, zero, zero)),
    }[meeting]
    if meeting == "across an end":
        wide, broad = wide + 200, broad + 20
        at = (long - size(25, 50), zero, zero)
        return (
            OwnBoard("own1", "panel", tuple(map(Length, (long, wide, thick))), tuple(map(Length, along)), "xz"),
            OwnBoard("own2", "end", tuple(map(Length, (wide, broad, thick))), tuple(map(Length, at)), "yz"),
        )
    reach = 150 + wide - across[1] - size(2, 10) if meeting == "ending on the other" else size(200, 400)
    return (
        OwnBoard("own1", "rail", tuple(map(Length, (long, wide, thick))), tuple(map(Length, along)), "xz"),
        OwnBoard("own2", "stile", tuple(map(Length, (reach, broad, thick))), tuple(map(Length, across)), "yz"),
    )


FRAMED = ("crossing", "framed at a corner", "framed at the far corner", "ending on the other", "across an end")
MEETINGS = (*FRAMED, "at a corner", "in its side", "in its side, back from the edge", "in the middle of its side",
            "along its edge", "in its edge", "on its face")  # fmt: skip


@pytest.mark.sampled(3)
@pytest.mark.parametrize("meeting", MEETINGS)
@given(st.data(), st.sampled_from(MARKS))
@tried(8)
def test_boards_of_ones_own_come_out_as_designed(meeting, data, marks):
    project = Project(Piece("own", "own", own=own_pair(meeting, data.draw)), marks=marks)
    one, two = work_out(project, milling=False, proving=False).parts
    offered = offers(one, two, "ownjoint1")
    assert offered
    for number in range(len(offered)):
        plan = work_out(join_as_offered(project, "own1", "own2", number), milling=False)
        if not [f for f in plan.findings if f.remark.weight is Severity.FAILURE and f.trouble is not MADE_OTHERWISE]:
            assert wrong(plan) == []


@pytest.mark.parametrize("shop", [Shop(), Shop(schools=Schools("pins first", "chop only"))], ids=("tails", "pins"))
@pytest.mark.parametrize("proud", [Fraction(0), Fraction(1, 2)], ids=("flush", "proud"))
def test_a_corner_of_moulded_boards_comes_out_as_designed(shop, proud):
    plan = corner_of_own("front", "side", shop=shop)
    joints = plan.assembly.joints
    bare = {part.id: part._replace(shapings=(), spare=2 * proud) for part in plan.parts}
    frames = frames_among(bare.values())
    told = [each for step in joint_steps(frames, joints[0], plan.marks, shop) for each in step.operations]
    assert [each.proud.figure for each in told if isinstance(each, SawMitre)] == [proud, proud]
    for part in bare.values():
        frame, done = frames[part.id], tuple(each for each in told if each.part == part.id)
        planed = (*done, *flush(frame))
        assert not built_otherwise(frame, frame.stock, planed, recipe(part, joints, bare), 0.1)


def test_a_notch_is_told_after_the_rabbet_and_set_to_what_it_leaves():
    """Trade practice (no published source): rabbet first, then the notch as deep as what is left beside it."""
    plan = planned("chest", each_choice("chest")[0])
    joint = next(each for each in plan.assembly.joints if {each.first, each.second} == {"left", "front"})
    steps = joint_steps(frames_of(plan.assembly), joint, plan.marks, plan.project.shop)
    told = [each for step in steps for each in step.operations]
    cuts = [each.cut for each in told if isinstance(each, Take)]
    assert cuts == [Cut.END_RABBET, Cut.NOTCH]
    rabbet = next(each for each in told if isinstance(each, Gauge) and each.kind is LineKind.DEPTH)
    deep = next(each for each in told if isinstance(each, Gauge) and each.kind is LineKind.NOTCH)
    front = plan.part("front").thickness.mm
    assert rabbet.setting.origin is Surface.FACE_SIDE and deep.setting.by == ByMate("front")
    assert deep.setting.figure == front - rabbet.setting.figure > 0
    # A lid lies on both: the front is held level with the upper end, and its lower edge marked from itself.
    shoulder = next(each for each in told if isinstance(each, Gauge) and each.part == "left" and each is not deep)
    assert shoulder.setting.origin is Surface.FAR_END and shoulder.setting.by == ByMate("front")
    assert shoulder.setting.figure == plan.part("front").width.mm


@pytest.mark.parametrize("side", [Side.FRONT, Side.BACK, Side.LEFT, Side.RIGHT])
def test_an_outline_comes_out_as_its_points_say(side):
    (bare,) = work_out(Project(Piece("own", own=(OwnBoard("own1", "board", SIZES, (mm(0),) * 3),)))).parts
    made = traced(bare, side, "0, 8\n30.2, 12.3\n80, 5.1", Unit.MM)
    board = OwnBoard("own1", "board", SIZES, (mm(0),) * 3, shapings=(made,))
    plan = work_out(Project(Piece("own", own=(board,)), marks=MARKS[-1]), milling=False, proving=False)
    assert wrong(plan) == []
    (told,) = operations_of(plan, plan.parts[0])
    assert told.draws[0].offsets == ((0, 8), (Fraction(302, 10), Fraction(123, 10)), (80, Fraction(51, 10)))
    assert "12.3 mm at 30.2 mm" in operation_words([told], plan.reader)


@pytest.mark.parametrize(("ends", "said_so"), [((0.0, 8.0), False), ((12.0, 20.0), False), ((0.5, 8.0), True)])
def test_what_no_tool_gets_to_is_said(ends, said_so):
    hole = Slant(Axis.Z, ((40.0, 20.0), (80.0, 20.0), (60.0, 50.0)), ends)
    board = OwnBoard("own1", "board", SIZES, (mm(0),) * 3, shapings=(hole,))
    plan = work_out(Project(Piece("own", own=(board,))), milling=False)
    assert [type(each.remark.fact) for each in plan.findings] == [NotTold] * said_so
    assert wrong(plan) == [] if not said_so else operations_of(plan, plan.parts[0]) is None


@pytest.mark.sampled(3)
@pytest.mark.parametrize("contour", CONTOURS.values(), ids=lambda contour: contour.id)
@pytest.mark.parametrize("lie", ["xz", "zy"])
@pytest.mark.parametrize("marks", [MARKS[0], MARKS[-1]], ids=["coarse", "fine"])
def test_every_contour_at_every_place_comes_out_as_designed(contour, lie, marks):
    (bare,) = work_out(Project(Piece("own", own=(OwnBoard("own1", "board", SIZES, (mm(0),) * 3, lie),)))).parts
    for place in contour.places(bare):
        made = contour.make(bare, place.sides, tuple(float(share) * 60 + 0.3 for _, share in contour.figures))
        board = OwnBoard("own1", "board", SIZES, (mm(0),) * 3, lie, shapings=(made,))
        plan = work_out(Project(Piece("own", own=(board,)), marks=marks), milling=False, proving=False)
        assert wrong(plan) == [], place.title


# --- from its own fields alone -----------------------------------------------------------------------------------


def test_operations_see_neither_solids_nor_the_overlap_nor_channels():
    room = Path(__file__).parents[2] / "src/nullah/core/operations"
    small = ("nullah.core.fraction", "nullah.core.named_tuple")
    for path in room.glob("*.py"):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            names = [node.module] if isinstance(node, ast.ImportFrom) else []
            names += [each.name for each in node.names] if isinstance(node, ast.Import) else []
            for name in filter(None, names):
                assert not name.startswith("nullah.") or name.startswith(
                    ("nullah.core.operations", "nullah.core.lengths", "nullah.core.catalogue", *small)
                ), (path.name, name)


def settings_in(value):
    """Every setting that a field of an operation holds."""
    if isinstance(value, ToolSetting):
        return [value]
    if isinstance(value, tuple):
        return [each for item in value for each in settings_in(item)]
    return []


def altered(value, old, new):
    """A field with one setting in it, or one figure, put in the place of another."""
    if value == old and isinstance(value, ToolSetting):
        return new
    if isinstance(value, tuple):
        found = [altered(each, old, new) for each in value]
        return type(value)(*found) if hasattr(value, "_fields") else tuple(found)
    return value


def effect(operation):
    return operation.takes, operation.draws


#: Lines that are traced from the mate: it is held there, and no figure is said.
TRACED = (LineKind.TENON_EDGE, LineKind.FINGER)


def _taken_over(operation, setting):
    """Return whether a figure is taken over from the mate as it is: held there, or as deep as its channel came out."""
    if isinstance(operation, Gauge):
        return operation.kind in TRACED or setting.name in ENTERING
    return isinstance(operation, Take) and operation.cut is Cut.TONGUE and setting.name == "wide"


@pytest.mark.dear
def test_another_figure_makes_another_region_and_other_words():
    for operation in every_operation():
        _every_figure_counts(operation)


def _every_figure_counts(operation):
    step = Fraction(1, 2)
    words = operation_words([operation], Reader(Marks(mm_mark=Fraction(1, 10))))
    for each in fields(operation):
        value = getattr(operation, each.name)
        if each.name == "stock" or each.name == "tools":
            continue
        for setting in settings_in(value):
            if setting.value is None or isinstance(setting.origin, OfMate):
                continue
            more = setting._replace(value=setting.figure + step)
            if isinstance(setting.origin, OfTool):
                more = of_tool(setting.name, Length(setting.figure + step))
            other = replace(operation, **{each.name: altered(value, setting, more)})
            assert effect(other) != effect(operation), setting
            if isinstance(setting.by, ByMate) and _taken_over(operation, setting):
                continue  # nobody reads a figure there
            assert operation_words([other], Reader(Marks(mm_mark=Fraction(1, 10)))) != words, setting
        if isinstance(value, Fraction) and each.name not in ("kerf",):
            other = replace(operation, **{each.name: value + step})
            assert effect(other) != effect(operation), each.name
        if isinstance(value, Length):
            other = replace(operation, **{each.name: value + Length(step)})
            assert effect(other) != effect(operation), each.name
            assert operation_words([other], Reader(Marks(mm_mark=Fraction(1, 10)))) != words, each.name


# --- what cannot be carried out -----------------------------------------------------------------------------------

STOCK = Stock(Fraction(300), Fraction(100), Fraction(18))
DEPTH = by_rule("depth", Fraction(6), Surface.FACE_SIDE, Marks())


def take(cut, x, y=(Surface.FACE_EDGE, Surface.OTHER_EDGE), of="dado"):
    return Take(part="p", stock=STOCK, cut=cut, into=Surface.FACE_SIDE, x=x, y=y, z=(Surface.FACE_SIDE, DEPTH), of=of)


def line(axis, at):
    return Line(LineKind.WALL, axis, Fraction(at), number=at)


def test_a_line_that_nobody_drew_is_worked_to():
    made = take(Cut.DADO, (line(0, 50), line(0, 68)))
    assert {type(each) for each in carry_out(STOCK, [made]).refused} == {NotDrawn}
    assert len(carry_out(STOCK, [made]).refused) == 2


def test_a_plane_runs_on_to_both_ends():
    ends = (Surface.REFERENCE_END, Surface.FAR_END)
    short = (by_rule("stop", Fraction(20), Surface.REFERENCE_END, Marks()), Surface.FAR_END)
    wall = (
        by_rule("fence", Fraction(10), Surface.FACE_EDGE, Marks()),
        by_rule("far", Fraction(16), Surface.FACE_EDGE, Marks()),
    )
    assert carry_out(STOCK, [take(Cut.PLOUGH, ends, wall)]).refused == ()
    assert carry_out(STOCK, [take(Cut.PLOUGH, short, wall)]).refused == (PlaneMustStop(take(Cut.PLOUGH, short, wall)),)


def test_a_saw_needs_an_open_end():
    x = (
        by_rule("first", Fraction(50), Surface.REFERENCE_END, Marks()),
        by_rule("second", Fraction(68), Surface.REFERENCE_END, Marks()),
    )
    closed = (
        by_rule("low", Fraction(10), Surface.FACE_EDGE, Marks()),
        by_rule("high", Fraction(10), Surface.OTHER_EDGE, Marks()),
    )
    assert carry_out(STOCK, [take(Cut.DADO, x)]).refused == ()
    assert carry_out(STOCK, [take(Cut.DADO, x, closed)]).refused == (SawnClosed(take(Cut.DADO, x, closed)),)


def test_a_difference_counts_from_the_mark_on():
    slab = region_solid(block((0, 40), (0, 40), (0, Fraction(1, 2))))
    assert thickest(slab, 0.51) == 0 and thickest(slab, 0.49) == pytest.approx(0.49)
    assert thickest(region_solid(block((0, 40), (0, 40), (0, 5))), 0.5) == pytest.approx(5, rel=0.2)


def test_wood_left_and_wood_cut_away_are_told_with_the_operation():
    plan = planned("box", (("corners", "rabbeted"),))
    part = plan.part("front")
    frame, told = frames_of(plan.assembly)["front"], operations_of(plan, part)
    designed = recipe(part, plan.assembly.joints, {each.id: each for each in plan.parts})
    rabbet = next(each for each in told if isinstance(each, Take) and each.cut is Cut.END_RABBET)
    without = tuple(each for each in told if each != rabbet)
    (left,) = built_otherwise(frame, frame.stock, without, designed, 0.5)
    assert isinstance(left, LeftStanding) and left.thick.mm > 5
    deeper = replace(
        rabbet,
        y=(by_rule("low", Fraction(-5), Surface.FACE_EDGE, Marks()), rabbet.y[1]),
        z=(rabbet.z[0], Surface.OTHER_FACE),
    )
    (gone,) = built_otherwise(
        frame, frame.stock, tuple(deeper if each == rabbet else each for each in told), designed, 0.5
    )
    assert isinstance(gone, CutAway) and gone.operation == deeper
    # Both lie within the rabbet's own place, or what it was made deeper by.
    assert left.bounds[0] == pytest.approx((0, 0, 0), abs=0.01)
    assert left.bounds[1][0] == pytest.approx(float(plan.ledger["corner.width"]))


def test_what_comes_out_otherwise_is_said_of_its_operation_on_the_card_and_drawn_where_it_is(monkeypatch):
    from nullah.core.operations import taking

    whole = taking.Take.takes.fget

    def half(made):
        found = whole(made)
        cut = made.cut is Cut.END_RABBET
        return tuple(each._replace(end=(each.start + each.end) / 2) for each in found) if cut else found

    short = property(half)
    monkeypatch.setattr(taking.Take, "takes", short)
    let_go()
    plan = work_out(Project(Piece("box", "box", choices=(("corners", "rabbeted"),))), milling=False)
    monkeypatch.undo()
    # Nobody else is to find this proof.
    let_go()
    found = [each for each in plan.findings if each.trouble is MADE_OTHERWISE]
    assert {each.parts for each in found} == {("front",), ("back",)}
    front = next(each for each in found if each.parts == ("front",))
    # Inside the part, as deep as its rabbets.
    assert front.place.overlap(plan.part("front").box) == front.place
    assert front.place.size(Axis.Y) == plan.ledger["corner.depth"]
    card = next(each for each in STATIONS if each.id == "joints").card(plan, Selection(part="left"))
    assert front.remark in card.mind


def test_what_lies_beyond_a_plane_is_cut_off():
    solid = carry_out(STOCK, []).solid
    from nullah.core.apprentice.carrying_out import without

    kept = without(solid, BeyondRegion((250.0, 0.0, 0.0), (2.0, 0.0, 0.0)))
    assert kept.volume() == pytest.approx(250 * 100 * 18)


def test_a_taper_that_begins_lower_down_says_where():
    def leg(start):
        made = PlaneTaper(
            part="leg",
            stock=STOCK,
            end=Surface.FAR_END,
            toe=by_rule("toe", Fraction(5), Surface.OTHER_FACE, Marks()),
            start=None if start is None else by_rule("start", Fraction(start), Surface.REFERENCE_END, Marks()),
        )
        return operation_words([made], Reader()), carry_out(STOCK, [made]).solid.volume()

    words, left = leg(120)
    assert "120 mm from the reference end" in words and "runs out" not in words
    assert left == pytest.approx(300 * 100 * 18 - 180 * 5 / 2 * 100)
    assert "runs out at the other end" in leg(None)[0] and leg(130)[0] != words


@pytest.mark.parametrize("marks", MARKS)
def test_the_holes_of_a_slot_stand_apart_by_what_a_rule_has(marks):
    plan = planned("tray", (), marks=marks)
    slots = [each for each in operations_of(plan, plan.part("left")) if isinstance(each, BoreSlots)]
    drawer = planned("drawer", (), marks=marks)
    (screwed,) = [each for each in operations_of(drawer, drawer.part("drawer_bottom")) if isinstance(each, BoreSlots)]
    told = operation_words([screwed], drawer.reader)
    assert f"two holes of {write_bought(screwed.bit)}, {marks.write(Length(screwed.travel))} apart" in told
    assert slots
    for each in slots:
        told = operation_words([each], plan.reader)
        # A hand hole is as high as was typed, and no bit says in which unit.
        assert f"two holes of {marks.write(each.bit)}, {marks.write(Length(each.travel))} apart" in told
        assert ("mm" in told) is (marks.unit is Unit.MM)
