"""Butt joints: glued, nailed or screwed."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from nullah.core.card import JointStage, Remark, Setting, Severity, Step
from nullah.core.joints.bench import CHISEL_BITES, AtBench, Told
from nullah.core.joints.cutouts import axes_of
from nullah.core.joints.fasteners import SAFE_SHARE, Fastening, fastening
from nullah.core.joints.mate_views import Hole
from nullah.core.lengths import Direction, from_float
from nullah.core.piece.joint import Hold
from nullah.core.piece.overlap import contact
from nullah.core.piece.space import Axis

_SCRAP = Remark("Test nail or screw and its pilot in scrap of the same wood first.")


def told(at: AtBench) -> Told:
    """Tell how a butt joint is held."""
    kind = at.kind
    hold, first, second = kind.joint.hold, kind.first.part, kind.second.part
    touch = contact(first, second)
    if touch is None:
        return Told((), (), (Remark("The two parts do not touch.", Severity.FAILURE),))
    if hold in (Hold.NAILS, Hold.SCREWS, Hold.SLOTS, Hold.BUTTONS):
        across = next((axis for axis in Axis if touch.size(axis) == 0), first.face)
        row = _row(at, across, float(max(touch.size(axis) for axis in Axis)))
        return Told(
            tuple(_settings(at, row)),
            _BUTTONS if hold is Hold.BUTTONS else (),
            (*_checks(at, row), _SCRAP),
            (
                f"One resists about {row.holds:.0f} N at the most; ask no more than a fifth of that for good "
                "(Wood Handbook, from memory).",
            ),
            row,
        )
    end = first.grain is not second.grain
    weak = (Remark("End grain glued to a side holds little: let it in, or nail it.", Severity.WARNING),) if end else ()
    return Told((Setting("Glue", "both faces", "thin, even"),), (), weak)


def _row(at: AtBench, across: Axis, along: float) -> Fastening:
    """Choose the row: through the thinner part into the other, across where they touch."""
    kind = at.kind
    one, two = kind.first.part, kind.second.part
    thin, behind = (one, two) if one.box.size(across) <= two.box.size(across) else (two, one)
    index = 1 if behind is two else 0
    screws = kind.joint.hold is not Hold.NAILS
    sizes = float(thin.box.size(across)), float(behind.box.size(across)), along
    return fastening(screws, *sizes, at.gravities[index], at.hard[index], behind.grain is across)


def holes(at: AtBench) -> tuple[str, tuple[Hole, ...]]:
    """Return where nails or screws go through the thinner part: its id, and the places in its own measures.

    Empty for joints that are held otherwise.
    """
    kind = at.kind
    first, second = kind.first.part, kind.second.part
    touch = contact(first, second)
    if touch is None or kind.joint.hold not in (Hold.NAILS, Hold.SCREWS, Hold.SLOTS):
        return "", ()
    across = next((axis for axis in Axis if touch.size(axis) == 0), first.face)
    thin = first if first.box.size(across) <= second.box.size(across) else second
    along = max(Axis, key=touch.size)
    row = _row(at, across, float(touch.size(along)))
    found = []
    for place in row.places:
        spot = {axis: float(touch.low[axis.value] + touch.high[axis.value]) / 2 for axis in Axis}
        spot[along] = float(touch.low[along.value]) + place
        own = [spot[axis] - float(thin.box.low[axis.value]) for axis in axes_of(thin)]
        found.append(Hole(own[0], own[1], own[2], axes_of(thin).index(across)))
    return thin.id, tuple(found)


def _settings(at: AtBench, row: Fastening) -> Iterator[Setting]:
    def size(value: float) -> Fraction:
        return from_float(round(value, 1)).mm

    what = "Screws" if row.screws else "Nails"
    yield at.setting(
        what,
        size(row.long),
        f"{at.marks.write_fine(from_float(round(row.thick, 1)))} thick, {len(row.places)} in the row",
        way=Direction.DOWN,
    )
    yield Setting("Each may carry", f"{row.holds * SAFE_SHARE:.0f} N", "pulled straight out, for good")


#: Buttons wait until they are told as operations.
_BUTTONS = (
    Step(
        "Groove or mortise the rail for the buttons' tongues, a little below the top.",
        JointStage.CUT,
        care=CHISEL_BITES,
    ),
    Step(
        "Screw the buttons to the top with room behind their tongues where the wood moves.",
        JointStage.TRIED,
        check="No screw comes through the top.",
    ),
)


def _checks(at: AtBench, row: Fastening) -> Iterator[Remark]:
    least = 10 * row.thick if not row.screws else 7 * row.thick
    if row.enters < least:
        deep, wanted = (at.marks.write_fine(from_float(round(value, 1))) for value in (row.enters, least))
        yield Remark(f"It enters only {deep}, less than the {wanted} it should for its thickness.", Severity.WARNING)
    if at.shop.bit_for(from_float(round(row.pilot, 1))) is None:
        wanted = at.marks.write_fine(from_float(round(row.pilot, 1)))
        yield Remark(f"No bit near {wanted} is on the wall: find one, or take another size of nail.", Severity.WARNING)
    if row.places[0] < 10 * row.thick - 1e-6:
        yield Remark(
            "So near the end the wood splits without a pilot; leave it over-long and trim after.", Severity.WARNING
        )
