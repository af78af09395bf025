"""What cannot be carried out, and what comes out otherwise than it was designed."""

from __future__ import annotations

from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length
from nullah.core.operations.operation import Operation


class NotDrawn(FrozenRecord):
    """A line is worked to that nobody drew."""

    operation: Operation
    line: str


class PlaneMustStop(FrozenRecord):
    """A plane is asked to stop before the end of a board."""

    operation: Operation


class SawnClosed(FrozenRecord):
    """A saw is asked for where no end is open."""

    operation: Operation


Refusal = NotDrawn | PlaneMustStop | SawnClosed


#: The low and the high corner of a box in the frame of a blank, mm.
Bounds = tuple[tuple[float, float, float], tuple[float, float, float]]


class LeftStanding(FrozenRecord):
    """Wood that should go stays, within `bounds`; `operation` is the nearest one, None where there is none."""

    part: str
    thick: Length
    operation: Operation | None
    bounds: Bounds


class CutAway(FrozenRecord):
    """Wood that should stay is cut away, within `bounds`; `operation` is what cuts most of it."""

    part: str
    thick: Length
    operation: Operation | None
    bounds: Bounds


class NotTold(FrozenRecord):
    """What is taken off a part lies so that no operation makes it."""

    part: str


BuildingFact = NotDrawn | PlaneMustStop | SawnClosed | LeftStanding | CutAway | NotTold
