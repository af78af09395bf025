"""Boards as they are: outlines, rings, moisture, offcuts."""

import math
import random
from dataclasses import replace
from datetime import date, timedelta
from fractions import Fraction

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.said import said

from nullah.core import actions
from nullah.core.catalogue import AMERICAN
from nullah.core.lengths import mm
from nullah.core.limits import NotADay
from nullah.core.project import Project
from nullah.core.rack.board import (
    Board,
    BoardError,
    BoardFault,
    Faces,
    Flaw,
    FlawKind,
    NoReading,
    Reading,
    Surface,
    check_board,
    cut_from_heart,
)
from nullah.core.rack.drying import Room, curve, readiness, usual_days
from nullah.core.rack.offcuts import SawnPiece, offcuts
from nullah.core.rack.outline import edge_at, missing, outline
from nullah.core.reader import Reader
from nullah.core.stations.drying import draw_drying
from nullah.core.stations.rack import end_rings
from nullah.core.wood.movement import GrainCut
from nullah.core.wording.facts import error_words
from nullah.core.wording.rack import dryness


def board(**more):
    return replace(Board("1", "plank", "black cherry", mm(1000), mm(200), mm(25)), **more)


# --- outlines -------------------------------------------------------------------------------------


@settings(max_examples=60, deadline=None)
@given(st.lists(st.integers(0, 70), min_size=2, max_size=5), st.lists(st.integers(0, 70), min_size=2, max_size=5))
def test_what_is_missing_covers_all_that_is_not_there_and_little_more(low, high):
    def edge(heights, from_top):
        steps = [round(1000 * i / (len(heights) - 1)) for i in range(len(heights))]
        return tuple((mm(x), mm(200 - y if from_top else y)) for x, y in zip(steps, heights, strict=True))

    crooked = board(low_edge=edge(low, False), high_edge=edge(high, True))
    gone = missing(crooked)
    for x in range(3, 1000, 41):
        bottom, top = edge_at(crooked, x, False), edge_at(crooked, x, True)
        for y in (bottom - 1, top + 1):
            if 0 < y < 200:
                assert any(a <= x <= c and b <= y <= d for a, b, c, d in gone), "no part may lie off the wood"
        # No more is taken than the edge falls in one step of 60 mm.
        assert all(d <= bottom + 70 or b >= top - 70 for a, b, c, d in gone if a <= x <= c)


def test_a_straight_board_is_a_rectangle_and_lacks_nothing():
    assert board().straight and missing(board()) == ()
    assert outline(board()) == ((0.0, 0.0), (1000.0, 0.0), (1000.0, 200.0), (0.0, 200.0))


@pytest.mark.parametrize(
    ("change", "why"),
    [
        ({"low_edge": ((mm(0), mm(-5)), (mm(1000), mm(0)))}, BoardFault.OUTLINE_OUTSIDE),
        ({"high_edge": ((mm(500), mm(200)), (mm(500), mm(150)))}, BoardFault.EDGE_BACKWARDS),
        ({"high_edge": ((mm(0), mm(200)), (mm(1200), mm(150)))}, BoardFault.OUTLINE_OUTSIDE),
        ({"readings": (Reading("2026-02-30", Fraction(10)),)}, NotADay("2026-02-30")),
        ({"readings": (Reading("2026-02-03", Fraction(201)),)}, NoReading(Fraction(201))),
    ],
)
def test_boards_that_cannot_be_are_refused(change, why):
    with pytest.raises(BoardError) as refused:
        actions.add_board(Project(), board(**change))
    assert getattr(refused.value.fact, "fault", refused.value.fact) == why
    assert error_words(refused.value).endswith(".")


# --- rings ----------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("heart", "cut"),
    [
        ((100, -40), GrainCut.FLAT),
        ((100, 60), GrainCut.FLAT),
        ((-150, 12), GrainCut.QUARTER),
        ((-150, -240), GrainCut.RIFT),
        ((350, 260), GrainCut.RIFT),
    ],
)
def test_the_cut_follows_from_where_the_heart_lies(heart, cut):
    assert cut_from_heart(200, 25, heart) is cut
    # By the angle of the rings to the face in the middle of the end, worked out another way: their slope there.
    x, y = 100 - heart[0], 12.5 - heart[1]
    slope = 90 - math.degrees(math.acos(min(1, abs(x) / math.hypot(x, y))))
    expected = GrainCut.FLAT if slope < 30 else GrainCut.QUARTER if slope > 60 else GrainCut.RIFT
    assert expected is cut


def test_rings_are_circles_about_the_heart_cut_to_the_wood():
    seen = end_rings(board(heart=(120.0, -70.0)))
    assert len(seen) >= 5
    for ring in seen:
        radii = [math.hypot(a - 120, u + 70) for a, u in ring]
        assert max(radii) - min(radii) < 1e-6
        assert all(-1e-6 <= a <= 200 + 1e-6 and -1e-6 <= u <= 25 + 1e-6 for a, u in ring)


# --- is it dry? -----------------------------------------------------------------------------------

ROOM = Room(reference=(Reading("2026-01-01", Fraction(9)),))


def drying(start, tau, days, scatter=0.0, seed=0):
    rng = random.Random(seed)
    first = date(2026, 1, 1)
    return tuple(
        Reading(
            (first + timedelta(days=day)).isoformat(),
            Fraction(str(round(9 + start * math.exp(-day / tau) + rng.gauss(0, scatter), 2))),
        )
        for day in days
    )


@pytest.mark.parametrize("tau", [8.0, 14.0, 25.0])
def test_a_known_curve_is_found_again_within_what_is_said_of_it(tau):
    found = readiness(board(readings=drying(6.0, tau, range(0, 40, 4))), ROOM)
    true = tau * math.log(6.0)
    assert found.days[0] <= true * 1.02 and found.days[2] >= true * 0.98
    assert found.time_constant == pytest.approx(tau, rel=0.12)
    assert curve(found, [0.0])[0] == pytest.approx(6.0, abs=0.3)


def test_scattered_readings_hold_the_true_day_about_as_often_as_is_said():
    inside = 0
    for seed in range(60):
        rng = random.Random(seed)
        plank = board()
        usual = usual_days(1000, 200, 25)
        tau = usual * math.exp(rng.gauss(0, 0.6))
        found = readiness(replace(plank, readings=drying(5.0, tau, (0, 7, 14), 0.4, seed)), ROOM)
        inside += found.days[0] <= tau * math.log(5.0) <= found.days[2]
    assert 40 <= inside <= 58, "four in five are to be expected"


def test_more_readings_make_it_surer():
    few = readiness(board(readings=drying(5.0, 14.0, (0, 7))), ROOM)
    many = readiness(board(readings=drying(5.0, 14.0, range(0, 22, 3))), ROOM)
    assert many.days[2] - many.days[0] < few.days[2] - few.days[0]


def test_sawing_first_shortens_the_wait_and_thick_wood_waits_longer():
    damp = board(readings=drying(5.0, 14.0, (0, 5)))
    whole, sawn = readiness(damp, ROOM), readiness(damp, ROOM, (350.0, 90.0))
    assert sawn.on[1] < whole.on[1]
    assert usual_days(1000, 200, 50) > 2 * usual_days(1000, 200, 25)
    assert "Sawn into its rough parts now" in said(dryness(damp, ROOM, (350.0, 90.0), Reader()))


def test_what_is_dry_what_is_not_and_what_nobody_knows_is_said():
    assert "nobody knows" in said(dryness(board(), ROOM, None, Reader()))
    assert "Read the piece that lives in the room" in said(
        dryness(board(readings=drying(3, 10, (0,))), Room(), None, Reader())
    )
    assert said(dryness(board(readings=drying(0.5, 10, (0,))), ROOM, None, Reader())).startswith("Dry: 9.5 %")
    assert readiness(board(readings=drying(0.5, 10, (0,))), ROOM).ready
    assert draw_drying(board(), ROOM, 1000, Reader()).elements == ()
    assert len(draw_drying(board(readings=drying(4, 10, (0, 5))), ROOM, 1000, Reader()).elements) > 8


def test_the_reference_piece_comes_before_the_air():
    air = Room(Fraction(21), Fraction(65))
    assert air.target == pytest.approx(12.0, abs=0.1)
    assert replace(air, reference=(Reading("2026-01-01", Fraction(10)),)).target == 10
    assert Room(Fraction(21), Fraction(140)).target is None


def test_a_second_reading_of_a_day_takes_the_place_of_the_first():
    project = actions.add_board(Project(), board())
    project = actions.read_moisture(project, "1", Reading("2026-02-02", Fraction(12)))
    project = actions.read_moisture(project, "1", Reading("2026-01-02", Fraction(13)))
    project = actions.read_moisture(project, "1", Reading("2026-02-02", Fraction(11)))
    assert [(r.day, r.percent) for r in project.board("1").readings] == [("2026-01-02", 13), ("2026-02-02", 11)]


# --- offcuts --------------------------------------------------------------------------------------


def test_an_offcut_takes_its_share_of_everything_along():
    flaws = (
        Flaw(FlawKind.KNOT, mm(700), mm(760), mm(20), mm(60), Faces.UP, mm(5)),
        Flaw(FlawKind.CHECK, mm(0), mm(40), mm(0), mm(200)),
    )
    surface = Surface((0.0, 500.0, 750.0, 1000.0), (0.0, 100.0, 200.0), ((25.0,) * 3,) * 4, ((0.0,) * 3,) * 4)
    whole = board(
        flaws=flaws, price=Fraction(40), cup=mm(2), bow=mm(4), twist=mm(4), heart=(120.0, -50.0), surface=surface
    )
    (left,) = offcuts(whole, [SawnPiece(500.0, 100.0, 500.0, 100.0)], AMERICAN)
    assert (float(left.length), float(left.width), left.price) == (500, 100, 10)
    assert (float(left.cup), float(left.bow), float(left.twist)) == (0.5, 1, 1)
    assert left.flaws == () and left.heart == (20.0, -50.0) and left.source == "offcut of plank"
    assert left.surface.xs == (0.0, 250.0, 500.0) and left.surface.ys == (0.0, 100.0)
    (lower,) = offcuts(whole, [SawnPiece(650.0, 0.0, 350.0, 100.0)], AMERICAN)
    (knot,) = lower.flaws
    assert (float(knot.start), float(knot.end), knot.faces, knot.depth) == (50, 110, Faces.UP, mm(5))


@pytest.mark.parametrize(
    ("sawn_out", "high", "steps"),
    [
        ((400.0, 100.5, 202.0, 99.5), True, [(0, 100), (202, 100), (203, 200), (600, 200)]),
        ((400.0, 0.0, 201.5, 99.5), False, [(0, 100), (202, 100), (203, 0), (600, 0)]),
        ((798.5, 100.5, 201.5, 99.5), True, [(0, 200), (397, 200), (398, 100), (600, 100)]),
        ((798.5, 0.0, 201.5, 99.5), False, [(0, 0), (397, 0), (398, 100), (600, 100)]),
    ],
)
def test_a_corner_sawn_out_of_an_offcut_is_a_step_in_its_edge_and_never_too_small(sawn_out, high, steps):
    (left,) = offcuts(board(), [SawnPiece(400.0, 0.0, 600.0, 200.0, sawn_out)], AMERICAN)
    edge, other = (left.high_edge, left.low_edge) if high else (left.low_edge, left.high_edge)
    assert [(float(x), float(y)) for x, y in edge] == steps and other == ()
    check_board(left)
    x, y, long, wide = sawn_out
    gone = (x - 400, y, x - 400 + long, y + wide)
    covered = [each for each in missing(left) if each[1] <= gone[1] + 0.5 and each[3] >= gone[3] - 0.5]
    assert min(each[0] for each in covered) <= gone[0] and max(each[2] for each in covered) >= gone[2]
