"""The order of assembly: can the piece be taken apart, part by part or group by group, along its axes?

For each direction every part is blocked by some others. What a part must take along when it
moves is its closure; a closure that is not everything can be drawn off. Taking closures off
until single parts are left gives, backwards, an order in which the piece goes together; if
something cannot be divided in any direction, its parts trap each other. (Directions are the
six along the axes, each part moving all the way out.)
"""

from __future__ import annotations

from collections.abc import Iterable
from functools import lru_cache
from typing import NamedTuple

from nullah.core.piece.form import Mover
from nullah.core.piece.overlap import Joint, Sharing, lines, tail_frame
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Side, side_at

#: What floating point takes for touching, mm.
_TOUCH = 1e-9


Middle = tuple[float, float, float]


class Step(NamedTuple):
    """One step of putting together: `parts` go to `onto`, moving towards `way`."""

    parts: tuple[str, ...]
    onto: tuple[str, ...]
    way: Side


class Order(NamedTuple):
    """Steps in order of assembly, and the groups that nothing can divide."""

    steps: tuple[Step, ...]
    trapped: tuple[tuple[str, ...], ...]


def assembly_order(parts: tuple[Part, ...], joints: Iterable[Joint], movers: Iterable[Mover] = ()) -> Order:
    """Find an order in which the parts go together, and which trap each other.

    What moves as one (a drawer, a lid) is made by itself and goes in whole, last.
    """
    blocks = _blocks(parts, {frozenset((j.first, j.second)): j for j in joints})
    ids = [part.id for part in parts]
    middles: list[Middle] = [_middle(part) for part in parts]
    steps: list[Step] = []
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
        steps.append(Step(names(group), names(whole & ~group), side.opposite))
        divide(group)
        divide(whole & ~group)

    whole = (1 << len(parts)) - 1
    for mover in movers:
        group = sum(1 << index for index, part in enumerate(parts) if part.group == mover.group)
        if group and group != whole:
            whole &= ~group
            steps.append(Step(names(group), names(whole), mover.way.opposite))
            divide(group)
    divide(whole)
    return Order(tuple(reversed(steps)), tuple(trapped))


def blockers(parts: tuple[Part, ...], joints: Iterable[Joint]) -> dict[Side, list[int]]:
    """Give, for each direction, by part in the order given, the mask of the parts that block its way."""
    return _blocks(parts, {frozenset((j.first, j.second)): j for j in joints})


def _smallest(whole: int, blocks: dict[Side, list[int]], middles: list[Middle]) -> tuple[int, Side] | None:
    """Give the smallest group that can be drawn off, and the way it goes: outwards, where it can choose."""
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
    """Give what must move with a part; nothing once that is no smaller than what is known."""
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
    blocks: dict[Side, list[int]] = {side: [0] * len(parts) for side in Side}
    spans = [tuple(float(c) for c in (*part.box.low, *part.box.high)) for part in parts]
    for i, one in enumerate(parts):
        for j in range(i + 1, len(parts)):
            two = parts[j]
            joint = joined.get(frozenset((one.id, two.id)))
            free = None
            if joint is not None and joint.sharing is not Sharing.BUTT and _overlap(spans[i], spans[j]):
                free = _free_of_joint(joint, one, two)
            for axis in Axis:
                up, down = side_at(axis, True), side_at(axis, False)
                if free is not None:
                    one_up, one_down = up in free, down in free
                else:
                    one_up, one_down = _free_apart(spans[i], spans[j], axis.value)
                if not one_up:
                    blocks[up][i] |= 1 << j
                    blocks[down][j] |= 1 << i
                if not one_down:
                    blocks[down][i] |= 1 << j
                    blocks[up][j] |= 1 << i
    return blocks


def _overlap(one: tuple[float, ...], two: tuple[float, ...]) -> bool:
    return all(one[a] < two[a + 3] and two[a] < one[a + 3] for a in (0, 1, 2))


def _free_apart(one: tuple[float, ...], two: tuple[float, ...], a: int) -> tuple[bool, bool]:
    """Say whether the first of two boxes (low, then high corner) can go up and down an axis past the second."""
    for other in (0, 1, 2):
        if other != a and (one[other + 3] <= two[other] + _TOUCH or two[other + 3] <= one[other] + _TOUCH):
            return True, True
    if one[a + 3] <= two[a] + _TOUCH:
        return False, True
    if two[a + 3] <= one[a] + _TOUCH:
        return True, False
    # They fill the same space without a joint; that is complained of elsewhere.
    return True, True


@lru_cache(maxsize=8192)
def _free_of_joint(joint: Joint, one: Part, two: Part) -> frozenset[Side]:
    """Give the ways the first of two joined parts can go, the other standing still."""
    first, second = (one, two) if joint.first == one.id else (two, one)
    match joint.sharing:
        case Sharing.DOVETAIL:
            free = _tail_free(joint, first, second)
        case Sharing.MITRE:
            free = _mitre_free(first, second)
        case _:
            free = frozenset(side.opposite for side in Side if _guest_free(joint, first, second, side))
    # So far the ways of `first`; those of the other part are the opposite ones.
    return free if first is one else frozenset(side.opposite for side in free)


def _tail_free(joint: Joint, tail: Part, pin: Part) -> frozenset[Side]:
    frame = tail_frame(joint, tail, pin)
    if frame is None:
        return frozenset()
    overlap, _, _, through, _ = frame
    middle = pin.box.low[through.value] + pin.box.high[through.value]
    outwards = overlap.low[through.value] + overlap.high[through.value] > middle
    return frozenset((side_at(through, outwards),))


def _mitre_free(first: Part, second: Part) -> frozenset[Side]:
    """Each half may go back the way it came: along its own grain, away from its tip."""
    overlap = first.box.overlap(second.box)
    if overlap is None:
        return frozenset(Side)
    a = first.grain
    tip_high = overlap.low[a.value] - first.box.low[a.value] >= first.box.high[a.value] - overlap.high[a.value]
    b = second.grain
    other_high = overlap.low[b.value] - second.box.low[b.value] >= second.box.high[b.value] - overlap.high[b.value]
    through = next(axis for axis in Axis if axis not in (a, b))
    return frozenset(
        (side_at(a, not tip_high), side_at(b, other_high), side_at(through, True), side_at(through, False))
    )


def _guest_free(joint: Joint, host: Part, guest: Part, side: Side) -> bool:
    """Say whether what enters a channel can go one way: all it sweeps must have been cut away."""
    shared = lines(joint, host, guest)
    if shared.overlap is None:
        return True
    a = side.axis.value
    far = host.box.at(side)
    swept = []
    for share in shared.second_keeps:
        low, high = (share.low[a], max(far, share.high[a])) if side.high else (min(far, share.low[a]), share.high[a])
        swept.append(share.set(side.axis, low, high))
    # The body behind the overlap comes through with its whole section.
    behind = guest.box.at(side.opposite)
    edge = shared.overlap.at(side.opposite)
    if behind != edge:
        swept.append(shared.overlap.set(side.axis, *sorted((edge, far))))
    for box in swept:
        inside = box.overlap(host.box)
        if inside is not None and not any(channel.holds(inside) for channel in shared.first_loses):
            return False
    return True
