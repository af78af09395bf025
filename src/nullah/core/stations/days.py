"""The order of work as a picture: a lane for each day at the bench, and what waits for what."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from datetime import date, datetime

from nullah.core.bench.hours import Calendar
from nullah.core.bench.tasks import Task
from nullah.core.bench.trades import Trade
from nullah.core.drawing import Anchor, Drawing, Element, Fill, Label, Path, Role, drawing, line, rectangle
from nullah.core.named_tuple import NamedTuple
from nullah.core.plan import Plan
from nullah.core.reader import Reader
from nullah.core.refs import TaskRef
from nullah.core.wording.dates import clock, day_of, short_day
from nullah.core.wording.facts import fact_words
from nullah.core.wording.tasks import days_legend, done_on, idle_words
from nullah.core.work.day_book import WorkState

#: So many days are drawn; a longest day so long; a lane so high, and the next so far below it, mm.
_MOST_DAYS, _LONG, _HIGH, _STEP = 21, 110.0, 5.0, 7.2
#: A day is drawn as if it had so many minutes at least.
_LEAST_DAY = 60.0
#: So many letters of what is done on a day stand beside it.
_DAY_LETTERS = 36


class Bar(NamedTuple):
    """Stints of one series that follow one another on a day: the tasks, from where to where, and the lane, from 0."""

    tasks: tuple[Task, ...]
    start: float
    end: float
    lane: int

    def has(self, task: str) -> bool:
        """Return whether a task is worked at here."""
        return any(each.id == task for each in self.tasks)


def draw_days(plan: Plan, stand: WorkState, picked: str) -> Drawing:
    """Draw the days at the bench as lanes, what is done in each, and what waits for glue, finish or a task picked."""
    calendar = stand.calendar
    if calendar is None or not calendar.stints:
        return drawing(
            [
                Label(
                    (0, 0),
                    fact_words(stand.problem, plan.reader) or idle_words(stand, plan.project.piece.name, plan.reader),
                    4.0,
                    bold=True,
                )
            ]
        )
    days = _days(calendar)
    shown = dict(list(days.items())[:_MOST_DAYS])
    bars = _bars(shown)
    task = stand.order.task(picked)
    if task is None:
        waits = _waits(bars, stand)
        lit = frozenset[str]()
    else:
        waits = _about(bars, task, stand)
        lit = frozenset((task.id, *task.after, *(each.id for each in stand.order.tasks if task.id in each.after)))
    legend = days_legend(task is not None, plan.reader)
    foot = _foot(calendar, legend, (len(shown), len(days)), plan.reader)
    return drawing(_lanes(shown, bars, picked, lit, plan.reader), waits, foot)


_Days = Mapping[date, list[tuple[Task, float]]]


def _days(calendar: Calendar) -> dict[date, list[tuple[Task, float]]]:
    """Return what is done on each day, with its minutes."""
    days: dict[date, list[tuple[Task, float]]] = {}
    for stint in calendar.stints:
        minutes = (stint.end - stint.begin).total_seconds() / 60
        days.setdefault(stint.begin.date(), []).append((stint.task, minutes))
    return days


def _bars(days: _Days) -> list[Bar]:
    per_minute = _LONG / max(_LEAST_DAY, *(sum(minutes for _, minutes in found) for found in days.values()))
    bars: list[Bar] = []
    for lane, found in enumerate(days.values()):
        x = 0.0
        for task, minutes in found:
            end = x + minutes * per_minute
            last = bars[-1] if bars else None
            if last is not None and last.lane == lane and last.tasks[-1].series == task.series:
                bars[-1] = last._replace(tasks=(*last.tasks, task), end=end)
            else:
                bars.append(Bar((task,), x, end, lane))
            x = end
    return bars


def _lanes(days: _Days, bars: list[Bar], picked: str, lit: frozenset[str], reader: Reader) -> Iterator[Element]:
    ends = {bar.lane: bar.end for bar in bars}
    for lane, (day, found) in enumerate(days.items()):
        y = lane * _STEP
        yield Label((-2, y + _HIGH / 2), short_day(day, reader), 3.0, Anchor.END)
        yield Label((ends[lane] + 2, y + _HIGH / 2), _in_words(found, reader), 2.6, Anchor.START, Role.FAINT)
    for bar in bars:
        ours = any(task.id in lit for task in bar.tasks)
        glued = bar.tasks[0].trade in (Trade.GLUE, Trade.FINISH)
        fill = Fill.LIT if ours or (glued and not lit) else Fill.WOOD
        role = Role.CHALK if bar.has(picked) or (glued and not lit) else Role.OUTLINE
        # A bar is picked by the task picked in it, else by its first.
        task = next((each.id for each in bar.tasks if each.id == picked), bar.tasks[0].id)
        corner = (bar.start, bar.lane * _STEP)
        yield rectangle(*corner, bar.end - bar.start, _HIGH, role, fill, "black cherry", ref=TaskRef(task))


def _waits(bars: list[Bar], stand: WorkState) -> Iterator[Element]:
    """Draw what must wait for glue or finish to the first task that it holds up."""
    for task in stand.order.tasks:
        if task.waits > 0:
            after = [each.id for each in stand.order.tasks if task.id in each.after]
            yield from _arrows(bars, task.id, after, 1)


def _about(bars: list[Bar], task: Task, stand: WorkState) -> Iterator[Element]:
    """Draw what a task waits for, and what waits for it."""
    for before in task.after:
        yield from _arrows(bars, before, [task.id], 1)
    yield from _arrows(bars, task.id, [each.id for each in stand.order.tasks if task.id in each.after], 0)


def _arrows(bars: list[Bar], before: str, after: list[str], most: int) -> Iterator[Element]:
    """Draw arrows from the end of a task to the beginning of those after it: to the first `most`, or to all for 0."""
    source = next((bar for bar in reversed(bars) if bar.has(before)), None)
    if source is None:
        return
    ends = [bar for bar in bars if bar.lane > source.lane and any(bar.has(task) for task in after)]
    for target in ends[: most or None]:
        x, low = min(source.end, max(source.start, source.end - 1)), source.lane * _STEP + _HIGH
        to, high = min(target.start + 1, target.end), target.lane * _STEP
        middle = high - (_STEP - _HIGH) / 2
        yield Path(((x, low), (x, middle), (to, middle), (to, high)), Role.STROKE)
        yield Path(((to - 0.8, high - 1.1), (to, high), (to + 0.8, high - 1.1)), Role.STROKE)


def _foot(calendar: Calendar, legend: str, drawn: tuple[int, int], reader: Reader) -> Iterator[Element]:
    shown, whole = drawn
    y = shown * _STEP
    if whole > shown:
        more = reader.count(whole - shown, "and {n} day more", "and {n} days more")
        yield Label((0, y + 2), more, 3.0, Anchor.START, Role.FAINT)
        y += 5
    finish: datetime | None = calendar.finish
    if finish is not None:
        yield line((0, y + 2), (_LONG, y + 2), Role.FAINT)
        words = done_on(day_of(finish, reader), clock(finish), reader)
        yield Label((0, y + 7), words, 4.2, Anchor.START, Role.CHALK, bold=True)
        yield Label((_LONG, y + 7), legend, 2.6, Anchor.START, Role.FAINT)


def _in_words(found: list[tuple[Task, float]], reader: Reader) -> str:
    trades = list(dict.fromkeys(reader.text(task.trade.value) for task, _ in found))
    shown = trades
    while len(", ".join(shown)) > _DAY_LETTERS:
        shown = shown[:-1]
    left = len(trades) - len(shown)
    return reader.listed([*shown, reader.count(left, "{n} more", "{n} more")] if left else shown, "unit")
