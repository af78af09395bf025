"""Tusk tenon: right through a post and beyond, held there by a wedge through it, to be knocked apart again."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.meeting import goes_through, in_the_middle, within
from nullah.core.joints.tenon import Tenon
from nullah.core.joints.tusk.wedge import INSIDE, Tusk
from nullah.core.ledger import Definition, Ledger, QuantityKind, Snap, given, ruled
from nullah.core.lengths import Length, Slope
from nullah.core.piece.cuts import Removal, block_of
from nullah.core.piece.facts import Note
from nullah.core.piece.faults import Fault, FaultKind, NoCorner, WedgeShears, WedgeSlope
from nullah.core.piece.joint import Hold, Joint, JointQuantities, Offered
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Prism
from nullah.core.piece.space import Axis, Box, Side, side_at

#: Wood behind a wedge, as a share of its width; slopes at which it holds and comes out again (practice: 8 to 12).
_BEHIND, _STEEPEST, _SHALLOWEST = Fraction(2), Fraction(6), Fraction(16)


class TuskTenon(Tenon):
    """A tenon of the second part through the first, with a wedge."""

    id = N_("tusk tenon")
    offer = N_("{second} through {first}, held by a wedge")
    when_glued = Note.WEDGED_NOT_GLUED

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return its one name."""
        return self.id

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield each part that goes through the other and beyond it."""
        for host, guest in ((first, second), (second, first)):
            if overlap is not None and _end(host, guest, overlap) is not None:
                yield Offered(host, guest, hold=Hold.DRY)

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare the tenon and its wedge."""
        tenon, wedge = f"{prefix}_tenon.thickness", f"{prefix}_wedge"
        slope = Slope(Fraction(10))
        return (
            ruled(tenon, N_("thickness of the tenon"), f"{second[1]} * 3 / 4", snap=Snap.CHISEL),
            ruled(f"{wedge}.thickness", N_("thickness of the wedge"), f"{tenon} / 3", snap=Snap.CHISEL),
            given(f"{wedge}.width", N_("width of the wedge at the narrower edge"), 14),
            given(f"{wedge}.slope", N_("slope of the wedge"), slope, QuantityKind.SLOPE),
        )

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return a tenon to the end of its part, with the slot of its wedge; None while its figures are not known."""
        overlap, prefix = first.box.overlap(second.box), f"{joint_id}_wedge"
        if overlap is None or f"{prefix}.width" not in ledger.quantities:
            return None
        end = _end(first, second, overlap)
        if end is None:
            return Joint(joint_id, self, first.id, second.id, Hold.DRY)
        mortise = in_the_middle(overlap, second, ledger[f"{joint_id}_tenon.thickness"], Fraction(0))
        inner = overlap.at(end.opposite)
        tenon = mortise.set(second.grain, *sorted((inner, second.box.at(end))))
        wedge = Tusk(ledger[f"{prefix}.thickness"], ledger[f"{prefix}.width"], ledger[f"{prefix}.slope"], prefix)
        names = JointQuantities(guest=f"{joint_id}_tenon.thickness")
        return Joint(joint_id, self, first.id, second.id, Hold.DRY, (mortise,), (tenon,), figures=wedge, names=names)

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return the mortise, or what is sawn off beside the tenon and the slot of the wedge."""
        overlap, wedge = first.box.overlap(second.box), joint.figures
        end = None if overlap is None else _end(first, second, overlap)
        if overlap is None or end is None or not isinstance(wedge, Tusk):
            return None
        if is_first:
            return Removal(tuple(block_of(box) for box in joint.channels))
        tenon, face = joint.shares[0], second.face
        whole = tenon.set(face, second.box.low[face.value], second.box.high[face.value])
        beside = (
            whole.set(face, second.box.low[face.value], tenon.low[face.value]),
            whole.set(face, tenon.high[face.value], second.box.high[face.value]),
        )
        return Removal(
            tuple(block_of(box) for box in beside if box.size(face) > 0), (_slot(wedge, second, tenon, overlap, end),)
        )

    def frees(self, joint: Joint, first: Part, second: Part) -> frozenset[Side]:
        """Return the way of the first: off over the end of the tenon."""
        overlap = first.box.overlap(second.box)
        end = None if overlap is None else _end(first, second, overlap)
        return frozenset() if end is None else frozenset((end,))

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield it where they do not lie so, too little wood is behind the wedge, or it does not hold."""
        overlap, wedge = first.box.overlap(second.box), joint.figures
        if overlap is None:
            return
        end = _end(first, second, overlap)
        if end is None or not isinstance(wedge, Tusk):
            fact = NoCorner(first.id, second.id, N_("joined by a tusk tenon"))
            yield Fault(FaultKind.COLLISION, fact, (first.id, second.id), place=overlap)
            return
        yield from self.open_sides(joint, first, second)
        beyond = abs(second.box.at(end) - overlap.at(end))
        behind = beyond + INSIDE - wedge.wide - second.box.size(second.across) / wedge.slope
        if behind < wedge.wide * _BEHIND:
            shears = WedgeShears(second.id, Length(behind), Length(wedge.wide * _BEHIND))
            yield Fault(FaultKind.THIN, shears, (second.id, first.id), quantity=f"{wedge.prefix}.width")
        if not _STEEPEST <= wedge.slope <= _SHALLOWEST:
            slope = WedgeSlope(second.id, Slope(wedge.slope), Slope(_STEEPEST), Slope(_SHALLOWEST))
            yield Fault(FaultKind.FIT, slope, (second.id, first.id), quantity=f"{wedge.prefix}.slope")

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how mortise and tenon are cut, and the slot of the wedge."""
        from nullah.core.joints.tusk.operations import tusk_steps

        return tusk_steps(making)


def _end(host: Part, guest: Part, overlap: Box) -> Side | None:
    """Return the end of the guest that goes through a host and beyond; None where they lie otherwise."""
    along = guest.grain
    if host.grain is along or not within(guest, overlap) or not goes_through(host, overlap, along):
        return None
    if any(overlap.size(axis) >= host.box.size(axis) for axis in Axis if axis is not along):
        return None
    below = overlap.low[along.value] - guest.box.low[along.value]
    above = guest.box.high[along.value] - overlap.high[along.value]
    return side_at(along, above < below) if min(below, above) > 0 else None


def _slot(wedge: Tusk, guest: Part, tenon: Box, overlap: Box, end: Side) -> Prism:
    """Return the slot of a wedge: from a little inside the face of the post outwards, wider at the upper edge."""
    along, across, through = guest.grain, guest.across, guest.face
    way = 1 if end.high else -1
    wall = overlap.at(end) - way * INSIDE
    low, high = tenon.low[across.value], tenon.high[across.value]
    short, long = wall + way * wedge.wide, wall + way * (wedge.wide + (high - low) / wedge.slope)
    corners = ((wall, low), (short, low), (long, high), (wall, high))
    first = Axis((through.value + 1) % 3) is along
    flat = tuple((float(a), float(b)) if first else (float(b), float(a)) for a, b in corners)
    middle = (tenon.low[through.value] + tenon.high[through.value]) / 2
    return Prism(through, flat, float(middle - wedge.thick / 2), float(middle + wedge.thick / 2))


TUSK = TuskTenon()
