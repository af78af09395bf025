"""Laps and bridles: an overlap shared in halves or thirds."""

from __future__ import annotations

from fractions import Fraction

from nullah.core.card import JointStage, Remark, Setting, Severity, Step
from nullah.core.joints.bench import (
    CHISEL_BITES,
    KNIFE_BITES,
    KNIFE_CARE,
    SAW_BITES,
    THINNEST,
    AtBench,
    Told,
    how_many,
    saw_setting,
)


def told(at: AtBench, bridle: bool) -> Told:
    """Tell how a lap or a bridle is made."""
    first, second = at.kind.first, at.kind.second
    if not first.cutouts or not second.cutouts:
        return Told((), (), (Remark("The two parts do not meet.", Severity.FAILURE),))
    depth = min(cut.size(way) for cut in first.cutouts for way in range(3))
    settings: list[Setting] = []
    for mate in (first, second):
        cut = mate.cutouts[0]
        wide = max(cut.size(0), cut.size(1)) if mate is first else cut.size(0)
        settings.append(at.setting(f"Shoulder, {mate.part.name}", wide, "trace it from the mate"))
    settings.append(at.setting("Gauge", depth, "from the same face of both parts"))
    lines = (
        "both gauge lines, from the same face on both parts" if bridle else "half the thickness, from one face of both"
    )
    settings += saw_setting(at, depth)
    saw = (
        "Saw the shoulders inside the waste, a few more cuts between; chisel from both sides, hollow in the middle."
        if not bridle
        else "Saw the cheeks, outside ones in the waste outside, inner ones inside; chop the slot's end."
    )
    steps = (
        Step(
            f"Lay the one across the other and knife round: the width is traced, not measured.{how_many(at)}",
            JointStage.MARKED,
            draws=("shoulders",),
            check="The mate hides both lines.",
            care=KNIFE_BITES,
        ),
        Step(
            f"Gauge {lines}; hatch what goes, and check it twice.",
            JointStage.HATCHED,
            draws=("gauge lines",),
            uses=("shoulders",),
            check="What is hatched on the one is left on the other.",
        ),
        Step(
            saw, JointStage.SAWN, uses=("shoulders", "gauge lines"), check="Half of every line is left.", care=SAW_BITES
        ),
        Step(
            "Pare to the lines, from both sides.",
            JointStage.CUT,
            uses=("shoulders", "gauge lines"),
            care=CHISEL_BITES,
            check="A rule lies flat across the floor.",
        ),
        Step(
            "Try it: flush on the reference face. Shave the floor, never the shoulder.",
            JointStage.TRIED,
            check="No light at the shoulders.",
        ),
    )
    remarks: list[Remark] = []
    left = min(_left(mate.sizes, mate.cutouts) for mate in (first, second))
    if left < THINNEST:
        remarks.append(Remark(f"Only {at.write(left)} are left of a mate there: it breaks.", Severity.FAILURE))
    return Told(tuple(settings), steps, (*remarks, KNIFE_CARE))


def _left(sizes: tuple[Fraction, ...], cutouts: tuple[tuple[tuple[Fraction, Fraction], ...], ...]) -> Fraction:
    """Return the thinnest that is left through a mate beside its cutouts, mm."""
    gone = sum((cut[2][1] - cut[2][0] for cut in cutouts), Fraction(0))
    return sizes[2] - min(gone, sizes[2]) if gone < sizes[2] else sizes[2]
