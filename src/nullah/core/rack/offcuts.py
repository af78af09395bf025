"""Offcuts: what is left of a sawn board comes back to the rack as a board, with its share of everything."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import replace

from nullah.core.catalogue import Catalogue, Name, Phrase
from nullah.core.fraction import Fraction
from nullah.core.lengths import Length, from_float
from nullah.core.named_tuple import NamedTuple
from nullah.core.rack.board import Board, EdgePoint, Flaw, Surface, fitted_flaw


class SawnPiece(NamedTuple):
    """A piece of a board: where it lies and how large it is, mm, and the corner of it that is sawn out, if any.

    `sawn_out` is (from, low, length, width) on the board, as the piece itself.
    """

    x: float
    y: float
    length: float
    width: float
    sawn_out: tuple[float, float, float, float] | None = None


def offcuts(board: Board, pieces: Iterable[SawnPiece], catalogue: Catalogue) -> tuple[Board, ...]:
    """Return the pieces of a board as boards; ids are left empty.

    Flaws go with the wood they are in. A piece of the length has the square of its share of
    the bow, and so for the cup; of the twist it has its share both ways. A corner that is sawn
    out makes a step in an edge.
    """
    found = []
    for number, each in enumerate(pieces, start=1):
        x, y, length, width, _ = each
        size = Length(Fraction(int(length))), Length(Fraction(int(width)))
        long, wide = size[0].mm / board.length.mm, size[1].mm / board.width.mm
        piece = replace(
            board,
            id="",
            name=catalogue.text(Phrase("{board} offcut {number}", board=Name(board.name), number=str(number))),
            length=size[0],
            width=size[1],
            cup=_share(board.cup, wide * wide),
            bow=_share(board.bow, long * long),
            twist=_share(board.twist, long * wide),
            flaws=(),
            price=board.price * long * wide,
            source=catalogue.text(Phrase("offcut of {board}", board=Name(board.name))),
            heart=None if board.heart is None else (board.heart[0] - y, board.heart[1]),
            low_edge=_step(each, False),
            high_edge=_step(each, True),
            surface=_patch(board.surface, x, y, length, width),
            shape=(),
            sawn=False,
        )
        flaws = (_moved(flaw, x, y) for flaw in board.flaws if _meets(flaw, x, y, length, width))
        found.append(replace(piece, flaws=tuple(fitted_flaw(piece, flaw) for flaw in flaws)))
    return tuple(found)


def _step(piece: SawnPiece, high: bool) -> tuple[EdgePoint, ...]:
    """Return an edge of a piece with a corner sawn out; nothing where it is straight."""
    if piece.sawn_out is None:
        return ()
    x, y, length, width = piece.sawn_out
    long, wide = int(piece.length), int(piece.width)
    if (y > piece.y) is not high:
        return ()
    straight, stepped = (wide, int(y - piece.y)) if high else (0, math.ceil(y + width - piece.y))
    # An edge is a line over the length: the step itself leans by a millimetre, in the waste.
    if x <= piece.x:
        along = math.ceil(x + length - piece.x)
        corners = ((0, stepped), (along, stepped), (along + 1, straight), (long, straight))
    else:
        along = int(x - piece.x)
        corners = ((0, straight), (along - 1, straight), (along, stepped), (long, stepped))
    return tuple((Length(Fraction(at)), Length(Fraction(across))) for at, across in corners)


def _share(figure: Length, share: Fraction) -> Length:
    return Length(Fraction(round(figure.mm * share * 10), 10))


def _meets(flaw: Flaw, x: float, y: float, length: float, width: float) -> bool:
    return (
        float(flaw.start) < x + int(length)
        and float(flaw.end) > x
        and float(flaw.low) < y + int(width)
        and float(flaw.high) > y
    )


def _moved(flaw: Flaw, x: float, y: float) -> Flaw:
    along, across = from_float(round(x, 3)), from_float(round(y, 3))
    return replace(flaw, start=flaw.start - along, end=flaw.end - along, low=flaw.low - across, high=flaw.high - across)


def _patch(surface: Surface | None, x: float, y: float, length: float, width: float) -> Surface | None:
    """Return the stations of a survey that lie on a piece; None where they are too few to say anything."""
    if surface is None:
        return None
    rows = [index for index, at in enumerate(surface.xs) if x <= at <= x + length]
    columns = [index for index, at in enumerate(surface.ys) if y <= at <= y + width]
    if len(rows) < 2 or len(columns) < 2:
        return None
    return Surface(
        tuple(surface.xs[row] - x for row in rows),
        tuple(surface.ys[column] - y for column in columns),
        tuple(tuple(surface.top[row][column] for column in columns) for row in rows),
        tuple(tuple(surface.bottom[row][column] for column in columns) for row in rows),
    )
