"""Is it dry? What a board's readings say, as a curve."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date, timedelta

from nullah.core.drawing import Anchor, Drawing, Element, Fill, Label, Path, Ring, Role, drawing, line, rectangle
from nullah.core.rack.board import Board
from nullah.core.rack.drying import NEAR_ENOUGH, Readiness, Room, curve, readiness
from nullah.core.reader import Reader
from nullah.core.wording.rack import curve_words, room_words


def draw_drying(board: Board, room: Room, wide: float, reader: Reader) -> Drawing:
    """Draw a board's readings, the curve through them and the days it should be ready, `wide` mm wide; else nothing."""
    found = readiness(board, room)
    return Drawing() if found is None else drawing(_chart(board, room, found, wide * 0.95, wide * 0.15, reader))


def room_for_details(wide: float) -> Drawing:
    """Keep the room of the details free, so that nothing moves when another board is taken in hand."""
    return drawing(rectangle(0, 0, wide * 1.75, wide * 0.17, Role.BARE))


def _chart(board: Board, room: Room, found: Readiness, wide: float, high: float, reader: Reader) -> Iterator[Element]:
    target = room.target or 0.0
    question, ready_days = curve_words(board.name, reader)
    first = date.fromisoformat(found.first)
    days = [(date.fromisoformat(reading.day) - first).days for reading in board.readings]
    over = [float(reading.percent) - target for reading in board.readings]
    span = max(14.0, *(float(day) for day in days), 1.15 * min(found.days[2], 400.0))
    top = max(2.0, *over, found.start) * 1.1
    low = min(-1.0, *over)

    def at(day: float, points: float) -> tuple[float, float]:
        return wide * min(1.0, day / span), high * (top - points) / (top - low)

    near = at(0, NEAR_ENOUGH)[1]
    yield rectangle(0, near, wide, at(0, -NEAR_ENOUGH)[1] - near, Role.BARE, Fill.LIT)
    if not found.ready:
        early, late = at(found.days[0], 0)[0], at(found.days[2], 0)[0]
        yield rectangle(early, 0, max(1.0, late - early), high, Role.PENCIL, Fill.NONE)
        yield Label(((early + late) / 2, 0), ready_days, 2.9, role=Role.FAINT, nudge_mm=(0, -2.4))
    yield line((0, high), (wide, high), Role.OUTLINE)
    yield line((0, 0), (0, high), Role.OUTLINE)
    steps = [span * index / 48 for index in range(49)]
    yield Path(tuple(at(day, points) for day, points in zip(steps, curve(found, steps), strict=True)), Role.CHALK)
    for day, points in zip(days, over, strict=True):
        yield Ring(at(day, points), "", 1.3, Role.KNIFE)
    yield Label((0, at(0, 0)[1]), room_words(target, reader), 2.9, Anchor.END, nudge_mm=(-2, 0))
    yield Label((0, 0), f"{target + top:.0f} %", 2.9, Anchor.END, role=Role.FAINT, nudge_mm=(-2, 0))
    yield Label((0, 0), question, 3.2, Anchor.START, Role.LABEL, bold=True, nudge_mm=(0, -6.5))
    for share in (0.0, 1.0):
        by_calendar = (first + timedelta(days=round(span * share))).isoformat()
        anchor = Anchor.START if share == 0 else Anchor.END
        yield Label((wide * share, high), by_calendar, 2.9, anchor, Role.FAINT, nudge_mm=(0, 3.4))
