"""The picture of what is done to a part: its blank in three views, the lines, what goes hatched, and the figures.

All of it comes from the operations' own fields: a wrong figure makes a wrong picture.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from math import cos, pi, sin

from nullah.core.drawing import (
    Anchor,
    Dimension,
    Drawing,
    Element,
    Fill,
    Label,
    Path,
    Point,
    Role,
    drawing,
    grain_lines,
    rectangle,
)
from nullah.core.drawing import line as stroke
from nullah.core.fraction import Fraction
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.lines import Line, LineKind
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import BeyondRegion, BoreRegion, HullRegion, PrismRegion, Region
from nullah.core.operations.settings import ToolSetting
from nullah.core.operations.stock import Stock, Surface, X, Y, Z
from nullah.core.polygons import beyond, hull
from nullah.core.reader import Reader
from nullah.core.refs import quantity_ref
from nullah.core.wording.tools import figure_words, view_words

#: Between two views, as a share of the blank's longest side, and mm at the least.
_GAP, _LEAST_GAP = 0.18, 26.0
#: Paper mm between two dimensions side by side.
_STEP = 6.5
#: Corners of a round hole as it is drawn.
_ROUND = 24
#: So much of a long blank is drawn on either side of what is done to it, and no more than this in all, mm.
_AROUND, _MOST = 45.0, 260.0


class _View(NamedTuple):
    """A view of a blank: the axes to the right and down, and from which surface it is seen."""

    right: int
    down: int
    seen: Surface

    @property
    def through(self) -> int:
        """The axis one looks along."""
        return 3 - self.right - self.down


_VIEWS = (_View(X, Y, Surface.FACE_SIDE), _View(X, Z, Surface.FACE_EDGE), _View(Z, Y, Surface.REFERENCE_END))


class _Sheet(NamedTuple):
    """A blank as it is drawn: whole, or broken off on either side of what is done to it, mm along the grain."""

    stock: Stock
    low: float
    high: float

    @property
    def breaks(self) -> Iterator[float]:
        """Where it is broken off, mm from its left as drawn."""
        if self.low > 0:
            yield 0.0
        if self.high < float(self.stock.length):
            yield self.high - self.low


def draw_operations(operations: Sequence[Operation], reader: Reader, species: str = "") -> Drawing:
    """Draw what some operations do to the first of their parts, the whole blank.

    Parameters
    ----------
    operations : sequence of Operation
        Of equal parts, in their order.
    reader : Reader
        For whom figures are written.
    species : str
        What the wood is drawn as.
    """
    if not operations:
        return Drawing()
    part, stock = operations[0].part, operations[0].stock
    of_part = [each for each in operations if each.part == part]
    return _drawn(_Sheet(stock, 0.0, float(stock.length)), of_part, (), reader, species)


def draw_part(
    stock: Stock,
    every: Sequence[Operation],
    now: Sequence[Operation],
    done: Sequence[Operation],
    reader: Reader,
    species: str = "",
) -> Drawing:
    """Draw a part as it is while something is done to it: what went before is gone, what goes now is hatched.

    Parameters
    ----------
    stock : Stock
        Its blank.
    every : sequence of Operation
        All that is ever shown of it: a long blank is broken off on either side of that.
    now, done : sequence of Operation
        What is done in this picture, and what was done before.
    reader : Reader
        For whom figures are written.
    species : str
        What the wood is drawn as.
    """
    return _drawn(_stretch(stock, every), now, done, reader, species)


def _stretch(stock: Stock, operations: Sequence[Operation]) -> _Sheet:
    """Return the stretch of a blank that shows what is done to it; near an end the end itself."""
    long = float(stock.length)
    spans = [_along(region) for each in operations for region in each.takes]
    spans += [(float(line.at), float(line.at)) for each in operations for line in each.draws if line.axis == X]
    places = [at for span in spans for at in span if 0 <= at <= long]
    if long <= _MOST or not places:
        return _Sheet(stock, 0.0, min(long, _MOST))
    low, high = max(0.0, min(places) - _AROUND), min(long, max(places) + _AROUND)
    low, high = (0.0 if low < _AROUND else low), (long if high > long - _AROUND else high)
    if high - low > _MOST:
        low, high = (long - _MOST, long) if high == long and low > 0 else (low, low + _MOST)
    return _Sheet(stock, low, high)


def _along(region: Region) -> tuple[float, float]:
    """Return from where to where a region goes along the grain, mm."""
    match region:
        case PrismRegion(0, _, start, end) | BoreRegion(0, _, _, start, end):
            return start, end
        case PrismRegion(axis, polygon):
            places = [point[1 if axis == Y else 0] for point in polygon]
        case BoreRegion(axis, centre):
            places = [centre[1 if axis == Y else 0]]
        case HullRegion(points):
            places = [point[0] for point in points]
        case BeyondRegion(point, normal):
            places = [point[0]] if abs(normal[0]) > 0.5 else []
    return (min(places), max(places)) if places else (-1.0, -1.0)


def _drawn(sheet: _Sheet, now: Sequence[Operation], done: Sequence[Operation], reader: Reader, species: str) -> Drawing:
    long, wide = sheet.high - sheet.low, float(sheet.stock.width)
    gap = max(_GAP * max(long, wide), _LEAST_GAP)
    places = {_VIEWS[0]: (0.0, 0.0), _VIEWS[1]: (0.0, wide + gap), _VIEWS[2]: (long + gap, 0.0)}
    found = Drawing()
    for view, place in places.items():
        found += drawing(_view(view, sheet, now, done, reader, species)).moved(*place)
    return found


def room_above(shown: Drawing) -> float:
    """Return how far its figures reach up beyond the blank, paper mm."""
    across = (each for each in shown.elements if isinstance(each, Dimension) and each.start[1] == each.end[1] == 0)
    return max((each.offset_mm + _STEP for each in across), default=0.0)


def _view(
    view: _View, sheet: _Sheet, now: Sequence[Operation], done: Sequence[Operation], reader: Reader, species: str
) -> Iterator[Element]:
    stock = sheet.stock
    wide = sheet.high - sheet.low if view.right == X else float(stock[view.right])
    high = float(stock[view.down])
    fill = Fill.END_GRAIN if view.through == X else Fill.WOOD
    yield rectangle(0, 0, wide, high, fill=fill, species=species)
    if view.through != X:
        yield from grain_lines(0, 0, wide, high, view.seen.name)
    gone = dict.fromkeys(region for each in done for region in each.takes)
    going = dict.fromkeys(region for each in now for region in each.takes if region not in gone)
    # What is looked at along the way it is cut stands over what only has its outline here.
    for region in sorted((*gone, *going), key=lambda each: _whole(each, view)):
        corners = _seen(region, view, sheet)
        if len(corners) > 2 and _whole(region, view):
            yield Path(tuple(corners), Role.OUTLINE, closed=True, fill=Fill.PAPER if region in gone else Fill.WASTE)
        elif len(corners) > 2:
            yield Path(tuple(corners), Role.HIDDEN, closed=True)
    if view.right == X:
        for at in sheet.breaks:
            yield from _break(at, high)
    surface = _surface_of(view, now)
    for line in dict.fromkeys(line for each in (*done, *now) for line in (*each.draws, *each.needs)):
        yield from _line(line, view, surface, sheet, wide, high)
    name = view_words(surface, surface is not view.seen, reader)
    yield Label((0.0, high), name, 2.8, Anchor.START, Role.FAINT, nudge_mm=(0, 5))
    yield from _figures(view, sheet, now, reader)


def _break(at: float, high: float) -> Iterator[Element]:
    """Draw the line at which a long blank is broken off."""
    steps = [(-1.5, 0.0), (1.5, 0.35), (-1.5, 0.65), (1.5, 1.0)]
    points = [(at + off, share * high) for off, share in steps]
    yield Path(tuple(points), Role.FAINT)


def _surface_of(view: _View, now: Sequence[Operation]) -> Surface:
    """Return the surface that a view is of: the one behind where all that is drawn now lies on that alone."""
    lines = [line for each in now for line in (*each.draws, *each.needs) if line.axis is not None]
    there = [line for line in lines if {view.seen, view.seen.opposite} & set(line.on)]
    behind = bool(there) and all(view.seen not in line.on for line in there)
    return view.seen.opposite if behind else view.seen


def _line(line: Line, view: _View, surface: Surface, sheet: _Sheet, wide: float, high: float) -> Iterator[Element]:
    """Draw a line that lies on the surface of the view; dashed where it lies on the one behind it."""
    if line.axis is None or not {view.seen, view.seen.opposite} & set(line.on):
        return
    role = Role.PENCIL if line.kind in (LineKind.BEVEL, LineKind.ROW, LineKind.PLACE) else Role.KNIFE
    if surface not in line.on:
        role = Role.HIDDEN
    at = float(line.at)
    if line.axis == view.right:
        at -= sheet.low if view.right == X else 0.0
        if 0 <= at <= wide:
            yield stroke((at, 0.0), (at, high), role)
    elif line.axis == view.down:
        yield stroke((0.0, at), (wide, at), role)


def _figures(view: _View, sheet: _Sheet, operations: Sequence[Operation], reader: Reader) -> Iterator[Dimension]:
    """Dimension every setting that is measured from a surface, once, in the first view that shows it.

    From an end that is broken off, only so much of it is drawn as is there.
    """
    stock = sheet.stock
    told: dict[tuple[Surface, Fraction], ToolSetting] = {}
    for setting in (setting for each in operations for setting in each.settings):
        if isinstance(setting.origin, Surface) and setting.value:
            told.setdefault((setting.origin, setting.figure), setting)
    rows = {True: 0, False: 0}
    for (surface, value), setting in sorted(told.items(), key=lambda item: item[0][1]):
        if surface.axis not in (view.right, view.down) or _shown_in(surface.axis) is not view:
            continue
        along = surface.axis == view.right
        start, end = sorted((float(stock.at(surface)), float(stock.place(surface, value))))
        if surface.axis == X:
            start, end = (min(max(at, sheet.low), sheet.high) - sheet.low for at in (start, end))
            if start == end:
                continue
        offset = 7.0 + _STEP * rows[along]
        rows[along] += 1
        text = figure_words(setting, reader)
        if along:
            yield Dimension((start, 0.0), (end, 0.0), text, offset, ref=quantity_ref(setting.quantity))
        else:
            yield Dimension((0.0, end), (0.0, start), text, offset, ref=quantity_ref(setting.quantity))


def _shown_in(axis: int) -> _View:
    """Return the view in which figures along an axis stand."""
    return _VIEWS[1] if axis == Z else _VIEWS[0]


# --- what of a region is seen ---------------------------------------------------------------------


def _whole(region: Region, view: _View) -> bool:
    """Return whether a view shows the true shape of a region: along its axis, or of a box from anywhere."""
    match region:
        case PrismRegion(axis, polygon):
            square = len(polygon) == 4 and len({a for a, _ in polygon}) == len({b for _, b in polygon}) == 2
            return square or axis == view.through
        case BoreRegion(axis):
            return axis == view.through
        case _:
            return True


def _seen(region: Region, view: _View, sheet: _Sheet) -> list[Point]:
    """Return the outline of a region in a view, within what is drawn of the blank."""
    stock = sheet.stock
    match region:
        case PrismRegion(axis, polygon, start, end):
            first = (axis + 1) % 3
            points = [{axis: at, first: a, (axis + 2) % 3: b} for at in sorted((start, end)) for a, b in polygon]
            flat = [(point[view.right], point[view.down]) for point in points]
            # Looked along its axis a prism is its polygon, which may be hollow.
            outline = flat[: len(polygon)] if axis == view.through else hull(flat)
        case BoreRegion(axis, (a, b), diameter, start, end):
            outline = _bore(axis, (a, b), diameter / 2, sorted((start, end)), view)
        case HullRegion(points=corners):
            outline = hull([(point[view.right], point[view.down]) for point in corners])
        case BeyondRegion(point=place, normal=normal):
            whole = [(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)]
            box = [(x * float(stock[view.right]), y * float(stock[view.down])) for x, y in whole]
            if abs(normal[view.through]) > max(abs(normal[view.right]), abs(normal[view.down])):
                return []
            return beyond(box, (place[view.right], place[view.down]), (normal[view.right], normal[view.down]))
    low, high = (sheet.low, sheet.high) if view.right == X else (0.0, float(stock[view.right]))
    for corner, sign in (((low, 0.0), 1.0), ((high, float(stock[view.down])), -1.0)):
        for inwards in ((sign, 0.0), (0.0, sign)):
            outline = beyond(outline, corner, inwards)
    return [(across - low, down) for across, down in outline]


def _bore(axis: int, centre: Point, radius: float, ends: Sequence[float], view: _View) -> list[Point]:
    """Return a hole as a round where one looks along it, else as a rectangle."""
    at = {(axis + 1) % 3: centre[0], (axis + 2) % 3: centre[1]}
    if axis == view.through:
        middle = (at[view.right], at[view.down])
        turns = (2 * pi * step / _ROUND for step in range(_ROUND))
        return [(middle[0] + radius * cos(turn), middle[1] + radius * sin(turn)) for turn in turns]
    (left, right), (top, bottom) = (
        (ends[0], ends[1]) if each == axis else (at[each] - radius, at[each] + radius)
        for each in (view.right, view.down)
    )
    return [(left, top), (right, top), (right, bottom), (left, bottom)]
