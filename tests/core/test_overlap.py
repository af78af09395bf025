"""The overlap rule: every family of joint shares the wood out whole, and is named as the trade names it."""

from fractions import Fraction
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nullah.core.joints.bridle import BRIDLE
from nullah.core.joints.butt import BUTT
from nullah.core.joints.dovetail.joint_type import DOVETAIL
from nullah.core.joints.dovetail.tail_edges import tail_edges
from nullah.core.joints.dovetail.tails import Tails
from nullah.core.joints.lap import LAP
from nullah.core.joints.let_in import LET_IN
from nullah.core.joints.mitre import MITRE
from nullah.core.joints.tenon import TENON
from nullah.core.lengths import Slope
from nullah.core.piece.joint import Hold, Joint
from nullah.core.piece.overlap import contact, lines, meetings, outward
from nullah.core.piece.part import Axis, Box, Needs, Part
from nullah.core.piece.solids import HAIR, build, recipe
from nullah.core.piece.space import Side, around, side_at, sides_of

_AXES = {"x": Axis.X, "y": Axis.Y, "z": Axis.Z}


def name_of(made, first, second):
    return made.type.name(made, first, second)


def board(name, low, high, lie):
    box = Box(tuple(map(Fraction, low)), tuple(map(Fraction, high)))
    return Part(name, 1, name, box, _AXES[lie[0]], _AXES[lie[1]], Needs.CLEAR, ("", "", ""), name)


SIDE = board("side", (0, 0, 0), (18, 200, 400), "zx")
SHELF = board("shelf", (12, 0, 150), (300, 200, 166), "xz")
TOP = board("top", (0, 0, 382), (300, 200, 400), "xz")
BACK = board("back", (10, 191, 0), (300, 200, 400), "xy")
RAIL = board("rail", (-20, 80, 100), (200, 100, 160), "xy")
POST = board("post", (-40, 70, 0), (0, 110, 400), "zx")
ONE, TWO = board("one", (0, 100, 0), (300, 150, 20), "xz"), board("two", (100, 0, 0), (150, 300, 20), "yz")
RAIL_END, STILE = board("rail end", (0, 0, 0), (300, 50, 20), "xz"), board("stile", (0, 0, 0), (50, 300, 20), "yz")
TAILS = Tails("tails", 3, Fraction(9), Fraction(6), Slope(Fraction(7)))


def joint(sharing, first, second, **how):
    return Joint("j", sharing, first.id, second.id, **how)


def third(first, second):
    overlap = first.box.overlap(second.box)
    low, size = overlap.low[second.face.value], overlap.size(second.face)
    return (overlap.set(second.face, low + size / 3, low + 2 * size / 3),)


CASES = {
    "dado": (SIDE, SHELF, joint(LET_IN, SIDE, SHELF)),
    "rabbet": (SIDE, BACK, joint(LET_IN, SIDE, BACK)),
    "through dovetail": (SIDE, TOP, joint(DOVETAIL, SIDE, TOP, figures=TAILS)),
    "mortise and tenon": (POST, RAIL, joint(TENON, POST, RAIL, shares=third(POST, RAIL))),
    "lap": (ONE, TWO, joint(LAP, ONE, TWO, shares=(ONE.box.overlap(TWO.box).set(Axis.Z, 10, 20),))),
    "bridle": (RAIL_END, STILE, joint(BRIDLE, RAIL_END, STILE, shares=third(RAIL_END, STILE))),
    "miter": (RAIL_END, STILE, joint(MITRE, RAIL_END, STILE)),
}


@pytest.mark.parametrize("name", CASES)
def test_a_joint_gives_every_bit_of_wood_to_one_of_the_two(name):
    first, second, made = CASES[name]
    parts = {first.id: first, second.id: second}
    recipes = [recipe(part, (made,), parts) for part in (first, second)]
    solids = [build(each, hair=0.0) for each in recipes]
    overlap = float(first.box.overlap(second.box).volume)
    whole = float(first.box.volume + second.box.volume)
    assert sum(solid.volume() for solid in solids) == pytest.approx(whole - overlap, rel=1e-9)
    assert (solids[0] ^ solids[1]).volume() == pytest.approx(0, abs=1e-6)
    # What a hair takes besides is no thicker than it anywhere, and takes no wood from one to give it to the other.
    for each, exact in zip(recipes, solids, strict=True):
        assert 0 <= exact.volume() - build(each).volume() <= HAIR * exact.surface_area()
    assert (build(recipes[0]) ^ build(recipes[1])).volume() == pytest.approx(0, abs=1e-6)


@pytest.mark.parametrize("name", CASES)
def test_the_geometry_names_it(name):
    first, second, made = CASES[name]
    assert name_of(made, first, second) == name


def test_stopped_half_blind_double_and_butt_are_told_apart():
    stopped = SIDE.box.overlap(SHELF.box).set(Axis.Y, Fraction(10), Fraction(200))
    assert name_of(joint(LET_IN, SIDE, SHELF, channels=(stopped,)), SIDE, SHELF) == "stopped dado"
    front = board("front", (0, 0, 0), (300, 20, 100), "xy")
    drawer = board("drawer side", (0, 6, 0), (12, 250, 100), "yx")
    blind = joint(DOVETAIL, drawer, front, figures=TAILS._replace(lap=Fraction(6)))
    assert name_of(blind, drawer, front) == "half-blind dovetail"
    two = joint(TENON, POST, RAIL, shares=third(POST, RAIL) * 2)
    assert name_of(two, POST, RAIL) == "double tenon"
    assert name_of(joint(BUTT, ONE, TWO, hold=Hold.NAILS), ONE, TWO) == "butt joint, nailed"
    bottom = board("bottom", (13, 5, 10), (300, 195, 16), "xz")
    wall = board("wall", (0, 0, 0), (18, 200, 100), "yx")
    assert name_of(joint(LET_IN, wall, bottom), wall, bottom) == "groove"


def test_a_shoulder_is_cut_off_what_the_guest_does_not_keep():
    overlap = SIDE.box.overlap(SHELF.box)
    tongue = overlap.set(Axis.Z, Fraction(150), Fraction(158))
    shouldered = joint(LET_IN, SIDE, SHELF, channels=(tongue,), shares=(tongue,))
    parts = {"side": SIDE, "shelf": SHELF}
    shelf = build(recipe(SHELF, (shouldered,), parts))
    assert float(SHELF.box.volume) - shelf.volume() == pytest.approx(float(overlap.volume - tongue.volume))
    side = build(recipe(SIDE, (shouldered,), parts))
    assert float(SIDE.box.volume) - side.volume() == pytest.approx(float(tongue.volume))


def test_a_share_is_no_more_than_what_is_there():
    beyond = SIDE.box.overlap(SHELF.box).set(Axis.X, Fraction(0), Fraction(18))
    shared = lines(joint(LET_IN, SIDE, SHELF, shares=(beyond,)), SIDE, SHELF)
    assert shared.second_keeps == (SIDE.box.overlap(SHELF.box),)
    away = beyond.moved((Fraction(500), Fraction(0), Fraction(0)))
    assert lines(joint(LET_IN, SIDE, SHELF, shares=(away,)), SIDE, SHELF).second_keeps == ()


coordinates = st.integers(-20, 20)
boxes = st.builds(
    lambda low, size: Box(tuple(map(Fraction, low)), tuple(Fraction(a + b) for a, b in zip(low, size, strict=True))),
    st.tuples(coordinates, coordinates, coordinates),
    st.tuples(st.integers(1, 20), st.integers(1, 20), st.integers(1, 20)),
)


@given(boxes, boxes)
def test_overlap_is_what_both_hold(one, two):
    both = one.overlap(two)
    assert both == two.overlap(one)
    if both is not None:
        assert one.holds(both) and two.holds(both) and both.volume > 0
        assert contact(board("a", one.low, one.high, "xz"), board("b", two.low, two.high, "xz")) == both
    whole = around((one, two))
    assert whole.holds(one) and whole.holds(two)
    floats, other = one.in_floats(), two.in_floats()
    assert (floats.overlap(other) is None) == (both is None), "equal coordinates stay equal"


@given(st.lists(boxes, min_size=2, max_size=7))
def test_meetings_are_all_pairs_that_overlap(found):
    parts = tuple(board(str(number), box.low, box.high, "xz") for number, box in enumerate(found))
    expected = {(a.id, b.id) for i, a in enumerate(parts) for b in parts[i + 1 :] if a.box.overlap(b.box) is not None}
    assert {(m.first.id, m.second.id) for m in meetings(parts)} == expected


@given(
    st.integers(1, 12), st.fractions(40, 400, max_denominator=8), st.fractions(0, 10, max_denominator=8),
    st.fractions(0, 3, max_denominator=8),
)  # fmt: skip
def test_tails_are_even_and_end_a_half_pin_from_each_edge(count, width, half_pin, pin):
    edges = tail_edges(width, count, half_pin, pin)
    assert len(edges) == count
    assert edges[0][0] == half_pin and edges[-1][1] == width - half_pin
    assert len({high - low for low, high in edges}) == 1
    assert all(after[0] - before[1] == pin for before, after in pairwise(edges))


def test_sides_and_the_way_a_channel_is_sunk():
    assert sides_of("lt") == {Side.LEFT, Side.TOP}
    assert Side.LEFT.opposite is Side.RIGHT and side_at(Axis.Z, True) is Side.TOP
    assert outward(SIDE, SIDE.box.overlap(SHELF.box)) is Axis.X
    assert outward(SIDE, SIDE.box.overlap(BACK.box)) is Axis.X, "a rabbet is as deep as it goes into the thickness"
    through = POST.box.set(Axis.Z, Fraction(100), Fraction(160))
    assert outward(POST, through) is POST.face
