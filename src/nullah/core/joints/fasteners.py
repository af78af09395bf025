"""Nails and screws: which, how deep a pilot, how far apart, and what they hold.

Withdrawal from side grain by the formulas of the Wood Handbook (USDA FPL-GTR-282), chapter 8: nails
54.12·G^2.5·D·L, wood screws 108.25·G²·D·L, in N with D and L in mm and G the specific gravity of oven-dry
weight and volume at test; from memory, and checked against their forms in pounds and inches.
"""

from __future__ import annotations

import math
from enum import Enum, auto
from functools import cache

from nullah.core.errors import FactError
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import kept_by_value
from nullah.core.lengths import Length, Marks, Unit, entered, inch, mm, read_length
from nullah.core.named_tuple import NamedTuple

#: What a kilogram weighs, N (standard gravity, exact).
GRAVITY = 9.80665
#: Of what pulls it out, so much may be asked of it for good (the Handbook's usual fraction of test values).
SAFE_SHARE = 1 / 5
#: A nail or screw in end grain holds so much of what it does in side grain (Handbook, about).
END_GRAIN_NAIL, END_GRAIN_SCREW = 0.5, 0.75


class SoldSize(NamedTuple):
    """A nail or screw as it is sold: how thick and how long, and the number of its thickness where it has one."""

    thick: Length
    long: Length
    gauge: str = ""


class Sold(FrozenRecord):
    """What is sold: nails, each thickness in its length; screws in thicknesses, with their numbers, and in lengths.

    Small bits are sold in steps of `bits_by`, in `unit`.
    """

    nails: tuple[SoldSize, ...]
    screw_thick: tuple[tuple[Length, str], ...]
    screw_long: tuple[Length, ...]
    bits_by: Length
    unit: Unit

    @property
    def screws(self) -> tuple[SoldSize, ...]:
        """Screws of every thickness and length."""
        return tuple(SoldSize(thick, long, gauge) for thick, gauge in self.screw_thick for long in self.screw_long)

    def bit(self, hole: float) -> Length:
        """Return the bit that is sold nearest to a hole.

        Parameters
        ----------
        hole : float
            Its diameter, mm.

        Examples
        --------
        >>> metric_sizes().bit(0.93).as_text(), inch_sizes().bit(0.93).as_text()
        ('0.9 mm', '1/32 in')
        """
        steps = max(round(hole / float(self.bits_by)), 1)
        return entered(Length(steps * self.bits_by.mm), self.unit)


def _nails(unit: Unit, *sizes: str) -> tuple[SoldSize, ...]:
    pairs = (size.split(" x ") for size in sizes)
    return tuple(SoldSize(read_length(thick, unit), read_length(long, unit)) for thick, long in pairs)


@cache
def metric_sizes() -> Sold:
    """Return what is sold in millimetres (common sizes, no published source)."""
    return Sold(
        _nails(
            Unit.MM, "1 x 10", "1 x 13", "1 x 15", "1.2 x 20", "1.4 x 25", "1.6 x 30", "1.8 x 35", "2 x 40", "2.2 x 45",
            "2.5 x 50", "2.8 x 60", "3.1 x 70", "3.4 x 80", "3.8 x 100",
        ),
        tuple((read_length(thick, Unit.MM), "") for thick in ("2.5", "3", "3.5", "4", "4.5", "5")),
        tuple(mm(long) for long in (10, 12, 16, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100)),
        mm("0.1"),
        Unit.MM,
    )  # fmt: skip


@cache
def inch_sizes() -> Sold:
    """Return what is sold in inches: wire nails and brads (ASTM F1667), wood screws by their numbers (ASME B18.6.1).

    Both from memory.
    """
    return Sold(
        _nails(
            Unit.INCH, "0.035 x 3/8", "0.041 x 1/2", "0.047 x 5/8", "0.047 x 3/4", "0.054 x 1", "0.067 x 1 1/4",
            "0.072 x 1 1/2",
            "0.083 x 1 3/4", "0.092 x 2", "0.099 x 2 1/2", "0.113 x 3", "0.12 x 3 1/2", "0.135 x 4",
        ),
        tuple(
            (read_length(thick, Unit.INCH), f"No. {number}")
            for number, thick in (
                ("2", "0.086"), ("4", "0.112"), ("5", "0.125"), ("6", "0.138"), ("8", "0.164"), ("10", "0.19"),
            )
        ),
        tuple(
            read_length(long, Unit.INCH)
            for long in (
                "3/8", "1/2", "5/8", "3/4", "7/8", "1", "1 1/4", "1 1/2", "1 3/4", "2", "2 1/4", "2 1/2", "3",
                "3 1/2", "4",
            )
        ),
        inch("1/64"),
        Unit.INCH,
    )  # fmt: skip


_SOLD = {Unit.MM: metric_sizes, Unit.INCH: inch_sizes}


def sold_in(marks: Marks) -> Sold:
    """Return what is sold where a piece is set out with some rule."""
    return _SOLD[marks.style.rule]()


#: So short a row has one place, mm (common practice).
_ONE_HOLDS = 60.0


#: So many times its thickness a nail stays away from an end; a screw, which is bored for, half of that (practice).
NAIL_FROM_END, SCREW_FROM_END = 10, 5
#: A screw is about so many times as long as it is thick (common practice).
_SCREW_SLENDER = 9


class FastenerFault(Enum):
    """Why a nail or screw cannot be."""

    NO_WOOD = auto()
    NO_THICKNESS = auto()
    NOTHING_TO_FASTEN = auto()


class FastenerError(FactError):
    """Nails or screws that cannot be; `fact` is why."""


def nail_withdrawal(gravity: float, diameter: float, depth: float) -> float:
    """Return what pulls a plain nail out of side grain, N; diameter and depth in the holding piece in mm.

    Parameters
    ----------
    gravity : float
        Specific gravity of the wood, oven-dry.
    diameter : float
        Of the nail, mm.
    depth : float
        Of the nail in the holding piece, mm.

    Returns
    -------
    float
        Newtons.

    Examples
    --------
    >>> round(nail_withdrawal(0.5, 2.5, 30))
    718
    """
    _check(gravity, diameter, depth)
    return 54.12 * math.pow(gravity, 2.5) * diameter * depth


def screw_withdrawal(gravity: float, diameter: float, depth: float) -> float:
    """Return what pulls a wood screw out of side grain, N; shank diameter and threaded depth in mm.

    Parameters
    ----------
    gravity : float
        Specific gravity of the wood, oven-dry.
    diameter : float
        Of the shank, mm.
    depth : float
        Of the thread in the holding piece, mm.

    Returns
    -------
    float
        Newtons.
    """
    _check(gravity, diameter, depth)
    return 108.25 * gravity**2 * diameter * depth


def _check(gravity: float, diameter: float, depth: float) -> None:
    if not 0.1 <= gravity <= 1.3:
        raise FastenerError(FastenerFault.NO_WOOD)
    if diameter <= 0 or depth < 0:
        raise FastenerError(FastenerFault.NO_THICKNESS)


class Fastening(FrozenRecord):
    """A row of nails or screws, mm: the size of each, the `pilot`, how many and where along the row.

    `holds` is what one resists being pulled out, N, and `enters` how deep it goes into the holding piece.
    """

    screws: bool
    size: SoldSize
    pilot: float
    places: tuple[float, ...]
    enters: float
    holds: float

    @property
    def long(self) -> float:
        """Its length, mm."""
        return float(self.size.long)

    @property
    def thick(self) -> float:
        """The thickness of its shank, mm."""
        return float(self.size.thick)

    @property
    def from_end_least(self) -> float:
        """How far from an end the first may stand, mm: so many thicknesses, fewer where it is bored for (practice)."""
        return (SCREW_FROM_END if self.screws else NAIL_FROM_END) * self.thick


@kept_by_value(1024)
def fastening(
    screws: bool,
    thickness: float,
    holding: float,
    along: float,
    gravity: float,
    hard: bool,
    end_grain: bool,
    size: SoldSize | None = None,
    sold: Sold | None = None,
) -> Fastening:
    """Choose nails or screws for a row.

    Parameters
    ----------
    screws : bool
    thickness : float
        Of the piece that is fastened, mm.
    holding : float
        How deep the piece behind it is, mm.
    along : float
        Length of the row, mm.
    gravity : float
        Specific gravity of the holding piece.
    hard : bool
        Whether it is a hardwood.
    end_grain : bool
        Whether it is entered at its end.
    size : SoldSize, optional
        The one that was chosen.
    sold : Sold, optional
        What there is to choose from; what is sold in millimetres if left out.

    Notes
    -----
    Common practice, no published source: the longest that is sold up to two and a half times what the piece is thick,
    not through what holds it; a screw about a quarter of the piece thick; 25 mm from the ends, about 90 mm apart.
    Pilots by the Handbook: a nail 3/4 of its thickness; a screw's root (2/3 of its shank)
    by 0.7 in softwood and 0.9 in hardwood.
    """
    if min(thickness, holding, along) <= 0:
        raise FastenerError(FastenerFault.NOTHING_TO_FASTEN)
    size = size or _sold(sold or metric_sizes(), screws, thickness, min(2.5 * thickness, thickness + holding - 3))
    thick, long = float(size.thick), float(size.long)
    pilot = thick * 2 / 3 * (0.9 if hard else 0.7) if screws else 0.75 * thick
    enters = long - thickness
    pulled = (screw_withdrawal if screws else nail_withdrawal)(gravity, thick, max(enters, 0.0))
    share = (END_GRAIN_SCREW if screws else END_GRAIN_NAIL) if end_grain else 1.0
    return Fastening(screws, size, pilot, _places(along, thick), enters, pulled * share)


def _sold(sold: Sold, screws: bool, thickness: float, most: float) -> SoldSize:
    """Return the nail or screw that is sold for a thickness, mm, the longest; the shortest where all are too long."""
    if not screws:
        return max(
            (nail for nail in sold.nails if nail.long.mm <= most), key=lambda nail: nail.long.mm, default=sold.nails[0]
        )
    thick, gauge = min(sold.screw_thick, key=lambda each: abs(float(each[0]) - thickness / 4))
    short = (each for each in sold.screw_long if each.mm <= most)
    return SoldSize(thick, max(short, key=lambda each: each.mm, default=sold.screw_long[0]), gauge)


def size_sold(sold: Sold, screws: bool, long: Length, thick: Length | None) -> SoldSize:
    """Return the nail or screw of some length, as thick as it was chosen, or else as is usual.

    Parameters
    ----------
    sold : Sold
        What there is.
    screws : bool
        Screws, or nails.
    long : Length
        Its length.
    thick : Length or None
        Its thickness; None: the usual one.
    """
    if thick is not None:
        gauge = next((name for each, name in sold.screw_thick if screws and each.mm == thick.mm), "")
        return SoldSize(thick, long, gauge)
    if not screws:
        nail = min(sold.nails, key=lambda each: abs(each.long.mm - long.mm))
        return SoldSize(nail.thick, long)
    usual, gauge = min(sold.screw_thick, key=lambda each: abs(float(each[0]) - float(long) / _SCREW_SLENDER))
    return SoldSize(usual, long, gauge)


def _places(along: float, thick: float) -> tuple[float, ...]:
    """Return where they stand: 25 mm or ten thicknesses from the ends, evenly, no more than 90 mm apart.

    What is short, such as a button, is held by one in its middle.
    """
    if along <= _ONE_HOLDS:
        return (along / 2,)
    from_end = min(max(25.0, 10 * thick), along / 3)
    room = along - 2 * from_end
    gaps = max(1, math.ceil(room / 90 - 1e-9))
    return tuple(from_end + room * step / gaps for step in range(gaps + 1))
