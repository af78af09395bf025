"""Day Book: what to do next, when all will be done, what was off, and the story of the piece."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime, timedelta

from nullah.core.bench.book import Event, in_words
from nullah.core.bench.hours import clock, day_of
from nullah.core.bench.rates import RATES
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
from nullah.core.stations.station import Station
from nullah.core.wording.record import record_words
from nullah.core.wording.task_titles import task_title
from nullah.core.wording.tasks import idle_words
from nullah.core.work.day_book import (
    Deviation,
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


def _draw(plan: Plan, selection: Selection) -> Drawing:
    if not plan.parts:
        return Drawing()
    stand = standing(plan, time_of(plan, selection))
    if selection.daybook.calendar:
        return draw_days(plan, stand, selection.daybook.task)
    return draw_next(plan, stand, selected_task(stand, selection))


# --- the card -------------------------------------------------------------------------------------


def _card(plan: Plan, selection: Selection) -> Card:
    if not plan.parts:
        return Card("Day Book", mind=(Remark("There is no piece to work at yet."),))
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
        off = plan.marks.write_fine(from_float(abs(deviation.off)))
        word = "more" if deviation.off > 0 else "less"
        text = f"{deviation.title[:1].upper()}{deviation.title[1:]} measured {off} {word} than planned"
        text += f": {_follows(deviation)}." if deviation.follows else "."
        weight = Severity.WARNING if abs(deviation.off) >= 0.5 else Severity.NOTE
        yield Remark(text, weight, tuple(_fixes(plan, deviation)), QuantityRef(deviation.name))


def _follows(deviation: Deviation) -> str:
    first, count = deviation.follows[0], len(deviation.follows)
    more = f" and {count - 1} more follow" if count > 1 else " follows"
    return f"{first}{more}"


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
        yield Remark(f"The timer runs since {timer.since[11:16]}: {in_words(max(ran, 0.0)) or '0 min'}.")
    else:
        yield Remark("The timer runs for another task.")


def _waits(plan: Plan, stand: WorkState, now: datetime) -> tuple[Setting, ...]:
    """Return what must dry, and until when."""
    found = []
    for task in stand.order.tasks:
        at = stand.progress.done.get(task.id)
        if at is None or task.waits <= 0 or at == datetime.min:
            continue
        over = at + timedelta(hours=task.waits)
        if over > now:
            found.append(Setting(task_title(task, plan.reader), f"until {clock(over)}", day_of(over)))
    return tuple(found[:6])


def _why(plan: Plan, stand: WorkState) -> tuple[str, ...]:
    """Say how much is left, when it will be done, and what decides that."""
    left = in_words(minutes_left(stand))
    told = [f"{stand.done} of {stand.total} tasks done; about {left} of work left."]
    calendar = stand.calendar
    if calendar is not None and calendar.finish is not None and calendar.stints:
        waits = [name for name in calendar.chain if calendar.why.get(name) == "wait"]
        told.append(
            f"Done on {day_of(calendar.finish)} if you keep your hours. What decides it: "
            + (
                f"the hours at the bench, and {len(waits)} wait{'s' * (len(waits) != 1)} for glue, finish or wood that "
                "nothing else could fill."
                if waits
                else "the hours at the bench."
            )
        )
    known = any(each.records for each in learned_of(plan).values())
    told.append(
        "Times follow what you have written down." if known else "Times are first guesses until you keep your own."
    )
    return tuple(told)


def calendar_card(plan: Plan, stand: WorkState) -> Card:
    """Return what the calendar says: when it is done, what decides it, how well time is known."""
    calendar, working = stand.calendar, plan.project.working
    if calendar is None or calendar.finish is None:
        return Card(
            "Calendar",
            mind=(Remark(stand.problem or idle_words(stand, plan.project.piece.name, plan.reader), Severity.FAILURE),),
        )
    settings = (
        Setting("Done on", day_of(calendar.finish), f"at {clock(calendar.finish)}, at the earliest"),
        Setting("Work left", in_words(minutes_left(stand)), f"{in_words(working.hours.minutes_a_week)} a week"),
    )
    waits = [stand.order.task(name) for name in calendar.chain if calendar.why.get(name) == "wait"]
    before = [stand.order.task(calendar.chain[calendar.chain.index(task.id) - 1]) for task in waits if task is not None]
    titles = (task_title(task, plan.reader) for task in before if task is not None)
    mark = tuple(f"Waits for: {title[:1].lower()}{title[1:]}" for title in titles)
    least = least_minutes(stand)
    path = f"However many hands: no less than {in_words(least)} from first to last, all waits counted."
    return Card("Calendar", settings, mark, tuple(_faults(stand)), (*_why(plan, stand), path, *_known(plan)))


def _known(plan: Plan) -> Iterator[str]:
    """Say how well each rate is known, the best first."""
    found = [(name, each) for name, each in learned_of(plan).items() if each.records]
    for name, each in sorted(found, key=lambda item: item[1].spread)[:8]:
        yield f"{RATES[name].title[:1].upper()}{RATES[name].title[1:]}: {each.in_words}."


def _state(plan: Plan) -> str:
    book = plan.project.book
    done = len({entry.task for entry in book if entry.event is Event.DONE})
    if not book:
        return "not begun"
    return f"{done} task{'s' * (done != 1)} done"


STATION = Station(
    "daybook",
    "Day Book",
    _draw,
    _card,
    _state,
    "Here the next step stands in large figures, with its settings, its picture and what to measure after, and the "
    "story of the piece as it is made. Begin a piece first.",
    to_scale=False,
)
