"""Operations of sliding dovetails: the slopes of a tail at an end, and the housing that it slides into."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from nullah.core.catalogue import N_
from nullah.core.operations.lines import Edge, Line
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import Region, prism
from nullah.core.operations.settings import ByMate, ToolSetting
from nullah.core.operations.stock import Surface, Y


def _slope(run: Fraction, origin: Surface, quantity: str = "", mate: str = "") -> ToolSetting:
    if mate:
        return ToolSetting(N_("bevel"), None, origin, ByMate(mate), slope=run, quantity=quantity)
    return ToolSetting(N_("bevel"), None, origin, slope=run, quantity=quantity)


@dataclass(frozen=True, kw_only=True)
class SlopeTail(Operation):
    """Both faces at an end sloped from its corners in to the shoulder: a tail, wide at the end, narrow at its neck.

    Parameters
    ----------
    end : Surface
        The end of the board.
    shoulder : Line
        How far back the slopes go.
    slope : Fraction
        The run of a slope of one in so much.
    quantity : str
        The ledger's name of the slope.
    """

    end: Surface
    shoulder: Line
    slope: Fraction
    quantity: str = ""

    @property
    def lean(self) -> Fraction:
        """How far in from either face the neck lies, mm."""
        return abs(self.shoulder.at - self.stock.at(self.end)) / self.slope

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The bevel."""
        return (_slope(self.slope, self.end, self.quantity),)

    @property
    def needs(self) -> tuple[Line, ...]:
        """The shoulder."""
        return (self.shoulder,)

    @property
    def takes(self) -> tuple[Region, ...]:
        """A wedge on either face."""
        end, shoulder = self.stock.at(self.end), self.shoulder.at
        found = []
        for face in (Surface.FACE_SIDE, Surface.OTHER_FACE):
            flat, neck = self.stock.at(face), self.stock.place(face, self.lean)
            # Of a prism along y the points are z and x.
            found.append(prism(Y, ((flat, end), (flat, shoulder), (neck, shoulder)), 0, self.stock.width))
        return tuple(found)


@dataclass(frozen=True, kw_only=True)
class SawHousing(Operation):
    """A dovetailed housing across a face: narrow at the face, wider at its floor, open at one edge at least.

    Parameters
    ----------
    into : Surface
        The face it is cut into.
    low, high : Line
        Its walls at the face, along the grain.
    depth : Line
        Its floor.
    slope : Fraction
        The run of a slope of one in so much.
    mate : str
        The board whose tail sets the bevel.
    ends : (Edge, Edge)
        From where to where it goes across the grain.
    router : bool
        Whether a router plane levels its floor, or else a chisel.
    """

    into: Surface
    low: Line
    high: Line
    depth: Line
    slope: Fraction
    mate: str
    ends: tuple[Edge, Edge]
    router: bool = True

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The bevel, which is set to the tail."""
        return (_slope(self.slope, self.into, mate=self.mate),)

    @property
    def needs(self) -> tuple[Line, ...]:
        """Walls and floor, and where it stops."""
        return (self.low, self.high, self.depth, *(edge for edge in self.ends if isinstance(edge, Line)))

    @property
    def takes(self) -> tuple[Region, ...]:
        """A trapezoid pushed across the board."""
        face, floor = self.stock.at(self.into), self.depth.at
        lean = abs(floor - face) / self.slope
        low, high = self.low.at, self.high.at
        corners = ((face, low), (face, high), (floor, high + lean), (floor, low - lean))
        return (prism(Y, corners, *(self.edge(edge) for edge in self.ends)),)
