"""A tapered leg by plane: in which order to lay the faces out, and where each stroke starts."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from nullah.core.milling.edge_facts import EdgeError, EdgeWrong, TaperTooDeep

#: The faces of a leg, going round it.
FACES = ("A", "B", "C", "D")


@dataclass(frozen=True, slots=True)
class TaperStroke:
    """One stroke from the toe back: how far from the toe it starts, and what the toe still has to lose after it, mm."""

    start: float
    left: float


@dataclass(frozen=True, slots=True)
class TaperFace:
    """One face to plane: on which faces its lines are drawn, fresh, before it is planed."""

    face: str
    lines_on: tuple[str, str]


@dataclass(frozen=True, slots=True)
class TaperPlan:
    """How a leg is tapered.

    `start` is how far below the top the taper begins, `run` its length, `off` what comes off each
    face at the toe, `toe` what is left of the leg there each way (along A–C and B–D), all mm;
    `angle` of each face in degrees.
    `rounds` are the faces laid out together and planed before the next are; `strokes` are those
    of each face, and after them `full` strokes over the whole run down to the line.
    """

    start: float
    run: float
    off: float
    toe: tuple[float, float]
    angle: float
    rounds: tuple[tuple[TaperFace, ...], ...]
    strokes: tuple[TaperStroke, ...]
    full: int


def taper_plan(
    length: float, thick: float, start: float, off: float, faces: Sequence[str], shaving: float
) -> TaperPlan:
    """Plan a taper.

    Parameters
    ----------
    length, thick : float
        Of the square leg, mm.
    start : float
        How far below the top the taper begins, mm.
    off : float
        What comes off each tapered face at the toe, mm.
    faces : sequence of str
        Of `FACES`: opposite ones are two apart.
    shaving : float
        Of the plane, mm.

    Notes
    -----
    Stroke k of n = off ÷ shaving starts k/n of the run from the toe, so that a place x from the toe
    is passed n·(1 − x/run) times, which takes off·(1 − x/run): the line. Lines are drawn on the
    two faces beside the one to be planed; those must not be planed before it, so opposite faces
    go together and the lines of the next pair are drawn on fresh wood.

    Raises
    ------
    EdgeError

    Examples
    --------
    >>> plan = taper_plan(720, 38, 120, 9.5, "ABCD", 0.5)
    >>> plan.toe, len(plan.strokes), round(plan.angle, 2)
    ((19.0, 19.0), 18, 0.91)
    """
    run = length - start
    if run <= 0:
        raise EdgeError(EdgeWrong.TAPER_BELOW_TOE)
    if off <= 0 or shaving <= 0:
        raise EdgeError(EdgeWrong.NO_TAPER)
    chosen = [face for face in FACES if face in faces]
    if not chosen:
        raise EdgeError(EdgeWrong.NO_FACES)
    ways = [sum(face in chosen for face in pair) for pair in (("A", "C"), ("B", "D"))]
    toe = thick - ways[0] * off, thick - ways[1] * off
    if min(toe) <= 0:
        most = thick / max(ways)
        raise EdgeError(TaperTooDeep(most))
    pairs = [tuple(face for face in pair if face in chosen) for pair in (("A", "C"), ("B", "D"))]
    rounds = tuple(
        tuple(TaperFace(face, ("B", "D") if face in "AC" else ("A", "C")) for face in pair) for pair in pairs if pair
    )
    number = max(1, math.ceil(off / shaving - 1e-9)) - 1
    bite = off / (number + 1)
    strokes = tuple(TaperStroke(run * (k + 1) / (number + 1), off - bite * (k + 1)) for k in range(number))
    return TaperPlan(start, run, off, toe, math.degrees(math.atan2(off, run)), rounds, strokes, 1)
