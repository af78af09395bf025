"""Templates to be wrapped round a rail or a leg: its four sides unfolded at full size, with all that is cut into it.

Cut out, folded at the arrises and taped round the piece, every line stands where it is to be knifed.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from nullah.core.catalogue import N_
from nullah.core.drawing import Anchor, Element, Fill, Label, Role, drawing, line, rectangle
from nullah.core.fraction import Fraction
from nullah.core.joints.cutouts import Cutout, Sizes, Span, sizes_of, taken
from nullah.core.joints.kinds import Mate
from nullah.core.lengths import from_float
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.part import Part
from nullah.core.plan import Plan
from nullah.core.sheets.page import MARGIN, PAGE, Sheet, SheetKind, check_scale, heading
from nullah.core.wording.sheets import WRAP, page_end_words, print_note, wrap_words

#: A template may be so long and so high unfolded, mm: what a page has room for under its check scale.
LONG, HIGH = PAGE[0] - 2 * MARGIN, 215.0
_TOP = 58.0


class Band(NamedTuple):
    """One side of a part, unfolded: what it is called, how high, and its waste as (along, up from its lower arris)."""

    name: str
    high: float
    waste: tuple[tuple[Span, Span], ...]


def bands_of(mate: Mate) -> tuple[Band, ...]:
    """Return the four sides of a part as they follow one another round it: face, edge, back, far edge."""
    across, through = mate.sizes.across, mate.sizes.through

    def turned(span: Span, size: Fraction) -> Span:
        return size - span[1], size - span[0]

    def side(opens: int, at: Fraction, other: int, turn: bool) -> tuple[tuple[Span, Span], ...]:
        size = mate.sizes[other]
        return tuple(
            (cut.along, turned(cut[other], size) if turn else cut[other]) for cut in mate.cutouts if at in cut[opens]
        )

    zero = Fraction(0)
    return (
        Band(N_("face"), float(across), side(2, through, 1, turn=False)),
        Band(N_("far edge"), float(through), side(1, across, 2, turn=True)),
        Band(N_("back"), float(across), side(2, zero, 1, turn=True)),
        Band(N_("edge"), float(through), side(1, zero, 2, turn=False)),
    )


class Wrapped(NamedTuple):
    """A part with all that is cut into it, as a mate; the parts equal to it, and from where to where pages show it."""

    mate: Mate
    others: tuple[str, ...]
    pages: tuple[tuple[float, float], ...]


def wrapped_parts(plan: Plan) -> tuple[Wrapped, ...]:
    """Return every part that a template goes round, with the waste of all its joints; equal ones once."""
    alike: dict[tuple[Sizes, frozenset[Cutout]], list[Part]] = {}
    for part_id, cuts in _cut_into(plan).items():
        part = plan.part(part_id)
        if part is not None and goes_round(sizes_of(part), cuts):
            alike.setdefault((sizes_of(part), frozenset(cuts)), []).append(part)
    found = []
    for (sizes, taken_out), parts in alike.items():
        mate = Mate(parts[0], sizes, tuple(sorted(taken_out)))
        found.append(Wrapped(mate, tuple(part.name for part in parts[1:]), tuple(_stretches(mate))))
    return tuple(found)


def _cut_into(plan: Plan) -> dict[str, list[Cutout]]:
    """Return all that joints take out of every part."""
    found: dict[str, list[Cutout]] = {}
    for joint in plan.assembly.joints:
        first, second = plan.part(joint.first), plan.part(joint.second)
        if first is not None and second is not None:
            for part, cuts in zip((first, second), taken(joint, first, second), strict=True):
                found.setdefault(part.id, []).extend(cuts)
    return found


def goes_round(sizes: Sizes, cuts: Iterable[Cutout]) -> bool:
    """Whether a part has something to be wrapped and is small enough for it."""
    partly = any(cut.size(0) < sizes.along for cut in cuts)
    return partly and 2 * float(sizes.across + sizes.through) <= HIGH


def _stretches(mate: Mate) -> Iterator[tuple[float, float]]:
    """Yield the stretches of a part that have waste on them, each as long as a page at the most, from its ends in."""
    long = float(mate.sizes.along)
    low = 0.0
    while low < long - 1e-6:
        high = min(low + LONG, long)
        if any(float(cut.along[0]) < high and float(cut.along[1]) > low for cut in mate.cutouts):
            yield low, high
        low = high


def wrap_sheets(plan: Plan) -> Iterator[Sheet]:
    """Make a template for every part that is small enough for one, with all its joints, over as many pages as due."""
    for number, wrapped in enumerate(wrapped_parts(plan), start=1):
        for page, stretch in enumerate(wrapped.pages, start=1):
            suffix = f"-page{page}" if len(wrapped.pages) > 1 else ""
            yield _sheet(plan, wrapped, stretch, f"wrap-{number}-{wrapped.mate.part.id}{suffix}")


def _sheet(plan: Plan, wrapped: Wrapped, stretch: tuple[float, float], name: str) -> Sheet:
    mate, (low, high) = wrapped.mate, stretch
    found: list[Element] = heading(plan.project.piece.name, plan.reader.text(WRAP), print_note(plan.reader))
    found += check_scale(MARGIN, 30)
    words = wrap_words(mate.part.name, wrapped.others, plan.reader)
    found.append(Label((MARGIN, 52), words, 3.0, Anchor.START, Role.FAINT))
    y = _TOP
    # Round the piece: each side lies below the one before, its own upper arris shared with that.
    for band in bands_of(mate):
        found.append(rectangle(MARGIN, y, high - low, band.high, Role.DIMENSION))
        for along, up in band.waste:
            x0, x1 = (min(max(float(at), low), high) - low for at in along)
            if x1 > x0:
                top = y + band.high - float(up[1])
                found.append(rectangle(MARGIN + x0, top, x1 - x0, float(up[1] - up[0]), Role.KNIFE, Fill.WASTE))
        found.append(Label((MARGIN + 2, y + 3), plan.reader.text(band.name), 2.4, Anchor.START, Role.FAINT))
        y += band.high
    long = float(mate.sizes.along)
    for x, at, own, end in ((MARGIN, low, low == 0, "left"), (MARGIN + high - low, high, high == long, "right")):
        found.append(line((x, _TOP - 3), (x, _TOP), Role.KNIFE))
        words = page_end_words(from_float(at), own, end == "left", plan.reader)
        anchor = Anchor.START if end == "left" else Anchor.END
        found.append(Label((x, y), words, 2.4, anchor, Role.FAINT, nudge_mm=(0, 4 if end == "left" else 7)))
        if not own:
            # Where a template goes on, its pages are joined at the crosses.
            found += [line((x - 3, level), (x + 3, level), Role.KNIFE) for level in (_TOP, y)]
    return Sheet(name, plan.reader.text("Wrap-round template"), drawing(found), SheetKind.TEMPLATE, mate.part.name)
