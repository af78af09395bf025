"""What is to be minded of a mortise and its tenon, and of parts that are halved."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark, Severity
from nullah.core.fraction import Fraction
from nullah.core.joints.bench import THINNEST, AtBench
from nullah.core.joints.cautions import (
    NoChiselAsWide,
    ShortAboveMortise,
    ShortTenon,
    ThickTenon,
    ThinBesideMortise,
    ThinLap,
    ThinTenon,
    WideTenon,
)
from nullah.core.joints.cutouts import Cutout
from nullah.core.joints.kinds import Mate
from nullah.core.lengths import Length

#: Shorter ends than this above a mortise split, mm (common practice).
_SPLITS = Fraction(8)


def tenon_cautions(at: AtBench) -> Iterator[Remark]:
    """Yield what is to be minded of a mortise and its tenon."""
    if not at.kind.first.cutouts:
        return
    mortise, rail, post = at.kind.first.cutouts[0], at.kind.second.sizes.through, at.kind.first.sizes
    thick, wide, deep = _shape(at, mortise)
    if thick * 5 < rail:
        yield Remark(ThinTenon(Length(thick), Length(rail)), Severity.WARNING)
    if thick * 2 > rail:
        yield Remark(ThickTenon(Length(thick), Length(rail)), Severity.WARNING)
    walls = [mortise.across[0], post.across - mortise.across[1], mortise.through[0], post.through - mortise.through[1]]
    thin = min((wall for wall in walls if wall > 0), default=None)
    if thin is not None and thin < THINNEST:
        yield Remark(ThinBesideMortise(Length(thin)), Severity.FAILURE)
    end = min(mortise.along[0], post.along - mortise.along[1])
    if 0 < end < _SPLITS:
        yield Remark(ShortAboveMortise(Length(end)), Severity.WARNING)
    chisels = at.shop.chisels
    if chisels and all(abs(chisel.mm - thick) > Fraction(1, 2) for chisel in chisels):
        nearest = min(chisels, key=lambda chisel: abs(chisel.mm - thick))
        yield Remark(NoChiselAsWide(Length(thick), nearest), Severity.WARNING)
    if wide > 6 * thick:
        yield Remark(WideTenon(Length(wide)), Severity.WARNING)
    if deep < thick:
        yield Remark(ShortTenon(Length(deep)), Severity.WARNING)


def _shape(at: AtBench, mortise: Cutout) -> tuple[Fraction, Fraction, Fraction]:
    """Return a tenon's thickness, width and length, mm.

    Its length lies along its rail's grain; of the other two the smaller is its thickness.
    """
    rail, post = at.kind.second.part, at.kind.first.part
    own = (post.grain, post.across, post.face)
    into = own.index(rail.grain) if rail.grain in own else 2
    one, two = (mortise.size(way) for way in range(3) if way != into)
    return min(one, two), max(one, two), mortise.size(into)


def halved_cautions(at: AtBench) -> Iterator[Remark]:
    """Yield what is to be minded of a lap or a bridle: what is left of either part there."""
    if not at.kind.first.cutouts or not at.kind.second.cutouts:
        return
    left = min(_left(mate) for mate in (at.kind.first, at.kind.second))
    if left < THINNEST:
        yield Remark(ThinLap(Length(left)), Severity.FAILURE)


def _left(mate: Mate) -> Fraction:
    """Return how much is left through a part beside its cutouts, mm."""
    through = mate.sizes.through
    gone = sum((cut.through[1] - cut.through[0] for cut in mate.cutouts), Fraction(0))
    return through - gone if gone < through else through
