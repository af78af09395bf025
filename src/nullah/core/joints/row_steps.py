"""How nails and screws are set out and bored for."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import JointStage, Moment
from nullah.core.fraction import Fraction
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.rows import Row
from nullah.core.lengths import from_float
from nullah.core.operations.fastening import Bore, BoreSlots, SetOutRow, TracePlaces
from nullah.core.operations.lines import Line, LineKind
from nullah.core.operations.settings import by_rule, of_line
from nullah.core.operations.stock import Surface, surface_at
from nullah.core.piece.frame import Frame
from nullah.core.piece.space import Axis


def fastening_steps(making: Making, row: Row) -> tuple[BenchStep, ...]:
    """Return the steps of a row: set out and bored in the part they go through; traced and bored in the other."""
    through, into = (
        (making.first, making.second) if making.first.part.id == row.through else (making.second, making.first)
    )
    at_through, at_into = ("first", "second") if through is making.first else ("second", "first")
    laid = _SetOut(making, row, through)
    return (
        BenchStep(JointStage.MARKED, at_through, (laid.row,)),
        BenchStep(JointStage.CUT, at_through, tuple(laid.bored())),
        BenchStep(JointStage.CUT, at_into, tuple(_pilots(making, row, through, into)), Moment.PUT_TOGETHER),
    )


class _SetOut:
    """The part that nails or screws go through."""

    def __init__(self, making: Making, row: Row, frame: Frame) -> None:
        self._making, self._row, self._frame = making, row, frame
        self._part, self._stock = frame.part.id, frame.stock
        self._into = frame.surface(row.side)

    @property
    def row(self) -> SetOutRow:
        """The row, from the nearer edge, and the places along it."""
        marks = self._making.marks
        across = self._frame.axes.index(self._row.across)
        surface, distance = nearer(self._frame, across, self._row.level)
        axis = self._frame.axes.index(self._row.along)
        first, last = self._frame.span(axis, self._row.places[0], self._row.places[-1])
        return SetOutRow(
            part=self._part,
            stock=self._stock,
            row=by_rule("row", distance, surface, marks),
            first=by_rule("first place", first, surface_at(axis, False), marks),
            last=(
                by_rule("last place", self._stock[axis] - last, surface_at(axis, True), marks)
                if len(self._row.places) > 1
                else None
            ),
            count=len(self._row.places),
            on=self._into,
            of=self._making.joint.id,
        )

    def bored(self) -> Iterator[Bore | BoreSlots]:
        """Yield the holes."""
        row, laid = self._row, self.row
        line, places = laid.line, laid.places
        if self._frame.turned[self._frame.axes.index(row.along)]:
            places = places[::-1]
        fixed = tuple(p for n, p in enumerate(places) if row.slot is None or n == row.fixed)
        slotted = tuple(p for p in places if p not in fixed)
        if fixed:
            yield Bore(
                part=self._part,
                stock=self._stock,
                into=self._into,
                row=line,
                places=fixed,
                bit=row.bit,
                head=row.head or None,
                stays=row.slot is not None,
            )
        if slotted and row.slot is not None:
            yield BoreSlots(
                part=self._part,
                stock=self._stock,
                into=self._into,
                row=line,
                places=slotted,
                along=self._frame.axes.index(row.slot),
                bit=row.bit,
                travel=row.travel,
                stays=bool(fixed),
            )


def _pilots(making: Making, row: Row, through: Frame, into: Frame) -> Iterator[TracePlaces | Bore]:
    """Yield the places marked through the holes of the other part, and what is bored there."""
    surface = into.surface(row.side)
    across, along = into.axes.index(row.across), into.axes.index(row.along)
    laid = _SetOut(making, row, through)
    # What is traced is where the holes of the other part really are.
    level = carried(through, into, row.across, laid.row.line)
    line = Line(LineKind.ROW, across, level, (surface,), of=making.joint.id)
    places = tuple(
        Line(LineKind.PLACE, along, carried(through, into, row.along, place), (surface,), number=n, of=making.joint.id)
        for n, place in enumerate(laid.row.places, start=1)
    )
    meets, _ = into.span(surface.axis, row.meets, row.meets)
    floor = None
    if meets != into.stock.at(surface):
        # In a channel the holes begin at its floor, which the part that is held there covers.
        floor = Line(LineKind.FLOOR, surface.axis, meets, (surface,), of=making.joint.id)
    lines = (line, *places) if floor is None else (line, *places, floor)
    yield TracePlaces(part=into.part.id, stock=into.stock, mate=through.part.id, lines=lines)
    origin = surface if floor is None else of_line(floor)
    depth = by_rule("depth", from_float(row.fastening.enters).mm, origin, making.marks)
    yield Bore(
        part=into.part.id,
        stock=into.stock,
        into=surface,
        row=line,
        places=places,
        bit=row.pilot,
        depth=depth,
        floor=floor,
    )


def carried(one: Frame, other: Frame, axis: Axis, line: Line) -> Fraction:
    """Return where a line of one part lies on another that it is held against, mm in the other's frame."""
    index, there = one.axes.index(axis), other.axes.index(axis)
    at = one.high[index] - line.at if one.turned[index] else one.low[index] + line.at
    return other.high[there] - at if other.turned[there] else at - other.low[there]


def nearer(frame: Frame, axis: int, level: Fraction) -> tuple[Surface, Fraction]:
    """Return the surface a place is nearer to along an axis, and how far, mm.

    Parameters
    ----------
    frame : Frame
        Of the part.
    axis : int
        Of the blank, 0 to 2.
    level : Fraction
        Along it, mm.
    """
    at, _ = frame.span(axis, level, level)
    size = frame.stock[axis]
    return (surface_at(axis, True), size - at) if 2 * at > size else (surface_at(axis, False), at)
