"""How blanks are milled out of rough wood, as operations."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from types import MappingProxyType

from nullah.core.board_plans import BoardPlan
from nullah.core.breakdown.rough import RoughPart
from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.identity import kept_by_identity
from nullah.core.lengths import Direction, Length, Marks
from nullah.core.operations.milling import (
    FlattenBoard,
    GlueStaves,
    GlueTogether,
    LeaveOver,
    LeaveRough,
    PlaneTrue,
    Resaw,
    WorkTo,
)
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ToolSetting, by_mate, by_rule
from nullah.core.operations.stock import Stock, Surface
from nullah.core.piece.part import INSIDE, Part
from nullah.core.piece.space import Axis
from nullah.core.plan import Plan
from nullah.core.work.bench_work import Blank, blank_of, blanks_of
from nullah.core.work.clamping import StavesGlueUp

#: What is gauged from each surface.
_SIZES = {Surface.FACE_SIDE: N_("thickness"), Surface.FACE_EDGE: N_("width"), Surface.REFERENCE_END: N_("length")}


def milling_operations(plan: Plan, part: Part) -> Iterator[Operation]:
    """Yield how a part is milled: face side, face edge, thickness, width, and the ends last."""
    likes = (milled_like(plan, part, surface) for surface in (Surface.REFERENCE_END, Surface.FACE_EDGE))
    yield from _milled(blanks_of(plan)[part.id], plan.marks, plan.project.lows_left, stripped(plan, part), *likes)


@kept_by_identity(1024)
def _milled(
    of: Blank, marks: Marks, lows_left: Length, strip: bool, long_like: Part | None, wide_like: Part | None
) -> tuple[Operation, ...]:
    return tuple(_milling(of, marks, lows_left, strip, (long_like, wide_like, None)))


def _milling(
    of: Blank, marks: Marks, lows_left: Length, strip: bool, likes: tuple[Part | None, Part | None, None]
) -> Iterator[Operation]:
    part, blank, (long, wide) = of
    lows = lows_left.mm if part.species_role in INSIDE else Fraction(0)

    def to(surface: Surface, quantity: str) -> ToolSetting:
        size, like = blank[surface.axis], likes[surface.axis]
        if like is not None:
            return by_mate(_SIZES[surface], size, surface, like.id, quantity)
        return by_rule(_SIZES[surface], size, surface, marks, Direction.NEAREST, quantity)

    def sized(surface: Surface, quantity: str, waits: bool) -> Operation:
        if not waits:
            return WorkTo(part=part.id, stock=blank, setting=to(surface, quantity), in_strip=strip)
        least = by_rule(_SIZES[surface], blank[surface.axis], surface, marks, Direction.UP, quantity)
        return LeaveOver(part=part.id, stock=blank, setting=least)

    names = part.quantities

    def true(surface: Surface) -> PlaneTrue:
        return PlaneTrue(part=part.id, stock=blank, surface=surface, in_strip=strip)

    yield true(Surface.FACE_SIDE)
    yield true(Surface.FACE_EDGE)
    if part.one_face:
        yield LeaveRough(part=part.id, stock=blank, setting=to(Surface.FACE_SIDE, names[2]))
    else:
        thickness = to(Surface.FACE_SIDE, names[2])
        yield WorkTo(part=part.id, stock=blank, setting=thickness, lows=lows, in_strip=strip)
    yield sized(Surface.FACE_EDGE, names[1], bool(wide))
    yield true(Surface.REFERENCE_END)
    yield sized(Surface.REFERENCE_END, names[0], bool(long))


def stripped(plan: Plan, part: Part) -> bool:
    """Return whether a part is sawn off a strip, with others that are equal."""
    return any(piece.strip for piece in plan.pieces_of(part.id))


def milled_like(plan: Plan, part: Part, surface: Surface) -> Part | None:
    """Return an unlike part that is milled before and as long or as wide, from which that is taken; None without one.

    What spans the same must come out the same, whatever the rule says twice.
    """
    return _milled_like(blanks_of(plan)).get((part.id, surface.axis))


@kept_by_identity(4)
def _milled_like(blanks: Mapping[str, Blank]) -> Mapping[tuple[str, int], Part]:
    """Return, by part and axis, the part from which its length or width is taken; none for what is cut to fit."""
    first: dict[tuple[int, Axis, Fraction], Part] = {}
    before: dict[str, set[str]] = {}
    found: dict[tuple[str, int], Part] = {}
    for blank in blanks.values():
        # Equal parts are milled together, when the first of them is.
        milled = before.setdefault(blank.part.alike, set(before))
        for axis, way in enumerate((blank.part.grain, blank.part.across)):
            if not blank.measured[axis]:
                other = first.setdefault((axis, way, blank.stock[axis]), blank.part)
                if other.alike in milled:
                    found[blank.part.id, axis] = other
    return MappingProxyType(found)


def gluing_of_staves(plan: Plan, part: Part, made: StavesGlueUp) -> GlueStaves:
    """Return how a part is glued up of its staves, all at once or in parts."""
    return GlueStaves(
        part=part.id,
        stock=blank_of(plan, part),
        count=made.number,
        laminated=made.laminated,
        clamps=made.clamps,
        goes=len(made.goes),
    )


def gluing_together(plan: Plan, part: Part, made: StavesGlueUp) -> GlueTogether:
    """Return how what a part was glued into is glued to each other."""
    return GlueTogether(part=part.id, stock=blank_of(plan, part), clamps=made.clamps)


def resawing(plan: Plan, piece: RoughPart) -> Resaw:
    """Return how a blank is sawn through its thickness, the kerf in the middle."""
    stock = Stock(piece.length.mm, piece.width.mm, piece.thickness.mm)
    half = (piece.thickness.mm - plan.project.shop.kerf.mm) / 2
    setting = by_rule("thickness", half, Surface.FACE_SIDE, plan.marks, Direction.NEAREST)
    first, second = piece.parts
    return Resaw(part=first, stock=stock, setting=setting, other=second)


def flattened_whole(plan: Plan, board_plan: BoardPlan) -> bool:
    """Return whether a board is flattened before its parts are sawn out, as its forecasts take it to be.

    What is not known to be crooked is sawn first.
    """
    board = board_plan.board
    crooked = not board.by_figures or any(figure.mm for figure in (board.cup, board.bow, board.twist))
    return crooked and board.id not in plan.project.cut_first


def flattening(plan: Plan, board_plan: BoardPlan) -> FlattenBoard:
    """Return how a board is flattened: as thick as the thickest of its parts."""
    board, finished = board_plan.board, [item.part.finished for item in board_plan.placed]
    thick = max(each.mm for each in finished if each is not None)
    return FlattenBoard(
        part=board_plan.placed[0].part.parts[0],
        stock=Stock(board.length.mm, board.width.mm, board.thickness.mm),
        board=board.id,
        setting=by_rule("thickness", thick, Surface.FACE_SIDE, plan.marks, Direction.UP),
        portions=plan.project.first_cut(board.id) is not None,
    )
