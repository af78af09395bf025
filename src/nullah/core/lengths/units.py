"""The units people work in, and all that hangs on which: how figures look, how a rule is marked, how wood is sold.

A new unit is one entry here; what is read for it stands in `reading.py`.
"""

from __future__ import annotations

from types import MappingProxyType

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.lengths.exact import MM_PER_INCH, Entry, Length, Unit, plain
from nullah.core.named_tuple import NamedTuple


class DerivedUnit(NamedTuple):
    """A unit of area, volume or weight: how many mm², mm³ or kg it is, how it is written, and to how many places."""

    size: float
    suffix: str
    places: int


class Style(NamedTuple):
    """How figures look in a unit.

    Parameters
    ----------
    mm : Fraction
        How many millimetres it is.
    name : str
        What it is called where it is chosen.
    suffix : str
        What stands behind a figure, with the space before it where there is one.
    fractions : bool
        Whether figures to the mark are written as fractions.
    rule : Unit
        The unit whose smallest mark holds: a rule in centimetres is marked as one in millimetres.
    marks : tuple of (Fraction, str)
        Smallest marks of rules there are, in the unit of the rule, and how each is written.
    fine, thin, setting : int
        To how many decimal places a small difference, a gap or shaving, and a tool's setting are written; a `setting`
        below 0 goes to the mark.
    nought : bool
        Whether a nought before the point is kept where there is little room.
    step : Fraction
        To what a place that was dragged is rounded, in the unit.
    area, volume, weight : DerivedUnit
    chips : DerivedUnit
        Volume of shavings.
    boards : tuple of str
        What boards typed on a sheet may look like.
    said : tuple of (Fraction, Fraction)
        From what size on a usual size is put on which step of the rule, both in the unit, the largest first; what is
        less stays. No published source: it is how such sizes are said aloud. Nothing where usual sizes are round as
        they are.
    """

    mm: Fraction
    name: str
    suffix: str
    fractions: bool
    rule: Unit
    marks: tuple[tuple[Fraction, str], ...]
    fine: int
    thin: int
    setting: int
    nought: bool
    step: Fraction
    area: DerivedUnit
    volume: DerivedUnit
    weight: DerivedUnit
    chips: DerivedUnit
    boards: tuple[str, ...]
    said: tuple[tuple[Fraction, Fraction], ...] = ()


_METRIC_AREA, _METRIC_VOLUME = DerivedUnit(1e6, "m²", 2), DerivedUnit(1e9, "m³", 4)
_METRIC_CHIPS = DerivedUnit(1e3, "cm³", 0)
_KILOGRAM = DerivedUnit(1.0, "kg", 0)
_METRIC_MARKS = ((Fraction(1), "1 mm"), (Fraction(1, 2), "0.5 mm"), (Fraction(1, 10), "0.1 mm"))

STYLES = MappingProxyType(
    {
        Unit.MM: Style(
            Fraction(1),
            "mm",
            " mm",
            False,
            Unit.MM,
            _METRIC_MARKS,
            1,
            2,
            1,
            True,
            Fraction(1),
            _METRIC_AREA,
            _METRIC_VOLUME,
            _KILOGRAM,
            _METRIC_CHIPS,
            ("2400 x 200 x 27", "1800 x 165 x 34 black walnut", "2000 x 150 x 22 yellow-poplar *3 back stock"),
        ),
        Unit.CM: Style(
            Fraction(10),
            "cm",
            " cm",
            False,
            Unit.MM,
            _METRIC_MARKS,
            2,
            3,
            2,
            True,
            Fraction(1, 10),
            _METRIC_AREA,
            _METRIC_VOLUME,
            _KILOGRAM,
            _METRIC_CHIPS,
            ("240 x 20 x 2.7", "180 x 16.5 x 3.4 black walnut", "200 x 15 x 2.2 yellow-poplar *3 back stock"),
        ),
        Unit.INCH: Style(
            MM_PER_INCH,
            N_("inches"),
            "″",
            True,
            Unit.INCH,
            ((Fraction(1, 16), "1/16″"), (Fraction(1, 32), "1/32″"), (Fraction(1, 64), "1/64″")),
            3,
            3,
            -1,
            False,
            Fraction(1, 16),
            DerivedUnit(304.8**2, "sq ft", 1),
            DerivedUnit(144 * 25.4**3, "bd ft", 2),
            DerivedUnit(0.45359237, "lb", 0),
            DerivedUnit(25.4**3, "in³", 1),
            ("8' x 7 1/2 x 1", "6' 4/4 x 6 1/4 black walnut", "8' 1x12 white oak *3 shelf stock"),
            (
                (Fraction(4), Fraction(1, 2)),
                (Fraction(1), Fraction(1, 4)),
                (Fraction(3, 8), Fraction(1, 8)),
                (Fraction(1, 8), Fraction(1, 16)),
                (Fraction(1, 64), Fraction(1, 32)),
            ),
        ),
    }
)


def style_of(unit: Unit) -> Style:
    """Return how figures look in a unit."""
    return STYLES[unit]


def round_size(length: Length, unit: Unit) -> Length:
    """Return a length on the step of the rule on which one of about that size is said.

    Parameters
    ----------
    length : Length
        Any.
    unit : Unit
        In which it is said.

    Examples
    --------
    >>> from nullah.core.lengths import mm
    >>> round_size(mm(360), Unit.INCH).mm / MM_PER_INCH, round_size(mm(15), Unit.INCH).mm / MM_PER_INCH
    (Fraction(14, 1), Fraction(5, 8))
    >>> round_size(mm(360), Unit.MM).mm
    Fraction(360, 1)
    """
    style = STYLES[unit]
    size = length.mm / style.mm
    step = next((step for least, step in style.said if size >= least), None)
    return length if step is None else Length(round(size / step) * step * style.mm)


def entered(length: Length, unit: Unit) -> Entry:
    """Return a length as it would be typed exactly in a unit.

    Parameters
    ----------
    length : Length
        Any.
    unit : Unit
        In which it is typed.

    Examples
    --------
    >>> from nullah.core.lengths import inch, mm
    >>> entered(inch("7/8"), Unit.INCH).text, entered(mm("47.5"), Unit.MM).text
    ('7/8 in', '47.5 mm')
    """
    style = style_of(unit)
    return Entry(length.mm, unit, f"{plain(length.mm / style.mm, prefer_fraction=style.fractions)} {unit.value}")


def in_unit(text: str) -> str:
    """Return a length as it was typed or bought, with the sign its unit is written with: ``3/8″``, ``12 mm``.

    Examples
    --------
    >>> in_unit("3/8 in"), in_unit("12 mm"), in_unit("2 ft 3 in + 1/2 inch")
    ('3/8″', '12 mm', '2 ft 3″ + 1/2″')
    """
    for word in ("inches", "inch", "in"):
        text = text.replace(f" {word}", STYLES[Unit.INCH].suffix)
    return text
