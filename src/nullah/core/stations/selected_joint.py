"""Which joint of the piece is in hand, with its corner, and the shop and woods it is made in."""

from __future__ import annotations

from nullah.core.joints.kinds import JointGroup, kind_of, kinds_of
from nullah.core.plan import Plan
from nullah.core.stations.selection import Selection


def selected_kind(plan: Plan, selection: Selection) -> JointGroup | None:
    """Return the kind of joint that was chosen, or the first that the part in hand has, or the first of all."""
    found = kinds_of(plan.assembly)
    chosen = next((kind for kind in found if kind.id == selection.joints.kind), None)
    if chosen is None or (selection.part and not chosen.has(selection.part) and not selection.joints.kind):
        chosen = next((kind for kind in found if kind.has(selection.part)), found[0] if found else None)
    if chosen is None:
        return None
    return kind_of(plan.assembly, chosen.all, selection.part) or chosen
