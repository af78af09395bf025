"""Butt joints: glued, nailed or screwed."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from nullah.core.card import JointStage, Remark, Setting, Severity, Step
from nullah.core.joints.bench import CHISEL_BITES, AtBench, Told, bit_setting, how_many
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
            _steps(at, hold),
            (*_checks(at, row), _SCRAP),
            (
                f"One resists about {row.holds:.0f} N at the most; ask no more than a fifth of that for good "
                "(Wood Handbook, from memory).",
            ),
            row,
        )
    end = first.grain is not second.grain
    steps = (
        Step(
            f"Shoot both edges true; hold them against a light.{how_many(at)}",
            JointStage.BLANK,
            check="No light, or a hair in the middle.",
        ),
        Step(
            "Rub joint or clamps every 250 mm or so; check that it is flat before you leave it.",
            JointStage.TRIED,
            check="A straightedge across shows no step.",
        ),
    )
    weak = (Remark("End grain glued to a side holds little: let it in, or nail it.", Severity.WARNING),) if end else ()
    return Told((Setting("Glue", "both faces", "thin, even"),), steps, weak)


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
    yield at.setting(
        "Pilot", size(row.pilot), f"into the piece behind, {at.write(size(row.enters))} deep", way=Direction.DOWN
    )
    yield from bit_setting(at, size(row.pilot), "test it in scrap", "Pilot bit")
    yield at.setting("From the ends", size(row.places[0]), "and evenly between")
    yield Setting("Each may carry", f"{row.holds * SAFE_SHARE:.0f} N", "pulled straight out, for good")


def _steps(at: AtBench, hold: Hold) -> tuple[Step, ...]:
    if hold is Hold.NAILS:
        return (
            Step(
                f"Square the row and mark the places.{how_many(at)} Leave the end over-long until it is nailed.",
                JointStage.MARKED,
                draws=("row",),
            ),
            Step(
                "Drill the pilots; a nail's wide side goes along the grain.",
                JointStage.CUT,
                uses=("row",),
                check="A nail in a scrap bored so neither bends nor splits it.",
            ),
            Step(
                "Drive, leaning them a little towards each other; set the heads, trim the end.",
                JointStage.TRIED,
                care="Eyes away from the nail; start it with a light tap.",
            ),
        )
    if hold is Hold.SLOTS:
        return (
            Step(
                "Bore the middle hole round, the outer ones as slots across the grain.", JointStage.CUT, draws=("row",)
            ),
            Step(
                "Screw snug, not tight: the slots let the part move with the season.",
                JointStage.TRIED,
                check="The part can still be pushed a little, by hand.",
            ),
        )
    if hold is Hold.BUTTONS:
        return (
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
    return (
        Step(
            f"Mark the places on the row; bore the clearance hole, countersink, then the pilot.{how_many(at)}",
            JointStage.CUT,
            draws=("row",),
        ),
        Step("Wax the thread; drive by hand to the last turn.", JointStage.TRIED, uses=("row",)),
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
