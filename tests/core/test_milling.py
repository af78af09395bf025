from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nullah.core.lengths import mm
from nullah.core.milling.forecast import Patch, forecast
from nullah.core.milling.slab import halves_crosscut, halves_ripped, thickest_slab
from nullah.core.milling.survey import Survey, SurveyError, from_figures, from_points
from nullah.core.milling.survey_facts import FacesCross, SurveyFault, SurveyGaps
from nullah.core.rack.board import Board

FLAT = Board("1", "flat", "black cherry", mm(900), mm(180), mm(27))


def whole(board):
    return from_figures(board, 0, float(board.length), 0, float(board.width))


def test_a_flat_board_gives_all_of_its_thickness():
    assert thickest_slab(whole(FLAT)).thickness == pytest.approx(27)


@pytest.mark.parametrize(("figure", "lost"), [("cup", 3), ("bow", 3), ("twist", 1.5)])
def test_each_figure_alone_costs_what_geometry_says(figure, lost):
    # Cup and bow: both faces follow the curve, so the whole of it goes. Twist: the two high
    # corners stand half the wind above the two low ones about a middle plane.
    board = replace(FLAT, **{figure: mm(3)})
    assert thickest_slab(whole(board)).thickness == pytest.approx(27 - lost, abs=1e-6)


def test_tilting_a_board_changes_nothing():
    survey = whole(replace(FLAT, cup=mm(2), twist=mm(4)))
    lean = 0.01 * survey.x[:, None] - 0.03 * survey.y[None, :] + 5
    tilted = Survey(survey.x, survey.y, survey.top + lean, survey.bottom + lean)
    one, two = thickest_slab(survey), thickest_slab(tilted)
    assert two.thickness == pytest.approx(one.thickness, abs=1e-7)
    assert (two.a - one.a, two.b - one.b) == pytest.approx((0.01, -0.03), abs=1e-7)


def test_among_equally_thick_slabs_the_one_that_lies_as_the_board_does():
    slab = thickest_slab(whole(replace(FLAT, bow=mm(3), cup=mm(2), twist=mm(4))))
    assert (slab.a, slab.b) == pytest.approx((0, 0), abs=1e-12)


@settings(max_examples=40, deadline=None)
@given(st.integers(0, 10**6), st.integers(2, 9), st.integers(2, 7))
def test_the_slab_lies_inside_and_cutting_first_never_gives_less(seed, rows, columns):
    rng = np.random.default_rng(seed)
    x, y = np.sort(rng.uniform(0, 900, rows)), np.sort(rng.uniform(0, 200, columns))
    if np.diff(x).min() < 1 or np.diff(y).min() < 1:
        return
    bottom = rng.normal(0, 2, (rows, columns))
    survey = Survey(x, y, bottom + 25 + rng.normal(0, 1, (rows, columns)), bottom)
    slab = thickest_slab(survey)
    floor = slab.a * x[:, None] + slab.b * y[None, :] + slab.c
    assert (floor >= survey.bottom - 1e-7).all()
    assert (floor + slab.thickness <= survey.top + 1e-7).all()
    assert min(*halves_crosscut(survey), *halves_ripped(survey)) >= slab.thickness - 1e-6


def test_a_board_bent_past_its_thickness_gives_nothing():
    assert thickest_slab(whole(replace(FLAT, bow=mm(40)))).thickness == 0


def test_a_patch_inherits_its_share_of_the_shape():
    board = replace(FLAT, bow=mm(4), twist=mm(4))
    half = from_figures(board, 0, 450, 0, 180)
    same = whole(board).part(0, 450, 0, 180)
    assert thickest_slab(half).thickness == pytest.approx(thickest_slab(same).thickness, abs=0.02)


def test_forecast_compares_whole_with_cut_first_and_never_promises_too_much():
    board = replace(FLAT, bow=mm(3), cup=mm("2.5"), twist=mm(4))
    seen = forecast(("side", "side"), board, Patch(0, 450, 0, 180), mm(21), cut_first=False)
    assert seen.whole == mm("20.5") and seen.cut_first == mm("23.2")
    assert seen.short == mm("0.5")
    assert forecast(("side", "side"), board, Patch(0, 450, 0, 180), mm(21), cut_first=True).short.mm < 0
    off = forecast(("side", "side"), board, Patch(2000, 2400, 0, 180), mm(21), cut_first=True)
    assert off.cut_first == mm(0)


GRID = [(x, y, 20.0, 0.0) for x in (0, 100) for y in (0, 50)]


@pytest.mark.parametrize(
    ("rows", "why"),
    [
        ([], SurveyFault.NO_READINGS),
        (GRID[:3], SurveyGaps(1, 100, 50)),
        ([*GRID, GRID[0]], SurveyFault.TWO_AT_ONE_PLACE),
        (GRID[:2], SurveyFault.TOO_FEW),
        ([*GRID[:3], (100, 50, -1.0, 0.0)], FacesCross(100, 50)),
        ([*GRID[:3], (100, 50, float("nan"), 0.0)], SurveyFault.NOT_A_NUMBER),
    ],
)
def test_readings_that_make_no_board_are_refused(rows, why):
    with pytest.raises(SurveyError) as refused:
        from_points(rows)
    assert refused.value.fact == why
