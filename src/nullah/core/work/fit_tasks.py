"""Tasks of what fits: measuring openings once what makes them is together, and cutting to what was measured."""

from __future__ import annotations

from typing import NamedTuple

from nullah.core.bench.tasks import Task, Trade
from nullah.core.piece.part import Part
from nullah.core.plan import Plan
from nullah.core.refs import PartRef
from nullah.core.work.gluing import Gluing
from nullah.core.work.joint_tasks import JointTasks
from nullah.core.work.stock_tasks import MillTasks, hosts_of


class FitTasks(NamedTuple):
    """The cutting of what fits, and which task cuts which part."""

    tasks: tuple[Task, ...]
    by_part: dict[str, str]


def _dry_with(plan: Plan, hosts: frozenset[str], waits: dict[str, tuple[str, ...]]) -> frozenset[str]:
    """Return what is put together dry around an opening: all of the same group that waits for nothing."""
    groups = {part.group for part in plan.parts if part.id in hosts}
    return hosts | {part.id for part in plan.parts if part.group in groups and part.id not in waits}


def measure_tasks(
    plan: Plan, waits: dict[str, tuple[str, ...]], mill: MillTasks, joints: JointTasks, glued: tuple[Gluing, ...]
) -> tuple[Task, ...]:
    """Put together dry, or look at what is glued already, and measure the openings of what comes next."""
    if plan.ledger is None:
        return ()
    wanted: dict[tuple[frozenset[str], bool], dict[str, None]] = {}
    for part_id, names in waits.items():
        later = goes_in_later(plan, part_id, glued)
        hosts = hosts_of(plan, part_id, waits) if later else _dry_with(plan, hosts_of(plan, part_id, waits), waits)
        for name in names:
            wanted.setdefault((hosts, later), {}).setdefault(name)
    told: set[str] = set()
    found = []
    # What is measured on what is put together dry comes before what is measured when that is glued.
    for (hosts, later), every in sorted(wanted.items(), key=lambda item: (item[0][1], len(item[0][0]))):
        new = [name for name in every if name not in told]
        told |= set(new)
        if not new:
            continue
        titles = [plan.reader.title(name) for name in new]
        after = [mill.by_part[each] for each in hosts if each in mill.by_part]
        if later:
            after += [each.id for each in glued if set(each.parts) & hosts and not each.mover and each.glues]
            title = f"Measure {_listed(titles)}"
        else:
            after += joints.dry(hosts)
            hosting = plan.reader.together(part.id for part in plan.parts if part.id in hosts)
            title = f"Put {hosting} together dry; measure {_listed(titles)}"
        key = "+".join(new)
        found.append(
            Task(
                f"measure/{key}",
                title,
                Trade.MEASURE,
                tuple(sorted(hosts)),
                tuple(dict.fromkeys(after)),
                (("measure", float(len(new))), ("set up", 0.0 if later else 2.0)),
                measures=tuple(new),
            )
        )
    return tuple(found)


def goes_in_later(plan: Plan, part_id: str, glued: tuple[Gluing, ...]) -> bool:
    """Return whether a part goes in when what holds it is glued already: a back, a drawer."""
    part = plan.part(part_id)
    if part is not None and any(mover.group == part.group for mover in plan.assembly.movers):
        return True
    own = next((each for each in glued if part_id in each.adds), None)
    return own is not None and not own.glues


def fit_tasks(plan: Plan, waits: dict[str, tuple[str, ...]], mill: MillTasks, measure: tuple[Task, ...]) -> FitTasks:
    """Cut what fits to what was measured, equal ones together."""
    by_name = {name: task.id for task in measure for name in task.measures}
    groups: dict[tuple[str, tuple[str, ...]], list[Part]] = {}
    for part in plan.parts:
        if part.id in waits:
            groups.setdefault((part.alike, waits[part.id]), []).append(part)
    tasks: list[Task] = []
    by_part: dict[str, str] = {}
    for (alike, names), parts in groups.items():
        ids = tuple(part.id for part in parts)
        after = [mill.by_part[ids[0]], *(by_name[name] for name in names if name in by_name)]
        title = f"Cut {plan.reader.together(part.id for part in parts)} to fit what was measured"
        task = Task(
            f"fit/{alike}",
            title,
            Trade.FIT,
            ids,
            tuple(dict.fromkeys(after)),
            (("end", 2.0 * len(parts)), ("true", 0.5 * len(parts))),
            fits=names,
            subject=PartRef(ids[0]),
        )
        tasks.append(task)
        by_part |= dict.fromkeys(ids, task.id)
    return FitTasks(tuple(tasks), by_part)


def _listed(titles: list[str]) -> str:
    return titles[0] if len(titles) == 1 else f"{', '.join(titles[:-1])} and {titles[-1]}"
