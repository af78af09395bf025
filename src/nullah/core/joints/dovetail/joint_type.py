"""Dovetail: tails at the end of one board, pins at the end of the other; through, or half-blind."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.joints.base import JointBase
from nullah.core.joints.dovetail.faults import corner_faults
from nullah.core.joints.dovetail.frame import tail_frame
from nullah.core.joints.dovetail.moulded import mitred_where_moulded
from nullah.core.joints.dovetail.sizes import tail_sizes
from nullah.core.joints.dovetail.solid import dovetail_cut
from nullah.core.joints.dovetail.tails import Tails, tails_of
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.meeting import box_corner
from nullah.core.ledger import Definition, Ledger
from nullah.core.lengths import Slope
from nullah.core.piece.cuts import Removal
from nullah.core.piece.faults import Fault
from nullah.core.piece.joint import Hold, Joint, Offered
from nullah.core.piece.part import Part
from nullah.core.piece.space import Box, Side, side_at


class Dovetail(JointBase):
    """Tails of the first board between pins of the second."""

    id = N_("dovetail")
    offer = N_("Dovetails, tails on {first}")
    in_boxes = False

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return whether it goes through or a lap hides it."""
        overlap = first.box.overlap(second.box)
        if overlap is None:
            return self.id
        axis = first.grain
        lap = second.box.size(axis) - overlap.size(axis)
        return N_("half-blind dovetail") if lap > 0 else N_("through dovetail")

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return what lies between the tails, or between the pins."""
        return dovetail_cut(joint, first, second, is_first)

    def frees(self, joint: Joint, first: Part, second: Part) -> frozenset[Side]:
        """Return the one way that tails go: out of their sockets."""
        frame = tail_frame(joint, first, second)
        if frame is None:
            return frozenset()
        overlap, _, _, through, _ = frame
        middle = second.box.low[through.value] + second.box.high[through.value]
        outwards = overlap.low[through.value] + overlap.high[through.value] > middle
        return frozenset((side_at(through, outwards),))

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Return what of the corner does not fit."""
        return corner_faults(joint, first, second)

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield either board as the one with the tails, at the corner of a box."""
        if overlap is not None and box_corner(first, second, overlap):
            yield Offered(first, second)
            yield Offered(second, first)

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare the figures of a corner with three tails."""
        (width, tail), (_, pin) = first, second
        return tail_sizes(f"{prefix}_tails", tail, pin, width, 3)

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return a corner with the figures of its own."""
        prefix = f"{joint_id}_tails"
        if f"{prefix}.count" not in ledger.quantities:
            return None
        return self.corner(joint_id, first, second, self.tails(ledger, prefix))

    def tails(self, ledger: Ledger, prefix: str, groove: str = "", lap: Fraction = Fraction(0)) -> Tails:
        """Return the tails that figures of the ledger give; `groove` and `lap` as in `Tails`.

        Parameters
        ----------
        ledger : Ledger
            Of the piece.
        prefix : str
            Of the corner's figures.
        groove : str
            Prefix of a groove that runs out there.
        lap : Fraction
            Of a half-blind corner, mm.
        """
        count = max(1, int(ledger[f"{prefix}.count"]))
        return Tails(
            prefix,
            count,
            ledger[f"{prefix}.half_pin"],
            ledger[f"{prefix}.pin"],
            Slope(ledger[f"{prefix}.slope"]),
            groove,
            lap,
        )

    def corner(self, joint_id: str, tail: Part, pin: Part, tails: Tails) -> Joint:
        """Return a corner with these tails."""
        return Joint(joint_id, self, tail.id, pin.id, figures=tails)

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how it is gauged, laid out, traced, sawn and chopped."""
        from nullah.core.joints.dovetail.operations import corner_steps

        return corner_steps(making) or None

    def where_moulded(self, joint: Joint, first: Part, second: Part) -> Joint:
        """Return a joint as it is made where the edges of both boards are moulded."""
        return mitred_where_moulded(joint, first, second)

    def corner_prefix(self, joint: Joint) -> str:
        """Return the prefix of the figures of its tails."""
        tails = tails_of(joint)
        return tails.prefix if tails is not None else ""

    def spaced(self, joint: Joint, widths: Mapping[str, tuple[Fraction, ...]]) -> Joint:
        """Return a joint with the widths its tails have against each other.

        Parameters
        ----------
        joint : Joint
            A corner.
        widths : Mapping[str, tuple[Fraction, ...]]
            Of the tails against each other, by prefix.
        """
        tails = tails_of(joint)
        if tails is None or tails.prefix not in widths:
            return joint
        return joint._replace(figures=tails._replace(widths=widths[tails.prefix]))


DOVETAIL = Dovetail()
