"""The steps of the milling in words: which plane, how many strokes, when to stop and with what to test."""

from __future__ import annotations

import math
from dataclasses import dataclass

from nullah.core.lengths import Marks, from_float
from nullah.core.milling.decide import BoardFace
from nullah.core.milling.job import FaceWork, Job
from nullah.core.milling.strokes import FlatteningStage, StrokeDirection
from nullah.core.shop import PlaneKind, Shop

# Marking a gauge line round a board, sawing near a line and shooting two ends, minutes: guesses.
_GAUGE_MINUTES, _WIDTH_MINUTES, _END_MINUTES, _STROKE_MINUTES = 2.0, 8.0, 8.0, 0.06


@dataclass(frozen=True, slots=True, eq=False)
class MillingStep:
    """One step.

    `id` says what kind it is: ``face``, ``edge``, ``gauge``, ``width`` or ``ends``; `words` what to do, a
    sentence a line; `face` and `stage` what it works on, where it is a stage of a face; `from_height`
    how high above the line the face stands at the most when it begins, mm.
    """

    id: str
    title: str
    tool: str
    words: tuple[str, ...]
    strokes: int
    minutes: float
    face: FaceWork | None = None
    stage: FlatteningStage | None = None
    from_height: float = math.inf

    @property
    def strokes_in_words(self) -> str:
        """About how many strokes."""
        return f"{self.strokes} strokes" if self.strokes else ""

    @property
    def time_in_words(self) -> str:
        """About how long."""
        return f"{max(1, round(self.minutes))} min"


def steps_of(job: Job, marks: Marks, shop: Shop) -> tuple[MillingStep, ...]:
    """Return all steps of a job in the order of the work."""
    first, second = job.faces
    thick = marks.write_fine(from_float(round(job.thickness, 1)))
    gauge = MillingStep(
        "gauge",
        "Gauge the thickness",
        f"gauge at {thick}",
        (
            f"Set the gauge to {thick}, stock against the face side.",
            "Gauge all round: both edges and both ends.",
            "Where the line runs out of the wood, that low is what sets the limit.",
        ),
        0,
        _GAUGE_MINUTES,
    )
    return (
        *_face_steps(first, "Face side", marks),
        _edge_step(job, marks, shop),
        gauge,
        *_face_steps(second, "Second face", marks),
        MillingStep(
            "width",
            "Second edge",
            "gauge, saw, jointer",
            (
                "Gauge the width from the face edge on both faces.",
                "Saw or plane near, then plane to the line, square to the face side.",
                "Take a shaving off every part of one width in turn, so that they stay alike.",
            ),
            0,
            _WIDTH_MINUTES,
        ),
        MillingStep(
            "ends",
            "Ends",
            "knife, saw, shooting board",
            (
                "Knife the length from the face edge and the face side, all round.",
                "Saw in the waste; shoot to the line.",
                "Square from the face side and from the face edge: no light either way.",
            ),
            0,
            _END_MINUTES,
        ),
    )


def _face_steps(face: FaceWork, title: str, marks: Marks) -> list[MillingStep]:
    lies = "the upper face up" if face.face is BoardFace.UPPER else "the lower face up, turned over about its length"
    if not face.stages:
        return [
            MillingStep(
                "face",
                f"{title}: as it is",
                "",
                (f"Lay it with {lies}.", "Nothing stands above the line."),
                0,
                0.5,
                face,
            )
        ]
    found = []
    height = math.inf
    for stage in face.stages:
        words = (
            f"Lay it with {lies}; shim it where it rocks.",
            f"{_capital(stage.plane.kind.value)} set to {marks.write_short(stage.depth, unit=True)}, "
            f"{_ways(stage)}, over what stands more than {marks.write_fine(from_float(stage.leave))} above the line.",
            f"About {stage.strokes} strokes in {stage.sets} sets; the shorter ones come first.",
            f"{stage.test}",
        )
        found.append(
            MillingStep(
                "face",
                f"{title}: {stage.title.lower()}",
                _tool(stage, marks),
                words,
                stage.strokes,
                stage.minutes,
                face,
                stage,
                height,
            )
        )
        height = stage.leave
    return found


# Ways in few words, for a list.
_WAYS = {
    (StrokeDirection.ACROSS,): "across",
    (StrokeDirection.SLANT, StrokeDirection.BACK): "45° both ways",
    (StrokeDirection.ALONG,): "along",
}


def _ways(stage: FlatteningStage) -> str:
    return " and ".join(way.value for way in stage.ways)


def _tool(stage: FlatteningStage, marks: Marks) -> str:
    return f"{stage.plane.kind.value} {marks.write_short(stage.depth, unit=True)}, {_WAYS[stage.ways]}"


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def _edge_step(job: Job, marks: Marks, shop: Shop) -> MillingStep:
    straight, square = job.edge
    plane = shop.plane(PlaneKind.JOINTER, PlaneKind.JACK, PlaneKind.FORE, PlaneKind.SMOOTHER)
    write = marks.write_fine
    words = []
    if straight.stopped:
        start, end = straight.stopped[0]
        words.append(
            f"Stopped strokes where it stands high, the shortest first (from {marks.write(from_float(start))} "
            f"to {marks.write(from_float(end))}), "
            f"{len(straight.stopped)} in all; then through, until one shaving is whole."
        )
    if square.partial:
        reaches = ", ".join(write(from_float(round(reach, 1))) for reach in square.partial[:4])
        words.append(
            f"Out of square: {len(square.partial)} partial passes from the high side, {reaches}"
            f"{' …' if len(square.partial) > 4 else ''} wide or so; then one over the whole."
        )
    words.append("Straightedge along, square from the face side at five places: no light. Mark it as face edge.")
    strokes = len(straight.stopped) + straight.full + len(square.partial) + square.full
    tool = (
        f"{plane.kind.value} {marks.write_short(float(plane.shaving), unit=True)}" if plane is not None else "no plane"
    )
    return MillingStep("edge", "Face edge", tool, tuple(words), strokes, 2 + strokes * _STROKE_MINUTES)
