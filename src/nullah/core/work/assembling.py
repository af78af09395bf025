"""The order in which parts really go together: what is only nailed, slotted or laid in goes in as late as it can."""

from __future__ import annotations

from functools import lru_cache, reduce
from operator import or_
from typing import NamedTuple

from nullah.core.identity import IdentityKey
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


def sequence(assembly: Assembly, group: str, unit: str = "") -> tuple[Placing, ...]:
    """Return the order in which the parts of a group go together; the first is what the others go to.

    Found backwards: of what can be drawn off, what has no glue comes off first, then what has fewest joints. Units that
    are made up by themselves come off whole. Where nothing comes off by itself, those come off together that the proof
    takes off together.

    Parameters
    ----------
    assembly : Assembly
    group : str
        What moves as one; empty for the main piece.
    unit : str
        The name of a unit, of which the own parts are wanted.
    """
    return _sequence(IdentityKey(assembly), group, unit)


@lru_cache(maxsize=128)
def _sequence(key: IdentityKey[Assembly], group: str, unit: str) -> tuple[Placing, ...]:
    assembly = key.carried
    own = next((each.parts for each in assembly.units if each.name == unit), ())
    parts = tuple(part for part in assembly.parts if (part.id in own if unit else part.group == group))
    ids = {part.id for part in parts}
    joints = tuple(joint for joint in assembly.joints if joint.first in ids and joint.second in ids)
    if not parts:
        return ()
    floated = tuple(part._replace(box=part.box.in_floats()) for part in parts)
    blocks = blockers(floated, _floated(joints))
    bodies = _bodies(parts, () if unit else tuple(each.parts for each in assembly.units))
    made_up = {frozenset(each.parts) for each in assembly.units} - ({frozenset(own)} if unit else set())
    left, found = sum(bodies), []
    while sum(body & left > 0 for body in bodies) > 1:
        there = [body for body in bodies if body & left]
        free = [body for body in there if any(not _blockers_of(body, by) & left & ~body for by in blocks.values())]
        off = min(free, key=lambda body: _rank(parts, joints, body, left)) if free else _together(parts, joints, left)
        # What the proof takes off together takes its units along.
        gone = sum(body for body in there if body & off)
        left &= ~gone
        rest, names = _names(parts, left), _names(parts, gone)
        engaged = tuple(
            joint
            for joint in joints
            if _between(joint, names, rest)
            or (
                {joint.first, joint.second} <= names
                and not any({joint.first, joint.second} <= each for each in made_up)
            )
        )
        found.append(Placing(tuple(part.id for part in parts if part.id in names), engaged))
    base = tuple(part.id for part in parts if part.id in _names(parts, left))
    return _with_what_holds(joints, [Placing(base, ()), *reversed(found)])


def _with_what_holds(joints: tuple[Joint, ...], placings: list[Placing]) -> tuple[Placing, ...]:
    """Return placings with what lies loose until something later holds it, such as a button, going in with that.

    A proof takes parts off straight and far; a button is turned out of its slot.
    """
    number = {part: index for index, each in enumerate(placings) for part in each.parts}
    moved: dict[str, int] = {}
    for part, index in number.items():
        mates = {
            joint.second if joint.first == part else joint.first: joint.hold
            for joint in joints
            if part in (joint.first, joint.second)
        }
        lies = [number[mate] for mate, hold in mates.items() if hold is Hold.DRY]
        held = [number[mate] for mate, hold in mates.items() if hold.in_a_row]
        if lies and held and len(lies) + len(held) == len(mates) and min(held) > index:
            moved[part] = max(min(held), *lies)
    if not moved:
        return tuple(placings)
    found = []
    for index, each in enumerate(placings):
        parts = tuple(part for part in each.parts if part not in moved)
        loose = tuple(part for part, at in moved.items() if at == index)
        own = tuple(joint for joint in each.joints if not {joint.first, joint.second} & moved.keys())
        theirs = tuple(joint for joint in joints if {joint.first, joint.second} & set(loose) and joint not in own)
        found.append(Placing((*loose, *parts), (*own, *theirs)))
    return tuple(each for each in found if each.parts)


def _bodies(parts: tuple[Part, ...], units: tuple[tuple[str, ...], ...]) -> list[int]:
    """Return what goes in whole, as masks of the parts: units, and each other part by itself."""
    unit_of = {part: number for number, each in enumerate(units) for part in each}
    found: dict[object, int] = {}
    for index, part in enumerate(parts):
        key = unit_of.get(part.id, part.id)
        found[key] = found.get(key, 0) | 1 << index
    return list(found.values())


def _blockers_of(body: int, by: list[int]) -> int:
    return reduce(or_, (mask for index, mask in enumerate(by) if body >> index & 1))


def _names(parts: tuple[Part, ...], mask: int) -> set[str]:
    return {part.id for index, part in enumerate(parts) if mask >> index & 1}


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


def _rank(parts: tuple[Part, ...], joints: tuple[Joint, ...], body: int, left: int) -> tuple[bool, int, int]:
    """Say how soon a body comes off: without glue first, then with fewest joints, so that what has most is the base."""
    names, rest = _names(parts, body), _names(parts, left & ~body)
    engaged = [joint for joint in joints if _between(joint, names, rest)]
    glued = sum(joint.hold in _GLUED for joint in engaged)
    return glued > 0, glued, -body


def _together(parts: tuple[Part, ...], joints: tuple[Joint, ...], left: int) -> int:
    """Return what the proof takes off at once where no part comes off by itself; any one part where nothing does."""
    there = [index for index in range(len(parts)) if left >> index & 1]
    order = assembly_order(tuple(parts[index] for index in there), joints)
    if not order.steps:
        return 1 << there[-1]
    last = set(order.steps[-1].parts)
    return sum(1 << index for index in there if parts[index].id in last)
