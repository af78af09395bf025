"""Inch and millimetre against a general units table.

Source: NIST SP 811 (2008), appendix B.8: 1 inch = 2.54 E-02 m exactly, 1 foot = 3.048 E-01 m exactly.
"""

from fractions import Fraction

import pytest

from nullah.core.lengths import MM_PER_INCH, Unit, inch, read_length


def test_the_inch_and_the_foot_are_exact():
    assert Fraction(254, 10) == MM_PER_INCH
    assert read_length("1'").mm == Fraction(3048, 10)
    # Every mark of a 1/64 rule over a yard, there and back, without loss.
    for mark in range(36 * 64 + 1):
        length = inch(Fraction(mark, 64))
        assert length.mm * 640 == mark * 254
        assert read_length(length.as_text(), Unit.MM).mm == length.mm


def test_the_library_of_units_in_scipy_agrees():
    from scipy import constants

    assert float(inch(1)) / 1000 == constants.inch
    assert float(read_length("1 ft")) / 1000 == pytest.approx(constants.foot, rel=1e-15)
