"""The moisture meter: what a real one would send, and the simulated one."""

import math
from fractions import Fraction
from statistics import mean, stdev

import pytest

from nullah.instruments.moisture_meter import MeterError, MoistureMeter, SimulatedMeter, read_line


@pytest.mark.parametrize(
    ("line", "percent"),
    [("11.5", Fraction(23, 2)), ("MC 11,5 %\r\n", Fraction(23, 2)), ("  9%", Fraction(9)), ("=+12.0", Fraction(12))],
)
def test_lines_as_a_meter_sends_them(line, percent):
    assert read_line(line) == percent


@pytest.mark.parametrize("line", ["", "OL", "11.5 at 20 C", "-3", "9000"])
def test_lines_that_are_no_reading_are_refused_with_a_sentence(line):
    with pytest.raises(MeterError, match=r"\.$"):
        read_line(line)


def test_the_simulated_meter_scatters_about_the_truth_and_repeats():
    meter: MoistureMeter = SimulatedMeter(start=14, room=9, time_constant=10, scatter=0.4)
    found = [float(meter.read(f"board {i}", 10)) for i in range(400)]
    assert mean(found) == pytest.approx(9 + 5 / math.e, abs=0.08)
    assert 0.3 < stdev(found) < 0.55, "the scatter, and reading to half a point"
    assert meter.read("board 1", 10) == meter.read("board 1", 10)
    assert all((Fraction(str(value)) * 2).denominator == 1 for value in found)
    reference = [float(meter.read("reference", day)) for day in range(200)]
    assert mean(reference) == pytest.approx(9, abs=0.1)
