"""What comes next at the bench, when all will be done, and what the piece has taught so far."""

from __future__ import annotations

import statistics
from collections.abc import Mapping
from datetime import datetime
from typing import cast

from nullah.core.bench.book import BookEntry, Event, WorkDone, can_be_done, left_to_do, progress, records
from nullah.core.bench.hours import Calendar, HoursError, days_in_bits
from nullah.core.bench.rates import Learned, learn, minutes_of
from nullah.core.bench.tasks import OrderError, Task, critical_path
from nullah.core.bench.trades import Trade
from nullah.core.bits import Bits, at_once
from nullah.core.errors import Fact
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import IdentityKey, RecentResults, kept_by_value
from nullah.core.ledger import Origin
from nullah.core.named_tuple import NamedTuple
from nullah.core.plan import Plan
from nullah.core.work.order_of_work import OrderOfWork, order_of_work


class WorkState(NamedTuple):
    """How the work stands.

    `next` is what to do now, None if all is done or nothing can be done yet; `ready` all that could be done; `minutes`
    of every task that is open; `calendar` when, None where that cannot be said, and `problem` why; `gone` how many
    tasks were done that the order of work does not hold any more.
    """

    order: OrderOfWork
    progress: WorkDone
    next: Task | None
    ready: tuple[Task, ...]
    minutes: Mapping[str, float]
    calendar: Calendar | None
    problem: Fact = ""
    gone: int = 0

    @property
    def finished(self) -> bool:
        """Whether all is done."""
        return bool(self.order.tasks) and all(not self.progress.open(task) for task in self.order.tasks)

    @property
    def done(self) -> int:
        """How many tasks are done, those included that are no more: a board that is sawn needs no sawing."""
        return self.gone + sum(not self.progress.open(task) for task in self.order.tasks)

    @property
    def total(self) -> int:
        """How many there are in all."""
        return self.gone + len(self.order.tasks)


def learned_of(plan: Plan) -> dict[str, Learned]:
    """Return what is known of rates: from earlier pieces, and from this one's own book."""
    return dict(_learned(plan.project.book, plan.project.working.rates))


@kept_by_value(8)
def _learned(book: tuple[BookEntry, ...], before: tuple[tuple[str, Learned], ...]) -> tuple[tuple[str, Learned], ...]:
    return tuple(learn(records(book), dict(before)).items())


def task_minutes(plan: Plan, task: Task, learned: Mapping[str, Learned] | None = None) -> float:
    """Return how long a task takes; spreading glue is shared among the hands.

    Parameters
    ----------
    plan : Plan
    task : Task
        The task.
    learned : Mapping[str, Learned], optional
        What records say of rates, or None for what the project has.

    Returns
    -------
    float
        Minutes.
    """
    known = learned_of(plan) if learned is None else learned
    people = max(1, plan.project.working.people) if task.trade is Trade.GLUE else 1
    return minutes_of(task.work, known) / people


def standing(plan: Plan, now: datetime) -> WorkState:
    """Return how the work on a plan stands at a time, to the minute."""
    return at_once(standing_in_bits(plan, now))


def standing_in_bits(plan: Plan, now: datetime) -> Bits[WorkState]:
    """Work out how the work on a plan stands at a time, task by task."""
    project, order, now = plan.project, order_of_work(plan), now.replace(second=0, microsecond=0)
    key = IdentityKey(order, order, project.book, project.piece.measured, project.working), now
    found = _STOOD.found(key)
    if found is None:
        found = yield from _standing(plan, order, now)
        _STOOD.keep(key, found)
    return found


_STOOD: RecentResults[WorkState] = RecentResults(2)


def _standing(plan: Plan, order: OrderOfWork, now: datetime) -> Bits[WorkState]:
    measured = [name for name, _ in plan.project.piece.measured]
    far = progress(order.tasks, plan.project.book, measured)
    learned = learned_of(plan)
    minutes = {task.id: task_minutes(plan, task, learned) for task in order.tasks}
    kept, need = left_to_do(order.tasks, far, minutes, now)
    ready = can_be_done(order.tasks, far, now)
    calendar, problem = None, cast(Fact, "")
    try:
        hours, begin = plan.project.working.hours, max(now, _begin(plan, now))
        calendar = yield from days_in_bits(kept, need, hours, begin)
    except (OrderError, HoursError) as error:
        problem = error.fact
    names = {task.id for task in order.tasks}
    gone = len({entry.task for entry in plan.project.book if entry.event is Event.DONE} - names)
    return WorkState(order, far, _next(ready, calendar), ready, need, calendar, problem, gone)


def _begin(plan: Plan, now: datetime) -> datetime:
    """Return when work may begin: the day that was set, or now."""
    text = plan.project.working.begin
    if not text:
        return now
    try:
        return datetime.fromisoformat(text).replace(tzinfo=None)
    except ValueError:
        return now


def _next(ready: tuple[Task, ...], calendar: Calendar | None) -> Task | None:
    """Return what the calendar puts first of what can be done; what only waits is not done by anyone."""
    names = {task.id for task in ready if task.work}
    if calendar is not None:
        for stint in calendar.stints:
            if stint.task.id in names:
                return next(task for task in ready if task.id == stint.task.id)
    return next((task for task in ready if task.work), None)


# --- what was off, and what it changes ------------------------------------------------------------


class Deviation(FrozenRecord):
    """A figure that came out other than planned: by how much, mm, and the titles of what follows from it."""

    name: str
    title: str
    planned: float
    measured: float
    follows: tuple[str, ...]

    @property
    def off(self) -> float:
        """How much more it is than planned, mm."""
        return self.measured - self.planned


class TimerRuns(FrozenRecord):
    """The timer runs for a task: since when (hours and minutes), and so long, min."""

    since: str
    minutes: float


class TimerElsewhere(FrozenRecord):
    """The timer runs for another task."""


TimerFact = TimerRuns | TimerElsewhere


def measured_off(plan: Plan) -> tuple[Deviation, ...]:
    """Return every measured figure with how far it is off its plan, mm, the last measured first."""
    if plan.ledger is None:
        return ()
    found = []
    for name, _ in reversed(plan.project.piece.measured):
        quantity = plan.ledger.quantities.get(name)
        if quantity is None or quantity.origin is not Origin.MEASURED or quantity.planned is None:
            continue
        titles = tuple(plan.reader.title(other) for other in plan.ledger.hangs_on(name))
        found.append(Deviation(name, plan.reader.title(name), float(quantity.planned), float(quantity.value), titles))
    return tuple(found)


def deviations(plan: Plan) -> tuple[Deviation, ...]:
    """Return the measured figures that are off their plan by a mark or more, the last measured first."""
    least = min(float(plan.marks.smallest.mm), 0.25)
    return tuple(each for each in measured_off(plan) if abs(each.off) >= least)


# --- what a piece leaves behind -------------------------------------------------------------------


class PieceRecord(NamedTuple):
    """What a finished piece has to tell the next one.

    Parameters
    ----------
    name : str
    finished : str
        When the last was done, ISO.
    wood_planned, wood_used : float
        Volume of the finished parts, and of the wood that went into them, mm³.
    minutes, guessed : float
        Written down, and guessed at first for the same tasks.
    untimed : int
        Tasks done without a time.
    remade : int
        Parts that were made again.
    off : tuple of float
        How far measured figures were off their plan, mm.
    rates : tuple of (str, Learned)
    """

    name: str
    finished: str
    wood_planned: float
    wood_used: float
    minutes: float
    guessed: float
    untimed: int
    remade: int
    off: tuple[float, ...]
    rates: tuple[tuple[str, Learned], ...]

    @property
    def waste(self) -> float:
        """Of the wood used, the share that did not end in the piece."""
        return 1 - self.wood_planned / self.wood_used if self.wood_used > 0 else 0.0

    @property
    def tolerance(self) -> float | None:
        """The standard deviation of what was measured against its plan, mm; None of fewer than three."""
        return statistics.pstdev(self.off) if len(self.off) > 2 else None


def record_of(plan: Plan) -> PieceRecord:
    """Return what a piece has to tell, as far as it is made."""
    book = plan.project.book
    done = [entry for entry in book if entry.event is Event.DONE]
    timed = [entry for entry in done if entry.minutes > 0]
    planned = sum(float(part.length) * float(part.width) * float(part.thickness) for part in plan.parts)
    used = sum(each.consumed * float(each.board.thickness) for each in plan.boards if each.placed) + sum(
        _lost(entry) for entry in book if entry.event is Event.REMADE
    )
    return PieceRecord(
        plan.project.piece.name,
        done[-1].at if done else "",
        planned,
        used,
        sum(entry.minutes for entry in timed),
        sum(entry.guess for entry in timed),
        len(done) - len(timed),
        sum(entry.event is Event.REMADE for entry in book),
        tuple(deviation.off for deviation in measured_off(plan)),
        tuple(learned_of(plan).items()),
    )


def _lost(entry: BookEntry) -> float:
    """Return the wood of a part that was spoilt, mm³, as its entry keeps it."""
    return sum(amount for name, amount in entry.work if name == "wood")


def minutes_left(stand: WorkState) -> float:
    """Return how many minutes of labour are left."""
    return sum(stand.minutes.values())


def least_minutes(stand: WorkState) -> float:
    """Return how long what is left would take with hands enough, waits counted: the critical path, minutes."""
    left = [task for task in stand.order.tasks if stand.progress.open(task)]
    names = {task.id for task in left}
    open_only = [task._replace(after=tuple(name for name in task.after if name in names)) for task in left]
    return max((timing.end for timing in critical_path(open_only, dict(stand.minutes)).values()), default=0.0)
