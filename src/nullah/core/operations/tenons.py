"""Operations of mortise and tenon: a pair of lines by the mortise gauge, and the waste round a tenon."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from nullah.core.fraction import Fraction
from nullah.core.operations.lines import Edge, Line, LineKind
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import Number, Region, block
from nullah.core.operations.settings import OfTool, ToolSetting
from nullah.core.operations.stock import Surface


@dataclass(frozen=True, kw_only=True)
class GaugePair(Operation):
    """Two lines by the mortise gauge: its pins as far apart as the chisel is wide, the nearer so far from a surface.

    Parameters
    ----------
    kind : LineKind
    near : ToolSetting
        From the surface that the gauge's fence runs along to the nearer line.
    wide : ToolSetting
        From one line to the other: the chisel, or a figure from the nearer line where no chisel is so wide.
    on : tuple of Surface
        The surfaces that are marked.
    end : Surface, optional
        The end of the board at which it is marked.
    of : str
        As in `Line`.
    """

    kind: LineKind
    near: ToolSetting
    wide: ToolSetting
    on: tuple[Surface, ...]
    end: Surface | None = None
    of: str = ""

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """Both."""
        return self.near, self.wide

    @property
    def draws(self) -> tuple[Line, ...]:
        """The nearer and the farther line."""
        assert isinstance(self.near.origin, Surface)
        axis = self.near.origin.axis
        return tuple(
            Line(self.kind, axis, self.stock.place(self.near.origin, at), self.on, self.end, number, self.of)
            for number, at in enumerate((self.near.figure, self.near.figure + self.wide.figure), start=1)
        )

    @property
    def by_chisel(self) -> bool:
        """Whether a chisel sets the pins."""
        return isinstance(self.wide.origin, OfTool) and self.wide.origin.bought is not None


@dataclass(frozen=True, kw_only=True)
class SawTenon(Operation):
    """The waste round one or more tenons at an end: cheeks, shoulders, and what lies between two of them.

    Parameters
    ----------
    end : Surface
        The end of the board.
    shoulder : Line
        How far back the waste goes.
    through : int
        The axis along which tenons are thick: 2, or 1 for tenons that stand on edge.
    cheeks : tuple of (Edge, Edge)
        Of each row of tenons, from low to high along that axis; a surface where there is no shoulder.
    edges : tuple of (Edge, Edge)
        The same along the other axis.
    shoulders_first : bool
        Whether shoulders are sawn before cheeks.
    """

    end: Surface
    shoulder: Line
    through: int
    cheeks: tuple[tuple[Edge, Edge], ...]
    edges: tuple[tuple[Edge, Edge], ...]
    shoulders_first: bool

    @property
    def needs(self) -> tuple[Line, ...]:
        """The shoulder, and cheeks and edges that are lines."""
        every = [self.shoulder, *(edge for pair in (*self.cheeks, *self.edges) for edge in pair)]
        return tuple(dict.fromkeys(edge for edge in every if isinstance(edge, Line)))

    @property
    def has_cheeks(self) -> bool:
        """Whether a cheek is sawn, or the tenons are as thick as the part."""
        return any(isinstance(edge, Line) for pair in self.cheeks for edge in pair)

    @property
    def has_edges(self) -> bool:
        """Whether an outer edge of the tenons is sawn."""
        return isinstance(self.edges[0][0], Line) or isinstance(self.edges[-1][1], Line)

    @property
    def across(self) -> int:
        """The axis along which tenons stand side by side."""
        return 3 - self.through

    @property
    def takes(self) -> tuple[Region, ...]:
        """A block for each cheek, each edge, and each gap between tenons."""
        thick, wide = self.stock[self.through], self.stock[self.across]
        return (
            *self._blocks((span, (Fraction(0), wide)) for span in self._beside(self.cheeks, thick)),
            *self._blocks(((Fraction(0), thick), span) for span in self._beside(self.edges, wide)),
        )

    def _beside(self, pairs: tuple[tuple[Edge, Edge], ...], size: Fraction) -> Iterator[tuple[Fraction, Fraction]]:
        """Yield from where to where the wood lies that no tenon of a row has, up to the size of the part."""
        bounds = [Fraction(0), *(self.edge(edge) for pair in pairs for edge in pair), size]
        return zip(bounds[::2], bounds[1::2], strict=True)

    def _blocks(self, spans: Iterator[tuple[tuple[Number, Number], tuple[Number, Number]]]) -> Iterator[Region]:
        """Yield the wood from the end to the shoulder between places through and across the tenons."""
        ends = sorted((self.stock.at(self.end), self.shoulder.at))
        for through, across in spans:
            if through[0] < through[1] and across[0] < across[1]:
                y, z = (across, through) if self.through == 2 else (through, across)
                yield block((ends[0], ends[1]), y, z)
