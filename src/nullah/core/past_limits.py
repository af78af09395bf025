"""Whether a project is past what a file may hold: an action that would lead there is refused."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

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
    quoted,
)
from nullah.core.project import Project
from nullah.core.rack.board import Board

# About how many values of the file one of each is, without its survey.
_BOARD, _FLAW, _READING, _OWN, _ENTRY, _PLACE = 80, 15, 20, 40, 30, 16


def past_limits(project: Project) -> str:
    """Return what of a project is more than a file may hold, in a sentence; empty if nothing is.

    Examples
    --------
    >>> past_limits(Project())
    ''
    """
    return next(_past(project), "")


def _past(project: Project) -> Iterator[str]:
    piece = project.piece
    yield from _too_many("boards on the rack", project.boards, BOARDS)
    yield from _too_many("boards of one's own", piece.own, OWN_BOARDS)
    yield from _too_many("entries in the Day Book", project.book, BOOK_ENTRIES)
    yield from _too_many("places of parts", project.layout, OTHERS)
    for tools in (project.shop.chisels, project.shop.bits, project.shop.plough_irons, project.shop.planes):
        yield from _too_many("tools of a kind", tools, COUNT)
    for made in project.staves:
        yield from _too_many("staves", made.widths, COUNT)
    yield from _too_long("name", piece.name, NAME_TEXT)
    for board in project.boards:
        yield from _of_board(board)
    for own in piece.own:
        yield from _too_long("name", own.name, NAME_TEXT)
        yield from _too_many("shapings of a board", own.shapings, 50)
    for entry in project.book:
        yield from _too_long("note", entry.text, NOTE_TEXT)
    if _values(project) > PROJECT_VALUES:
        yield f"A piece holds at most about {PROJECT_VALUES:,} figures: begin another, or take surveys off boards."


def _of_board(board: Board) -> Iterator[str]:
    for text in (board.name, board.species, board.colour, board.source):
        yield from _too_long("text", text, NAME_TEXT)
    yield from _too_many(f"flaws on {board.name}", board.flaws, FLAWS)
    yield from _too_many(f"readings of {board.name}", board.readings, READINGS)
    yield from _too_many(f"readings of the shape of {board.name}", board.shape, READINGS)
    for edge in (board.low_edge, board.high_edge):
        yield from _too_many(f"points of an edge of {board.name}", edge, COUNT)
    if board.surface is not None and len(board.surface.xs) * len(board.surface.ys) > SURVEY_PLACES:
        yield f"A survey has at most {SURVEY_PLACES:,} places."


def _too_many(what: str, items: Sequence[object], most: int) -> Iterator[str]:
    if len(items) > most:
        yield f"There are at most {most:,} {what}."


def _too_long(what: str, text: str, most: int) -> Iterator[str]:
    if len(text) > most:
        yield f"The {what} {quoted(text)} has {len(text):,} characters; {most:,} at most."


def _values(project: Project) -> int:
    """Return about how many values the file of a project will hold, rather more than fewer."""
    count = 1000 + _OWN * len(project.piece.own) + _PLACE * len(project.layout)
    for board in project.boards:
        count += _BOARD + _FLAW * len(board.flaws) + _READING * (len(board.readings) + len(board.shape))
        count += 3 * (len(board.low_edge) + len(board.high_edge))
        if board.surface is not None:
            count += 2 * (len(board.surface.xs) + 1) * (len(board.surface.ys) + 1)
    for entry in project.book:
        count += _ENTRY + 3 * len(entry.work) + len(entry.parts)
    for own in project.piece.own:
        count += 30 * len(own.shapings)
    return count
