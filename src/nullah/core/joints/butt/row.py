"""Nails and screws of a joint: which, where, through which part into which, and slotted where one of them moves."""

from __future__ import annotations

import math
from fractions import Fraction
from typing import NamedTuple

from nullah.core.joints.fasteners import Fastening, fastening
from nullah.core.lengths import Direction, Length, Marks, from_float
from nullah.core.piece.cuts import Removal, RoundHole
from nullah.core.piece.joint import Hold, Joint, WoodHeld
from nullah.core.piece.overlap import contact
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Side, side_at
from nullah.core.shop import Shop

#: A screw through a slot, or a hole it shall not bite in, wants so much more room than its shank, mm (common practice).
_ROOM = 0.5
#: A slot is made so much longer than the wood moves, mm (common practice).
_OVER = Fraction(1)


class Row(NamedTuple):
    """A row of nails or screws, in the piece.

    Parameters
    ----------
    fastening : Fastening
    through, into : str
        The part they go through, and the one that holds them.
    side : Side
        Of the part they go through, on which they enter it.
    along : Axis
        The row's own.
    places : tuple of Fraction
        Along it, mm of the piece.
    level : Fraction
        Where the row lies across, mm of the piece.
    bit, pilot : Length
        Of the hole through, and of the hole that holds, as they were bought.
    head : Fraction
        The diameter of the countersink, mm; 0: none.
    slot : Axis, optional
        Along which the holes are slots; None: they are round.
    travel : Fraction
        How far the ends of a slot lie apart, mm.
    fixed : int, optional
        Which place is round all the same.
    """

    fastening: Fastening
    through: str
    into: str
    side: Side
    along: Axis
    places: tuple[Fraction, ...]
    level: Fraction
    bit: Length
    pilot: Length
    head: Fraction = Fraction(0)
    slot: Axis | None = None
    travel: Fraction = Fraction(0)
    fixed: int | None = None

    @property
    def across(self) -> Axis:
        """The axis across the row, in the surface."""
        return next(axis for axis in Axis if axis not in (self.along, self.side.axis))

    @property
    def round_places(self) -> tuple[Fraction, ...]:
        """The places that are bored round."""
        return tuple(at for number, at in enumerate(self.places) if self.slot is None or number == self.fixed)

    @property
    def slots(self) -> tuple[Fraction, ...]:
        """The places that are slots."""
        return tuple(at for at in self.places if at not in self.round_places)


def row_of(
    joint: Joint, first: Part, second: Part, woods: tuple[WoodHeld, WoodHeld], shop: Shop, marks: Marks
) -> Row | None:
    """Return the row that holds a joint; None where it is held otherwise, or the parts do not touch.

    Parameters
    ----------
    joint : Joint
    first, second : Part
    woods : (WoodHeld, WoodHeld)
        Of both.
    shop : Shop
        Whose bits are used.
    marks : Marks
        To which the first place is set off.
    """
    touch = contact(first, second)
    if joint.hold not in (Hold.NAILS, Hold.SCREWS, Hold.SLOTS) or touch is None:
        return None
    axis = next((each for each in Axis if touch.size(each) == 0), None)
    if axis is None:
        return None
    thin_first = first.box.size(axis) <= second.box.size(axis)
    thin, behind = (first, second) if thin_first else (second, first)
    wood = woods[1 if thin_first else 0]
    along = max((each for each in Axis if each is not axis), key=touch.size)
    across = next(each for each in Axis if each not in (axis, along))
    screws = joint.hold is not Hold.NAILS
    length = float(touch.size(along))
    made = fastening(
        screws,
        float(thin.box.size(axis)),
        float(behind.box.size(axis)),
        length,
        wood.gravity,
        wood.hard,
        behind.grain is axis,
    )
    places = _places(made, touch, along, marks, odd=joint.hold is Hold.SLOTS)
    pilot = _bit(shop, made.pilot)
    bit = _bit(shop, made.thick + _ROOM) if screws else pilot
    slot, travel, fixed = _slot(joint, (first, second), woods, along, axis, len(places), marks)
    level = (touch.low[across.value] + touch.high[across.value]) / 2
    return Row(
        made,
        thin.id,
        behind.id,
        _outside(thin, behind, axis),
        along,
        places,
        level,
        bit,
        pilot,
        Fraction(0) if not screws or slot is not None else 2 * from_float(made.thick).mm,
        slot,
        travel,
        fixed,
    )


def _outside(thin: Part, behind: Part, axis: Axis) -> Side:
    """Return the side of the thin part that looks away from the other."""
    return side_at(axis, thin.box.low[axis.value] >= behind.box.high[axis.value])


def _places(made: Fastening, touch: Box, along: Axis, marks: Marks, odd: bool) -> tuple[Fraction, ...]:
    """Return where they stand, the first and the last to the mark, the others evenly between."""
    low, high = touch.low[along.value], touch.high[along.value]
    from_end = marks.to_mark(from_float(made.places[0]), Direction.NEAREST).mm or from_float(made.places[0]).mm
    count = len(made.places) + (odd and len(made.places) % 2 == 0)
    if count == 1 or 2 * from_end >= high - low:
        return ((low + high) / 2,)
    step = (high - low - 2 * from_end) / (count - 1)
    return tuple(low + from_end + number * step for number in range(count))


def _bit(shop: Shop, wanted: float) -> Length:
    """Return the bit that is nearest; to a tenth of a millimetre where none is near."""
    near = shop.bit_for(from_float(round(wanted, 1)))
    return near if near is not None else Length(max(Fraction(round(wanted * 10), 10), Fraction(1, 2)))


def _slot(
    joint: Joint,
    parts: tuple[Part, Part],
    woods: tuple[WoodHeld, WoodHeld],
    along: Axis,
    axis: Axis,
    count: int,
    marks: Marks,
) -> tuple[Axis | None, Fraction, int | None]:
    """Return along which axis holes are slots, how long, and which one is round: where the wider part moves."""
    if joint.hold is not Hold.SLOTS:
        return None, Fraction(0), None
    wider = max((0, 1), key=lambda index: float(parts[index].width) if parts[index].across is not axis else 0.0)
    part = parts[wider]
    if part.across is axis:
        return None, Fraction(0), None
    half_mms = Fraction(math.ceil(2 * float(part.width) * woods[wider].moves), 2)
    # A slot that is a little longer lets it move all the same.
    moved = marks.to_mark(Length(half_mms + _OVER), Direction.UP).mm
    # Along the row the middle keeps its station; across it all of them must give.
    return part.across, moved, count // 2 if part.across is along else None


def holes_in(row: Row, part: Part) -> Removal:
    """Return the holes of a row in one of its parts."""
    axis = row.side.axis
    low, high = float(part.box.low[axis.value]), float(part.box.high[axis.value])
    if part.id == row.into:
        # They enter it at the side that looks to the other part.
        deep = row.fastening.enters
        ends = (high - deep, high) if row.side.high else (low, low + deep)
        return Removal(holes=tuple(_hole(row, float(at), row.pilot, *ends) for at in row.places))
    holes = [_hole(row, float(at), row.bit, low, high) for at in row.round_places]
    travel = _flat(row, *((float(row.travel), 0.0) if row.slot is row.along else (0.0, float(row.travel))))
    holes += [_hole(row, float(at), row.bit, low, high)._replace(travel=travel) for at in row.slots]
    if row.head > row.bit.mm:
        holes += [_countersink(row, float(at), low, high) for at in row.round_places]
    return Removal(holes=tuple(holes))


def _flat(row: Row, along: float, across: float) -> tuple[float, float]:
    """Return a place of the surface in the two axes after that of the holes, in cyclic order."""
    first = Axis((row.side.axis.value + 1) % 3)
    return (along, across) if first is row.along else (across, along)


def _hole(row: Row, at: float, diameter: Length | Fraction, low: float, high: float) -> RoundHole:
    centre = _flat(row, at, float(row.level))
    return RoundHole(row.side.axis, centre, low, high, float(diameter), float(diameter))


def _countersink(row: Row, at: float, low: float, high: float) -> RoundHole:
    """Return a countersink of 90°: half as deep as it is wider than the hole."""
    deep = float(row.head - row.bit.mm) / 2
    whole = _hole(row, at, row.head, low, high)
    if row.side.high:
        return whole._replace(low=high - deep, diameter=float(row.bit))
    return whole._replace(high=low + deep, to_diameter=float(row.bit))
