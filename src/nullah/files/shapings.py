"""Shapings in the project file: a kind, sides by their names, an axis, figures in mm."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import chain
from math import isfinite
from typing import Any

from nullah.core.lengths import LengthError
from nullah.core.piece.shaping import (
    Arch,
    Chamfer,
    LongBevel,
    Notch,
    OgeeFoot,
    RaisedPanel,
    RoundOver,
    Shaping,
    Slant,
    Taper,
    Traced,
)
from nullah.core.piece.space import Axis, Side

_Points = Sequence[tuple[float, float]]


def shaping_data(shaping: Shaping) -> dict[str, Any]:
    """Give a shaping as data for the file."""
    match shaping:
        case Taper(sides, end, start, toe):
            return _data("taper", (end, *sorted(sides, key=lambda s: s.value)), figures=(start, toe))
        case Chamfer(edge, width):
            return _data("chamfer", edge, figures=(width,))
        case RoundOver(edge, radius):
            return _data("round-over", edge, figures=(radius,))
        case Arch(side, through, chord, rise):
            return _data("arch", (side,), through, (chord, rise))
        case OgeeFoot(side, through, foot, run, rise):
            return _data("ogee foot", (side,), through, (foot, run, rise))
        case LongBevel(edge, run, fall):
            return _data("long bevel", edge, figures=(run, fall))
        case RaisedPanel(face, width, fall, edges):
            return _data("raised panel", (face, *sorted(edges, key=lambda s: s.value)), figures=(width, fall))
        case Notch(low, high):
            return _data("notch", figures=(*low, *high))
        case Traced(side, through, points):
            return _data("traced edge", (side,), through, points=points)
        case Slant(along, points, ends):
            return _data("slant", axis=along, points=points, figures=ends or ())


def _data(
    kind: str, sides: Sequence[Side] = (), axis: Axis | None = None, figures: Sequence[float] = (), points: _Points = ()
) -> dict[str, Any]:
    return {
        "kind": kind,
        "sides": [side.value for side in sides],
        "axis": axis.name.lower() if axis is not None else "",
        "figures": list(figures),
        "points": [list(point) for point in points],
    }


def read_shaping(kind: str, sides: Sequence[str], axis: str, figures: Sequence[float], points: _Points) -> Shaping:
    """Make a shaping of what stands in a file.

    Raises
    ------
    LengthError
        With a sentence, if figures or sides are missing or make no sense.
    """
    if not all(isfinite(figure) for figure in chain(figures, *points)):
        raise LengthError(f"The {kind} cannot be read: one of its figures is not a length.")
    try:
        found = _read(kind, [Side(side) for side in sides], axis, list(figures), tuple(points))
    except (ValueError, KeyError, TypeError, IndexError) as error:
        raise LengthError(f"The {kind} cannot be read: it lacks a side, an axis or a figure.") from error
    if kind == "traced edge" and not points:
        raise LengthError("The traced edge has no points.")
    return found


def _read(kind: str, sides: list[Side], axis: str, f: list[float], points: tuple[tuple[float, float], ...]) -> Shaping:
    def through() -> Axis:
        return Axis[axis.upper()]

    match kind:
        case "taper":
            start, toe = f
            return Taper(frozenset(sides[1:]), sides[0], start, toe)
        case "chamfer":
            (width,) = f
            return Chamfer(_edge(sides), width)
        case "round-over":
            (radius,) = f
            return RoundOver(_edge(sides), radius)
        case "arch":
            chord, rise = f
            return Arch(sides[0], through(), chord, rise)
        case "ogee foot":
            foot, run, rise = f
            return OgeeFoot(sides[0], through(), foot, run, rise)
        case "long bevel":
            run, fall = f
            return LongBevel(_edge(sides), run, fall)
        case "raised panel":
            width, fall = f
            return RaisedPanel(sides[0], width, fall, frozenset(sides[1:]))
        case "notch":
            x, y, z, x2, y2, z2 = f
            return Notch((x, y, z), (x2, y2, z2))
        case "traced edge":
            return Traced(sides[0], through(), points)
        case _:
            return Slant(through(), points, _ends(f))


def _ends(figures: list[float]) -> tuple[float, float] | None:
    if not figures:
        return None
    start, end = figures
    return start, end


def _edge(sides: list[Side]) -> tuple[Side, Side]:
    first, second = sides
    if first.axis is second.axis:
        raise ValueError("an edge lies between two sides that meet")
    return first, second
