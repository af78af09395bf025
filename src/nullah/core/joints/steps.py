"""The operations of the parts of a piece, by their joints, their shapings, and what is planed flush."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import cast

from nullah.core.identity import SameAgain, kept_by_identity
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.shapings import shaping_operations
from nullah.core.joints.types import TYPES
from nullah.core.lengths import Marks
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ToolSetting
from nullah.core.operations.stock import Surface
from nullah.core.operations.taking import PlaneOff
from nullah.core.piece.frame import Frame
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.shop import Shop

#: What a shop has is the same for all joints, though it may come from another process.
_SAME: SameAgain[Marks | Shop] = SameAgain(2)


@kept_by_identity(2048)
def _steps(joint: Joint, first: Frame, second: Frame, marks: Marks, shop: Shop) -> tuple[BenchStep, ...] | None:
    return TYPES[joint.type.id].bench_steps(Making(joint, first, second, marks, shop))


def joint_steps(frames: Mapping[str, Frame], joint: Joint, marks: Marks, shop: Shop) -> tuple[BenchStep, ...] | None:
    """Return the steps of a joint as operations; None where its type does not tell it so."""
    if joint.first not in frames or joint.second not in frames:
        return None
    same = cast(Marks, _SAME("marks", marks)), cast(Shop, _SAME("shop", shop))
    return _steps(joint, frames[joint.first], frames[joint.second], *same)


def shaped(frame: Frame, marks: Marks) -> tuple[Operation, ...] | None:
    """Return the operations of a part's shapings, all lines before all cuts; None where one is not told so."""
    found: list[Operation] = []
    for shaping in frame.part.shapings:
        told = shaping_operations(frame, shaping, marks)
        if told is None:
            return None
        found += told
    return tuple(sorted(found, key=lambda each: bool(each.takes)))


def flush(frame: Frame) -> tuple[Operation, ...]:
    """Return the planing of what a part's ends were left proud, when it is glued."""
    if frame.proud <= 0:
        return ()
    return tuple(
        PlaneOff(part=frame.part.id, stock=frame.stock, setting=ToolSetting("proud", frame.proud, end))
        for end in (Surface.REFERENCE_END, Surface.FAR_END)
    )


def part_operations(
    frames: Mapping[str, Frame], joints: Iterable[Joint], part: Part, marks: Marks, shop: Shop
) -> tuple[Operation, ...] | None:
    """Return all operations of a part, each once, in an order that can be kept; None where some are not told."""
    found: dict[Operation, None] = {}
    for joint in joints:
        if part.id in (joint.first, joint.second):
            steps = joint_steps(frames, joint, marks, shop)
            if steps is None:
                return None
            found |= {each: None for step in steps for each in step.operations if each.part == part.id}
    frame = frames[part.id]
    shapes = shaped(frame, marks)
    return None if shapes is None else (*found, *shapes, *flush(frame))
