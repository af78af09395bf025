"""Exact numbers agree with those of the standard library, whatever they are mixed with."""

import copy
import fractions
import operator
import pickle
from math import gcd
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nullah.core.fraction import Fraction

WHOLE = st.integers(-1000, 1000)
STANDARD = st.builds(fractions.Fraction, WHOLE, st.integers(1, 400))
OWN = STANDARD.map(Fraction)
OTHER = st.one_of(OWN, STANDARD, WHOLE, st.floats(-100, 100))
ARITHMETIC = [operator.add, operator.sub, operator.mul, operator.truediv, operator.mod]
COMPARISONS = [operator.eq, operator.ne, operator.lt, operator.le, operator.gt, operator.ge]


def standard(number):
    return fractions.Fraction(number.numerator, number.denominator) if isinstance(number, Fraction) else number


def worked_out(work, one, other):
    try:
        return work(one, other)
    except ZeroDivisionError:
        return "over nothing"


@pytest.mark.parametrize("work", ARITHMETIC, ids=lambda work: work.__name__)
@given(OWN, OTHER)
def test_arithmetic_is_that_of_the_standard_library(work, own, other):
    for one, two in ((own, other), (other, own)):
        found, wanted = worked_out(work, one, two), worked_out(work, standard(one), standard(two))
        assert found == wanted
        if isinstance(wanted, fractions.Fraction):
            assert type(found) is Fraction
            assert found.denominator > 0 and gcd(found.numerator, found.denominator) == 1
        else:
            assert type(found) is type(wanted)


@pytest.mark.parametrize("compared", COMPARISONS, ids=lambda compared: compared.__name__)
@given(OWN, OTHER)
def test_comparisons_are_those_of_the_standard_library(compared, own, other):
    for beside in (other, standard(own), own):
        assert compared(own, beside) is compared(standard(own), standard(beside))
        assert compared(beside, own) is compared(standard(beside), standard(own))


@given(OWN)
def test_one_number_alone(own):
    beside = standard(own)
    for alone in (operator.neg, operator.pos, abs, float, bool, hash, round, int, str):
        assert alone(own) == alone(beside)
    negative = -own
    for same in (-negative, +own, copy.copy(own), copy.deepcopy(own), pickle.loads(pickle.dumps(own))):
        assert same == beside and type(same) is Fraction
    assert repr(own) == repr(beside)


@pytest.mark.parametrize("work", [*ARITHMETIC, *COMPARISONS], ids=lambda work: work.__name__)
def test_what_is_no_single_number_is_asked_itself(work):
    several = np.array([0.25, 0.5, 2.0])
    for one, two in ((Fraction(1, 2), several), (several, Fraction(1, 2))):
        assert list(work(one, two)) == list(work(*(standard(each) for each in (one, two))))


def test_core_works_with_no_others():
    src = Path(__file__).parents[2] / "src"
    others = [path for path in src.rglob("*.py") if "from fractions import" in path.read_text()]
    assert [path.name for path in others] == ["fraction.py"]
