"""The steps of a dovetailed corner, in the way of working that was chosen."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import JointStage, Step
from nullah.core.joints.bench import CHISEL_BITES, KNIFE_BITES, SAW_BITES
from nullah.core.joints.dovetail.corners import Corner
from nullah.core.plan import Plan


def corner_steps(plan: Plan, corner: Corner) -> tuple[Step, ...]:
    """Return the steps of a corner, in the shop's own way, short."""
    names = {part.id: part.name for part in plan.parts}
    tails = _listed([names[p] for p in corner.tail_boards])
    pins = _listed([names[p] for p in corner.pin_boards])
    schools = plan.project.shop.schools
    out = {
        "saw and chop": "Saw the waste out clear of the baseline, chop half from each face, pare.",
        "chop only": "Chop the waste half from each face, away from the line first, half of what is left each time.",
    }[schools.waste]
    gauge = Step(
        f"Mark face side, face edge and mating letters. Gauge the baseline round {tails} and round {pins}.",
        JointStage.GAUGED,
        "both",
        "The line meets itself round the board.",
        draws=("baseline",),
    )
    plough = "Plough the grooves before glueing, stopped where the card says. " if corner.groove else ""
    drive = Step(
        f"{plough}Try by hand, pare what is burnished; drive each corner together once.",
        JointStage.TRIED,
        "both",
        "No light at the inside of the corner; the boards stand square.",
    )
    tops = _mitred_corner(plan, corner)
    if schools.dovetail == "pins first":
        return (gauge, *_pins_first(pins, tails, out), *tops, drive)
    half = plan.marks.write_setting(corner.layout.spec.half_pin)
    return (gauge, *_tails_first(plan, corner, half, out), *tops, drive)


def _tails_first(plan: Plan, corner: Corner, half: str, out: str) -> Iterator[Step]:
    start = (
        f"From each edge knife a half-pin of {half}; step the dividers off from both lines. Square across the end."
        if corner.layout.spec.equal
        else f"From each edge knife a half-pin of {half}; set every tail off from the lower one. Square across the end."
    )
    yield Step(start, JointStage.MARKED, "first", "The outer pins are alike.", draws=("tail lines",))
    yield Step(
        "Hatch the waste. Gang both tail boards; saw all one slope, then the other, in the waste.",
        JointStage.SAWN,
        "first",
        "Every cut stops at the baseline, before and behind.",
        uses=("tail lines", "baseline"),
        care=SAW_BITES,
    )
    yield Step(
        f"{out} A little hollow inside.",
        JointStage.CUT,
        "first",
        "A square's blade lies in every socket.",
        uses=("baseline",),
        care=CHISEL_BITES,
    )
    yield Step(
        "Trace the pins from the tails, flush at the inside. Knife round, square down, hatch.",
        JointStage.HATCHED,
        "second",
        "Letters meet; the boards did not slip.",
        draws=("pin lines",),
        uses=("baseline",),
        care=KNIFE_BITES,
    )
    yield Step(
        "Saw the pins plumb in the waste, half of the line left; chop as before.",
        JointStage.CUT,
        "second",
        "Walls are plumb, none leans over its socket.",
        uses=("pin lines", "baseline"),
        care=CHISEL_BITES,
    )


def _pins_first(pins: str, tails: str, out: str) -> Iterator[Step]:
    yield Step(
        f"On the ends of {pins} mark the pins with dividers and bevel; square down both faces, hatch the sockets.",
        JointStage.HATCHED,
        "second",
        "Narrow sides are all outside.",
        draws=("pin lines",),
    )
    yield Step(
        f"Saw inside the waste, plumb. {out}",
        JointStage.CUT,
        "second",
        "Walls are plumb.",
        uses=("pin lines", "baseline"),
        care=SAW_BITES,
    )
    yield Step(
        f"Stand {pins} on the inside of {tails}, flush at the baseline; trace the tails with a thin knife, "
        "square across the end.",
        JointStage.HATCHED,
        "first",
        "Letters meet; the boards did not slip.",
        draws=("tail lines",),
        uses=("baseline",),
        care=KNIFE_BITES,
    )
    yield Step(
        "Saw the tails in the waste, leaning as the lines do; saw off the half-pin shoulders; chop as before.",
        JointStage.CUT,
        "first",
        "Half of every line is left.",
        uses=("tail lines", "baseline"),
        care=CHISEL_BITES,
    )


def _mitred_corner(plan: Plan, corner: Corner) -> Iterator[Step]:
    """Where an edge of the corner is moulded, its half-pin is mitred, so that the moulding turns the corner."""
    for edge, wide in zip(("lower", "upper"), corner.layout.spec.mitres, strict=True):
        if wide.mm <= 0:
            continue
        figure = plan.marks.write_setting(wide)
        yield Step(
            f"At the {edge} edge, which is moulded, do not saw the half-pin's shoulder: mitre {figure} of both boards "
            "there from the inside, so that the moulding turns the corner. Mould after glueing, or before and stop "
            "at the mitre.",
            JointStage.CUT,
            "both",
            "The mitre closes before the baseline does, or with it.",
            draws=("mitre lines",),
            uses=("baseline",),
            care=SAW_BITES,
        )


def _listed(names: list[str]) -> str:
    return " and ".join(names) if len(names) < 3 else f"{', '.join(names[:-1])} and {names[-1]}"
