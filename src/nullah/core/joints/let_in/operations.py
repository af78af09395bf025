"""How channels are cut, and what of the part that enters them is cut: rabbets, grooves, dados, tongues, notches."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from nullah.core.card import JointStage
from nullah.core.fraction import Fraction
from nullah.core.joints.cutouts import subtract
from nullah.core.joints.making import BenchStep, Making
from nullah.core.lengths import Direction, Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.lines import Line, LineKind
from nullah.core.operations.marking import DRAWN_UP, Gauge, Marker
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ByMeasure, ToolSetting, by_mate, by_rule, of_line, of_tool
from nullah.core.operations.stock import Stock, Surface, X, Y, Z, surface_at
from nullah.core.operations.taking import Beside, Bound, Bounds, Cut, Take
from nullah.core.piece.frame import Frame, Span
from nullah.core.piece.overlap import lines as division
from nullah.core.piece.space import side_at

#: A channel that is nearer to the other end or edge than so many times its width is set off from there.
_CLOSE = 3


class _Box(NamedTuple):
    """A box that is cut out of a part: from where to where along its axes, and which of its surfaces it opens."""

    x: Span
    y: Span
    z: Span
    opens: frozenset[Surface]

    def open_at(self, axis: int) -> tuple[bool, bool]:
        """Return whether it is open at the low and at the high end of an axis."""
        return surface_at(axis, False) in self.opens, surface_at(axis, True) in self.opens

    def span(self, axis: int) -> Span:
        """Return from where to where it goes along an axis, mm."""
        return (self.x, self.y, self.z)[axis]


def channel_steps(making: Making) -> tuple[BenchStep, ...]:
    """Return the steps of a channel and of what enters it; none where a box cannot be told."""
    joint, host, guest = making.joint, making.first, making.second
    shared = division(joint, host.part, guest.part)
    found: list[BenchStep] = []
    entering: list[BenchStep] = []
    for box in shared.first_loses:
        made = _box(host, box.overlap(host.part.box))
        operations = _cut(making, host, guest, made, host=True) if made is not None else None
        if operations is None:
            return ()
        found += _steps(operations, "first")
    rest = () if shared.overlap is None else subtract(shared.overlap, shared.second_keeps)
    for box in rest:
        made = _box(guest, box)
        operations = _cut(making, guest, host, made, host=False) if made is not None else None
        if operations is None:
            return ()
        entering += _steps(operations, "second")
    if len(entering) > 1 and all(isinstance(each, Take) for step in entering for each in step.operations):
        # Nothing is marked for them: a tongue is rabbeted on both faces in one go.
        entering = [entering[0]._replace(operations=tuple(each for step in entering for each in step.operations))]
    # A notch is set to what the rabbet leaves of its mate, so that is made first.
    notched = any(isinstance(each, Take) and each.cut is Cut.NOTCH for step in found for each in step.operations)
    return (*entering, *found) if notched else (*found, *entering)


def _steps(operations: tuple[Operation, ...], at: str) -> Iterator[BenchStep]:
    marked = tuple(each for each in operations if isinstance(each, Gauge))
    taken = tuple(each for each in operations if not isinstance(each, Gauge))
    if marked:
        yield BenchStep(JointStage.GAUGED, at, marked)
    yield BenchStep(JointStage.CUT, at, taken)


def _box(frame: Frame, box: object) -> _Box | None:
    """Return a box of the piece as it lies in a part; where it opens an end it goes on through what is left long."""
    from nullah.core.piece.space import Box

    if not isinstance(box, Box):
        return None
    spans, opens = list(frame.spans(box)), set()
    for axis, (own, whole) in enumerate(zip(spans, frame.finished, strict=True)):
        low, high = own
        if low <= whole[0]:
            opens.add(surface_at(axis, False))
            low = Fraction(0)
        if high >= whole[1]:
            opens.add(surface_at(axis, True))
            high = frame.stock[axis]
        spans[axis] = (low, high)
    return _Box(spans[0], spans[1], spans[2], frozenset(opens))


def _cut(making: Making, frame: Frame, mate: Frame, box: _Box, host: bool) -> tuple[Operation, ...] | None:
    """Return how one box is cut out of a part, by how it is open; None for one that no hand cuts so."""
    cutting = _Cutting(making, frame, mate, box, host)
    sides = [axis for axis in (X, Y, Z) if sum(box.open_at(axis)) == 1]
    through = [axis for axis in (X, Y, Z) if sum(box.open_at(axis)) == 2]
    match (sides, through):
        case ([2], [0]) | ([2], []) | ([0, 2], []) if _longer_along(box) or through == [0]:
            return tuple(cutting.groove(Z, Y))
        case ([1, 2], []) if _longer_along(box):
            return tuple(cutting.stopped_rabbet())
        case ([2], [1]) | ([2], []) | ([1, 2], []):
            return tuple(cutting.dado())
        case ([1], [0]) | ([1], []) | ([0, 1], []):
            return tuple(cutting.groove(Y, Z))
        case ([1, 2], [0]):
            return tuple(cutting.rabbet())
        case ([0, 2], [1]) | ([0, 1, 2], []):
            return tuple(cutting.end_rabbet())
        case ([0, 1], [2]):
            return tuple(cutting.notch())
        case ([1], [2]):
            return tuple(cutting.open_notch(Y, X))
        case ([0], [2]):
            return tuple(cutting.open_notch(X, Y))
        case ([0], [1]):
            return tuple(cutting.end_slot())
        case ([], [2]):
            return tuple(cutting.hole())
    return None


def _longer_along(box: _Box) -> bool:
    return box.x[1] - box.x[0] >= box.y[1] - box.y[0]


class _Cutting:
    """Makes the operations of one box."""

    def __init__(self, making: Making, frame: Frame, mate: Frame, box: _Box, host: bool) -> None:
        self._making, self._frame, self._mate, self._box, self._host = making, frame, mate, box, host
        self._part, self._stock = frame.part.id, frame.stock
        names = making.joint.names
        self._names = names
        # The same for all that enter one channel, and another for each channel of a part.
        what = names.width if host and names.width else f"{making.joint.first}-{making.joint.second}"
        # Two may lie at one place, one in either face.
        behind = Surface.OTHER_FACE in box.opens and Surface.FACE_SIDE not in box.opens
        self._of = f"{what} at {float(box.x[0]):.1f}, {float(box.y[0]):.1f}{', behind' if behind else ''}"

    # --- parts of it ---

    def _into(self, axis: int) -> Surface:
        """Return the surface into which it is cut along an axis."""
        low, _ = self._box.open_at(axis)
        return surface_at(axis, not low)

    def _sunk(self, axis: int) -> Fraction:
        low, high = self._box.span(axis)
        return high - low

    def _depth(self, axis: int, name: str = "depth", way: Direction = Direction.NEAREST) -> ToolSetting:
        """Return how deep it is, from the surface into which it is cut."""
        quantity = self._names.depth if self._host else self._names.reach
        return by_rule(name, self._sunk(axis), self._into(axis), self._making.marks, way, quantity)

    def _pair(self, axis: int, inner: Bound) -> Bounds:
        """Return the bounds along an axis that is open at one end: that surface, and what the cut goes to."""
        into = self._into(axis)
        return (inner, into) if into.high else (into, inner)

    def _whole(self, axis: int) -> Bounds:
        return surface_at(axis, False), surface_at(axis, True)

    def _from(self, axis: int) -> tuple[Surface, Fraction, Fraction]:
        """Return the surface a channel is set off from, how far in its nearer wall lies, and how wide it is, mm."""
        low, high = self._box.span(axis)
        size, wide = self._stock[axis], high - low
        # One end and one edge serve for all, so that boards laid side by side agree; but for what lies close to the
        # other.
        if size - high < min(low, _CLOSE * wide):
            return surface_at(axis, True), size - high, wide
        return surface_at(axis, False), low, wide

    def _gauge(self, kind: LineKind, setting: ToolSetting, on: tuple[Surface, ...], **more: object) -> Gauge:
        return Gauge(part=self._part, stock=self._stock, kind=kind, setting=setting, on=on, of=self._of, **more)  # type: ignore[arg-type]

    def _stops(self, on: Surface) -> tuple[list[Gauge], Bounds]:
        """Return the lines at which a channel ends along the grain, and its bounds there."""
        return self._stops_along(X, on)

    def _stops_along(self, axis: int, on: Surface) -> tuple[list[Gauge], Bounds]:
        lines: list[Gauge] = []
        bounds: list[Bound] = []
        for high, is_open in zip((False, True), self._box.open_at(axis), strict=True):
            surface = surface_at(axis, high)
            if is_open:
                bounds.append(surface)
                continue
            place = self._box.span(axis)[high]
            drawn = self._drawn_at(axis, high, (on,))
            if drawn is not None:
                bounds.append(drawn)
                continue
            if self._host and self._making.joint.laid_out_by is not None:
                # It ends in the channel of what stands across, that is cut to its outer wall: nothing shows beside it.
                place += (-1 if high else 1) * (self._box.span(self.wide)[1] - self._box.span(self.wide)[0]) / 4
            # A channel that is a little longer does no harm; a shorter one keeps out a mate that has no room.
            roomy = 2 * self._making.joint.room[self._frame.axes[axis].value] >= self._making.marks.smallest.mm
            nearer, distance = _nearer(self._stock, axis, place)
            longer = Direction.DOWN if nearer is surface else Direction.UP
            way = Direction.NEAREST if roomy else longer
            setting = by_rule("stop", distance, nearer, self._making.marks, way, self._names.stop)
            lines.append(self._gauge(LineKind.STOP, setting, (on,), end=surface))
            bounds.append(lines[-1].line)
        return lines, (bounds[0], bounds[1])

    # --- kinds of cuts ---

    def groove(self, deep: int, wide: int) -> Iterator[Operation]:
        """Yield a groove along the grain, sunk along one axis, as wide as it is along the other."""
        shop = self._making.shop
        surface, distance, width = self._from(wide)
        into, depth = self._into(deep), self._depth(deep)
        stops, along = self._stops(into)
        level = self._making.joint.level_with if self._host else ""
        iron = next((each for each in shop.plough_irons if each.mm == width), None)
        fence = by_rule("fence", distance, surface, self._making.marks)
        stopped = any(isinstance(bound, Line) for bound in along)
        if iron is not None and not stopped and not level and depth.figure <= shop.plough_deepest.mm:
            beside = Beside(of_tool("iron", iron, quantity=self._names.width))
            across: Bounds = (beside, fence) if surface.high else (fence, beside)
            yield self._take(Cut.PLOUGH, into, {X: along, wide: across, deep: self._pair(deep, depth)})
            return
        if level:
            # The gauge is set to the part that comes level with this wall, from the edge that they share.
            surface = surface.opposite
            wall = by_mate("first wall", self._stock[wide] - distance - width, surface, level)
            first = self._gauge(LineKind.WALL, wall, (into,))
        else:
            first = self._first_wall(wide, (into,))
        second = self._second_wall(first, width, (into,), backwards=surface.high)
        yield from (first, second, *stops)
        walls = sorted((first.line, second.line), key=lambda line: line.at)
        narrower = shop.plough_iron(Length(width))
        cut = Cut.CHISEL_GROOVE if stopped or narrower is None else Cut.PLOUGH_TO_LINES
        tools = self._making.chisel(width) if cut is Cut.CHISEL_GROOVE else (of_tool("iron", narrower),)  # type: ignore[arg-type]
        bounds: dict[int, Bounds] = {X: along, wide: (walls[0], walls[1]), deep: self._pair(deep, depth)}
        yield self._take(cut, into, bounds, tools)

    def _first_wall(self, axis: int, on: tuple[Surface, ...], **more: object) -> Gauge:
        """Return the wall that is set off: from the nearer surface, or by what stands together in it and one before."""
        surface, distance, _ = self._from(axis)
        by = self._making.joint.laid_out_by if self._host else None
        for other in self._laid_out_before():
            if by is not None and other.wide == axis and other._from(axis)[0] is not surface:
                base = other._first_wall(axis, on).line
                over = by.over[self._frame.axes[axis].value]
                setting = ToolSetting("over", over.length, of_line(base), ByMeasure(over.quantity))
                return self._gauge(LineKind.WALL, setting, on, base=base, backwards=not surface.high, **more)
        setting = by_rule("first wall", distance, surface, self._making.marks)
        return self._gauge(LineKind.WALL, setting, on, **more)

    def _laid_out_before(self) -> Iterator[_Cutting]:
        """Yield the channels that are laid out before this one, by what stands together in all of them."""
        by = self._making.joint.laid_out_by if self._host else None
        for joint in by.before if by is not None else ():
            for channel in division(joint, self._frame.part, self._mate.part).first_loses:
                box = _box(self._frame, channel.overlap(self._frame.part.box))
                if box is not None:
                    yield _Cutting(self._making._replace(joint=joint), self._frame, self._mate, box, host=True)

    def _drawn_at(self, axis: int, high: bool, on: tuple[Surface, ...]) -> Line | None:
        """Return the wall of a channel across that was drawn already where this one ends."""
        for other in self._laid_out_before():
            surface = other._from(axis)[0]
            if other.wide == axis and surface.high == high and other.box.span(axis)[high] == self._box.span(axis)[high]:
                return other._first_wall(axis, on).line
        return None

    @property
    def box(self) -> _Box:
        """What is cut out."""
        return self._box

    @property
    def wide(self) -> int:
        """The axis across a channel in a face."""
        return Y if _longer_along(self._box) else X

    def _second_wall(self, first: Gauge, width: Fraction, on: tuple[Surface, ...], backwards: bool) -> Gauge:
        """Return the other wall: traced from what goes in, or with a rule where that is fitted later or has room."""
        base = first.line
        if self._tongued(width) or self._roomy(base.axis):
            setting = by_rule("wide", width, of_line(base), self._making.marks, quantity=self._names.width)
        else:
            setting = by_mate("wide", width, of_line(base), self._sets_width, self._names.width)
        return self._gauge(LineKind.SECOND_WALL, setting, on, base=base, backwards=backwards)

    def _roomy(self, axis: int | None) -> bool:
        """Return whether what goes in has room along an axis."""
        return axis is not None and self._host and self._making.joint.room[self._frame.axes[axis].value] > 0

    @property
    def _sets_width(self) -> str:
        """The part that a channel's width is taken from."""
        return (self._making.joint.sets_width if self._host else "") or self._mate.part.id

    @property
    def _into_notch(self) -> bool:
        """Whether what the mate has cut goes through its whole thickness."""
        channels = self._making.joint.channels
        if not channels:
            return False
        low, high = self._mate.spans(channels[0])[Z]
        return low == 0 and high == self._mate.stock.thickness

    def _tongued(self, width: Fraction) -> bool:
        """Return whether what goes in has a tongue that is cut to fit: it is thicker than its channel."""
        return self._host and width < min(self._mate.stock[1:])

    def _drawn_up(self, face: Surface) -> bool:
        """Return whether a tongue has room and is drawn against the wall nearer to a face, which lies with the mate's.

        So is that of a button: how far it lies from that face counts, and not how thick it is.
        """
        axis = self._frame.axes[Z]
        side = side_at(axis, face.high != self._frame.turned[Z])
        return self._making.joint.room[axis.value] > 0 and self._frame.part.box.at(side) == self._mate.part.box.at(side)

    def dado(self) -> Iterator[Operation]:
        """Yield a channel across the grain, sunk into a face; stopped where it does not reach both edges."""
        surface, distance, width = self._from(X)
        into = self._into(Z)
        stops, across = self._stops_along(Y, into)
        far = distance + width
        thick = self._mate.part.thickness.mm
        on = (into,)
        if far == thick and self._host:
            # Its farther wall stands where the mate's face comes: the gauge is set to the mate.
            first = self._gauge(LineKind.WALL, by_mate("far wall", thick, surface, self._mate.part.id), on)
            second = self._second_wall(first, width, on, backwards=not surface.high)
        else:
            first = self._first_wall(X, on, tool=Marker.KNIFE)
            second = self._second_wall(first, width, on, backwards=surface.high)
        depth = self._gauge(LineKind.DEPTH, self._depth(Z), (Surface.FACE_EDGE, Surface.OTHER_EDGE))
        yield from (first, second, *stops, depth)
        walls = sorted((first.line, second.line), key=lambda line: line.at)
        cut = Cut.STOPPED_DADO if any(isinstance(bound, Line) for bound in across) else Cut.DADO
        bounds: dict[int, Bounds] = {X: (walls[0], walls[1]), Y: across, Z: self._pair(Z, depth.line)}
        yield self._take(cut, into, bounds, self._making.chisel(width))

    def rabbet(self) -> Iterator[Operation]:
        """Yield a rabbet along an edge, with a fence and a stop."""
        tongue = not self._host and bool(self._names.guest)
        way, name = (Direction.NEAREST, self._names.reach) if tongue else (Direction.UP, self._names.width)
        wide = by_rule("wide", self._sunk(Y), self._into(Y), self._making.marks, way, name)
        into, depth = self._into(Z), self._depth(Z)
        across = self._frame.axes[Y]
        if tongue and all(channel.size(across) == self._sunk(Y) for channel in self._making.joint.channels):
            # It fills its groove: its shoulders close when it is no longer than that is deep.
            wide = by_mate("wide", self._sunk(Y), self._into(Y), self._mate.part.id, name)
        if tongue:
            # What is left of it goes into the groove: that sets it.
            left = self._stock.thickness - self._sunk(Z)
            depth = by_mate("tongue", left, into.opposite, self._mate.part.id, self._names.guest)
        bounds: dict[int, Bounds] = {X: self._whole(X), Y: self._pair(Y, wide), Z: self._pair(Z, depth)}
        yield self._take(Cut.TONGUE if tongue else Cut.RABBET, into, bounds)

    def stopped_rabbet(self) -> Iterator[Operation]:
        """Yield a rabbet along an edge that does not come out at an end, so that no plane can cut it."""
        edge, face = self._into(Y), self._into(Z)
        wide = by_rule("wide", self._sunk(Y), edge, self._making.marks, quantity=self._names.width)
        shoulder = self._gauge(LineKind.WALL, wide, (face,))
        depth = self._gauge(LineKind.DEPTH, self._depth(Z), (edge,))
        stops, along = self._stops(face)
        yield from (shoulder, depth, *stops)
        bounds: dict[int, Bounds] = {X: along, Y: self._pair(Y, shoulder.line), Z: self._pair(Z, depth.line)}
        yield self._take(Cut.STOPPED_EDGE_RABBET, face, bounds)

    def end_rabbet(self) -> Iterator[Operation]:
        """Yield a rabbet across an end, or the shoulder of a tongue: gauged, sawn, split, levelled."""
        end, face = self._into(X), self._into(Z)
        long, deep = self._sunk(X), self._sunk(Z)
        marks, mate = self._making.marks, self._mate.part
        if not self._host:
            # A tongue: as long as its channel is deep, as thick as the channel is wide.
            length = (
                by_mate("wide", long, end, mate.id, self._names.width)
                if self._into_notch and long == mate.thickness.mm
                else by_mate("tongue", long, end, mate.id, self._names.depth)
            )
            left = self._stock.thickness - deep
            if self._into_notch:
                thick = self._depth(Z)
            elif self._drawn_up(face):
                thick = by_mate(DRAWN_UP, deep, face, mate.id)
            else:
                thick = by_mate("tongue", left, face.opposite, mate.id, self._names.guest)
            shoulder = self._gauge(LineKind.WALL, length, (face, Surface.FACE_EDGE, Surface.OTHER_EDGE), end=end)
            cheek = self._gauge(LineKind.DEPTH, thick, (end, Surface.FACE_EDGE, Surface.OTHER_EDGE), end=end)
        else:
            width = (
                by_mate("wide", long, end, mate.id, self._names.width)
                if long == mate.thickness.mm
                else by_rule("wide", long, end, marks, quantity=self._names.width)
            )
            shoulder = self._gauge(LineKind.WALL, width, (face, Surface.FACE_EDGE, Surface.OTHER_EDGE), end=end)
            cheek = self._gauge(LineKind.DEPTH, self._depth(Z), (end, Surface.FACE_EDGE, Surface.OTHER_EDGE), end=end)
        stops, across = self._stops_along(Y, face)
        yield from (shoulder, cheek, *stops)
        bounds: dict[int, Bounds] = {X: self._pair(X, shoulder.line), Y: across, Z: self._pair(Z, cheek.line)}
        yield self._take(Cut.STOPPED_RABBET if stops else Cut.END_RABBET, face, bounds)

    def notch(self) -> Iterator[Operation]:
        """Yield a corner sawn off on two lines, all through the thickness."""
        end, edge, marks = self._into(X), self._into(Y), self._making.marks
        shoulder = self._stock.length - self._sunk(X) if end.high else self._sunk(X)
        nearer, distance = _nearer(self._stock, X, shoulder)
        long = by_rule("long", distance, nearer, marks)
        if self._host and self._sunk(X) == self._mate.part.box.size(self._frame.axes[X]):
            # What fills it ends level with the end.
            long = by_mate("far wall", self._sunk(X), end, self._mate.part.id)
        elif not self._host and nearer is end:
            # What goes in is as long as its channel came out deep, so that its shoulder closes when it bottoms.
            long = by_mate("long", distance, nearer, self._mate.part.id, self._names.depth)
        across = self._gauge(LineKind.WALL, long, (Surface.FACE_SIDE,))
        mate = self._mate.part.id if self._host else self._making.first.part.id
        deep = by_mate("deep", self._sunk(Y), edge, mate, self._names.notch)
        along = self._gauge(LineKind.NOTCH, deep, (Surface.FACE_SIDE,))
        yield from (across, along)
        bounds: dict[int, Bounds] = {X: self._pair(X, across.line), Y: self._pair(Y, along.line), Z: self._whole(Z)}
        yield self._take(Cut.NOTCH, edge, bounds)

    def end_slot(self) -> Iterator[Operation]:
        """Yield a slot sawn into an end, from edge to edge."""
        surface, distance, width = self._from(Z)
        end = self._into(X)
        edges = (Surface.FACE_EDGE, Surface.OTHER_EDGE)
        setting = by_rule("first wall", distance, surface, self._making.marks)
        first = self._gauge(LineKind.WALL, setting, (end, *edges))
        second = self._second_wall(first, width, (end, *edges), backwards=surface.high)
        floor = self._gauge(LineKind.DEPTH, self._depth(X), edges, end=end)
        yield from (first, second, floor)
        walls = sorted((first.line, second.line), key=lambda line: line.at)
        bounds: dict[int, Bounds] = {X: self._pair(X, floor.line), Y: edges, Z: (walls[0], walls[1])}
        yield self._take(Cut.OPEN_MORTISE, end, bounds, self._making.chisel(width))

    def hole(self) -> Iterator[Operation]:
        """Yield a hole through a board that is closed all round, as large as what goes through it."""
        surface, distance, width = self._from(Y)
        on = (Surface.FACE_SIDE, Surface.OTHER_FACE)
        first = self._gauge(LineKind.WALL, by_rule("first wall", distance, surface, self._making.marks), on)
        second = self._second_wall(first, width, on, backwards=surface.high)
        stops, _ = self._stops(Surface.FACE_SIDE)
        yield from (first, second, *(replace(stop, on=on) for stop in stops))
        walls = sorted((first.line, second.line), key=lambda line: line.at)
        ends = tuple(replace(stop, on=on).line for stop in stops)
        bounds: dict[int, Bounds] = {X: (ends[0], ends[1]), Y: (walls[0], walls[1]), Z: self._whole(Z)}
        yield self._take(Cut.THROUGH_MORTISE, Surface.FACE_SIDE, bounds, self._making.chisel(width))

    def open_notch(self, deep: int, wide: int) -> Iterator[Operation]:
        """Yield a notch through the thickness, sunk along one axis from an edge or an end, with two walls."""
        surface, distance, width = self._from(wide)
        on = (self._into(deep), Surface.FACE_SIDE, Surface.OTHER_FACE)
        setting = by_rule("first wall", distance, surface, self._making.marks)
        first = self._gauge(LineKind.WALL, setting, on, tool=Marker.KNIFE)
        second = self._second_wall(first, width, on, backwards=surface.high)
        floor = self._gauge(LineKind.NOTCH, self._depth(deep, "deep"), (Surface.FACE_SIDE, Surface.OTHER_FACE))
        yield from (first, second, floor)
        walls = sorted((first.line, second.line), key=lambda line: line.at)
        bounds: dict[int, Bounds] = {wide: (walls[0], walls[1]), deep: self._pair(deep, floor.line), Z: self._whole(Z)}
        yield self._take(Cut.SAW_NOTCH, self._into(deep), bounds, self._making.chisel(width))

    def _take(self, cut: Cut, into: Surface, bounds: dict[int, Bounds], tools: tuple[ToolSetting, ...] = ()) -> Take:
        return Take(
            part=self._part,
            stock=self._stock,
            cut=cut,
            into=into,
            x=bounds[X],
            y=bounds[Y],
            z=bounds[Z],
            tools=tools,
            of=self._of,
            router=self._making.shop.schools.floor == "router plane",
        )


def _nearer(stock: Stock, axis: int, place: Fraction) -> tuple[Surface, Fraction]:
    """Return the surface a place is nearer to along an axis, and how far it lies from it, mm."""
    far = 2 * place > stock[axis]
    return surface_at(axis, far), stock[axis] - place if far else place
