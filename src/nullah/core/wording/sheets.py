"""What stands on the sheets: the cut list, the sheet of a part, and templates at full size."""

from __future__ import annotations

import textwrap
from collections.abc import Iterator, Sequence

from nullah.core.card import Remark, Setting, Severity
from nullah.core.catalogue import N_
from nullah.core.joints.dovetail.layout import DovetailLayout
from nullah.core.lengths import Direction, Length
from nullah.core.piece.space import Axis
from nullah.core.reader import Reader

#: So many letters of names stand beside what a template is for; so many names at a mark of a stick.
_NAMES_WIDE, _MOST_NAMED = 62, 2
CANNOT_BE, CUT_LIST = N_("This piece cannot be made yet"), N_("Cut list")
CORNER_TEMPLATE = N_("Corner template, full size")


def paged(note: str, page: int, pages: int, reader: Reader) -> str:
    """Return a note under a heading with which of several pages it is, from 1; the note alone where it is the only."""
    if pages == 1:
        return note
    return reader.text("{note} · page {page} of {pages}", note=note, page=page, pages=pages)


# --- the cut list ---------------------------------------------------------------------------------


def finished_note(reader: Reader) -> str:
    """Return which figures the cut list gives."""
    return reader.text("all figures are finished unless they say rough")


def waits_note(left: str, waits: str, reader: Reader) -> str:
    """Return how a part is left until something is measured."""
    return reader.text("… leave {left}; cut when measured: {waits}", left=left, waits=waits)


def boards_note(boards: Sequence[str], reader: Reader) -> str:
    """Return which boards parts come out of; nothing for none."""
    return reader.text("out of {boards}", boards=", ".join(boards)) if boards else ""


def cut_list_foot(parts: int, sizes: int, volumes: tuple[float, float], price: str, proud: bool, reader: Reader) -> str:
    """Return what a cut list comes to.

    Parameters
    ----------
    parts, sizes : int
        How many parts there are, and of how many sizes.
    volumes : tuple of float
        Of the finished parts and of the rough ones, mm³.
    price : str
        Their share of what the boards cost; empty for none.
    proud : bool
        Whether ends are left proud.
    """
    finished, rough = (reader.marks.write_volume(each) for each in volumes)
    said = [
        reader.text(
            "{parts}, {sizes}. Wood: {finished} finished, {rough} rough.",
            parts=reader.count(parts, "{n} part", "{n} parts"),
            sizes=reader.count(sizes, "{n} size", "{n} sizes"),
            finished=finished,
            rough=rough,
        )
    ]
    if price:
        said.append(reader.text("Its share of the boards' prices: {price}.", price=price))
    if proud:
        said.append(
            reader.text("Lengths with dovetails are with the end grain left proud; it is planed flush after glueing.")
        )
    return " ".join(said)


# --- the sheet of a part --------------------------------------------------------------------------

#: What the sizes of a part are called, and what they are taken from: length, width, thickness.
_SIZES = (
    (N_("Cut to"), N_("length")),
    (N_("Width"), N_("from the face edge")),
    (N_("Thickness"), N_("gauge from the face side")),
)


def part_title(number: int, name: str, reader: Reader) -> str:
    """Return what stands on the picture of a part."""
    return reader.text("{number} {part} · face side inside", number=number, part=name)


def face_edge_words(reader: Reader) -> str:
    """Return what the mark of the face edge is."""
    return reader.text("∨ face edge")


def size_settings(sizes: Sequence[Length], waits: Sequence[bool], reader: Reader) -> Iterator[Setting]:
    """Yield the length, width and thickness of a part; those that wait for a measurement only as planned."""
    for (title, note), size, waiting in zip(_SIZES, sizes, waits, strict=True):
        figure = reader.length(size)
        if waiting:
            yield Setting(reader.text(title), reader.text("wait"), reader.text("planned {figure}", figure=figure))
        else:
            yield Setting(reader.text(title), figure, reader.text(note))


def rough_setting(sizes: Sequence[Length], board: str, reader: Reader) -> Setting:
    """Return the rough size of a part, and the board it comes out of, if it lies on one."""
    write, up = reader.marks.write, Direction.UP
    size = " × ".join(write(each, up, unit=each is sizes[-1]) for each in sizes)
    note = reader.text("out of {boards}", boards=board) if board else reader.text("no board yet")
    return Setting(reader.text("Rough"), size, note)


def reach_setting(reach: Length, cut_first: bool, reader: Reader) -> Setting:
    """Return which thickness a part will reach, and how it is milled."""
    way = reader.text("cut first") if cut_first else reader.text("flattened whole")
    return Setting(reader.text("Will reach"), reader.fine(reach), way)


def milling_steps(reader: Reader) -> tuple[str, str]:
    """Return how a part is milled, in short."""
    return (
        reader.text("Face side flat, face edge square to it; mark both."),
        reader.text("Gauge and plane thickness, then width. Ends last."),
    )


def tail_settings(layout: DovetailLayout, reader: Reader) -> Iterator[Setting]:
    """Yield what is set to lay tails out."""
    slope = layout.spec.slope
    yield baseline_setting(layout.gauge_tail_board, reader)
    yield Setting(
        reader.text("Dividers"),
        reader.fine(layout.step),
        reader.text("from a half-pin of {half_pin}", half_pin=reader.fine(layout.spec.half_pin)),
    )
    yield Setting(
        reader.text("Bevel"), slope.as_text(), reader.text("{degrees}° from square", degrees=f"{slope.degrees:.1f}")
    )


def baseline_setting(gauge: Length, reader: Reader) -> Setting:
    """Return what the gauge is set to for the baseline."""
    return Setting(reader.text("Gauge the baseline"), reader.fine(gauge), reader.text("all round"))


def tails_step(reader: Reader) -> str:
    """Return how tails are made."""
    return reader.text("Lay out and cut the tails: see the corner template.")


def pins_step(reader: Reader) -> str:
    """Return how pins are laid out."""
    return reader.text("Trace the pins from the tails of the mate, letter to letter. Do not measure them.")


def groove_setting(low: Length, high: Length, depth: Length, reader: Reader) -> Setting:
    """Return where the groove for the bottom lies, from the lower edge."""
    write = reader.marks.write
    return Setting(
        reader.text("Groove"),
        reader.text("{low} to {high}", low=write(low, unit=False), high=write(high)),
        reader.text("from the lower edge, {depth} deep", depth=write(depth)),
    )


def leave_remark(left: str, measured: str, reader: Reader) -> Remark:
    """Return how a part is left, and what is measured first."""
    return Remark(
        reader.text("Leave it {left}: measure {sizes} first, on the parts it fits.", left=left, sizes=measured),
        Severity.WARNING,
    )


def short_remark(short: Length, reader: Reader) -> Remark:
    """Return that a part comes out too thin."""
    return Remark(reader.text("It comes out {short} too thin as planned.", short=reader.fine(short)), Severity.FAILURE)


# --- sheets of boards, of milling, and for the yard -----------------------------------------------

BREAK_DOWN, TO_BUY = N_("Breaking down {board}"), N_("To ask the yard for")
SAW_SAFELY = N_("Saw in the waste, beyond the line. Hold the falling piece. Gloves for rough lumber.")
SHOP_LIST = N_("Shop list")
FACES = N_("Face side"), N_("Second face")


def board_title(board: str, reader: Reader) -> str:
    """Return the title of the sheet of a board."""
    return reader.text(BREAK_DOWN, board=board)


def without_wood_note(parts: int, reader: Reader) -> str:
    """Return for how many parts wood is to be bought."""
    return reader.count(parts, "{n} part without wood", "{n} parts without wood")


def buying_foot(flawed: float, reader: Reader) -> str:
    """Return how to choose at the yard; `flawed` is the share that is over for flaws."""
    return reader.text(
        "Widths and lengths are the least that do; wider or longer is as good. {percent} % is over for flaws. Sizes "
        "are rough. Look at the ends for checks, sight along for twist, and take the moisture before paying.",
        percent=f"{flawed * 100:.0f}",
    )


def face_lies_words(title: str, upper: bool, with_grain: bool | None, why: str, reader: Reader) -> str:
    """Return how a face lies on the bench.

    Parameters
    ----------
    title : str
        What it is called.
    upper : bool
        Whether it is the upper face of the board.
    with_grain : bool, optional
        Whether it is planed with the grain from left to right; None where nobody knows.
    why : str
        Why this one is the face side; empty for the other.
    """
    lies = reader.text("upper face up") if upper else reader.text("lower face up, turned over about its length")
    said = reader.text("{face}, {lies}", face=reader.text(title), lies=lies)
    if with_grain is not None:
        way = reader.text("left to right") if with_grain else reader.text("right to left")
        said = reader.text("{face} · with the grain {way}", face=said, way=way)
    return reader.text("{face}: {why}", face=said, why=why) if why else said


def milling_title(stock: str, reader: Reader) -> str:
    """Return the title of the sheet of what is milled."""
    return reader.text("Milling {board}", board=stock)


def milled_parts_note(parts: Sequence[str], reader: Reader) -> str:
    """Return for which parts something is milled."""
    return reader.text("For: {parts}.", parts=", ".join(parts))


def shop_list_note(reader: Reader) -> str:
    """Return what a shop list has."""
    return reader.text("what the plan needs besides wood")


# --- templates ------------------------------------------------------------------------------------


def print_note(reader: Reader) -> str:
    """Return how a sheet at full size is printed."""
    return reader.text("print at 100 %, check the scale")


WRAP, FACE_TEMPLATE = N_("Wrap-round template"), N_("Face template, full size")
#: What the sticks of a whole piece are called, by its axis.
STICKS = {
    Axis.Z: N_("Story stick: height of the piece"),
    Axis.X: N_("Story stick: width of the piece"),
    Axis.Y: N_("Story stick: depth of the piece"),
}


def wrap_words(part: str, others: Sequence[str], reader: Reader) -> str:
    """Return of which parts a template goes round, and how."""
    shown = reader.text("{part} (and {others})", part=part, others=", ".join(others)) if others else part
    folded = reader.text("fold at the thin lines, tape it round, knife through")
    return f"{textwrap.shorten(shown, _NAMES_WIDE, placeholder=' …')} · {folded}"


def page_end_words(at: Length, own: bool, left: bool, reader: Reader) -> str:
    """Return where a page of a template ends: at an end of the part, or so far from its left end."""
    if own:
        return reader.text("its left end") if left else reader.text("its right end")
    return reader.text("{figure} from its left end", figure=reader.marks.write_setting(at))


def stick_title(part: str, reader: Reader) -> str:
    """Return what the stick of a part is called."""
    return reader.text("Story stick: {part}", part=part)


def stick_mark(names: Sequence[tuple[str, bool | None]], reader: Reader) -> str:
    """Return what a mark on a stick stands for.

    Parameters
    ----------
    names : sequence of (str, bool or None)
        What lies there, and whether it begins or ends there; None where it is not said.
    """

    def said(name: str, begins: bool | None) -> str:
        if begins is None:
            return name
        return reader.text("{part} from", part=name) if begins else reader.text("{part} to", part=name)

    words = list(dict.fromkeys(said(*each) for each in names))
    if len(words) > _MOST_NAMED:
        more = len(words) - _MOST_NAMED
        return reader.text("{names} and {n} more", names=", ".join(words[:_MOST_NAMED]), n=str(more))
    return ", ".join(words)


def strip_note(number: int, strips: int, reader: Reader) -> str:
    """Return which strip of a stick it is, from 1, and how they are joined."""
    return reader.text("strip {n} of {strips}: join at the crosses", n=str(number), strips=str(strips))


def face_template_note(title: str, begins: Length | None, reader: Reader) -> str:
    """Return what a face template shows; `begins` is how far from the part's end, None where at its own."""
    end = (
        reader.text("the left end is the part's own")
        if begins is None
        else reader.text("begins {figure} from its end", figure=reader.marks.write_setting(begins))
    )
    return reader.text("{joint} · reference edge below; {end}", joint=title, end=end)


def template_titles(tail: str, pin: str, reader: Reader) -> tuple[str, str]:
    """Return what the two pictures of a corner template are."""
    return reader.text("{part}: tails", part=tail), reader.text("{part}: end", part=pin)


def join_note(reader: Reader) -> str:
    """Return where pages of one template are joined."""
    return reader.text("join the pages along these lines")


def marks_note(reader: Reader) -> str:
    """Return in which unit the marks of a template stand, and from where."""
    return reader.text("marks in {unit} from the lower edge", unit=reader.text(reader.marks.style.name))
