"""A dovetail's lines taken in the hand: what figure a line stands for, and how far it may go."""

from __future__ import annotations

from nullah.core.fraction import Fraction
from nullah.core.joints.dovetail.layout import DovetailLayout
from nullah.core.joints.dovetail.spacing import pin_moved
from nullah.core.joints.dragged import Dragged, Held, held_within
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.shop import Shop


class DraggedLine(NamedTuple):
    """A line that can be dragged: the figure it stands for, and which edge of a tail (from 0, from below)."""

    figure: str
    mark: int = -1


def line_at(layout: DovetailLayout, inward: float, level: float, near: float) -> DraggedLine | None:
    """Return the line of a tail board's face nearest to a place, within `near` mm.

    `inward` is counted from the end of the board, `level` from its lower edge.

    Parameters
    ----------
    layout : DovetailLayout
        The corner.
    inward : float
        How far in from the end, mm.
    level : float
        How far above the lower edge, mm.
    near : float
        How far off a line may be, mm.
    """
    base = float(layout.gauge_tail_board)
    if abs(inward - base) < near and 0 <= level <= float(layout.spec.width):
        return DraggedLine("proud")
    if not -near <= inward <= base:
        return None
    # A tail's edge leans: where the pointer is, it stands a little further in.
    lean = inward / float(layout.spec.slope.run)
    edges = [float(mark) + (lean if number % 2 == 0 else -lean) for number, mark in enumerate(layout.marks)]
    number = min(range(len(edges)), key=lambda index: abs(edges[index] - level))
    if abs(edges[number] - level) > near:
        return None
    outer = number in (0, len(edges) - 1)
    return DraggedLine("half_pin" if outer else "pin", number)


def dragged(layout: DovetailLayout, line: DraggedLine, inward: float, level: float, shop: Shop) -> Dragged:
    """Return what figure a line dragged to a place stands for, to 0.1 mm, held within what can be made.

    Parameters
    ----------
    layout : DovetailLayout
        The corner.
    line : DraggedLine
        What is dragged.
    inward : float
        To where: in from the end, mm.
    level : float
        And above the lower edge, mm.
    shop : Shop
        Whose tools limit it.
    """
    spec = layout.spec
    wide, thick, number = float(spec.width), float(spec.tail_thickness), spec.tails
    lean = inward / float(spec.slope.run)
    if line.figure == "proud":
        return held_within("proud", inward - float(spec.pin_thickness), -1.0, 3.0, Held.SHY, Held.PLANED_OFF)
    half, taper = float(spec.half_pin), 2 * float(spec.pin_thickness) / float(spec.slope.run)
    least_tail = taper + float(shop.narrowest_pin)
    if line.figure == "half_pin":
        at = level - lean if line.mark == 0 else wide - level - lean
        # Every tail keeps a base that a chisel enters.
        most = (wide - number * least_tail - (number - 1) * float(spec.pin)) / 2
        return held_within("half_pin", at, thick / 4, most, Held.EDGE_BREAKS, Held.TAILS_POINTED)
    edge = level - lean if line.mark % 2 == 0 else level + lean
    if spec.widths and len(spec.widths) == spec.tails:
        return _one_pin(layout, line.mark, edge, least_tail)
    room, index = wide - 2 * half, line.mark // 2
    # An edge stands at half-pin + i·step, or at half-pin + (i + 1)·step - pin; step = (room + pin) / number.
    if line.mark % 2 == 0:
        at = (edge - half) * number / index - room
    else:
        at = ((index + 1) * room / number - (edge - half)) / (1 - (index + 1) / number)
    most = (room - number * least_tail) / max(number - 1, 1)
    least = max(float(shop.narrowest_pin), float(shop.fine_kerf))
    return held_within("pin", at, least, most, Held.TOO_FINE, Held.TAILS_POINTED)


def _one_pin(layout: DovetailLayout, mark: int, edge: float, least: float) -> Dragged:
    """Move the pin that an edge belongs to: the tails beside it give and take."""
    tails = [(high - low).mm for low, high in layout.tails]
    by = Fraction(round((edge - float(layout.marks[mark])) * 10), 10)
    widths, held = pin_moved(tails, (mark - 1) // 2, by, Fraction(least).limit_denominator(100))
    at = Length(widths[(mark - 1) // 2])
    return Dragged("tail", at, Held.TAIL_BESIDE_POINTED if held else None, widths)
