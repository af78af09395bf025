"""The wedge of a tusk tenon, by its figures."""

from __future__ import annotations

from nullah.core.fraction import Fraction
from nullah.core.named_tuple import NamedTuple

#: The slot begins so far inside the post's face, mm, so that the wedge bears on the post and not on the slot.
INSIDE = Fraction(1)


class Tusk(NamedTuple):
    """The wedge of a tusk tenon.

    Parameters
    ----------
    thick : Fraction
        How thick it is, mm: a third of the tenon.
    wide : Fraction
        How wide at the narrower edge of the tenon, mm.
    slope : Fraction
        The run of a slope of one in so much.
    prefix : str
        The ledger's prefix of these figures.
    """

    thick: Fraction
    wide: Fraction
    slope: Fraction
    prefix: str
