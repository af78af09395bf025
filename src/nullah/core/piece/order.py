"""The order of assembly: whether the piece can be taken apart, part by part or group by group, along its axes.

For each direction every part is blocked by some others. What a part must take along when it
moves is its closure; a closure that is not everything can be drawn off. Taking closures off
until single parts are left gives, backwards, an order in which the piece goes together; if
something cannot be divided in any direction, its parts trap each other. (Directions are the
six along the axes, each part moving all the way out.)
"""

from __future__ import annotations

from collections.abc import Iterable

from nullah.core.identity import SameAgain, kept_by_identity
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.form import Mover
from nullah.core.piece.joint import Joint
from nullah.core.piece.overlap import lines
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Side, side_at

#: What floating point takes for touching, mm.
_TOUCH = 1e-9


Middle = tuple[float, float, float]


class AssemblyStep(NamedTuple):
    """One step of putting together: `parts` go to `onto`, moving towards `way`."""

    parts: tuple[str, ...]
    onto: tuple[str, ...]
    way: Side


class Order(NamedTuple):
    """Steps in order of assembly, and the groups that nothing can divide."""

    steps: tuple[AssemblyStep, ...]
    trapped: tuple[tuple[str, ...], ...]


def assembly_order(parts: tuple[Part, ...], joints: Iterable[Joint], movers: Iterable[Mover] = ()) -> Order:
    """Find an order in which the parts go together, and which trap each other.

    What moves as one (a drawer, a lid) is made by itself and goes in whole, last.
    """
    blocks = _blocks(parts, {frozenset((j.first, j.second)): j for j in joints})
    ids = [part.id for part in parts]
    middles: list[Middle] = [_middle(part) for part in parts]
    steps: list[AssemblyStep] = []
    trapped: list[tuple[str, ...]] = []

    def names(mask: int) -> tuple[str, ...]:
        return tuple(ids[i] for i in range(len(ids)) if mask >> i & 1)

    def divide(whole: int) -> None:
        if whole & (whole - 1) == 0:
            return
        found = _smallest(whole, blocks, middles)
        if found is None:
            trapped.append(names(whole))
            return
        group, side = found
        steps.append(AssemblyStep(names(group), names(whole & ~group), side.opposite))
        divide(group)
        divide(whole & ~group)

    whole = (1 << len(parts)) - 1
    for mover in movers:
        group = sum(1 << index for index, part in enumerate(parts) if part.group == mover.group)
        if group and group != whole:
            whole &= ~group
            steps.append(AssemblyStep(names(group), names(whole), mover.way.opposite))
            divide(group)
    divide(whole)
    return Order(tuple(reversed(steps)), tuple(trapped))


def blockers(parts: tuple[Part, ...], joints: Iterable[Joint]) -> dict[Side, list[int]]:
    """Give, for each direction, by part in the order given, the mask of the parts that block its way."""
    return _blocks(parts, {frozenset((j.first, j.second)): j for j in joints})


def _smallest(whole: int, blocks: dict[Side, list[int]], middles: list[Middle]) -> tuple[int, Side] | None:
    """Return the smallest group that can be drawn off, and the way it goes: outwards, where it can choose."""
    best: tuple[int, Side] | None = None
    fewest, farthest = whole.bit_count(), -1.0
    centre = _middle_of(whole, middles)
    for side, by in blocks.items():
        axis, sign = side.axis.value, 1 if side.high else -1
        rest = whole
        while rest:
            lowest = rest & -rest
            rest &= ~lowest
            out = sign * (middles[lowest.bit_length() - 1][axis] - centre[axis])
            if fewest == 1 and out <= farthest:
                continue
            group = _closure(lowest, whole, by, fewest + 1)
            size = group.bit_count()
            if not group or group == whole:
                continue
            if size > 1:
                out = sign * (_middle_of(group, middles)[axis] - centre[axis])
            if size < fewest or out > farthest:
                best, fewest, farthest = (group, side), size, out
    return best


def _middle(part: Part) -> Middle:
    x, y, z = ((float(low) + float(high)) / 2 for low, high in zip(part.box.low, part.box.high, strict=True))
    return x, y, z


def _middle_of(group: int, middles: list[Middle]) -> Middle:
    found = [middle for index, middle in enumerate(middles) if group >> index & 1]
    count = len(found)
    return sum(m[0] for m in found) / count, sum(m[1] for m in found) / count, sum(m[2] for m in found) / count


def _closure(group: int, whole: int, by: list[int], most: int) -> int:
    """Return what must move with a part; nothing once that is no smaller than what is known."""
    todo = group
    while todo:
        index = (todo & -todo).bit_length() - 1
        todo &= todo - 1
        more = by[index] & whole & ~group
        if more:
            group |= more
            todo |= more
            if group.bit_count() >= most:
                return 0
    return group


def _blocks(parts: tuple[Part, ...], joined: dict[frozenset[str], Joint]) -> dict[Side, list[int]]:
    """Give, for each direction, by part, the mask of what blocks it."""
    import numpy as np  # only where something is put together: the window need not wait for it

    if not parts:
        return {side: [] for side in Side}
    corners = np.array([(*part.box.low, *part.box.high) for part in parts], dtype=float)
    low, high = corners[:, :3].T, corners[:, 3:].T
    # By axis: whether a part ends where another begins, or before.
    ends = high[:, :, None] <= low[:, None, :] + _TOUCH
    apart = ends | ends.transpose(0, 2, 1)
    blocked = {}
    for axis in Axis:
        beside = apart[[other for other in range(3) if other != axis.value]].any(axis=0)
        # What fills the same space without a joint is complained of elsewhere.
        blocked[side_at(axis, True)] = ends[axis.value] & ~beside
        blocked[side_at(axis, False)] = ends[axis.value].T & ~beside
    number = {part.id: index for index, part in enumerate(parts)}
    cut = _all_cut(parts, joined.values())
    for joint in joined.values():
        i, j = sorted(number.get(part, -1) for part in (joint.first, joint.second))
        if i < 0 or i == j or joint.type.touches or apart[:, i, j].any():
            continue
        free = _free_of_joint(joint, parts[i], parts[j], cut.get(joint.first, ()))
        for side in Side:
            blocked[side][i, j] = side not in free
            blocked[side][j, i] = side.opposite not in free
    return {
        side: [int.from_bytes(row.tobytes(), "little") for row in np.packbits(blocked[side], axis=1, bitorder="little")]
        for side in Side
    }


#: What was cut into each part when that was last asked.
_CUT: SameAgain[tuple[Box, ...]] = SameAgain(2048)


def _all_cut(parts: tuple[Part, ...], joints: Iterable[Joint]) -> dict[str, tuple[Box, ...]]:
    """Return all boxes that joints cut into each part: what slides along one may go on through another."""
    by_id = {part.id: part for part in parts}
    found: dict[str, dict[Box, None]] = {}
    for joint in joints:
        if joint.type.in_boxes and not joint.type.touches and joint.first in by_id and joint.second in by_id:
            boxes = _loses(joint, by_id[joint.first], by_id[joint.second])
            found.setdefault(joint.first, {}).update(dict.fromkeys(boxes))
    return {part: _CUT(part, tuple(boxes)) for part, boxes in found.items()}


@kept_by_identity(4096)
def _loses(joint: Joint, first: Part, second: Part) -> tuple[Box, ...]:
    return lines(joint, first, second).first_loses


@kept_by_identity(8192)
def _free_of_joint(joint: Joint, one: Part, two: Part, cut: tuple[Box, ...]) -> frozenset[Side]:
    """Return the ways the first of two joined parts can go, the other standing still.

    `cut` is all that joints cut into the part that is entered.
    """
    first, second = (one, two) if joint.first == one.id else (two, one)
    if joint.type.in_boxes:
        # Its own first: that is what tells its channels from its shares.
        own = _loses(joint, first, second)
        joint = joint._replace(channels=tuple(dict.fromkeys((*own, *cut))))
    free = joint.type.frees(joint, first, second)
    # So far the ways of `first`; those of the other part are the opposite ones.
    return free if first is one else frozenset(side.opposite for side in free)
