"""How a board is sawn apart, as operations: each cut measured on the piece in hand, from an end or edge it has."""

from __future__ import annotations

from nullah.core.board_plans import BoardPlan
from nullah.core.breakdown.asks import TOLERANCE, Rect
from nullah.core.breakdown.cuts import CutKind, Reach
from nullah.core.breakdown.layout import PlacedPart
from nullah.core.breakdown.saw_order import SawStep, saw_steps
from nullah.core.fraction import Fraction
from nullah.core.lengths import Direction, Marks, from_float
from nullah.core.operations.sawing import SawThrough
from nullah.core.operations.settings import ToolSetting, by_rule
from nullah.core.operations.stock import Stock, X, Y, surface_at
from nullah.core.plan import Plan


def saw_operations(plan: Plan, board_plan: BoardPlan) -> tuple[SawThrough, ...]:
    """Return the cuts of a board in their order."""
    board, kerf = board_plan.board, plan.project.shop.kerf
    whole = Rect(0, 0, float(board.length), float(board.width))
    hands: dict[Rect, tuple[tuple[int, bool], ...]] = {whole: ()}
    found = []
    for step in saw_steps(board_plan.cuts, board_plan.placed, whole, float(kerf)):
        cut = step.cut
        hand = hands.pop(cut.piece)
        hands[step.near.piece], hands[step.beyond.piece] = (*hand, (cut.order, False)), (*hand, (cut.order, True))
        inside = [item for side in (step.near, step.beyond) for item in side.parts]
        found.append(
            SawThrough(
                part=inside[0].part.parts[0] if inside else "",
                stock=Stock(_exact(cut.piece.length), _exact(cut.piece.width), board.thickness.mm),
                board=board.id,
                order=cut.order,
                hand=hand,
                setting=_line(step, plan.marks, kerf.mm),
                saw_beyond=bool(step.near.parts),
                kerf=kerf.mm,
                holds=_ids(inside),
                frees=_ids(
                    [item for side in (step.near, step.beyond) for item in side.parts if _alone(side.piece, item)]
                ),
                stop=_stop(step, plan.marks),
                to_rip=cut.reach is Reach.TO_RIP,
            )
        )
    return tuple(found)


def _line(step: SawStep, marks: Marks, kerf: Fraction) -> ToolSetting:
    """Return where the line is: at what is kept, never short of it; from the end or edge where the parts begin."""
    cut = step.cut
    cross = cut.kind is CutKind.CROSS
    axis, start = (X, cut.piece.x) if cross else (Y, cut.piece.y)
    low = surface_at(axis, False)
    if step.near.parts:
        return by_rule("cut", _exact(cut.at - start), low, marks, Direction.UP)
    # Waste is cut off before the parts: the line is where they begin.
    return by_rule("cut", _exact(cut.at - start) + kerf, low, marks, Direction.DOWN)


def _stop(step: SawStep, marks: Marks) -> ToolSetting | None:
    """Return how far a rip goes that stops, from the end at which it begins: no less than as far as its parts."""
    cut = step.cut
    if cut.reach is not Reach.STOPPED:
        return None
    from_left = cut.x <= cut.piece.x
    return by_rule("rip", _exact(cut.length), surface_at(X, not from_left), marks, Direction.UP)


def _alone(piece: Rect, item: PlacedPart) -> bool:
    """Return whether a piece is just the part that lies in it, or no more than planing takes off."""
    rect = item.rect
    return piece.length - rect.length <= TOLERANCE and piece.width - rect.width <= TOLERANCE


def _ids(items: list[PlacedPart]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(part for item in items for part in item.part.parts))


def _exact(mm: float) -> Fraction:
    return from_float(mm).mm
