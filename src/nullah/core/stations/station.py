"""What every station has: a drawing of its matter, a card, and its state in words."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from nullah.core.card import Card
from nullah.core.drawing import Drawing
from nullah.core.plan import Plan
from nullah.core.rack.shape_readings import ShapeReading


class Hand(NamedTuple):
    """What is in hand: a part across all stations, and a quantity, board or flaw pointed at.

    `piece` is the rough part where the part comes of several, `cut` the step of the saw order
    that is shown, -1 for none. `now` is the time (ISO), where something hangs on it,
    `work` the task of the Day Book that was picked.
    """

    part: str = ""
    quantity: str = ""
    board: str = ""
    flaw: int = -1
    piece: str = ""
    cut: int = -1
    view: str = ""
    face: str = ""
    step: int = 0
    reading: ShapeReading | None = None
    edge: tuple[float, float] | None = None
    joint: str = ""
    made: tuple[float, ...] = ()
    task: tuple[str, tuple[float, ...]] | None = None
    now: str = ""
    work: str = ""


class Station(NamedTuple):
    """A place on the rod, in the order of work.

    `draw` gives the bench, `card` what is carried away, `state` a few words for the rod,
    `invitation` what an empty bench says, and `to_scale` whether sizes on it are true.
    """

    id: str
    title: str
    draw: Callable[[Plan, Hand], Drawing]
    card: Callable[[Plan, Hand], Card]
    state: Callable[[Plan], str]
    invitation: str
    to_scale: bool = True
