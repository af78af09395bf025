"""What the bench and the card of the Breakdown say: what lies where, how much wood and sawing it takes."""

from __future__ import annotations

from nullah.core.breakdown.rough import Allowances
from nullah.core.card import Setting
from nullah.core.lengths import Direction, Length
from nullah.core.rack.board import Board
from nullah.core.reader import Reader

# --- the drawing ----------------------------------------------------------------------------------


def without_wood(reader: Reader) -> str:
    """Return what stands over the parts that lie nowhere."""
    return reader.text("Without wood: drag them onto a board")


def rest_words(used: bool, reader: Reader) -> str:
    """Return what the rest of a board is, or the whole of one that is not used."""
    return reader.text("offcut") if used else reader.text("not needed")


def board_words(board: Board, reader: Reader) -> str:
    """Return what a board is called, and its size."""
    write = reader.marks.write
    size = f"{write(board.length, unit=False)} × {write(board.width, unit=False)} × {write(board.thickness)}"
    if board.sawn:
        return reader.text("{board} · {size} · sawn up", board=board.name, size=size)
    return reader.text("{board} · {size}", board=board.name, size=size)


def turned_words(flipped: bool, over: bool, reader: Reader) -> str:
    """Return how a part lies that was turned end for end, or face down."""
    if flipped and over:
        return reader.text("end for end and face down")
    return reader.text("end for end") if flipped else reader.text("face down")


# --- the card -------------------------------------------------------------------------------------


def card_title(board: str, reader: Reader) -> str:
    """Return the title of the card: which board is broken down, if one is shown."""
    return reader.text("Breaking down {board}", board=board) if board else reader.text("Breaking down")


def rough_words(allowances: Allowances, reader: Reader) -> str:
    """Return how much larger than finished a rough part is."""
    long, wide, thick = (
        reader.length(each, Direction.UP) for each in (allowances.end, allowances.edge, allowances.thickness)
    )
    return reader.text(
        "Rough = finished + {long} in length, {wide} in width, {thick} in thickness.", long=long, wide=wide, thick=thick
    )


def rough_setting(name: str, size: str, thickness: Length, reader: Reader) -> Setting:
    """Return the size of a rough part, and the thickness of wood that it comes out of."""
    return Setting(
        reader.text("Rough {part}", part=name),
        size,
        reader.text("out of {thickness}", thickness=reader.length(thickness)),
    )


def place_setting(board: str, along: Length, reader: Reader) -> Setting:
    """Return where a rough part lies."""
    return Setting(reader.text("Out of"), board, reader.text("{along} from its left end", along=reader.length(along)))


def wood_setting(used: float, asked: float, reader: Reader) -> Setting:
    """Return how much wood a layout takes, and how much any takes at least, mm²."""
    area = reader.marks.write_area
    return Setting(
        reader.text("Wood used"), area(used), reader.text("at least {area} whatever the layout", area=area(asked))
    )


def sawing_setting(cuts: int, minutes: float, reader: Reader) -> Setting:
    """Return how many cuts a layout takes, and how long they take."""
    takes = reader.text("about {hours} h, a guess", hours=f"{minutes / 60:.1f}")
    return Setting(reader.text("Sawing"), reader.count(cuts, "{n} cut", "{n} cuts"), takes)


def no_parts(reader: Reader) -> str:
    """Return that there is nothing to lay yet."""
    return reader.text("no parts yet")


def bare_words(bare: int, parts: int, reader: Reader) -> str:
    """Return how many of the parts lie nowhere."""
    return reader.text("{bare} of {parts} without wood", bare=bare, parts=parts)


def laid_words(wrong: bool, cuts: int, reader: Reader) -> str:
    """Return how a layout stands in which all parts lie."""
    if wrong:
        return reader.text("a part cannot lie there")
    return reader.count(cuts, "all laid, {n} cut", "all laid, {n} cuts")
