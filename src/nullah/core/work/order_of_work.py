"""The order of work of a piece, derived: from its cuts, its milling, its joints, what fits what, how it goes together.

Rules of the trade decide what comes after what: joint before shape, fit after measure, equal parts together, no line
lost that is needed, nothing planed that is glued.
"""

from __future__ import annotations

from functools import lru_cache
from typing import NamedTuple

from nullah.core.bench.tasks import OrderError, Task, faults, in_order
from nullah.core.identity import IdentityKey
from nullah.core.plan import Plan
from nullah.core.work.assembly_tasks import assembly_tasks, finish_tasks, hang_tasks
from nullah.core.work.fit_tasks import fit_tasks, measure_tasks
from nullah.core.work.gluing import Gluing, gluings, go_in_after
from nullah.core.work.joint_tasks import joint_tasks
from nullah.core.work.stock_tasks import mill_tasks, saw_tasks, waits_of


class OrderOfWork(NamedTuple):
    """All tasks in an order in which they can be done, how they are glued up, and what is wrong with that order."""

    tasks: tuple[Task, ...]
    gluings: tuple[Gluing, ...]
    faults: tuple[str, ...]

    def task(self, task_id: str) -> Task | None:
        """Return the task of that id, if there is one."""
        return next((task for task in self.tasks if task.id == task_id), None)


def order_of_work(plan: Plan) -> OrderOfWork:
    """Derive the order of work of a plan; without tasks where there is no piece."""
    project = plan.project
    return _order(
        IdentityKey(
            plan,
            plan.ledger,
            plan.assembly,
            project.boards,
            project.layout,
            project.first_cuts,
            project.cut_first,
            project.lows_left,
            project.staves,
            project.resawn,
            project.allowances,
            project.shop,
            project.marks,
            project.room,
            project.working,
            project.finish,
            project.piece.woods,
        )
    )


@lru_cache(maxsize=4)
def _order(key: IdentityKey[Plan]) -> OrderOfWork:
    plan = key.carried
    if plan.ledger is None or not plan.parts:
        return OrderOfWork((), (), ())
    tasks, glued = derive(plan)
    try:
        ordered = in_order(tasks)
    except OrderError as error:
        return OrderOfWork((), glued, (str(error),))
    measured = [name for name, _ in plan.project.piece.measured]
    return OrderOfWork(ordered, glued, faults(ordered, measured))


def derive(plan: Plan) -> tuple[tuple[Task, ...], tuple[Gluing, ...]]:
    """Return the tasks as they come to mind, what comes after what stands in each, and the glue-ups."""
    waits = waits_of(plan)
    saw = saw_tasks(plan)
    mill = mill_tasks(plan, saw)
    after = go_in_after(plan, waits)
    glued = gluings(plan, after)
    joints = joint_tasks(plan, mill, waits, frozenset(joint.id for each in glued for joint in each.joints))
    measure = measure_tasks(plan, waits, after, mill, joints, glued)
    fit = fit_tasks(plan, waits, mill, measure)
    jointed = joints.after_fit(fit.by_part)
    made = (*saw, *mill.tasks, *measure, *fit.tasks, *jointed.tasks)
    together = assembly_tasks(plan, mill, fit.by_part, jointed, glued)
    finished = (*made, *together, *finish_tasks(plan, (*made, *together)))
    return (*finished, *hang_tasks(plan, finished)), glued
