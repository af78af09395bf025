"""Rough parts: finished sizes with the allowances that sawing and planing will take."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import NamedTuple

from nullah.core.lengths import Length, mm
from nullah.core.piece.part import Needs, Part


@dataclass(frozen=True, slots=True)
class Allowances:
    """What is added to a finished size: at both ends together, both edges together, both faces together.

    The usual figures (25 to 50 mm, about 6 mm) are common practice without a published source.
    """

    end: Length = field(default_factory=lambda: mm(30))
    edge: Length = field(default_factory=lambda: mm(6))
    thickness: Length = field(default_factory=lambda: mm(3))


class RoughPart(NamedTuple):
    """A part as it is to be sawn out of a board. `turned` parts lie across the board.

    `wood` is the species it is to be of; empty for any.
    """

    id: str
    name: str
    length: Length
    width: Length
    thickness: Length
    needs: Needs
    turned: bool = False
    wood: str = ""

    @property
    def along(self) -> Length:
        """Its extent along the board."""
        return self.width if self.turned else self.length

    @property
    def across(self) -> Length:
        """Its extent across the board."""
        return self.length if self.turned else self.width


def rough_parts(parts: Iterable[Part], allowances: Allowances) -> tuple[RoughPart, ...]:
    """Give the rough size of every part: what it is cut to, with the allowances."""
    return tuple(
        RoughPart(
            part.id,
            part.name,
            part.cut_length + allowances.end,
            part.width + allowances.edge,
            part.thickness + allowances.thickness,
            part.needs,
        )
        for part in parts
    )
