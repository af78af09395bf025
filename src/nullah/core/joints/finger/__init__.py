"""Finger joint: straight fingers of two ends, side by side in turn; it holds by its glue."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import N_
from nullah.core.joints.base import JointBase
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.meeting import box_corner
from nullah.core.ledger import Definition, Ledger, QuantityKind, given
from nullah.core.piece.faults import Fault, FaultKind, NoCorner
from nullah.core.piece.joint import Hold, Joint, Offered
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box


class Finger(JointBase):
    """Fingers of the second board between fingers of the first, which has one at either edge."""

    id = N_("finger joint")
    offer = N_("Fingers, the outer ones on {first}")

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield either board as the one with the outer fingers, at the corner of a box."""
        if overlap is not None and box_corner(first, second, overlap):
            yield Offered(first, second)
            yield Offered(second, first)

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare how many fingers both boards have together."""
        return (given(f"{prefix}_fingers.count", N_("number of fingers, of both boards"), 7, QuantityKind.COUNT),)

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return fingers of one width; an even number is made odd by one more, so that both edges are alike."""
        overlap, name = first.box.overlap(second.box), f"{joint_id}_fingers.count"
        if overlap is None or name not in ledger.quantities:
            return Joint(joint_id, self, first.id, second.id, hold)
        fingers = fingers_of(overlap, across(first, second), int(ledger[name]))
        return Joint(joint_id, self, first.id, second.id, hold, channels=fingers, shares=fingers)

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield it where two boards do not make the corner of a box."""
        overlap = first.box.overlap(second.box)
        if overlap is not None and not box_corner(first, second, overlap):
            fact = NoCorner(first.id, second.id, N_("finger-jointed"))
            yield Fault(FaultKind.COLLISION, fact, (first.id, second.id), place=overlap)

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how the fingers are laid out and cut."""
        from nullah.core.joints.finger.operations import finger_steps

        return finger_steps(making)


def across(first: Part, second: Part) -> Axis:
    """Return the axis across which fingers stand side by side: the width both boards have in common."""
    return next(axis for axis in Axis if axis not in (first.grain, second.grain))


def fingers_of(overlap: Box, axis: Axis, count: int) -> tuple[Box, ...]:
    """Return the fingers of the second board in a corner: every other one, from the second on, exactly as wide.

    Parameters
    ----------
    overlap : Box
        What both boards share, mm.
    axis : Axis
        Across the fingers.
    count : int
        Of both boards together; an even one is taken as one more, fewer than three as three.

    Examples
    --------
    >>> from nullah.core.fraction import Fraction
    >>> corner = Box((Fraction(0),) * 3, (Fraction(12), Fraction(15), Fraction(70)))
    >>> [(int(each.low[2]), int(each.high[2])) for each in fingers_of(corner, Axis.Z, 7)]
    [(10, 20), (30, 40), (50, 60)]
    """
    odd = max(3, count + 1 - count % 2)
    low, step = overlap.low[axis.value], overlap.size(axis) / odd
    return tuple(overlap.set(axis, low + step * n, low + step * (n + 1)) for n in range(1, odd, 2))


FINGER = Finger()
