"""Operations of mitres: an end on the slant, and slots for keys across a glued corner."""

from __future__ import annotations

from dataclasses import dataclass

from nullah.core.operations.lines import Line
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import Number, Region, prism
from nullah.core.operations.settings import ToolSetting
from nullah.core.operations.stock import Stock, Surface


@dataclass(frozen=True, kw_only=True)
class MitreEnd(Operation):
    """An end sawn on the slant, to meet another.

    Parameters
    ----------
    end : Surface
        The end of the board.
    back : ToolSetting
        From the end to where the slant comes out on a face.
    deep : ToolSetting
        From that face to where it runs out at the end.
    holds : bool
        Whether it is glued; the ends of tenons that meet in a leg are not.
    """

    end: Surface
    back: ToolSetting
    deep: ToolSetting
    holds: bool = False

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """Both."""
        return self.back, self.deep

    @property
    def takes(self) -> tuple[Region, ...]:
        """A wedge over the whole part, between the slant, the end and the face."""
        face = self.deep.origin
        assert isinstance(face, Surface)
        return (_wedge(self.stock, self.end, self.back, self.deep, (0, self.stock[3 - face.axis])),)


@dataclass(frozen=True, kw_only=True)
class KeySlot(Operation):
    """A slot for a key, sawn across the outside of a glued corner until it is as far from the corner on both faces.

    Parameters
    ----------
    end : Surface
        The end of the board, in the corner.
    back : ToolSetting
        From the corner, along the outer face.
    deep : ToolSetting
        From the outer face, along the end.
    low, high : Line
        Its walls.
    """

    end: Surface
    back: ToolSetting
    deep: ToolSetting
    low: Line
    high: Line

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """Both; they are one figure."""
        return self.back, self.deep

    @property
    def needs(self) -> tuple[Line, ...]:
        """Its walls."""
        return self.low, self.high

    @property
    def takes(self) -> tuple[Region, ...]:
        """The corner cut off between its walls."""
        return (_wedge(self.stock, self.end, self.back, self.deep, (self.low.at, self.high.at)),)


def _wedge(stock: Stock, end: Surface, back: ToolSetting, deep: ToolSetting, over: tuple[Number, Number]) -> Region:
    """Return the wood that a slant cuts off the corner of an end and a surface, between places of the third axis."""
    face = deep.origin
    assert isinstance(face, Surface)
    tip, shut = stock.at(end), stock.at(face)
    corners = ((back.place(stock), shut), (tip, deep.place(stock)), (tip, shut))
    along = 3 - face.axis
    # Of a prism along y the points are z and x; along z they are x and y.
    flat = tuple((b, a) for a, b in corners) if along == 1 else corners
    return prism(along, flat, *over)
