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
    Unit,
    abs_length,
    entered,
    from_float,
    inch,
    mm,
)
from nullah.core.lengths.marks import Marks
from nullah.core.lengths.reading import read_length
from nullah.core.lengths.slopes import Slope, read_slope

__all__ = [
    "MM_PER_INCH",
    "Direction",
    "Entry",
    "Length",
    "LengthError",
    "Marks",
    "Slope",
    "Unit",
    "abs_length",
    "entered",
    "from_float",
    "inch",
    "mm",
    "read_length",
    "read_slope",
]
