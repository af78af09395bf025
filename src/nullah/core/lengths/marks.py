"""Writing lengths: rounding to the user's smallest mark happens here and nowhere else."""

from __future__ import annotations

import math
import re
from dataclasses import replace

from nullah.core.catalogue import AMERICAN, Catalogue
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths.exact import Direction, Entry, Length, Unit, abs_length, plain
from nullah.core.lengths.units import Style, in_unit, style_of


class Marks(FrozenRecord):
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
    >>> from nullah.core.lengths import mm
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
    def style(self) -> Style:
        """How figures look in the unit shown."""
        return style_of(self.unit)

    def of_mark(self, mark: Length) -> Marks:
        """Return the marks of a rule whose smallest mark was typed so: in its unit, or in the one that is shown.

        Parameters
        ----------
        mark : Length
            Such as 0.5 mm or 1/32 in.

        Examples
        --------
        >>> from nullah.core.lengths import read_length
        >>> Marks().of_mark(read_length("1/16 in")).write(read_length("1/8 in"))
        '1/8″'
        """
        unit = mark.unit if isinstance(mark, Entry) else self.unit
        rule = style_of(unit).rule
        share = mark.mm / style_of(rule).mm
        if rule is Unit.INCH:
            return replace(self, unit=unit, inch_mark=share)
        return replace(self, unit=unit, mm_mark=share)

    @property
    def rule_mark(self) -> Fraction:
        """The smallest mark in the unit of the rule."""
        return self.inch_mark if self.style.rule is Unit.INCH else self.mm_mark

    @property
    def smallest(self) -> Length:
        """The smallest mark as a length."""
        return Length(self.rule_mark * style_of(self.style.rule).mm)

    def with_smallest(self, mark: Fraction) -> Marks:
        """Return the same with another smallest mark, in the unit of the rule.

        Parameters
        ----------
        mark : Fraction
            In the rule's own unit.
        """
        return replace(self, inch_mark=mark) if self.style.rule is Unit.INCH else replace(self, mm_mark=mark)

    def to_mark(self, length: Length, direction: Direction = Direction.NEAREST) -> Length:
        """Round to the smallest mark; halves go away from zero, as on a rule.

        Parameters
        ----------
        length : Length
            Exact.
        direction : Direction, default Direction.NEAREST
            Which way to round.
        """
        return _rounded(length, self.smallest.mm, direction)

    def write(self, length: Length, direction: Direction = Direction.NEAREST, unit: bool = True) -> str:
        """Write a length to the smallest mark: ``1 7/8″`` or ``47.5 mm``.

        Parameters
        ----------
        length : Length
            Exact.
        direction : Direction, default Direction.NEAREST
            Which way to round.
        unit : bool, default True
            Whether the unit is written.
        """
        style = self.style
        figure = plain(self.to_mark(length, direction).mm / style.mm, prefer_fraction=style.fractions)
        return figure + (style.suffix if unit else "")

    def write_fine(self, length: Length, unit: bool = True) -> str:
        """Write a small difference or an in-between setting: 0.1 mm, or thousandths of an inch.

        Parameters
        ----------
        length : Length
            Any.
        unit : bool
            Whether the unit is written.
        """
        return self._decimal(length.mm, self.style.fine, unit)

    def write_thin(self, millimetres: float, unit: bool = True) -> str:
        """Write a gap or a shaving given in mm: hundredths of a millimetre, or thousandths of an inch.

        Parameters
        ----------
        millimetres : float
            Of a gap.
        unit : bool
            Whether the unit is written.

        Examples
        --------
        >>> Marks().write_thin(0.234), Marks(Unit.INCH).write_thin(0.254), Marks(Unit.CM).write_thin(0.234)
        ('0.23 mm', '0.010″', '0.023 cm')
        """
        style = self.style
        return f"{millimetres / float(style.mm):.{style.thin}f}" + (style.suffix if unit else "")

    def write_narrow(self, millimetres: float) -> str:
        """Write a gap where there is little room: without its unit, of an inch without the nought.

        Parameters
        ----------
        millimetres : float
            Of a gap.

        Examples
        --------
        >>> Marks().write_narrow(0.234), Marks(Unit.INCH).write_narrow(-0.254)
        ('0.23', '-.010')
        """
        figure = self.write_thin(millimetres, unit=False)
        return figure if self.style.nought else re.sub(r"^(-?)0\.", r"\1.", figure)

    def write_bare(self, millimetres: float) -> str:
        """Write a figure given in mm with no more places than it has.

        Parameters
        ----------
        millimetres : float
            Any.

        Examples
        --------
        >>> Marks().write_bare(9.5), Marks(Unit.INCH).write_bare(9.5), Marks(Unit.INCH).write_bare(25.4)
        ('9.5 mm', '0.374″', '1″')
        """
        figure = round(millimetres / float(self.style.mm), self.style.thin + 1 - self.style.fractions)
        return f"{figure:g}{self.style.suffix}"

    def write_short(self, millimetres: float, unit: bool = False) -> str:
        """Write a small figure given in mm: a height on a map, a shaving; thousandths of an inch stay three.

        Parameters
        ----------
        millimetres : float
            Of a height.
        unit : bool
            Whether the unit is written.

        Examples
        --------
        >>> Marks().write_short(0.5), Marks(Unit.INCH).write_short(0.508), Marks().write_short(0.04, unit=True)
        ('0.5', '0.020', '0.04 mm')
        """
        figure = self.write_thin(millimetres, unit=False)
        if not self.style.fractions:
            figure = figure.rstrip("0").rstrip(".") or "0"
        return figure + (self.style.suffix if unit else "")

    def to_setting(self, length: Length, direction: Direction = Direction.NEAREST) -> Length:
        """Round to what a tool can be set to: 0.1 mm, which a gauge can hold; inches go to the mark.

        Parameters
        ----------
        length : Length
            Exact.
        direction : Direction, default Direction.NEAREST
            Which way to round.

        Examples
        --------
        >>> from nullah.core.lengths import mm
        >>> Marks().to_setting(mm("6.32"), Direction.UP).mm
        Fraction(32, 5)
        """
        style = self.style
        if style.setting < 0:
            return self.to_mark(length, direction)
        return _rounded(length, style.mm / 10**style.setting, direction)

    def write_setting(self, length: Length, direction: Direction = Direction.NEAREST, unit: bool = True) -> str:
        """Write what a tool is set to.

        Parameters
        ----------
        length : Length
            Any.
        direction : Direction
            In which it is rounded.
        unit : bool
            Whether the unit is written.
        """
        rounded = self.to_setting(length, direction)
        if self.style.setting < 0:
            return self.write(rounded, unit=unit)
        return self._decimal(rounded.mm, self.style.setting, unit)

    def off_true(self, length: Length, direction: Direction = Direction.NEAREST) -> str:
        """Return how far the written setting is from true, or nothing if it is right to 0.05 mm.

        Parameters
        ----------
        length : Length
            Any.
        direction : Direction
            In which it is rounded.
        """
        over = self.to_setting(length, direction) - length
        if abs(over.mm) < Fraction(5, 100):
            return ""
        return f"{self.write_fine(abs_length(over))} {'full' if over.mm > 0 else 'bare'}"

    def write_area(self, square_mm: float) -> str:
        """Write an area given in mm² as people buy by: m², or square feet.

        Parameters
        ----------
        square_mm : float
            mm².
        """
        size, suffix, places = self.style.area
        return f"{square_mm / size:.{places}f} {suffix}"

    def write_volume(self, cubic_mm: float) -> str:
        """Write a volume given in mm³ as wood is sold: m³, or board feet of 144 cubic inches.

        Parameters
        ----------
        cubic_mm : float
            mm³.
        """
        size, suffix, places = self.style.volume
        return f"{cubic_mm / size:.{places}f} {suffix}"

    def write_chips(self, cubic_mm: float) -> str:
        """Write the volume of a heap of shavings given in mm³: cm³, or cubic inches.

        Parameters
        ----------
        cubic_mm : float
            mm³.

        Examples
        --------
        >>> Marks().write_chips(32774.13), Marks(Unit.INCH).write_chips(32774.13)
        ('33 cm³', '2.0 in³')
        """
        size, suffix, places = self.style.chips
        return f"{cubic_mm / size:.{places}f} {suffix}"

    def write_weight(self, kilograms: float) -> str:
        """Write a weight, or what a load weighs: whole kilograms, or pounds; under ten with one place.

        Parameters
        ----------
        kilograms : float
            Of a part, or of a load.

        Examples
        --------
        >>> Marks().write_weight(12), Marks(Unit.INCH).write_weight(12), Marks().write_weight(2.34)
        ('12 kg', '26 lb', '2.3 kg')
        """
        size, suffix, places = self.style.weight
        return f"{kilograms / size:.{places if kilograms / size >= 10 else places + 1}f} {suffix}"

    def dragged(self, millimetres: float) -> Length:
        """Return a place in mm that was dragged, to what a hand means: a whole millimetre, or 1/16 inch.

        Parameters
        ----------
        millimetres : float
            Of a place.

        Examples
        --------
        >>> Marks().dragged(47.6).mm, Marks(Unit.INCH).dragged(47.6).mm
        (Fraction(48, 1), Fraction(381, 8))
        """
        step = self.style.step * self.style.mm
        return Length(round(millimetres / float(step)) * step)

    def write_entered(self, length: Length, unit: bool = True) -> str:
        """Return a length as it was typed, if it was typed in the unit now shown; else to the mark.

        Parameters
        ----------
        length : Length
            Any.
        unit : bool
            Whether the unit is written.

        Examples
        --------
        >>> from nullah.core.lengths import read_length
        >>> Marks(Unit.INCH).write_entered(read_length("12.5 inches")), Marks().write_entered(read_length("12.5 in"))
        ('12.5″', '317.5 mm')
        """
        if not isinstance(length, Entry) or length.unit is not self.unit:
            return self.write(length, unit=unit)
        text = in_unit(length.text)
        return text if unit else text.removesuffix(self.style.suffix)

    def write_to_edit(self, length: Length) -> str:
        """Return what a field is to hold: what was typed, in its own unit and words; else to the mark.

        Parameters
        ----------
        length : Length
            Any.

        Examples
        --------
        >>> from nullah.core.lengths import mm, read_length
        >>> Marks().write_to_edit(read_length("12.5 in")), Marks().write_to_edit(mm("317.4"))
        ('12.5 in', '317.5 mm')
        """
        return length.text if isinstance(length, Entry) else self.write(length)

    def _decimal(self, millimetres: Fraction, places: int, unit: bool) -> str:
        return _decimals(millimetres / self.style.mm, places) + (self.style.suffix if unit else "")


def write_bought(length: Length) -> str:
    """Write the size of a bit, chisel, iron or screw in the unit it was bought in.

    Parameters
    ----------
    length : Length
        As it was typed.

    Examples
    --------
    >>> from nullah.core.lengths import mm, read_length
    >>> write_bought(read_length("3/8 in")), write_bought(mm(12))
    ('3/8″', '12 mm')
    """
    return in_unit(length.as_text())


def _rounded(length: Length, step: Fraction, direction: Direction) -> Length:
    steps = length.mm / step
    if direction is Direction.UP:
        whole = math.ceil(steps)
    elif direction is Direction.DOWN:
        whole = math.floor(steps)
    else:
        whole = math.floor(abs(steps) + Fraction(1, 2)) * (-1 if steps < 0 else 1)
    return Length(whole * step)


def _decimals(value: Fraction, places: int) -> str:
    """Write to so many decimal places, halves away from zero."""
    steps = math.floor(abs(value) * 10**places + Fraction(1, 2))
    sign = "-" if value < 0 and steps else ""
    digits = str(steps).rjust(places + 1, "0")
    return f"{sign}{digits[:-places]}.{digits[-places:]}"
