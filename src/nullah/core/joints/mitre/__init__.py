"""Mitre: two ends cut on a slant, each keeping half of the corner."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import N_
from nullah.core.joints.base import JointBase
from nullah.core.joints.bench import AtBench, Told
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.meeting import at_end
from nullah.core.joints.mitre.operations import mitre_steps
from nullah.core.joints.mitre.solid import mitre_cut
from nullah.core.piece.cuts import Removal
from nullah.core.piece.faults import Fault, FaultKind, NoCorner
from nullah.core.piece.joint import Joint, Offered
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Side, side_at


class Mitre(JointBase):
    """Two ends mitred."""

    id = N_("mitre")
    offer = N_("Mitred")
    in_boxes = False
    slanted = True

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return the half of the corner that a part loses."""
        return mitre_cut(first, second, is_first)

    def frees(self, joint: Joint, first: Part, second: Part) -> frozenset[Side]:
        """Return the ways of the first: back the way it came, along its own grain, away from its tip."""
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

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield it where the grain of both runs the same way."""
        if first.grain is second.grain:
            fact = NoCorner(first.id, second.id, N_("mitred"))
            yield Fault(FaultKind.COLLISION, fact, (first.id, second.id), place=first.box.overlap(second.box))

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield it where two parts end in a corner, face on face."""
        corner = first.face is second.face and first.grain is not second.grain
        if overlap is not None and corner and at_end(first, overlap) and at_end(second, overlap):
            yield Offered(first, second)

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how the ends of tenons that meet are sawn; mitres that hold wait."""
        return mitre_steps(making)

    def told(self, at: AtBench) -> Told | None:
        """Return how the mitre is sawn and shot."""
        from nullah.core.joints.mitre.bench import told

        return told(at)


MITRE = Mitre()
