"""Operations of dovetails: the waste between tails, and between pins."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.lines import Edge, Line
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import HullRegion, PrismRegion, Region, prism
from nullah.core.operations.settings import OfTool, ToolSetting
from nullah.core.operations.stock import Surface, X, Y, Z


class Outline(NamedTuple):
    """A tail as it stands on the pin board: its edges across at the outside and at the inside of the corner, mm."""

    outer: tuple[Fraction, Fraction]
    inner: tuple[Fraction, Fraction]


@dataclass(frozen=True, kw_only=True)
class CutTails(Operation):
    """The waste between tails, and beside the outer ones, sawn on the slope and chopped to the baseline.

    Parameters
    ----------
    end : Surface
        The end of the board.
    baseline, tails : Line
        What is sawn and chopped to.
    low, high : Edge
        The borders of what is joined.
    marks : tuple of Line
        The edges of the tails at the end; none where the tails are traced from pins.
    outlines : tuple of Outline
        Where the tails are traced: their edges at the end and at the baseline.
    slope : Fraction, optional
        The run of their slope, where they are marked.
    chop_only : bool
        Whether all is chopped, and nothing sawn out.
    tools : tuple of ToolSetting
        The chisel that enters between the tails.
    """

    end: Surface
    baseline: Line
    tails: Line
    low: Edge
    high: Edge
    marks: tuple[Line, ...] = ()
    outlines: tuple[Outline, ...] = ()
    slope: Fraction | None = None
    chop_only: bool = False
    tools: tuple[ToolSetting, ...] = ()

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The slope, where no line of the mate says it, and the chisel."""
        slope = (ToolSetting(N_("bevel"), None, self.end, slope=self.slope),) if self.slope is not None else ()
        return (*slope, *self.tools)

    @property
    def needs(self) -> tuple[Line, ...]:
        """Tails, baseline, and borders that are lines."""
        borders = tuple(edge for edge in (self.low, self.high) if isinstance(edge, Line))
        return (self.tails, self.baseline, *self.marks, *borders)

    def _edges(self) -> list[tuple[Fraction, Fraction]]:
        """Return every edge of a tail, at the end and at the baseline, from the face edge up, mm."""
        if self.slope is None:
            return [pair for tail in self.outlines for pair in zip(tail.outer, tail.inner, strict=True)]
        lean = abs(self.stock.at(self.end) - self.baseline.at) / self.slope
        return [(mark.at, mark.at + lean * (1 if number % 2 == 0 else -1)) for number, mark in enumerate(self.marks)]

    @property
    def takes(self) -> tuple[Region, ...]:
        """A prism through the thickness for each gap."""
        end, base = self.stock.at(self.end), self.baseline.at
        low, high = self.edge(self.low), self.edge(self.high)
        edges = [(low, low), *self._edges(), (high, high)]
        return tuple(
            prism(Z, ((end, below[0]), (end, above[0]), (base, above[1]), (base, below[1])), 0, self.stock.thickness)
            for below, above in zip(edges[::2], edges[1::2], strict=True)
            if above[0] > below[0] or above[1] > below[1]
        )


@dataclass(frozen=True, kw_only=True)
class CutPins(Operation):
    """The sockets of a through dovetail, sawn plumb and chopped to the baseline from both faces.

    Parameters
    ----------
    end : Surface
        The end of the board.
    baseline, pins : Line
        What is sawn and chopped to.
    outlines : tuple of Outline
        The tails that go into it, where they are traced.
    marks : tuple of Line
        The edges of the sockets at the outside, where the pins are marked first.
    chop_only : bool
        Whether all is chopped, and nothing sawn out.
    tools : tuple of ToolSetting
        The chisel that enters between the pins.
    """

    end: Surface
    baseline: Line
    pins: Line
    outlines: tuple[Outline, ...] = ()
    marks: tuple[Line, ...] = ()
    chop_only: bool = False
    tools: tuple[ToolSetting, ...] = ()

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The chisel."""
        return self.tools

    @property
    def needs(self) -> tuple[Line, ...]:
        """The outline and the baseline."""
        return (self.pins, self.baseline, *self.marks)

    @property
    def takes(self) -> tuple[Region, ...]:
        """A prism along the grain for each tail."""
        outlines = self.outlines
        if self.pins.slope is not None:
            lean = self.stock.thickness / self.pins.slope
            places = [mark.at for mark in self.marks]
            outlines = tuple(
                Outline((low, high), (low + lean, high - lean))
                for low, high in zip(places[::2], places[1::2], strict=True)
            )
        return tuple(_sockets(self, outlines, self.baseline, Fraction(0), self.stock.thickness))


@dataclass(frozen=True, kw_only=True)
class SawBlindPins(Operation):
    """The cheeks of half-blind pins, sawn on the slant from corner to corner between two lines, where the saw stops.

    Parameters
    ----------
    end, baseline, pins, outlines
        As in `CutPins`.
    lap : Line
        How far the tails go in from the inside face.
    inside : Surface
        Of the corner.
    kerf : Fraction
        Of the saw, mm.
    """

    end: Surface
    baseline: Line
    pins: Line
    outlines: tuple[Outline, ...]
    lap: Line
    inside: Surface
    kerf: Fraction

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The saw."""
        return (ToolSetting(N_("kerf"), self.kerf, OfTool()),)

    @property
    def needs(self) -> tuple[Line, ...]:
        """The outline, and both lines that the saw goes to."""
        return self.pins, self.baseline, self.lap

    @property
    def takes(self) -> tuple[Region, ...]:
        """A wedge inside the waste along each cheek."""
        end, base, deep = float(self.stock.at(self.end)), float(self.baseline.at), float(self.lap.at)
        face = float(self.stock.at(self.inside))
        found = []
        for tail in self.outlines:
            for side, inwards in ((0, 1.0), (1, -1.0)):
                outer, inner = float(tail.outer[side]), float(tail.inner[side])
                kerf = float(self.kerf) * inwards
                found.append(
                    HullRegion(
                        (
                            (end, inner, face),
                            (end, inner + kerf, face),
                            (base, inner, face),
                            (base, inner + kerf, face),
                            (end, outer, deep),
                            (end, outer + kerf, deep),
                        )
                    )
                )
        return tuple(found)


@dataclass(frozen=True, kw_only=True)
class ChopBlindSockets(Operation):
    """The rest of half-blind sockets, chopped from the inside face and pared from the end; never from outside.

    Parameters
    ----------
    end, baseline, pins, outlines, lap, inside
        As in `SawBlindPins`.
    tools : tuple of ToolSetting
        The chisel that enters between the pins.
    """

    end: Surface
    baseline: Line
    pins: Line
    outlines: tuple[Outline, ...]
    lap: Line
    inside: Surface
    tools: tuple[ToolSetting, ...] = ()

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The chisel."""
        return self.tools

    @property
    def needs(self) -> tuple[Line, ...]:
        """The outline, and both lines that bound it."""
        return self.pins, self.baseline, self.lap

    @property
    def takes(self) -> tuple[Region, ...]:
        """A prism along the grain for each tail, as deep as the lap line."""
        return tuple(_sockets(self, self.outlines, self.baseline, self.stock.at(self.inside), self.lap.at))


@dataclass(frozen=True, kw_only=True)
class SawMitre(Operation):
    """The corner of a moulded edge, sawn from its edge down to a line, so that the moulding turns the corner.

    The cut runs from the baseline on the inside to the outer corner of the joint.

    Parameters
    ----------
    end : Surface
        The end of the board.
    edge_from : Surface
        The edge that is moulded.
    baseline, mitre : Line
        Where it begins on the face side, and how far down it goes from the edge.
    proud : ToolSetting
        From the end to where it comes out on the other face; nothing where the end is flush.
    """

    end: Surface
    edge_from: Surface
    baseline: Line
    mitre: Line
    proud: ToolSetting

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """What the end stands proud."""
        return (self.proud,)

    @property
    def needs(self) -> tuple[Line, ...]:
        """The baseline and the line that it goes down to."""
        return self.baseline, self.mitre

    @property
    def takes(self) -> tuple[Region, ...]:
        """All between the slant and the end, from the edge to the line."""
        end, thick = self.stock.at(self.end), self.stock.thickness
        slant = ((0, self.baseline.at), (thick, self.proud.place(self.stock)), (thick, end), (0, end))
        return (prism(Y, slant, *sorted((self.stock.at(self.edge_from), self.mitre.at))),)


def _sockets(
    at: CutPins | ChopBlindSockets, outlines: tuple[Outline, ...], baseline: Line, face: Fraction, deep: Fraction
) -> Iterator[PrismRegion]:
    end = at.stock.at(at.end)
    for tail in outlines:
        corners = ((tail.outer[0], deep), (tail.outer[1], deep), (tail.inner[1], face), (tail.inner[0], face))
        yield prism(X, corners, *sorted((end, baseline.at)))
