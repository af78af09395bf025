"""Dowels: round pins glued into holes of two parts that only touch."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.joints.base import JointBase
from nullah.core.joints.dowels.row import DowelRow, holes_of, row_between
from nullah.core.joints.making import BenchStep, Making
from nullah.core.ledger import Definition, Ledger, QuantityKind, Snap, given, ruled
from nullah.core.lengths import Length
from nullah.core.piece.cuts import Removal
from nullah.core.piece.faults import BoredThrough, DowelsTooMany, Fault, FaultKind
from nullah.core.piece.joint import Hold, Joint, Offered
from nullah.core.piece.overlap import contact
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box

#: So much wood must be left behind a hole, and between two of them, as a share of its diameter (practice, no source).
_BEHIND, _BETWEEN = Fraction(1, 2), Fraction(1)


class Dowels(JointBase):
    """A row of dowels in both parts, glued."""

    id = N_("dowels")
    offer = N_("Against each other, with dowels")
    touches = True
    in_boxes = False

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield it where two parts touch in a surface."""
        if overlap is None and _touch(first, second) is not None:
            yield Offered(first, second)

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare how many there are, how thick, how deep in each part, and how far from the ends of the joint."""
        thin = f"min({first[1]}, {second[1]})"
        return (
            given(f"{prefix}_dowels.count", N_("number of dowels"), 2, QuantityKind.COUNT),
            ruled(f"{prefix}_dowels.diameter", N_("diameter of the dowels"), f"{thin} / 3", snap=Snap.BIT),
            ruled(f"{prefix}_dowels.first", N_("depth of the holes in the one"), f"{thin} * 2 / 3", snap=Snap.MARK),
            ruled(f"{prefix}_dowels.second", N_("depth of the holes in the other"), f"{thin} * 2 / 3", snap=Snap.MARK),
            given(f"{prefix}_dowels.inset", N_("end of the joint to the first dowel"), 12),
        )

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return a row along the longer way in which the two touch; None while its figures are not known."""
        prefix, touch = f"{joint_id}_dowels", _touch(first, second)
        if f"{prefix}.count" not in ledger.quantities or touch is None:
            return Joint(joint_id, self, first.id, second.id, Hold.GLUE)
        row = row_between(
            first,
            second,
            touch,
            int(ledger[f"{prefix}.count"]),
            Length(ledger[f"{prefix}.diameter"]),
            (ledger[f"{prefix}.first"], ledger[f"{prefix}.second"]),
            ledger[f"{prefix}.inset"],
        )
        return Joint(joint_id, self, first.id, second.id, Hold.GLUE, figures=row._replace(prefix=prefix))

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return the holes."""
        row = joint.figures
        return holes_of(row, first if is_first else second, is_first) if isinstance(row, DowelRow) else None

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield where a hole comes out behind, or where holes run into each other."""
        row = joint.figures
        if not isinstance(row, DowelRow):
            return
        for part, other, deep, name in (
            (first, second, row.deep[0], f"{row.prefix}.first"),
            (second, first, row.deep[1], f"{row.prefix}.second"),
        ):
            size = part.box.size(row.side.axis)
            if deep + row.diameter.mm * _BEHIND > size:
                bored = BoredThrough(part.id, other.id, Length(deep), Length(size))
                yield Fault(FaultKind.THIN, bored, (part.id, other.id), quantity=name)
        apart = min((b - a for a, b in zip(row.places, row.places[1:], strict=False)), default=row.diameter.mm * 9)
        if apart < row.diameter.mm * (1 + _BETWEEN):
            crowded = DowelsTooMany(first.id, second.id, len(row.places), Length(apart), row.diameter)
            yield Fault(FaultKind.THIN, crowded, (first.id, second.id), quantity=f"{row.prefix}.count")

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how the row is set out and bored in the one part, and marked over to the other."""
        from nullah.core.joints.dowels.operations import dowel_steps

        row = making.joint.figures
        return dowel_steps(making, row) if isinstance(row, DowelRow) else None


def _touch(first: Part, second: Part) -> Box | None:
    """Return the surface in which two parts touch; None where they do not, or along an edge alone."""
    touch = contact(first, second)
    return touch if touch is not None and sum(touch.size(axis) == 0 for axis in Axis) == 1 else None


DOWELS = Dowels()
