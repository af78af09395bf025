"""What a joint takes out of each of its two parts, in each part's own measures.

A part is measured along its grain from its low end, across from its reference edge (front, lower or
left) and through from its low face: what a rule and a gauge can be laid on.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from nullah.core.fraction import Fraction
from nullah.core.identity import kept_by_identity
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.joint import Joint
from nullah.core.piece.overlap import lines
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box

Span = tuple[Fraction, Fraction]


class Cutout(NamedTuple):
    """A box of waste in a part: from where to where along, across and through it, mm."""

    along: Span
    across: Span
    through: Span

    def size(self, way: int) -> Fraction:
        """Return its size along (0), across (1) or through (2), mm.

        Parameters
        ----------
        way : int
            Along the grain 0, across it 1, through 2.
        """
        low, high = self[way]
        return high - low


class Sizes(NamedTuple):
    """A part's own sizes: along, across, through, mm."""

    along: Fraction
    across: Fraction
    through: Fraction


def sizes_of(part: Part) -> Sizes:
    """Return a part's sizes in its own measures."""
    return Sizes(*(part.box.size(axis) for axis in axes_of(part)))


def axes_of(part: Part) -> tuple[Axis, Axis, Axis]:
    """Return the axes along, across and through a part."""
    return part.grain, part.across, part.face


def in_own_measures(part: Part, box: Box) -> Cutout | None:
    """Return a box of waste in a part's own measures; None where it takes nothing of it."""
    inside = part.box.overlap(box)
    if inside is None:
        return None
    spans = [
        (inside.low[axis.value] - part.box.low[axis.value], inside.high[axis.value] - part.box.low[axis.value])
        for axis in axes_of(part)
    ]
    return Cutout(*spans)


class SlopedWaste(NamedTuple):
    """Waste that is a triangle: its corners, (along, the other way) in mm, seen on the face or on the edge."""

    corners: tuple[tuple[Fraction, Fraction], ...]
    on_face: bool


def spans_of(part: Part, box: Box) -> Cutout:
    """Return where a box lies in a part's own measures, though it may have no thickness there."""
    spans = [
        (box.low[axis.value] - part.box.low[axis.value], box.high[axis.value] - part.box.low[axis.value])
        for axis in axes_of(part)
    ]
    return Cutout(*spans)


def mitred(part: Part, other: Part) -> SlopedWaste | None:
    """Return what a mitre takes off a part where the other one fills the same space; None where they do not meet.

    The line runs from the outer corner at its end to the inner one: inside is where the other part goes on.
    """
    overlap = part.box.overlap(other.box)
    if overlap is None or part.grain is other.grain:
        return None
    on_face = part.face is other.face
    way = 1 if on_face else 2
    axis = axes_of(part)[way]
    spans = spans_of(part, overlap)
    at_far_end = spans.along[1] == part.box.size(part.grain)
    end, back = (spans.along[1], spans.along[0]) if at_far_end else (spans.along[0], spans.along[1])
    goes_up = (
        other.box.low[axis.value] + other.box.high[axis.value] > overlap.low[axis.value] + overlap.high[axis.value]
    )
    inner, outer = (spans[way][1], spans[way][0]) if goes_up else (spans[way][0], spans[way][1])
    return SlopedWaste(((end, outer), (end, inner), (back, inner)), on_face)


def subtract(box: Box, others: Iterable[Box]) -> tuple[Box, ...]:
    """Return what is left of a box without some others, in boxes that do not overlap.

    Examples
    --------
    >>> whole = Box((0, 0, 0), (9, 9, 9))
    >>> [int(left.volume) for left in subtract(whole, [Box((0, 0, 3), (9, 9, 6))])]
    [243, 243]
    """
    left = [box]
    for other in others:
        left = [piece for each in left for piece in _without(each, other)]
    return tuple(left)


def _without(box: Box, other: Box) -> Iterator[Box]:
    hole = box.overlap(other)
    if hole is None:
        yield box
        return
    rest = box
    for axis in Axis:
        low, high = rest.low[axis.value], rest.high[axis.value]
        from_, to = hole.low[axis.value], hole.high[axis.value]
        if low < from_:
            yield rest.set(axis, low, from_)
        if to < high:
            yield rest.set(axis, to, high)
        rest = rest.set(axis, from_, to)


@kept_by_identity(4096)
def taken(joint: Joint, first: Part, second: Part) -> tuple[tuple[Cutout, ...], tuple[Cutout, ...]]:
    """Return what a joint that shares in boxes takes out of its first and its second part.

    A dovetail's sockets are slanted and a mitre's are half a box: those families lay themselves out.
    """
    if not joint.type.in_boxes:
        return (), ()
    shared = lines(joint, first, second)
    own = (in_own_measures(first, box) for box in shared.first_loses)
    rest = () if shared.overlap is None else subtract(shared.overlap, shared.second_keeps)
    other = (in_own_measures(second, box) for box in rest)
    return tuple(cut for cut in own if cut is not None), tuple(cut for cut in other if cut is not None)
