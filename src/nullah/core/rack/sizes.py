"""Sizes the yard names, and what they measure."""

from __future__ import annotations

import re

from nullah.core.errors import FactError
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Entry, Length, Unit, entered, inch

# Dry, surfaced sizes of softwood boards and dimension lumber, in inches:
# American Softwood Lumber Standard, Voluntary Product Standard PS 20; values from memory.
_THICKNESS = {"1": "3/4", "5/4": "1", "2": "3/2", "3": "5/2", "4": "7/2"}
_WIDTH = {"2": "3/2", "3": "5/2", "4": "7/2", "5": "9/2", "6": "11/2", "8": "29/4", "10": "37/4", "12": "45/4"}
# Planed two sides, inches: NHLA rules, "standard thickness for surfaced lumber"; from memory.
_QUARTERS_PLANED = {4: "13/16", 5: "17/16", 6: "21/16", 8: "7/4"}


class NoYardSize(FrozenRecord):
    """A name of no size known here."""

    name: str


class SizeNameError(FactError):
    """A name of a size that no standard here resolves."""


class YardSize(FrozenRecord):
    """What a named size measures; `width` is None for hardwood, sold in random widths."""

    rough_thickness: Entry
    thickness: Entry
    width: Entry | None


def resolve_size(name: str) -> YardSize:
    """Resolve a yard's name such as ``1x12`` (softwood, dressed) or ``4/4`` (hardwood).

    Raises
    ------
    SizeNameError
        For a name that no standard here resolves.

    Examples
    --------
    >>> resolve_size("2x6").width.mm / resolve_size("2x6").thickness.mm
    Fraction(11, 3)
    """
    softwood = re.fullmatch(r"(5/4|\d+)\s*[x×]\s*(\d+)", name.strip().lower())
    if softwood and softwood[1] in _THICKNESS and softwood[2] in _WIDTH:
        width = _WIDTH[softwood[2]]
        # From 2 inches up, dimension lumber; the 8, 10 and 12 widths are the same for both.
        return YardSize(_inches(softwood[1]), _inches(_THICKNESS[softwood[1]]), _inches(width))
    quarters = re.fullmatch(r"(\d+)/4", name.strip())
    if quarters and int(quarters[1]) in _QUARTERS_PLANED:
        return YardSize(_inches(Fraction(int(quarters[1]), 4)), _inches(_QUARTERS_PLANED[int(quarters[1])]), None)
    raise SizeNameError(NoYardSize(name.strip()))


def _inches(value: str | Fraction) -> Entry:
    return entered(inch(value), Unit.INCH)


def board_feet(length: Length, width: Length, thickness: Length) -> Fraction:
    """Return the wood of a board in board feet: 144 cubic inches each.

    Parameters
    ----------
    length : Length
        Of the board.
    width : Length
        Of the board.
    thickness : Length
        Of the board, rough.

    Examples
    --------
    >>> board_feet(inch(96), inch(6), inch(1))
    Fraction(4, 1)
    """
    return length.mm * width.mm * thickness.mm / (144 * inch(1).mm ** 3)


def quarters(thickness: Length) -> Length:
    """Return the least rough thickness that hardwood is sold in, 4/4 to 16/4, for a rough thickness that is wanted.

    Parameters
    ----------
    thickness : Length
        Rough.

    Examples
    --------
    >>> [float(quarters(inch(each)).mm / inch(1).mm) for each in ("7/8", "5/4", "13/8")]
    [1.0, 1.25, 2.0]
    """
    sold = [4, 5, 6, 8, 10, 12, 16]
    for each in sold:
        if inch(Fraction(each, 4)) >= thickness:
            return inch(Fraction(each, 4))
    return inch(Fraction(sold[-1], 4))


def quarters_name(thickness: Length) -> str:
    """Name a rough thickness as hardwood is sold, such as ``5/4``; empty where it is none of those.

    Parameters
    ----------
    thickness : Length
        Rough.

    Examples
    --------
    >>> quarters_name(inch("5/4")), quarters_name(inch("9/8"))
    ('5/4', '')
    """
    count = thickness.mm / inch(Fraction(1, 4)).mm
    return f"{count.numerator}/4" if count.denominator == 1 and 4 <= count <= 16 else ""
