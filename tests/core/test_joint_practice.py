"""The practice joint: tries, progress, what they say of the hands."""

import pytest

from nullah.core.joints.practice import TIGHT, JointTry, PracticeError, check, hands_of, progress
from nullah.core.joints.tolerance import dovetail
from nullah.core.lengths import Marks, Unit
from nullah.core.reader import Reader
from nullah.core.shop import Hands
from nullah.core.wording.facts import error_words
from nullah.core.wording.practice import progress_words
from nullah.files.practice import read_joints, read_practice, write_joints, write_practice


def tries(*gaps, tight="nowhere"):
    return [JointTry("2026-11-25", 60 - 3 * n, gap, tight) for n, gap in enumerate(gaps)]


def said_of(made, unit=Unit.MM):
    return progress_words(made, Reader(Marks(unit)))


def test_progress_is_told_in_the_unit_of_the_reader():
    assert "about 5/8″ thick, 2″ wide, 3″ long" in said_of([], Unit.INCH)
    said = said_of(tries(0.9, 0.8, 0.8, 0.4, 0.3, 0.3), Unit.INCH)
    assert "mm" not in said and "Gaps down from 0.031″ to 0.012″" in said
    assert progress(tries(0.9, 0.8)) is None and progress(tries(0.9, 0.8, 0.8)).gap.as_before


def test_progress_is_first_tries_against_last_ones():
    assert said_of([]).startswith("No practice joint yet")
    assert "something to compare" in said_of(tries(0.8, 0.7))
    said = said_of(tries(0.9, 0.8, 0.8, 0.4, 0.3, 0.3))
    assert "Gaps down from 0.80 mm to 0.30 mm" in said and "time down from 57 min to 48 min" in said
    assert "up from 0.30 mm to 0.80 mm" in said_of(tries(0.3, 0.3, 0.3, 0.8, 0.8, 0.9))
    assert "as before (0.50 mm)" in said_of(tries(0.5, 0.5, 0.5, 0.5))


@pytest.mark.parametrize("tight", TIGHT)
def test_what_comes_again_and_again_is_named_with_what_helps(tight):
    said = said_of(tries(0.5, 0.5, 0.5, 0.5, tight=tight))
    assert ("Often" in said) is (tight != "nowhere")
    assert tight == "nowhere" or tight in said


def test_better_tries_make_better_hands():
    assert hands_of(tries(0.5, 0.5)) == Hands()
    rough, fine = hands_of(tries(0.6, 0.6, 0.6)), hands_of(tries(0.1, 0.1, 0.1))
    assert rough.sawing > fine.sawing > 0
    assert dovetail(3, fine).traced.good > dovetail(3, rough).traced.good


@pytest.mark.parametrize("wrong", [("d", 0, 0.1, "nowhere"), ("d", 30, -1, "nowhere"), ("d", 30, 0.1, "somewhere"),
                                   ("d", float("nan"), 0.1, "nowhere")])  # fmt: skip
def test_tries_that_cannot_have_been_are_refused(wrong):
    with pytest.raises(PracticeError) as refused:
        check(JointTry(*wrong))
    assert error_words(refused.value, Reader(Marks(Unit.INCH))).endswith(".")
    assert "mm" not in error_words(refused.value, Reader(Marks(Unit.INCH)))


def test_joints_and_sticks_are_kept_side_by_side(tmp_path):
    from nullah.core.milling.sighting import Try

    file = tmp_path / "practice.json"
    sticks = (Try("2026-11-25", 1, True, 0.2),)
    assert write_practice(file, sticks) == "" and write_joints(file, tuple(tries(0.5, 0.4))) == ""
    assert read_practice(file) == sticks and read_joints(file) == tuple(tries(0.5, 0.4))
    file.write_text('{"joints": [{"day": 1}]}')
    assert read_joints(file) == ()
