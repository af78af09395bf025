"""What comes out otherwise when a piece is built as it is told."""

from __future__ import annotations

from collections.abc import Collection, Iterator

from nullah.core.apprentice.building import built_otherwise
from nullah.core.card import Remark, Severity
from nullah.core.joints.steps import frames_of, part_operations
from nullah.core.piece.faults import FaultKind
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
        if not operations:
            continue
        frame = frames[part.id]
        facts = built_otherwise(frame, frame.stock, operations, case.recipes[part.id], mark)
        yield [Finding(FaultKind.MADE_OTHERWISE, Remark(fact, Severity.FAILURE), (part.id,)) for fact in facts]
