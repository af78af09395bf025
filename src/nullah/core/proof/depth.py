"""Depth: how far parts go into each other, and what is left of them there."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark, Severity
from nullah.core.fraction import Fraction
from nullah.core.lengths import Direction, Length
from nullah.core.piece.faults import FaultKind, Shallow, ThinTongue
from nullah.core.piece.joint import Joint
from nullah.core.piece.overlap import lines
from nullah.core.piece.space import Axis, Box
from nullah.core.proof.finding import Finding, ProofInput, give_fix
from nullah.core.refs import quantity_ref

#: So much of a part's thickness must be left where it enters another (practice, no published source): a tenon is a
#: third; a rabbet may take more than half, but not nearly all.
_LEFT = Fraction(1, 5)


def too_shallow(case: ProofInput, joint: Joint) -> Iterator[Finding]:
    """Say where a part goes too little way into another, or too little is left of it there."""
    first, second = case.parts.get(joint.first), case.parts.get(joint.second)
    if first is None or second is None or joint.type.touches or not joint.type.in_boxes:
        return
    shared = lines(joint, first, second)
    if shared.overlap is None or not shared.first_loses or not shared.second_keeps:
        return  # They do not meet as this joint wants; that is said by another check.
    axis = joint.type.depth_axis(first, second, shared.first_loses[0])
    reach = max(share.size(axis) for share in shared.second_keeps)
    least = joint.type.least_reach(joint, first, second)
    if reach < least:
        name = joint.names.reach or joint.names.depth
        yield _finding(
            joint, shared.overlap, Shallow(first.id, second.id, Length(reach), Length(least)), case, name, least
        )
    through = second.face
    left = _left(shared.second_keeps, through)
    whole = second.box.size(through)
    if shared.overlap.size(through) == whole and left < whole * _LEFT:
        fact = ThinTongue(second.id, first.id, Length(left), Length(whole), Length(whole * _LEFT))
        yield _finding(joint, shared.overlap, fact, case, joint.names.guest, whole * _LEFT)


def _left(shares: tuple[Box, ...], axis: Axis) -> Fraction:
    """Return how much of a part's thickness its shares have in all, each place once, mm."""
    spans = sorted({(share.low[axis.value], share.high[axis.value]) for share in shares})
    left, end = Fraction(0), spans[0][0]
    for low, high in spans:
        left += max(high - max(low, end), Fraction(0))
        end = max(end, high)
    return left


def _finding(
    joint: Joint, place: Box, fact: Shallow | ThinTongue, case: ProofInput, name: str, least: Fraction
) -> Finding:
    fixes = give_fix(case, name, least, Direction.UP)
    remark = Remark(fact, Severity.WARNING, fixes, quantity_ref(name))
    return Finding(FaultKind.THIN, remark, (joint.first, joint.second), joint.id, place)
