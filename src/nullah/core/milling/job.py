"""The whole job on one piece of stock: face side, face edge, second face, second edge, ends."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nullah.core.breakdown.layout import Rect
from nullah.core.identity import kept_by_value
from nullah.core.lengths import Length
from nullah.core.milling.decide import BoardFace, FaceSide, above, face_side
from nullah.core.milling.edges import Squaring, Straightening, square_edge, straighten_edge
from nullah.core.milling.faces import survey_patch
from nullah.core.milling.grain import grain_of
from nullah.core.milling.planing import Work
from nullah.core.milling.slab import Slab, thickest_slab
from nullah.core.milling.strokes import FlatteningStage, plan_strokes, work_of
from nullah.core.milling.survey import Grid, Survey
from nullah.core.named_tuple import NamedTuple
from nullah.core.rack.board import Board, Faces
from nullah.core.shop import PlaneKind, Shop

# What an edge usually is from the saw, until it is read: hump and light under the square, mm (common practice).
USUAL_HUMP, USUAL_ERROR = 0.5, 0.5


class EdgeRead(NamedTuple):
    """What straightedge and square say of a sawn edge: hump in the middle (hollow: less than nothing), light, mm."""

    hump: float = USUAL_HUMP
    error: float = USUAL_ERROR


@dataclass(frozen=True, slots=True, eq=False)
class FaceWork:
    """One face to plane, as it lies with that face up: the lower one turned over about the board's length.

    `heights` stand above the line at the stations `x` and `y` (mm along and across, from the
    corner at the lower left as it lies), shape (n, m); less than nothing where a low may stay.
    """

    face: BoardFace
    x: Grid
    y: Grid
    heights: Grid
    work: Work
    stages: tuple[FlatteningStage, ...]

    @property
    def highest(self) -> tuple[float, float, float]:
        """Where it stands highest, and how high: x, y, mm."""
        i, j = np.unravel_index(int(self.heights.argmax()), self.heights.shape)
        return float(self.x[i]), float(self.y[j]), float(self.heights[i, j])


@dataclass(frozen=True, slots=True, eq=False)
class Job:
    """How a piece of stock is milled.

    Parameters
    ----------
    survey : Survey
    slab : Slab
        The thickest there is in it.
    first : FaceSide
    thickness : float
        What it is planed to, mm: what is needed, or where that is more than there is, what there is.
    faces : (FaceWork, FaceWork)
        The face side and the other.
    edge : (Straightening, Squaring)
        Of the face edge.
    """

    survey: Survey
    slab: Slab
    first: FaceSide
    thickness: float
    faces: tuple[FaceWork, FaceWork]
    edge: tuple[Straightening, Squaring]

    def face(self, face: BoardFace) -> FaceWork:
        """Return the work on a face."""
        return next(each for each in self.faces if each.face is face)


def job_of(
    board: Board, rect: Rect, shop: Shop, needs: Length | None, lows: Length, edge: EdgeRead | None = None
) -> Job:
    """Plan the milling of a patch of a board.

    Parameters
    ----------
    board : Board
    rect : Rect
        The stock: the whole board, what a first cut left, or a rough part, mm.
    shop : Shop
        With the planes there are.
    needs : Length or None
        The thickness wanted; None for all that can be had.
    lows : Length
        How deep lows may stay on the second face.
    edge : EdgeRead or None
        What was read of the edge; what is usual where nothing was.
    """
    return _job(board, rect, shop, None if needs is None else float(needs), float(lows), edge or EdgeRead())


@kept_by_value(64)
def _job(board: Board, rect: Rect, shop: Shop, needs: float | None, lows: float, edge: EdgeRead) -> Job:
    survey = survey_patch(board, rect.x, rect.end, rect.y, rect.top)
    slab = thickest_slab(survey)
    first = face_side(survey, slab, _flawed(board, rect))
    most = slab.thickness + lows
    thickness = most if needs is None else min(needs, most)
    other = BoardFace.LOWER if first.face is BoardFace.UPPER else BoardFace.UPPER
    faces = (
        _face_work(board, survey, slab, first.face, 0.0, shop),
        # What the slab has more than is needed comes off the second face.
        _face_work(board, survey, slab, other, slab.thickness - thickness, shop),
    )
    return Job(survey, slab, first, thickness, faces, _edge(rect.length, thickness, edge, shop))


def _face_work(board: Board, survey: Survey, slab: Slab, face: BoardFace, more: float, shop: Shop) -> FaceWork:
    x, y, heights = _as_it_lies(survey, slab, face, more)
    work = work_of(Survey(x, y, heights, heights), heights)
    to_left = grain_of(board, face).to_right is False
    return FaceWork(face, x, y, heights, work, plan_strokes(work, shop, to_left))


def face_work_on(job: Job, face: FaceWork, truth: Survey) -> FaceWork:
    """Return the work on a face where the wood is not quite what was surveyed: the line and the stages stay.

    `truth` is the stock itself, on the survey's own datum, mm.
    """
    more = job.slab.thickness - job.thickness if face is job.faces[1] else 0.0
    x, y, heights = _as_it_lies(truth, job.slab, face.face, more)
    return FaceWork(face.face, x, y, heights, work_of(Survey(x, y, heights, heights), heights), face.stages)


def _as_it_lies(survey: Survey, slab: Slab, face: BoardFace, more: float) -> tuple[Grid, Grid, Grid]:
    """Return stations and heights above the line of a face that lies up."""
    heights = above(survey, slab, face) + more
    x, y = survey.x - survey.x[0], survey.y - survey.y[0]
    if face is BoardFace.LOWER:
        heights, y = heights[:, ::-1], survey.y[-1] - survey.y[::-1]
    return x, y, heights


def _edge(length: float, thickness: float, edge: EdgeRead, shop: Shop) -> tuple[Straightening, Squaring]:
    plane = shop.plane(PlaneKind.JOINTER, PlaneKind.JACK, PlaneKind.FORE, PlaneKind.SMOOTHER)
    shaving = float(plane.shaving) if plane is not None else 0.1
    thick = max(thickness, 1.0)
    return straighten_edge(length, edge.hump, shaving), square_edge(thick, min(edge.error, thick), shaving)


def _flawed(board: Board, rect: Rect) -> tuple[bool, bool]:
    """Say of the upper and the lower face of a patch whether flaws show on it alone."""
    inside = [
        flaw
        for flaw in board.flaws
        if float(flaw.end) > rect.x
        and float(flaw.start) < rect.end
        and float(flaw.high) > rect.y
        and float(flaw.low) < rect.top
    ]
    return any(flaw.faces is Faces.UP for flaw in inside), any(flaw.faces is Faces.DOWN for flaw in inside)
