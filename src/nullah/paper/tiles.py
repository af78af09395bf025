"""What of a picture is painted anew: squares of the device over all that changed."""

from __future__ import annotations

from collections.abc import Iterator

from PySide6.QtCore import QRect
from PySide6.QtGui import QRegion

from nullah.core.drawing import Dimension, Drawing, Element, Path, Point, Ring
from nullah.core.identity import kept_by_identity
from nullah.core.label_placing import LabelBox
from nullah.core.named_tuple import NamedTuple
from nullah.core.refs import Ref
from nullah.paper.labels import PlacedText, PlacedTexts, dimension_line, text_of
from nullah.paper.scale import Scale

#: Side of a square, pixels.
_SIDE = 32
#: Where more than this share of all elements is another one, most squares are touched, and looking takes longer.
_MOST_OTHERS = 0.1
#: A line reaches so far beyond its points, and a word beyond its box in heights of its type and in its length.
_LINE_MM, _WORD_HIGH, _WORD_LONG = 1.5, 0.6, 0.06


class Painting(NamedTuple):
    """What a picture is painted of: a drawing, where its words stand, what is in hand, and what is pointed at."""

    drawing: Drawing
    texts: PlacedTexts
    lit: frozenset[Ref]
    hot: Ref | None


class Tiles:
    """Squares of a device.

    Parameters
    ----------
    width, height : int
        Of the device, pixels.

    Examples
    --------
    >>> tiles = Tiles(100, 100)
    >>> tiles.add(LabelBox(40, 10, 60, 20))
    >>> tiles.touch(LabelBox(62, 30, 70, 90)), tiles.touch(LabelBox(65, 0, 90, 100)), tiles.share
    (True, False, 0.0625)
    """

    def __init__(self, width: int, height: int) -> None:
        self._columns, self._rows = -(-width // _SIDE), -(-height // _SIDE)
        # The squares of each row, the first the lowest bit.
        self._taken = [0] * self._rows

    def add(self, box: LabelBox) -> None:
        """Take in all squares that a box touches."""
        squares, rows = self._squares(box)
        for row in rows:
            self._taken[row] |= squares

    def touch(self, box: LabelBox) -> bool:
        """Return whether a box touches any square taken in."""
        squares, rows = self._squares(box)
        taken = self._taken
        return any(taken[row] & squares for row in rows) if squares else False

    def _squares(self, box: LabelBox) -> tuple[int, range]:
        left, right = max(int(box.left) // _SIDE, 0), min(int(box.right) // _SIDE, self._columns - 1)
        top, bottom = max(int(box.top) // _SIDE, 0), min(int(box.bottom) // _SIDE, self._rows - 1)
        if right < left or bottom < top:
            return 0, range(0)
        return ((1 << (right - left + 1)) - 1) << left, range(top, bottom + 1)

    @property
    def share(self) -> float:
        """How much of the device they are, from 0 to 1."""
        return sum(row.bit_count() for row in self._taken) / max(1, self._columns * self._rows)

    def region(self) -> QRegion:
        """Return the region of all of them, in pixels."""
        found = QRegion()
        for row, squares in enumerate(self._taken):
            column = 0
            while squares >> column:
                if squares >> column & 1:
                    end = column
                    while squares >> end & 1:
                        end += 1
                    found += QRect(column * _SIDE, row * _SIDE, (end - column) * _SIDE, _SIDE)
                    column = end
                else:
                    column += 1
        return found


def changed_tiles(before: Painting, now: Painting, scale: Scale, size: tuple[int, int]) -> Tiles | None:
    """Return where a picture is another one; None where all of it is to be painted.

    Elements are told apart by what they are, not by what they are equal to: there are thousands.

    Parameters
    ----------
    before, now : Painting
    scale : Scale
        Of both.
    size : (width, height)
        Of the picture, pixels.
    """
    were, are = _places(before.drawing), _places(now.drawing)
    if were is None or are is None:
        return None
    stay = [key for key in were if key in are]
    if len(were) + len(are) - 2 * len(stay) > _MOST_OTHERS * (len(were) + len(are)):
        return None
    if stay != [key for key in are if key in were]:
        return None  # what lay over something lies under it
    tiles = Tiles(*size)
    for painting, own, others in ((before, were, are), (now, are, were)):
        for key, index in own.items():
            if key not in others:
                _take(tiles, painting, index, scale)
    looks_other = (_in_hand(before) ^ _in_hand(now)) | (before.lit ^ now.lit)
    for key in stay:
        one, other = were[key], are[key]
        if before.drawing.elements[one].ref in looks_other or before.texts.of.get(one) != now.texts.of.get(other):
            _take(tiles, before, one, scale)
            _take(tiles, now, other, scale)
    if before.texts.notes != now.texts.notes:
        for note in (*before.texts.notes, *now.texts.notes):
            tiles.add(word_box(note))
    return tiles


@kept_by_identity(4)
def _places(drawing: Drawing) -> dict[int, int] | None:
    """Return where each element stands in a drawing; None where one stands in it twice."""
    found = {id(element): index for index, element in enumerate(drawing.elements)}
    return found if len(found) == len(drawing.elements) else None


def _in_hand(painting: Painting) -> frozenset[Ref]:
    return painting.lit if painting.hot is None else painting.lit | {painting.hot}


def _take(tiles: Tiles, painting: Painting, index: int, scale: Scale) -> None:
    for box in boxes_of(painting.drawing.elements[index], painting.texts.of.get(index), scale):
        tiles.add(box)


def touched(tiles: Tiles, painting: Painting, scale: Scale) -> list[Element]:
    """Return the elements of a drawing that are painted in any of some squares, in their order."""
    of = painting.texts.of
    return [
        element
        for index, element in enumerate(painting.drawing.elements)
        if any(tiles.touch(box) for box in boxes_of(element, of.get(index), scale))
    ]


def boxes_of(element: Element, text: PlacedText | None, scale: Scale) -> Iterator[LabelBox]:
    """Yield the boxes in which an element is painted, pixels.

    Parameters
    ----------
    element : Element
    text : PlacedText or None
        Its words, where they stand.
    scale : Scale
    """
    if isinstance(element, Path):
        if element.points:
            yield path_box(element, scale)
        return
    if isinstance(element, Dimension):
        ends = (*dimension_line(element, scale), scale.put(element.start), scale.put(element.end))
        xs, ys = [end.x() for end in ends], [end.y() for end in ends]
        yield _grown(LabelBox(min(xs), min(ys), max(xs), max(ys)), 2 * _LINE_MM * scale.paper)
    if text is None and isinstance(element, Ring) and not element.text:
        text = text_of(element, scale)
    if text is not None:
        yield word_box(text)


def path_box(path: Path, scale: Scale) -> LabelBox:
    """Return the box in which a path is painted, with the width of its line, pixels."""
    left, top, right, bottom = _bounds(path.points)
    (x, y), by, beyond = scale.origin, scale.per_mm, _LINE_MM * scale.paper
    return LabelBox(x + left * by - beyond, y + top * by - beyond, x + right * by + beyond, y + bottom * by + beyond)


@kept_by_identity(20_000)
def _bounds(points: tuple[Point, ...]) -> tuple[float, float, float, float]:
    xs, ys = zip(*points, strict=True)
    return min(xs), min(ys), max(xs), max(ys)


def word_box(text: PlacedText) -> LabelBox:
    """Return the box in which words are painted, with the ground that is cleared under them and what leads there."""
    box = _grown(text.box(), _WORD_HIGH * text.pixels + _WORD_LONG * text.width)
    if text.led_from is None:
        return box
    x, y = text.led_from
    return LabelBox(min(box.left, x - 2), min(box.top, y - 2), max(box.right, x + 2), max(box.bottom, y + 2))


def _grown(box: LabelBox, by: float) -> LabelBox:
    return LabelBox(box.left - by, box.top - by, box.right + by, box.bottom + by)
