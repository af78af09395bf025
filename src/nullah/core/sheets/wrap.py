"""Templates to be wrapped round the end of a rail or a leg: its four sides unfolded at full size, and its end.

Cut out, folded at the arrises and taped round the piece, every line stands where it is to be knifed.
"""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from typing import NamedTuple

from nullah.core.drawing import Anchor, Element, Fill, Label, Role, drawing, line, rectangle
from nullah.core.joints.cutouts import Span
from nullah.core.joints.kinds import Mate, kinds_of
from nullah.core.joints.mate_views import shown_part
from nullah.core.plan import Plan
from nullah.core.sheets.page import A4, MARGIN, Sheet, check_scale, heading

#: A template may be so long and so high unfolded, mm: what an A4 page has room for under its check scale.
LONG, HIGH = A4[0] - 2 * MARGIN, 215.0
_TOP = 62.0


class Band(NamedTuple):
    """One side of a part, unfolded: what it is called, how high, and its waste as (along, up from its lower arris)."""

    name: str
    high: float
    waste: tuple[tuple[Span, Span], ...]


def bands_of(mate: Mate) -> tuple[Band, ...]:
    """Give the four sides of a part as they follow one another round it: face, edge, back, far edge."""
    across, through = mate.sizes.across, mate.sizes.through

    def turned(span: Span, size: Fraction) -> Span:
        return size - span[1], size - span[0]

    def side(opens: int, at: Fraction, other: int, turn: bool) -> tuple[tuple[Span, Span], ...]:
        size = mate.sizes[other]
        return tuple(
            (cut.along, turned(cut[other], size) if turn else cut[other])
            for cut in mate.cutouts if at in cut[opens]
        )  # fmt: skip

    zero = Fraction(0)
    return (
        Band("face", float(across), side(2, through, 1, turn=False)),
        Band("far edge", float(through), side(1, across, 2, turn=True)),
        Band("back", float(across), side(2, zero, 1, turn=True)),
        Band("edge", float(through), side(1, zero, 2, turn=False)),
    )


def goes_round(mate: Mate) -> bool:
    """Whether a part has something to be wrapped and is small enough for it."""
    round_it = 2 * float(mate.sizes.across + mate.sizes.through)
    shown = shown_part(mate)
    partly = any(cut.size(0) < mate.sizes.along for cut in mate.cutouts)
    return partly and round_it <= HIGH and shown.high - shown.low <= LONG


def wrap_sheets(plan: Plan) -> Iterator[Sheet]:
    """Make a template for both mates of every kind of joint that is not dovetailed, where they are small enough."""
    number = 0
    for kind in kinds_of(plan.assembly):
        for mate in (kind.first, kind.second):
            if kind.joint.tails is None and goes_round(mate):
                number += 1
                yield _sheet(plan, mate, f"{kind.name}: {mate.part.name}", f"wrap-{number}-{mate.part.id}")


def _sheet(plan: Plan, mate: Mate, title: str, name: str) -> Sheet:
    shown = shown_part(mate)
    found: list[Element] = heading(plan.project.piece.name, "Wrap-round template", "print at 100 %, check the scale")
    found += check_scale(MARGIN, 30)
    words = f"{title} · fold at the thin lines, tape it round, knife through"
    found.append(Label((MARGIN, 52), words, 3.0, Anchor.START, Role.FAINT))
    y = _TOP
    long = shown.high - shown.low
    # Round the piece: each side lies below the one before, its own upper arris shared with that.
    for band in bands_of(mate):
        found.append(rectangle(MARGIN, y, long, band.high, Role.DIMENSION))
        for along, up in band.waste:
            x0, x1 = (min(max(float(at), shown.low), shown.high) - shown.low for at in along)
            if x1 > x0:
                top = y + band.high - float(up[1])
                found.append(rectangle(MARGIN + x0, top, x1 - x0, float(up[1] - up[0]), Role.KNIFE, Fill.WASTE))
        found.append(Label((MARGIN + 2, y + 3), band.name, 2.4, Anchor.START, Role.FAINT))
        y += band.high
    ends = " and ".join(name for name, there in (("left", shown.starts), ("right", shown.ends)) if there)
    if ends:
        found.append(Label((MARGIN, y), f"its {ends} end is the part's own end", 2.4, Anchor.START, Role.FAINT,
                           nudge_mm=(0, 4)))  # fmt: skip
    for x in (MARGIN, MARGIN + long):
        found.append(line((x, _TOP - 3), (x, _TOP), Role.KNIFE))
    return Sheet(name, "Wrap-round template", drawing(found))
