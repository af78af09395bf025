"""What kinds of joint are called, and the tasks in which they are made: with every part, never with the first alone."""

from __future__ import annotations

from collections.abc import Iterable

from nullah.core.card import JointStage, Step
from nullah.core.catalogue import N_
from nullah.core.joints.kinds import JointGroup
from nullah.core.operations.fastening import Bore, BoreSlots, SetOutRow, TracePlaces
from nullah.core.operations.lines import LineKind
from nullah.core.operations.marking import Gauge
from nullah.core.operations.mitres import KeySlot
from nullah.core.operations.taking import Cut, Take
from nullah.core.operations.tenons import GaugePair
from nullah.core.operations.wedges import ChopWedgeSlot
from nullah.core.reader import Reader, sentence

_DONE = {
    JointStage.BLANK: N_("{joint}: make {parts} ready"),
    JointStage.GAUGED: N_("{joint}: gauge {parts}"),
    JointStage.MARKED: N_("{joint}: lay out {parts}"),
    JointStage.HATCHED: N_("{joint}: mark the waste on {parts}"),
    JointStage.SAWN: N_("{joint}: saw {parts}"),
    JointStage.CUT: N_("{joint}: cut {parts}"),
    JointStage.TRIED: N_("{joint}: try {parts} together"),
}
#: What is done again, from the other side.
_AGAIN = {
    JointStage.GAUGED: N_("{joint}: gauge the other side of {parts}"),
    JointStage.MARKED: N_("{joint}: lay out the other side of {parts}"),
    JointStage.SAWN: N_("{joint}: saw the other side of {parts}"),
    JointStage.CUT: N_("{joint}: cut the other side of {parts}"),
}
#: What it goes into may stand already.
_TRIED_IN = N_("{joint}: try {parts} in {others}")


def group_words(kind: JointGroup, reader: Reader) -> str:
    """Return a kind of joint with all parts that have it: what goes in, and what it goes into.

    Examples
    --------
    >>> from nullah.core.joints.kinds import kinds_of
    >>> from nullah.core.plan import work_out
    >>> from nullah.core.project import Piece, Project
    >>> plan = work_out(Project(Piece("box")), milling=False, proving=False)
    >>> group_words(kinds_of(plan.assembly)[0], plan.reader)
    'Through dovetail: left end and right end to front and back'
    """
    first, second = (dict.fromkeys(getattr(joint, which) for joint in kind.all) for which in ("first", "second"))
    return sentence(
        reader.text(
            "{joint}: {second} to {first}",
            joint=reader.text(kind.name),
            second=reader.together(second),
            first=reader.together(first),
        )
    )


def step_title(kind: JointGroup, step: Step, parts: Iterable[str], reader: Reader, again: bool = False) -> str:
    """Return what a step of equal joints is called: what is done, and to which parts; `again`: from the other side."""
    parts = tuple(parts)
    others = tuple(part for joint in kind.all for part in (joint.first, joint.second) if part not in parts)
    message = _DONE[step.stage]
    if again:
        message = _AGAIN.get(step.stage, message)
    elif step.stage is JointStage.TRIED and others:
        message = _TRIED_IN
    else:
        kinds = _kinds(step)
        message = next((told for types, told in _SPECIAL if kinds and kinds <= types), message)
    joint, told = reader.text(kind.name), reader.together(dict.fromkeys(others))
    return sentence(reader.text(message, joint=joint, parts=reader.together(parts), others=told))


def _kinds(step: Step) -> frozenset[type | Cut | LineKind]:
    """Return the kinds of operation, cuts or lines of a step."""
    return frozenset(
        each.cut if isinstance(each, Take) else each.kind if isinstance(each, Gauge | GaugePair) else type(each)
        for each in step.operations
    )


#: What is done besides the joint's own lines and cuts, by what it is done with.
_SPECIAL: tuple[tuple[frozenset[type | Cut | LineKind], str], ...] = (
    (
        frozenset((SetOutRow, TracePlaces, LineKind.ROW, LineKind.PLACE, LineKind.DRAWN_ROW)),
        N_("{joint}: mark the holes on {parts}"),
    ),
    (frozenset((TracePlaces, Bore, BoreSlots)), N_("{joint}: bore {parts}")),
    (frozenset((LineKind.KEY, LineKind.OTHER_KEY)), N_("{joint}: mark the slots for keys on {parts}")),
    (frozenset((KeySlot,)), N_("{joint}: saw the slots for keys in {parts}")),
    (
        frozenset((LineKind.POST_FACE, LineKind.WEDGE_WALL, LineKind.WEDGE_CHEEK)),
        N_("{joint}: mark the slot for the wedge on {parts}"),
    ),
    (frozenset((ChopWedgeSlot,)), N_("{joint}: chop the slot for the wedge in {parts}")),
    (frozenset((LineKind.HAUNCH, LineKind.HAUNCH_END)), N_("{joint}: mark the haunch on {parts}")),
    (frozenset((Cut.HAUNCH,)), N_("{joint}: saw the haunch of {parts}")),
    (frozenset((Cut.HAUNCH_SOCKET,)), N_("{joint}: cut the haunch into {parts}")),
    (frozenset((Cut.BETWEEN_TENONS,)), N_("{joint}: saw out between the tenons of {parts}")),
    (frozenset((Cut.MORTISE,)), N_("{joint}: chop the mortises in {parts}")),
)
