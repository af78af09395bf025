"""Which parts meet in joints, and which of them enter others."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from nullah.core.identity import kept_by_identity
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Hold


class Meetings(NamedTuple):
    """The parts that one is joined to, those of them that it enters, and whether it has tails or pins of a corner."""

    joined: frozenset[str] = frozenset()
    entered: frozenset[str] = frozenset()
    cornered: bool = False


@kept_by_identity(4)
def meetings_of(assembly: Assembly) -> Mapping[str, Meetings]:
    """Return which other parts each part is joined to; none for one without joints.

    What only lies on top and moves there, screwed through slots, makes no opening.
    """
    joined: dict[str, set[str]] = {}
    entered: dict[str, set[str]] = {}
    cornered: set[str] = set()
    for joint in assembly.joints:
        if joint.type.touches and joint.hold is Hold.SLOTS:
            continue
        joined.setdefault(joint.first, set()).add(joint.second)
        joined.setdefault(joint.second, set()).add(joint.first)
        if joint.type.corner_prefix(joint):
            cornered |= {joint.first, joint.second}
        else:
            entered.setdefault(joint.second, set()).add(joint.first)
    return MappingProxyType(
        {
            part: Meetings(frozenset(others), frozenset(entered.get(part, ())), part in cornered)
            for part, others in joined.items()
        }
    )


def enters_another(assembly: Assembly, part: str) -> bool:
    """Return whether a part enters another, or lies on one; not where others only enter it, or it has tails or pins."""
    met = meetings_of(assembly).get(part)
    if met is None or met.entered:
        return True
    return not met.cornered and not any(part in each.entered for each in meetings_of(assembly).values())
