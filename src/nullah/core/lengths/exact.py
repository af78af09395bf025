"""The exact length: a fraction of a millimetre that remembers what was typed."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import Enum
from fractions import Fraction

#: An inch is exactly 25.4 mm (NIST SP 811, appendix B.8).
MM_PER_INCH = Fraction(254, 10)

#: Longest length the program takes for one: no board or piece is half a kilometre long.
LIMIT_MM = 500_000


class Unit(Enum):
    """A unit people work in; the value is how it is written behind a number."""

    MM = "mm"
    INCH = "in"


class Direction(Enum):
    """Which way a number may be rounded at the bench."""

    NEAREST = "nearest"
    UP = "up"
    DOWN = "down"


class LengthError(ValueError):
    """What was typed is not a length; the message says why, for the person who typed it."""


@dataclass(frozen=True, slots=True)
class Length:
    """An exact length.

    Parameters
    ----------
    mm : Fraction
        The length in millimetres, exact.
    unit : Unit
        The unit it was given in; sums keep the unit of their first term.
    typed : str
        What the user typed, with its unit, or empty if worked out. Takes no part in comparison.

    Examples
    --------
    >>> from nullah.core.lengths import read_length
    >>> read_length('1 7/8"') * 2
    Length(mm=Fraction(381, 4), unit=<Unit.INCH: 'in'>, typed='')
    """

    mm: Fraction
    unit: Unit = field(default=Unit.MM, compare=False)
    typed: str = field(default="", compare=False)

    def __add__(self, other: Length) -> Length:
        return Length(self.mm + other.mm, self.unit)

    def __sub__(self, other: Length) -> Length:
        return Length(self.mm - other.mm, self.unit)

    def __mul__(self, factor: int | Fraction) -> Length:
        return Length(self.mm * factor, self.unit)

    __rmul__ = __mul__

    def __truediv__(self, divisor: int | Fraction) -> Length:
        return Length(self.mm / divisor, self.unit)

    def __neg__(self) -> Length:
        return Length(-self.mm, self.unit)

    def __lt__(self, other: Length) -> bool:
        return self.mm < other.mm

    def __le__(self, other: Length) -> bool:
        return self.mm <= other.mm

    def __gt__(self, other: Length) -> bool:
        return self.mm > other.mm

    def __ge__(self, other: Length) -> bool:
        return self.mm >= other.mm

    def __float__(self) -> float:
        return float(self.mm)

    def as_text(self) -> str:
        """Write the length so that `read_length` gives back the very same one.

        Returns
        -------
        str
            What was typed if it was typed, else the exact value with its unit.

        Examples
        --------
        >>> from nullah.core.lengths import read_length
        >>> read_length("1 7/8", Unit.INCH).as_text(), (mm(1) / 3).as_text()
        ('1 7/8 in', '1/3 mm')
        """
        if self.typed:
            return self.typed
        if self.unit is Unit.INCH and _is_short(self.mm / MM_PER_INCH):
            return f"{plain(self.mm / MM_PER_INCH, prefer_fraction=True)} in"
        return f"{plain(self.mm)} mm"


def mm(value: int | str | Fraction) -> Length:
    """Make a length from exact millimetres (`int`, `Fraction`, or text such as ``"19.5"``)."""
    return Length(Fraction(value), Unit.MM)


def inch(value: int | str | Fraction) -> Length:
    """Make a length from exact inches (`int`, `Fraction`, or text such as ``"7/8"``)."""
    return Length(Fraction(value) * MM_PER_INCH, Unit.INCH)


def abs_length(length: Length) -> Length:
    """Give the length without its sign."""
    return Length(abs(length.mm), length.unit)


def from_float(millimetres: float) -> Length:
    """Make a length from a float in mm, to the nearest micrometre: for places, not for sizes."""
    return Length(Fraction(round(millimetres * 1000), 1000))


def _is_short(value: Fraction) -> bool:
    return value.denominator <= 128


def plain(value: Fraction, prefer_fraction: bool = False) -> str:
    """Write a fraction exactly: as a decimal where that ends, else as a (mixed) fraction."""
    if value.denominator == 1:
        return str(value.numerator)
    rest = value.denominator
    for prime in (2, 5):
        while rest % prime == 0:
            rest //= prime
    if rest == 1 and not prefer_fraction:
        places = 0
        scaled = value
        while scaled.denominator != 1:
            scaled *= 10
            places += 1
        sign = "-" if value < 0 else ""
        digits = str(abs(scaled.numerator)).rjust(places + 1, "0")
        return f"{sign}{digits[:-places]}.{digits[-places:]}"
    sign = "-" if value < 0 else ""
    whole, part = divmod(abs(value), 1)
    head = f"{whole} " if whole else ""
    return f"{sign}{head}{part.numerator}/{part.denominator}"
