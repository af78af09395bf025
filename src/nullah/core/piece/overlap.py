"""The overlap rule: where two parts meet their boxes overlap, and a joint shares that out.

One part is let into the other (at an edge that is a rabbet, across the grain a dado, along
it a groove: the geometry decides the name); or the overlap is shared in slices (dovetail,
lap, bridle, mitre); or a part of the one goes on as a tenon. Parts that only touch meet in a
butt joint. Whatever the second part does not keep of the overlap belongs to the first.
"""

from __future__ import annotations

from collections.abc import Iterator
from enum import Enum
from fractions import Fraction
from typing import NamedTuple

from nullah.core.catalogue import N_
from nullah.core.lengths import Slope
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Corner, side_at


class Sharing(Enum):
    """How an overlap is shared out."""

    DOVETAIL = "dovetail"
    LET_IN = "let in"
    TENON = "mortise and tenon"
    LAP = "lap"
    BRIDLE = "bridle"
    MITRE = "mitre"
    BUTT = "butt"


class Hold(Enum):
    """What holds a joint, which decides what may move in it."""

    GLUE = N_("glued")
    NAILS = N_("nailed")
    SCREWS = N_("screwed")
    SLOTS = N_("screwed in slots")
    BUTTONS = N_("held by buttons")
    DRY = N_("left dry")

    @property
    def rigid(self) -> bool:
        """Whether wood held so cannot move: nails bend, slots slide, a dry joint is free."""
        return self in (Hold.GLUE, Hold.SCREWS)


class Channel(Enum):
    """What is cut into a board to take another; the value is its name."""

    RABBET = N_("rabbet")
    GROOVE = N_("groove")
    DADO = N_("dado")
    MORTISE = N_("mortise")


class Tails(NamedTuple):
    """The tails of a corner: the ledger's prefix for their figures, and the figures, mm.

    `groove` is the prefix of the groove that runs out at the corner, empty without one; `lap`
    what is to be left of the pin board outside the tails (0: through); `widths` the tails' widths
    against each other, from the lower edge, empty where they are equal; `mitres` how wide the
    corner is mitred at its lower and its upper edge.
    """

    prefix: str
    number: int
    half_pin: Fraction
    pin: Fraction
    slope: Slope
    proud: Fraction = Fraction(0)
    groove: str = ""
    lap: Fraction = Fraction(0)
    widths: tuple[Fraction, ...] = ()
    mitres: tuple[Fraction, Fraction] = (Fraction(0), Fraction(0))


class Names(NamedTuple):
    """The ledger's names behind a joint, for fixes; empty where there is none.

    `width`, `depth` and `stop` are of the channel, `guest` the thickness that enters it,
    `reach` how far that goes in, `notch` what is cut off its corner. `choice` is the way of
    making it that would not show, as ``name=option``.
    """

    width: str = ""
    depth: str = ""
    stop: str = ""
    guest: str = ""
    reach: str = ""
    notch: str = ""
    choice: str = ""

    @property
    def quantities(self) -> tuple[str, ...]:
        """All of them that name a quantity of the ledger; empty ones too."""
        return self.width, self.depth, self.stop, self.guest, self.reach, self.notch


class Joint(NamedTuple):
    """Two parts and how they share their overlap.

    For a dovetail `first` carries the tails and `second` the pins; otherwise `first` is cut
    into and `second` enters it.

    Parameters
    ----------
    channels : tuple of Box
        What is cut out of `first`; empty: just what the second keeps of the overlap.
    shares : tuple of Box
        What `second` keeps of the overlap; empty: all of it. The rest is cut off it.
    room : Corner
        Clearance planned on either side of the shares along each axis, mm.
    runs : bool
        Whether a channel may go on beyond what enters it (a groove ploughed through).
    glued : Fraction, optional
        Over how much of its width it is glued, mm; None: all of it.
    """

    id: str
    sharing: Sharing
    first: str
    second: str
    hold: Hold = Hold.GLUE
    channels: tuple[Box, ...] = ()
    shares: tuple[Box, ...] = ()
    room: Corner = (Fraction(0), Fraction(0), Fraction(0))
    runs: bool = False
    tails: Tails | None = None
    names: Names = Names()
    glued: Fraction | None = None


class Meeting(NamedTuple):
    """Two parts that fill the same space, and that space."""

    first: Part
    second: Part
    box: Box


def meetings(parts: tuple[Part, ...]) -> Iterator[Meeting]:
    """Give every pair of parts whose boxes overlap."""
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
    """Return what a box cut out of `host` is: at an edge a rabbet, along the grain a groove, across it a dado."""
    grain, across = host.grain, host.across
    along_grain = channel.size(grain) >= channel.size(across)
    side = across if along_grain else grain
    at_edge = (
        channel.low[side.value] <= host.box.low[side.value] or channel.high[side.value] >= host.box.high[side.value]
    )
    if at_edge:
        return Channel.RABBET
    return Channel.GROOVE if along_grain else Channel.DADO


def name_of_joint(joint: Joint, first: Part, second: Part) -> str:
    """Name a joint in the trade's words; the geometry tells half-blind from through, dado from groove.

    Parameters
    ----------
    joint : Joint
    first, second : Part
        Its two parts.
    """
    overlap = first.box.overlap(second.box)
    match joint.sharing:
        case Sharing.DOVETAIL if overlap is not None:
            axis = first.grain
            lap = second.box.size(axis) - overlap.size(axis)
            return "half-blind dovetail" if lap > 0 else "through dovetail"
        case Sharing.LET_IN if overlap is not None:
            channel = joint.channels[0] if joint.channels else overlap
            name = channel_of(first, channel)
            stopped = name is Channel.DADO and channel.size(first.across) < first.box.size(first.across)
            return f"stopped {name.value}" if stopped else name.value
        case Sharing.TENON:
            return "double tenon" if len(joint.shares) > 1 else "mortise and tenon"
        case Sharing.BUTT:
            return f"butt joint, {joint.hold.value}"
        case _:
            return str(joint.sharing.value)


class Lines(NamedTuple):
    """Who gets what of a meeting: boxes and prisms taken from either part.

    `first_loses` and `second_loses` are boxes; `second_keeps` boxes within the overlap that
    are not taken from the second part although the overlap is.
    """

    overlap: Box | None
    first_loses: tuple[Box, ...]
    second_keeps: tuple[Box, ...]


def lines(joint: Joint, first: Part, second: Part) -> Lines:
    """Give the boxes of a joint that shares in boxes (let in, tenon, lap, bridle)."""
    overlap = first.box.overlap(second.box)
    if overlap is None:
        return Lines(None, joint.channels, ())
    # A share can be no more than what the second part has there.
    clipped = (share.overlap(overlap) for share in joint.shares)
    shares = tuple(share for share in clipped if share is not None) if joint.shares else (overlap,)
    return Lines(overlap, joint.channels or shares, shares)


def tail_edges(
    width: Fraction, count: int, half_pin: Fraction, pin: Fraction, widths: tuple[Fraction, ...] = ()
) -> tuple[tuple[Fraction, Fraction], ...]:
    """Give both edges of every tail at the end of its board, from one edge, mm.

    step = (width − 2 half-pins + pin) / n; tail = step − pin (exact). `widths` are the tails'
    against each other, one for each; otherwise they are equal.

    Examples
    --------
    >>> [(int(a), int(b)) for a, b in tail_edges(Fraction(150), 2, Fraction(10), Fraction(6))]
    [(10, 72), (78, 140)]
    """
    left = width - 2 * half_pin - (count - 1) * pin
    parts = widths if len(widths) == count and sum(widths) > 0 else (Fraction(1),) * count
    found, low = [], half_pin
    for part in parts:
        tail = left * part / sum(parts)
        found.append((low, low + tail))
        low += tail + pin
    return tuple(found)


def tail_frame(joint: Joint, tail: Part, pin: Part) -> tuple[Box, Axis, Axis, Axis, bool] | None:
    """Give the overlap of a dovetail, the axes along the tails, across them and through, and which end.

    The last says whether the tails point towards the high end of the tail board. None where
    the boards do not make a corner.
    """
    overlap = tail.box.overlap(pin.box)
    if overlap is None or tail.grain is pin.grain or joint.tails is None:
        return None
    along = tail.grain
    across = next(axis for axis in Axis if axis not in (along, tail.face))
    middle = (overlap.low[along.value] + overlap.high[along.value]) / 2
    high = middle > (tail.box.low[along.value] + tail.box.high[along.value]) / 2
    return overlap, along, across, tail.face, high


def contact(first: Part, second: Part) -> Box | None:
    """Give where two boxes overlap or touch, as a box that may be flat along one axis; None if apart."""
    low = tuple(max(a, b) for a, b in zip(first.box.low, second.box.low, strict=True))
    high = tuple(min(a, b) for a, b in zip(first.box.high, second.box.high, strict=True))
    sizes = [h - k for h, k in zip(high, low, strict=True)]
    if min(sizes) < 0 or sum(size == 0 for size in sizes) > 1:
        return None
    return Box((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def outward(host: Part, channel: Box) -> Axis:
    """Give the axis a channel is sunk along: the one where it is open on one side of the host only.

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


__all__ = [
    "Channel", "Hold", "Joint", "Lines", "Meeting", "Names", "Sharing", "Tails", "channel_of", "contact", "lines",
    "meetings", "name_of_joint", "outward", "side_at", "tail_edges", "tail_frame",
]  # fmt: skip
