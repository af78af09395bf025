"""A mitre as a solid."""

from __future__ import annotations

from nullah.core.fraction import Fraction
from nullah.core.joints.mitre.keys import Keys, places_of
from nullah.core.piece.cuts import Removal
from nullah.core.piece.joint import Hold, Joint
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Prism
from nullah.core.piece.space import Axis

#: So far along the grain ends of tenons stay clear of their mitre, mm: nothing may hold the shoulders open (practice).
CLEAR = Fraction(1)


def clear_of(joint: Joint) -> Fraction:
    """Return how far along the grain either end stays clear of a mitre, mm: none where it is glued."""
    return CLEAR if joint.hold is Hold.DRY else Fraction(0)


def mitre_cut(
    first: Part, second: Part, is_first: bool, keys: Keys | None = None, clear: Fraction = Fraction(0)
) -> Removal | None:
    """Return what one half of a mitre loses, with the slots of its keys.

    The overlap is split along the diagonal from the corner next to both bodies to the one away from both.

    Parameters
    ----------
    first, second : Part
    is_first : bool
        Which of them is asked for.
    keys : Keys, optional
    clear : Fraction
        How far along its grain it stays clear of the diagonal, mm.
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

    outer = flat(far_a, far_b)
    # The first loses the half next to the second's body, and the other way round.
    if is_first:
        more = float(clear) / abs(near_a - far_a)
        slant = flat(near_a + more * (near_a - far_a), near_b), flat(far_a, far_b + more * (far_b - near_b))
        other = flat(far_a, near_b)
    else:
        more = float(clear) / abs(near_b - far_b)
        slant = flat(near_a, near_b + more * (near_b - far_b)), flat(far_a + more * (far_a - near_a), far_b)
        other = flat(near_a, far_b)
    low, high = float(overlap.low[through.value]), float(overlap.high[through.value])
    prisms = [Prism(through, (*slant, other), low, high)]
    if keys is not None:
        reach = float(keys.reach)
        along_a = flat(far_a + (reach if near_a > far_a else -reach), far_b)
        along_b = flat(far_a, far_b + (reach if near_b > far_b else -reach))
        for start, end in places_of(keys, overlap, through):
            prisms.append(Prism(through, (outer, along_a, along_b), float(start), float(end)))
    return Removal(prisms=tuple(prisms))
