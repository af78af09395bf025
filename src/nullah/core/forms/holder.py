"""An upright holder, sized by what stands in it: four low walls housed in a base with a margin round them."""

from __future__ import annotations

from nullah.core.catalogue import N_
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.forms.sizing import SIZING, SizeRule, sizes
from nullah.core.fraction import Fraction
from nullah.core.joints.dovetail.sizes import tail_sizes
from nullah.core.joints.mitre import MITRE, key_sizes
from nullah.core.ledger import Definition, Ledger, Snap, given, ruled
from nullah.core.piece.facts import Note
from nullah.core.piece.form import Assembly, Choice, Choices, Form, View
from nullah.core.piece.joint import Hold, Joint, JointQuantities, LaidOutBy, Over
from nullah.core.piece.space import Axis, Side

_CORNERS = Choice(
    "corners",
    "Corners",
    (("dovetailed", N_("dovetailed")), ("rabbeted", N_("rabbeted")), ("mitred", N_("mitered"))),
    shape=True,
    parts=("front", "back", "left", "right"),
)
# The usual way first: such a holder is sized by what stands in it.
_SIZING = SIZING._replace(options=(SIZING.options[2], SIZING.options[0], SIZING.options[1]))


_WAYS = ("length", "width")


def _define(chosen: Choices) -> tuple[Definition, ...]:
    corners = chosen["corners"]
    ends_length = (
        "holder.outside_width - 2 * (sides.thickness - corner.depth)"
        if corners == "rabbeted"
        else "holder.outside_width"
    )
    found = [
        *sizes(
            "holder",
            chosen["sizing"],
            {
                "length": SizeRule("2 * ends.thickness", 160),
                "width": SizeRule("2 * sides.thickness", 90),
                "height": SizeRule("(base.thickness - housing.depth)", 110, 0, N_("depth of the walls inside")),
            },
        ),
        given("walls.thickness", N_("thickness of the walls"), 10),
        *board_sizes(
            "sides",
            N_("front and back"),
            "holder.outside_length",
            "holder.inside_height + housing.depth",
            "walls.thickness",
        ),
        *board_sizes("ends", N_("the ends"), ends_length, "holder.inside_height + housing.depth", "walls.thickness"),
        given("base.margin", N_("base beyond the walls"), 18),
        *_base_sizes(),
        given("housing.depth", N_("depth the walls are housed in the base"), 5),
    ]
    if corners == "dovetailed":
        found += tail_sizes("tails", "sides.thickness", "ends.thickness", "sides.width", 2, proud="tails.proud")
        found.append(ruled("tails.spare", N_("left long in all"), "2 * tails.proud"))
    elif corners == "rabbeted":
        found += [
            ruled("corner.depth", N_("depth of the corner rabbet"), "sides.thickness / 2", snap=Snap.MARK),
            ruled("corner.width", N_("width of the corner rabbet"), "ends.thickness"),
        ]
    elif corners == "mitred":
        found += key_sizes("key", "walls.thickness", 3)
    return tuple(found)


def _base_sizes() -> tuple[Definition, ...]:
    """Declare the base: cut to the walls as they stand together, or its housings would not lie under them."""
    over = "walls.length", "walls.width"
    return (
        ruled(over[0], N_("length over the walls"), "holder.outside_length"),
        ruled(over[1], N_("width over the walls"), "holder.outside_width"),
        *board_sizes("base", N_("the base"), f"{over[0]} + 2 * base.margin", f"{over[1]} + 2 * base.margin", 20, over),
    )


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    m = Maker(ledger)
    q = m.q
    must = [f"holder.{where}_{way}" for where in ("outside", "inside") for way in ("length", "width", "height")]
    if not m.need_positive(*must, "housing.depth"):
        return m.finish()
    _walls(m, chosen["corners"])
    # No plane gets round them once they stand on the base.
    m.unit("walls", ("front", "back", "left", "right"))
    margin = q("base.margin")
    m.board("base", "base", "base", (-margin, -margin, 0), "xz", shows="tflrb")
    walls = [Over(f"walls.{way}", q(f"walls.{way}"), Fraction(0), q(f"holder.outside_{way}")) for way in _WAYS]
    over = (walls[0], walls[1], Over())
    before: tuple[Joint, ...] = ()
    # First those that the others stop at.
    for wall in ("left", "right", "front", "back"):
        footprint = m.part("base").box.overlap(m.part(wall).box)
        across = wall in ("left", "right")
        # The housing is cut as one square channel; each wall has the stretch it stands in.
        channels = (footprint,) if footprint is not None else ()
        joint = m.let_in(
            "base",
            wall,
            channels=channels,
            hold=Hold.DRY if across else Hold.GLUE,
            names=JointQuantities("", "housing.depth", guest="ends.thickness" if across else "sides.thickness"),
            laid_out_by=LaidOutBy(before, over),
        )
        before = (*before, joint)
    _measures(m)
    if chosen["sizing"] == "contents" and q("holder.inside_height") * 3 < q("contents.height"):
        m.remark(Note.WALLS_TOO_LOW, quantity="holder.inside_height")
    return m.finish()


def _walls(m: Maker, corners: str) -> None:
    q = m.q
    length, width = q("holder.outside_length"), q("holder.outside_width")
    side, end_thick, none = q("sides.thickness"), q("ends.thickness"), Fraction(0)
    low = q("base.thickness") - q("housing.depth")
    spare = 2 * q("tails.proud") if corners == "dovetailed" else none
    inset = side - q("corner.depth") if corners == "rabbeted" else none
    m.board("front", "front", "sides", (0, 0, low), "xy", shows="flrt", spare=spare)
    m.board("back", "back", "sides", (0, width - side, low), "xy", shows="blrt", spare=spare)
    m.board("left", "left end", "ends", (0, inset, low), "yx", shows="lfbt", spare=spare)
    m.board("right", "right end", "ends", (length - end_thick, inset, low), "yx", shows="rfbt", spare=spare)
    for wall, inner in (("front", Side.BACK), ("back", Side.FRONT)):
        for end in ("left", "right"):
            match corners:
                case "dovetailed":
                    m.dovetail(wall, end, "tails")
                case "mitred":
                    m.add(MITRE.keyed(Joint(f"{wall}-{end}", MITRE, wall, end), "key", m.ledger))
                case _:
                    wide = q("corner.width")
                    x = (none, wide) if end == "left" else (length - wide, length)
                    channel = m.channel(wall, inner, q("corner.depth"), x=x)
                    m.let_in(
                        wall,
                        end,
                        channels=(channel,),
                        names=JointQuantities("corner.width", "corner.depth", guest="ends.thickness"),
                    )


def _measures(m: Maker) -> None:
    q = m.q
    length, width = q("holder.outside_length"), q("holder.outside_width")
    side, end = q("sides.thickness"), q("ends.thickness")
    margin, base = q("base.margin"), q("base.thickness")
    above, front, section = View.ABOVE, View.FRONT, View.SECTION
    high = m.part("front").box.high[Axis.Z.value]
    m.measure("base.length", above, (-margin, width + margin, 0), (length + margin, width + margin, 0), 6)
    m.measure("base.width", above, (-margin, -margin, 0), (-margin, width + margin, 0), 6)
    m.measure("holder.inside_length", above, (end, width / 2, 0), (length - end, width / 2, 0), 0)
    m.measure("ends.thickness", above, (0, -margin, 0), (end, -margin, 0), -6)
    m.measure("sides.width", front, (-margin, 0, high - q("sides.width")), (-margin, 0, high), 6)
    m.measure("base.thickness", front, (length + margin, 0, base), (length + margin, 0, 0), 6)
    m.measure("holder.inside_width", section, (0, side, high * 2 / 3), (0, width - side, high * 2 / 3), 0)
    m.measure("holder.inside_height", section, (0, width + margin, base), (0, width + margin, high), -6)


HOLDER = Form(
    "holder",
    "Upright holder",
    (_SIZING, _CORNERS),
    _define,
    _assemble,
    ("base.length", "base.width", "holder.outside_height"),
)
