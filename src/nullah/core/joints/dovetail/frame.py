"""Where a dovetail stands: what of its boards it takes, and which way its tails point."""

from __future__ import annotations

from nullah.core.fraction import Fraction
from nullah.core.joints.dovetail.tails import tails_of
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box


def tail_frame(joint: Joint, tail: Part, pin: Part) -> tuple[Box, Axis, Axis, Axis, bool] | None:
    """Return the overlap of a dovetail, the axes along the tails, across them and through, and which end.

    The last says whether the tails point towards the high end of the tail board. None where
    the boards do not make a corner.
    """
    overlap = tail.box.overlap(pin.box)
    if overlap is None or tail.grain is pin.grain or tails_of(joint) is None:
        return None
    along = tail.grain
    across = next(axis for axis in Axis if axis not in (along, tail.face))
    middle = (overlap.low[along.value] + overlap.high[along.value]) / 2
    high = middle > (tail.box.low[along.value] + tail.box.high[along.value]) / 2
    long = tail_length(joint, tail, along)
    if long is not None:
        end = tail.box.high[along.value] if high else tail.box.low[along.value]
        overlap = overlap.set(along, *((end - long, end) if high else (end, end + long)))
    return overlap, along, across, tail.face, high


def tail_length(joint: Joint, tail: Part, along: Axis) -> Fraction | None:
    """Return how long tails are whose board was cut to what lies between its mates; None where it was not.

    The mates stand as far apart as was found, not as planned: the tails of both ends are what is left of the board.
    """
    by = joint.laid_out_by
    return None if by is None else (tail.box.size(along) - by.over[along.value].length) / 2
