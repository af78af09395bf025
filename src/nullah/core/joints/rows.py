"""Nails and screws of a joint: which, where, through which part into which, and slotted where one of them moves."""

from __future__ import annotations

import math
from collections.abc import Iterator

from nullah.core.fraction import Fraction
from nullah.core.joints.fasteners import Fastening, Sold, SoldSize, fastening, size_sold, sold_in
from nullah.core.lengths import Direction, Length, Marks, from_float
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.cuts import Removal, RoundHole
from nullah.core.piece.joint import Hold, Joint, PlannedRow, RowInput, WoodHeld
from nullah.core.piece.overlap import contact, lines
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Side, side_at
from nullah.core.shop import Shop

#: A screw through a slot, or a hole it shall not bite in, wants so much more room than its shank, mm (common practice).
_ROOM = 0.5
#: A slot is made so much longer than the wood moves, mm (common practice).
_OVER = Fraction(1)
#: So much wood is left before the point of a nail or screw, mm (common practice).
_LEFT = 1
#: Where a row meets what is cut out, so many more are tried, and distances from the ends in so many steps of 5 mm.
_MORE = 6
#: Two of a row stand at least so far apart, mm (common practice).
_APART = 20
#: So far from the floor of its channel a part that was cut to a measurement may end, mm (a guess).
_SEATED = 2
#: A row wants a strip at least so many times as wide as a nail or screw is thick (common practice).
_ROOM_FOR = 4


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
    from_end : Fraction
        From the end of where they meet to the first place, mm.
    meets : Fraction
        Where the one part ends and the other begins, mm of the piece.
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
    from_end: Fraction
    meets: Fraction
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


class NoRow(NamedTuple):
    """That no nail or screw holds a joint; `chosen` is the length of the one that was chosen, where one was."""

    chosen: Length | None


def row_of(joint: Joint, first: Part, second: Part, chosen: RowInput) -> Row | NoRow | None:
    """Return the row that holds a joint, or that none does; None where it is held otherwise."""
    if not joint.hold.in_a_row:
        return None
    woods, shop, marks = chosen.woods, chosen.shop, chosen.marks
    of = {first.id: woods[0], second.id: woods[1]}
    screws = joint.hold is not Hold.NAILS
    sold = sold_in(marks)
    size = _size(sold, screws, chosen)
    found = ((way, _chosen(way, screws, of[way.into.id], size, sold)) for way in _ways(joint, first, second))
    ways = [(way, made) for way, made in found if made.thick <= made.enters <= way.holding - _LEFT]
    if not ways and chosen.planned is not None:
        # What was found is so far off that what was planned does not hold: it is chosen anew.
        return row_of(joint, first, second, chosen._replace(planned=None))
    if not ways:
        return NoRow(chosen.choice.long)
    way, made = min(ways, key=lambda each: (not _as_planned(each[0], chosen.planned), *_worse(*each)))
    along, side = way.along, way.side
    places = _places(made, way, chosen, odd=joint.hold is Hold.SLOTS)
    pilot = _bit(shop, made.pilot, sold)
    bit = _bit(shop, made.thick + _ROOM, sold) if screws else pilot
    slot, travel, fixed = _slot(joint, (first, second), woods, along, side.axis, len(places), marks)
    return Row(
        made,
        way.through.id,
        way.into.id,
        side,
        along,
        places,
        way.level,
        places[0] - way.strip.low[along.value],
        way.strip.low[side.axis.value],
        bit,
        pilot,
        Fraction(0) if not screws or slot is not None else marks.to_mark(2 * from_float(made.thick)).mm,
        slot,
        travel,
        fixed,
    )


class _Way(NamedTuple):
    """A way in which a row could go: through which part into which, from which side, and where they touch (flat).

    `along` is its axis, `across` the one across it in the surface; `level` the middle of where they touch, across the
    row, mm of the piece.
    """

    through: Part
    into: Part
    side: Side
    strip: Box
    along: Axis
    across: Axis
    level: Fraction

    @classmethod
    def of(cls, through: Part, into: Part, side: Side, strip: Box) -> _Way:
        """Return the way along the longer side of where they touch."""
        flat = [axis for axis in Axis if axis is not side.axis]
        along = max(flat, key=strip.size)
        across = flat[1 - flat.index(along)]
        level = (strip.low[across.value] + strip.high[across.value]) / 2
        return cls(through, into, side, strip, along, across, level)

    @property
    def thickness(self) -> Fraction:
        """How much wood there is before the part that holds, mm."""
        return abs(self.through.box.at(self.side) - self.strip.at(self.side))

    @property
    def holding(self) -> Fraction:
        """How much wood there is behind, mm."""
        return abs(self.into.box.at(self.side.opposite) - self.strip.at(self.side))


def _size(sold: Sold, screws: bool, chosen: RowInput) -> SoldSize | None:
    """Return the size that was chosen, or planned; a nail as thick as it is sold in its length."""
    choice, planned = chosen.choice, chosen.planned
    if choice.long is not None:
        return size_sold(sold, screws, choice.long, choice.thick)
    return None if planned is None else size_sold(sold, screws, planned.long, planned.thick)


def _as_planned(way: _Way, planned: PlannedRow | None) -> bool:
    """Return whether nails go through the part, and from the side, that was planned."""
    return planned is not None and (planned.through, planned.side) == (way.through.id, way.side)


def sizes_that_hold(row: Row, through: Part, into: Part, marks: Marks) -> tuple[SoldSize, ...]:
    """Return what is sold and goes through the one part and stays inside the other, the shortest first."""
    thickness = abs(through.box.at(row.side) - row.meets)
    holding = abs(into.box.at(row.side.opposite) - row.meets)
    sold = sold_in(marks)
    there = (
        size
        for size in (sold.screws if row.fastening.screws else sold.nails)
        if thickness + size.thick.mm <= size.long.mm <= thickness + holding - _LEFT
    )
    return tuple(sorted({*there, row.fastening.size}, key=lambda size: (size.long.mm, size.thick.mm)))


def _chosen(way: _Way, screws: bool, wood: WoodHeld, size: SoldSize | None, sold: Sold) -> Fastening:
    return fastening(
        screws,
        float(way.thickness),
        float(way.holding),
        float(way.strip.size(way.along)),
        wood.gravity,
        wood.hard,
        way.into.grain is way.side.axis,
        size,
        sold,
    )


def _worse(way: _Way, made: Fastening) -> tuple[bool, bool, bool, Fraction, Fraction]:
    """Return what speaks against a way, worst first: poor hold, by an edge, by what is seen, far, by a wide part."""
    weak = made.enters < float(way.thickness) * (1 / 2 if made.screws else 1)
    weak |= float(way.strip.size(way.across)) < _ROOM_FOR * made.thick
    by_edge, seen = way.through.face is not way.side.axis, way.side in way.through.shows
    return weak, by_edge, seen, way.thickness, way.through.width.mm


def _ways(joint: Joint, first: Part, second: Part) -> Iterator[_Way]:
    """Yield the ways in which nails could go: where the two touch, one of them free on its other side."""
    touch = _touch(first, second)
    if touch is None:
        return
    flat = next((axis for axis in Axis if touch.size(axis) == 0), None)
    if flat is not None:
        for through, into in ((first, second), (second, first)):
            yield _Way.of(through, into, side_at(flat, through.box.low[flat.value] >= into.box.high[flat.value]), touch)
        return
    shared = lines(joint, first, second)
    if len(shared.first_loses) != 1 or len(shared.second_keeps) != 1:
        return
    (channel,), (share,) = shared.first_loses, shared.second_keeps
    for floor in Side:
        wall, open_side = first.box.at(floor) != channel.at(floor), floor.opposite
        # What was cut to a measurement is seated all the same.
        apart = abs(channel.at(floor) - share.at(floor))
        seated = apart == 0 or (joint.room[floor.axis.value] == 0 and apart <= _SEATED)
        if not wall or not seated or channel.at(open_side) != first.box.at(open_side):
            continue
        strip = share.set(floor.axis, share.at(floor), share.at(floor))
        yield _Way.of(first, second, floor, strip)
        yield _Way.of(second, first, open_side, strip)


def _touch(first: Part, second: Part) -> Box | None:
    """Return where two parts touch; one that was cut to a measurement and ends a little short touches all the same."""
    lows = [max(a, b) for a, b in zip(first.box.low, second.box.low, strict=True)]
    highs = [min(a, b) for a, b in zip(first.box.high, second.box.high, strict=True)]
    for axis, low, high in zip(Axis, lows, highs, strict=True):
        if 0 < low - high <= _SEATED:
            # The second begins, or ends, where the first one does.
            at = high if first.box.high[axis.value] == high else low
            ends = min(second.box.low[axis.value], at), max(second.box.high[axis.value], at)
            second = second._replace(box=second.box.set(axis, *ends))
    return contact(first, second)


def _places(made: Fastening, way: _Way, chosen: RowInput, odd: bool) -> tuple[Fraction, ...]:
    """Return where they stand, the first and the last to the mark, the others evenly between.

    Where what other joints cut out is met, there are some more, or they begin elsewhere.
    """
    marks, choice = chosen.marks, chosen.choice
    usual = marks.to_mark(from_float(made.places[0]), Direction.NEAREST).mm or from_float(made.places[0]).mm
    from_end = choice.from_end.mm if choice.from_end is not None else usual
    usual_number = len(made.places) + (odd and len(made.places) % 2 == 0)
    number = choice.number or (chosen.planned.number if chosen.planned is not None else usual_number)
    plain = _evenly(way, number, from_end)
    wide, along = from_float(made.thick).mm, way.along.value
    # Exact figures are slow to compare, and equal ones stay equal.
    met = {(float(box.low[along] - wide), float(box.high[along] + wide)) for box in _met(way, made, chosen.beside)}
    if not met:
        return plain
    numbers = (
        [number]
        if choice.number or chosen.planned is not None
        else [number + more * (2 if odd else 1) for more in range(_MORE)]
    )
    shifts = [0] if choice.from_end is not None else sorted(range(-_MORE, _MORE + 1), key=abs)
    ends = (
        from_end + (marks.to_mark(Length(Fraction(5 * abs(by))), Direction.NEAREST).mm * (1, -1)[by < 0])
        for by in shifts
    )
    least = made.from_end_least
    tried = (_evenly(way, each, end) for end in ends if end >= least for each in numbers)
    apart = (places for places in tried if len(places) < 2 or places[1] - places[0] >= _APART)
    # Nearer to it than a nail is thick.
    clear = (places for places in apart if not any(low < at < high for at in map(float, places) for low, high in met))
    return next(clear, plain)


def _evenly(way: _Way, count: int, from_end: Fraction) -> tuple[Fraction, ...]:
    low, high = way.strip.low[way.along.value], way.strip.high[way.along.value]
    if count == 1 or 2 * from_end >= high - low:
        return ((low + high) / 2,)
    step = (high - low - 2 * from_end) / (count - 1)
    return tuple(low + from_end + number * step for number in range(count))


def _met(way: _Way, made: Fastening, beside: tuple[Box, ...]) -> Iterator[Box]:
    """Yield what lies in the line of a row: as deep as it goes, as high as it stands."""
    axis, across = way.side.axis.value, way.across.value
    half, deep = from_float(made.thick).mm / 2, from_float(made.enters).mm
    meets = way.strip.low[axis]
    low, high = sorted((way.through.box.at(way.side), meets - deep if way.side.high else meets + deep))
    below, above = way.level - half, way.level + half
    for box in beside:
        if box.low[across] < above and below < box.high[across] and box.low[axis] < high and low < box.high[axis]:
            yield box


def _bit(shop: Shop, wanted: float, sold: Sold) -> Length:
    """Return the bit that is nearest; where none is near, the nearest that is sold."""
    near = shop.bit_for(from_float(round(wanted, 1)))
    return near if near is not None else sold.bit(wanted)


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
        meets, deep = float(row.meets), row.fastening.enters
        ends = (meets - deep, meets) if row.side.high else (meets, meets + deep)
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
