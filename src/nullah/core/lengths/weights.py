"""The weight of a load, as it is typed."""

from __future__ import annotations

import re

from nullah.core.fraction import Fraction
from nullah.core.lengths.exact import LengthError, LengthFault, NoLength, Unit
from nullah.core.lengths.units import style_of
from nullah.core.limits import LENGTH_TEXT, WEIGHT_KG
from nullah.core.named_tuple import NamedTuple

_WEIGHT = re.compile(r"\s*([0-9]{1,6}(?:[.,][0-9]{1,6})?)\s*(kg|lbs?|pounds?)?\s*")
#: Of one pound: exact by its definition.
_POUND = Fraction("0.45359237")


class Weight(NamedTuple):
    """A weight, in kg and as it was typed, with its unit.

    Examples
    --------
    >>> read_weight("26 lb").as_text(), float(read_weight("20 lb").kilograms)
    ('26 lb', 9.0718474)
    """

    kilograms: Fraction
    text: str

    def as_text(self) -> str:
        """Return what was typed, with its unit."""
        return self.text


def read_weight(text: str, bare: Unit = Unit.MM) -> Weight:
    """Read ``12 kg``, ``26 lb``, or a bare number, as a weight.

    Parameters
    ----------
    text : str
    bare : Unit
        The unit of lengths that is shown: beside inches a bare number is pounds, else kilograms.

    Raises
    ------
    LengthError
        If it is no weight, or one that nothing in a house bears.
    """
    match = _WEIGHT.fullmatch(text.lower()) if len(text) <= LENGTH_TEXT else None
    if not match:
        raise LengthError(NoLength(LengthFault.NO_WEIGHT, text))
    unit = (match[2] or style_of(bare).weight.suffix).rstrip("s")
    number = match[1].replace(",", ".")
    kilograms = Fraction(number) * (1 if unit == "kg" else _POUND)
    if kilograms > WEIGHT_KG:
        raise LengthError(NoLength(LengthFault.TOO_HEAVY, text))
    return Weight(kilograms, f"{number} {'kg' if unit == 'kg' else 'lb'}")


def round_weight(kilograms: Fraction, unit: Unit) -> Weight | None:
    """Return a usual weight as it is said beside inches, in fives of pounds; None where it is round as it is.

    Parameters
    ----------
    kilograms : Fraction
        The usual weight.
    unit : Unit
        The unit of lengths that is shown.

    Examples
    --------
    >>> round_weight(Fraction(12), Unit.INCH).text, round_weight(Fraction(12), Unit.CM)
    ('25 lb', None)
    """
    if style_of(unit).weight.suffix == "kg":
        return None
    return read_weight(f"{round(kilograms / _POUND / 5) * 5} lb")
