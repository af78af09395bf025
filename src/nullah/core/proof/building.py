"""What comes out otherwise when a piece is built as it is told."""

from __future__ import annotations

from collections.abc import Collection, Iterator

from nullah.core.apprentice.building import built_otherwise
from nullah.core.apprentice.facts import BuildingFact, CutAway, LeftStanding, NotTold
from nullah.core.card import Remark, Severity
from nullah.core.joints.steps import part_operations
from nullah.core.lengths import from_float
from nullah.core.piece.faults import FaultKind
from nullah.core.piece.frame import Frame
from nullah.core.piece.frames import frames_of
from nullah.core.piece.space import Box
from nullah.core.proof.finding import Finding, ProofInput

#: Rounding of what the rule does not mark, mm.
_FINE = 0.02


def told_wrongly(case: ProofInput, wrong: Collection[str]) -> Iterator[list[Finding]]:
    """Yield for each part what cannot be carried out of what is told, or makes another part.

    Parameters
    ----------
    case : ProofInput
    wrong : collection of str
        Parts that are wrong already: what is told of them is, too.
    """
    frames = frames_of(case.assembly)
    mark = float(case.marks.smallest.mm) + _FINE
    for part in case.assembly.parts:
        if part.id in wrong:
            continue
        operations = part_operations(frames, case.assembly.joints, part, case.marks, case.shop)
        if operations is None:
            remark = Remark(NotTold(part.id), Severity.FAILURE)
            yield [Finding(FaultKind.MADE_OTHERWISE, remark, (part.id,), place=part.box)]
            continue
        if not operations:
            continue
        frame = frames[part.id]
        facts = built_otherwise(frame, frame.stock, operations, case.recipes[part.id], mark)
        if facts and not case.fitted(part.id):
            # What is not cut to a measurement is as it was designed, however long what goes into it came out.
            facts = built_otherwise(frame, frame.stock, operations, case.before.recipes[part.id], mark)
        yield [
            Finding(FaultKind.MADE_OTHERWISE, Remark(fact, Severity.FAILURE), (part.id,), place=_place(frame, fact))
            for fact in facts
        ]


def _place(frame: Frame, fact: BuildingFact) -> Box:
    """Return where it is in the piece: the box of what is left or gone, or the part where nothing could be done."""
    if not isinstance(fact, LeftStanding | CutAway):
        return frame.part.box
    box = frame.part.box
    for index, axis in enumerate(frame.axes):
        low, high = (from_float(corner[index]).mm for corner in fact.bounds)
        if frame.turned[index]:
            low, high = frame.high[index] - high, frame.high[index] - low
        else:
            low, high = frame.low[index] + low, frame.low[index] + high
        box = box.set(axis, low, high)
    return box
