"""Operations that make a blank out of rough wood: what is planed true, gauged and worked to, resawn, glued up.

They take nothing in the answer of ``nullah work``: what comes of them is the blank that all others begin with.
"""

from __future__ import annotations

from dataclasses import dataclass

from nullah.core.fraction import Fraction
from nullah.core.operations.lines import Line, LineKind
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ToolSetting
from nullah.core.operations.stock import Surface

#: The line that each surface is worked to.
_LINES = {Surface.OTHER_FACE: LineKind.THICKNESS, Surface.OTHER_EDGE: LineKind.WIDTH, Surface.FAR_END: LineKind.LENGTH}


@dataclass(frozen=True, kw_only=True)
class PlaneTrue(Operation):
    """A surface from which others are gauged: face side, face edge, or reference end.

    Parameters
    ----------
    surface : Surface
    in_strip : bool
        Whether it is done to a strip, from which this part and others are sawn.
    """

    surface: Surface
    in_strip: bool = False


@dataclass(frozen=True, kw_only=True)
class WorkTo(Operation):
    """The surface across from a true one, worked to a line that is gauged from there.

    Parameters
    ----------
    setting : ToolSetting
        From the true surface.
    lows : Fraction
        How deep lows may stay, mm.
    in_strip : bool
        Whether it is done to a strip, from which this part and others are sawn.
    """

    setting: ToolSetting
    lows: Fraction = Fraction(0)
    in_strip: bool = False

    @property
    def surface(self) -> Surface:
        """The surface that is worked."""
        assert isinstance(self.setting.origin, Surface)
        return self.setting.origin.opposite

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The gauge."""
        return (self.setting,)

    @property
    def draws(self) -> tuple[Line, ...]:
        """The line, round the part."""
        at = self.setting.place(self.stock)
        on = tuple(each for each in Surface if each.axis != self.surface.axis)
        return (Line(_LINES[self.surface], self.surface.axis, at, on),)


@dataclass(frozen=True, kw_only=True)
class LeaveOver(Operation):
    """A size that is left larger, since what it must fit is measured first.

    Parameters
    ----------
    setting : ToolSetting
        What is left at the least, from the reference end or the face edge.
    """

    setting: ToolSetting

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """What is left."""
        return (self.setting,)


@dataclass(frozen=True, kw_only=True)
class LeaveRough(Operation):
    """The other face, left as it came, where only the face side matters.

    Parameters
    ----------
    setting : ToolSetting
        How thick the part is at its edges, from the face side.
    """

    setting: ToolSetting

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """What is left."""
        return (self.setting,)


@dataclass(frozen=True, kw_only=True)
class GlueStaves(Operation):
    """Staves that are glued to each other before they are milled as one.

    Parameters
    ----------
    count : int
    laminated : bool
        Whether face to face, or else edge to edge.
    clamps : int
        One row over all seams, two where faces are wide.
    goes : int
        Into how many parts they are glued, which are glued to each other after; 1: all at one go.
    """

    count: int
    laminated: bool = False
    clamps: int = 0
    goes: int = 1


@dataclass(frozen=True, kw_only=True)
class GlueTogether(Operation):
    """What a part's staves were glued into, glued to each other.

    Parameters
    ----------
    clamps : int
    """

    clamps: int


@dataclass(frozen=True, kw_only=True)
class Resaw(Operation):
    """A blank sawn through its thickness, for two parts.

    Parameters
    ----------
    setting : ToolSetting
        How thick the one is sawn, from its true face.
    other : str
        The part that the rest is for.
    """

    setting: ToolSetting
    other: str

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The gauge."""
        return (self.setting,)


@dataclass(frozen=True, kw_only=True)
class FlattenBoard(Operation):
    """A whole board flattened before it is sawn apart; its `stock` is the board.

    Parameters
    ----------
    board : str
        The board's id.
    setting : ToolSetting
        Its thickness then, from the face that was planed true: that of the thickest of its parts.
    portions : bool
        Whether it has been cut through once already, and each portion is flattened by itself.
    """

    board: str
    setting: ToolSetting
    portions: bool = False

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The gauge."""
        return (self.setting,)
