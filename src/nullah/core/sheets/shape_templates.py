"""Full-size templates of what is sawn or planed to a curve: arches, feet, outlines, rounded edges.

Each comes from the operations that shape a part: it is cut from paper or card along the curve, laid on the part with
its edges at the part's own, and drawn round.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from nullah.core.catalogue import N_
from nullah.core.drawing import Element, Fill, Path, Role, drawing, line, rectangle
from nullah.core.joints.steps import shaped
from nullah.core.lengths import from_float
from nullah.core.operations.regions import PrismRegion
from nullah.core.operations.shaping import RoundEdge, SawArch, SawOgee, SawOutline
from nullah.core.operations.stock import Stock, surface_at
from nullah.core.piece.frames import frames_of
from nullah.core.plan import Plan
from nullah.core.polygons import Point, beyond
from nullah.core.sheets.page import Sheet
from nullah.core.sheets.tiling import tiled

_CURVED = (SawArch, SawOgee, SawOutline, RoundEdge)
#: So much of a part is on a template beyond its curve, mm.
_AROUND = 25.0
#: What is looked at along each axis: the axes to the right and up, and what that view is called.
_VIEWS = {2: (0, 1, N_("face")), 1: (0, 2, N_("edge")), 0: (1, 2, N_("end"))}


def shape_templates(plan: Plan) -> Iterator[Sheet]:
    """Make a template of every curve of every part, once for equal parts."""
    frames, number = frames_of(plan.assembly), 0
    done: set[tuple[str, int, object]] = set()
    for part in plan.parts:
        curved = [each for each in shaped(frames[part.id], plan.marks) or () if isinstance(each, _CURVED)]
        for axis in sorted({region.axis for each in curved for region in _prisms(each.takes)}, reverse=True):
            shapes = tuple(region.polygon for each in curved for region in _prisms(each.takes) if region.axis == axis)
            if (part.alike, axis, shapes) in done:
                continue
            done.add((part.alike, axis, shapes))
            number += 1
            yield from _pages(plan, part.id, f"shape-{number}-{part.id}", frames[part.id].stock, axis, shapes)


def _prisms(regions: Sequence[object]) -> list[PrismRegion]:
    return [each for each in regions if isinstance(each, PrismRegion)]


def _pages(
    plan: Plan, part: str, name: str, stock: Stock, axis: int, shapes: Sequence[Sequence[Point]]
) -> Iterator[Sheet]:
    right, up, view = _VIEWS[axis]
    wide, high = float(stock[right]), float(stock[up])
    flat = [_flat(shape, axis, right) for shape in shapes]
    clipped = [_clipped(shape, wide, high) for shape in flat]
    xs, ys = [x for shape in clipped for x, _ in shape], [y for shape in clipped for _, y in shape]
    low, top = (max(0.0, min(values) - _AROUND) for values in (xs, ys))
    far, bottom = min(wide, max(xs) + _AROUND), min(high, max(ys) + _AROUND)
    shown = drawing(_drawn(clipped, (low, far, wide), (top, bottom, high)))
    alike = [each.id for each in plan.parts if each.alike == next(p.alike for p in plan.parts if p.id == part)]
    # What is shown begins at the part's own end and edge, or so far from them.
    words = plan.reader.text(
        N_("{parts}: {view}. Left: {along} from the {end}; below: {beside} from the {edge}"),
        parts=plan.reader.together(alike),
        view=plan.reader.text(view),
        along=plan.reader.fine(from_float(low)),
        beside=plan.reader.fine(from_float(top)),
        end=plan.reader.text(surface_at(right, False).value),
        edge=plan.reader.text(surface_at(up, False).value),
    )
    title, of = plan.reader.text(N_("Template of a shape, full size")), plan.reader.together(alike)
    yield from tiled(name, plan.project.piece.name, title, of, words, shown, (far - low, bottom - top), plan.reader)


def _flat(shape: Sequence[Point], axis: int, right: int) -> list[Point]:
    """Return a polygon, whose points are in cyclic order of the axes, as points to the right and up."""
    return [(a, b) if (axis + 1) % 3 == right else (b, a) for a, b in shape]


def _clipped(shape: Sequence[Point], wide: float, high: float) -> list[Point]:
    """Return what of a shape lies within the part."""
    found = list(shape)
    for point, normal in (((0, 0), (1, 0)), ((0, 0), (0, 1)), ((wide, high), (-1, 0)), ((wide, high), (0, -1))):
        found = beyond(found, point, normal)
    return found


def _drawn(
    shapes: Sequence[Sequence[Point]], across: tuple[float, float, float], upright: tuple[float, float, float]
) -> Iterator[Element]:
    """Yield what is wasted, and the part's own edges as far as they are shown; the rest is broken off faintly."""
    (left, right, wide), (low, high, tall) = across, upright
    yield rectangle(0, 0, right - left, high - low, Role.FAINT)
    for shape in shapes:
        yield Path(tuple((x - left, high - y) for x, y in shape), Role.KNIFE, closed=True, fill=Fill.WASTE)
    for own, start, end in (
        (left == 0, (0.0, 0.0), (0.0, high - low)),
        (right == wide, (right - left, 0.0), (right - left, high - low)),
        (low == 0, (0.0, high - low), (right - left, high - low)),
        (high == tall, (0.0, 0.0), (right - left, 0.0)),
    ):
        if own:
            yield line(start, end, Role.OUTLINE)
