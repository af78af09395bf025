"""Trying it oneself: a face planed stroke by stroke, tested as at the bench, and held against the plan."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from nullah.core.milling.planing import Shaving, Stroke, Work, plane_stroke
from nullah.core.milling.strokes import FLAT_WITHIN, FlatteningStage, lane_step, lanes_at, out_of_flat
from nullah.core.milling.survey import Grid, Survey
from nullah.core.named_tuple import NamedTuple


@dataclass(frozen=True, slots=True, eq=False)
class Trial:
    """A face on the bench: as it began, as it is, how many strokes took a shaving, and what they took, mm³."""

    start: Work
    work: Work
    strokes: int = 0
    shaved: float = 0.0

    def stroked(self, stroke: Stroke) -> tuple[Trial, Shaving]:
        """Return the trial after one stroke, and its shaving; a stroke that took nothing is not counted."""
        work, shaving = plane_stroke(self.work, stroke)
        return self.counted(work, shaving), shaving

    def counted(self, work: Work, shaving: Shaving) -> Trial:
        """Return the trial after a stroke that was made."""
        took = int(shaving.volume > 0)
        return replace(self, work=work, strokes=self.strokes + took, shaved=self.shaved + shaving.volume)

    @property
    def lost(self) -> float:
        """Thickness gone, on the whole of the face, mm."""
        return self.shaved / ((self.work.heights.size) * self.work.spacing_x * self.work.spacing_y)

    @property
    def highest(self) -> float:
        """How far it stands above the line, mm."""
        return float(self.work.heights.max())

    @property
    def lowest(self) -> float:
        """How far it lies below the line where it is lowest, mm: less than nothing where wood is missing."""
        return float(self.work.heights.min())

    @property
    def out_of_flat(self) -> float:
        """Between two parallel planes, mm."""
        return out_of_flat(self.work)

    @property
    def flat(self) -> bool:
        """Whether it is flat enough for a face that joints are laid out from."""
        return self.out_of_flat <= FLAT_WITHIN


def start_trial(work: Work) -> Trial:
    """Lay a face on the bench."""
    return Trial(work, work)


def set_of(trial: Trial, stroke: Stroke) -> tuple[Stroke, ...]:
    """Return strokes like one that was made, side by side over the whole board: a set."""
    (x0, y0), (x1, y1) = stroke.start, stroke.end
    degrees = math.degrees(math.atan2(y1 - y0, x1 - x0))
    work = trial.work
    found = []
    for lane in lanes_at(work.length, work.width, degrees, lane_step(stroke.plane, stroke.depth)):
        beyond = 30.0 / lane.length
        found.append(Stroke(lane.at(-beyond), lane.at(1 + beyond), stroke.plane, stroke.depth))
    return tuple(found)


class TrialFound(NamedTuple):
    """A trial beside the plan.

    Parameters
    ----------
    flat : bool
        Whether it is flat enough.
    off : float
        How far from flat, mm; `FLAT_WITHIN` is enough.
    strokes, planned : int
        As many as were made, and about as many as the plan has.
    over : float
        How much thinner it came out than it had to be, on the whole, mm.
    """

    flat: bool
    off: float
    strokes: int
    planned: int
    over: float


def found_in(trial: Trial, stages: Sequence[FlatteningStage]) -> TrialFound:
    """Hold a trial against the plan."""
    planned = sum(stage.strokes for stage in stages)
    over = trial.lost - float(np.clip(trial.start.heights, 0, None).mean())
    return TrialFound(trial.flat, trial.out_of_flat, trial.strokes, planned, over)


# --- testing ---------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True, eq=False)
class UnderEdge:
    """What a straightedge shows: places along it, the face and the edge there, mm; the widest gap and where it is."""

    along: Grid
    face: Grid
    edge: Grid

    @property
    def gap(self) -> tuple[float, float]:
        """Where the gap is widest, and how wide, mm."""
        gaps = self.edge - self.face
        widest = int(gaps.argmax())
        return float(self.along[widest]), float(gaps[widest])

    @property
    def rocks(self) -> bool:
        """Whether it stands on a hump: what it touches lies all within the middle half."""
        touching = self.along[self.edge - self.face < 0.02]
        quarter = float(self.along[-1]) / 4
        return bool(len(touching)) and float(touching.min()) > quarter and float(touching.max()) < 3 * quarter


def heights_along(work: Work, start: tuple[float, float], end: tuple[float, float], number: int = 81) -> Grid:
    """Return the heights of a face between two places, bilinear, mm.

    Parameters
    ----------
    work : Work
        The face.
    start : tuple[float, float]
        Where the line begins: along and across, mm.
    end : tuple[float, float]
        Where it ends.
    number : int, default 81
        Of heights, both ends counted.

    Returns
    -------
    Grid
        mm, (number,).
    """
    share = np.linspace(0.0, 1.0, number)
    return work.at(start[0] + share * (end[0] - start[0]), start[1] + share * (end[1] - start[1]))


def under_straightedge(work: Work, start: tuple[float, float], end: tuple[float, float]) -> UnderEdge:
    """Lay a straightedge on a face between two places: it rests on the two highest points about its middle.

    Parameters
    ----------
    work : Work
        The face.
    start : tuple[float, float]
        Where the straightedge begins: along and across, mm.
    end : tuple[float, float]
        Where it ends.
    """
    along = np.linspace(0.0, math.dist(start, end), 81)
    face = heights_along(work, start, end)
    return UnderEdge(along, face, _resting(along, face))


def _resting(along: Grid, face: Grid) -> Grid:
    """Return a straight line that rests on a profile: the side of its upper hull that spans the middle."""
    hull: list[int] = []
    for index in range(len(along)):
        while len(hull) > 1:
            a, b = hull[-2], hull[-1]
            if (face[b] - face[a]) * (along[index] - along[a]) > (face[index] - face[a]) * (along[b] - along[a]):
                break
            hull.pop()
        hull.append(index)
    middle, near = float(along[-1]) / 2, float(along[-1]) / 100
    left = [place for place in hull if along[place] < middle - near]
    right = [place for place in hull if along[place] > middle + near]
    if not left or not right:
        return np.full(len(along), float(face.max()))
    slope = (face[right[0]] - face[left[-1]]) / (along[right[0]] - along[left[-1]])
    # On the crown of a hump it balances; else it lies on the two places to both sides.
    crown = [place for place in hull if left[-1] < place < right[0]]
    rest = crown[len(crown) // 2] if crown else left[-1]
    return np.asarray(face[rest] + slope * (along - along[rest]), dtype=np.float64)


class FaceOf:
    """A face being planed, as one sights over it from its left end; y counts from the middle of its width."""

    def __init__(self, work: Work) -> None:
        self._work = work

    @property
    def length(self) -> float:
        """Millimetres."""
        return self._work.length

    @property
    def width(self) -> float:
        """Millimetres."""
        return self._work.width

    def height(self, x: float, y: float) -> float:
        """Return the height of the face, mm. Seen from the left end the board's upper edge is at the left.

        Parameters
        ----------
        x : float
            From the left end, mm.
        y : float
            From the lower edge, mm.
        """
        at = (x, self.width / 2 - y)
        return float(heights_along(self._work, at, at, 1)[0])

    def rest(self, x: float) -> tuple[float, float]:
        """Return how a stick rests across the board there: height of its middle, mm, and slope to the right.

        Parameters
        ----------
        x : float
            From the left end, mm.
        """
        across = under_straightedge(self._work, (x, self.width), (x, 0.0))
        low, high = float(across.edge[0]), float(across.edge[-1])
        return (low + high) / 2, (high - low) / self.width


def levelled(truth: Survey, like: Survey) -> Survey:
    """Lay a survey as another one of the same board lies: the plane between their middles taken out, mm."""
    at = like.at(truth.x, truth.y)
    off = (truth.top + truth.bottom - at.top - at.bottom) / 2
    x, y = np.meshgrid(truth.x, truth.y, indexing="ij")
    level = np.column_stack((np.ones(x.size), x.ravel(), y.ravel()))
    plane, *_ = np.linalg.lstsq(level, off.ravel(), rcond=None)
    lean = (level @ plane).reshape(off.shape)
    return Survey(truth.x, truth.y, truth.top - lean, truth.bottom - lean)
