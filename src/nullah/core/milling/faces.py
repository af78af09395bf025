"""The faces of a board, from the best that is known of it."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from nullah.core.identity import kept_by_value
from nullah.core.milling.adjust import adjust
from nullah.core.milling.survey import Survey, from_figures, surface_of
from nullah.core.rack.board import Board


def survey_patch(board: Board, x_from: float, x_to: float, y_from: float, y_to: float) -> Survey:
    """Return the survey of a patch of a board, mm: of its grid, or its shape readings, or its four figures.

    A grid that does not reach the board's border is gone on from its outermost stations.

    Parameters
    ----------
    board : Board
    x_from : float
        Patch along the board, mm.
    x_to : float
        Patch along the board, mm.
    y_from : float
        Patch across the board, mm.
    y_to : float
        Patch across the board, mm.
    """
    if board.by_figures:
        return from_figures(board, x_from, x_to, y_from, y_to)
    return _surveyed(board).part(x_from, x_to, y_from, y_to)


def survey_of(board: Board) -> Survey:
    """Return the survey of a whole board."""
    return survey_patch(board, 0.0, float(board.length), 0.0, float(board.width))


def with_surface(board: Board) -> Board:
    """Return the board with its shape readings worked out to a grid, which what is sawn out of it can take along."""
    if board.surface is not None or not board.shape:
        return board
    return replace(board, surface=surface_of(_surveyed(board)), shape=())


@kept_by_value(64)
def _surveyed(board: Board) -> Survey:
    if board.surface is None:
        return adjust(board).survey
    grid = board.surface
    return Survey(np.array(grid.xs), np.array(grid.ys), np.array(grid.top), np.array(grid.bottom))
