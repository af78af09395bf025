"""Times: guessed from the work, learned robustly from what was written down."""

import math
import random

import pytest

from nullah.core.bench.rates import RATES, Learned, Record, learn, minutes_of
from nullah.core.reader import Reader
from nullah.core.wording.day_book import rates_words


def made(truth, count, seed=1, wild=0.0, scatter=0.2):
    """Records of made-up work with these true factors; a share of them wild."""
    chance = random.Random(seed)
    for _ in range(count):
        names = chance.sample(list(truth), k=chance.choice((1, 1, 2)))
        work = tuple((name, chance.uniform(1, 20)) for name in names)
        minutes = sum(amount * RATES[name].minutes * truth[name] for name, amount in work)
        minutes *= math.exp(chance.gauss(0, scatter))
        yield Record(work, minutes * (chance.choice((6, 0.1)) if chance.random() < wild else 1))


TRUTH = {"rip": 1.6, "kerf": 0.8, "plane": 1.2, "lay out": 2.0}


def test_work_is_timed_by_the_guesses():
    assert minutes_of((("rip", 2.0), ("kerf", 4))) == pytest.approx(2 * 3.5 + 4 * 0.7)
    assert minutes_of((("rip", 2.0),), {"rip": Learned(2.0, 0.1, 5)}) == pytest.approx(14)
    assert minutes_of(()) == 0


def test_nothing_written_down_teaches_nothing():
    assert learn([]) == {}
    assert learn([Record((("rip", 2.0),), 0.0), Record((), 20.0)]) == {}


def test_one_record_moves_a_rate_a_little_and_many_move_it_home():
    once = learn([Record((("rip", 2.0),), 14.0)])["rip"]
    often = learn([Record((("rip", 2.0),), 14.0)] * 30)["rip"]
    assert 1 < once.factor < often.factor <= 2.001 and often.factor > 1.9
    assert once.spread > often.spread and (once.records, often.records) == (1, 30)


def test_it_says_how_sure_it_is():
    (said,) = rates_words({"rip": Learned(2.0, 0.5, 3), "end": Learned()}, Reader())
    assert said == "Ripping: 2.00 times the guess (1.21 to 3.30, 3 records)."
    (said,) = rates_words({"rip": Learned(1.0, 0.1, 1)}, Reader())
    assert said.endswith("1 record).")


def test_what_was_known_before_is_believed_as_far_as_it_was_sure():
    before = {"rip": Learned(2.0, 0.05, 40)}
    kept = learn([Record((("rip", 2.0),), 7.0)], before)["rip"]
    assert kept.factor > 1.8 and kept.records == 41
    loose = learn([Record((("rip", 2.0),), 7.0)] * 10, {"rip": Learned(2.0, 0.4, 2)})["rip"]
    assert loose.factor < 1.2


def test_a_rate_nobody_wrote_of_is_kept_from_before():
    assert learn([Record((("kerf", 5.0),), 4.0)], {"rip": Learned(2.0, 0.1, 9)})["rip"].factor == pytest.approx(2.0)


def test_a_few_wild_records_move_it_little():
    clean = learn(made(TRUTH, 80))
    spoilt = learn(made(TRUTH, 80, wild=0.12))
    for name in TRUTH:
        assert spoilt[name].factor == pytest.approx(clean[name].factor, rel=0.25), name
