"""Joints: every kind of joint of the piece laid out on both its mates, with the settings to take to the bench."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Card, Remark, Severity
from nullah.core.drawing import Anchor, Drawing, Label, drawing
from nullah.core.joints.kinds import JointGroup, kinds_of
from nullah.core.joints.mate_views import Named, extent_of, mate_views
from nullah.core.joints.types import cautions_of, holes_of
from nullah.core.plan import Plan, corner_problem
from nullah.core.reader import sentence
from nullah.core.refs import quantity_ref
from nullah.core.season.facts import RoomInYear
from nullah.core.season.fits import Verdict
from nullah.core.stations.corners import corner_card, draw_corner
from nullah.core.stations.joint_steps import draw_mates_at, draw_step, step_card
from nullah.core.stations.operation_picture import room_above
from nullah.core.stations.piece import why
from nullah.core.stations.selected_joint import selected_kind
from nullah.core.stations.selection import Selection
from nullah.core.wording.corners import cannot_be_made, no_joints, tails_words, to_opening_remark
from nullah.core.wording.fastening import fastening_settings
from nullah.core.wording.operations import operation_settings, step_words
from nullah.core.wording.piece import group_words, kinds_words
from nullah.core.work.joint_work import at_bench, corner_of_kind, joint_work, told_wrongly
from nullah.core.work.seasons import season_of


def draw(plan: Plan, selection: Selection) -> Drawing:
    """Return the drawing on the bench."""
    kind, step = selected_kind(plan, selection), selection.joints.step
    if kind is not None and step is not None and (work := joint_work(plan, kind)).steps:
        return draw_step(plan, work, step)
    if kind is None or kind.corner_prefix:
        return draw_corner(plan, selection, corner_of_kind(plan, kind))
    return draw_mates(plan, kind)


def draw_mates(plan: Plan, kind: JointGroup, titled: bool = True) -> Drawing:
    """Draw both mates of a joint, the one that is cut into at the left."""
    shape = kind.joint.type
    if not (shape.in_boxes or shape.touches or shape.slanted):
        work = joint_work(plan, kind)
        shown = draw_mates_at(plan, work, [each for step in work.steps for each in step.operations])
        name = group_words(kind, plan.reader)
        title = Label((0, 0), name, 3.6, Anchor.START, bold=True, nudge_mm=(0, -room_above(shown) - 9))
        return shown + drawing([title] if titled else [])
    through, places = holes_of(at_bench(plan, kind))
    found = {mate.part.id: places if mate.part.id == through else () for mate in (kind.first, kind.second)}
    one, two = kind.first.part, kind.second.part
    first = drawing(mate_views(kind.first, plan.species_of(one), plan.marks, _named(kind), found[one.id]))
    second = drawing(mate_views(kind.second, plan.species_of(two), plan.marks, holes=found[two.id]))
    beside = extent_of(kind.first)[0] + 70
    title = Label((0, 0), group_words(kind, plan.reader), 3.6, Anchor.START, bold=True, nudge_mm=(0, -27))
    return first + second.moved(beside, 0) + drawing([title] if titled else [])


def _named(kind: JointGroup) -> Named:
    """Say which figures of the ledger are measured on the mate that is cut into."""
    names = kind.joint.names
    if not kind.first.cutouts:
        return Named()
    cut = kind.first.cutouts[0]
    if cut.size(0) <= cut.size(1):
        return Named(along=names.width, through=names.depth)
    return Named(across=names.width, through=names.depth)


def card(plan: Plan, selection: Selection) -> Card:
    """Return what is carried away."""
    kind, step = selected_kind(plan, selection), selection.joints.step
    if kind is None:
        dovetailed = not plan.parts
        return Card(
            plan.reader.text("Joints"),
            mind=(Remark(corner_problem(plan), Severity.FAILURE if dovetailed else Severity.NOTE),),
        )
    if step is not None and (work := joint_work(plan, kind)).steps:
        return step_card(plan, work, step)
    if kind.corner_prefix:
        return corner_card(plan, selection, corner_of_kind(plan, kind))
    return joint_card(plan, kind, why(plan, selection))


def joint_card(plan: Plan, kind: JointGroup, asked: tuple[str, ...] = ()) -> Card:
    """Return what to set, do and mind at a joint that is no dovetail; `asked` is why a figure is what it is."""
    title = sentence(plan.reader.text(kind.name))
    made = joint_work(plan, kind)
    operations = [each for step in made.steps for each in step.operations]
    remarks = (
        *told_wrongly(plan, operations),
        *cautions_of(at_bench(plan, kind)),
        *_season_room(plan, kind),
        *_by_hand(plan, kind),
        *(Remark(plan.reader.text(care)) for care in dict.fromkeys(step.care for step in made.steps) if care),
    )
    row = () if made.row is None else fastening_settings(made.row, plan.reader)
    settings = (*row, *operation_settings(operations, plan.reader))
    return Card(title, settings, tuple(step_words(step, plan.reader) for step in made.steps), remarks, asked)


def _season_room(plan: Plan, kind: JointGroup) -> Iterator[Remark]:
    """Say what room what enters a joint has through the year, where it is free to move in it."""
    if kind.joint.hold.rigid:
        return
    fit = season_of(plan).fit_of(kind.second.part.id)
    if fit is None or max(fit.rooms) - min(fit.rooms) < 0.05:
        return
    weight = Severity.NOTE if fit.verdict in (Verdict.FITS, Verdict.RATTLES) else Severity.WARNING
    yield Remark(RoomInYear(fit), weight, ref=quantity_ref(fit.quantity))


def _by_hand(plan: Plan, kind: JointGroup) -> Iterator[Remark]:
    """Say what it is worth to cut what enters to the opening that is there; once the numerical libraries are."""
    if plan.milling is None or not kind.joint.type.captures:
        return
    from nullah.core.joints.tolerance import opening

    size = max(float(kind.second.sizes.across), float(kind.second.sizes.along))
    found = opening(size, plan.project.shop.hands, trials=2000)
    if found.far_better:
        yield to_opening_remark(kind.second.part.name, found.traced.good, found.drawing.good, plan.reader)


def state(plan: Plan) -> str:
    """Return a few words for the rod."""
    if any(remark.weight is Severity.FAILURE for corner in plan.corners for remark in corner.remarks):
        return cannot_be_made(plan.reader)
    found = kinds_of(plan.assembly)
    if not found:
        return no_joints(bool(plan.parts), plan.reader)
    if len(plan.corners) == 1 and plan.corner is not None:
        return tails_words(plan.corner.layout.spec, plan.reader)
    return kinds_words(len(found), plan.reader)
