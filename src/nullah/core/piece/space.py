"""Where things are in the piece: axes, sides, exact boxes."""

from __future__ import annotations

from enum import Enum

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.named_tuple import NamedTuple

Corner = tuple[Fraction, Fraction, Fraction]


class Axis(Enum):
    """A direction of the piece: X along its length, Y from front to back, Z up."""

    X = 0
    Y = 1
    Z = 2


class Side(Enum):
    """A side of a box, named by the way it looks; the words are those of the piece."""

    LEFT = N_("left")
    RIGHT = N_("right")
    FRONT = N_("front")
    BACK = N_("back")
    UNDER = N_("underneath")
    TOP = N_("top")

    @property
    def axis(self) -> Axis:
        """The axis square to the side."""
        return _AXES[self]

    @property
    def high(self) -> bool:
        """Whether it is the side at the high end of its axis."""
        return self in (Side.RIGHT, Side.BACK, Side.TOP)

    @property
    def opposite(self) -> Side:
        """The side across."""
        return side_at(self.axis, not self.high)


_AXES = {
    Side.LEFT: Axis.X, Side.RIGHT: Axis.X, Side.FRONT: Axis.Y, Side.BACK: Axis.Y, Side.UNDER: Axis.Z, Side.TOP: Axis.Z,
}  # fmt: skip
_LETTERS = {
    "l": Side.LEFT, "r": Side.RIGHT, "f": Side.FRONT, "b": Side.BACK, "u": Side.UNDER, "t": Side.TOP,
}  # fmt: skip


_AT = {(side.axis, side.high): side for side in Side}


def side_at(axis: Axis, high: bool) -> Side:
    """Return the side at one end of an axis."""
    return _AT[axis, high]


def sides_of(letters: str) -> frozenset[Side]:
    """Read sides from their first letters: left, right, front, back, underneath, top.

    Examples
    --------
    >>> sorted(side.value for side in sides_of("lf"))
    ['front', 'left']
    """
    return frozenset(_LETTERS[letter] for letter in letters)


class Box(NamedTuple):
    """An exact axis-parallel box, corners in mm of the piece."""

    low: Corner
    high: Corner

    def size(self, axis: Axis) -> Fraction:
        """Return the extent along an axis in mm."""
        return self.high[axis.value] - self.low[axis.value]

    def at(self, side: Side) -> Fraction:
        """Return where a side lies along its axis."""
        return (self.high if side.high else self.low)[side.axis.value]

    def overlap(self, other: Box) -> Box | None:
        """Return what both boxes fill, or None if that has no volume.

        Examples
        --------
        >>> one = Box((0, 0, 0), (4, 4, 4))
        >>> one.overlap(Box((3, 0, 0), (9, 9, 9)))
        Box(low=(3, 0, 0), high=(4, 4, 4))
        """
        a, b = self.low, self.high
        c, d = other.low, other.high
        if a[0] >= d[0] or c[0] >= b[0] or a[1] >= d[1] or c[1] >= b[1] or a[2] >= d[2] or c[2] >= b[2]:
            return None
        return Box(
            (max(a[0], c[0]), max(a[1], c[1]), max(a[2], c[2])), (min(b[0], d[0]), min(b[1], d[1]), min(b[2], d[2]))
        )

    def holds(self, other: Box) -> bool:
        """Return whether the other box lies wholly inside."""
        return all(a <= c for a, c in zip(self.low, other.low, strict=True)) and all(
            b >= d for b, d in zip(self.high, other.high, strict=True)
        )

    def set(self, axis: Axis, low: Fraction, high: Fraction) -> Box:
        """Return the box with another extent along one axis.

        Parameters
        ----------
        axis : Axis
            Along which.
        low : Fraction
            mm.
        high : Fraction
            mm.
        """
        lows, highs = list(self.low), list(self.high)
        lows[axis.value], highs[axis.value] = low, high
        return Box((lows[0], lows[1], lows[2]), (highs[0], highs[1], highs[2]))

    def moved(self, by: Corner) -> Box:
        """Return the box moved."""
        return Box(
            (self.low[0] + by[0], self.low[1] + by[1], self.low[2] + by[2]),
            (self.high[0] + by[0], self.high[1] + by[1], self.high[2] + by[2]),
        )

    def in_floats(self) -> Box:
        """Return the box with floating-point corners, for solids and other work where exact figures only cost time.

        Equal coordinates stay equal: each is rounded by itself.
        """
        (a, b, c), (d, e, f) = self.low, self.high
        return Box((float(a), float(b), float(c)), (float(d), float(e), float(f)))  # type: ignore[arg-type]

    @property
    def volume(self) -> Fraction:
        """Return the volume in mm³."""
        return self.size(Axis.X) * self.size(Axis.Y) * self.size(Axis.Z)


def around(boxes: tuple[Box, ...]) -> Box:
    """Return the smallest box round some boxes (at least one)."""
    return Box(
        (min(b.low[0] for b in boxes), min(b.low[1] for b in boxes), min(b.low[2] for b in boxes)),
        (max(b.high[0] for b in boxes), max(b.high[1] for b in boxes), max(b.high[2] for b in boxes)),
    )
