"""Small figures said outright: what a changed sign, limit or constant would alter."""

from datetime import datetime
from fractions import Fraction

import numpy as np
import pytest

from nullah.core.bench.hours import Hours, plan_days, write_hours
from nullah.core.bench.rates import Learned
from nullah.core.bench.tasks import Task, Trade, in_order
from nullah.core.breakdown.cuts import portions
from nullah.core.breakdown.layout import Rect
from nullah.core.joints.dovetail.frame import tail_edges
from nullah.core.joints.dovetail.layout import DovetailFigures, lay_out
from nullah.core.joints.dovetail.runout import Meets, run_out
from nullah.core.lengths import Slope, mm
from nullah.core.milling.decide import BoardFace, twist_of
from nullah.core.milling.survey import Survey
from nullah.core.piece.faults import Channel
from nullah.core.piece.overlap import channel_of
from nullah.core.piece.part import Needs, Part
from nullah.core.piece.space import Axis, Box
from nullah.core.plan import work_out
from nullah.core.season.fits import Fit, Verdict
from nullah.core.work.seasons import season_of
from nullah.demo.seed_cabinet import seed_cabinet


def test_lengths_compare_as_numbers_do():
    one, same, more = mm(3), mm("3.0"), mm("3.001")
    assert one <= same and one >= same and not one < same and not one > same
    assert one <= more and more >= one and one < more and more > one
    assert not more <= one and not one >= more


def test_a_box_is_moved_along_each_axis_by_itself():
    box = Box((Fraction(1), Fraction(2), Fraction(3)), (Fraction(5), Fraction(7), Fraction(11)))
    assert box.moved((Fraction(10), Fraction(20), Fraction(40))) == Box((11, 22, 43), (15, 27, 51))


def test_the_usual_week_is_four_evenings_and_two_mornings():
    assert [write_hours(span) for span in Hours().week] == ["18:30-21:00"] * 4 + [""] + ["9:00-13:00"] * 2
    assert Hours().minutes_a_week == 4 * 150 + 2 * 240


def test_what_was_learned_is_told_with_its_spread():
    assert Learned(2.0, 0.5, 3).in_words == "2.00 times the guess (1.21 to 3.30, 3 records)"
    assert Learned(1.0, 0.1, 1).in_words.endswith("1 record)")


def test_a_channel_as_long_as_it_is_wide_is_a_groove():
    board = Box((Fraction(0),) * 3, (Fraction(300), Fraction(100), Fraction(20)))
    part = Part("p", 1, "p", board, Axis.X, Axis.Z, Needs.ANY, ("", "", ""), "p")
    square = Box((Fraction(50), Fraction(30), Fraction(14)), (Fraction(62), Fraction(42), Fraction(20)))
    assert channel_of(part, square) is Channel.GROOVE
    assert channel_of(part, square.set(Axis.X, Fraction(50), Fraction(61))) is Channel.DADO


def test_unequal_tails_share_what_is_between_the_pins():
    edges = tail_edges(Fraction(100), 2, Fraction(10), Fraction(8), (Fraction(1), Fraction(3)))
    assert edges == ((10, 28), (36, 90))


def test_what_a_groove_meets_at_a_corner_and_where_it_shows():
    layout = lay_out(DovetailFigures(mm(150), mm(16), mm(16), 2, mm(10), mm(6), Slope(Fraction(7))))
    (low, high), _ = layout.bases
    inside = run_out(layout, low, high)
    assert inside == (Meets.TAIL, True, False, 1)
    # At either wall just outside the tail's narrow side it cuts the slope; beside every tail it meets a pin.
    assert run_out(layout, low - mm("0.01"), high) == (Meets.BOTH, True, True, None)
    assert run_out(layout, low, high + mm("0.01")) == (Meets.BOTH, True, True, None)
    assert run_out(layout, mm(1), layout.marks[0]) == (Meets.PIN, False, True, None)


def test_a_cut_leaves_what_lies_before_it_and_beyond_its_kerf():
    board = Rect(100, 20, 1000, 200)
    assert portions(board, True, 400, 3) == (Rect(100, 20, 300, 200), Rect(403, 20, 697, 200))
    assert portions(board, False, 90, 3) == (Rect(100, 20, 1000, 70), Rect(100, 93, 1000, 127))


@pytest.mark.parametrize(
    ("across", "found"),
    [
        ([0, 0, 0, 1, 2], (2, 500, 900, "upper right")),
        ([0, 1, 2, 2, 2], (2, 100, 500, "lower left")),
        ([1, 1, 2, 2, 2], (1, 300, 500, "lower left and upper right")),
        ([2, 1, 0, 0, 0], (-2, 100, 500, "upper left")),
    ],
)
def test_a_twist_is_where_it_happens_and_at_the_corner_that_is_high(across, found):
    x, y = np.array([100.0, 300, 500, 700, 900]), np.array([0.0, 50, 100])
    top = 25 + np.outer(np.array(across, dtype=float), (y - 50) / 100)
    twist = twist_of(Survey(x, y, top, np.zeros_like(top)), BoardFace.UPPER)
    assert (round(twist.wind, 6), twist.start, twist.end, twist.corner) == found


def test_a_face_true_within_the_limit_does_not_wind():
    x, y = np.array([0.0, 500, 1000]), np.array([0.0, 100])
    for across, winds in ((0.29, False), (0.31, True)):
        top = 25 + np.outer(np.array([0.0, 0.0, across]), (y - 50) / 100)
        assert (twist_of(Survey(x, y, top, np.zeros_like(top)), BoardFace.UPPER) is not None) is winds


def test_a_drawer_has_the_room_that_was_planned_round_its_front():
    plan = work_out(seed_cabinet(), milling=False, proving=False)
    reveal = float(plan.ledger["drawer.reveal"])
    rooms = [fit.room for fit in season_of(plan).fits if fit.mover is not None and fit.mover[0].startswith("drawer")]
    assert rooms and rooms == pytest.approx([2 * reveal] * len(rooms))


def test_the_tightest_and_the_loosest_month_of_a_fit():
    rooms = (3.0, 2.0, 1.0, 0.5, 1.0, 2.0, 3.0, 4.0, 5.0, 6.0, 5.0, 4.0)
    fit = Fit(None, ("p",), 300.0, 3.0, rooms, 1.0, "", None, Verdict.FITS)
    assert (fit.tightest, fit.loosest) == (3, 9)


def days(tasks, minutes, spans):
    week = tuple(spans.get(day) for day in range(7))
    return plan_days(in_order(tasks), minutes, Hours(week), datetime(2026, 3, 2, 9))  # a Monday


def test_what_has_the_longest_way_behind_it_is_done_first():
    tasks = [
        Task("b", "b", Trade.JOINT, ()), Task("b1", "b1", Trade.JOINT, (), ("b",)),
        Task("a", "a", Trade.JOINT, ()), Task("a1", "a1", Trade.JOINT, (), ("a",)),
        Task("a2", "a2", Trade.JOINT, (), ("a",)),
    ]  # fmt: skip
    minutes = {"a": 10, "a1": 10, "a2": 400, "b": 10, "b1": 200}
    calendar = days(tasks, minutes, dict.fromkeys(range(7), (540, 1020)))
    assert calendar.stints[0].task.id == "a"


def test_what_must_not_be_left_half_done_waits_for_a_session_that_is_long_enough():
    whole = [Task("g", "glue", Trade.GLUE, (), whole=True)]
    monday_and_tuesday = {0: (540, 600), 1: (540, 660)}
    (stint,) = days(whole, {"g": 100}, monday_and_tuesday).stints
    assert stint.begin == datetime(2026, 3, 3, 9)
    # Just as long as the session is long enough.
    (stint,) = days(whole, {"g": 60}, {0: (540, 600)}).stints
    assert (stint.begin, stint.end) == (datetime(2026, 3, 2, 9), datetime(2026, 3, 2, 10))
