"""Rabbets, dados and grooves: one part let into the other."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from nullah.core.card import JointStage, Remark, Setting, Severity, Step
from nullah.core.joints.bench import (
    CHISEL_BITES,
    CHISEL_CARE,
    KNIFE_BITES,
    KNIFE_CARE,
    SAW_BITES,
    THINNEST,
    AtBench,
    Told,
    chisel_settings,
    end_beside,
    how_many,
    saw_setting,
)
from nullah.core.joints.cutouts import Cutout
from nullah.core.lengths import Direction, Length, write_bought
from nullah.core.refs import quantity_ref


def told(at: AtBench) -> Told:
    """Tell how a rabbet, a dado or a groove is made."""
    kind, host, guest = at.kind, at.kind.first, at.kind.second
    if not host.cutouts:
        return Told((), (), (Remark("The two parts do not meet.", Severity.FAILURE),))
    cut, name = host.cutouts[0], kind.name
    # A dado's width lies along its host's grain, that of a groove or rabbet along an edge across it.
    across_grain = cut.size(0) <= cut.size(1)
    wide = cut.size(0) if across_grain else cut.size(1)
    start = cut.along[0] if across_grain else cut.across[0]
    settings = tuple(_settings(at, cut, wide, start, across_grain))
    steps = _steps(at, name, wide, across_grain)
    remarks = (*_checks(at, cut, wide, name), KNIFE_CARE if name == "rabbet" else CHISEL_CARE)
    why = (
        f"The {name} is as wide as {guest.part.name} is thick when it is there: planned "
        f"{at.marks.write_fine(Length(guest.sizes.through))}. Measure it and all that follows.",
    )
    return Told(settings, steps, remarks, why)


def _settings(at: AtBench, cut: Cutout, wide: Fraction, start: Fraction, across_grain: bool) -> Iterator[Setting]:
    names = at.kind.joint.names
    origin = "from the reference end" if across_grain else "from the reference edge"
    if start > 0:
        yield at.setting("First wall", start, origin)
    rabbet = at.kind.name == "rabbet"
    # What sits in a rabbet is planed flush, what enters a dado or groove is to be tight.
    way = Direction.UP if rabbet else Direction.DOWN
    told = "a hair over, to be planed flush" if rabbet else f"trace the second wall from {at.kind.second.part.name}"
    yield at.setting("Wide", wide, told, names.width, way)
    yield at.setting(
        "Depth", cut.size(2), "gauge and router plane, from the face it is cut into", names.depth, Direction.UP
    )
    near, far = cut.across[0], at.kind.first.sizes.across - cut.across[1]
    if across_grain and near > 0:
        told = "before the reference edge; the mate is notched to cover it"
        yield at.setting("Stop", near, told, names.stop, Direction.UP)
    if across_grain and far > 0:
        yield at.setting("Ends", far, "before the far edge")
    if not across_grain and not rabbet and at.shop.plough_irons:
        iron = at.shop.plough_iron(Length(wide))
        if iron is not None:
            told = "as wide as the groove" if iron.mm == wide else "the widest that enters; the rest in a second pass"
            yield Setting("Plough iron", write_bought(iron), told, quantity_ref(names.width))
    yield from chisel_settings(at, wide, quantity=names.width)
    if across_grain:
        yield from saw_setting(at, cut.size(2))


def _steps(at: AtBench, name: str, wide: Fraction, across_grain: bool) -> tuple[Step, ...]:
    guest = at.kind.second.part.name
    floor = (
        "router plane, a little deeper each pass"
        if at.shop.schools.floor == "router plane"
        else ("chisel bevel down, a scrap of the depth as a test piece")
    )
    if name == "rabbet":
        sever = (
            "Knife across the grain first, deep, so that the fibres part clean."
            if across_grain
            else ("Gauge both lines; with a fence on the plane the gauge line is only a check.")
        )
        return (
            Step(
                f"Gauge width and depth from face and edge.{how_many(at)}",
                JointStage.GAUGED,
                "first",
                draws=("width line", "depth line"),
            ),
            Step(
                sever,
                JointStage.HATCHED,
                "first",
                "The line is unbroken to both ends.",
                uses=("width line",),
                care=KNIFE_BITES,
            ),
            Step(
                "Saw the shoulder or plane to the lines; split the waste off, with the grain.",
                JointStage.SAWN,
                "first",
                "Both lines can still be seen.",
                uses=("width line", "depth line"),
                care=SAW_BITES,
            ),
            Step(
                f"Level the floor with the {floor}.",
                JointStage.CUT,
                "first",
                "Floor and wall are square to each other.",
                uses=("depth line",),
            ),
            Step(
                f"Try {guest}: it sits in, or a hair inside, to be planed flush.",
                JointStage.TRIED,
                "both",
                "No light at the wall.",
            ),
        )
    if not across_grain:
        return (
            Step(
                f"Gauge both walls from the reference edge and the depth from the face.{how_many(at)}",
                JointStage.GAUGED,
                "first",
                draws=("walls", "depth line"),
            ),
            Step(
                "Plough with the fence on the reference edge, starting at the far end and coming back.",
                JointStage.SAWN,
                "first",
                "The fence is tight to the edge all along.",
                uses=("walls",),
            ),
            Step(
                f"Level the floor with the {floor}; one depth all along.",
                JointStage.CUT,
                "first",
                "A rule stands at one depth at both ends and in the middle.",
                uses=("depth line",),
            ),
            Step(
                f"Try {guest} in a scrap of the groove, then in the groove: by hand, without force.",
                JointStage.TRIED,
                "both",
                "It slides and does not rattle.",
            ),
        )
    stopped = "stopped" in name
    deepen = (
        Step(
            "Chop the stop first, so that the saw has somewhere to run out.",
            JointStage.HATCHED,
            "first",
            uses=("first wall", "second wall", "stop"),
            care=CHISEL_BITES,
        )
        if stopped
        else Step(
            "Deepen both knife lines with a chisel to a wall the saw can ride against.",
            JointStage.HATCHED,
            "first",
            uses=("first wall", "second wall"),
            care=CHISEL_BITES,
        )
    )
    return (
        Step(
            f"Knife the first wall, square from the reference edge, across all parts together.{how_many(at)}",
            JointStage.GAUGED,
            "first",
            "One line runs true over all of them.",
            draws=("first wall", "depth line", *(("stop",) if stopped else ())),
            care=KNIFE_BITES,
        ),
        Step(
            f"Set {guest} against it and knife the second wall from its other face: tight, not on the line.",
            JointStage.MARKED,
            "first",
            f"{guest[:1].upper()}{guest[1:]} hides both lines.",
            draws=("second wall",),
            uses=("first wall",),
            care=KNIFE_BITES,
        ),
        deepen,
        Step(
            "Saw both walls inside the waste to depth, chisel the waste out from both edges.",
            JointStage.SAWN,
            "first",
            "The saw kept to the waste.",
            uses=("first wall", "second wall", "depth line"),
            care=SAW_BITES,
        ),
        Step(
            f"Level the floor with the {floor}: an uneven floor throws the case out of parallel.",
            JointStage.CUT,
            "first",
            "One depth at both edges and in the middle.",
            uses=("depth line",),
        ),
        Step(
            f"Fit {guest} by planing its underside; it goes in by hand and stays up by itself."
            + (" Notch its front corner to cover the stop." if stopped else ""),
            JointStage.TRIED,
            "both",
            f"{guest[:1].upper()}{guest[1:]} stands square to it and closes at the front.",
        ),
    )


def _plough(at: AtBench, cut: Cutout, wide: Fraction, name: str) -> Iterator[Remark]:
    """Say what the plough that is there cannot do of a groove."""
    shop, names = at.shop, at.kind.joint.names
    if name != "groove" or not shop.plough_irons:
        return
    narrowest = min(shop.plough_irons, key=lambda iron: iron.mm)
    if shop.plough_iron(Length(wide)) is None:
        yield Remark(
            f"No iron of the plough enters {at.write(wide)}; the narrowest is {write_bought(narrowest)}. Make the "
            "groove as wide as that, or saw and chisel it.",
            Severity.WARNING,
            ref=quantity_ref(names.width),
        )
    if Length(cut.size(2)) > shop.plough_deepest:
        yield Remark(
            f"The plough stops at {at.marks.write_fine(shop.plough_deepest)}, the groove goes {at.write(cut.size(2))} "
            "deep: finish it with a chisel, or make it shallower.",
            Severity.WARNING,
            ref=quantity_ref(names.depth),
        )


def _checks(at: AtBench, cut: Cutout, wide: Fraction, name: str) -> Iterator[Remark]:
    host, guest, names = at.kind.first, at.kind.second, at.kind.joint.names
    left, thick, write = host.sizes.through - cut.size(2), host.sizes.through, at.write
    if 0 < left < THINNEST:
        yield Remark(
            f"Only {write(left)} are left under it: that breaks.", Severity.FAILURE, ref=quantity_ref(names.depth)
        )
    elif name == "rabbet" and cut.size(2) * 2 > thick:
        yield Remark(
            f"{write(cut.size(2))} deep is more than half of {write(thick)}.",
            Severity.WARNING,
            ref=quantity_ref(names.depth),
        )
    elif name != "rabbet" and cut.size(2) * 3 > thick * Fraction(11, 10):
        yield Remark(
            f"{write(cut.size(2))} deep is more than a third of {write(thick)}: the board grows weak there.",
            Severity.WARNING,
            ref=quantity_ref(names.depth),
        )
    yield from _plough(at, cut, wide, name)
    if at.shop.largest_chisel(Length(wide)) is None:
        yield Remark(f"No chisel on the wall enters {write(wide)}.", Severity.WARNING, ref=quantity_ref(names.width))
    if cut.size(0) <= cut.size(1) and name != "rabbet":
        yield from end_beside(at, cut)
    thickness = min(guest.sizes.through, guest.sizes.across)
    if name != "rabbet" and wide < thickness and not guest.cutouts:
        yield Remark(
            f"{guest.part.name} is {write(thickness)} thick and would not enter {write(wide)}: widen it, or leave a "
            "shoulder on the mate.",
            Severity.FAILURE,
            ref=quantity_ref(names.width),
        )
