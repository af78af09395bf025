"""Which joint of the piece is in hand, with its corner, and the shop and woods it is made in."""

from __future__ import annotations

from nullah.core.joints.kinds import Kind, kind_of, kinds_of
from nullah.core.plan import Plan
from nullah.core.stations.station import Hand


def kind_in_hand(plan: Plan, hand: Hand) -> Kind | None:
    """Give the kind of joint that was chosen, or the first that the part in hand has, or the first of all."""
    found = kinds_of(plan.assembly)
    chosen = next((kind for kind in found if kind.id == hand.joint), None)
    if chosen is None or (hand.part and not chosen.has(hand.part) and not hand.joint):
        chosen = next((kind for kind in found if kind.has(hand.part)), found[0] if found else None)
    if chosen is None:
        return None
    return kind_of(plan.assembly, chosen.all, hand.part) or chosen
