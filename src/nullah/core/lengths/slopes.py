"""The slope of a dovetail, as a ratio."""

from __future__ import annotations

import math
import re

from nullah.core.fraction import Fraction
from nullah.core.lengths.exact import LengthError, LengthFault, NoLength, plain
from nullah.core.limits import LENGTH_TEXT
from nullah.core.named_tuple import NamedTuple

_SLOPE = re.compile(r"\s*(?:1\s*(?::|/|in)\s*)?([0-9]{1,4}(?:[.,][0-9]{1,6})?)\s*")


class Slope(NamedTuple):
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
        return f"1:{plain(self.run)}"


def read_slope(text: str) -> Slope:
    """Read ``1:7``, ``1 in 7``, ``7`` as a slope, or raise `LengthError`."""
    match = _SLOPE.fullmatch(text.lower()) if len(text) <= LENGTH_TEXT else None
    if not match:
        raise LengthError(NoLength(LengthFault.NO_SLOPE, text))
    run = Fraction(match[1].replace(",", "."))
    if run < 2 or run > 40:
        raise LengthError(NoLength(LengthFault.SLOPE_OUTSIDE, text, match[1]))
    return Slope(run)
