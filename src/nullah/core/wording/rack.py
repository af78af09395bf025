"""What is said of boards on the rack: their wood, flaws, and price, whether they are dry, and how to look at them."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.card import Remark, Severity
from nullah.core.catalogue import N_
from nullah.core.limits import quoted
from nullah.core.rack.board import Board, Faces, Flaw, write_price
from nullah.core.rack.drying import Readiness, Room, readiness
from nullah.core.reader import Reader, sentence
from nullah.core.wood.movement import GrainCut, coefficient
from nullah.core.wood.species import SOURCE, STRENGTH_SOURCE, Species
from nullah.core.wording.laying import FLAWS, SAWN

_ON_FACE = {Faces.THROUGH: N_("{flaw}"), Faces.UP: N_("{flaw}, upper face"), Faces.DOWN: N_("{flaw}, lower face")}
_SAWN = {
    GrainCut.FLAT: N_("{species}, flat-sawn: it cups."),
    GrainCut.RIFT: N_("{species}, rift-sawn."),
    GrainCut.QUARTER: N_("{species}, quarter-sawn: it stays flat."),
}
_HARD = {
    "soft": N_("Soft wood; the board weighs about {weight}."),
    "medium": N_("Medium wood; the board weighs about {weight}."),
    "hard": N_("Hard wood; the board weighs about {weight}."),
}
_END = {
    True: N_("Its left end, {cut}: the heart lies there"),
    False: N_("Its left end, {cut}: drag to where the heart of the tree lies"),
}
_MARKING = (
    N_("Drag on the board to mark a flaw; drag its border to change it; Delete rubs it out."),
    N_("Drag on the end grain to where the heart of the tree lies: the rings follow."),
    N_("Lay the board on a flat bench, three corners down: twist is the gap under the fourth."),
    N_("Straightedge across for cup, along for bow: the gap at the middle."),
)
#: What a size of a rough board is called on its card, and what it is, by the name of the size.
SIZES = {
    "length": (N_("Length"), N_("rough")),
    "width": (N_("Width"), N_("rough")),
    "thickness": (N_("Thickness"), N_("rough")),
    "cup": (N_("Cup"), N_("hollow or hump across")),
    "bow": (N_("Bow"), N_("hollow or hump along")),
    "twist": (N_("Twist"), N_("the corner that stands up")),
}


def flaw_words(flaw: Flaw, reader: Reader) -> str:
    """Return what a flaw is, with the face it is on.

    Examples
    --------
    >>> from nullah.core.lengths import mm
    >>> from nullah.core.rack.board import FlawKind
    >>> flaw_words(Flaw(FlawKind.KNOT, mm(1), mm(2), mm(1), mm(2), Faces.UP), Reader())
    'knot, upper face'
    """
    return reader.text(_ON_FACE[flaw.faces], flaw=reader.text(FLAWS[flaw.kind]))


def end_grain_words(board: Board, reader: Reader) -> str:
    """Return what the large picture of a board's end is, and what can be done on it."""
    return reader.text(_END[board.heart is not None], cut=reader.text(SAWN[board.cut]))


def how_to_look(reader: Reader) -> tuple[str, ...]:
    """Return how flaws and shape are taken off a board."""
    return tuple(map(reader.text, _MARKING))


def wood_remarks(board: Board, species: Species, reader: Reader) -> tuple[Remark, ...]:
    """Return what a board is, how it was sawn, how heavy it is at 12 % moisture, and where it is from."""
    volume = board.length.mm * board.width.mm * board.thickness.mm
    weight = reader.marks.write_weight(float(volume) * 1e-9 * species.density)
    return (
        Remark(reader.text(_SAWN[board.cut], species=sentence(reader.text(species.name)))),
        Remark(reader.text(_HARD[species.hardness_class], weight=weight)),
        Remark(_bought(board, reader)),
    )


def _bought(board: Board, reader: Reader) -> str:
    volume = board.length.mm * board.width.mm * board.thickness.mm
    worked = reader.text("dressed") if board.dressed else reader.text("rough")
    what = ", ".join(word for word in (board.colour, worked, board.source) if word)
    values = {"what": sentence(what), "volume": reader.marks.write_volume(float(volume))}
    if not board.price:
        return reader.text("{what}: {volume}.", **values)
    return reader.text("{what}: {volume}, {price} paid.", **values, price=write_price(board.price))


def known_of_wood(species: Species, cut: GrainCut, reader: Reader) -> str:
    """Return what is known of a wood, and from where."""
    return reader.text(
        "{species}, {cut}: its width changes {moves} % for each per cent of moisture ({source}). "
        "{density} kg/m³, stiffness {stiffness} GPa, hardness {hardness} N ({other}).",
        species=sentence(reader.text(species.name)),
        cut=reader.text(SAWN[cut]),
        moves=f"{coefficient(species, cut) * 100:.3f}",
        source=SOURCE,
        density=f"{species.density:.0f}",
        stiffness=f"{species.stiffness:g}",
        hardness=f"{species.hardness:.0f}",
        other=STRENGTH_SOURCE,
    )


def flaws_remark(board: Board, reader: Reader) -> Remark:
    """Return which flaws a board has, and which of its faces is clear."""
    if not board.flaws:
        return Remark(reader.text("No flaw marked."))
    kinds = [flaw.kind for flaw in board.flaws]
    listed = ", ".join(f"{kinds.count(kind)} × {reader.text(FLAWS[kind])}" for kind in dict.fromkeys(kinds))
    seen = {flaw.faces for flaw in board.flaws}
    if Faces.THROUGH in seen or len(seen) == 2:
        clear = N_("Neither face is clear.")
    else:
        clear = N_("The lower face is clear.") if Faces.UP in seen else N_("The upper face is clear.")
    return Remark(
        reader.text(
            "Flaws: {flaws}. {clear} Checks, splits, wane and run-out never go into a part.",
            flaws=listed,
            clear=reader.text(clear),
        )
    )


def old_wood_remark(reader: Reader) -> Remark:
    """Return what to beware of in rough and in old wood."""
    return Remark(
        reader.text("Gloves for rough lumber. Look for nails in old wood; treated pallets marked MB: do not use.")
    )


def pick_a_board(reader: Reader) -> Remark:
    """Return what to do where no board is picked."""
    return Remark(reader.text("Pick a board to see what it is."))


def rack_state(boards: Sequence[Board], room: Room, reader: Reader) -> str:
    """Return how many boards there are, and how many of them are not dry."""
    if not boards:
        return reader.text("no boards yet")
    found = [readiness(board, room) for board in boards]
    damp = sum(each is not None and not each.ready for each in found)
    if damp:
        return reader.count(len(boards), "{n} board, {damp} not ready", "{n} boards, {damp} not ready", damp=damp)
    return reader.count(len(boards), "{n} board", "{n} boards")


# --- is it dry? -----------------------------------------------------------------------------------


def dryness(board: Board, room: Room, rough_size: tuple[float, float] | None, reader: Reader) -> Remark:
    """Return whether a board is dry, or when it should be, and what sawing it into parts of a size, mm, would save."""
    if not board.readings:
        unread = reader.text("No moisture reading yet: nobody knows whether it is dry.")
        return Remark(unread, Severity.WARNING)
    latest = max(board.readings, key=lambda reading: reading.day)
    read = {"percent": f"{float(latest.percent):g}", "day": latest.day}
    found = readiness(board, room)
    if found is None:
        unknown = reader.text(
            "{percent} % on {day}. Read the piece that lives in the room, or give the room's air, to know whether that "
            "is dry.",
            **read,
        )
        return Remark(unknown, Severity.WARNING)
    points = f"{abs(found.difference):.1f}"
    if found.ready:
        dry = (
            N_("Dry: {percent} % on {day}, {points} points above the room.")
            if found.difference >= 0
            else N_("Dry: {percent} % on {day}, {points} points below the room.")
        )
        return Remark(reader.text(dry, **read, points=points))
    damp = (
        N_("{percent} % on {day}, {points} points above the room. {ready}")
        if found.difference >= 0
        else N_("{percent} % on {day}, {points} points below the room. {ready}")
    )
    sooner = readiness(board, room, rough_size) if rough_size is not None else None
    ready = _ready_on(found, sooner, reader)
    return Remark(reader.text(damp, **read, points=points, ready=ready), Severity.WARNING)


def _ready_on(found: Readiness, sooner: Readiness | None, reader: Reader) -> str:
    early, middle, late = found.on
    told = reader.text(
        "Ready about {middle}; one in ten before {early}, one in ten after {late}.",
        early=early,
        middle=middle,
        late=late,
    )
    if sooner is None or sooner.on[1] >= middle:
        return told
    return f"{told} {reader.text('Sawn into its rough parts now: about {day}.', day=sooner.on[1])}"


def curve_words(board: str, reader: Reader) -> tuple[str, str]:
    """Return what the curve of a board's moisture asks, and what the days in it are."""
    return reader.text("Is {board} dry?", board=board), reader.text("ready, most likely, between these days")


def room_words(percent: float, reader: Reader) -> str:
    """Return the moisture that wood comes to in the room."""
    return reader.text("room {percent} %", percent=f"{percent:.1f}")


def passed_over_words(headings: Sequence[str], table: str, reader: Reader) -> str:
    """Return which columns of a table of boards nothing was taken of."""
    return reader.count(
        len(headings),
        "Nothing is taken of the column {headings} of {table}.",
        "Nothing is taken of the columns {headings} of {table}.",
        headings=reader.listed(quoted(heading) for heading in headings),
        table=table,
    )
