"""Heights as pencil marks: lines of equal height, and the areas that stand above one."""

from __future__ import annotations

import math
from itertools import pairwise

import contourpy
import numpy as np

from nullah.core.drawing import Point
from nullah.core.milling.survey import Grid

# Finer than surveys are, so that lines come out smooth.
_FINE = 61, 25


def even_heights(highest: float, most: int = 7) -> tuple[float, ...]:
    """Return heights for contour lines from 0 up, mm, at a round distance, not more than `most`.

    Parameters
    ----------
    highest : float
        The highest of the face, mm.
    most : int, default 7
        How many lines at most.

    Returns
    -------
    tuple[float, ...]
        Heights, mm, from the lowest up.

    Examples
    --------
    >>> even_heights(3.2)
    (0.5, 1.0, 1.5, 2.0, 2.5, 3.0)
    """
    if not highest > 0.05:
        return ()
    step = next(
        step * 10.0**power
        for power in range(-2, 4)
        for step in (1.0, 2.0, 5.0)
        if highest / (step * 10.0**power) <= most
    )
    return tuple(round(step * number, 3) for number in range(1, math.floor(highest / step + 1e-9) + 1))


def contour_lines(x: Grid, y: Grid, heights: Grid, height: float) -> tuple[tuple[Point, ...], ...]:
    """Return the lines along which a face stands at a height.

    Parameters
    ----------
    x, y : array, shapes (n,) and (m,)
        Stations, mm.
    heights : array, shape (n, m)
        mm.
    height : float
        mm.

    Returns
    -------
    tuple of lines
        (x, y) in mm.
    """
    found = contourpy.contour_generator(x, y, heights.T, line_type="Separate").lines(height)
    return tuple(tuple((float(a), float(b)) for a, b in np.asarray(line)) for line in found)


def areas_above(x: Grid, y: Grid, heights: Grid, height: float) -> tuple[tuple[Point, ...], ...]:
    """Return the areas of a face above a height, as polygons in mm; a hollow is joined to its border by a seam.

    Parameters
    ----------
    x : Grid
        Stations along, mm, (n,).
    y : Grid
        Stations across, mm, (m,).
    heights : Grid
        mm, (n, m).
    height : float
        mm.

    Returns
    -------
    tuple[tuple[Point, ...], ...]
        Closed polygons.
    """
    generator = contourpy.contour_generator(x, y, heights.T, fill_type="OuterOffset")
    points, offsets = generator.filled(height, float(heights.max()) + 1.0)[:2]
    found = []
    for area, ends in zip(points, offsets, strict=True):
        table = [(float(a), float(b)) for a, b in np.asarray(area)]
        bounds = np.asarray(ends).tolist()
        outline: list[Point] = table[: bounds[1]]
        for start, end in pairwise(bounds[1:]):
            outline += [*table[start:end], outline[0]]
        found.append(tuple(outline))
    return tuple(found)


def smoothed(x: Grid, y: Grid, heights: Grid) -> tuple[Grid, Grid, Grid]:
    """Return heights between stations, bilinear, on an even grid: for drawing only."""
    xs, ys = np.linspace(x[0], x[-1], _FINE[0]), np.linspace(y[0], y[-1], _FINE[1])
    along = np.array([np.interp(xs, x, column) for column in heights.T]).T
    return xs, ys, np.array([np.interp(ys, y, row) for row in along])
