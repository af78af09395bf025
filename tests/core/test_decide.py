"""What a survey tells: which face, where the wind begins, where to cut."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nullah.core.lengths import mm
from nullah.core.milling.contours import areas_above, contour_lines, even_heights
from nullah.core.milling.decide import (
    BoardFace,
    Corner,
    FaceReason,
    above,
    best_both,
    best_crosscut,
    best_rip,
    face_side,
    twist_of,
    wood_off,
)
from nullah.core.milling.grain import grain_of
from nullah.core.milling.slab import thickest_slab
from nullah.core.milling.survey import Survey
from nullah.core.rack.board import Board, Faces, Flaw, FlawKind, Rise


def board(function, thick=25.0, length=900.0, width=180.0):
    x, y = np.linspace(0, length, 41), np.linspace(0, width, 13)
    u, v = np.meshgrid(2 * x / length - 1, 2 * y / width - 1, indexing="ij")
    middle = function(u, v) + 0 * u
    return Survey(x, y, middle + thick, middle)


def test_wood_above_the_slab_is_nothing_where_it_touches_and_never_less():
    survey = board(lambda u, v: 2 * (1 - u**2) + u * v)
    slab = thickest_slab(survey)
    for face in BoardFace:
        heights = above(survey, slab, face)
        assert heights.min() == pytest.approx(0, abs=1e-6)
    gone = sum(wood_off(survey, above(survey, slab, face)) for face in BoardFace)
    assert gone == pytest.approx(wood_off(survey, survey.top - survey.bottom) - slab.thickness * 900 * 180, rel=1e-6)


def test_the_hollow_face_comes_first():
    hollow_up = board(lambda u, v: 1.5 * v**2)
    assert face_side(hollow_up, thickest_slab(hollow_up)).face is BoardFace.UPPER
    hump_up = board(lambda u, v: -1.5 * v**2)
    chosen = face_side(hump_up, thickest_slab(hump_up))
    assert chosen.face is BoardFace.LOWER and chosen.reason is FaceReason.HOLLOW and chosen.rocks == (True, False)


@pytest.mark.parametrize(("begins", "true_half"), [(0.0, "left"), (0.4, "left"), (-1.0, None)])
def test_where_the_wind_begins_and_which_half_is_true(begins, true_half):
    survey = board(lambda u, v: 2 * np.clip((u - begins) / (1 - begins), 0, 1) * v)
    twist = twist_of(survey, BoardFace.UPPER)
    starts = (begins + 1) / 2 * 900
    # Sticks tell it to about the tenth part of the length.
    assert twist.start == pytest.approx(starts, abs=90) and twist.end == pytest.approx(900, abs=60)
    assert twist.wind == pytest.approx(4, abs=0.05)
    assert any(not each.right for each in twist.high) is (true_half is None)
    assert Corner(upper=True, right=True) in twist.high
    lower = twist_of(survey, BoardFace.LOWER)
    # What stands high above lies low below.
    assert Corner(upper=False, right=True) in lower.high
    assert twist_of(board(lambda u, v: 3 * u**2), BoardFace.UPPER) is None


def test_the_best_crosscut_is_found_and_not_just_the_middle():
    # All the bow is in the right third: there lies the cut.
    survey = board(lambda u, v: 4 * np.clip(u - 0.2, 0, None) ** 2)
    best = best_crosscut(survey)
    every = [
        min(thickest_slab(survey.part(0, at, 0, 180)).thickness, thickest_slab(survey.part(at, 900, 0, 180)).thickness)
        for at in np.linspace(60, 840, 79)
    ]
    assert best.least == pytest.approx(max(every), abs=0.08)
    assert best.crosscut > 550
    middle = min(
        thickest_slab(survey.part(0, 450, 0, 180)).thickness, thickest_slab(survey.part(450, 900, 0, 180)).thickness
    )
    assert best.least > middle + 0.2


@pytest.mark.dear
@settings(max_examples=5, deadline=None)
@given(st.integers(0, 10**6))
def test_best_cuts_are_never_worse_than_the_whole_nor_than_halves(seed):
    chance = np.random.default_rng(seed)
    a, b, c, d = chance.normal(0, 1.5, 4)
    survey = board(lambda u, v: a * u**2 + b * v**2 + c * u * v + d * u**3 + chance.normal(0, 0.05, u.shape))
    whole = thickest_slab(survey).thickness
    cross, rip, both = best_crosscut(survey), best_rip(survey), best_both(survey)
    half = min(thickest_slab(survey.part(*ends, 0, 180)).thickness for ends in ((0, 450), (450, 900)))
    assert cross.least >= max(whole, half) - 0.08
    assert rip.least >= whole - 0.08
    assert both.least >= max(cross.least, rip.least) - 0.3
    assert len(both.reaches) == 4 and 0 < cross.crosscut < 900


def test_where_many_cuts_do_the_one_nearest_the_middle_is_told():
    # Cup alone: wherever it is crosscut, both lengths reach the same.
    assert best_crosscut(board(lambda u, v: 2 * v**2)).crosscut == pytest.approx(450)


# --- contours ------------------------------------------------------------------------------------------


@pytest.mark.parametrize("highest", [0.02, 0.1, 0.7, 1.0, 3.2, 12, 400])
def test_contours_stand_at_even_heights(highest):
    heights = even_heights(highest)
    assert len(heights) <= 7 and all(0 < height <= highest + 1e-9 for height in heights)
    if highest > 0.1:
        assert len(heights) >= 2
        assert np.ptp(np.diff(heights)) < 1e-9 if len(heights) > 2 else True


def test_contour_lines_lie_at_their_height_and_areas_have_their_size():
    x, y = np.linspace(0, 100, 101), np.linspace(0, 60, 61)
    cone = 30 - np.hypot(x[:, None] - 50, y[None, :] - 30)
    (circle,) = contour_lines(x, y, cone, 10.0)
    assert np.hypot(np.array(circle)[:, 0] - 50, np.array(circle)[:, 1] - 30) == pytest.approx(20, abs=0.05)

    def size(polygon):
        a, b = np.array(polygon).T
        return abs(float(np.dot(a, np.roll(b, -1)) - np.dot(b, np.roll(a, -1)))) / 2

    (disc,) = areas_above(x, y, cone, 10.0)
    assert size(disc) == pytest.approx(np.pi * 400, rel=0.01)
    # A ring: the hollow in it is joined by a seam and does not count.
    (ring,) = areas_above(x, y, -np.abs(cone - 15), -5.0)
    assert size(ring) == pytest.approx(np.pi * (20**2 - 10**2), rel=0.02)


# --- grain -----------------------------------------------------------------------------------------------


def test_what_is_uphill_on_one_face_is_against_the_grain_on_the_other():
    knot = Flaw(FlawKind.KNOT, mm(100), mm(140), mm(20), mm(50), faces=Faces.UP)
    check = Flaw(FlawKind.CHECK, mm(0), mm(140), mm(20), mm(50))
    rising = Board("1", "b", "black cherry", mm(900), mm(180), mm(27), flaws=(knot, check), rises=Rise.LEFT)
    upper, lower = grain_of(rising, BoardFace.UPPER), grain_of(rising, BoardFace.LOWER)
    assert (upper.to_right, lower.to_right) == (False, True)
    # Round a knot the grain turns, a check is only a gap; on the other face the knot does not show.
    (turn,) = upper.turns
    assert (turn.start, turn.end, turn.what) == (70.0, 170.0, "knot")
    assert lower.turns == ()
    assert grain_of(Board("1", "b", "black cherry", mm(900), mm(180), mm(27)), BoardFace.UPPER).to_right is None
