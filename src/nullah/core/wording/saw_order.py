"""What is said of one cut of the saw order: what is kept, with which saw, and what is in hand afterwards."""

from __future__ import annotations

from nullah.core.breakdown.cuts import Reach
from nullah.core.breakdown.saw_order import CutSide, SawStep
from nullah.core.breakdown.sawing import worth_keeping
from nullah.core.card import Remark, Setting
from nullah.core.lengths import from_float
from nullah.core.reader import Reader


def kept_words(step: SawStep, reader: Reader) -> str:
    """Return what is kept on either side of the line of a cut."""
    if step.cut.reach is Reach.TO_RIP:
        return reader.text("What lies on the other side of the line stays on the rest of the board.")
    if step.near.parts and step.beyond.parts:
        return reader.text("Both sides are kept: the kerf is on the far side of the line.")
    if step.near.parts:
        return reader.text("What lies beyond the line is waste.")
    return reader.text("What lies before the line is waste.")


def saw_settings(long: float, minutes: float, across: bool, reader: Reader) -> tuple[Setting, Setting]:
    """Return how long a cut is, mm, how many minutes it takes, and which saw is held how."""
    takes = reader.text("about {minutes} min, a guess", minutes=max(1, round(minutes)))
    saw = reader.text("crosscut saw") if across else reader.text("rip saw")
    angle = reader.text("about {degrees}° to the face", degrees=45 if across else 60)
    return (
        Setting(reader.text("Long"), reader.length(from_float(long)), takes),
        Setting(reader.text("Saw"), saw, angle),
    )


def sawing_words(step: SawStep, reader: Reader) -> tuple[str, str, str]:
    """Return what is kept, how the saw is started, and what is in hand after a cut."""
    return (
        kept_words(step, reader),
        reader.text("Start nearly flat with three teeth or more in the wood; come up to plumb at the end."),
        reader.text("Then in hand: {pieces}.", pieces=_in_hand(step, reader)),
    )


def saw_caution(reader: Reader) -> Remark:
    """Return what to beware of while sawing."""
    return Remark(reader.text("Hold the falling piece; keep the thumb off the line at the start."))


def saw_title(board: str, number: int, count: int, reader: Reader) -> str:
    """Return which cut of a board it is, from 1."""
    return reader.text("{board}: cut {number} of {count}", board=board, number=number, count=count)


def nothing_to_saw(reader: Reader) -> tuple[str, Remark]:
    """Return the title and the remark of a card without a cut."""
    return reader.text("Saw order"), Remark(reader.text("Nothing to saw on this board."))


def _in_hand(step: SawStep, reader: Reader) -> str:
    """Return what is in hand after a cut: the piece that holds more parts, and what was cut off."""
    if step.cut.reach is Reach.STOPPED:
        return reader.text("one piece still, slit as far as the rip went")
    named = [words for side in (step.near, step.beyond) if (words := _side(side, step, reader))]
    return reader.listed(named) if named else reader.text("waste only")


def _side(side: CutSide, step: SawStep, reader: Reader) -> str:
    if side.piece.length <= 0.5 or side.piece.width <= 0.5:
        return ""
    long, wide = from_float(side.piece.length), from_float(side.piece.width)
    size = f"{reader.marks.write(long, unit=False)} × {reader.length(wide)}"
    if len(side.parts) == 1:
        return reader.text("{size} for {part}", size=size, part=side.parts[0].part.name)
    if side.parts:
        return reader.text("{size} with {count} parts", size=size, count=len(side.parts))
    if step.cut.reach is not Reach.TO_RIP and worth_keeping(side.piece.length, side.piece.width):
        return reader.text("an offcut of {size}", size=size)
    return ""
