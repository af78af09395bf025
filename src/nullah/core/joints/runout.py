"""Where the groove for a bottom comes out at a dovetailed corner, and whether it shows."""

from __future__ import annotations

from enum import Enum
from typing import NamedTuple

from nullah.core.card import Remark, Weight
from nullah.core.fixes import Fix, MoveGroove
from nullah.core.joints.dovetail import DovetailLayout
from nullah.core.lengths import Direction, Length, Marks


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
    """
    for number, (base_low, base_high) in enumerate(layout.bases, start=1):
        if base_low <= low and high <= base_high:
            return RunOut(Meets.TAIL, True, False, number)
    overlaps_a_tail = any(low < end_high and end_low < high for end_low, end_high in layout.tails)
    if not overlaps_a_tail:
        return RunOut(Meets.PIN, False, True, None)
    return RunOut(Meets.BOTH, True, True, None)


def remarks(
    layout: DovetailLayout, low: Length, high: Length, depth: Length, marks: Marks, lapped: bool = False,
    of: str = "groove.height",
) -> tuple[Remark, ...]:  # fmt: skip
    """Say in words whether the groove shows, where to stop it, and how to move it inside a tail.

    At a lapped (half-blind) corner nothing shows in the tail boards' ends: the lap covers them.
    """
    return tuple(remark._replace(of=of) for remark in _remarks(layout, low, high, depth, marks, lapped, of))


def _remarks(
    layout: DovetailLayout, low: Length, high: Length, depth: Length, marks: Marks, lapped: bool, of: str
) -> tuple[Remark, ...]:
    verdict = run_out(layout, low, high)
    # The bottom reaches `depth` past the baseline; beyond that the groove is not needed.
    stop_tail = layout.gauge_tail_board - depth
    stop_pin = layout.gauge_pin_board - depth

    def written(stop: Length) -> str:
        return marks.write(stop, Direction.DOWN)

    if verdict.meets is Meets.TAIL and lapped:
        return (
            Remark(
                f"The groove runs inside tail {verdict.tail} (counted from the lower edge); the lap covers its end. "
                "Run it through in front and sides."
            ),
        )
    if verdict.meets is Meets.TAIL:
        return (
            Remark(
                f"The groove runs inside tail {verdict.tail} (counted from the lower edge). On the pin boards run it "
                "through: the socket it comes out in is filled by the tail.",
                Weight.NOTE,
            ),
            Remark(
                "On the tail boards a through groove would show in the end of that tail. Stop it "
                f"{written(stop_tail)} from each end ({marks.write(depth)} past the baseline).",
                Weight.LOOK,
            ),
        )
    fixes = _into_a_tail(layout, low, high, marks, of)
    if verdict.meets is Meets.PIN:
        return (
            Remark(
                "The groove meets a pin and would show in the pin's end. Stop it on the pin boards "
                f"{written(stop_pin)} from each end, or move it inside a tail.",
                Weight.LOOK,
                fixes,
            ),
        )
    return (
        Remark(
            "The groove cuts the slope between a tail and a pin and shows in both boards at the corner. "
            "Move it inside a tail.",
            Weight.FAILS,
            fixes,
        ),
    )


def _into_a_tail(layout: DovetailLayout, low: Length, high: Length, marks: Marks, of: str) -> tuple[Fix, ...]:
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
    return (MoveGroove(of, best),)
