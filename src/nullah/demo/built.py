"""The sample piece being built: every task in turn, with made-up times and measurements, some of them off the plan."""

from __future__ import annotations

import random
from collections.abc import Callable
from datetime import datetime, timedelta

from nullah.core.actions import read_moisture
from nullah.core.bench.hours import Hours
from nullah.core.bench.tasks import Task
from nullah.core.fraction import Fraction
from nullah.core.lengths import Length
from nullah.core.operations.milling import WorkTo
from nullah.core.plan import Plan, work_out
from nullah.core.project import Project
from nullah.core.rack.board import Reading
from nullah.core.refs import BoardRef
from nullah.core.wording.task_titles import task_title
from nullah.core.work import recording
from nullah.core.work.day_book import WorkState, standing, task_minutes

#: When the first board of the sample piece is sawn.
BEGIN = datetime(2026, 11, 26, 18, 35)
#: Figures that come out other than planned by more than a hair, mm: sides a little thin, the openings narrower.
OFF = {"sides.thickness": Fraction(-8, 10), "divider.opening": Fraction(-6, 10), "column.width": Fraction(-6, 10)}

#: What is told when a task is over: the plan, the task and the time; it may change the project.
Told = Callable[[Project, Task, datetime], Project]


def build(
    project: Project,
    until: Callable[[WorkState], bool] = lambda stand: stand.finished,
    told: Told | None = None,
    seed: int = 3,
    most: int = 400,
) -> tuple[Project, datetime]:
    """Build a piece task by task, until something is so; give the project then, and the time.

    Openings and thicknesses are measured as they come, within a fifth of a millimetre but where `OFF` says more. Times
    lie about a third over the guesses. What must dry is waited for.

    Parameters
    ----------
    project : Project
    until : callable
        Asked before every task.
    told : callable, optional
        Called after every task.
    seed : int
        The same seed makes the same mistakes.
    most : int
        No more tasks than this.
    """
    chance = random.Random(seed)
    now = BEGIN
    for _ in range(most):
        plan = work_out(project, milling=False, proving=False)
        stand = standing(plan, now)
        if until(stand):
            break
        task = stand.next
        if task is None:
            dry = next((each for each in stand.ready if not each.work), None)
            if dry is None:
                now = _until_dry(stand, now)
                continue
            # What only waits is read with the meter when its days are over.
            now += timedelta(hours=dry.waits)
            project = _dry(plan, dry, now)
            here = work_out(project, milling=False, proving=False)
            project = recording.finish(here, dry, task_title(dry, here.reader), now, 0.0).project
            continue
        took = max(1.0, task_minutes(plan, task, {}) * chance.lognormvariate(0.3, 0.2))
        now = _after(now, took, project.working.hours)
        project = _measure(plan, task, now, chance)
        if project is not plan.project:
            plan = work_out(project, milling=False, proving=False)
        project = recording.finish(plan, task, task_title(task, plan.reader), now, round(took, 1)).project
        if told is not None:
            project = told(project, task, now)
    return project, now


def _after(now: datetime, minutes: float, hours: Hours) -> datetime:
    """Return the time after so much work, in bench hours."""
    left = timedelta(minutes=minutes)
    while True:
        begin, end = hours.session(now)
        if begin + left <= end:
            return begin + left
        left -= end - begin
        now = end


def _until_dry(stand: WorkState, now: datetime) -> datetime:
    """Return when the next wait is over."""
    waits = [
        at + timedelta(hours=task.waits)
        for task in stand.order.tasks
        if (at := stand.progress.done.get(task.id)) is not None and at != datetime.min
    ]
    return min((at for at in waits if at > now), default=now + timedelta(days=1))


def _measure(plan: Plan, task: Task, now: datetime, chance: random.Random) -> Project:
    """Measure what a task asks to be measured, and the thickness of what was milled where it is off."""
    names = list(task.measures)
    if any(isinstance(each, WorkTo) for each in task.operations):
        own = {name for each in task.parts if (part := plan.part(each)) is not None for name in part.quantities}
        names += [name for name in OFF if name in own]
    project = plan.project
    for name in names:
        here = work_out(project, milling=False, proving=False)
        if here.ledger is None or name not in here.ledger.quantities:
            continue
        off = OFF.get(name, Fraction(round(chance.gauss(0, 0.12) * 10), 10))
        project = recording.measured(here, name, Length(here.ledger[name] + off), now)
    return project


def _dry(plan: Plan, task: Task, now: datetime) -> Project:
    target = plan.project.room.target
    if target is None or not isinstance(task.subject, BoardRef):
        return plan.project
    return read_moisture(
        plan.project, task.subject.board, Reading(recording.stamp(now)[:10], Fraction(round(target * 2) + 1, 2))
    )
