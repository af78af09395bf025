"""The limits of each family of joints, on joints made up to be just good and just bad."""

from fractions import Fraction

import pytest

from nullah.core import actions
from nullah.core.card import Severity
from nullah.core.drawing import Label, Path, Role
from nullah.core.fixes import Give
from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.joints.bench import AtBench
from nullah.core.joints.cautions import (
    DeepChannel,
    DeepRabbet,
    EndGrainGlued,
    NoChiselAsWide,
    NoChiselEnters,
    NoIronEnters,
    PloughStops,
    Resists,
    ShortAboveMortise,
    ShortEnd,
    ShortTenon,
    ThickTenon,
    ThinBesideMortise,
    ThinLap,
    ThinTenon,
    ThinUnder,
    TryInScrap,
    WeakMitre,
    WideTenon,
)
from nullah.core.joints.cutouts import mitred, sizes_of, spans_of
from nullah.core.joints.dovetail.layout import DovetailFigures, lay_out
from nullah.core.joints.fasteners import SAFE_SHARE, fastening, nail_withdrawal
from nullah.core.joints.kinds import kind_of, kinds_of
from nullah.core.joints.mate_views import extent_of, mate_views, shown_part
from nullah.core.joints.types import cautions_of, holes_of
from nullah.core.joints.views import divider_pricks
from nullah.core.lengths import Length, Marks, Slope, mm
from nullah.core.piece.cuts import block_of
from nullah.core.piece.facts import DrawerTooLarge, HingesTooLong, HingeTooWide, SidesAboveFront
from nullah.core.piece.faults import BoredThrough, DowelsTooMany, Shallow, ThinTongue, WeakTail
from nullah.core.piece.joint import Hold
from nullah.core.piece.solids import block_solid, build
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.reader import Reader
from nullah.core.shop import Shop
from nullah.core.stations.joints import joint_card
from nullah.core.wording.joint_steps import overshoot_words
from nullah.core.work.joint_work import at_bench, joint_work
from nullah.demo.seed_cabinet import seed_cabinet


def alone(joint, **given_):
    """Work out a joint by itself with some figures of its own."""
    project = Project(piece=Piece("joint", joint, choices=(("joint", joint),)))
    for name, value in given_.items():
        project = actions.give(project, name.replace("__", "."), value)
    return work_out(project, milling=False, proving=False)


def cautions(assembly, shop=None):
    (kind,) = kinds_of(assembly)
    return [remark.fact for remark in cautions_of(AtBench(kind, Marks(), shop or Shop()))]


def kinds_said(joint, shop=None, **given_):
    return {type(fact) for fact in cautions(alone(joint, **given_).assembly, shop)}


# --- let in -------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("deep", "fact"), [(6, None), ("6.6", None), ("6.7", DeepChannel), (15, DeepChannel), ("15.1", ThinUnder)]
)
def test_a_dado_s_depth(deep, fact):
    found = kinds_said("dado", joint__depth=mm(deep), one__thickness=mm(18))
    assert found & {DeepChannel, ThinUnder} == ({fact} if fact else set())


@pytest.mark.parametrize(("deep", "fact"), [(9, None), ("9.1", DeepRabbet), (15, DeepRabbet), ("15.1", ThinUnder)])
def test_a_rabbet_s_depth(deep, fact):
    found = kinds_said("rabbet", joint__depth=mm(deep), one__thickness=mm(18))
    assert found & {DeepRabbet, ThinUnder} == ({fact} if fact else set())


@pytest.mark.parametrize(("thick", "splits"), [("120.1", True), (120, False)])
def test_a_dado_near_the_end_leaves_it_long(thick, splits):
    # The board is 140 long and the dado in its middle.
    found = cautions(alone("dado", other__thickness=mm(thick)).assembly)
    assert [fact.beside for fact in found if isinstance(fact, ShortEnd)] == ([mm("9.95")] if splits else [])


@pytest.mark.parametrize(("wide", "fits"), [(3, True), ("2.9", False)])
def test_a_plough_iron_enters_its_groove_and_goes_as_deep_as_it_can(wide, fits):
    shop = Shop()
    assert min(iron.mm for iron in shop.plough_irons) == 3 and shop.plough_deepest == mm(16)
    assert (NoIronEnters in kinds_said("groove", other__thickness=mm(wide))) is not fits
    for deep, stops in ((16, False), ("16.1", True)):
        found = kinds_said("groove", one__thickness=mm(40), joint__depth=mm(deep))
        assert (PloughStops in found) is stops


def test_without_a_chisel_that_enters_it_says_so():
    for wide, none in ((11.9, True), (12, False)):
        shop = Shop(chisels=(mm(12), mm(25)))
        assert (NoChiselEnters in kinds_said("dado", shop, other__thickness=mm(str(wide)))) is none


# --- tenons ---------------------------------------------------------------------------------------------------


TENONED = {"joint_tenon__thickness": mm(6), "other__thickness": mm(20)}


@pytest.mark.parametrize(
    ("figures", "fact", "within"),
    [
        ({"joint_tenon__thickness": mm("3.9")}, ThinTenon, {"joint_tenon__thickness": mm(4)}),
        ({"joint_tenon__thickness": mm("10.1")}, ThickTenon, {"joint_tenon__thickness": mm(10)}),
        ({"joint_tenon__thickness": mm("7.4")}, NoChiselAsWide, {"joint_tenon__thickness": mm("6.5")}),
        ({"joint__depth": mm("5.9")}, ShortTenon, {"joint__depth": mm(6)}),
        ({"one__width": mm("11.9")}, ThinBesideMortise, {"one__width": mm(12)}),
        ({"joint_tenon__shoulder": mm(16)}, WideTenon, {"joint_tenon__shoulder": mm(17)}),
        ({"one__length": mm("151.9")}, ShortAboveMortise, {"one__length": mm(152)}),
    ],
)
def test_a_tenon_s_limits(figures, fact, within):
    # A tenon of 70 less both shoulders; 80 mm from the foot, so 150 of the leg are below its rail's upper edge.
    figures = TENONED | {"joint_tenon__shoulder": mm(6)} | figures
    within = TENONED | {"joint_tenon__shoulder": mm(6)} | within
    assert fact in kinds_said("tenon", **figures)
    assert fact not in kinds_said("tenon", **within)


# --- laps and mitres -----------------------------------------------------------------------------------------------


@pytest.mark.parametrize(("thick", "thin"), [(6, False), ("5.9", True)])
def test_what_is_halved_keeps_three_millimetres(thick, thin):
    assert (ThinLap in kinds_said("cross lap", one__thickness=mm(thick))) is thin


def test_a_mitre_without_keys_is_said_to_be_weak_and_drawn_at_its_corner():
    assert WeakMitre in kinds_said("mitre", joint_key__count=0) and WeakMitre not in kinds_said("mitre")
    (kind,) = kinds_of(alone("mitre").assembly)
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
    """Lay one board across another and hold it so."""
    lower, upper = ((280, 40, 20), (0, 120, 0), "xz"), ((280, 40, 20), (120, 0, 20), "yz")
    return own_pair("butt", lower, upper, hold)


@pytest.mark.parametrize(("hold", "tool"), [(Hold.NAILS, "Nails"), (Hold.SCREWS, "Screws"), (Hold.SLOTS, "Screws")])
def test_nails_and_screws_are_named_on_the_card_and_say_what_they_carry(hold, tool):
    plan = butt(hold)
    (kind,) = kinds_of(plan.assembly)
    row = joint_work(plan, kind).row
    card = joint_card(plan, kind)
    assert card.set[0].tool == tool
    assert card.set[0].note.startswith(f"{row.fastening.thick:g} mm thick, ")
    resists = next(fact for fact in cautions(plan.assembly) if isinstance(fact, Resists))
    assert resists.most == pytest.approx(row.fastening.holds / 9.80665)
    assert resists.safe == pytest.approx(resists.most * SAFE_SHARE)
    assert TryInScrap() in cautions(plan.assembly)
    touch = [
        e for e in mate_views(kind.first, "black cherry", Marks()) if isinstance(e, Path) and e.role is Role.PENCIL
    ]
    assert touch, "where the other part lies is pencilled"


def test_holes_are_drawn_where_the_row_has_them():
    plan = butt(Hold.SCREWS)
    (kind,) = kinds_of(plan.assembly)
    part, holes = holes_of(at_bench(plan, kind))
    row = kind.joint.figures
    assert part == row.through and len(holes) == len(row.places)
    host = plan.part(part)
    along = (host.grain, host.across, host.face).index(row.along)
    at = [float(place - host.box.low[row.along.value]) for place in row.places]
    assert [hole[along] for hole in holes] == pytest.approx(at)


def test_denser_wood_holds_more_and_a_nail_in_end_grain_half():
    assert nail_withdrawal(0.6, 2, 25) / nail_withdrawal(0.3, 2, 25) == pytest.approx(2**2.5)
    side, end = (fastening(False, 10, 60, 200, 0.5, True, at_end) for at_end in (False, True))
    assert end.holds == pytest.approx(side.holds / 2) and end.places == side.places


def test_a_glued_butt_says_where_it_is_weak():
    assert EndGrainGlued() in cautions(butt(Hold.GLUE).assembly)
    beside = own_pair("butt", ((280, 40, 20), (0, 0, 0), "xz"), ((280, 40, 20), (0, 40, 0), "xz"))
    assert EndGrainGlued() not in cautions(beside.assembly)


# --- drawings ---------------------------------------------------------------------------------------------


def test_a_long_part_is_broken_off_and_an_end_that_is_shown_is_its_own():
    assembly = work_out(seed_cabinet(), milling=False, proving=False).assembly
    dadoed = next(kind for kind in kinds_of(assembly) if kind.name == "stopped dado")
    kind = kind_of(assembly, dadoed.all, "divider21")
    host = shown_part(kind.first)
    assert (host.starts, host.ends) == (False, False) and host.low < kind.first.cutouts[0].along[0] < host.high
    groove = kinds_of(alone("groove").assembly)[0].first
    assert shown_part(groove).starts and shown_part(groove).ends
    wide, high = extent_of(kind.first)
    assert wide > host.high - host.low and high > 150
    assert spans_of(kind.first.part, kind.first.part.box)[1] == (0, sizes_of(kind.first.part).across)


def test_dividers_prick_every_tail_and_go_over_by_the_pin():
    layout = lay_out(DovetailFigures(mm(150), mm(15), mm(15), 3, mm(8), mm(6), Slope(mm(7).mm)))
    drawn = list(divider_pricks(layout, overshoot_words(layout.spec, Reader())))
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


@pytest.mark.dear
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


def own_pair(joint, one, two, hold=Hold.GLUE, **given_):
    """Join two boards of one's own: sizes, place and lie of each."""
    boards = tuple(
        OwnBoard(f"own{n}", f"board {n}", tuple(map(mm, sizes)), tuple(map(mm, at)), lie)
        for n, (sizes, at, lie) in enumerate((one, two), start=1)
    )
    joints = (OwnJoint("ownjoint1", joint, "own1", "own2", hold.value),)
    project = Project(piece=Piece("own", own=boards, own_joints=joints))
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


@pytest.mark.parametrize(("taper", "weak"), [(13, False), ("13.1", True)])
def test_a_tapered_sliding_dovetail_goes_in_one_way_and_keeps_its_neck_at_its_narrow_end(taper, weak):
    divider = (300, 200, 18), (11, 0, 150), "xz"
    plan = own_pair("sliding dovetail", UPRIGHT, divider, ownjoint1_tail__taper=mm(taper))
    assert any(isinstance(fact, WeakTail) for _, fact in facts_of(plan)) is weak
    joint, parts = plan.assembly.joints[0], (plan.part("own1"), plan.part("own2"))
    assert [side.name for side in joint.type.frees(joint, *parts)] == ["FRONT"], "the divider goes in from behind"
    one, two = (build(plan.proof.recipes[name], hair=0.0) for name in ("own1", "own2"))
    shared = parts[0].box.overlap(parts[1].box)
    room = block_solid(block_of(shared))
    assert (one ^ two).volume() < 0.01
    # What neither has is the wedge that the taper leaves open beside the narrow end, inside the housing none.
    lean = 1
    section = (18 + 18 - 2 * lean) / 2 * 7
    assert (two ^ room).volume() == pytest.approx((section - float(mm(taper)) / 2 * 7) * 200, rel=1e-6)
    assert (one ^ room).volume() + (two ^ room).volume() == pytest.approx(float(shared.volume), rel=1e-6)


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
