"""A boarded chest, nailed: front and back rabbeted on notched ends that go down to the floor as feet.

The rabbet in the front decides how deep the ends are notched. The bottom lies in dados of the
ends; a small compartment can be housed inside; the lid has battens outside the ends.
"""

from __future__ import annotations

from nullah.core.card import Severity
from nullah.core.catalogue import N_, Phrase
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.forms.sizing import SIZING, SizeRule, sizes
from nullah.core.ledger import Definition, Ledger, Snap, given, ruled
from nullah.core.piece.facts import Note
from nullah.core.piece.form import Assembly, Choice, Choices, Form, View
from nullah.core.piece.joint import Hold, JointQuantities
from nullah.core.piece.part import Needs
from nullah.core.piece.shaping import Arch, OgeeFoot
from nullah.core.piece.space import Axis, Side

_FEET = Choice(
    "feet",
    "Feet",
    (("arch", N_("an arch")), ("ogee", N_("ogees")), ("plain", N_("plain"))),
    shape=True,
    parts=("left", "right"),
)
_TILL = Choice(
    "till",
    "Small compartment",
    (("left", N_("at the left")), ("none", N_("none"))),
    shape=True,
    parts=("till_*", "front", "back"),
)
_LID = Choice(
    "lid",
    "Lid",
    (("battened", N_("battened")), ("none", N_("none"))),
    shape=True,
    parts=("lid", "batten?", "left", "right", "front", "back"),
)


def _define(chosen: Choices) -> tuple[Definition, ...]:
    found = [
        *sizes(
            "chest",
            chosen["sizing"],
            {
                "length": SizeRule("2 * ends.thickness", 640),
                "width": SizeRule("2 * sides.thickness", 320),
                "height": SizeRule("(foot.height + bottom.thickness)", 360, 1, N_("inside depth")),
            },
        ),
        given("foot.height", N_("floor to the front's lower edge"), 70),
        *board_sizes("ends", N_("the ends"), "chest.outside_height", "chest.outside_width", 18),
        *board_sizes("sides", N_("front and back"), "chest.outside_length", "chest.outside_height - foot.height", 18),
        given("rabbet.depth", N_("depth of the rabbet in front and back"), 6),
        ruled("rabbet.width", N_("width of the rabbet in front and back"), "ends.thickness"),
        ruled("notch.depth", N_("depth of the notches in the ends"), "sides.thickness - rabbet.depth"),
        given("dado.depth", N_("depth of the dados for the bottom"), 5),
        ruled("dado.width", N_("width of the dados for the bottom"), "bottom.thickness"),
        ruled("bottom.opening", N_("dado to dado"), "chest.inside_length + 2 * dado.depth"),
        *board_sizes(
            "bottom",
            N_("the bottom"),
            "bottom.opening",
            "chest.inside_width",
            15,
            ("bottom.opening", "chest.inside_width"),
        ),
    ]
    if chosen["feet"] != "plain":
        found += [
            ruled("foot.length", N_("length of each foot"), "chest.outside_width / 5", snap=Snap.MARK),
            ruled("foot.rise", N_("height of the cut between the feet"), "foot.height * 2 / 3", snap=Snap.MARK),
        ]
        if chosen["feet"] == "ogee":
            found.append(ruled("foot.run", N_("length of each ogee"), "chest.outside_width / 6", snap=Snap.MARK))
    if chosen["till"] != "none":
        found += [
            given("till.inside_width", N_("width of the small compartment"), 110),
            given("till.depth", N_("depth of the small compartment"), 90),
            given("till.below", N_("top edge to the small compartment"), 25),
            given("till.dado", N_("depth of its dados"), 4),
            ruled("till.opening", N_("dado to dado of the small compartment"), "chest.inside_width + 2 * till.dado"),
            *board_sizes(
                "till_side", N_("its side"), "till.opening", "till.depth + till_bottom.thickness", 10, ("till.opening",)
            ),
            *board_sizes(
                "till_bottom", N_("its bottom"), "till.opening", "till.inside_width + till.dado", 10, ("till.opening",)
            ),
        ]
    if chosen["lid"] != "none":
        found += [
            given("lid.front_over", N_("lid beyond the front"), 15),
            given("batten.clearance", N_("clearance of the battens at the ends"), "1.5", snap=Snap.NOTHING),
            *board_sizes(
                "lid",
                N_("the lid"),
                "chest.outside_length + 2 * (batten.thickness + batten.clearance)",
                "chest.outside_width + lid.front_over",
                18,
            ),
            *board_sizes("batten", N_("the battens"), "lid.width", "45", 18),
        ]
    return tuple(found)


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    m = Maker(ledger)
    must = [f"chest.{where}_{way}" for where in ("outside", "inside") for way in ("length", "width", "height")]
    if not m.need_positive(*must, "notch.depth", "rabbet.depth", "dado.depth"):
        return m.finish()
    _carcase(m)
    _feet(m, chosen["feet"])
    if chosen["till"] != "none":
        _till(m)
    if chosen["lid"] != "none":
        _lid(m)
    _measures(m)
    m.remark(Note.PILOT_FOR_NAILS, Severity.NOTE)
    m.remark(Note.SAW_LONG_OVER_RABBETS, Severity.NOTE)
    return m.finish()


def _carcase(m: Maker) -> None:
    q = m.q
    length, width, height = (q(f"chest.outside_{way}") for way in ("length", "width", "height"))
    foot, side, end, notch = q("foot.height"), q("sides.thickness"), q("ends.thickness"), q("notch.depth")
    tongue = side - q("rabbet.depth")
    m.board("left", "left end", "ends", (0, 0, 0), "zx", shows="lfb")
    m.board("right", "right end", "ends", (length - end, 0, 0), "zx", shows="rfb")
    m.board("front", "front", "sides", (0, 0, foot), "xy", shows="flr")
    m.board("back", "back", "sides", (0, width - side, foot), "xy", shows="blr")
    names = JointQuantities("", "notch.depth", guest="sides.thickness")
    for e in ("left", "right"):
        for s in ("front", "back"):
            high_up = m.part(e).box.set(Axis.Z, foot, height)
            # What the rabbet leaves of the front goes into the notch of the end.
            cut, left = (
                high_up.set(Axis.Y, *((width * 0, deep) if s == "front" else (width - deep, width)))
                for deep in (notch, tongue)
            )
            m.let_in(e, s, channels=(cut,), shares=(left,), hold=Hold.NAILS, names=names)
    m.board("bottom", "bottom", "bottom", (end - q("dado.depth"), side, foot), "xz", needs=Needs.ANY, role="bottom")
    run = {"z": (foot, foot + q("dado.width")), "y": (side, width - side)}
    names = JointQuantities("dado.width", "dado.depth", guest="bottom.thickness")
    for e, inner in (("left", Side.RIGHT), ("right", Side.LEFT)):
        m.let_in(e, "bottom", channels=(m.channel(e, inner, q("dado.depth"), **run),), hold=Hold.NAILS, names=names)
    for s in ("front", "back"):
        m.butt(s, "bottom", Hold.NAILS)


def _feet(m: Maker, feet: str) -> None:
    if feet == "plain":
        return
    q = m.q
    width, foot, rise = (float(q(name)) for name in ("chest.outside_width", "foot.length", "foot.rise"))
    if feet == "arch":
        shaping: Arch | OgeeFoot = Arch(Side.UNDER, Axis.X, width - 2 * foot, rise)
    else:
        shaping = OgeeFoot(Side.UNDER, Axis.X, foot, float(q("foot.run")), rise)
    for end in ("left", "right"):
        m.shape(end, shaping)
    if q("foot.rise") >= q("foot.height"):
        m.remark(Note.ARCH_REACHES_DADO, Severity.WARNING, quantity="foot.rise")


def _till(m: Maker) -> None:
    q = m.q
    side, end, deep = q("sides.thickness"), q("ends.thickness"), q("till.dado")
    thick, wall = q("till_bottom.thickness"), q("till_side.thickness")
    top = q("chest.outside_height") - q("till.below")
    low = top - q("till_side.width")
    x = end + q("till.inside_width")
    m.board(
        "till_bottom",
        "small compartment's bottom",
        "till_bottom",
        (end, side - deep, low),
        "yz",
        needs=Needs.ANY,
        role="bottom",
    )
    m.board("till_side", "small compartment's side", "till_side", (x, side - deep, low), "yx", needs=Needs.ANY)
    names = JointQuantities("", "till.dado", guest="till_bottom.thickness")
    for host, inner in (("front", Side.BACK), ("back", Side.FRONT)):
        channel = m.channel(host, inner, deep, x=(end, x + deep), z=(low, low + thick))
        m.let_in(host, "till_bottom", channels=(channel,), hold=Hold.DRY, names=names)
        channel = m.channel(host, inner, deep, x=(x, x + wall), z=(low, top))
        m.let_in(host, "till_side", channels=(channel,), hold=Hold.DRY, names=names._replace(guest=""))
    channel = m.channel("till_side", Side.LEFT, deep, z=(low, low + thick))
    m.let_in("till_side", "till_bottom", channels=(channel,), hold=Hold.GLUE, names=names)


def _lid(m: Maker) -> None:
    q = m.q
    length, height = q("chest.outside_length"), q("chest.outside_height")
    thick, clear = q("batten.thickness"), q("batten.clearance")
    over = thick + clear
    m.board("lid", "lid", "lid", (-over, -q("lid.front_over"), height), "xz", shows="tflr", group="lid")
    low = height - q("batten.width")
    for number, x in ((1, -over), (2, length + clear)):
        batten = f"batten{number}"
        m.board(
            batten,
            Phrase("batten {number}", number=str(number)),
            "batten",
            (x, -q("lid.front_over"), low),
            "yx",
            group="lid",
        )
        m.butt("lid", batten, Hold.NAILS)
    m.mover("lid", "lid", Side.TOP, height, ("batten.clearance",))
    m.butt("back", "lid", Hold.DRY)
    m.remark(Note.LID_NEEDS_STAY, Severity.NOTE)


def _measures(m: Maker) -> None:
    q = m.q
    length, width, height = (q(f"chest.outside_{way}") for way in ("length", "width", "height"))
    foot, side = q("foot.height"), q("sides.thickness")
    above, front, right = View.ABOVE, View.FRONT, View.SECTION
    m.measure("chest.outside_length", front, (0, 0, 0), (length, 0, 0), -6)
    m.measure("chest.outside_height", front, (0, 0, 0), (0, 0, height), 10)
    m.measure("foot.height", front, (length, 0, foot), (length, 0, 0), 10)
    m.measure("chest.outside_width", right, (0, 0, 0), (0, width, 0), -6)
    m.measure("bottom.thickness", right, (0, width, foot), (0, width, foot + q("bottom.thickness")), -6)
    m.measure(
        "chest.inside_length",
        above,
        (q("ends.thickness"), width / 2, 0),
        (length - q("ends.thickness"), width / 2, 0),
        0,
    )
    m.measure(
        "chest.inside_width",
        right,
        (0, side, foot + (height - foot) / 2),
        (0, width - side, foot + (height - foot) / 2),
        0,
    )


CHEST = Form(
    "chest",
    "Boarded chest",
    (SIZING, _FEET, _TILL, _LID),
    _define,
    _assemble,
    ("chest.outside_length", "chest.outside_width", "chest.outside_height"),
)
