"""Straightedge, winding sticks and calliper: what the desk asks of them, how a real one is read, and simulated ones."""

from __future__ import annotations

import re
from typing import Protocol

import numpy as np

from nullah.core.fraction import Fraction
from nullah.core.lengths import Length
from nullah.core.milling.adjust import CALLIPER_SD, GAP_SD, WIND_SD, readings_as_rows
from nullah.core.milling.survey import Survey
from nullah.core.rack.board import Board
from nullah.core.rack.shape_readings import Calliper, ShapeReading, Wind, with_figure


class GaugeError(ValueError):
    """What came from a gauge is no reading; the message says what came."""


class ShapeGauge(Protocol):
    """Whatever takes a reading of a board where it is told to."""

    @property
    def name(self) -> str:
        """What it is called on the desk."""

    def read(self, board: Board, reading: ShapeReading) -> ShapeReading:
        """Return the reading with its figure, as it was read on that board."""


def read_gauge_line(line: str) -> Length:
    """Read a line as a digital calliper or gauge types or sends it, in mm, such as ``+ 19.42 mm``.

    Raises
    ------
    GaugeError

    Examples
    --------
    >>> float(read_gauge_line("+ 19.42 mm"))
    19.42
    """
    found = re.fullmatch(r"\s*([+-]?)\s*(\d+(?:[.,]\d+)?)\s*(mm)?\s*", line)
    if found is None:
        raise GaugeError(f"“{line.strip()}” is not what a calliper sends: one figure in mm is wanted.")
    return Length(Fraction(found.group(1) + found.group(2).replace(",", ".")))


def simulated_board(board: Board, seed: int = 1) -> Survey:
    """Make up the true faces of a board: about its four figures, uneven as sawn and dried boards are, mm.

    The same board and seed give the same faces.
    """
    chance = np.random.default_rng([seed, *board.id.encode(), int(board.length.mm), int(board.width.mm)])
    xs, ys = np.linspace(0.0, float(board.length), 61), np.linspace(0.0, float(board.width), 13)
    u, v = (2 * xs / xs[-1] - 1)[:, None], (2 * ys / ys[-1] - 1)[None, :]
    bow, cup, twist = float(board.bow), float(board.cup), float(board.twist)
    # Much of the wind is often in one half.
    begins = chance.uniform(-1.0, 0.3)
    late = np.clip((u - begins) / (1 - begins), 0.0, 1.0) * 2 - 1
    middle = bow * (1 - u**2) + cup * (1 - v**2) * (1 + 0.3 * chance.normal() * u) + twist / 4 * late * v
    middle = middle + 0.25 * chance.normal() * np.sin(1.7 * u + chance.uniform(0, 3)) * v
    middle = middle + 0.2 * chance.normal() * np.sin(2.3 * u + chance.uniform(0, 3))
    thick = float(board.thickness) + 0.3 * chance.normal() * u + 0.2 * chance.normal() * v
    thick = thick + 0.15 * np.sin(3.1 * u + chance.uniform(0, 3)) * np.cos(1.3 * v)
    return Survey(xs, ys, middle + thick / 2, middle - thick / 2)


class SimulatedGauges:
    """Gauges on simulated boards, with the scatter that hands and eyes have.

    Parameters
    ----------
    seed : int
        The same seed gives the same boards and the same readings.
    scatter : float
        Times the usual doubt of a reading; 0 reads true.
    """

    name = "simulated gauges"

    def __init__(self, seed: int = 1, scatter: float = 0.7) -> None:
        self._seed, self._scatter = seed, scatter

    def truth(self, board: Board) -> Survey:
        """Return what the board really is."""
        return simulated_board(board, self._seed)

    def read(self, board: Board, reading: ShapeReading) -> ShapeReading:
        """Return the reading with its figure, to a tenth of a millimetre."""
        survey = self.truth(board)
        rows, _, _ = readings_as_rows((reading,), survey.x, survey.y)
        true = float(rows[0] @ np.concatenate((survey.top.ravel(), survey.bottom.ravel())))
        doubt = CALLIPER_SD if isinstance(reading, Calliper) else WIND_SD if isinstance(reading, Wind) else GAP_SD
        place = repr(with_figure(reading, Length(Fraction(0)))).encode()
        chance = np.random.default_rng([self._seed, *board.id.encode(), *place])
        shown = true + chance.normal() * doubt * self._scatter
        return with_figure(reading, Length(Fraction(round(shown * 10), 10)))

    def calliper(self, true: Length, place: str) -> Length:
        """Return what a calliper shows on something of that size, to a hundredth of a millimetre."""
        chance = np.random.default_rng([self._seed, *place.encode()])
        return Length(Fraction(round((float(true) + chance.normal() * 0.03 * self._scatter) * 100), 100))
