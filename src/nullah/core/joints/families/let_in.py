"""Rabbets, dados and grooves: one part let into the other."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from nullah.core.card import Remark, Setting, Weight
from nullah.core.joints.cutouts import Cutout
from nullah.core.joints.families.told import (
    CHISEL_CARE,
    KNIFE_CARE,
    THINNEST,
    AtBench,
    Told,
    chisel_settings,
    end_beside,
    how_many,
)
from nullah.core.lengths import Length


def told(at: AtBench) -> Told:
    """Tell how a rabbet, a dado or a groove is made."""
    kind, host, guest = at.kind, at.kind.first, at.kind.second
    if not host.cutouts:
        return Told((), (), (Remark("The two parts do not meet.", Weight.FAILS),))
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
    yield at.setting("Wide", wide, f"trace the second wall from {at.kind.second.part.name}", names.width)
    yield at.setting("Depth", cut.size(2), "gauge and router plane, from the face it is cut into", names.depth)
    near, far = cut.across[0], at.kind.first.sizes.across - cut.across[1]
    if across_grain and near > 0:
        yield at.setting("Stop", near, "before the reference edge; the mate is notched to cover it", names.stop)
    if across_grain and far > 0:
        yield at.setting("Ends", far, "before the far edge")
    yield from chisel_settings(at, wide, of=names.width)


def _steps(at: AtBench, name: str, wide: Fraction, across_grain: bool) -> tuple[str, ...]:
    guest = at.kind.second.part.name
    floor = "router plane, a little deeper each pass" if at.shop.schools.floor == "router plane" else (
        "chisel bevel down, a scrap of the depth as a test piece")  # fmt: skip
    if name == "rabbet":
        sever = "Knife across the grain first, deep, so that the fibres part clean." if across_grain else (
            "Gauge both lines; with a fence on the plane the gauge line is only a check.")  # fmt: skip
        return (
            f"Gauge width and depth from face and edge.{how_many(at)}", sever,
            "Saw the shoulder or plane to the lines; split the waste off, with the grain.",
            f"Level the floor with the {floor}.",
            f"Try {guest}: it sits in, or a hair inside, to be planed flush.",
        )  # fmt: skip
    if not across_grain:
        return (
            f"Gauge both walls from the reference edge and the depth from the face.{how_many(at)}",
            "Plough with the fence on the reference edge, starting at the far end and coming back.",
            f"Level the floor with the {floor}; one depth all along.",
            f"Try {guest} in a scrap of the groove, then in the groove: by hand, without force.",
        )
    stopped = "stopped" in name
    return (
        f"Knife the first wall, square from the reference edge, across all parts together.{how_many(at)}",
        f"Set {guest} against it and knife the second wall from its other face: tight, not on the line.",
        "Chop the stop first, so that the saw has somewhere to run out." if stopped else
        "Deepen both knife lines with a chisel to a wall the saw can ride against.",
        "Saw both walls inside the waste to depth, chisel the waste out from both edges.",
        f"Level the floor with the {floor}: an uneven floor throws the case out of parallel.",
        f"Fit {guest} by planing its underside; it goes in by hand and stays up by itself."
        + (" Notch its front corner to cover the stop." if stopped else ""),
    )  # fmt: skip


def _checks(at: AtBench, cut: Cutout, wide: Fraction, name: str) -> Iterator[Remark]:
    host, guest, names = at.kind.first, at.kind.second, at.kind.joint.names
    left, thick, write = host.sizes.through - cut.size(2), host.sizes.through, at.write
    if 0 < left < THINNEST:
        yield Remark(f"Only {write(left)} are left under it: that breaks.", Weight.FAILS, of=names.depth)
    elif name == "rabbet" and cut.size(2) * 2 > thick:
        yield Remark(f"{write(cut.size(2))} deep is more than half of {write(thick)}.", Weight.LOOK, of=names.depth)
    elif name != "rabbet" and cut.size(2) * 3 > thick * Fraction(11, 10):
        yield Remark(
            f"{write(cut.size(2))} deep is more than a third of {write(thick)}: the board grows weak there.",
            Weight.LOOK, of=names.depth,
        )  # fmt: skip
    if at.shop.largest_chisel(Length(wide)) is None:
        yield Remark(f"No chisel on the wall enters {write(wide)}.", Weight.LOOK, of=names.width)
    if cut.size(0) <= cut.size(1) and name != "rabbet":
        yield from end_beside(at, cut)
    thickness = min(guest.sizes.through, guest.sizes.across)
    if name != "rabbet" and wide < thickness and not guest.cutouts:
        yield Remark(
            f"{guest.part.name} is {write(thickness)} thick and would not enter {write(wide)}: widen it, or leave a "
            "shoulder on the mate.", Weight.FAILS, of=names.width,
        )  # fmt: skip
