"""The cut list: every part's finished and rough size, as rows for people and spreadsheets."""

from __future__ import annotations

from dataclasses import dataclass

from nullah.core.breakdown.rough import RoughPart
from nullah.core.lengths import Length
from nullah.core.piece.part import Part


@dataclass(frozen=True, slots=True)
class CutListRow:
    """One part. `waits` says what must be measured first, in words; empty if nothing."""

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


def cut_list_row(part: Part, rough: RoughPart, board: str, species: str, waits: str) -> CutListRow:
    """Make the row of one part."""
    return CutListRow(
        part.number, part.name, part.length, part.width, part.thickness, part.cut_length,
        rough.length, rough.width, rough.thickness, board, species, waits,
    )  # fmt: skip
