"""What of a dovetailed corner does not fit, by exact arithmetic on the boxes of both boards."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import N_
from nullah.core.joints.dovetail.frame import tail_frame
from nullah.core.joints.dovetail.tails import tails_of
from nullah.core.lengths import Length
from nullah.core.piece.faults import Fault, FaultKind, NoCorner, NoLap, PinsShort, ProofFact, StandsOut, TailsShort
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.piece.space import side_at


def corner_faults(joint: Joint, tail: Part, pin: Part) -> Iterator[Fault]:
    """Yield what of a corner does not fit: tails or pins too short, too long, or no lap left."""
    frame = tail_frame(joint, tail, pin)
    if frame is None:
        fact = NoCorner(tail.id, pin.id, N_("dovetailed"))
        yield Fault(FaultKind.COLLISION, fact, (tail.id, pin.id), place=tail.box.overlap(pin.box))
    tails = tails_of(joint)
    if frame is None or tails is None:
        return
    overlap, along, _, through, high = frame
    # The tails must come out where the pin board's outer side is, or stop short of it by the lap.
    outer = pin.box.at(side_at(along, high))
    end = tail.box.at(side_at(along, high))
    short = ((outer - end) if high else (end - outer)) - tails.lap
    lengths = (f"{tail.alike}.length", f"{pin.alike}.length")
    follow = (*tail.quantities, *pin.quantities, *lengths)

    def fault(trouble: FaultKind, fact: ProofFact, part: Part, mate: Part) -> Fault:
        return Fault(trouble, fact, (part.id, mate.id), follow, part.quantities[0], overlap)

    if short > 0:
        yield fault(FaultKind.GAP, TailsShort(tail.id, pin.id, Length(short), tails.lap > 0), tail, pin)
    elif short < 0 and tails.lap and -short >= tails.lap:
        yield fault(FaultKind.SHOWS, NoLap(tail.id, pin.id), tail, pin)
    elif short < 0 and not tails.lap:
        yield fault(FaultKind.FIT, StandsOut(tail.id, pin.id, Length(-short), pins=False), tail, pin)
    # The pin board must reach the tail board's outer side.
    middle = (pin.box.low[through.value] + pin.box.high[through.value]) / 2
    outwards = (overlap.low[through.value] + overlap.high[through.value]) / 2 > middle
    side = side_at(through, outwards)
    missing = (tail.box.at(side) - pin.box.at(side)) * (1 if outwards else -1)
    if missing > 0:
        yield fault(FaultKind.GAP, PinsShort(pin.id, tail.id, Length(missing)), pin, tail)
    elif missing < 0 and pin.grain is through:
        yield fault(FaultKind.FIT, StandsOut(pin.id, tail.id, Length(-missing), pins=True), pin, tail)
