"""Which joint of the piece is in hand, with its corner, and the shop and woods it is made in."""

from __future__ import annotations

from nullah.core.joints.corners import Corner
from nullah.core.joints.families import AtBench
from nullah.core.joints.kinds import Kind, kind_of, kinds_of
from nullah.core.plan import Plan
from nullah.core.stations.station import Hand
from nullah.core.wood.species import SpeciesError, find_species

#: Green volume and oven-dry weight against density at 12 %: its water is 12 % of its dry weight.
_DRY = 1.12


def kind_in_hand(plan: Plan, hand: Hand) -> Kind | None:
    """Give the kind of joint that was chosen, or the first that the part in hand has, or the first of all."""
    found = kinds_of(plan.assembly)
    chosen = next((kind for kind in found if kind.id == hand.joint), None)
    if chosen is None or (hand.part and not chosen.has(hand.part) and not hand.joint):
        chosen = next((kind for kind in found if kind.has(hand.part)), found[0] if found else None)
    if chosen is None:
        return None
    return kind_of(plan.assembly, chosen.all, hand.part) or chosen


def corner_of_kind(plan: Plan, kind: Kind | None) -> Corner | None:
    """Give the dovetailed corner of a kind of joint; None where it is no dovetail, or cannot be drawn."""
    if kind is None or kind.joint.tails is None:
        return None
    return next((corner for corner in plan.corners if corner.prefix == kind.joint.tails.prefix), None)


def at_bench(plan: Plan, kind: Kind) -> AtBench:
    """Give a kind of joint with the shop and the woods it is made in."""
    hard, gravities = [], []
    for mate in (kind.first, kind.second):
        try:
            species = find_species(plan.species_of(mate.part))
            hard.append(species.hardness_class != "soft")
            gravities.append(species.density / 1000 / _DRY)
        except SpeciesError:
            hard.append(True)
            gravities.append(0.5)
    return AtBench(kind, plan.marks, plan.project.shop, (hard[0], hard[1]), (gravities[0], gravities[1]))
