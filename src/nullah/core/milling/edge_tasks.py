"""Tapers and shaped edges by name and figures: those a part has, and those that are typed."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import NamedTuple

from nullah.core.milling.edges import BevelRip, ShapedEdge, chamfer, long_bevel, raised_panel, round_over, thumbnail
from nullah.core.milling.tapers import FACES, TaperPlan, taper_plan
from nullah.core.piece import shaping
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Shaping

Planned = ShapedEdge | TaperPlan | BevelRip

#: What a taper is planed with, mm of shaving, where nothing else is said.
TAPER_SHAVING = 0.5


class EdgeShape(NamedTuple):
    """A kind of task: its title, what its figures are called with a usual value (mm, degrees or a number), its plan.

    The faces of a leg are 1 to 4 going round it, so 12 are two that meet, 13 two across from each other.
    """

    title: str
    figures: tuple[tuple[str, float], ...]
    plan: Callable[..., Planned]


def _taper(length: float, thick: float, start: float, off: float, faces: float, shaving: float) -> TaperPlan:
    chosen = {FACES[int(digit) - 1] for digit in str(round(faces)) if digit in "1234"}
    return taper_plan(length, thick, start, off, sorted(chosen), shaving)


KINDS: dict[str, EdgeShape] = {
    "taper": EdgeShape(
        "Tapered leg",
        (
            ("leg length", 720),
            ("thick", 38),
            ("begins below the top", 120),
            ("off each face", 9.5),
            ("faces", 1234),
            ("shaving", TAPER_SHAVING),
        ),
        _taper,
    ),
    "chamfer": EdgeShape("Chamfer", (("on the face", 4), ("down the edge", 4)), chamfer),
    "round": EdgeShape("Round-over", (("radius", 6), ("within", 0.1)), round_over),
    "thumbnail": EdgeShape("Thumbnail", (("wide", 12), ("shoulder", 2), ("radius", 6), ("board thick", 16)), thumbnail),
    "panel": EdgeShape(
        "Raised panel", (("wide", 40), ("falls", 6), ("board thick", 14), ("groove", 8), ("enters", 8)), raised_panel
    ),
    "bevel": EdgeShape(
        "Long bevel", (("board wide", 120), ("board thick", 18), ("degrees", 22), ("kerf", 1.5)), long_bevel
    ),
}


class EdgeTask(NamedTuple):
    """A task with its figures, and whose it is."""

    kind: str
    figures: tuple[float, ...]
    part: str = ""

    def planned(self) -> Planned:
        """Plan it; `EdgeError` or `TaperError` where it cannot be planed so."""
        return KINDS[self.kind].plan(*self.figures)


def tasks_of(part: Part) -> Iterator[EdgeTask]:
    """Yield what the shapings of a part ask of a plane."""
    for each in part.shapings:
        found = _task(part, each)
        if found is not None:
            yield found


def _task(part: Part, each: Shaping) -> EdgeTask | None:
    thick = float(part.thickness)
    match each:
        case shaping.Taper(sides, end, start, toe):
            long = float(part.box.size(end.axis))
            opposite = len(sides) == 2 and len({side.axis for side in sides}) == 1
            faces = 13 if opposite else (1, 12, 123, 1234)[len(sides) - 1]
            return EdgeTask("taper", (long, thick, start, toe, float(faces), TAPER_SHAVING), part.name)
        case shaping.Chamfer(_, width):
            return EdgeTask("chamfer", (width, width), part.name)
        case shaping.LongBevel(_, run, fall):
            return EdgeTask("chamfer", (run, fall), part.name)
        case shaping.RoundOver(_, radius):
            return EdgeTask("round", (radius, 0.1), part.name)
        case shaping.RaisedPanel(_, width, fall):
            return EdgeTask("panel", (width, fall, thick, 0.0, 0.0), part.name)
    return None
