"""Haunched tenon: at the end of a leg, where a whole tenon would break out; a short haunch stays there."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.meeting import at_end, enters, goes_through, in_the_middle, within
from nullah.core.joints.tenon import Tenon
from nullah.core.ledger import Definition, Ledger, Snap, ruled
from nullah.core.lengths import Length
from nullah.core.piece.faults import Fault, FaultKind, HaunchTooLarge, NoCorner
from nullah.core.piece.joint import Hold, Joint, JointQuantities, Offered
from nullah.core.piece.part import Part
from nullah.core.piece.space import Box, Side, side_at


class Haunched(Tenon):
    """A tenon with a haunch at the end of what it enters."""

    id = N_("haunched tenon")
    offer = N_("{second} into the end of {first} by a haunched tenon")

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return its one name."""
        return self.id

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield each end that lies in the side of the other, flush with its end."""
        for host, guest in ((first, second), (second, first)):
            if overlap is not None and _flush(host, guest, overlap) is not None:
                yield Offered(host, guest)

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare the tenon and its haunch: a third of the rail wide, as long as the tenon is thick."""
        wide, thick = second
        haunch = f"{prefix}_haunch"
        return (
            ruled(f"{prefix}_tenon.thickness", N_("thickness of the tenon"), f"{thick} / 3", snap=Snap.CHISEL),
            ruled(f"{prefix}_tenon.shoulder", N_("shoulder at the edge of the tenon"), f"{wide} / 8", snap=Snap.MARK),
            ruled(f"{haunch}.width", N_("width of the haunch"), f"{wide} / 4", snap=Snap.MARK),
            ruled(f"{haunch}.length", N_("length of the haunch"), f"{prefix}_tenon.thickness", snap=Snap.MARK),
        )

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return it with its haunch at the flush edge; None while its figures are not known."""
        overlap, prefix = first.box.overlap(second.box), f"{joint_id}_haunch"
        if overlap is None or f"{prefix}.width" not in ledger.quantities:
            return None
        flush = _flush(first, second, overlap)
        if flush is None:
            return Joint(joint_id, self, first.id, second.id, hold)
        wide, long, a = ledger[f"{prefix}.width"], ledger[f"{prefix}.length"], second.across.value
        section = in_the_middle(overlap, second, ledger[f"{joint_id}_tenon.thickness"], Fraction(0))
        shoulder = ledger[f"{joint_id}_tenon.shoulder"]
        low, high = section.low[a], section.high[a]
        inner, edge = (low + shoulder, high) if flush.high else (high - shoulder, low)
        parted = edge - wide if flush.high else edge + wide
        main = section.set(second.across, *sorted((inner, parted)))
        stub = section.set(second.across, *sorted((parted, edge)))
        body = _body(second, overlap)
        face = overlap.at(body)
        stub = stub.set(second.grain, *sorted((face, face - long if body.high else face + long)))
        names = JointQuantities(guest=f"{joint_id}_tenon.thickness")
        return Joint(joint_id, self, first.id, second.id, hold, (main, stub), (main, stub), figures=prefix, names=names)

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield it where the boards do not lie so, or the haunch leaves no tenon."""
        overlap = first.box.overlap(second.box)
        if overlap is None:
            return
        if _flush(first, second, overlap) is None:
            fact = NoCorner(first.id, second.id, N_("joined by a haunched tenon"))
            yield Fault(FaultKind.COLLISION, fact, (first.id, second.id), place=overlap)
        elif len(joint.shares) == 2:
            main, stub = joint.shares
            half = overlap.size(second.across) / 3
            long = overlap.size(second.grain)
            if main.size(second.across) < half or stub.size(second.grain) >= long:
                told = HaunchTooLarge(second.id, Length(stub.size(second.across)), Length(main.size(second.across)))
                yield Fault(FaultKind.THIN, told, (second.id, first.id), quantity=f"{joint.figures}.width")

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how mortise, tenon and haunch are cut."""
        from nullah.core.joints.haunched.operations import haunched_steps

        return haunched_steps(making)


def _flush(host: Part, guest: Part, overlap: Box) -> Side | None:
    """Return the side of the guest that is flush with an end of the host it enters; None where they lie otherwise."""
    across = guest.across
    if host.grain is not across or not enters(host, guest, overlap) or not within(guest, overlap):
        return None
    if not at_end(guest, overlap) or goes_through(host, overlap, guest.grain):
        return None
    ends = [side for high in (False, True) if host.box.at(side := side_at(across, high)) == overlap.at(side)]
    return ends[0] if len(ends) == 1 else None


def _body(guest: Part, overlap: Box) -> Side:
    """Return on which side of the overlap the guest goes on."""
    return side_at(guest.grain, overlap.low[guest.grain.value] == guest.box.low[guest.grain.value])


HAUNCHED = Haunched()
