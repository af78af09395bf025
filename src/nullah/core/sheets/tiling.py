"""A drawing at full size over as many pages as it takes, which are joined at crosses."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import N_
from nullah.core.drawing import Anchor, Drawing, Element, Label, Path, Role, drawing, line
from nullah.core.reader import Reader
from nullah.core.sheets.page import MARGIN, PAGE, Sheet, SheetKind, check_scale, cut_to_band, heading

#: So much of a drawing is on one page, mm.
WIDE, HIGH = PAGE[0] - 2 * MARGIN - 10, 198.0
_LEFT, _TOP = MARGIN + 5, 66.0


def tiled(
    name: str, piece: str, title: str, of: str, words: str, shown: Drawing, size: tuple[float, float], reader: Reader
) -> Iterator[Sheet]:
    """Yield the pages of a drawing at full size.

    Parameters
    ----------
    name : str
        What the sheets are called as files; of several each with its page.
    piece : str
        The name of the piece.
    title, of, words : str
        What it is, of what, and what else is said of it.
    shown : Drawing
        Its upper left corner at (0, 0), mm.
    size : (float, float)
        How long and how high it is, mm.
    reader : Reader
        Whom it is written for.
    """
    long, high = size
    columns, rows = max(1, -(-int(long * 1000) // int(WIDE * 1000))), max(1, -(-int(high * 1000) // int(HIGH * 1000)))
    for row in range(rows):
        for column in range(columns):
            page = row * columns + column + 1
            note = reader.text(
                N_("print at 100 %, check the scale · page {page} of {pages}"),
                page=str(page),
                pages=str(rows * columns),
            )
            found: list[Element] = heading(piece, title, note)
            found += check_scale(MARGIN, 30)
            found.append(Label((MARGIN, 52), words, 3.0, Anchor.START, Role.FAINT))
            left, top = column * WIDE, row * HIGH
            tile = _across(cut_to_band(shown, top, min(top + HIGH, high)), left, min(left + WIDE, long))
            if not any(isinstance(element, Path) for element in tile.elements):
                continue
            found += tile.moved(_LEFT - left, _TOP - top).elements
            corners = ((left, top), (left + WIDE, top), (left, top + HIGH), (left + WIDE, top + HIGH))
            for x, y in corners:
                if 0 < x < long or 0 < y < high:
                    found += _cross(_LEFT + min(x, long) - left, _TOP + min(y, high) - top)
            suffix = f"-page{page}" if rows * columns > 1 else ""
            yield Sheet(f"{name}{suffix}", title, drawing(found), SheetKind.TEMPLATE, of)


def _across(shown: Drawing, left: float, right: float) -> Drawing:
    """Cut a drawing to what lies between two places along, mm."""
    turned = Drawing(tuple(_turned(shown)))
    return Drawing(tuple(_turned(cut_to_band(turned, left, right))))


def _turned(shown: Drawing) -> Iterator[Element]:
    """Put x in the place of y."""
    for element in shown.elements:
        if isinstance(element, Path):
            yield element._replace(points=tuple((y, x) for x, y in element.points))
        elif isinstance(element, Label):
            yield element._replace(at=(element.at[1], element.at[0]))


def _cross(x: float, y: float) -> Iterator[Element]:
    """Draw the cross at which pages are joined."""
    yield line((x - 4, y), (x + 4, y), Role.KNIFE)
    yield line((x, y - 4), (x, y + 4), Role.KNIFE)
