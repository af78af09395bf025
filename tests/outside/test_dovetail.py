"""Dovetail arithmetic against worked examples and closed forms.

The spacing is exact arithmetic; the worked example (150 wide, half-pin 10, pin 6, two tails) and
81½° as "about 1:6.7" are common practice without a published source.
"""

import itertools
import math
from fractions import Fraction

import pytest

from nullah.core.joints.dovetail.layout import DovetailFigures, lay_out
from nullah.core.joints.views import between_tails
from nullah.core.lengths import Slope, inch, mm


def test_the_worked_example_by_dividers():
    layout = lay_out(DovetailFigures(mm(150), mm(15), mm(15), 2, mm(10), mm(6), Slope(Fraction(7))))
    assert (layout.step, layout.tail) == (mm(68), mm(62))
    assert layout.marks == (mm(10), mm(72), mm(78), mm(140))


@pytest.mark.parametrize(("run", "degrees"), [(6, 9.46), (7, 8.13), (8, 7.13)])
def test_slopes_in_degrees(run, degrees):
    assert Slope(Fraction(run)).degrees == pytest.approx(degrees, abs=0.005)


def test_eighty_one_and_a_half_degrees():
    run = 1 / math.tan(math.radians(90 - 81.5))
    assert run == pytest.approx(6.7, abs=0.02)
    assert Slope(Fraction(67, 10)).degrees == pytest.approx(8.5, abs=0.02)


def test_walking_dividers_by_hand_gives_the_marks():
    # Step off from both edges as one does at the bench, in whole 1/64 in, and compare.
    width, half, pin, tails = Fraction(6), Fraction(3, 8), Fraction(1, 4), 3
    step = (width - 2 * half + pin) / tails
    from_left = [half + step * k for k in range(tails)]
    from_right = [width - half - step * k for k in range(tails)]
    marks = sorted(from_left + from_right)
    layout = lay_out(
        DovetailFigures(inch(width), inch("3/4"), inch("3/4"), tails, inch(half), inch(pin), Slope(Fraction(8)))
    )
    assert layout.marks == tuple(inch(mark) for mark in marks)


def test_the_slope_on_paper_is_the_angle_of_the_bevel():
    layout = lay_out(DovetailFigures(mm(150), mm(15), mm(20), 4, mm(8), mm(5), Slope(Fraction(7))))
    (low, _), (base_low, _) = layout.tails[0], layout.bases[0]
    assert math.degrees(math.atan2(float(base_low - low), 20)) == pytest.approx(layout.spec.slope.degrees)


def test_the_slope_stays_the_bevels_where_end_grain_is_left_proud():
    spec = DovetailFigures(mm(150), mm(15), mm(20), 4, mm(8), mm(5), Slope(Fraction(7)), mm("0.5"))
    layout = lay_out(spec)
    (_, end), (inward, base), *_ = next(itertools.islice(between_tails(layout, 20.5), 1, None))
    assert inward == 20.5
    assert math.degrees(math.atan2(end - base, 20.5)) == pytest.approx(layout.spec.slope.degrees)
    # At the pin board's outside face the tail is as much narrower as the proud end takes.
    low, high = layout.tails_at(spec.proud)[0]
    assert float(layout.tail - (high - low)) == pytest.approx(2 * 0.5 / 7)
