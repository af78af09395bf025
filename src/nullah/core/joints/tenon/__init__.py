"""Mortise and tenon: a part goes on in another as a tongue with shoulders."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark
from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.joints.base import JointBase
from nullah.core.joints.bench import AtBench
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.meeting import at_end, enters, is_bridle, open_at_edge, tongue_of, tongue_sizes, within
from nullah.core.joints.tenon.cautions import tenon_cautions
from nullah.core.ledger import Definition, Ledger
from nullah.core.lengths import Length
from nullah.core.piece.faults import Channel, Fault, FaultKind, NoCorner, ThinEdge
from nullah.core.piece.joint import Hold, Joint, JointQuantities, JointType, Offered
from nullah.core.piece.overlap import lines
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Side


class Tenon(JointBase):
    """Tenons of the second part in mortises of the first."""

    id = N_("mortise and tenon")
    offer = N_("Tenon on {second} into {first}")
    enters = True

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return whether the tenon is one or two."""
        return N_("double tenon") if len(joint.shares) > 1 else N_("mortise and tenon")

    def channel(self, host: Part, box: Box) -> Channel:
        """Return a mortise, wherever it lies."""
        return Channel.MORTISE

    def depth_axis(self, host: Part, guest: Part, channel: Box) -> Axis:
        """Return the way the tenon points."""
        return guest.grain

    def least_wall(self, channel: Box, third: Fraction) -> Fraction:
        """Return two thirds of the mortise's width (common practice).

        Parameters
        ----------
        channel : Box
            The mortise, in the piece, mm.
        third : Fraction
            Of the board's thickness, mm: not asked here.
        """
        return min(channel.size(axis) for axis in Axis) * Fraction(2, 3)

    def least_reach(self, joint: Joint, first: Part, second: Part) -> Fraction:
        """Return 10 mm, or a sixth of a rail's width where that is more (practice, no published source)."""
        return max(Fraction(10), second.box.size(second.across) / 6)

    def may_meet(self, guest: Part, other: JointType, other_guest: Part) -> bool:
        """Return True for two rails that meet in a leg."""
        return isinstance(other, Tenon) and guest.grain is not other_guest.grain

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield each end that lies in the side of the other."""
        for host, guest in ((first, second), (second, first)):
            if overlap is None or not enters(host, guest, overlap) or is_bridle(host, guest, overlap):
                continue
            if not within(guest, overlap):
                continue
            if at_end(guest, overlap) and host.grain is not guest.grain and not open_at_edge(host, overlap, guest):
                yield Offered(host, guest)

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield it where the part with the tenon is larger than what it enters, or a mortise has a side open."""
        overlap = first.box.overlap(second.box)
        yield from self.open_sides(joint, first, second)
        if overlap is not None and not within(second, overlap):
            fact = NoCorner(first.id, second.id, N_("mortised and tenoned"))
            yield Fault(FaultKind.COLLISION, fact, (first.id, second.id), place=overlap)

    def open_sides(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield it where nothing is left of a part beside a cheek of what enters it."""
        cheek = second.face
        third = first.box.size(first.face) / 3
        for mortise in lines(joint, first, second).first_loses:
            if any(mortise.at(side) == first.box.at(side) for side in Side if side.axis is cheek):
                thin = ThinEdge(first.id, Channel.MORTISE, Length(Fraction(0)), Length(self.least_wall(mortise, third)))
                yield Fault(FaultKind.THIN, thin, (first.id, second.id), place=mortise)

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare a tenon a third as thick as its part, to a chisel, and its shoulders."""
        return tongue_sizes(f"{prefix}_tenon", *second, shoulders=True)

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return a tenon with shoulders all round."""
        overlap, prefix = first.box.overlap(second.box), f"{joint_id}_tenon"
        shares = (tongue_of(overlap, second, prefix, ledger),) if overlap is not None else ()
        names = JointQuantities(guest=f"{prefix}.thickness")
        return Joint(joint_id, self, first.id, second.id, hold, shares=shares, names=names)

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how mortises are chopped and tenons sawn."""
        from nullah.core.joints.tenon.operations import tenon_steps

        return tenon_steps(making)

    def cautions(self, at: AtBench) -> Iterator[Remark]:
        """Yield what is to be minded of mortise and tenon."""
        yield from tenon_cautions(at)


TENON = Tenon()
