"""What a survey tells: what stands high, where the twist begins, which face first, where to cut."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import Enum, auto

import numpy as np

from nullah.core.catalogue import N_
from nullah.core.milling.slab import Slab, thickest_slab
from nullah.core.milling.survey import Grid, Survey
from nullah.core.named_tuple import NamedTuple

#: Places of a cut are found to this, mm: no nearer than a saw is started.
CUT_WITHIN = 1.0


class BoardFace(Enum):
    """Which face of a board, as it is drawn."""

    UPPER = N_("upper")
    LOWER = N_("lower")


def above(survey: Survey, slab: Slab, face: BoardFace) -> Grid:
    """Return how much wood lies outside the slab on a face at every station, mm, shape (n, m)."""
    floor = slab.a * survey.x[:, None] + slab.b * survey.y[None, :] + slab.c
    return survey.top - floor - slab.thickness if face is BoardFace.UPPER else floor - survey.bottom


def wood_off(survey: Survey, heights: Grid) -> float:
    """Return the volume under heights over the stations, mm³, by the trapezoidal rule.

    Parameters
    ----------
    survey : Survey
        Its stations.
    heights : Grid
        mm over the stations, (n, m).

    Returns
    -------
    float
        mm³.
    """
    return float(np.trapezoid(np.trapezoid(heights, survey.y, axis=1), survey.x))


class FaceReason(Enum):
    """Why a face is made the face side."""

    CLEAR = auto()
    HOLLOW = auto()
    LESS_TO_TAKE = auto()


@dataclass(frozen=True, slots=True)
class FaceSide:
    """Which face to make the face side, and why.

    `rocks` says of each face whether it rocks when it lies on the bench; `takes` is how much comes off the chosen
    one on the whole and off the other, mm, where that decides.
    """

    face: BoardFace
    reason: FaceReason
    rocks: tuple[bool, bool]
    takes: tuple[float, float] = (0.0, 0.0)


def face_side(survey: Survey, slab: Slab, flawed: tuple[bool, bool] = (False, False)) -> FaceSide:
    """Choose the face to flatten first.

    A face with flaws is left for the back. Of two clear ones the hollow one comes first, if the
    other would stand on its hump while it is planed; else the one with less wood to take.
    `flawed` says of the upper and lower face whether flaws show on it.
    """
    takes = [float(above(survey, slab, face).mean()) for face in (BoardFace.UPPER, BoardFace.LOWER)]
    hollow = [_hollow(survey, face) for face in (BoardFace.UPPER, BoardFace.LOWER)]
    rocks = (hollow[0] < -0.3, hollow[1] < -0.3)
    if flawed[0] != flawed[1]:
        clear = BoardFace.LOWER if flawed[0] else BoardFace.UPPER
        return FaceSide(clear, FaceReason.CLEAR, rocks)
    # Planed with the other face down, a board must not stand on a hump: the hollow side lies steady.
    if rocks[0] != rocks[1]:
        steady = BoardFace.LOWER if rocks[0] else BoardFace.UPPER
        # The hollow face is planed with the hump down and wedged; its own rim is all there is to take.
        return FaceSide(steady, FaceReason.HOLLOW, rocks)
    face = BoardFace.UPPER if takes[0] <= takes[1] else BoardFace.LOWER
    return FaceSide(face, FaceReason.LESS_TO_TAKE, rocks, (min(takes), max(takes)))


def _hollow(survey: Survey, face: BoardFace) -> float:
    """Return how far the middle lies below the rim, mm; a hump is less than nothing."""
    heights = survey.top if face is BoardFace.UPPER else -survey.bottom
    rim = np.concatenate((heights[0], heights[-1], heights[1:-1, 0], heights[1:-1, -1]))
    n, m = heights.shape
    middle = heights[n // 3 : n - n // 3, m // 3 : m - m // 3]
    return float(rim.mean() - middle.mean())


class Corner(NamedTuple):
    """A corner of a board as it is drawn with its upper face up."""

    upper: bool
    right: bool

    @property
    def turned_over(self) -> Corner:
        """Where it comes when the board is turned over about its length."""
        return self._replace(upper=not self.upper)


@dataclass(frozen=True, slots=True)
class Twist:
    """How a face winds along the board.

    `wind` is how much higher the far end's upper edge stands than the near end's, over the
    width, mm; from `start` to `end` (mm along) it happens, outside of that the board is true.
    `high` are the corners that stand high on the face.
    """

    wind: float
    start: float
    end: float
    high: tuple[Corner, ...]


def twist_of(survey: Survey, face: BoardFace, true_within: float = 0.3) -> Twist | None:
    """Say where a face winds: None where it is true to `true_within` mm over its width.

    Parameters
    ----------
    survey : Survey
        Of the board.
    face : BoardFace
        Which face.
    true_within : float, default 0.3
        How far the ends' corners may differ, mm.
    """
    heights = survey.top if face is BoardFace.UPPER else survey.bottom
    across = _tilts(survey, heights) * float(np.ptp(survey.y))
    if np.ptp(across) <= true_within:
        return None
    near = np.flatnonzero(np.abs(across - across[0]) > true_within / 2)
    far = np.flatnonzero(np.abs(across - across[-1]) > true_within / 2)
    start = float(survey.x[max(int(near[0]) - 1, 0)]) if len(near) else float(survey.x[0])
    end = float(survey.x[min(int(far[-1]) + 1, len(survey.x) - 1)]) if len(far) else float(survey.x[-1])
    wind = float(across[-1] - across[0])
    # The corners to plane are the high ones of the ends that are out of true.
    rising = (wind > 0) == (face is BoardFace.UPPER)
    left, right = Corner(upper=not rising, right=False), Corner(upper=rising, right=True)
    before, after = start - float(survey.x[0]), float(survey.x[-1]) - end
    # A tenth of the length is as near as sticks can tell where it begins.
    near_true, far_true = (each > 0.1 * float(np.ptp(survey.x)) for each in (before, after))
    if near_true == far_true:
        return Twist(wind, start, end, (left, right))
    return Twist(wind, start, end, (right if near_true else left,))


def _tilts(survey: Survey, heights: Grid) -> Grid:
    """Return the slope across at every station along, by least squares over the width."""
    v = survey.y - survey.y.mean()
    return np.asarray(heights @ v / float(v @ v), dtype=np.float64)


@dataclass(frozen=True, slots=True)
class BestCut:
    """The best places to cut before flattening, and what each piece reaches.

    `crosscut` is mm along or None; `rips` mm across, one for each length the crosscut leaves
    (one where there is none), empty where nothing is ripped. `reaches` are thicknesses, mm.
    """

    crosscut: float | None
    rips: tuple[float, ...]
    reaches: tuple[float, ...]

    @property
    def least(self) -> float:
        """What all pieces reach."""
        return min(self.reaches)


def best_crosscut(survey: Survey) -> BestCut:
    """Find where to crosscut so that the thinner of the two lengths is as thick as can be.

    The longer a length, the less it reaches: the near one falls and the far one rises as the
    cut moves out, so the best place is where they meet, found by halving.
    """
    start, end = float(survey.x[0]), float(survey.x[-1])

    def near(at: float) -> float:
        return _reach_along(survey, start, at)

    def far(at: float) -> float:
        return _reach_along(survey, at, end)

    x = _nearest_middle(start, end, _meeting(start, end, near, far), lambda at: min(near(at), far(at)))
    return BestCut(x, (), (near(x), far(x)))


def best_rip(survey: Survey) -> BestCut:
    """Find where to rip so that the thinner of the two widths is as thick as can be."""
    y = _nearest_middle(
        float(survey.y[0]), float(survey.y[-1]), _best_line(survey), lambda at: min(_ripped(survey, at))
    )
    return BestCut(None, (y,), _ripped(survey, y))


def _best_line(survey: Survey, within: float = CUT_WITHIN) -> float:
    low, high = float(survey.y[0]), float(survey.y[-1])
    return _meeting(
        low, high, lambda at: _reach_across(survey, low, at), lambda at: _reach_across(survey, at, high), within
    )


def _ripped(survey: Survey, at: float) -> tuple[float, float]:
    low, high = float(survey.y[0]), float(survey.y[-1])
    return _reach_across(survey, low, at), _reach_across(survey, at, high)


def best_both(survey: Survey) -> BestCut:
    """Find where to crosscut, and where to rip each of the two lengths, so that the thinnest quarter is thickest."""
    start, end = float(survey.x[0]), float(survey.x[-1])
    low, high = float(survey.y[0]), float(survey.y[-1])

    def ripped(x_from: float, x_to: float) -> float:
        length = survey.part(x_from, x_to, low, high)
        return min(_ripped(length, _best_line(length, (high - low) / 16)))

    x = _meeting(start, end, lambda at: ripped(start, at), lambda at: ripped(at, end), CUT_WITHIN * 8)
    near, far = best_rip(survey.part(start, x, low, high)), best_rip(survey.part(x, end, low, high))
    return BestCut(x, (*near.rips, *far.rips), (*near.reaches, *far.reaches))


def _reach_across(survey: Survey, start: float, end: float) -> float:
    return thickest_slab(survey.part(float(survey.x[0]), float(survey.x[-1]), start, end)).thickness


def _reach_along(survey: Survey, start: float, end: float) -> float:
    return thickest_slab(survey.part(start, end, float(survey.y[0]), float(survey.y[-1]))).thickness


def _nearest_middle(low: float, high: float, best: float, least: Callable[[float], float]) -> float:
    """Move a cut as near to the middle as it is as good to a twentieth of a millimetre: pieces of a use.

    What both pieces reach rises to its best and falls again, so where it is as good is one stretch.
    """
    enough = least(best) - 0.05
    good, middle = best, (low + high) / 2
    if least(middle) >= enough:
        return middle
    bad = middle
    while abs(bad - good) > CUT_WITHIN:
        between = (good + bad) / 2
        good, bad = (between, bad) if least(between) >= enough else (good, between)
    return good


def _meeting(
    low: float,
    high: float,
    falling: Callable[[float], float],
    rising: Callable[[float], float],
    within: float = CUT_WITHIN,
) -> float:
    """Find where a falling and a rising function meet, each end kept a twentieth off."""
    margin = (high - low) / 20
    low, high = low + margin, high - margin
    while high - low > within:
        middle = (low + high) / 2
        fall, rise = falling(middle), rising(middle)
        if abs(fall - rise) < 1e-9:
            return middle
        low, high = (middle, high) if fall > rise else (low, middle)
    return (low + high) / 2
