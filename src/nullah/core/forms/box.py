"""A box: four sides, a bottom in a groove; corners dovetailed, rabbeted or grooved; lids of four kinds.

The front and back run along X, the ends along Y. At each corner two boards fill the same
space and the joint shares it out; the bottom reaches into all four by the depth of the
groove, less its clearance.
"""

from __future__ import annotations

from nullah.core.card import Severity
from nullah.core.catalogue import N_, Phrase
from nullah.core.forms.bottom import bottom_sizes, put_bottom
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.forms.sizing import SIZING, SizeRule, sizes
from nullah.core.fraction import Fraction
from nullah.core.joints.dovetail.sizes import tail_sizes
from nullah.core.ledger import Definition, Ledger, Snap, given, ruled
from nullah.core.lengths import Length
from nullah.core.piece.facts import HingesTooLong, HingeTooWide, Note
from nullah.core.piece.form import Assembly, Choice, Choices, Form, Hardware, View
from nullah.core.piece.joint import Hold, JointQuantities
from nullah.core.piece.part import Needs
from nullah.core.piece.shaping import Notch
from nullah.core.piece.space import Side

_CORNERS = Choice(
    "corners",
    "Corners",
    (("dovetailed", N_("dovetailed")), ("rabbeted", N_("rabbeted")), ("grooved", N_("grooved"))),
    shape=True,
    parts=("front", "back", "left", "right"),
)
_TAILS_ON = Choice(
    "tails_on",
    "Tails on",
    (("sides", N_("front and back")), ("ends", N_("the ends"))),
    ("corners", ("dovetailed",)),
    parts=("front", "back", "left", "right"),
)
_GROOVES = Choice(
    "grooves",
    "Grooves",
    (("stopped", N_("stopped")), ("through", N_("run through"))),
    parts=("bottom", "front", "back", "left", "right"),
)
_LID = Choice(
    "lid",
    "Lid",
    (
        ("none", N_("none")),
        ("lift", N_("lifted off")),
        ("sliding", N_("sliding")),
        ("hinged", N_("hinged, with a stay")),
    ),
    shape=True,
    parts=("lid", "front", "back", "left", "right", "batten?"),
)


def _define(chosen: Choices) -> tuple[Definition, ...]:
    tail, pin = ("sides", "ends") if chosen["tails_on"] == "sides" else ("ends", "sides")
    dovetailed = chosen["corners"] == "dovetailed"
    spare = "2 * tails.proud" if dovetailed else ""
    ends_length = "box.outside_width" if dovetailed else "box.outside_width - 2 * (sides.thickness - corner.depth)"
    found = [
        *sizes(
            "box",
            chosen["sizing"],
            {
                "length": SizeRule("2 * ends.thickness", 360),
                "width": SizeRule("2 * sides.thickness", 220),
                "height": SizeRule(_height_walls(chosen), 120, 1, N_("inside depth")),
            },
        ),
        *board_sizes("sides", N_("front and back"), "box.outside_length", "box.outside_height", 15, spare=spare),
        *board_sizes("ends", N_("the ends"), ends_length, "box.outside_height", "sides.thickness", spare=spare),
        *bottom_sizes("box", 10, 5, "1"),
    ]
    if dovetailed:
        found += tail_sizes(
            "tails", f"{tail}.thickness", f"{pin}.thickness", "box.outside_height", 3, proud="tails.proud"
        )
    elif chosen["corners"] == "rabbeted":
        found += [
            ruled("corner.depth", N_("depth of the corner rabbet"), "sides.thickness / 2", snap=Snap.MARK),
            ruled("corner.width", N_("width of the corner rabbet"), "ends.thickness"),
        ]
    else:
        found += [
            ruled("corner.depth", N_("depth of the corner groove"), "sides.thickness / 3", snap=Snap.MARK),
            ruled("corner.width", N_("width of the corner groove"), "ends.thickness / 3", snap=Snap.MARK),
            ruled("corner.tongue", N_("thickness of the tongue"), "corner.width"),
        ]
    return (*found, *_lid_quantities(chosen, tail, pin))


def _height_walls(chosen: Choices) -> str:
    floor = "(groove.height + bottom.thickness)"
    return f"{floor[:-1]} + lid.groove_width + lid.below_edge)" if chosen["lid"] == "sliding" else floor


def _lid_quantities(chosen: Choices, tail: str, pin: str) -> tuple[Definition, ...]:
    match chosen["lid"]:
        case "sliding":
            low_length = "ends.length"
            found: list[Definition] = [
                given("lid.thickness", N_("thickness of the lid"), 6),
                given("lid.below_edge", N_("upper edge to the lid's groove"), 6),
                ruled("lid.groove_width", N_("width of the lid's groove"), "lid.thickness + lid.clearance"),
                given("lid.clearance", N_("clearance of the lid"), 1, snap=Snap.NOTHING),
                ruled(
                    "lid.length",
                    N_("length of the lid"),
                    "box.outside_length - ends.thickness + groove.depth - lid.clearance",
                ),
                ruled("lid.width", N_("width of the lid"), "opening.width - 2 * lid.clearance", ("opening.width",)),
                *board_sizes(
                    "low_end",
                    N_("the low end"),
                    low_length,
                    "box.outside_height - lid.below_edge - lid.groove_width",
                    "ends.thickness",
                    spare="2 * tails.proud" if chosen["corners"] == "dovetailed" else "",
                ),
            ]
            if chosen["corners"] == "dovetailed":
                found += tail_sizes(
                    "low_tails",
                    f"{tail}.thickness",
                    f"{pin}.thickness",
                    "low_end.width",
                    3,
                    N_("at the low end"),
                    proud="tails.proud",
                )
            return tuple(found)
        case "lift" | "hinged":
            hinges = (
                given("hinge.length", N_("length of a hinge"), 50, snap=Snap.NOTHING),
                given("hinge.leaf", N_("width of a hinge's leaf"), 12, snap=Snap.NOTHING),
                given("hinge.knuckle", N_("depth a hinge is let in"), 3, snap=Snap.NOTHING),
                ruled("hinge.inset", N_("end of the box to a hinge"), "hinge.length", snap=Snap.MARK),
                ruled(
                    "stay.from_hinge",
                    N_("hinge to the stay's screws, on end and lid"),
                    "box.outside_width / 2",
                    snap=Snap.MARK,
                ),
                # The chord of 95° at that distance, 2 sin 47.5° (exact to a thousandth): a little past upright.
                ruled(
                    "stay.length",
                    N_("length of the stay between its screws, lid open at 95°"),
                    "stay.from_hinge * 737 / 500",
                ),
            )
            return (
                # At its hinges the lid ends flush with the back, or it would not open.
                *board_sizes(
                    "lid",
                    N_("the lid"),
                    "box.outside_length + 2 * lid.over",
                    f"box.outside_width + {'' if chosen['lid'] == 'hinged' else '2 * '}lid.over",
                    15,
                ),
                given("lid.over", N_("how far the lid stands over"), 0 if chosen["lid"] == "lift" else 6),
                given("batten.clearance", N_("clearance of the battens inside"), 2, snap=Snap.NOTHING),
                *board_sizes(
                    "batten", N_("the battens"), "box.inside_width - 2 * batten.clearance", "ends.thickness * 2", 10
                ),
                *(hinges if chosen["lid"] == "hinged" else ()),
            )
        case _:
            return ()


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    m = Maker(ledger)
    q = m.q
    must = [n for n in ledger.quantities if n.startswith(("box.", "contents.")) and "clear" not in n]
    must += ["groove.height", "bottom.thickness", "groove.width", "sides.thickness", "ends.thickness"]
    if not m.need_positive(*must):
        return m.finish()
    _walls(m, chosen)
    size = (q("box.outside_length"), q("box.outside_width"))
    put_bottom(m, size, (q("ends.thickness"), q("sides.thickness")), chosen["grooves"] == "through", "grooves=stopped")
    _lid(m, chosen)
    _remarks(m)
    _measures(m, chosen)
    return m.finish()


def _walls(m: Maker, chosen: Choices) -> None:
    q = m.q
    length, width = q("box.outside_length"), q("box.outside_width")
    side, end = q("sides.thickness"), q("ends.thickness")
    dovetailed = chosen["corners"] == "dovetailed"
    spare = 2 * q("tails.proud") if dovetailed else Fraction(0)
    low = chosen["lid"] == "sliding"
    right = "low_end" if low else "ends"
    inset = Fraction(0) if dovetailed else side - q("corner.depth")
    m.board("front", "front", "sides", (0, 0, 0), "xy", shows="flr", spare=spare)
    m.board("back", "back", "sides", (0, width - side, 0), "xy", shows="blr", spare=spare)
    m.board("left", "left end", "ends", (0, inset, 0), "yx", shows="lfb", spare=spare)
    m.board("right", "right end", right, (length - q(f"{right}.thickness"), inset, 0), "yx", shows="rfb", spare=spare)
    for s in ("front", "back"):
        for e in ("left", "right"):
            prefix = "low_tails" if low and e == "right" else "tails"
            if dovetailed:
                pair = (s, e) if chosen["tails_on"] == "sides" else (e, s)
                m.dovetail(*pair, prefix, "groove.")
            else:
                _corner(m, chosen, s, e, side, end, length)


def _corner(m: Maker, chosen: Choices, s: str, e: str, side: Fraction, end: Fraction, length: Fraction) -> None:
    """Rabbet or groove the end of a side for an end of the box."""
    q = m.q
    deep, wide = q("corner.depth"), q("corner.width")
    inner = Side.BACK if s == "front" else Side.FRONT
    height = m.part(e).box.high[2]
    names = JointQuantities("corner.width", "corner.depth", guest="ends.thickness")
    if chosen["corners"] == "rabbeted":
        x = (Fraction(0), wide) if e == "left" else (length - wide, length)
        m.let_in(s, e, channels=(m.channel(s, inner, deep, x=x, z=(Fraction(0), height)),), names=names)
        return
    x = (end - wide, end) if e == "left" else (length - end, length - end + wide)
    tongue = q("corner.tongue")
    share_x = (end - tongue, end) if e == "left" else (length - end, length - end + tongue)
    overlap = m.part(s).box.overlap(m.part(e).box)
    shares = (overlap.set(m.part(s).grain, *share_x),) if overlap else ()
    channel = m.channel(s, inner, deep, x=x, z=(Fraction(0), height))
    m.let_in(s, e, channels=(channel,), shares=shares, names=names._replace(guest="corner.tongue"))


def _lid(m: Maker, chosen: Choices) -> None:
    q = m.q
    length, width, height = (q(f"box.outside_{way}") for way in ("length", "width", "height"))
    match chosen["lid"]:
        case "sliding":
            _sliding_lid(m, length, width, height)
        case "lift" | "hinged":
            over = q("lid.over")
            m.board("lid", "lid", "lid", (-over, -over, height), "xz", shows="tlrf", group="lid", role="lid")
            x, y = q("ends.thickness") * 2, q("sides.thickness") + q("batten.clearance")
            low = height - q("batten.thickness")
            shift = length - x - q("batten.width")
            for number, at in ((1, x), (2, shift)):
                m.board(
                    f"batten{number}",
                    Phrase("batten {number}", number=str(number)),
                    "batten",
                    (at, y, low),
                    "yz",
                    needs=Needs.ANY,
                    group="lid",
                )
                m.butt("lid", f"batten{number}", Hold.SLOTS)
            m.mover("lid", "lid", Side.TOP, height, ("batten.clearance", "batten.length"))
            if chosen["lid"] == "hinged":
                _hinges(m, length, height)


def _sliding_lid(m: Maker, length: Fraction, width: Fraction, height: Fraction) -> None:
    q = m.q
    clear, deep, end, side = q("lid.clearance"), q("groove.depth"), q("ends.thickness"), q("sides.thickness")
    below = q("lid.below_edge")
    floor = height - below - q("lid.groove_width")
    z = (floor, height - below)
    y = (width - q("lid.width")) / 2
    m.board("lid", "lid", "lid", (length - q("lid.length"), y, floor), "xz", shows="tr", group="lid", role="lid")
    names = JointQuantities("lid.groove_width", "groove.depth", guest="lid.thickness")
    channels = {
        "front": m.channel("front", Side.BACK, deep, z=z, x=(end - deep, length)),
        "back": m.channel("back", Side.FRONT, deep, z=z, x=(end - deep, length)),
        "left": m.channel("left", Side.RIGHT, deep, z=z, y=(side - deep, width - side + deep)),
    }
    room = (clear, clear, clear)
    for host, channel in channels.items():
        # It runs out over the low end.
        m.let_in(host, "lid", channels=(channel,), room=room, hold=Hold.DRY, names=names, level_with="right")
    m.mover("lid", "lid", Side.RIGHT, length, ("lid.clearance", "lid.thickness"))
    m.freedom(("lid",), 2 * clear, "lid.clearance")


def _hinges(m: Maker, length: Fraction, height: Fraction) -> None:
    """Let two hinges into the top edge of the back, a hinge's length from either end."""
    q = m.q
    back = m.part("back").box
    long, leaf, deep, inset = q("hinge.length"), q("hinge.leaf"), q("hinge.knuckle"), q("hinge.inset")
    thick = back.size(m.part("back").face)
    if leaf > thick:
        fact = HingeTooWide(Length(leaf), Length(thick))
        m.remark(fact, Severity.FAILURE, (m.give("hinge.leaf", thick),), "hinge.leaf")
    if 2 * (inset + long) > length:
        m.remark(HingesTooLong(Length(long), Length(length)), Severity.FAILURE, quantity="hinge.length")
    for x in (inset, length - inset - long):
        low = (float(x), float(thick - leaf), float(height - deep))
        m.shape("back", Notch(low, (float(x + long), float(thick), float(height))))
    m.butt("back", "lid", Hold.DRY)
    m.remark(Note.STAY_BEFORE_HINGES, Severity.NOTE)
    m.fit(Hardware.HINGES, "back", "lid")
    m.fit(Hardware.STAY, "right", "lid")


def _remarks(m: Maker) -> None:
    q = m.q
    thinner = min(q("sides.thickness"), q("ends.thickness"))
    third = Fraction(int(thinner / 3 * 2), 2)
    shallower = (m.give("groove.depth", third),)
    if q("groove.depth") <= 0:
        m.remark(Note.GROOVE_HAS_NO_DEPTH, Severity.FAILURE, shallower, "groove.depth")
    elif q("groove.depth") * 2 > thinner:
        m.remark(
            Note.GROOVE_TOO_DEEP,
            Severity.FAILURE if q("groove.depth") >= thinner else Severity.WARNING,
            shallower,
            "groove.depth",
        )
    if q("bottom.clearance") < 0:
        m.remark(
            Note.CLEARANCE_BELOW_NOTHING,
            Severity.FAILURE,
            (m.give("bottom.clearance", Fraction(1, 2)),),
            "bottom.clearance",
        )
    elif q("groove.depth") > 0 and q("bottom.clearance") * 2 > q("groove.depth"):
        m.remark(Note.CLEARANCE_TOO_LARGE, Severity.WARNING, quantity="bottom.clearance")


def _measures(m: Maker, chosen: Choices) -> None:
    q = m.q
    length, width, height = (q(f"box.outside_{way}") for way in ("length", "width", "height"))
    end, side, deep = q("ends.thickness"), q("sides.thickness"), q("groove.depth")
    floor, thick = q("groove.height"), q("bottom.thickness")
    above, front, right = View.ABOVE, View.FRONT, View.SECTION
    m.measure("box.outside_length", above, (0, width, 0), (length, width, 0), 6)
    m.measure("box.outside_width", above, (0, 0, 0), (0, width, 0), 6)
    at = side + (width - 2 * side) * Fraction(76, 100)
    m.measure("box.inside_length", above, (end, at, 0), (length - end, at, 0), 0)
    m.measure("box.inside_width", above, (length / 5, side, 0), (length / 5, width - side, 0), 0)
    at = side + (width - 2 * side) * Fraction(7, 100)
    m.measure("opening.length", above, (end - deep, at, 0), (length - end + deep, at, 0), 0)
    m.measure("ends.thickness", above, (length - end, 0, 0), (length, 0, 0), -5)
    m.measure("sides.thickness", above, (length, width - side, 0), (length, width, 0), -5)
    if chosen["sizing"] == "contents":
        clear = q("contents.clearance")
        x0, y1 = end + clear, width - side - clear
        x1, y0 = x0 + q("contents.length"), y1 - q("contents.width")
        at = y0 + (y1 - y0) * Fraction(30, 100)
        m.measure("contents.length", above, (x0, at, 0), (x1, at, 0), 0)
        m.measure("contents.width", above, (length * 84 / 100, y0, 0), (length * 84 / 100, y1, 0), 0)
    m.measure("box.outside_height", front, (0, 0, 0), (0, 0, height), 6)
    m.measure(
        "box.inside_height",
        right,
        (0, width * 7 / 10, floor + thick),
        (0, width * 7 / 10, floor + thick + q("box.inside_height")),
        0,
    )
    if chosen["sizing"] == "contents":
        top = floor + thick + q("contents.height")
        m.measure("contents.height", right, (0, width * 36 / 100, floor + thick), (0, width * 36 / 100, top), 0)
    m.measure("groove.height", right, (0, width, floor), (0, width, 0), 6)
    m.measure("bottom.thickness", right, (0, width, floor), (0, width, floor + thick), -6)
    m.measure("groove.depth", right, (0, side - deep, 0), (0, side, 0), -5)
    m.measure("opening.width", right, (0, side - deep, 0), (0, width - side + deep, 0), -13)


BOX = Form(
    "box",
    "Box",
    (SIZING, _CORNERS, _TAILS_ON, _GROOVES, _LID),
    _define,
    _assemble,
    ("box.outside_length", "box.outside_width", "box.outside_height"),
)
