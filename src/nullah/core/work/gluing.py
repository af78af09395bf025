"""Glue-ups sized to the open time of the glue and the number of hands, clamps counted; and what goes in dry."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from nullah.core.bench.task_facts import BoreInPlace, GlueUp, PutIn
from nullah.core.bench.tasks import Join, Joining, Task
from nullah.core.bench.trades import Trade
from nullah.core.bench.working import GLUES
from nullah.core.identity import kept_by_identity
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.fastening import Bore
from nullah.core.operations.operation import Operation
from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Hold, Joint
from nullah.core.plan import Plan
from nullah.core.work.assembling import Placing, sequence
from nullah.core.work.bench_work import bored_in_place
from nullah.core.work.clamping import clamps_for, glued_area, spread_minutes, spreading
from nullah.core.work.meetings import meetings_of
from nullah.core.work.stock_tasks import hosts_of, waits_of

_HOW = {
    Hold.GLUE: Joining.GLUE,
    Hold.NAILS: Joining.NAILS,
    Hold.SCREWS: Joining.SCREWS,
    Hold.SLOTS: Joining.SCREWS,
    Hold.DRY: Joining.LOOSE,
}


#: What lets parts move.
_LOOSE = frozenset({Hold.DRY, Hold.SLOTS})
#: What holds nothing for good.
_NOT_FAST = frozenset({Joining.LOOSE, Joining.DRY})


class Gluing(NamedTuple):
    """Some placings done at one go.

    Parameters
    ----------
    id : str
    group : str
        Of the parts: what moves as one, or the main piece (empty).
    unit : str
        The name of what is made up by itself in it before it goes in; empty for the group itself.
    mover : bool
        Whether that group goes in and out of the piece.
    adds : tuple of str
        Parts that come to what is there.
    parts : tuple of str
        All that is together after it.
    joints : tuple of Joint
        That close in it.
    minutes : float
        How long glue is spread and drawn up, shared among the hands.
    open_minutes : float
        How long the glue stays open.
    clamps : int
    steadied_by : tuple of str
        Parts that are glued in later, and are put in dry meanwhile: they hold in shape what is glued.
    brings : tuple of str
        Parts that were joined to each other before, and go in with what is added.
    """

    id: str
    group: str
    mover: bool
    adds: tuple[str, ...]
    parts: tuple[str, ...]
    joints: tuple[Joint, ...]
    minutes: float
    open_minutes: float
    clamps: int
    unit: str = ""
    steadied_by: tuple[str, ...] = ()
    brings: tuple[str, ...] = ()

    @property
    def where(self) -> str:
        """What is put together in it: a unit, or a group."""
        return self.unit or self.group

    @property
    def glues(self) -> bool:
        """Whether anything is glued in it."""
        return any(joint.hold is Hold.GLUE for joint in self.joints)

    @property
    def lasts(self) -> bool:
        """Whether anything is glued or nailed in it; what is screwed can be taken off again."""
        return any(joint.hold in (Hold.GLUE, Hold.NAILS) for joint in self.joints)

    @property
    def too_long(self) -> bool:
        """Whether it takes longer than the glue stays open, though no less can be done at one go."""
        return self.minutes > self.open_minutes

    @property
    def joins(self) -> tuple[Join, ...]:
        """What it puts together, by what holds it; parts that no joint holds lie loose."""
        found: dict[Joining, dict[str, None]] = {}
        for joint in self.joints:
            pair = {joint.first: None, joint.second: None}
            found.setdefault(_HOW[joint.hold], {}).update(pair)
            if joint.type.pegged:
                found.setdefault(Joining.PEGS, {}).update(pair)
        held = {part for parts in found.values() for part in parts}
        loose = [part for part in self.adds if part not in held]
        if loose:
            found.setdefault(Joining.LOOSE, {}).update(dict.fromkeys(loose))
        if self.steadied_by:
            found[Joining.DRY] = dict.fromkeys((*self.parts, *self.steadied_by))
        return tuple(Join(tuple(parts), how) for how, parts in found.items())

    @property
    def fastens(self) -> frozenset[str]:
        """The parts it joins for good."""
        return frozenset(part for join in self.joins if join.how not in _NOT_FAST for part in join.parts)

    def tasks(self, plan: Plan, after: tuple[str, ...], fast: frozenset[str]) -> tuple[Task, ...]:
        """Return it as a task, and before it the boring that must be apart from it.

        Parameters
        ----------
        plan : Plan
        after : tuple of str
            What must be done before.
        fast : frozenset of str
            The parts that are joined to others already.
        """
        bored = bored_in_place(plan, self.joints)
        there = tuple(each for each in bored if each.part in fast)
        loose = tuple(each for each in bored if each.part not in fast)
        ahead = [(loose, False), (there, True)] if self.glues else [(loose, False)] if there else []
        found: list[Task] = []
        for operations, assembled in ahead:
            if operations:
                name = f"{self.id}/bore{'/there' if assembled else ''}"
                found.append(_boring(name, self.adds, operations, after)._replace(on_assembly=assembled))
        after = (*after, *(task.id for task in found))
        put = self._task(plan, after)
        if self.glues:
            return (*found, put)
        put = put._replace(operations=there or loose, on_assembly=bool(there), work=(*put.work, _holes(there or loose)))
        return (*found, put)

    def _names(self, plan: Plan) -> tuple[str, ...]:
        """Return what is added, units by their names."""
        units = [each for each in plan.assembly.units if not self.unit and set(each.parts) <= set(self.adds)]
        rest = [part for part in self.adds if not any(part in each.parts for each in units)]
        return (*(each.name for each in units), *rest)

    def _task(self, plan: Plan, after: tuple[str, ...]) -> Task:
        names = self._names(plan)
        joints = [joint for joint in self.joints if joint.hold is Hold.GLUE]
        if self.glues:
            glue = GLUES[plan.project.working.glue]
            return Task(
                self.id,
                GlueUp(names, len(joints), self.clamps, len(self.parts) > len(self.adds), self.brings),
                Trade.GLUE,
                self.parts,
                after,
                (("glue", spreading(glued_area(plan, each) for each in joints)), ("set up", 2.0)),
                glue.cure_hours,
                whole=True,
                joins=self.joins,
            )
        holds = tuple(sorted({joint.hold for joint in self.joints}, key=lambda hold: hold.value))
        return Task(
            self.id,
            PutIn(names, holds, self.brings),
            Trade.PUT_IN,
            self.adds,
            after,
            (("fit", float(max(len(self.joints), 1))),),
            joins=self.joins,
        )


def _boring(name: str, adds: tuple[str, ...], operations: tuple[Operation, ...], after: tuple[str, ...]) -> Task:
    parts = tuple(dict.fromkeys(each.part for each in operations))
    return Task(name, BoreInPlace(adds, parts), Trade.JOINT, parts, after, (_holes(operations),), operations=operations)


def _holes(operations: tuple[Operation, ...]) -> tuple[str, float]:
    return "bore", float(sum(len(each.places) for each in operations if isinstance(each, Bore)))


def go_in_after(plan: Plan, waits: Mapping[str, tuple[str, ...]]) -> frozenset[str]:
    """Return the parts that go into a dovetailed case when it is glued, and are cut to what it then is.

    Dovetails are driven home once, so nothing can be measured between boards that are only started; what can go in
    later waits for the glue.
    """
    found: set[str] = set()
    for group in dict.fromkeys(part.group for part in plan.parts):
        placed: set[str] = set()
        for placing in placings_of(plan, group):
            for part in placing.parts:
                hosts = hosts_of(plan, part) if part in waits else frozenset()
                if hosts and hosts <= placed and cornered(plan, standing_with(plan, hosts, waits) & placed):
                    found.add(part)
            placed |= set(placing.parts)
    return frozenset(found)


def placings_of(plan: Plan, group: str, unit: str = "") -> tuple[Placing, ...]:
    """Return the order in which the parts of a group go together, as designed, with the joints as they are now."""
    now = {joint.id: joint for joint in plan.assembly.joints}
    return tuple(
        placing._replace(joints=tuple(now[joint.id] for joint in placing.joints))
        for placing in sequence(plan.designed, group, unit)
    )


def standing_with(plan: Plan, hosts: frozenset[str], waits: Mapping[str, tuple[str, ...]]) -> frozenset[str]:
    """Return what stands together around an opening: its hosts, and all of their groups that waits for nothing.

    What enters a part that waits, as the runners of a frame do its rails, waits with it; but not what holds the hosts
    apart, as a shelf does the ends. What nothing holds fast to them, as a top on its buttons, need not be there, nor
    boards that were added to a form.
    """
    groups = {part.group for each in hosts if (part := plan.part(each)) is not None}
    there = [each for group in groups for each in _standing(plan.assembly, waits).get(group, ())]
    body = _bodies(plan.assembly)
    fast = {body[each] for each in hosts if each in body}
    return hosts.union(
        each.part for each in there if each.body in fast and (each.firm or len(each.entered & hosts) > 1)
    )


class _Standing(NamedTuple):
    """A part that is cut to no opening, what it enters, whether nothing of that waits, and what it is held fast to.

    `body` is the first of all parts that are held to each other.
    """

    part: str
    entered: frozenset[str]
    firm: bool
    body: str


@kept_by_identity(4)
def _standing(assembly: Assembly, waits: Mapping[str, tuple[str, ...]]) -> Mapping[str, tuple[_Standing, ...]]:
    """Return what may stand before anything is measured, by its group."""
    met, found, body = meetings_of(assembly), dict[str, list[_Standing]](), _bodies(assembly)
    for part in assembly.parts:
        if part.id not in waits and not part.own:
            entered = met[part.id].entered if part.id in met else frozenset()
            firm = entered.isdisjoint(waits)
            found.setdefault(part.group, []).append(_Standing(part.id, entered, firm, body[part.id]))
    return {group: tuple(each) for group, each in found.items()}


@kept_by_identity(4)
def _bodies(assembly: Assembly) -> Mapping[str, str]:
    """Return the first of what each part is held fast to, without boards that were added to a form."""
    body = {part.id: part.id for part in assembly.parts if not part.own}
    for joint in assembly.joints:
        if joint.hold not in _LOOSE and joint.first in body and joint.second in body:
            one, other = body[joint.first], body[joint.second]
            if one != other:
                body |= {part: one for part, each in body.items() if each == other}
    return body


def cornered(plan: Plan, parts: frozenset[str]) -> bool:
    """Return whether some parts meet in corners that do not stand before they are glued."""
    return any(
        joint.type.corner_prefix(joint) and {joint.first, joint.second} <= parts for joint in plan.assembly.joints
    )


def gluings(plan: Plan, after: frozenset[str]) -> tuple[Gluing, ...]:
    """Return the glue-ups of every group in order, the main piece first; `after` as `go_in_after` gives it."""
    movers = {mover.group for mover in plan.assembly.movers}
    groups = sorted(dict.fromkeys(part.group for part in plan.parts), key=lambda group: group in movers)
    found: list[Gluing] = []
    group_of = {part.id: part.group for part in plan.parts}
    for group in groups:
        for unit in plan.assembly.units:
            if group_of.get(unit.parts[0]) == group:
                found += _of_group(plan, group, group in movers, after, unit.name)
        found += _of_group(plan, group, group in movers, after)
    return tuple(found)


def clean_unit_id(unit: str) -> str:
    """Return the id of the task that cleans what is made up by itself."""
    return f"clean/{unit.replace(' ', '_')}"


def _of_group(plan: Plan, group: str, mover: bool, after: frozenset[str], unit: str = "") -> list[Gluing]:
    placings, waits = placings_of(plan, group, unit), waits_of(plan)
    if not placings:
        return []
    glue = GLUES.get(plan.project.working.glue, GLUES["white glue"])
    last_glued = max((number for number, each in enumerate(placings) if each.glued), default=-1)
    alike_of = {part.id: part.alike for part in plan.parts}
    made_up = () if unit else tuple(each.parts for each in plan.assembly.units)
    found: list[Gluing] = []
    there: tuple[str, ...] = ()
    batch: list[Placing] = []

    def close() -> None:
        nonlocal there, batch
        if not batch:
            return
        adds = tuple(part for each in batch for part in each.parts)
        joints = tuple(joint for each in batch for joint in each.joints)
        there = (*there, *adds)
        if joints or len(there) > 1:
            made = _gluing(plan, group, mover, len(found) + 1, adds, there, joints, glue.open_minutes, unit)
            found.append(made)
        batch = []

    for number, placing in enumerate(placings):
        spread = _minutes(plan, [joint for each in (*batch, placing) for joint in each.glued])
        # What is cut to what is glued before goes in after that; what fits other things, in a batch of its own.
        fits = set() if unit else {waits[part] for part in placing.parts if part in after}
        # What was made up by itself is no step when nothing is there that it could go to.
        first = not there and any({part for each in batch for part in each.parts} <= set(each) for each in made_up)
        fitted = {waits[part] for each in batch for part in each.parts if part in after}
        waited = bool(fits) and not first and fits != fitted
        full = bool(batch) and spread > glue.open_minutes and any(each.glued for each in batch)
        # What meets nothing yet is no step by itself, and equal parts go in one after the other in one.
        lying = bool(batch) and not any(each.joints for each in batch)
        more = {alike_of[part] for part in placing.parts} <= {alike_of[part] for each in batch for part in each.parts}
        dry = not any(each.glued for each in (*batch, placing))
        # What is made up by itself, such as a frame, gets all that lies loose in it at one go.
        if waited or full or (number > last_glued and not lying and not (dry and (more or unit))):
            close()
        batch.append(placing)
    close()
    return [
        _steadied(plan, each, found[number + 1 :])._replace(brings=_brought(each, found[:number], made_up))
        for number, each in enumerate(found)
    ]


def _brought(made: Gluing, before: Iterable[Gluing], made_up: Iterable[tuple[str, ...]]) -> tuple[str, ...]:
    """Return what was joined by itself before and meets the rest now: all but the most parts that hold together."""
    bodies: list[dict[str, None]] = []
    for joined in (*made_up, *((joint.first, joint.second) for each in before for joint in each.joints)):
        met = [body for body in bodies if body.keys() & set(joined)]
        bodies = [body for body in bodies if body not in met]
        bodies.append({part: None for body in (*met, joined) for part in body})
    ends = {part for joint in made.joints for part in (joint.first, joint.second)} - set(made.adds)
    meet = sorted((body for body in bodies if body.keys() & ends), key=len, reverse=True)
    return tuple(part for body in meet[1:] for part in body)


def _steadied(plan: Plan, made: Gluing, later: Iterable[Gluing]) -> Gluing:
    """Return a glue-up with what goes in later between its parts, and can be there dry: shelves between two sides."""
    if not made.glues:
        return made
    waits, there = waits_of(plan), frozenset(made.parts)
    dry = []
    for part in (part for each in later for part in each.adds if part not in waits):
        joints = [joint for each in later for joint in each.joints if joint.second == part and joint.type.enters]
        if len({joint.first for joint in joints} & there) > 1:
            dry.append(part)
    return made._replace(steadied_by=tuple(dry))


def _gluing(
    plan: Plan,
    group: str,
    mover: bool,
    number: int,
    adds: tuple[str, ...],
    there: tuple[str, ...],
    joints: tuple[Joint, ...],
    open_minutes: float,
    unit: str,
) -> Gluing:
    glued = [joint for joint in joints if joint.hold is Hold.GLUE]
    clamps = clamps_for(plan, glued)
    name = f"glue/{unit.replace(' ', '_') or group or 'piece'}/{number}"
    return Gluing(name, group, mover, adds, there, joints, _minutes(plan, glued), open_minutes, clamps, unit)


def _minutes(plan: Plan, joints: list[Joint]) -> float:
    """Return how long some joints are spread and drawn up, shared among the hands."""
    return spread_minutes(spreading(glued_area(plan, joint) for joint in joints), plan.project.working)
