"""The operation of sawing a board apart: one cut through the piece in hand, measured on that piece."""

from __future__ import annotations

from dataclasses import dataclass

from nullah.core.fraction import Fraction
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ToolSetting
from nullah.core.operations.stock import Surface


@dataclass(frozen=True, kw_only=True)
class SawThrough(Operation):
    """A cut through a piece of a board; its `stock` is that piece, as it lies.

    Ends and edges are the board's as it is drawn: the reference end is at the left, the face edge below.

    Parameters
    ----------
    board : str
        The board's id.
    order : int
        Which cut of the board it is, from 1.
    hand : tuple of (int, bool)
        The cuts that left the piece in hand, each with whether it lay beyond that cut; empty: the whole board.
    setting : ToolSetting
        From an end or an edge that the piece has.
    saw_beyond : bool
        Whether the saw stays beyond the line, seen from there, or else before it.
    kerf : Fraction
        mm.
    holds : tuple of str
        The parts that lie in the piece.
    frees : tuple of str
        Those that then lie in a piece by themselves.
    stop : ToolSetting or None
        Of a rip that stops: how far it goes, from the end at which it begins.
    to_rip : bool
        Of a crosscut: whether it ends in the kerf of a rip that stopped, in one of the strips beside it.
    """

    board: str
    order: int
    hand: tuple[tuple[int, bool], ...]
    setting: ToolSetting
    saw_beyond: bool
    kerf: Fraction
    holds: tuple[str, ...]
    frees: tuple[str, ...] = ()
    stop: ToolSetting | None = None
    to_rip: bool = False

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """Where the line is, and where it stops."""
        return (self.setting,) if self.stop is None else (self.setting, self.stop)

    @property
    def across(self) -> bool:
        """Whether it is a crosscut."""
        assert isinstance(self.setting.origin, Surface)
        return self.setting.origin.axis == 0

    @property
    def long(self) -> Fraction:
        """How long the cut is, mm."""
        if self.stop is not None:
            return self.stop.figure
        return self.stock.width if self.across else self.stock.length

    @property
    def span(self) -> tuple[Fraction, Fraction]:
        """From where to where the saw goes through the piece, from its left end or its lower edge, mm."""
        assert isinstance(self.setting.origin, Surface)
        line = self.setting.place(self.stock)
        up = self.saw_beyond is not self.setting.origin.high
        return (line, line + self.kerf) if up else (line - self.kerf, line)
