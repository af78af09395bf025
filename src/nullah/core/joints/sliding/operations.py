"""How a sliding dovetail is made: the tail is sloped first, and its housing traced from it at an edge."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import JointStage
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.sliding.tail import SlidingTail, entry, tail_of
from nullah.core.operations.lines import Edge, LineKind
from nullah.core.operations.marking import Gauge, Marker
from nullah.core.operations.settings import ToolSetting, by_mate, by_rule, of_line
from nullah.core.operations.sliding import SawHousing, SlopeTail
from nullah.core.operations.stock import Surface, X, Y, surface_at
from nullah.core.piece.frame import Frame
from nullah.core.piece.space import Box, Side, side_at


def sliding_steps(making: Making, overlap: Box) -> tuple[BenchStep, ...] | None:
    """Return the steps of a sliding dovetail; None while its figures are not known."""
    tail = tail_of(making.joint)
    if tail is None:
        return None
    guest = _Guest(making, tail, overlap)
    host = _Host(making, tail, overlap, guest)
    return (
        BenchStep(JointStage.GAUGED, "second", (guest.shoulder,)),
        BenchStep(JointStage.CUT, "second", (guest.sloped,)),
        BenchStep(JointStage.MARKED, "first", tuple(host.lines())),
        BenchStep(JointStage.CUT, "first", (host.housed,)),
    )


def entry_side(making: Making, overlap: Box) -> Side:
    """Return the edge of the housed board over which the tail is slid in: of two open ones the high one."""
    return entry(making.first.part, overlap, making.second.part.across)


def _end(frame: Frame, overlap: Box) -> Surface:
    """Return the end of a board at which an overlap lies."""
    low, _ = frame.spans(overlap)[X]
    return surface_at(X, low > frame.finished[X][0])


class _Guest:
    """The board with the tail."""

    def __init__(self, making: Making, tail: SlidingTail, overlap: Box) -> None:
        self._making, self._tail, self._frame = making, tail, making.second
        self._overlap = overlap
        self._end, self._deep = _end(making.second, overlap), overlap.size(making.second.part.grain)

    @property
    def taper(self) -> ToolSetting | None:
        """How much more comes off the tapered face at the edge that leads."""
        if self._tail.taper <= 0:
            return None
        face = self._frame.surface(side_at(self._making.second.part.face, True))
        name = f"{self._tail.prefix}.taper"
        return by_rule("taper", self._tail.taper, face, self._making.marks, quantity=name)

    @property
    def shoulder(self) -> Gauge:
        """The shoulder, as far in as the tail is deep."""
        return Gauge(
            part=self._frame.part.id,
            stock=self._frame.stock,
            kind=LineKind.TAIL_SHOULDER,
            setting=by_rule("tail", self._deep, self._end, self._making.marks, quantity=self._making.joint.names.depth),
            on=(Surface.FACE_SIDE, Surface.OTHER_FACE, Surface.FACE_EDGE, Surface.OTHER_EDGE),
            end=self._end,
        )

    @property
    def sloped(self) -> SlopeTail:
        """The slopes."""
        return SlopeTail(
            part=self._frame.part.id,
            stock=self._frame.stock,
            end=self._end,
            shoulder=self.shoulder.line,
            slope=self._tail.slope,
            quantity=f"{self._tail.prefix}.slope",
            taper=self.taper,
            leads=None if self.taper is None else self._frame.surface(entry_side(self._making, self._overlap).opposite),
        )


class _Host:
    """The housed board."""

    def __init__(self, making: Making, tail: SlidingTail, overlap: Box, guest: _Guest) -> None:
        self._making, self._tail, self._frame, self._guest = making, tail, making.first, guest
        self._mate = making.second.part
        self._overlap = overlap
        self._x, self._y, z = making.first.spans(overlap)
        self._into = Surface.FACE_SIDE if z[0] == 0 else Surface.OTHER_FACE
        edges = (Surface.FACE_EDGE, Surface.OTHER_EDGE)
        whole = making.first.finished[Y]
        self._open = (self._y[0] <= whole[0], self._y[1] >= whole[1])
        #: Where the tail comes out, and the housing is traced.
        self._edges = tuple(edge for edge, is_open in zip(edges, self._open, strict=True) if is_open)

    def _gauge(self, kind: LineKind, **more: object) -> Gauge:
        part, joint = self._frame.part.id, self._making.joint
        return Gauge(part=part, stock=self._frame.stock, kind=kind, of=joint.id, **more)  # type: ignore[arg-type]

    @property
    def _face(self) -> Gauge:
        """Where the face of the other board comes."""
        low, high = self._x
        far = self._frame.stock.length - high < low
        distance = self._frame.stock.length - high if far else low
        setting = by_rule("face", distance, surface_at(X, far), self._making.marks)
        return self._gauge(LineKind.TAIL_FACE, setting=setting, on=(self._into, *self._edges), tool=Marker.PENCIL)

    @property
    def _walls(self) -> tuple[Gauge, Gauge]:
        """Both walls at the face, from the slopes of the tail."""
        face, lean = self._face, self._guest.sloped.lean
        away, base = face.setting.origin is Surface.FAR_END, face.line
        thick = self._mate.thickness.mm
        on = (self._into, *self._edges)
        one = by_mate("neck", lean, of_line(base), self._mate.id)
        two = by_mate("neck", thick - lean, of_line(base), self._mate.id)
        nearer = self._gauge(LineKind.NECK, setting=one, on=on, tool=Marker.KNIFE, base=base, backwards=away, number=1)
        farther = self._gauge(LineKind.NECK, setting=two, on=on, tool=Marker.KNIFE, base=base, backwards=away, number=2)
        return (farther, nearer) if away else (nearer, farther)

    @property
    def _depth(self) -> Gauge:
        setting = by_mate("depth", self._guest.shoulder.setting.figure, self._into, self._mate.id)
        return self._gauge(LineKind.FLOOR, setting=setting, on=self._edges)

    @property
    def _stops(self) -> tuple[Gauge | None, Gauge | None]:
        """Where it ends across the board, if it does not go through."""
        found: list[Gauge | None] = []
        for high, is_open in zip((False, True), self._open, strict=True):
            edge = surface_at(Y, high)
            place = self._frame.stock.width - self._y[1] if high else self._y[0]
            setting = by_rule("stop", place, edge, self._making.marks)
            found.append(None if is_open else self._gauge(LineKind.STOP, setting=setting, on=(self._into,), end=edge))
        return found[0], found[1]

    def lines(self) -> Iterator[Gauge]:
        """Yield all lines of the housing."""
        yield from (self._face, *self._walls, self._depth)
        yield from (stop for stop in self._stops if stop is not None)

    @property
    def housed(self) -> SawHousing:
        """The housing itself."""
        low, high = self._walls
        ends: list[Edge] = [
            surface_at(Y, high_) if stop is None else stop.line
            for high_, stop in zip((False, True), self._stops, strict=True)
        ]
        return SawHousing(
            part=self._frame.part.id,
            stock=self._frame.stock,
            into=self._into,
            low=low.line,
            high=high.line,
            depth=self._depth.line,
            slope=self._tail.slope,
            mate=self._mate.id,
            ends=(ends[0], ends[1]),
            router=self._making.shop.schools.floor == "router plane",
            taper=self._taper,
            narrows=int(not entry_side(self._making, self._overlap).high),
        )

    @property
    def _taper(self) -> ToolSetting | None:
        made = self._guest.taper
        return None if made is None else by_mate("taper", made.figure, of_line(self._walls[1].line), self._mate.id)
