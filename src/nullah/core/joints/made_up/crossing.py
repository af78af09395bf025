"""Laps, bridles and keyed mitres by themselves."""

from __future__ import annotations

from nullah.core.card import Remark, Setting, Severity
from nullah.core.joints.bench import KNIFE_CARE, Told, in_order
from nullah.core.joints.bridle import BRIDLE
from nullah.core.joints.lap import LAP
from nullah.core.joints.made_up.boards import LONG, StandaloneJoint, board, box, in_mm, need
from nullah.core.joints.mitre import MITRE
from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Joint
from nullah.core.piece.shaping import Slant
from nullah.core.piece.space import Axis


def cross_lap(one: float, other: float, thick: float) -> StandaloneJoint:
    """Halve two boards that cross."""
    at, y = (LONG * 2 - other) / 2, (LONG * 2 - one) / 2
    first = board("lower board", 1, (0, y, 0), (LONG * 2, y + one, thick), "xz")
    second = board("upper board", 2, (at, 0, 0), (at + other, LONG * 2, thick), "yz")
    half = box((at, y, thick / 2), (at + other, y + one, thick))
    joint = Joint("lap", LAP, first.id, second.id, channels=(half,), shares=(half,))
    told = Told(
        (
            Setting("Gauge", in_mm(thick / 2), "from the same face of both"),
            Setting("Shoulders", in_mm(other), "traced from the mate"),
        ),
        in_order(
            "Lay the one across the other and knife both its edges; square down, gauge half the thickness.",
            "Saw inside the lines to the gauge, a few cuts between; chisel from both edges to the middle.",
            "Press together by hand: flush above and below. Shave floors, never walls.",
        ),
        (Remark("Halved, each keeps half its strength upwards: put the uncut half where the load is."), KNIFE_CARE),
    )
    return StandaloneJoint(Assembly((first, second), (joint,)), told)


def corner_bridle(wide: float, thick: float) -> StandaloneJoint:
    """Join a corner by a slot and a tongue, each a third."""
    third = thick / 3
    need(third >= 2, "A third of the thickness is under 2 mm: a lap does better.")
    first = board("slotted", 1, (0, 0, 0), (LONG, wide, thick), "xz")
    second = board("tongued", 2, (LONG - wide, 0, 0), (LONG, LONG, thick), "yz")
    middle = box((LONG - wide, 0, third), (LONG, wide, 2 * third))
    joint = Joint("bridle", BRIDLE, first.id, second.id, channels=(middle,), shares=(middle,))
    told = Told(
        (
            Setting("Mortise gauge", in_mm(third), "both lines, from the same face"),
            Setting("Deep", in_mm(wide), "as the mate is wide"),
        ),
        in_order(
            "Gauge both parts with one setting, from the face side.",
            "Saw the slot's walls inside, the tongue's cheeks outside; chop the slot's end from both edges.",
            "Saw the tongue's shoulders. Slide together; clamp the cheeks as it is glued.",
        ),
        (KNIFE_CARE,),
    )
    return StandaloneJoint(Assembly((first, second), (joint,)), told)


def keyed_mitre(wide: float, thick: float, key: float, deep: float) -> StandaloneJoint:
    """Mitre two boards and put a key across the corner."""
    need(0 < key < thick and 0 < deep < wide, "The key must be thinner than the boards and shorter than the mitre.")
    z = (thick - key) / 2
    first = board("one side", 1, (0, 0, 0), (LONG, wide, thick), "xz")
    second = board("other side", 2, (0, 0, 0), (wide, LONG, thick), "yz")
    # A key is a triangle in the corner: its long side runs at 45° across it.
    tri = Slant(Axis.Z, ((0.0, deep), (deep, 0.0), (deep, deep)))
    put = board("key", 3, (0, 0, z), (deep, deep, z + key), "xz", tri)
    take = Slant(Axis.Z, ((0.0, 0.0), (deep, 0.0), (0.0, deep)), (z, z + key))
    parts = (first._replace(shapings=(take,)), second._replace(shapings=(take,)), put)
    told = Told(
        (
            Setting("Mitre", "45°", "shot on a board"),
            Setting("Key", in_mm(key), "to the saw's kerf"),
            Setting("In the corner", in_mm(deep), "along both sides"),
        ),
        in_order(
            "Shoot the mitres to one length; size them with thin glue, then glue and cramp with a strap.",
            "When it is dry saw the slot across the corner, both sides at once.",
            "Glue a key of the same thickness in, its grain across the corner; plane it flush from the corner inwards.",
        ),
        (Remark("Plane the key off towards the sides, or it tears out.", Severity.WARNING), KNIFE_CARE),
    )
    joint = Joint("mitre", MITRE, first.id, second.id)
    return StandaloneJoint(Assembly(parts, (joint,)), told)
