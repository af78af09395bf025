"""The tail of a sliding dovetail, by its figures."""

from __future__ import annotations

from nullah.core.fraction import Fraction
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Side, side_at


class SlidingTail(NamedTuple):
    """What a sliding dovetail is laid out by.

    Parameters
    ----------
    slope : Fraction
        The run of a slope of one in so much.
    taper : Fraction
        How much narrower it is at the edge that goes in first, mm; 0: straight.
    prefix : str
        The ledger's prefix of these figures.
    """

    slope: Fraction
    taper: Fraction = Fraction(0)
    prefix: str = ""

    def lean(self, deep: Fraction) -> Fraction:
        """Return how far in the neck lies on either face, of a tail so deep, mm.

        Parameters
        ----------
        deep : Fraction
            mm.
        """
        return deep / self.slope


def tail_of(joint: Joint) -> SlidingTail | None:
    """Return the figures of a joint's tail; None where it has none."""
    return joint.figures if isinstance(joint.figures, SlidingTail) else None


def entry(host: Part, overlap: Box, run: Axis) -> Side:
    """Return the side over which a tail goes into its housing, along the axis it runs."""
    return side_at(run, overlap.high[run.value] == host.box.high[run.value])
