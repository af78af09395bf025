"""How a tenon is drawbored: the mortise's part first, the tenon marked through it, its hole nearer to the shoulder."""

from __future__ import annotations

from nullah.core.card import JointStage
from nullah.core.fraction import Fraction
from nullah.core.joints.drawbored.peg import DrawPeg
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.row_steps import carried
from nullah.core.joints.tenon.operations import tenon_steps, tenons_of
from nullah.core.operations.fastening import Bore, Pin, SetOutRow, TracePlaces
from nullah.core.operations.lines import Line, LineKind
from nullah.core.operations.marking import Gauge
from nullah.core.operations.settings import by_rule, of_line
from nullah.core.operations.stock import surface_at
from nullah.core.piece.space import side_at


def drawbored_steps(making: Making) -> tuple[BenchStep, ...] | None:
    """Return the steps of a drawbored tenon; None where it is no plain one, or its peg is not known."""
    tenons, cut, peg = tenons_of(making), tenon_steps(making), making.joint.figures
    if tenons is None or cut is None or not isinstance(peg, DrawPeg) or len(making.joint.shares) != 1:
        return None
    host, guest, name = making.first, making.second, making.joint.id
    marked, along, across = tenons.gauged, guest.part.grain, tenons.wide
    into, place_axis = host.surface(marked), host.axes.index(across)
    middle = (tenons.columns[0][0] + tenons.columns[0][1]) / 2
    place, _ = host.span(place_axis, middle, middle)
    low = surface_at(place_axis, False)
    row = SetOutRow(
        part=host.part.id,
        stock=host.stock,
        row=by_rule("row", peg.inset, host.surface(tenons.into), making.marks, quantity=f"{peg.prefix}.inset"),
        first=by_rule("first place", Fraction(place), low, making.marks),
        last=None,
        count=1,
        on=into,
        of=name,
    )
    bored = Bore(
        part=host.part.id,
        stock=host.stock,
        into=into,
        row=row.line,
        places=row.places,
        bit=making.bit(peg.bit),
        pin=Pin.PEG,
    )
    face, end = guest.surface(marked), guest.surface(side_at(along, not tenons.into.high))
    level = carried(host, guest, along, row.line)
    there = carried(host, guest, across, row.places[0])
    over = Line(LineKind.ROW, guest.axes.index(along), level, (face,), end, of=name)
    spot = Line(LineKind.PLACE, guest.axes.index(across), there, (face,), end, 1, name)
    traced = TracePlaces(part=guest.part.id, stock=guest.stock, mate=host.part.id, lines=(over, spot))
    drawn = Gauge(
        part=guest.part.id,
        stock=guest.stock,
        kind=LineKind.DRAWN_ROW,
        setting=by_rule("draw", peg.draw, of_line(over), making.marks, quantity=f"{peg.prefix}.draw"),
        on=(face,),
        end=end,
        of=name,
        base=over,
        backwards=end.high,
    )
    again = Bore(
        part=guest.part.id,
        stock=guest.stock,
        into=face,
        row=drawn.line,
        places=(spot,),
        bit=making.bit(peg.bit),
        pin=Pin.PEG,
    )
    *first, gauged, sawn = cut
    return (
        *first,
        BenchStep(JointStage.MARKED, "first", (row,)),
        BenchStep(JointStage.CUT, "first", (bored,)),
        gauged,
        sawn,
        BenchStep(JointStage.MARKED, "second", (traced, drawn)),
        BenchStep(JointStage.CUT, "second", (again,)),
    )
