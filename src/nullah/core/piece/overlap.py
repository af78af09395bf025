"""The overlap rule: where two parts meet their boxes overlap, and a joint shares that out.

The geometry decides the name of a part let into another: at an edge it is a rabbet,
across the grain a dado, along the grain a groove.
"""

from __future__ import annotations

from collections.abc import Iterator
from enum import Enum
from itertools import combinations
from typing import NamedTuple

from nullah.core.piece.part import Box, Part


class Sharing(Enum):
    """How an overlap is shared out."""

    DOVETAIL = "dovetail"
    LET_IN = "let in"


class Joint(NamedTuple):
    """Two parts and how they share their overlap.

    For a dovetail `first` carries the tails and `second` the pins; where one part is let
    into another, `first` is cut into and `second` enters it.
    """

    id: str
    sharing: Sharing
    first: str
    second: str


class Meeting(NamedTuple):
    """Two parts that fill the same space, and that space."""

    first: Part
    second: Part
    box: Box


def meetings(parts: tuple[Part, ...]) -> Iterator[Meeting]:
    """Give every pair of parts whose boxes overlap."""
    for first, second in combinations(parts, 2):
        box = first.box.overlap(second.box)
        if box is not None:
            yield Meeting(first, second, box)


def name_of_channel(host: Part, channel: Box) -> str:
    """Name what is cut into `host` to take `channel`: rabbet, dado or groove.

    Examples
    --------
    See `tests/core/test_piece.py`: a bottom let into a side is a groove, a shelf a dado.
    """
    grain, across = host.grain, host.across
    along_grain = channel.size(grain) >= channel.size(across)
    side = across if along_grain else grain
    at_edge = (
        channel.low[side.value] <= host.box.low[side.value] or channel.high[side.value] >= host.box.high[side.value]
    )
    if at_edge:
        return "rabbet"
    return "groove" if along_grain else "dado"


def unshared(parts: tuple[Part, ...], joints: tuple[Joint, ...]) -> tuple[str, ...]:
    """Say, a sentence each, which parts collide without a joint and which joints join nothing."""
    joined = {frozenset((joint.first, joint.second)): joint for joint in joints}
    met = {frozenset((m.first.id, m.second.id)): m for m in meetings(parts)}
    names = {part.id: part.name for part in parts}
    complaints = [
        f"The {m.first.name} and the {m.second.name} fill the same space, and no joint shares it out."
        for pair, m in met.items()
        if pair not in joined
    ]
    complaints += [
        f"The {names[joint.first]} and the {names[joint.second]} do not meet, so their joint has nothing to hold."
        for pair, joint in joined.items()
        if pair not in met
    ]
    return tuple(complaints)
