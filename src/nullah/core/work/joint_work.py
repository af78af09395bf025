"""How a kind of joint of a piece is made: its steps, in the shop there is."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import groupby
from typing import get_args

from nullah.core.apprentice.facts import BuildingFact
from nullah.core.card import Remark, Step
from nullah.core.joints.bench import AtBench
from nullah.core.joints.dovetail.corners import Corner
from nullah.core.joints.fastened import row_in
from nullah.core.joints.kinds import JointGroup, kind_of, kinds_of
from nullah.core.joints.rows import Row
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.operation import Operation
from nullah.core.piece.joint import Joint
from nullah.core.plan import Plan
from nullah.core.work.bench_work import group_steps
from nullah.core.work.stock_tasks import waits_of


class JointWork(NamedTuple):
    """A kind of joint of a piece, with its corner where it is dovetailed, and the steps in which it is made."""

    kind: JointGroup
    corner: Corner | None
    steps: tuple[Step, ...]

    @property
    def row(self) -> Row | None:
        """What it is nailed or screwed with."""
        return row_in(self.kind.joint)

    def mates_of(self, at: str) -> frozenset[str]:
        """Return the ids of all parts that are ``first`` or ``second`` in these joints."""
        return frozenset(joint.first if at == "first" else joint.second for joint in self.kind.all)


def kinds_at_work(plan: Plan) -> tuple[JointGroup, ...]:
    """Return every kind of joint, in several where some of its parts are cut to fit later than others.

    What is cut into a board that waits for a measurement cannot be cut with what must be there to be measured, nor can
    what enters it. What moves as one, such as a drawer, is made when all of its opening stands.
    """
    return tuple(kind for kinds in kinds_by_host(plan) for kind in kinds)


def kinds_by_host(plan: Plan) -> tuple[tuple[JointGroup, ...], ...]:
    """Return the kinds of joint as `kinds_at_work` does, those together whose hosts are cut into at one go.

    A gauge that is set serves both sides of a case, though what enters one of them is cut to another opening.
    """
    waits = waits_of(plan)
    movers = {part.id for part in plan.parts if part.group}
    found: list[tuple[JointGroup, ...]] = []
    for kind in kinds_of(plan.assembly):
        stages: dict[tuple[bool, tuple[str, ...], tuple[str, ...]], list[Joint]] = {}
        for joint in kind.all:
            own, fits = (waits.get(part, ()) if part not in movers else () for part in (joint.first, joint.second))
            stages.setdefault((joint.first in waits, own, fits), []).append(joint)
        if len(stages) == 1:
            found.append((kind,))
            continue
        for _, alike in groupby(sorted(stages.items()), key=lambda stage: stage[0][:2]):
            some = (kind_of(plan.assembly, tuple(joints)) for _, joints in alike)
            found.append(tuple(each for each in some if each is not None))
    return tuple(found)


def joint_work(plan: Plan, kind: JointGroup) -> JointWork:
    """Return the steps of a kind of joint; none where it cannot be laid out."""
    corner = corner_of_kind(plan, kind)
    if kind.corner_prefix and (corner is None or corner.layout.tail.mm <= 0):
        return JointWork(kind, None, ())
    return JointWork(kind, corner, group_steps(plan.assembly, kind, plan.marks, plan.project.shop) or ())


def steps_of_corner(plan: Plan, corner: Corner) -> tuple[Step, ...]:
    """Return the steps of a dovetailed corner; none where no joint of the piece is laid out by it."""
    kinds = (kind for kind in kinds_of(plan.assembly) if kind.corner_prefix == corner.prefix)
    kind = next(kinds, None)
    return () if kind is None else joint_work(plan, kind).steps


def told_wrongly(plan: Plan, operations: Sequence[Operation]) -> Iterator[Remark]:
    """Yield what the proof found of these operations: they cannot be carried out, or make another part."""
    for finding in plan.findings:
        fact = finding.remark.fact
        if isinstance(fact, get_args(BuildingFact)) and getattr(fact, "operation", None) in operations:
            yield finding.remark


def corner_of_kind(plan: Plan, kind: JointGroup | None) -> Corner | None:
    """Return the dovetailed corner of a kind of joint; None where it is no dovetail, or cannot be drawn."""
    if kind is None or not kind.corner_prefix:
        return None
    return next((corner for corner in plan.corners if corner.prefix == kind.corner_prefix), None)


def at_bench(plan: Plan, kind: JointGroup) -> AtBench:
    """Return a kind of joint with the shop it is made in."""
    return AtBench(kind, plan.marks, plan.project.shop)
