"""A part: a board placed in the piece, as an exact box with its grain."""

from __future__ import annotations

from enum import Enum
from fractions import Fraction
from typing import NamedTuple

from nullah.core.lengths import Length

Corner = tuple[Fraction, Fraction, Fraction]


class Axis(Enum):
    """A direction of the piece: X along its length, Y from front to back, Z up."""

    X = 0
    Y = 1
    Z = 2


class Needs(Enum):
    """What a part asks of its wood."""

    CLEAR = "clear"
    ANY = "any"


class Box(NamedTuple):
    """An exact axis-parallel box, corners in mm of the piece."""

    low: Corner
    high: Corner

    def size(self, axis: Axis) -> Fraction:
        """Give the extent along an axis in mm."""
        return self.high[axis.value] - self.low[axis.value]

    def overlap(self, other: Box) -> Box | None:
        """Give what both boxes fill, or None if that has no volume.

        Examples
        --------
        >>> one = Box((0, 0, 0), (4, 4, 4))
        >>> one.overlap(Box((3, 0, 0), (9, 9, 9)))
        Box(low=(3, 0, 0), high=(4, 4, 4))
        """
        low = tuple(max(a, b) for a, b in zip(self.low, other.low, strict=True))
        high = tuple(min(a, b) for a, b in zip(self.high, other.high, strict=True))
        if any(a >= b for a, b in zip(low, high, strict=True)):
            return None
        return Box((low[0], low[1], low[2]), (high[0], high[1], high[2]))


class Part(NamedTuple):
    """A part of the piece.

    `box` is its finished size with tails and tongues included; `grain` the axis of its
    length, `face` the axis of its thickness. `quantities` are the ledger's names for its
    length, width and thickness; `alike` names the set of equal parts made together.
    `spare` is what its ends are left long, in all, for planing flush after glueing.
    """

    id: str
    number: int
    name: str
    box: Box
    grain: Axis
    face: Axis
    needs: Needs
    quantities: tuple[str, str, str]
    alike: str
    species_role: str = "case"
    spare: Fraction = Fraction(0)

    @property
    def across(self) -> Axis:
        """The axis of its width."""
        return next(axis for axis in Axis if axis not in (self.grain, self.face))

    @property
    def length(self) -> Length:
        """Finished length, along the grain."""
        return Length(self.box.size(self.grain))

    @property
    def cut_length(self) -> Length:
        """Length to cut to: the finished length and what is planed flush later."""
        return Length(self.box.size(self.grain) + self.spare)

    @property
    def width(self) -> Length:
        """Finished width, across the grain."""
        return Length(self.box.size(self.across))

    @property
    def thickness(self) -> Length:
        """Finished thickness."""
        return Length(self.box.size(self.face))
