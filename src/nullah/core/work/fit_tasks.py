"""Tasks of what fits: measuring openings once what makes them is together, and cutting to what was measured."""

from __future__ import annotations

from collections.abc import Mapping
from enum import Enum, auto

from nullah.core.bench.task_facts import CutToMeasure, MeasureSizes
from nullah.core.bench.tasks import Join, Joining, Task
from nullah.core.bench.trades import Trade
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.joint import Hold
from nullah.core.piece.part import Part
from nullah.core.plan import Plan
from nullah.core.refs import PartRef
from nullah.core.work.bench_work import fitted
from nullah.core.work.gluing import Gluing, clean_unit_id, cornered, standing_with
from nullah.core.work.joint_tasks import JointTasks
from nullah.core.work.stock_tasks import MillTasks, hosts_of


class FitTasks(NamedTuple):
    """The cutting of what fits, and which task cuts which part."""

    tasks: tuple[Task, ...]
    by_part: dict[str, str]


class _How(Enum):
    """How something is measured, in the order in which it can be."""

    OUTSIDE = auto()
    ON_ONE = auto()
    DRY = auto()
    GLUED = auto()


class _Where(NamedTuple):
    """Where something is measured: how, and between which parts."""

    how: _How
    hosts: frozenset[str]


def measure_tasks(
    plan: Plan,
    waits: Mapping[str, tuple[str, ...]],
    after: frozenset[str],
    mill: MillTasks,
    joints: JointTasks,
    glued: tuple[Gluing, ...],
) -> tuple[Task, ...]:
    """Return the measuring of openings: before the piece is begun, on one board, put together dry, or when glued."""
    if plan.ledger is None:
        return ()
    by_name: dict[str, _Where] = {}
    group_of = {part.id: part.group for part in plan.parts}
    for part_id, names in sorted(waits.items(), key=lambda item: bool(group_of[item[0]])):
        for name in names:
            where = _where(plan, part_id, name, waits, after, glued)
            # What moves as one goes into what stands then: what that is cut to is measured already.
            if not group_of[part_id] or name not in by_name:
                by_name[name] = _earlier(by_name.get(name, where), where)
    wanted: dict[_Where, list[str]] = {}
    for name, where in by_name.items():
        wanted.setdefault(where, []).append(name)
    in_order = sorted(wanted.items(), key=lambda item: (item[0].how.value, len(item[0].hosts)))
    return tuple(_measuring(plan, where, tuple(every), waits, mill, joints, glued) for where, every in in_order)


def _earlier(one: _Where, other: _Where) -> _Where:
    """Return where something is measured that several parts wait for: the earlier, or on all of it when it is glued."""
    if one.how is other.how is _How.GLUED:
        return _Where(_How.GLUED, one.hosts | other.hosts)
    return min(one, other, key=lambda where: (where.how.value, len(where.hosts)))


def _where(
    plan: Plan,
    part_id: str,
    name: str,
    waits: Mapping[str, tuple[str, ...]],
    after: frozenset[str],
    glued: tuple[Gluing, ...],
) -> _Where:
    """Return where a quantity is measured that a part waits for."""
    assert plan.ledger is not None
    if not plan.ledger.quantity(name).definition.rule:
        return _Where(_How.OUTSIDE, frozenset())
    hosts = hosts_of(plan, part_id)
    if goes_in_later(plan, part_id, after, glued) and any(each.glues and set(each.parts) & hosts for each in glued):
        return _Where(_How.GLUED, hosts)
    part = plan.part(part_id)
    if part is not None and cornered(plan, hosts):
        # Dovetails do not stand before they are glued: between the baselines of one board it is the same.
        lengthwise = name in _fits(plan, part.quantities[0]) and _named_for(plan, part.quantities[0], name)
        axis = part.grain if lengthwise else part.across
        one = next((other.id for other in plan.parts if other.id in hosts and other.grain is axis), "")
        if one:
            return _Where(_How.ON_ONE, frozenset((one,)))
    return _Where(_How.DRY, standing_with(plan, hosts, waits))


def _fits(plan: Plan, quantity: str) -> tuple[str, ...]:
    found = plan.ledger.quantities.get(quantity) if plan.ledger is not None else None
    return found.fits if found is not None else ()


def _named_for(plan: Plan, quantity: str, name: str) -> bool:
    return plan.ledger is not None and name in plan.ledger.leads_to(quantity)


def _measuring(
    plan: Plan,
    where: _Where,
    names: tuple[str, ...],
    waits: Mapping[str, tuple[str, ...]],
    mill: MillTasks,
    joints: JointTasks,
    glued: tuple[Gluing, ...],
) -> Task:
    hosts = where.hosts
    after = [mill.by_part[each] for each in sorted(hosts) if each in mill.by_part]
    hosting = tuple(part.id for part in plan.parts if part.id in hosts)
    what, between = MeasureSizes(names), tuple(sorted(hosts))
    joins: tuple[Join, ...] = ()
    match where.how:
        case _How.OUTSIDE:
            # Nothing of the piece need be there: it is measured for the first part that goes in.
            between = tuple(part for part, wanted in waits.items() if set(wanted) & set(names))[:1]
        case _How.ON_ONE:
            what = MeasureSizes(names, hosting)
            after += [task for each in sorted(hosts) for task in joints.cut_in(each)]
        case _How.DRY:
            what = MeasureSizes(names, hosting, dry=True)
            after += joints.dry(hosts)
            joins = (Join(between, Joining.DRY),)
        case _How.GLUED:
            waiting = {part for part, wanted in waits.items() if set(wanted) & set(names)}
            standing = [
                each
                for each in glued
                if set(each.parts) & hosts
                and each.glues
                and not set(each.parts) & waiting
                # What moves is no part of the opening that another goes into.
                and (not each.mover or hosts <= set(each.parts))
            ]
            after += [each.id for each in standing]
            # It is measured as it goes in: cleaned, where it was made up by itself.
            after += [clean_unit_id(each.unit) for each in standing if each.unit]
            # What is only screwed on later, such as a top, need not be there. What is joined to one part alone, as a
            # runner is to an apron, fits between those that this was glued to.
            bounds = hosts & {part for each in standing for part in each.parts}
            for one in (own for part in waiting if len(own := hosts_of(plan, part) & bounds) == 1):
                bounds |= next(frozenset(each.parts) for each in standing if one <= set(each.parts))
            added = {part.id for part in plan.parts if part.own}
            between = tuple(sorted(bounds - added)) or between
    return Task(
        f"measure/{'+'.join(names)}",
        what,
        Trade.MEASURE,
        tuple(sorted(hosts)),
        tuple(dict.fromkeys(after)),
        (("measure", float(len(names))), ("set up", 2.0 if where.how is _How.DRY else 0.0)),
        measures=names,
        joins=joins,
        between=between,
    )


def goes_in_later(plan: Plan, part_id: str, after: frozenset[str], glued: tuple[Gluing, ...]) -> bool:
    """Return whether a part goes in when what holds it is glued already: a back, a drawer, a divider from behind."""
    if part_id in after:
        return True
    part = plan.part(part_id)
    if part is not None and any(mover.group == part.group for mover in plan.assembly.movers):
        return True
    own = next((each for each in glued if part_id in each.adds), None)
    if own is None or not own.glues:
        return own is not None
    # What is only glued on, as a runner to an apron, can wait until that stands.
    meets = [joint for joint in plan.assembly.joints if part_id in (joint.first, joint.second)]
    mates = {mate for joint in meets if joint.hold is Hold.GLUE for mate in (joint.first, joint.second)} - {part_id}
    before = glued[: glued.index(own)]
    laid_on = all(joint.type.touches for joint in meets)
    made_up = {each for unit in plan.assembly.units for each in unit.parts}
    # So can what alone goes to what was made up by itself, as a base under walls; but tails are marked on what they
    # enter, and sawn there, before that is glued.
    tailed = any(joint.type.corner_prefix(joint) for joint in meets)
    alone = [each for each in own.adds if each not in made_up] == [part_id] and not own.unit and not tailed
    return (laid_on or alone) and all(any(mate in each.parts and each.glues for each in before) for mate in mates)


def glued_before(
    plan: Plan, waits: Mapping[str, tuple[str, ...]], after: frozenset[str], glued: tuple[Gluing, ...]
) -> dict[str, frozenset[str]]:
    """Return what is glued together already when a part is cut to it, of those that go in later."""
    # What is made up by itself is whole before it is cut to what it goes into.
    ahead = [each for each in glued if each.glues and not each.unit]
    return {
        part: frozenset(other for each in ahead if part not in each.parts for other in each.parts)
        for part in waits
        if goes_in_later(plan, part, after, glued)
    }


def fit_tasks(plan: Plan, waits: Mapping[str, tuple[str, ...]], mill: MillTasks, measure: tuple[Task, ...]) -> FitTasks:
    """Cut what fits to what was measured: equal parts together, and all of what moves as one, such as a drawer."""
    by_name = {name: task.id for task in measure for name in task.measures}
    movers = {mover.group: mover.name for mover in plan.assembly.movers}
    group_of = {part.id: part.group for part in plan.parts}
    groups: dict[tuple[str, tuple[str, ...]], list[Part]] = {}
    for part in plan.parts:
        if part.id in waits:
            # What goes into what moves, as a bottom into its drawer, is cut when that stands.
            inside = {group_of[each] for each in hosts_of(plan, part.id)} == {part.group}
            key = (part.group, ()) if part.group in movers and not inside else (part.alike, waits[part.id])
            groups.setdefault(key, []).append(part)
    tasks: list[Task] = []
    by_part: dict[str, str] = {}
    for (which, _), parts in groups.items():
        ids = tuple(part.id for part in parts)
        names = tuple(dict.fromkeys(name for part in ids for name in waits[part]))
        after = [*(mill.by_part[part] for part in ids), *(by_name[name] for name in names if name in by_name)]
        task = Task(
            f"fit/{which}",
            CutToMeasure(ids, movers.get(which, "")),
            Trade.FIT,
            ids,
            tuple(dict.fromkeys(after)),
            (("end", 2.0 * len(parts)), ("true", 0.5 * len(parts))),
            fits=names,
            subject=PartRef(ids[0]),
            operations=tuple(each for part in parts for each in fitted(plan, part)),
        )
        tasks.append(task)
        by_part |= dict.fromkeys(ids, task.id)
    return FitTasks(tuple(tasks), by_part)
