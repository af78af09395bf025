"""How the ends of two tenons that meet in a leg are mitred; nothing is glued there."""

from __future__ import annotations

from nullah.core.card import JointStage
from nullah.core.joints.making import BenchStep, Making
from nullah.core.operations.settings import by_rule
from nullah.core.operations.tenons import MitreEnd
from nullah.core.piece.frame import Frame
from nullah.core.piece.joint import Hold
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Side, side_at


def mitre_steps(making: Making) -> tuple[BenchStep, ...] | None:
    """Return the sawing of both ends; None for mitres that hold: they are told in words."""
    if making.joint.hold is not Hold.DRY:
        return None
    ends = [_end(making, making.first, making.second), _end(making, making.second, making.first)]
    sawn = tuple(each for each in ends if each is not None)
    return (BenchStep(JointStage.CUT, "both", sawn),) if len(sawn) == 2 else None


def _body(part: Part, overlap: Box, axis: Axis) -> Side:
    """Return on which side of an overlap most of a part lies, along an axis."""
    below = overlap.low[axis.value] - part.box.low[axis.value]
    return side_at(axis, part.box.high[axis.value] - overlap.high[axis.value] > below)


def _end(making: Making, own: Frame, other: Frame) -> MitreEnd | None:
    """Return the slant of one end: from its face towards the other's body to its tip; None where it lies otherwise."""
    part, mate = own.part, other.part
    overlap = part.box.overlap(mate.box)
    if overlap is None or part.grain is mate.grain:
        return None
    long, through = part.grain, mate.grain
    tip = _body(part, overlap, long).opposite
    body = _body(mate, overlap, through)
    if overlap.at(tip) != part.box.at(tip) or overlap.at(body) != part.box.at(body):
        return None
    end, face = own.surface(tip), own.surface(body)
    return MitreEnd(
        part=part.id,
        stock=own.stock,
        end=end,
        back=by_rule("back", overlap.size(long), end, making.marks),
        deep=by_rule("deep", overlap.size(through), face, making.marks),
    )
