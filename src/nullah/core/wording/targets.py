"""What something on the bench is called and what it says, for whoever cannot see it."""

from __future__ import annotations

from typing import assert_never

from nullah.core.catalogue import N_
from nullah.core.frozen_record import FrozenRecord
from nullah.core.ledger import Quantity
from nullah.core.lengths import Length
from nullah.core.rack.board import Board, Flaw
from nullah.core.reader import Reader


class SizedTarget(FrozenRecord):
    """A part, a rough part or a board: its name, length, width and thickness."""

    name: str
    sizes: tuple[Length, Length, Length]


class FigureTarget(FrozenRecord):
    """A figure of the piece."""

    quantity: Quantity


class BoardFigureTarget(FrozenRecord):
    """A figure of a board."""

    board: str
    figure: str
    value: Length


class HeartTarget(FrozenRecord):
    """The heart of the tree beside a board's end."""

    board: str


class FlawTarget(FrozenRecord):
    """A flaw of a board."""

    board: Board
    flaw: Flaw


class ReadingTarget(FrozenRecord):
    """A reading of a board: where and with what it is taken, and what was read; nothing where it is still wanted."""

    where: str
    read: str


class NamedTarget(FrozenRecord):
    """Anything else that has a name."""

    name: str


Target = SizedTarget | FigureTarget | BoardFigureTarget | HeartTarget | FlawTarget | ReadingTarget | NamedTarget


class TargetWords(FrozenRecord):
    """The name of something, and its value; empty where it has none."""

    name: str
    value: str = ""


_FIGURES = {"length": N_("length"), "width": N_("width"), "thickness": N_("thickness")}


def target_words(target: Target, reader: Reader) -> TargetWords:
    """Return what something on the bench is called and what it says."""
    match target:
        case SizedTarget(name, sizes):
            return TargetWords(name, " × ".join(map(reader.length, sizes)))
        case FigureTarget(quantity):
            value = f"{quantity.write(reader.marks)}, {reader.text(quantity.origin.value)}"
            return TargetWords(reader.title(quantity.definition.name), value)
        case BoardFigureTarget(board, figure, value):
            name = reader.text("{figure} of {board}", figure=reader.text(_FIGURES.get(figure, figure)), board=board)
            return TargetWords(name, reader.typed(value))
        case HeartTarget(board):
            return TargetWords(reader.text("heart of {board}", board=board))
        case FlawTarget(board, flaw):
            name = reader.text("{flaw} on {board}", flaw=reader.text(flaw.kind.value), board=board.name)
            where = reader.text(
                "{start} to {end} along, {low} to {high} across",
                start=reader.length(flaw.start),
                end=reader.length(flaw.end),
                low=reader.length(flaw.low),
                high=reader.length(flaw.high),
            )
            return TargetWords(name, where)
        case ReadingTarget(where, read):
            return TargetWords(where, read or reader.text("to be read"))
        case NamedTarget(name):
            return TargetWords(name)
        case _:
            assert_never(target)
