"""The exact length, a fraction of a millimetre; and the entry, a length as somebody typed it."""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum, auto

from nullah.core.errors import FactError
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord

#: An inch is exactly 25.4 mm (NIST SP 811, appendix B.8).
MM_PER_INCH = Fraction(254, 10)


class Unit(Enum):
    """A unit people work in; the value is how it is written behind a number."""

    MM = "mm"
    CM = "cm"
    INCH = "in"


class Direction(Enum):
    """Which way a number may be rounded at the bench."""

    NEAREST = "nearest"
    UP = "up"
    DOWN = "down"


class LengthFault(Enum):
    """Why text is no length, slope, weight or count."""

    TEXT_TOO_LONG = auto()
    NOTHING = auto()
    TOO_MANY_DIGITS = auto()
    TOO_LONG = auto()
    TWO_SIGNS = auto()
    NO_LENGTH = auto()
    UNKNOWN_UNIT = auto()
    TWO_LENGTHS = auto()
    ENDS_IN_SIGN = auto()
    UNIT_MISSING = auto()
    OVER_NOTHING = auto()
    NO_SLOPE = auto()
    SLOPE_OUTSIDE = auto()
    NO_WEIGHT = auto()
    TOO_HEAVY = auto()
    NO_COUNT = auto()


class NoLength(FrozenRecord):
    """Text that is no length, why, and the number in it that is at fault where it is one of several."""

    fault: LengthFault
    text: str
    number: str = ""


class LengthError(FactError):
    """What was typed is not a length; `fact` is why."""


@dataclass(frozen=True, slots=True)
class Length:
    """An exact length: a pure value.

    Lengths are compared by size. How one was typed is an `Entry`, which is equal only to an entry
    of the same size that was typed alike: what is kept by its inputs can never mix the two up.

    Parameters
    ----------
    mm : Fraction
        The length in millimetres, exact.

    Examples
    --------
    >>> from nullah.core.lengths import read_length
    >>> read_length('1 7/8"') * 2
    Length(mm=Fraction(381, 4))
    """

    mm: Fraction

    def __add__(self, other: Length) -> Length:
        return Length(self.mm + other.mm)

    def __sub__(self, other: Length) -> Length:
        return Length(self.mm - other.mm)

    def __mul__(self, factor: int | Fraction) -> Length:
        return Length(self.mm * factor)

    __rmul__ = __mul__

    def __truediv__(self, divisor: int | Fraction) -> Length:
        return Length(self.mm / divisor)

    def __neg__(self) -> Length:
        return Length(-self.mm)

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
        """Return text that `read_length` reads as this very length.

        Examples
        --------
        >>> mm("47.5").as_text(), (mm(1) / 3).as_text()
        ('47.5 mm', '1/3 mm')
        """
        return f"{plain(self.mm)} mm"


@dataclass(frozen=True, slots=True)
class Entry(Length):
    """A length as somebody typed it: the project keeps entries, and figures show them.

    Arithmetic with it gives a `Length`, without unit or text.

    Parameters
    ----------
    mm : Fraction
        The length in millimetres, exact.
    unit : Unit
        The unit it was typed in; of a sum, that of its first term.
    text : str
        What was typed, with its unit.

    Examples
    --------
    >>> from nullah.core.lengths import read_length
    >>> read_length("12 in") == read_length("304.8 mm"), read_length("12 in").mm == read_length("304.8 mm").mm
    (False, True)
    """

    unit: Unit
    text: str

    def as_text(self) -> str:
        """Return what was typed, with its unit."""
        return self.text


def mm(value: int | str | Fraction) -> Length:
    """Make a length from exact millimetres (`int`, `Fraction`, or text such as ``"19.5"``).

    Parameters
    ----------
    value : int or str or Fraction
        Millimetres.
    """
    return Length(Fraction(value))


def inch(value: int | str | Fraction) -> Length:
    """Make a length from exact inches (`int`, `Fraction`, or text such as ``"7/8"``).

    Parameters
    ----------
    value : int or str or Fraction
        Inches.
    """
    return Length(Fraction(value) * MM_PER_INCH)


def abs_length(length: Length) -> Length:
    """Return the length without its sign.

    Parameters
    ----------
    length : Length
        Of either sign.
    """
    return Length(abs(length.mm))


def from_float(millimetres: float) -> Length:
    """Make a length from a float in mm, to the nearest micrometre: for places, not for sizes.

    Parameters
    ----------
    millimetres : float
        To the nearest micrometre.
    """
    return Length(Fraction(round(millimetres * 1000), 1000))


def plain(value: Fraction, prefer_fraction: bool = False) -> str:
    """Write a fraction exactly: as a decimal where that ends, else as a (mixed) fraction.

    Parameters
    ----------
    value : Fraction
        Any fraction.
    prefer_fraction : bool, default False
        Whether a fraction is written although a decimal would end.
    """
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
