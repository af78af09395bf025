"""Boards of one's own: added to any form or to none, sized and placed freely, joined where they overlap.

Their sizes and places are quantities of the ledger like any other (``own1.length``,
``own1.x``), so they are given, measured and told like any other. Where two parts overlap,
`offers` says which joints the geometry allows.
"""

from __future__ import annotations

from collections.abc import Container, Iterable, Mapping
from itertools import count

from nullah.core.catalogue import N_, Name, Phrase
from nullah.core.forms.maker import Maker
from nullah.core.frozen_record import FrozenRecord
from nullah.core.joints.types import TYPES
from nullah.core.ledger import Definition, Ledger, Snap, given, work_out_ledger
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.faults import Channel
from nullah.core.piece.form import Assembly, Choices, Form
from nullah.core.piece.joint import Hold
from nullah.core.piece.part import Needs, Part
from nullah.core.piece.shaping import Shaping
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
    """A joint of one's own: `type` by its id, `hold` by its value."""

    id: str
    type: str
    first: str
    second: str
    hold: str = Hold.GLUE.value


class Offer(FrozenRecord):
    """A joint that two parts could have; `channel` is what one would be let into, where it is let in."""

    joint: OwnJoint
    channel: Channel | None = None


def next_own_id(own: Iterable[OwnBoard]) -> str:
    """Return an id that no board of one's own has."""
    return _free("own", {board.id for board in own})


def next_own_joint_id(joints: Iterable[OwnJoint]) -> str:
    """Return an id that no joint of one's own has."""
    return _free("ownjoint", {joint.id for joint in joints})


def _free(stem: str, taken: Container[str]) -> str:
    return next(name for number in count(1) if (name := f"{stem}{number}") not in taken)


def with_own(form: Form, own: tuple[OwnBoard, ...], joints: tuple[OwnJoint, ...]) -> Form:
    """Return the form with boards of one's own added."""
    if not own and not joints:
        return form

    def define(chosen: Choices) -> tuple[Definition, ...]:
        base = form.define(chosen)
        sizes = {board.id: (f"{board.id}.width", f"{board.id}.thickness") for board in own}
        if any(not {joint.first, joint.second} <= sizes.keys() and _figures_of(joint) for joint in joints):
            sizes |= _sizes_of(form, chosen, base)
        return (*base, *_define(own, joints, sizes))

    def assemble(ledger: Ledger, chosen: Choices) -> Assembly:
        return _assemble(form.assemble(ledger, chosen), ledger, own, joints)

    return form._replace(define=define, assemble=assemble)


def _sizes_of(form: Form, chosen: Choices, base: tuple[Definition, ...]) -> dict[str, tuple[str, str]]:
    """Return what the ledger calls width and thickness of each part of a form."""
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
                given(
                    f"{board.id}.{word}",
                    Phrase("{size} of {board}", size=word, board=_called(board)),
                    size,
                    snap=Snap.NOTHING,
                )
            )
        for letter, place, words in zip(
            "xyz", board.at, (N_("from the left"), N_("from the front"), N_("from the floor")), strict=True
        ):
            found.append(
                given(
                    f"{board.id}.{letter}",
                    Phrase("{board}, {way}", board=_called(board), way=words),
                    place,
                    snap=Snap.NOTHING,
                )
            )
    for joint in joints:
        if joint.first in sizes and joint.second in sizes:
            found += TYPES[joint.type].quantities(joint.id, sizes[joint.first], sizes[joint.second])
    return tuple(found)


def _called(board: OwnBoard) -> Name | Phrase:
    """Return what a board is called; one without a name by its number."""
    return Name(board.name) if board.name.strip() else Phrase("board {number}", number=board.id.removeprefix("own"))


def _assemble(base: Assembly, ledger: Ledger, own: tuple[OwnBoard, ...], joints: tuple[OwnJoint, ...]) -> Assembly:
    if base.remarks and not base.parts and any(remark.ref for remark in base.remarks):
        return base
    m = Maker.going_on(ledger, base)
    for board in own:
        at = [ledger[f"{board.id}.{letter}"] for letter in "xyz"]
        m.board(
            board.id,
            _called(board),
            board.id,
            at,
            board.lie,
            shows=board.shows,
            needs=Needs.ANY if board.inside else Needs.CLEAR,
            role="back" if board.inside else "case",
            shapings=board.shapings,
            own=True,
        )
    made = m.finish()
    ids = {part.id for part in made.parts}
    for joint in joints:
        if joint.first in ids and joint.second in ids:
            first, second = m.part(joint.first), m.part(joint.second)
            made_joint = TYPES[joint.type].between(joint.id, first, second, Hold(joint.hold), ledger)
            if made_joint is not None:
                m.add(made_joint._replace(id=f"{joint.first}-{joint.second}"))
    return m.finish()


def _figures_of(joint: OwnJoint) -> bool:
    """Return whether a joint has figures of its own, which need those of its parts."""
    return bool(TYPES[joint.type].quantities(joint.id, ("1", "1"), ("1", "1")))


# --- what the geometry allows ---------------------------------------------------------------------


def offers(first: Part, second: Part, joint_id: str) -> tuple[Offer, ...]:
    """Return the joints two parts could have where they overlap or touch, the likeliest first.

    Parameters
    ----------
    first, second : Part
    joint_id : str
        What the joint will be called in the project.
    """
    overlap = first.box.overlap(second.box)
    return tuple(
        Offer(OwnJoint(joint_id, each.id, way.first.id, way.second.id, way.hold.value), way.channel)
        for each in TYPES.values()
        for way in each.offered(first, second, overlap)
    )


__all__ = ["LIES", "Offer", "OwnBoard", "OwnJoint", "next_own_id", "next_own_joint_id", "offers", "with_own"]
