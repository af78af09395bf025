"""Placing boards of one's own on the views: what the pointer takes hold of, where that goes, what it snaps to."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from nullah.core.forms.own_boards import OwnBoard, next_own_id
from nullah.core.fraction import Fraction
from nullah.core.lengths import Length, mm
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.form import Assembly
from nullah.core.piece.overlap import contact
from nullah.core.piece.part import Part
from nullah.core.piece.sight import ViewPlane
from nullah.core.piece.space import Axis, Box, Side, around, side_at
from nullah.core.plan import Plan

_ZERO = Fraction(0)
Flat = tuple[float, float]


class Grip(NamedTuple):
    """What was taken hold of: a part on a view, as a whole or by one side, and where, mm of the piece."""

    plane: ViewPlane
    part: Part
    side: Side | None
    at: Flat

    @property
    def whole(self) -> bool:
        """Whether the part moves as a whole."""
        return self.side is None


def added_board(plan: Plan, own: tuple[OwnBoard, ...]) -> OwnBoard:
    """Return a new board: lying on top of what is there, or where the piece begins."""
    at = (_ZERO, _ZERO, _ZERO)
    if plan.parts:
        room = around(tuple(part.box for part in plan.parts))
        at = (room.low[0], room.low[1], room.high[2])
    new = next_own_id(own)
    place = (Length(at[0]), Length(at[1]), Length(at[2]))
    return OwnBoard(new, f"board {new.removeprefix('own')}", (mm(300), mm(120), mm(18)), place)


def neighbours(assembly: Assembly, part: Part) -> tuple[Part, ...]:
    """Return the parts that overlap or touch a part."""
    others = (other for other in assembly.parts if other.id != part.id)
    return tuple(other for other in others if contact(part, other) is not None)


def gripped(plane: ViewPlane, part: Part, at: Flat, near: float) -> Grip:
    """Take hold of a part at a place of a view: by a side that is nearer than `near` mm, or whole."""
    best: tuple[float, Side | None] = (near, None)
    for axis, place in zip(plane.axes[:2], at, strict=True):
        # A thin board is taken as a whole in its middle.
        reach = min(near, float(part.box.size(axis)) / 4)
        for high in (False, True):
            off = abs(float(part.box.at(side_at(axis, high))) - place)
            if off < reach and off < best[0]:
                best = (off, side_at(axis, high))
    return Grip(plane, part, best[1], at)


def moved(
    assembly: Assembly, grip: Grip, to: Flat, near: float, rounded: Callable[[Fraction], Fraction]
) -> tuple[dict[str, Fraction], Box]:
    """Return the figures and the box of a part that is dragged.

    Parameters
    ----------
    to : (right, up)
        Where the pointer is, mm of the piece.
    near : float
        How close, mm, a side must come to another part's to snap to it.
    rounded : callable
        Brings a figure that does not snap to the smallest mark.
    """
    part, box = grip.part, grip.part.box
    found: dict[str, Fraction] = {}
    for axis, start, end in zip(grip.plane.axes[:2], grip.at, to, strict=True):
        by = Fraction(round((end - start) * 1000), 1000)
        marks = _marks(assembly, part, axis)
        if grip.side is None:
            low = box.low[axis.value] + by
            size = box.size(axis)
            low = _snapped(low, (*marks, *(mark - size for mark in marks)), near, rounded)
            box = box.set(axis, low, low + size)
            found[f"{part.id}.{axis.name.lower()}"] = low
        elif grip.side.axis is axis:
            at = _snapped(box.at(grip.side) + by, marks, near, rounded)
            fixed = box.at(grip.side.opposite)
            if grip.side.high:
                at = max(at, fixed + 1)
                box = box.set(axis, fixed, at)
            else:
                at = min(at, fixed - 1)
                box = box.set(axis, at, fixed)
                found[f"{part.id}.{axis.name.lower()}"] = at
            found[f"{part.id}.{_word(part, axis)}"] = box.size(axis)
    return found, box


def _word(part: Part, axis: Axis) -> str:
    return "length" if axis is part.grain else "thickness" if axis is part.face else "width"


def _marks(assembly: Assembly, part: Part, axis: Axis) -> tuple[Fraction, ...]:
    """Return where the sides of all other parts lie along an axis, and the floor."""
    others = (other.box for other in assembly.parts if other.id != part.id)
    return tuple(dict.fromkeys((_ZERO, *(at for box in others for at in (box.low[axis.value], box.high[axis.value])))))


def _snapped(
    value: Fraction, marks: Iterable[Fraction], near: float, rounded: Callable[[Fraction], Fraction]
) -> Fraction:
    nearest = min(marks, key=lambda mark: abs(mark - value), default=value)
    return nearest if abs(nearest - value) < near else rounded(value)
