"""The order in which parts really go together: what is only nailed, slotted or laid in goes in as late as it can."""

from __future__ import annotations

from functools import lru_cache
from typing import NamedTuple

from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Hold, Joint
from nullah.core.piece.order import assembly_order, blockers
from nullah.core.piece.part import Part

#: What is glued as parts go together.
_GLUED = frozenset({Hold.GLUE})


class Placing(NamedTuple):
    """Some parts go to what is there: by which joints, and whether any of them is glued."""

    parts: tuple[str, ...]
    joints: tuple[Joint, ...]

    @property
    def glued(self) -> tuple[Joint, ...]:
        """The joints that are glued."""
        return tuple(joint for joint in self.joints if joint.hold in _GLUED)


@lru_cache(maxsize=32)
def sequence(assembly: Assembly, group: str) -> tuple[Placing, ...]:
    """Return the order in which the parts of a group go together; the first is what the others go to.

    Found backwards: of the parts that can be drawn off, those without glue come off first, then those with fewest
    joints. Where no part comes off by itself, those come off together that the proof takes off together.
    """
    parts = tuple(part for part in assembly.parts if part.group == group)
    ids = {part.id for part in parts}
    joints = tuple(joint for joint in assembly.joints if joint.first in ids and joint.second in ids)
    if not parts:
        return ()
    floated = tuple(part._replace(box=part.box.in_floats()) for part in parts)
    blocks = blockers(floated, _floated(joints))
    left, found = (1 << len(parts)) - 1, []
    while left & (left - 1):
        free = [
            index
            for index in range(len(parts))
            if left >> index & 1 and any(not by[index] & left & ~(1 << index) for by in blocks.values())
        ]
        off = (
            {min(free, key=lambda index: _rank(parts, joints, index, left))} if free else _together(parts, joints, left)
        )
        gone = sum(1 << index for index in off)
        left &= ~gone
        rest = {parts[index].id for index in range(len(parts)) if left >> index & 1}
        names = {parts[index].id for index in off}
        engaged = tuple(
            joint for joint in joints if _between(joint, names, rest) or {joint.first, joint.second} <= names
        )
        found.append(Placing(tuple(part.id for part in parts if part.id in names), engaged))
    base = parts[left.bit_length() - 1]
    return (Placing((base.id,), ()), *reversed(found))


def _floated(joints: tuple[Joint, ...]) -> tuple[Joint, ...]:
    return tuple(
        joint._replace(
            channels=tuple(box.in_floats() for box in joint.channels),
            shares=tuple(box.in_floats() for box in joint.shares),
        )
        for joint in joints
    )


def _between(joint: Joint, one: set[str], other: set[str]) -> bool:
    return (joint.first in one and joint.second in other) or (joint.second in one and joint.first in other)


def _rank(parts: tuple[Part, ...], joints: tuple[Joint, ...], index: int, left: int) -> tuple[bool, int, int]:
    """Say how soon a part comes off: without glue first, then with fewest joints, so that what has most is the base."""
    name = parts[index].id
    rest = {parts[each].id for each in range(len(parts)) if left >> each & 1}
    engaged = [joint for joint in joints if name in (joint.first, joint.second) and {joint.first, joint.second} <= rest]
    glued = sum(joint.hold in _GLUED for joint in engaged)
    return glued > 0, glued, -index


def _together(parts: tuple[Part, ...], joints: tuple[Joint, ...], left: int) -> set[int]:
    """Return what the proof takes off at once where no part comes off by itself; any one part where nothing does."""
    there = [index for index in range(len(parts)) if left >> index & 1]
    order = assembly_order(tuple(parts[index] for index in there), joints)
    if not order.steps:
        return {there[-1]}
    last = set(order.steps[-1].parts)
    return {index for index in there if parts[index].id in last}
