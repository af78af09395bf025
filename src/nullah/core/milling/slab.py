"""The thickest flat slab inside a board: what flattening both faces can leave."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nullah.core.milling.survey import Grid, Survey


@dataclass(frozen=True, slots=True)
class Slab:
    """The thickest slab with parallel faces: lower face z = a·x + b·y + c, thickness in z, mm.

    A thickness of 0 means that no plane fits between the faces at all.
    """

    thickness: float
    a: float
    b: float
    c: float


def thickest_slab(survey: Survey) -> Slab:
    """Find the thickest slab that lies inside both surfaces.

    The linear programme: most t such that at every station
    bottom ≤ a·x + b·y + c and a·x + b·y + c + t ≤ top.

    Notes
    -----
    Solved as its dual, which has four rows however many stations there are: weights on the
    lower and on the upper stations, each adding up to one with the same centre, so that
    the weighted gap is least. Planes through the surfaces' inner stations are left out
    first: only stations on the upper hull of the lower face along each line, and on the
    lower hull of the upper face, can touch.
    """
    from scipy.optimize import linprog  # heavy: loaded when first asked for

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
    answer = linprog(np.concatenate((-low_z, top_z)), A_eq=rows, b_eq=[1, 1, 0, 0], bounds=(0, None), method="highs")
    if answer.status != 0:
        raise ArithmeticError(f"The slab could not be worked out: {answer.message}")
    tilt_u, tilt_v = answer.eqlin.marginals[2], answer.eqlin.marginals[3]
    # Set the plane by the tilt alone, so that it clears every station exactly.
    lean = tilt_u * u[:, None] + tilt_v * v[None, :]
    base, ceiling = float((survey.bottom - lean).max()), float((survey.top - lean).min())
    a, b = float(tilt_u / x_half), float(tilt_v / y_half)
    return Slab(max(0.0, ceiling - base), a, b, float(base - a * x_mid - b * y_mid))


def _touchable(u: Grid, v: Grid, heights: Grid, upper: bool) -> tuple[Grid, Grid, Grid]:
    """Give the stations a plane could touch: on each line along x, the hull's corners."""
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
    """Give the thickness (mm) each half reaches if the board is crosscut in the middle first."""
    middle = float(survey.x[0] + survey.x[-1]) / 2
    y_low, y_high = float(survey.y[0]), float(survey.y[-1])
    return (
        thickest_slab(survey.part(float(survey.x[0]), middle, y_low, y_high)).thickness,
        thickest_slab(survey.part(middle, float(survey.x[-1]), y_low, y_high)).thickness,
    )


def halves_ripped(survey: Survey) -> tuple[float, float]:
    """Give the thickness (mm) each half reaches if the board is ripped down the middle first."""
    middle = float(survey.y[0] + survey.y[-1]) / 2
    x_low, x_high = float(survey.x[0]), float(survey.x[-1])
    return (
        thickest_slab(survey.part(x_low, x_high, float(survey.y[0]), middle)).thickness,
        thickest_slab(survey.part(x_low, x_high, middle, float(survey.y[-1]))).thickness,
    )
