"""How shapings that are told by operations are made: tapers, and recesses for hinges."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from nullah.core.lengths import Direction, Marks, from_float
from nullah.core.operations.lines import LineKind
from nullah.core.operations.marking import Gauge
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import by_rule
from nullah.core.operations.shaping import PlaneTaper
from nullah.core.operations.stock import Surface, surface_at
from nullah.core.operations.taking import Bound, Cut, Take
from nullah.core.piece.frame import Frame
from nullah.core.piece.shaping import Notch, Shaping, Taper
from nullah.core.piece.space import Box


def shaping_operations(frame: Frame, shaping: Shaping, marks: Marks) -> tuple[Operation, ...] | None:
    """Return how a shaping is made; None for one that is not told so yet."""
    match shaping:
        case Taper(sides, end, start, toe):
            return tuple(
                PlaneTaper(
                    part=frame.part.id,
                    stock=frame.stock,
                    end=frame.surface(end),
                    toe=by_rule("toe", from_float(toe).mm, frame.surface(side), marks),
                    start=(
                        by_rule("start", from_float(start).mm, frame.surface(end.opposite), marks) if start else None
                    ),
                )
                for side in sorted(sides, key=lambda side: side.value)
            )
        case Notch():
            return tuple(_recess(frame, shaping, marks))
        case _:
            return None


def _recess(frame: Frame, notch: Notch, marks: Marks) -> Iterator[Operation]:
    """Yield the lines of a recess where it ends inside the wood, and its chopping."""
    corner = frame.part.box.low
    low, high = (
        tuple(base + Fraction(str(at)) for base, at in zip(corner, place, strict=True))
        for place in (notch.low, notch.high)
    )
    spans = frame.spans(Box((low[0], low[1], low[2]), (high[0], high[1], high[2])))
    name = f"recess at {float(spans[0][0]):.0f}"
    bounds: list[tuple[Bound, Bound]] = []
    into = Surface.OTHER_EDGE
    for axis, (start, end) in enumerate(spans):
        whole = frame.finished[axis]
        pair: list[Bound] = []
        for number, (at, is_high, border) in enumerate(((start, False, whole[0]), (end, True, whole[1]))):
            surface = surface_at(axis, is_high)
            if (at >= border) if is_high else (at <= border):
                pair.append(surface)
                into = surface if axis == 1 else into
                continue
            nearer = surface_at(axis, 2 * at > frame.stock[axis])
            distance = frame.stock[axis] - at if nearer.high else at
            line = Gauge(
                part=frame.part.id,
                stock=frame.stock,
                kind=LineKind.OUTLINE,
                setting=by_rule("outline", distance, nearer, marks, Direction.NEAREST),
                number=2 * axis + number + 1,
                of=name,
            )
            yield line
            pair.append(line.line)
        bounds.append((pair[0], pair[1]))
    yield Take(
        part=frame.part.id, stock=frame.stock, cut=Cut.RECESS, into=into, x=bounds[0], y=bounds[1], z=bounds[2], of=name
    )
