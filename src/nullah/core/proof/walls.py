"""Walls: what a channel leaves of its board, to its faces and to other channels."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from nullah.core.card import Remark, Severity
from nullah.core.fraction import Fraction
from nullah.core.lengths import Direction, Length
from nullah.core.piece.faults import FaultKind, ProofFact, ThinBetween, ThinEdge, ThinFloor
from nullah.core.piece.joint import Joint
from nullah.core.piece.overlap import channel_of, lines
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box
from nullah.core.proof.finding import Finding, ProofInput, give_fix
from nullah.core.refs import quantity_ref

_Sunk = tuple[Box, Joint]


def thin_walls(case: ProofInput, host: Part) -> Iterator[Finding]:
    """Say where less than a third of a board's thickness is left (common practice)."""
    sunk = list(dict.fromkeys(_sunk(case, host)))
    third = host.box.size(host.face) / 3
    said: set[tuple[str, ...]] = set()
    for channel, joint in sunk:
        for axis in Axis:
            for wall in _to_faces(host, channel, axis):
                least = joint.type.least_wall(channel, third)
                if wall < least:
                    key = (joint.names.depth or joint.id, axis.name)
                    if key not in said:
                        said.add(key)
                        yield _thin(case, host, channel, joint, axis, wall, least)
    for (one, joint), (two, other) in combinations(sunk, 2):
        axis = host.face
        if joint.type.may_meet(case.parts[joint.second], other.type, case.parts[other.second]):
            # Two rails that meet in a leg: their mortises may all but meet.
            continue
        between = _between(one, two, axis)
        if between is not None and between < third:
            key = (joint.names.depth or joint.id, "both")
            if key in said:
                continue
            said.add(key)
            fact = ThinBetween(
                host.id, channel_of(host, one), channel_of(host, two), Length(max(between, Fraction(0))), Length(third)
            )
            fixes = give_fix(case, joint.names.depth, (host.box.size(axis) - third) / 2, Direction.DOWN)
            weight = Severity.FAILURE if between <= 0 else Severity.WARNING
            yield Finding(
                FaultKind.THIN, Remark(fact, weight, fixes, quantity_ref(joint.names.depth)), (host.id,), joint.id, one
            )


def _sunk(case: ProofInput, host: Part) -> Iterator[_Sunk]:
    for joint in case.sunk_into.get(host.id, ()):
        if not joint.type.enters:
            continue
        for box in lines(joint, host, case.parts[joint.second]).first_loses:
            inside = box.overlap(host.box)
            if inside is not None:
                yield inside, joint


def _to_faces(host: Part, channel: Box, axis: Axis) -> Iterator[Fraction]:
    a = axis.value
    if axis is host.grain:
        return
    for wall in (channel.low[a] - host.box.low[a], host.box.high[a] - channel.high[a]):
        if wall > 0:
            yield wall


def _between(one: Box, two: Box, axis: Axis) -> Fraction | None:
    """Return the wood between two channels along an axis, if they face each other across it."""
    others = [a for a in Axis if a is not axis]
    if any(one.low[a.value] >= two.high[a.value] or two.low[a.value] >= one.high[a.value] for a in others):
        return None
    low, high = sorted((one, two), key=lambda box: box.low[axis.value])
    if low.high[axis.value] > high.low[axis.value]:
        return None
    return high.low[axis.value] - low.high[axis.value]


def _thin(
    case: ProofInput, host: Part, channel: Box, joint: Joint, axis: Axis, wall: Fraction, least: Fraction
) -> Finding:
    kind = joint.type.channel(host, channel)
    fact: ProofFact
    if axis is host.face:
        fact = ThinFloor(host.id, kind, Length(wall), Length(host.box.size(axis)), Length(least))
        fixes = give_fix(case, joint.names.depth, host.box.size(axis) - least, Direction.DOWN)
    else:
        fact = ThinEdge(host.id, kind, Length(wall), Length(least))
        fixes = ()
    return Finding(
        FaultKind.THIN,
        Remark(fact, Severity.WARNING, fixes, quantity_ref(joint.names.depth)),
        (host.id,),
        joint.id,
        channel,
    )
