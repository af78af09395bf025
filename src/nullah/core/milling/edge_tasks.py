"""Tapers and shaped edges by name and figures: those a part has, and those that are typed."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from nullah.core.catalogue import N_
from nullah.core.milling.edges import BevelRip, ShapedEdge, chamfer, long_bevel, raised_panel, round_over, thumbnail
from nullah.core.milling.tapers import FACES, TaperPlan, taper_plan
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece import shaping
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Shaping

Planned = ShapedEdge | TaperPlan | BevelRip

#: What a taper is planed with, mm of shaving, where nothing else is said.
TAPER_SHAVING = 0.5


class EdgeFigure(NamedTuple):
    """A figure of a task, what it is called, and its usual value: mm; where it is no `length` degrees or a number."""

    title: str
    usual: float
    length: bool = True


class EdgeShape(NamedTuple):
    """A kind of task: its title, its figures, its plan.

    The faces of a leg are 1 to 4 going round it, so 12 are two that meet, 13 two across from each other.
    """

    title: str
    figures: tuple[EdgeFigure, ...]
    plan: Callable[..., Planned]

    @property
    def usual(self) -> tuple[float, ...]:
        """The usual figures, mm, degrees or numbers."""
        return tuple(figure.usual for figure in self.figures)


def _taper(length: float, thick: float, start: float, off: float, faces: float, shaving: float) -> TaperPlan:
    chosen = {FACES[int(digit) - 1] for digit in str(round(faces)) if digit in "1234"}
    return taper_plan(length, thick, start, off, sorted(chosen), shaving)


KINDS: dict[str, EdgeShape] = {
    "taper": EdgeShape(
        N_("Tapered leg"),
        (
            EdgeFigure(N_("leg length"), 720),
            EdgeFigure(N_("thick"), 38),
            EdgeFigure(N_("begins below the top"), 120),
            EdgeFigure(N_("off each face"), 9.5),
            EdgeFigure(N_("faces"), 1234, length=False),
            EdgeFigure(N_("shaving"), TAPER_SHAVING),
        ),
        _taper,
    ),
    "chamfer": EdgeShape(
        N_("Chamfer"), (EdgeFigure(N_("on the face"), 4), EdgeFigure(N_("down the edge"), 4)), chamfer
    ),
    "round": EdgeShape(N_("Round-over"), (EdgeFigure(N_("radius"), 6), EdgeFigure(N_("within"), 0.1)), round_over),
    "thumbnail": EdgeShape(
        N_("Thumbnail"),
        (
            EdgeFigure(N_("wide"), 12),
            EdgeFigure(N_("shoulder"), 2),
            EdgeFigure(N_("radius"), 6),
            EdgeFigure(N_("board thick"), 16),
        ),
        thumbnail,
    ),
    "panel": EdgeShape(
        N_("Raised panel"),
        (
            EdgeFigure(N_("wide"), 40),
            EdgeFigure(N_("falls"), 6),
            EdgeFigure(N_("board thick"), 14),
            EdgeFigure(N_("groove"), 8),
            EdgeFigure(N_("enters"), 8),
        ),
        raised_panel,
    ),
    "bevel": EdgeShape(
        N_("Long bevel"),
        (
            EdgeFigure(N_("board wide"), 120),
            EdgeFigure(N_("board thick"), 18),
            EdgeFigure(N_("degrees"), 22, length=False),
            EdgeFigure(N_("kerf"), 1.5),
        ),
        long_bevel,
    ),
}


class EdgeTask(NamedTuple):
    """A task with its figures, and whose it is."""

    kind: str
    figures: tuple[float, ...]
    part: str = ""

    def planned(self) -> Planned:
        """Plan it; `EdgeError` where it cannot be planed so."""
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
