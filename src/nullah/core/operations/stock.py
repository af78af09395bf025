"""The blank of a part, and the surfaces that are measured from."""

from __future__ import annotations

from enum import Enum

from nullah.core.fraction import Fraction
from nullah.core.named_tuple import NamedTuple

#: The axes of a blank, by their places in a point.
X, Y, Z = 0, 1, 2
AXES = "xyz"


class Surface(Enum):
    """A side of a blank; the value is what it is called in the answer of ``nullah work``."""

    REFERENCE_END = "reference end"
    FAR_END = "far end"
    FACE_EDGE = "face edge"
    OTHER_EDGE = "other edge"
    FACE_SIDE = "face side"
    OTHER_FACE = "other face"

    @property
    def axis(self) -> int:
        """The axis square to it: 0 along the grain, 1 across it, 2 into the wood."""
        return _ORDER.index(self) // 2

    @property
    def high(self) -> bool:
        """Whether it lies at the far end of its axis."""
        return _ORDER.index(self) % 2 == 1

    @property
    def opposite(self) -> Surface:
        """The surface across."""
        return surface_at(self.axis, not self.high)


_ORDER = list(Surface)


def surface_at(axis: int, high: bool) -> Surface:
    """Return the surface at one end of an axis.

    Parameters
    ----------
    axis : int
        Of the blank: length 0, width 1, thickness 2.
    high : bool
        Whether at its far end.
    """
    return _ORDER[2 * axis + high]


class Stock(NamedTuple):
    """A blank: its length, width and thickness, mm."""

    length: Fraction
    width: Fraction
    thickness: Fraction

    def at(self, surface: Surface) -> Fraction:
        """Return where a surface lies along its axis, mm."""
        return self[surface.axis] if surface.high else Fraction(0)

    def place(self, surface: Surface, distance: Fraction) -> Fraction:
        """Return the place so far in from a surface, along its axis, mm.

        Parameters
        ----------
        surface : Surface
            It is measured from.
        distance : Fraction
            mm.

        Examples
        --------
        >>> blank = Stock(Fraction(300), Fraction(120), Fraction(15))
        >>> int(blank.place(Surface.FAR_END, Fraction(18)))
        282
        """
        return self.at(surface) - distance if surface.high else self.at(surface) + distance
