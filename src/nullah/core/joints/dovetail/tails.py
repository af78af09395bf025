"""What the ledger says of the tails of a corner."""

from __future__ import annotations

from nullah.core.fraction import Fraction
from nullah.core.lengths import Slope
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.joint import Joint


class Tails(NamedTuple):
    """The tails of a corner: the ledger's prefix for their figures, and the figures, mm.

    `groove` is the prefix of the groove that runs out at the corner, empty without one; `lap`
    what is to be left of the pin board outside the tails (0: through); `widths` the tails' widths
    against each other, from the lower edge, empty where they are equal; `mitres` how wide the
    corner is mitred at its lower and its upper edge.
    """

    prefix: str
    number: int
    half_pin: Fraction
    pin: Fraction
    slope: Slope
    groove: str = ""
    lap: Fraction = Fraction(0)
    widths: tuple[Fraction, ...] = ()
    mitres: tuple[Fraction, Fraction] = (Fraction(0), Fraction(0))


def tails_of(joint: Joint) -> Tails | None:
    """Return the tails of a joint; None for one that has none."""
    return joint.figures if isinstance(joint.figures, Tails) else None
