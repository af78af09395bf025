"""The peg of a drawbored tenon, by its figures."""

from __future__ import annotations

from nullah.core.fraction import Fraction
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple


class DrawPeg(NamedTuple):
    """The peg of a tenon.

    Parameters
    ----------
    bit : Length
        Its diameter, as its bit was bought.
    inset : Fraction
        From the shoulder to the hole in the mortised part, mm.
    draw : Fraction
        How much nearer to the shoulder the hole in the tenon is, mm.
    prefix : str
        The ledger's prefix of these figures.
    """

    bit: Length
    inset: Fraction
    draw: Fraction
    prefix: str
