"""Where labels stand on a drawing: none over another, none cut off; what matters most is placed first.

Each label has a few places where it may stand, best first. A label takes the first that is
free; one that finds none gives way, and is shown by a number that is explained beside the drawing.
Boxes are upright, in the pixels of the device, y downwards.
"""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence

from nullah.core.identity import kept_by_value
from nullah.core.named_tuple import NamedTuple

#: Labels usually keep so far from each other, pixels.
GAP = 2.0
#: Least size of the cells in which boxes are looked for, pixels.
_CELL = 64.0


class LabelBox(NamedTuple):
    """An upright box."""

    left: float
    top: float
    right: float
    bottom: float

    def holds(self, x: float, y: float) -> bool:
        """Return whether a place lies in it.

        Parameters
        ----------
        x, y : float
            Pixels.
        """
        return self.left <= x <= self.right and self.top <= y <= self.bottom

    def inside(self, room: LabelBox) -> bool:
        """Return whether the whole box lies in a room."""
        return (
            self.left >= room.left and self.top >= room.top and self.right <= room.right and self.bottom <= room.bottom
        )


def box_of_text(middle: tuple[float, float], wide: float, high: float, degrees: float = 0.0) -> LabelBox:
    """Return the upright box round a line of text that may be turned about its middle.

    Parameters
    ----------
    middle : (x, y)
        Pixels.
    wide, high : float
        Of the text as it reads, pixels.
    degrees : float
        Turned by so much, clockwise.

    Examples
    --------
    >>> box_of_text((50, 50), 40, 10, 90)
    LabelBox(left=45.0, top=30.0, right=55.0, bottom=70.0)
    """
    c, s = abs(math.cos(math.radians(degrees))), abs(math.sin(math.radians(degrees)))
    half_wide, half_high = round((wide * c + high * s) / 2, 6), round((wide * s + high * c) / 2, 6)
    return LabelBox(middle[0] - half_wide, middle[1] - half_high, middle[0] + half_wide, middle[1] + half_high)


class Shift(NamedTuple):
    """By how many pixels a label is shifted, and to what share of its size it is set."""

    dx: float
    dy: float
    share: float = 1.0

    def of(self, box: LabelBox) -> LabelBox:
        """Return a box shifted, and shrunk about its middle."""
        wide, high = (1 - self.share) * (box.right - box.left) / 2, (1 - self.share) * (box.bottom - box.top) / 2
        return LabelBox(
            box.left + self.dx + wide, box.top + self.dy + high, box.right + self.dx - wide, box.bottom + self.dy - high
        )


class Wish(NamedTuple):
    """Where a label may stand: `shifts` from `box`, best first. The smaller `rank`, the sooner it is placed.

    The shifts are gone through once, no further than to the first that is free.

    `fixed`: a line of running text. It stands at its first place whatever else is there: moved among other lines
    it would be read out of order.
    """

    box: LabelBox
    shifts: Iterable[Shift]
    rank: int = 0
    fixed: bool = False


class Placing:
    """Places labels one after the other, clear of all that is taken, which is looked up by where it lies.

    Parameters
    ----------
    room : LabelBox, optional
        Where they may stand; without one, anywhere.
    taken : iterable of LabelBox
        What stands there already.
    gap : float
        How far labels keep from each other, pixels.
    cell : float
        Size of the cells in which boxes are looked for, pixels: about as wide as a label.
    """

    def __init__(
        self, room: LabelBox | None = None, taken: Iterable[LabelBox] = (), gap: float = GAP, cell: float = _CELL
    ) -> None:
        self._cells: dict[tuple[int, int], list[LabelBox]] = defaultdict(list)
        self._room, self._cell, self._gap = room, cell, gap
        for box in taken:
            self._add(box)

    def place(self, wish: Wish) -> Shift | None:
        """Return by how much a label is shifted, and take its place; None where it finds none."""
        for shift in wish.shifts:
            box = shift.of(wish.box)
            if wish.fixed or ((self._room is None or box.inside(self._room)) and self._free(box)):
                self._add(box)
                return shift
        return None

    def _cells_of(self, box: LabelBox) -> Iterator[tuple[int, int]]:
        cell = self._cell
        for column in range(int(box.left // cell), int(box.right // cell) + 1):
            for row in range(int(box.top // cell), int(box.bottom // cell) + 1):
                yield column, row

    def _add(self, box: LabelBox) -> None:
        for cell in self._cells_of(box):
            self._cells[cell].append(box)

    def _free(self, box: LabelBox) -> bool:
        gap = self._gap
        left, top, right, bottom = box.left - gap, box.top - gap, box.right + gap, box.bottom + gap
        return not any(
            other.left < right and left < other.right and other.top < bottom and top < other.bottom
            for cell in self._cells_of(LabelBox(left, top, right, bottom))
            for other in self._cells.get(cell, ())
        )


def placed(
    wishes: Sequence[Wish], room: LabelBox | None = None, taken: Iterable[LabelBox] = (), gap: float = GAP
) -> list[Shift | None]:
    """Place labels so that none lies over another or over what is taken, and all lie in the room.

    Parameters
    ----------
    wishes : sequence of Wish
    room : LabelBox, optional
        Where they may stand; without one, anywhere.
    taken : iterable of LabelBox
        What stands there already.
    gap : float
        How far labels keep from each other, pixels.

    Returns
    -------
    list of Shift or None
        By how much each is shifted, in the order of the wishes; None where it found no place.

    Examples
    --------
    >>> one = Wish(LabelBox(0, 0, 10, 10), (Shift(0, 0),))
    >>> two = Wish(LabelBox(5, 0, 15, 10), (Shift(0, 0), Shift(0, 14)))
    >>> [shift.dy for shift in placed([one, two])]
    [0, 14]
    """
    usual = sum(wish.box.right - wish.box.left for wish in wishes) / max(len(wishes), 1)
    placing = Placing(room, taken, gap, max(_CELL, usual))
    found: list[Shift | None] = [None] * len(wishes)
    for index in sorted(range(len(wishes)), key=lambda index: (wishes[index].rank, index)):
        found[index] = placing.place(wishes[index])
    return found


def into_room(box: LabelBox, room: LabelBox | None) -> tuple[float, float]:
    """Return the shortest shift that brings a box into a room; nothing where it is larger."""
    if room is None:
        return 0.0, 0.0
    dx = max(room.left - box.left, 0.0) or min(room.right - box.right, 0.0)
    dy = max(room.top - box.top, 0.0) or min(room.bottom - box.bottom, 0.0)
    return dx, dy


@kept_by_value(1024)
def around(wide: float, high: float, reach: float) -> tuple[Shift, ...]:
    """Return shifts round a place, the nearest first: beside, above, below, and farther out.

    Parameters
    ----------
    wide, high : float
        Of the box that is shifted, pixels.
    reach : float
        How far at most, pixels.
    """
    down, along = high * 1.2, max(wide / 3, high)
    rows, columns = int(reach / down), int(reach / along)
    steps = [
        Shift(column * along, row * down) for row in range(-rows, rows + 1) for column in range(-columns, columns + 1)
    ]
    # Up and down reads as the same label; sideways it may seem to be of a neighbour.
    return tuple(sorted(steps, key=lambda step: (math.hypot(step.dx * 1.3, step.dy), step.dy > 0, step)))
