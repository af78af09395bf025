"""The dovetailed corner at true scale: tail board's face, pin board's end and pin board's face.

Heights are measured from the lower edge, which lies at the bottom of each drawing.
Everything is drawn with its boards' ends at x = 0, the wood reaching to the left.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from nullah.core.drawing import Anchor, Dimension, Element, Fill, Label, Path, Point, Role, grain_lines, line, rectangle
from nullah.core.joints.dovetail.layout import DovetailLayout
from nullah.core.lengths import Length, Marks, from_float
from nullah.core.reader import Reader
from nullah.core.refs import PartRef, QuantityRef


def tail_board_face(
    layout: DovetailLayout, show: float, groove: Sequence[Length], species: str, part: str
) -> Iterator[Element]:
    """Draw the outside face of the tail board's right end, `show` mm of it.

    The tails are knifed, the waste between them hatched, the baseline gauged; the groove on
    the inside is dashed.

    Parameters
    ----------
    layout : DovetailLayout
        Of the corner.
    show : float
        mm.
    groove : Sequence[Length]
        Its low edge, high edge and depth; empty: none.
    species : str
        It is drawn as.
    part : str
        Its id.
    """
    height, base = float(layout.spec.width), -float(layout.gauge_tail_board)
    yield rectangle(-show, 0, show, height, fill=Fill.WOOD, species=species, ref=PartRef(part))
    yield from grain_lines(-show, 0, show + base, height, part, ref=PartRef(part))
    for shape in between_tails(layout, -base):
        yield _waste(height, *((-inward, level) for inward, level in shape))
    for (low, high), (base_low, base_high) in zip(layout.tails, layout.bases, strict=True):
        yield line((base, height - float(base_low)), (0, height - float(low)), Role.KNIFE)
        yield line((base, height - float(base_high)), (0, height - float(high)), Role.KNIFE)
    yield line((base, 0), (base, height), Role.GAUGE)
    for level in groove:
        yield line((-show, height - float(level)), (0, height - float(level)), Role.HIDDEN)


def between_tails(layout: DovetailLayout, reach: float) -> Iterator[tuple[Point, ...]]:
    """Yield what stands between the tails of a board: half-pin, pins, half-pin, from the lower edge up.

    Parameters
    ----------
    layout : DovetailLayout
    reach : float
        How far the baseline is from the end, mm.

    Yields
    ------
    tuple of (inward, level)
        Corners: mm in from the end of the board, mm up from its lower edge.
    """
    # A mitred edge is not sawn off at the baseline: its half of the corner stays.
    edge_end = edge_base = float(layout.spec.mitres[0])
    ends = [(float(low), float(high)) for low, high in layout.tails]
    bases = [(float(low), float(high)) for low, high in layout.tails_at(from_float(reach))]
    top = float(layout.spec.width - layout.spec.mitres[1])
    for (low, high), (base_low, base_high) in zip([*ends, (top, top)], [*bases, (top, top)], strict=True):
        yield ((0.0, edge_end), (reach, edge_base), (reach, base_low), (0.0, low))
        edge_end, edge_base = high, base_high


def sockets(layout: DovetailLayout, reach: float) -> Iterator[tuple[Point, ...]]:
    """Yield the sockets of a pin board as seen from outside, where they are as wide as the tails there.

    Parameters
    ----------
    layout : DovetailLayout
        Of the corner.
    reach : float
        How far they are drawn, mm.
    """
    for low, high in layout.tails_at(layout.spec.proud):
        yield ((0.0, float(low)), (reach, float(low)), (reach, float(high)), (0.0, float(high)))


def _waste(height: float, *corners: Point) -> Path:
    return Path(tuple((x, height - z) for x, z in corners), Role.KNIFE, closed=True, fill=Fill.WASTE)


def pin_board_end(layout: DovetailLayout, species: str, part: str) -> Iterator[Element]:
    """Draw the pin board's end grain: outside face to the left, where the pins are narrow."""
    height, thick = float(layout.spec.width), float(layout.spec.pin_thickness)
    yield rectangle(0, 0, thick, height, fill=Fill.END_GRAIN, species=species, ref=PartRef(part))
    outside = layout.tails_at(layout.spec.proud)
    for (low, high), (base_low, base_high) in zip(outside, layout.bases, strict=True):
        yield _waste(height, (0, float(low)), (thick, float(base_low)), (thick, float(base_high)), (0, float(high)))


def pin_board_face(
    layout: DovetailLayout, show: float, groove: Sequence[Length], species: str, part: str
) -> Iterator[Element]:
    """Draw the inside face of the pin board's left end: sockets hatched, baseline gauged, groove to its depth.

    Parameters
    ----------
    layout : DovetailLayout
        Of the corner.
    show : float
        mm.
    groove : Sequence[Length]
        Its low edge, high edge and depth; empty: none.
    species : str
        It is drawn as.
    part : str
        Its id.
    """
    height, base = float(layout.spec.width), float(layout.gauge_pin_board)
    yield rectangle(0, 0, show, height, fill=Fill.WOOD, species=species, ref=PartRef(part))
    yield from grain_lines(base, 0, show - base, height, part, ref=PartRef(part))
    for base_low, base_high in layout.bases:
        yield _waste(
            height, (0, float(base_low)), (base, float(base_low)), (base, float(base_high)), (0, float(base_high))
        )
    yield line((base, 0), (base, height), Role.GAUGE)
    for level in groove:
        yield line((0, height - float(level)), (show, height - float(level)), Role.KNIFE)


def mark_dimensions(
    layout: DovetailLayout, marks: Marks, prefix: str, states: Sequence[tuple[str, str]] = ()
) -> Iterator[Element]:
    """Dimension the marks at the end of the tail board: half-pin, tail, pin, all to be clicked.

    `prefix` is that of the corner's figures in the ledger, `states` pairs of name and state.
    """
    height = float(layout.spec.width)
    state, reader = dict(states), Reader(marks)
    half = Dimension(
        (0, height - float(layout.spec.half_pin)),
        (0, height),
        marks.write_setting(layout.spec.half_pin),
        6,
        state.get(f"{prefix}.half_pin", ""),
        ref=QuantityRef(f"{prefix}.half_pin"),
    )
    yield half
    if not layout.spec.equal:
        yield from _each_tail(layout, marks, prefix, state.get(f"{prefix}.pin", ""))
        return
    low, high = float(layout.marks[0]), float(layout.marks[1])
    text = marks.write_setting(layout.tail)
    yield Dimension(
        (0, height - low),
        (0, height - high),
        text,
        -6,
        state.get(f"{prefix}.width", ""),
        ref=QuantityRef(f"{prefix}.width"),
    )
    if layout.spec.tails > 1:
        low, high = float(layout.marks[1]), float(layout.marks[2])
        text = marks.write_setting(layout.spec.pin)
        yield Dimension(
            (0, height - low),
            (0, height - high),
            text,
            -6,
            state.get(f"{prefix}.pin", ""),
            ref=QuantityRef(f"{prefix}.pin"),
        )
        low, high = float(layout.marks[0]), float(layout.marks[2])
        text = reader.text("step {figure}", figure=marks.write_setting(layout.step))
        yield Dimension(
            (0, height - low),
            (0, height - high),
            text,
            -15,
            state.get(f"{prefix}.step", ""),
            ref=QuantityRef(f"{prefix}.step"),
        )


def _each_tail(layout: DovetailLayout, marks: Marks, prefix: str, pin_state: str) -> Iterator[Element]:
    """Dimension every tail of a row that is not equal, and the pin they have between them."""
    height = float(layout.spec.width)
    for low, high in layout.tails:
        ends = (0, height - float(low)), (0, height - float(high))
        # Many stand one over the other here: the half-pin below says the unit.
        yield Dimension(*ends, marks.write_setting(high - low, unit=False), -6)
    low, high = layout.marks[1], layout.marks[2]
    text = Reader(marks).text("pin {figure}", figure=marks.write_setting(layout.spec.pin))
    yield Dimension(
        (0, height - float(low)), (0, height - float(high)), text, -15, pin_state, ref=QuantityRef(f"{prefix}.pin")
    )


def divider_pricks(layout: DovetailLayout, overshoot: str) -> Iterator[Element]:
    """Draw where dividers prick the end of the tail board from both half-pin lines, and label the overshoot."""
    height, number = float(layout.spec.width), layout.spec.tails
    half, step = float(layout.spec.half_pin), float(layout.step)
    if not layout.spec.equal:
        return  # each is set off by itself
    for index in range(number + 1):
        for level in (half + index * step, height - half - index * step):
            yield line((0, height - level), (2.2, height - level), Role.CHALK)
    if number > 1:
        over = height - (half + number * step)
        yield Label((2.2, over), overshoot, 2.8, Anchor.START, Role.CHALK, nudge_mm=(1.5, -1.5))


def mark_scale(layout: DovetailLayout, marks: Marks, x: float, size_mm: float = 2.6) -> Iterator[Element]:
    """Write every tail's two edges, measured from the lower edge, beside the end of the board.

    Parameters
    ----------
    layout : DovetailLayout
        Of the corner.
    marks : Marks
        Of the reader.
    x : float
        Of the words, mm.
    size_mm : float
        Of type, paper mm.
    """
    height = float(layout.spec.width)
    for mark in layout.marks:
        y = height - float(mark)
        yield line((x, y), (x + 3, y), Role.KNIFE)
        yield Label((x + 12, y), marks.write_fine(mark, unit=False), size_mm)
