"""How two parts meet where they overlap: at an end, through a section, at a corner; types of joint offer by it."""

from __future__ import annotations

from fractions import Fraction

from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box


def at_end(part: Part, overlap: Box) -> bool:
    """Return whether an overlap lies at one end of a part, along its grain."""
    return at_one_side(part, overlap, part.grain)


def at_one_side(part: Part, overlap: Box, axis: Axis) -> bool:
    """Return whether an overlap reaches one side of a part along an axis, and not the other."""
    a = axis.value
    return (overlap.low[a] == part.box.low[a]) != (overlap.high[a] == part.box.high[a])


def goes_through(host: Part, overlap: Box, axis: Axis) -> bool:
    """Return whether an overlap goes through a part along an axis."""
    return overlap.size(axis) == host.box.size(axis)


def box_corner(first: Part, second: Part, overlap: Box) -> bool:
    """Return whether two boards make the corner of a box: both at an end, with one common direction of width."""
    return (
        first.grain is not second.grain
        and first.face is second.grain
        and second.face is first.grain
        and at_end(first, overlap)
        and at_end(second, overlap)
    )


def enters(host: Part, guest: Part, overlap: Box) -> bool:
    """Return whether an end or an edge of a part lies in another, whose whole section it does not run through."""
    if overlap.holds(guest.box):
        return False
    if not any(at_one_side(guest, overlap, axis) for axis in (guest.grain, guest.across, guest.face)):
        return False
    return any(overlap.size(axis) < host.box.size(axis) for axis in Axis)


def leaves_a_wall(host: Part, overlap: Box) -> bool:
    """Return whether what is cut for an overlap leaves its host a wall, and not merely shorter, narrower or thinner."""
    return sum(overlap.size(axis) < host.box.size(axis) for axis in Axis) > 1


def open_at_edge(host: Part, overlap: Box, guest: Part) -> bool:
    """Return whether an overlap reaches an end or edge of a part beside the section of what enters it."""
    others = [axis for axis in Axis if axis is not guest.grain]
    return any(goes_through(host, overlap, axis) for axis in others) and any(
        at_one_side(host, overlap, axis) for axis in others
    )


def is_bridle(host: Part, guest: Part, overlap: Box) -> bool:
    """Return whether a part ends in another's end, through it, face on face."""
    return (
        at_end(guest, overlap)
        and host.grain is not guest.grain
        and goes_through(host, overlap, guest.grain)
        and at_end(host, overlap)
        and host.face is guest.face
    )


def middle_third(overlap: Box, guest: Part, shoulders: bool) -> Box:
    """Return the middle third of an overlap's thickness, with a shoulder at either edge where there is width."""
    axis = guest.face
    low, third = overlap.low[axis.value], overlap.size(axis) / 3
    found = overlap.set(axis, low + third, low + 2 * third)
    edge = min(Fraction(6), overlap.size(guest.across) / 6)
    if shoulders:
        across = guest.across
        found = found.set(across, found.low[across.value] + edge, found.high[across.value] - edge)
    return found
