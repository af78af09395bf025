"""How dowels are set out and bored: a row in the one part, marked over to the other with points in its holes."""

from __future__ import annotations

from nullah.core.card import JointStage
from nullah.core.joints.dowels.row import DowelRow
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.row_steps import carried, nearer
from nullah.core.operations.fastening import Bore, Pin, SetOutRow, TracePlaces
from nullah.core.operations.lines import Line, LineKind
from nullah.core.operations.settings import by_rule
from nullah.core.operations.stock import Surface, surface_at


def dowel_steps(making: Making, row: DowelRow) -> tuple[BenchStep, ...]:
    """Return the steps of a row of dowels."""
    one, other = making.first, making.second
    laid = _set_out(making, row)
    into, facing = one.surface(row.side), other.surface(row.side.opposite)
    bored = Bore(
        part=one.part.id,
        stock=one.stock,
        into=into,
        row=laid.line,
        places=laid.places,
        bit=making.bit(row.diameter),
        pin=Pin.DOWEL,
        depth=by_rule("depth", row.deep[0], into, making.marks, quantity=f"{row.prefix}.first"),
    )
    lines = _carried(making, row, laid, facing)
    traced = TracePlaces(part=other.part.id, stock=other.stock, mate=one.part.id, lines=lines, points=True)
    again = Bore(
        part=other.part.id,
        stock=other.stock,
        into=facing,
        row=lines[0],
        places=lines[1:],
        bit=making.bit(row.diameter),
        pin=Pin.DOWEL,
        depth=by_rule("depth", row.deep[1], facing, making.marks, quantity=f"{row.prefix}.second"),
    )
    return (
        BenchStep(JointStage.MARKED, "first", (laid,)),
        BenchStep(JointStage.CUT, "first", (bored,)),
        BenchStep(JointStage.MARKED, "second", (traced,)),
        BenchStep(JointStage.CUT, "second", (again,)),
    )


def _set_out(making: Making, row: DowelRow) -> SetOutRow:
    """Return the row on the first part, from its nearer surfaces."""
    frame, marks = making.first, making.marks
    across, along = frame.axes.index(row.across), frame.axes.index(row.along)
    beside, distance = nearer(frame, across, row.level)
    first, last = frame.span(along, row.places[0], row.places[-1])
    several = len(row.places) > 1
    return SetOutRow(
        part=frame.part.id,
        stock=frame.stock,
        row=by_rule("row", distance, beside, marks),
        first=by_rule("first place", first, surface_at(along, False), marks),
        last=by_rule("last place", frame.stock[along] - last, surface_at(along, True), marks) if several else None,
        count=len(row.places),
        on=frame.surface(row.side),
        of=making.joint.id,
    )


def _carried(making: Making, row: DowelRow, laid: SetOutRow, on: Surface) -> tuple[Line, ...]:
    """Return the row and the places where they come to lie on the second part: the row first."""
    one, other, name = making.first, making.second, making.joint.id
    across, along = other.axes.index(row.across), other.axes.index(row.along)
    level = carried(one, other, row.across, laid.line)
    places = (
        Line(LineKind.PLACE, along, carried(one, other, row.along, place), (on,), number=number, of=name)
        for number, place in enumerate(laid.places, start=1)
    )
    return Line(LineKind.ROW, across, level, (on,), of=name), *places
