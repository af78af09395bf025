"""A page: its size, its drawing, and the setting of words on it."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from enum import Enum
from functools import partial

from nullah.core.card import Setting, Severity
from nullah.core.drawing import Anchor, Drawing, Element, Label, Path, Point, Role, line, wrapped
from nullah.core.frozen_record import FrozenRecord
from nullah.core.wording.card import WordedCard

#: Papers, mm: ISO 216 and ANSI/ASME Y14.1 (from memory).
A4, LETTER = (210.0, 297.0), (215.9, 279.4)
#: What every sheet keeps within, so that it goes on either paper at full size.
PAGE = (min(A4[0], LETTER[0]), min(A4[1], LETTER[1]))
MARGIN = 14.0


class SheetKind(Enum):
    """What a sheet is; the value is what people choose by."""

    LIST = "lists"
    BOARD = "boards"
    MILLING = "milling"
    PART = "parts"
    JOINT = "joints"
    TEMPLATE = "templates"
    STICK = "story sticks"
    BOOK = "days"


class Sheet(FrozenRecord):
    """One page. `name` is for the file, `title` for people, `of` says of what; the drawing is in paper mm."""

    name: str
    title: str
    drawing: Drawing
    kind: SheetKind = SheetKind.LIST
    of: str = ""
    width_mm: float = PAGE[0]
    height_mm: float = PAGE[1]


def paragraph(
    text: str, x: float, y: float, width: float, size: float = 3.2, role: Role = Role.LABEL, bold: bool = False
) -> tuple[list[Element], float]:
    """Set words in lines from (x, y) down, `width` mm wide; give the lines and where they end, mm.

    The core cannot measure type; half the size for a letter is on the safe side for the
    typeface that ships.
    """
    lines = wrapped(text, max(10, int(width / (size * 0.5))), cut=True)
    leading = size * 1.4
    words: list[Element] = [
        Label((x, y + leading * (i + 0.5)), words, size, Anchor.START, role, bold=bold, running=True)
        for i, words in enumerate(lines)
    ]
    return words, y + leading * len(lines)


def heading(piece: str, title: str, page: str, width: float = PAGE[0]) -> list[Element]:
    """Head a page: the piece, what the sheet is, and which of how many."""
    return [
        Label((MARGIN, 13), title, 6.0, Anchor.START, bold=True, running=True),
        Label((width - MARGIN, 12), piece, 3.6, Anchor.END),
        Label((width - MARGIN, 17), page, 2.8, Anchor.END, Role.FAINT),
        line((MARGIN, 20), (width - MARGIN, 20), Role.OUTLINE),
    ]


def card_on_paper(card: WordedCard, x: float, y: float, width: float) -> tuple[list[Element], float]:
    """Set a card as it stands on the desk: Set in large figures, Mark, Mind. Gives where it ends, mm."""
    found: list[Element] = []
    for block in _blocks(card, x, width):
        words, y = block(y)
        found += words
    return found, y


def card_on_pages(card: WordedCard, x: float, y: float, width: float) -> list[list[Element]]:
    """Set a card from `y` mm down, and on as many further pages as it takes."""
    pages: list[list[Element]] = [[]]
    for block in _blocks(card, x, width):
        words, end = block(y)
        if end > PAGE[1] - 8 and (pages[-1] or len(pages) == 1):
            pages.append([])
            words, end = block(_NEXT_PAGE)
        pages[-1] += words
        y = end
    return pages


#: What stands together on a page: set from a height down, it gives its words and where they end, mm.
_Block = Callable[[float], tuple[list[Element], float]]
#: A further page of a card begins so far down, mm.
_NEXT_PAGE = 28.0
_COLUMNS = 3


def _blocks(card: WordedCard, x: float, width: float) -> Iterator[_Block]:
    """Yield the rows of settings and the lines of a card, the heading of each part with its first line."""
    rows = [card.set[start : start + _COLUMNS] for start in range(0, len(card.set), _COLUMNS)]
    for row in rows:
        yield partial(_row, row, x, width, last=row is rows[-1])
    marks = [(text, Role.LABEL) for text in card.mark]
    for title, lines, numbered in ((card.headings.mark, marks, True), (card.headings.mind, _minds(card), False)):
        for number, (text, role) in enumerate(lines, start=1):
            sign = f"{number}" if numbered else "–"
            heading_ = title if number == 1 else ""
            yield partial(_line, heading_, sign, text, role, x, width, last=number == len(lines))


def _row(row: Sequence[Setting], x: float, width: float, y: float, last: bool) -> tuple[list[Element], float]:
    found: list[Element] = []
    cell = width / _COLUMNS
    for index, setting in enumerate(row):
        at_x, large = x + cell * index, len(setting.figure) < 14
        found.append(Label((at_x, y + 2), setting.tool, 2.8, Anchor.START, Role.FAINT, running=True))
        found.append(Label((at_x, y + 7), setting.figure, 5.2 if large else 3.8, Anchor.START, bold=True, running=True))
        note, _ = paragraph(setting.note, at_x, y + 9.4, cell - 2, 2.3, Role.FAINT)
        found += note[:2]
    return found, y + 17 + 2 * last


def _line(
    title: str, sign: str, text: str, role: Role, x: float, width: float, y: float, last: bool
) -> tuple[list[Element], float]:
    found: list[Element] = []
    if title:
        found.append(Label((x, y + 3), title, 3.6, Anchor.START, bold=True, running=True))
        y += 6
    found.append(Label((x, y + 2.2), sign, 3.0, Anchor.START, Role.FAINT, running=True))
    words, y = paragraph(text, x + 5, y, width - 5, 3.0, role)
    return [*found, *words], y + 0.8 + 2 * last


def _minds(card: WordedCard) -> list[tuple[str, Role]]:
    roles = {Severity.FAILURE: Role.WARN, Severity.WARNING: Role.FLAW, Severity.NOTE: Role.LABEL}
    return [(remark.printed, roles[remark.weight]) for remark in card.mind]


def check_scale(x: float, y: float) -> list[Element]:
    """Draw a scale of exactly 100 mm and one of 4 inches, to be laid against a rule before use."""
    found: list[Element] = []
    for offset, unit, count, title in ((0.0, 10.0, 10, "100 mm"), (9.0, 25.4, 4, "4 in")):
        top = y + offset
        found.append(line((x, top), (x + unit * count, top), Role.KNIFE))
        for tick in range(count + 1):
            high = 4.0 if tick in (0, count) else 2.4
            found.append(line((x + unit * tick, top), (x + unit * tick, top - high), Role.KNIFE))
        found.append(Label((x + unit * count + 3, top - 1.5), title, 3.0, Anchor.START))
    return found


def cut_to_band(shown: Drawing, top: float, bottom: float) -> Drawing:
    """Cut a drawing to what lies between two heights, mm: for a page that holds only part of it."""
    return Drawing(tuple(_cut(shown, top, bottom)))


def _cut(shown: Drawing, top: float, bottom: float) -> Iterator[Element]:
    for element in shown.elements:
        if isinstance(element, Path):
            yield from _cut_path(element, top, bottom)
        elif isinstance(element, Label) and top <= element.at[1] <= bottom:
            yield element


def _cut_path(path: Path, top: float, bottom: float) -> Iterator[Path]:
    if path.closed:
        points = _clip(_clip(list(path.points), top, 1), bottom, -1)
        if len(points) >= 3:
            yield path._replace(points=tuple(points))
        return
    for start, end in zip(path.points, path.points[1:], strict=False):
        kept = _clip_line(start, end, top, bottom)
        if kept is not None:
            yield path._replace(points=kept)


def _clip(points: list[Point], level: float, side: int) -> list[Point]:
    """Clip a polygon at a height (Sutherland and Hodgman), keeping y ≥ level for side 1, ≤ for -1."""
    kept: list[Point] = []
    for current, following in zip(points, points[1:] + points[:1], strict=True):
        inside, next_inside = (current[1] - level) * side >= 0, (following[1] - level) * side >= 0
        if inside:
            kept.append(current)
        if inside != next_inside:
            kept.append(_crossing(current, following, level))
    return kept


def _clip_line(start: Point, end: Point, top: float, bottom: float) -> tuple[Point, Point] | None:
    low, high = (start, end) if start[1] <= end[1] else (end, start)
    if high[1] < top or low[1] > bottom:
        return None
    if low[1] < top:
        low = _crossing(low, high, top)
    if high[1] > bottom:
        high = _crossing(low, high, bottom)
    return low, high


def _crossing(start: Point, end: Point, level: float) -> Point:
    share = (level - start[1]) / (end[1] - start[1])
    return start[0] + share * (end[0] - start[0]), level
