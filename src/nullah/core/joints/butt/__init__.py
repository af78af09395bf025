"""Butt joint: two parts that only touch, glued, nailed or screwed."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark, Severity
from nullah.core.catalogue import N_, Phrase
from nullah.core.joints.bench import AtBench
from nullah.core.joints.cautions import EndGrainGlued
from nullah.core.joints.fastened import Fastened
from nullah.core.joints.making import BenchStep, Making
from nullah.core.piece.joint import Hold, Joint, Offered
from nullah.core.piece.overlap import contact
from nullah.core.piece.part import Part
from nullah.core.piece.space import Box


class Butt(Fastened):
    """Two parts against each other."""

    id = N_("butt")
    offer = N_("Against each other, {hold}")
    touches = True
    in_boxes = False

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return it with what holds it; boards edge to edge make a wider one."""
        if joint.hold is Hold.GLUE and _edge_to_edge(first, second):
            return N_("edge joint, glued")
        return Phrase("butt joint, {hold}", hold=joint.hold.value)

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how its row is set out and bored; nothing where it is only glued, or left dry."""
        return self.row_steps(making)

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield what could hold two parts that touch."""
        if overlap is None and contact(first, second) is not None:
            for hold in (Hold.GLUE, Hold.NAILS, Hold.SCREWS, Hold.SLOTS):
                yield Offered(first, second, hold=hold)

    def cautions(self, at: AtBench) -> Iterator[Remark]:
        """Yield what is to be minded of glue on end grain, or of its row."""
        kind = at.kind
        if kind.joint.hold is Hold.GLUE and kind.first.part.grain is not kind.second.part.grain:
            yield Remark(EndGrainGlued(), Severity.WARNING)
        yield from super().cautions(at)


def _edge_to_edge(first: Part, second: Part) -> bool:
    """Return whether two boards lie edge to edge, their grain the same way."""
    touch = contact(first, second)
    beside = touch is not None and touch.size(first.across) == 0
    return beside and first.grain is second.grain and first.face is second.face


BUTT = Butt()
