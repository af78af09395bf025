from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.said import said

from nullah.core.card import Severity
from nullah.core.forms import FORMS
from nullah.core.joints.dovetail.joint_type import DOVETAIL
from nullah.core.ledger import work_out_ledger
from nullah.core.lengths import mm
from nullah.core.piece.faults import Channel
from nullah.core.piece.overlap import channel_of, meetings
from nullah.core.piece.part import Axis, Box, Needs, Part

BOX = FORMS["box"]


def make(sizing="outside", tails_on="sides", **given):
    chosen = BOX.settled({"sizing": sizing, "tails_on": tails_on})
    values = {name.replace("__", "."): value for name, value in given.items()}
    ledger = work_out_ledger(BOX.define(chosen), values, {})
    return ledger, BOX.assemble(ledger, chosen)


@pytest.mark.parametrize("tails_on", ["sides", "ends"])
@pytest.mark.parametrize("sizing", ["outside", "inside", "contents"])
def test_every_way_of_sizing_gives_five_parts_and_eight_joints(sizing, tails_on):
    _, assembly = make(sizing, tails_on)
    assert [part.id for part in assembly.parts] == ["front", "back", "left", "right", "bottom"]
    assert len(assembly.joints) == 8
    assert not assembly.remarks
    tail_boards = {joint.first for joint in assembly.joints if joint.type is DOVETAIL}
    assert tail_boards == ({"front", "back"} if tails_on == "sides" else {"left", "right"})


def test_sized_outside_inside_and_around_contents_agree():
    outside, _ = make("outside", box__outside_length=mm(300), sides__thickness=mm(14))
    inside, _ = make("inside", box__inside_length=mm(272), sides__thickness=mm(14))
    contents, _ = make("contents", contents__length=mm(266), contents__clearance=mm(3), sides__thickness=mm(14))
    assert outside["box.inside_length"] == 272
    assert inside["box.outside_length"] == contents["box.outside_length"] == 300


def test_finished_sizes_are_the_boxes_sizes():
    ledger, assembly = make(box__outside_length=mm(300), box__outside_width=mm(200), sides__thickness=mm(15))
    bottom = assembly.part("bottom")
    # Into both grooves by their depth, less the clearance at each edge.
    assert bottom.length.mm == 300 - 30 + 2 * 5 - 2
    assert bottom.width.mm == 200 - 30 + 2 * 5 - 2
    front = assembly.part("front")
    assert front.cut_length.mm == 301, "0.5 mm proud at each end, planed flush"
    assert ledger["sides.cut_length"] == front.cut_length.mm


def test_parts_meet_exactly_where_joints_share():
    _, assembly = make()
    pairs = {frozenset((m.first.id, m.second.id)) for m in meetings(assembly.parts)}
    assert pairs == {frozenset((joint.first, joint.second)) for joint in assembly.joints}


def board(part_id, low, high, grain, face):
    return Part(part_id, 1, part_id, Box(low, high), grain, face, Needs.CLEAR, ("", "", ""), "")


def test_the_geometry_names_what_is_cut():
    side = board("side", (0, 0, 0), (18, 300, 800), Axis.Z, Axis.X)
    shelf = Box((12, 0, 400), (18, 300, 418))
    bottom_groove = Box((12, 10, 0), (18, 16, 800))
    back_rabbet = Box((9, 290, 0), (18, 300, 800))
    top_rabbet = Box((9, 0, 782), (18, 300, 800))
    assert channel_of(side, shelf) is Channel.DADO
    assert channel_of(side, bottom_groove) is Channel.GROOVE
    assert channel_of(side, back_rabbet) is Channel.RABBET
    assert channel_of(side, top_rabbet) is Channel.RABBET


@pytest.mark.parametrize(
    ("low", "high", "kind"),
    [
        ((0, 0, 400), (18, 150, 418), Channel.NOTCH),
        ((0, 100, 700), (18, 118, 800), Channel.NOTCH),
        ((0, 100, 400), (18, 118, 500), Channel.MORTISE),
        ((0, 0, 700), (18, 20, 800), Channel.RABBET),
        ((1, 0, 400), (18, 150, 418), Channel.DADO),
        ((1, 100, 700), (18, 118, 800), Channel.GROOVE),
        ((1, 100, 400), (18, 118, 500), Channel.GROOVE),
    ],
)
def test_what_goes_through_the_thickness_is_a_notch_or_a_mortise(low, high, kind):
    side = board("side", (0, 0, 0), (18, 300, 800), Axis.Z, Axis.X)
    assert channel_of(side, Box(low, high)) is kind


@pytest.mark.parametrize(
    ("given_", "words"),
    [
        ({"box__outside_length": mm(0)}, "outside length"),
        ({"box__outside_length": mm(25)}, "inside length"),
        ({"box__outside_height": mm(16)}, "inside depth"),
        ({"sides__thickness": mm(-3)}, "thickness of front and back"),
        ({"bottom__thickness": mm(0)}, "thickness of the bottom"),
    ],
)
def test_a_box_too_small_is_a_state_with_a_reason(given_, words):
    ledger, assembly = make(**given_)
    assert not assembly.parts
    assert assembly.remarks[0].weight is Severity.FAILURE
    assert words in ledger.quantity(assembly.remarks[0].fact.quantity).definition.title


def test_a_groove_too_deep_is_said_with_its_mend():
    _, assembly = make(groove__depth=mm(9))
    remark = assembly.remarks[0]
    assert "half" in said(remark)
    assert remark.fixes[0].value == mm(5)


sizes = st.fractions(min_value=100, max_value=600, max_denominator=32)


@pytest.mark.dear
@given(sizes, sizes, st.fractions(min_value=40, max_value=300, max_denominator=32),
       st.fractions(min_value=8, max_value=20, max_denominator=32), st.sampled_from(["sides", "ends"]))  # fmt: skip
def test_any_sensible_box_goes_together(length, width, height, thickness, tails_on):
    ledger, assembly = make(
        "inside",
        tails_on,
        box__inside_length=mm(length),
        box__inside_width=mm(width),
        box__inside_height=mm(height),
        sides__thickness=mm(thickness),
        groove__depth=mm(Fraction(thickness, 3)),
    )
    assert not assembly.remarks
    # The volume of the sides, counted once where they overlap, is the outside less the inside.
    outside = [ledger[f"box.outside_{way}"] for way in ("length", "width")]
    sides = [part for part in assembly.parts if part.id != "bottom"]
    area = sum(part.length.mm * part.thickness.mm for part in sides)
    corners = 4 * thickness * thickness
    assert area - corners == outside[0] * outside[1] - length * width
