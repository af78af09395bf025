"""Piece: what is to be made, in three views with its dimensions, and whether it goes together."""

from __future__ import annotations

import math
from collections.abc import Iterator

from nullah.core.card import Card, Numbered, Remark, Setting, Severity
from nullah.core.drawing import Dimension, Drawing, Element, Label, Path, Point, Role, drawing
from nullah.core.fixes import SetOutTo
from nullah.core.identity import IdentityKey, RecentResults
from nullah.core.piece.facts import Clamps, GlueInSections, GluesTooLong, SetOutElsewhere
from nullah.core.piece.form import View, ViewDimension
from nullah.core.piece.part import Part
from nullah.core.piece.sight import ViewPlane, flat_box, hidden, painted, placed, plane_of, seen
from nullah.core.piece.space import Box
from nullah.core.plan import PartState, Plan, Stand
from nullah.core.reader import sentence
from nullah.core.refs import QuantityRef
from nullah.core.stations.selection import Selection
from nullah.core.wording.ledger import hanging_words
from nullah.core.wording.ledger import why as why_quantity
from nullah.core.wording.piece_card import (
    CANNOT_BE,
    NONE_YET,
    counted_words,
    measure_first,
    moves_remark,
    nothing_yet,
    sizes_left_out,
    spare_words,
    to_measure_words,
    to_mend_words,
    verdict,
    waiting_words,
)
from nullah.core.wording.plan import state_words
from nullah.core.work.clamping import staves_glue_ups
from nullah.core.work.seasons import part_movement

#: What is undone is drawn at once, and what leaves the piece alone draws nothing anew.
_DRAWN: RecentResults[Drawing] = RecentResults(4)


def draw(plan: Plan, selection: Selection) -> Drawing:
    """Return the drawing on the bench."""
    if plan.ledger is None or not plan.parts:
        return Drawing()
    known = _DRAWN.found(_views_key(plan))
    if known is None:
        known = views(plan)
        keep_views(plan, known)
    return known


def keep_views(plan: Plan, drawn: Drawing) -> None:
    """Keep how a plan is drawn, here or in another process."""
    _DRAWN.keep(_views_key(plan), drawn)


def _views_key(plan: Plan) -> tuple[object, ...]:
    """Return all that the three views of a piece hang on."""
    woods = tuple(plan.species_of(part) for part in plan.parts)
    # Nails and screws are not seen on the views: they are not worked out to draw them.
    return plan.unfastened, plan.ledger, IdentityKey(plan.proof), plan.marks, woods, plan.form.id


def views(plan: Plan) -> Drawing:
    """Draw the three views of a piece."""
    planes = planes_of(plan)
    places = places_of(plan, planes)
    return drawing(*(_view(plan, placed(plane, places[view])) for view, plane in planes.items()))


def planes_of(plan: Plan) -> dict[View, ViewPlane]:
    """Return the three planes the piece is drawn on; boards of one's own alone are not cut across."""
    cut_across = plan.form.id != "own"
    return {view: plane_of(plan.parts, view, cut_across) for view in View}


def plane_at(plan: Plan, point: Point) -> tuple[ViewPlane, Point] | None:
    """Return the view that a point of the drawing lies on or nearest to, and the place there; None without one."""
    if not plan.parts:
        return None
    planes = planes_of(plan)
    places = places_of(plan, planes)

    def beside(view: View) -> float:
        (wide, high), (x, y) = planes[view].size, places[view]
        across = max(x - point[0], 0.0, point[0] - x - wide)
        return across + max(y - point[1], 0.0, point[1] - y - high)

    view = min(View, key=beside)
    return planes[view], point_on(plan, view, point)


def point_on(plan: Plan, view: View, point: Point) -> Point:
    """Return a point of the drawing in the measure of one view, though it may lie beside it."""
    x, y = places_of(plan, planes_of(plan))[view]
    return point[0] - x, point[1] - y


def flat_at(plan: Plan, view: View, box: Box) -> tuple[Point, Point]:
    """Return the upper left and lower right corner of a box on the drawing of all three views."""
    planes = planes_of(plan)
    x, y = places_of(plan, planes)[view]
    (left, top), (right, bottom) = flat_box(planes[view], box)
    return (left + x, top + y), (right + x, bottom + y)


#: So wide all views may be shown at the least, and a title with the air round it is so high, paper mm.
_NARROWEST, _TITLE = 82.0, 6.0
#: Half of how high a figure is on a dimension, paper mm.
_FIGURE = 2.0


def places_of(plan: Plan, planes: dict[View, ViewPlane]) -> dict[View, tuple[float, float]]:
    """Return where each view stands on the bench: above, under it the front, to the right of that the section."""
    (long, deep), (_, high) = planes[View.ABOVE].size, planes[View.FRONT].size
    # Room for the title of the upper view and the dimensions over the lower, whatever the scale comes to.
    measures = plan.unfastened.measures
    over = (each.offset + _FIGURE for each in measures if each.view is View.FRONT and each.start[0] != each.end[0])
    needed = _below([each for each in measures if each.view is View.ABOVE]) + _TITLE + max((0.0, *over))
    gap = max(0.16 * (long + deep) + 26, (long + deep) * needed / (_NARROWEST - needed), 0.24 * (deep + high))
    if high > 1.2 * deep + gap:
        # A tall piece: the section beside the front, the view from above beyond it.
        return {View.FRONT: (0.0, 0.0), View.SECTION: (long + gap, 0.0), View.ABOVE: (long + deep + 2 * gap, 0.0)}
    return {View.ABOVE: (0.0, 0.0), View.FRONT: (0.0, deep + gap), View.SECTION: (long + gap, deep + gap)}


def _view(plan: Plan, plane: ViewPlane) -> Iterator[Element]:
    """Draw one view: what is seen, dashed what is hidden, what is wrong, the dimensions."""
    recipes = plan.proof.recipes if plan.proof is not None else None
    faces = seen(plane, plan.parts, recipes)
    yield from painted(faces, plan.species_of)
    moving = {mover.group for mover in plan.unfastened.movers}
    still = [part for part in plan.parts if part.group not in moving] if plane.view is View.FRONT else plan.parts
    yield from hidden(plane, still, faces)
    yield from _wrong(plan, plane)
    (wide, high), (x, y) = plane.size, plane.at
    measures = [measure for measure in plan.unfastened.measures if measure.view is plane.view]
    under, title = (x + wide / 2, y + high), plan.reader.text(plane.title)
    yield Label(under, title, 3.0, role=Role.FAINT, nudge_mm=(0, _below(measures)))
    for measure in measures:
        yield _dimension(plan, plane, measure)


def _below(measures: list[ViewDimension]) -> float:
    """Return how far under a view its title stands, paper mm: below the dimensions there."""
    return max((9.5 - measure.offset for measure in measures if measure.offset < 0), default=6.0)


def _wrong(plan: Plan, plane: ViewPlane) -> Iterator[Element]:
    """Mark where something is wrong: a frame round the place, numbered as on the card."""
    number = 0
    for finding in plan.findings:
        if finding.remark.weight is not Severity.FAILURE:
            continue
        number += 1
        if finding.place is None:
            continue
        (left, top), (right, bottom) = flat_box(plane, finding.place)
        corners = ((left, top), (right, top), (right, bottom), (left, bottom))
        yield Path(corners, Role.WARN, closed=True)
        yield Label((right, top), f"▲{number}", 3.4, role=Role.WARN, bold=True, nudge_mm=(3, -2))


def _dimension(plan: Plan, plane: ViewPlane, measure: ViewDimension) -> Dimension:
    text, state = "", ""
    if plan.ledger is not None:
        quantity = plan.ledger.quantity(measure.quantity)
        text, state = quantity.write(plan.marks, unit=False), quantity.origin.value
    start = plane.flat(float(c) for c in measure.start)
    end = plane.flat(float(c) for c in measure.end)
    return Dimension(start, end, text, measure.offset, state, ref=QuantityRef(measure.quantity))


# --- the card -------------------------------------------------------------------------------------


def card(plan: Plan, selection: Selection) -> Card:
    """Return what is carried away."""
    settings = [_verdict(plan), *_sizes(plan, selection), *to_measure(plan)] if plan.parts else []
    return Card(
        plan.reader.text(plan.form.title),
        tuple(settings),
        _marks(plan),
        _remarks(plan, selection),
        why(plan, selection),
    )


def _verdict(plan: Plan) -> Setting:
    """Return first whether it goes together."""
    counted = counted_words(len(plan.parts), len(plan.assembly.joints), plan.reader)
    warned = sum(finding.remark.weight is Severity.WARNING for finding in plan.findings)
    known = plan.failing or plan.proof is not None
    return verdict(counted, plan.failing if known else None, warned, plan.reader)


def _sizes(plan: Plan, selection: Selection) -> Iterator[Setting]:
    """Yield the sizes of the part in hand, then of what is no drawer or lid; the cut list has them all."""
    in_hand = plan.part(selection.part)
    moving = {mover.group for mover in plan.assembly.movers}
    ordered = ([in_hand] if in_hand is not None else []) + [p for p in plan.parts if p is not in_hand]
    told: set[str] = set()
    left_out = 0
    for part in ordered:
        if part.alike in told:
            continue
        told.add(part.alike)
        if part.group in moving and part is not in_hand and (in_hand is None or part.group != in_hand.group):
            left_out += 1
        else:
            yield _size_setting(plan, part)
    if left_out:
        yield sizes_left_out(left_out, plan.reader)


def _remarks(plan: Plan, selection: Selection) -> tuple[Remark, ...]:
    if plan.problem:
        return (Remark(plan.problem, Severity.FAILURE),)
    remarks = _numbered(plan)
    if not plan.parts:
        return (*remarks, *(() if remarks else (nothing_yet(plan.reader),)))
    return (*remarks, *_set_out_elsewhere(plan), *_glued_up(plan), *_movement(plan, selection))


def _glued_up(plan: Plan) -> Iterator[Remark]:
    """Say how what is made of staves is glued up: the clamps, and whether it is too much for one go."""
    for made in staves_glue_ups(plan):
        goes = len(made.goes)
        parted = GlueInSections(made.number, goes, made.clamps, made.apart)
        yield Remark(parted if goes > 1 else Clamps(made.clamps, made.apart))
        if made.too_long:
            takes = GluesTooLong(made.part, math.ceil(made.minutes), math.floor(made.open_minutes))
            yield Remark(takes, Severity.WARNING)


def _set_out_elsewhere(plan: Plan) -> Iterator[Remark]:
    """Say that the sizes stand on marks which the rule shown does not have, and offer to put them on those."""
    mark, shown = plan.project.set_out_mark, plan.marks.smallest
    if mark.mm % shown.mm:
        yield Remark(SetOutElsewhere(mark), fixes=(SetOutTo(shown),))


def _numbered(plan: Plan) -> list[Remark]:
    """Return all remarks; those the drawing marks carry their number."""
    failing = [finding.remark for finding in plan.findings if finding.remark.weight is Severity.FAILURE]
    numbers = {id(remark): number for number, remark in enumerate(failing, start=1)}
    return [
        remark._replace(fact=Numbered(numbers[id(remark)], remark.fact)) if id(remark) in numbers else remark
        for remark in plan.remarks
    ]


def _size_setting(plan: Plan, part: Part) -> Setting:
    title = sentence(plan.reader.name_together([p.name for p in plan.parts if p.alike == part.alike]))
    write = plan.marks.write
    figure = f"{write(part.cut_length, unit=False)} × {write(part.width, unit=False)} × {write(part.thickness)}"
    if plan.waiting(part):
        # A size that must not be cut to is never the figure one carries away.
        return Setting(
            title,
            state_words(PartState(Stand.WAITS, over=plan.left_over(part)), plan.reader),
            measure_first(figure, plan.reader),
            ref=QuantityRef(part.quantities[0]),
        )
    note = spare_words(part.length, plan.reader) if part.spare else ""
    return Setting(title, figure, note, ref=QuantityRef(part.quantities[0]))


def _marks(plan: Plan) -> tuple[str, ...]:
    waiting = list(dict.fromkeys(part.alike for part in plan.parts if plan.waiting(part)))
    if not waiting or plan.ledger is None:
        return ()
    parts = {part.alike: part for part in reversed(plan.parts)}
    first = parts[waiting[0]]
    titles = [plan.reader.title(name) for name in plan.waiting(first)]
    return waiting_words(first.name, titles, [parts[alike].name for alike in waiting[1:]], plan.reader)


def to_measure(plan: Plan) -> tuple[Setting, ...]:
    """Return what must be measured before something may be cut, each to be clicked and entered."""
    ledger = plan.ledger
    if ledger is None:
        return ()
    names = dict.fromkeys(name for part in plan.parts for name in plan.waiting(part))
    return tuple(
        Setting(
            *to_measure_words(plan.reader.title(name), ledger.quantity(name).write(plan.marks), plan.reader),
            ref=QuantityRef(name),
        )
        for name in names
    )


def _movement(plan: Plan, selection: Selection) -> tuple[Remark, ...]:
    """Say how much the part in hand moves over the year, and what room it has."""
    part = plan.part(selection.part)
    moved = part_movement(plan, selection.part)
    if moved is None or part is None:
        return ()
    change = moved[0]
    freedom = next((f for f in plan.assembly.freedoms if part.id in f.parts), None)
    if freedom is None or len(freedom.parts) > 1:
        return (moves_remark(part.id, change, None, plan.reader),)
    if change.mm > freedom.room:
        return ()  # the proof says so, with its mend
    return (moves_remark(part.id, change, type(change)(freedom.room), plan.reader),)


def why(plan: Plan, selection: Selection) -> tuple[str, ...]:
    """Say where the figure pointed at comes from, and what hangs on it."""
    if plan.ledger is None or selection.quantity not in plan.ledger.quantities:
        return ()
    lines = why_quantity(plan.ledger, selection.quantity, plan.reader)
    hangs = plan.ledger.hangs_on(selection.quantity)
    return (*lines, hanging_words(hangs, plan.reader)) if hangs else lines


def state(plan: Plan) -> str:
    """Return a few words for the rod."""
    if plan.problem or not plan.parts:
        return plan.reader.text(CANNOT_BE if plan.problem or plan.assembly.remarks else NONE_YET)
    if plan.failing:
        return to_mend_words(plan.failing, plan.reader)
    write = plan.marks.write
    if plan.ledger is not None and all(name in plan.ledger.quantities for name in plan.form.size):
        sizes = [plan.ledger.length(name) for name in plan.form.size]
    else:
        room = plane_of(plan.parts, View.ABOVE).room
        sizes = [type(plan.parts[0].length)(high - low) for low, high in zip(room.low, room.high, strict=True)]
    return " × ".join(write(size, unit=size is sizes[-1]) for size in sizes)
