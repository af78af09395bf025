"""Operations that shape a part when its joints are cut."""

from __future__ import annotations

from dataclasses import dataclass

from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import Region, prism
from nullah.core.operations.settings import ToolSetting
from nullah.core.operations.stock import Surface


@dataclass(frozen=True, kw_only=True)
class PlaneTaper(Operation):
    """A surface planed to a straight taper along the grain.

    Parameters
    ----------
    end : Surface
        The end at which it takes most.
    toe : ToolSetting
        How much there, from the surface that is planed.
    start : ToolSetting, optional
        How far from the other end it begins; None: at that end.
    """

    end: Surface
    toe: ToolSetting
    start: ToolSetting | None = None

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """Toe and start."""
        return (self.toe,) if self.start is None else (self.toe, self.start)

    @property
    def takes(self) -> tuple[Region, ...]:
        """A wedge."""
        assert isinstance(self.toe.origin, Surface)
        planed = self.toe.origin
        level, toe = self.stock.at(planed), self.toe.place(self.stock)
        begin = self.stock.at(self.end.opposite) if self.start is None else self.start.place(self.stock)
        end = self.stock.at(self.end)
        corners = ((begin, level), (end, level), (end, toe))
        # The axis of the prism lies across the surface; its polygon is in the two others, in cyclic order.
        across = 3 - planed.axis
        flat = corners if (across + 1) % 3 == 0 else tuple((b, a) for a, b in corners)
        return (prism(across, flat, 0, self.stock[across]),)
