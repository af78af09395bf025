"""The stroke plan: which plane, where, which way, how many strokes, and when to stop and test.

Number of strokes = wood above the line at that place ÷ what a stroke lowers it by.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import Enum

import numpy as np
from numpy.typing import NDArray

from nullah.core.milling.planing import Shaving, Stroke, Work, plane_stroke
from nullah.core.milling.survey import Survey
from nullah.core.named_tuple import NamedTuple
from nullah.core.shop import Plane, PlaneKind, Shop

Grid = NDArray[np.float64]

#: A face is flat enough when nothing on it stands further out than this, mm: common practice for a
#: face that joints are laid out from.
FLAT_WITHIN = 0.1
# A set of strokes lowers a face by about half its shaving: between the lanes of a rounded iron ridges stay,
# and the next set rides on them. From the parabola of the iron it is 5/9 for lanes two thirds of its chord apart.
_BITE = 0.5
# Seconds to push a plane and come back, at the least, and for each metre; and to stop and test.
# Guesses, and told as guesses, until there are records of one's own.
_SECONDS, _SECONDS_PER_METRE, _TEST_SECONDS = 1.2, 2.2, 20.0


class StrokeDirection(Enum):
    """Which way strokes go over a board: as to the grain, or aslant to it, the one way and the other."""

    ACROSS = "across"
    SLANT = "slant"
    BACK = "back"
    ALONG = "along"


class StageKind(Enum):
    """What a stage of flattening takes down."""

    HUMPS = "humps"
    TRAVERSE = "traverse"
    ALONG = "along"
    SMOOTH = "smooth"


_ANGLES = {
    StrokeDirection.ACROSS: 90.0,
    StrokeDirection.SLANT: 45.0,
    StrokeDirection.BACK: -45.0,
    StrokeDirection.ALONG: 0.0,
}


@dataclass(frozen=True, slots=True)
class FlatteningStage:
    """One stage of flattening.

    Parameters
    ----------
    kind : StageKind
    plane : Plane
    ways : tuple of StrokeDirection
        One after the other, a set of strokes each.
    depth : float
        What to set the plane to, mm of shaving.
    leave : float
        Down to this far above the line, mm.
    strokes, sets : int
        Sets are times over all that stands out.
    millimetres : float
        Way planed, in all.
    to_left : bool
        Whether strokes go from right to left as the face lies: with the grain.
    """

    kind: StageKind
    plane: Plane
    ways: tuple[StrokeDirection, ...]
    depth: float
    leave: float
    strokes: int
    sets: int
    millimetres: float
    to_left: bool = False

    @property
    def minutes(self) -> float:
        """How long it takes: a guess from the number and length of the strokes, and a test after each set."""
        seconds = self.strokes * _SECONDS + self.millimetres / 1000 * _SECONDS_PER_METRE + self.sets * _TEST_SECONDS
        return seconds / 60


class _Kind(NamedTuple):
    """A kind of stage: planes in the order in which one would take them, the most to set them to and what to leave.

    What is left is more than a stroke can dig where the iron is wider than what stands out: the
    coarse planes stop well above the line.
    """

    kind: StageKind
    planes: tuple[PlaneKind, ...]
    ways: tuple[StrokeDirection, ...]
    deepest: float
    leave: float


_KINDS = (
    _Kind(StageKind.HUMPS, (PlaneKind.FORE, PlaneKind.JACK, PlaneKind.JOINTER), (StrokeDirection.ACROSS,), 0.8, 1.0),
    _Kind(
        StageKind.TRAVERSE,
        (PlaneKind.JACK, PlaneKind.FORE, PlaneKind.JOINTER),
        (StrokeDirection.SLANT, StrokeDirection.BACK),
        0.2,
        0.35,
    ),
    _Kind(StageKind.ALONG, (PlaneKind.JOINTER, PlaneKind.JACK, PlaneKind.FORE), (StrokeDirection.ALONG,), 0.1, 0.1),
    _Kind(
        StageKind.SMOOTH, (PlaneKind.SMOOTHER, PlaneKind.JOINTER, PlaneKind.JACK), (StrokeDirection.ALONG,), 0.04, 0.02
    ),
)


def lane_step(plane: Plane, depth: float) -> float:
    """Return how far apart strokes lie so that one set lowers the whole by the shaving, mm.

    A rounded iron that stands out `depth` in the middle cuts only as wide as its chord there, and two
    thirds of that depth on the whole of it: so lanes lie two thirds of the chord apart.

    Parameters
    ----------
    plane : Plane
        The plane, with its iron and camber.
    depth : float
        Of the shaving in the middle, mm.

    Returns
    -------
    float
        mm.

    Examples
    --------
    >>> from nullah.core.shop import USUAL_PLANES
    >>> round(lane_step(USUAL_PLANES[0], 0.5), 1)
    21.5
    """
    iron, camber = float(plane.iron), float(plane.camber)
    if camber <= depth:
        # The whole iron cuts, its corners the less the more it is rounded.
        return iron * (1 - camber / depth / 3)
    return iron * math.sqrt(depth / camber) * 2 / 3


@dataclass(frozen=True, slots=True)
class Lane:
    """A line over the board along which one strokes: where it enters and leaves, mm."""

    start: tuple[float, float]
    end: tuple[float, float]

    @property
    def length(self) -> float:
        """Its length, mm."""
        return math.dist(self.start, self.end)

    def at(self, share: float) -> tuple[float, float]:
        """Return the place at a share of its length.

        Parameters
        ----------
        share : float
            0 at its start, 1 at its end.
        """
        (x0, y0), (x1, y1) = self.start, self.end
        return x0 + (x1 - x0) * share, y0 + (y1 - y0) * share

    def moved(self, aside: float) -> Lane:
        """Return the lane so far to its left.

        Parameters
        ----------
        aside : float
            mm.
        """
        (x0, y0), (x1, y1) = self.start, self.end
        x, y = -(y1 - y0) / self.length * aside, (x1 - x0) / self.length * aside
        return Lane((x0 + x, y0 + y), (x1 + x, y1 + y))


def lanes(length: float, width: float, way: StrokeDirection, step: float) -> tuple[Lane, ...]:
    """Return the lanes of one set over a board, mm, `step` apart and as far from both sides.

    Parameters
    ----------
    length : float
        Of the board, mm.
    width : float
        Of the board, mm.
    way : StrokeDirection
        Which way the strokes go.
    step : float
        How far apart they lie, mm.
    """
    return lanes_at(length, width, _ANGLES[way], step)


def lanes_at(length: float, width: float, degrees: float, step: float) -> tuple[Lane, ...]:
    """Return the lanes of one set at any angle to the length, counted from along towards across.

    Parameters
    ----------
    length : float
        Of the board, mm.
    width : float
        Of the board, mm.
    degrees : float
        From along towards across.
    step : float
        How far apart they lie, mm.
    """
    angle = math.radians(degrees)
    ax, ay = math.cos(angle), math.sin(angle)
    # The offset of a line is counted square to it.
    offsets = [-x * ay + y * ax for x in (0.0, length) for y in (0.0, width)]
    low, high = min(offsets), max(offsets)
    number = max(1, math.ceil((high - low) / step))
    found = []
    for index in range(number):
        offset = low + (index + 0.5) * (high - low) / number
        span = _clipped((-offset * ay, offset * ax), (ax, ay), length, width)
        if span is not None and span[1] - span[0] > 1.0:
            found.append(Lane(*((-offset * ay + t * ax, offset * ax + t * ay) for t in span)))
    return tuple(found)


def _clipped(
    at: tuple[float, float], along: tuple[float, float], length: float, width: float
) -> tuple[float, float] | None:
    """Return from where to where a line runs over the board, counted along it."""
    low, high = -1e9, 1e9
    for place, direction, limit in ((at[0], along[0], length), (at[1], along[1], width)):
        if abs(direction) < 1e-12:
            if not 0 <= place <= limit:
                return None
            continue
        one, two = sorted((-place / direction, (limit - place) / direction))
        low, high = max(low, one), min(high, two)
    return (low, high) if high > low else None


def work_of(survey: Survey, heights: Grid, spacing: float = 5.0) -> Work:
    """Return heights over a survey's stations as a face to plane, on an even grid of about `spacing` mm.

    Parameters
    ----------
    survey : Survey
        Its stations.
    heights : Grid
        mm over the stations, (n, m).
    spacing : float, default 5.0
        Of the even grid, mm.
    """
    length, width = float(np.ptp(survey.x)), float(np.ptp(survey.y))
    n, m = max(3, round(length / spacing) + 1), max(3, round(width / spacing) + 1)
    xs, ys = np.linspace(survey.x[0], survey.x[-1], n), np.linspace(survey.y[0], survey.y[-1], m)
    even = Survey(survey.x, survey.y, heights, heights).at(xs, ys).top
    return Work(even, length / (n - 1), width / (m - 1))


def plan_strokes(work: Work, shop: Shop, to_left: bool = False) -> tuple[FlatteningStage, ...]:
    """Plan how to bring a face down to its line.

    Parameters
    ----------
    work : Work
        Heights above the line, mm: nothing of what stays stands below 0.
    shop : Shop
        With the planes there are; a coarse plane that is missing is stood in for by a finer one.
    to_left : bool
        Whether the grain wants strokes from right to left.

    Returns
    -------
    tuple of Stage
        Only those that have something to do; empty if there is no plane at all.
    """
    found: list[FlatteningStage] = []
    left = work.heights
    for kind in _KINDS:
        plane = shop.plane(*kind.planes)
        if plane is None:
            continue
        depth = min(float(plane.shaving), kind.deepest)
        # Not worth fetching a plane for less than half a shaving; the last one is for the surface too.
        if kind is not _KINDS[-1] and float(left.max()) <= kind.leave + depth / 2:
            continue
        strokes, sets, way = _counted(Work(left, work.spacing_x, work.spacing_y), kind.ways, plane, depth, kind.leave)
        if strokes:
            found.append(FlatteningStage(kind.kind, plane, kind.ways, depth, kind.leave, strokes, sets, way, to_left))
            left = np.minimum(left, kind.leave)
    return tuple(found)


def _counted(
    work: Work, ways: tuple[StrokeDirection, ...], plane: Plane, depth: float, leave: float
) -> tuple[int, int, float]:
    """Count strokes, sets, and millimetres of way: each set lowers what stands out by its share of the shaving."""
    step = lane_step(plane, depth)
    lower = depth * _BITE
    sets = max(0, math.ceil((float(work.heights.max()) - leave) / lower - 1e-6))
    strokes, way = 0, 0.0
    courses = {each: lanes(work.length, work.width, each, step) for each in ways}
    profiles = {
        each: [_heights_beside(work, lane, lane_step(plane, depth)).max(axis=0) for lane in course]
        for each, course in courses.items()
    }
    for number in range(sets):
        each = ways[number % len(ways)]
        for lane, profile in zip(courses[each], profiles[each], strict=True):
            out = profile > leave + number * lower + 1e-9
            strokes += int(out[0]) + int(np.count_nonzero(out[1:] & ~out[:-1]))
            way += lane.length * float(out.mean())
    return strokes, sets, way


#: A stage is over when a set takes less than this share of what its strokes would on even wood: the plane rides over
#: the rest, which is left to a shorter or a finer one. Less, and it strokes on for little; more, and it gives up
#: where it would still get there (tried on 36 boards of all shapes).
_RIDES = 0.07
#: A plane goes down the middle of a lane while that has at least this share of the wood its better side has; else so
#: far beside it, as a share of the way to that side.
_ENOUGH, _BESIDE = 0.5, 0.6
#: Where across a lane heights are felt for, as shares of its width: at both sides and in the middle.
_ASIDE = (-0.5, 0.0, 0.5)


def _heights_beside(work: Work, lane: Lane, step: float, spacing: float = 10.0) -> Grid:
    """Return how high a lane `step` mm wide stands at each of `_ASIDE`, about every `spacing` mm along it, mm, (3, n).

    It is felt for half a `spacing` before each place too: a ridge at the border of the board stands where no middle
    of a lane is, and may be as short as one station.
    """
    places = max(2, math.ceil(lane.length / spacing) + 1)
    before = np.array([0.5, 0.0])[:, None, None] / (places - 1)
    share = np.clip(np.linspace(0.0, 1.0, places) - before, 0.0, 1.0)
    aside = np.array(_ASIDE)[:, None] * step / lane.length
    along_x, along_y = lane.end[0] - lane.start[0], lane.end[1] - lane.start[1]
    x = np.clip(lane.start[0] + share * along_x - aside * along_y, 0.0, work.length)
    y = np.clip(lane.start[1] + share * along_y + aside * along_x, 0.0, work.width)
    return np.asarray(work.at(x, y).max(axis=0), dtype=np.float64)


def strokes_per_mm(length: float, width: float, plane: Plane) -> float:
    """Return how many strokes take one millimetre off a whole face of that size (mm).

    Parameters
    ----------
    length : float
        Of the face, mm.
    width : float
        Of the face, mm.
    plane : Plane
        The plane.

    Returns
    -------
    float
        Strokes for each millimetre.
    """
    depth = float(plane.shaving)
    return len(lanes(length, width, StrokeDirection.SLANT, lane_step(plane, depth))) / (depth * _BITE)


@dataclass(frozen=True, slots=True, eq=False)
class Played:
    """Where a plan that is being played stands: stage and set (from 0), the stroke just made, what is left."""

    stage: int
    set: int
    stroke: Stroke
    shaving: Shaving
    work: Work


def play(work: Work, stages: Sequence[FlatteningStage]) -> Iterator[Played]:
    """Carry a plan out in the simulator, stroke by stroke, testing after each set as it says.

    A set goes over whatever stands out more than the stage leaves, and no further. A stage
    is over when nothing does, or when the plane no longer reaches what does.
    """
    for number, stage in enumerate(stages):
        for turn in range(3 * stage.sets + 6):
            taken = meant = 0.0
            for stroke in strokes_of_set(work, stage, stage.ways[turn % len(stage.ways)]):
                work, shaving = plane_stroke(work, stroke)
                taken += shaving.volume
                wide = lane_step(stroke.plane, stroke.depth)
                meant += math.dist(stroke.start, stroke.end) * wide * stroke.depth * _BITE
                yield Played(number, turn, stroke, shaving, work)
            if taken <= _RIDES * meant:
                break


def strokes_of_set(work: Work, stage: FlatteningStage, way: StrokeDirection) -> Iterator[Stroke]:
    """Yield the strokes of one set over what stands out now: along each lane, each run of it by itself."""
    tolerance = min(stage.depth / 4, 0.01)
    step = lane_step(stage.plane, stage.depth)
    for lane in lanes(work.length, work.width, way, step):
        beside = _heights_beside(work, lane, step)
        out = np.flatnonzero(beside.max(axis=0) > stage.leave + tolerance)
        if not len(out):
            continue
        for run in np.split(out, np.flatnonzero(np.diff(out) > 4) + 1):
            yield _stroke(stage, lane, beside, int(run[0]), int(run[-1]))


def _stroke(stage: FlatteningStage, lane: Lane, beside: Grid, first: int, last: int) -> Stroke:
    """Return the stroke over a run of a lane: on to the border if that is near, set no deeper than what stands out.

    The plane goes where most stands out: a ridge at the side of a lane is not left while its middle is dug.
    """
    places = beside.shape[1]
    spacing = lane.length / (places - 1)
    start = -30.0 if first <= 1 else first * spacing
    end = lane.length + 30.0 if last >= places - 2 else last * spacing
    over = beside[:, first : last + 1] - stage.leave
    depth = min(stage.depth, max(float(over.max()), stage.depth / 4))
    most = np.maximum(over, 0.0).sum(axis=1)
    middle = len(_ASIDE) // 2
    aside = _ASIDE[middle if most[middle] >= _ENOUGH * most.max() else int(most.argmax())]
    moved = lane.moved(_BESIDE * aside * lane_step(stage.plane, stage.depth))
    ends = moved.at(start / lane.length), moved.at(end / lane.length)
    if stage.to_left:
        ends = ends[1], ends[0]
    return Stroke(*ends, stage.plane, depth)


def out_of_flat(work: Work) -> float:
    """Return how far a face is from flat: the distance of two parallel planes that it fits between, mm.

    They lie as the plane of least squares does, so the least distance there is may be a little smaller,
    never larger; it is measured upright, for a face on the bench is not steep.
    """
    x, y = np.meshgrid(work.x, work.y, indexing="ij")
    level = np.column_stack((np.ones(x.size), x.ravel(), y.ravel()))
    flat = work.heights.ravel()
    plane, *_ = np.linalg.lstsq(level, flat, rcond=None)
    off = flat - level @ plane
    return float(np.ptp(off))
