"""Milling against general libraries, closed forms and facts of the trade.

Least squares against SciPy's `lstsq` and against boards whose faces are known; the reference plane
against shapely's hulls and a general linear programme; strokes, sagitta and tapers against arithmetic.
Where a rule is common practice of the trade it is said so: there is no published source for it.
"""

import math
from dataclasses import replace

import numpy as np
import pytest
from scipy.linalg import lstsq
from scipy.optimize import linprog
from shapely import MultiPoint

from nullah.core.breakdown.layout import Rect
from nullah.core.lengths import mm
from nullah.core.milling.adjust import ACROSS, ALONG, _prior, adjust, readings_as_rows, usual_readings
from nullah.core.milling.decide import BoardFace, above
from nullah.core.milling.faces import survey_of
from nullah.core.milling.job import job_of
from nullah.core.milling.planing import Stroke, Work, plane_stroke
from nullah.core.milling.slab import thickest_slab
from nullah.core.milling.strokes import lane_step, out_of_flat, play
from nullah.core.milling.survey import Survey
from nullah.core.milling.tapers import taper_plan
from nullah.core.milling.trial import levelled, start_trial
from nullah.core.rack.board import Board
from nullah.core.shop import USUAL_PLANES, Plane, PlaneKind, Shop
from nullah.instruments.shape_gauges import SimulatedGauges


def made_up(seed):
    chance = np.random.default_rng(seed)
    figures = [mm(str(round(float(figure), 1))) for figure in chance.uniform(-4, 4, 3)]
    length, width = mm(int(chance.integers(400, 1600))), mm(int(chance.integers(90, 320)))
    return Board(f"b{seed}", "b", "black cherry", length, width, mm(26), *figures)


def surveyed(board, gauges, number=40):
    return replace(board, shape=tuple(gauges.read(board, each) for each in usual_readings(board)[:number]))


# --- least squares -------------------------------------------------------------------------------------


@pytest.mark.parametrize("seed", range(6))
def test_the_adjustment_against_a_general_least_squares_solver(seed):
    # Readings and prior as one stacked system, each row divided by its doubt: minimum of the same sum of squares.
    board = surveyed(made_up(seed), SimulatedGauges(seed), 20)
    xs, ys = np.linspace(0, float(board.length), ALONG), np.linspace(0, float(board.width), ACROSS)
    start, prior = _prior(board, True, xs, ys)
    rows, read, noise = readings_as_rows(board.shape, xs, ys)
    # The prior's own directions, those of no doubt at all left out.
    spread, axes = np.linalg.eigh(prior)
    axes, spread = axes[:, spread > 1e-9], spread[spread > 1e-9]
    scaled = axes * np.sqrt(spread)
    system = np.vstack(((rows @ scaled) / noise[:, None], np.eye(len(spread))))
    wanted = np.concatenate(((read - rows @ start) / noise, np.zeros(len(spread))))
    answer, *_ = lstsq(system, wanted)
    heights = start + scaled @ answer
    found = adjust(board).survey
    assert np.concatenate((found.top.ravel(), found.bottom.ravel())) == pytest.approx(heights, abs=2e-3)


@pytest.mark.dear
def test_known_surfaces_are_recovered_within_what_is_said_of_the_doubt():
    off, inside = [], []
    for seed in range(24):
        board, gauges = made_up(seed), SimulatedGauges(100 + seed)
        done = surveyed(board, gauges)
        found = adjust(done)
        truth = levelled(gauges.truth(board), found.survey)
        true = truth.at(found.survey.x, found.survey.y)
        faces = ((true.top, found.survey.top, found.top_sd), (true.bottom, found.survey.bottom, found.bottom_sd))
        for heights, seen, sd in faces:
            error = np.abs(seen - heights)
            inside.append(np.mean(error <= 2 * sd))
            off.append(float(np.sqrt(np.mean(error**2))))
    # Two standard deviations hold about 95 of 100 (normal errors); told doubts may be a little wide, not narrow.
    assert np.mean(inside) > 0.9
    assert np.mean(off) < 0.5


def test_the_thickness_forecast_holds_within_its_doubt():
    misses = []
    for seed in range(16):
        board, gauges = made_up(seed), SimulatedGauges(200 + seed)
        done = surveyed(board, gauges)
        slab = thickest_slab(survey_of(done))
        true = thickest_slab(gauges.truth(board))
        misses.append((slab.thickness - true.thickness) / adjust(done).slab_sd(slab.touching))
    assert np.sqrt(np.mean(np.square(misses))) < 1.6
    assert np.max(np.abs(misses)) < 4


# --- the reference plane ----------------------------------------------------------------------------------


@pytest.mark.parametrize("seed", range(12))
def test_where_the_slab_touches_the_two_hulls_meet(seed):
    # By the duality of linear programmes a slab is thickest where the convex hulls of what it touches above and
    # below, seen from straight above, have a point in common.
    board = surveyed(made_up(seed), SimulatedGauges(seed), 30)
    survey = survey_of(board)
    slab = thickest_slab(survey)

    def hull(upper):
        return MultiPoint([(x, y) for side, x, y, _ in slab.touching if side is upper]).convex_hull

    assert hull(True).distance(hull(False)) < 1e-3
    assert sum(weight for side, *_, weight in slab.touching if side) == pytest.approx(1)
    assert sum(weight for side, *_, weight in slab.touching if not side) == pytest.approx(-1)


@pytest.mark.parametrize("seed", range(8))
def test_wood_above_the_face_side_against_a_general_linear_programme(seed):
    board = surveyed(made_up(seed), SimulatedGauges(seed), 24)
    survey = survey_of(board)
    xx, yy = (grid.ravel() for grid in np.meshgrid(survey.x, survey.y, indexing="ij"))
    one, zero = np.ones_like(xx), np.zeros_like(xx)
    rows = np.vstack((np.column_stack((-xx, -yy, -one, zero)), np.column_stack((xx, yy, one, one))))
    limits = np.concatenate((-survey.bottom.ravel(), survey.top.ravel()))
    answer = linprog([0, 0, 0, -1], A_ub=rows, b_ub=limits, bounds=[(None, None)] * 4, method="highs")
    slab = thickest_slab(survey)
    assert slab.thickness == pytest.approx(answer.x[3], abs=1e-6)
    taken = float(above(survey, slab, BoardFace.UPPER).mean() + above(survey, slab, BoardFace.LOWER).mean())
    assert taken == pytest.approx(float((survey.top - survey.bottom).mean()) - answer.x[3], abs=1e-6)


# --- what planes do ----------------------------------------------------------------------------------------------


@pytest.mark.parametrize("mouth", [0.5, 0.33, 0.25])
def test_sagitta_of_a_chord(mouth):
    # In a circle of radius R a chord with the mouth at a from its toe and b from its heel stands a·b / 2R high there
    # (Euclid III 35, small heights): L² / 8R in the middle.
    radius, depth, sole = 200_000.0, 0.4, 560.0
    plane = Plane(PlaneKind.JOINTER, mm(560), mm(60), mm("0.001"), mm("0.4"), mouth)
    x = np.arange(0, 1805, 5.0)
    hollow = Work(np.repeat(((x - 900) ** 2 / 2 / radius)[:, None], 5, axis=1), 5.0, 5.0)
    after, _ = plane_stroke(hollow, Stroke((500.0, 10.0), (1300.0, 10.0), plane, depth))
    taken = float((hollow.heights - after.heights)[170:190, 2].max())
    stands = sole * mouth * sole * (1 - mouth) / 2 / radius
    # The heel comes to ride on what was just cut, which lets the iron down by its share of the shaving.
    assert depth - stands - 0.02 <= taken <= depth - stands + depth * mouth + 0.02


def test_shavings_weigh_what_the_board_has_lost():
    board = surveyed(made_up(3), SimulatedGauges(3), 24)
    job = job_of(board, Rect(0, 0, float(board.length), float(board.width)), Shop(), None, mm(0))
    face = job.faces[0]
    trial = start_trial(face.work)
    for number, each in enumerate(play(face.work, face.stages)):
        trial = trial.counted(each.work, each.shaving)
        if number > 150:
            break
    assert trial.shaved == pytest.approx(face.work.volume - trial.work.volume, rel=1e-9)


@pytest.mark.parametrize("plane", USUAL_PLANES)
def test_lanes_and_camber_against_the_parabola(plane):
    # An iron whose edge is a parabola, `camber` deep at its corners, set `depth` deep, cuts a chord
    # iron·√(depth/camber) wide and two thirds of depth times that in section (Archimedes).
    depth, iron, camber = float(plane.shaving), float(plane.iron), float(plane.camber)
    chord = min(iron, iron * math.sqrt(depth / camber))
    edge = np.linspace(-iron / 2, iron / 2, 200_001)
    cut = np.clip(depth - camber * (2 * edge / iron) ** 2, 0, None)
    section = float(np.trapezoid(cut, edge))
    flat = Work(np.zeros((121, 41)), 5.0, 2.5)
    _, shaving = plane_stroke(flat, Stroke((-30.0, 50.0), (630.0, 50.0), plane, depth))
    assert shaving.volume / 600 == pytest.approx(section, rel=0.1)
    assert lane_step(plane, depth) * depth == pytest.approx(section, rel=1e-6)
    assert lane_step(plane, depth) <= chord


def test_strokes_are_wood_over_shaving():
    # Common practice, no published source: strokes = wood above the line ÷ shaving. On an edge as wide as the iron,
    # 1 mm of even wood at 0.1 mm takes ten strokes.
    plane = Plane(PlaneKind.JOINTER, mm(560), mm(60), mm("0.001"), mm("0.1"))
    edge = Work(np.ones((181, 5)), 5.0, 5.0)
    for number in range(10):
        edge, _ = plane_stroke(edge, Stroke((-30.0, 10.0), (930.0, 10.0), plane, 0.1))
        assert float(edge.heights.mean()) == pytest.approx(1 - 0.1 * (number + 1), abs=0.01)


def test_a_taper_against_the_closed_form_and_the_trade():
    # A leg 720 long, 38 square, tapered from 120 below the top to 19 at the toe on all sides (common practice:
    # half its thickness at the toe): the line falls (x / run)·off, the angle is atan(off / run).
    plan = taper_plan(720, 38, 120, 9.5, "ABCD", 0.5)
    assert plan.toe == (19, 19) and plan.angle == pytest.approx(math.degrees(math.atan(9.5 / 600)))
    number = len(plan.strokes) + plan.full
    assert number == math.ceil(9.5 / 0.5)
    for x in np.linspace(0, 599, 25):
        passes = sum(stroke.start > x for stroke in plan.strokes) + plan.full
        assert passes * 9.5 / number == pytest.approx(9.5 * (1 - x / 600), abs=9.5 / number + 1e-9)


# --- the whole way ------------------------------------------------------------------------------------------------


@pytest.mark.dear
def test_a_twisted_board_surveyed_planned_and_played_ends_flat_and_the_thickness_holds():
    twisted = Board("t", "twisted", "black cherry", mm(620), mm(150), mm(27), mm(1), mm("1.5"), mm(6))
    gauges = SimulatedGauges(11)
    board = surveyed(twisted, gauges)
    assert adjust(board).known
    job = job_of(board, Rect(0, 0, 620, 150), Shop(), None, mm(0))
    truth = levelled(gauges.truth(twisted), survey_of(board))
    doubt = adjust(board).slab_sd(job.slab.touching)
    assert abs(job.slab.thickness - thickest_slab(truth).thickness) < 3 * doubt
    for face in job.faces:
        trial = start_trial(face.work)
        for each in play(face.work, face.stages):
            trial = trial.counted(each.work, each.shaving)
        assert trial.out_of_flat <= 0.1
        # Against a general solver: two parallel planes it fits between are no farther apart than was said.
        assert _apart(trial.work) <= trial.out_of_flat + 1e-9 <= out_of_flat(trial.work) + 1e-9


def _apart(work):
    """The least distance of two parallel planes a face fits between, by linear programme."""
    x, y = (grid.ravel() for grid in np.meshgrid(work.x, work.y, indexing="ij"))
    z, one, zero = work.heights.ravel(), np.ones(work.heights.size), np.zeros(work.heights.size)
    rows = np.vstack((np.column_stack((x, y, one, zero)), np.column_stack((-x, -y, -one, -one))))
    answer = linprog([0, 0, 0, 1], A_ub=rows, b_ub=np.concatenate((z, -z)), bounds=[(None, None)] * 4, method="highs")
    return float(answer.x[3])


def test_a_survey_is_not_read_past_its_border():
    survey = Survey(np.array([0.0, 100.0]), np.array([0.0, 50.0]), np.full((2, 2), 20.0), np.zeros((2, 2)))
    assert survey.at(np.array([-10.0, 110.0]), np.array([0.0])).top == pytest.approx(20.0)
