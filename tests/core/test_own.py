"""Boards of one's own: what joints the geometry allows, how they are dragged and snap, that they prove."""

import csv
import io
from fractions import Fraction

import pytest
from hypothesis import example, given
from hypothesis import strategies as st
from tests.said import said

from nullah.core import actions
from nullah.core.apply_fix import action_of
from nullah.core.forms.own_boards import LIES, OwnBoard, OwnJoint, next_own_id, next_own_joint_id, offers
from nullah.core.joints.tenon import TENON
from nullah.core.joints.types import TYPES
from nullah.core.lengths import Length, Unit, mm
from nullah.core.piece.faults import Channel, FaultKind
from nullah.core.piece.form import View
from nullah.core.piece.joint import Hold
from nullah.core.piece.part import Side
from nullah.core.piece.solids import build
from nullah.core.plan import join_as_offered, work_out
from nullah.core.project import Piece, Project
from nullah.core.stations.piece import flat_at, plane_at, planes_of
from nullah.core.stations.placing import added_board, gripped, moved, neighbours
from nullah.core.wording.piece import offer_words
from nullah.demo.plant_stair import plant_stair
from nullah.demo.seed_box import seed_box
from nullah.files.tables import TableError, read_own_boards


def board(number, size, at, lie):
    return OwnBoard(f"own{number}", f"board {number}", tuple(map(mm, size)), tuple(map(mm, at)), lie)


def piece(*boards, joints=()):
    return Project(Piece("own", own=boards, own_joints=joints))


def labels(*boards):
    plan = work_out(piece(*boards), milling=False, proving=False)
    return [offer_words(offer, plan.reader) for offer in offers(plan.parts[0], plan.parts[1], 1)]


SIDE = board(1, (400, 200, 18), (0, 0, 0), "zx")


def test_a_shelf_end_in_a_side_is_offered_a_dado_first():
    shelf = board(2, (300, 200, 16), (12, 0, 150), "xz")
    found = labels(SIDE, shelf)
    assert found[0] == "board 2 into a dado in board 1"
    assert not any("ovetails" in label for label in found), "no corner, no dovetails"
    assert "board 2 slid into board 1 by a dovetail" in found
    higher = board(2, (300, 160, 16), (12, 20, 150), "xz")
    assert not any("slid into" in label for label in labels(SIDE, higher)), "it could not be slid in over an edge"


def test_a_corner_is_offered_dovetails_either_way():
    top = board(2, (300, 200, 18), (0, 0, 382), "xz")
    found = labels(SIDE, top)
    assert found[:2] == ["Dovetails, tails on board 1", "Dovetails, tails on board 2"]
    assert not any("rabbet" in label for label in found), "a rabbet through the whole end only cuts it shorter"


def test_a_back_along_the_edge_is_offered_a_rabbet_or_groove():
    back = board(2, (400, 180, 9), (9, 191, 0), "zy")
    assert labels(SIDE, back)[0] == "board 2 into a rabbet in board 1"
    inwards = board(2, (400, 180, 9), (9, 150, 0), "zy")
    assert labels(SIDE, inwards)[0] == "board 2 into a groove in board 1"


def test_crossing_boards_are_offered_a_lap_and_frames_a_bridle_and_a_mitre():
    one, two = board(1, (300, 50, 20), (0, 100, 0), "xz"), board(2, (300, 50, 20), (100, 0, 0), "yz")
    assert "Halved into each other" in labels(one, two)
    corner = labels(board(1, (300, 50, 20), (0, 0, 0), "xz"), board(2, (300, 50, 20), (0, 0, 0), "yz"))
    assert {"Mitered", "Halved into each other"} <= set(corner)
    assert any(label.startswith("Bridle") for label in corner)


def test_boards_that_touch_are_offered_what_holds_them_and_others_nothing():
    lying = board(2, (300, 200, 18), (0, 0, 400), "xz")
    assert labels(SIDE, lying) == [
        *(f"Against each other, {h.value}" for h in (Hold.GLUE, Hold.NAILS, Hold.SCREWS, Hold.SLOTS)),
        "Against each other, with dowels",
    ]
    assert labels(SIDE, board(2, (300, 200, 18), (0, 0, 500), "xz")) == []
    along_an_edge = board(2, (300, 200, 18), (18, 200, 0), "xz")
    assert labels(SIDE, along_an_edge) == [], "an edge alone holds nothing"


sizes = st.tuples(st.integers(100, 400), st.integers(30, 200), st.integers(8, 40))
places = st.tuples(st.integers(-60, 60), st.integers(-60, 60), st.integers(-60, 60))


@pytest.mark.dear
@given(sizes, places, st.sampled_from(LIES), sizes, places, st.sampled_from(LIES))
@example((101, 30, 8), (0, 0, 1), "xy", (100, 30, 8), (0, 0, 0), "xy")
def test_whatever_is_offered_shares_the_overlap_out(size1, at1, lie1, size2, at2, lie2):
    project = piece(board(1, size1, at1, lie1), board(2, size2, at2, lie2))
    plan = work_out(project, milling=False, proving=False)
    found = offers(plan.parts[0], plan.parts[1], 1)
    for index, offer in enumerate(found):
        joined = work_out(join_as_offered(project, "own1", "own2", index), milling=False)
        assert len(joined.assembly.joints) == 1
        collisions = [f for f in joined.findings if f.trouble is FaultKind.COLLISION]
        assert not collisions, (offer, said(collisions[0], plan))


def test_a_collision_offers_its_joints_and_taking_one_mends_it():
    shelf = board(2, (300, 200, 16), (12, 0, 150), "xz")
    plan = work_out(piece(SIDE, shelf), milling=False)
    (finding,) = plan.findings
    assert "no joint shares it out" in said(finding, plan)
    assert finding.remark.fixes[0].joint.channel is Channel.DADO
    joined = work_out(action_of(finding.remark.fixes[0], Unit.MM)(plan.project), milling=False)
    assert joined.proof.clean
    assert join_as_offered(joined.project, "own1", "nobody") == joined.project


def test_joining_again_takes_the_place_of_the_old_joint():
    shelf = board(2, (300, 200, 16), (12, 0, 150), "xz")
    project = piece(SIDE, shelf)
    once = join_as_offered(project, "own1", "own2", 0)
    twice = join_as_offered(once, "own1", "own2", 1)
    assert len(twice.piece.own_joints) == 1 and twice.piece.own_joints != once.piece.own_joints
    assert next_own_joint_id(once.piece.own_joints) == "ownjoint2"
    assert actions.part_own(twice, twice.piece.own_joints[0].id).piece.own_joints == ()


def test_boards_are_added_on_top_named_and_taken_away_with_all_that_is_theirs():
    plan = work_out(seed_box(), milling=False, proving=False)
    new = added_board(plan, ())
    assert new.at[2].mm == plan.ledger["box.outside_height"], "it lies on the box"
    project = actions.add_own(seed_box(), new)
    project = actions.give(project, "own1.length", mm(200))
    project = actions.join_own(project, OwnJoint("ownjoint1", "butt", "front", "own1"))
    assert work_out(project, milling=False, proving=False).part("own1").length == mm(200)
    assert next_own_id(project.piece.own) == "own2"
    gone = actions.remove_own(project, "own1")
    assert gone.piece.own == () and gone.piece.own_joints == ()
    assert not any(name.startswith("own1") for name, _ in gone.piece.given)


def test_another_form_keeps_the_boards_of_ones_own():
    project = actions.add_own(seed_box(), added_board(work_out(seed_box(), milling=False, proving=False), ()))
    project = actions.join_own(project, OwnJoint("ownjoint1", "butt", "front", "own1"))
    tray = actions.take_form(project, "tray")
    assert tray.piece.form == "tray" and len(tray.piece.own) == 1
    assert tray.piece.own_joints == () and tray.layout == (), "a joint with a part that is gone goes too"


# --- dragging -------------------------------------------------------------------------------------


def front_view(plan):
    return planes_of(plan)[View.FRONT]


def whole(value):
    return Fraction(round(value))


def test_a_board_is_taken_by_its_middle_or_by_an_edge():
    plan = work_out(piece(SIDE, board(2, (300, 200, 40), (100, 0, 150), "xz")), milling=False, proving=False)
    plane, shelf = front_view(plan), plan.part("own2")
    assert gripped(plane, shelf, (250.0, 170.0), 5).whole
    assert gripped(plane, shelf, (399.0, 170.0), 5).side is Side.RIGHT
    assert gripped(plane, shelf, (250.0, 151.0), 5).side is Side.UNDER
    thin = work_out(piece(board(1, (300, 200, 4), (0, 0, 0), "xz")), milling=False, proving=False).parts[0]
    assert gripped(plane, thin, (150.0, 2.0), 5).whole, "the middle of a thin board stays free to move it"


def test_a_dragged_board_snaps_to_its_neighbours_and_else_to_the_mark():
    plan = work_out(piece(SIDE, board(2, (300, 200, 16), (100, 0, 150), "xz")), milling=False, proving=False)
    plane, shelf = front_view(plan), plan.part("own2")
    grip = gripped(plane, shelf, (250.0, 158.0), 3)
    new, box = moved(plan.assembly, grip, (250.0 - 84.3, 158.0 + 40.4), 6, whole)
    assert new["own2.x"] == 18, "against the side's inner face"
    assert new["own2.z"] == 190, "to whole millimetres"
    assert box.low == (18, 0, 190)
    top, _ = moved(plan.assembly, grip, (250.0, 158.0 + 231), 6, whole)
    assert top["own2.z"] == 400 - 16, "its upper face level with the side's end"


@pytest.mark.parametrize(("at", "to", "name", "value"), [
    ((399.0, 158.0), (340.4, 158.0), "own2.length", 241), ((250.0, 165.5), (250.0, 175.5), "own2.thickness", 26),
])  # fmt: skip
def test_an_edge_is_dragged_to_another_size(at, to, name, value):
    plan = work_out(piece(SIDE, board(2, (300, 200, 16), (100, 0, 150), "xz")), milling=False, proving=False)
    grip = gripped(front_view(plan), plan.part("own2"), at, 3)
    new, _ = moved(plan.assembly, grip, to, 4, whole)
    assert new == {name: value}


def test_a_low_edge_moves_the_place_with_the_size_and_never_through_the_other():
    plan = work_out(piece(SIDE, board(2, (300, 200, 16), (100, 0, 150), "xz")), milling=False, proving=False)
    grip = gripped(front_view(plan), plan.part("own2"), (101.0, 158.0), 3)
    new, _ = moved(plan.assembly, grip, (60.0, 158.0), 4, whole)
    assert new["own2.x"] + new["own2.length"] == 400
    through, _ = moved(plan.assembly, grip, (900.0, 158.0), 4, whole)
    assert through["own2.length"] == 1


def test_every_point_of_the_drawing_belongs_to_a_view():
    plan = work_out(plant_stair(), milling=False, proving=False)
    for part in plan.parts:
        for view in View:
            (left, top), (right, bottom) = flat_at(plan, view, part.box)
            plane, local = plane_at(plan, ((left + right) / 2, (top + bottom) / 2))
            assert plane.view is view
            across, up, _ = plane.axes
            x, y = plane.place(local)
            assert x == pytest.approx(float(part.box.low[across.value] + part.box.high[across.value]) / 2)
            assert y == pytest.approx(float(part.box.low[up.value] + part.box.high[up.value]) / 2)
    assert plane_at(work_out(piece(), milling=False), (0.0, 0.0)) is None


def test_neighbours_are_what_touches_or_overlaps():
    plan = work_out(plant_stair(), milling=False, proving=False)
    assert [other.id for other in neighbours(plan.assembly, plan.part("own6"))] == ["own1", "own2"]


def test_the_sample_of_ones_own_proves_and_a_wrong_board_of_it_does_not():
    plan = work_out(plant_stair(), milling=False)
    assert plan.proof.clean and len(plan.assembly.joints) == 8
    assert plan.assembly.joints[-1].type is TENON
    short = work_out(actions.give(plan.project, "own3.length", mm(470)), milling=False)
    assert any("do not meet" in said(finding, short) for finding in short.findings)
    apart = work_out(actions.give(plan.project, "own6.z", mm(160)), milling=False)
    assert apart.proof.clean, "a rail may stand anywhere between the treads"


def test_a_board_of_ones_own_is_dovetailed_to_a_part_of_a_form_by_that_parts_sizes():
    project = seed_box()
    plan = work_out(project, milling=False, proving=False)
    high, end = plan.ledger["box.outside_height"], plan.part("left")
    # A flap that stands on the left end like another corner: its tails lie over the end's thickness.
    flap = OwnBoard("own1", "flap", (mm(200), end.width, mm(14)), (mm(-184), mm(0), mm(0)), "xy")
    project = actions.add_own(project, flap)
    project = actions.join_own(project, OwnJoint("ownjoint1", "dovetail", "own1", "left"))
    joined = work_out(project, milling=False, proving=False)
    ledger = joined.ledger
    assert ledger["ownjoint1_tails.gauge_tail_board"] == end.thickness.mm
    assert ledger["ownjoint1_tails.half_pin"] == 7, "half its own thickness"
    step = (high - 2 * ledger["ownjoint1_tails.half_pin"] + ledger["ownjoint1_tails.pin"]) / 3
    assert ledger["ownjoint1_tails.step"] == step


@pytest.mark.parametrize("lift", [-6, 0, 6])
def test_halved_boards_come_apart_whichever_lies_higher(lift):
    project = piece(board(1, (300, 50, 20), (0, 100, 0), "xz"), board(2, (300, 50, 20), (100, 0, lift), "yz"))
    plan = work_out(project, milling=False, proving=False)
    labels_ = [offer_words(offer, plan.reader) for offer in offers(plan.parts[0], plan.parts[1], 1)]
    joined = work_out(join_as_offered(project, "own1", "own2", labels_.index("Halved into each other")), milling=False)
    assert joined.proof.clean, [said(finding, joined) for finding in joined.findings]
    (step,) = joined.proof.order.steps
    assert step.way.axis.name == "Z"


@pytest.mark.parametrize(("sharing", "word"), [("dovetail", "dovetailed"), ("mitre", "mitered")])
def test_a_corner_that_was_turned_out_of_one_is_said(sharing, word):
    one, two = board(1, (300, 50, 20), (0, 0, 0), "xz"), board(2, (300, 50, 20), (0, 0, 0), "yz")
    if sharing == "dovetail":
        one, two = SIDE, board(2, (300, 200, 18), (0, 0, 382), "xz")
    project = piece(one, two, joints=(OwnJoint("ownjoint1", sharing, "own1", "own2"),))
    assert work_out(project, milling=False).proof.clean
    turned = actions.change_own(project, two._replace(lie="xz" if sharing == "mitre" else "zx"))
    if sharing == "dovetail":
        turned = actions.give(turned, "own2.z", mm(100))
    texts = [said(finding, turned) for finding in work_out(turned, milling=False).findings]
    assert any(f"cannot be {word} as they lie" in text for text in texts), texts


@pytest.mark.dear
@given(
    sizes, places, st.sampled_from(LIES), sizes, places, st.sampled_from(LIES),
    st.sampled_from(list(TYPES)),
)  # fmt: skip
@example((100, 30, 8), (0, 0, 0), "xy", (100, 30, 8), (0, 6, 0), "xy", "breadboard end")
@example((100, 30, 8), (0, 0, 0), "xy", (100, 30, 8), (0, 0, 25), "xy", "mortise and tenon")
def test_what_proves_clean_never_fills_the_same_space(size1, at1, lie1, size2, at2, lie2, sharing):
    boards = board(1, size1, at1, lie1), board(2, size2, at2, lie2)
    plan = work_out(piece(*boards, joints=(OwnJoint("ownjoint1", sharing, "own1", "own2"),)), milling=False)
    one, two = (build(plan.proof.recipes[name]) for name in ("own1", "own2"))
    if (one ^ two).volume() > 0.1:
        assert plan.failing, f"{sharing}: both fill {(one ^ two).volume():.1f} mm³, and nothing is said"


# --- any drag, any list ---------------------------------------------------------------------------

offsets = st.tuples(st.floats(-400, 400), st.floats(-400, 400))
grips = st.tuples(st.floats(0, 1), st.floats(0, 1))


@given(st.sampled_from(list(View)), st.sampled_from(["own1", "own3", "own6"]), grips, offsets, st.floats(0, 20))
def test_any_drag_gives_figures_that_make_the_box_it_shows(view, name, share, by, near):
    plan = work_out(plant_stair(), milling=False, proving=False)
    plane, part = planes_of(plan)[view], plan.part(name)
    across, up, sight = plane.axes
    at = tuple(
        float(part.box.low[axis.value] + part.box.size(axis) * Fraction(round(s * 1000), 1000))
        for axis, s in zip((across, up), share, strict=True)
    )
    grip = gripped(plane, part, at, 6)
    new, box = moved(plan.assembly, grip, (at[0] + by[0], at[1] + by[1]), near, whole)
    assert box.low[sight.value] == part.box.low[sight.value], "what the view does not show stays"
    assert all(box.size(axis) >= 1 for axis in (across, up))
    dragged = work_out(
        actions.give_all(plan.project, {figure: Length(value) for figure, value in new.items()}),
        milling=False,
        proving=False,
    )
    assert dragged.part(name).box == box, "the outline that was shown is where the board comes to lie"
    if grip.whole:
        assert all(box.size(axis) == part.box.size(axis) for axis in (across, up, sight))
    else:
        fixed = grip.side.opposite
        assert box.at(fixed) == part.box.at(fixed), "the side across stays where it was"


@given(st.lists(st.tuples(st.sampled_from(["slat", "rail; left", 'a "b"']), st.integers(1, 900), st.integers(1, 90),
                          st.integers(1, 30), st.integers(1, 3)), min_size=1, max_size=5),
       st.sampled_from(["\t", ","]), st.booleans())  # fmt: skip
def test_any_list_that_a_spreadsheet_writes_is_read(rows, mark, heading):
    stream = io.StringIO()
    writer = csv.writer(stream, delimiter=mark)
    if heading:
        writer.writerow(["part", "length", "width", "thickness", "quantity"])
    writer.writerows(rows)
    found = read_own_boards(stream.getvalue(), Unit.MM)
    assert len(found) == sum(row[4] for row in rows)
    assert {(length.mm, width.mm, thick.mm) for _, length, width, thick in found} == {row[1:4] for row in rows}


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "no board"), ("slat,600,40", "Line 1"), ("slat,600,40,0", "more than nothing"),
        ("slat,600,40,10\nrail,long,40,10", "Line 2"), ("slat,600,40,10,none", "quantity"),
        ("slat,600,40,10,100000", "slip of the key"),
    ],
)  # fmt: skip
def test_a_list_that_cannot_be_read_names_its_line(text, words):
    with pytest.raises(TableError, match=words):
        read_own_boards(text, Unit.MM)
