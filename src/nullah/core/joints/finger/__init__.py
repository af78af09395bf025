"""Finger joint: straight fingers of two ends, side by side in turn; it holds by its glue."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from nullah.core.card import JointStage, Remark, Severity, Step
from nullah.core.catalogue import N_
from nullah.core.joints.base import JointBase
from nullah.core.joints.bench import CHISEL_CARE, SAW_BITES, AtBench, Told, chisel_settings, saw_setting
from nullah.core.joints.meeting import box_corner
from nullah.core.ledger import Definition, Ledger, QuantityKind, given
from nullah.core.lengths import Length
from nullah.core.piece.faults import Fault, FaultKind, NoCorner
from nullah.core.piece.joint import Hold, Joint, Offered
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box


class Finger(JointBase):
    """Fingers of the second board between fingers of the first, which has one at either edge."""

    id = N_("finger joint")
    offer = N_("Fingers, the outer ones on {first}")

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield either board as the one with the outer fingers, at the corner of a box."""
        if overlap is not None and box_corner(first, second, overlap):
            yield Offered(first, second)
            yield Offered(second, first)

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare how many fingers both boards have together."""
        return (given(f"{prefix}_fingers.count", N_("number of fingers, of both boards"), 7, QuantityKind.COUNT),)

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return fingers of one width; an even number is made odd by one more, so that both edges are alike."""
        overlap, name = first.box.overlap(second.box), f"{joint_id}_fingers.count"
        if overlap is None or name not in ledger.quantities:
            return Joint(joint_id, self, first.id, second.id, hold)
        fingers = fingers_of(overlap, across(first, second), int(ledger[name]))
        return Joint(joint_id, self, first.id, second.id, hold, channels=fingers, shares=fingers)

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield it where two boards do not make the corner of a box."""
        overlap = first.box.overlap(second.box)
        if overlap is not None and not box_corner(first, second, overlap):
            fact = NoCorner(first.id, second.id, N_("finger-jointed"))
            yield Fault(FaultKind.COLLISION, fact, (first.id, second.id), place=overlap)

    def told(self, at: AtBench) -> Told | None:
        """Return how the fingers are laid out and cut: as dovetails are, without a slope."""
        first, second = at.kind.first, at.kind.second
        if not first.cutouts or not second.cutouts:
            return Told((), (), (Remark(N_("The two parts do not meet."), Severity.FAILURE),))
        wide = first.cutouts[0].size(1)
        settings = (
            at.setting("Gauge, first", second.sizes.through, N_("all round the end; the mate's thickness")),
            at.setting("Gauge, second", first.sizes.through, N_("all round the end; the mate's thickness")),
            at.setting("Dividers", wide, N_("stepped from one edge to the other")),
            *chisel_settings(at, wide),
            *saw_setting(at, second.sizes.through),
        )
        return Told(settings, _STEPS, (*_too_fine(at, wide), CHISEL_CARE))


def across(first: Part, second: Part) -> Axis:
    """Return the axis across which fingers stand side by side: the width both boards have in common."""
    return next(axis for axis in Axis if axis not in (first.grain, second.grain))


def fingers_of(overlap: Box, axis: Axis, count: int) -> tuple[Box, ...]:
    """Return the fingers of the second board in a corner: every other one, from the second on, exactly as wide.

    Parameters
    ----------
    overlap : Box
        What both boards share, mm.
    axis : Axis
        Across the fingers.
    count : int
        Of both boards together; an even one is taken as one more, fewer than three as three.

    Examples
    --------
    >>> corner = Box((Fraction(0),) * 3, (Fraction(12), Fraction(15), Fraction(70)))
    >>> [(int(each.low[2]), int(each.high[2])) for each in fingers_of(corner, Axis.Z, 7)]
    [(10, 20), (30, 40), (50, 60)]
    """
    odd = max(3, count + 1 - count % 2)
    low, step = overlap.low[axis.value], overlap.size(axis) / odd
    return tuple(overlap.set(axis, low + step * n, low + step * (n + 1)) for n in range(1, odd, 2))


def _too_fine(at: AtBench, wide: Fraction) -> Iterator[Remark]:
    if at.shop.largest_chisel(Length(wide)) is None:
        yield Remark(N_("No chisel on the wall is as narrow as a finger: fewer fingers."), Severity.WARNING)


_STEPS = (
    Step(N_("Gauge both ends all round to the thickness of the mate."), JointStage.GAUGED, draws=("baseline",)),
    Step(
        N_("Step the fingers off on the end of the first board; square them to the baseline, hatch every other one."),
        JointStage.HATCHED,
        "first",
        draws=("fingers",),
        uses=("baseline",),
        check=N_("A finger is left at either edge."),
    ),
    Step(
        N_("Saw in the waste beside every line; saw most of the waste out, chop to the baseline from both faces."),
        JointStage.CUT,
        "first",
        uses=("fingers", "baseline"),
        care=SAW_BITES,
    ),
    Step(
        N_("Stand it on the end of the second board, edges flush, and trace the fingers; hatch what they cover."),
        JointStage.HATCHED,
        "second",
        draws=("traced fingers",),
        uses=("baseline",),
    ),
    Step(
        N_("Saw in the waste beside the traced lines, chop to the baseline."),
        JointStage.CUT,
        "second",
        uses=("traced fingers", "baseline"),
        care=SAW_BITES,
    ),
    Step(
        N_("Try a third of the way; pare what binds. Glue the sides of all fingers, and clamp across both boards."),
        JointStage.TRIED,
        check=N_("No light between the fingers, and the corner is square."),
    ),
)

FINGER = Finger()
