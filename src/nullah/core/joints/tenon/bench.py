"""Mortise and tenon: stub, through, double; what they have in common."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from nullah.core.card import JointStage, Remark, Setting, Severity, Step
from nullah.core.joints.bench import (
    CHISEL_BITES,
    CHISEL_CARE,
    KNIFE_BITES,
    SAW_BITES,
    THINNEST,
    AtBench,
    Told,
    chisel_settings,
    how_many,
    saw_setting,
)
from nullah.core.joints.cutouts import Cutout
from nullah.core.lengths import Direction, Length, write_bought

#: A mortise is chopped deeper than its tenon is long by this, mm (common practice).
DEEPER = Fraction(2)


def told(at: AtBench) -> Told:
    """Tell how a mortise and its tenon are made."""
    host = at.kind.first
    if not host.cutouts:
        return Told((), (), (Remark("The two parts do not meet.", Severity.FAILURE),))
    mortise = host.cutouts[0]
    thick, wide, deep, through = _shape(at, mortise)
    settings = tuple(_settings(at, mortise, thick, wide, deep, through))
    return Told(
        settings,
        _steps(at, through),
        (*_checks(at, mortise, thick, wide, deep), CHISEL_CARE),
        (
            "The chisel decides the tenon's thickness, not the drawing: about a third of the rail, "
            "to a chisel there is.",
        ),
    )


def _shape(at: AtBench, mortise: Cutout) -> tuple[Fraction, Fraction, Fraction, bool]:
    """Return a tenon's thickness, width and length, and whether it goes through.

    Its length lies along its rail's grain; of the other two the smaller is its thickness.
    """
    rail, post = at.kind.second.part, at.kind.first.part
    own = (post.grain, post.across, post.face)
    into = own.index(rail.grain) if rail.grain in own else 2
    one, two = (mortise.size(way) for way in range(3) if way != into)
    size = at.kind.first.sizes[into]
    return min(one, two), max(one, two), mortise.size(into), mortise.size(into) >= size


def _settings(
    at: AtBench, mortise: Cutout, thick: Fraction, wide: Fraction, deep: Fraction, through: bool
) -> Iterator[Setting]:
    start = mortise.across[0] if mortise.size(1) == thick else mortise.through[0]
    yield at.setting("Mortise gauge", thick, f"its pins, the nearer {at.write(start)} from the reference face")
    yield at.setting("Mortise long", wide, "knifed at both ends")
    if through:
        yield at.setting("Through", deep, "laid out on both faces")
    else:
        yield at.setting("Tenon long", deep, "shoulder to end", way=Direction.DOWN)
        yield at.setting("Mortise deep", deep + DEEPER, "a little more, for glue and chips", way=Direction.UP)
    yield from chisel_settings(at, thick, "Mortise chisel")
    yield from saw_setting(at, deep)


def _steps(at: AtBench, through: bool) -> tuple[Step, ...]:
    first = (
        "Saw the shoulders to the knife line, then split or saw the cheeks."
        if at.shop.schools.tenon == "shoulders first"
        else "Saw the cheeks down to the shoulder line, then the shoulders."
    )
    chop = (
        "Chop half from each face; they meet in the middle."
        if through
        else ("Chop from the middle outwards, bevel towards the middle; square the ends last.")
    )
    return (
        Step(
            f"Set the mortise gauge to the chisel, from the face side of both parts.{how_many(at)}",
            JointStage.GAUGED,
            "both",
            "Both pins of the gauge touch the chisel's edges.",
            draws=("cheek lines",),
        ),
        Step(
            "Knife the shoulders round the rail together, so that all rails are one length between them.",
            JointStage.MARKED,
            "second",
            "The line meets itself round the rail.",
            draws=("shoulder",),
            care=KNIFE_BITES,
        ),
        Step(
            chop,
            JointStage.CUT,
            "first",
            "The chisel stands plumb along and across.",
            uses=("cheek lines",),
            care=CHISEL_BITES,
        ),
        Step(
            first,
            JointStage.SAWN,
            "second",
            "Half the gauge line is left.",
            uses=("cheek lines", "shoulder"),
            care=SAW_BITES,
        ),
        Step(
            "Shave the tenon to fit the mortise that is there: in by hand, the last third with a push.",
            JointStage.CUT,
            "second",
            "It goes in square, and both faces are flush where they should be.",
            uses=("shoulder",),
        ),
        Step(
            "No light at the shoulder; take the tenon's end back rather than the shoulder.",
            JointStage.TRIED,
            "both",
            "The shoulder closes all round.",
        ),
    )


def _checks(at: AtBench, mortise: Cutout, thick: Fraction, wide: Fraction, deep: Fraction) -> Iterator[Remark]:
    rail, post, write = at.kind.second.sizes.through, at.kind.first.sizes, at.write
    if thick * 5 < rail:
        yield Remark(
            f"A tenon of {write(thick)} in a rail of {write(rail)} is thin; a third is usual.", Severity.WARNING
        )
    if thick * 2 > rail:
        yield Remark(f"A tenon of {write(thick)} leaves thin cheeks in a rail of {write(rail)}.", Severity.WARNING)
    walls = [mortise.across[0], post.across - mortise.across[1], mortise.through[0], post.through - mortise.through[1]]
    thin = min((wall for wall in walls if wall > 0), default=None)
    if thin is not None and thin < THINNEST:
        yield Remark(f"A wall of only {write(thin)} is left beside the mortise: it breaks.", Severity.FAILURE)
    end = min(mortise.along[0], post.along - mortise.along[1])
    if 0 < end < 8:
        yield Remark(
            f"Only {write(end)} of end stands above the mortise and is likely to split: leave a horn until it is "
            "glued, or a haunch.",
            Severity.WARNING,
        )
    chisels = at.shop.chisels
    if chisels and all(abs(chisel.mm - thick) > Fraction(1, 2) for chisel in chisels):
        nearest = min(chisels, key=lambda chisel: abs(chisel.mm - thick))
        yield Remark(
            f"No chisel is {write(thick)} wide; make the tenon {write_bought(nearest)}, to the nearest there is.",
            Severity.WARNING,
        )
    if wide > 6 * thick:
        yield Remark(
            f"A tenon {write(wide)} wide moves with the season: part it in two, with a stub between.", Severity.WARNING
        )
    if Length(deep) < Length(thick):
        yield Remark(f"A tenon only {write(deep)} long holds little.", Severity.WARNING)
