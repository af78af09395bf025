"""Where the groove for a bottom comes out at a dovetailed corner, and whether it shows."""

from __future__ import annotations

from enum import Enum

from nullah.core.card import Remark, Severity
from nullah.core.fixes import Fix, MoveGroove
from nullah.core.joints.dovetail.facts import GrooveCutsSlope, GrooveInTail, StopOnPinBoards, StopOnTailBoards
from nullah.core.joints.dovetail.layout import DovetailLayout
from nullah.core.lengths import Direction, Length, Marks
from nullah.core.named_tuple import NamedTuple
from nullah.core.refs import QuantityRef


class Meets(Enum):
    """What the groove meets at the corner."""

    TAIL = "tail"
    PIN = "pin"
    BOTH = "both"


class RunOut(NamedTuple):
    """The verdict: what the groove meets, and which boards it would show in."""

    meets: Meets
    shows_in_tail_board: bool
    shows_in_pin_board: bool
    tail: int | None


def run_out(layout: DovetailLayout, low: Length, high: Length) -> RunOut:
    """Say what a groove from `low` to `high` above the lower edge meets at the corner.

    Both boards' inside faces show the tail at its base width. Inside a tail, the pin
    board's groove runs into the socket that the tail fills, but the tail board's runs out
    at the tail's own end, seen from outside. Against a pin it is the other way round. A
    groove that meets both shows in both.

    Parameters
    ----------
    layout : DovetailLayout
        The corner.
    low : Length
        The groove's lower wall, above the lower edge.
    high : Length
        Its upper wall.
    """
    for number, (base_low, base_high) in enumerate(layout.bases, start=1):
        if base_low <= low and high <= base_high:
            return RunOut(Meets.TAIL, True, False, number)
    overlaps_a_tail = any(low < end_high and end_low < high for end_low, end_high in layout.tails)
    if not overlaps_a_tail:
        return RunOut(Meets.PIN, False, True, None)
    return RunOut(Meets.BOTH, True, True, None)


def remarks(
    layout: DovetailLayout,
    low: Length,
    high: Length,
    depth: Length,
    marks: Marks,
    covered: tuple[bool, bool] = (False, False),
    height: str = "groove.height",
    lapped: bool = False,
) -> tuple[Remark, ...]:
    """Return whether the groove shows, where to stop it, and how to move it inside a tail.

    `covered` says of tail boards and pin boards whether the groove does not come out at their ends as it is: it stops,
    or at a lapped (half-blind) corner the lap covers them.

    Parameters
    ----------
    layout : DovetailLayout
        Of the corner.
    low : Length
        Lower edge of the groove, from the board's.
    high : Length
        Its upper edge.
    depth : Length
        Its depth.
    marks : Marks
        Of the reader.
    covered : tuple[bool, bool]
        Of tail boards and of pin boards.
    height : str
        Name of the quantity that moves it.
    lapped : bool
        Whether the corner is half-blind.
    """
    verdict = run_out(layout, low, high)
    if verdict.tail is not None:
        inside = Remark(GrooveInTail(verdict.tail, lapped), ref=QuantityRef(height))
        # The bottom reaches `depth` past the baseline; beyond that the groove is not needed.
        stop = StopOnTailBoards(layout.gauge_tail_board - depth, depth)
        return (inside,) if covered[0] else (inside, Remark(stop, Severity.WARNING, ref=QuantityRef(height)))
    fixes = _into_a_tail(layout, low, high, marks, height)
    if verdict.meets is Meets.PIN and covered[1]:
        return ()
    if verdict.meets is Meets.PIN:
        return (Remark(StopOnPinBoards(layout.gauge_pin_board - depth), Severity.WARNING, fixes, QuantityRef(height)),)
    return (Remark(GrooveCutsSlope(), Severity.FAILURE, fixes, QuantityRef(height)),)


def _into_a_tail(layout: DovetailLayout, low: Length, high: Length, marks: Marks, height: str) -> tuple[Fix, ...]:
    """Offer the smallest shift of the groove that brings it inside a tail, to the mark."""
    width = high - low
    ways: list[Length] = []
    for base_low, base_high in layout.bases:
        if base_high - base_low < width:
            continue
        up = marks.to_mark(base_low, Direction.UP)
        down = marks.to_mark(base_high - width, Direction.DOWN)
        if low < base_low and up + width <= base_high:
            ways.append(up)
        elif high > base_high and down >= base_low:
            ways.append(down)
    if not ways:
        return ()
    best = min(ways, key=lambda to: abs(to.mm - low.mm))
    return (MoveGroove(height, best),)
