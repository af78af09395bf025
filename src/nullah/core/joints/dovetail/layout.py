"""The through dovetail: spacing, gauge settings, limits.

Words: tails on one board, pins on the other; half-pins at the edges; the baseline is the
gauge line round the board. A tail is widest at the end of its board and as long as the
pin board is thick.
"""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark, Severity
from nullah.core.errors import FactError
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import kept_by_value
from nullah.core.joints.dovetail import facts
from nullah.core.joints.dovetail.tail_edges import tail_edges
from nullah.core.lengths import Length, Slope, mm
from nullah.core.named_tuple import NamedTuple
from nullah.core.refs import QuantityRef
from nullah.core.shop import Shop


class DovetailError(FactError):
    """A dovetail that cannot even be drawn: no tails, or boards of no size."""

    fact: facts.LayoutRefusal


class DovetailFigures(FrozenRecord):
    """What a corner is laid out from.

    Parameters
    ----------
    width : Length
        Of both boards.
    tail_thickness, pin_thickness : Length
        Of the tail board and of the pin board.
    tails : int
    half_pin : Length
        At each edge, at the end of the tail board.
    pin : Length
        Between two tails, at the end of the tail board (its narrow side).
    slope : Slope
    proud : Length
        How far end grain is to stand out, to be planed flush; below 0 for shy.
    widths : tuple of Fraction
        The tails' widths against each other, from the lower edge; empty where all are equal.
    mitres : (Length, Length)
        How wide the corner is mitred along its lower and its upper edge.
    """

    width: Length
    tail_thickness: Length
    pin_thickness: Length
    tails: int
    half_pin: Length
    pin: Length
    slope: Slope
    proud: Length = mm(0)
    widths: tuple[Fraction, ...] = ()
    mitres: tuple[Length, Length] = (mm(0), mm(0))

    @property
    def equal(self) -> bool:
        """Whether all tails are equally wide, so that dividers step them off."""
        return len(self.widths) != self.tails or len(set(self.widths)) == 1


class DovetailLayout(NamedTuple):
    """The lines of a corner, all exact.

    `marks` are the two edges of every tail at the end of its board, in order, measured
    from one edge. `tail_base` and `pin_base` are at the baseline, the tail's narrow and
    the pin's wide side. Where tails are not equal, `tail` is the narrowest and `step` their
    mean, pin included.
    """

    spec: DovetailFigures
    step: Length
    tail: Length
    tail_base: Length
    pin_base: Length
    marks: tuple[Length, ...]
    gauge_tail_board: Length
    gauge_pin_board: Length

    @property
    def tails(self) -> tuple[tuple[Length, Length], ...]:
        """Both edges of each tail at the end of the board."""
        return tuple(zip(self.marks[::2], self.marks[1::2], strict=True))

    @property
    def bases(self) -> tuple[tuple[Length, Length], ...]:
        """Both edges of each tail at the baseline, wherever the gauge puts it."""
        return self.tails_at(self.gauge_tail_board)

    def tails_at(self, depth: Length) -> tuple[tuple[Length, Length], ...]:
        """Return both edges of each tail so far in from the end of its board, at the bevel's slope.

        Parameters
        ----------
        depth : Length
            From the end of the tail board.
        """
        lean = depth / self.spec.slope.run
        return tuple((low + lean, high - lean) for low, high in self.tails)


@kept_by_value(64)
def lay_out(spec: DovetailFigures) -> DovetailLayout:
    """Lay a corner out with dividers.

    From one half-pin line, n steps overshoot the other by the wanted pin:
    step = (width - 2 half-pins + pin) / n; tail = step - pin (exact).

    Raises
    ------
    DovetailError
        Without tails, or with boards of no size. A layout that can be drawn but not made
        comes back with its reasons in `remarks`.

    Examples
    --------
    >>> from nullah.core.fraction import Fraction
    >>> corner = lay_out(DovetailFigures(mm(150), mm(15), mm(15), 2, mm(10), mm(6), Slope(Fraction(7))))
    >>> corner.step.mm, corner.tail.mm
    (Fraction(68, 1), Fraction(62, 1))
    """
    if spec.tails < 1:
        raise DovetailError(facts.NoTails(spec.tails))
    if spec.tails > 200:
        raise DovetailError(facts.TooManyTails(spec.tails))
    sides = facts.CornerSize
    for side, size in (
        (sides.WIDTH, spec.width),
        (sides.TAIL_BOARD, spec.tail_thickness),
        (sides.PIN_BOARD, spec.pin_thickness),
    ):
        if size.mm <= 0:
            raise DovetailError(facts.NoSize(side, size))
    if spec.half_pin.mm < 0 or spec.pin.mm < 0:
        raise DovetailError(facts.PinBelowNothing())
    step = (spec.width - 2 * spec.half_pin + spec.pin) / spec.tails
    edges = tail_edges(spec.width.mm, spec.tails, spec.half_pin.mm, spec.pin.mm, spec.widths)
    # Written in the board's own unit, as its width is.
    marks = [Length(edge) for both in edges for edge in both]
    tail = min((high - low for low, high in zip(marks[::2], marks[1::2], strict=True)), key=lambda each: each.mm)
    taper = 2 * spec.pin_thickness / spec.slope.run
    return DovetailLayout(
        spec,
        step,
        tail,
        tail - taper,
        spec.pin + taper,
        tuple(marks),
        spec.pin_thickness + spec.proud,
        spec.tail_thickness + spec.proud,
    )


def remarks(layout: DovetailLayout, shop: Shop, prefix: str = "tails") -> tuple[Remark, ...]:
    """Return what would go wrong with this corner, the worst first.

    `prefix` is that of the corner's figures in the ledger.
    """
    found = (*_cannot_be_made(layout), *_hard_to_make(layout, shop))
    return tuple(Remark(fact, weight, ref=QuantityRef(f"{prefix}.{figure}")) for fact, weight, figure in found)


_Found = tuple[facts.CornerFact, Severity, str]


def _cannot_be_made(layout: DovetailLayout) -> Iterator[_Found]:
    spec = layout.spec
    if layout.tail.mm <= 0:
        yield facts.NothingForTails(spec.tails, spec.pin, spec.width, most_tails(spec)), Severity.FAILURE, "count"
    elif layout.tail_base.mm <= 0:
        taken = layout.tail - layout.tail_base
        yield facts.TailsRunToPoint(layout.tail, spec.slope, taken, most_tails(spec)), Severity.FAILURE, "count"


def most_tails(spec: DovetailFigures) -> int:
    """Return how many tails would leave each a base as wide as the chosen pin, at least 3 mm; 0 if none."""
    base = max(spec.pin.mm, Fraction(3))
    room = spec.width.mm - 2 * spec.half_pin.mm + spec.pin.mm
    each = base + 2 * spec.pin_thickness.mm / spec.slope.run + spec.pin.mm
    return max(0, int(room / each))


def _hard_to_make(layout: DovetailLayout, shop: Shop) -> Iterator[_Found]:
    spec, look = layout.spec, Severity.WARNING
    if spec.tails > 1:
        finest = max(shop.fine_kerf, shop.narrowest_pin)
        if spec.pin < finest:
            # Between two tails goes at least one kerf.
            yield facts.PinsTooFine(spec.pin, finest), Severity.FAILURE if spec.pin < shop.fine_kerf else look, "pin"
        elif shop.largest_chisel(spec.pin) is None:
            yield facts.NoChiselBetween(spec.pin), look, "pin"
    if layout.tail_base.mm > 0 and shop.largest_chisel(layout.tail_base) is None:
        yield facts.NoChiselForSocket(layout.tail_base), look, "count"
    if 0 < layout.tail_base.mm < layout.tail.mm / 3:
        yield facts.TailsBreakOff(layout.tail, layout.tail_base), look, "count"
    if spec.half_pin.mm * 3 < spec.tail_thickness.mm:
        yield facts.HalfPinWeak(spec.half_pin, spec.tail_thickness / 2), look, "half_pin"
    if spec.slope.run < 5:
        yield facts.SlopeCrumbles(spec.slope), look, "slope"
    if spec.slope.run > 10:
        yield facts.SlopeSlips(spec.slope), look, "slope"
    if spec.proud.mm < 0:
        longest = max(layout.gauge_tail_board, layout.gauge_pin_board)
        yield facts.BaselineInside(-spec.proud, longest), look, "proud"
