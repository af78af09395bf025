"""The Day Book: what was done, measured, noted and made again, as it happened; and how far the work is."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from datetime import datetime, timedelta
from enum import Enum
from typing import TYPE_CHECKING

from nullah.core.bench.hours import Hours
from nullah.core.bench.rates import Record
from nullah.core.bench.trades import Trade
from nullah.core.catalogue import N_
from nullah.core.errors import FactError
from nullah.core.frozen_record import FrozenRecord
from nullah.core.limits import NotATime, shown
from nullah.core.named_tuple import NamedTuple

if TYPE_CHECKING:
    from nullah.core.bench.tasks import Task


class Event(Enum):
    """What an entry tells of."""

    DONE = N_("done")
    NOTE = N_("note")
    PHOTO = N_("photograph")
    MEASURED = N_("measured")
    REMADE = N_("made again")


class BookEntry(NamedTuple):
    """One line of the book.

    Parameters
    ----------
    at : str
        When, ISO to the minute.
    event : Event
    title : str
        What it was about, as it read then.
    task : str
        The task's id, if it was about one.
    parts : tuple of str
    minutes : float
        How long it took; 0 where that is not known.
    guess : float
        How long it was thought to take, by the first guesses, minutes.
    work : tuple of (str, float)
        How much of what it was.
    text : str
        What was written: a note, why it was made again.
    file : str
        Of a photograph.
    """

    at: str
    event: Event
    title: str
    task: str = ""
    parts: tuple[str, ...] = ()
    minutes: float = 0.0
    guess: float = 0.0
    work: tuple[tuple[str, float], ...] = ()
    text: str = ""
    file: str = ""

    @property
    def when(self) -> datetime:
        """The time as a time."""
        return datetime.fromisoformat(self.at)


class Timer(NamedTuple):
    """A timer that runs: for which task and since when (ISO)."""

    task: str
    since: str


class HasZone(FrozenRecord):
    """A time with a zone: the book keeps that of the shop's own clock."""

    text: str


class BookError(FactError):
    """What cannot stand in the book, in a sentence."""


#: What must be done again for a part that is made again: all that was done to the old one.
_AGAIN = frozenset({Trade.MILL, Trade.JOINT, Trade.FIT, Trade.SHAPE, Trade.SMOOTH})
#: A timer that ran so many times the guess, or over the end of a session, was forgotten.
_FORGOTTEN = 4.0


class WorkDone(NamedTuple):
    """How far the work is: tasks done, with when; and tasks to be done again for some parts only."""

    done: Mapping[str, datetime]
    again: Mapping[str, tuple[str, ...]]

    def open(self, task: Task) -> bool:
        """Whether a task is still to be done."""
        return task.id not in self.done


def progress(tasks: Sequence[Task], book: Iterable[BookEntry], measured: Iterable[str] = ()) -> WorkDone:
    """Return how far the work is.

    What is measured already needs no measuring; a part that was made again takes its tasks up again.
    """
    done: dict[str, datetime] = {}
    again: dict[str, set[str]] = {}
    by_id = {task.id: task for task in tasks}
    for entry in book:
        if entry.event is Event.DONE:
            done[entry.task] = entry.when
            again.pop(entry.task, None)
        elif entry.event is Event.REMADE:
            for task in tasks:
                lost = set(task.parts) & set(entry.parts)
                if task.id in done and lost and task.trade in _AGAIN:
                    del done[task.id]
                    again.setdefault(task.id, set()).update(lost)
    known = set(measured)
    for task in tasks:
        if task.measures and task.id not in done and set(task.measures) <= known:
            done[task.id] = datetime.min
    only = {
        name: tuple(part for part in by_id[name].parts if part in parts)
        for name, parts in again.items()
        if name in by_id and name not in done
    }
    return WorkDone({name: at for name, at in done.items() if name in by_id}, only)


def can_be_done(tasks: Sequence[Task], far: WorkDone, now: datetime) -> tuple[Task, ...]:
    """Return the open tasks of which all that comes before is done and dry."""
    waits = {task.id: task.waits for task in tasks}
    ready = []
    for task in tasks:
        if not far.open(task):
            continue
        if all(
            name in far.done
            and (
                waits[name] <= 0
                or far.done[name] == datetime.min
                or far.done[name] + timedelta(hours=waits[name]) <= now
            )
            for name in task.after
        ):
            ready.append(task)
    return tuple(ready)


def left_to_do(
    tasks: Sequence[Task], far: WorkDone, minutes: Mapping[str, float], now: datetime
) -> tuple[tuple[Task, ...], dict[str, float]]:
    """Return what is still to be done, with its minutes: of what is done only the wait that is not over yet.

    Parameters
    ----------
    tasks : Sequence[Task]
        In their order.
    far : WorkDone
        What is done, and when.
    minutes : Mapping[str, float]
        Labour of each task by id, min.
    now : datetime
        The time, without a zone.

    Returns
    -------
    tuple[tuple[Task, ...], dict[str, float]]
        Open tasks with `after` cut down to what is open, and minutes by id.
    """
    kept: list[Task] = []
    need: dict[str, float] = {}
    for task in tasks:
        if far.open(task):
            share = len(far.again[task.id]) / len(task.parts) if task.id in far.again and task.parts else 1.0
            kept.append(task)
            need[task.id] = minutes.get(task.id, 0.0) * share
            continue
        over = far.done[task.id] + timedelta(hours=task.waits) if far.done[task.id] != datetime.min else now
        rest = max((over - now).total_seconds() / 3600, 0.0)
        kept.append(task._replace(after=(), waits=rest))
        need[task.id] = 0.0
    return tuple(kept), need


class ClockWentBack(FrozenRecord):
    """The clock went back since a timer was started."""


class TimerForgotten(FrozenRecord):
    """A timer ran so long that it was forgotten, and so long was guessed, min."""

    ran: float
    guess: float


TimedFact = ClockWentBack | TimerForgotten


def timed(timer: Timer | None, now: datetime, guess: float, hours: Hours) -> tuple[float, TimedFact | None]:
    """Return the minutes a timer comes to, and what is to be said of it; 0 where it says nothing.

    A timer that was left running over the end of a session, or many times as long as the work takes, was forgotten:
    then the guess counts, and it is said. One whose clock went back counts nothing.

    Parameters
    ----------
    timer : Timer
        The one that runs, if any.
    now : datetime
        The time, without a zone.
    guess : float
        How long the task was thought to take, min.
    hours : Hours
        When one is at the bench.

    Returns
    -------
    tuple[float, TimedFact | None]
        Minutes, 0 where the timer says nothing; and what is to be said of it.
    """
    if timer is None:
        return 0.0, None
    since = datetime.fromisoformat(timer.since)
    ran = (now - since).total_seconds() / 60
    if ran < 0:
        return 0.0, ClockWentBack()
    _, end = hours.session(since) if hours.minutes_a_week else (since, now)
    if ran > max(_FORGOTTEN * guess, 60.0) or (now > end and ran > max(2 * guess, 30.0)):
        return guess, TimerForgotten(ran, guess)
    return round(ran, 1), None


def records(book: Iterable[BookEntry]) -> list[Record]:
    """Return what the book tells of how long work takes."""
    return [
        Record(entry.work, entry.minutes)
        for entry in book
        if entry.event is Event.DONE and entry.minutes > 0 and entry.work
    ]


def found(book: Sequence[BookEntry], words: str) -> tuple[BookEntry, ...]:
    """Return the entries that have all of some words in them, the newest first."""
    wanted = words.casefold().split()
    return tuple(
        entry
        for entry in reversed(book)
        if all(
            word in " ".join((entry.title, entry.text, entry.event.value, entry.at, entry.file)).casefold()
            for word in wanted
        )
    )


def added(book: tuple[BookEntry, ...], entry: BookEntry) -> tuple[BookEntry, ...]:
    """Put an entry into the book: where its time says, if the clock went back.

    Raises
    ------
    BookError
        For a time that is none.
    """
    try:
        when = datetime.fromisoformat(entry.at)
    except ValueError as error:
        raise BookError(NotATime(entry.at)) from error
    if when.tzinfo is not None:
        raise BookError(HasZone(entry.at))
    # A line that can be printed, and lines of it.
    text = "\n".join(map(shown, entry.text.split("\n")))
    return (*book, entry._replace(title=shown(entry.title), text=text))
