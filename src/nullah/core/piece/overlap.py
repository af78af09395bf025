"""The overlap rule: where two parts meet their boxes overlap, and a joint shares that out.

One part is let into the other (at an edge that is a rabbet, across the grain a dado, along
it a groove: the geometry decides the name); or the overlap is shared in slices (dovetail,
lap, bridle, mitre); or a part of the one goes on as a tenon. Parts that only touch meet in a
butt joint. Whatever the second part does not keep of the overlap belongs to the first.
"""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.faults import Channel
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box


class Meeting(NamedTuple):
    """Two parts that fill the same space, and that space."""

    first: Part
    second: Part
    box: Box


def meetings(parts: tuple[Part, ...]) -> Iterator[Meeting]:
    """Yield every pair of parts whose boxes overlap."""
    in_order = sorted(parts, key=lambda part: part.box.low[0])
    rank = {part.id: number for number, part in enumerate(parts)}
    for index, first in enumerate(in_order):
        end = first.box.high[0]
        for second in in_order[index + 1 :]:
            if second.box.low[0] >= end:
                break
            box = first.box.overlap(second.box)
            if box is not None:
                a, b = (first, second) if rank[first.id] < rank[second.id] else (second, first)
                yield Meeting(a, b, box)


def channel_of(host: Part, channel: Box) -> Channel:
    """Return what a box cut out of `host` is, by how it is open.

    Open to a face and to an edge or end beside it a rabbet; open to a face only a groove along the grain, a dado
    across it; open to an edge or end only a groove in that. What goes through the thickness is a notch where it is
    open to an edge or an end, and a mortise where it is open to neither.
    """
    along_grain = channel.size(host.grain) >= channel.size(host.across)

    def opens(axis: Axis) -> int:
        low, high = host.box.low[axis.value], host.box.high[axis.value]
        return (channel.low[axis.value] <= low) + (channel.high[axis.value] >= high)

    if opens(host.face) == 2 and not (opens(host.grain) and opens(host.across)):
        return Channel.NOTCH if opens(host.grain) or opens(host.across) else Channel.MORTISE
    if opens(host.across if along_grain else host.grain):
        return Channel.RABBET if opens(host.face) else Channel.GROOVE
    return Channel.GROOVE if along_grain else Channel.DADO


class Division(NamedTuple):
    """Who gets what of a meeting: boxes and prisms taken from either part.

    `first_loses` and `second_loses` are boxes; `second_keeps` boxes within the overlap that
    are not taken from the second part although the overlap is.
    """

    overlap: Box | None
    first_loses: tuple[Box, ...]
    second_keeps: tuple[Box, ...]


def lines(joint: Joint, first: Part, second: Part) -> Division:
    """Return the boxes of a joint that shares in boxes (let in, tenon, lap, bridle)."""
    overlap = first.box.overlap(second.box)
    if overlap is None:
        return Division(None, joint.channels, ())
    # A share can be no more than what the second part has there.
    clipped = (share.overlap(overlap) for share in joint.shares)
    shares = tuple(share for share in clipped if share is not None) if joint.shares else (overlap,)
    channels = joint.channels or shares
    if joint.laid_out_by is not None:
        channels = tuple(map(joint.laid_out_by.moved, channels))
    return Division(overlap, channels, shares)


def contact(first: Part, second: Part) -> Box | None:
    """Return where two boxes overlap or touch, as a box that may be flat along one axis; None if apart."""
    low = tuple(max(a, b) for a, b in zip(first.box.low, second.box.low, strict=True))
    high = tuple(min(a, b) for a, b in zip(first.box.high, second.box.high, strict=True))
    sizes = [h - k for h, k in zip(high, low, strict=True)]
    if min(sizes) < 0 or sum(size == 0 for size in sizes) > 1:
        return None
    return Box((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def outward(host: Part, channel: Box) -> Axis:
    """Return the axis a channel is sunk along: the one where it is open on one side of the host only.

    Where several are (a rabbet), it is the host's thickness.
    """
    opens = [
        axis
        for axis in Axis
        if (channel.low[axis.value] <= host.box.low[axis.value])
        != (channel.high[axis.value] >= host.box.high[axis.value])
    ]
    if host.face in opens or not opens:
        return host.face
    return opens[0]
