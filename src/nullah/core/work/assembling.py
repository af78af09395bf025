"""The order in which parts really go together: what is only nailed, slotted or laid in goes in as late as it can."""

from __future__ import annotations

from collections.abc import Iterator
from functools import reduce
from operator import or_

from nullah.core.identity import SameAgain, kept_by_identity
from nullah.core.named_tuple import NamedTuple
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
    own = next((each.parts for each in assembly.units if each.name == unit), ())
    parts = tuple(part for part in assembly.parts if (part.id in own if unit else part.group == group))
    ids = {part.id for part in parts}
    joints = tuple(joint for joint in assembly.joints if joint.first in ids and joint.second in ids)
    units = tuple(each.parts for each in assembly.units if not unit and ids.issuperset(each.parts))
    if not parts:
        return ()
    return _sequence(_SAME((group, unit), _Together(parts, joints, units)))


class _Together(NamedTuple):
    """Parts that go together, the joints between them, and those of them that are made up by themselves."""

    parts: tuple[Part, ...]
    joints: tuple[Joint, ...]
    units: tuple[tuple[str, ...], ...]


#: What goes together in each group and unit of the piece that was looked at last.
_SAME: SameAgain[_Together] = SameAgain(512)


@kept_by_identity(128)
def _sequence(put: _Together) -> tuple[Placing, ...]:
    parts, joints, units = put
    blocks = blockers(tuple(map(_floated_part, parts)), tuple(map(_floated, joints))).values()
    bodies, made_up = _bodies(parts, units), set(map(frozenset, units))
    # Equal bodies come off one after the other; the last first, so that they go in as they are numbered.
    kinds, last = _kinds(parts, bodies), 0
    blockers_of = {body: [_blockers_of(body, by) & ~body for by in blocks] for body in bodies}
    links = _links(parts, joints)
    left, found = sum(bodies), []
    while sum(body & left > 0 for body in bodies) > 1:
        there = [body for body in bodies if body & left]
        free = [body for body in there if any(not by & left for by in blockers_of[body])]
        ranks = {body: (*_rank(links, body, left), kinds[body] != last, -kinds[body], -body) for body in free}
        off = min(ranks, key=ranks.__getitem__) if ranks else _together(parts, joints, left)
        last = kinds.get(off, 0)
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
    mates_of: dict[str, dict[str, Hold]] = {}
    for joint in joints:
        mates_of.setdefault(joint.first, {})[joint.second] = joint.hold
        mates_of.setdefault(joint.second, {})[joint.first] = joint.hold
    for part, index in number.items():
        mates = mates_of.get(part, {})
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
    return reduce(or_, (by[index] for index in _indices(body)))


def _names(parts: tuple[Part, ...], mask: int) -> set[str]:
    return {parts[index].id for index in _indices(mask)}


@kept_by_identity(2048)
def _floated_part(part: Part) -> Part:
    return part._replace(box=part.box.in_floats())


@kept_by_identity(2048)
def _floated(joint: Joint) -> Joint:
    return joint._replace(
        channels=tuple(box.in_floats() for box in joint.channels), shares=tuple(box.in_floats() for box in joint.shares)
    )


def _between(joint: Joint, one: set[str], other: set[str]) -> bool:
    return (joint.first in one and joint.second in other) or (joint.second in one and joint.first in other)


def _kinds(parts: tuple[Part, ...], bodies: list[int]) -> dict[int, int]:
    """Return the first body that is equal to each, in its parts and their sizes."""
    first: dict[tuple[str, ...], int] = {}
    return {body: first.setdefault(tuple(parts[index].alike for index in _indices(body)), body) for body in bodies}


class _Link(NamedTuple):
    """The mask of another part that a part is joined to, and whether by glue."""

    other: int
    glued: bool


def _links(parts: tuple[Part, ...], joints: tuple[Joint, ...]) -> list[list[_Link]]:
    """Return what each part is joined to."""
    number = {part.id: index for index, part in enumerate(parts)}
    found: list[list[_Link]] = [[] for _ in parts]
    for joint in joints:
        one, other = number[joint.first], number[joint.second]
        found[one].append(_Link(1 << other, joint.hold in _GLUED))
        found[other].append(_Link(1 << one, joint.hold in _GLUED))
    return found


def _rank(links: list[list[_Link]], body: int, left: int) -> tuple[bool, int, bool]:
    """Say how soon a body comes off: without glue first, then with fewest joints, so that what has most is the base.

    What alone holds another comes off after that: a cleat goes in with its board, or after it.
    """
    rest = left & ~body
    held = [link for index in _indices(body) for link in links[index] if link.other & rest]
    glued = sum(link.glued for link in held)
    alone = any(
        not any(other.other & rest for other in links[index]) for link in held for index in _indices(link.other)
    )
    return glued > 0, glued, glued > 0 and alone


def _indices(mask: int) -> Iterator[int]:
    while mask:
        yield (mask & -mask).bit_length() - 1
        mask &= mask - 1


def _together(parts: tuple[Part, ...], joints: tuple[Joint, ...], left: int) -> int:
    """Return what the proof takes off at once where no part comes off by itself; any one part where nothing does."""
    there = [index for index in range(len(parts)) if left >> index & 1]
    order = assembly_order(tuple(parts[index] for index in there), joints)
    if not order.steps:
        return 1 << there[-1]
    last = set(order.steps[-1].parts)
    return sum(1 << index for index in there if parts[index].id in last)
