"""Figures of the calendar, of what work takes and of how hands err, against the normal distribution and a minimiser."""

import math
from datetime import datetime
from statistics import NormalDist

import pytest
from scipy.optimize import minimize

from nullah.core.bench.hours import Hours, plan_days
from nullah.core.bench.rates import RATES, Learned, Record, learn
from nullah.core.bench.tasks import Task
from nullah.core.bench.trades import Trade
from nullah.core.joints.tolerance import Chances, Compared, ToleranceError, box, dovetail, opening
from nullah.core.shop import Hands

EVENINGS = Hours(((1080, 1200),) * 7)  # 18 to 20 h, every day
MONDAY = datetime(2026, 1, 5, 18)


def task(name, after=(), waits=0.0, whole=False, trade=Trade.JOINT):
    return Task(name, name, trade, (), tuple(after), waits=waits, whole=whole)


def planned(tasks, minutes, hours=EVENINGS):
    return plan_days(tasks, minutes, hours, MONDAY)


def order(tasks, minutes, hours=EVENINGS):
    return [stint.task.id for stint in planned(tasks, minutes, hours).stints]


# --- the calendar ----------------------------------------------------------------------------------------


def test_the_usual_evenings_and_mornings():
    week = Hours().week
    assert week[:4] == ((18 * 60 + 30, 21 * 60),) * 4
    assert week[4:] == (None, (9 * 60, 13 * 60), (9 * 60, 13 * 60))
    assert Hours().minutes_a_week == 4 * 150 + 2 * 240


def test_with_one_pair_of_hands_what_was_ready_waits_for_them_and_is_said_to():
    calendar = planned((task("a"), task("b")), {"a": 90, "b": 20})
    assert (calendar.chain, calendar.why) == (("a", "b"), {"b": "hands"})
    # What was let go only as the hands came free waited for its glue, not for them.
    for waits, why in ((1.5, "wait"), (1.4, "hands")):
        tasks = (task("dry", waits=waits), task("a"), task("b", ("dry",)))
        assert planned(tasks, {"a": 90, "b": 20}).why["b"] == why
    assert planned((task("a"), task("b", ("a",))), {"a": 90, "b": 20}).why == {"b": "work"}


@pytest.mark.parametrize(("behind", "first"), [(109, "z"), (110, "x")])
def test_what_has_two_hours_more_behind_it_is_done_first(behind, first):
    # Of two things that follow, the longer counts.
    tasks = (task("z"), task("x"), task("w", ("x",)), task("y", ("x",)))
    assert order(tasks, {"z": 20, "x": 10, "w": 5, "y": behind})[0] == first


@pytest.mark.parametrize(("waits", "first"), [(18, "z"), (19, "g")])
def test_an_hour_of_waiting_counts_as_six_minutes_at_the_bench(waits, first):
    tasks = (task("z", waits=0.5), task("g", waits=waits))
    assert order(tasks, {"z": 6, "g": 6.0})[0] == first


def test_what_is_as_pressing_goes_on_with_the_tools_that_are_set():
    tasks = (task("a", trade=Trade.SAW), task("b", trade=Trade.MILL), task("c", trade=Trade.SAW))
    assert order(tasks, dict.fromkeys("abc", 5)) == ["a", "c", "b"]


@pytest.mark.parametrize(("saw", "first"), [(100, "saw"), (101, "glue")])
def test_glue_waits_for_the_end_of_the_day_where_both_still_fit(saw, first):
    tasks = (task("glue", waits=10), task("saw"))
    assert order(tasks, {"glue": 20, "saw": saw})[0] == first


def test_glue_does_not_wait_for_other_glue_nor_for_what_is_over_today():
    assert order((task("glue", waits=10), task("more", waits=10)), {"glue": 20, "more": 20})[0] == "glue"
    # 20 minutes and 100 of waiting are over as the session ends; a minute more runs into the night.
    for hours, first in ((100 / 60, "glue"), (101 / 60, "saw")):
        assert order((task("glue", waits=hours), task("saw")), {"glue": 20, "saw": 30})[0] == first


@pytest.mark.parametrize(("need", "day"), [(40, 5), (41, 6)])
def test_what_must_not_be_left_half_done_fits_to_the_minute(need, day):
    calendar = planned((task("a"), task("glue", ("a",), whole=True)), {"a": 80, "glue": need})
    assert [stint.begin.day for stint in calendar.stints] == [5, day]


def test_it_waits_for_the_longest_session_of_the_week_and_what_is_longer_for_none():
    hours = Hours(((1080, 1140), (1080, 1200), *((1080, 1140),) * 5))
    assert [s.begin.day for s in planned((task("glue", whole=True),), {"glue": 120}, hours).stints] == [6]
    assert [s.begin.day for s in planned((task("glue", whole=True),), {"glue": 121}, hours).stints] == [5, 6]


# --- what work takes -------------------------------------------------------------------------------------


def guessed(work):
    return sum(amount * RATES[name].minutes for name, amount in work)


def test_one_record_moves_a_guess_as_far_as_it_is_surer_than_the_guess():
    # θ of prior 0 ± 0.5, read as ln 2 ± 0.25: weights 4 and 16.
    work = (("rip", 3.0), ("rip", 1.0))
    found = learn([Record(work, 2 * guessed(work))])["rip"]
    assert math.log(found.factor) == pytest.approx(math.log(2) * 16 / 20, abs=1e-3)
    assert (found.spread, found.records) == (pytest.approx(20**-0.5), 1)


def test_a_wild_record_counts_as_much_as_one_and_a_half_scatters():
    found = learn([Record((("rip", 1.0),), 50 * RATES["rip"].minutes)])["rip"]
    # At rest: θ / 0.5² = 1.5 · 0.25 / 0.25².
    assert math.log(found.factor) == pytest.approx(1.5, abs=5e-3)


def test_what_earlier_pieces_taught_counts_as_sure_as_it_was_and_never_surer_than_a_twentieth():
    one = [Record((("rip", 1.0),), 1.2 * RATES["rip"].minutes)]
    for spread, believed in ((0.3, 0.3), (0.01, 0.05)):
        found = learn(one, {"rip": Learned(0.9, spread, 7)})["rip"]
        before, now = believed**-2, 0.25**-2
        off = (math.log(0.9) * before + math.log(1.2) * now) / (before + now)
        assert math.log(found.factor) == pytest.approx(off, abs=2e-3)
        assert (found.spread, found.records) == (pytest.approx((before + now) ** -0.5), 8)
    # What nobody wrote down is only a guess again.
    again = learn(one, {"rip": Learned(0.9, 0.01, 0)})["rip"]
    assert math.log(again.factor) == pytest.approx(math.log(1.2) * 16 / 20, abs=1e-3) and again.records == 1


def test_records_of_several_works_share_out_as_the_least_of_all_errors_does():
    works = ((("rip", 2.0), ("start", 4.0)), (("rip", 5.0), ("chop", 9.0)), (("chop", 3.0), ("start", 12.0)))
    minutes = [guessed(work) * times for work, times in zip(works, (1.3, 0.9, 1.15), strict=True)]
    names = ("chop", "rip", "start")

    def errors(theta):
        by = dict(zip(names, theta, strict=True))
        off = [
            math.log(took) - math.log(sum(amount * RATES[name].minutes * math.exp(by[name]) for name, amount in work))
            for work, took in zip(works, minutes, strict=True)
        ]
        return sum(t * t for t in theta) / 0.5**2 + sum(each * each for each in off) / 0.25**2

    best = minimize(errors, [0.0] * 3, tol=1e-10).x
    found = learn([Record(work, took) for work, took in zip(works, minutes, strict=True)])
    assert [math.log(found[name].factor) for name in names] == pytest.approx(best, abs=6e-3)


def test_with_five_records_their_own_scatter_is_believed_but_not_below_half_of_the_usual():
    for spread_out, scatter in ((0.0, 0.125), (0.5, None)):
        off = [0.3 + spread_out * step for step in (-2, -1, 0, 1, 2)]
        found = learn([Record((("rip", 1.0),), RATES["rip"].minutes * math.exp(each)) for each in off])["rip"]
        theta = math.log(found.factor)
        if scatter is None:
            scatter = 1.4826 * sorted(abs(each - theta) for each in off)[2]
        trusts = [min(1.0, 1.5 * scatter / max(abs(each - theta), 1e-12)) for each in off]
        assert theta / 0.5**2 == pytest.approx(
            sum(trust * (each - theta) for trust, each in zip(trusts, off, strict=True)) / scatter**2, abs=0.05
        )
        assert found.spread == pytest.approx((0.5**-2 + sum(trusts) / scatter**2) ** -0.5, rel=0.01)
    # Four are too few to tell: the usual scatter stands.
    four = learn([Record((("rip", 1.0),), RATES["rip"].minutes)] * 4)["rip"]
    assert four.spread == pytest.approx((0.5**-2 + 4 * 0.25**-2) ** -0.5)


def test_what_is_no_work_or_took_no_time_teaches_nothing():
    assert learn([Record((("rip", 1.0),), 0.0), Record((("whistling", 2.0),), 9.0), Record((("rip", 0.0),), 9.0)]) == {}
    both = learn([Record((("rip", 1.0), ("whistling", 4.0)), RATES["rip"].minutes)])
    assert list(both) == ["rip"] and both["rip"].factor == pytest.approx(1)


# --- how hands err ---------------------------------------------------------------------------------------

HANDS = Hands(marking=0.12, tracing=0.06, sawing=0.09, planing=0.07, measuring=0.1)


def chances(sd, places, gives, kept=0.0, clearance=0.0):
    """Return the chances of normal clearances: a gap over 0.2 mm while all go in; one that does not."""
    spread = NormalDist(kept + clearance, sd)
    goes_in, close = 1 - spread.cdf(-gives), spread.cdf(0.2 + clearance) - spread.cdf(-gives)
    return goes_in**places - close**places, 1 - goes_in**places


def same(found, expected):
    assert (found.gap, found.tight) == pytest.approx(expected, abs=0.004)


@pytest.mark.parametrize("tails", [1, 4])
def test_cheeks_of_a_corner_miss_as_the_normal_distribution_says(tails):
    found = dovetail(tails, HANDS, trials=150_000)
    both = math.sqrt(2) * math.hypot(HANDS.marking, HANDS.sawing)
    same(found.drawing, chances(both, 2 * tails, 0.15, -0.02))
    same(found.traced, chances(math.hypot(HANDS.tracing, HANDS.sawing), 2 * tails, 0.15, -0.02))


@pytest.mark.parametrize(("size", "clearance", "joints"), [(100, 0.0, 2), (2000, 0.1, 2), (700, 0.05, 0)])
def test_parts_for_an_opening_miss_as_the_normal_distribution_says(size, clearance, joints):
    found = opening(size, HANDS, clearance, joints, trials=300_000)
    marked = HANDS.marking**2 * (1 + (size / 1000) ** 2)
    cut = HANDS.sawing**2 + HANDS.planing**2
    there = marked + 2 * HANDS.sawing**2 + joints * (HANDS.tracing**2 + HANDS.planing**2)
    same(found.drawing, chances(math.sqrt(there + marked + cut), 1, 0.05, clearance=clearance))
    same(found.traced, chances(math.sqrt(HANDS.measuring**2 + cut), 1, 0.05, clearance=clearance))


def test_a_box_is_good_where_all_its_corners_and_both_ways_of_its_bottom_are():
    corners, bottom = box((300, 200), 3, HANDS, 0.1, trials=60_000)
    corner = dovetail(3, HANDS, trials=300_000)
    sides = [opening(size, HANDS, 0.1, trials=300_000) for size in (300, 200)]
    for found, parts in ((corners, [corner] * 4), (bottom, sides)):
        for which in ("drawing", "traced"):
            each = [getattr(part, which) for part in parts]
            good, goes_in = math.prod(one.good for one in each), math.prod(1 - one.tight for one in each)
            same(getattr(found, which), (goes_in - good, 1 - goes_in))


def test_tracing_is_insisted_on_where_fifteen_more_of_a_hundred_come_good():
    drawing = Chances(0.25, 0.25)
    assert drawing.good == 0.5 and Chances(0.7, 0.7).good == 0
    assert not Compared(drawing, Chances(0.2, 0.155)).far_better
    assert Compared(drawing, Chances(0.2, 0.145)).far_better


@pytest.mark.parametrize(
    ("inside", "outside"),
    [
        (lambda: dovetail(1, HANDS, trials=100), lambda: dovetail(1, HANDS, trials=99)),
        (lambda: dovetail(1, HANDS, 100), lambda: dovetail(0, HANDS, 100)),
        (lambda: dovetail(1, HANDS._replace(marking=5), 100), lambda: dovetail(1, HANDS._replace(marking=5.01), 100)),
        (lambda: dovetail(1, HANDS._replace(marking=0), 100), lambda: dovetail(1, HANDS._replace(marking=-0.01), 100)),
        (lambda: opening(0.1, HANDS, trials=100), lambda: opening(0, HANDS, trials=100)),
        (lambda: opening(9, HANDS, joints=0, trials=100), lambda: opening(9, HANDS, joints=-1, trials=100)),
    ],
)
def test_what_hands_and_trials_can_be(inside, outside):
    inside()
    with pytest.raises(ToleranceError):
        outside()
