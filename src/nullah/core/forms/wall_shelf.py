"""A wall shelf: two sides with shaped lower ends, shelves in dados, a rail to hang it by."""

from __future__ import annotations

from nullah.core.card import Severity
from nullah.core.catalogue import N_, Phrase
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.forms.sizing import SIZING, SizeRule, sizes
from nullah.core.fraction import Fraction
from nullah.core.ledger import Definition, Ledger, QuantityKind, Snap, given, ruled
from nullah.core.piece.facts import Note
from nullah.core.piece.form import Assembly, Choice, Choices, Form, Hardware, View
from nullah.core.piece.joint import Hold, JointQuantities
from nullah.core.piece.shaping import Chamfer, OgeeFoot
from nullah.core.piece.space import Axis, Side

_SHELVES = Choice(
    "shelves", "Shelves", tuple((str(n), str(n)) for n in (2, 1, 3, 4, 5)), parts=("shelf?", "left", "right")
)
_DADOS = Choice(
    "dados", "Dados", (("stopped", N_("stopped")), ("through", N_("through"))), parts=("shelf?", "left", "right")
)
_ENDS = Choice(
    "ends",
    "Lower ends",
    (("ogee", N_("ogee")), ("chamfered", N_("chamfered")), ("plain", N_("plain"))),
    shape=True,
    parts=("left", "right"),
)


def _define(chosen: Choices) -> tuple[Definition, ...]:
    count = int(chosen["shelves"])
    found = [
        *sizes(
            "shelf",
            chosen["sizing"],
            {
                "width": SizeRule("2 * sides.thickness", 560),
                "depth": SizeRule("rail.thickness", 170, 1),
                "height": SizeRule(f"({count} * shelves.thickness + sides.below)", 520, 1),
            },
        ),
        *board_sizes("sides", N_("the sides"), "shelf.outside_height", "shelf.outside_depth", 18),
        given("sides.below", N_("sides below the lowest shelf"), 90),
        given("dado.depth", N_("depth of the dados"), 6),
        ruled("dado.width", N_("width of the dados"), "shelves.thickness"),
        given("shelves.setback", N_("shelves back from the front"), 0),
        *board_sizes(
            "shelves",
            N_("the shelves"),
            "shelf.inside_width + 2 * dado.depth",
            "shelf.outside_depth - shelves.setback",
            15,
        ),
        ruled(
            "rows.height",
            N_("clear height of a row"),
            f"(shelf.outside_height - sides.below - {count} * shelves.thickness) / {count}",
        ),
        given("shelf.load", N_("load on each shelf"), 12, QuantityKind.WEIGHT),
        ruled("rail.opening", N_("rabbet to rabbet"), "shelf.inside_width + 2 * dado.depth"),
        *board_sizes("rail", N_("the rail"), "rail.opening", "70", 12, ("rail.opening",)),
    ]
    if chosen["dados"] == "stopped":
        found += [
            given("dado.stop", N_("front edge to where the dados stop"), 8),
            ruled("shelves.notch", N_("notch in the shelves' front corners"), "dado.stop - shelves.setback"),
        ]
    if chosen["ends"] != "plain":
        found.append(ruled("ends.rise", N_("height of the shaped ends"), "sides.below * 3 / 4", snap=Snap.MARK))
    return tuple(found)


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    m = Maker(ledger)
    must = ["shelf.outside_width", "shelf.outside_depth", "shelf.outside_height", "shelf.inside_width", "rows.height"]
    if not m.need_positive(*must):
        return m.finish()
    q = m.q
    m.board("left", "left side", "sides", (0, 0, 0), "zx", shows="lfut")
    m.board("right", "right side", "sides", (q("shelf.outside_width") - q("sides.thickness"), 0, 0), "zx", shows="rfut")
    for number in range(1, int(chosen["shelves"]) + 1):
        _shelf(m, chosen, number)
    _rail(m)
    _lower_ends(m, chosen["ends"])
    _measures(m)
    m.remark(Note.SCREW_RAIL_TO_STUDS, Severity.NOTE)
    m.fit(Hardware.WALL, "rail")
    return m.finish()


def _shelf(m: Maker, chosen: Choices, number: int) -> None:
    q = m.q
    part, thick, deep, setback = f"shelf{number}", q("shelves.thickness"), q("dado.depth"), q("shelves.setback")
    low = q("sides.below") + (number - 1) * (thick + q("rows.height"))
    m.board(
        part,
        Phrase("shelf {number}", number=str(number)),
        "shelves",
        (q("sides.thickness") - deep, setback, low),
        "xz",
        shows="f",
    )
    stopped = chosen["dados"] == "stopped"
    start = q("dado.stop") if stopped else Fraction(0)
    run = {"z": (low, low + q("dado.width")), "y": (start, q("shelf.outside_depth"))}
    names = JointQuantities(
        "dado.width",
        "dado.depth",
        "dado.stop" if stopped else "",
        "shelves.thickness",
        notch="shelves.notch" if stopped else "",
        choice="" if stopped else "dados=stopped",
    )
    for host, inner in (("left", Side.RIGHT), ("right", Side.LEFT)):
        overlap = m.part(host).box.overlap(m.part(part).box)
        front = setback + q("shelves.notch") if stopped else setback
        shares = (overlap.set(Axis.Y, front, overlap.high[1]),) if overlap and front < overlap.high[1] else ()
        m.let_in(
            host, part, channels=(m.channel(host, inner, deep, **run),), shares=shares, runs=not stopped, names=names
        )
    m.bearing(part, q("shelf.inside_width"), m.ledger["shelf.load"], "shelf.inside_width")


def _rail(m: Maker) -> None:
    """Let the rail into the back of the sides, under the top."""
    q = m.q
    deep, high, depth = q("dado.depth"), q("shelf.outside_height"), q("shelf.outside_depth")
    thick, wide = q("rail.thickness"), q("rail.width")
    m.board("rail", "rail", "rail", (q("sides.thickness") - deep, depth - thick, high - wide), "xy")
    run = {"y": (depth - thick, depth), "z": (high - wide, high)}
    for host, inner in (("left", Side.RIGHT), ("right", Side.LEFT)):
        m.let_in(
            host,
            "rail",
            channels=(m.channel(host, inner, deep, **run),),
            hold=Hold.GLUE,
            names=JointQuantities("", "dado.depth", guest="rail.thickness"),
        )


def _lower_ends(m: Maker, ends: str) -> None:
    if ends == "plain":
        return
    q = m.q
    rise, depth = float(q("ends.rise")), float(q("shelf.outside_depth"))
    for side in ("left", "right"):
        if ends == "chamfered":
            m.shape(side, Chamfer((Side.UNDER, Side.FRONT), min(rise, depth * 0.6)))
        else:
            # From the wall forward: a third of the depth stands, then an ogee up to the front edge.
            m.shape(side, OgeeFoot(Side.UNDER, Axis.X, depth / 3, depth * 2 / 3, rise, only=Side.BACK))


def _measures(m: Maker) -> None:
    q = m.q
    width, depth, height = (q(f"shelf.outside_{way}") for way in ("width", "depth", "height"))
    side, below = q("sides.thickness"), q("sides.below")
    front, section = View.FRONT, View.SECTION
    m.measure("shelf.outside_width", front, (0, 0, height), (width, 0, height), 6)
    m.measure("shelf.outside_height", front, (0, 0, 0), (0, 0, height), 6)
    m.measure("shelf.inside_width", front, (side, 0, below / 2), (width - side, 0, below / 2), 0)
    m.measure("sides.thickness", front, (0, 0, 0), (side, 0, 0), -6)
    m.measure("shelf.outside_depth", section, (0, 0, height), (0, depth, height), 6)
    m.measure("sides.below", section, (0, 0, 0), (0, 0, below), 6)
    low = below + q("shelves.thickness")
    m.measure("shelves.thickness", section, (0, depth, below), (0, depth, low), -6)
    m.measure("rows.height", section, (0, 0, low), (0, 0, low + q("rows.height")), 6)


WALL_SHELF = Form(
    "wall shelf",
    "Wall shelf",
    (SIZING, _SHELVES, _DADOS, _ENDS),
    _define,
    _assemble,
    ("shelf.outside_width", "shelf.outside_depth", "shelf.outside_height"),
)
