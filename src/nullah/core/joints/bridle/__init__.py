"""Bridle: a slot at the end of one part takes a tongue of the other."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark
from nullah.core.catalogue import N_
from nullah.core.joints.base import JointBase, let_in
from nullah.core.joints.bench import AtBench
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.meeting import enters, is_bridle, tongue_of, tongue_sizes
from nullah.core.joints.tenon.cautions import halved_cautions
from nullah.core.ledger import Definition, Ledger
from nullah.core.piece.joint import Hold, Joint, Offered
from nullah.core.piece.part import Part
from nullah.core.piece.space import Box


class Bridle(JointBase):
    """A tongue of the second part in a slot of the first."""

    id = N_("bridle")
    offer = N_("Bridle, {second} the tongue")

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield each of the two as the tongue, where both end in the corner."""
        for host, guest in ((first, second), (second, first)):
            if overlap is not None and enters(host, guest, overlap) and is_bridle(host, guest, overlap):
                yield Offered(host, guest)

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare a tongue a third as thick as its part, to a chisel that chops its slot."""
        return tongue_sizes(f"{prefix}_tenon", *second, shoulders=False)

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return a tongue as wide as its part."""
        overlap = first.box.overlap(second.box)
        share = tongue_of(overlap, second, f"{joint_id}_tenon", ledger) if overlap is not None else None
        return let_in(self, joint_id, first, second, hold, share)

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how the slot is sawn and chopped, and the tongue sawn, as a tenon that shows."""
        from nullah.core.joints.tenon.operations import tenon_steps

        return tenon_steps(making)

    def cautions(self, at: AtBench) -> Iterator[Remark]:
        """Yield what is to be minded where both are thin."""
        yield from halved_cautions(at)


BRIDLE = Bridle()
