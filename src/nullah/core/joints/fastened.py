"""What types of joint have in common that nails or screws may hold: their row, its holes, its steps, its cautions."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark
from nullah.core.fixes import TakeUsualSize
from nullah.core.joints.base import JointBase
from nullah.core.joints.bench import AtBench
from nullah.core.joints.cutouts import axes_of
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.mate_views import Hole
from nullah.core.joints.row_cautions import row_cautions
from nullah.core.joints.rows import NoRow, Row, holes_in, row_of
from nullah.core.piece.cuts import Removal
from nullah.core.piece.faults import Fault, FaultKind, NothingReaches
from nullah.core.piece.joint import Hold, Joint, RowInput
from nullah.core.piece.overlap import contact
from nullah.core.piece.part import Part


class Fastened(JointBase):
    """A type that nails or screws may hold."""

    holds = tuple(Hold)

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return what is shared out between the two, and the holes of nails or screws."""
        taken = None if self.touches else super().cut(joint, first, second, is_first)
        row = row_in(joint)
        if row is None:
            return taken
        return (taken or Removal())._replace(holes=holes_in(row, first if is_first else second).holes)

    def fastened(self, joint: Joint, first: Part, second: Part, chosen: RowInput) -> Joint:
        """Return it with the row of nails or screws that holds it."""
        return joint._replace(figures=row_of(joint, first, second, chosen))

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield it where nothing that is sold, or was chosen, holds the two together."""
        row = joint.figures
        if isinstance(row, NoRow) and contact(first, second) is not None:
            fact = NothingReaches(first.id, second.id, screws=joint.hold is not Hold.NAILS, chosen=row.chosen)
            ways_out = () if row.chosen is None else (TakeUsualSize(row.chosen, fact.screws),)
            yield Fault(FaultKind.FIT, fact, (first.id, second.id), ways_out=ways_out)

    def row_steps(self, making: Making) -> tuple[BenchStep, ...]:
        """Return how its row is set out and bored; nothing where it is held otherwise."""
        from nullah.core.joints.row_steps import fastening_steps

        row = row_in(making.joint)
        return () if row is None else fastening_steps(making, row)

    def cautions(self, at: AtBench) -> Iterator[Remark]:
        """Yield what is to be minded of its row."""
        row = row_in(at.kind.joint)
        if row is not None:
            yield from row_cautions(row.fastening, at)

    def holes(self, at: AtBench) -> tuple[str, tuple[Hole, ...]]:
        """Return where nails or screws go."""
        row = row_in(at.kind.joint)
        if row is None:
            return "", ()
        part = next(mate.part for mate in (at.kind.first, at.kind.second) if mate.part.id == row.through)
        axes = axes_of(part)
        found = []
        for place in row.places:
            spot = {row.along: place, row.across: row.level, row.side.axis: part.box.low[row.side.axis.value]}
            own = [float(spot[axis] - part.box.low[axis.value]) for axis in axes]
            found.append(Hole(own[0], own[1], own[2], axes.index(row.side.axis)))
        return part.id, tuple(found)


def row_in(joint: Joint) -> Row | None:
    """Return the row that holds a joint, if one does."""
    return joint.figures if isinstance(joint.figures, Row) else None
