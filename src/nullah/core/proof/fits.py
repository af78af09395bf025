"""Does what enters a channel fit it? Exact arithmetic on the boxes of every joint."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark, Severity
from nullah.core.fixes import Fix
from nullah.core.fraction import Fraction
from nullah.core.lengths import Direction, Length
from nullah.core.piece.faults import (
    Apart,
    ButtGap,
    Channel,
    DoesNotFit,
    EdgesOnly,
    FaultKind,
    Misfit,
    ProofFact,
    Width,
    WidthOff,
)
from nullah.core.piece.joint import Joint
from nullah.core.piece.overlap import contact, lines
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, side_at
from nullah.core.proof.finding import Finding, ProofInput, follow_fixes, give_fix
from nullah.core.refs import quantity_ref


def misfits(case: ProofInput, joint: Joint) -> Iterator[Finding]:
    """Say what of a joint does not fit, with by how much."""
    first, second = case.parts[joint.first], case.parts[joint.second]
    if joint.type.touches:
        yield from _butt(case, joint, first, second)
    elif first.box.overlap(second.box) is None:
        yield _apart(case, joint, first, second)
        return
    for fault in joint.type.faults(joint, first, second):
        fixes = (*fault.ways_out, *follow_fixes(case, fault.follow))
        remark = Remark(fault.fact, Severity.FAILURE, fixes, quantity_ref(fault.quantity))
        yield Finding(fault.trouble, remark, fault.parts, joint.id, fault.place)
    if joint.type.enters and joint.channels:
        yield from _channels(case, joint, first, second)


def _between(first: Part, second: Part) -> tuple[Axis, Fraction]:
    """Return the axis two boxes are apart along, and how far (below 0: they run into each other)."""
    one, two = first.box, second.box

    def gap(axis: Axis) -> Fraction:
        a = axis.value
        return max(one.low[a], two.low[a]) - min(one.high[a], two.high[a])

    axis = max(Axis, key=gap)
    return axis, gap(axis)


def _apart(case: ProofInput, joint: Joint, first: Part, second: Part) -> Finding:
    _, gap = _between(first, second)
    fact = Apart(first.id, second.id, Length(gap), _called(joint, first, second))
    names = (*joint.names.quantities, *first.quantities, *second.quantities)
    return Finding(
        FaultKind.APART, Remark(fact, Severity.FAILURE, follow_fixes(case, names)), (first.id, second.id), joint.id
    )


def _called(joint: Joint, first: Part, second: Part) -> str:
    """Return what a joint is called whose parts do not even meet: its channel where one is let in, else its type."""
    if joint.type.captures and joint.channels:
        return joint.type.channel(first, joint.channels[0]).value
    return joint.type.name(joint, first, second)


def _butt(case: ProofInput, joint: Joint, first: Part, second: Part) -> Iterator[Finding]:
    _, gap = _between(first, second)
    if gap > 0 or (contact(first, second) is None and first.box.overlap(second.box) is None):
        edge = EdgesOnly(first.id, second.id)
        fact = ButtGap(first.id, second.id, Length(gap)) if gap > 0 else edge
        names = (*first.quantities, *second.quantities)
        yield Finding(
            FaultKind.GAP, Remark(fact, Severity.FAILURE, follow_fixes(case, names)), (first.id, second.id), joint.id
        )


def _channels(case: ProofInput, joint: Joint, host: Part, guest: Part) -> Iterator[Finding]:
    shares = lines(joint, host, guest).second_keeps
    for number, share in enumerate(shares):
        whole = joint.channels[number] if len(joint.channels) > number else joint.channels[0]
        channel = whole.overlap(host.box)
        if channel is not None:
            yield from _channel(case, joint, host, guest, channel, share)


def _roles(joint: Joint, host: Part, guest: Part, channel: Box) -> tuple[Axis, Axis, Axis]:
    """Return the axes of a channel: its depth, its width, and the way it runs."""
    depth = joint.type.depth_axis(host, guest, channel)
    left = [axis for axis in Axis if axis is not depth]
    width = guest.face if guest.face in left else min(left, key=channel.size)
    run = next(axis for axis in left if axis is not width)
    return depth, width, run


def _channel(case: ProofInput, joint: Joint, host: Part, guest: Part, channel: Box, share: Box) -> Iterator[Finding]:
    depth, width, run = _roles(joint, host, guest, channel)
    kind = joint.type.channel(host, channel)
    for axis in (depth, width, run):
        a = axis.value
        over = Fraction(0)
        loose = Fraction(0)
        for low in (True, False):
            own, its = (channel.low[a], share.low[a]) if low else (channel.high[a], share.high[a])
            at_host = own <= host.box.low[a] if low else own >= host.box.high[a]
            beyond = (own - its) if low else (its - own)
            if beyond > 0 and not at_host:
                over += beyond
            elif beyond < 0 and not at_host:
                loose += max(Fraction(0), -beyond - joint.room[a])
        if axis is width:
            # A channel's width is one figure: shifted is as good as short.
            wide = share.size(axis) - channel.size(axis)
            over = max(over, wide) if over > 0 else over
        if axis is width and guest.face is axis:
            yield from _proud(case, joint, host, guest, kind, axis, channel)
        if over > 0:
            yield _too_much(case, joint, host, guest, kind, axis, (depth, width, run), over, channel, share)
        if loose > Fraction(1, 100) and not (axis is run and joint.runs):
            yield _too_little(case, joint, host, guest, kind, axis, (depth, width, run), loose, channel, share)


def _proud(
    case: ProofInput, joint: Joint, host: Part, guest: Part, kind: Channel, axis: Axis, channel: Box
) -> Iterator[Finding]:
    """Say where what lies in a rabbet stands out of it: the rabbet was cut for other stock."""
    for high in (False, True):
        side = side_at(axis, high)
        out = (guest.box.at(side) - host.box.at(side)) * (1 if high else -1)
        if out <= 0 or channel.at(side) != host.box.at(side):
            continue
        fact = WidthOff(
            Width.PROUD, guest.id, host.id, kind, Length(guest.box.size(axis)), Length(channel.size(axis)), Length(out)
        )
        fixes = give_fix(case, joint.names.width, channel.size(axis) + out, Direction.UP)
        yield _finding(FaultKind.FIT, fact, fixes, joint, channel, joint.names.width)


def _too_much(
    case: ProofInput,
    joint: Joint,
    host: Part,
    guest: Part,
    kind: Channel,
    axis: Axis,
    roles: tuple[Axis, Axis, Axis],
    over: Fraction,
    channel: Box,
    share: Box,
) -> Finding:
    names = joint.names
    depth, width, _ = roles
    up = Direction.UP
    fixes: tuple[Fix, ...]
    if axis is width:
        fact = WidthOff(
            Width.TIGHT, guest.id, host.id, kind, Length(share.size(axis)), Length(channel.size(axis)), Length(over)
        )
        fixes = give_fix(case, names.width, channel.size(axis) + over, up) or follow_fixes(case, (names.guest,))
        return _finding(FaultKind.FIT, fact, fixes, joint, channel, names.width)

    def misfit(how: Misfit) -> DoesNotFit:
        return DoesNotFit(how, guest.id, host.id, kind, Length(over))

    if axis is depth:
        known = names.depth in case.ledger.quantities
        fixes = give_fix(case, names.depth, case.ledger[names.depth] + over, up) if known else ()
        fixes = follow_fixes(case, guest.quantities) or fixes
        return _finding(FaultKind.FIT, misfit(Misfit.TOO_DEEP), fixes, joint, channel, names.depth)
    if names.notch:
        fixes = give_fix(case, names.notch, case.ledger[names.notch] + over)
        return _finding(FaultKind.NOTCH, misfit(Misfit.NOTCHED_TOO_LITTLE), fixes, joint, channel, names.notch)
    fixes = follow_fixes(case, (*guest.quantities, *names.quantities))
    return _finding(FaultKind.FIT, misfit(Misfit.PAST_THE_END), fixes, joint, channel, names.stop)


def _too_little(
    case: ProofInput,
    joint: Joint,
    host: Part,
    guest: Part,
    kind: Channel,
    axis: Axis,
    roles: tuple[Axis, Axis, Axis],
    loose: Fraction,
    channel: Box,
    share: Box,
) -> Finding:
    names = joint.names
    depth, width, _ = roles
    if axis is width:
        fact = WidthOff(
            Width.LOOSE, guest.id, host.id, kind, Length(share.size(axis)), Length(channel.size(axis)), Length(loose)
        )
        fixes = give_fix(case, names.width, channel.size(axis) - loose, Direction.DOWN)
        return _finding(FaultKind.GAP, fact, fixes, joint, channel, names.width)

    def misfit(how: Misfit) -> DoesNotFit:
        return DoesNotFit(how, guest.id, host.id, kind, Length(loose))

    if axis is depth:
        known = names.depth in case.ledger.quantities
        fixes = give_fix(case, names.depth, case.ledger[names.depth] - loose) if known else ()
        fixes = follow_fixes(case, guest.quantities) or fixes
        return _finding(FaultKind.GAP, misfit(Misfit.TOO_SHALLOW), fixes, joint, channel, names.depth)
    if names.notch:
        fixes = give_fix(case, names.notch, case.ledger[names.notch] - loose) or follow_fixes(case, (names.notch,))
        return _finding(FaultKind.NOTCH, misfit(Misfit.NOTCHED_TOO_MUCH), fixes, joint, channel, names.notch)
    fixes = follow_fixes(case, guest.quantities)
    return _finding(FaultKind.GAP, misfit(Misfit.OPEN_AT_THE_END), fixes, joint, channel, names.stop)


def _finding(
    trouble: FaultKind, fact: ProofFact, fixes: tuple[Fix, ...], joint: Joint, place: Box, quantity: str
) -> Finding:
    return Finding(
        trouble,
        Remark(fact, Severity.FAILURE, fixes, quantity_ref(quantity)),
        (joint.second, joint.first),
        joint.id,
        place,
    )
