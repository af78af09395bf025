"""What is on the bench and on the card, on paper as it stands: of any station, of a joint by itself."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.drawing import Anchor, Element, Label, Role, drawing
from nullah.core.plan import Plan
from nullah.core.sheets.page import MARGIN, PAGE, Sheet, card_on_pages, heading
from nullah.core.stations.selection import Selection
from nullah.core.stations.station import Station
from nullah.core.wording.card import worded
from nullah.core.wording.sheets import paged

_WIDE = PAGE[0] - 2 * MARGIN
# The drawing may take so much of the page's height, and its measures so much round it, mm.
_MOST_HIGH, _ROUND = 130.0, 16.0


def as_shown(plan: Plan, station: Station, selection: Selection) -> tuple[Sheet, ...]:
    """Make the page of what a station shows; its card on a second one where the first has no room for it."""
    return tuple(_pages(plan, station, selection))


def _pages(plan: Plan, station: Station, selection: Selection) -> Iterator[Sheet]:
    card = worded(station.card(plan, selection), plan.reader)
    title = card.title or plan.reader.text(station.title)
    found: list[Element] = heading(plan.project.piece.name, title, plan.reader.text(station.title))
    y = 26.0
    shown = station.draw(plan, selection)
    if shown.elements:
        left, top, right, bottom = shown.bounds()
        scale = min((_WIDE - 2 * _ROUND) / max(right - left, 1.0), (_MOST_HIGH - _ROUND) / max(bottom - top, 1.0), 1.0)
        found += shown.moved(MARGIN + _ROUND - left * scale, y + _ROUND - top * scale, scale).elements
        said = (
            "" if not station.to_scale else plan.reader.text("true size") if scale > 0.999 else f"1 : {1 / scale:.1f}"
        )
        found.append(Label((PAGE[0] - MARGIN, 26), said, 2.8, Anchor.END, Role.FAINT))
        y += _ROUND + (bottom - top) * scale + 18
    pages = card_on_pages(card, MARGIN, y, _WIDE)
    name = f"shown-{station.id}"
    for page, words in enumerate(pages, start=1):
        again = heading(
            plan.project.piece.name, title, paged(plan.reader.text(station.title), page, len(pages), plan.reader)
        )
        suffix = f"-page{page}" if len(pages) > 1 else ""
        yield Sheet(f"{name}{suffix}", title, drawing(found if page == 1 else again, words))
