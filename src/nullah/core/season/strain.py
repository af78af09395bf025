"""Joints across the grain, ranked by how much the wood is strained in them, and where glue may go."""

from __future__ import annotations

from collections.abc import Mapping

from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import kept_by_identity
from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Joint
from nullah.core.piece.overlap import contact
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, around
from nullah.core.season.swelling import WoodMoisture, growth

#: Over how much width wood may be glued across the grain: 75 to 100 mm (common practice).
GLUE_WIDTH = 100.0


class Strain(FrozenRecord):
    """A joint where one part moves and the other does not.

    Parameters
    ----------
    joint : Joint
    moving, still : Part
    held : float
        Over how much of its width the moving part is held, mm.
    moves : float
        How much that width would change from now to its farthest month if it were free, mm.
    month : int
        Which month that is (0: January).
    """

    joint: Joint
    moving: Part
    still: Part
    held: float
    moves: float
    month: int

    @property
    def percent(self) -> float:
        """How much the wood is strained where it is held fast, %."""
        return 100 * abs(self.moves) / self.held if self.held else 0.0

    @property
    def cracks(self) -> bool:
        """Whether it will split or bow: held fast over more than wood bears."""
        return self.joint.hold.rigid and self.held > GLUE_WIDTH


def strains_of(assembly: Assembly, stocks: Mapping[str, WoodMoisture]) -> tuple[Strain, ...]:
    """Return every joint where one part moves and the other does not: what cracks first, then by how far it moves."""
    found = [strain for joint in assembly.joints if (strain := _strain_at(assembly, joint, stocks)) is not None]
    return tuple(sorted(found, key=lambda each: (not each.cracks, not each.joint.hold.rigid, -abs(each.moves))))


def _strain_at(assembly: Assembly, joint: Joint, stocks: Mapping[str, WoodMoisture]) -> Strain | None:
    first, second = assembly.part(joint.first), assembly.part(joint.second)
    if first is None or second is None or joint.type.slanted:
        return None
    return _strain(joint, first, second, stocks.get(first.id), stocks.get(second.id))


@kept_by_identity(4096)
def _strain(
    joint: Joint, first: Part, second: Part, of_first: WoodMoisture | None, of_second: WoodMoisture | None
) -> Strain | None:
    """Return where two parts move against each other most, by the wood of each; None where they do not."""
    touching = contact(first, second)
    if touching is None:
        return None
    if joint.shares:
        touching = around(joint.shares).overlap(touching) or touching
    best: Strain | None = None
    for axis in Axis:
        if (axis is first.grain) == (axis is second.grain):
            continue
        moving, still, wood = (second, first, of_second) if axis is first.grain else (first, second, of_first)
        held = float(touching.size(axis))
        if joint.glued is not None:
            held = min(held, float(joint.glued))
        if wood is None or held <= 0:
            continue
        change = growth(moving, wood, axis, held)
        month = max(range(12), key=lambda each: abs(change[each]))
        strain = Strain(joint, moving, still, held, change[month], month)
        if best is None or abs(strain.moves) > abs(best.moves):
            best = strain
    return best
