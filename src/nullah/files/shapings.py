"""Shapings in the project file: a kind, sides by their names, an axis, figures in mm."""

from __future__ import annotations

from itertools import chain
from math import isfinite

from nullah.core.lengths import LengthError
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.shaping import (
    Arch,
    Chamfer,
    Flat,
    LongBevel,
    Notch,
    OgeeFoot,
    RaisedPanel,
    RoundOver,
    Shaping,
    Slant,
    Slot,
    Taper,
    Traced,
)
from nullah.core.piece.space import Axis, Side
from nullah.files.records import coded, one_of, record


class _Shaping(NamedTuple):
    """What is taken off a board of one's own: a kind, the sides it is at, and its figures in mm."""

    kind: str
    sides: tuple[Side, ...] = ()
    axis: str = ""
    figures: tuple[float, ...] = ()
    points: tuple[Flat, ...] = ()


def _flat(shaping: Shaping) -> _Shaping:
    match shaping:
        case Taper(sides, end, start, toe):
            return _Shaping("taper", (end, *_sorted(sides)), figures=(start, toe))
        case Chamfer(edge, width):
            return _Shaping("chamfer", edge, figures=(width,))
        case RoundOver(edge, radius):
            return _Shaping("round-over", edge, figures=(radius,))
        case Arch(side, through, chord, rise):
            return _Shaping("arch", (side,), _axis(through), (chord, rise))
        case OgeeFoot(side, through, foot, run, rise, only):
            at = (side,) if only is None else (side, only)
            return _Shaping("ogee foot", at, _axis(through), (foot, run, rise))
        case LongBevel(edge, run, fall):
            return _Shaping("long bevel", edge, figures=(run, fall))
        case RaisedPanel(face, width, fall, edges):
            return _Shaping("raised panel", (face, *_sorted(edges)), figures=(width, fall))
        case Notch(low, high):
            return _Shaping("notch", figures=(*low, *high))
        case Traced(side, through, points):
            return _Shaping("traced edge", (side,), _axis(through), points=points)
        case Slot(along, middle, length, height):
            return _Shaping("slot", axis=_axis(along), figures=(*middle, length, height))
        case Slant(along, points, ends):
            return _Shaping("slant", axis=_axis(along), points=points, figures=ends or ())


def _sorted(sides: frozenset[Side]) -> list[Side]:
    return sorted(sides, key=lambda side: side.value)


def _axis(axis: Axis) -> str:
    return axis.name.lower()


def _shaped(found: _Shaping) -> Shaping:
    if not all(isfinite(figure) for figure in chain(found.figures, *found.points)):
        raise LengthError(f"the {found.kind} cannot be read: one of its figures is not a length")
    if found.kind == "traced edge" and not found.points:
        raise LengthError("the traced edge has no points")
    try:
        return _read(found)
    except (ValueError, KeyError, TypeError, IndexError) as error:
        raise LengthError(f"the {found.kind} cannot be read: it lacks a side, an axis or a figure") from error


def _read(found: _Shaping) -> Shaping:
    kind, sides, axis, f, points = found

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
            only = sides[1] if len(sides) > 1 else None
            return OgeeFoot(sides[0], through(), foot, run, rise, only)
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
        case "slot":
            u, v, length, height = f
            return Slot(through(), (u, v), length, height)
        case _:
            return Slant(through(), points, _ends(f))


def _ends(figures: tuple[float, ...]) -> tuple[float, float] | None:
    if not figures:
        return None
    start, end = figures
    return start, end


def _edge(sides: tuple[Side, ...]) -> tuple[Side, Side]:
    first, second = sides
    if first.axis is second.axis:
        raise ValueError("an edge lies between two sides that meet")
    return first, second


_KINDS = (
    "taper",
    "chamfer",
    "round-over",
    "arch",
    "ogee foot",
    "long bevel",
    "raised panel",
    "notch",
    "traced edge",
    "slant",
    "slot",
)
_SHAPING = record(_Shaping, {"kind": one_of(_KINDS)})
#: A shaping; what lacks a figure, a side or an axis is refused with a sentence.
SHAPING = coded(_SHAPING.form, _shaped, lambda shaping: _SHAPING.write(_flat(shaping)))
