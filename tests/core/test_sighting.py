"""Winding sticks as they are seen, and the exercises."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nullah.core.drawing import Path, Role
from nullah.core.milling.sighting import (
    BEGINS,
    HARDEST,
    Answer,
    Eye,
    Try,
    Wound,
    answered,
    exercise,
    mark,
    next_level,
    progress_of,
    seen,
    shown_rise,
    sight,
)
from nullah.core.reader import Reader
from nullah.core.wording.sighting import progress_words


def tops(wound, eye):
    """Return the upper edges of the far and the near stick, as they are seen."""
    shown = sight(wound, 0.0, wound.length, 2 * wound.width, eye)
    bodies = [e for e in shown.elements if isinstance(e, Path) and e.role is Role.OUTLINE and len(e.points) == 4]
    far, _, near = bodies  # the far one, its inlaid edge, the near one
    return far.points[3], far.points[2], near.points[3], near.points[2]


def lean(left, right):
    return (right[1] - left[1]) / (right[0] - left[0])


@given(st.floats(-4, 4), st.floats(0, 0.5), st.floats(-2, 2), st.floats(-5, 5))
def test_a_true_board_shows_parallel_edges_whatever_the_tilt_and_a_wound_one_does_not(wind, begins, cup, tilt):
    far_left, far_right, near_left, near_right = tops(Wound(800, 180, wind, begins, cup), Eye(tilt=tilt))
    off = lean(far_left, far_right) - lean(near_left, near_right)
    if wind == 0:
        assert off == pytest.approx(0, abs=1e-9)
    elif abs(wind) > 0.05:
        # The pane's v runs down: an end that stands high lies less far down.
        assert (off < 0) is (wind > 0)


def test_perspective_makes_the_far_stick_smaller_and_both_stand_upright_over_the_middle():
    far_left, far_right, near_left, near_right = tops(Wound(800, 180, 0, 0), Eye())
    assert far_right[0] - far_left[0] < 0.6 * (near_right[0] - near_left[0])
    assert far_left[0] == pytest.approx(-far_right[0])
    # The eye stands a little higher than the sticks: the far edge shows over the near one.
    assert far_left[1] < near_left[1]
    assert seen((800, 0, 43), Eye()) == pytest.approx((0, 0))


def test_longer_sticks_show_the_same_wind_larger():
    wound = Wound(900, 180, 3, 0.5)
    assert shown_rise(wound, 0, 900, 180) == pytest.approx(3)
    assert shown_rise(wound, 0, 900, 540) == pytest.approx(9)
    assert shown_rise(wound, 0, 450, 540) == 0
    assert len(answered(wound).elements) > 10


@settings(max_examples=80)
@given(st.integers(-3, 15), st.integers(0, 10**6))
def test_every_exercise_can_be_answered_and_only_rightly(level, seed):
    given_ = exercise(level, seed)
    assert exercise(level, seed) == given_
    rise = shown_rise(given_.wound, 0, given_.wound.length, given_.stick)
    high = "true" if abs(rise) < 0.05 else "right" if rise > 0 else "left"
    marked = mark(Answer(high, abs(rise), given_.wound.begins), given_)
    assert marked.right and marked.rise_off < 0.01
    other = "left" if high == "right" else "right"
    assert not mark(Answer(other, abs(rise) + 0.1, given_.wound.begins), given_).right
    if high != "true":
        assert not mark(Answer(high, abs(rise) * 2 + 1, given_.wound.begins), given_).right
        begins = next(share for share in BEGINS if share != given_.wound.begins)
        assert not mark(Answer(high, abs(rise), begins), given_).right


def test_harder_boards_wind_less():
    def usual(level):
        rises = [abs(shown_rise(e.wound, 0, e.wound.length, e.stick)) for e in (exercise(level, n) for n in range(60))]
        return sum(rises) / len(rises)

    assert usual(0) > 2 * usual(HARDEST)


def test_difficulty_follows_the_user():
    def tries(level, *right):
        return [Try("2026-11-25", level, each, 0.5) for each in right]

    assert next_level(()) == 0
    assert next_level(tries(2, True, True)) == 2
    assert next_level(tries(2, True, True, True)) == 3
    assert next_level(tries(2, False)) == 2
    assert next_level(tries(2, True, False, False)) == 1
    assert next_level(tries(0, False, False)) == 0
    assert next_level(tries(HARDEST, True, True, True)) == HARDEST
    assert progress_of(()) is None and progress_words(None, Reader()) == "Nothing practiced yet."
    assert progress_words(progress_of(tries(1, True)), Reader()).startswith("1 board read; of the last 1, 1 right")
    assert progress_of(tries(3, True, False, True)).step == 4
