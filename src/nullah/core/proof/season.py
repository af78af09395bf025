"""Wood that moves, and wood that bends: cross-grain joints, room for the season, shelves that sag."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark, Severity
from nullah.core.fixes import Fix, SlotScrews
from nullah.core.fraction import Fraction
from nullah.core.lengths import Direction, Length
from nullah.core.piece.faults import CrossGrain, FaultKind, NoRoom, Sags
from nullah.core.piece.form import Bearing
from nullah.core.piece.joint import Hold, Joint
from nullah.core.piece.overlap import contact
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, around
from nullah.core.proof.finding import Finding, ProofInput, give_fix
from nullah.core.refs import quantity_ref
from nullah.core.season.fits import Verdict, fits_of
from nullah.core.wood.movement import coefficient
from nullah.core.wood.species import Species
from nullah.core.wood.stiffness import passing_span, sag

#: Over how much width wood may be glued across the grain: 75 to 100 mm (common practice).
CROSS_GRAIN_LIMIT = Fraction(100)


def cross_grain(case: ProofInput, joint: Joint) -> Iterator[Finding]:
    """Say where two parts are held solid although one moves and the other does not."""
    if not joint.hold.rigid:
        return
    first, second = case.parts[joint.first], case.parts[joint.second]
    touching = contact(first, second)
    if touching is None:
        return
    if joint.shares:
        touching = around(joint.shares).overlap(touching) or touching
    for axis in Axis:
        moving = _one_moves(first, second, axis)
        held = min(touching.size(axis), joint.glued) if joint.glued is not None else touching.size(axis)
        if moving is None or held <= CROSS_GRAIN_LIMIT:
            continue
        change = moves(case, moving, held)
        fact = CrossGrain(
            second.id,
            first.id,
            moving.id,
            joint.hold is Hold.SCREWS,
            Length(held),
            Length(CROSS_GRAIN_LIMIT),
            Length(change),
        )
        fixes = (SlotScrews(joint.id),) if Hold.SLOTS in joint.ways_to_hold else ()
        yield Finding(
            FaultKind.CROSS_GRAIN,
            Remark(fact, Severity.FAILURE, fixes),
            (first.id, second.id),
            joint.id,
            _thickened(touching),
        )


def _one_moves(first: Part, second: Part, axis: Axis) -> Part | None:
    """Return the part that moves along an axis where the other does not."""
    first_moves, second_moves = axis is not first.grain, axis is not second.grain
    if first_moves == second_moves:
        return None
    return first if first_moves else second


def _thickened(box: Box) -> Box:
    for axis in Axis:
        if box.size(axis) == 0:
            at = box.low[axis.value]
            box = box.set(axis, at - 1, at + 1)
    return box


def moves(case: ProofInput, part: Part, width: Fraction) -> Fraction:
    """Return how much so much width of a part changes over the year, mm; 0 where its wood is not known.

    Parameters
    ----------
    case : ProofInput
        What the proof works from.
    part : Part
    width : Fraction
        Across the grain, mm.

    Returns
    -------
    Fraction
        mm.
    """
    wood = case.woods.get(part.id)
    if wood is None:
        return Fraction(0)
    swing = Fraction(max(wood.year) - min(wood.year)).limit_denominator(10**6)
    return width * Fraction(coefficient(wood.species, wood.cut)).limit_denominator(10**6) * swing


def no_room(case: ProofInput) -> Iterator[Finding]:
    """Say where parts have less room across their grain than they move until the month that is worst, as Season has it.

    That is the dampest; for what closes on what it holds, the driest.
    """
    for fit in fits_of(case.assembly, case.ledger, case.woods):
        if fit.mover is not None or fit.verdict is not Verdict.BINDS:
            continue
        grown = Length(Fraction(round(10 * (fit.room - min(fit.rooms))), 10))
        fact = NoRoom(fit.parts, grown, Length(Fraction(round(10 * fit.room), 10)), fit.shrinks)
        fixes: tuple[Fix, ...] = ()
        if fit.quantity in case.ledger.quantities:
            enough = fit.value if fit.value is not None else Fraction(round(5 * fit.wanted), 10)
            fixes = give_fix(case, fit.quantity, enough, Direction.UP)
        yield Finding(FaultKind.SEASON, Remark(fact, Severity.WARNING, fixes, quantity_ref(fit.quantity)), fit.parts)


def sagging(case: ProofInput, bearing: Bearing) -> Iterator[Finding]:
    """Say where a shelf sags so that it shows, and the span at which it would not."""
    part, wood = case.parts.get(bearing.part), case.woods.get(bearing.part)
    if part is None or wood is None or bearing.load <= 0:
        return
    width, thick = float(part.box.size(part.across)), float(part.box.size(part.face))
    span = float(bearing.span)
    load = float(bearing.load)
    per_mm = load / span
    drop = sag(span, per_mm * span, width, thick, wood.species)
    passing = passing_span(per_mm, width, thick, wood.species)
    if span <= passing:
        return
    shown = Length(Fraction(int(drop * 10 + 0.5), 10))
    fits = Length(Fraction(int(passing)))
    fact = Sags(part.id, load, shown, Length(bearing.span), fits)
    thicker = _thick_enough(span, per_mm, width, thick, wood.species)
    fixes = give_fix(case, part.quantities[2], thicker, Direction.UP) if thicker is not None else ()
    if part.quantities[2] in case.ledger.quantities and case.ledger.quantity(part.quantities[2]).definition.rule:
        fixes = ()
    yield Finding(
        FaultKind.SAG, Remark(fact, Severity.WARNING, fixes, quantity_ref(bearing.quantity)), (part.id,), place=part.box
    )


def _thick_enough(span: float, per_mm: float, width: float, thick: float, species: Species) -> Fraction | None:
    """Return the least thickness, to half a millimetre, at which a shelf passes; None under five times what it is.

    A thicker shelf carries more of itself, so it is tried, not reckoned back from the span.
    """
    for halves in range(int(thick * 2) + 1, int(thick * 10)):
        if passing_span(per_mm, width, halves / 2, species) >= span:
            return Fraction(halves, 2)
    return None
