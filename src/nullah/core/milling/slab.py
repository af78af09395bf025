"""The thickest flat slab inside a board: what flattening both faces can leave."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nullah.core.milling.survey import Grid, Survey


@dataclass(frozen=True, slots=True)
class Slab:
    """The thickest slab with parallel faces: lower face z = a·x + b·y + c, thickness in z, mm.

    A thickness of 0 means that no plane fits between the faces at all. `touching` are the places
    that set it: whether on the upper face, x, y, and the weight with which the height there
    counts, so that the thickness is their weighted sum (below on the lower face).
    """

    thickness: float
    a: float
    b: float
    c: float
    touching: tuple[tuple[bool, float, float, float], ...] = ()


def thickest_slab(survey: Survey) -> Slab:
    """Find the thickest slab that lies inside both surfaces.

    The linear programme: most t such that at every station
    bottom ≤ a·x + b·y + c and a·x + b·y + c + t ≤ top.

    Notes
    -----
    Solved as its dual, which has four rows however many stations there are: weights on the
    lower and on the upper stations, each adding up to one, with the same centre, so that
    the weighted gap is least. Only stations that a plane can touch are weighed: on each
    line along x, the corners of the lower face's upper hull and the upper face's lower hull.
    """
    x_mid, y_mid = survey.x.mean(), survey.y.mean()
    x_half, y_half = np.ptp(survey.x) / 2, np.ptp(survey.y) / 2
    u, v = (survey.x - x_mid) / x_half, (survey.y - y_mid) / y_half
    low_u, low_v, low_z = _touchable(u, v, survey.bottom, upper=True)
    top_u, top_v, top_z = _touchable(u, v, survey.top, upper=False)
    zeros, ones = np.zeros(len(low_z)), np.ones(len(low_z))
    rows = np.array(
        [
            np.concatenate((ones, np.zeros(len(top_z)))),
            np.concatenate((zeros, np.ones(len(top_z)))),
            np.concatenate((-low_u, top_u)),
            np.concatenate((-low_v, top_v)),
        ]
    )
    costs = np.concatenate((-low_z, top_z))
    weights, best = _tilt(rows, costs, _corners(low_u, low_v, top_u, top_v))
    # Often many tilts give the same thickness: then lie as the board lies, which takes least off.
    lying = _lie_of(survey, u, v)
    (base, ceiling), (base_lying, ceiling_lying) = _room(survey, u, v, best), _room(survey, u, v, lying)
    tilt = best
    if ceiling_lying - base_lying >= ceiling - base - 1e-9:
        tilt, base, ceiling = lying, base_lying, ceiling_lying
    a, b = float(tilt[0] / x_half), float(tilt[1] / y_half)
    at_u, at_v = np.concatenate((low_u, top_u)), np.concatenate((low_v, top_v))
    touching = tuple(
        (
            column >= len(low_u),
            float(x_mid + x_half * at_u[column]),
            float(y_mid + y_half * at_v[column]),
            weight if column >= len(low_u) else -weight,
        )
        for column, weight in weights
        if weight > 1e-9
    )
    return Slab(max(0.0, ceiling - base), a, b, float(base - a * x_mid - b * y_mid), touching)


def _room(survey: Survey, u: Grid, v: Grid, tilt: tuple[float, float]) -> tuple[float, float]:
    """Return where a slab of this tilt begins and ends: set by the tilt alone, it clears every station."""
    lean = tilt[0] * u[:, None] + tilt[1] * v[None, :]
    return float((survey.bottom - lean).max()), float((survey.top - lean).min())


def _lie_of(survey: Survey, u: Grid, v: Grid) -> tuple[float, float]:
    """Return the tilt of the board as a whole: least squares over the middle of its thickness."""
    middle = (survey.top + survey.bottom) / 2
    along, across = u - u.mean(), v - v.mean()
    return (
        float(along @ middle.mean(axis=1) / (along @ along)),
        float(across @ middle.mean(axis=0) / (across @ across)),
    )


def _corners(low_u: Grid, low_v: Grid, top_u: Grid, top_v: Grid) -> list[int]:
    """Return four columns to start from: one corner of both faces, and two more of the lower.

    The corners of the grid are the ends of its lines, so both hulls always hold them.
    """

    def at(u: Grid, v: Grid, u_is: float, v_is: float) -> int:
        return int(np.flatnonzero((u == u_is) & (v == v_is))[0])

    left, right, near, far = low_u.min(), low_u.max(), low_v.min(), low_v.max()
    return [
        at(low_u, low_v, left, near),
        len(low_u) + at(top_u, top_v, left, near),
        at(low_u, low_v, right, near),
        at(low_u, low_v, left, far),
    ]


#: After this many steps of the simplex method something is wrong with the numbers.
_MOST_STEPS = 400


_Weights = list[tuple[int, float]]


def _tilt(rows: Grid, costs: Grid, basis: list[int]) -> tuple[_Weights, tuple[float, float]]:
    """Minimise costs·w over w ≥ 0 with rows·w = (1, 1, 0, 0); give w and the last two prices: the plane's tilt.

    The simplex method on four rows: each step prices all columns at once and solves a
    4 × 4 system, which is ten times quicker than handing so small a programme to a general
    solver. The steepest column enters; after a run of steps that gained nothing, the first
    one that pays does, so that it always ends (Bland's rule). Should it not, the general
    solver takes over.
    """
    target = np.array([1.0, 1.0, 0.0, 0.0])
    tolerance = 1e-10 * max(1.0, float(np.abs(costs).max()))
    idle = 0
    for _ in range(_MOST_STEPS):
        inverse = np.linalg.inv(rows[:, basis])
        prices = costs[basis] @ inverse
        gains = costs - prices @ rows
        entering = int(gains.argmin())
        if gains[entering] >= -tolerance:
            found = list(zip(basis, (inverse @ target).tolist(), strict=True))
            return found, (float(prices[2]), float(prices[3]))
        if idle > 8:
            entering = int(np.flatnonzero(gains < -tolerance)[0])
        direction, weights = inverse @ rows[:, entering], inverse @ target
        falling = np.flatnonzero(direction > 1e-12)
        if not len(falling):
            break
        ratios = np.maximum(weights[falling], 0) / direction[falling]
        ties = falling[ratios <= ratios.min() + 1e-12]
        leaving = int(min(ties, key=lambda row: basis[row]))
        idle = idle + 1 if ratios.min() < 1e-12 else 0
        basis = [entering if row == leaving else column for row, column in enumerate(basis)]
    return _tilt_by_general_solver(rows, costs, target)


def _tilt_by_general_solver(rows: Grid, costs: Grid, target: Grid) -> tuple[_Weights, tuple[float, float]]:
    from scipy.optimize import linprog  # heavy, and hardly ever needed

    answer = linprog(costs, A_eq=rows, b_eq=target, bounds=(0, None), method="highs")
    if answer.status != 0 or answer.x is None:
        raise ArithmeticError(answer.message)
    found = [(int(column), float(answer.x[column])) for column in np.flatnonzero(answer.x)]
    return found, (float(answer.eqlin.marginals[2]), float(answer.eqlin.marginals[3]))


def _touchable(u: Grid, v: Grid, heights: Grid, upper: bool) -> tuple[Grid, Grid, Grid]:
    """Return the stations a plane could touch: on each line along x, the hull's corners."""
    sign = 1.0 if upper else -1.0
    keep = np.zeros(heights.shape, dtype=bool)
    for column in range(heights.shape[1]):
        keep[_upper_hull(u, sign * heights[:, column]), column] = True
    rows, columns = np.nonzero(keep)
    return u[rows], v[columns], heights[rows, columns]


def _upper_hull(u: Grid, z: Grid) -> list[int]:
    hull: list[int] = []
    xs, zs = u.tolist(), z.tolist()
    for i in range(len(xs)):
        while len(hull) > 1:
            a, b = hull[-2], hull[-1]
            if (zs[b] - zs[a]) * (xs[i] - xs[a]) > (zs[i] - zs[a]) * (xs[b] - xs[a]):
                break
            hull.pop()
        hull.append(i)
    return hull


def halves_crosscut(survey: Survey) -> tuple[float, float]:
    """Return the thickness (mm) each half reaches if the board is crosscut in the middle first."""
    middle = float(survey.x[0] + survey.x[-1]) / 2
    y_low, y_high = float(survey.y[0]), float(survey.y[-1])
    return (
        thickest_slab(survey.part(float(survey.x[0]), middle, y_low, y_high)).thickness,
        thickest_slab(survey.part(middle, float(survey.x[-1]), y_low, y_high)).thickness,
    )


def halves_ripped(survey: Survey) -> tuple[float, float]:
    """Return the thickness (mm) each half reaches if the board is ripped down the middle first."""
    middle = float(survey.y[0] + survey.y[-1]) / 2
    x_low, x_high = float(survey.x[0]), float(survey.x[-1])
    return (
        thickest_slab(survey.part(x_low, x_high, float(survey.y[0]), middle)).thickness,
        thickest_slab(survey.part(x_low, x_high, middle, float(survey.y[-1]))).thickness,
    )
