"""The order of work of a piece, derived: from its cuts, its milling, its joints, what fits what, how it goes together.

Rules of the trade decide what comes after what: joint before shape, fit after measure, equal parts together, no line
lost that is needed, nothing planed that is glued.
"""

from __future__ import annotations

from functools import lru_cache
from typing import NamedTuple

from nullah.core.bench.tasks import OrderError, Task, Trade, faults, in_order
from nullah.core.plan import Plan
from nullah.core.work.gluing import Gluing, gluings
from nullah.core.work.joint_tasks import JointTasks, joint_tasks
from nullah.core.work.stock_tasks import MillTasks, fit_tasks, measure_tasks, mill_tasks, saw_tasks, waits_of


class OrderOfWork(NamedTuple):
    """All tasks in an order in which they can be done, how they are glued up, and what is wrong with that order."""

    tasks: tuple[Task, ...]
    gluings: tuple[Gluing, ...]
    faults: tuple[str, ...]

    def task(self, task_id: str) -> Task | None:
        """Give the task of that id, if there is one."""
        return next((task for task in self.tasks if task.id == task_id), None)


class _Same:
    """A plan as a key: all that an order of work hangs on, told apart by what it is, not by what it is equal to."""

    def __init__(self, plan: Plan) -> None:
        self.plan = plan
        project = plan.project
        self.parts: tuple[object, ...] = (
            plan.ledger, plan.assembly, project.boards, project.layout, project.first_cuts, project.staves,
            project.resawn, project.allowances, project.shop, project.marks, project.room, project.working,
            project.finish, project.piece.woods,
        )  # fmt: skip

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Same) and all(a is b for a, b in zip(self.parts, other.parts, strict=True))

    def __hash__(self) -> int:
        return hash(tuple(map(id, self.parts)))


def order_of_work(plan: Plan) -> OrderOfWork:
    """Derive the order of work of a plan; without tasks where there is no piece."""
    return _order(_Same(plan))


@lru_cache(maxsize=4)
def _order(key: _Same) -> OrderOfWork:
    plan = key.plan
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
    """Give the tasks as they come to mind, what comes after what stands in each, and the glue-ups."""
    waits = waits_of(plan)
    saw = saw_tasks(plan)
    mill = mill_tasks(plan, saw)
    joints: JointTasks = joint_tasks(plan, mill, waits)
    glued = gluings(plan)
    measure = measure_tasks(plan, waits, mill, joints, glued)
    fit = fit_tasks(plan, waits, mill, measure)
    jointed = joints.after_fit(fit.by_part)
    glue = _glue_tasks(plan, mill, fit.by_part, jointed, glued)
    rest = (*saw, *mill.tasks, *measure, *fit.tasks, *jointed.tasks)
    return (*rest, *glue, *_finish_tasks(plan, [*rest, *glue])), glued


def _glue_tasks(
    plan: Plan, mill: MillTasks, fit: dict[str, str], joints: JointTasks, glued: tuple[Gluing, ...]
) -> tuple[Task, ...]:
    found: list[Task] = []
    shape = _shape_tasks(plan, mill, joints)
    found += shape
    shaped = {part: task.id for task in shape for part in task.parts}
    before: dict[str, str] = {}
    smooth: dict[str, str] = {}
    for each in glued:
        parts = each.parts
        ready = [mill.by_part[part] for part in parts] + [fit[part] for part in parts if part in fit]
        ready += [shaped[part] for part in parts if part in shaped]
        ready += [name for part in parts for name in joints.done_with(part, frozenset(parts))]
        if each.group not in smooth and each.glues:
            everything = tuple(dict.fromkeys(part for other in glued if other.group == each.group and other.glues
                                             for part in other.parts))  # fmt: skip
            need = [mill.by_part[part] for part in everything] + [fit[part] for part in everything if part in fit]
            need += [shaped[part] for part in everything if part in shaped]
            need += [name for part in everything for name in joints.done_with(part, frozenset(everything))]
            title, name = f"Plane clean what will be inside: {_names(plan, everything)}", each.group or "piece"
            task = Task(
                f"smooth/{name}", title, Trade.SMOOTH,
                everything, tuple(dict.fromkeys(need)), (("smooth", _area(plan, everything) / 2), ("set up", 1)),
                removes=tuple((part, "all") for part in everything), of=f"smooth/{name}",
            )  # fmt: skip
            found.append(task)
            smooth[each.group] = task.id
        after = [*ready, *([before[each.group]] if each.group in before else []),
                 *([smooth[each.group]] if each.group in smooth else [])]  # fmt: skip
        if each.mover and "" in before:
            after.append(before[""])
        found.append(each.task(plan, tuple(dict.fromkeys(after))))
        before[each.group] = each.id
    found += _clean_tasks(plan, glued, before)
    return tuple(found)


def _shape_tasks(plan: Plan, mill: MillTasks, joints: JointTasks) -> list[Task]:
    """Shape parts after their joints are cut: a taper after its mortises, a bevel after its groove."""
    alike: dict[str, list[str]] = {}
    for shaped in plan.parts:
        if shaped.shapings:
            alike.setdefault(shaped.alike, []).append(shaped.id)
    found = []
    for name, ids in alike.items():
        parts = [part for each in ids if (part := plan.part(each)) is not None]
        metres = sum(float(part.length) / 1000 * len(part.shapings) for part in parts)
        after = [mill.by_part[each] for each in ids] + [task for each in ids for task in joints.cut_in(each)]
        found.append(
            Task(f"shape/{name}", f"Shape {_names(plan, tuple(ids))}", Trade.SHAPE, tuple(ids),
                 tuple(dict.fromkeys(after)), (("shape", metres), ("set up", 1)), of=f"shape/{ids[0]}")
        )  # fmt: skip
    return found


def _clean_tasks(plan: Plan, glued: tuple[Gluing, ...], last: dict[str, str]) -> list[Task]:
    """Clean up each group when it is together; what moves is fitted to its opening then."""
    found = []
    groups = dict.fromkeys(each.group for each in glued)
    main = "clean/piece" if "" in groups else ""
    for group in groups:
        parts = tuple(part.id for part in plan.parts if part.group == group)
        mover = next((each for each in plan.assembly.movers if each.group == group), None)
        title = f"Plane the joints of {_of_group(plan, group)} flush, and its outside"
        after = [last[group]]
        if mover is not None and main and group != "":
            title = f"Fit {mover.name} in its opening: plane until it runs, the same gap all round"
            after.append(main)
        found.append(
            Task(f"clean/{group or 'piece'}", title, Trade.CLEAN, parts, tuple(after),
                 (("smooth", _area(plan, parts) / 2), ("fit", 1)), of=f"clean/{group or 'piece'}")
        )  # fmt: skip
    return found


def _finish_tasks(plan: Plan, tasks: list[Task]) -> list[Task]:
    """Put the finish on when all else is done: a coat, a wait, a coat."""
    from nullah.core.bench.working import COATS

    coats, hours = COATS.get(plan.project.finish, (0, 0.0))
    behind = {name for task in tasks for name in task.after}
    after = tuple(task.id for task in tasks if task.id not in behind)
    parts = tuple(part.id for part in plan.parts)
    found = []
    for coat in range(1, coats + 1):
        title = f"Put on {plan.project.finish}, coat {coat} of {coats}"
        work = (("coat", _area(plan, parts)), ("set up", 1.0))
        task = Task(f"finish/{coat}", title, Trade.FINISH, parts, after, work, hours, of="finish", whole=True)
        found.append(task)
        after = (task.id,)
    return found


def _of_group(plan: Plan, group: str) -> str:
    mover = next((each for each in plan.assembly.movers if each.group == group), None)
    return mover.name if mover is not None else f"the {plan.form.title.lower().partition(' (')[0]}"


def _names(plan: Plan, ids: tuple[str, ...]) -> str:
    from nullah.core.bench.cutlist import together

    return together([part.name for each in ids if (part := plan.part(each)) is not None])


def _area(plan: Plan, ids: tuple[str, ...]) -> float:
    """Give the area of the faces of some parts, dm²."""
    return sum(2 * float(part.length) * float(part.width) for each in ids if (part := plan.part(each))) / 10_000
