"""Operations of finger joints."""

from __future__ import annotations

from dataclasses import dataclass

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.operations.lines import Line, LineKind
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ByStepping, ToolSetting, stepped
from nullah.core.operations.stock import Surface, Y


@dataclass(frozen=True, kw_only=True)
class StepFingers(Operation):
    """Equal fingers stepped off across an end with dividers, from edge to edge.

    Parameters
    ----------
    end : Surface
        The end of the board.
    number : int
        How many fields, of both boards together.
    """

    end: Surface
    number: int

    @property
    def step(self) -> Fraction:
        """What the dividers are open to, mm: the width by the number of fields."""
        return self.stock.width / self.number

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The dividers, and the first finger from the edge."""
        first = ToolSetting(N_("first finger"), self.step, Surface.FACE_EDGE, ByStepping())
        return first, stepped(N_("dividers"), self.step)

    @property
    def draws(self) -> tuple[Line, ...]:
        """A line between any two fields."""
        return tuple(
            Line(LineKind.FINGER, Y, self.step * number, (self.end,), self.end, number)
            for number in range(1, self.number)
        )
