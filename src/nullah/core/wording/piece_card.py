"""What the card of the Piece says: whether it goes together, what to cut to, what to measure first, what moves."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.card import Remark, Setting
from nullah.core.catalogue import N_
from nullah.core.lengths import Length
from nullah.core.reader import Reader, sentence


def counted_words(parts: int, joints: int, reader: Reader) -> str:
    """Return of how many parts and joints a piece is.

    Examples
    --------
    >>> counted_words(6, 1, Reader())
    '6 parts, one joint'
    """
    return reader.text(
        "{parts}, {joints}",
        parts=reader.count(parts, "one part", "{n} parts"),
        joints=reader.count(joints, "one joint", "{n} joints"),
    )


def verdict(counted: str, failing: int | None, warned: int, reader: Reader) -> Setting:
    """Return whether a piece goes together: so many things `failing`, None where it is still being looked at."""
    title = reader.text("Proof")
    if failing is None:
        return Setting(title, "…", reader.text("putting it together"))
    if failing:
        return Setting(title, reader.count(failing, "{n} to mend", "{n} to mend"), counted)
    if not warned:
        return Setting(title, reader.text("goes together"), counted)
    look = reader.count(warned, "{counted}; {n} to look at", "{counted}; {n} to look at", counted=counted)
    return Setting(title, reader.text("goes together"), look)


def sizes_left_out(number: int, reader: Reader) -> Setting:
    """Return that so many sizes of what moves stand on the cut list only."""
    note = reader.count(number, "{n} more size stands there", "{n} more sizes stand there")
    return Setting(reader.text("Drawers and lids"), reader.text("cut list"), note)


def measure_first(planned: str, reader: Reader) -> str:
    """Return that a size is only planned."""
    return reader.text("planned {figure}; measure first", figure=planned)


def spare_words(finished: Length, reader: Reader) -> str:
    """Return what is left of a part whose ends are left proud."""
    return reader.text("{length} finished, the rest is planed flush", length=reader.length(finished))


def waiting_words(first: str, measured: Sequence[str], others: Sequence[str], reader: Reader) -> tuple[str, ...]:
    """Return what must not be cut yet: the `first` part, what is `measured` for it, and which `others` wait too."""
    lines = [
        reader.text(
            "{part}: wait. Measure {sizes} on what it fits, as the Day Book says, then cut.",
            part=sentence(first),
            sizes=reader.listed(measured),
        )
    ]
    if others:
        lines.append(reader.text("So too: {parts}.", parts=reader.listed(others, most=3)))
    return tuple(lines)


def to_measure_words(title: str, planned: str, reader: Reader) -> tuple[str, str, str]:
    """Return that a quantity is to be measured, that it was not yet, and what is planned."""
    return (
        reader.text("Measure {size}", size=title),
        reader.text("not yet"),
        reader.text("planned {figure}", figure=planned),
    )


def moves_remark(part: str, change: Length, room: Length | None, reader: Reader) -> Remark:
    """Return how much a part moves over the year, and in what room, None where nothing holds it apart."""
    if room is None:
        return Remark(
            sentence(
                reader.text(
                    "{part} moves about {change} in width over the year.",
                    part=reader.the(part),
                    change=reader.fine(change),
                )
            )
        )
    return Remark(
        reader.text(
            "It moves about {change} over the year; it has {room} of room. Do not glue it.",
            change=reader.fine(change),
            room=reader.fine(room),
        )
    )


def nothing_yet(reader: Reader) -> Remark:
    """Return how a piece of one's own is begun."""
    return Remark(
        reader.text("Add a board, then drag and type it into its place. Where two overlap, a joint is offered.")
    )


#: What stands in place of the sizes of a piece that has none.
NONE_YET, CANNOT_BE = N_("no boards yet"), N_("cannot be made yet")


def to_mend_words(number: int, reader: Reader) -> str:
    """Return how many things of a piece are to be mended."""
    return reader.count(number, "{n} thing to mend", "{n} things to mend")
