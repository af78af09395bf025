"""What is set: a figure, where it is measured from, and what sets it."""

from __future__ import annotations

from nullah.core.fraction import Fraction
from nullah.core.lengths import Direction, Length, Marks
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.lines import Line
from nullah.core.operations.stock import Stock, Surface

#: The names of what is as long as the channel that it goes into came out deep.
ENTERING = ("tongue", "long")


class OfTool(NamedTuple):
    """A size that a tool has: an iron, a bit, a kerf, a divider step. It adds to what is said.

    `bought` is the size as it is called where the tool was bought.
    """

    bought: Length | None = None


class OfLine(NamedTuple):
    """Measured from a line that was drawn: its name, and what kind of line it is."""

    name: str
    kind: str


class OfMate(NamedTuple):
    """Traced from another part; there is no figure."""

    part: str


class ByRule(NamedTuple):
    """Read off a rule, rounded to its marks."""


class ByMate(NamedTuple):
    """Set to the other part itself, never to a figure."""

    part: str


class ByMeasure(NamedTuple):
    """Set to what was measured where it goes."""

    quantity: str


class ByStepping(NamedTuple):
    """Set once and stepped off; never to a figure."""


Origin = Surface | OfTool | OfLine | OfMate
By = ByRule | ByMate | ByMeasure | ByStepping


class ToolSetting(NamedTuple):
    """A figure that a hand sets.

    Parameters
    ----------
    name : str
        What it is, such as ``depth``.
    value : Fraction, optional
        mm; None where it is traced, or a slope.
    origin : Origin
        What it is measured from.
    by : By
        What sets it.
    slope : Fraction, optional
        The run of a slope of one in so much.
    quantity : str
        The ledger's name of it, where it can be typed; empty otherwise.
    """

    name: str
    value: Fraction | None
    origin: Origin
    by: By = ByRule()
    slope: Fraction | None = None
    quantity: str = ""

    @property
    def figure(self) -> Fraction:
        """The value, mm; `ValueError` for a setting without one."""
        if self.value is None:
            raise ValueError(self.name)
        return self.value

    def place(self, stock: Stock) -> Fraction:
        """Return where a setting comes to on a blank, mm; `ValueError` for one that is not from a surface."""
        if not isinstance(self.origin, Surface):
            raise ValueError(self.name)
        return stock.place(self.origin, self.figure)


def by_rule(
    name: str,
    exact: Fraction,
    origin: Surface | OfLine,
    marks: Marks,
    way: Direction = Direction.NEAREST,
    quantity: str = "",
) -> ToolSetting:
    """Return a setting that is read off a rule: to its marks, which way is safe, and never nothing of something.

    Parameters
    ----------
    name : str
    exact : Fraction
        What it should be, mm.
    origin : Surface or OfLine
        What it is measured from.
    marks : Marks
        Of the rule.
    way : Direction
        Which way is safe.
    quantity : str
        The ledger's name of it.
    """
    rounded = marks.to_mark(Length(exact), way).mm
    if exact > 0 and rounded <= 0:
        rounded = marks.to_mark(Length(exact), Direction.UP).mm
    return ToolSetting(name, rounded, origin, quantity=quantity)


def by_mate(name: str, value: Fraction, origin: Surface | OfLine, part: str, quantity: str = "") -> ToolSetting:
    """Return a setting that is taken from the other part; `value` is what it comes to, mm.

    Parameters
    ----------
    name : str
        What is set.
    value : Fraction
        mm.
    origin : Surface or OfLine
        It is measured from.
    part : str
        Id of the other part.
    quantity : str
        The figure it stands for.
    """
    return ToolSetting(name, value, origin, ByMate(part), quantity=quantity)


def of_line(line: Line) -> OfLine:
    """Return a line as what is measured from."""
    return OfLine(line.name, line.kind.value)


def of_tool(name: str, size: Length, quantity: str = "") -> ToolSetting:
    """Return the size of a tool as it was bought, such as the width of an iron.

    Parameters
    ----------
    name : str
        What is set.
    size : Length
        As it was bought.
    quantity : str
        The figure it stands for.
    """
    return ToolSetting(name, size.mm, OfTool(size), quantity=quantity)


def stepped(name: str, value: Fraction) -> ToolSetting:
    """Return what the dividers are opened to, mm.

    Parameters
    ----------
    name : str
        What is set.
    value : Fraction
        mm.
    """
    return ToolSetting(name, value, OfTool(), ByStepping())
