"""A tray: low sides, dividers in dados, ends that stand up and take the hands.

The ends are dovetailed to the sides, or the sides go through them on tenons that are seen
from outside. The bottom lies in grooves.
"""

from __future__ import annotations

from nullah.core.catalogue import N_, Phrase
from nullah.core.forms.bottom import bottom_sizes, put_bottom
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.forms.sizing import SIZING, SizeRule, sizes
from nullah.core.fraction import Fraction
from nullah.core.joints.dovetail.sizes import tail_sizes
from nullah.core.ledger import Definition, Ledger, Snap, given, ruled
from nullah.core.lengths import mm
from nullah.core.piece.facts import HandHoleLow, Note
from nullah.core.piece.form import Assembly, Choice, Choices, Form, View
from nullah.core.piece.joint import JointQuantities
from nullah.core.piece.part import Needs
from nullah.core.piece.shaping import RoundOver, Slot
from nullah.core.piece.space import Axis, Side

_ENDS = Choice(
    "ends",
    "Ends",
    (("tenoned", N_("through-tenoned")), ("dovetailed", N_("dovetailed"))),
    shape=True,
    parts=("left", "right", "front", "back"),
)
_HANDLES = Choice(
    "handles", "Handles", (("holes", N_("hand holes")), ("none", N_("none"))), shape=True, parts=("left", "right")
)
_DIVIDERS = Choice(
    "dividers", "Dividers", tuple((str(n), str(n)) for n in (2, 0, 1, 3, 4, 5, 6)), parts=("divider?", "front", "back")
)


def _define(chosen: Choices) -> tuple[Definition, ...]:
    tenoned, count = chosen["ends"] == "tenoned", int(chosen["dividers"])
    width_walls = "2 * (sides.thickness + sides.inset)" if tenoned else "2 * sides.thickness"
    spare = "" if tenoned else "2 * tails.proud"
    found = [
        *sizes(
            "tray",
            chosen["sizing"],
            {
                "length": SizeRule("2 * ends.thickness", 420),
                "width": SizeRule(width_walls, 260),
                "height": SizeRule("(groove.height + bottom.thickness)", 70, 1, N_("inside depth")),
            },
        ),
        *board_sizes("sides", N_("the sides"), "tray.outside_length", "tray.outside_height", 12, spare=spare),
        given("ends.rise", N_("how much the ends stand above the sides"), 45),
        *board_sizes("ends", N_("the ends"), "tray.outside_width", "tray.outside_height + ends.rise", 15, spare=spare),
        *bottom_sizes("tray", 9, 4, "1.5"),
    ]
    if tenoned:
        found += [
            given("sides.inset", N_("ends beyond the sides"), 15),
            ruled("tenon.width", N_("width of the tenons"), "tray.outside_height / 4", snap=Snap.MARK),
            ruled("tenon.edge", N_("edge to tenon"), "tray.outside_height / 6", snap=Snap.MARK),
        ]
    else:
        found += tail_sizes("tails", "sides.thickness", "ends.thickness", "tray.outside_height", 2, proud="tails.proud")
    if count:
        found += [
            given("dado.depth", N_("depth of the dados"), 4),
            ruled("dado.width", N_("width of the dados"), "divider.thickness"),
            given("divider.drop", N_("dividers below the edge of the sides"), 4),
            ruled("divider.opening", N_("dado to dado"), "tray.inside_width + 2 * dado.depth"),
            *board_sizes(
                "divider",
                N_("the dividers"),
                "divider.opening",
                "tray.inside_height - divider.drop",
                8,
                ("divider.opening",),
            ),
            ruled(
                "cell.length",
                N_("length of the compartments"),
                f"(tray.inside_length - {count} * divider.thickness) / {count + 1}",
            ),
        ]
    if chosen["handles"] == "holes":
        found += [
            given("handle.length", N_("length of the hand holes"), 95),
            given("handle.height", N_("height of the hand holes"), 26),
            given("handle.below", N_("top of the ends to the hand holes"), 18),
            given("ends.radius", N_("rounding of the ends' upper corners"), 20),
        ]
    return tuple(found)


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    m = Maker(ledger)
    must = [f"tray.{where}_{way}" for where in ("outside", "inside") for way in ("length", "width", "height")]
    if not m.need_positive(*must, "groove.depth", "groove.width", "ends.thickness", "sides.thickness"):
        return m.finish()
    _walls(m, chosen)
    size = (m.q("tray.outside_length"), m.q("tray.outside_width"))
    put_bottom(m, size, (m.q("ends.thickness"), _inset(m) + m.q("sides.thickness")))
    for number in range(1, int(chosen["dividers"]) + 1):
        _divider(m, number)
    if chosen["handles"] == "holes":
        _handles(m)
    _measures(m, chosen)
    return m.finish()


def _inset(m: Maker) -> Fraction:
    return m.q("sides.inset") if "sides.inset" in m.ledger.quantities else Fraction(0)


def _walls(m: Maker, chosen: Choices) -> None:
    q = m.q
    length, width, height = (q(f"tray.outside_{way}") for way in ("length", "width", "height"))
    inset, end = _inset(m), q("ends.thickness")
    spare = Fraction(0) if chosen["ends"] == "tenoned" else 2 * q("tails.proud")
    m.board("front", "front", "sides", (0, inset, 0), "xy", shows="flr", spare=spare)
    m.board("back", "back", "sides", (0, width - inset - q("sides.thickness"), 0), "xy", shows="blr", spare=spare)
    m.board("left", "left end", "ends", (0, 0, 0), "yx", shows="lfbt", spare=spare)
    m.board("right", "right end", "ends", (length - end, 0, 0), "yx", shows="rfbt", spare=spare)
    for side in ("front", "back"):
        for e in ("left", "right"):
            if chosen["ends"] == "dovetailed":
                m.dovetail(side, e, "tails", "groove.")
                continue
            overlap = m.part(e).box.overlap(m.part(side).box)
            edge, wide = q("tenon.edge"), q("tenon.width")
            bands = ((edge, edge + wide), (height - edge - wide, height - edge))
            tenons = [overlap.set(Axis.Z, *band) for band in bands] if overlap else []
            m.tenon(e, side, tenons, names=JointQuantities(guest="sides.thickness"))


def _divider(m: Maker, number: int) -> None:
    q = m.q
    thick, deep = q("divider.thickness"), q("dado.depth")
    x = q("ends.thickness") + number * q("cell.length") + (number - 1) * thick
    floor = q("groove.height") + q("bottom.thickness")
    part = f"divider{number}"
    m.board(
        part,
        Phrase("divider {number}", number=str(number)),
        "divider",
        (x, _inset(m) + q("sides.thickness") - deep, floor),
        "yx",
        needs=Needs.ANY,
    )
    # From the top edge down: the dividers drop in when the tray is together.
    run = {"x": (x, x + q("dado.width")), "z": (floor, q("tray.outside_height"))}
    names = JointQuantities("dado.width", "dado.depth", guest="divider.thickness")
    for host, inner in (("front", Side.BACK), ("back", Side.FRONT)):
        m.let_in(host, part, channels=(m.channel(host, inner, deep, **run),), runs=True, names=names)


def _handles(m: Maker) -> None:
    q = m.q
    wide, tall, long = q("tray.outside_width"), q("handle.height"), q("handle.length")
    top = q("ends.width") - q("handle.below")
    hole = Slot(Axis.X, (float(wide) / 2, float(top - tall / 2)), float(long), float(tall))
    for end in ("left", "right"):
        m.shape(end, hole)
        if q("ends.radius") > 0:
            radius = float(min(q("ends.radius"), q("ends.rise"), wide / 3))
            m.shape(end, RoundOver((Side.TOP, Side.FRONT), radius), RoundOver((Side.TOP, Side.BACK), radius))
    if q("handle.height") < 22:
        m.remark(HandHoleLow(mm(22)), quantity="handle.height")
    if q("handle.below") + tall > q("ends.rise"):
        m.remark(Note.HAND_HOLES_LOW, quantity="handle.below")


def _measures(m: Maker, chosen: Choices) -> None:
    q = m.q
    length, width, height = (q(f"tray.outside_{way}") for way in ("length", "width", "height"))
    above, front, right = View.ABOVE, View.FRONT, View.SECTION
    m.measure("tray.outside_length", above, (0, width, 0), (length, width, 0), 6)
    m.measure("tray.outside_width", above, (0, 0, 0), (0, width, 0), 6)
    m.measure(
        "tray.inside_length",
        above,
        (q("ends.thickness"), width / 2, 0),
        (length - q("ends.thickness"), width / 2, 0),
        0,
    )
    m.measure("tray.outside_height", front, (0, 0, 0), (0, 0, height), 6)
    m.measure("ends.rise", front, (length, 0, q("ends.width")), (length, 0, height), 6)
    m.measure("ends.thickness", front, (0, 0, 0), (q("ends.thickness"), 0, 0), -6)
    m.measure("groove.height", right, (0, width, q("groove.height")), (0, width, 0), 6)
    m.measure(
        "opening.width",
        right,
        (0, _inset(m) + q("sides.thickness") - q("groove.depth"), 0),
        (0, width - _inset(m) - q("sides.thickness") + q("groove.depth"), 0),
        -6,
    )
    if int(chosen["dividers"]):
        start = q("ends.thickness")
        m.measure("cell.length", above, (start, 0, 0), (start + q("cell.length"), 0, 0), -6)
    if chosen["handles"] == "holes":
        m.measure("ends.width", right, (0, 0, 0), (0, 0, q("ends.width")), 6)


TRAY = Form(
    "tray",
    "Tray",
    (SIZING, _ENDS, _DIVIDERS, _HANDLES),
    _define,
    _assemble,
    ("tray.outside_length", "tray.outside_width", "tray.outside_height"),
)
