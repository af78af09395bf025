"""The cut list: every part's finished and rough size, as rows for people and spreadsheets."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import NamedTuple

from nullah.core.breakdown.rough import RoughPart
from nullah.core.lengths import Length
from nullah.core.piece.part import Part
from nullah.core.rack.board import Board


@dataclass(frozen=True, slots=True)
class CutListRow:
    """One part. `waits` says what must be measured first, in words; empty if nothing.

    `shows` names the sides seen on the finished piece, `price` is its share of its board's.
    """

    number: int
    part: str
    length: Length
    width: Length
    thickness: Length
    cut_length: Length
    rough_length: Length
    rough_width: Length
    rough_thickness: Length
    board: str
    species: str
    waits: str
    shows: str = ""
    id: str = ""
    price: Fraction = Fraction(0)

    @property
    def rough_volume(self) -> float:
        """Volume of the rough part, mm³."""
        return float(self.rough_length) * float(self.rough_width) * float(self.rough_thickness)

    @property
    def volume(self) -> float:
        """Volume of the finished board before its joints are cut, mm³."""
        return float(self.length) * float(self.width) * float(self.thickness)


class CutGroup(NamedTuple):
    """Equal parts, made together."""

    rows: tuple[CutListRow, ...]

    @property
    def quantity(self) -> int:
        """How many there are."""
        return len(self.rows)

    @property
    def names(self) -> tuple[str, ...]:
        """The names of all of them."""
        return tuple(row.part for row in self.rows)


def cut_list_row(part: Part, rough: RoughPart, board: Board | None, species: str, waits: str) -> CutListRow:
    """Make the row of one part; of its board's price it bears its share of the area."""
    price = Fraction(0)
    if board is not None and board.price:
        share = rough.length.mm * rough.width.mm / (board.length.mm * board.width.mm)
        price = board.price * share
    shows = ", ".join(sorted(side.value for side in part.shows))
    return CutListRow(
        part.number,
        part.name,
        part.length,
        part.width,
        part.thickness,
        part.cut_length,
        rough.length,
        rough.width,
        rough.thickness,
        board.name if board is not None else "",
        species,
        waits,
        shows,
        part.id,
        price,
    )


def grouped(rows: Iterable[CutListRow]) -> Iterator[CutGroup]:
    """Put equal parts together: of one size and wood, with the same to wait for and the same need of clear wood."""
    alike: dict[tuple[object, ...], list[CutListRow]] = {}
    for row in rows:
        key = (row.length, row.width, row.thickness, row.cut_length, row.rough_length, row.species, bool(row.waits))
        alike.setdefault(key, []).append(row)
    for same in alike.values():
        yield CutGroup(tuple(same))


def volumes(groups: Iterable[CutGroup]) -> tuple[float, float]:
    """Return the finished and the rough volume of a list, mm³."""
    rows = [row for group in groups for row in group.rows]
    return sum(row.volume for row in rows), sum(row.rough_volume for row in rows)


def price_of(groups: Iterable[CutGroup]) -> Fraction:
    """Return what the wood of a list cost, as far as prices are known; 0 where none is."""
    return sum((row.price for group in groups for row in group.rows), Fraction(0))


def short(text: str, most: int) -> str:
    """Cut words to so many letters, with an ellipsis."""
    return text if len(text) <= most else f"{text[: most - 1].rstrip()}…"
