"""Operations of nails and screws: places along a row, holes, slots."""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum, auto

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.lengths import Length
from nullah.core.operations.lines import Line, LineKind
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import BoreRegion, Region, prism
from nullah.core.operations.settings import OfMate, OfTool, ToolSetting, of_tool, stepped
from nullah.core.operations.stock import Surface


class Pin(Enum):
    """What goes into a hole."""

    SCREW = auto()
    DOWEL = auto()
    PEG = auto()


@dataclass(frozen=True, kw_only=True)
class SetOutRow(Operation):
    """A row, and places along it: the first and the last so far from either end, and evenly between, with dividers.

    Parameters
    ----------
    row : ToolSetting
        From the surface beside it.
    first, last : ToolSetting
        From the low and from the high surface of the axis along which the row runs; None for the last of one place.
    count : int
        How many places.
    on : Surface
        The surface it is marked on.
    of : str
        The joint.
    """

    row: ToolSetting
    first: ToolSetting
    last: ToolSetting | None
    count: int
    on: Surface
    of: str

    @property
    def line(self) -> Line:
        """The row."""
        assert isinstance(self.row.origin, Surface)
        return Line(LineKind.ROW, self.row.origin.axis, self.row.place(self.stock), (self.on,), of=self.of)

    @property
    def step(self) -> Fraction:
        """What the dividers are open to, mm."""
        if self.last is None:
            return Fraction(0)
        return (self.last.place(self.stock) - self.first.place(self.stock)) / (self.count - 1)

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The row, both distances, and the step."""
        if self.last is None:
            return self.row, self.first
        ends = (self.row, self.first, self.last)
        return (*ends, stepped(N_("dividers"), self.step)) if self.count > 2 else ends

    @property
    def places(self) -> tuple[Line, ...]:
        """One line for every place."""
        assert isinstance(self.first.origin, Surface)
        axis, start = self.first.origin.axis, self.first.place(self.stock)
        return tuple(
            Line(LineKind.PLACE, axis, start + number * self.step, (self.on,), number=number + 1, of=self.of)
            for number in range(self.count)
        )

    @property
    def draws(self) -> tuple[Line, ...]:
        """The row and the places."""
        return self.line, *self.places


@dataclass(frozen=True, kw_only=True)
class TracePlaces(Operation):
    """Places marked through the holes of a part that is held where it will be.

    Parameters
    ----------
    mate : str
        The part with the holes.
    lines : tuple of Line
        The row and the places, where they come to lie.
    points : bool
        Whether the holes do not go through, so that points in them mark the places.
    """

    mate: str
    lines: tuple[Line, ...]
    points: bool = False

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The mate itself."""
        return (ToolSetting(N_("holes"), None, OfMate(self.mate)),)

    @property
    def draws(self) -> tuple[Line, ...]:
        """The row and the places."""
        return self.lines


@dataclass(frozen=True, kw_only=True)
class Bore(Operation):
    """Round holes where places cross a row.

    Parameters
    ----------
    into : Surface
        The surface they are bored into.
    row : Line
    places : tuple of Line
    bit : Length
        Its diameter, as it was bought.
    depth : ToolSetting, optional
        How deep, from that surface or from the floor; None: through.
    head : Fraction, optional
        The diameter of a countersink, mm.
    stays : bool
        Whether the part stays put at these places, and moves along slots at the others.
    pin : Pin
        What goes in.
    floor : Line, optional
        Where they begin below that surface: the floor of a channel.
    """

    into: Surface
    row: Line
    places: tuple[Line, ...]
    bit: Length
    depth: ToolSetting | None = None
    head: Fraction | None = None
    stays: bool = False
    pin: Pin = Pin.SCREW
    floor: Line | None = None

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The bit, its stop, the countersink."""
        found = [of_tool(N_("bit"), self.bit)]
        if self.depth is not None:
            found.append(self.depth)
        if self.head is not None:
            found += [
                ToolSetting(N_("countersink"), self.head, OfTool()),
                ToolSetting(N_("countersunk"), self._sunk, self.into),
            ]
        return tuple(found)

    @property
    def _sunk(self) -> Fraction:
        """How deep a countersink of 90° is: half as much as it is wider than the hole, mm."""
        return Fraction(0) if self.head is None else (self.head - self.bit.mm) / 2

    @property
    def needs(self) -> tuple[Line, ...]:
        """The row and the places, and the floor they begin at."""
        return (self.row, *self.places) if self.floor is None else (self.row, *self.places, self.floor)

    @property
    def takes(self) -> tuple[Region, ...]:
        """A hole at each place, and its countersink."""
        start = self.stock.at(self.into) if self.floor is None else self.floor.at
        end = self.stock.at(self.into.opposite)
        if self.depth is not None:
            end = start - self.depth.figure if self.into.high else start + self.depth.figure
        found: list[Region] = []
        for place in self.places:
            centre = _centre(self.into.axis, self.row, place)
            found.append(BoreRegion(self.into.axis, centre, float(self.bit), float(start), float(end)))
            if self.head is not None:
                sunk = self._sunk * (-1 if self.into.high else 1)
                found.append(
                    BoreRegion(
                        self.into.axis, centre, float(self.head), float(start), float(start + sunk), float(self.bit)
                    )
                )
        return tuple(found)


@dataclass(frozen=True, kw_only=True)
class BoreSlots(Operation):
    """Slots through a part where places cross a row: bored at both ends, and chiselled out between.

    Parameters
    ----------
    into : Surface
        The surface they are bored into.
    row : Line
    places : tuple of Line
    along : int
        The axis along which they are long: that in which the part moves.
    bit : Length
        Their width, as it was bought.
    travel : Fraction
        How far their ends' middles lie apart, mm.
    stays : bool
        Whether the part stays put at another place of the row.
    bought : bool
        Whether it is a bit of the shop's; otherwise the width is one that was typed.
    """

    into: Surface
    row: Line
    places: tuple[Line, ...]
    along: int
    bit: Length
    travel: Fraction
    stays: bool = True
    bought: bool = True

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """The bit, and how far apart the holes are that make a slot."""
        bit = of_tool(N_("bit"), self.bit) if self.bought else ToolSetting(N_("bit"), self.bit.mm, OfTool())
        return bit, ToolSetting(N_("slot"), self.travel, OfTool())

    @property
    def needs(self) -> tuple[Line, ...]:
        """The row and the places."""
        return (self.row, *self.places)

    @property
    def takes(self) -> tuple[Region, ...]:
        """Two holes and what is between them, at each place."""
        start, end = float(self.stock.at(self.into)), float(self.stock.at(self.into.opposite))
        axis, half, wide = self.into.axis, float(self.travel) / 2, float(self.bit) / 2
        first = (axis + 1) % 3
        found: list[Region] = []
        for place in self.places:
            a, b = _centre(axis, self.row, place)
            da, db = (half, 0.0) if self.along == first else (0.0, half)
            wa, wb = (0.0, wide) if self.along == first else (wide, 0.0)
            found += [
                BoreRegion(axis, (a - da, b - db), float(self.bit), start, end),
                BoreRegion(axis, (a + da, b + db), float(self.bit), start, end),
                prism(
                    axis,
                    (
                        (a - da - wa, b - db - wb),
                        (a + da + wa, b - db - wb) if da == 0 else (a + da, b - wb),
                        (a + da + wa, b + db + wb),
                        (a - da - wa, b + db + wb),
                    ),
                    *sorted((start, end)),
                ),
            ]
        return tuple(found)


def _centre(axis: int, row: Line, place: Line) -> tuple[float, float]:
    """Return where a place crosses a row, in the two axes after `axis` in cyclic order, mm."""
    at = {row.axis: float(row.at), place.axis: float(place.at)}
    return at[(axis + 1) % 3], at[(axis + 2) % 3]
