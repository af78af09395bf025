"""Exact lengths: reading what people type, arithmetic without loss, writing to a mark.

A length is a fraction of a millimetre and remembers what was typed. Rounding
happens only in `Marks.write` and `Marks.to_mark`, at the edge of the program.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, field
from enum import Enum
from fractions import Fraction
from typing import NamedTuple

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
        >>> read_length("1 7/8", Unit.INCH).as_text(), (mm(1) / 3).as_text()
        ('1 7/8 in', '1/3 mm')
        """
        if self.typed:
            return self.typed
        if self.unit is Unit.INCH and _is_short(self.mm / MM_PER_INCH):
            return f"{_plain(self.mm / MM_PER_INCH, prefer_fraction=True)} in"
        return f"{_plain(self.mm)} mm"


def mm(value: int | str | Fraction) -> Length:
    """Make a length from exact millimetres (`int`, `Fraction`, or text such as ``"19.5"``)."""
    return Length(Fraction(value), Unit.MM)


def inch(value: int | str | Fraction) -> Length:
    """Make a length from exact inches (`int`, `Fraction`, or text such as ``"7/8"``)."""
    return Length(Fraction(value) * MM_PER_INCH, Unit.INCH)


def _decimals(value: Fraction, places: int) -> str:
    """Write to so many decimal places, halves away from zero."""
    steps = math.floor(abs(value) * 10**places + Fraction(1, 2))
    sign = "-" if value < 0 and steps else ""
    digits = str(steps).rjust(places + 1, "0")
    return f"{sign}{digits[:-places]}.{digits[-places:]}"


def abs_length(length: Length) -> Length:
    """Give the length without its sign."""
    return Length(abs(length.mm), length.unit)


def from_float(millimetres: float) -> Length:
    """Make a length from a float in mm, to the nearest micrometre: for places, not for sizes."""
    return Length(Fraction(round(millimetres * 1000), 1000))


def _is_short(value: Fraction) -> bool:
    return value.denominator <= 128


def _plain(value: Fraction, prefer_fraction: bool = False) -> str:
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


# --- reading -------------------------------------------------------------------------------------

_VULGAR = {
    "½": "1/2", "⅓": "1/3", "⅔": "2/3", "¼": "1/4", "¾": "3/4", "⅕": "1/5", "⅖": "2/5", "⅗": "3/5",
    "⅘": "4/5", "⅙": "1/6", "⅚": "5/6", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
}  # fmt: skip

_UNITS: dict[str, tuple[Fraction, Unit]] = {
    "mm": (Fraction(1), Unit.MM),
    "cm": (Fraction(10), Unit.MM),
    "m": (Fraction(1000), Unit.MM),
    "in": (MM_PER_INCH, Unit.INCH),
    "inch": (MM_PER_INCH, Unit.INCH),
    "inches": (MM_PER_INCH, Unit.INCH),
    '"': (MM_PER_INCH, Unit.INCH),
    "ft": (12 * MM_PER_INCH, Unit.INCH),
    "feet": (12 * MM_PER_INCH, Unit.INCH),
    "foot": (12 * MM_PER_INCH, Unit.INCH),
    "'": (12 * MM_PER_INCH, Unit.INCH),
}

_NUMBER = r"\d+[ -]\d+/\d+|\d+/\d+|\d+[.,]\d*|[.,]\d+|\d+"
_TERM = re.compile(rf"\s*(?P<number>{_NUMBER})\s*(?P<unit>[a-z]+|\"|')?\s*")
_OF = re.compile(rf"^\s*(?P<part>{_NUMBER})\s+of\s+(?P<rest>.+)$")


class _Term(NamedTuple):
    sign: int
    number: str
    unit: str


def read_length(text: str, bare: Unit = Unit.MM) -> Length:
    """Read a length as people write it.

    Takes ``1 7/8``, ``1-7/8"``, ``47.6 mm``, ``2' 3 1/2"``, ``18+0.5``, ``1/2 of 19``, with
    decimal comma or point, primes, and ready-made fractions (½).

    Parameters
    ----------
    text : str
        What was typed.
    bare : Unit
        The unit a number without one is in.

    Returns
    -------
    Length
        Exact; its `typed` is `text` with the unit added where it was left out.

    Raises
    ------
    LengthError
        With a sentence for the person who typed.

    Examples
    --------
    >>> read_length("2' 3 1/2\\"").mm == 27 * MM_PER_INCH + MM_PER_INCH / 2
    True
    >>> read_length("1/2 of 19").typed
    '1/2 of 19 mm'
    """
    cleaned = _clean(text)
    if not cleaned:
        raise LengthError("Type a length, such as 1 7/8 in or 47.5 mm.")
    share = _OF.match(cleaned)
    if share:
        whole = read_length(share["rest"], bare)
        value = _number(share["part"]) * whole.mm
        return _checked(Length(value, whole.unit, f"{share['part']} of {whole.typed}"), text)
    terms = _split_terms(cleaned, text)
    _refuse_mixed_bare(terms, bare, text)
    total = Fraction(0)
    for term in terms:
        total += term.sign * _number(term.number) * _UNITS[term.unit or bare.value][0]
    unit = _UNITS[terms[0].unit or bare.value][1]
    return _checked(Length(total, unit, _with_units(cleaned, terms, bare)), text)


def _clean(text: str) -> str:
    cleaned = text.strip().lower()
    for sign, plain in (("″", '"'), ("”", '"'), ("“", '"'), ("''", '"'), ("′", "'"), ("’", "'"),
                        ("−", "-"), ("–", "-"), ("⁄", "/"), ("×", "x"), ("\u00a0", " ")):  # fmt: skip
        cleaned = cleaned.replace(sign, plain)
    for sign, plain in _VULGAR.items():
        if sign not in cleaned:
            continue
        cleaned = re.sub(rf"(\d)[ -]?{sign}", rf"\1 {plain}", cleaned).replace(sign, plain)
    return re.sub(r"\s+", " ", cleaned)


def _split_terms(cleaned: str, original: str) -> list[_Term]:
    """Cut ``2' 3 1/2" + 4 mm`` into signed terms; feet and inches side by side are a sum."""
    terms: list[_Term] = []
    position, sign = 0, 1
    expect_term, signed = True, False
    while position < len(cleaned):
        if cleaned[position] in "+-":
            if signed:
                raise LengthError(f"“{original.strip()}”: two signs follow each other.")
            sign = -1 if cleaned[position] == "-" else 1
            position += 1
            expect_term = signed = True
            while position < len(cleaned) and cleaned[position] == " ":
                position += 1
            continue
        match = _TERM.match(cleaned, position)
        if match is None:
            raise LengthError(f"“{original.strip()}” is not a length. Try 1 7/8 in, 47.5 mm or 18+0.5.")
        unit = match["unit"] or ""
        if unit and unit not in _UNITS:
            raise LengthError(f"“{unit}” is not a unit known here. Use mm, cm, m, in or ft.")
        if not expect_term:
            follows_feet = terms[-1].unit in ("'", "ft", "foot", "feet")
            if not (follows_feet and (not unit or _UNITS[unit][0] == MM_PER_INCH)):
                raise LengthError(f"“{original.strip()}”: put + or - between the two lengths.")
            unit = unit or "in"
            sign = terms[-1].sign
        terms.append(_Term(sign, match["number"], unit))
        position = match.end()
        sign, expect_term, signed = 1, False, False
    if expect_term:
        raise LengthError(f"“{original.strip()}” ends in a sign with nothing behind it.")
    return terms


def _refuse_mixed_bare(terms: list[_Term], bare: Unit, original: str) -> None:
    """``18 + 0.5 mm`` in an inch piece could mean two things: ask rather than guess."""
    without = [term for term in terms if not term.unit]
    others = {_UNITS[term.unit][1] for term in terms if term.unit}
    if without and others and others != {bare}:
        raise LengthError(f"“{original.strip()}”: is {without[0].number} in mm or in inches? Write the unit behind it.")


def _number(text: str) -> Fraction:
    mixed = re.fullmatch(r"(\d+)[ -](\d+)/(\d+)", text)
    if mixed:
        whole, top, bottom = (int(group) for group in mixed.groups())
        return whole + _ratio(top, bottom)
    if "/" in text:
        top_text, bottom_text = text.split("/")
        return _ratio(int(top_text), int(bottom_text))
    plain = text.replace(",", ".")
    return Fraction(f"0{plain}" if plain.startswith(".") else plain.rstrip("."))


def _ratio(top: int, bottom: int) -> Fraction:
    if bottom == 0:
        raise LengthError(f"{top}/0: a fraction cannot have 0 below the line.")
    return Fraction(top, bottom)


def _with_units(cleaned: str, terms: list[_Term], bare: Unit) -> str:
    if all(term.unit for term in terms):
        return cleaned
    if len(terms) == 1:
        sign = "-" if terms[0].sign < 0 else ""
        return f"{sign}{terms[0].number} {bare.value}"
    written = ""
    for term in terms:
        joint = " - " if term.sign < 0 else (" + " if written else "")
        written += f"{joint}{term.number} {term.unit or bare.value}"
    return written


def _checked(length: Length, original: str) -> Length:
    if abs(length.mm) > LIMIT_MM:
        raise LengthError(f"“{original.strip()}” is longer than {LIMIT_MM // 1000} m: check the number.")
    return length


# --- writing -------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Marks:
    """The unit shown and the smallest mark of the user's rule.

    Parameters
    ----------
    unit : Unit
        What figures are written in.
    inch_mark : Fraction
        Smallest mark in inches (1/16, 1/32, 1/64).
    mm_mark : Fraction
        Smallest mark in millimetres (1, 1/2, 1/10).

    Examples
    --------
    >>> Marks(Unit.INCH).write(mm("47.7"))
    '1 7/8″'
    >>> Marks(Unit.MM).write(mm("47.7"), Direction.UP)
    '48 mm'
    """

    unit: Unit = Unit.MM
    inch_mark: Fraction = Fraction(1, 32)
    mm_mark: Fraction = Fraction(1, 2)

    @property
    def smallest(self) -> Length:
        """The smallest mark as a length."""
        return inch(self.inch_mark) if self.unit is Unit.INCH else mm(self.mm_mark)

    def to_mark(self, length: Length, direction: Direction = Direction.NEAREST) -> Length:
        """Round to the smallest mark; halves go away from zero, as on a rule."""
        steps = length.mm / self.smallest.mm
        if direction is Direction.UP:
            whole = math.ceil(steps)
        elif direction is Direction.DOWN:
            whole = math.floor(steps)
        else:
            whole = math.floor(abs(steps) + Fraction(1, 2)) * (-1 if steps < 0 else 1)
        return Length(whole * self.smallest.mm, self.unit)

    def write(self, length: Length, direction: Direction = Direction.NEAREST, unit: bool = True) -> str:
        """Write a length to the smallest mark: ``1 7/8″`` or ``47.5 mm``."""
        rounded = self.to_mark(length, direction)
        if self.unit is Unit.INCH:
            return _plain(rounded.mm / MM_PER_INCH, prefer_fraction=True) + ("″" if unit else "")
        return _plain(rounded.mm) + (" mm" if unit else "")

    def write_fine(self, length: Length, unit: bool = True) -> str:
        """Write a small difference or an in-between setting: 0.1 mm, or thousandths of an inch."""
        if self.unit is Unit.INCH:
            return _decimals(length.mm / MM_PER_INCH, 3) + ("″" if unit else "")
        return _decimals(length.mm, 1) + (" mm" if unit else "")

    def write_setting(self, length: Length) -> str:
        """Write what a tool is set to: 0.1 mm is what a gauge can hold, inches go to the mark."""
        return self.write(length) if self.unit is Unit.INCH else self.write_fine(length)

    def off_true(self, length: Length) -> str:
        """Say how far the written setting is from true, or nothing if it is right to 0.05 mm."""
        shown = self.to_mark(length) if self.unit is Unit.INCH else mm(Fraction(round(length.mm * 10), 10))
        over = shown - length
        if abs(over.mm) < Fraction(5, 100):
            return ""
        return f"{self.write_fine(abs_length(over))} {'full' if over.mm > 0 else 'bare'}"

    def write_area(self, square_mm: float) -> str:
        """Write an area given in mm² as people buy by: m², or square feet."""
        if self.unit is Unit.INCH:
            return f"{square_mm / 304.8**2:.1f} sq ft"
        return f"{square_mm / 1e6:.2f} m²"

    def write_entered(self, length: Length) -> str:
        """Write a length the user typed as it was typed, if it is in the unit now shown."""
        if length.typed and length.unit is self.unit:
            return length.typed.replace(" in", "″") if self.unit is Unit.INCH else length.typed
        return self.write(length)


# --- slopes --------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Slope:
    """A dovetail's slope, 1 in `run`.

    Examples
    --------
    >>> round(read_slope("1:7").degrees, 2)
    8.13
    """

    run: Fraction

    @property
    def degrees(self) -> float:
        """The angle from square, in degrees: tan⁻¹(1/run)."""
        return math.degrees(math.atan(float(1 / self.run)))

    def as_text(self) -> str:
        """Write the ratio, exactly: ``1:7``."""
        return f"1:{_plain(self.run)}"


def read_slope(text: str) -> Slope:
    """Read ``1:7``, ``1 in 7``, ``7`` as a slope, or raise `LengthError` with a sentence."""
    match = re.fullmatch(r"\s*(?:1\s*(?::|/|in)\s*)?(\d+(?:[.,]\d+)?)\s*", text.lower())
    if not match:
        raise LengthError(f"“{text.strip()}” is not a slope. Write it as 1:7.")
    run = Fraction(match[1].replace(",", "."))
    if run < 2 or run > 40:
        raise LengthError(f"A slope of 1:{match[1]} cannot be sawn or would not hold. Use 1:4 to 1:12.")
    return Slope(run)
