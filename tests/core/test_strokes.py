"""The stroke plan, played: what it says is what the simulator does."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nullah.core.breakdown.layout import Rect
from nullah.core.lengths import Marks, Unit, mm
from nullah.core.milling.decide import BoardFace, FaceReason
from nullah.core.milling.faces import survey_of
from nullah.core.milling.job import face_work_on, job_of
from nullah.core.milling.planing import Stroke, Work
from nullah.core.milling.steps import steps_of
from nullah.core.milling.strokes import (
    FLAT_WITHIN,
    StrokeDirection,
    lane_step,
    lanes,
    plan_strokes,
    play,
    strokes_per_mm,
)
from nullah.core.milling.trial import FaceOf, found_in, levelled, set_of, start_trial, under_straightedge
from nullah.core.rack.board import Board, Faces, Flaw, FlawKind, Rise
from nullah.core.reader import Reader
from nullah.core.shop import USUAL_PLANES, PlaneKind, Shop
from nullah.core.wording.strokes import milling_step_words
from nullah.core.wording.trial import trial_words
from nullah.instruments.shape_gauges import SimulatedGauges

WOUND = Board("1", "wound", "black cherry", mm(500), mm(140), mm(25), mm(1), mm(1), mm(3))
WHOLE = Rect(0.0, 0.0, 500.0, 140.0)


def job(board=WOUND, needs=None, shop=None, lows=mm(0)):
    return job_of(board, Rect(0.0, 0.0, float(board.length), float(board.width)), shop or Shop(), needs, lows)


def played(face):
    trial = start_trial(face.work)
    for each in play(face.work, face.stages):
        trial = trial.counted(each.work, each.shaving)
    return trial


@pytest.fixture(scope="module")
def both():
    """Both faces of a twisted board, played to the end."""
    return [(face, played(face)) for face in job().faces]


@pytest.mark.dear
def test_a_plan_that_is_played_leaves_both_faces_flat_and_takes_no_more_than_it_has_to(both):
    for face, trial in both:
        assert trial.out_of_flat <= FLAT_WITHIN and trial.highest <= FLAT_WITHIN
        # Nothing is dug out below the line, so the thickness that was forecast is there.
        assert trial.lowest > -0.05
        # By the trapezoidal rule over the same stations the wood above the line is what went.
        assert trial.lost == pytest.approx(float(face.work.heights.mean()), abs=0.06)


def test_the_plan_counts_about_the_strokes_that_it_takes(both):
    for face, trial in both:
        planned = sum(stage.strokes for stage in face.stages)
        assert 0.6 * planned < trial.strokes < 1.6 * planned


@pytest.mark.parametrize(("length", "width", "cup", "bow", "twist"), [
    (312, 92, -0.6, 0, 0), (350, 98, 0, -2, 0), (223, 102, -2, 0, 0), (485, 66, -0.9, 0, 0),
    pytest.param(467, 113, 1.8, 0, -3.2, marks=pytest.mark.dear),
])  # fmt: skip
def test_whatever_the_shape_no_plane_strokes_on_for_little_or_digs_beside_a_ridge(length, width, cup, bow, twist):
    board = replace(WOUND, length=mm(length), width=mm(width), cup=mm(cup), bow=mm(bow), twist=mm(twist))
    for face in job(board).faces:
        trial, planned = played(face), sum(stage.strokes for stage in face.stages)
        assert 0.6 * planned < trial.strokes < 1.8 * planned
        assert trial.highest < 0.12 and trial.lowest > -0.1
        assert trial.out_of_flat < 2 * FLAT_WITHIN


def test_what_is_left_and_the_verdict_say_the_same(both):
    face, trial = both[0]
    assert trial_words(found_in(trial, face.stages), Reader()).startswith("Flat within 0.0")
    assert f"{trial.strokes} strokes" in trial_words(found_in(trial, face.stages), Reader())
    unplaned = start_trial(face.work)
    assert "out of flat, 0.10 mm is enough" in trial_words(found_in(unplaned, face.stages), Reader())
    for unit, off, enough in ((Unit.MM, 0.103, "0.10 mm"), (Unit.INCH, 0.11, "0.004″")):
        hardly = trial_words(found_in(unplaned, face.stages)._replace(off=off), Reader(Marks(unit)))
        assert hardly.startswith(f"A little over {enough} out of flat, {enough} is enough")
    over = replace(trial, shaved=trial.shaved + 2 * face.work.volume)
    assert "thinner than it had to be" in trial_words(found_in(over, face.stages), Reader())


def test_stages_go_from_coarse_to_fine_and_never_set_a_plane_deeper_than_it_is_used():
    for face in job().faces:
        leaves = [stage.leave for stage in face.stages]
        assert leaves == sorted(leaves, reverse=True)
        for stage in face.stages:
            assert 0 < stage.depth <= float(stage.plane.shaving)
            assert stage.strokes > 0 and stage.minutes > 0


def test_a_flat_board_has_nothing_to_take_but_what_it_is_too_thick():
    flat = replace(WOUND, cup=mm(0), bow=mm(0), twist=mm(0))
    assert all(not face.stages for face in job(flat).faces)
    thick = job(flat, mm(24)).faces
    assert not thick[0].stages
    assert float(thick[1].work.heights.mean()) == pytest.approx(1.0)


@pytest.mark.parametrize("kept", [
    (PlaneKind.JACK,), (PlaneKind.SMOOTHER,), (PlaneKind.FORE, PlaneKind.JOINTER), (),
])  # fmt: skip
def test_planes_that_are_missing_are_stood_in_for(kept):
    shop = Shop(planes=tuple(plane for plane in USUAL_PLANES if plane.kind in kept))
    for face in job(shop=shop).faces:
        assert {stage.plane.kind for stage in face.stages} <= set(kept)
        assert bool(face.stages) is bool(kept)


def test_lows_that_may_stay_save_strokes_and_give_thickness():
    plain, left = job(), job(lows=mm("0.8"))
    assert left.thickness == pytest.approx(plain.thickness + 0.8)
    strokes = [sum(stage.strokes for stage in each.faces[1].stages) for each in (plain, left)]
    assert strokes[1] < strokes[0]


def test_strokes_go_with_the_grain_on_both_faces():
    board = replace(WOUND, rises=Rise.RIGHT)
    seen = {face.face: face.stages[-1].to_left for face in job(board).faces}
    assert seen == {BoardFace.UPPER: False, BoardFace.LOWER: True}
    first = next(play(job(board).face(BoardFace.LOWER).work, job(board).face(BoardFace.LOWER).stages[-1:]))
    assert first.stroke.start[0] > first.stroke.end[0]


def test_the_clear_face_is_the_face_side():
    knot = Flaw(FlawKind.KNOT, mm(100), mm(130), mm(20), mm(50), faces=Faces.UP)
    board = replace(WOUND, flaws=(knot,))
    assert job(board).first.face is BoardFace.LOWER and job(board).first.reason is FaceReason.CLEAR


# --- arithmetic ---------------------------------------------------------------------------------------


@pytest.mark.parametrize("plane", USUAL_PLANES)
def test_strokes_for_a_millimetre_are_lanes_over_what_a_set_takes(plane):
    depth = float(plane.shaving)
    number = strokes_per_mm(900, 180, plane)
    over = len(lanes(900, 180, StrokeDirection.SLANT, lane_step(plane, depth)))
    assert number == pytest.approx(over / (depth / 2))


@settings(max_examples=60, deadline=None)
@given(st.floats(80, 2000), st.floats(30, 400), st.sampled_from(StrokeDirection), st.floats(5, 80))
def test_lanes_cover_the_board_and_keep_to_it(length, width, way, step):
    found = lanes(length, width, way, step)
    assert found
    for lane in found:
        for x, y in (lane.start, lane.end):
            assert -1e-6 <= x <= length + 1e-6 and -1e-6 <= y <= width + 1e-6
    # Side by side, a step apart at the most, they pass every place.
    assert sum(lane.length for lane in found) * step > 0.6 * length * width


@pytest.mark.dear
@settings(max_examples=30, deadline=None)
@given(st.integers(0, 10**6), st.floats(0.2, 4))
def test_more_wood_takes_no_fewer_strokes(seed, more):
    chance = np.random.default_rng(seed)
    heights = np.abs(chance.normal(0, 1, (25, 9)))
    one = plan_strokes(Work(heights, 20, 15), Shop())
    two = plan_strokes(Work(heights * (1 + more), 20, 15), Shop())
    assert sum(s.strokes for s in two) >= sum(s.strokes for s in one)


# --- the steps in words -----------------------------------------------------------------------------


def test_steps_follow_the_order_of_the_work():
    steps = steps_of(job(needs=mm(20)), Shop())
    kinds = [step.kind.value for step in steps]
    assert list(dict.fromkeys(kinds)) == ["face", "edge", "gauge", "width", "ends"]
    gauge = kinds.index("gauge")
    assert kinds.index("edge") < gauge and "face" in kinds[gauge:]
    told = [milling_step_words(step, job(needs=mm(20)), Reader()) for step in steps]
    assert told[gauge].tool == "gauge at 20.0 mm"
    assert all(each.steps and each.title for each in told) and all(step.minutes > 0 for step in steps)
    # A later stage begins where the one before has stopped.
    first = [step for step in steps[:gauge] if step.stage is not None]
    assert [step.from_height for step in first[1:]] == [step.stage.leave for step in first[:-1]]


# --- on the board as it really is --------------------------------------------------------------------------


@pytest.mark.dear
def test_planned_from_a_survey_and_played_on_the_board_itself_the_forecast_holds():
    gauges = SimulatedGauges(7)
    board = WOUND
    from nullah.core.milling.adjust import usual_readings

    board = replace(board, shape=tuple(gauges.read(board, reading) for reading in usual_readings(board)[:28]))
    done = job(board)
    truth = levelled(gauges.truth(WOUND), survey_of(board))
    for face in done.faces:
        real = face_work_on(done, face, truth)
        trial = played(real)
        assert trial.highest <= FLAT_WITHIN
        # Where the survey was a little out, a low is left: no deeper than it was said to be in doubt.
        assert trial.lowest > -1.0
        assert np.mean(trial.work.heights < -0.1) < 0.25


# --- testing at the bench ----------------------------------------------------------------------------


def plain(function, length=600.0, width=120.0):
    x, y = np.meshgrid(np.linspace(0, length, 121), np.linspace(0, width, 25), indexing="ij")
    return Work(function(x, y) + np.zeros_like(x), 5.0, 5.0)


def test_a_straightedge_shows_the_hollow_and_rocks_on_the_hump():
    hollow = under_straightedge(plain(lambda x, y: ((x - 300) / 300) ** 2), (0, 60), (600, 60))
    at, gap = hollow.gap
    assert gap == pytest.approx(1.0, abs=0.01) and at == pytest.approx(300, abs=10) and not hollow.rocks
    hump = under_straightedge(plain(lambda x, y: -(((x - 300) / 300) ** 2)), (0, 60), (600, 60))
    assert hump.rocks


def test_sticks_show_the_wind_over_the_board_and_rest_on_a_hump():
    face = FaceOf(plain(lambda x, y: 2.0 * x / 600 * y / 120))
    # Seen from the left end the upper edge is at the left: higher there, it falls to the right.
    assert (face.rest(600)[1] - face.rest(0)[1]) * 120 == pytest.approx(-2.0, abs=0.02)
    crowned = FaceOf(plain(lambda x, y: -(((y - 60) / 60) ** 2)))
    middle, slope = crowned.rest(300)
    assert middle == pytest.approx(0, abs=0.02) and slope == pytest.approx(0, abs=1e-3)


def test_a_set_like_a_stroke_goes_over_the_whole_board():
    trial = start_trial(plain(lambda x, y: 0 * x + 1))
    for stroke in set_of(trial, Stroke((100, 60), (400, 60), USUAL_PLANES[1], 0.2)):
        trial, _ = trial.stroked(stroke)
    assert (trial.work.heights < 1).mean() > 0.9
    assert trial.shaved == pytest.approx(trial.start.volume - trial.work.volume)
