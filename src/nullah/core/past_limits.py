"""Whether a project is past what a file may hold: an action that would lead there is refused."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from enum import Enum, auto

from nullah.core.bench.book import BookEntry
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import kept_by_identity
from nullah.core.limits import (
    BOARDS,
    BOOK_ENTRIES,
    COUNT,
    FLAWS,
    NAME_TEXT,
    NOTE_TEXT,
    OTHERS,
    OWN_BOARDS,
    PROJECT_VALUES,
    READINGS,
    SURVEY_PLACES,
)
from nullah.core.project import Project
from nullah.core.rack.board import Board

# About how many values of the file one of each is, without its survey.
_BOARD, _FLAW, _READING, _OWN, _ENTRY, _PLACE = 80, 15, 20, 40, 30, 16


class Counted(Enum):
    """What a file may hold only so many of."""

    BOARDS = auto()
    OWN_BOARDS = auto()
    BOOK_ENTRIES = auto()
    PLACES = auto()
    TOOLS = auto()
    STAVES = auto()
    SHAPINGS = auto()
    SURVEY_PLACES = auto()


class CountedOfBoard(Enum):
    """What a board may have only so many of."""

    FLAWS = auto()
    READINGS = auto()
    SHAPE_READINGS = auto()
    EDGE_POINTS = auto()


class TooMany(FrozenRecord):
    """More of something than a file may hold."""

    what: Counted
    most: int


class TooManyOfBoard(FrozenRecord):
    """More of something than a board may have."""

    what: CountedOfBoard
    board: str
    most: int


class TextTooLong(FrozenRecord):
    """A text of more characters than a file may hold."""

    text: str
    most: int


class TooManyFigures(FrozenRecord):
    """More figures in all than a file may hold."""

    most: int


LimitFact = TooMany | TooManyOfBoard | TextTooLong | TooManyFigures


def past_limits(project: Project) -> LimitFact | None:
    """Return what of a project is more than a file may hold; None if nothing is.

    Examples
    --------
    >>> past_limits(Project()) is None
    True
    """
    return next(_past(project), None)


def _past(project: Project) -> Iterator[LimitFact]:
    piece = project.piece
    yield from _too_many(Counted.BOARDS, project.boards, BOARDS)
    yield from _too_many(Counted.OWN_BOARDS, piece.own, OWN_BOARDS)
    yield from _too_many(Counted.BOOK_ENTRIES, project.book, BOOK_ENTRIES)
    yield from _too_many(Counted.PLACES, project.layout, OTHERS)
    for tools in (project.shop.chisels, project.shop.bits, project.shop.plough_irons, project.shop.planes):
        yield from _too_many(Counted.TOOLS, tools, COUNT)
    for made in project.staves:
        yield from _too_many(Counted.STAVES, made.widths, COUNT)
    yield from _too_long(piece.name, NAME_TEXT)
    for board in project.boards:
        yield from _of_board(board)[1]
    for own in piece.own:
        yield from _too_long(own.name, NAME_TEXT)
        yield from _too_many(Counted.SHAPINGS, own.shapings, 50)
    yield from _of_book(project.book)[1]
    if _values(project) > PROJECT_VALUES:
        yield TooManyFigures(PROJECT_VALUES)


@kept_by_identity(512)
def _of_board(board: Board) -> tuple[int, tuple[LimitFact, ...]]:
    """Return how many values the file will hold of a board, and what of it is more than a file may hold."""
    count = _BOARD + _FLAW * len(board.flaws) + _READING * (len(board.readings) + len(board.shape))
    count += 3 * (len(board.low_edge) + len(board.high_edge))
    if board.surface is not None:
        count += 2 * (len(board.surface.xs) + 1) * (len(board.surface.ys) + 1)
    return count, tuple(_past_of_board(board))


def _past_of_board(board: Board) -> Iterator[LimitFact]:
    for text in (board.name, board.species, board.colour, board.source):
        yield from _too_long(text, NAME_TEXT)
    for what, items, most in (
        (CountedOfBoard.FLAWS, board.flaws, FLAWS),
        (CountedOfBoard.READINGS, board.readings, READINGS),
        (CountedOfBoard.SHAPE_READINGS, board.shape, READINGS),
        (CountedOfBoard.EDGE_POINTS, board.low_edge, COUNT),
        (CountedOfBoard.EDGE_POINTS, board.high_edge, COUNT),
    ):
        if len(items) > most:
            yield TooManyOfBoard(what, board.name, most)
    if board.surface is not None and len(board.surface.xs) * len(board.surface.ys) > SURVEY_PLACES:
        yield TooMany(Counted.SURVEY_PLACES, SURVEY_PLACES)


def _too_many(what: Counted, items: Sequence[object], most: int) -> Iterator[TooMany]:
    if len(items) > most:
        yield TooMany(what, most)


def _too_long(text: str, most: int) -> Iterator[TextTooLong]:
    if len(text) > most:
        yield TextTooLong(text, most)


def _values(project: Project) -> int:
    """Return about how many values the file of a project will hold, rather more than fewer."""
    count = 1000 + _OWN * len(project.piece.own) + _PLACE * len(project.layout)
    count += sum(_of_board(board)[0] for board in project.boards) + _of_book(project.book)[0]
    return count + sum(30 * len(own.shapings) for own in project.piece.own)


@kept_by_identity(8)
def _of_book(book: tuple[BookEntry, ...]) -> tuple[int, tuple[LimitFact, ...]]:
    """Return how many values the file will hold of the book, and what of it is more than a file may hold."""
    count = sum(_ENTRY + 3 * len(entry.work) + len(entry.parts) for entry in book)
    return count, tuple(past for entry in book for past in _too_long(entry.text, NOTE_TEXT))
