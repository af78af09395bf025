"""Sizes the yard names, and what they measure."""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction

from nullah.core.lengths import Length, inch

# Dry, surfaced sizes of softwood boards and dimension lumber, in inches:
# American Softwood Lumber Standard, Voluntary Product Standard PS 20; values from memory.
_THICKNESS = {"1": "3/4", "5/4": "1", "2": "3/2", "3": "5/2", "4": "7/2"}
_WIDTH = {"2": "3/2", "3": "5/2", "4": "7/2", "5": "9/2", "6": "11/2", "8": "29/4", "10": "37/4", "12": "45/4"}
# Planed two sides, inches: NHLA rules, "standard thickness for surfaced lumber"; from memory.
_QUARTERS_PLANED = {4: "13/16", 5: "17/16", 6: "21/16", 8: "7/4"}


class SizeNameError(ValueError):
    """A name of a size that no standard here resolves."""


@dataclass(frozen=True, slots=True)
class YardSize:
    """What a named size measures; `width` is None for hardwood, sold in random widths."""

    rough_thickness: Length
    thickness: Length
    width: Length | None


def resolve_size(name: str) -> YardSize:
    """Resolve a yard's name such as ``1x12`` (softwood, dressed) or ``4/4`` (hardwood).

    Raises
    ------
    SizeNameError
        With a sentence.

    Examples
    --------
    >>> resolve_size("2x6").width.mm / resolve_size("2x6").thickness.mm
    Fraction(11, 3)
    """
    softwood = re.fullmatch(r"(5/4|\d+)\s*[x×]\s*(\d+)", name.strip().lower())
    if softwood and softwood[1] in _THICKNESS and softwood[2] in _WIDTH:
        width = _WIDTH[softwood[2]]
        # From 2 inches up, dimension lumber; the 8, 10 and 12 widths are the same for both.
        return YardSize(inch(Fraction(softwood[1])), inch(_THICKNESS[softwood[1]]), inch(width))
    quarters = re.fullmatch(r"(\d+)/4", name.strip())
    if quarters and int(quarters[1]) in _QUARTERS_PLANED:
        return YardSize(inch(Fraction(int(quarters[1]), 4)), inch(_QUARTERS_PLANED[int(quarters[1])]), None)
    raise SizeNameError(f"“{name.strip()}” is not a yard size known here. Try 1x12, 2x6 or 4/4.")
