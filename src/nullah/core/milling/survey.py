"""A board's two faces as numbers: heights over a grid."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nullah.core.errors import FactError
from nullah.core.milling.survey_facts import FacesCross, SurveyFault, SurveyGaps
from nullah.core.rack.board import Board, Surface

Grid = NDArray[np.float64]


class SurveyError(FactError):
    """Readings that do not make a board; `fact` is what is wrong with them."""


@dataclass(frozen=True, slots=True, eq=False)
class Survey:
    """Heights of both faces on a common datum.

    Parameters
    ----------
    x : array, shape (n,)
        Stations along the board, mm, rising.
    y : array, shape (m,)
        Stations across the board, mm, rising.
    top, bottom : array, shape (n, m)
        Heights of the upper and the lower face, mm.
    """

    x: Grid
    y: Grid
    top: Grid
    bottom: Grid

    def part(self, x_from: float, x_to: float, y_from: float, y_to: float) -> Survey:
        """Return the survey of a rectangle, mm, with its border put in by linear interpolation.

        Parameters
        ----------
        x_from : float
            Along, mm.
        x_to : float
            Along, mm.
        y_from : float
            Across, mm.
        y_to : float
            Across, mm.
        """
        xs = _stations(self.x, x_from, x_to)
        ys = _stations(self.y, y_from, y_to)
        return self.at(xs, ys)

    def at(self, xs: Grid, ys: Grid) -> Survey:
        """Return the survey at other stations, mm, by linear interpolation."""
        return Survey(xs, ys, _at(self, self.top, xs, ys), _at(self, self.bottom, xs, ys))


def _stations(stations: Grid, start: float, end: float) -> Grid:
    inside = stations[(stations > start + 1e-9) & (stations < end - 1e-9)]
    return np.concatenate(([start], inside, [end]))


def _at(survey: Survey, heights: Grid, xs: Grid, ys: Grid) -> Grid:
    along = np.array([np.interp(xs, survey.x, column) for column in heights.T]).T
    return np.array([np.interp(ys, survey.y, row) for row in along])


def from_figures(board: Board, x_from: float, x_to: float, y_from: float, y_to: float) -> Survey:
    """Make the survey of a patch of a board from its four figures.

    Cup and bow are taken as parabolas over the whole board, twist as an even wind; both
    faces follow them. The patch inherits its share: half the length has a quarter of the bow.

    Parameters
    ----------
    board : Board
    x_from, x_to, y_from, y_to : float
        The patch, mm.

    Returns
    -------
    Survey
        17 stations along and 9 across.
    """
    xs, ys = np.linspace(x_from, x_to, 17), np.linspace(y_from, y_to, 9)
    u = (2 * xs / float(board.length) - 1)[:, None]
    v = (2 * ys / float(board.width) - 1)[None, :]
    middle = float(board.bow) * (1 - u**2) + float(board.cup) * (1 - v**2) + float(board.twist) * u * v / 4
    return Survey(xs, ys, middle + float(board.thickness), middle)


def surface_of(survey: Survey) -> Surface:
    """Return a survey as plain numbers, as a board keeps it."""
    return Surface(
        tuple(map(float, survey.x)),
        tuple(map(float, survey.y)),
        tuple(tuple(map(float, row)) for row in survey.top),
        tuple(tuple(map(float, row)) for row in survey.bottom),
    )


def from_points(rows: list[tuple[float, float, float, float]]) -> Survey:
    """Make a survey from readings (x, y, top, bottom), mm, which must fill a grid.

    Parameters
    ----------
    rows : list[tuple[float, float, float, float]]
        Of x, y, height of the top and of the bottom, mm.

    Raises
    ------
    SurveyError
        If the grid has gaps or doubles, is too small, or the faces cross.
    """
    if not rows:
        raise SurveyError(SurveyFault.NO_READINGS)
    table = np.array(rows, dtype=np.float64)
    if not np.isfinite(table).all():
        raise SurveyError(SurveyFault.NOT_A_NUMBER)
    xs, ys = np.unique(table[:, 0]), np.unique(table[:, 1])
    if len(xs) < 2 or len(ys) < 2:
        raise SurveyError(SurveyFault.TOO_FEW)
    top = np.full((len(xs), len(ys)), np.nan)
    bottom = top.copy()
    rows_at, columns_at = np.searchsorted(xs, table[:, 0]), np.searchsorted(ys, table[:, 1])
    if len({*zip(rows_at.tolist(), columns_at.tolist(), strict=True)}) != len(rows):
        raise SurveyError(SurveyFault.TWO_AT_ONE_PLACE)
    top[rows_at, columns_at], bottom[rows_at, columns_at] = table[:, 2], table[:, 3]
    gaps = np.argwhere(np.isnan(top))
    if len(gaps):
        raise SurveyError(SurveyGaps(len(gaps), float(xs[gaps[0][0]]), float(ys[gaps[0][1]])))
    crossed = np.argwhere(top < bottom)
    if len(crossed):
        raise SurveyError(FacesCross(float(xs[crossed[0][0]]), float(ys[crossed[0][1]])))
    return Survey(xs, ys, top, bottom)
