"""A dovetailed box: four sides, a bottom in a groove, open at the top.

The front and back run along X, the ends along Y, and all four stand full height. At each
corner two boards fill the same space and the dovetails share it out; the bottom reaches
into all four by the depth of the groove, less its clearance.
"""

from __future__ import annotations

from fractions import Fraction

from nullah.core.card import Mend, Remark, Weight
from nullah.core.ledger import Definition, Kind, Ledger
from nullah.core.lengths import Slope, mm
from nullah.core.piece.form import Assembly, Choice, Choices, Form
from nullah.core.piece.overlap import Joint, Sharing, unshared
from nullah.core.piece.part import Axis, Box, Needs, Part

_SIZING = Choice(
    "sizing",
    "Sized",
    (("outside", "outside"), ("inside", "inside"), ("contents", "around its contents")),
)
_TAILS_ON = Choice("tails_on", "Tails on", (("sides", "front and back"), ("ends", "the ends")))


def _define(chosen: Choices) -> tuple[Definition, ...]:
    tail, pin = ("sides", "ends") if chosen["tails_on"] == "sides" else ("ends", "sides")
    return (
        *_box_sizes(chosen["sizing"]),
        Definition("sides.thickness", "thickness of front and back", default=mm(15)),
        Definition("ends.thickness", "thickness of the ends", "sides.thickness"),
        Definition("bottom.thickness", "thickness of the bottom", default=mm(6)),
        Definition("groove.height", "lower edge to groove", default=mm(10)),
        Definition("groove.depth", "depth of the groove", default=mm(5)),
        Definition("groove.width", "width of the groove", "bottom.thickness"),
        Definition("sides.length", "length of front and back", "box.outside_length"),
        Definition("sides.width", "width of front and back", "box.outside_height"),
        Definition("ends.length", "length of the ends", "box.outside_width"),
        Definition("ends.width", "width of the ends", "box.outside_height"),
        Definition("opening.length", "groove to groove, along", "box.inside_length + 2 * groove.depth"),
        Definition("opening.width", "groove to groove, across", "box.inside_width + 2 * groove.depth"),
        Definition("bottom.clearance", "clearance of the bottom, each edge", default=mm("0.5")),
        Definition("bottom.length", "length of the bottom", "opening.length - 2 * bottom.clearance",
                   fits=("opening.length",)),
        Definition("bottom.width", "width of the bottom", "opening.width - 2 * bottom.clearance",
                   fits=("opening.width",)),
        Definition("tails.count", "number of tails", default=3, kind=Kind.COUNT),
        Definition("tails.slope", "slope of the tails", default=Slope(Fraction(7)), kind=Kind.SLOPE),
        Definition("tails.half_pin", "half-pin at each edge", f"{tail}.thickness / 2"),
        Definition("tails.pin", "pin between tails, at its narrow side", default=mm(6)),
        Definition("tails.proud", "end grain left proud", default=mm("0.5")),
        Definition("tails.step", "divider step",
                   "(box.outside_height - 2 * tails.half_pin + tails.pin) / tails.count"),
        Definition("tails.width", "tail at the end of its board", "tails.step - tails.pin"),
        Definition("gauge.tail_board", "gauge for the tail boards", f"{pin}.thickness + tails.proud"),
        Definition("gauge.pin_board", "gauge for the pin boards", f"{tail}.thickness + tails.proud"),
        Definition("sides.cut_length", "cut front and back to", "sides.length + 2 * tails.proud"),
        Definition("ends.cut_length", "cut the ends to", "ends.length + 2 * tails.proud"),
    )  # fmt: skip


def _box_sizes(sizing: str) -> tuple[Definition, ...]:
    """Give the quantities of the outside and inside sizes, whichever of them is given."""
    walls = {
        "length": "2 * ends.thickness",
        "width": "2 * sides.thickness",
        "height": "(groove.height + bottom.thickness)",
    }
    defaults = {"length": mm(360), "width": mm(220), "height": mm(120)}
    found: list[Definition] = []
    if sizing == "contents":
        found.append(Definition("contents.clearance", "clearance round the contents", default=mm(3)))
    for way, default in defaults.items():
        inside, outside = f"box.inside_{way}", f"box.outside_{way}"
        inside_title = f"inside {way}" if way != "height" else "inside depth"
        if sizing == "outside":
            found.append(Definition(outside, f"outside {way}", default=default))
            found.append(Definition(inside, inside_title, f"{outside} - {walls[way]}"))
            continue
        if sizing == "contents":
            sides = 1 if way == "height" else 2
            found.append(Definition(f"contents.{way}", f"{way} of the contents", default=default))
            found.append(Definition(inside, inside_title, f"contents.{way} + {sides} * contents.clearance"))
        else:
            found.append(Definition(inside, inside_title, default=default))
        found.append(Definition(outside, f"outside {way}", f"{inside} + {walls[way]}"))
    return tuple(found)


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    problems = _impossible(ledger)
    if problems:
        return Assembly(remarks=problems)
    parts = _parts(ledger)
    tail_boards, pin_boards = ("front", "back"), ("left", "right")
    if chosen["tails_on"] == "ends":
        tail_boards, pin_boards = pin_boards, tail_boards
    joints = [Joint(f"{tail}-{pin}", Sharing.DOVETAIL, tail, pin) for tail in tail_boards for pin in pin_boards]
    joints += [Joint(f"{side}-bottom", Sharing.LET_IN, side, "bottom") for side in ("front", "back", "left", "right")]
    collisions = tuple(Remark(text, Weight.FAILS) for text in unshared(parts, tuple(joints)))
    return Assembly(parts, tuple(joints), (*_remarks(ledger), *collisions))


def _parts(ledger: Ledger) -> tuple[Part, ...]:
    q = ledger.__getitem__
    length, width, height = q("box.outside_length"), q("box.outside_width"), q("box.outside_height")
    side, end, zero = q("sides.thickness"), q("ends.thickness"), Fraction(0)
    spare = 2 * q("tails.proud")
    floor = q("groove.height")

    def board(part_id: str, number: int, name: str, box: Box, alike: str) -> Part:
        grain, face = (Axis.X, Axis.Y) if alike == "sides" else (Axis.Y, Axis.X)
        names = (f"{alike}.cut_length", f"{alike}.width", f"{alike}.thickness")
        return Part(part_id, number, name, box, grain, face, Needs.CLEAR, names, alike, spare=spare)

    # The bottom is centred in the opening, short of each groove's floor by the clearance.
    reach_x, reach_y = q("bottom.length"), q("bottom.width")
    x, y = (length - reach_x) / 2, (width - reach_y) / 2
    return (
        board("front", 1, "front", Box((zero, zero, zero), (length, side, height)), "sides"),
        board("back", 2, "back", Box((zero, width - side, zero), (length, width, height)), "sides"),
        board("left", 3, "left end", Box((zero, zero, zero), (end, width, height)), "ends"),
        board("right", 4, "right end", Box((length - end, zero, zero), (length, width, height)), "ends"),
        Part(
            "bottom", 5, "bottom",
            Box((x, y, floor), (x + reach_x, y + reach_y, floor + q("bottom.thickness"))),
            Axis.X, Axis.Z, Needs.ANY, ("bottom.length", "bottom.width", "bottom.thickness"), "bottom",
            species_role="bottom",
        ),
    )  # fmt: skip


def _impossible(ledger: Ledger) -> tuple[Remark, ...]:
    """Say what leaves no box at all: sizes of nothing, walls thicker than the box."""
    must_be_positive = [
        name
        for name, quantity in ledger.quantities.items()
        if quantity.definition.kind is Kind.LENGTH
        and name.split(".")[0] in ("box", "sides", "ends", "bottom", "groove", "contents")
        and not name.endswith(("clearance", "groove.depth"))
    ]
    for name in must_be_positive:
        quantity = ledger.quantity(name)
        if quantity.value > 0:
            continue
        title = quantity.definition.title
        text = f"The {title} comes to {quantity.length.as_text()}: nothing is left of it."
        if quantity.entered is not None:
            text = f"The {title} is {quantity.length.as_text()}. It must be more than nothing."
        return (Remark(text, Weight.FAILS, of=name),)
    return ()


def _remarks(ledger: Ledger) -> tuple[Remark, ...]:
    q = ledger.__getitem__
    found: list[Remark] = []
    thinner = min(q("sides.thickness"), q("ends.thickness"))
    third = Fraction(int(thinner / 3 * 2), 2)
    if q("groove.depth") <= 0:
        found.append(
            Remark("The groove has no depth, so nothing holds the bottom.", Weight.FAILS,
                   (Mend(f"Make the groove {third} mm deep", "give", "groove.depth", f"{float(third):g} mm"),),
                   of="groove.depth")
        )  # fmt: skip
    elif q("groove.depth") * 2 > thinner:
        found.append(
            Remark(
                "The groove takes more than half of the thinnest side. About a third is the limit.",
                Weight.FAILS if q("groove.depth") >= thinner else Weight.LOOK,
                (Mend(f"Make it {float(third):g} mm deep", "give", "groove.depth", f"{float(third):g} mm"),),
                of="groove.depth",
            )
        )
    if q("bottom.clearance") < 0:
        found.append(Remark("A clearance below nothing would force the joints apart.", Weight.FAILS,
                            (Mend("Set the clearance to 0.5 mm", "give", "bottom.clearance", "0.5 mm"),),
                            of="bottom.clearance"))  # fmt: skip
    elif q("groove.depth") > 0 and q("bottom.clearance") * 2 > q("groove.depth"):
        found.append(Remark("The clearance is more than half the groove: the bottom could drop out.",
                            Weight.LOOK, of="bottom.clearance"))  # fmt: skip
    return tuple(found)


BOX = Form("box", "Dovetailed box", (_SIZING, _TAILS_ON), _define, _assemble)
