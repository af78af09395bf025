"""The limits of each family of joints, on joints made up to be just good and just bad."""

from fractions import Fraction

import pytest
from tests.said import said

from nullah.core import actions
from nullah.core.card import Severity
from nullah.core.drawing import Label, Path, Role
from nullah.core.fixes import Give
from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.joints.bench import AtBench
from nullah.core.joints.butt import BUTT
from nullah.core.joints.cutouts import mitred, sizes_of, spans_of
from nullah.core.joints.dovetail.layout import DovetailFigures, lay_out
from nullah.core.joints.fasteners import SAFE_SHARE, fastening, nail_withdrawal
from nullah.core.joints.kinds import kind_of, kinds_of
from nullah.core.joints.made_up import make_up
from nullah.core.joints.mate_views import extent_of, mate_views, shown_part
from nullah.core.joints.types import told_of
from nullah.core.joints.views import divider_pricks
from nullah.core.lengths import Length, Marks, Slope, Unit, mm
from nullah.core.piece.facts import DrawerTooLarge, HingesTooLong, HingeTooWide, SidesAboveFront
from nullah.core.piece.faults import BoredThrough, DowelsTooMany, Shallow, ThinTongue, WeakTail
from nullah.core.piece.joint import Hold, Joint
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.shop import Schools, Shop
from nullah.demo.seed_cabinet import seed_cabinet


def told(family, *figures, shop=None, marks=None):
    (kind,) = kinds_of(make_up(family, figures).assembly)
    return told_of(AtBench(kind, marks or Marks(), shop or Shop()))


def look(told_of_it):
    return " ".join(said(remark) for remark in told_of_it.remarks if remark.weight is not Severity.NOTE)


# --- let in -------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("deep", "words"), [(6, ""), (8, "more than a third of 18.0 mm"), (16, "left under it: that breaks")]
)
def test_a_dado_s_depth(deep, words):
    assert words in look(told("dado", 150, 18, 12, deep, 10)) and bool(words) is bool(
        look(told("dado", 150, 18, 12, deep, 10))
    )


@pytest.mark.parametrize(("deep", "words"), [(8, ""), (10, "more than half of 18.0 mm"), (16, "that breaks")])
def test_a_rabbet_s_depth(deep, words):
    assert words in look(told("rabbet", 90, 18, 9, deep))


def test_a_dado_near_the_end_leaves_it_long():
    # The board is 140 long and the dado in its middle: a shelf 124 thick leaves 8 beside it.
    assert "likely to split off" in look(told("dado", 150, 18, 124, 5, 0))


def test_what_is_traced_is_named_and_what_is_gauged_has_a_figure():
    dado = told("dado", 150, 18, 12, 6, 10)
    notes = {setting.tool: setting.note for setting in dado.settings}
    assert "trace the second wall from shelf" in notes["Wide"] and "router plane" in notes["Depth"]
    assert "Measure it and all that follows" in dado.why[0]
    groove = told("groove", 90, 14, 6, 4.5, 9)
    assert any("Plough with the fence" in step.text for step in groove.steps)
    rabbet = told("rabbet", 90, 18, 9, 8)
    assert any("sits in, or a hair inside" in step.text for step in rabbet.steps)


def test_settings_follow_the_unit_and_the_mark():
    inch = told("dado", 150, 25.4, 12.7, 6.35, 0, marks=Marks(Unit.INCH))
    figures = {setting.tool: setting.figure for setting in inch.settings}
    assert figures["Wide"] == "1/2″" and figures["Depth"] == "1/4″"


# --- tenons ---------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("figures", "words"),
    [
        ((44, 70, 20, 6, 28, 16), ""),
        ((44, 70, 20, 3, 28, 16), "is thin; a third is usual"),
        ((44, 70, 20, 12, 28, 16), "thin cheeks"),
        ((44, 70, 20, 8, 28, 16), "No chisel is 8.0 mm wide"),
        ((44, 70, 20, 6, 4, 16), "holds little"),
        ((44, 70, 20, 6, 28, 5), "likely to split"),
    ],
)
def test_a_tenon_s_limits(figures, words):
    found = look(told("haunched", *figures))
    assert words in found and (words or not found or "wide moves" in found)


@pytest.mark.parametrize(
    ("school", "first"), [("shoulders first", "Saw the shoulders"), ("cheeks first", "Saw the cheeks")]
)
def test_a_tenon_is_sawn_in_the_way_that_was_chosen(school, first):
    steps = told("haunched", 44, 70, 20, 6, 28, 16, shop=Shop(schools=Schools(tenon=school))).steps
    assert any(step.text.startswith(first) for step in steps)


# --- laps and mitres -----------------------------------------------------------------------------------------------


def test_a_lap_is_gauged_to_half_and_a_bridle_to_a_third():
    assert {s.figure for s in told("cross", 40, 30, 20).settings if s.tool == "Gauge"} == {"10.0 mm"}
    assert {s.figure for s in told("bridle", 40, 21).settings if s.tool == "Gauge"} == {"7.0 mm"}
    assert "it breaks" in look(told("cross", 40, 30, 5))
    assert "it breaks" not in look(told("cross", 40, 30, 20))


def test_a_mitre_is_said_to_be_weak_and_drawn_at_its_corner():
    (kind,) = kinds_of(make_up("keyed", (40, 18, 2, 20)).assembly)
    assert "holds little" in look(told_of(AtBench(kind, Marks(), Shop())))
    for mate, other in ((kind.first, kind.second), (kind.second, kind.first)):
        slope = mitred(mate.part, other.part)
        assert slope.on_face and len(set(slope.corners)) == 3
        drawn = list(mate_views(mate, "black cherry", Marks()))
        triangles = [e for e in drawn if isinstance(e, Path) and len(e.points) == 3 and e.closed]
        assert len(triangles) == 1 and triangles[0].role is Role.KNIFE
        # Half of the square where both fill the same space.
        (x0, y0), (x1, y1), (x2, y2) = triangles[0].points
        assert abs((x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)) / 2 == pytest.approx(40 * 40 / 2)


# --- nails and screws -------------------------------------------------------------------------------------------------


def butt(hold):
    made = make_up("cross", (40, 30, 20)).assembly
    # Laid on one another instead of let into each other: the upper one stands on the lower one's face.
    lower, upper = made.parts
    lifted = upper._replace(box=upper.box.moved((0, 0, lower.box.high[2])))
    return made._replace(parts=(lower, lifted), joints=(Joint("b", BUTT, lower.id, lifted.id, hold),))


@pytest.mark.parametrize(("hold", "tool"), [(Hold.NAILS, "Nails"), (Hold.SCREWS, "Screws"), (Hold.SLOTS, "Screws")])
def test_nails_and_screws_are_set_out_and_say_what_they_carry(hold, tool):
    (kind,) = kinds_of(butt(hold))
    found = told_of(AtBench(kind, Marks(), Shop(), gravities=(0.5, 0.5)))
    figures = {setting.tool: setting for setting in found.settings}
    assert tool in figures and "Each may carry" in figures
    row = fastening(hold is not Hold.NAILS, 20, 20, 40, 0.5, True, False)
    assert figures["Each may carry"].figure == f"{row.holds * SAFE_SHARE:.0f} N"
    assert said(found.remarks[-1]).startswith("Test nail or screw")
    touch = [
        e for e in mate_views(kind.first, "black cherry", Marks()) if isinstance(e, Path) and e.role is Role.PENCIL
    ]
    assert touch, "where the other part lies is pencilled"


def test_denser_wood_holds_more_and_a_nail_in_end_grain_half():
    assert nail_withdrawal(0.6, 2, 25) / nail_withdrawal(0.3, 2, 25) == pytest.approx(2**2.5)
    side, end = (fastening(False, 10, 60, 200, 0.5, True, at_end) for at_end in (False, True))
    assert end.holds == pytest.approx(side.holds / 2) and end.places == side.places


def test_a_glued_butt_says_where_it_is_weak():
    (kind,) = kinds_of(butt(Hold.GLUE))
    assert "End grain" in look(told_of(AtBench(kind, Marks(), Shop())))


# --- drawings ---------------------------------------------------------------------------------------------


def test_a_long_part_is_broken_off_and_an_end_that_is_shown_is_its_own():
    assembly = work_out(seed_cabinet(), milling=False, proving=False).assembly
    dadoed = next(kind for kind in kinds_of(assembly) if kind.name == "stopped dado")
    kind = kind_of(assembly, dadoed.all, "divider21")
    host = shown_part(kind.first)
    assert (host.starts, host.ends) == (False, False) and host.low < kind.first.cutouts[0].along[0] < host.high
    groove = kinds_of(make_up("groove", (90, 14, 6, 4.5, 9)).assembly)[0].first
    assert shown_part(groove).starts and shown_part(groove).ends
    wide, high = extent_of(kind.first)
    assert wide > host.high - host.low and high > 150
    assert spans_of(kind.first.part, kind.first.part.box)[1] == (0, sizes_of(kind.first.part).across)


def test_dividers_prick_every_tail_and_go_over_by_the_pin():
    layout = lay_out(DovetailFigures(mm(150), mm(15), mm(15), 3, mm(8), mm(6), Slope(mm(7).mm)))
    drawn = list(divider_pricks(layout, Marks()))
    levels = {round(150 - e.points[0][1], 6) for e in drawn if isinstance(e, Path)}
    assert {round(float(mark), 6) for mark in layout.marks} <= levels
    # The last step from either side passes the other half-pin line by the pin.
    assert {150 - 8 + 6, 8 - 6} <= levels
    assert any("over by the pin, 6.0 mm" in e.text for e in drawn if isinstance(e, Label))


# --- how far parts go into each other, and what is left of them; hinges ------------------------------------------


def facts_of(plan):
    return [(remark, getattr(remark.fact, "fact", remark.fact)) for remark in plan.remarks]


def complained(form, kind, choices=(), **given):
    sizes = tuple(
        (name.replace("__", "."), value if isinstance(value, Length) else mm(value)) for name, value in given.items()
    )
    plan = work_out(Project(piece=Piece(form, form, choices=choices, given=sizes)), milling=False)
    return [remark for remark, fact in facts_of(plan) if isinstance(fact, kind)]


@pytest.mark.parametrize(("deep", "said_so"), [(1, True), ("1.9", True), (2, False), (6, False)])
def test_a_dado_that_hardly_holds(deep, said_so):
    found = complained("wall shelf", Shallow, dado__depth=deep)
    assert bool(found) is said_so
    if found:
        assert found[0].fixes == (Give("dado.depth", mm(2)),)


@pytest.mark.parametrize(("long", "said_so"), [(9, True), ("14.9", True), (15, False), (22, False)])
def test_a_short_tenon_of_an_apron(long, said_so):
    """An apron 90 wide wants tenons of a sixth of that (practice, no published source)."""
    assert bool(complained("table", Shallow, tenon__length=long, apron__width=90)) is said_so


@pytest.mark.parametrize(("deep", "said_so"), [(15, True), ("14.5", True), (14, False), (6, False)])
def test_a_rabbet_that_leaves_next_to_nothing(deep, said_so):
    assert bool(complained("chest", ThinTongue, rabbet__depth=deep, sides__thickness=18)) is said_so


@pytest.mark.parametrize(("overlap", "said_so"), [(1, True), ("3.9", True), (4, False), (20, False)])
def test_boards_that_are_hardly_halved(overlap, said_so):
    own = (
        OwnBoard("own1", "one", (mm(300), mm(60), mm(20)), (mm(0), mm(60), mm(0))),
        OwnBoard("own2", "other", (mm(200), mm(60), mm(20)), (mm(100), mm(0), mm(20) - mm(overlap)), "yz"),
    )
    piece = Piece("own", own=own, own_joints=(OwnJoint("ownjoint1", "lap", "own1", "own2"),))
    plan = work_out(Project(piece=piece), milling=False)
    assert any(isinstance(fact, Shallow) for _, fact in facts_of(plan)) is said_so


@pytest.mark.parametrize(("over", "said_so"), [(0, False), ("0.1", True), (4, True), (-2, False)])
@pytest.mark.parametrize("way", ["length", "width"])
def test_a_drawer_s_front_is_no_larger_than_its_opening(way, over, said_so):
    room = {"length": "opening__width", "width": "opening__height"}[way]
    sizes = {room: 120, f"drawer_front__{way}": mm(120) + mm(over), "drawer_sides__width": 80}
    found = complained("drawer", DrawerTooLarge, **sizes)
    assert bool(found) is said_so
    if found:
        assert found[0].fixes == (Give(f"drawer_front.{way}", mm("118.4")),)


@pytest.mark.parametrize(("wide", "said_so"), [(100, False), ("100.1", True), (113, True)])
def test_a_drawer_s_sides_stay_below_its_front(wide, said_so):
    given_ = {"drawer_front__width": 100, "drawer_sides__width": wide}
    assert bool(complained("drawer", SidesAboveFront, **given_)) is said_so


HINGED = (("lid", "hinged"),)


@pytest.mark.parametrize(("leaf", "said_so"), [(12, False), (15, False), ("15.1", True), (30, True)])
def test_a_hinge_s_leaf_fits_its_edge(leaf, said_so):
    found = complained("box", HingeTooWide, HINGED, hinge__leaf=leaf, sides__thickness=15)
    assert bool(found) is said_so and all(each.weight is Severity.FAILURE for each in found)


@pytest.mark.parametrize(("long", "said_so"), [(50, False), (90, False), ("90.5", True), (200, True)])
def test_two_hinges_fit_the_length_of_a_box(long, said_so):
    choices = (*HINGED, ("sizing", "outside"))
    assert bool(complained("box", HingesTooLong, choices, hinge__length=long, box__outside_length=360)) is said_so


def test_a_hinged_lid_is_flush_with_the_back_and_a_lifted_one_stands_over():
    """Or it would not open (trade practice, no published source)."""
    for lid, behind in (("hinged", 0), ("lift", 6)):
        given_ = (("lid.over", mm(6)),)
        plan = work_out(
            Project(piece=Piece("box", choices=(("lid", lid),), given=given_)), milling=False, proving=False
        )
        assert plan.part("lid").box.high[1] - plan.part("back").box.high[1] == behind


# --- sliding dovetails, tongues, dowels ---------------------------------------------------------------------


def own_pair(joint, one, two, **given_):
    """Join two boards of one's own: sizes, place and lie of each."""
    boards = tuple(
        OwnBoard(f"own{n}", f"board {n}", tuple(map(mm, sizes)), tuple(map(mm, at)), lie)
        for n, (sizes, at, lie) in enumerate((one, two), start=1)
    )
    project = Project(piece=Piece("own", own=boards, own_joints=(OwnJoint("ownjoint1", joint, "own1", "own2"),)))
    for name, value in given_.items():
        project = actions.give(project, name.replace("__", "."), value)
    return work_out(project, milling=False)


UPRIGHT = (400, 200, 18), (0, 0, 0), "zx"


def slid(deep, thick=18, run=7):
    divider = (300, 200, thick), (18 - deep, 0, 150), "xz"
    return own_pair("sliding dovetail", UPRIGHT, divider, ownjoint1_tail__slope=Slope(Fraction(run)))


@pytest.mark.parametrize(("thick", "weak"), [(5, False), ("4.9", True)])
def test_a_sliding_tail_keeps_three_millimetres_of_neck(thick, weak):
    # 7 mm deep at 1:7 leaves 2 mm less than the board is thick.
    found = [fact for _, fact in facts_of(slid(7, thick)) if isinstance(fact, WeakTail)]
    assert bool(found) is weak
    if weak:
        assert (found[0].neck, found[0].least) == (mm("2.9"), mm(3))


@pytest.mark.parametrize(("run", "weak"), [(4, False), ("3.9", True)])
def test_no_sliding_dovetail_is_steeper_than_one_in_four(run, weak):
    assert any(isinstance(fact, WeakTail) for _, fact in facts_of(slid(7, run=run))) is weak


def test_a_sliding_dovetail_comes_apart_over_an_open_edge_alone():
    plan = slid(7)
    (step,) = plan.proof.order.steps
    assert step.way.axis.name == "Y" and plan.proof.clean
    # Slopes hold it: pulled straight out it is in its own way.
    joint = plan.assembly.joints[0]
    ways = joint.type.frees(joint, *(plan.part(part) for part in ("own1", "own2")))
    assert {side.axis.name for side in ways} == {"Y"}


LEG = (400, 45, 45), (0, 0, 0), "zx"


def dowelled(**given_):
    rail = (300, 60, 20), (45, 10, 300), "xy"
    sizes = {name: value if name == "count" else mm(value) for name, value in given_.items()}
    return own_pair("dowels", LEG, rail, **{f"ownjoint1_dowels__{name}": value for name, value in sizes.items()})


@pytest.mark.parametrize(("deep", "through"), [(42, False), ("42.5", True)])
def test_a_dowel_s_hole_leaves_half_its_diameter_behind_it(deep, through):
    found = [fact for _, fact in facts_of(dowelled(diameter=6, first=deep)) if isinstance(fact, BoredThrough)]
    assert [(fact.part, fact.size) for fact in found] == ([("own1", mm(45))] if through else [])
    rail = [fact for _, fact in facts_of(dowelled(diameter=6, second=298)) if isinstance(fact, BoredThrough)]
    assert [fact.part for fact in rail] == ["own2"]


@pytest.mark.parametrize(("inset", "crowded"), [(12, False), ("12.5", True)])
def test_dowels_stand_two_diameters_apart(inset, crowded):
    # Four over 60 mm less both insets: 12 mm apart, or less.
    found = dowelled(diameter=6, count=4, inset=inset)
    assert any(isinstance(fact, DowelsTooMany) for _, fact in facts_of(found)) is crowded


def test_dowels_fill_their_holes_in_both_parts_at_one_place():
    plan = dowelled(diameter=6)
    (joint,), parts = plan.assembly.joints, (plan.part("own1"), plan.part("own2"))
    holes = [joint.type.cut(joint, *parts, first).holes for first in (True, False)]
    assert [hole.centre for hole in holes[0]] == [hole.centre for hole in holes[1]]
    assert (holes[0][0].high, holes[1][0].low) == (45, 45), "both open where the parts touch"
    assert [hole.centre[1] for hole in holes[0]] == [312, 348]


@pytest.mark.parametrize(("over", "lies"), [(0, True), (1, False)])
def test_tongue_and_groove_are_for_boards_of_one_thickness_flush(over, lies):
    lower, upper = ((400, 90, 18), (0, 0, 0), "xy"), ((400, 90, 18), (0, over, 82), "xy")
    plan = own_pair("tongue and groove", lower, upper)
    assert plan.proof.clean is lies
    if lies:
        (tongue,), (groove,) = plan.assembly.joints[0].shares, plan.assembly.joints[0].channels
        assert tongue == groove and float(tongue.size(plan.part("own1").face)) == 6, "a third, to an iron of the plough"
