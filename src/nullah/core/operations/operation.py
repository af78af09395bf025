"""What all operations have in common."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from nullah.core.operations.lines import Edge, Line
from nullah.core.operations.regions import Region
from nullah.core.operations.settings import ToolSetting
from nullah.core.operations.stock import Stock


@dataclass(frozen=True, kw_only=True)
class Operation:
    """Something that a hand does to a part.

    Parameters
    ----------
    part : str
        The part's id.
    stock : Stock
        Its blank.
    """

    part: str
    stock: Stock

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """What is set for it."""
        return ()

    @property
    def draws(self) -> tuple[Line, ...]:
        """The lines it draws."""
        return ()

    @property
    def needs(self) -> tuple[Line, ...]:
        """The lines it works to."""
        return ()

    @property
    def takes(self) -> tuple[Region, ...]:
        """The wood it takes away."""
        return ()

    def edge(self, edge: Edge) -> Fraction:
        """Return where an edge of a cut lies along its axis, mm."""
        return edge.at if isinstance(edge, Line) else self.stock.at(edge)
