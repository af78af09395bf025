"""Keys across a mitred corner: thin strips in slots that are sawn when the corner is glued."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.fraction import Fraction
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.joint import Joint
from nullah.core.piece.space import Axis, Box


class Keys(NamedTuple):
    """The keys of a mitre.

    Parameters
    ----------
    number : int
        How many, evenly along the corner; none holds it only by its glue.
    thick : Fraction
        How thick each is, mm.
    reach : Fraction
        How far they reach along both outer faces from the corner, mm.
    """

    number: int
    thick: Fraction
    reach: Fraction


def keys_of(joint: Joint) -> Keys | None:
    """Return the keys of a joint; None where it has none."""
    return joint.figures if isinstance(joint.figures, Keys) and joint.figures.number > 0 else None


def places_of(keys: Keys, overlap: Box, through: Axis) -> Iterator[tuple[Fraction, Fraction]]:
    """Yield from where to where each key goes along the corner, mm of the piece."""
    low, long = overlap.low[through.value], overlap.size(through)
    for index in range(keys.number):
        middle = low + long * (2 * index + 1) / (2 * keys.number)
        yield middle - keys.thick / 2, middle + keys.thick / 2
