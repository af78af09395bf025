"""Day Book: what to do next, when all will be done, what was off, and the story of the piece."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime, timedelta

from nullah.core.bench.book import Event
from nullah.core.bench.tasks import Task
from nullah.core.card import Card, Remark, Setting, Severity
from nullah.core.drawing import Drawing
from nullah.core.fixes import Fix, MakeAgain, Shim
from nullah.core.lengths import from_float
from nullah.core.plan import Plan
from nullah.core.refs import QuantityRef
from nullah.core.stations.days import draw_days
from nullah.core.stations.next_step import draw_next, task_card
from nullah.core.stations.selection import Selection
from nullah.core.wording.dates import clock, day_of
from nullah.core.wording.day_book import (
    Left,
    calendar_settings,
    least_words,
    left_words,
    rates_words,
    tasks_done_words,
    until_words,
    waits_words,
)
from nullah.core.wording.record import record_words
from nullah.core.wording.task_titles import task_title
from nullah.core.wording.tasks import idle_words
from nullah.core.work.day_book import (
    Deviation,
    TimerElsewhere,
    TimerRuns,
    WorkState,
    deviations,
    learned_of,
    least_minutes,
    minutes_left,
    record_of,
    standing,
)

#: When nothing says what time it is, a Thursday evening in winter.
_SOME_DAY = datetime(2026, 1, 8, 18, 30)


def time_of(plan: Plan, selection: Selection) -> datetime:
    """Return the time it is: the clock's where it was put in hand, else of the last entry, else when work begins."""
    for text in (
        selection.daybook.now,
        plan.project.book[-1].at if plan.project.book else "",
        plan.project.working.begin,
    ):
        try:
            return datetime.fromisoformat(text).replace(tzinfo=None)
        except ValueError:
            continue
    return _SOME_DAY


def selected_task(stand: WorkState, selection: Selection) -> Task | None:
    """Return the task that was picked, or the next."""
    return stand.order.task(selection.daybook.task) or stand.next


def draw(plan: Plan, selection: Selection) -> Drawing:
    """Return the drawing on the bench."""
    if not plan.parts:
        return Drawing()
    stand = standing(plan, time_of(plan, selection))
    if selection.daybook.calendar:
        return draw_days(plan, stand, selection.daybook.task)
    return draw_next(plan, stand, selected_task(stand, selection))


# --- the card -------------------------------------------------------------------------------------


def card(plan: Plan, selection: Selection) -> Card:
    """Return what is carried away."""
    if not plan.parts:
        nothing = idle_words(standing(plan, time_of(plan, selection)), plan.project.piece.name, plan.reader)
        return Card(plan.reader.text("Day Book"), mind=(Remark(nothing),))
    now = time_of(plan, selection)
    stand = standing(plan, now)
    if selection.daybook.calendar and stand.order.task(selection.daybook.task) is None:
        return calendar_card(plan, stand)
    task = selected_task(stand, selection)
    found = [*_faults(stand), *_off(plan, task, now)]
    if task is None:
        mark = record_words(record_of(plan), plan.reader) if stand.finished else ()
        return Card(
            idle_words(stand, plan.project.piece.name, plan.reader),
            _waits(plan, stand, now),
            mark,
            tuple(found),
            _why(plan, stand),
        )
    card = task_card(plan, stand, task)
    return card._replace(mind=(*found, *card.mind, *_timer(plan, task, now)), why=(*card.why, *_why(plan, stand)))


def _faults(stand: WorkState) -> Iterator[Remark]:
    for fault in stand.order.faults[:3]:
        yield Remark(fault, Severity.FAILURE)
    if stand.problem:
        yield Remark(stand.problem, Severity.FAILURE)


def _off(plan: Plan, task: Task | None, now: datetime) -> Iterator[Remark]:
    """Say what came out other than planned today or in this task, what follows from it, and what could be done."""
    days = dict(plan.project.piece.measured)
    own = {name for each in (task.parts if task else ()) if (part := plan.part(each)) for name in part.quantities}
    own |= set(task.measures) if task is not None else set()
    fresh = [each for each in deviations(plan) if each.name in own or days[each.name].on == now.date().isoformat()]
    for deviation in fresh[:2]:
        weight = Severity.WARNING if abs(deviation.off) >= 0.5 else Severity.NOTE
        yield Remark(deviation, weight, tuple(_fixes(plan, deviation)), QuantityRef(deviation.name))


def _fixes(plan: Plan, deviation: Deviation) -> Iterator[Fix]:
    """Offer what can be done about it besides letting all follow: a shim, or the part made again."""
    if abs(deviation.off) < 0.5:
        return
    off = from_float(abs(deviation.off))
    yield Shim(deviation.name, off)
    owner = next((part for part in plan.parts if deviation.name in part.quantities), None)
    if owner is not None and deviation.off < 0:
        yield MakeAgain(owner.id, deviation.name, off)


def _timer(plan: Plan, task: Task, now: datetime) -> Iterator[Remark]:
    timer = plan.project.timer
    if timer is None:
        return
    ran = (now - datetime.fromisoformat(timer.since)).total_seconds() / 60
    if timer.task == task.id:
        yield Remark(TimerRuns(timer.since[11:16], max(ran, 0.0)))
    else:
        yield Remark(TimerElsewhere())


def _waits(plan: Plan, stand: WorkState, now: datetime) -> tuple[Setting, ...]:
    """Return what must dry, and until when."""
    found = []
    for task in stand.order.tasks:
        at = stand.progress.done.get(task.id)
        if at is None or task.waits <= 0 or at == datetime.min:
            continue
        over = at + timedelta(hours=task.waits)
        if over > now:
            title = task_title(task, plan.reader)
            found.append(Setting(title, until_words(clock(over), plan.reader), day_of(over, plan.reader)))
    return tuple(found[:6])


def _why(plan: Plan, stand: WorkState) -> tuple[str, ...]:
    """Say how much is left, when it will be done, and what decides that."""
    calendar, known = stand.calendar, any(each.records for each in learned_of(plan).values())
    finish, waits = None, 0
    if calendar is not None and calendar.finish is not None and calendar.stints:
        finish, waits = calendar.finish, sum(calendar.why.get(name) == "wait" for name in calendar.chain)
    left = Left(minutes_left(stand), finish, waits, known)
    return left_words(stand, left, day_of(finish, plan.reader) if finish is not None else "", plan.reader)


def calendar_card(plan: Plan, stand: WorkState) -> Card:
    """Return what the calendar says: when it is done, what decides it, how well time is known."""
    calendar, working = stand.calendar, plan.project.working
    if calendar is None or calendar.finish is None:
        return Card(
            plan.reader.text("Calendar"),
            mind=(Remark(stand.problem or idle_words(stand, plan.project.piece.name, plan.reader), Severity.FAILURE),),
        )
    day, time, a_week = day_of(calendar.finish, plan.reader), clock(calendar.finish), working.hours.minutes_a_week
    settings = calendar_settings(day, time, minutes_left(stand), a_week, plan.reader)
    waits = [stand.order.task(name) for name in calendar.chain if calendar.why.get(name) == "wait"]
    before = [stand.order.task(calendar.chain[calendar.chain.index(task.id) - 1]) for task in waits if task is not None]
    titles = (task_title(task, plan.reader) for task in before if task is not None)
    mark = tuple(waits_words(title, plan.reader) for title in titles)
    why = (*_why(plan, stand), least_words(least_minutes(stand), plan.reader))
    known = rates_words(learned_of(plan), plan.reader)
    return Card(plan.reader.text("Calendar"), settings, mark, tuple(_faults(stand)), (*why, *known))


def state(plan: Plan) -> str:
    """Return a few words for the rod."""
    book = plan.project.book
    done = len({entry.task for entry in book if entry.event is Event.DONE})
    return tasks_done_words(done, bool(book), plan.reader)
