"""The tasks in which joints are made, by what is done: named with every part, never with the first alone."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from nullah.core.bench.task_facts import JointDone, MakeJoint
from nullah.core.card import JointStage, Step
from nullah.core.joints.kinds import JointGroup
from nullah.core.operations.fastening import Bore, BoreSlots, SetOutRow, TracePlaces
from nullah.core.operations.lines import LineKind
from nullah.core.operations.marking import Gauge
from nullah.core.operations.mitres import KeySlot
from nullah.core.operations.taking import Cut, Take
from nullah.core.operations.tenons import GaugePair
from nullah.core.operations.wedges import ChopWedgeSlot

_DONE = {
    JointStage.BLANK: JointDone.READY,
    JointStage.GAUGED: JointDone.GAUGED,
    JointStage.MARKED: JointDone.LAID_OUT,
    JointStage.HATCHED: JointDone.HATCHED,
    JointStage.SAWN: JointDone.SAWN,
    JointStage.CUT: JointDone.CUT,
    JointStage.TRIED: JointDone.TRIED_TOGETHER,
}
#: What is done again, from the other side.
_AGAIN = {
    JointDone.GAUGED: JointDone.GAUGED_AGAIN,
    JointDone.LAID_OUT: JointDone.LAID_OUT_AGAIN,
    JointDone.SAWN: JointDone.SAWN_AGAIN,
    JointDone.CUT: JointDone.CUT_AGAIN,
}


def step_fact(kind: JointGroup, step: Step, parts: Iterable[str]) -> MakeJoint:
    """Return what a step of equal joints is: what is done, and to which parts."""
    parts = tuple(parts)
    mates = (part for joint in kind.all for part in (joint.first, joint.second))
    others = tuple(dict.fromkeys(part for part in mates if part not in parts))
    done = _DONE[step.stage]
    if step.stage is JointStage.TRIED and others:
        hosts = set(parts) <= {joint.first for joint in kind.all}
        done = JointDone.TRIED_ON if hosts else JointDone.TRIED_IN
    else:
        kinds = _kinds(step)
        done = next((told for types, told in _SPECIAL if kinds and kinds <= types), done)
    return MakeJoint(kind.name, done, parts, others)


def again(fact: MakeJoint, step: Step) -> MakeJoint:
    """Return what a step is that is done a second time: from the other side."""
    done = _DONE[step.stage]
    return replace(fact, done=_AGAIN.get(done, done))


def _kinds(step: Step) -> frozenset[type | Cut | LineKind]:
    """Return the kinds of operation, cuts or lines of a step."""
    return frozenset(
        each.cut if isinstance(each, Take) else each.kind if isinstance(each, Gauge | GaugePair) else type(each)
        for each in step.operations
    )


#: What is done besides the joint's own lines and cuts, by what it is done with.
_SPECIAL: tuple[tuple[frozenset[type | Cut | LineKind], JointDone], ...] = (
    (frozenset((SetOutRow, TracePlaces, LineKind.ROW, LineKind.PLACE, LineKind.DRAWN_ROW)), JointDone.HOLES_MARKED),
    (frozenset((TracePlaces, Bore, BoreSlots)), JointDone.BORED),
    (frozenset((LineKind.KEY, LineKind.OTHER_KEY)), JointDone.KEYS_MARKED),
    (frozenset((KeySlot,)), JointDone.KEYS_SAWN),
    (frozenset((LineKind.POST_FACE, LineKind.WEDGE_WALL, LineKind.WEDGE_CHEEK)), JointDone.WEDGE_MARKED),
    (frozenset((ChopWedgeSlot,)), JointDone.WEDGE_CHOPPED),
    (frozenset((LineKind.HAUNCH, LineKind.HAUNCH_END)), JointDone.HAUNCH_MARKED),
    (frozenset((Cut.HAUNCH,)), JointDone.HAUNCH_SAWN),
    (frozenset((Cut.HAUNCH_SOCKET,)), JointDone.HAUNCH_CUT),
    (frozenset((Cut.BETWEEN_TENONS,)), JointDone.TENONS_PARTED),
    (frozenset((Cut.MORTISE,)), JointDone.MORTISED),
    (frozenset((Cut.PLOUGH, Cut.PLOUGH_TO_LINES)), JointDone.PLOWED),
)
