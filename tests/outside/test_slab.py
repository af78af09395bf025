"""The thickest slab against a general linear programme, convex geometry, and brute force.

The other programme is SciPy's HiGHS on the primal with every station; ours solves the dual on the
stations a plane can touch.
"""

import numpy as np
import pytest
from scipy.optimize import linprog
from scipy.spatial import ConvexHull

from nullah.core.lengths import mm
from nullah.core.milling.slab import halves_crosscut, halves_ripped, thickest_slab
from nullah.core.milling.survey import Survey, from_figures
from nullah.core.rack.board import Board


def random_board(seed, n=9, m=5):
    rng = np.random.default_rng(seed)
    x, y = np.linspace(0, 800, n), np.linspace(0, 160, m)
    u, v = np.meshgrid(x / 400 - 1, y / 80 - 1, indexing="ij")
    shape = rng.normal(0, 2) * u**2 + rng.normal(0, 2) * v**2 + rng.normal(0, 2) * u * v
    bottom = shape + rng.normal(0, 0.4, u.shape)
    top = shape + 24 + rng.normal(0, 0.4, u.shape)
    return Survey(x, y, top, bottom)


def by_primal(survey):
    """Most t with bottom ≤ ax + by + c and ax + by + c + t ≤ top, as it is written down."""
    xx, yy = (grid.ravel() for grid in np.meshgrid(survey.x, survey.y, indexing="ij"))
    one, zero = np.ones_like(xx), np.zeros_like(xx)
    rows = np.vstack((np.column_stack((-xx, -yy, -one, zero)), np.column_stack((xx, yy, one, one))))
    limits = np.concatenate((-survey.bottom.ravel(), survey.top.ravel()))
    answer = linprog([0, 0, 0, -1], A_ub=rows, b_ub=limits, bounds=[(None, None)] * 4, method="highs")
    return answer.x[3]


@pytest.mark.parametrize("seed", range(25))
def test_against_a_general_linear_programme(seed):
    survey = random_board(seed)
    assert thickest_slab(survey).thickness == pytest.approx(by_primal(survey), abs=1e-6)


@pytest.mark.parametrize("seed", range(5))
def test_a_large_survey_against_the_same(seed):
    survey = random_board(seed, 41, 13)
    assert thickest_slab(survey).thickness == pytest.approx(by_primal(survey), abs=1e-6)


def test_against_brute_force_on_a_small_grid():
    survey = random_board(3, 4, 3)
    best = 0.0
    for a in np.linspace(-0.02, 0.02, 161):
        for b in np.linspace(-0.08, 0.08, 161):
            lean = a * survey.x[:, None] + b * survey.y[None, :]
            best = max(best, (survey.top - lean).min() - (survey.bottom - lean).max())
    found = thickest_slab(survey).thickness
    assert best <= found + 1e-9 and found - best < 0.1


@pytest.mark.parametrize("seed", range(10))
def test_against_convex_hulls(seed):
    # By duality the slab is as thick as the least gap, straight up, between the hull under the
    # upper face and the hull over the lower one.
    survey = random_board(seed)
    xx, yy = (grid.ravel() for grid in np.meshgrid(survey.x, survey.y, indexing="ij"))

    def planes(z, sign):
        hull = ConvexHull(np.column_stack((xx, yy, z)))
        return hull.equations[sign * hull.equations[:, 2] > 1e-12]

    under, over = planes(survey.top.ravel(), -1), planes(survey.bottom.ravel(), 1)

    def gap(x, y):
        ceiling = max(-(e[0] * x + e[1] * y + e[3]) / e[2] for e in under)
        floor = min(-(e[0] * x + e[1] * y + e[3]) / e[2] for e in over)
        return ceiling - floor

    least = min(gap(x, y) for x in np.linspace(0, 800, 41) for y in np.linspace(0, 160, 21))
    found = thickest_slab(survey).thickness
    assert found <= least + 1e-7 and least - found < 0.4


def test_four_figures_against_closed_form():
    # Bow 3 and cup 2.5 in the same sense, wind 4: at the middle 5.5 above the edges, the two low
    # corners 1 below: 27 - 6.5. In half the length a quarter of the bow and half the wind are left.
    board = Board("1", "b", "black cherry", mm(900), mm(180), mm(27), mm("2.5"), mm(3), mm(4))
    survey = from_figures(board, 0, 900, 0, 180)
    assert thickest_slab(survey).thickness == pytest.approx(20.5)
    assert halves_crosscut(survey) == pytest.approx((23.25, 23.25))
    assert halves_ripped(survey) == pytest.approx((22.875, 22.875))
