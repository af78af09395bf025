"""The plane to which what stands out is planed down."""

from __future__ import annotations

from typing import Any, cast

import numpy as np
from scipy.optimize import linprog

from nullah.core.apprentice.made_part import Floats
from nullah.core.named_tuple import NamedTuple


class Level(NamedTuple):
    """A plane nearly square to an axis of the piece: how far from where it was designed, mm, and how it leans."""

    coefficients: Floats
    across: tuple[int, int]

    def at(self, points: Floats) -> Floats:
        """Return how far it lies beyond points (..., 3) where it was designed, mm.

        Parameters
        ----------
        points : Floats
            Shape (..., 3), mm.
        """
        one, other = self.across
        a, b, c = self.coefficients
        return np.asarray(a + b * points[..., one] + c * points[..., other])


def highest_below(points: Floats, normal: Floats, heights: Floats) -> Level:
    """Return the plane that takes off least and leaves nothing standing out of it.

    Parameters
    ----------
    points : (n, 3)
        Where the surface was designed to be, mm.
    normal : (3,)
        Of that surface, along an axis of the piece.
    heights : (n,)
        How far each point stands out along it, mm.

    Examples
    --------
    >>> corners = np.array([[0.0, 0, 0], [10, 0, 0], [0, 10, 0], [10, 10, 0]])
    >>> found = highest_below(corners, np.array([0.0, 0, 1]), np.array([0.0, 1, 0, 2]))
    >>> np.round(found.at(corners), 6).tolist()
    [0.0, 1.0, 0.0, 1.0]
    """
    one, other = (axis for axis in range(3) if axis != int(np.argmax(np.abs(normal))))
    terms = np.column_stack([np.ones(len(points)), points[:, one], points[:, other]])
    # As high as may be at all points together, and above none of them.
    solved = linprog(
        -terms.sum(axis=0), A_ub=cast(Any, terms), b_ub=heights, bounds=cast(Any, (None, None)), method="highs"
    )
    assert solved.x is not None
    return Level(solved.x, (one, other))
