"""Tongue and groove: a tongue along the edge of one board in a groove along that of another."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import N_
from nullah.core.joints.let_in import LetIn
from nullah.core.joints.meeting import at_one_side
from nullah.core.ledger import Definition, Ledger, Snap, ruled
from nullah.core.piece.faults import Fault, FaultKind, NoCorner
from nullah.core.piece.joint import Hold, Joint, JointQuantities, Offered
from nullah.core.piece.part import Part
from nullah.core.piece.space import Box


class Tongue(LetIn):
    """The second board's tongue in the first board's edge."""

    id = N_("tongue and groove")
    offer = N_("Tongue of {second} in a groove of {first}")

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return its one name."""
        return self.id

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield each board that could have the tongue, where two edges overlap: it is no longer than the other."""
        for grooved, tongued in ((first, second), (second, first)):
            if overlap is not None and _edge_to_edge(grooved, tongued, overlap):
                yield Offered(grooved, tongued)

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare how thick the tongue is: a third, to an iron of the plough."""
        third = f"{second[1]} / 3"
        return (ruled(f"{prefix}_tongue.thickness", N_("thickness of the tongue"), third, snap=Snap.IRON_BELOW),)

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return a tongue in the middle, as long as the two overlap; None while its figure is not known."""
        overlap, name = first.box.overlap(second.box), f"{joint_id}_tongue.thickness"
        if overlap is None or name not in ledger.quantities:
            return None
        axis, thick = second.face, ledger[name]
        middle = (second.box.low[axis.value] + second.box.high[axis.value]) / 2
        tongue = overlap.set(axis, middle - thick / 2, middle + thick / 2)
        along = first.grain
        groove = tongue.set(along, first.box.low[along.value], first.box.high[along.value])
        names = JointQuantities(width=name, guest=name)
        return Joint(joint_id, self, first.id, second.id, hold, (groove,), (tongue,), runs=True, names=names)

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield it where the boards do not lie edge to edge."""
        overlap = first.box.overlap(second.box)
        if overlap is not None and not _edge_to_edge(first, second, overlap):
            fact = NoCorner(first.id, second.id, N_("tongued and grooved"))
            yield Fault(FaultKind.COLLISION, fact, (first.id, second.id), place=overlap)
        yield from super().faults(joint, first, second)


def _edge_to_edge(first: Part, second: Part, overlap: Box) -> bool:
    """Return whether two boards of one thickness overlap along their edges, flush on both faces."""
    face = first.face
    return (
        first.grain is second.grain
        and face is second.face
        and overlap.size(face) == first.box.size(face) == second.box.size(face)
        and overlap.size(first.grain) == second.box.size(second.grain)
        and all(at_one_side(part, overlap, part.across) for part in (first, second))
    )


TONGUE = Tongue()
