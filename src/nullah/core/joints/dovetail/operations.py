"""How a dovetailed corner is made, through or half-blind, tails or pins first."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from nullah.core.card import JointStage
from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.joints.dovetail.frame import tail_length
from nullah.core.joints.dovetail.tail_edges import tail_edges
from nullah.core.joints.dovetail.tails import Tails, tails_of
from nullah.core.joints.making import BenchStep, Making
from nullah.core.lengths import Direction, Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.dovetails import ChopBlindSockets, CutPins, CutTails, Outline, SawBlindPins, SawMitre
from nullah.core.operations.lines import Edge, Line, LineKind
from nullah.core.operations.marking import DrawSlopes, Gauge, SetOff, StepOff, Trace
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ByMeasure, OfTool, ToolSetting, by_mate, by_rule, of_line
from nullah.core.operations.stock import Surface, X
from nullah.core.piece.frame import Frame
from nullah.core.piece.space import side_at

_ROUND = (Surface.FACE_SIDE, Surface.FACE_EDGE, Surface.OTHER_FACE, Surface.OTHER_EDGE)


class _Corner(NamedTuple):
    """A corner as it is laid out: the ends of both boards, borders on either, and how long the tails are, mm."""

    tails: Tails
    tail_end: Surface
    pin_end: Surface
    borders: tuple[Fraction, Fraction]
    shift: Fraction
    long: Fraction
    blind: bool


def corner_steps(making: Making) -> tuple[BenchStep, ...]:
    """Return the steps of a corner; none where it cannot be laid out so."""
    corner = _corner(making)
    if corner is None:
        return ()
    tail, pin = _TailBoard(making, corner), _PinBoard(making, corner)
    mitred = BenchStep(JointStage.CUT, "both", tuple(_mitred(tail)) + tuple(_mitred(pin)))
    moulded = (mitred,) if mitred.operations else ()
    gauge = BenchStep(JointStage.GAUGED, "both", (*tail.gauge(), *pin.gauge()))
    if making.shop.schools.dovetail == "pins first" and not corner.blind:
        outlines = pin.marked()
        return (
            gauge,
            BenchStep(JointStage.HATCHED, "second", tuple(pin.lay_out())),
            BenchStep(JointStage.CUT, "second", (pin.cut_marked(),)),
            BenchStep(JointStage.HATCHED, "first", (tail.trace(),)),
            BenchStep(JointStage.CUT, "first", (tail.cut_traced(outlines),)),
            *moulded,
        )
    outlines = tail.outlines()
    return (
        gauge,
        BenchStep(JointStage.MARKED, "first", tuple(tail.lay_out())),
        BenchStep(JointStage.CUT, "first", (tail.cut(),)),
        BenchStep(JointStage.HATCHED, "second", (pin.trace(),)),
        BenchStep(JointStage.CUT, "second", tuple(pin.cut(outlines))),
        *moulded,
    )


def _mitred(board: _TailBoard | _PinBoard) -> Iterator[Operation]:
    """Yield the cuts along moulded edges, which are mitred."""
    for edge, gauge in board.mitres.items():
        yield SawMitre(
            part=gauge.part,
            stock=gauge.stock,
            end=board.end,
            edge_from=edge,
            baseline=board.baseline.line,
            mitre=gauge.line,
            proud=ToolSetting(N_("proud"), board.proud, board.end),
        )


def _mitre_lines(making: Making, frame: Frame, tails: Tails, end: Surface) -> dict[Surface, Gauge]:
    """Return the lines down to which moulded edges are mitred, by the edge."""
    return {
        edge: Gauge(
            part=frame.part.id,
            stock=frame.stock,
            kind=LineKind.MITRE,
            setting=by_rule("miter", wide, edge, making.marks),
            on=(end, Surface.FACE_SIDE, Surface.OTHER_FACE),
            end=end,
            number=number,
        )
        for number, (edge, wide) in enumerate(
            zip((Surface.FACE_EDGE, Surface.OTHER_EDGE), tails.mitres, strict=True), 1
        )
        if wide > 0
    }


def _corner(making: Making) -> _Corner | None:
    tail, pin, tails = making.first, making.second, tails_of(making.joint)
    overlap = tail.part.box.overlap(pin.part.box)
    if overlap is None or tails is None or tail.axes[0] is pin.axes[0]:
        return None
    x, y, _ = tail.spans(overlap)
    pin_x, pin_y, _ = pin.spans(overlap)
    finished, pin_finished = tail.finished[0], pin.finished[0]
    long = tail_length(making.joint, tail.part, tail.axes[X])
    return _Corner(
        tails,
        Surface.REFERENCE_END if x[0] == finished[0] else Surface.FAR_END,
        Surface.REFERENCE_END if pin_x[0] == pin_finished[0] else Surface.FAR_END,
        y,
        pin_y[0] - y[0],
        x[1] - x[0] if long is None else long,
        pin.part.box.size(tail.axes[0]) > overlap.size(tail.axes[0]),
    )


class _TailBoard:
    """The operations on the tail board."""

    def __init__(self, making: Making, corner: _Corner) -> None:
        self._making, self._corner, self._frame = making, corner, making.first
        self._stock, self._part = making.first.stock, making.first.part.id
        self.end, self.proud = corner.tail_end, making.first.proud
        self.mitres = _mitre_lines(making, making.first, corner.tails, corner.tail_end)
        low, high = corner.borders
        #: Borders of the mate that are no edges of the board.
        self._borders = [
            Gauge(
                part=self._part,
                stock=self._stock,
                kind=LineKind.BORDER,
                setting=_border(making, edge, distance, high - low),
                on=(corner.tail_end, Surface.FACE_SIDE),
                end=corner.tail_end,
                number=number,
            )
            for number, (edge, distance) in enumerate(
                ((Surface.FACE_EDGE, low), (Surface.OTHER_EDGE, self._stock.width - high)), start=1
            )
            if distance != 0
        ]

    @property
    def _edges(self) -> tuple[Edge, Edge]:
        """The borders that tails are laid out between."""
        lines = {border.number: border.line for border in self._borders}
        return lines.get(1, Surface.FACE_EDGE), lines.get(2, Surface.OTHER_EDGE)

    @property
    def _sawn(self) -> tuple[Edge, Edge]:
        """The borders that waste is sawn off to: where an edge is mitred, its half-pin's shoulder stays."""
        low, high = self._edges
        lines = {edge: gauge.line for edge, gauge in self.mitres.items()}
        return lines.get(Surface.FACE_EDGE, low), lines.get(Surface.OTHER_EDGE, high)

    @property
    def _long(self) -> Fraction:
        """From the end of the blank to the baseline."""
        return abs(self.baseline.line.at - self._stock.at(self.end))

    @property
    def baseline(self) -> Gauge:
        """The gauge line of the tails' length: the pin board's thickness and what stands proud; or set with its lap."""
        making, corner, frame = self._making, self._corner, self._frame
        mate, end = making.second.part, corner.tail_end
        name = f"{corner.tails.prefix}.gauge_tail_board"
        setting = (
            by_rule("tail length", corner.long, end, making.marks, quantity=name)
            if corner.blind
            else by_mate("baseline", corner.long, end, mate.id, name)
        )
        gauged = Gauge(
            part=self._part,
            stock=self._stock,
            kind=LineKind.BASELINE,
            setting=setting,
            over=None if corner.blind else _over(frame.proud),
            on=_ROUND,
            end=end,
        )
        by = making.joint.laid_out_by
        if by is None:
            return gauged
        # What lies between the shoulders was measured: from the baseline at the other end.
        near = replace(gauged, end=end.opposite, setting=setting._replace(origin=end.opposite)).line
        over = by.over[frame.axes[X].value]
        measured = ToolSetting("between", over.length, of_line(near), ByMeasure(over.quantity))
        return replace(gauged, setting=measured, over=None, base=near, backwards=not end.high)

    def gauge(self) -> Iterator[Operation]:
        """Yield the baseline, and the lines of mitred edges."""
        yield self.baseline
        yield from self.mitres.values()

    @property
    def _laid_out(self) -> StepOff | SetOff:
        making, tails, end = self._making, self._corner.tails, self._corner.tail_end
        low, high = self._edges
        return _laid_out(making, tails, self._frame, end, low, high, pins=False)

    def lay_out(self) -> Iterator[Operation]:
        """Yield borders, marks and slopes."""
        yield from self._borders
        laid = self._laid_out
        yield laid
        yield DrawSlopes(
            part=self._part,
            stock=self._stock,
            end=self._corner.tail_end,
            marks=laid.draws,
            slope=self._corner.tails.slope.run,
            quantity=self._corner.tails.prefix,
        )

    def cut(self) -> CutTails:
        """Return the sawing and chopping to what was laid out."""
        marks = self._laid_out.draws
        low, high = self._sawn
        drawn = DrawSlopes(
            part=self._part,
            stock=self._stock,
            end=self._corner.tail_end,
            marks=marks,
            slope=self._corner.tails.slope.run,
        )
        return CutTails(
            part=self._part,
            stock=self._stock,
            end=self._corner.tail_end,
            baseline=self.baseline.line,
            tails=drawn.line,
            low=low,
            high=high,
            marks=marks,
            slope=self._corner.tails.slope.run,
            chop_only=self._making.shop.schools.waste == "chop only",
            tools=self._chisel,
        )

    def outlines(self) -> tuple[Outline, ...]:
        """Return the tails as they stand on the pin board: at its outside (or at their ends) and at its inside."""
        run, shift = self._corner.tails.slope.run, self._corner.shift
        outside = Fraction(0) if self._corner.blind else self._frame.proud
        places = [mark.at + shift for mark in self._laid_out.draws]
        return tuple(
            Outline((low + outside / run, high - outside / run), (low + self._long / run, high - self._long / run))
            for low, high in zip(places[::2], places[1::2], strict=True)
        )

    def trace(self) -> Trace:
        """Return the tracing of the tails from the pins."""
        end = self._corner.tail_end
        return Trace(
            part=self._part,
            stock=self._stock,
            kind=LineKind.PINS,
            mate=self._making.second.part.id,
            on=(end, Surface.FACE_SIDE, Surface.OTHER_FACE),
            end=end,
        )

    def cut_traced(self, outlines: tuple[Outline, ...]) -> CutTails:
        """Return the sawing and chopping to what was traced from pins."""
        shift, proud = self._corner.shift, self._frame.proud
        low, high = self._sawn
        thick = self._making.second.stock.thickness
        # Traced lines run on to the end of the board, beyond the outside of the pin board.
        grown = tuple(
            Outline(
                tuple(  # type: ignore[arg-type]
                    outer - shift + (outer - inner) * proud / thick
                    for outer, inner in zip(each.outer, each.inner, strict=True)
                ),
                (each.inner[0] - shift, each.inner[1] - shift),
            )
            for each in outlines
        )
        return CutTails(
            part=self._part,
            stock=self._stock,
            end=self._corner.tail_end,
            baseline=self.baseline.line,
            tails=self.trace().line,
            low=low,
            high=high,
            outlines=grown,
            chop_only=self._making.shop.schools.waste == "chop only",
            tools=self._chisel,
        )

    @property
    def _chisel(self) -> tuple[ToolSetting, ...]:
        """The chisel that enters between tails: at their ends, where they are widest; none of a single tail."""
        tails = self._corner.tails
        return self._making.chisel(tails.pin) if tails.number > 1 else ()


class _PinBoard:
    """The operations on the pin board."""

    def __init__(self, making: Making, corner: _Corner) -> None:
        self._making, self._corner, self._frame = making, corner, making.second
        self._stock, self._part = making.second.stock, making.second.part.id
        self.end, self.proud = corner.pin_end, making.second.proud
        self.mitres = _mitre_lines(making, making.second, corner.tails, corner.pin_end)
        tails, own = making.first.part, making.second.part
        axis = tails.grain.value
        inwards = tails.box.low[axis] + tails.box.high[axis] > own.box.low[axis] + own.box.high[axis]
        #: From there the tails go in.
        self._inside = making.second.surface(side_at(tails.grain, inwards))

    @property
    def baseline(self) -> Gauge:
        """The gauge line of the sockets: the tail board's thickness and what stands proud."""
        mate, end = self._making.first, self._corner.pin_end
        name = f"{self._corner.tails.prefix}.gauge_pin_board"
        setting = by_mate("baseline", mate.stock.thickness, end, mate.part.id, name)
        # Nothing is scribed on the outside of a half-blind front.
        on = (self._inside,) if self._corner.blind else _ROUND
        return Gauge(
            part=self._part,
            stock=self._stock,
            kind=LineKind.BASELINE,
            setting=setting,
            over=_over(self._frame.proud),
            on=on,
            end=end,
        )

    @property
    def lap(self) -> Gauge:
        """The gauge line on the end grain: how far the tails go in from the inside face, by the same gauge."""
        making, corner = self._making, self._corner
        name = f"{corner.tails.prefix}.gauge_tail_board"
        setting = by_rule("tail length", corner.long, self._inside, making.marks, quantity=name)
        end = corner.pin_end
        return Gauge(part=self._part, stock=self._stock, kind=LineKind.LAP, setting=setting, on=(end,), end=end)

    def gauge(self) -> Iterator[Operation]:
        """Yield the baseline, the lap line of a half-blind one, and the lines of mitred edges."""
        yield self.baseline
        yield from self.mitres.values()
        if self._corner.blind:
            yield self.lap

    @property
    def _laid_out(self) -> StepOff | SetOff:
        return _laid_out(
            self._making,
            self._corner.tails,
            self._frame,
            self._corner.pin_end,
            Surface.FACE_EDGE,
            Surface.OTHER_EDGE,
            pins=True,
        )

    def lay_out(self) -> Iterator[Operation]:
        """Yield marks and slopes of the pins."""
        laid = self._laid_out
        yield laid
        yield self._slopes(laid)

    def _slopes(self, laid: StepOff | SetOff) -> DrawSlopes:
        return DrawSlopes(
            part=self._part,
            stock=self._stock,
            end=self._corner.pin_end,
            marks=laid.draws,
            slope=self._corner.tails.slope.run,
            pins=True,
            quantity=self._corner.tails.prefix,
        )

    def marked(self) -> tuple[Outline, ...]:
        """Return the sockets as they are marked: at the outside, and leaning to the inside."""
        lean = self._stock.thickness / self._corner.tails.slope.run
        places = [mark.at for mark in self._laid_out.draws]
        return tuple(
            Outline((low, high), (low + lean, high - lean)) for low, high in zip(places[::2], places[1::2], strict=True)
        )

    def trace(self) -> Trace:
        """Return the tracing of the pins from the tails."""
        end = self._corner.pin_end
        on = (end, self._inside) if self._corner.blind else (end, Surface.FACE_SIDE, Surface.OTHER_FACE)
        return Trace(
            part=self._part, stock=self._stock, kind=LineKind.TAILS, mate=self._making.first.part.id, on=on, end=end
        )

    def cut_marked(self) -> CutPins:
        """Return the sawing and chopping of the sockets as they were marked on this board."""
        laid = self._laid_out
        return self._cut_through(self._slopes(laid).line, self.marked(), laid.draws)

    def _cut_through(self, pins: Line, outlines: tuple[Outline, ...], marks: tuple[Line, ...] = ()) -> CutPins:
        return CutPins(
            part=self._part,
            stock=self._stock,
            end=self._corner.pin_end,
            baseline=self.baseline.line,
            pins=pins,
            outlines=() if marks else outlines,
            marks=marks,
            chop_only=self._making.shop.schools.waste == "chop only",
            tools=self._chisel(outlines),
        )

    def _chisel(self, outlines: tuple[Outline, ...]) -> tuple[ToolSetting, ...]:
        """Return the chisel that enters the narrowest socket where it is narrowest."""
        narrow = min(high - low for each in outlines for low, high in each)
        return self._making.chisel(narrow)

    def cut(self, outlines: tuple[Outline, ...]) -> Iterator[Operation]:
        """Yield the sawing and chopping of the sockets as they were traced."""
        end, pins = self._corner.pin_end, self.trace().line
        if not self._corner.blind:
            yield self._cut_through(pins, outlines)
            return
        yield SawBlindPins(
            part=self._part,
            stock=self._stock,
            end=end,
            baseline=self.baseline.line,
            pins=pins,
            outlines=outlines,
            lap=self.lap.line,
            inside=self._inside,
            kerf=self._making.shop.fine_kerf.mm,
        )
        yield ChopBlindSockets(
            part=self._part,
            stock=self._stock,
            end=end,
            baseline=self.baseline.line,
            pins=pins,
            outlines=outlines,
            lap=self.lap.line,
            inside=self._inside,
            tools=self._chisel(outlines),
        )


def _over(proud: Fraction) -> ToolSetting | None:
    """Return what a gauge that was set to the mate is opened further by; nothing where the end is flush."""
    return ToolSetting(N_("proud"), proud, OfTool()) if proud else None


def _laid_out(
    making: Making, tails: Tails, frame: Frame, end: Surface, low: Edge, high: Edge, pins: bool
) -> StepOff | SetOff:
    """Return how the tails are laid out: stepped off where they are equal, else each set off from the face edge."""
    part, stock = frame.part.id, frame.stock
    half_pin = by_rule("half-pin", tails.half_pin, Surface.FACE_EDGE, making.marks).figure
    if len(tails.widths) != tails.number or len(set(tails.widths)) < 2:
        return StepOff(
            part=part,
            stock=stock,
            end=end,
            low=low,
            high=high,
            half_pin=half_pin,
            pin=tails.pin,
            count=tails.number,
            pins=pins,
            quantity=tails.prefix,
        )
    bottom = low.at if not isinstance(low, Surface) else stock.at(low)
    top = high.at if not isinstance(high, Surface) else stock.at(high)
    edges = tail_edges(top - bottom, tails.number, half_pin, tails.pin, tails.widths)
    places = tuple(
        making.marks.to_mark(Length(bottom + place), Direction.NEAREST).mm for pair in edges for place in pair
    )
    return SetOff(part=part, stock=stock, end=end, places=places, pins=pins, quantity=tails.prefix)


def _border(making: Making, edge: Surface, distance: Fraction, wide: Fraction) -> ToolSetting:
    """Return where the mate ends on a tail board, so far from an edge: by the mate where it begins at the other one."""
    if distance + wide == making.first.stock.width:
        return by_mate("border", wide, edge.opposite, making.second.part.id)
    return by_rule("border", distance, edge, making.marks)
