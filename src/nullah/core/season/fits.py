"""What has room to move, month by month: loose panels and backs, tops on buttons or in slots, drawers and lids."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from enum import Enum, auto
from itertools import chain

from nullah.core.bits import Bits, at_once
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import kept_by_identity
from nullah.core.ledger import Ledger
from nullah.core.piece.form import Assembly, Freedom, Mover
from nullah.core.piece.joint import Hold, Joint
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Corner
from nullah.core.season.swelling import WoodMoisture, Year, growth

#: What should be left in the tightest month: of a panel or back, and of a drawer or lid, mm (common practice).
LEAST_LOOSE, LEAST_MOVING = 0.3, 0.3
#: More than this beyond what is needed is looked at: it rattles, or runs crooked, mm (common practice).
MORE_LOOSE, MORE_MOVING = 3.0, 1.5
#: Less hold in a groove than this, and a panel can drop out of it, mm (common practice).
LEAST_HOLD = 1.5


class Verdict(Enum):
    """How a fit stands through the year."""

    FITS = auto()
    BINDS = auto()
    TIGHT = auto()
    RATTLES = auto()
    DROPS = auto()


class Fit(FrozenRecord):
    """Something with room to move.

    Parameters
    ----------
    mover : (str, Axis), optional
        The name of what moves in an opening, and which way its room lies; None where it is the parts that move.
    parts : tuple of str
    size : float
        How much there is of it across, now, mm.
    room : float
        How much room it has now, in all, mm.
    rooms : Year
        And in each month.
    wanted : float
        The room to leave now so that the tightest month keeps a little, mm.
    quantity : str
        The ledger's figure that sets the room; empty where there is none.
    value : Fraction, optional
        What that would be for the room wanted, mm.
    verdict : Verdict
    hold : float, optional
        How deep it stands in its groove, each edge, in the driest month, mm.
    shrinks : bool
        Whether the parts close on what they hold as they shrink.
    """

    mover: tuple[str, Axis] | None
    parts: tuple[str, ...]
    size: float
    room: float
    rooms: Year
    wanted: float
    quantity: str
    value: Fraction | None
    verdict: Verdict
    hold: float | None = None
    shrinks: bool = False

    @property
    def tightest(self) -> int:
        """The month (0: January) with the least room."""
        return min(range(12), key=lambda month: self.rooms[month])

    @property
    def loosest(self) -> int:
        """The month (0: January) with the most room."""
        return max(range(12), key=lambda month: self.rooms[month])


def fits_of(assembly: Assembly, ledger: Ledger, stocks: Mapping[str, WoodMoisture]) -> tuple[Fit, ...]:
    """Return everything that has room to move, what binds first."""
    return at_once(fits_in_bits(assembly, ledger, stocks))


def fits_in_bits(assembly: Assembly, ledger: Ledger, stocks: Mapping[str, WoodMoisture]) -> Bits[tuple[Fit, ...]]:
    """Work out everything that has room to move, fit by fit."""
    found = []
    for fit in chain(_loose(assembly, ledger, stocks), _moving(assembly, ledger, stocks)):
        found.append(fit)
        yield
    order = list(_WORST)
    return tuple(sorted(found, key=lambda fit: order.index(fit.verdict)))


_WORST = (Verdict.BINDS, Verdict.DROPS, Verdict.TIGHT, Verdict.RATTLES, Verdict.FITS)


# --- what lies loose ------------------------------------------------------------------------------


def _loose(assembly: Assembly, ledger: Ledger, stocks: Mapping[str, WoodMoisture]) -> Iterator[Fit]:
    for freedom in assembly.freedoms:
        parts = [part for part_id in freedom.parts if (part := assembly.part(part_id)) is not None]
        if parts and all(part.id in stocks for part in parts) and freedom.room < 10**5:
            yield _loose_fit(assembly, ledger, stocks, freedom, parts)


def _loose_fit(
    assembly: Assembly, ledger: Ledger, stocks: Mapping[str, WoodMoisture], freedom: Freedom, parts: list[Part]
) -> Fit:
    axis = parts[0].across
    grown = [growth(part, stocks[part.id], axis) for part in parts]
    host = _hosts_grow(assembly, stocks, parts, axis)
    way = -1 if freedom.shrinks else 1
    change = tuple(way * (sum(each[month] for each in grown) - host[month]) for month in range(12))
    room = float(freedom.room)
    rooms = tuple(room - each for each in change)
    wanted = max(max(change), 0.0) + LEAST_LOOSE
    hold = None if freedom.shrinks else _hold(assembly, parts, axis, rooms)
    value = None
    if freedom.quantity in ledger.quantities and room > 0:
        value = Fraction(ledger[freedom.quantity] * Fraction(wanted / room).limit_denominator(10**4))
    size = sum(float(part.box.size(axis)) for part in parts)
    # What is nailed or slotted does not rattle, however much room it has.
    ids = {part.id for part in parts}
    holds = {joint.hold for part_id in ids for joint in assembly.joints_of(part_id)}
    more = MORE_LOOSE * len(parts) if holds <= {Hold.DRY} and not freedom.shrinks else float("inf")
    verdict = _verdict(rooms, wanted, room, LEAST_LOOSE, more, hold)
    return Fit(None, freedom.parts, size, room, rooms, wanted, freedom.quantity, value, verdict, hold, freedom.shrinks)


def _hosts_grow(assembly: Assembly, stocks: Mapping[str, WoodMoisture], parts: list[Part], axis: Axis) -> Year:
    """Return how much what holds some parts grows along an axis itself: nothing where its grain runs that way."""
    ids = {part.id for part in parts}
    joints = assembly.joints_of(parts[0].id) if len(parts) == 1 else assembly.joints
    hosts = [
        part
        for joint in joints
        if (joint.first in ids) != (joint.second in ids)
        and (part := assembly.part(joint.first if joint.second in ids else joint.second)) is not None
    ]
    if not hosts or any(host.grain is axis for host in hosts):
        return (0.0,) * 12
    spans = sum(float(part.box.size(axis)) for part in parts)
    moving = [host for host in hosts if host.id in stocks and float(host.box.size(axis)) >= spans * 0.9]
    if not moving:
        return (0.0,) * 12
    return growth(moving[0], stocks[moving[0].id], axis, spans)


def _hold(assembly: Assembly, parts: list[Part], axis: Axis, rooms: Year) -> float | None:
    """Return how deep the outer edges stand in what they are let into when they are narrowest, mm."""
    depths: list[float] = []
    for part in (parts[0], parts[-1]):
        for joint in assembly.joints_of(part.id):
            if joint.second != part.id or not joint.type.captures:
                continue
            host = assembly.part(joint.first)
            if host is not None:
                depths += _held_in(joint, host, part, axis)
    # Gaps between boards beside each other take their share of the room.
    return min(depths) - max(rooms) / (len(parts) + 1) if depths else None


@kept_by_identity(4096)
def _held_in(joint: Joint, host: Part, part: Part, axis: Axis) -> tuple[float, ...]:
    """Return how deep the edges of a part stand in the channels of its host along an axis, mm."""
    inside = (host.box.overlap(channel) for channel in joint.channels)
    sizes = (each.size(axis) for each in inside if each is not None)
    return tuple(float(size) for size in sizes if size < part.box.size(axis) / 2)


# --- what goes in and out -------------------------------------------------------------------------


def _moving(assembly: Assembly, ledger: Ledger, stocks: Mapping[str, WoodMoisture]) -> Iterator[Fit]:
    # Exact figures are slow to compare, and equal ones stay equal.
    boxes = [(part, *part.box.in_floats()) for part in assembly.parts]
    groups: dict[str, list[Part]] = {}
    for part in assembly.parts:
        groups.setdefault(part.group, []).append(part)
    for mover in assembly.movers:
        group = groups.get(mover.group, [])
        rest = [box for box in boxes if box[0].group != mover.group]
        for axis in Axis:
            if axis is not mover.way.axis and group:
                whole = _round(*group)
                borders = _between(whole.in_floats(), rest, axis)
                yield from _moving_fit(assembly, ledger, stocks, mover, group, whole, borders, axis)


def _moving_fit(
    assembly: Assembly,
    ledger: Ledger,
    stocks: Mapping[str, WoodMoisture],
    mover: Mover,
    group: list[Part],
    whole: Box,
    borders: tuple[Part, Part] | None,
    axis: Axis,
) -> Iterator[Fit]:
    if borders is None:
        return
    (below, above), a = borders, axis.value
    room = float(above.box.low[a] - below.box.high[a] - whole.size(axis))
    # What is as high as the whole decides: the front of a drawer.
    full = [part for part in group if part.box.size(axis) * 10 >= whole.size(axis) * 9 and part.id in stocks]
    grown = [growth(part, stocks[part.id], axis) for part in full] or [(0.0,) * 12]
    opening = _opening_grows(assembly, stocks, below, above, axis)
    change = tuple(max(each[month] for each in grown) - opening[month] for month in range(12))
    rooms = tuple(room - each for each in change)
    wanted = max(max(change), 0.0) + LEAST_MOVING
    value = Fraction(wanted / 2).limit_denominator(1000) if mover.room in ledger.quantities else None
    verdict = _verdict(rooms, wanted, room, LEAST_MOVING, MORE_MOVING, None)
    yield Fit(
        (mover.name, axis),
        tuple(part.id for part in full),
        float(whole.size(axis)),
        room,
        rooms,
        wanted,
        mover.room,
        value,
        verdict,
    )


_Placed = tuple[Part, Corner, Corner]


def _between(whole: Box, rest: Sequence[_Placed], axis: Axis) -> tuple[Part, Part] | None:
    """Return the nearest parts below and above a box along an axis; None where it is not between two.

    Parameters
    ----------
    whole : Box
        In floats, mm.
    rest : sequence of part, low corner and high corner
        What it may lie between, in floats, mm.
    axis : Axis
        Along which.
    """
    a, (one, two) = axis.value, (each for each in range(3) if each != axis.value)
    (low_one, low_two), (high_one, high_two) = (whole.low[one], whole.low[two]), (whole.high[one], whole.high[two])
    facing = [
        (part, low[a], high[a])
        for part, low, high in rest
        if low[one] < high_one and low_one < high[one] and low[two] < high_two and low_two < high[two]
    ]
    below = [part for part, _, top in facing if top <= whole.low[a]]
    above = [part for part, bottom, _ in facing if bottom >= whole.high[a]]
    if not below or not above:
        return None
    return max(below, key=lambda part: part.box.high[a]), min(above, key=lambda part: part.box.low[a])


@kept_by_identity(512)
def _round(*group: Part) -> Box:
    low = tuple(min(part.box.low[a] for part in group) for a in range(3))
    high = tuple(max(part.box.high[a] for part in group) for a in range(3))
    return Box((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def _opening_grows(
    assembly: Assembly, stocks: Mapping[str, WoodMoisture], below: Part, above: Part, axis: Axis
) -> Year:
    """Return how much an opening grows: it is kept by what both its borders are joined to."""
    beside = [
        {joint.first if joint.second == border.id else joint.second for joint in assembly.joints_of(border.id)}
        for border in (below, above)
    ]
    carriers = [part for part_id in beside[0] & beside[1] if (part := assembly.part(part_id)) is not None]
    if not carriers or any(part.grain is axis for part in carriers):
        return (0.0,) * 12
    carrier = carriers[0]
    if carrier.id not in stocks:
        return (0.0,) * 12
    size = float(above.box.low[axis.value] - below.box.high[axis.value])
    return growth(carrier, stocks[carrier.id], axis, size)


def _verdict(rooms: Year, wanted: float, room: float, least: float, more: float, hold: float | None) -> Verdict:
    if min(rooms) < -1e-9:
        return Verdict.BINDS
    if hold is not None and hold < LEAST_HOLD:
        return Verdict.DROPS
    if min(rooms) < least - 0.05:
        return Verdict.TIGHT
    return Verdict.RATTLES if room - wanted > more else Verdict.FITS
