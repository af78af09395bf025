"""A dovetail as a solid."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.fraction import Fraction
from nullah.core.joints.dovetail.frame import tail_frame
from nullah.core.joints.dovetail.tail_edges import tail_edges
from nullah.core.joints.dovetail.tails import tails_of
from nullah.core.joints.mitre.solid import mitre_cut
from nullah.core.piece.cuts import Removal, block_of
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Prism
from nullah.core.piece.space import Axis, Box

#: So far tails go on into their board, mm: ending just at the baseline, rounding would cut them off it.
_ROOT = Fraction(1, 100)


def dovetail_cut(joint: Joint, tail: Part, pin: Part, is_tail: bool) -> Removal | None:
    """Return what a dovetail takes from its tail board or its pin board."""
    frame = tail_frame(joint, tail, pin)
    spec = tails_of(joint)
    if frame is None or spec is None:
        return None
    overlap = frame[0]
    tails = tail_prisms(joint, tail, pin)
    block = block_of(overlap)
    # Where an edge is mitred, the tail board keeps its half of the corner and the pin board loses it.
    tails = (*tails, *_mitred_edges(spec.mitres, overlap, frame[2], tail, pin))
    if is_tail:
        return Removal((block,), kept_prisms=tails)
    return Removal(prisms=tails)


def _mitred_edges(
    mitres: tuple[Fraction, Fraction], overlap: Box, across: Axis, tail: Part, pin: Part
) -> Iterator[Prism]:
    """Yield the tail board's half of a corner along its edges that are mitred."""
    whole = mitre_cut(tail, pin, is_first=False)
    low, high = float(overlap.low[across.value]), float(overlap.high[across.value])
    if whole is None or whole.prisms[0].along is not across:
        return
    for wide, span in ((mitres[0], (low, low + float(mitres[0]))), (mitres[1], (high - float(mitres[1]), high))):
        if wide > 0:
            yield whole.prisms[0]._replace(low=span[0], high=span[1])


def tail_prisms(joint: Joint, tail: Part, pin: Part) -> tuple[Prism, ...]:
    """Return the tails of a dovetail as prisms in the piece; none where they come to nothing."""
    frame = tail_frame(joint, tail, pin)
    spec = tails_of(joint)
    if frame is None or spec is None:
        return ()
    overlap, along, across, through, high = frame
    # Tails are marked at the end of the blank, which stands proud of the corner.
    proud = tail.spare / 2
    depth = overlap.size(along)
    leans = proud / spec.slope.run, (proud + depth + _ROOT) / spec.slope.run
    end, base = (
        (overlap.high[along.value], overlap.low[along.value] - _ROOT)
        if high
        else (overlap.low[along.value], overlap.high[along.value] + _ROOT)
    )
    edge = overlap.low[across.value]
    found = []
    u = Axis((through.value + 1) % 3)
    for low, top in tail_edges(overlap.size(across), spec.number, spec.half_pin, spec.pin, spec.widths):
        if top - low <= 0 or top - low - 2 * leans[1] <= 0:
            continue
        corners = (
            (end, edge + low + leans[0]),
            (end, edge + top - leans[0]),
            (base, edge + top - leans[1]),
            (base, edge + low + leans[1]),
        )
        flat = tuple((float(a), float(c)) if along is u else (float(c), float(a)) for a, c in corners)
        found.append(Prism(through, flat, float(overlap.low[through.value]), float(overlap.high[through.value])))
    return tuple(found)
