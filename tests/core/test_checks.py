"""The single checks of the proof, each on pieces made for it: walls, season, sag, pins, order, doors out."""

from dataclasses import replace
from fractions import Fraction

import pytest
from tests.said import said
from tests.told import each_choice, planned

from nullah.core import actions
from nullah.core.apply_fix import action_of
from nullah.core.card import Severity
from nullah.core.fixes import FollowRule, Give
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.lengths import Length, Unit, mm
from nullah.core.piece.faults import FaultKind, ThinEdge
from nullah.core.plan import Issue, Unsettled, work_out
from nullah.core.project import Piece, Project
from nullah.core.proof.finding import ProofInput, follow_fixes, give_fix
from nullah.core.proof.season import no_room
from nullah.core.rack.drying import usual_days
from nullah.core.season.fits import Verdict
from nullah.core.wood.climate import year_of
from nullah.core.wood.finishes import FINISHES
from nullah.core.wood.movement import GrainCut, movement
from nullah.core.wood.species import find_species
from nullah.core.wording.fixes import fix_words
from nullah.core.work.seasons import season_of, stock_of
from nullah.demo.seed_cabinet import seed_cabinet


def board(number, name, size, at, lie, shows=""):
    return OwnBoard(f"own{number}", name, tuple(map(mm, size)), tuple(map(mm, at)), lie, shows)


def piece(boards, *joints, **how):
    made = tuple(OwnJoint(f"ownjoint{n}", *joint) for n, joint in enumerate(joints, start=1))
    return Project(Piece("own", own=tuple(boards), own_joints=made, **how))


def found(project, trouble):
    return [f for f in work_out(project, milling=False).findings if f.trouble is trouble]


POST = board(1, "post", (300, 60, 30), (0, 0, 0), "zx")


# --- walls ----------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("joint", "rail"),
    [
        ("mortise and tenon", ((200, 40, 30), (40, 0, 100))),
        ("drawbored tenon", ((200, 40, 30), (40, 0, 100))),
        ("tusk tenon", ((300, 40, 30), (-100, 0, 100))),
    ],
)
@pytest.mark.parametrize(("thick", "failing"), [(30, True), (29, False)])
def test_a_mortise_has_wood_beside_both_cheeks(joint, rail, thick, failing):
    """Rail and post are flush at one side: a tenon as thick as the rail would lie in a notch, not in a mortise."""
    size, at = rail
    boards = board(1, "post", (300, 80, 40), (0, 0, 0), "zy"), board(2, "rail", size, at, "xy")
    project = actions.give(piece(boards, (joint, "own1", "own2")), "ownjoint1_tenon.thickness", mm(thick))
    open_sides = [
        f for f in found(project, FaultKind.THIN) if isinstance(f.remark.fact, ThinEdge) and f.remark.fact.left.mm == 0
    ]
    assert [f.remark.weight for f in open_sides] == [Severity.FAILURE] * failing


@pytest.mark.parametrize(("deep", "thin"), [(9, False), (20, False), (21, True), (29, True)])
def test_a_third_of_a_board_is_left_beside_a_dado(deep, thin):
    shelf = board(2, "shelf", (200, 60, 16), (30 - deep, 0, 100), "xz")
    project = piece((POST, shelf), ("let in", "own1", "own2"))
    walls = found(project, FaultKind.THIN)
    assert bool(walls) is thin
    if thin:
        assert said(walls[0], project) == (
            f"The dado leaves only {30 - deep}.0 mm of the 30.0 mm of the post; 10.0 mm is the least."
        )
        assert walls[0].remark.weight is Severity.WARNING


def test_dados_from_both_faces_leave_a_third_between_them():
    left = board(2, "left shelf", (200, 60, 16), (-188, 0, 100), "xz")
    right = board(3, "right shelf", (200, 60, 16), (18, 0, 100), "xz")
    joints = (("let in", "own1", "own2"), ("let in", "own1", "own3"))
    project = piece((POST, left, right), *joints)
    (wall,) = found(project, FaultKind.THIN)
    assert "from either face only 6.0 mm of the post is left; a third (10.0 mm) is the least" in said(wall, project)
    apart = right._replace(at=(mm(18), mm(0), mm(130)))
    assert not found(piece((POST, left, apart), *joints), FaultKind.THIN), "not opposite each other, they may be deep"


def test_a_mortise_near_an_edge_is_said():
    table = Project(Piece("table"))
    assert not found(table, FaultKind.THIN)
    thick = actions.give(table, "tenon.thickness", mm(14))
    walls = found(thick, FaultKind.THIN)
    assert "The mortise leaves only 4.5 mm of the 38.0 mm of the" in said(walls[0], thick)
    assert "9.3 mm is the least" in said(walls[0], thick), "two thirds of the mortise"


# --- the season -----------------------------------------------------------------------------------


@pytest.mark.parametrize("wood", ["teak", "eastern white pine", "American beech"])
@pytest.mark.parametrize(("spare", "said_so"), [("0.05", False), ("-0.05", True)])
def test_a_panels_room_is_held_against_its_own_woods_movement(wood, spare, said_so):
    project = actions.make_of(Project(Piece("box")), "inside", wood)
    bottom = work_out(project, milling=False, proving=False).part("bottom")
    # From the moisture of a room's year to that of its dampest month, as far as the panel follows it.
    now = sum(project.climate.moisture) / 12
    days = usual_days(float(bottom.length), float(bottom.width), float(bottom.thickness))
    damp = max(year_of(project.climate, days * FINISHES[project.finish].slows))
    moved = movement(find_species(wood), GrainCut.FLAT, bottom.width, now, damp).change.mm
    room = moved + Fraction(spare)
    given = actions.give(project, "bottom.clearance", Length(room / 2))
    plan = work_out(given, milling=False)
    short = [f for f in plan.findings if f.trouble is FaultKind.SEASON]
    assert bool(short) is said_so
    if short:
        assert plan.marks.write_fine(Length(moved)).removesuffix(" mm") in said(short[0], plan)
        fix = short[0].remark.fixes[0]
        roomier = work_out(action_of(fix, Unit.MM)(given), milling=False)
        assert not [f for f in roomier.findings if f.trouble is FaultKind.SEASON]


@pytest.mark.dear
def test_quarter_sawn_wood_needs_less_room():
    project = seed_cabinet()
    tight = actions.give(project, "back.gap", mm("0.2"))
    assert found(tight, FaultKind.SEASON)
    quartered = replace(tight, boards=tuple(replace(each, cut=GrainCut.QUARTER) for each in tight.boards))
    assert not found(quartered, FaultKind.SEASON)


@pytest.mark.dear
@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", [form for form in FORMS if form != "own"])
def test_proof_and_season_say_the_same_of_what_has_room(form):
    for chosen in each_choice(form):
        for clearance in ("0.1", "1", "3"):
            plan = planned(form, chosen)
            names = [name for name in plan.ledger.quantities if name.endswith(("clearance", ".gap"))]
            plan = planned(form, chosen, [(name, mm(clearance)) for name in names])
            told = {f.parts for f in no_room(_input(plan))}
            fits = season_of(plan).fits
            assert told == {f.parts for f in fits if f.mover is None and f.verdict is Verdict.BINDS}, (
                chosen,
                clearance,
            )


def _input(plan):
    woods = {part.id: stock for part in plan.parts if (stock := stock_of(plan, part.id)) is not None}
    return ProofInput(plan.assembly, plan.ledger, plan.project.shop, plan.marks, woods)


@pytest.mark.parametrize(("hold", "said"), [
    ("glued", True), ("screwed", True), ("nailed", False), ("screwed in slots", False),
    ("left dry", False),
])  # fmt: skip
def test_only_what_holds_fast_can_split_across_the_grain(hold, said):
    top = board(1, "top", (500, 300, 20), (0, 0, 0), "xz")
    cleat = board(2, "cleat", (280, 40, 20), (60, 10, -20), "yz")
    crossing = found(piece((top, cleat), ("butt", "own1", "own2", hold)), FaultKind.CROSS_GRAIN)
    assert bool(crossing) is said
    along = cleat._replace(lie="xz")
    assert not found(piece((top, along), ("butt", "own1", "own2", hold)), FaultKind.CROSS_GRAIN), "grain with grain"


@pytest.mark.parametrize("width", [95, 130])
def test_a_dovetailed_corner_is_not_cross_grain_and_a_wide_tenon_is(width):
    side = board(1, "side", (400, 250, 18), (0, 0, 0), "zx")
    top = board(2, "top", (300, 250, 18), (0, 0, 382), "xz")
    assert not found(piece((side, top), ("dovetail", "own1", "own2")), FaultKind.CROSS_GRAIN), "both move alike"
    post = board(1, "post", (400, 60, 60), (0, 0, 0), "zx")
    rail = board(2, "rail", (300, width, 24), (30, 18, 100), "xy")
    tenon = found(piece((post, rail), ("mortise and tenon", "own1", "own2")), FaultKind.CROSS_GRAIN)
    assert bool(tenon) is (width > 100 + 12), "the shoulders take 6 mm at either edge"


# --- sag ------------------------------------------------------------------------------------------


def test_a_shelf_says_at_what_span_it_would_pass_and_there_it_does():
    project = actions.give_all(Project(Piece("wall shelf")), {"shelf.load": 45, "shelf.outside_width": mm(1000)})
    (finding,) = found(project, FaultKind.SAG)
    text = said(finding, project)
    assert "Under 45 kg shelf 1 sags" in text and text.endswith("So in 2 places.")
    span = float(text.split(" At ")[1].split(" mm")[0])
    load = int(45 * span / 964)
    narrower = {"shelf.outside_width": mm(int(span) + 36), "shelf.load": load}
    assert not found(actions.give_all(project, narrower), FaultKind.SAG)
    stiffer = actions.make_of(project, "shown", "shagbark hickory")
    assert len(found(stiffer, FaultKind.SAG)) <= 1


# --- what is offered ------------------------------------------------------------------------------


def test_fixes_are_offered_only_where_they_would_work():
    plan = work_out(seed_cabinet(), milling=False)
    from nullah.core.proof.finding import ProofInput

    case = ProofInput(plan.assembly, plan.ledger, plan.project.shop, plan.marks, {})
    assert give_fix(case, "nobody.knows", mm(5).mm) == ()
    assert give_fix(case, "dado.depth", mm(0).mm) == ()
    (fix,) = give_fix(case, "dado.depth", mm(6).mm)
    assert fix == Give("dado.depth", mm(6))
    assert follow_fixes(case, ("dado.depth", "nobody.knows")) == (), "nothing is overruled there"
    overruled = work_out(actions.give(seed_cabinet(), "dado.width", mm(11)), milling=False)
    case = ProofInput(overruled.assembly, overruled.ledger, overruled.project.shop, overruled.marks, {})
    (fix,) = follow_fixes(case, ("dado.width", "dado.width"))
    assert fix == FollowRule("dado.width")
    assert fix_words(fix, overruled.reader) == "Let the width of the dados follow again"
    measured = work_out(actions.measure(seed_cabinet(), "dado.width", mm(11)), milling=False)
    case = ProofInput(measured.assembly, measured.ledger, measured.project.shop, measured.marks, {})
    assert give_fix(case, "dado.width", mm(12).mm) == (), "what is cut is cut"


# --- on its way out -------------------------------------------------------------------------------


def test_a_lid_that_meets_something_on_its_way_is_said():
    project = Project(Piece("box", choices=(("lid", "lift"),)))
    assert work_out(project, milling=False).proof.clean
    over = board(1, "handle", (100, 30, 20), (100, 50, 200), "xz")
    blocked = actions.add_own(project, over)
    (finding,) = found(blocked, FaultKind.PASS)
    text = said(finding, blocked)
    assert text.startswith("The lid cannot come out:") and "to pass the handle" in text
    beside = actions.change_own(blocked, over._replace(at=(mm(500), mm(50), mm(200))))
    assert work_out(beside, milling=False).proof.clean


def test_a_batten_too_long_for_its_box_is_said():
    project = Project(Piece("box", choices=(("lid", "lift"),)))
    length = work_out(project, milling=False).ledger["batten.length"]
    long = actions.give(project, "batten.length", mm(length + 6))
    (finding,) = found(long, FaultKind.PASS)
    assert "too deep to pass the back" in said(finding, long) or "too deep to pass the front" in said(finding, long)
    assert finding.remark.fixes[0].quantity == "batten.length"


def test_a_sliding_lid_slides_and_a_swollen_one_does_not():
    project = Project(Piece("box", choices=(("lid", "sliding"),)))
    assert work_out(project, milling=False).proof.clean
    thick = actions.give(actions.give(project, "lid.groove_width", mm(6)), "lid.thickness", mm("6.5"))
    texts = [said(f, thick) for f in work_out(thick, milling=False).findings]
    assert any("0.5 mm too tight" in text or "cannot come out" in text for text in texts), texts


# --- pins -----------------------------------------------------------------------------------------


@pytest.mark.dear
def test_pins_too_fine_and_tails_too_many_are_said_on_the_piece():
    fine = work_out(actions.give(Project(Piece("box")), "tails.pin", mm("0.5")), milling=False)
    assert any(remark.ref.name.startswith("tails.") for remark in fine.remarks)
    many = work_out(actions.give(Project(Piece("box")), "tails.count", 30), milling=False)
    assert many.failing and Unsettled(Issue.CORNER) in many.unsettled()
