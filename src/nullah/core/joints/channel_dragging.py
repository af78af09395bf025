"""A rabbet's, dado's or groove's lines taken in the hand: its second wall, its stop, its floor.

Places are those of `mate_views`: the face view with its upper left corner at (0, 0), the edge view below.
"""

from __future__ import annotations

from nullah.core.drawing import Point
from nullah.core.joints.bench import THINNEST
from nullah.core.joints.cutouts import Cutout
from nullah.core.joints.dragged import Dragged, Held, KeptOut, held_within
from nullah.core.joints.kinds import JointGroup
from nullah.core.joints.mate_views import edge_view_from, is_from_below, shown_part
from nullah.core.named_tuple import NamedTuple

# A stop leaves at least so much of the channel, mm.
_LEAST_LONG = 20.0


class Handle(NamedTuple):
    """A line that can be dragged: the ledger's name behind it, what it is, and whether it goes up and down."""

    name: str
    what: str
    upright: bool


def handles(kind: JointGroup) -> tuple[tuple[Handle, Point, Point], ...]:
    """Return the lines of a channel that stand for a figure of the ledger, each from where to where, mm."""
    host, names = kind.first, kind.joint.names
    if not kind.joint.type.captures or not host.cutouts:
        return ()
    cut, shown = host.cutouts[0], shown_part(host)
    wide, across_grain = float(host.sizes.across), _across_grain(cut)
    x0, x1 = float(cut.along[0]) - shown.low, min(float(cut.along[1]), shown.high) - shown.low
    y0, y1 = wide - float(cut.across[1]), wide - float(cut.across[0])
    found: list[tuple[Handle, Point, Point]] = []
    if names.width and across_grain:
        found.append((Handle(names.width, "width", False), (x1, y0), (x1, y1)))
    elif names.width:
        found.append((Handle(names.width, "width", True), (max(x0, 0.0), y0), (x1, y0)))
    if names.stop and across_grain and cut.across[0] > 0:
        found.append((Handle(names.stop, "stop", True), (x0, y1), (x1, y1)))
    floor = edge_view_from(host) + _depth_drawn(kind, float(cut.size(2)))
    if names.depth:
        found.append((Handle(names.depth, "depth", True), (max(x0, 0.0), floor), (x1, floor)))
    return tuple(found)


def _across_grain(cut: Cutout) -> bool:
    return cut.size(0) <= cut.size(1)


def _depth_drawn(kind: JointGroup, depth: float) -> float:
    """Return how far below the top of the edge view a floor lies: the face that is cut lies uppermost."""
    host = kind.first
    cut = host.cutouts[0]
    start = float(cut.through[0]) if is_from_below(host) else float(host.sizes.through - cut.through[1])
    return start + depth


def handle_at(kind: JointGroup, at: Point, near: float) -> Handle | None:
    """Return the line nearest to a place, within `near` mm.

    Parameters
    ----------
    kind : JointGroup
        The joint.
    at : Point
        Of the drawing, mm.
    near : float
        mm.
    """
    best, distance = None, near
    for handle, low, high in handles(kind):
        along, off = (0, 1) if handle.upright else (1, 0)
        if not min(low[along], high[along]) - near <= at[along] <= max(low[along], high[along]) + near:
            continue
        away = abs(at[off] - low[off])
        if away <= distance:
            best, distance = handle, away
    return best


def channel_dragged(kind: JointGroup, handle: Handle, at: Point) -> Dragged:
    """Return what a line dragged to a place comes to, to 0.1 mm, held within what can be made.

    Parameters
    ----------
    kind : JointGroup
        The joint.
    handle : Handle
        The line.
    at : Point
        Of the drawing, mm.
    """
    host, guest = kind.first, kind.second
    cut, shown = host.cutouts[0], shown_part(host)
    wide, thick = float(host.sizes.across), float(host.sizes.through)
    if handle.what == "depth":
        value = at[1] - edge_view_from(host) - _depth_drawn(kind, 0.0)
        return held_within(handle.name, value, 1.0, thick - THINNEST, Held.HOLDS_NOTHING, Held.BREAKS_UNDER)
    if handle.what == "stop":
        return held_within(handle.name, wide - at[1], 0.0, float(cut.across[1]) - _LEAST_LONG, None, Held.NOTHING_LEFT)
    if _across_grain(cut):
        value, room = at[0] + shown.low - float(cut.along[0]), float(host.sizes.along - cut.along[0])
    else:
        value, room = wide - at[1] - float(cut.across[0]), float(host.sizes.across - cut.across[0])
    enters = float(min(guest.sizes.through, guest.sizes.across))
    # A tongue or shoulder on the mate may be thinner than the mate.
    least = 1.0 if guest.cutouts else enters
    return held_within(
        handle.name,
        value,
        least,
        max(least, min(room, enters * 3)),
        Held.NOTHING_ENTERS if guest.cutouts else KeptOut(guest.part.id),
        Held.RATTLES,
    )
