"""Lap: two parts that cross, each halved."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark
from nullah.core.catalogue import N_
from nullah.core.joints.base import JointBase, let_in
from nullah.core.joints.bench import AtBench
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.tenon.cautions import halved_cautions
from nullah.core.ledger import Ledger
from nullah.core.piece.joint import Hold, Joint, Offered
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box


class Lap(JointBase):
    """Two parts halved into each other."""

    id = N_("lap")
    offer = N_("Halved into each other")

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield it where two parts cross face on face."""
        if overlap is not None and first.face is second.face and first.grain is not second.grain:
            yield Offered(first, second)

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return the two halved through the first one's thickness."""
        return self.halved(joint_id, first, second, first.face, hold)

    def halved(self, joint_id: str, first: Part, second: Part, axis: Axis, hold: Hold) -> Joint:
        """Return the two halved along an axis: the second keeps the half of the overlap on its own body's side."""
        one, two = first.box, second.box
        box = one.overlap(two)
        if box is None:
            return Joint(joint_id, self, first.id, second.id, hold)
        a = axis.value
        middle = (box.low[a] + box.high[a]) / 2
        below = two.low[a] + two.high[a] < one.low[a] + one.high[a]
        half = box.set(axis, box.low[a], middle) if below else box.set(axis, middle, box.high[a])
        return let_in(self, joint_id, first, second, hold, half)

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how both halves are cut: dadoes as wide as the mate, and half as deep."""
        from nullah.core.joints.let_in.operations import channel_steps

        return channel_steps(making) or None

    def cautions(self, at: AtBench) -> Iterator[Remark]:
        """Yield what is to be minded where both are thin."""
        yield from halved_cautions(at)


LAP = Lap()
