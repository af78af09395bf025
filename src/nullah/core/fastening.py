"""Nails and screws, chosen for the woods there are, joint by joint."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from nullah.core.identity import IdentityKey, SameAgain, kept_by_identity, kept_by_value
from nullah.core.joints.fastened import row_in
from nullah.core.joints.rows import Row
from nullah.core.lengths import Marks
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Joint, PlannedRow, RowChoice, RowInput, WoodHeld
from nullah.core.piece.part import Part
from nullah.core.piece.space import Box
from nullah.core.shop import Shop
from nullah.core.wood.movement import GrainCut, coefficient
from nullah.core.wood.species import USUAL_WOOD, SpeciesError, find_species


@kept_by_value(64)
def held_wood(species: str, cut: GrainCut, swing: float) -> WoodHeld:
    """Return what nails and screws meet in a wood.

    Parameters
    ----------
    species : str
        Empty for what is usual.
    cut : GrainCut
    swing : float
        By how much the wood's moisture swings through the year, %.
    """
    try:
        found = find_species(species or USUAL_WOOD)
    except SpeciesError:
        return WoodHeld()
    # Green volume and oven-dry weight against density at 12 %: its water is 12 % of its dry weight.
    gravity = found.density / 1000 / 1.12
    return WoodHeld(found.hardness_class != "soft", gravity, coefficient(found, cut) * swing)


class FastenedBy(NamedTuple):
    """What the nails and screws of a piece hang on besides its parts and joints.

    `woods` is what they meet in each part, `chosen` what was chosen of each row, by the ids of parts and joints.
    """

    woods: tuple[tuple[str, WoodHeld], ...]
    shop: Shop
    marks: Marks
    chosen: tuple[tuple[str, RowChoice], ...]
    planned: tuple[tuple[str, PlannedRow], ...] = ()


def rows_of(designed: Assembly) -> tuple[tuple[str, PlannedRow], ...]:
    """Return what the nails and screws of a piece are before anything is measured, by the ids of its joints."""
    rows = ((joint.id, row) for joint in designed.joints if (row := row_in(joint)) is not None)
    return tuple((joint, _SAME_ROW(joint, _planned(row))) for joint, row in rows)


def _planned(row: Row) -> PlannedRow:
    size = row.fastening.size
    return PlannedRow(row.through, row.side, size.long, size.thick, len(row.places))


#: The very same as long as they are equal.
_SAME_ROW: SameAgain[PlannedRow] = SameAgain(1024)


def fastened(assembly: Assembly, by: FastenedBy) -> Assembly:
    """Return an assembly with nails and screws chosen for the woods there are."""
    return _fastened(IdentityKey(assembly), by)


@kept_by_value(16)
def _fastened(key: IdentityKey[Assembly], by: FastenedBy) -> Assembly:
    assembly = key.carried
    joints = tuple(_SAME(joint.id, joint) for joint in fastened_joints(assembly, by))
    return assembly if joints == assembly.joints else assembly._replace(joints=joints)


#: The very same as long as they are equal.
_SAME: SameAgain[Joint] = SameAgain(4096)


def fastened_joints(assembly: Assembly, by: FastenedBy) -> Iterator[Joint]:
    """Yield the joints of an assembly with nails and screws where they are held by them, one after the other."""
    if not any(joint.hold.in_a_row for joint in assembly.joints):
        yield from assembly.joints
        return
    parts, of, rows = {part.id: part for part in assembly.parts}, dict(by.woods), dict(by.chosen)
    planned = dict(by.planned)
    cuts = _cuts_by_part(assembly.joints, parts)
    for joint in assembly.joints:
        if joint.hold.in_a_row and joint.first in parts and joint.second in parts:
            beside = _cut_beside(joint, cuts) if joint.type.holds else ()
            held = parts[joint.first], parts[joint.second], of[joint.first], of[joint.second]
            row = rows.get(joint.id, _USUAL_ROW), planned.get(joint.id)
            yield _fastened_joint(joint, *held, by.shop, by.marks, *row, *beside)
        else:
            yield joint


#: What is chosen of a row of which nothing was chosen.
_USUAL_ROW = RowChoice()


@kept_by_identity(4096)
def _fastened_joint(
    joint: Joint,
    first: Part,
    second: Part,
    of_first: WoodHeld,
    of_second: WoodHeld,
    shop: Shop,
    marks: Marks,
    choice: RowChoice,
    planned: PlannedRow | None,
    *beside: Box,
) -> Joint:
    """Return a joint with its nails or screws; `beside` is what other joints cut out of its parts."""
    chosen = RowInput((of_first, of_second), shop, marks, beside, choice, planned)
    return joint.type.fastened(joint, first, second, chosen)


def _cuts_by_part(joints: tuple[Joint, ...], parts: Mapping[str, Part]) -> dict[str, list[tuple[str, tuple[Box, ...]]]]:
    """Return what each joint cuts out of each part, by the part's id: the joint's id, and boxes."""
    found: dict[str, list[tuple[str, tuple[Box, ...]]]] = {part: [] for part in parts}
    for joint in joints:
        if joint.first in parts and joint.second in parts:
            shared = _shared(parts[joint.first], parts[joint.second])
            found[joint.first].append((joint.id, (*joint.channels, *shared)))
            found[joint.second].append((joint.id, shared))
    return found


@kept_by_identity(4096)
def _shared(first: Part, second: Part) -> tuple[Box, ...]:
    overlap = first.box.overlap(second.box)
    return () if overlap is None else (overlap,)


def _cut_beside(joint: Joint, cuts: Mapping[str, list[tuple[str, tuple[Box, ...]]]]) -> tuple[Box, ...]:
    """Return what other joints cut out of the parts of one that nails or screws may hold."""
    if not joint.hold.in_a_row:
        return ()
    # Several may lie in one channel.
    return tuple(
        box
        for part in (joint.first, joint.second)
        for other, boxes in cuts[part]
        if other != joint.id
        for box in boxes
        if box not in joint.channels
    )
