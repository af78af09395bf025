"""How a tusk tenon is made: a tenon through and beyond, and the slot of its wedge from a little inside the post."""

from __future__ import annotations

from nullah.core.card import JointStage
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.tenon.operations import TenonedPart, pins_apart, tenon_steps, tenons_of
from nullah.core.joints.tusk.wedge import INSIDE, Tusk
from nullah.core.operations.lines import LineKind
from nullah.core.operations.marking import Gauge, Marker
from nullah.core.operations.settings import by_mate, by_rule, of_line
from nullah.core.operations.stock import Surface
from nullah.core.operations.tenons import GaugePair
from nullah.core.operations.wedges import ChopWedgeSlot
from nullah.core.piece.space import side_at


def tusk_steps(making: Making) -> tuple[BenchStep, ...] | None:
    """Return the steps of a tusk tenon; None where its tenon is no plain one."""
    tenons, cut, wedge = tenons_of(making), tenon_steps(making), making.joint.figures
    if tenons is None or cut is None or not isinstance(wedge, Tusk):
        return None
    frame, marks = making.second, making.marks
    part, stock, name = frame.part.id, frame.stock, making.joint.id
    end = frame.surface(side_at(tenons.into.axis, not tenons.into.high))
    shoulder = TenonedPart(making, tenons).shoulder.line
    edges = (Surface.FACE_EDGE, Surface.OTHER_EDGE)
    post = making.first.part
    face = Gauge(
        part=part,
        stock=stock,
        kind=LineKind.POST_FACE,
        setting=by_mate("face", post.box.size(frame.part.grain), of_line(shoulder), post.id),
        tool=Marker.KNIFE,
        on=(Surface.FACE_SIDE, Surface.OTHER_FACE, *edges),
        end=end,
        of=name,
        base=shoulder,
        backwards=not end.high,
    )
    wall = Gauge(
        part=part,
        stock=stock,
        kind=LineKind.WEDGE_WALL,
        setting=by_rule("inside", INSIDE, of_line(face.line), marks),
        tool=Marker.KNIFE,
        on=edges,
        end=end,
        of=name,
        base=face.line,
        backwards=end.high,
    )
    names = making.joint.names._replace(guest=f"{wedge.prefix}.thickness")
    pins = pins_apart(making._replace(joint=making.joint._replace(names=names)), wedge.thick, tenons.thick)
    near = (stock.thickness - pins.figure) / 2
    pair = GaugePair(
        part=part,
        stock=stock,
        kind=LineKind.WEDGE_CHEEK,
        near=by_rule("nearer pin", near, frame.surface(tenons.gauged), marks),
        wide=pins,
        on=edges,
        end=end,
        of=name,
    )
    low, high = sorted(pair.draws, key=lambda line: line.at)
    narrow = frame.surface(side_at(frame.part.across, False))
    slot = ChopWedgeSlot(
        part=part,
        stock=stock,
        end=end,
        wall=wall.line,
        cheeks=(low, high),
        wide=by_rule("wide", wedge.wide, of_line(wall.line), marks, quantity=f"{wedge.prefix}.width"),
        narrow=narrow,
        slope=wedge.slope,
        quantity=f"{wedge.prefix}.slope",
    )
    return (
        *cut,
        BenchStep(JointStage.MARKED, "second", (face, wall, pair)),
        BenchStep(JointStage.CUT, "second", (slot,)),
    )
