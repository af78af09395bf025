"""What the proof finds, and the table of reference it works with."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property

from nullah.core.card import Remark
from nullah.core.fixes import Fix, FollowRule, Give
from nullah.core.fraction import Fraction
from nullah.core.ledger import Ledger, Origin
from nullah.core.lengths import Direction, Length, Marks
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.faults import FaultKind
from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.piece.solids import Recipe, recipe
from nullah.core.piece.space import Box
from nullah.core.season.swelling import WoodMoisture
from nullah.core.shop import Shop

#: Rounding of floating point; nothing smaller than this is found, mm³.
TINY = 0.05


class Finding(NamedTuple):
    """One thing that is wrong: its kind, what is said of it, the parts, the joint, and where."""

    trouble: FaultKind
    remark: Remark
    parts: tuple[str, ...]
    joint: str = ""
    place: Box | None = None


@dataclass(frozen=True)
class ProofInput:
    """All the proof works from.

    Parameters
    ----------
    woods : mapping of part id to WoodMoisture
        Parts without one are passed over where the wood matters.
    designed : Assembly, optional
        The piece as it was before anything was measured, where that is another: how it goes together follows from it.
    """

    assembly: Assembly
    ledger: Ledger
    shop: Shop
    marks: Marks
    woods: Mapping[str, WoodMoisture]
    designed: Assembly | None = None

    @cached_property
    def before(self) -> ProofInput:
        """The same before anything was measured."""
        if self.designed is None or self.designed is self.assembly:
            return self
        return replace(self, assembly=self.designed, designed=None)

    @cached_property
    def parts(self) -> dict[str, Part]:
        """The parts by id."""
        return {part.id: part for part in self.assembly.parts}

    @cached_property
    def joined(self) -> dict[frozenset[str], Joint]:
        """The joint of each pair that has one."""
        return {frozenset((joint.first, joint.second)): joint for joint in self.assembly.joints}

    @cached_property
    def sunk_into(self) -> dict[str, tuple[Joint, ...]]:
        """The joints that cut into each part."""
        found: dict[str, tuple[Joint, ...]] = {}
        for joint in self.assembly.joints:
            found[joint.first] = (*found.get(joint.first, ()), joint)
        return found

    @cached_property
    def floated(self) -> tuple[dict[str, Part], tuple[Joint, ...]]:
        """Parts by id and joints with their boxes in floating point: what solids and the order are made from."""
        parts = {part.id: part._replace(box=part.box.in_floats()) for part in self.assembly.parts}
        joints = tuple(
            joint._replace(
                channels=tuple(box.in_floats() for box in joint.channels),
                shares=tuple(box.in_floats() for box in joint.shares),
            )
            for joint in self.assembly.joints
        )
        return parts, joints

    @cached_property
    def recipes(self) -> dict[str, Recipe]:
        """What makes each part's solid."""
        parts, joints = self.floated
        of_part: dict[str, list[Joint]] = {part_id: [] for part_id in parts}
        for joint in joints:
            for part_id in (joint.first, joint.second):
                if part_id in of_part:
                    of_part[part_id].append(joint)
        return {part_id: recipe(parts[part_id], joints, parts) for part_id, joints in of_part.items()}

    @cached_property
    def _fitted_to(self) -> dict[str, frozenset[str]]:
        """What was measured for each part, or for what moves or is made up with it.

        A bottom that lies in grooves of its drawer is cut to the drawer, and not with it.
        """
        group_of = {part.id: part.group for part in self.assembly.parts}
        body = {part: group or part for part, group in group_of.items()}
        body |= {part: unit.name for unit in self.assembly.units for part in unit.parts}
        caught = (joint for joint in self.assembly.joints if joint.type.captures)
        body |= {each.second: each.second for each in caught if group_of[each.first] == group_of[each.second] != ""}
        known = self.ledger.quantities
        measured = {name for name, each in known.items() if each.origin is Origin.MEASURED}
        found: dict[str, set[str]] = {}
        for part in self.assembly.parts:
            fits = (known[name].fits for name in part.quantities if name in known)
            found.setdefault(body[part.id], set()).update(*(measured.intersection(names) for names in fits))
        return {part.id: frozenset(found[body[part.id]]) for part in self.assembly.parts}

    def fitted(self, part: str) -> bool:
        """Return whether a part is cut to something that was measured."""
        return bool(self._fitted_to.get(part))

    def fits_apart(self, parts: Iterable[str]) -> bool:
        """Return whether some parts are cut to different measurements, or only some of them are.

        How those stand to each other is as it was before anything was measured: the one was cut to the other.
        """
        return len({self._fitted_to.get(part, frozenset()) for part in parts}) > 1


def give_fix(case: ProofInput, name: str, value: Fraction, direction: Direction = Direction.NEAREST) -> tuple[Fix, ...]:
    """Offer to give a quantity another value, or to let it follow its rule again where that is right.

    Nothing for a name the ledger does not know, or a value of nothing or less.

    Parameters
    ----------
    case : ProofInput
        What is looked at.
    name : str
        Of the quantity.
    value : Fraction
        mm, or a count.
    direction : Direction
        In which it is rounded.
    """
    if name not in case.ledger.quantities or value <= 0:
        return ()
    quantity = case.ledger.quantity(name)
    if quantity.origin is Origin.OVERRULED and quantity.planned is not None and abs(quantity.planned - value) < 1:
        return (FollowRule(name),)
    if quantity.origin is Origin.MEASURED:
        return ()
    to = Length(value)
    if case.marks.to_mark(to) != to:
        to = case.marks.to_mark(to, direction) if direction is not Direction.NEAREST else to
    return (Give(name, to),)


def follow_fixes(case: ProofInput, names: tuple[str, ...]) -> tuple[Fix, ...]:
    """Offer to let those of these quantities follow their rule again that were overruled."""
    return tuple(
        FollowRule(name)
        for name in dict.fromkeys(names)
        if name in case.ledger.quantities and case.ledger.quantity(name).origin is Origin.OVERRULED
    )
