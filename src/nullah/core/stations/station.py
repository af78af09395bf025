"""What every station has: a drawing of its matter, a card, and its state in words."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from nullah.core.card import Card
from nullah.core.drawing import Drawing
from nullah.core.plan import Plan
from nullah.core.stations.selection import Selection


class Station(NamedTuple):
    """A place on the rod, in the order of work.

    `draw` gives the bench, `card` what is carried away, `state` a few words for the rod,
    `invitation` what an empty bench says, and `to_scale` whether sizes on it are true.
    """

    id: str
    title: str
    draw: Callable[[Plan, Selection], Drawing]
    card: Callable[[Plan, Selection], Card]
    state: Callable[[Plan], str]
    invitation: str
    to_scale: bool = True
