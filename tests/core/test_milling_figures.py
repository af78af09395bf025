"""The figures of the survey against other ways to the same answer: boards made by the thousand, refits, brute force."""

from dataclasses import replace

import numpy as np
import pytest

from nullah.core.lengths import mm
from nullah.core.milling.adjust import CALLIPER_SD, GAP_SD, WIND_SD, adjust, readings_as_rows, usual_readings
from nullah.core.milling.decide import BoardFace, Corner, FaceReason, best_crosscut, face_side, twist_of
from nullah.core.milling.slab import _corners, _tilt, _tilt_by_general_solver, _touchable, thickest_slab
from nullah.core.milling.survey import Survey
from nullah.core.rack.board import Board
from nullah.core.rack.shape_readings import Calliper, Gap, Wind, figure_of, with_figure
from nullah.instruments.shape_gauges import SimulatedGauges

BOARD = Board("1", "one", "black cherry", mm(900), mm(180), mm(27), cup=mm(3), bow=mm(2), twist=mm(4))


# --- what is believed of a board before it is read -----------------------------------------------------


def _smooth(chance, places, reach, count):
    """Make smooth random surfaces of unit height over stations, alike as a Gaussian of that reach says."""
    apart = sum(((each[:, None] - each[None, :]) / reach_) ** 2 for each, reach_ in zip(places, reach, strict=True))
    values, vectors = np.linalg.eigh(np.exp(-apart / 2))
    return chance.standard_normal((count, len(values))) * np.sqrt(np.clip(values, 0, None)) @ vectors.T


def _pile(figures, spreads, thick, count=12000):
    """Make a pile of boards as practice says they are: middles (level) and thicknesses, mm, shape (count, stations)."""
    chance = np.random.default_rng(5)
    u, v = np.meshgrid(np.linspace(-1, 1, 21), np.linspace(-1, 1, 7), indexing="ij")
    u, v = u.ravel(), v.ravel()
    bow, cup, twist = (at + sd * chance.standard_normal((count, 1)) for at, sd in zip(figures, spreads, strict=True))
    # A twist is how far two corners stand up together: each of the four by a quarter of it.
    middle = bow * (1 - u**2) + cup * (1 - v**2) + twist * u * v / 4
    middle += 0.8 * _smooth(chance, (u,), (0.45,), count)
    middle += 0.5 * _smooth(chance, (u,), (0.45,), count) * (1 - v**2)
    middle += 1.2 * _smooth(chance, (u,), (0.45,), count) * v
    middle += 0.2 * _smooth(chance, (u, v), (0.3, 0.9), count)
    plane = np.column_stack((np.ones_like(u), u, v))
    middle -= middle @ plane @ np.linalg.inv(plane.T @ plane) @ plane.T
    wedge = chance.standard_normal((2, count, 1)) * 0.7 / 2
    deep = 27 + thick * chance.standard_normal((count, 1)) + wedge[0] * u + wedge[1] * v
    # Reaches of the uneven thickness: 0.6 of half the length, 0.9 of half the width.
    deep += 0.3 * _smooth(chance, (u, v), (0.6, 0.9), count)
    return middle, deep


@pytest.mark.dear
def test_faces_without_readings_scatter_as_a_pile_of_boards_with_these_figures_does():
    # Each figure is known to half a millimetre and a fifth of itself; the wind stands at two corners, so twice that.
    middle, deep = _pile((2, 3, 4), (0.5 + 0.2 * 2, 0.5 + 0.2 * 3, 2 * (0.5 + 0.2 * 4)), 0.3)
    found = adjust(BOARD)
    for heights, sd, faces in (
        (middle + deep / 2, found.top_sd, found.survey.top), (middle - deep / 2, found.bottom_sd, found.survey.bottom),
    ):  # fmt: skip
        assert faces.ravel() == pytest.approx(heights.mean(axis=0), abs=0.06)
        assert sd.ravel() == pytest.approx(heights.std(axis=0), rel=0.03)
    both = np.concatenate((middle + deep / 2, middle - deep / 2), axis=1)
    assert found.covariance == pytest.approx(np.cov(both.T), abs=0.12)


def test_once_it_is_read_the_figures_count_for_little_and_a_calliper_tells_of_thickness_alone():
    middle, deep = _pile((2, 3, 4), (6.0, 4.0, 2 * 5.0), 2.0)
    at = Calliper((450.0, 90.0), mm(27))
    found = adjust(replace(BOARD, shape=(at,)))
    size = 21 * 7
    tops, bottoms = found.covariance[:size], found.covariance[size:]
    middles = (tops[:, :size] + tops[:, size:] + bottoms[:, :size] + bottoms[:, size:]) / 4
    assert np.sqrt(np.diag(middles)) == pytest.approx(middle.std(axis=0), rel=0.03)
    assert middles == pytest.approx(np.cov(middle.T), abs=1.2)
    known = np.cov(deep.T)
    here = size // 2
    known = known - np.outer(known[here], known[here]) / (known[here, here] + CALLIPER_SD**2)
    thicknesses = tops[:, :size] - tops[:, size:] - bottoms[:, :size] + bottoms[:, size:]
    assert thicknesses == pytest.approx(known, abs=0.02)


def test_a_straightedge_on_one_face_leaves_the_thickness_as_unsure_as_it_was():
    middle, deep = _pile((2, 3, 4), (6.0, 4.0, 2 * 5.0), 2.0)
    gap = Gap(True, (0.0, 90.0), (900.0, 90.0), (450.0, 90.0), mm(0))
    found = adjust(replace(BOARD, shape=(gap,)))
    both = np.cov(np.concatenate((middle + deep / 2, middle - deep / 2), axis=1).T)
    row = np.zeros(294)
    row[[3, 20 * 7 + 3, 10 * 7 + 3]] = 0.5, 0.5, -1.0
    known = both - np.outer(both @ row, row @ both) / (row @ both @ row + GAP_SD**2)
    assert np.sqrt(np.diag(known)) == pytest.approx(
        np.concatenate((found.top_sd, found.bottom_sd), axis=None), rel=0.04
    )
    apart = np.hstack((np.eye(147), -np.eye(147)))
    thickness = np.sqrt(np.diag(apart @ found.covariance @ apart.T))
    assert thickness == pytest.approx(np.sqrt(np.diag(apart @ known @ apart.T)), rel=0.04) and thickness.min() > 1.9


# --- readings --------------------------------------------------------------------------------------------


def test_the_usual_readings_stand_where_one_takes_them():
    def told(reading):
        if isinstance(reading, Calliper):
            return ("calliper", *reading.at)
        if isinstance(reading, Wind):
            return ("sticks", reading.upper, reading.near, reading.far)
        return ("edge", reading.upper, *reading.start, *reading.end, *reading.at)

    faces = []
    for upper in (True, False):
        faces += [("edge", upper, 0, y, 900, y, 450, y) for y in (90, 0, 180)]
        faces += [("edge", upper, x, 0, x, 180, x, 90) for x in (450, 0, 900)]
        faces += [("edge", upper, 0, 0, 900, 180, 450, 90), ("edge", upper, 0, 180, 900, 0, 450, 90)]
        faces += [("sticks", upper, *ends) for ends in ((0, 900), (0, 450), (450, 900))]
        if upper:
            faces += [("calliper", x, y) for x in (0, 450, 900) for y in (0, 180)]
    for x in (225, 675):
        faces += [("edge", True, 0, y, 900, y, x, y) for y in (90, 0, 180)]
        faces += [("edge", True, x, 0, x, 180, x, 90)]
        faces += [("calliper", x, 0), ("calliper", x, 180), ("sticks", True, 0, x)]
    usual = usual_readings(BOARD)
    assert [told(reading) for reading in usual] == faces
    assert {figure_of(reading) for reading in usual} == {mm(0), mm(27)}
    # Sticks half as long again as the board is wide, and never under 300.
    assert {each.stick for each in usual if isinstance(each, Wind)} == {mm(300)}
    wide = usual_readings(replace(BOARD, width=mm(220)))
    assert {each.stick for each in wide if isinstance(each, Wind)} == {mm(330)}


@pytest.mark.parametrize("upper", [True, False])
def test_readings_are_what_straightedge_sticks_and_calliper_read_on_a_known_board(upper):
    xs, ys = np.linspace(0.0, 900.0, 21), np.linspace(0.0, 180.0, 7)
    top = 27 + np.random.default_rng(2).normal(0, 2, (21, 7))
    bottom = np.random.default_rng(3).normal(0, 2, (21, 7))
    # The lower face is read turned up: what stands out of it is high.
    face = top if upper else -bottom
    readings = (
        Gap(upper, (90.0, 30.0), (810.0, 150.0), (270.0, 60.0), mm(0)), Wind(upper, 90.0, 810.0, mm(360), mm(0)),
        Wind(upper, 90.0, 810.0, mm(90), mm(0)), Calliper((450.0, 60.0), mm(25)),
    )  # fmt: skip
    rows, read, noise = readings_as_rows(readings, xs, ys)
    found = rows @ np.concatenate((top.ravel(), bottom.ravel()))
    gap = 0.75 * face[2, 1] + 0.25 * face[18, 5] - face[6, 2]
    winds = (face[18, 6] - face[18, 0]) - (face[2, 6] - face[2, 0])
    assert found == pytest.approx([gap, 2 * winds, winds / 2, top[10, 2] - bottom[10, 2]])
    assert list(read) == [0, 0, 0, 25]
    # A stick longer than the board is wide shows more, and its error with it; a shorter one is no surer.
    assert list(noise) == [GAP_SD, 2 * WIND_SD, WIND_SD, CALLIPER_SD]


def test_how_sure_a_thickness_is_hangs_on_both_places_between_their_stations():
    found = adjust(BOARD)
    xs = found.survey.x
    half = (float(xs[3]) + float(xs[4])) / 2
    row = np.zeros(2 * 21 * 7)
    row[3 * 7 + 2], row[4 * 7 + 2] = 0.5, 0.5
    row[21 * 7 + 8 * 7 + 5] = -1.0
    expected = float(row @ found.covariance @ row) ** 0.5
    assert found.slab_sd([(True, half, 60.0, 1.0), (False, 8 * 45.0, 150.0, -1.0)]) == pytest.approx(expected)


def _without(board, *numbers):
    return replace(board, shape=tuple(each for n, each in enumerate(board.shape) if n not in numbers))


def _foretold(board, reading):
    """Return what a reading should be by all those of a board, and how sure that is with its own error, mm."""
    found = adjust(board)
    rows, _, noise = readings_as_rows((reading,), found.survey.x, found.survey.y)
    heights = np.concatenate((found.survey.top.ravel(), found.survey.bottom.ravel()))
    return float(rows[0] @ heights), float(rows[0] @ found.covariance @ rows[0] + noise[0] ** 2) ** 0.5


@pytest.mark.sampled(2)
@pytest.mark.parametrize(("number", "off"), [(10, 5.0), (3, -7.0), (13, 6.0), (24, 6.0), (30, 5.0)])
def test_what_contradicts_is_what_leaving_readings_out_by_hand_finds(number, off):
    gauges = SimulatedGauges(7)
    shape = [gauges.read(BOARD, reading) for reading in usual_readings(BOARD)[:36]]
    shape[number] = with_figure(shape[number], figure_of(shape[number]) + mm(str(off)))
    board = replace(BOARD, shape=tuple(shape))
    found = adjust(board).contradiction
    astray = []
    for each, reading in enumerate(shape):
        foretold, sd = _foretold(_without(board, each), reading)
        astray.append((abs(float(figure_of(reading)) - foretold) / sd, abs(float(figure_of(reading)) - foretold)))
    first = max(range(len(shape)), key=lambda each: astray[each][0])
    assert (found.first, found.apart) == (first, pytest.approx(astray[first][1], rel=1e-3))
    best = {}
    for each in set(range(len(shape))) - {first}:
        foretold, sd = _foretold(_without(board, each, first), shape[first])
        best[each] = abs(float(figure_of(shape[first])) - foretold) / sd
    assert best[found.second] == pytest.approx(min(best.values()), rel=1e-3)
    # Just under and just over what is taken for a contradiction: a residual goes with what was read.
    foretold, sd = _foretold(_without(board, first), shape[first])
    for times, contradicts in ((3.25, False), (3.35, True)):
        figure = mm(str(round(foretold + times * sd, 6)))
        again = replace(
            board, shape=tuple(with_figure(each, figure) if n == first else each for n, each in enumerate(shape))
        )
        assert (adjust(again).contradiction is not None) is contradicts


# --- what a survey tells ---------------------------------------------------------------------------------


def survey(heights, start=0.0):
    """Return a board 25 mm thick of 41 × 13 stations, 900 × 180 mm, that lies as these heights say."""
    return Survey(np.linspace(start, start + 900, 41), np.linspace(0, 180, 13), heights + 25.0, heights + 0.0)


@pytest.mark.parametrize(("hump", "rocks"), [(0.29, False), (0.31, True)])
def test_a_board_rocks_on_the_middle_third_of_its_face_by_what_it_stands_above_the_rim(hump, rocks):
    heights = np.full((41, 13), 7.0)  # what is neither rim nor middle third
    heights[13:28, 4:9] = hump
    heights[0] = heights[-1] = 0.0
    heights[:, 0] = heights[:, -1] = 0.0
    heights[0, 3], heights[-1, 5], heights[9, 0], heights[20, -1] = 3.0, -3.0, 2.0, -2.0
    board = survey(heights)
    found = face_side(board, thickest_slab(board))
    assert found.rocks == (rocks, False)
    turned = Survey(board.x, board.y, 25 - heights, -heights)
    assert face_side(turned, thickest_slab(turned)).rocks == (False, rocks)


def test_of_two_faces_alike_the_upper_is_the_face_side_and_what_each_loses_is_told():
    flat = survey(np.zeros((41, 13)))
    found = face_side(flat, thickest_slab(flat))
    assert (found.face, found.reason, found.rocks) == (BoardFace.UPPER, FaceReason.LESS_TO_TAKE, (False, False))
    # A wedge of 4 mm above, true below: with the lower face first there is nothing to take.
    wedge = Survey(flat.x, flat.y, 25 + np.linspace(0, 0.2, 41)[:, None] + np.zeros((41, 13)), np.zeros((41, 13)))
    wedge.top[20, 6] += 0.25  # a lump, so that no tilt makes both faces true
    slab = thickest_slab(wedge)
    found = face_side(wedge, slab)
    upper = float((wedge.top - slab.a * wedge.x[:, None] - slab.b * wedge.y - slab.c - slab.thickness).mean())
    lower = float((slab.a * wedge.x[:, None] + slab.b * wedge.y + slab.c - wedge.bottom).mean())
    assert found.takes == pytest.approx((min(upper, lower), max(upper, lower)))
    assert found.face is (BoardFace.UPPER if upper < lower else BoardFace.LOWER)


@pytest.mark.parametrize("start", [0.0, 300.0])
@pytest.mark.parametrize("face", list(BoardFace))
@pytest.mark.parametrize("sign", [1, -1])
@pytest.mark.parametrize(("first", "last"), [(4, 36), (5, 40), (0, 35), (5, 35), (0, 40)])
def test_a_wind_begins_at_the_last_true_station_and_ends_at_the_first(start, face, sign, first, last):
    tilt = np.clip(np.arange(41) - first, 0, last - first) * 0.2  # each station 0.2 mm more: over half of what is true
    board = survey(sign * tilt[:, None] * np.linspace(-0.5, 0.5, 13)[None, :], start)
    found = twist_of(board, face)
    assert (found.start, found.end) == pytest.approx((start + first * 22.5, start + last * 22.5))
    assert found.wind == pytest.approx(sign * (last - first) * 0.2)
    rises = (sign > 0) == (face is BoardFace.UPPER)
    left, right = Corner(upper=not rises, right=False), Corner(upper=rises, right=True)
    # A tenth of the length, four stations of forty, is not yet a true half.
    high = {(True, False): (right,), (False, True): (left,)}.get((first > 4, last < 36), (left, right))
    assert found.high == high
    assert [each.turned_over.upper for each in high] == [not each.upper for each in high]


@pytest.mark.parametrize(("wind", "told"), [(0.299, False), (0.301, True)])
def test_a_face_that_winds_by_three_tenths_over_its_width_is_true(wind, told):
    board = survey(np.linspace(0, wind, 41)[:, None] * np.linspace(-0.5, 0.5, 13)[None, :])
    assert (twist_of(board, BoardFace.UPPER) is not None) is told
    assert twist_of(board, BoardFace.UPPER, true_within=wind + 0.001) is None


def test_no_board_is_crosscut_within_a_twentieth_of_its_ends():
    # One corner of the last station hangs: the longer the near length without it, the better for both.
    for end, keeps in ((-1, 855.0), (0, 45.0)):
        heights = np.zeros((41, 13))
        heights[end] = np.linspace(-3, 3, 13)
        heights += np.abs(np.linspace(-1, 1, 41))[:, None] * 0.001
        board = survey(heights)
        best = best_crosscut(board)
        near, far = (
            thickest_slab(board.part(*ends, 0, 180)).thickness for ends in ((0, best.crosscut), (best.crosscut, 900))
        )
        assert best.reaches == pytest.approx((near, far))
        assert (best.crosscut <= keeps + 1) if end else (best.crosscut >= keeps - 1)


# --- the slab --------------------------------------------------------------------------------------------


def test_a_slab_of_many_tilts_lies_as_the_board_does_though_its_stations_are_uneven():
    x, y = np.array([0.0, 40.0, 300.0, 310.0, 900.0]), np.array([0.0, 20.0, 180.0])
    lean = 0.01 * x[:, None] - 0.02 * y[None, :]
    # Only one station of each face is near: the slab may rock on them.
    top, bottom = lean + 26.0, lean + 0.0
    top[2, 1], bottom[2, 1] = lean[2, 1] + 25.0, lean[2, 1] + 1.0
    found = thickest_slab(Survey(x, y, top, bottom))
    middle = ((top + bottom) / 2).mean(axis=1), ((top + bottom) / 2).mean(axis=0)
    assert found.a == pytest.approx(np.polyfit(x, middle[0], 1)[0])
    assert found.b == pytest.approx(np.polyfit(y, middle[1], 1)[0])
    assert found.thickness == pytest.approx(24)


@pytest.mark.parametrize("seed", range(6))
def test_the_simplex_of_four_rows_finds_what_the_general_solver_does(seed):
    chance = np.random.default_rng(seed)
    u, v = np.linspace(-1, 1, 21), np.linspace(-1, 1, 7)
    bottom, top = chance.normal(0, 1, (21, 7)), chance.normal(25, 1, (21, 7))
    low, high = _touchable(u, v, bottom, upper=True), _touchable(u, v, top, upper=False)
    zeros, ones = np.zeros(len(low[0])), np.ones(len(low[0]))
    rows = np.array(
        [[*ones, *np.zeros(len(high[0]))], [*zeros, *np.ones(len(high[0]))], [*-low[0], *high[0]], [*-low[1], *high[1]]]
    )
    costs = np.concatenate((-low[2], high[2]))
    weights, tilt = _tilt(rows, costs, _corners(low[0], low[1], high[0], high[1]))
    other, other_tilt = _tilt_by_general_solver(rows, costs, np.array([1.0, 1.0, 0.0, 0.0]))
    assert sum(costs[column] * weight for column, weight in weights) == pytest.approx(
        sum(costs[column] * weight for column, weight in other)
    )
    for lean_u, lean_v in (tilt, other_tilt):  # where several do, each may find another
        lean = lean_u * u[:, None] + lean_v * v[None, :]
        assert (top - lean).min() - (bottom - lean).max() == pytest.approx(sum(costs[each] * by for each, by in other))
    # Every station of a hull that is left out lies inside it.
    for heights, kept, sign in ((bottom, low, 1), (top, high, -1)):
        for column, at in enumerate(v):
            on = kept[1] == at
            hull = np.interp(u, kept[0][on], sign * kept[2][on])
            assert (sign * heights[:, column] <= hull + 1e-9).all()
