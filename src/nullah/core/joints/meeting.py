"""How two parts meet where they overlap: at an end, through a section, at a corner; types of joint offer by it."""

from __future__ import annotations

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.ledger import Definition, Ledger, Snap, ruled
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


def within(guest: Part, overlap: Box) -> bool:
    """Return whether the whole section of a part lies in an overlap: nothing of it goes past beside."""
    return all(overlap.size(axis) == guest.box.size(axis) for axis in (guest.across, guest.face))


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


def in_the_middle(overlap: Box, guest: Part, thick: Fraction, shoulder: Fraction) -> Box:
    """Return the middle of an overlap's thickness, with a shoulder at either edge.

    Parameters
    ----------
    overlap : Box
        What both parts share, mm.
    guest : Part
        The part that has the tenon.
    thick, shoulder : Fraction
        How thick the tenon is, and how far its edges lie in from those of the part, mm.
    """
    axis, across = guest.face, guest.across
    low = overlap.low[axis.value] + (overlap.size(axis) - thick) / 2
    found = overlap.set(axis, low, low + thick)
    return found.set(across, found.low[across.value] + shoulder, found.high[across.value] - shoulder)


def tongue_sizes(prefix: str, width: str, thickness: str, shoulders: bool) -> tuple[Definition, ...]:
    """Declare how thick a tongue is, a third of its part to a chisel there is, and its shoulders where it has any."""
    thick = ruled(f"{prefix}.thickness", N_("thickness of the tenon"), f"{thickness} / 3", snap=Snap.CHISEL)
    if not shoulders:
        return (thick,)
    rule = f"min(6, {width} / 6)"
    return thick, ruled(f"{prefix}.shoulder", N_("shoulder at the edges of the tenon"), rule, snap=Snap.MARK)


def tongue_of(overlap: Box, guest: Part, prefix: str, ledger: Ledger) -> Box:
    """Return a tongue of the sizes that the ledger has; the usual ones where it has none."""
    figures = ledger.quantities
    thick = figures[f"{prefix}.thickness"].value if f"{prefix}.thickness" in figures else overlap.size(guest.face) / 3
    shoulder = figures[f"{prefix}.shoulder"].value if f"{prefix}.shoulder" in figures else Fraction(0)
    return in_the_middle(overlap, guest, thick, shoulder)
