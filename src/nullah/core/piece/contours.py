"""Contours of a board of one's own: which there are, where each can go, what it is sized by.

A contour is chosen by its kind and place and sized by named lengths; `shaping_of` makes the
shaping of it. The table `CONTOURS` is all the desk needs to offer them.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from enum import Enum, auto
from itertools import combinations

from nullah.core.catalogue import N_, Phrase
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length, LengthError, Unit, read_length
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import (
    Arch,
    Chamfer,
    LongBevel,
    Notch,
    OgeeFoot,
    RaisedPanel,
    RoundOver,
    Shaping,
    Taper,
    Traced,
)
from nullah.core.piece.space import Axis, Side


class Place(NamedTuple):
    """Where a contour can go: what it is called, and the sides that say so."""

    title: str
    sides: tuple[Side, ...]


class Contour(NamedTuple):
    """A kind of contour.

    `places` gives where it can go on a part, `figures` are the names of its sizes with what
    share of the board's width each usually is, `make` the shaping from part, sides and mm.
    """

    id: str
    title: str
    places: Callable[[Part], tuple[Place, ...]]
    figures: tuple[tuple[str, Fraction], ...]
    make: Callable[[Part, tuple[Side, ...], tuple[float, ...]], Shaping]


def _edges(part: Part) -> tuple[Place, ...]:
    """Every edge between two sides; the corners of the board's face first."""
    pairs = [(a, b) for a, b in combinations(Side, 2) if a.axis is not b.axis]
    pairs.sort(key=lambda pair: part.face in (pair[0].axis, pair[1].axis))
    return tuple(Place(Phrase("{one} and {other}", one=a.value, other=b.value), (a, b)) for a, b in pairs)


def _narrow(part: Part) -> tuple[Place, ...]:
    """Return the narrow sides: long edges first, then the ends."""
    sides = [side for side in Side if side.axis is not part.face]
    sides.sort(key=lambda side: side.axis is part.grain)
    return tuple(Place(side.value, (side,)) for side in sides)


def _faces(part: Part) -> tuple[Place, ...]:
    return tuple(Place(side.value, (side,)) for side in Side if side.axis is part.face)


def _ends(part: Part) -> tuple[Place, ...]:
    """Both ends, with all four faces or one."""
    found = []
    around = [side for side in Side if side.axis is not part.grain]
    for end in (side for side in Side if side.axis is part.grain):
        found.append(Place(Phrase("towards {end}, four faces", end=end.value), (end, *around)))
        found += [
            Place(Phrase("towards {end}, {side}", end=end.value, side=side.value), (end, side)) for side in around
        ]
    return tuple(found)


def _notch(part: Part, sides: tuple[Side, ...], mm: tuple[float, ...]) -> Notch:
    """Take a box out of a narrow side: so far from its low end, so long, so deep, through the thickness."""
    side, (start, length, depth) = sides[0], mm
    along = next(axis for axis in Axis if axis not in (side.axis, part.face))
    low, high = [0.0, 0.0, 0.0], [float(part.box.size(axis)) for axis in Axis]
    low[along.value], high[along.value] = start, start + length
    whole = high[side.axis.value]
    low[side.axis.value], high[side.axis.value] = (whole - depth, whole) if side.high else (0.0, depth)
    return Notch((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def _pair(sides: tuple[Side, ...]) -> tuple[Side, Side]:
    return sides[0], sides[1]


_F = Fraction
_FROM_END = N_("from the end")
CONTOURS: dict[str, Contour] = {
    contour.id: contour
    for contour in (
        Contour(
            "round corner",
            "Round corner or edge",
            _edges,
            ((N_("radius"), _F(1, 4)),),
            lambda part, sides, mm: RoundOver(_pair(sides), mm[0]),
        ),
        Contour(
            "chamfer",
            "Chamfer",
            _edges,
            ((N_("width"), _F(1, 16)),),
            lambda part, sides, mm: Chamfer(_pair(sides), mm[0]),
        ),
        Contour(
            "notch",
            "Notch",
            _narrow,
            ((_FROM_END, _F(1, 2)), (N_("length"), _F(1, 4)), (N_("depth"), _F(1, 6))),
            _notch,
        ),
        Contour(
            "arch",
            "Arch",
            _narrow,
            ((N_("chord"), _F(1)), (N_("rise"), _F(1, 6))),
            lambda part, sides, mm: Arch(sides[0], part.face, mm[0], mm[1]),
        ),
        Contour(
            "ogee",
            "Ogee feet",
            _narrow,
            ((N_("foot"), _F(1, 4)), (N_("run"), _F(1, 4)), (N_("rise"), _F(1, 6))),
            lambda part, sides, mm: OgeeFoot(sides[0], part.face, mm[0], mm[1], mm[2]),
        ),
        Contour(
            "taper",
            "Taper",
            _ends,
            ((N_("start"), _F(1)), (N_("off each face"), _F(1, 8))),
            lambda part, sides, mm: Taper(frozenset(sides[1:]), sides[0], mm[0], mm[1]),
        ),
        Contour(
            "bevel",
            "Long bevel",
            _edges,
            ((N_("run"), _F(1, 4)), (N_("fall"), _F(1, 16))),
            lambda part, sides, mm: LongBevel(_pair(sides), mm[0], mm[1]),
        ),
        Contour(
            "raised",
            "Raised panel",
            _faces,
            ((N_("width"), _F(1, 4)), (N_("fall"), _F(1, 32))),
            lambda part, sides, mm: RaisedPanel(sides[0], mm[0], mm[1]),
        ),
    )
}


class ContourFault(Enum):
    """Why a contour cannot be."""

    NOT_POSITIVE = auto()
    LARGER_THAN_BOARD = auto()
    TWO_LENGTHS_WANTED = auto()
    TOO_FEW_POINTS = auto()


class NoContour(FrozenRecord):
    """Why a contour cannot be, by the figure or the line of the template that is at fault."""

    fault: ContourFault
    figure: str = ""
    line: int = 0


def shaping_of(contour: Contour, part: Part, sides: tuple[Side, ...], sizes: Iterable[Length]) -> Shaping:
    """Make the shaping of a contour.

    Parameters
    ----------
    contour : Contour
        Which.
    part : Part
        It is cut on.
    sides : tuple[Side, ...]
        Where.
    sizes : Iterable[Length]
        Its figures, in their order.

    Raises
    ------
    LengthError
        Where a size is nothing, or larger than the board.
    """
    figures = []
    largest = max(part.box.size(axis) for axis in Axis)
    for (name, _), size in zip(contour.figures, sizes, strict=True):
        if size.mm < 0 or (size.mm == 0 and name not in ("start", _FROM_END, "foot")):
            raise LengthError(NoContour(ContourFault.NOT_POSITIVE, name))
        if size.mm > largest:
            raise LengthError(NoContour(ContourFault.LARGER_THAN_BOARD, name))
        figures.append(float(size))
    return contour.make(part, sides, tuple(figures))


def usual(contour: Contour, part: Part) -> tuple[Length, ...]:
    """Return the sizes a contour usually has on a part, to whole mm."""
    width = part.box.size(part.across)
    return tuple(Length(Fraction(max(1, round(width * share)))) for _, share in contour.figures)


def traced(part: Part, side: Side, text: str, unit: Unit) -> Traced:
    """Make a traced edge of a template's points: one a line, how far along and how far in.

    Parameters
    ----------
    text : str
        Lines of two lengths, parted by a comma, semicolon or tab; a first line of words is passed over.

    Raises
    ------
    LengthError
        With the line that cannot be read.
    """
    points: list[tuple[float, float]] = []
    for number, raw in enumerate(text.replace(";", ",").replace("\t", ",").splitlines(), start=1):
        cells = [cell.strip() for cell in raw.split(",") if cell.strip()]
        if not cells or (number == 1 and not any(letter.isdigit() for letter in raw)):
            continue
        if len(cells) != 2:
            raise LengthError(NoContour(ContourFault.TWO_LENGTHS_WANTED, line=number))
        along, deep = (float(read_length(cell, unit)) for cell in cells)
        points.append((along, deep))
    if len(points) < 2:
        raise LengthError(NoContour(ContourFault.TOO_FEW_POINTS))
    points.sort(key=lambda point: point[0])
    return Traced(side, part.face, tuple(points))
