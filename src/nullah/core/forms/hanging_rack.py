"""A rack that hangs on bevelled cleats: a back, a slotted shelf in a groove, two small ends.

Both cleats come out of one board, ripped once at the bevel; one is screwed to the back, the
other to the wall, and the weight draws them together.
"""

from __future__ import annotations

from nullah.core.card import Severity
from nullah.core.catalogue import N_
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.forms.sizing import SIZING, SizeRule, sizes
from nullah.core.fraction import Fraction
from nullah.core.ledger import Definition, Ledger, QuantityKind, Snap, given, ruled
from nullah.core.piece.facts import Note
from nullah.core.piece.form import Assembly, Choice, Choices, Form, Hardware, View
from nullah.core.piece.joint import Hold, JointQuantities
from nullah.core.piece.part import Needs
from nullah.core.piece.shaping import Chamfer, LongBevel, Notch, bevel_degrees
from nullah.core.piece.space import Axis, Side

_SLOTS = Choice("slots", "Shelf", (("slotted", N_("slotted")), ("plain", N_("plain"))), shape=True, parts=("shelf",))


def _define(chosen: Choices) -> tuple[Definition, ...]:
    found = [
        *sizes(
            "rack",
            chosen["sizing"],
            {
                "width": SizeRule("2 * ends.thickness", 480),
                "depth": SizeRule("(back.thickness + cleat.thickness)", 120, 1),
                "height": SizeRule("shelf.thickness", 260, 1),
            },
        ),
        # The ends stand as far apart as the shelf holds them: the back is cut to that.
        ruled("back.opening", N_("rabbet to rabbet"), "rack.inside_width + 2 * groove.depth"),
        *board_sizes("back", N_("the back"), "back.opening", "rack.outside_height", 15, ("back.opening",)),
        given("groove.depth", N_("depth of grooves and rabbets"), 5),
        *board_sizes("ends", N_("the ends"), "rack.outside_height", "rack.outside_depth - cleat.thickness", 15),
        given("shelf.below", N_("lower edge to the shelf"), 60),
        *board_sizes(
            "shelf",
            N_("the shelf"),
            "rack.inside_width + 2 * groove.depth",
            "rack.outside_depth - cleat.thickness - back.thickness + groove.depth",
            15,
        ),
        ruled("groove.width", N_("width of the groove"), "shelf.thickness"),
        given("cleat.board", N_("width of the board for both cleats"), 90),
        given("cleat.thickness", N_("thickness of the cleats"), 18),
        given("cleat.bevel", N_("height of the cleats' bevel"), "7.5"),
        ruled("cleat.length", N_("length of the cleats"), "rack.inside_width - 2 * ends.thickness"),
        ruled(
            "cleat.width",
            N_("width of each cleat at its longer face"),
            "(cleat.board + cleat.bevel) / 2",
            snap=Snap.MARK,
        ),
        given("cleat.below", N_("top of the back to the cleat"), 10),
    ]
    if chosen["slots"] == "slotted":
        found += [
            given("slots.count", N_("number of slots"), 8, QuantityKind.COUNT),
            given("slots.width", N_("width of the slots"), 12),
            given("slots.depth", N_("depth of the slots"), 45),
        ]
    return tuple(found)


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    m = Maker(ledger)
    must = [
        "rack.outside_width",
        "rack.outside_depth",
        "rack.outside_height",
        "rack.inside_width",
        "rack.inside_depth",
        "groove.depth",
        "cleat.bevel",
    ]
    if not m.need_positive(*must):
        return m.finish()
    _frame(m)
    _cleats(m)
    if chosen["slots"] == "slotted":
        _slots(m)
    _measures(m)
    m.remark(Note.SCREW_CLEAT_TO_STUDS, Severity.NOTE)
    m.fit(Hardware.WALL, "wall_cleat")
    return m.finish()


def _frame(m: Maker) -> None:
    q = m.q
    width = q("rack.outside_width")
    deep, end, depth = q("groove.depth"), q("ends.thickness"), q("ends.width")
    m.board("left", "left end", "ends", (0, 0, 0), "zx", shows="lfut")
    m.board("right", "right end", "ends", (width - end, 0, 0), "zx", shows="rfut")
    m.board("back", "back", "back", (end - deep, depth - q("back.thickness"), 0), "xy", shows="f")
    m.board("shelf", "shelf", "shelf", (end - deep, 0, q("shelf.below")), "xz", shows="f")
    level = (q("shelf.below"), q("shelf.below") + q("groove.width"))
    names = JointQuantities("groove.width", "groove.depth", guest="shelf.thickness")
    m.let_in("back", "shelf", channels=(m.channel("back", Side.FRONT, deep, z=level),), names=names)
    for host, inner in (("left", Side.RIGHT), ("right", Side.LEFT)):
        back = m.channel(host, inner, deep, y=(depth - q("back.thickness"), depth))
        m.let_in(host, "back", channels=(back,), hold=Hold.NAILS, names=JointQuantities("", "groove.depth"))
        dado = m.channel(host, inner, deep, z=level, y=(Fraction(0), depth - q("back.thickness") + deep))
        m.let_in(host, "shelf", channels=(dado,), names=names)
    for host in ("left", "right"):
        m.shape(host, Chamfer((Side.UNDER, Side.FRONT), float(q("shelf.below")) / 2))
        m.shape(host, Chamfer((Side.TOP, Side.FRONT), float(depth) * 0.55))


def _cleats(m: Maker) -> None:
    """Put both cleats behind the back, one hooked over the other along the bevel."""
    q = m.q
    x, y = q("ends.thickness") * 2, q("ends.width")
    thick, bevel, wide = q("cleat.thickness"), q("cleat.bevel"), q("cleat.width")
    low = q("rack.outside_height") - q("cleat.below") - wide
    over = LongBevel((Side.UNDER, Side.FRONT), float(thick), float(bevel))
    under = LongBevel((Side.TOP, Side.BACK), float(thick), float(bevel))
    m.board("cleat", "cleat of the rack", "cleat", (x, y, low), "xy", needs=Needs.ANY, shapings=(over,), role="back")
    m.board(
        "wall_cleat",
        "cleat on the wall",
        "cleat",
        (x, y, low - wide + bevel),
        "xy",
        needs=Needs.ANY,
        shapings=(under,),
        role="back",
        group="wall",
    )
    m.butt("back", "cleat", Hold.SCREWS)
    m.butt("cleat", "wall_cleat", Hold.DRY)
    if not 15 <= bevel_degrees(float(thick), float(bevel)) <= 50:
        m.remark(Note.CLEAT_BEVEL, quantity="cleat.bevel")
    if low - wide + bevel < 0:
        m.remark(Note.CLEAT_SHOWS, quantity="cleat.board")


def _slots(m: Maker) -> None:
    """Cut slots into the front edge of the shelf, evenly spaced between the ends."""
    q = m.q
    count, wide, deep = max(0, m.count("slots.count")), float(q("slots.width")), float(q("slots.depth"))
    shelf = m.part("shelf").box
    clear, start = float(q("rack.inside_width")), float(q("groove.depth"))
    step = clear / max(count, 1)
    if wide > step * 0.75:
        m.remark(Note.SLOTS_BREAK_OUT, Severity.FAILURE, quantity="slots.count")
        return
    if deep > float(shelf.size(Axis.Y)) * 2 / 3:
        m.remark(Note.SLOTS_TOO_DEEP, Severity.WARNING, quantity="slots.depth")
    for number in range(count):
        x = start + step * (number + 0.5) - wide / 2
        m.shape("shelf", Notch((x, 0.0, 0.0), (x + wide, deep, float(shelf.size(Axis.Z)))))


def _measures(m: Maker) -> None:
    q = m.q
    width, depth, height = (q(f"rack.outside_{way}") for way in ("width", "depth", "height"))
    front, section = View.FRONT, View.SECTION
    m.measure("rack.outside_width", front, (0, 0, height), (width, 0, height), 6)
    m.measure("rack.outside_height", front, (0, 0, 0), (0, 0, height), 6)
    m.measure("ends.thickness", front, (0, 0, 0), (q("ends.thickness"), 0, 0), -6)
    m.measure("rack.outside_depth", section, (0, 0, height), (0, depth, height), 6)
    m.measure("shelf.below", section, (0, 0, 0), (0, 0, q("shelf.below")), 6)
    m.measure("back.thickness", section, (0, q("ends.width") - q("back.thickness"), 0), (0, q("ends.width"), 0), -6)
    cleat = m.part("cleat").box
    m.measure("cleat.width", section, (0, depth, cleat.low[2]), (0, depth, cleat.high[2]), -6)


HANGING_RACK = Form(
    "hanging rack",
    "Hanging rack",
    (SIZING, _SLOTS),
    _define,
    _assemble,
    ("rack.outside_width", "rack.outside_depth", "rack.outside_height"),
)
