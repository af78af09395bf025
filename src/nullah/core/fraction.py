"""Exact numbers: the fractions of the standard library, with quicker arithmetic.

The standard ones ask through abstract classes what kind of number every operand is, and check every result anew; half
the time of working out a piece went there. These look only whether it is one of them or a whole number. Anything else
is left to the standard ones, and what comes of it is one of these again. For whoever checks types, both are the same.

Examples
--------
>>> Fraction(1, 2) + Fraction(1, 3), 1 - Fraction(1, 3), Fraction("0.25") == 0.25
(Fraction(5, 6), Fraction(2, 3), True)
"""

from __future__ import annotations

import fractions
from math import gcd
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from fractions import Fraction as Fraction
else:
    _new = object.__new__

    def _made(over: int, below: int) -> Fraction:
        """Return a fraction that is in lowest terms, its denominator above nothing."""
        made = _new(Fraction)
        made._numerator = over
        made._denominator = below
        return made

    def _reduced(over: int, below: int) -> Fraction:
        common = gcd(over, below)
        return _made(over, below) if common == 1 else _made(over // common, below // common)

    def _own(found):
        """Return what the standard arithmetic found: a float stays one."""
        return _made(found.numerator, found.denominator) if type(found) is fractions.Fraction else found

    class Fraction(fractions.Fraction):
        """A fraction whose arithmetic with its like and with whole numbers is quick."""

        __slots__ = ()

        def __add__(self, other):
            if type(other) is Fraction:
                below, others = self._denominator, other._denominator
                if below == others:
                    return _reduced(self._numerator + other._numerator, below)
                return _reduced(self._numerator * others + other._numerator * below, below * others)
            if type(other) is int:
                return _made(self._numerator + other * self._denominator, self._denominator)
            return _own(super().__add__(other))

        def __radd__(self, other):
            return self + other if type(other) is int else _own(super().__radd__(other))

        def __sub__(self, other):
            if type(other) is Fraction:
                below, others = self._denominator, other._denominator
                if below == others:
                    return _reduced(self._numerator - other._numerator, below)
                return _reduced(self._numerator * others - other._numerator * below, below * others)
            if type(other) is int:
                return _made(self._numerator - other * self._denominator, self._denominator)
            return _own(super().__sub__(other))

        def __rsub__(self, other):
            if type(other) is int:
                return _made(other * self._denominator - self._numerator, self._denominator)
            return _own(super().__rsub__(other))

        def __mul__(self, other):
            if type(other) is Fraction:
                return _reduced(self._numerator * other._numerator, self._denominator * other._denominator)
            if type(other) is int:
                return _reduced(self._numerator * other, self._denominator)
            return _own(super().__mul__(other))

        def __rmul__(self, other):
            return self * other if type(other) is int else _own(super().__rmul__(other))

        def __truediv__(self, other):
            if type(other) in _QUICK and other:
                over, below = self._numerator * other.denominator, self._denominator * other.numerator
                return _reduced(over, below) if below > 0 else _reduced(-over, -below)
            return _own(super().__truediv__(other))

        def __rtruediv__(self, other):
            return _own(super().__rtruediv__(other))

        def __mod__(self, other):
            return _own(super().__mod__(other))

        def __rmod__(self, other):
            return _own(super().__rmod__(other))

        def __neg__(self):
            return _made(-self._numerator, self._denominator)

        def __pos__(self):
            return self

        def __abs__(self):
            return self if self._numerator >= 0 else _made(-self._numerator, self._denominator)

        def __eq__(self, other):
            if type(other) is Fraction:
                return self._numerator == other._numerator and self._denominator == other._denominator
            if type(other) is int:
                return self._numerator == other and self._denominator == 1
            return super().__eq__(other)

        __hash__ = fractions.Fraction.__hash__

        def __lt__(self, other):
            if type(other) in _QUICK:
                return self._numerator * other.denominator < other.numerator * self._denominator
            return super().__lt__(other)

        def __le__(self, other):
            if type(other) in _QUICK:
                return self._numerator * other.denominator <= other.numerator * self._denominator
            return super().__le__(other)

        def __gt__(self, other):
            if type(other) in _QUICK:
                return self._numerator * other.denominator > other.numerator * self._denominator
            return super().__gt__(other)

        def __ge__(self, other):
            if type(other) in _QUICK:
                return self._numerator * other.denominator >= other.numerator * self._denominator
            return super().__ge__(other)

        def __bool__(self):
            return self._numerator != 0

        def __float__(self):
            return self._numerator / self._denominator

        def __copy__(self):
            return self

        def __deepcopy__(self, memo):
            return self

        def __reduce__(self):
            return _made, (self._numerator, self._denominator)

    _QUICK = frozenset((Fraction, int))
