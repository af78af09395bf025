"""What planes do, from the sole and the iron alone."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from nullah.core.lengths import mm
from nullah.core.milling.planing import LIFT, Stroke, Work, plane_stroke
from nullah.core.milling.strokes import StrokeDirection, lane_step, lanes
from nullah.core.shop import USUAL_PLANES, Plane, PlaneKind

FORE, JACK, JOINTER, SMOOTHER = USUAL_PLANES
#: With its mouth in the middle, and hardly any camber: what the arithmetic is about.
MIDDLE = Plane(PlaneKind.JOINTER, mm(400), mm(60), mm("0.001"), mm("0.1"), 0.5)


def face(height, length=900.0, width=180.0, spacing=5.0):
    """Return a face from a function of x and y, mm."""
    n, m = round(length / spacing) + 1, round(width / spacing) + 1
    x, y = np.meshgrid(np.linspace(0, length, n), np.linspace(0, width, m), indexing="ij")
    return Work(np.asarray(height(x, y), dtype=float) + np.zeros_like(x), length / (n - 1), width / (m - 1))


def edge(height, length=900.0):
    return face(lambda x, y: height(x), length, 20.0)


def through(work, plane, depth, strokes=1, y=None):
    """Push a plane from end to end along the middle, or along y."""
    y = work.width / 2 if y is None else y
    for _ in range(strokes):
        work, _ = plane_stroke(work, Stroke((-30.0, y), (work.length + 30.0, y), plane, depth))
    return work


def sets(work, plane, depth, *ways):
    """Plane the whole face, one set for each way."""
    for way in ways:
        for lane in lanes(work.length, work.width, way, lane_step(plane, depth)):
            beyond = 30.0 / lane.length
            work, _ = plane_stroke(work, Stroke(lane.at(-beyond), lane.at(1 + beyond), plane, depth))
    return work


def cut_in(before, after, low, high):
    """What was taken along the middle between two places, mm, at most."""
    rows = (before.x > low) & (before.x < high)
    middle = before.heights.shape[1] // 2
    return float((before.heights - after.heights)[rows, middle].max())


# --- the sole ---------------------------------------------------------------------------------------


def test_a_long_sole_bridges_hollows_that_a_short_one_follows():
    # Waves 400 mm long, 0.3 mm high: a crest at 400, a hollow at 600.
    waves = edge(lambda x: 0.15 * np.cos(2 * np.pi * x / 400), 1200.0)
    long, short = through(waves, JOINTER, 0.1), through(waves, replace_sole(SMOOTHER, 140), 0.1)
    assert cut_in(waves, long, 550, 650) == 0
    assert cut_in(waves, long, 380, 420) > 0.05
    assert cut_in(waves, short, 550, 650) > 0.05


def replace_sole(plane, sole):
    return plane._replace(sole=mm(sole))


def test_strokes_of_a_long_sole_take_the_waves_off_and_those_of_a_short_one_keep_them():
    waves = edge(lambda x: 0.15 * np.cos(2 * np.pi * x / 400), 1200.0)
    inside = slice(40, -40)
    long = through(waves, JOINTER, 0.1, 12).heights[inside, 2]
    short = through(waves, replace_sole(SMOOTHER, 140), 0.1, 12).heights[inside, 2]
    assert np.ptp(long) < 0.1
    assert np.ptp(short) > 2 * np.ptp(long)


@pytest.mark.parametrize(("share", "cuts"), [(0.85, True), (1.15, False)])
@pytest.mark.parametrize("sole", [240, 400, 560])
def test_in_a_hollow_a_sole_stops_cutting_once_the_sagitta_passes_the_set(sole, share, cuts):
    # L² / 8R with the mouth in the middle.
    depth = 0.1
    radius = sole**2 / 8 / (depth * share)
    hollow = edge(lambda x: (x - 900) ** 2 / 2 / radius, 1800.0)
    plane = MIDDLE._replace(sole=mm(sole))
    work, _ = plane_stroke(hollow, Stroke((600.0, 10.0), (1200.0, 10.0), plane, depth))
    assert (cut_in(hollow, work, 700, 1100) > 0.002) is cuts


@pytest.mark.parametrize("radius", [4_000.0, 20_000.0])
@pytest.mark.parametrize("plane", USUAL_PLANES)
def test_on_a_hump_every_plane_cuts_its_whole_set(plane, radius):
    hump = edge(lambda x: -((x - 450) ** 2) / 2 / radius)
    depth = 0.1
    assert cut_in(hump, through(hump, plane, depth), 350, 550) == pytest.approx(depth, rel=0.1)


def test_an_edge_planed_with_equal_strokes_stays_convex():
    hump = edge(lambda x: 1.0 - ((x - 450) / 450) ** 2)
    for plane in (SMOOTHER, JACK, JOINTER):
        planed = through(hump, plane, 0.05, 20)
        # Twenty shavings of 0.05 are the height of the hump, and most of it is still there.
        assert np.ptp(planed.heights[:, 2]) > 0.8
    hollow = edge(lambda x: ((x - 450) / 450) ** 2 * 0.3)
    assert np.ptp(through(hollow, JOINTER, 0.05, 20).heights[:, 2]) < 0.12


# --- over a whole face ---------------------------------------------------------------------------------


def across(work):
    """How uneven the width is: the mean over the length, from its lowest to its highest line, mm."""
    return float(np.ptp(work.heights.mean(axis=0)))


def test_strokes_along_the_grain_alone_leave_the_width_uneven():
    hollow = face(lambda x, y: 0.8 * ((y - 90) / 90) ** 2)
    along = sets(hollow, JACK, 0.2, *[StrokeDirection.ALONG] * 4)
    traversed = sets(hollow, JACK, 0.2, *[StrokeDirection.SLANT, StrokeDirection.BACK] * 2)
    assert across(along) > 0.6
    assert across(traversed) < 0.35


def wind(work):
    """How much a face winds: the coefficient of u·v by least squares, mm."""
    u, v = np.linspace(-1, 1, work.heights.shape[0])[:, None], np.linspace(-1, 1, work.heights.shape[1])[None, :]
    product = u * v
    return float((work.heights * product).sum() / (product**2).sum())


@pytest.mark.parametrize("deep", [0.6, 1.0, 1.5])
def test_two_crossing_sets_at_45_degrees_cancel(deep):
    board = face(lambda x, y: -deep * ((y - 90) / 90) ** 2, 500.0)
    one = sets(board, JACK, 0.2, StrokeDirection.SLANT, StrokeDirection.SLANT)
    other = sets(board, JACK, 0.2, StrokeDirection.BACK, StrokeDirection.BACK)
    both = sets(board, JACK, 0.2, StrokeDirection.SLANT, StrokeDirection.BACK)
    # Each way leaves a wind, the two of opposite sense; together they leave next to none.
    assert abs(wind(one)) > 0.05 and wind(one) * wind(other) < 0
    assert abs(wind(both)) < 0.2 * min(abs(wind(one)), abs(wind(other)))


# --- what is taken -----------------------------------------------------------------------------------


def rough(seed, length=600.0, width=120.0):
    chance = np.random.default_rng(seed)
    amplitude, phase = chance.uniform(0, 0.8, 4), chance.uniform(0, 6, 4)

    def height(x, y):
        return (
            amplitude[0] * np.sin(x / 140 + phase[0])
            + amplitude[1] * np.sin(y / 50 + phase[1])
            + amplitude[2] * np.sin(x / 90 + y / 60 + phase[2])
            + amplitude[3] * (x / length) * (y / width)
        )

    return face(height, length, width)


places = st.tuples(st.floats(-60, 660), st.floats(-40, 160) | st.floats(40, 80))


@settings(max_examples=30, deadline=None)
@given(st.integers(0, 10**6), places, places, st.sampled_from(USUAL_PLANES), st.floats(0.02, 0.6))
@example(33, (0.0, 0.0), (421.0, 0.0), JACK, 0.5)  # half of the sole over an edge
@example(718474, (376.7, 143.9), (614.1, 73.7), JOINTER, 0.02)  # over a corner
def test_shavings_are_what_the_face_has_lost_and_never_thicker_than_the_set(seed, start, end, plane, depth):
    before = rough(seed)
    after, shaving = plane_stroke(before, Stroke(start, end, plane, depth))
    assert (after.heights <= before.heights).all()
    assert shaving.volume == pytest.approx(before.volume - after.volume, abs=1e-6 * abs(before.volume) + 1e-6)
    assert shaving.thickest <= depth + 1e-9
    again = plane_stroke(before, Stroke(start, end, plane, depth))[0]
    assert (again.heights == after.heights).all()


@pytest.mark.parametrize("plane", USUAL_PLANES, ids=lambda plane: plane.kind.name)
def test_the_sole_has_settled(plane, monkeypatch):
    for seed in range(30):
        before = rough(seed)
        for stroke in (
            Stroke((0.0, 60.0), (470.0, 60.0), plane, 0.5),
            Stroke((0.0, 60.0), (550.0, 60.0), plane, 0.5),
            Stroke((500.0, 90.0), (-12.0, 120.0), plane, 0.5),
        ):
            after, _ = plane_stroke(before, stroke)
            with monkeypatch.context() as patch:
                patch.setattr("nullah.core.milling.planing._STEPS", 9)
                settled, _ = plane_stroke(before, stroke)
            assert abs(after.heights - settled.heights).max() < 1e-4


@pytest.mark.parametrize("mouth", [0.1, 0.2, 0.33, 0.5])
def test_where_a_stroke_ends_is_of_no_account_before_the_iron_is_lifted(mouth):
    # The hands move to the heel where the board ends, which is far from here, not where the stroke does.
    plane = Plane(PlaneKind.JOINTER, mm(600), mm(60), mm("0.15"), mm("0.1"), mouth)
    for seed in range(10):
        before = rough(seed, length=1400.0)
        shorter, longer = (
            plane_stroke(before, Stroke((0.0, 60.0), (end, 60.0), plane, 0.5))[0] for end in (700.0, 720.0)
        )
        same = before.x < 700.0 - LIFT
        assert (shorter.heights[same] == longer.heights[same]).all()


@settings(max_examples=25, deadline=None)
@given(st.integers(0, 10**6), st.floats(-5, 5), st.floats(-0.01, 0.01), st.floats(-0.01, 0.01))
def test_how_the_board_lies_in_the_room_is_of_no_account(seed, up, along, over):
    flat = rough(seed)
    lean = up + along * flat.x[:, None] + over * flat.y[None, :]
    tilted = replace(flat, heights=flat.heights + lean)
    stroke = Stroke((-30.0, 20.0), (630.0, 100.0), JACK, 0.2)
    one, two = plane_stroke(flat, stroke)[1], plane_stroke(tilted, stroke)[1]
    assert two.volume == pytest.approx(one.volume, rel=0.02, abs=1.0)


@settings(max_examples=25, deadline=None)
@given(st.integers(0, 10**6))
def test_a_stroke_backwards_over_a_mirrored_board_is_the_same(seed):
    board = rough(seed)
    mirrored = replace(board, heights=board.heights[:, ::-1].copy())
    one = plane_stroke(board, Stroke((-30.0, 30.0), (630.0, 30.0), JACK, 0.2))
    two = plane_stroke(mirrored, Stroke((-30.0, 90.0), (630.0, 90.0), JACK, 0.2))
    # Where two places bear alike, either may be taken to bear.
    assert two[0].heights[:, ::-1] == pytest.approx(one[0].heights, abs=0.01)


@pytest.mark.parametrize("stroke", [
    Stroke((10.0, 10.0), (10.0, 10.0), JACK, 0.2),  # no way at all
    Stroke((0.0, 60.0), (600.0, 60.0), JACK, 0.0),  # no set
    Stroke((-900.0, 500.0), (900.0, 500.0), JACK, 0.2),  # beside the board
])  # fmt: skip
def test_strokes_that_take_nothing(stroke):
    board = rough(1)
    after, shaving = plane_stroke(board, stroke)
    assert after is board and shaving.volume == 0
