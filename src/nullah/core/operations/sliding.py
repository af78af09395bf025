"""Operations of sliding dovetails: the slopes of a tail at an end, and the housing that it slides into."""

from __future__ import annotations

from dataclasses import dataclass

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.operations.lines import Edge, Line
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import HullRegion, Region, prism
from nullah.core.operations.settings import ByMate, ToolSetting
from nullah.core.operations.stock import Surface, Y


def _slope(run: Fraction, origin: Surface, quantity: str = "", mate: str = "") -> ToolSetting:
    if mate:
        return ToolSetting(N_("bevel"), None, origin, ByMate(mate), slope=run, quantity=quantity)
    return ToolSetting(N_("bevel"), None, origin, slope=run, quantity=quantity)


_Corners = tuple[tuple[Fraction, Fraction], ...]


def _hull(*sections: tuple[_Corners, Fraction]) -> HullRegion:
    """Return what lies between sections across a board: corners in z and x, and where each stands along y, mm."""
    points = [(float(x), float(y), float(z)) for corners, y in sections for z, x in corners]
    return HullRegion(tuple(points))


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
    taper : ToolSetting, optional
        How much more comes off one face at the edge that goes in first, from that face; None: it is straight.
    leads : Surface, optional
        That edge.
    """

    end: Surface
    shoulder: Line
    slope: Fraction
    quantity: str = ""
    taper: ToolSetting | None = None
    leads: Surface | None = None

    @property
    def lean(self) -> Fraction:
        """How far in from either face the neck lies, mm."""
        return abs(self.shoulder.at - self.stock.at(self.end)) / self.slope

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The bevel, and the taper."""
        bevel = _slope(self.slope, self.end, self.quantity)
        return (bevel,) if self.taper is None else (bevel, self.taper)

    @property
    def needs(self) -> tuple[Line, ...]:
        """The shoulder."""
        return (self.shoulder,)

    @property
    def takes(self) -> tuple[Region, ...]:
        """A wedge on either face, growing along the board on one that is tapered."""
        end, shoulder = self.stock.at(self.end), self.shoulder.at
        found: list[Region] = []
        for face in (Surface.FACE_SIDE, Surface.OTHER_FACE):
            flat, neck = self.stock.at(face), self.stock.place(face, self.lean)
            # Of a prism along y the points are z and x.
            corners = ((flat, end), (flat, shoulder), (neck, shoulder))
            if self.taper is None or self.leads is None or self.taper.origin is not face:
                found.append(prism(Y, corners, 0, self.stock.width))
                continue
            off = self.taper.figure
            ahead = (
                (flat, end),
                (self.stock.place(face, off), end),
                (flat, shoulder),
                (self.stock.place(face, self.lean + off), shoulder),
            )
            found.append(_hull((corners, self.stock.at(self.leads.opposite)), (ahead, self.stock.at(self.leads))))
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
    taper : ToolSetting, optional
        How much nearer to the other wall the high one lies at the end that the tail reaches last; None: straight.
    narrows : int
        To which of its ends it grows narrow, 0 or 1.
    """

    into: Surface
    low: Line
    high: Line
    depth: Line
    slope: Fraction
    mate: str
    ends: tuple[Edge, Edge]
    router: bool = True
    taper: ToolSetting | None = None
    narrows: int = 0

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The bevel, which is set to the tail, and the taper."""
        bevel = _slope(self.slope, self.into, mate=self.mate)
        return (bevel,) if self.taper is None else (bevel, self.taper)

    @property
    def needs(self) -> tuple[Line, ...]:
        """Walls and floor, and where it stops."""
        return (self.low, self.high, self.depth, *(edge for edge in self.ends if isinstance(edge, Line)))

    @property
    def takes(self) -> tuple[Region, ...]:
        """A trapezoid pushed across the board, growing narrow where it is tapered."""
        face, floor = self.stock.at(self.into), self.depth.at
        lean = abs(floor - face) / self.slope
        low = self.low.at

        def corners(high: Fraction) -> _Corners:
            return ((face, low), (face, high), (floor, high + lean), (floor, low - lean))

        ends = [self.edge(edge) for edge in self.ends]
        if self.taper is None:
            return (prism(Y, corners(self.high.at), *ends),)
        wide, narrow = corners(self.high.at), corners(self.high.at - self.taper.figure)
        return (_hull((wide, ends[1 - self.narrows]), (narrow, ends[self.narrows])),)
