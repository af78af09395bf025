"""A small stand: two uprights with a slanted rabbet that holds a panel, a book or a chart, and two rails.

The rabbet leans back by a slope. What stands in it decides the distance of the uprights and
the width of the rabbet.
"""

from __future__ import annotations

import math

from nullah.core.catalogue import N_
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.forms.sizing import SIZING, SizeRule, sizes
from nullah.core.fraction import Fraction
from nullah.core.ledger import Definition, Ledger, QuantityKind, Snap, given, ruled
from nullah.core.lengths import Slope
from nullah.core.piece.form import Assembly, Choice, Choices, Form, View
from nullah.core.piece.joint import JointQuantities
from nullah.core.piece.shaping import RoundOver, Slant
from nullah.core.piece.space import Axis, Side

# The usual way first: a stand is sized by what stands in it.
_SIZING = SIZING._replace(options=(SIZING.options[2], SIZING.options[0], SIZING.options[1]))
_LIP = Choice(
    "front",
    "Front of the rabbet",
    (("open", N_("open")), ("closed", N_("closed, a groove"))),
    shape=True,
    parts=("left", "right"),
)


def _define(chosen: Choices) -> tuple[Definition, ...]:
    return (
        *sizes(
            "stand",
            chosen["sizing"],
            {
                "width": SizeRule("2 * (uprights.thickness - rabbet.depth)", 260),
                "height": SizeRule("rabbet.floor", 190, 0, N_("height held")),
            },
            clearance="1",
        ),
        given("held.thickness", N_("thickness of what is held"), 14),
        given("held.clearance", N_("clearance on its thickness, in all"), 1, snap=Snap.NOTHING),
        ruled("rabbet.width", N_("width of the slanted rabbet"), "held.thickness + held.clearance"),
        given("rabbet.floor", N_("floor to the rabbet's lower end"), 34),
        given("rabbet.front", N_("front edge to the rabbet's lower end"), 22),
        ruled("rabbet.depth", N_("depth of the slanted rabbet"), "uprights.thickness / 3", snap=Snap.MARK),
        given("rabbet.lean", N_("lean of the rabbet"), Slope(Fraction(3)), QuantityKind.SLOPE),
        *board_sizes("uprights", N_("the uprights"), "stand.outside_height", "uprights.foot", 20),
        ruled(
            "uprights.foot",
            N_("depth of the uprights at the floor"),
            "rabbet.front + 2 * rabbet.width + stand.outside_height / rabbet.lean",
        ),
        given("rails.tenon", N_("length of the rails' tenons"), 12),
        given("rails.below", N_("floor to the lower rail"), 8),
        *board_sizes(
            "rails", N_("the rails"), "stand.outside_width - 2 * uprights.thickness + 2 * rails.tenon", "40", 15
        ),
        ruled("tenon.thickness", N_("thickness of the tenons"), "rails.thickness / 3", snap=Snap.CHISEL),
        given("tenon.shoulder", N_("shoulder at the tenons' edges"), 5),
    )


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    m = Maker(ledger)
    must = [
        "stand.outside_width",
        "stand.outside_height",
        "stand.inside_width",
        "rabbet.width",
        "rabbet.depth",
        "tenon.thickness",
    ]
    if not m.need_positive(*must):
        return m.finish()
    q = m.q
    width, thick = q("stand.outside_width"), q("uprights.thickness")
    m.board("left", "left upright", "uprights", (0, 0, 0), "zx", shows="lft")
    m.board("right", "right upright", "uprights", (width - thick, 0, 0), "zx", shows="rft")
    _slants(m, chosen["front"] == "open")
    _rails(m)
    _measures(m)
    return m.finish()


def _slants(m: Maker, open_front: bool) -> None:
    """Cut the slanted rabbet into the inner face of each upright; the back stays square, so that it stands."""
    q = m.q
    thick, deep = float(q("uprights.thickness")), float(q("rabbet.depth"))
    high, foot, run = float(q("stand.outside_height")), float(q("uprights.width")), float(q("rabbet.lean"))
    wide, y, z = (float(q(f"rabbet.{word}")) for word in ("width", "front", "floor"))
    # Along the rabbet one goes up `run` for every 1 back.
    along = (1 / math.hypot(1, run), run / math.hypot(1, run))
    square = (along[1], -along[0])
    reach = 2 * math.hypot(high, foot)

    def at(out: float, up: float) -> tuple[float, float]:
        return y + square[0] * out + along[0] * up, z + square[1] * out + along[1] * up

    groove = (at(0, 0), at(wide, 0), at(wide, reach), at(0, reach))
    for part, start, end in (("left", thick - deep, thick), ("right", 0.0, deep)):
        m.shape(part, Slant(Axis.X, groove, (start, end)))
        if open_front:
            # Everything in front of the rabbet goes, above its lower end.
            m.shape(part, Slant(Axis.X, (at(0, 0), at(0, reach), at(-reach, reach), at(-reach, 0))))
        else:
            m.shape(part, Slant(Axis.X, (at(-wide, 0), at(-wide, reach), at(-reach, reach), at(-reach, 0))))
        m.shape(part, RoundOver((Side.UNDER, Side.FRONT), 3.0))


def _rails(m: Maker) -> None:
    q = m.q
    thick, tenon, deep = q("uprights.thickness"), q("rails.tenon"), q("uprights.width")
    x, third, shoulder = thick - tenon, q("tenon.thickness"), q("tenon.shoulder")
    low = q("rails.below")
    places = (
        # The lower rail stands under the rabbet, the upper lies low behind it.
        ("lower_rail", N_("front rail"), (x, q("rabbet.front") / 3, low), "xz"),
        ("back_rail", N_("back rail"), (x, deep - q("rails.width") - q("rabbet.front") / 3, low), "xz"),
    )
    for part, name, at, lie in places:
        m.board(part, name, "rails", at, lie, shows="f" if part == "lower_rail" else "")
        for host in ("left", "right"):
            overlap = m.part(host).box.overlap(m.part(part).box)
            if overlap is None:
                continue
            share = overlap.set(Axis.Z, low + third, low + 2 * third)
            share = share.set(Axis.Y, overlap.low[1] + shoulder, overlap.high[1] - shoulder)
            m.tenon(host, part, (share,), names=JointQuantities(guest="tenon.thickness", reach="rails.tenon"))


def _measures(m: Maker) -> None:
    q = m.q
    width, high, foot = q("stand.outside_width"), q("stand.outside_height"), q("uprights.width")
    thick = q("uprights.thickness")
    front, section = View.FRONT, View.SECTION
    m.measure("stand.outside_width", front, (0, 0, high), (width, 0, high), 6)
    m.measure("stand.outside_height", front, (0, 0, 0), (0, 0, high), 6)
    m.measure("uprights.thickness", front, (0, 0, 0), (thick, 0, 0), -6)
    m.measure("uprights.width", section, (0, 0, high), (0, foot, high), 6)
    m.measure("rabbet.floor", section, (0, 0, 0), (0, 0, q("rabbet.floor")), 6)
    m.measure("rabbet.front", section, (0, 0, 0), (0, q("rabbet.front"), 0), -6)


STAND = Form(
    "stand",
    "Small stand",
    (_SIZING, _LIP),
    _define,
    _assemble,
    ("stand.outside_width", "uprights.width", "stand.outside_height"),
)
