"""The order of work as a graph: tasks, what each comes after, and what must never happen in any order of them."""

from __future__ import annotations

import heapq
from collections.abc import Iterable, Iterator, Sequence
from enum import Enum
from graphlib import CycleError, TopologicalSorter

from nullah.core.bench.task_facts import (
    AfterNothing,
    CutUnmeasured,
    LineNotDrawn,
    LineTakenOff,
    OrderFault,
    TaskFact,
    WaitInCircle,
    WorkedWhenGlued,
)
from nullah.core.bench.trades import AFTER_GLUE, Trade
from nullah.core.errors import FactError
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.operation import Operation
from nullah.core.refs import BoardRef, PartRef


class LayoutLine(NamedTuple):
    """A line on a part: of which joint or job it is, what it is called, and on which surface it lies.

    Surfaces are ``face``, ``edge``, ``end``; ``all`` goes round.
    """

    part: str
    name: str
    surface: str = "all"


class Joining(Enum):
    """How parts are put together; the value is what it is called in the answer of ``nullah work``."""

    STARTED = "started"
    DRY = "dry"
    GLUE = "glue"
    NAILS = "nails"
    SCREWS = "screws"
    PEGS = "pegs"
    LOOSE = "loose"


class Join(NamedTuple):
    """Parts that are put together, and how."""

    parts: tuple[str, ...]
    how: Joining


class JointStep(NamedTuple):
    """A step of all equal joints of a kind: the kind's id, and which step, from 0."""

    kind: str
    number: int


class Task(NamedTuple):
    """Something to do at one go.

    Parameters
    ----------
    id : str
        The same however the plan changes, as long as the task is the same.
    what : TaskFact
        Its title is made of it.
    trade : Trade
    parts : tuple of str
        What it is done to.
    after : tuple of str
        Tasks that must be done before.
    work : tuple of (str, float)
        How much of what it is, by the names of `rates.RATES`.
    waits : float
        Hours that must pass after it and cost no labour: glue, finish, drying.
    draws, uses : tuple of LayoutLine
        Lines it makes, and lines it needs.
    removes : tuple of (str, str)
        Surfaces it takes off: part and surface.
    measures, fits : tuple of str
        Quantities of the ledger that are measured in it, and that must be known before.
    subject : BoardRef or PartRef or JointStep, optional
        Where its settings and its picture come from; None where it is about the piece.
    whole : bool
        Whether it must not be left half done: a glue-up.
    operations : tuple of Operation
        What is done to its parts, in order.
    joins : tuple of Join
        What it puts together.
    on_assembly : bool
        Whether it is done to what is glued already.
    between : tuple of str
        What must stand together where something is measured.
    """

    id: str
    what: TaskFact
    trade: Trade
    parts: tuple[str, ...]
    after: tuple[str, ...] = ()
    work: tuple[tuple[str, float], ...] = ()
    waits: float = 0.0
    draws: tuple[LayoutLine, ...] = ()
    uses: tuple[LayoutLine, ...] = ()
    removes: tuple[tuple[str, str], ...] = ()
    measures: tuple[str, ...] = ()
    fits: tuple[str, ...] = ()
    subject: BoardRef | PartRef | JointStep | None = None
    whole: bool = False
    operations: tuple[Operation, ...] = ()
    joins: tuple[Join, ...] = ()
    on_assembly: bool = False
    between: tuple[str, ...] = ()

    @property
    def series(self) -> Trade | str:
        """What it goes on with: tasks of one series follow one another, since tools stay set."""
        return self.subject.kind if isinstance(self.subject, JointStep) else self.trade


class OrderError(FactError):
    """Tasks that wait for each other in a circle, or for what is not there; the fact names them."""

    fact: WaitInCircle | AfterNothing


def in_order(tasks: Sequence[Task]) -> tuple[Task, ...]:
    """Return tasks so that each comes after what it waits for; otherwise as they stand.

    Raises
    ------
    OrderError
        For a circle, or a task that comes after one that is not there.

    Examples
    --------
    >>> from nullah.core.bench.task_facts import CleanPiece, SawBoard
    >>> two = Task("b", CleanPiece(), Trade.GLUE, (), ("a",)), Task("a", SawBoard("1", 2), Trade.SAW, ())
    >>> [task.id for task in in_order(two)]
    ['a', 'b']
    """
    place = {task.id: number for number, task in enumerate(tasks)}
    missing = {name for task in tasks for name in task.after if name not in place}
    if missing:
        raise OrderError(AfterNothing(tuple(sorted(missing))))
    sorter = TopologicalSorter({task.id: task.after for task in tasks})
    try:
        sorter.prepare()
    except CycleError as error:
        circle = tuple(tasks[place[name]].what for name in reversed(error.args[1][1:]))
        raise OrderError(WaitInCircle(circle)) from error
    ready: list[int] = []
    found: list[Task] = []
    while sorter.is_active():
        for name in sorter.get_ready():
            heapq.heappush(ready, place[name])
        found.append(tasks[heapq.heappop(ready)])
        sorter.done(found[-1].id)
    return tuple(found)


def faults(tasks: Sequence[Task], measured: Iterable[str] = ()) -> tuple[OrderFault, ...]:
    """Return what is wrong with an order; nothing where it is sound.

    No line is removed before its last use, nothing is cut to fit before what it fits is measured, nothing that is
    glued must still be planed or cut.

    Parameters
    ----------
    tasks : sequence of Task
        In the order in which they would be done.
    measured : iterable of str
        Quantities that are measured already.
    """
    return (*_lines_lost(tasks), *_cut_unmeasured(tasks, set(measured)), *_worked_after_glue(tasks))


def _lines_lost(tasks: Sequence[Task]) -> Iterator[LineTakenOff | LineNotDrawn]:
    there: set[LayoutLine] = set()
    lost: dict[LayoutLine, TaskFact] = {}
    for task in tasks:
        for line in task.uses:
            if line in lost:
                yield LineTakenOff(task.what, line.name, lost[line])
            elif line not in there:
                yield LineNotDrawn(task.what, line.name)
        for part, surface in task.removes:
            for line in [line for line in there if line.part == part and _meets(line.surface, surface)]:
                lost[line] = task.what
                there.discard(line)
        for line in task.draws:
            there.add(line)
            lost.pop(line, None)


def _meets(one: str, two: str) -> bool:
    return one == two or "all" in (one, two)


def _cut_unmeasured(tasks: Sequence[Task], measured: set[str]) -> Iterator[CutUnmeasured]:
    for task in tasks:
        for name in task.fits:
            if name not in measured:
                yield CutUnmeasured(task.what, name)
        measured |= set(task.measures)


def _worked_after_glue(tasks: Sequence[Task]) -> Iterator[WorkedWhenGlued]:
    glued: dict[str, TaskFact] = {}
    for task in tasks:
        if task.trade is Trade.GLUE:
            glued.update(dict.fromkeys(task.parts, task.what))
        elif task.trade not in AFTER_GLUE and not task.on_assembly:
            for part in task.parts:
                if part in glued:
                    yield WorkedWhenGlued(task.what, glued[part], part)
                    break


class Timing(NamedTuple):
    """When a task can begin and end at the earliest, and by how much it can slip, all in minutes."""

    start: float
    end: float
    slack: float


def critical_path(tasks: Sequence[Task], minutes: dict[str, float]) -> dict[str, Timing]:
    """Return the earliest times of tasks when hands are not short, waits counted, and how much each can slip.

    What has no slack is the critical path (CPM: forward and backward pass, exact).

    Parameters
    ----------
    tasks : Sequence[Task]
        In an order in which they can be done.
    minutes : dict[str, float]
        Labour of each by id, min.

    Returns
    -------
    dict[str, Timing]
        By task id; times in minutes from the beginning.
    """
    ordered = in_order(tasks)
    long = {task.id: minutes.get(task.id, 0.0) + 60 * task.waits for task in tasks}
    start: dict[str, float] = {}
    for task in ordered:
        start[task.id] = max((start[name] + long[name] for name in task.after), default=0.0)
    end = max((start[name] + long[name] for name in start), default=0.0)
    latest = {task.id: end for task in tasks}
    for task in reversed(ordered):
        for name in task.after:
            latest[name] = min(latest[name], latest[task.id] - long[task.id])
    return {name: Timing(at, at + long[name], latest[name] - at - long[name]) for name, at in start.items()}
