"""Reading lengths as people write them."""

from __future__ import annotations

import re
from functools import cache

from nullah.core.fraction import Fraction
from nullah.core.identity import kept_by_value
from nullah.core.lengths.exact import MM_PER_INCH, Entry, LengthError, LengthFault, NoLength, Unit
from nullah.core.limits import DIGITS, LENGTH_TEXT, LONGEST_MM
from nullah.core.named_tuple import NamedTuple

_VULGAR = {
    "½": "1/2", "⅓": "1/3", "⅔": "2/3", "¼": "1/4", "¾": "3/4", "⅕": "1/5", "⅖": "2/5", "⅗": "3/5",
    "⅘": "4/5", "⅙": "1/6", "⅚": "5/6", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
}  # fmt: skip

_UNITS: dict[str, tuple[Fraction, Unit]] = {
    "mm": (Fraction(1), Unit.MM),
    "cm": (Fraction(10), Unit.CM),
    "m": (Fraction(1000), Unit.MM),
    "in": (MM_PER_INCH, Unit.INCH),
    "inch": (MM_PER_INCH, Unit.INCH),
    "inches": (MM_PER_INCH, Unit.INCH),
    '"': (MM_PER_INCH, Unit.INCH),
    "ft": (12 * MM_PER_INCH, Unit.INCH),
    "feet": (12 * MM_PER_INCH, Unit.INCH),
    "foot": (12 * MM_PER_INCH, Unit.INCH),
    "'": (12 * MM_PER_INCH, Unit.INCH),
}

_NUMBER = r"[0-9]+[ -][0-9]+/[0-9]+|[0-9]+/[0-9]+|[0-9]+[.,][0-9]*|[.,][0-9]+|[0-9]+"
_TERM = rf"\s*(?P<number>{_NUMBER})\s*(?P<unit>[a-z]+|\"|')?\s*"
_OF = rf"\s*(?P<part>{_NUMBER})\s+of\s+"

# Compiled at the first length that is typed: the window does not wait for it.
_compiled = cache(re.compile)


class _Term(NamedTuple):
    sign: int
    number: str
    unit: str


# What nearly every length in a file is: a number and a unit, one space between.
_PLAIN = r"([0-9]{1,6}(?:\.[0-9]{1,6})?) (mm|cm|in)"


@kept_by_value(8192)
def read_length(text: str, bare: Unit = Unit.MM) -> Entry:
    r"""Read a length as people write it.

    Takes ``1 7/8``, ``1-7/8"``, ``47.6 mm``, ``2' 3 1/2"``, ``18+0.5``, ``1/2 of 19``, with
    decimal comma or point, primes, and ready-made fractions (½).

    Parameters
    ----------
    text : str
        What was typed.
    bare : Unit
        The unit a number without one is in.

    Returns
    -------
    Entry
        Exact; its text is what was typed, with the unit added where it was left out.

    Raises
    ------
    LengthError
        For what is none.

    Examples
    --------
    >>> read_length("2' 3 1/2\"").mm == 27 * MM_PER_INCH + MM_PER_INCH / 2
    True
    >>> read_length("1/2 of 19").text
    '1/2 of 19 mm'
    """
    if len(text) > LENGTH_TEXT:
        raise _no_length(LengthFault.TEXT_TOO_LONG, text)
    plain = _compiled(_PLAIN).fullmatch(text)
    if plain:
        factor, unit = _UNITS[plain[2]]
        return _checked(Entry(Fraction(plain[1]) * factor, unit, text), text)
    cleaned = _clean(text)
    if not cleaned:
        raise _no_length(LengthFault.NOTHING, text)
    if _compiled(rf"[0-9]{{{DIGITS + 1}}}").search(cleaned):
        raise _no_length(LengthFault.TOO_MANY_DIGITS, text)
    shares = ""
    factor = Fraction(1)
    rest = cleaned
    while share := _compiled(_OF).match(rest):
        factor *= _number(share["part"])
        shares += f"{share['part']} of "
        rest = rest[share.end() :]
    terms = _split_terms(rest, text)
    _refuse_mixed_bare(terms, bare, text)
    total = Fraction(0)
    for term in terms:
        total += term.sign * _number(term.number) * _UNITS[term.unit or bare.value][0]
    value = factor * total
    complete = all(term.unit for term in terms)
    written = " ".join(text.split()) if complete else shares + _with_units(terms, bare)
    return _checked(Entry(value, _UNITS[terms[0].unit or bare.value][1], written), text)


def _no_length(fault: LengthFault, text: str, number: str = "") -> LengthError:
    return LengthError(NoLength(fault, text, number))


def _checked(entry: Entry, text: str) -> Entry:
    if abs(entry.mm) > LONGEST_MM:
        raise _no_length(LengthFault.TOO_LONG, text)
    return entry


def _clean(text: str) -> str:
    cleaned = text.strip().lower()
    for sign, plain in (
        ("″", '"'),
        ("”", '"'),
        ("“", '"'),
        ("''", '"'),
        ("′", "'"),
        ("’", "'"),
        ("−", "-"),
        ("–", "-"),
        ("⁄", "/"),
        ("×", "x"),
        ("\u00a0", " "),
    ):
        cleaned = cleaned.replace(sign, plain)
    for sign, plain in _VULGAR.items():
        if sign not in cleaned:
            continue
        cleaned = re.sub(rf"([0-9])[ -]?{sign}", rf"\1 {plain}", cleaned).replace(sign, plain)
    return re.sub(r"\s+", " ", cleaned)


def _split_terms(cleaned: str, original: str) -> list[_Term]:
    """Cut ``2' 3 1/2" + 4 mm`` into signed terms; feet and inches side by side are a sum."""
    terms: list[_Term] = []
    position, sign = 0, 1
    expect_term, signed = True, False
    while position < len(cleaned):
        if cleaned[position] in "+-":
            if signed:
                raise _no_length(LengthFault.TWO_SIGNS, original)
            sign = -1 if cleaned[position] == "-" else 1
            position += 1
            expect_term = signed = True
            while position < len(cleaned) and cleaned[position] == " ":
                position += 1
            continue
        match = _compiled(_TERM).match(cleaned, position)
        if match is None:
            raise _no_length(LengthFault.NO_LENGTH, original)
        unit = match["unit"] or ""
        if unit and unit not in _UNITS:
            raise _no_length(LengthFault.UNKNOWN_UNIT, unit)
        if not expect_term:
            follows_feet = terms[-1].unit in ("'", "ft", "foot", "feet")
            if not (follows_feet and (not unit or _UNITS[unit][0] == MM_PER_INCH)):
                raise _no_length(LengthFault.TWO_LENGTHS, original)
            unit = unit or "in"
            sign = terms[-1].sign
        terms.append(_Term(sign, match["number"], unit))
        position = match.end()
        sign, expect_term, signed = 1, False, False
    if expect_term:
        raise _no_length(LengthFault.ENDS_IN_SIGN, original)
    return terms


def _refuse_mixed_bare(terms: list[_Term], bare: Unit, original: str) -> None:
    """``18 + 0.5 mm`` in an inch piece could mean two things: ask rather than guess."""
    without = [term for term in terms if not term.unit]
    others = {_UNITS[term.unit][1] for term in terms if term.unit}
    if without and others and others != {bare}:
        raise _no_length(LengthFault.UNIT_MISSING, original, without[0].number)


def _number(text: str) -> Fraction:
    mixed = re.fullmatch(r"([0-9]+)[ -]([0-9]+)/([0-9]+)", text)
    if mixed:
        whole, top, bottom = (int(group) for group in mixed.groups())
        return whole + _ratio(top, bottom)
    if "/" in text:
        top_text, bottom_text = text.split("/")
        return _ratio(int(top_text), int(bottom_text))
    plain = text.replace(",", ".")
    return Fraction(f"0{plain}" if plain.startswith(".") else plain.rstrip("."))


def _ratio(top: int, bottom: int) -> Fraction:
    if bottom == 0:
        raise _no_length(LengthFault.OVER_NOTHING, str(top))
    return Fraction(top, bottom)


def _with_units(terms: list[_Term], bare: Unit) -> str:
    written = ""
    for term in terms:
        sign = "-" if term.sign < 0 else "+" if written else ""
        written += f" {sign} " if written else sign
        written += f"{term.number} {term.unit or bare.value}"
    return written
