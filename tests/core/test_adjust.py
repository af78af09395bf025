"""Faces from readings at stations: what is known, what to read next, what contradicts."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nullah.core import actions
from nullah.core.lengths import mm
from nullah.core.milling.adjust import KNOWN_WITHIN, adjust, usual_readings
from nullah.core.milling.faces import survey_of, with_surface
from nullah.core.milling.slab import thickest_slab
from nullah.core.milling.survey import from_figures
from nullah.core.project import Project
from nullah.core.rack.board import Board, BoardError, BoardFault, SizeFault
from nullah.core.rack.shape_readings import Calliper, Gap, Wind, figure_of, with_figure
from nullah.instruments.shape_gauges import SimulatedGauges

BOARD = Board("1", "one", "black cherry", mm(900), mm(180), mm(27), mm(2), mm(2), mm(4))


def read(board, number, gauges):
    """Take so many of the usual readings."""
    readings = tuple(gauges.read(board, reading) for reading in usual_readings(board)[:number])
    return replace(board, shape=readings)


def level(grid):
    """Take the plane of least squares out of heights."""
    x, y = np.meshgrid(np.linspace(-1, 1, grid.shape[0]), np.linspace(-1, 1, grid.shape[1]), indexing="ij")
    rows = np.column_stack((np.ones(x.size), x.ravel(), y.ravel()))
    plane, *_ = np.linalg.lstsq(rows, grid.ravel(), rcond=None)
    return grid - (rows @ plane).reshape(grid.shape)


def test_without_readings_the_faces_are_those_of_the_four_figures_and_the_doubt_is_told():
    found = adjust(BOARD)
    figures = from_figures(BOARD, 0, 900, 0, 180).at(found.survey.x, found.survey.y)
    assert level(found.survey.top) == pytest.approx(level(figures.top), abs=0.1)
    assert found.survey.top - found.survey.bottom == pytest.approx(27, abs=1e-6)
    assert found.doubt > KNOWN_WITHIN and not found.known and found.next_reading is not None


def test_three_ways_in_give_the_same_board():
    # Read without scatter off a board that is just what its four figures say.
    flat = replace(BOARD, bow=mm(3), cup=mm(2), twist=mm(4))
    figures = from_figures(flat, 0, 900, 0, 180)

    class Exact:
        def read(self, board, reading):
            from nullah.core.milling.adjust import readings_as_rows

            rows, _, _ = readings_as_rows((reading,), figures.x, figures.y)
            true = float(rows[0] @ np.concatenate((figures.top.ravel(), figures.bottom.ravel())))
            return with_figure(reading, mm(str(round(true, 3))))

    by_readings = read(flat, 28, Exact())
    by_grid = with_surface(by_readings)
    assert by_grid.surface is not None and by_grid.shape == ()
    thick = [thickest_slab(survey_of(board)).thickness for board in (flat, by_readings, by_grid)]
    assert thick[1] == pytest.approx(thick[0], abs=0.25)
    assert thick[2] == pytest.approx(thick[1], abs=1e-6)


def test_the_next_reading_leads_to_a_known_board_in_a_few_steps():
    gauges, board = SimulatedGauges(3), BOARD
    taken = 0
    while not adjust(board).known:
        board = replace(board, shape=(*board.shape, gauges.read(board, adjust(board).next_reading)))
        taken += 1
        assert taken < 20, "it goes round in circles"
    assert taken >= 4
    assert adjust(board).next_reading is None


@settings(max_examples=8, deadline=None)
@given(st.permutations(range(12)), st.integers(0, 1000))
def test_the_order_of_readings_does_not_matter_and_more_of_them_never_raise_the_doubt(order, seed):
    board = read(BOARD, 12, SimulatedGauges(seed))
    mixed = replace(board, shape=tuple(board.shape[index] for index in order))
    assert adjust(mixed).survey.top == pytest.approx(adjust(board).survey.top, abs=1e-6)
    fewer = replace(board, shape=board.shape[:-3])
    assert adjust(board).doubt <= adjust(fewer).doubt + 1e-9


@pytest.mark.parametrize("number", [10, 13, 24])
@pytest.mark.parametrize("off", [4.0, -6.0])
def test_a_wrong_reading_is_named_with_how_far_it_is_off(number, off):
    board = read(BOARD, 28, SimulatedGauges(5, scatter=0.3))
    assert adjust(board).contradiction is None
    wrong = with_figure(board.shape[number], figure_of(board.shape[number]) + mm(str(off)))
    spoilt = replace(board, shape=(*board.shape[:number], wrong, *board.shape[number + 1 :]))
    found = adjust(spoilt).contradiction
    assert found is not None and number in (found.first, found.second)
    assert found.first != found.second
    assert found.apart == pytest.approx(abs(off), rel=0.4)


def test_readings_of_one_face_alone_ask_for_the_calliper():
    gauges = SimulatedGauges(2)
    upper = [reading for reading in usual_readings(BOARD)[:28] if isinstance(reading, Gap | Wind) and reading.upper]
    found = adjust(replace(BOARD, shape=tuple(gauges.read(BOARD, reading) for reading in upper)))
    assert not found.known and isinstance(found.next_reading, Calliper)


# --- on the rack -----------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("reading", "fault"),
    [
        (Calliper((950.0, 0.0), mm(27)), BoardFault.CALLIPER_OUTSIDE),
        (Calliper((0.0, 0.0), mm(0)), SizeFault.CALLIPER),
        (Gap(True, (0.0, 0.0), (900.0, 400.0), (450.0, 90.0), mm(1)), BoardFault.STRAIGHTEDGE_OUTSIDE),
        (Gap(True, (0.0, 0.0), (10.0, 0.0), (5.0, 0.0), mm(1)), BoardFault.STRAIGHTEDGE_SHORT),
        (Gap(True, (0.0, 0.0), (900.0, 0.0), (450.0, 0.0), mm(300)), SizeFault.GAP),
        (Wind(True, 0.0, 5.0, mm(300), mm(1)), BoardFault.STICKS_OUTSIDE),
        (Wind(True, 0.0, 900.0, mm(300), mm(400)), SizeFault.STICKS_APART),
    ],
)
def test_readings_that_cannot_have_been_taken_are_refused(reading, fault):
    project = Project(boards=(BOARD,))
    with pytest.raises(BoardError) as refused:
        actions.take_shape(project, "1", reading)
    assert refused.value.fact.fault is fault


def test_a_second_reading_at_one_place_takes_the_place_of_the_first():
    project = Project(boards=(BOARD,))
    for figure in ("1", "1.4"):
        project = actions.take_shape(project, "1", Gap(True, (0.0, 90.0), (900.0, 90.0), (450.0, 90.0), mm(figure)))
    assert [float(figure_of(each)) for each in project.boards[0].shape] == [1.4]
    assert actions.drop_shape(project, "1", 0).boards[0].shape == ()
    assert actions.drop_shapes(project, "1").boards[0].shape == ()
