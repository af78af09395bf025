"""What several parts that are joined already carry between them: their edges are planed level before it goes on."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Side
from nullah.core.plan import Plan
from nullah.core.work.gluing import Gluing


class Seat(NamedTuple):
    """A part that is laid on others, those that carry it, and what goes into these with it, such as buttons."""

    part: str
    carried_by: tuple[str, ...]
    holds: tuple[str, ...]

    @property
    def task_id(self) -> str:
        """The id of the task that planes them level."""
        return f"level/{self.part}"


def seats(plan: Plan, glued: Sequence[Gluing]) -> dict[str, tuple[Seat, ...]]:
    """Return what is laid on several parts that were joined to each other before, by the id of its glue-up.

    What enters anything has its place from that; what moves is fitted by itself.
    """
    found: dict[str, tuple[Seat, ...]] = {}
    joined: dict[str, str] = {}
    for each in glued:
        before = [part for part in each.parts if part in joined]
        for part in () if each.mover else each.adds:
            carried = _carried(plan, part, before)
            if len({joined[other] for other in carried}) == 1 and len(carried) > 1:
                entering = (joint.second for joint in each.joints if joint.type.enters and joint.first in carried)
                holds = tuple(one for one in dict.fromkeys(entering) if one in each.adds)
                found[each.id] = (*found.get(each.id, ()), Seat(part, carried, holds))
        for joint in each.joints:
            one, other = (joined.setdefault(part, part) for part in (joint.first, joint.second))
            joined = {part: one if body == other else body for part, body in joined.items()}
    return found


def _carried(plan: Plan, part_id: str, before: Sequence[str]) -> tuple[str, ...]:
    """Return the parts that are there on which one lies, all on one of its sides; none where it enters any."""
    part = plan.part(part_id)
    there = [other for each in before if (other := plan.part(each)) is not None]
    met = [joint for joint in plan.assembly.joints if part_id in (joint.first, joint.second)]
    mates = {mate for joint in met for mate in (joint.first, joint.second)} & set(before)
    if part is None or not all(joint.type.touches for joint in met if {joint.first, joint.second} & mates):
        return ()
    found = max((tuple(other.id for other in there if _on(part, other, side)) for side in Side), key=len)
    return found if mates <= set(found) else ()


def _on(part: Part, other: Part, side: Side) -> bool:
    """Return whether a part lies with a side on another."""
    one, two = part.box, other.box
    beside = [axis.value for axis in Axis if axis is not side.axis]
    return one.at(side) == two.at(side.opposite) and all(
        one.low[axis] < two.high[axis] and two.low[axis] < one.high[axis] for axis in beside
    )
