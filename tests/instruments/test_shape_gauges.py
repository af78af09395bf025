"""Straightedge, sticks and calliper: what a real one sends, and simulated ones."""

import pytest

from nullah.core.lengths import mm
from nullah.core.milling.adjust import CALLIPER_SD, GAP_SD, WIND_SD, usual_readings
from nullah.core.rack.board import Board
from nullah.core.rack.shape_readings import Calliper, Gap, figure_of, shape_place
from nullah.instruments.shape_gauges import GaugeError, SimulatedGauges, read_gauge_line

BOARD = Board("1", "one", "black cherry", mm(900), mm(180), mm(27), mm(2), mm(2), mm(4))


@pytest.mark.parametrize(("line", "value"), [("19.42", 19.42), ("+ 19,42 mm", 19.42), (" -0.3mm\n", -0.3), ("7", 7)])
def test_lines_as_gauges_send_them(line, value):
    assert float(read_gauge_line(line)) == pytest.approx(value)


@pytest.mark.parametrize("line", ["", "mm", "19.4 in", "1 2", "nan", "1e3", "19.42.1"])
def test_lines_that_are_no_reading(line):
    with pytest.raises(GaugeError, match="not what a calliper sends"):
        read_gauge_line(line)


def test_the_same_board_reads_the_same_and_other_boards_do_not():
    wanted = usual_readings(BOARD)[:6]
    one, two, other = SimulatedGauges(1), SimulatedGauges(1), SimulatedGauges(2)
    read = [one.read(BOARD, each) for each in wanted]
    assert read == [two.read(BOARD, each) for each in wanted]
    assert read != [other.read(BOARD, each) for each in wanted]
    assert [shape_place(each) for each in read] == [shape_place(each) for each in wanted]


def test_scatter_is_what_hands_and_eyes_have():
    wanted = usual_readings(BOARD)
    true, read = SimulatedGauges(4, scatter=0), SimulatedGauges(4, scatter=1)
    off = {"gap": [], "wind": [], "calliper": []}
    for seed in range(4, 12):
        true, read = SimulatedGauges(seed, scatter=0), SimulatedGauges(seed, scatter=1)
        for each in wanted:
            kind = "gap" if isinstance(each, Gap) else "calliper" if isinstance(each, Calliper) else "wind"
            off[kind].append(float(figure_of(read.read(BOARD, each))) - float(figure_of(true.read(BOARD, each))))
    for kind, sd in (("gap", GAP_SD), ("wind", WIND_SD), ("calliper", CALLIPER_SD)):
        found = (sum(each**2 for each in off[kind]) / len(off[kind])) ** 0.5
        assert found == pytest.approx(sd, rel=0.35), kind


def test_the_simulated_calliper_is_good_to_some_hundredths():
    gauges = SimulatedGauges(1)
    assert abs(float(gauges.calliper(mm(19), "side")) - 19) < 0.1
