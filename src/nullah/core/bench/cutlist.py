"""The cut list: every part's finished and rough size, as rows for people and spreadsheets."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence

from nullah.core.breakdown.rough import RoughPart
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.part import Part
from nullah.core.rack.board import Board


class CutListRow(FrozenRecord):
    """One part. `waits` says what must be measured first, in words; empty if nothing.

    `over` is which of length, width and thickness are left over until then.
    `shows` names the sides seen on the finished piece, `price` is its share of its boards'. Of a part that is glued up
    the rough sizes are those of its first stave, `pieces` how many there are; `rough_volume` of all of them, mm³.
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
    shows: tuple[str, ...] = ()
    id: str = ""
    price: Fraction = Fraction(0)
    pieces: int = 1
    rough_volume: float = 0.0
    over: tuple[bool, bool, bool] = (False, False, False)

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


class Sawn(NamedTuple):
    """A rough part, and the board it is sawn out of, if it lies on one."""

    rough: RoughPart
    board: Board | None

    @property
    def share(self) -> Fraction:
        """The share of it that goes to each of the parts that come of it."""
        return Fraction(1, len(self.rough.parts))

    @property
    def volume(self) -> float:
        """What it has for each of the parts that come of it, mm³."""
        return float(self.rough.length.mm * self.rough.width.mm * self.rough.thickness.mm * self.share)

    @property
    def price(self) -> Fraction:
        """What each of these parts bears of its board's price: by area."""
        if self.board is None or not self.board.price:
            return Fraction(0)
        area = self.rough.length.mm * self.rough.width.mm / (self.board.length.mm * self.board.width.mm)
        return self.board.price * area * self.share


def cut_list_row(
    part: Part, sawn: Sequence[Sawn], species: str, waits: str, over: tuple[bool, bool, bool]
) -> CutListRow:
    """Return the row of one part, by the pieces it comes of: one, or its staves."""
    rough = sawn[0].rough
    boards = dict.fromkeys(each.board.name for each in sawn if each.board is not None)
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
        ", ".join(boards),
        species,
        waits,
        tuple(sorted(side.value for side in part.shows)),
        part.id,
        sum((each.price for each in sawn), Fraction(0)),
        len(sawn),
        sum(each.volume for each in sawn),
        over,
    )


def grouped(rows: Iterable[CutListRow]) -> Iterator[CutGroup]:
    """Put equal parts together: of one size and wood, with the same to wait for and the same need of clear wood."""
    alike: dict[tuple[object, ...], list[CutListRow]] = {}
    for row in rows:
        key = (row.length, row.width, row.thickness, row.cut_length, row.rough_length, row.species, row.over)
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
    """Cut words to so many letters, with an ellipsis.

    Parameters
    ----------
    text : str
        The words.
    most : int
        Letters.
    """
    return text if len(text) <= most else f"{text[: most - 1].rstrip()}…"
