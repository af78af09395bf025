"""Tasks of putting together: shaping, the last planing inside, glue-ups, cleaning up, fitting what moves, finish."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from nullah.core.bench.task_facts import (
    CleanPiece,
    CleanUnit,
    FitHardware,
    FitMover,
    PlaneInside,
    PlaneLevel,
    PutOnCoat,
    ShapeParts,
    TaskFact,
)
from nullah.core.bench.tasks import Task
from nullah.core.bench.trades import Trade
from nullah.core.identity import kept_by_identity
from nullah.core.joints.steps import flush, shaped
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.operation import Operation
from nullah.core.piece.form import Fitting, Hardware
from nullah.core.piece.frames import frames_of
from nullah.core.piece.joint import Hold
from nullah.core.piece.part import Part
from nullah.core.piece.space import Side
from nullah.core.plan import Plan
from nullah.core.wood.finishes import FINISHES, NO_FINISH
from nullah.core.work.gluing import Gluing, clean_unit_id
from nullah.core.work.joint_tasks import JointTasks
from nullah.core.work.levelling import Seat
from nullah.core.work.stock_tasks import MillTasks, waits_of


class _Made(NamedTuple):
    """What makes parts ready to go together: their milling, their cutting to fit, their shaping, their joints."""

    mill: dict[str, str]
    fit: dict[str, str]
    shape: dict[str, str]
    joints: JointTasks

    def ready(self, parts: tuple[str, ...], onto: tuple[str, ...] = ()) -> list[str]:
        """Return the tasks that must be done before these parts are put together, or to what stands already."""
        found = [by[part] for by in (self.mill, self.fit, self.shape) for part in parts if part in by]
        whole = frozenset((*parts, *onto))
        return found + [name for part in parts for name in self.joints.done_with(part, whole)]


def assembly_tasks(
    plan: Plan,
    mill: MillTasks,
    fit: dict[str, str],
    joints: JointTasks,
    glued: tuple[Gluing, ...],
    carried: Mapping[str, tuple[Seat, ...]],
) -> tuple[Task, ...]:
    """Return all tasks from shaping to cleaning up; what goes in and out of the piece comes when that is glued.

    `carried` is what is laid on others, by its glue-up.
    """
    shape = _shape_tasks(plan, mill, fit, joints)
    made = _Made(mill.by_part, fit, {part: task.id for task in shape for part in task.parts}, joints)
    smooth = _smooth_tasks(plan, made, glued, fit)
    coats = _coats_before(plan, made, smooth)
    glue: list[Task] = []
    last: dict[str, str] = {}
    fast: set[str] = set()
    cleaned: dict[str, str] = {}
    ends = {each.unit: each.id for each in glued}
    for each in glued:
        # What stands already was ready when it was put together.
        after = made.ready(each.adds, each.parts)
        after += made.ready(each.steadied_by, each.parts)
        smoothed = (task for (where, _), task in smooth.items() if where == each.where)
        after += [task.id for task in smoothed if set(task.parts) & set(each.parts)]
        after += [task.id for task in coats if set(task.parts) & set(each.adds)]
        after += [last[each.where]] if each.where in last else []
        after += [last[""]] if each.mover and "" in last else []
        # What is made up by itself is cleaned before it goes in.
        after += [cleaned[part] for part in each.adds if part in cleaned and not each.unit]
        level: list[Task] = []
        for seat in carried.get(each.id, ()):
            # What carries it stands since the last glue-up, or was made up by itself.
            made_up = dict.fromkeys(cleaned[part] for part in seat.carried_by if part in cleaned)
            stood = (last[each.where],) if each.where in last else tuple(made_up)
            level.append(_level_task(plan, seat, stood))
        glue += level
        after += [task.id for task in level]
        glue += each.tasks(plan, tuple(dict.fromkeys(after)), frozenset(fast))
        fast |= each.fastens
        last[each.where] = each.id
        if each.unit and each.id == ends[each.unit]:
            own = [task for task in joints.late if set(task.parts) <= set(each.parts)]
            glue += _late_tasks(own, dict.fromkeys(each.parts, each.unit), last)
            clean = _clean_unit(plan, each, last[each.unit])
            glue.append(clean)
            cleaned |= dict.fromkeys(each.parts, clean.id)
    last = {where: task for where, task in last.items() if where not in {each.unit for each in glued if each.unit}}
    done = {task.id for task in glue}
    late = _late_tasks(
        [task for task in joints.late if task.id not in done], {part.id: part.group for part in plan.parts}, last
    )
    cleaning = _clean_tasks(plan, last)
    return (*shape, *dict.fromkeys(smooth.values()), *coats, *glue, *late, *cleaning, *_hardware_tasks(plan, cleaning))


def _hardware_tasks(plan: Plan, clean: list[Task]) -> list[Task]:
    """Fit hardware when all stands and is clean."""
    after = tuple(task.id for task in clean)
    there = [each for each in plan.assembly.fittings if each.kind is not Hardware.WALL]
    return [_hardware(each, f"hardware/{number}", after) for number, each in enumerate(there, start=1)]


def hang_tasks(plan: Plan, tasks: tuple[Task, ...]) -> tuple[Task, ...]:
    """Hang what goes on a wall when all else is done, the finish too."""
    wall = [each for each in plan.assembly.fittings if each.kind is Hardware.WALL]
    return tuple(_hardware(each, "hang", _last_of(tasks)) for each in wall[:1])


def _hardware(fitting: Fitting, name: str, after: tuple[str, ...]) -> Task:
    work = (("fit", float(len(fitting.parts))), ("set up", 1.0))
    return Task(name, FitHardware(fitting.kind, fitting.parts), Trade.HARDWARE, fitting.parts, after, work)


def _last_of(tasks: tuple[Task, ...]) -> tuple[str, ...]:
    """Return the tasks that no other comes after."""
    behind = {name for task in tasks for name in task.after}
    return tuple(task.id for task in tasks if task.id not in behind)


def loose_panels(plan: Plan) -> tuple[str, ...]:
    """Return the parts that lie free in grooves all round: no finish gets at all of them when they are in."""
    entered = {joint.first for joint in plan.assembly.joints if joint.type.captures}
    found: dict[str, bool] = {}
    for joint in plan.assembly.joints:
        for part in (joint.first, joint.second):
            free = part == joint.second and joint.type.captures and joint.hold is Hold.DRY
            holds = joint.hold in (Hold.DRY, Hold.SLOTS)
            found[part] = found.get(part, free) and holds
    return tuple(part for part, loose in found.items() if loose and part not in entered)


def _coats_before(plan: Plan, made: _Made, smooth: dict[tuple[str, int], Task]) -> list[Task]:
    """Put the finish on loose panels before they are glued in: no bare edge shows as they shrink.

    Those of what moves as one, such as the bottoms of drawers, come later than those of the piece; those that are cut
    to an opening, when that is measured.
    """
    moving, waits = {part.id for part in plan.parts if part.group}, waits_of(plan)
    sets: dict[tuple[bool, tuple[str, ...]], list[str]] = {}
    for part in loose_panels(plan):
        sets.setdefault((part in moving, () if part in moving else waits.get(part, ())), []).append(part)
    return [task for _, parts in sorted(sets.items()) for task in _coats(plan, made, smooth, tuple(parts))]


def _coats(plan: Plan, made: _Made, smooth: dict[tuple[str, int], Task], parts: tuple[str, ...]) -> list[Task]:
    coats, hours, _ = FINISHES.get(plan.project.finish, FINISHES[NO_FINISH])
    after = [*made.ready(parts), *(task.id for task in smooth.values() if set(task.parts) & set(parts))]
    found: list[Task] = []
    for coat in range(1, coats + 1):
        what = PutOnCoat(plan.project.finish, coat, coats, parts)
        work = (("coat", _area(plan, parts)), ("set up", 1.0))
        before = tuple(dict.fromkeys(after)) if not found else (found[-1].id,)
        found.append(Task(f"finish/{parts[0]}/{coat}", what, Trade.FINISH, parts, before, work, hours))
    return found


def _late_tasks(late: Iterable[Task], where: Mapping[str, str], last: dict[str, str]) -> list[Task]:
    """Return what is cut into glued joints, after the glue-up of what its parts belong to, and before that is cleaned.

    Parameters
    ----------
    late : iterable of Task
    where : mapping of part id to str
        The unit or group of each part.
    last : dict of str to str
        The last task of each unit or group; these become that.
    """
    found = []
    for task in late:
        groups = dict.fromkeys(where[part] for part in task.parts)
        behind = [last[group] for group in groups if group in last]
        found.append(task._replace(after=tuple(dict.fromkeys((*task.after, *behind)))))
        last |= {group: task.id for group in groups if group in last}
    return found


def _shape_tasks(plan: Plan, mill: MillTasks, fit: Mapping[str, str], joints: JointTasks) -> list[Task]:
    """Shape parts after they are as large as they must be and their joints are cut: a bevel after its groove."""
    alike: dict[str, list[str]] = {}
    frames = frames_of(plan.assembly)
    for each in plan.parts:
        if each.shapings:
            alike.setdefault(each.alike, []).append(each.id)
    found = []
    for name, ids in alike.items():
        parts = [part for each in ids if (part := plan.part(each)) is not None]
        metres = sum(float(part.length) / 1000 * len(part.shapings) for part in parts)
        after = [mill.by_part[each] for each in ids] + [fit[each] for each in ids if each in fit]
        after += [task for each in ids for task in joints.cut_in(each)]
        told = [shaped(frames[part.id], plan.marks) for part in parts]
        every = [each for made in told if made is not None for each in made]
        operations = tuple(sorted(every, key=lambda each: bool(each.takes)))
        found.append(
            Task(
                f"shape/{name}",
                ShapeParts(tuple(ids)),
                Trade.SHAPE,
                tuple(ids),
                tuple(dict.fromkeys(after)),
                (("shape", metres), ("set up", 1.0)),
                operations=operations,
            )
        )
    return found


def _smooth_tasks(
    plan: Plan, made: _Made, glued: tuple[Gluing, ...], fit: dict[str, str]
) -> dict[tuple[str, int], Task]:
    """Plane clean what no plane gets to when it is together, once for each group; what is cut to fit that, after it.

    What fits other things, such as dividers between uprights, is cleaned by itself.
    """
    found: dict[tuple[str, int], Task] = {}
    sets: dict[tuple[str, int], dict[str, None]] = {}
    units = {part for unit in plan.assembly.units for part in unit.parts}
    stages: dict[str, list[frozenset[str]]] = {}
    panels = set(loose_panels(plan))
    for each in (one for one in glued if one.lasts or panels & set(one.adds)):
        # What is cut to fit what is glued already does not exist before; nor does what comes to that.
        fits = (
            frozenset(fit[part] for part in each.adds if part in fit)
            if len(each.adds) < len(each.parts)
            else frozenset()
        )
        known = stages.setdefault(each.where, [frozenset()])
        if fits and fits not in known:
            known.append(fits)
        number = known.index(fits) if fits else len(known) - 1
        own = [part for part in each.adds if each.unit or part not in units]
        own = own if each.lasts else [part for part in own if part in panels]
        if own:
            sets.setdefault((each.where, number), {}).update(dict.fromkeys(own))
    # Equal ones, such as drawers whose joints were cut together, are cleaned together.
    together: dict[tuple[str | int, ...], list[tuple[str, int]]] = {}
    for which, some in sets.items():
        whole = frozenset(some)
        joints = sorted({task for part in some for task in made.joints.done_with(part, whole)})
        together.setdefault(tuple(joints) or which, []).append(which)
    for alike in together.values():
        parts = tuple(part for which in alike for part in sets[which])
        number = alike[0][1]
        name = "+".join(where.replace(" ", "_") or "piece" for where, _ in alike)
        task = Task(
            f"smooth/{name}{'/later' * bool(number)}{number if number > 1 else ''}",
            PlaneInside(parts),
            Trade.SMOOTH,
            parts,
            tuple(dict.fromkeys(made.ready(parts))),
            (("smooth", _area(plan, parts) / 2), ("set up", 1.0)),
            removes=tuple((part, "all") for part in parts),
        )
        found |= dict.fromkeys(alike, task)
    return found


def _level_task(plan: Plan, seat: Seat, after: tuple[str, ...]) -> Task:
    """Return the planing of parts level with each other, before what they carry goes on."""
    parts = [part for each in seat.carried_by if (part := plan.part(each)) is not None]
    # Only edges and ends: a metre of them is a good deal less than a face.
    work = (("true", sum(float(part.length) for part in parts) / 1000), ("set up", 1.0))
    what = PlaneLevel(seat.carried_by, seat.part)
    return Task(seat.task_id, what, Trade.CLEAN, seat.carried_by, after, work, on_assembly=True)


def _clean_unit(plan: Plan, made: Gluing, after: str) -> Task:
    """Return the cleaning of what was made up by itself, square and flush, before it goes in."""
    work = (("smooth", _area(plan, made.parts) / 2),)
    name = clean_unit_id(made.unit)
    planed = _planed_flush(plan, made.parts)
    return Task(
        name, CleanUnit(made.unit), Trade.CLEAN, made.parts, (after,), work, operations=planed, on_assembly=True
    )


def _planed_flush(plan: Plan, parts: tuple[str, ...]) -> tuple[Operation, ...]:
    frames = frames_of(plan.assembly)
    return tuple(each for part in plan.parts if part.id in parts for each in flush(frames[part.id]))


def _clean_tasks(plan: Plan, last: dict[str, str]) -> list[Task]:
    """Clean up each group when it is together; what moves is fitted to its opening then."""
    found = []
    made_up = {part for unit in plan.assembly.units for part in unit.parts}
    main = "clean/piece" if "" in last else ""
    for group, put_together in last.items():
        parts = tuple(part.id for part in plan.parts if part.group == group)
        mover = next((each for each in plan.assembly.movers if each.group == group), None)
        what: TaskFact = CleanPiece("" if mover is None else mover.name)
        after = [put_together]
        if mover is not None and main and group:
            # What lies on top has no opening.
            what = FitMover(mover.name, on_top=mover.way is Side.TOP)
            after.append(main)
        name = f"clean/{group or 'piece'}"
        work = (("smooth", _area(plan, parts) / 2), ("fit", 1.0))
        planed = _planed_flush(plan, tuple(part for part in parts if part not in made_up))
        found.append(Task(name, what, Trade.CLEAN, parts, tuple(after), work, operations=planed, on_assembly=True))
    return found


def finish_tasks(plan: Plan, tasks: tuple[Task, ...]) -> tuple[Task, ...]:
    """Put the finish on when all else is done: a coat, a wait, a coat."""
    coats, hours, _ = FINISHES.get(plan.project.finish, FINISHES[NO_FINISH])
    after = _last_of(tasks)
    parts = tuple(part.id for part in plan.parts)
    work = (("coat", _area(plan, parts)), ("set up", 1.0))
    found = []
    for coat in range(1, coats + 1):
        what = PutOnCoat(plan.project.finish, coat, coats)
        found.append(Task(f"finish/{coat}", what, Trade.FINISH, parts, after, work, hours, whole=True))
        after = (found[-1].id,)
    return tuple(found)


def _area(plan: Plan, ids: tuple[str, ...]) -> float:
    """Return the area of the faces of some parts, dm²."""
    return sum(_area_of(part) for each in ids if (part := plan.part(each)) is not None)


@kept_by_identity(2048)
def _area_of(part: Part) -> float:
    return 2 * float(part.length) * float(part.width) / 10_000
