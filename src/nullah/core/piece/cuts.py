"""What a joint takes from a part, as blocks and prisms in floating point."""

from __future__ import annotations

from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.shaping import Prism
from nullah.core.piece.space import Axis, Box

Floats = tuple[float, float, float]
#: A box as floats: (low corner, high corner), mm.
Block = tuple[Floats, Floats]


class RoundHole(NamedTuple):
    """A hole along an axis, mm: its centre in the two axes after that (cyclic), its diameter at either end.

    A slot goes on from its centre by half of `travel` either way.
    """

    along: Axis
    centre: tuple[float, float]
    low: float
    high: float
    diameter: float
    to_diameter: float
    travel: tuple[float, float] = (0.0, 0.0)


class Removal(NamedTuple):
    """What a joint takes from a part: blocks, prisms and hulls but what lies in `keeps` and `kept_prisms`, and holes.

    A hull is all that lies between some points, mm.
    """

    blocks: tuple[Block, ...] = ()
    prisms: tuple[Prism, ...] = ()
    keeps: tuple[Block, ...] = ()
    kept_prisms: tuple[Prism, ...] = ()
    holes: tuple[RoundHole, ...] = ()
    hulls: tuple[tuple[Floats, ...], ...] = ()


def block_of(box: Box) -> Block:
    """Return a box in floats."""
    return (
        (float(box.low[0]), float(box.low[1]), float(box.low[2])),
        (float(box.high[0]), float(box.high[1]), float(box.high[2])),
    )
