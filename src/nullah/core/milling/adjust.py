"""From readings at stations to two faces: least squares, with what is not known for certain.

Every reading is a linear function of the heights, so the faces follow by least squares. What
the readings leave open is filled in as sawn and dried boards are: they cup, bow and wind, and
depart from that smoothly. The same assumption says how far off the answer may be.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nullah.core.identity import kept_by_value
from nullah.core.lengths import mm
from nullah.core.milling.survey import Survey
from nullah.core.rack.board import Board
from nullah.core.rack.shape_readings import Calliper, Gap, ShapeReading, Wind

Grid = NDArray[np.float64]

#: Stations of the faces, along and across.
ALONG, ACROSS = 21, 7
#: Standard deviations of a reading, mm: eye and feeler under a straightedge, the ends of winding
#: sticks, a calliper, all on rough wood. Common practice, no published source.
GAP_SD, WIND_SD, CALLIPER_SD = 0.15, 0.3, 0.1
#: The faces are known when neither is in doubt by more than this anywhere but in its far corners, mm.
KNOWN_WITHIN = 0.5
#: A reading so many standard deviations off what all others say contradicts them.
_CONTRADICTS = 3.3

# How far boards depart from flat and from their figures, standard deviations in mm: what a pile of
# sawn and dried boards shows. Guesses from practice; a tenfold error in them moves the answer little
# where there are readings, and where there are none the doubt is told.
_BOW_SD, _CUP_SD, _WIND_SD = 6.0, 4.0, 5.0
_UNEVEN_BOW, _UNEVEN_CUP, _UNEVEN_WIND, _LOCAL = 0.8, 0.5, 1.2, 0.2
_THICK_SD, _WEDGE_SD, _UNEVEN_THICK = 2.0, 0.7, 0.3


@dataclass(frozen=True, slots=True)
class Contradiction:
    """Two readings that cannot both be right: which (numbers from 0), and how far they are apart, mm."""

    first: int
    second: int
    apart: float


@dataclass(frozen=True, slots=True, eq=False)
class Adjusted:
    """The two faces as the readings give them.

    Parameters
    ----------
    survey : Survey
        Heights on a datum that lies in the mean plane of the board.
    top_sd, bottom_sd : array, shape (n, m)
        Standard deviation of each height, mm.
    covariance : array, shape (2·n·m, 2·n·m)
        Of all heights, the upper face first; in single precision: it is most of the memory that a board takes.
    residuals : tuple of float
        What each reading was, less what the faces make of it, mm.
    doubt : float
        The root mean square of the standard deviations of both faces, mm.
    known : bool
        Whether the readings fix both faces.
    next_reading : ShapeReading or None
        What to read next, where they do not: its figure is a placeholder of 0.
    contradiction : Contradiction or None
    """

    survey: Survey
    top_sd: Grid
    bottom_sd: Grid
    covariance: NDArray[np.float32]
    residuals: tuple[float, ...]
    doubt: float
    known: bool
    next_reading: ShapeReading | None
    contradiction: Contradiction | None

    def slab_sd(self, touching: Sequence[tuple[bool, float, float, float]]) -> float:
        """Return how uncertain a thickness is that hangs on some places: (upper, x, y, weight) each, mm.

        Parameters
        ----------
        touching : Sequence[tuple[bool, float, float, float]]
            Places the slab hangs on: upper face or not, x and y in mm, and the weight of the place.

        Returns
        -------
        float
            A standard deviation, mm.
        """
        row = np.zeros(len(self.covariance))
        half = len(row) // 2
        for upper, x, y, weight in touching:
            part = row[:half] if upper else row[half:]
            part += weight * _weights(self.survey.x, self.survey.y, x, y)
        return math.sqrt(max(float(row @ self.covariance @ row), 0.0))


@kept_by_value(64)
def adjust(board: Board) -> Adjusted:
    """Work out both faces of a board from its shape readings, and from its four figures where those leave off.

    Notes
    -----
    Generalised least squares: with prior covariance K of the heights, readings r = A·z + e and
    e of covariance N, the answer is z₀ + K Aᵀ (A K Aᵀ + N)⁻¹ (r − A z₀), its covariance
    K − K Aᵀ (A K Aᵀ + N)⁻¹ A K.
    """
    xs = np.linspace(0.0, float(board.length), ALONG)
    ys = np.linspace(0.0, float(board.width), ACROSS)
    start, prior = _prior(board, bool(board.shape), xs, ys)
    rows, read, noise = readings_as_rows(board.shape, xs, ys)
    spread = prior @ rows.T
    inner = rows @ spread + np.diag(noise**2)
    inverse = np.asarray(np.linalg.inv(inner), dtype=np.float64)
    off = read - rows @ start
    heights = start + spread @ (inverse @ off)
    covariance = prior - spread @ inverse @ spread.T
    size = ALONG * ACROSS
    sd = np.sqrt(np.clip(np.diag(covariance), 0.0, None))
    survey = Survey(xs, ys, heights[:size].reshape(ALONG, ACROSS), heights[size:].reshape(ALONG, ACROSS))
    doubt = float(np.sqrt(np.mean(sd**2)))
    known = doubt <= KNOWN_WITHIN
    return Adjusted(
        survey,
        sd[:size].reshape(ALONG, ACROSS),
        sd[size:].reshape(ALONG, ACROSS),
        covariance.astype(np.float32),
        tuple(map(float, read - rows @ heights)),
        doubt,
        known,
        None if known else _most_telling(board, covariance, xs, ys),
        _contradiction(inverse, off) if len(read) > 1 else None,
    )


def _prior(board: Board, read: bool, xs: Grid, ys: Grid) -> tuple[Grid, Grid]:
    """Return the heights of both faces and their covariance before any reading.

    Without readings the four figures are what was measured, each to half a millimetre or a
    fifth of itself; with them they are only where to begin.
    """
    u, v = 2 * xs / xs[-1] - 1, 2 * ys / ys[-1] - 1
    uu, vv = (grid.ravel() for grid in np.meshgrid(u, v, indexing="ij"))
    bow, cup, twist = (float(figure) for figure in (board.bow, board.cup, board.twist))
    shapes = np.array([1 - uu**2, 1 - vv**2, uu * vv / 4])
    middle = np.array([bow, cup, twist]) @ shapes

    def sd(figure: float, wide: float) -> float:
        return wide if read else 0.5 + 0.2 * abs(figure)

    spreads = np.array([sd(bow, _BOW_SD), sd(cup, _CUP_SD), 2 * sd(twist, _WIND_SD)])
    along, across = _alike(uu, 0.45), _alike(vv, 0.9)
    warp = (shapes.T * spreads**2) @ shapes
    warp += _UNEVEN_BOW**2 * along
    warp += _UNEVEN_CUP**2 * along * np.outer(1 - vv**2, 1 - vv**2)
    warp += _UNEVEN_WIND**2 * along * np.outer(vv, vv)
    warp += _LOCAL**2 * _alike(uu, 0.3) * across
    # Where the board lies in the room is of no account: heights count from its mean plane.
    level = np.column_stack((np.ones_like(uu), uu, vv))
    out = np.eye(len(uu)) - level @ np.linalg.pinv(level)
    warp, middle = out @ warp @ out, out @ middle
    thick = (_THICK_SD if read else 0.3) ** 2 + _WEDGE_SD**2 * (np.outer(uu, uu) + np.outer(vv, vv)) / 4
    thick = thick + _UNEVEN_THICK**2 * _alike(uu, 0.6) * across
    half = float(board.thickness) / 2
    start = np.concatenate((middle + half, middle - half))
    both = np.block([[warp + thick / 4, warp - thick / 4], [warp - thick / 4, warp + thick / 4]])
    return start, both


def _alike(places: Grid, reach: float) -> Grid:
    """Return how alike two places are, by how far apart: a Gaussian of that reach."""
    apart: Grid = places[:, None] - places[None, :]
    return np.asarray(np.exp(-(apart**2) / (2 * reach**2)), dtype=np.float64)


def _weights(xs: Grid, ys: Grid, x: float, y: float) -> Grid:
    """Return the weights with which the stations make up the height at a place, by bilinear interpolation."""

    def shares(stations: Grid, at: float) -> Grid:
        found = np.zeros(len(stations))
        at = min(max(at, float(stations[0])), float(stations[-1]))
        left = min(int(np.searchsorted(stations, at, side="right")) - 1, len(stations) - 2)
        share = (at - stations[left]) / (stations[left + 1] - stations[left])
        found[left], found[left + 1] = 1 - share, share
        return found

    return np.outer(shares(xs, x), shares(ys, y)).ravel()


def readings_as_rows(readings: Sequence[ShapeReading], xs: Grid, ys: Grid) -> tuple[Grid, Grid, Grid]:
    """Return readings as rows over all heights (the upper face first), what was read, and its doubt, mm."""
    size = len(xs) * len(ys)
    rows, read, noise = np.zeros((len(readings), 2 * size)), np.zeros(len(readings)), np.zeros(len(readings))

    def put(row: Grid, upper: bool, x: float, y: float, weight: float) -> None:
        # The lower face is read when it lies uppermost: its heights count the other way.
        if upper:
            row[:size] += weight * _weights(xs, ys, x, y)
        else:
            row[size:] -= weight * _weights(xs, ys, x, y)

    wide = float(ys[-1] - ys[0])
    for row, (number, reading) in zip(rows, enumerate(readings), strict=True):
        if isinstance(reading, Gap):
            share = _share_along(reading)
            put(row, reading.upper, *reading.start, 1 - share)
            put(row, reading.upper, *reading.end, share)
            put(row, reading.upper, *reading.at, -1.0)
            read[number], noise[number] = float(reading.gap), GAP_SD
        elif isinstance(reading, Wind):
            longer = float(reading.stick) / wide
            for x, sign in ((reading.far, longer), (reading.near, -longer)):
                put(row, reading.upper, x, float(ys[-1]), sign)
                put(row, reading.upper, x, float(ys[0]), -sign)
            read[number], noise[number] = float(reading.rise), max(WIND_SD, WIND_SD * longer)
        else:
            row[:size] += _weights(xs, ys, *reading.at)
            row[size:] -= _weights(xs, ys, *reading.at)
            read[number], noise[number] = float(reading.thickness), CALLIPER_SD
    return rows, read, noise


def _share_along(gap: Gap) -> float:
    """Return how far along its straightedge a gap was read, 0 to 1."""
    long = (gap.end[0] - gap.start[0], gap.end[1] - gap.start[1])
    way = (gap.at[0] - gap.start[0], gap.at[1] - gap.start[1])
    share = (long[0] * way[0] + long[1] * way[1]) / (long[0] ** 2 + long[1] ** 2)
    return min(max(share, 0.0), 1.0)


def usual_readings(board: Board) -> tuple[ShapeReading, ...]:
    """Return the readings one takes of a board, in the order in which one does: figures are 0 and to be filled in.

    Straightedge along, across and on both diagonals of the upper face; sticks at the ends, then
    one in the middle; the calliper round the edge; then the lower face, turned up.
    """
    long, wide = float(board.length), float(board.width)
    zero, stick = mm(0), mm(round(max(1.5 * wide, 300.0)))
    found: list[ShapeReading] = []
    for upper in (True, False):
        for share in (0.5, 0.0, 1.0):
            y = wide * share
            found.append(Gap(upper, (0.0, y), (long, y), (long / 2, y), zero))
        for share in (0.5, 0.0, 1.0):
            x = long * share
            found.append(Gap(upper, (x, 0.0), (x, wide), (x, wide / 2), zero))
        found.append(Gap(upper, (0.0, 0.0), (long, wide), (long / 2, wide / 2), zero))
        found.append(Gap(upper, (0.0, wide), (long, 0.0), (long / 2, wide / 2), zero))
        for near, far in ((0.0, 1.0), (0.0, 0.5), (0.5, 1.0)):
            found.append(Wind(upper, long * near, long * far, stick, zero))
        if upper:
            found += [Calliper((long * x, wide * y), board.thickness) for x in (0.0, 0.5, 1.0) for y in (0.0, 1.0)]
    for share in (0.25, 0.75):
        found += [Gap(True, (0.0, y), (long, y), (long * share, y), zero) for y in (wide / 2, 0.0, wide)]
        x = long * share
        found.append(Gap(True, (x, 0.0), (x, wide), (x, wide / 2), zero))
        found += [Calliper((x, y), board.thickness) for y in (0.0, wide)]
        found.append(Wind(True, 0.0, x, stick, zero))
    return tuple(found)


def _most_telling(board: Board, covariance: Grid, xs: Grid, ys: Grid) -> ShapeReading:
    """Return the reading that would take most off the doubt."""
    usual = usual_readings(board)
    rows, _, noise = readings_as_rows(usual, xs, ys)
    spread = rows @ covariance
    gains = (spread**2).sum(axis=1) / ((spread * rows).sum(axis=1) + noise**2)
    return usual[int(gains.argmax())]


def _contradiction(inverse: Grid, off: Grid) -> Contradiction | None:
    """Find the two readings that contradict each other most, if any do.

    A reading is held against what all others make of it; if it is too far off, its opponent
    is the one without which it would agree best with the rest.
    """
    weighed = inverse @ off
    certain = np.diag(inverse)
    astray = np.abs(weighed) / np.sqrt(certain)
    first = int(astray.argmax())
    if astray[first] < _CONTRADICTS:
        return None
    # Leaving one more out: the inverse without its row and column, by the Schur complement.
    with_first = inverse[first]
    rest = weighed[first] - with_first * weighed / certain
    sure = certain[first] - with_first**2 / certain
    left = np.abs(rest) / np.sqrt(np.clip(sure, 1e-12, None))
    left[first] = np.inf
    second = int(left.argmin())
    # How far the one is from what all others but these two, and the other with them, make of it.
    apart = abs(float(weighed[first] / certain[first]))
    return Contradiction(first, second, apart)
