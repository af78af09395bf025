"""The order of work of a piece, derived: from its cuts, its milling, its joints, what fits what, how it goes together.

Rules of the trade decide what comes after what: joint before shape, fit after measure, equal parts together, no line
lost that is needed, nothing planed that is glued.
"""

from __future__ import annotations

from nullah.core.bench.task_facts import OrderFault
from nullah.core.bench.tasks import OrderError, Task, faults, in_order
from nullah.core.identity import IdentityKey, RecentResults
from nullah.core.named_tuple import NamedTuple
from nullah.core.plan import Plan
from nullah.core.work.assembly_tasks import assembly_tasks, finish_tasks, hang_tasks
from nullah.core.work.fit_tasks import fit_tasks, glued_before, measure_tasks
from nullah.core.work.gluing import Gluing, gluings, go_in_after
from nullah.core.work.joint_tasks import joint_tasks
from nullah.core.work.levelling import seats
from nullah.core.work.stock_tasks import mill_tasks, saw_tasks, waits_of


class OrderOfWork(NamedTuple):
    """All tasks in an order in which they can be done, how they are glued up, and what is wrong with that order."""

    tasks: tuple[Task, ...]
    gluings: tuple[Gluing, ...]
    faults: tuple[OrderFault, ...]

    def task(self, task_id: str) -> Task | None:
        """Return the task of that id, if there is one."""
        return next((task for task in self.tasks if task.id == task_id), None)


_KNOWN: RecentResults[OrderOfWork] = RecentResults(4)


def order_of_work(plan: Plan) -> OrderOfWork:
    """Derive the order of work of a plan; without tasks where there is no piece."""
    found = known_order(plan)
    if found is None:
        found = _order(plan)
        keep_order(plan, found)
    return found


def known_order(plan: Plan) -> OrderOfWork | None:
    """Return the order of work of a plan if it was derived lately: that takes long."""
    return _KNOWN.found(order_key(plan))


def keep_order(plan: Plan, order: OrderOfWork) -> None:
    """Keep what was derived, here or in another process."""
    _KNOWN.keep(order_key(plan), order)


def order_key(plan: Plan) -> IdentityKey[Plan]:
    """Return all that the order of work of a plan hangs on, told apart by identity.

    Nails and screws follow from it too: they are not worked out to ask for an order.
    """
    project = plan.project
    return IdentityKey(
        plan,
        plan.ledger,
        plan.unfastened,
        project.piece.rows,
        project.set_out,
        project.climate,
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


def _order(plan: Plan) -> OrderOfWork:
    if plan.ledger is None or not plan.parts:
        return OrderOfWork((), (), ())
    tasks, glued = derive(plan)
    try:
        ordered = in_order(tasks)
    except OrderError as error:
        return OrderOfWork((), glued, (error.fact,))
    measured = [name for name, _ in plan.project.piece.measured]
    return OrderOfWork(ordered, glued, faults(ordered, measured))


def derive(plan: Plan) -> tuple[tuple[Task, ...], tuple[Gluing, ...]]:
    """Return the tasks as they come to mind, what comes after what stands in each, and the glue-ups."""
    waits = waits_of(plan)
    saw = saw_tasks(plan)
    mill = mill_tasks(plan, saw)
    after = go_in_after(plan, waits)
    glued = gluings(plan, after)
    # What holds a top to its frame is cut to that when it is level.
    carried = seats(plan, glued)
    level = {
        part: seat.task_id for some in carried.values() for seat in some for part in seat.holds if part not in waits
    }
    closed = frozenset(joint.id for each in glued for joint in each.joints)
    joints = joint_tasks(plan, mill, waits, closed, level, glued_before(plan, waits, after, glued))
    measure = measure_tasks(plan, waits, after, mill, joints, glued)
    fit = fit_tasks(plan, waits, mill, measure)
    jointed = joints.after_fit({**fit.by_part, **level}).after_measuring(measure)
    made = (*saw, *mill.tasks, *measure, *fit.tasks, *jointed.tasks)
    together = assembly_tasks(plan, mill, fit.by_part, jointed, glued, carried)
    finished = (*made, *together, *finish_tasks(plan, (*made, *together)))
    return (*finished, *hang_tasks(plan, finished)), glued
