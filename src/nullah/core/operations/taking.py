"""Operations that take wood away between lines, surfaces and what tools are set to."""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.lines import Edge, Line
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import BeyondRegion, Region, Span, block
from nullah.core.operations.settings import ToolSetting
from nullah.core.operations.stock import Stock, Surface


class Beside(NamedTuple):
    """As far from the other bound of a cut as a tool is wide."""

    tool: ToolSetting


#: What a cut goes to along an axis: a surface, a line, what a tool is set to from a surface, or a tool's own width.
Bound = Edge | ToolSetting | Beside
Bounds = tuple[Bound, Bound]


class Cut(Enum):
    """How wood is taken away; the value is what it is called."""

    PLOUGH = N_("plow")
    PLOUGH_TO_LINES = N_("plow to lines")
    CHISEL_GROOVE = N_("chop a groove")
    RABBET = N_("rabbet")
    TONGUE = N_("rabbet beside a tongue")
    END_RABBET = N_("saw and split a rabbet")
    STOPPED_RABBET = N_("chop a stopped rabbet")
    STOPPED_EDGE_RABBET = N_("chop a rabbet stopped along an edge")
    DADO = N_("saw and chop a dado")
    STOPPED_DADO = N_("chop a stopped dado")
    NOTCH = N_("notch")
    RECESS = N_("let in")
    SAW_NOTCH = N_("saw a notch")
    MORTISE = N_("chop a mortise")
    THROUGH_MORTISE = N_("chop a mortise through")
    OPEN_MORTISE = N_("saw a slot in an end")
    PANEL_RABBET = N_("rabbet the end of a panel")
    BETWEEN_TENONS = N_("saw out between tenons")
    BETWEEN_FINGERS = N_("saw out between fingers")
    HAUNCH = N_("saw back to the haunch")
    HAUNCH_SOCKET = N_("saw and chop the socket of a haunch")


#: What runs on to both ends of the board by itself: a plane cannot stop.
RUNS_THROUGH = frozenset({Cut.PLOUGH, Cut.PLOUGH_TO_LINES, Cut.RABBET, Cut.TONGUE})
#: What is sawn, so that one end at least must be open.
SAWN = frozenset(
    {
        Cut.END_RABBET,
        Cut.DADO,
        Cut.NOTCH,
        Cut.OPEN_MORTISE,
        Cut.SAW_NOTCH,
        Cut.PANEL_RABBET,
        Cut.BETWEEN_TENONS,
        Cut.BETWEEN_FINGERS,
        Cut.HAUNCH,
        Cut.HAUNCH_SOCKET,
    }
)


@dataclass(frozen=True, kw_only=True)
class Take(Operation):
    """A cut with straight walls.

    Parameters
    ----------
    cut : Cut
    into : Surface
        The surface it is cut into.
    x, y, z : (Bound, Bound)
        What it goes to, from low to high, along each axis.
    tools : tuple of ToolSetting
        Tools that fit into it, where their size is no bound.
    of : str
        The ledger's name of its width, or what goes into it.
    router : bool
        Whether a router plane levels its floor, or else a chisel.
    """

    cut: Cut
    into: Surface
    x: Bounds
    y: Bounds
    z: Bounds
    tools: tuple[ToolSetting, ...] = ()
    of: str = ""
    router: bool = True

    @property
    def bounds(self) -> tuple[Bounds, Bounds, Bounds]:
        """What it goes to along all axes."""
        return self.x, self.y, self.z

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """What is set for it, each once."""
        found: dict[ToolSetting, None] = {}
        for pair in self.bounds:
            for bound in pair:
                if isinstance(bound, Beside):
                    found[bound.tool] = None
                elif isinstance(bound, ToolSetting):
                    found[bound] = None
        return (*found, *self.tools)

    @property
    def needs(self) -> tuple[Line, ...]:
        """The lines it goes to."""
        return tuple(dict.fromkeys(b for pair in self.bounds for b in pair if isinstance(b, Line)))

    @property
    def places(self) -> tuple[Span, Span, Span]:
        """From where to where it goes along each axis, mm."""
        return (_span(self.x, self.stock), _span(self.y, self.stock), _span(self.z, self.stock))

    @property
    def takes(self) -> tuple[Region, ...]:
        """The wood between its bounds."""
        return (block(*self.places),)


def _span(bounds: Bounds, stock: Stock) -> Span:
    low, high = bounds
    if isinstance(low, Beside):
        end = _place(high, stock)
        return end - low.tool.figure, end
    start = _place(low, stock)
    return start, start + high.tool.figure if isinstance(high, Beside) else _place(high, stock)


def _place(bound: Bound, stock: Stock) -> Fraction:
    if isinstance(bound, Line):
        return bound.at
    if isinstance(bound, Surface):
        return stock.at(bound)
    if isinstance(bound, ToolSetting):
        return bound.place(stock)
    raise ValueError(bound)


@dataclass(frozen=True, kw_only=True)
class PlaneOff(Operation):
    """A surface planed down: what was left proud, planed flush when it is together.

    Parameters
    ----------
    setting : ToolSetting
        How much, from the surface.
    on_assembly : bool
        Whether the part is glued already.
    """

    setting: ToolSetting
    on_assembly: bool = True

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """How much."""
        return (self.setting,)

    @property
    def takes(self) -> tuple[Region, ...]:
        """All that stands out."""
        assert isinstance(self.setting.origin, Surface)
        return (beyond(self.stock, self.setting.origin.opposite, self.setting.place(self.stock)),)


@dataclass(frozen=True, kw_only=True)
class CutToSize(Operation):
    """A part that was left long or wide, cut to what it must fit.

    Parameters
    ----------
    setting : ToolSetting
        Its size from the reference end or the face edge.
    goes_in : bool
        Whether it goes into what was measured, and is tried and shaved there; what others enter is not.
    """

    setting: ToolSetting
    goes_in: bool = True

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The size."""
        return (self.setting,)

    @property
    def takes(self) -> tuple[Region, ...]:
        """All beyond it."""
        assert isinstance(self.setting.origin, Surface)
        return (beyond(self.stock, self.setting.origin, self.setting.place(self.stock)),)


def beyond(stock: Stock, kept: Surface, at: Fraction) -> BeyondRegion:
    """Return all wood on the other side of a plane than a surface, square to an axis.

    Parameters
    ----------
    stock : Stock
    kept : Surface
        The surface on the side that stays.
    at : Fraction
        Where the plane lies along its axis, mm.
    """
    point = [float(size) / 2 for size in stock]
    point[kept.axis] = float(at)
    normal = [0.0, 0.0, 0.0]
    normal[kept.axis] = -1.0 if kept.high else 1.0
    return BeyondRegion((point[0], point[1], point[2]), (normal[0], normal[1], normal[2]))
