"""Breadboard end: a tongue all along a panel's end, longer tenons in it, pegged; glued in the middle only."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.joints.base import JointBase
from nullah.core.joints.breadboard.pegs import Pegs, holes_of_pegs
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.meeting import at_end
from nullah.core.ledger import Definition, Ledger, QuantityKind, Snap, given, ruled
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.cuts import Removal
from nullah.core.piece.facts import Note
from nullah.core.piece.faults import Channel, Fault, FaultKind, NoCorner
from nullah.core.piece.joint import Hold, Joint, JointQuantities, Offered
from nullah.core.piece.overlap import channel_of
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box


class EndSizes(NamedTuple):
    """What a breadboard end is laid out by, mm.

    Parameters
    ----------
    tongue, tenon : Fraction
        How long the tongue and the tenons are.
    thick, wide : Fraction
        How thick both are, and how wide each tenon.
    tenons : int
        How many tenons.
    room : Fraction
        What the outermost mortises are longer by, on either side; those between in proportion.
    peg : Length
        The diameter of a peg, as its bit was bought.
    peg_inset, draw : Fraction
        From the shoulder to the pegs, and how much nearer to it the holes in the tenons are.
    """

    tongue: Fraction
    tenon: Fraction
    thick: Fraction
    wide: Fraction
    tenons: int
    room: Fraction
    peg: Length
    peg_inset: Fraction
    draw: Fraction

    @property
    def middle(self) -> int:
        """Which tenon is glued, from 0."""
        return (self.tenons - 1) // 2

    def room_of(self, number: int) -> Fraction:
        """Return how much longer on either side a mortise is: in proportion to its distance from the glued one.

        Parameters
        ----------
        number : int
            Of the tenon, from 0.

        Examples
        --------
        >>> sizes = EndSizes(*(Fraction(16), Fraction(40), Fraction(6), Fraction(40)), 5, Fraction(3),
        ...                  Length(Fraction(6)), Fraction(12), Fraction(1))
        >>> [float(sizes.room_of(number)) for number in range(5)]
        [3.0, 1.5, 0.0, 1.5, 3.0]
        """
        farthest = max(self.middle, self.tenons - 1 - self.middle)
        return self.room * abs(number - self.middle) / farthest if farthest else Fraction(0)


class Breadboard(JointBase):
    """A panel's end, the second part, in a board across it."""

    id = N_("breadboard end")
    offer = N_("Breadboard end {first} on {second}")
    enters = True
    pegged = True
    when_glued = Note.GLUE_MIDDLE_TENON

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield a board across the end of another, which goes on into it over its whole width."""
        for end, panel in ((first, second), (second, first)):
            if overlap is not None and _lies_across(end, panel, overlap):
                yield Offered(end, panel)

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare tongue, tenons, their room, and the pegs."""
        wide, thick = second
        third = f"{thick} / 3"
        return (
            given(f"{prefix}_tongue.length", N_("length of the tongue"), 16),
            ruled(f"{prefix}_tongue.thickness", N_("thickness of tongue and tenons"), third, snap=Snap.CHISEL),
            given(f"{prefix}_tenons.count", N_("number of tenons"), 3, QuantityKind.COUNT),
            ruled(
                f"{prefix}_tenon.width",
                N_("width of the tenons"),
                f"{wide} / {prefix}_tenons.count / 2",
                snap=Snap.MARK,
            ),
            given(f"{prefix}_slot.room", N_("room beside the outer tenons"), 3, snap=Snap.NOTHING),
            # As a top begins: no thicker than 10 mm (common practice, no published source).
            ruled(f"{prefix}_peg.diameter", N_("diameter of the pegs"), f"min(10, {third})", snap=Snap.BIT),
            given(f"{prefix}_peg.inset", N_("shoulder to the pegs"), 12),
            given(f"{prefix}_peg.draw", N_("holes in the tenons nearer to the shoulder"), "1.5"),
        )

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return an end on a panel, its tenons as long as the two overlap; None while its figures are not known."""
        overlap = first.box.overlap(second.box)
        if overlap is None or f"{joint_id}_tenons.count" not in ledger.quantities:
            return None
        names = JointQuantities(
            f"{joint_id}_tongue.thickness", f"{joint_id}_tongue.length", guest=f"{joint_id}_tongue.thickness"
        )
        sizes = sizes_in(ledger, f"{joint_id}_", overlap.size(second.grain))
        return self.end_of(first, second, sizes, names)._replace(id=joint_id)

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield it where the two do not lie as an end and its panel."""
        overlap = first.box.overlap(second.box)
        if overlap is not None and not _lies_across(first, second, overlap):
            fact = NoCorner(first.id, second.id, N_("joined as a breadboard end"))
            yield Fault(FaultKind.COLLISION, fact, (first.id, second.id), place=overlap)

    def end_of(self, end: Part, panel: Part, sizes: EndSizes, names: JointQuantities) -> Joint:
        """Return the joint of an end with a panel that goes on in it by its tenons."""
        along, across, thick = panel.grain, panel.across, panel.face
        overlap = end.box.overlap(panel.box)
        if overlap is None:
            return Joint(f"{end.id}-{panel.id}", self, end.id, panel.id)
        low_end = panel.box.low[along.value] == overlap.low[along.value]
        inner = overlap.high[along.value] if low_end else overlap.low[along.value]
        middle = (panel.box.low[thick.value] + panel.box.high[thick.value]) / 2
        level = overlap.set(thick, middle - sizes.thick / 2, middle + sizes.thick / 2)

        def as_far_as(long: Fraction) -> Box:
            return level.set(along, *sorted((inner, inner - long if low_end else inner + long)))

        start, pitch = panel.box.low[across.value], panel.box.size(across) / sizes.tenons
        keys, mortises = [], []
        for number in range(sizes.tenons):
            at = start + pitch * number + (pitch - sizes.wide) / 2
            room = sizes.room_of(number)
            keys.append(as_far_as(sizes.tenon).set(across, at, at + sizes.wide))
            wide = max(at - room, end.box.low[across.value]), min(at + sizes.wide + room, end.box.high[across.value])
            mortises.append(as_far_as(sizes.tenon).set(across, *wide))
        tongue = as_far_as(sizes.tongue)
        groove = tongue.set(across, end.box.low[across.value], end.box.high[across.value])
        clearance = [Fraction(0)] * 3
        clearance[across.value] = sizes.room
        return Joint(
            f"{end.id}-{panel.id}",
            self,
            end.id,
            panel.id,
            Hold.GLUE,
            channels=(groove, *mortises),
            shares=(tongue, *keys),
            room=(clearance[0], clearance[1], clearance[2]),
            figures=Pegs(sizes.peg, sizes.peg_inset, sizes.draw, sizes.middle),
            names=names,
            glued=sizes.wide,
        )

    def channel(self, host: Part, box: Box) -> Channel:
        """Return a groove for the tongue, a mortise for a tenon."""
        return channel_of(host, box) if box.size(host.grain) == host.box.size(host.grain) else Channel.MORTISE

    def depth_axis(self, host: Part, guest: Part, channel: Box) -> Axis:
        """Return the way tongue and tenons point."""
        return guest.grain

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return groove and mortises, or what is cut off the panel; and the holes of the pegs."""
        removal = super().cut(joint, first, second, is_first)
        if removal is None or not isinstance(joint.figures, Pegs):
            return removal
        return removal._replace(holes=holes_of_pegs(joint, joint.figures, first, second, is_first))

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how the end and the panel are cut, and pegged."""
        from nullah.core.joints.breadboard.operations import breadboard_steps

        return breadboard_steps(making)


def sizes_in(ledger: Ledger, prefix: str, tenon: Fraction) -> EndSizes:
    """Return what a breadboard end is laid out by; its figures begin with `prefix`, its tenons are `tenon` mm long.

    Parameters
    ----------
    ledger : Ledger
        Of the piece.
    prefix : str
        Of the names.
    tenon : Fraction
        Its length, mm.
    """

    def of(name: str) -> Fraction:
        return ledger[f"{prefix}{name}"]

    return EndSizes(
        tongue=of("tongue.length"),
        tenon=tenon,
        thick=of("tongue.thickness"),
        wide=of("tenon.width"),
        tenons=int(of("tenons.count")),
        room=of("slot.room"),
        peg=Length(of("peg.diameter")),
        peg_inset=of("peg.inset"),
        draw=of("peg.draw"),
    )


def _lies_across(end: Part, panel: Part, overlap: Box) -> bool:
    """Return whether a board lies across the end of a panel, which goes on into it over its whole width."""
    return (
        end.face is panel.face
        and end.grain is panel.across
        and at_end(panel, overlap)
        and overlap.size(panel.across) == panel.box.size(panel.across)
        and overlap.size(panel.face) == panel.box.size(panel.face)
        and overlap.size(panel.grain) < end.box.size(panel.grain)
        and panel.box.size(panel.grain) > end.box.size(panel.grain)
    )


BREADBOARD = Breadboard()
