"""Edges that are moulded on both boards of a corner: there the corner is mitred, so that the moulding turns it."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.fraction import Fraction
from nullah.core.joints.dovetail.tails import tails_of
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Chamfer, RoundOver

_NONE = Fraction(0)


def moulded_edges(one: Part, two: Part) -> tuple[Fraction, Fraction]:
    """Return how wide the moulding is that both boards have along their lower and their upper edge, mm; 0 without."""
    common = set(_moulded(one)) & set(_moulded(two))
    lower, upper = (max((wide for high, wide in common if high is side), default=_NONE) for side in (False, True))
    return lower, upper


def _moulded(part: Part) -> Iterator[tuple[bool, Fraction]]:
    """Yield the long edges of a board that are chamfered or rounded: whether the upper one, and how wide, mm."""
    for shaping in part.shapings:
        if not isinstance(shaping, Chamfer | RoundOver) or {side.axis for side in shaping.edge} != {
            part.across,
            part.face,
        }:
            continue
        size = shaping.width if isinstance(shaping, Chamfer) else shaping.radius
        for side in shaping.edge:
            if side.axis is part.across:
                yield side.high, Fraction(size).limit_denominator(1000)


def mitred_where_moulded(joint: Joint, tail: Part, pin: Part) -> Joint:
    """Return a through dovetail its mitres where both its boards are moulded; a mitre is no wider than the half-pin."""
    tails = tails_of(joint)
    if tails is None or tails.lap > 0:
        return joint
    lower, upper = (min(wide, tails.half_pin) for wide in moulded_edges(tail, pin))
    if not lower and not upper:
        return joint
    return joint._replace(figures=tails._replace(mitres=(lower, upper)))
