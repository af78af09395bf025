"""The through dovetail: spacing, gauge settings, limits.

Words: tails on one board, pins on the other; half-pins at the edges; the baseline is the
gauge line round the board. A tail is widest at the end of its board and as long as the
pin board is thick.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from fractions import Fraction
from functools import lru_cache
from typing import NamedTuple

from nullah.core.card import Remark, Weight
from nullah.core.lengths import Length, Marks, Slope, mm
from nullah.core.piece.overlap import tail_edges
from nullah.core.shop import Shop


class DovetailError(ValueError):
    """A dovetail that cannot even be drawn: no tails, or boards of no size."""


@dataclass(frozen=True, slots=True)
class Dovetail:
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
    proud: Length = field(default_factory=lambda: mm(0))
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

    spec: Dovetail
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
        """Give both edges of each tail so far in from the end of its board, at the bevel's slope."""
        lean = depth / self.spec.slope.run
        return tuple((low + lean, high - lean) for low, high in self.tails)


@lru_cache(maxsize=64)
def lay_out(spec: Dovetail) -> DovetailLayout:
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
    >>> from fractions import Fraction
    >>> corner = lay_out(Dovetail(mm(150), mm(15), mm(15), 2, mm(10), mm(6), Slope(Fraction(7))))
    >>> corner.step.mm, corner.tail.mm
    (Fraction(68, 1), Fraction(62, 1))
    """
    if spec.tails < 1:
        raise DovetailError(f"A corner with {spec.tails} tails cannot be laid out. Use one or more.")
    if spec.tails > 200:
        raise DovetailError(f"{spec.tails} tails in one corner must be a slip of the key.")
    for word, size in (
        ("boards are", spec.width), ("tail board is", spec.tail_thickness), ("pin board is", spec.pin_thickness)
    ):  # fmt: skip
        if size.mm <= 0:
            raise DovetailError(f"The {word} {size.as_text()}: that must be more than nothing.")
    if spec.half_pin.mm < 0 or spec.pin.mm < 0:
        raise DovetailError("A pin cannot be less than nothing wide.")
    step = (spec.width - 2 * spec.half_pin + spec.pin) / spec.tails
    edges = tail_edges(spec.width.mm, spec.tails, spec.half_pin.mm, spec.pin.mm, spec.widths)
    # Written in the board's own unit, as its width is.
    marks = [Length(edge) for both in edges for edge in both]
    tail = min((high - low for low, high in zip(marks[::2], marks[1::2], strict=True)), key=lambda each: each.mm)
    taper = 2 * spec.pin_thickness / spec.slope.run
    return DovetailLayout(
        spec, step, tail, tail - taper, spec.pin + taper, tuple(marks),
        spec.pin_thickness + spec.proud, spec.tail_thickness + spec.proud,
    )  # fmt: skip


def remarks(layout: DovetailLayout, shop: Shop, marks: Marks, prefix: str = "tails") -> tuple[Remark, ...]:
    """Say what would go wrong with this corner, the worst first, a sentence each with its figure.

    `prefix` is that of the corner's figures in the ledger.
    """
    found = (*_cannot_be_made(layout, marks), *_hard_to_make(layout, shop, marks))
    return tuple(remark._replace(of=remark.of.replace("tails", prefix, 1)) for remark in found)


def _cannot_be_made(layout: DovetailLayout, marks: Marks) -> tuple[Remark, ...]:
    spec = layout.spec
    write = marks.write_fine
    found: list[str] = []
    if layout.tail.mm <= 0:
        found.append(
            f"{spec.tails} tails with pins of {write(spec.pin)} do not go into {write(spec.width)}: "
            f"nothing is left for the tails. {_fewer(spec)}"
        )
    elif layout.tail_base.mm <= 0:
        found.append(
            f"The tails run to a point before the baseline: {write(layout.tail)} at the end, and "
            f"{spec.slope.as_text()} takes {write(layout.tail - layout.tail_base)}. {_fewer(spec)}"
        )
    return tuple(Remark(text, Weight.FAILS, of="tails.count") for text in found)


def _fewer(spec: Dovetail) -> str:
    """Say how many tails would leave each a base as wide as the chosen pin, at least 3 mm."""
    base = max(spec.pin.mm, Fraction(3))
    room = spec.width.mm - 2 * spec.half_pin.mm + spec.pin.mm
    each = base + 2 * spec.pin_thickness.mm / spec.slope.run + spec.pin.mm
    most = int(room / each)
    if most >= 1:
        return f"Up to {most} would go."
    return "The boards are too narrow for even one: use thinner stock, a steeper slope or smaller half-pins."


def _hard_to_make(layout: DovetailLayout, shop: Shop, marks: Marks) -> tuple[Remark, ...]:
    spec = layout.spec
    write = marks.write_fine
    found: list[Remark] = []

    def look(text: str, of: str) -> None:
        found.append(Remark(text, Weight.LOOK, of=of))

    if spec.tails > 1:
        finest = max(shop.fine_kerf, shop.narrowest_pin)
        if spec.pin < finest:
            look(
                f"Pins of {write(spec.pin)} are finer than saw, knife and chisel can make: {write(finest)} at least.",
                "tails.pin",
            )
        elif shop.largest_chisel(spec.pin) is None:
            look(f"No chisel on the wall enters the {write(spec.pin)} between two tails.", "tails.pin")
    if layout.tail_base.mm > 0 and shop.largest_chisel(layout.tail_base) is None:
        look(f"No chisel on the wall enters a socket of {write(layout.tail_base)}.", "tails.count")
    if 0 < layout.tail_base.mm < layout.tail.mm / 3:
        look(
            f"The tails are {write(layout.tail)} at the end but only {write(layout.tail_base)} at the "
            "baseline: they will break off. Fewer tails or a steeper slope (1:8).",
            "tails.count",
        )
    if spec.half_pin.mm * 3 < spec.tail_thickness.mm:
        look(
            f"A half-pin of {write(spec.half_pin)} is weak at the edge; about half the board's thickness "
            f"({write(spec.tail_thickness / 2)}) is usual.",
            "tails.half_pin",
        )
    if spec.slope.run < 5:
        look(f"At {spec.slope.as_text()} the corners of the tails are short grain and crumble.", "tails.slope")
    if spec.slope.run > 10:
        look(f"At {spec.slope.as_text()} the tails hold little more than straight fingers.", "tails.slope")
    longest = max(layout.gauge_tail_board, layout.gauge_pin_board)
    if spec.proud.mm < 0:
        look(
            f"The baseline lies {write(-spec.proud)} inside flush: the boards, not the end grain, "
            f"are planed down after. Widest gauge {write(longest)}.",
            "tails.proud",
        )
    return tuple(found)
