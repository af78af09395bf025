"""How fingers are cut: stepped off and sawn out on the one board, traced from it on the other."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from nullah.core.card import JointStage
from nullah.core.fraction import Fraction
from nullah.core.joints.making import BenchStep, Making
from nullah.core.operations.fingers import StepFingers
from nullah.core.operations.lines import Edge, Line, LineKind
from nullah.core.operations.marking import Gauge, Marker
from nullah.core.operations.settings import by_mate
from nullah.core.operations.stock import Surface, Y
from nullah.core.operations.taking import Bounds, Cut, Take
from nullah.core.piece.frame import Frame
from nullah.core.piece.space import Axis, Box, Side, side_at


def finger_steps(making: Making) -> tuple[BenchStep, ...] | None:
    """Return the steps of a finger joint; None where the boards make no corner."""
    overlap = making.first.part.box.overlap(making.second.part.box)
    if overlap is None or not making.joint.channels:
        return None
    one = _Board(making, making.first, making.second, overlap)
    other = _Board(making, making.second, making.first, overlap)
    return (
        BenchStep(JointStage.GAUGED, "both", (one.baseline, other.baseline)),
        BenchStep(JointStage.MARKED, "first", (one.stepped,)),
        BenchStep(JointStage.CUT, "first", tuple(one.sockets(one.stepped.draws, odd=True))),
        BenchStep(JointStage.MARKED, "second", other.traced),
        BenchStep(JointStage.CUT, "second", tuple(other.sockets([each.line for each in other.traced], odd=False))),
    )


class _Board:
    """One of the two boards, at the end that meets the other."""

    def __init__(self, making: Making, own: Frame, mate: Frame, overlap: Box) -> None:
        self._making, self._own, self._mate = making, own, mate
        self._end = own.surface(_end_of(own, overlap))
        self._count = 2 * len(making.joint.channels) + 1

    @property
    def baseline(self) -> Gauge:
        """The line round the end, as far in as the mate is thick."""
        thick = self._mate.part.thickness.mm + self._own.proud
        return Gauge(
            part=self._own.part.id,
            stock=self._own.stock,
            kind=LineKind.BASELINE,
            setting=by_mate("baseline", thick, self._end, self._mate.part.id),
            on=(Surface.FACE_SIDE, Surface.FACE_EDGE, Surface.OTHER_FACE, Surface.OTHER_EDGE),
            end=self._end,
        )

    @property
    def stepped(self) -> StepFingers:
        """The fingers stepped off across the end."""
        return StepFingers(part=self._own.part.id, stock=self._own.stock, end=self._end, number=self._count)

    @property
    def traced(self) -> tuple[Gauge, ...]:
        """The edges of the fingers, traced from the first board."""
        step = self._own.stock.width / self._count
        return tuple(
            Gauge(
                part=self._own.part.id,
                stock=self._own.stock,
                kind=LineKind.FINGER,
                setting=by_mate("finger", step * number, Surface.FACE_EDGE, self._mate.part.id),
                tool=Marker.KNIFE,
                on=(self._end,),
                end=self._end,
                number=number,
            )
            for number in range(1, self._count)
        )

    def sockets(self, lines: tuple[Line, ...] | list[Line], odd: bool) -> Iterator[Take]:
        """Yield what is sawn out: every second field between the lines, from the second on or from the first."""
        base = self.baseline.line
        along: Bounds = (base, self._end) if self._end.high else (self._end, base)
        borders: list[Edge] = [Surface.FACE_EDGE, *sorted(lines, key=lambda line: line.at), Surface.OTHER_EDGE]
        for low, high in list(pairwise(borders))[1 if odd else 0 :: 2]:
            yield Take(
                part=self._own.part.id,
                stock=self._own.stock,
                cut=Cut.BETWEEN_FINGERS,
                into=self._end,
                x=along,
                y=(low, high),
                z=(Surface.FACE_SIDE, Surface.OTHER_FACE),
                tools=self._making.chisel(self._own.stock[Y] / self._count),
                router=False,
            )


def _end_of(own: Frame, overlap: Box) -> Side:
    """Return at which end of a board an overlap lies."""
    axis: Axis = own.part.grain
    below: Fraction = overlap.low[axis.value] - own.part.box.low[axis.value]
    return side_at(axis, below > own.part.box.high[axis.value] - overlap.high[axis.value])
