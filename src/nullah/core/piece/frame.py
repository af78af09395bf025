"""A part's own frame: from its reference end, its face edge and its face side, in the blank as it was milled."""

from __future__ import annotations

from collections.abc import Iterable

from nullah.core.fraction import Fraction
from nullah.core.identity import kept_by_identity
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.stock import Stock, Surface, surface_at
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Side, around, side_at

Span = tuple[Fraction, Fraction]


class Frame(NamedTuple):
    """Where a part's blank lies in the piece.

    Parameters
    ----------
    part : Part
    axes : (Axis, Axis, Axis)
        Of the piece, along the grain, across it, and through the thickness.
    turned : (bool, bool, bool)
        Whether each runs against that of the piece.
    low, high : (Fraction, Fraction, Fraction)
        The blank's corners in the piece, along those axes, mm.
    stock : Stock
        The blank's length, width and thickness.
    """

    part: Part
    axes: tuple[Axis, Axis, Axis]
    turned: tuple[bool, bool, bool]
    low: tuple[Fraction, Fraction, Fraction]
    high: tuple[Fraction, Fraction, Fraction]
    stock: Stock

    @property
    def proud(self) -> Fraction:
        """What either end is left long, mm."""
        return self.part.spare / 2

    def spans(self, box: Box) -> tuple[Span, Span, Span]:
        """Return from where to where a box of the piece goes along the blank's own axes, mm."""
        x, y, z = (self.span(index, box.low[axis.value], box.high[axis.value]) for index, axis in enumerate(self.axes))
        return x, y, z

    def span(self, index: int, low: Fraction, high: Fraction) -> Span:
        """Return from where to where something goes along one of the blank's axes, mm.

        Parameters
        ----------
        index : int
            Of the blank's axis: length 0, width 1, thickness 2.
        low : Fraction
            In the piece, mm.
        high : Fraction
            In the piece, mm.
        """
        if self.turned[index]:
            return self.high[index] - high, self.high[index] - low
        return low - self.low[index], high - self.low[index]

    def surface(self, side: Side) -> Surface:
        """Return which surface of the blank a side of the piece is."""
        index = self.axes.index(side.axis)
        return surface_at(index, side.high is not self.turned[index])

    @property
    def finished(self) -> tuple[Span, Span, Span]:
        """The part's own box as it will be, mm."""
        return self.spans(self.part.box)


def frames_among(parts: Iterable[Part]) -> dict[str, Frame]:
    """Return the frame of every part of a piece, by its id.

    Parameters
    ----------
    parts : iterable of Part
        All parts of the piece.
    """
    every = tuple(parts)
    boxes: dict[str, list[Box]] = {}
    for part in every:
        boxes.setdefault(part.group, []).append(part.box)
    whole = {group: around(tuple(found)) for group, found in boxes.items()}
    return {part.id: _frame(part, _inside(part, whole[part.group])) for part in every}


def frame_within(part: Part, whole: Box) -> Frame:
    """Return the frame of a part whose group fills a box.

    The face side looks to the inside of what is put together: joints are gauged from there. The face edge is the lower
    or the front edge, the reference end the left or the front one. A part may have them elsewhere (`Part.references`).
    """
    return _frame(part, _inside(part, whole))


@kept_by_identity(2048)
def _frame(part: Part, inside: Side) -> Frame:
    axes = (part.grain, part.across, part.face)
    turned = (part.measured_from_high(part.grain), part.measured_from_high(part.across), inside.high)
    low, high = ([bounds[axis.value] for axis in axes] for bounds in part.box)
    low[0], high[0] = low[0] - part.spare / 2, high[0] + part.spare / 2
    stock = Stock(high[0] - low[0], high[1] - low[1], high[2] - low[2])
    return Frame(part, axes, turned, (low[0], low[1], low[2]), (high[0], high[1], high[2]), stock)


def _inside(part: Part, whole: Box) -> Side:
    """Return the side of a part's thickness that looks to the middle of its group; else the one that is not seen."""
    given = [side for side in part.references if side.axis is part.face]
    if given:
        return given[0]
    middle, own = (box.low[part.face.value] + box.high[part.face.value] for box in (whole, part.box))
    if middle != own:
        return side_at(part.face, middle > own)
    sides = [side_at(part.face, high) for high in (False, True)]
    return next((side for side in sides if side not in part.shows), sides[0])
