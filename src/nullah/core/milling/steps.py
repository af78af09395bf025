"""The steps of the milling, in the order of the work: which plane, and how many strokes."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from enum import Enum

from nullah.core.milling.job import FaceWork, Job
from nullah.core.milling.strokes import FlatteningStage
from nullah.core.shop import Plane, PlaneKind, Shop

# Marking a gauge line round a board, sawing near a line and shooting two ends, minutes: guesses.
_GAUGE_MINUTES, _WIDTH_MINUTES, _END_MINUTES, _STROKE_MINUTES = 2.0, 8.0, 8.0, 0.06
#: Looking at a face of which nothing comes off; fetching plane and square for an edge, minutes: guesses.
_LOOK_MINUTES, _EDGE_MINUTES = 0.5, 2.0


class StepKind(Enum):
    """What a step of the milling makes."""

    FACE = "face"
    EDGE = "edge"
    GAUGE = "gauge"
    WIDTH = "width"
    ENDS = "ends"


@dataclass(frozen=True, slots=True, eq=False)
class MillingStep:
    """One step.

    Parameters
    ----------
    kind : StepKind
    strokes : int
        About how many.
    minutes : float
        About how long.
    face : FaceWork, optional
        The face it works on.
    second : bool
        Whether that is the second face.
    stage : FlatteningStage, optional
        The stage of that face; none where nothing comes off it.
    from_height : float
        How high above the line the face stands at the most when it begins, mm.
    plane : Plane, optional
        What an edge is planed with.
    """

    kind: StepKind
    strokes: int
    minutes: float
    face: FaceWork | None = None
    second: bool = False
    stage: FlatteningStage | None = None
    from_height: float = math.inf
    plane: Plane | None = None


def steps_of(job: Job, shop: Shop) -> tuple[MillingStep, ...]:
    """Return all steps of a job in the order of the work."""
    first, second = job.faces
    return (
        *_face_steps(first, second=False),
        _edge_step(job, shop),
        MillingStep(StepKind.GAUGE, 0, _GAUGE_MINUTES),
        *_face_steps(second, second=True),
        MillingStep(StepKind.WIDTH, 0, _WIDTH_MINUTES),
        MillingStep(StepKind.ENDS, 0, _END_MINUTES),
    )


def _face_steps(face: FaceWork, second: bool) -> Iterator[MillingStep]:
    if not face.stages:
        yield MillingStep(StepKind.FACE, 0, _LOOK_MINUTES, face, second)
    height = math.inf
    for stage in face.stages:
        yield MillingStep(StepKind.FACE, stage.strokes, stage.minutes, face, second, stage, height)
        height = stage.leave


def _edge_step(job: Job, shop: Shop) -> MillingStep:
    straight, square = job.edge
    plane = shop.plane(PlaneKind.JOINTER, PlaneKind.JACK, PlaneKind.FORE, PlaneKind.SMOOTHER)
    strokes = len(straight.stopped) + straight.full + len(square.partial) + square.full
    return MillingStep(StepKind.EDGE, strokes, _EDGE_MINUTES + strokes * _STROKE_MINUTES, plane=plane)
