"""A mitre as a solid."""

from __future__ import annotations

from nullah.core.joints.mitre.keys import Keys, places_of
from nullah.core.piece.cuts import Removal
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Prism
from nullah.core.piece.space import Axis


def mitre_cut(first: Part, second: Part, is_first: bool, keys: Keys | None = None) -> Removal | None:
    """Return what one half of a mitre loses, with the slots of its keys.

    The overlap is split along the diagonal from the corner next to both bodies to the one away from both.
    """
    overlap = first.box.overlap(second.box)
    if overlap is None or first.grain is second.grain:
        return None
    a, b = first.grain, second.grain
    through = next(axis for axis in Axis if axis not in (a, b))

    def near_far(part: Part, axis: Axis) -> tuple[float, float]:
        low, high = float(overlap.low[axis.value]), float(overlap.high[axis.value])
        below = float(overlap.low[axis.value] - part.box.low[axis.value])
        above = float(part.box.high[axis.value] - overlap.high[axis.value])
        return (low, high) if below >= above else (high, low)

    near_a, far_a = near_far(first, a)
    near_b, far_b = near_far(second, b)
    u = Axis((through.value + 1) % 3)

    def flat(at_a: float, at_b: float) -> tuple[float, float]:
        return (at_a, at_b) if a is u else (at_b, at_a)

    inner, outer = flat(near_a, near_b), flat(far_a, far_b)
    # The first loses the half next to the second's body, and the other way round.
    other = flat(far_a, near_b) if is_first else flat(near_a, far_b)
    low, high = float(overlap.low[through.value]), float(overlap.high[through.value])
    prisms = [Prism(through, (inner, outer, other), low, high)]
    if keys is not None:
        reach = float(keys.reach)
        along_a = flat(far_a + (reach if near_a > far_a else -reach), far_b)
        along_b = flat(far_a, far_b + (reach if near_b > far_b else -reach))
        for start, end in places_of(keys, overlap, through):
            prisms.append(Prism(through, (outer, along_a, along_b), float(start), float(end)))
    return Removal(prisms=tuple(prisms))
