"""Exact lengths: reading what people type, arithmetic without loss, writing to a mark.

A `Length` is a fraction of a millimetre and nothing else; an `Entry` is one as it was typed.
Rounding happens only in `Marks`, at the edge of the program.
"""

from nullah.core.lengths.exact import (
    MM_PER_INCH,
    Direction,
    Entry,
    Length,
    LengthError,
    LengthFault,
    NoLength,
    Unit,
    abs_length,
    from_float,
    inch,
    mm,
)
from nullah.core.lengths.marks import Marks, write_bought
from nullah.core.lengths.reading import read_length
from nullah.core.lengths.slopes import Slope, read_slope
from nullah.core.lengths.units import STYLES, Style, entered, round_size, style_of
from nullah.core.lengths.weights import Weight, read_weight, round_weight

__all__ = [
    "MM_PER_INCH",
    "STYLES",
    "Direction",
    "Entry",
    "Length",
    "LengthError",
    "LengthFault",
    "Marks",
    "NoLength",
    "Slope",
    "Style",
    "Unit",
    "Weight",
    "abs_length",
    "entered",
    "from_float",
    "inch",
    "mm",
    "read_length",
    "read_slope",
    "read_weight",
    "round_size",
    "round_weight",
    "style_of",
    "write_bought",
]
