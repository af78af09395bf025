"""Tasks of the joints: the steps of every kind, equal ones together, each after the parts it needs."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from itertools import permutations
from types import MappingProxyType

from nullah.core.bench.task_facts import JointDone, MakeJoint, TaskFact, TryOn
from nullah.core.bench.tasks import Join, Joining, JointStep, LayoutLine, Task
from nullah.core.bench.trades import Trade
from nullah.core.card import JointStage, Moment, Step, Trying
from nullah.core.identity import kept_by_identity
from nullah.core.joints.cutouts import Cutout, sizes_of, taken
from nullah.core.joints.kinds import JointGroup
from nullah.core.joints.types import holes_of
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.fastening import SetOutRow
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ByMeasure
from nullah.core.operations.stock import Surface
from nullah.core.operations.taking import CutToSize
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.plan import Plan
from nullah.core.work.bench_work import bored_in_place, fitted
from nullah.core.work.joint_names import again, step_fact
from nullah.core.work.joint_work import JointWork, at_bench, joint_work, kinds_by_host
from nullah.core.work.meetings import enters_another
from nullah.core.work.stock_tasks import MillTasks, hardness_of, hosts_of

#: So much of what runs along the grain is left to be levelled after plough and saw (a guess).
_LEVELLED = 0.15


class _Made(NamedTuple):
    """A task of a joint: how far it brings it, between which parts, and which of them are cut to fit the others."""

    task: Task
    stage: JointStage
    joints: tuple[Joint, ...]
    fitted: frozenset[str]
    hosted: bool
    mates: frozenset[str]

    @property
    def at_fitted(self) -> bool:
        """Whether it is done to nothing but what is cut to fit: a tongue, a notch."""
        return bool(self.task.operations) and set(self.task.parts) <= self.fitted


class _AtPart(NamedTuple):
    """A task at which a part is worked or tried, what its joints join it to, and whether it waits for that to fit."""

    task: Task
    joint: str
    mates: frozenset[str]
    waits: bool


@kept_by_identity(4)
def _by_part(made: tuple[_Made, ...]) -> Mapping[str, tuple[_AtPart, ...]]:
    """Return the tasks at which each part is worked or tried, in their order."""
    found: dict[str, list[_AtPart]] = {}
    for each in made:
        mates: dict[str, set[str]] = {part: set() for part in (*sorted(each.mates), *each.task.parts)}
        for joint in each.joints:
            mates[joint.first].add(joint.second)
            mates[joint.second].add(joint.first)
        for part, others in mates.items():
            waits = each.stage is JointStage.TRIED and bool(each.fitted & others)
            found.setdefault(part, []).append(_AtPart(each.task, each.joints[0].id, frozenset(others), waits))
    return MappingProxyType({part: tuple(tasks) for part, tasks in found.items()})


class JointTasks(NamedTuple):
    """The tasks of all joints, and what is cut when they are glued."""

    made: tuple[_Made, ...]
    late: tuple[Task, ...] = ()

    @property
    def tasks(self) -> tuple[Task, ...]:
        """The tasks themselves."""
        return tuple(each.task for each in self.made)

    def cut_in(self, part: str) -> list[str]:
        """Return the last task of each joint that cuts a part."""
        last: dict[str, str] = {}
        for each in self.made:
            if each.stage is not JointStage.TRIED and part in each.task.parts:
                last[each.joints[0].id] = each.task.id
        return list(last.values())

    def dry(self, hosts: frozenset[str]) -> list[str]:
        """Return the tasks before some parts can be put together dry.

        These are the joints among them, and what is cut into them for what is measured on them.
        """
        found: dict[str, str] = {}
        for each in self.made:
            among = any({joint.first, joint.second} <= hosts for joint in each.joints)
            into = (
                any(joint.first in hosts for joint in each.joints)
                and each.hosted
                and each.stage is not JointStage.TRIED
                and not each.at_fitted
            )
            if among or into:
                found[each.joints[0].id] = each.task.id
        return list(found.values())

    def done_with(self, part: str, parts: frozenset[str]) -> list[str]:
        """Return the last tasks of a part's joints with some parts, and of those with others as far as it is worked.

        What is cut to fit this later is tried when that is cut.
        """
        found: dict[tuple[str, bool], str] = {}
        for task, joint, mates, waits in _by_part(self.made).get(part, ()):
            inside = not mates.isdisjoint(parts)
            if inside or (part in task.parts and not waits):
                found[joint, inside] = task.id
        return list(found.values())

    def after_fit(self, fit: dict[str, str]) -> JointTasks:
        """Return them with what is cut to fit in its place: laid out, or only tried, when that is cut."""
        found = []
        for each in self.made:
            step = each.task.subject
            first = isinstance(step, JointStep) and step.number == 0
            # A host is cut when it fits itself, whatever fits into it later.
            tried = each.stage is JointStage.TRIED or not each.hosted
            wants = [fit[part] for part in sorted(each.fitted) if part in fit and (tried or part in each.task.parts)]
            late = each.stage is JointStage.TRIED or each.at_fitted
            if wants and each.stage is JointStage.TRIED:
                # It goes in as a whole: notched at its other end, too.
                wants += [
                    other.task.id for other in self.made if other.at_fitted and each.fitted & set(other.task.parts)
                ]
            if wants and (late if each.hosted else first):
                each = each._replace(task=each.task._replace(after=tuple(dict.fromkeys((*each.task.after, *wants)))))
            found.append(each)
        return JointTasks(tuple(found), self.late)

    def after_measuring(self, measure: Iterable[Task]) -> JointTasks:
        """Return them with what is set to something measured coming after that."""
        by_name = {name: task.id for task in measure for name in task.measures}
        found = []
        for each in self.made:
            wants = (by_name[name] for name in each.task.fits if name in by_name)
            after = tuple(dict.fromkeys((*each.task.after, *wants)))
            found.append(each._replace(task=each.task._replace(after=after)))
        return JointTasks(tuple(found), self.late)


def joint_tasks(
    plan: Plan,
    mill: MillTasks,
    waits: Mapping[str, tuple[str, ...]],
    closed: frozenset[str] = frozenset(),
    to_level: Collection[str] = (),
    glued: Mapping[str, frozenset[str]] = MappingProxyType({}),
) -> JointTasks:
    """Return the steps of every kind of joint as tasks, after their parts are milled.

    Parameters
    ----------
    plan : Plan
    mill : MillTasks
    waits : mapping of part id to tuple of str
        The quantities that parts are cut to.
    closed : frozenset of str
        The joints that close as parts are put together: what is done then is part of that.
    to_level : collection of str
        The parts that are cut to others when these are level.
    glued : mapping of part id to frozenset of str
        What is glued together already when a part is cut to it.
    """
    waits = {**waits, **dict.fromkeys(to_level, ())}
    found: list[_Made] = []
    late: list[Task] = []
    told: dict[Operation, str] = {}
    added = {part.id for part in plan.parts if part.own}
    for kind, work, beside in _works(plan, waits):
        mates = {part for joint in kind.all for part in (joint.first, joint.second)}
        to_fit = frozenset(part for part in mates if part in waits)
        hosted = bool(to_fit) and any(
            other in hosts_of(plan, part)
            for joint in kind.all
            for part, other in ((joint.first, joint.second), (joint.second, joint.first))
            if part in waits
        )
        hosted |= any(joint.type.enters and joint.second in to_level for joint in kind.all)
        # A board that was added is worked before what is cut to fit, though it makes no opening.
        hosted |= bool(to_fit) and not added.isdisjoint(mates - to_fit)
        before = tuple(dict.fromkeys(mill.by_part[part] for part in sorted(mates)))
        later = _cut_later(plan, work, waits)
        behind: tuple[str, ...] = ()
        told_already: set[TaskFact] = set()
        for number, step in enumerate(work.steps, start=1):
            works = (work, *(each for each in beside if _at_one_go(step, each.steps, number)))
            every = (made for each in works for made in each.steps[number - 1].operations)
            step = step._replace(operations=tuple(dict.fromkeys(every)))
            if step.moment is Moment.PUT_TOGETHER:
                step = step._replace(operations=bored_in_place(plan, (j for j in kind.all if j.id not in closed)))
                if not step.operations:
                    continue
            if kind.joint.type.touches and step.stage is JointStage.TRIED:
                continue  # to nail or screw it is to put it together
            fresh = tuple(each for each in step.operations if each not in told)
            # Several parts enter one channel: it is cut once, and before any of them is tried in it.
            before = tuple(dict.fromkeys((*before, *(told[each] for each in step.operations if each in told))))
            if step.operations and not fresh:
                continue
            if len(works) > 1:
                before = tuple(dict.fromkeys((*before, *(mill.by_part[each.part] for each in fresh))))
            joints = tuple(joint for each in works for joint in each.kind.all)
            at = frozenset(part for joint in joints for part in (joint.first, joint.second))
            of_fit = frozenset(part for part in at if part in waits)
            for of_later, some in _strands(fresh, later):
                after = (*before, *behind) if of_later else before
                task = _task(plan, works, number, step._replace(operations=some), after, waits if hosted else {}, glued)
                if len(some) < len(fresh):
                    share = len(some) / len(fresh)
                    task = task._replace(work=tuple((what, share * much) for what, much in task.work))
                    task = task._replace(id=f"{task.id}/fitted") if of_later else task
                if task.what in told_already:
                    task = task._replace(what=again(step_fact(kind, step, task.parts), step))
                told_already.add(task.what)
                told |= dict.fromkeys(some, task.id)
                behind = (task.id,) if of_later else behind
                before = before if of_later and some else (task.id,)
                if step.moment is Moment.GLUED:
                    late.append(task._replace(on_assembly=True))
                else:
                    found.append(_Made(task, step.stage, joints, of_fit, hosted, at))
    return JointTasks(tuple(_tried_at_once(found)), tuple(late))


def _cut_later(plan: Plan, work: JointWork, waits: Mapping[str, tuple[str, ...]]) -> frozenset[str]:
    """Return the parts on which a row is set out from an end that is cut to fit only later, and bored, not with others.

    A case is glued when its back is cut to it, so its bottom is bored before, and the ends of the back after.
    """
    operations = [made for step in work.steps for made in step.operations]
    missing = {
        (made.part, made.setting.origin.opposite)
        for each in dict.fromkeys(made.part for made in operations if made.part in waits)
        if (part := plan.part(each)) is not None
        for made in fitted(plan, part)
        if isinstance(made, CutToSize) and isinstance(made.setting.origin, Surface)
    }
    rows = [made for made in operations if isinstance(made, SetOutRow)]
    set_out = {row.part for row in rows for setting in row.settings if (row.part, setting.origin) in missing}
    mixed = any(0 < sum(made.part in set_out for made in step.operations) < len(step.operations) for step in work.steps)
    return frozenset(set_out) if mixed else frozenset()


def _strands(operations: tuple[Operation, ...], later: frozenset[str]) -> Iterator[tuple[bool, tuple[Operation, ...]]]:
    """Yield operations that are done at one go, those of parts that are worked later by themselves, and whether so."""
    if not later or not operations:
        yield bool(later), operations
        return
    for of_later in (False, True):
        some = tuple(made for made in operations if (made.part in later) is of_later)
        if some:
            yield of_later, some


def _tried_at_once(made: Sequence[_Made]) -> Iterator[_Made]:
    """Yield tasks, with one part tried at once on all that stands together already."""
    tried: dict[tuple[str, ...], list[_Made]] = {}
    for each in made:
        if isinstance(each.task.what, MakeJoint) and each.task.what.done is JointDone.TRIED_ON:
            tried.setdefault(each.task.parts, []).append(each)
    last = {parts: some[-1] for parts, some in tried.items() if len(some) > 1}
    once = {each.task.id for parts in last for each in tried[parts][:-1]}
    for each in made:
        if each.task.id in once:
            continue
        if each is not last.get(each.task.parts):
            yield each
            continue
        some = tried[each.task.parts]
        others = dict.fromkeys(part for one in some for join in one.task.joins for part in join.parts)
        task = each.task._replace(
            what=TryOn(each.task.parts, tuple(part for part in others if part not in each.task.parts)),
            after=tuple(dict.fromkeys(name for one in some for name in one.task.after)),
            work=tuple(amount for one in some for amount in one.task.work),
            joins=tuple(join for one in some for join in one.task.joins),
        )
        yield each._replace(
            task=task,
            joints=tuple(joint for one in some for joint in one.joints),
            fitted=frozenset().union(*(one.fitted for one in some)),
            mates=frozenset().union(*(one.mates for one in some)),
        )


def _works(
    plan: Plan, waits: Mapping[str, tuple[str, ...]]
) -> Iterator[tuple[JointGroup, JointWork, tuple[JointWork, ...]]]:
    """Yield every kind of joint with its work, and with that of kinds whose hosts can be cut into with its."""
    group_of = {part.id: part.group for part in plan.parts}
    works = [[work for kind in kinds if (work := joint_work(plan, kind)).steps] for kinds in kinds_by_host(plan)]
    ready: dict[tuple[object, ...], list[tuple[int, JointWork]]] = {}
    for number, alike in enumerate(works):
        for work in alike:
            hosts = [joint.first for joint in work.kind.all]
            when = frozenset(waits.get(host, ()) for host in hosts), frozenset(map(group_of.get, hosts))
            ready.setdefault((work.kind.name, *when), []).append((number, work))
    after = {
        id(work): (number, some[place + 1 :]) for some in ready.values() for place, (number, work) in enumerate(some)
    }
    for work in (work for alike in works for work in alike):
        own, later = after[id(work)]
        yield work.kind, work, tuple(each for number, each in later if number == own or _set_alike(work, each))


def _set_alike(one: JointWork, other: JointWork) -> bool:
    """Return whether all that is gauged and cut into the hosts of joints is set alike, in the same steps."""
    return _of_hosts(one) == _of_hosts(other)


def _of_hosts(work: JointWork) -> tuple[object, ...]:
    steps = (step for step in work.steps if step.at == "first" and step.stage is not JointStage.TRIED)
    return tuple(frozenset(map(_setting_up, step.operations)) for step in steps)


def _setting_up(made: Operation) -> tuple[object, ...]:
    """Return what is set and taken up for an operation, whatever part it is done to."""
    settings = tuple((each.name, each.value, each.by) for each in made.settings)
    return type(made), getattr(made, "cut", None), settings


def _at_one_go(step: Step, steps: Sequence[Step], number: int) -> bool:
    """Return whether a step at the hosts is that of other joints, too: the gauge is set, whatever enters later.

    What needs lines that are drawn at both mates comes when these are.
    """
    if step.stage is JointStage.TRIED or any(each.at != "first" for each in (step, *steps[:number])):
        return False
    if number > len(steps):
        return False
    other = steps[number - 1]
    return (other.stage, other.at, other.moment) == (step.stage, step.at, step.moment)


def _task(
    plan: Plan,
    works: tuple[JointWork, ...],
    number: int,
    step: Step,
    before: tuple[str, ...],
    waits: Mapping[str, tuple[str, ...]],
    glued: Mapping[str, frozenset[str]],
) -> Task:
    kind = works[0].kind
    ids = {"first": [joint.first for joint in kind.all], "second": [joint.second for joint in kind.all]}
    parts = tuple(dict.fromkeys(ids.get(step.at, [*ids["first"], *ids["second"]])))
    if step.operations:
        parts = tuple(dict.fromkeys(each.part for each in step.operations))
    if step.stage is JointStage.TRIED and any(part in waits for part in parts):
        # What is tried when its mate is cut to fit may already be glued to something: only the mate is worked. So may
        # be a host that was fitted earlier, to something else.
        late = {waits[part] for part in ids["second"] if part in waits}
        fitted = tuple(part for part in parts if part in waits and (not late or waits[part] in late))
        parts = tuple(part for part in fitted if enters_another(plan.assembly, part)) or fitted
    elif step.stage is JointStage.TRIED:
        pairs = [pair for joint in kind.all for pair in permutations((joint.first, joint.second))]
        together = {part for part, mate in pairs if part in glued.get(mate, ())}
        parts = tuple(part for part in parts if part not in together)

    def lines(names: tuple[str, ...]) -> tuple[LayoutLine, ...]:
        return tuple(LayoutLine(part, f"{name} of the {kind.name}") for part in parts for name in names)

    if step.operations:
        draws, uses = _lines_of(*step.operations)
    else:
        draws, uses = lines(step.draws), lines(step.uses)
    return Task(
        f"joint/{kind.id}/{number}",
        step_fact(kind, step, parts),
        Trade.JOINT,
        parts,
        before,
        tuple(amount for work in works for amount in _amounts(plan, work, step)),
        draws=draws,
        uses=uses,
        subject=JointStep(kind.id, number - 1),
        operations=step.operations,
        joins=_tried(step, kind),
        fits=_measured(step.operations),
    )


def _measured(operations: tuple[Operation, ...]) -> tuple[str, ...]:
    """Return the quantities that operations are set to as they were measured."""
    by = (setting.by for each in operations for setting in each.settings)
    return tuple(dict.fromkeys(each.quantity for each in by if isinstance(each, ByMeasure)))


@kept_by_identity(2048)
def _lines_of(*operations: Operation) -> tuple[tuple[LayoutLine, ...], tuple[LayoutLine, ...]]:
    """Return the lines that some operations draw, and those that they work to, drawn before."""
    draws = tuple(LayoutLine(each.part, line.name) for each in operations for line in each.draws)
    needs = dict.fromkeys(LayoutLine(each.part, line.name) for each in operations for line in each.needs)
    own = set(draws)
    return draws, tuple(line for line in needs if line not in own)


def _tried(step: Step, kind: JointGroup) -> tuple[Join, ...]:
    """Return what is tried together, each pair by itself."""
    if not isinstance(step.text, Trying):
        return ()
    how = Joining.STARTED if step.text is Trying.STARTED else Joining.DRY
    return tuple(Join((joint.first, joint.second), how) for joint in kind.all)


def _amounts(plan: Plan, work: JointWork, step: Step) -> list[tuple[str, float]]:
    """Return how much of what a step is, for all equal joints together."""
    kind, number = work.kind, float(len(work.kind.all))
    tails = work.corner.layout.spec.tails if work.corner is not None else 0
    along = (
        kind.joint.type.captures
        and bool(kind.first.cutouts)
        and (kind.first.cutouts[0].size(0) > kind.first.cutouts[0].size(1))
    )
    lines = 2.0 * tails + 2 if tails else 4.0
    match step.stage:
        case JointStage.BLANK:
            return [("true", number)]
        case JointStage.GAUGED:
            return [("lay out", 2.0 * number)]
        case JointStage.MARKED:
            return [("lay out", lines * number)]
        case JointStage.HATCHED:
            return [("lay out", lines / 2 * number)]
        case JointStage.SAWN if along:
            return [("plough", sum(cut.long for cut in _all_taken(plan, kind)) / 1000)]
        case JointStage.SAWN:
            return [("kerf", lines * number)]
        case JointStage.CUT:
            return [("chop", _waste(plan, work, step)), ("corner", lines * number)]
    if kind.joint.type.touches:
        places = holes_of(at_bench(plan, kind))[1]
        return [("bore", len(places) * number)] if places else [("glue", number)]
    return [("fit", number)]


class _Taken(NamedTuple):
    """What is taken out of a part: how long and how wide, mm, and how much, cm³."""

    part: str
    long: float
    wide: float
    volume: float


def _all_taken(plan: Plan, kind: JointGroup) -> tuple[_Taken, ...]:
    """Return all that joints of a kind take out, each once: of several that enter one channel it is the same."""
    mates = (plan.part(each) for joint in kind.all for each in (joint.first, joint.second))
    return _taken_by(kind, *(part for part in mates if part is not None))


@kept_by_identity(256)
def _taken_by(kind: JointGroup, *mates: Part) -> tuple[_Taken, ...]:
    parts = {part.id: part for part in mates}
    found: dict[tuple[str, Cutout], None] = {}
    for joint in kind.all:
        if joint.first in parts and joint.second in parts:
            for part, cuts in zip(
                (joint.first, joint.second), taken(joint, parts[joint.first], parts[joint.second]), strict=True
            ):
                found |= {(part, cut): None for cut in cuts}
    sizes = ((part, [float(cut.size(way)) for way in range(3)]) for part, cut in found)
    return tuple(_Taken(part, long, wide, long * wide * deep / 1000) for part, (long, wide, deep) in sizes)


def _waste(plan: Plan, work: JointWork, step: Step) -> float:
    """Return what is chopped out of all equal joints of a kind in a step, cm³, weighed by how hard the wood is."""
    hard = hardness_of(plan, work.kind.first.part)
    if work.corner is not None:
        layout = work.corner.layout
        spec = layout.spec
        whole = float(spec.width) * float(spec.tail_thickness) * float(spec.pin_thickness)
        # Tails take up so much of the corner; what is between them goes from the one board, they from the other.
        share = sum(float(high - low) for pair in (layout.tails, layout.bases) for low, high in pair) / (
            2 * float(spec.width)
        )
        gone = 1 - share if step.at == "first" else share
        return whole * gone / 1000 * len(work.kind.all) * hard
    sizes = sizes_of(work.kind.first.part)
    volume = 0.0
    firsts = work.mates_of("first")
    for cut in _all_taken(plan, work.kind):
        if step.at in ("both", "first" if cut.part in firsts else "second"):
            along = cut.long > cut.wide and cut.long * 2 > sizes.along
            # What runs along the grain was ploughed or sawn out; only its floor is left to level.
            volume += cut.volume * (_LEVELLED if along else 1.0)
    return volume * hard
