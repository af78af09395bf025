"""Operations of wedges: the slot through a tenon that a wedge holds outside what it went through."""

from __future__ import annotations

from dataclasses import dataclass

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.operations.lines import Line
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import Region, prism
from nullah.core.operations.settings import ToolSetting
from nullah.core.operations.stock import Surface, Z


@dataclass(frozen=True, kw_only=True)
class ChopWedgeSlot(Operation):
    """A slot through a tenon from edge to edge: square on the side of the shoulder, sloped on the other.

    Parameters
    ----------
    end : Surface
        The end of the board.
    wall : Line
        Its square wall.
    cheeks : (Line, Line)
        Its walls through the thickness, from low to high.
    wide : ToolSetting
        How long it is at the narrower edge, from the square wall.
    narrow : Surface
        That edge.
    slope : Fraction
        The run of a slope of one in so much.
    quantity : str
        The ledger's name of the slope.
    """

    end: Surface
    wall: Line
    cheeks: tuple[Line, Line]
    wide: ToolSetting
    narrow: Surface
    slope: Fraction
    quantity: str = ""

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """How long it is, and the slope of the wedge."""
        return self.wide, ToolSetting(N_("bevel"), None, self.narrow, slope=self.slope, quantity=self.quantity)

    @property
    def needs(self) -> tuple[Line, ...]:
        """Its walls."""
        return (self.wall, *self.cheeks)

    @property
    def takes(self) -> tuple[Region, ...]:
        """What lies between its walls, wider towards the other edge."""
        way = 1 if self.end.high else -1
        near, far = self.stock.at(self.narrow), self.stock.at(self.narrow.opposite)
        short = self.wall.at + way * self.wide.figure
        long = short + way * self.stock.width / self.slope
        corners = ((self.wall.at, near), (short, near), (long, far), (self.wall.at, far))
        low, high = (line.at for line in self.cheeks)
        return (prism(Z, corners, low, high),)
