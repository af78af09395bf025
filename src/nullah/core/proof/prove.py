"""Putting the piece together: every check in turn, on exact boxes first and on solids where they must decide."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass

from nullah.core.card import Remark, Severity
from nullah.core.fixes import Fix, JoinParts, StopChannel
from nullah.core.forms.own_boards import offers
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import kept_by_value
from nullah.core.lengths import Length
from nullah.core.piece.cuts import Block, block_of
from nullah.core.piece.faults import (
    CannotComeOut,
    Collision,
    FaultKind,
    Repeated,
    Shows,
    ShowsWhere,
    Sizes,
    Trapped,
    Void,
)
from nullah.core.piece.form import Mover
from nullah.core.piece.joint import Joint
from nullah.core.piece.order import Order, assembly_order
from nullah.core.piece.overlap import channel_of, lines
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Chamfer, LongBevel, RaisedPanel, RoundOver
from nullah.core.piece.solids import Recipe, block_solid, build
from nullah.core.piece.space import Axis, Box, Side
from nullah.core.proof.building import told_wrongly
from nullah.core.proof.depth import too_shallow
from nullah.core.proof.finding import TINY, Finding, ProofInput, follow_fixes
from nullah.core.proof.fits import misfits
from nullah.core.proof.season import cross_grain, no_room, sagging
from nullah.core.proof.walls import thin_walls
from nullah.core.refs import QuantityRef, quantity_ref

# How thick a slice of a show face is looked at for holes, mm, and from what area a hole shows, mm².
_SKIN, _SHOWS = 0.02, 0.5


@dataclass(frozen=True)
class Proof:
    """What the proof found, the solids' recipes by part, and the order in which the piece goes together."""

    findings: tuple[Finding, ...]
    recipes: dict[str, Recipe]
    order: Order

    @property
    def clean(self) -> bool:
        """Whether nothing is wrong."""
        return not self.findings


class StoppedError(Exception):
    """The proof was stopped before its end."""


def prove(case: ProofInput, stopped: Callable[[], bool] = lambda: False) -> Proof:
    """Put the piece together and say what is wrong, what cannot be made first.

    Parameters
    ----------
    case : ProofInput
    stopped : callable
        Asked between checks; the proof ends with `StoppedError` when it says yes.
    """
    found = _found(case, stopped)
    if case.before is not case:
        found = [each for each in found if not case.fits_apart(each.parts)]
        found += [each for each in _found(case.before, stopped) if case.fits_apart(each.parts)]
    failing = {part for each in found if each.remark.weight is Severity.FAILURE for part in each.parts}
    for findings in told_wrongly(case, failing):
        if stopped():
            raise StoppedError
        found += findings
    order = _order(tuple(case.before.floated[0].values()), _as_if_right(case.before, found), case.assembly.movers)
    found += _trapped(case, order)
    found.sort(key=lambda finding: finding.remark.weight is not Severity.FAILURE)
    return Proof(tuple(_gathered(case, found)), case.recipes, order)


def _found(case: ProofInput, stopped: Callable[[], bool]) -> list[Finding]:
    found: list[Finding] = []
    for findings in _checks(case):
        if stopped():
            raise StoppedError
        found += findings
    return found


def _as_if_right(case: ProofInput, found: Iterable[Finding]) -> tuple[Joint, ...]:
    """Return the joints with those that do not fit made to fit: a tight dado traps nothing for good."""
    wrong = {finding.joint for finding in found}
    return tuple(joint._replace(channels=()) if joint.id in wrong else joint for joint in case.floated[1])


def _gathered(case: ProofInput, found: Iterable[Finding]) -> Iterator[Finding]:
    """Say once what is the same of equal parts or has the same cause and mend, and in how many places it is."""
    alike: dict[tuple[object, ...], list[Finding]] = {}
    for finding in found:
        if finding.remark.ref and finding.remark.fixes:
            alike.setdefault((finding.trouble, finding.remark.ref, finding.remark.fixes), []).append(finding)
            continue
        alike.setdefault((finding.trouble, finding.remark.ref, *_of_equal_parts(case, finding)), []).append(finding)
    for same in alike.values():
        first = same[0]
        if len(same) == 1:
            yield first
            continue
        remark = first.remark._replace(fact=Repeated(first.remark.fact, len(same)))
        parts = tuple(dict.fromkeys(part_id for finding in same for part_id in finding.parts))
        yield first._replace(remark=remark, parts=parts)


def _of_equal_parts(case: ProofInput, finding: Finding) -> Iterator[object]:
    """Yield a finding's fact field by field, with what its parts are equal to in place of the parts."""
    fact = finding.remark.fact
    assert isinstance(fact, FrozenRecord)
    yield type(fact)
    for value in fact.values:
        yield case.parts[value].alike if isinstance(value, str) and value in finding.parts else value


def _checks(case: ProofInput) -> Iterator[list[Finding]]:
    recipes = case.recipes
    stuck: list[Finding] = []
    for mover in case.assembly.movers:
        stuck += _cannot_come_out(case, mover, recipes)
        yield []
    yield stuck
    wrong: set[str] = set()
    for joint in case.assembly.joints:
        misfit = list(misfits(case, joint))
        if misfit:
            wrong.add(joint.id)
        yield misfit
    stopped = {case.parts[finding.parts[0]].group for finding in stuck}
    yield from _collisions(case, recipes, stopped)
    for joint in case.assembly.joints:
        yield list(_shows(case, joint, recipes))
        if joint.id not in wrong:
            yield list(_gaps(case, joint, recipes))
        yield list(cross_grain(case, joint))
        yield list(too_shallow(case, joint))
    for part in case.assembly.parts:
        yield list(thin_walls(case, part))
    yield list(no_room(case))
    for bearing in case.assembly.bearings:
        yield list(sagging(case, bearing))


# --- collisions -----------------------------------------------------------------------------------


@kept_by_value(8192)
def _common(one: Recipe, two: Recipe) -> Block | None:
    """Return the box round what two solids both fill, or None."""
    both = build(one) ^ build(two)
    if both.volume() <= TINY:
        return None
    bounds = both.bounding_box()
    return (bounds[0], bounds[1], bounds[2]), (bounds[3], bounds[4], bounds[5])


def _collisions(case: ProofInput, recipes: dict[str, Recipe], stopped: set[str]) -> Iterator[list[Finding]]:
    ordered = sorted(case.assembly.parts, key=lambda part: recipes[part.id].block[0][0])
    for index, one in enumerate(ordered):
        end = recipes[one.id].block[1][0]
        for two in ordered[index + 1 :]:
            if recipes[two.id].block[0][0] >= end:
                break
            if not _meet(recipes[one.id].block, recipes[two.id].block):
                continue
            joint = case.joined.get(frozenset((one.id, two.id)))
            # What already cannot come out is not said again as filling the same space.
            known = one.group != two.group and (one.group in stopped or two.group in stopped)
            # A joint that fits shares the overlap out whole, whatever else is cut: that is arithmetic, not worth a
            # boolean. (The tests hold the solids to it.)
            shared = joint is not None and not joint.type.touches
            if known or shared:
                continue
            block = _common(recipes[one.id], recipes[two.id])
            if block is not None:
                yield [_collision(case, *_in_order(case, one, two), joint, _box(block))]


def _in_order(case: ProofInput, one: Part, two: Part) -> tuple[Part, Part]:
    return (one, two) if one.number < two.number else (two, one)


def _collision(case: ProofInput, one: Part, two: Part, joint: Joint | None, place: Box) -> Finding:
    fact = Collision(one.id, two.id, _sizes(place), joint is not None)
    fixes: tuple[Fix, ...] = ()
    if joint is None:
        fixes = _joints_offered(one, two)
    fixes += follow_fixes(case, (*one.quantities, *two.quantities))
    return Finding(
        FaultKind.COLLISION, Remark(fact, Severity.FAILURE, fixes), (one.id, two.id), joint.id if joint else "", place
    )


def _sizes(box: Box) -> Sizes:
    return Length(box.size(Axis.X)), Length(box.size(Axis.Y)), Length(box.size(Axis.Z))


def _joints_offered(one: Part, two: Part) -> tuple[Fix, ...]:
    """Offer the joints that the geometry allows, where a board of one's own is one of the two."""
    if not (one.own or two.own):
        return ()
    return tuple(JoinParts(one.id, two.id, index, offer) for index, offer in enumerate(offers(one, two, "")))


def _box(block: Block) -> Box:
    """Make an exact box of a block, to a thousandth."""
    low, high = (tuple(Fraction(round(c * 1000), 1000) for c in corner) for corner in block)
    return Box((low[0], low[1], low[2]), (high[0], high[1], high[2]))


# --- voids ----------------------------------------------------------------------------------------


def _grown(box: Box, room: tuple[Fraction, Fraction, Fraction]) -> Box:
    low, high = box.low, box.high
    return Box(
        (low[0] - room[0], low[1] - room[1], low[2] - room[2]),
        (high[0] + room[0], high[1] + room[1], high[2] + room[2]),
    )


@kept_by_value(8192)
def _unfilled(region: Block, filled: tuple[Recipe, ...], planned: tuple[Block, ...]) -> tuple[float, Block | None]:
    """Return the volume of a region that no solid fills, less what is planned, and the box round it."""
    void = block_solid(region)
    for block in planned:
        void = void - block_solid(block)
    for made in filled:
        # One after the other: what is left is small, and their union would be large.
        void = void - build(made)
    volume = void.volume()
    if volume <= TINY:
        return 0.0, None
    bounds = void.bounding_box()
    return volume, ((bounds[0], bounds[1], bounds[2]), (bounds[3], bounds[4], bounds[5]))


def _near(recipes: dict[str, Recipe], region: Box) -> tuple[Recipe, ...]:
    """Return what there is near a region, its holes filled: nails, screws and pegs go into them."""
    block = block_of(region)
    near = (made for made in recipes.values() if _meet(made.block, block))
    return tuple(made._replace(cuts=tuple(cut._replace(holes=()) for cut in made.cuts)) for made in near)


def _meet(one: Block, two: Block) -> bool:
    """Return whether two blocks share more than a face."""
    (a, b), (c, d) = one, two
    thin = 1e-9
    return all(a[i] < d[i] - thin and c[i] < b[i] - thin for i in range(3))


def _shows(case: ProofInput, joint: Joint, recipes: dict[str, Recipe]) -> Iterator[Finding]:
    """Say where a channel comes out in a side that is seen."""
    if not joint.type.enters or not joint.channels:
        return
    host, guest = case.parts[joint.first], case.parts[joint.second]
    planned = tuple(block_of(_grown(share, joint.room)) for share in lines(joint, host, guest).second_keeps)
    for channel in joint.channels:
        inside = channel.overlap(host.box)
        if inside is None:
            continue
        for side in sorted(host.shows, key=lambda s: s.value):
            if inside.at(side) != host.box.at(side):
                continue
            skin = _skin(inside, side)
            area, place = _unfilled(block_of(skin), _near(recipes, skin), planned)
            if area / _SKIN > _SHOWS and place is not None:
                fact = Shows(channel_of(host, channel), guest.id, host.id, _surface(host, side), side)
                fixes = _stop_fixes(joint)
                yield Finding(
                    FaultKind.SHOWS,
                    Remark(fact, Severity.FAILURE, fixes, quantity_ref(joint.names.depth)),
                    (host.id, guest.id),
                    joint.id,
                    _box(place),
                )


def _surface(host: Part, side: Side) -> ShowsWhere:
    if side.axis is host.grain:
        return ShowsWhere.END
    return ShowsWhere.FACE if side.axis is host.face else ShowsWhere.EDGE


def _stop_fixes(joint: Joint) -> tuple[Fix, ...]:
    name, _, option = joint.names.choice.partition("=")
    return (StopChannel(name, option),) if option else ()


def _skin(box: Box, side: Side) -> Box:
    at, thin = box.at(side), Fraction(1, 50)
    return box.set(side.axis, at - thin, at) if side.high else box.set(side.axis, at, at + thin)


def _gaps(case: ProofInput, joint: Joint, recipes: dict[str, Recipe]) -> Iterator[Finding]:
    """Say where a joint is left empty although nothing was planned there."""
    if joint.type.touches:
        return
    first, second = case.parts[joint.first], case.parts[joint.second]
    overlap = first.box.overlap(second.box)
    if overlap is None:
        return
    planned = []
    if joint.type.enters:
        for share in lines(joint, first, second).second_keeps:
            room = list(joint.room)
            if joint.runs:
                longest = max(Axis, key=lambda axis: max(c.size(axis) for c in joint.channels or (share,)))
                room[longest.value] += Fraction(10000)
            planned.append(block_of(_grown(share, (room[0], room[1], room[2]))))
    if _shaped_edge(second) or not (first.shapings or second.shapings):
        # Between plain boxes the arithmetic of `fits` has decided it.
        return
    # Where other joints' channels pass, their own checks speak.
    others = (j for j in case.assembly.joints if j.id != joint.id and j.first in (first.id, second.id))
    planned += [block_of(channel) for other in others for channel in other.channels if channel.overlap(overlap)]
    regions = [overlap, *(c for c in (channel.overlap(first.box) for channel in joint.channels) if c is not None)]
    for region in dict.fromkeys(regions):
        volume, place = _unfilled(block_of(region), _near(recipes, region), tuple(planned))
        if place is None or volume < 1:
            continue
        box = _box(place)
        fact = Void(first.id, second.id, _sizes(box))
        names = (*joint.names.quantities, *first.quantities, *second.quantities)
        yield Finding(
            FaultKind.GAP,
            Remark(fact, Severity.WARNING, follow_fixes(case, names)),
            (first.id, second.id),
            joint.id,
            box,
        )
        return


def _shaped_edge(part: Part) -> bool:
    """Whether a shaping of the part thins its edges on purpose, as a raised panel's."""
    return any(isinstance(shaping, RaisedPanel | LongBevel | Chamfer | RoundOver) for shaping in part.shapings)


# --- things that move -----------------------------------------------------------------------------


def _cannot_come_out(case: ProofInput, mover: Mover, recipes: dict[str, Recipe]) -> Iterator[Finding]:
    """Say what a drawer or lid would run into first on its way out."""
    group = [part for part in case.assembly.parts if part.group == mover.group]
    moving = {each.group for each in case.assembly.movers}
    others = [part for part in case.assembly.parts if part.group not in moving]
    for other in others:
        for part in group:
            if not _meet(
                block_of(_swept(case.floated[0][part.id].box, mover.way, mover.travel)), recipes[other.id].block
            ):
                continue
            meeting = _swept(part.box, mover.way, mover.travel).overlap(other.box)
            if meeting is None:
                continue
            joint = case.joined.get(frozenset((part.id, other.id)))
            if _hits(recipes[part.id], recipes[other.id], mover, joint is not None):
                yield _blocked(case, mover, part, other, meeting)
                return


def _blocked(case: ProofInput, mover: Mover, part: Part, other: Part, meeting: Box) -> Finding:
    sides = [axis for axis in Axis if axis is not mover.way.axis]
    tight = min(sides, key=lambda axis: _crossing(part.box, other.box, axis))
    by = _crossing(part.box, other.box, tight)
    by = max(by - _room_away(case, mover, part, other, tight), min(by, Fraction(1, 10)))
    fact = CannotComeOut(mover.name, part.id, other.id, tight, Length(by))
    fixes = follow_fixes(case, (*mover.quantities, *part.quantities))
    parts = (part.id, other.id)
    return Finding(
        FaultKind.PASS, Remark(fact, Severity.FAILURE, fixes, QuantityRef(part.quantities[0])), parts, place=meeting
    )


def _room_away(case: ProofInput, mover: Mover, part: Part, other: Part, axis: Axis) -> Fraction:
    """Return how far a part could be pushed away from what it runs into, until it meets something on the other side."""
    a = axis.value
    upwards = other.box.low[a] + other.box.high[a] < part.box.low[a] + part.box.high[a]
    reach = _swept(part.box, mover.way, mover.travel).set(axis, Fraction(-(10**6)), Fraction(10**6))
    groups = {each.group for each in case.assembly.movers}
    rooms = []
    for still in case.assembly.parts:
        if still.group in groups or still is other or reach.overlap(still.box) is None:
            continue
        gap = still.box.low[a] - part.box.high[a] if upwards else part.box.low[a] - still.box.high[a]
        if gap >= 0:
            rooms.append(gap)
    return min(rooms, default=Fraction(0))


def _crossing(one: Box, two: Box, axis: Axis) -> Fraction:
    a = axis.value
    return min(one.high[a] - two.low[a], two.high[a] - one.low[a])


def _swept(box: Box, way: Side, travel: Fraction) -> Box:
    a = way.axis.value
    if way.high:
        return box.set(way.axis, box.low[a], box.high[a] + travel)
    return box.set(way.axis, box.low[a] - travel, box.high[a])


@kept_by_value(4096)
def _hits(part: Recipe, other: Recipe, mover: Mover, joined_: bool) -> bool:
    """Return whether a part runs into another on its way, tried in steps."""
    solid, still = build(part), build(other)
    sign = 1 if mover.way.high else -1
    for share in (0.002, 0.02, 0.1, 0.25, 0.5, 0.75):
        by = [0.0, 0.0, 0.0]
        by[mover.way.axis.value] = sign * share * float(mover.travel)
        if (solid.translate(by) ^ still).volume() > TINY:
            return True
    return not joined_ and (solid ^ still).volume() > TINY


# --- the order of assembly ------------------------------------------------------------------------


@kept_by_value(32)
def _order(parts: tuple[Part, ...], joints: tuple[Joint, ...], movers: tuple[Mover, ...]) -> Order:
    return assembly_order(parts, joints, movers)


def _trapped(case: ProofInput, order: Order) -> Iterator[Finding]:
    for group in order.trapped:
        yield Finding(FaultKind.TRAPPED, Remark(Trapped(group), Severity.FAILURE), group)


__all__ = ["Proof", "ProofInput", "StoppedError", "prove"]
