"""The cut list of a plan."""

from __future__ import annotations

from nullah.core.bench.cutlist import CutListRow, Sawn, cut_list_row
from nullah.core.plan import Plan


def cut_list(plan: Plan) -> tuple[CutListRow, ...]:
    """Return the cut list of a plan, in the order of the parts."""
    lies_on = {item.part.id: each.board for each in plan.boards for item in each.placed}
    rows = []
    for part in plan.parts:
        sawn = [Sawn(piece, lies_on.get(piece.id)) for piece in plan.pieces_of(part.id)]
        if not sawn:
            continue
        titles = [plan.reader.title(name) for name in plan.waiting(part)]
        rows.append(cut_list_row(part, sawn, plan.species_of(part), " and ".join(titles), plan.left_over(part)))
    return tuple(rows)
