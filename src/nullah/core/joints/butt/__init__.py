"""Butt joint: two parts that only touch, glued, nailed or screwed."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark
from nullah.core.catalogue import N_
from nullah.core.joints.base import JointBase
from nullah.core.joints.bench import AtBench
from nullah.core.joints.butt.cautions import butt_cautions
from nullah.core.joints.butt.operations import fastening_steps
from nullah.core.joints.butt.row import Row, holes_in, row_of
from nullah.core.joints.cutouts import axes_of
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.mate_views import Hole
from nullah.core.lengths import Marks
from nullah.core.piece.cuts import Removal
from nullah.core.piece.joint import Hold, Joint, Offered, WoodHeld
from nullah.core.piece.overlap import contact
from nullah.core.piece.part import Part
from nullah.core.piece.space import Box
from nullah.core.shop import Shop


class Butt(JointBase):
    """Two parts against each other."""

    id = N_("butt")
    offer = N_("Against each other, {hold}")
    touches = True
    in_boxes = False

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return it with what holds it; boards edge to edge make a wider one."""
        if joint.hold is Hold.GLUE and _edge_to_edge(first, second):
            return N_("edge joint, glued")
        return f"butt joint, {joint.hold.value}"

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return the holes of nails or screws."""
        row = _row(joint)
        return None if row is None else holes_in(row, first if is_first else second)

    def fastened(
        self, joint: Joint, first: Part, second: Part, woods: tuple[WoodHeld, WoodHeld], shop: Shop, marks: Marks
    ) -> Joint:
        """Return it with the row of nails or screws that holds it."""
        return joint._replace(figures=row_of(joint, first, second, woods, shop, marks))

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how its row is set out and bored; nothing where it is only glued, or left dry."""
        row = _row(making.joint)
        return () if row is None else fastening_steps(making, row)

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield what could hold two parts that touch."""
        if overlap is None and contact(first, second) is not None:
            for hold in (Hold.GLUE, Hold.NAILS, Hold.SCREWS, Hold.SLOTS):
                yield Offered(first, second, hold=hold)

    def cautions(self, at: AtBench) -> Iterator[Remark]:
        """Yield what is to be minded of glue, or of the row."""
        yield from butt_cautions(at)

    def holes(self, at: AtBench) -> tuple[str, tuple[Hole, ...]]:
        """Return where nails or screws go."""
        row = _row(at.kind.joint)
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


def _edge_to_edge(first: Part, second: Part) -> bool:
    """Return whether two boards lie edge to edge, their grain the same way."""
    touch = contact(first, second)
    beside = touch is not None and touch.size(first.across) == 0
    return beside and first.grain is second.grain and first.face is second.face


def _row(joint: Joint) -> Row | None:
    return joint.figures if isinstance(joint.figures, Row) else None


BUTT = Butt()
