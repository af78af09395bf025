"""Shapings as prisms: what each takes off, and that it comes back from a file as it was."""

import json
import math
import re
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from nullah.core.lengths import LengthError, LengthFault, NoLength, Unit, mm
from nullah.core.piece.contours import CONTOURS, ContourFault, NoContour, shaping_of, traced, usual
from nullah.core.piece.part import Axis, Box, Needs, Part, Side
from nullah.core.piece.shaping import (
    Arch,
    Chamfer,
    LongBevel,
    Notch,
    OgeeFoot,
    RaisedPanel,
    RoundOver,
    Slant,
    Slot,
    Taper,
    Traced,
    ogee,
)
from nullah.core.piece.solids import build, recipe
from nullah.core.reader import Reader
from nullah.core.wording.shaping import shaping_name
from nullah.files.shapings import SHAPING

READER = TypeAdapter(SHAPING.form)
BOARD = Box((Fraction(0), Fraction(0), Fraction(0)), (Fraction(300), Fraction(120), Fraction(20)))


def part(*shapings, box=BOARD, grain=Axis.X, face=Axis.Z):
    return Part("p", 1, "board", box, grain, face, Needs.CLEAR, ("", "", ""), "", shapings=shapings)


def taken(*shapings, **how):
    """Return the wood shapings take off, mm³."""
    made = part(*shapings, **how)
    return float(made.box.volume) - build(recipe(made, (), {})).volume()


@pytest.mark.parametrize(
    ("shaping", "volume"),
    [
        (Chamfer((Side.TOP, Side.FRONT), 6), 6 * 6 / 2 * 300),
        (LongBevel((Side.TOP, Side.FRONT), 40, 5), 40 * 5 / 2 * 300),
        (Notch((0, 0, 0), (50, 30, 20)), 50 * 30 * 20),
        (RaisedPanel(Side.TOP, 40, 5, frozenset({Side.FRONT})), 40 * 5 / 2 * 300),
        (Traced(Side.FRONT, Axis.Z, ((0.0, 10.0), (300.0, 10.0))), 300 * 10 * 20),
        (Slant(Axis.X, ((0, 0), (30, 0), (0, 20))), 30 * 20 / 2 * 300),
        (Slant(Axis.X, ((0, 0), (30, 0), (0, 20)), (100, 160)), 30 * 20 / 2 * 60),
    ],
)
def test_straight_cuts_take_what_geometry_says(shaping, volume):
    assert taken(shaping) == pytest.approx(volume, abs=0.01)


def test_a_taper_takes_a_wedge_off_each_face():
    leg = Box((Fraction(0),) * 3, (Fraction(40), Fraction(40), Fraction(500)))
    one = taken(Taper(frozenset({Side.RIGHT}), Side.UNDER, 100, 10), box=leg, grain=Axis.Z, face=Axis.X)
    assert one == pytest.approx(400 * 10 / 2 * 40)
    up = taken(Taper(frozenset({Side.RIGHT}), Side.TOP, 100, 10), box=leg, grain=Axis.Z, face=Axis.X)
    assert up == pytest.approx(one), "towards either end alike"
    both = taken(Taper(frozenset({Side.RIGHT, Side.BACK}), Side.UNDER, 100, 10), box=leg, grain=Axis.Z, face=Axis.X)
    # Where both wedges meet at the corner, the wood is taken once: a pyramid of 400 × 10 × 10.
    assert both == pytest.approx(2 * one - 400 * 10 * 10 / 3)


def test_round_edges_are_fine_enough_for_a_knife_line():
    radius = 15
    assert taken(RoundOver((Side.TOP, Side.FRONT), radius)) == pytest.approx(
        (1 - math.pi / 4) * radius**2 * 300, rel=0.002
    )
    hole = Slot(Axis.Z, (150.0, 60.0), 90.0, 26.0)
    assert taken(hole) == pytest.approx((64 * 26 + math.pi * 13**2) * 20, rel=0.002)


def test_an_ogee_is_level_at_both_ends_and_halves_at_its_middle():
    points = ogee(60, 40)
    assert points[0] == (0, 0) and points[-1] == pytest.approx((60, 40))
    assert points[1][1] / points[1][0] < 0.03, "it begins level"
    assert any(abs(x - 30) < 1e-6 and abs(y - 20) < 1e-6 for x, y in points)


shapings = st.one_of(
    st.builds(Taper, st.just(frozenset({Side.FRONT, Side.LEFT})), st.just(Side.UNDER), st.just(60.5), st.just(9.25)),
    st.builds(Chamfer, st.just((Side.TOP, Side.LEFT)), st.floats(0.5, 20)),
    st.builds(RoundOver, st.just((Side.TOP, Side.LEFT)), st.floats(0.5, 20)),
    st.builds(Arch, st.sampled_from(list(Side)[:4]), st.just(Axis.Z), st.floats(20, 90), st.floats(1, 9)),
    st.builds(OgeeFoot, st.just(Side.UNDER), st.just(Axis.Y), st.floats(1, 30), st.floats(1, 30), st.floats(1, 9)),
    st.builds(LongBevel, st.just((Side.TOP, Side.BACK)), st.floats(1, 30), st.floats(1, 30)),
    st.builds(RaisedPanel, st.just(Side.TOP), st.floats(1, 30), st.floats(1, 9)),
    st.builds(Notch, st.just((0.0, 1.5, 2.0)), st.just((9.0, 8.0, 7.0))),
    st.builds(Traced, st.just(Side.BACK), st.just(Axis.Z), st.just(((0.0, 4.0), (90.0, 12.5)))),
    st.builds(
        Slant,
        st.sampled_from(list(Axis)),
        st.just(((0.0, 0.0), (9.0, 0.0), (0.0, 5.0))),
        st.none() | st.tuples(st.floats(0, 9), st.floats(10, 20)),
    ),
    st.just(Slant(Axis.X, ((0.0, 0.0), (9.0, 0.0), (0.0, 5.0)), (2.0, 7.5))),
)


@given(shapings)
def test_any_shaping_comes_back_from_a_file_as_it_was(shaping):
    assert READER.validate_json(json.dumps(SHAPING.write(shaping))) == shaping
    assert not re.search(r"[{}]|^$", shaping_name(shaping, Reader()))
    assert taken(shaping) >= 0


@pytest.mark.parametrize(
    ("kind", "sides", "axis", "figures"),
    [
        ("chamfer", ["top"], "", [3.0]), ("chamfer", ["top", "underneath"], "", [3.0]), ("arch", ["front"], "", [9, 2]),
        ("taper", [], "", [1, 2]), ("notch", [], "", [1, 2, 3]), ("round-over", ["top", "up"], "", [1.0]),
        ("traced edge", ["top"], "z", []),
        ("slant", [], "x", [0.0, math.nan]), ("chamfer", ["top", "left"], "", [math.inf]),
    ],
)  # fmt: skip
def test_a_shaping_that_makes_no_sense_is_refused(kind, sides, axis, figures):
    with pytest.raises(ValidationError):
        READER.validate_python({"kind": kind, "sides": sides, "axis": axis, "figures": figures, "points": []})


@pytest.mark.parametrize("contour", CONTOURS.values(), ids=lambda contour: contour.id)
def test_every_contour_can_be_cut_at_every_place_it_offers(contour):
    board = part()
    places = contour.places(board)
    assert places and len({place.title for place in places}) == len(places)
    for place in places:
        shaping = shaping_of(contour, board, place.sides, usual(contour, board))
        assert 0 < taken(shaping) < float(BOARD.volume), place.title


@pytest.mark.parametrize("sizes", [(mm(0),), (mm(-3),), (mm(900),)])
def test_a_contour_must_have_a_size_that_the_board_has(sizes):
    contour = CONTOURS["chamfer"]
    with pytest.raises(LengthError) as refused:
        shaping_of(contour, part(), (Side.TOP, Side.FRONT), sizes)
    fault = ContourFault.LARGER_THAN_BOARD if sizes[0].mm > 0 else ContourFault.NOT_POSITIVE
    assert refused.value.fact == NoContour(fault, "width")


def test_an_edge_is_traced_from_a_template():
    found = traced(part(), Side.FRONT, "along;in\n0;10\n150;1 in\n300;10", Unit.MM)
    assert found.points == ((0.0, 10.0), (150.0, 25.4), (300.0, 10.0))
    assert taken(found) == pytest.approx((10 + 25.4) / 2 * 300 * 20)
    assert shaping_name(found, Reader()) == "traced edge front"
    for text, why in (
        ("0;1;2", NoContour(ContourFault.TWO_LENGTHS_WANTED, line=1)),
        ("0;1", NoContour(ContourFault.TOO_FEW_POINTS)),
        ("0;x\n1;2", NoLength(LengthFault.NO_LENGTH, "x")),
        ("", NoContour(ContourFault.TOO_FEW_POINTS)),
    ):
        with pytest.raises(LengthError) as refused:
            traced(part(), Side.FRONT, text, Unit.MM)
        assert refused.value.fact == why
