"""What is read off a board with a straightedge, winding sticks and a calliper, and where.

Places are mm from the board's lower left corner as it is drawn; what was read is a `Length`,
as it was typed.
"""

from __future__ import annotations

from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple

Place = tuple[float, float]


class Gap(NamedTuple):
    """A gap under a straightedge that lies from `start` to `end` on a face, read at `at`.

    Light under it (a hollow) is more than nothing. Where the edge rocks on a hump, it is held
    so that both ends stand equally high, and that height is entered as less than nothing.
    """

    upper: bool
    start: Place
    end: Place
    at: Place
    gap: Length


class Wind(NamedTuple):
    """What two winding sticks show that lie across a face at `near` and at `far` along the board.

    `rise` is how much higher the far stick's end at the board's upper edge (as it is drawn)
    looks than the near one's, with the other ends in line: at the ends of sticks `stick` long.
    """

    upper: bool
    near: float
    far: float
    stick: Length
    rise: Length


class Calliper(NamedTuple):
    """A thickness at a place, as a calliper gives it near the edge."""

    at: Place
    thickness: Length


ShapeReading = Gap | Wind | Calliper


def shape_place(reading: ShapeReading) -> tuple[object, ...]:
    """Return where a reading was taken, whatever it was."""
    if isinstance(reading, Gap):
        return "gap", reading.upper, reading.start, reading.end, reading.at
    if isinstance(reading, Wind):
        return "wind", reading.upper, reading.near, reading.far
    return "calliper", reading.at


def with_figure(reading: ShapeReading, figure: Length) -> ShapeReading:
    """Return a reading with another figure in it.

    Parameters
    ----------
    reading : ShapeReading
        Of a board's shape.
    figure : Length
        The new one.
    """
    if isinstance(reading, Gap):
        return reading._replace(gap=figure)
    if isinstance(reading, Wind):
        return reading._replace(rise=figure)
    return reading._replace(thickness=figure)


def figure_of(reading: ShapeReading) -> Length:
    """Return what was read."""
    if isinstance(reading, Gap):
        return reading.gap
    return reading.rise if isinstance(reading, Wind) else reading.thickness
