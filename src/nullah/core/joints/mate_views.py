"""A mate at true scale: its face, its edge below and its end beside it, with waste, lines and measures.

All is measured from the reference end (as a rule at the left), the edge (as a rule below) and the face. Where a part
is long only the joint and its surroundings are drawn, broken off.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from nullah.core.drawing import Anchor, Dimension, Element, Fill, Label, Path, Point, Role, grain_lines, line, rectangle
from nullah.core.joints.cutouts import Cutout
from nullah.core.joints.kinds import Mate
from nullah.core.lengths import Length, Marks, from_float
from nullah.core.named_tuple import NamedTuple
from nullah.core.reader import Reader
from nullah.core.refs import PartRef, quantity_ref

# So much is drawn beyond the joint, and no more than this of a long channel, mm.
_AROUND, _MOST = 45.0, 260.0
_GAP = 26.0


class Named(NamedTuple):
    """The ledger's names for what is measured on a mate: along, across and through it, and the state of each."""

    along: str = ""
    across: str = ""
    through: str = ""


class _Shown(NamedTuple):
    """What of a part is drawn: from where to where along it, and which ends of it are its own, mm."""

    low: float
    high: float
    starts: bool
    ends: bool


def shown_part(mate: Mate) -> _Shown:
    """Return which stretch of a part is drawn."""
    long = float(mate.sizes.along)
    spans = [cut.along for cut in mate.cutouts]
    spans += [mate.touch.along] if mate.touch is not None else []
    if mate.slope is not None:
        places = [along for along, _ in mate.slope.corners]
        spans.append((min(places), max(places)))
    if not spans:
        return _Shown(0.0, min(long, _MOST), True, long <= _MOST)
    low, high = min(float(span[0]) for span in spans), max(float(span[1]) for span in spans)
    low, high = max(0.0, low - _AROUND), min(long, high + _AROUND)
    # Near an end the end itself is shown: it is measured from.
    low, high = (0.0 if low < _AROUND else low), (long if high > long - _AROUND else high)
    if high - low > _MOST:
        low, high = (low, low + _MOST) if low == 0 else (high - _MOST, high) if high == long else (low, low + _MOST)
    return _Shown(low, high, low == 0.0, high == long)


class Hole(NamedTuple):
    """Where a nail or screw goes through a part, mm along, across and through it; `way` it goes: 0, 1 or 2 of those."""

    along: float
    across: float
    through: float
    way: int


def mate_views(
    mate: Mate, species: str, marks: Marks, named: Named = Named(), holes: Sequence[Hole] = ()
) -> Iterator[Element]:
    """Draw a mate: face view with its upper left corner at (0, 0), edge view below, end view to the right."""
    shown = shown_part(mate)
    long, wide, thick = shown.high - shown.low, float(mate.sizes.across), float(mate.sizes.through)
    ref = PartRef(mate.part.id)
    from_below = is_from_below(mate)
    yield rectangle(0, 0, long, wide, fill=Fill.WOOD, species=species, ref=ref)
    yield from grain_lines(0, 0, long, wide, mate.part.id, ref=ref)
    yield from _breaks(shown, long, 0, wide)
    for cut in mate.cutouts:
        yield from _waste(_face_rect(cut, shown, wide), _open_to_face(cut, mate, from_below))
    edge_y = wide + _GAP
    # The edge that is drawn is the reference edge, but where the joint is cut into the other one.
    far_edge = bool(mate.cutouts) and all(
        cut.across[0] > 0 and cut.across[1] == mate.sizes.across for cut in mate.cutouts
    )
    yield rectangle(0, edge_y, long, thick, fill=Fill.WOOD, species=species, ref=ref)
    yield from _breaks(shown, long, edge_y, thick)
    for cut in mate.cutouts:
        seen = cut.across[1] == mate.sizes.across if far_edge else cut.across[0] == 0
        yield from _waste(_edge_rect(cut, shown, edge_y, thick, from_below), seen)
    end_x = long + _GAP
    yield rectangle(end_x, 0, thick, wide, fill=Fill.END_GRAIN, species=species, ref=ref)
    for cut in mate.cutouts:
        at_end = cut.along[0] == 0 or cut.along[1] == mate.sizes.along
        yield from _waste(_end_rect(cut, end_x, wide, thick, from_below), at_end)
    yield from _sloped(mate, shown, edge_y, from_below)
    yield from _touched(mate, shown, edge_y, end_x)
    yield from _holes(mate, shown, holes, edge_y, end_x, marks)
    yield from _measures(mate, shown, marks, named, edge_y, end_x, from_below)
    reader = Reader(marks)
    yield Label(
        (0, 0), reader.text("{part}: face", part=mate.part.name), 2.9, Anchor.START, Role.FAINT, nudge_mm=(0, -20)
    )
    yield Label(
        (0, edge_y + thick),
        reader.text("far edge") if far_edge else reader.text("edge"),
        2.9,
        Anchor.START,
        Role.FAINT,
        nudge_mm=(0, 3),
    )
    yield Label((end_x, 0), reader.text("end"), 2.9, Anchor.START, Role.FAINT, nudge_mm=(0, -3))


def extent_of(mate: Mate) -> tuple[float, float]:
    """Return how wide and how high the three views are together, mm."""
    shown = shown_part(mate)
    thick = float(mate.sizes.through)
    return shown.high - shown.low + _GAP + thick, float(mate.sizes.across) + _GAP + thick


def edge_view_from(mate: Mate) -> float:
    """Return how far down the edge view begins, mm."""
    return float(mate.sizes.across) + _GAP


def is_from_below(mate: Mate) -> bool:
    """Whether the part is seen from its low face: the one the joint is cut into."""
    return any(cut.through[0] == 0 and cut.through[1] < mate.sizes.through for cut in mate.cutouts)


def _open_to_face(cut: Cutout, mate: Mate, from_below: bool) -> bool:
    return cut.through[0] == 0 if from_below else cut.through[1] == mate.sizes.through


Rect = tuple[float, float, float, float]


def _clipped(low: float, high: float, shown: _Shown) -> tuple[float, float]:
    return max(low, shown.low) - shown.low, min(high, shown.high) - shown.low


def _face_rect(cut: Cutout, shown: _Shown, wide: float) -> Rect:
    x0, x1 = _clipped(float(cut.along[0]), float(cut.along[1]), shown)
    return x0, wide - float(cut.across[1]), x1 - x0, float(cut.size(1))


def _edge_rect(cut: Cutout, shown: _Shown, top: float, thick: float, from_below: bool) -> Rect:
    # The face that was drawn lies uppermost.
    x0, x1 = _clipped(float(cut.along[0]), float(cut.along[1]), shown)
    y = float(cut.through[0]) if from_below else thick - float(cut.through[1])
    return x0, top + y, x1 - x0, float(cut.size(2))


def _end_rect(cut: Cutout, left: float, wide: float, thick: float, from_below: bool) -> Rect:
    x = float(cut.through[0]) if from_below else thick - float(cut.through[1])
    return left + x, wide - float(cut.across[1]), float(cut.size(2)), float(cut.size(1))


def _waste(rect: Rect, seen: bool) -> Iterator[Element]:
    """Draw waste: knifed and hatched where it is seen, dashed where it is behind wood."""
    x, y, wide, high = rect
    if wide <= 0 or high <= 0:
        return
    if seen:
        yield rectangle(x, y, wide, high, Role.KNIFE, Fill.WASTE)
    else:
        yield rectangle(x, y, wide, high, Role.HIDDEN)


def _sloped(mate: Mate, shown: _Shown, edge_y: float, from_below: bool) -> Iterator[Element]:
    """Draw the waste of a mitre where its line is seen."""
    if mate.slope is None:
        return
    wide, thick = float(mate.sizes.across), float(mate.sizes.through)
    corners: list[Point] = []
    for along, other in mate.slope.corners:
        x = float(along) - shown.low
        if mate.slope.on_face:
            corners.append((x, wide - float(other)))
        else:
            corners.append((x, edge_y + (float(other) if from_below else thick - float(other))))
    yield Path(tuple(corners), Role.KNIFE, closed=True, fill=Fill.WASTE)


def _touched(mate: Mate, shown: _Shown, edge_y: float, end_x: float) -> Iterator[Element]:
    """Draw, in pencil, where the other part lies against this one."""
    touch = mate.touch
    if touch is None:
        return
    wide, thick = float(mate.sizes.across), float(mate.sizes.through)
    x0, x1 = _clipped(float(touch.along[0]), float(touch.along[1]), shown)
    y0, y1 = wide - float(touch.across[1]), wide - float(touch.across[0])
    z0, z1 = thick - float(touch.through[1]), thick - float(touch.through[0])
    if touch.size(2) == 0:
        yield rectangle(x0, y0, x1 - x0, y1 - y0, Role.PENCIL, Fill.PENCIL)
    elif touch.size(1) == 0:
        yield rectangle(x0, edge_y + z0, x1 - x0, z1 - z0, Role.PENCIL, Fill.PENCIL)
    elif touch.size(0) == 0:
        yield rectangle(end_x + z0, y0, z1 - z0, y1 - y0, Role.PENCIL, Fill.PENCIL)


def _holes(
    mate: Mate, shown: _Shown, holes: Sequence[Hole], edge_y: float, end_x: float, marks: Marks
) -> Iterator[Element]:
    """Mark where nails or screws go in with a cross, and how far the first and the second are from the end."""
    wide, thick = float(mate.sizes.across), float(mate.sizes.through)
    places: list[Point] = []
    for hole in holes:
        x, y, z = hole.along - shown.low, wide - hole.across, thick - hole.through
        at = {2: (x, y), 1: (x, edge_y + z), 0: (end_x + z, y)}[hole.way]
        if hole.way != 0 and not shown.low <= hole.along <= shown.high:
            continue
        places.append(at)
        yield line((at[0] - 3, at[1]), (at[0] + 3, at[1]), Role.KNIFE)
        yield line((at[0], at[1] - 3), (at[0], at[1] + 3), Role.KNIFE)
    if len(places) > 1:
        upright = places[0][0] == places[1][0]
        apart = from_float(abs(places[1][1] - places[0][1]) + abs(places[1][0] - places[0][0]))
        yield Dimension(places[0], places[1], marks.write_setting(apart), 5 if upright else -5)


def _breaks(shown: _Shown, long: float, top: float, high: float) -> Iterator[Element]:
    """Draw the ends that are only broken off: a wavy line in place of a straight one."""
    for x, own in ((0.0, shown.starts), (long, shown.ends)):
        if own:
            continue
        points: list[Point] = [(x + (2.2 if step % 2 else -2.2), top + high * step / 8) for step in range(9)]
        yield line((x, top), (x, top + high), Role.BARE)
        yield Path(tuple(points), Role.PENCIL)


def _measures(
    mate: Mate, shown: _Shown, marks: Marks, named: Named, edge_y: float, end_x: float, from_below: bool
) -> Iterator[Element]:
    """Measure the first cutout from the reference end and edge, and its size all three ways."""
    if not mate.cutouts:
        return
    wide, thick = float(mate.sizes.across), float(mate.sizes.through)
    cut = mate.cutouts[0]
    x0, x1 = _clipped(float(cut.along[0]), float(cut.along[1]), shown)

    def write(value: object) -> str:
        assert not isinstance(value, str)
        return marks.write_setting(Length(value))  # type: ignore[arg-type]

    from_end, from_edge = (mate.part.measured_from_high(axis) for axis in (mate.part.grain, mate.part.across))
    through = cut.size(0) == mate.sizes.along
    if not through:
        beyond = mate.sizes.along - cut.along[1]
        if from_end and beyond > 0:
            yield Dimension((x1, 0), (shown.high - shown.low, 0), write(beyond), 13)
        elif cut.along[0] > 0 and not from_end:
            yield Dimension((0, 0), (x0, 0), write(cut.along[0]), 13)
        yield Dimension((x0, 0), (x1, 0), write(cut.size(0)), 5, ref=quantity_ref(named.along))
    if cut.size(1) < mate.sizes.across:
        y0, y1 = wide - float(cut.across[0]), wide - float(cut.across[1])
        beyond = mate.sizes.across - cut.across[1]
        if from_edge and beyond > 0:
            yield Dimension((0, y1), (0, 0), write(beyond), 13)
        elif cut.across[0] > 0 and not from_edge:
            yield Dimension((0, wide), (0, y0), write(cut.across[0]), 13)
        yield Dimension((0, y0), (0, y1), write(cut.size(1)), 5, ref=quantity_ref(named.across))
    if cut.size(2) < mate.sizes.through:
        z0 = float(cut.through[0]) if from_below else thick - float(cut.through[1])
        z1 = z0 + float(cut.size(2))
        # From the face that is drawn at the left, unless the part says which is its face side.
        given = any(side.axis is mate.part.face for side in mate.part.references)
        from_low = not mate.part.measured_from_high(mate.part.face) if given else from_below
        beside = cut.through[0] if from_low else mate.sizes.through - cut.through[1]
        if beside > 0:
            start, end = (0.0, z0) if from_low is from_below else (z1, thick)
            yield Dimension((end_x + start, wide), (end_x + end, wide), write(beside), -13)
        yield Dimension((end_x + z0, wide), (end_x + z1, wide), write(cut.size(2)), -5, ref=quantity_ref(named.through))
