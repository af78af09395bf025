"""Writing lengths: rounding to the user's smallest mark happens here and nowhere else."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from fractions import Fraction

from nullah.core.catalogue import AMERICAN, Catalogue
from nullah.core.lengths.exact import MM_PER_INCH, Direction, Entry, Length, Unit, abs_length, inch, mm, plain


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
    catalogue : Catalogue
        The terms in which the reader is written to.

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
    catalogue: Catalogue = AMERICAN

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
        return Length(whole * self.smallest.mm)

    def write(self, length: Length, direction: Direction = Direction.NEAREST, unit: bool = True) -> str:
        """Write a length to the smallest mark: ``1 7/8″`` or ``47.5 mm``."""
        rounded = self.to_mark(length, direction)
        if self.unit is Unit.INCH:
            return plain(rounded.mm / MM_PER_INCH, prefer_fraction=True) + ("″" if unit else "")
        return plain(rounded.mm) + (" mm" if unit else "")

    def write_fine(self, length: Length, unit: bool = True) -> str:
        """Write a small difference or an in-between setting: 0.1 mm, or thousandths of an inch."""
        if self.unit is Unit.INCH:
            return _decimals(length.mm / MM_PER_INCH, 3) + ("″" if unit else "")
        return _decimals(length.mm, 1) + (" mm" if unit else "")

    def write_thin(self, millimetres: float, unit: bool = True) -> str:
        """Write a gap or a shaving given in mm: hundredths of a millimetre, or thousandths of an inch.

        Examples
        --------
        >>> Marks().write_thin(0.234), Marks(Unit.INCH).write_thin(0.254)
        ('0.23 mm', '0.010″')
        """
        if self.unit is Unit.INCH:
            return f"{millimetres / 25.4:.3f}" + ("″" if unit else "")
        return f"{millimetres:.2f}" + (" mm" if unit else "")

    def to_setting(self, length: Length, direction: Direction = Direction.NEAREST) -> Length:
        """Round to what a tool can be set to: 0.1 mm, which a gauge can hold; inches go to the mark.

        Examples
        --------
        >>> Marks().to_setting(mm("6.32"), Direction.UP).mm
        Fraction(32, 5)
        """
        return self.to_mark(length, direction) if self.unit is Unit.INCH else _TENTHS.to_mark(length, direction)

    def write_setting(self, length: Length, direction: Direction = Direction.NEAREST) -> str:
        """Write what a tool is set to."""
        rounded = self.to_setting(length, direction)
        return self.write(rounded) if self.unit is Unit.INCH else self.write_fine(rounded)

    def off_true(self, length: Length, direction: Direction = Direction.NEAREST) -> str:
        """Say how far the written setting is from true, or nothing if it is right to 0.05 mm."""
        over = self.to_setting(length, direction) - length
        if abs(over.mm) < Fraction(5, 100):
            return ""
        return f"{self.write_fine(abs_length(over))} {'full' if over.mm > 0 else 'bare'}"

    def write_area(self, square_mm: float) -> str:
        """Write an area given in mm² as people buy by: m², or square feet."""
        if self.unit is Unit.INCH:
            return f"{square_mm / 304.8**2:.1f} sq ft"
        return f"{square_mm / 1e6:.2f} m²"

    def write_volume(self, cubic_mm: float) -> str:
        """Write a volume given in mm³ as wood is sold: m³, or board feet of 144 cubic inches."""
        if self.unit is Unit.INCH:
            return f"{cubic_mm / 25.4**3 / 144:.2f} bd ft"
        return f"{cubic_mm / 1e9:.4f} m³"

    def write_entered(self, length: Length) -> str:
        """Return a length as it was typed, if it was typed in the unit now shown; else to the mark.

        Examples
        --------
        >>> from nullah.core.lengths import read_length
        >>> Marks(Unit.INCH).write_entered(read_length("12.5 inches")), Marks().write_entered(read_length("12.5 in"))
        ('12.5″', '317.5 mm')
        """
        if isinstance(length, Entry) and length.unit is self.unit:
            return re.sub(r" ?in(ch(es)?)?\b", "″", length.text) if self.unit is Unit.INCH else length.text
        return self.write(length)

    def write_to_edit(self, length: Length) -> str:
        """Return what a field is to hold: what was typed, in its own unit and words; else to the mark.

        Examples
        --------
        >>> from nullah.core.lengths import read_length
        >>> Marks().write_to_edit(read_length("12.5 in")), Marks().write_to_edit(mm("317.4"))
        ('12.5 in', '317.5 mm')
        """
        return length.text if isinstance(length, Entry) else self.write(length)


_TENTHS = Marks(Unit.MM, mm_mark=Fraction(1, 10))


def _decimals(value: Fraction, places: int) -> str:
    """Write to so many decimal places, halves away from zero."""
    steps = math.floor(abs(value) * 10**places + Fraction(1, 2))
    sign = "-" if value < 0 and steps else ""
    digits = str(steps).rjust(places + 1, "0")
    return f"{sign}{digits[:-places]}.{digits[-places:]}"
