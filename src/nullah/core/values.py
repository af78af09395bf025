"""What is typed for a quantity, read as its kind asks."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from nullah.core.ledger import QuantityKind, Value
from nullah.core.lengths import LengthError, LengthFault, NoLength, Unit, read_length, read_slope, read_weight
from nullah.core.limits import COUNT, read_count


def read_value(text: str, kind: QuantityKind, unit: Unit = Unit.MM) -> Value:
    """Read what was typed for a quantity.

    Parameters
    ----------
    text : str
    kind : QuantityKind
    unit : Unit
        What a bare length is in; beside inches a bare weight is in pounds.

    Raises
    ------
    LengthError
        If it is no figure of that kind.

    Examples
    --------
    >>> read_value("4", QuantityKind.COUNT), read_value("26", QuantityKind.WEIGHT, Unit.INCH).as_text()
    (4, '26 lb')
    """
    return _READERS[kind](text, unit)


def _count(text: str, _: Unit) -> int:
    count = read_count(text)
    if not count or count > COUNT:
        raise LengthError(NoLength(LengthFault.NO_COUNT, text))
    return count


def _slope(text: str, _: Unit) -> Value:
    return read_slope(text)


_READERS: Mapping[QuantityKind, Callable[[str, Unit], Value]] = {
    QuantityKind.LENGTH: read_length,
    QuantityKind.COUNT: _count,
    QuantityKind.SLOPE: _slope,
    QuantityKind.WEIGHT: read_weight,
}
