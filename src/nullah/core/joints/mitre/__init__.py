"""Mitre: two ends cut on a slant, each keeping half of the corner."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark, Severity
from nullah.core.catalogue import N_
from nullah.core.joints.base import JointBase
from nullah.core.joints.bench import AtBench
from nullah.core.joints.cautions import WeakMitre
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.meeting import at_end
from nullah.core.joints.mitre.keys import Keys, keys_of
from nullah.core.joints.mitre.solid import clear_of, mitre_cut
from nullah.core.ledger import Definition, Ledger, QuantityKind, Snap, given, ruled
from nullah.core.piece.cuts import Removal
from nullah.core.piece.faults import Fault, FaultKind, NoCorner
from nullah.core.piece.joint import Hold, Joint, JointQuantities, Offered
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Side, side_at


class Mitre(JointBase):
    """Two ends mitred."""

    id = "mitre"
    offer = N_("Mitered")
    in_boxes = False
    slanted = True

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return what it is called."""
        return N_("miter")

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return the half of the corner that a part loses."""
        return mitre_cut(first, second, is_first, keys_of(joint), clear_of(joint))

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
            fact = NoCorner(first.id, second.id, N_("mitered"))
            yield Fault(FaultKind.COLLISION, fact, (first.id, second.id), place=first.box.overlap(second.box))

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield it where two parts end in a corner, face on face."""
        corner = first.face is second.face and first.grain is not second.grain
        if overlap is not None and corner and at_end(first, overlap) and at_end(second, overlap):
            yield Offered(first, second)

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how both ends are sawn, and the slots of the keys when it is glued."""
        from nullah.core.joints.mitre.operations import mitre_steps

        return mitre_steps(making)

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare the keys that hold it."""
        return key_sizes(f"{prefix}_key", first[1])

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return it with its keys; without where its figures are not known."""
        return self.keyed(Joint(joint_id, self, first.id, second.id, hold), f"{joint_id}_key", ledger)

    def keyed(self, joint: Joint, prefix: str, ledger: Ledger) -> Joint:
        """Return a mitre with the keys that the ledger has."""
        if f"{prefix}.count" not in ledger.quantities or joint.hold is Hold.DRY:
            return joint
        keys = Keys(int(ledger[f"{prefix}.count"]), ledger[f"{prefix}.thickness"], ledger[f"{prefix}.reach"])
        names = JointQuantities(width=f"{prefix}.thickness", reach=f"{prefix}.reach")
        return joint._replace(figures=keys, names=names)

    def cautions(self, at: AtBench) -> Iterator[Remark]:
        """Yield it where no keys hold a glued mitre."""
        if keys_of(at.kind.joint) is None and at.kind.joint.hold.rigid:
            yield Remark(WeakMitre(), Severity.WARNING)


def key_sizes(prefix: str, thickness: str, count: int = 1) -> tuple[Definition, ...]:
    """Declare how many keys a mitre has, how thick they are, and how far they reach along its outer faces.

    Parameters
    ----------
    prefix : str
        Of the names.
    thickness : str
        Rule of the boards' thickness.
    count : int
        The usual number of keys.
    """
    return (
        given(f"{prefix}.count", N_("keys across the miter"), count, QuantityKind.COUNT),
        ruled(f"{prefix}.thickness", N_("thickness of the keys"), f"{thickness} / 5", snap=Snap.MARK),
        ruled(f"{prefix}.reach", N_("corner to the end of a key"), f"{thickness} * 3 / 2", snap=Snap.MARK),
    )


MITRE = Mitre()
