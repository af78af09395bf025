"""Boards of one's own: added to any form or to none, sized and placed freely, joined where they overlap.

Their sizes and places are quantities of the ledger like any other (``own1.length``,
``own1.x``), so they are given, measured and told like any other. Where two parts overlap,
`offers` says which joints the geometry allows.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from fractions import Fraction
from typing import NamedTuple

from nullah.core.catalogue import N_, Name, Phrase
from nullah.core.forms.maker import Maker, given, tail_sizes
from nullah.core.ledger import Definition, Ledger, work_out_ledger
from nullah.core.lengths import Length
from nullah.core.piece.form import Assembly, Choices, Form
from nullah.core.piece.overlap import Channel, Hold, Sharing, channel_of, contact
from nullah.core.piece.part import Needs, Part
from nullah.core.piece.shaping import Shaping
from nullah.core.piece.space import Axis, Box
from nullah.core.rules import LedgerError

#: The two letters of `OwnBoard.lie`: axis of the length, axis of the thickness.
LIES = ("xy", "xz", "yx", "yz", "zx", "zy")


class OwnBoard(NamedTuple):
    """A board of one's own as it was added; what was typed or dragged since stands in the ledger.

    `sizes` are length, width and thickness, `at` its low corner; `lie` as in `LIES`; `shows`
    the first letters of the sides seen.
    """

    id: str
    name: str
    sizes: tuple[Length, Length, Length]
    at: tuple[Length, Length, Length]
    lie: str = "xz"
    shows: str = ""
    inside: bool = False
    shapings: tuple[Shaping, ...] = ()


class OwnJoint(NamedTuple):
    """A joint of one's own: `sharing` and `hold` by their values."""

    id: str
    sharing: str
    first: str
    second: str
    hold: str = Hold.GLUE.value

    @property
    def between_own(self) -> bool:
        """Whether both parts are of one's own."""
        return self.first.startswith("own") and self.second.startswith("own")


class Offer(NamedTuple):
    """A joint that two parts could have; `channel` is what one would be let into, where it is let in."""

    joint: OwnJoint
    channel: Channel | None = None


def next_own_id(own: Iterable[OwnBoard]) -> str:
    """Give an id that no board of one's own has."""
    return f"own{max((int(board.id[3:]) for board in own), default=0) + 1}"


def with_own(form: Form, own: tuple[OwnBoard, ...], joints: tuple[OwnJoint, ...]) -> Form:
    """Give the form with boards of one's own added."""
    if not own and not joints:
        return form

    def define(chosen: Choices) -> tuple[Definition, ...]:
        base = form.define(chosen)
        sizes = {board.id: (f"{board.id}.width", f"{board.id}.thickness") for board in own}
        if any(joint.sharing == Sharing.DOVETAIL.value and not joint.between_own for joint in joints):
            sizes |= _sizes_of(form, chosen, base)
        return (*base, *_define(own, joints, sizes))

    def assemble(ledger: Ledger, chosen: Choices) -> Assembly:
        return _assemble(form.assemble(ledger, chosen), ledger, own, joints)

    return form._replace(define=define, assemble=assemble)


def _sizes_of(form: Form, chosen: Choices, base: tuple[Definition, ...]) -> dict[str, tuple[str, str]]:
    """Give what the ledger calls width and thickness of each part of a form."""
    try:
        parts = form.assemble(work_out_ledger(base, {}, {}), chosen).parts
    except LedgerError:
        return {}
    return {part.id: part.quantities[1:] for part in parts}


def _define(
    own: tuple[OwnBoard, ...], joints: tuple[OwnJoint, ...], sizes: Mapping[str, tuple[str, str]]
) -> tuple[Definition, ...]:
    found: list[Definition] = []
    for board in own:
        for word, size in zip((N_("length"), N_("width"), N_("thickness")), board.sizes, strict=True):
            found.append(
                given(f"{board.id}.{word}", Phrase("{size} of {board}", size=word, board=Name(board.name)), size)
            )
        for letter, place, words in zip(
            "xyz", board.at, (N_("from the left"), N_("from the front"), N_("from the floor")), strict=True
        ):
            found.append(
                given(f"{board.id}.{letter}", Phrase("{board}, {way}", board=Name(board.name), way=words), place)
            )
    for joint in joints:
        if joint.sharing == Sharing.DOVETAIL.value and joint.first in sizes and joint.second in sizes:
            (width, tail), (_, pin) = sizes[joint.first], sizes[joint.second]
            found += tail_sizes(f"{joint.id}_tails", tail, pin, width, 3)
    return tuple(found)


def _assemble(base: Assembly, ledger: Ledger, own: tuple[OwnBoard, ...], joints: tuple[OwnJoint, ...]) -> Assembly:
    if base.remarks and not base.parts and any(remark.of for remark in base.remarks):
        return base
    m = Maker.going_on(ledger, base)
    for board in own:
        at = [ledger[f"{board.id}.{letter}"] for letter in "xyz"]
        m.board(board.id, board.name, board.id, at, board.lie, shows=board.shows,
                needs=Needs.ANY if board.inside else Needs.CLEAR, role="back" if board.inside else "case",
                shapings=board.shapings)  # fmt: skip
    made = m.finish()
    ids = {part.id for part in made.parts}
    for joint in joints:
        known = joint.sharing != Sharing.DOVETAIL.value or f"{joint.id}_tails.count" in ledger.quantities
        if joint.first in ids and joint.second in ids and known:
            _join(m, joint)
    return m.finish()


def _join(m: Maker, joint: OwnJoint) -> None:
    host, guest, hold = m.part(joint.first), m.part(joint.second), Hold(joint.hold)
    sharing = Sharing(joint.sharing)
    overlap = host.box.overlap(guest.box)
    match sharing:
        case Sharing.DOVETAIL:
            m.dovetail(joint.first, joint.second, f"{joint.id}_tails")
        case Sharing.BUTT:
            m.butt(joint.first, joint.second, hold)
        case Sharing.MITRE:
            m.mitre(joint.first, joint.second, hold)
        case Sharing.LAP:
            m.lap(joint.first, joint.second, host.face.name.lower(), hold)
        case Sharing.TENON if overlap is not None:
            m.tenon(joint.first, joint.second, (_third(overlap, guest, shoulders=True),), hold)
        case Sharing.BRIDLE if overlap is not None:
            share = _third(overlap, guest, shoulders=False)
            m.let_in(joint.first, joint.second, shares=(share,), channels=(share,), hold=hold, sharing=Sharing.BRIDLE)
        case _:
            m.let_in(joint.first, joint.second, channels=(overlap,) if overlap else (), hold=hold, sharing=sharing)


def _third(overlap: Box, guest: Part, shoulders: bool) -> Box:
    """Give the middle third of an overlap's thickness, with a shoulder at either edge where there is width."""
    axis = guest.face
    low, third = overlap.low[axis.value], overlap.size(axis) / 3
    found = overlap.set(axis, low + third, low + 2 * third)
    edge = min(Fraction(6), overlap.size(guest.across) / 6)
    if shoulders:
        across = guest.across
        found = found.set(across, found.low[across.value] + edge, found.high[across.value] - edge)
    return found


# --- what the geometry allows ---------------------------------------------------------------------


def offers(first: Part, second: Part, number: int) -> tuple[Offer, ...]:
    """Give the joints two parts could have where they overlap or touch, the likeliest first.

    Parameters
    ----------
    first, second : Part
    number : int
        Makes the joint's id.
    """
    overlap = first.box.overlap(second.box)
    joint_id = f"ownjoint{number}"
    if overlap is None:
        if contact(first, second) is None:
            return ()
        return tuple(
            Offer(OwnJoint(joint_id, Sharing.BUTT.value, first.id, second.id, hold.value))
            for hold in (Hold.GLUE, Hold.NAILS, Hold.SCREWS, Hold.SLOTS)
        )
    found: list[Offer] = []

    def offer(sharing: Sharing, host: Part, guest: Part, channel: Channel | None = None) -> None:
        found.append(Offer(OwnJoint(joint_id, sharing.value, host.id, guest.id), channel))

    if _corner(first, second, overlap):
        for tail, pin in ((first, second), (second, first)):
            offer(Sharing.DOVETAIL, tail, pin)
    for host, guest in ((first, second), (second, first)):
        if overlap.holds(guest.box) or not _enters(host, guest, overlap):
            continue
        offer(Sharing.LET_IN, host, guest, channel_of(host, overlap))
        if _end_of(guest, overlap) and host.grain is not guest.grain:
            if _through(host, overlap, guest.grain) and _end_of(host, overlap) and host.face is guest.face:
                offer(Sharing.BRIDLE, host, guest)
            elif not _open_edge(host, overlap, guest):
                offer(Sharing.TENON, host, guest)
    if first.face is second.face and first.grain is not second.grain:
        offer(Sharing.LAP, first, second)
        if _end_of(first, overlap) and _end_of(second, overlap):
            offer(Sharing.MITRE, first, second)
    return tuple(found)


def _at_end(part: Part, overlap: Box, axis: Axis) -> bool:
    a = axis.value
    return (overlap.low[a] == part.box.low[a]) != (overlap.high[a] == part.box.high[a])


def _end_of(part: Part, overlap: Box) -> bool:
    return _at_end(part, overlap, part.grain)


def _through(host: Part, overlap: Box, axis: Axis) -> bool:
    return overlap.size(axis) == host.box.size(axis)


def _corner(first: Part, second: Part, overlap: Box) -> bool:
    """Whether two boards make a corner for dovetails: both at an end, with one common direction of width."""
    return (
        first.grain is not second.grain
        and first.face is second.grain
        and second.face is first.grain
        and _end_of(first, overlap)
        and _end_of(second, overlap)
    )


def _enters(host: Part, guest: Part, overlap: Box) -> bool:
    """Whether an end or an edge of the guest lies in the host, and not the whole of its section runs through."""
    if not any(_at_end(guest, overlap, axis) for axis in (guest.grain, guest.across, guest.face)):
        return False
    return any(overlap.size(axis) < host.box.size(axis) for axis in Axis)


def _open_edge(host: Part, overlap: Box, guest: Part) -> bool:
    """Whether the overlap reaches an end or edge of the host beside the guest's section."""
    others = [axis for axis in Axis if axis is not guest.grain]
    a = [axis for axis in others if _through(host, overlap, axis)]
    return bool(a) and any(_at_end(host, overlap, axis) for axis in others)


__all__ = ["LIES", "Offer", "OwnBoard", "OwnJoint", "next_own_id", "offers", "with_own"]
