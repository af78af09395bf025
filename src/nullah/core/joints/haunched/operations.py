"""How a haunched tenon is made: sawn over its whole width and cut back to the haunch, whose socket is opened last."""

from __future__ import annotations

from nullah.core.card import JointStage
from nullah.core.fraction import Fraction
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.tenon.operations import MortisedPart, TenonedPart, Tenons, tenons_of
from nullah.core.operations.lines import Line, LineKind
from nullah.core.operations.marking import Gauge, Marker
from nullah.core.operations.settings import ToolSetting, by_mate, by_rule, of_line
from nullah.core.operations.stock import Surface, surface_at
from nullah.core.operations.taking import Bounds, Cut, Take
from nullah.core.piece.frame import Frame
from nullah.core.piece.joint import Joint
from nullah.core.piece.space import Axis, Box, side_at


def haunched_steps(making: Making) -> tuple[BenchStep, ...] | None:
    """Return the steps of a haunched tenon; None where its tenon is no plain one."""
    if len(making.joint.shares) != 2:
        return None
    main, stub = making.joint.shares
    guest = making.second.part
    whole = main.set(guest.across, *_spanned(main, stub, guest.across))
    host_making, guest_making = (making._replace(joint=_alone(making.joint, box)) for box in (main, whole))
    in_host, on_guest = tenons_of(host_making), tenons_of(guest_making)
    if in_host is None or on_guest is None:
        return None
    host, tenoned = MortisedPart(host_making, in_host), TenonedPart(guest_making, on_guest)
    haunch = _Haunch(making, in_host, host, tenoned)
    return (
        BenchStep(JointStage.GAUGED, "both", (*host.gauged(), *tenoned.gauged())),
        BenchStep(JointStage.MARKED, "first", tuple(host.ends())),
        BenchStep(JointStage.CUT, "first", tuple(host.chopped())),
        BenchStep(JointStage.MARKED, "second", (tenoned.shoulder, *tenoned.edges())),
        BenchStep(JointStage.SAWN, "second", (tenoned.sawn,)),
        BenchStep(JointStage.MARKED, "second", (haunch.edge, haunch.end)),
        BenchStep(JointStage.SAWN, "second", (haunch.cut_back,)),
        BenchStep(JointStage.CUT, "first", (haunch.socket,)),
    )


def _spanned(one: Box, other: Box, axis: Axis) -> tuple[Fraction, Fraction]:
    """Return from where to where two boxes go together along an axis, mm."""
    a = axis.value
    return min(one.low[a], other.low[a]), max(one.high[a], other.high[a])


def _alone(joint: Joint, box: Box) -> Joint:
    return joint._replace(channels=(box,), shares=(box,))


class _Haunch:
    """The haunch on the tenon, and its socket at the end of the mortised part."""

    def __init__(self, making: Making, tenons: Tenons, host: MortisedPart, guest: TenonedPart) -> None:
        self._making, self._tenons, self._host, self._guest = making, tenons, host, guest
        main, stub = making.joint.shares
        across = making.second.part.across.value
        self._stub = stub
        #: The side on which the haunch lies.
        self._side = side_at(making.second.part.across, stub.low[across] >= main.high[across])

    def _flush(self, frame: Frame) -> Surface:
        return frame.surface(self._side)

    @property
    def _mortise_end(self) -> Line:
        """The end of the mortise next to the haunch."""
        flush = self._flush(self._making.first)
        lines = sorted((each.line for each in self._host.ends()), key=lambda line: line.at)
        return lines[-1 if flush.high else 0]

    @property
    def edge(self) -> Gauge:
        """The line on the tenon between what enters the mortise and the haunch, as its mortise ends."""
        frame, host = self._making.second, self._making.first
        flush = self._flush(host)
        wide, name = abs(host.stock.at(flush) - self._mortise_end.at), f"{self._making.joint.figures}.width"
        setting = by_mate("haunch", wide, self._flush(frame), host.part.id, name)
        return self._line(LineKind.HAUNCH, setting)

    @property
    def end(self) -> Gauge:
        """The line on the tenon where the haunch ends."""
        base = self._guest.shoulder.line
        long = self._stub.size(self._making.second.part.grain)
        setting = by_rule("haunch long", long, of_line(base), self._making.marks)
        return self._line(LineKind.HAUNCH_END, setting, base=base, backwards=not self._end.high)

    @property
    def _end(self) -> Surface:
        """The end of the tenoned part."""
        return self._making.second.surface(side_at(self._tenons.into.axis, not self._tenons.into.high))

    def _line(self, kind: LineKind, setting: ToolSetting, base: Line | None = None, backwards: bool = False) -> Gauge:
        frame = self._making.second
        return Gauge(
            part=frame.part.id,
            stock=frame.stock,
            kind=kind,
            setting=setting,
            tool=Marker.KNIFE,
            on=tuple(frame.surface(side_at(self._tenons.thick, high)) for high in (False, True)),
            end=self._end,
            of=self._making.joint.id,
            base=base,
            backwards=backwards,
        )

    @property
    def cut_back(self) -> Take:
        """The corner that is sawn off the tenon."""
        frame, flush, end = self._making.second, self._flush(self._making.second), self._end
        across, through = frame.axes.index(self._tenons.wide), frame.axes.index(self._tenons.thick)
        stop, edge = self.end.line, self.edge.line
        bounds: dict[int, Bounds] = {
            end.axis: (stop, end) if end.high else (end, stop),
            across: (edge, flush) if flush.high else (flush, edge),
            through: (surface_at(through, False), surface_at(through, True)),
        }
        return self._take(frame, Cut.HAUNCH, end, bounds)

    @property
    def socket(self) -> Take:
        """The shallow slot from the mortise out to the end."""
        frame, flush, into = self._making.first, self._flush(self._making.first), self._host.into
        across, through = frame.axes.index(self._tenons.wide), frame.axes.index(self._tenons.thick)
        (pair,) = self._host.gauged()
        low, high = sorted(pair.draws, key=lambda line: line.at)
        deep = by_mate("haunch", self.end.setting.figure, into, self._making.second.part.id)
        bounds: dict[int, Bounds] = {
            across: (self._mortise_end, flush) if flush.high else (flush, self._mortise_end),
            through: (low, high),
            into.axis: (deep, into) if into.high else (into, deep),
        }
        return self._take(frame, Cut.HAUNCH_SOCKET, into, bounds)

    def _take(self, frame: Frame, cut: Cut, into: Surface, bounds: dict[int, Bounds]) -> Take:
        return Take(
            part=frame.part.id,
            stock=frame.stock,
            cut=cut,
            into=into,
            x=bounds[0],
            y=bounds[1],
            z=bounds[2],
            of=self._making.joint.id,
            router=False,
        )
