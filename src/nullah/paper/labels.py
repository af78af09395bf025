"""The words of a drawing, placed: how large they are painted, and where they stand so that none touch."""

from __future__ import annotations

import math
import re
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace

from PySide6.QtCore import QPointF, QRectF

from nullah.core.drawing import Anchor, Dimension, Drawing, Element, Label, Path, Ring, Role
from nullah.core.frozen_record import FrozenRecord
from nullah.core.label_placing import LabelBox, Placing, Shift, Wish, around, box_of_text, into_room, placed
from nullah.core.refs import Ref
from nullah.paper.lettering import cap_height, descent, width_of
from nullah.paper.scale import Scale

# A sign as well as a colour for what a dimension's figure is worth.
STATE_SIGNS = {"measured": " ✓", "overruled": " ✎", "wait for a measurement": " …"}
#: What is placed first: lines of a list, what is in hand, the order of cuts, figures, names, what is told besides.
_LINE, _PICKED, _RING, _FIGURE, _NAME, _BESIDES = range(6)
_BESIDE_ROLES = (Role.FAINT, Role.FLAW, Role.GRAIN, Role.PENCIL)
#: Words of which no letter reaches below the line.
_NO_DESCENT = re.compile(r"[^gjpqyQ,;()\[\]{}|_/⁄″′↓↘↙]*")
#: How far labels keep from each other, paper mm.
_GAP_MM = 0.4
#: How far a label may go from its place, in heights of its type; beyond `_NEAR` (`_NEAR_NAME` for the name
#: of what it stands on) a line leads back to it.
_REACH, _NEAR, _NEAR_NAME = 9.0, 1.6, 0.7
#: Names are set no smaller than this for want of room, paper mm: 13 pixels on the bench.
_LEAST_MM = 2.87
#: Size of the numbers that stand for labels without a place, and of what explains them, paper mm.
_NOTE_MM = 3.0


class PlacedText(FrozenRecord):
    """A line of words on the device.

    Parameters
    ----------
    words : str
    middle : (x, y)
        Pixels.
    angle : float
        Degrees, clockwise.
    width, pixels : float
        Length of the line and height of its type, pixels.
    bold : bool
    radius : float
        Of the ring round it, pixels; 0 without one.
    led_from : (x, y), optional
        Where a line leads to: the words stand away from what they name.
    """

    words: str
    middle: tuple[float, float]
    angle: float
    width: float
    pixels: float
    bold: bool = False
    radius: float = 0.0
    led_from: tuple[float, float] | None = None

    def box(self) -> LabelBox:
        """Return the upright box round it."""
        if self.radius:
            (x, y), r = self.middle, self.radius
            return LabelBox(x - r, y - r, x + r, y + r)
        below = 0.09 * self.pixels if _NO_DESCENT.fullmatch(self.words) else descent(self.pixels, self.bold)
        high = cap_height(self.pixels, self.bold) + 2 * below
        return box_of_text(self.middle, self.width, high, self.angle)

    def rect(self) -> QRectF:
        """Return that box for pointing at it."""
        box = self.box()
        return QRectF(box.left, box.top, box.right - box.left, box.bottom - box.top)


class PlacedTexts(FrozenRecord):
    """All words of a drawing: by the number of their element; and the notes that explain numbers."""

    of: dict[int, PlacedText]
    notes: tuple[PlacedText, ...] = ()

    def boxes(self) -> list[LabelBox]:
        """Return the boxes of all of them."""
        return [text.box() for text in (*self.of.values(), *self.notes)]


NOTHING = PlacedTexts({})


def placed_texts(
    drawing: Drawing,
    scale: Scale,
    room: LabelBox | None = None,
    taken: tuple[LabelBox, ...] = (),
    picked: frozenset[Ref] = frozenset(),
) -> PlacedTexts:
    """Place the words of a drawing.

    Parameters
    ----------
    drawing : Drawing
    scale : Scale
    room : LabelBox, optional
        Where words may stand, pixels.
    taken : tuple of LabelBox
        What stands on the device already.
    picked : frozenset of Ref
        What is in hand: its words are placed first.
    """
    found: list[tuple[int, PlacedText, Wish]] = []
    lines = {
        index: _line_box(each, scale) for index, each in enumerate(drawing.elements) if isinstance(each, Dimension)
    }
    for index, element in enumerate(drawing.elements):
        if isinstance(element, Path) or not element.text:
            continue
        text = text_of(element, scale)
        others = [box for other, box in lines.items() if other != index] if index in lines else []
        wish = _wish(element, text, scale, room, element.ref is not None and element.ref in picked, others)
        if wish is not None:
            found.append((index, text, wish))
    shifts = placed([wish for _, _, wish in found], room, taken, _GAP_MM * scale.paper)
    there = {
        index: _shifted(text, shift, element)
        for (index, text, _), shift in zip(found, shifts, strict=True)
        if shift is not None and not isinstance(element := drawing.elements[index], Path)
    }
    lost = [
        (index, text)
        for (index, text, _), shift in zip(found, shifts, strict=True)
        if shift is None and not _minor(drawing.elements[index])
    ]
    return _explained(there, lost, scale, room, taken)


def text_of(element: Label | Ring | Dimension, scale: Scale) -> PlacedText:
    """Return the words of an element where they stand if nothing is in their way."""
    match element:
        case Ring():
            at = _at(element, scale)
            radius = element.radius_mm * scale.paper
            pixels = radius * 1.15
            return PlacedText(element.text, at, 0.0, width_of(element.text, pixels, True), pixels, True, radius)
        case Label():
            pixels = element.size_mm * scale.paper
            wide = width_of(element.text, pixels, element.bold)
            off = {Anchor.START: wide / 2, Anchor.MIDDLE: 0.0, Anchor.END: -wide / 2}[element.anchor]
            turn = math.radians(element.angle)
            x, y = _at(element, scale)
            middle = x + off * math.cos(turn), y + off * math.sin(turn)
            return PlacedText(element.text, middle, element.angle, wide, pixels, element.bold)
        case Dimension():
            return _figure(element, scale)


def _at(element: Label | Ring, scale: Scale) -> tuple[float, float]:
    at = scale.put(element.at)
    return at.x() + element.nudge_mm[0] * scale.paper, at.y() + element.nudge_mm[1] * scale.paper


def _figure(dimension: Dimension, scale: Scale) -> PlacedText:
    """Place a dimension's figure: between its ticks, or beyond the second where there is no room.

    It reads from below or from the right, as drawings are read.
    """
    a, b = dimension_line(dimension, scale)
    length = math.hypot(b.x() - a.x(), b.y() - a.y()) or 1.0
    ux, uy = (b.x() - a.x()) / length, (b.y() - a.y()) / length
    words = dimension.text + STATE_SIGNS.get(dimension.state, "")
    pixels = 3.4 * scale.paper
    angle = math.degrees(math.atan2(uy, ux))
    if angle > 89.5:
        angle -= 180
    elif angle <= -90.5:
        angle += 180
    middle = (a.x() + b.x()) / 2, (a.y() + b.y()) / 2
    width = width_of(words, pixels) + 2 * scale.paper
    if width > length:
        push = width / 2 + 1.5 * scale.paper
        middle = b.x() + ux * push, b.y() + uy * push
    return PlacedText(words, middle, angle, width, pixels)


def dimension_line(dimension: Dimension, scale: Scale) -> tuple[QPointF, QPointF]:
    """Return both ends of a dimension's line on the device, for pointing at it."""
    start, end = scale.put(dimension.start), scale.put(dimension.end)
    dx, dy = end.x() - start.x(), end.y() - start.y()
    length = math.hypot(dx, dy) or 1.0
    offset = dimension.offset_mm * scale.paper
    nx, ny = dy / length * offset, -dx / length * offset
    return QPointF(start.x() + nx, start.y() + ny), QPointF(end.x() + nx, end.y() + ny)


def _wish(
    element: Label | Ring | Dimension,
    text: PlacedText,
    scale: Scale,
    room: LabelBox | None,
    picked: bool,
    others: Sequence[LabelBox],
) -> Wish | None:
    """Return where the words of an element may stand; None where what they are about is not on the device."""
    box = text.box()
    high = text.pixels
    if room is not None:
        about = text.middle if isinstance(element, Dimension) else _at(element, scale)
        slack = 2 * high
        if not (
            room.left - slack <= about[0] <= room.right + slack and room.top - slack <= about[1] <= room.bottom + slack
        ):
            return None
    first = into_room(box, room)
    own: tuple[Shift, ...] = (Shift(0, 0),)
    if isinstance(element, Dimension):
        own = _along(element, text, scale)
        line = _line_box(element, scale)
        if _on_any(_hull(line, box), others):
            # Beyond its own line it would be read as the figure of another that lies there.
            own = tuple(sorted(own, key=lambda step: _on_any(_hull(line, step.of(box)), others)))
    elif not text.radius and text.pixels > _LEAST_MM * scale.paper:
        # A name that is too large for its place is better small than elsewhere.
        own = (*own, Shift(0, 0, _LEAST_MM * scale.paper / text.pixels))
    running = isinstance(element, Label | Ring) and element.running
    reach = _NEAR_NAME if _minor(element) else _REACH
    shifts = _from(first, own, (box.right - box.left, box.bottom - box.top, reach * high))
    return Wish(box, shifts, _LINE if running else _PICKED if picked else _rank(element), fixed=running)


def _minor(element: Element) -> bool:
    return isinstance(element, Label) and element.minor


def _from(first: tuple[float, float], own: tuple[Shift, ...], round_it: tuple[float, float, float]) -> Iterator[Shift]:
    """Yield places counted from the first: its own, and only where those are taken the many round it."""
    for step in own:
        yield Shift(first[0] + step.dx, first[1] + step.dy, step.share)
    for step in around(*round_it):
        yield Shift(first[0] + step.dx, first[1] + step.dy)


def _rank(element: Label | Ring | Dimension) -> int:
    """Return what is placed before what: running lines stand where they are set, names give way."""
    match element:
        case Ring():
            return _RING
        case Dimension():
            return _FIGURE
        case Label(role=role) if role in _BESIDE_ROLES and element.anchor is not Anchor.START:
            return _BESIDES
        case Label(anchor=Anchor.MIDDLE):
            return _NAME
        case _:
            return _LINE


def _along(dimension: Dimension, text: PlacedText, scale: Scale) -> tuple[Shift, ...]:
    """Return the places of a figure on its own line: where it is, a quarter along either way, beyond either end."""
    a, b = dimension_line(dimension, scale)
    dx, dy = b.x() - a.x(), b.y() - a.y()
    length = math.hypot(dx, dy) or 1.0
    push = text.width / 2 + 1.5 * scale.paper
    ends = (
        (b.x() + dx / length * push, b.y() + dy / length * push),
        (a.x() - dx / length * push, a.y() - dy / length * push),
    )
    on_line = [(a.x() + dx * share, a.y() + dy * share) for share in (0.5, 0.3, 0.7)] if text.width <= length else []
    return (Shift(0, 0), *(Shift(x - text.middle[0], y - text.middle[1]) for x, y in (*on_line, *ends)))


def _line_box(dimension: Dimension, scale: Scale) -> LabelBox:
    a, b = dimension_line(dimension, scale)
    return LabelBox(min(a.x(), b.x()), min(a.y(), b.y()), max(a.x(), b.x()), max(a.y(), b.y()))


def _hull(one: LabelBox, other: LabelBox) -> LabelBox:
    return LabelBox(
        min(one.left, other.left), min(one.top, other.top), max(one.right, other.right), max(one.bottom, other.bottom)
    )


def _on_any(box: LabelBox, lines: Iterable[LabelBox]) -> bool:
    """Return whether a box lies on one of some lines; where it only ends at one, it does not."""
    left, right, top, bottom = box.left + 0.5, box.right - 0.5, box.top + 0.5, box.bottom - 0.5
    return any(left < one.right and one.left < right and top < one.bottom and one.top < bottom for one in lines)


def _shifted(text: PlacedText, shift: Shift, element: Label | Ring | Dimension) -> PlacedText:
    x, y = text.middle
    share = shift.share
    there = replace(text, middle=(x + shift.dx, y + shift.dy), pixels=text.pixels * share, width=text.width * share)
    far = math.hypot(shift.dx, shift.dy) > (_NEAR if _rank(element) != _NAME else _NEAR_NAME) * text.pixels
    return replace(there, led_from=text.middle) if far and not isinstance(element, Dimension) else there


def _explained(
    there: dict[int, PlacedText],
    lost: list[tuple[int, PlacedText]],
    scale: Scale,
    room: LabelBox | None,
    taken: tuple[LabelBox, ...],
) -> PlacedTexts:
    """Put a number where words found no place, and explain the numbers at the foot of the room."""
    if not lost or room is None:
        return PlacedTexts(there)
    size = _NOTE_MM * scale.paper
    placing = Placing(room, [*taken, *(text.box() for text in there.values())], 0.0)
    notes: list[PlacedText] = []
    same: dict[str, str] = {}
    for index, text in lost:
        number = same.setdefault(text.words, str(len(same) + 1))
        mark = PlacedText(number, text.middle, 0.0, width_of(number, size, True), size, True, size * 0.75)
        shift = placing.place(Wish(mark.box(), around(2 * mark.radius, 2 * mark.radius, 6 * size)))
        if shift is not None:
            there[index] = _shifted(mark, shift, Ring((0, 0), number))
    for words, number in same.items():
        line = f"{number}  {words}"
        wide = width_of(line, size)
        note = PlacedText(line, (room.right - wide / 2 - size, room.bottom - size), 0.0, wide, size)
        ups = tuple(Shift(0, -row * size * 1.4) for row in range(40))
        shift = placing.place(Wish(note.box(), ups))
        if shift is not None:
            notes.append(_shifted(note, shift, Dimension((0, 0), (1, 0), "")))
    return PlacedTexts(there, tuple(notes))


def as_boxes(rects: Iterable[QRectF]) -> tuple[LabelBox, ...]:
    """Return boxes of the device as label boxes."""
    return tuple(LabelBox(r.left(), r.top(), r.right(), r.bottom()) for r in rects)
