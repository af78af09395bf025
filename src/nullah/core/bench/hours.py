"""A calendar that knows when one is at the bench: labour goes into bench hours, waits run through the night."""

from __future__ import annotations

import heapq
from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from enum import Enum, auto
from typing import TYPE_CHECKING

from nullah.core.bits import Bits, at_once
from nullah.core.catalogue import N_
from nullah.core.errors import FactError
from nullah.core.frozen_record import FrozenRecord
from nullah.core.named_tuple import NamedTuple

if TYPE_CHECKING:
    from nullah.core.bench.tasks import Task

DAYS = (N_("Monday"), N_("Tuesday"), N_("Wednesday"), N_("Thursday"), N_("Friday"), N_("Saturday"), N_("Sunday"))
#: What has so many minutes more or less behind it is as pressing.
_ALIKE = 120
#: Later than this there is no plan.
_LONGEST = timedelta(days=3650)


class HoursFault(Enum):
    """Why nothing can be planned at the bench hours."""

    NONE_IN_THE_WEEK = auto()
    TAKES_TOO_LONG = auto()


class NoHours(FrozenRecord):
    """Text that is no hours of a day."""

    text: str


class HoursBackwards(FrozenRecord):
    """Hours of a day that end before they begin."""

    text: str


HoursFact = HoursFault | NoHours | HoursBackwards


class HoursError(FactError):
    """Bench hours that cannot be; `fact` is why."""


class Hours(NamedTuple):
    """When one is at the bench: for each weekday from Monday minutes after midnight from and to, or nothing."""

    week: tuple[tuple[int, int] | None, ...] = (
        (1110, 1260),
        (1110, 1260),
        (1110, 1260),
        (1110, 1260),
        None,
        (540, 780),
        (540, 780),
    )

    @property
    def minutes_a_week(self) -> int:
        """How long that is in a week."""
        return sum(span[1] - span[0] for span in self.week if span is not None)

    def session(self, at: datetime) -> tuple[datetime, datetime]:
        """Return the session that is on at a time, or the next one.

        Raises
        ------
        HoursError
            If there is never any.
        """
        if self.minutes_a_week <= 0:
            raise HoursError(HoursFault.NONE_IN_THE_WEEK)
        day = at.replace(hour=0, minute=0, second=0, microsecond=0)
        for offset in range(9):
            span = self.week[(day + timedelta(days=offset)).weekday()]
            if span is None:
                continue
            begin = day + timedelta(days=offset, minutes=span[0])
            end = day + timedelta(days=offset, minutes=span[1])
            if end > at:
                return max(begin, at), end
        raise HoursError(HoursFault.NONE_IN_THE_WEEK)


def read_hours(text: str) -> tuple[int, int] | None:
    """Read the hours of a day, such as ``18:30-21`` or nothing.

    Raises
    ------
    HoursError

    Examples
    --------
    >>> read_hours("9:00 - 12:30"), read_hours("")
    ((540, 750), None)
    """
    text = text.strip().replace("–", "-").replace(" ", "")
    if text in ("", "-"):
        return None
    try:
        begin, end = (_minute(part) for part in text.split("-"))
    except ValueError as error:
        raise HoursError(NoHours(text)) from error
    if not begin < end:
        raise HoursError(HoursBackwards(text))
    return begin, end


def _minute(text: str) -> int:
    hour, _, minute = text.partition(":")
    found = int(hour) * 60 + (int(minute) if minute else 0)
    if not (0 <= found <= 24 * 60 and 0 <= int(minute or 0) < 60):
        raise ValueError(text)
    return found


def write_hours(span: tuple[int, int] | None) -> str:
    """Write the hours of a day as they are read.

    Parameters
    ----------
    span : tuple[int, int] or None
        Minutes after midnight, from and to; None: no hours.

    Examples
    --------
    >>> write_hours((1110, 1260)), write_hours(None)
    ('18:30-21:00', '')
    """
    if span is None:
        return ""
    return "-".join(f"{minute // 60}:{minute % 60:02d}" for minute in span)


class Stint(NamedTuple):
    """A task, or a part of one, in one session: from when to when."""

    task: Task
    begin: datetime
    end: datetime


class Calendar(NamedTuple):
    """When everything is done: stints in order, when each task's wait is over, and what decides the end.

    `chain` names the tasks of which each began only when the one before it let it, the last one last; `why` of each
    what it waited for: ``work`` another task to be done, ``wait`` glue or finish, ``hands`` for there is only one pair.
    """

    stints: tuple[Stint, ...]
    free: Mapping[str, datetime]
    chain: tuple[str, ...]
    why: Mapping[str, str]

    @property
    def finish(self) -> datetime | None:
        """When the last is done and its wait over."""
        return max(self.free.values(), default=None)


def plan_days(tasks: Sequence[Task], minutes: Mapping[str, float], hours: Hours, begin: datetime) -> Calendar:
    """Put tasks into bench hours, one pair of hands, each after what it comes after and that one's wait.

    Of what could be done next, that is done which has most behind it; but work that must then wait goes last in the
    day, where its wait would run through the night in any case. What must not be left half done is begun only where it
    can be ended in the same session, if it can be in any.

    Parameters
    ----------
    tasks : sequence of Task
    minutes : mapping
        How long each takes; what takes none only waits.
    hours : Hours
    begin : datetime

    Raises
    ------
    HoursError, OrderError
    """
    return at_once(days_in_bits(tasks, minutes, hours, begin))


def days_in_bits(tasks: Sequence[Task], minutes: Mapping[str, float], hours: Hours, begin: datetime) -> Bits[Calendar]:
    """Put tasks into bench hours one by one, as `plan_days` does.

    Parameters
    ----------
    tasks : sequence of Task
    minutes : mapping
        How long each takes, min.
    hours : Hours
    begin : datetime
    """
    from nullah.core.bench.tasks import in_order  # hours are wanted with every project, days only at the Day Book

    return (yield from _Days(in_order(tasks), minutes, hours, begin).planned())


class _Days:
    """The days as they fill up: what is ready since when, what waits until when, and what is free."""

    def __init__(self, ordered: Sequence[Task], minutes: Mapping[str, float], hours: Hours, begin: datetime) -> None:
        self._tasks = {task.id: task for task in ordered}
        self._place = {task.id: number for number, task in enumerate(ordered)}
        self._minutes = {task.id: max(minutes.get(task.id, 0.0), 0.0) for task in ordered}
        self._hours, self._begin, self._now = hours, begin, begin
        self._longest = timedelta(
            minutes=max((span[1] - span[0] for span in hours.week if span is not None), default=0)
        )
        # What has most behind it goes first; tasks about as pressing are alike.
        self._pressing = {name: -int(tail // _ALIKE) for name, tail in _tails(ordered, self._minutes).items()}
        self._series = {task.id: task.series for task in ordered}
        self._left = {task.id: len(set(task.after)) for task in ordered}
        self._follows: dict[str, list[str]] = {task.id: [] for task in ordered}
        for task in ordered:
            for name in set(task.after):
                self._follows[name].append(task.id)
        self._ready: dict[str, datetime] = {}
        self._waiting: list[tuple[datetime, int, str]] = []
        self._free: dict[str, datetime] = {}
        self._because: dict[str, tuple[str, str]] = {}
        self._stints: list[Stint] = []
        self._last = ""
        for name, count in self._left.items():
            if count == 0:
                self._release(name, begin)

    def planned(self) -> Bits[Calendar]:
        """Fill the days."""
        while self._ready or self._waiting:
            yield
            self._set_free()
            can = [name for name, at in self._ready.items() if at <= self._now]
            if not can:
                ahead = [*self._ready.values(), *(item[0] for item in self._waiting[:1])]
                self._now = max(self._now, min(ahead, default=self._now))
                continue
            at, end = self._hours.session(self._now)
            if at - self._begin > _LONGEST:
                raise HoursError(HoursFault.TAKES_TOO_LONG)
            if at > self._now:
                self._now = at
                continue
            name = self._next(can, end)
            if name is None:
                self._now = end
            else:
                self._do(name)
        chain, why = _chain(self._free, self._because)
        return Calendar(tuple(self._stints), self._free, chain, why)

    def _release(self, name: str, at: datetime) -> None:
        """Let a task begin from a time on; without labour it waits by itself."""
        if self._minutes[name] > 0:
            self._ready[name] = at
        else:
            heapq.heappush(self._waiting, (at + timedelta(hours=self._tasks[name].waits), self._place[name], name))

    def _set_free(self) -> None:
        """Let go whose waits are over, and release what comes after them."""
        while self._waiting and self._waiting[0][0] <= self._now:
            at, _, name = heapq.heappop(self._waiting)
            self._free[name] = at
            for follower in self._follows[name]:
                self._left[follower] -= 1
                if self._left[follower] == 0:
                    by = max(self._tasks[follower].after, key=lambda each: self._free[each])
                    self._because[follower] = (by, "wait" if self._tasks[by].waits else "work")
                    self._release(follower, self._free[by])

    def _next(self, can: list[str], end: datetime) -> str | None:
        """Choose what is done next; None if nothing of it can be ended in this session and must be."""
        fits = [
            name
            for name in can
            if not self._tasks[name].whole
            or (need := timedelta(minutes=self._minutes[name])) > self._longest
            or self._now + need <= end
        ]

        last = self._series.get(self._last)
        shortest = min((self._minutes[name] for name in fits if not self._tasks[name].waits), default=None)

        # Of what is about as pressing, what goes on with what was just done: tools stay set.
        ranked = (
            (
                self._tasks[name].waits > 0 and self._put_off(name, shortest, end),
                self._pressing[name],
                last is not None and last != self._series[name],
                self._place[name],
                name,
            )
            for name in fits
        )
        return min(ranked)[-1] if fits else None

    def _put_off(self, name: str, shortest: float | None, end: datetime) -> bool:
        """Return whether other work goes before what waits: its wait runs through the night anyway.

        Parameters
        ----------
        name : str
        shortest : float or None
            How long the shortest work takes that leaves nothing to wait for, min; None where there is none.
        end : datetime
            Of the session.
        """
        need = self._minutes[name]
        if shortest is None or self._now + timedelta(minutes=need, hours=self._tasks[name].waits) <= end:
            return False
        return self._now + timedelta(minutes=shortest + need) <= end

    def _do(self, name: str) -> None:
        """Do a task from now on, over as many sessions as it takes."""
        busy = self._stints[-1].end if self._stints else self._begin
        if self._last and self._ready[name] < busy and self._because.get(name, ("", ""))[0] != self._last:
            self._because[name] = (self._last, "hands")
        need, done = timedelta(minutes=self._minutes[name]), self._now
        while need > timedelta(0):
            done, end = self._hours.session(done)
            stretch = min(need, end - done)
            self._stints.append(Stint(self._tasks[name], done, done + stretch))
            need -= stretch
            done += stretch
        self._now, self._last = done, name
        del self._ready[name]
        heapq.heappush(self._waiting, (done + timedelta(hours=self._tasks[name].waits), self._place[name], name))


def _tails(ordered: Sequence[Task], minutes: Mapping[str, float]) -> dict[str, float]:
    """Return how much must follow each task at the least, itself included; a wait counts as bench time it takes up."""
    follows: dict[str, list[str]] = {task.id: [] for task in ordered}
    for task in ordered:
        for name in task.after:
            follows[name].append(task.id)
    tail: dict[str, float] = {}
    for task in reversed(ordered):
        behind = max((tail[name] for name in follows[task.id]), default=0.0)
        tail[task.id] = minutes.get(task.id, 0.0) + 6 * task.waits + behind
    return tail


def _chain(
    free: Mapping[str, datetime], because: Mapping[str, tuple[str, str]]
) -> tuple[tuple[str, ...], dict[str, str]]:
    """Follow back from the last task what each waited for."""
    if not free:
        return (), {}
    name = max(free, key=lambda each: free[each])
    found, why = [name], {}
    while name in because and because[name][0] not in found:
        before, reason = because[name]
        why[name] = reason
        found.append(before)
        name = before
    return tuple(reversed(found)), why
