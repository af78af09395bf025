"""Operations that draw lines."""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum

from nullah.core.catalogue import N_, Phrase
from nullah.core.fraction import Fraction
from nullah.core.operations.lines import Edge, Line, LineKind
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import OfLine, OfMate, ToolSetting, of_line, stepped
from nullah.core.operations.stock import Surface, Y

#: How a setting is called that draws what enters against a wall of its channel.
DRAWN_UP = N_("drawn up")


class Marker(Enum):
    """What draws a line; the value is what it is called."""

    GAUGE = N_("marking gauge")
    KNIFE = N_("knife and square")
    PENCIL = N_("pencil and square")


@dataclass(frozen=True, kw_only=True)
class Gauge(Operation):
    """One line so far from a surface, or from another line.

    Parameters
    ----------
    kind : LineKind
    setting : ToolSetting
        How far, and from where.
    over : ToolSetting, optional
        What is added to it, such as how far the end is left proud.
    tool : Marker
    on : tuple of Surface
        The surfaces it is drawn on.
    end, number, of
        As in `Line`.
    base : Line, optional
        The line it is measured from.
    backwards : bool
        Whether it lies on the low side of that line.
    """

    kind: LineKind
    setting: ToolSetting
    over: ToolSetting | None = None
    tool: Marker = Marker.GAUGE
    on: tuple[Surface, ...] = ()
    end: Surface | None = None
    number: int = 0
    of: str = ""
    base: Line | None = None
    backwards: bool = False

    @property
    def line(self) -> Line:
        """The line."""
        if self.base is not None:
            away = -self.setting.figure if self.backwards else self.setting.figure
            axis, at = self.base.axis, self.base.at + away
        else:
            assert isinstance(self.setting.origin, Surface)
            more = self.over.figure if self.over is not None else 0
            at = self.stock.place(self.setting.origin, self.setting.figure + more)
            axis = self.setting.origin.axis
        return Line(self.kind, axis, at, self.on, self.end, self.number, self.of)

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The distance, and what is added to it."""
        return (self.setting,) if self.over is None else (self.setting, self.over)

    @property
    def draws(self) -> tuple[Line, ...]:
        """The one line."""
        return (self.line,)

    @property
    def needs(self) -> tuple[Line, ...]:
        """The line it is measured from."""
        return (self.base,) if self.base is not None else ()


@dataclass(frozen=True, kw_only=True)
class StepOff(Operation):
    """The edges of equal tails, stepped off with dividers between half-pins at both borders.

    Parameters
    ----------
    end : Surface
        The end of the board.
    low, high : Edge
        The borders of what is joined: the board's own edges, or lines.
    half_pin : Fraction
        From either border, as it is set, mm.
    pin : Fraction
        By how much the dividers overshoot, mm.
    count : int
        How many tails.
    pins : bool
        Whether it is the pin board that is laid out so.
    quantity : str
        The ledger's prefix of these figures.
    """

    end: Surface
    low: Edge
    high: Edge
    half_pin: Fraction
    pin: Fraction
    count: int
    pins: bool = False
    quantity: str = ""

    @property
    def step(self) -> Fraction:
        """What the dividers are open to, mm: (width - 2 half-pins + pin) / number of tails (exact)."""
        return (self.edge(self.high) - self.edge(self.low) - 2 * self.half_pin + self.pin) / self.count

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """Both half-pins, the step, and the pin it leaves."""
        return (
            ToolSetting(N_("half-pin"), self.half_pin, _origin(self.low), quantity=f"{self.quantity}.half_pin"),
            ToolSetting(N_("half-pin"), self.half_pin, _origin(self.high), quantity=f"{self.quantity}.half_pin"),
            stepped(N_("dividers"), self.step),
            stepped(N_("pin"), self.pin),
        )

    @property
    def draws(self) -> tuple[Line, ...]:
        """Both edges of every tail, from the face edge up."""
        start = self.edge(self.low) + self.half_pin
        places = [
            start + number * self.step + part for number in range(self.count) for part in (0, self.step - self.pin)
        ]
        return tuple(
            Line(LineKind.MARK, Y, Fraction(at), (self.end,), self.end, number)
            for number, at in enumerate(places, start=1)
        )

    @property
    def needs(self) -> tuple[Line, ...]:
        """The borders that are lines."""
        return tuple(edge for edge in (self.low, self.high) if isinstance(edge, Line))


@dataclass(frozen=True, kw_only=True)
class SetOff(Operation):
    """The edges of tails that are not equal, each set off from the face edge with a rule.

    Parameters
    ----------
    end : Surface
        The end of the board.
    places : tuple of Fraction
        Both edges of every tail, from the face edge up, as they are set, mm.
    pins : bool
        Whether it is the pin board that is laid out so.
    quantity : str
        The ledger's prefix of these figures.
    """

    end: Surface
    places: tuple[Fraction, ...]
    pins: bool = False
    quantity: str = ""

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """One for every mark."""
        return tuple(
            ToolSetting(
                Phrase("mark {number}", number=str(number)), at, Surface.FACE_EDGE, quantity=f"{self.quantity}.count"
            )
            for number, at in enumerate(self.places, start=1)
        )

    @property
    def draws(self) -> tuple[Line, ...]:
        """Both edges of every tail."""
        return tuple(
            Line(LineKind.MARK, Y, at, (self.end,), self.end, number) for number, at in enumerate(self.places, start=1)
        )


@dataclass(frozen=True, kw_only=True)
class DrawSlopes(Operation):
    """The slanted lines of tails or pins, with a bevel, from the marks at the end.

    Parameters
    ----------
    end : Surface
        The end of the board.
    marks : tuple of Line
        The edges of the tails.
    slope : Fraction
        The run of a slope of one in so much.
    pins : bool
        Whether they are drawn on the end of the pin board, from its other face; on a tail board they are drawn on its
        face, from the end.
    quantity : str
        The ledger's prefix of these figures.
    """

    end: Surface
    marks: tuple[Line, ...]
    slope: Fraction
    pins: bool = False
    quantity: str = ""

    @property
    def line(self) -> Line:
        """All of them as one outline."""
        kind = LineKind.PINS if self.pins else LineKind.TAILS
        return Line(kind, on=(self.end,), end=self.end, slope=self.slope)

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The bevel."""
        origin = Surface.OTHER_FACE if self.pins else self.end
        return (ToolSetting(N_("bevel"), None, origin, slope=self.slope, quantity=f"{self.quantity}.slope"),)

    @property
    def draws(self) -> tuple[Line, ...]:
        """The outline."""
        return (self.line,)

    @property
    def needs(self) -> tuple[Line, ...]:
        """The marks."""
        return self.marks


@dataclass(frozen=True, kw_only=True)
class Trace(Operation):
    """The outline of the mate, knifed round it where it will stand.

    Parameters
    ----------
    kind : LineKind
    mate : str
        The part that is traced.
    on : tuple of Surface
        The surfaces it is drawn on.
    end : Surface, optional
        As in `Line`.
    """

    kind: LineKind
    mate: str
    on: tuple[Surface, ...] = ()
    end: Surface | None = None

    @property
    def line(self) -> Line:
        """The outline."""
        return Line(self.kind, on=self.on, end=self.end)

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The mate itself."""
        return (ToolSetting(self.kind.value, None, OfMate(self.mate)),)

    @property
    def draws(self) -> tuple[Line, ...]:
        """The outline."""
        return (self.line,)


def _origin(edge: Edge) -> Surface | OfLine:
    return of_line(edge) if isinstance(edge, Line) else edge
