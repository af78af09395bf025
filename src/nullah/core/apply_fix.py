"""What carrying out a fix does to a project."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial, reduce
from typing import assert_never

from nullah.core import actions
from nullah.core.breakdown.layout import FirstCut
from nullah.core.choosing import choose
from nullah.core.fixes import (
    CutOutFirst,
    CutThroughFirst,
    Fix,
    FollowRule,
    Give,
    GlueFromStaves,
    JoinParts,
    MakeAgain,
    MakeAllThinner,
    MoveGroove,
    SetOutTo,
    Shim,
    SlotScrews,
    StopChannel,
    TakeUsualSize,
)
from nullah.core.laying import with_staves
from nullah.core.lengths import Unit, entered
from nullah.core.piece.joint import Hold
from nullah.core.plan import join_as_offered
from nullah.core.project import Project


def action_of(fix: Fix, unit: Unit) -> Callable[[Project], Project] | None:
    """Return the action that carries a fix out; None for what is done at the bench and written in the Day Book.

    A length that is given stands in the project as if it was typed in `unit`.
    """
    match fix:
        case Give(quantity, value) | MoveGroove(quantity, value) | MakeAllThinner(quantity, value):
            return partial(actions.give, name=quantity, value=entered(value, unit))
        case FollowRule(quantity):
            return partial(actions.give, name=quantity, value=None)
        case StopChannel(choice, option):
            return partial(choose, choice=choice, option=option)
        case SlotScrews(joint):
            return partial(actions.hold, joint=joint, how=Hold.SLOTS.value)
        case TakeUsualSize(long):
            return partial(actions.take_usual_size, long=long)
        case CutOutFirst(board):
            return partial(actions.cut_first, board_id=board, first=True)
        case CutThroughFirst(board, _, crosswise, at):
            return partial(actions.cut_at, board_id=board, cut=FirstCut(board, crosswise, float(at)))
        case GlueFromStaves(parts, staves):
            return partial(_glued_from_staves, parts=parts, count=staves)
        case JoinParts(first, second, offer):
            return partial(join_as_offered, first=first, second=second, index=offer)
        case SetOutTo(mark):
            return partial(actions.set_out_to, mark=entered(mark, unit))
        case Shim() | MakeAgain():
            return None
        case _:
            assert_never(fix)


def _glued_from_staves(project: Project, parts: tuple[str, ...], count: int) -> Project:
    return reduce(lambda before, part: with_staves(before, part, count), parts, project)
