"""The steps of a joint one by one: each with its picture, what to check, and which lines are needed later."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from nullah.core.card import Card, JointStage, Remark, Step, lines_to_keep
from nullah.core.drawing import Anchor, Dimension, Drawing, Element, Fill, Label, Path, Role, drawing
from nullah.core.joints import views
from nullah.core.joints.dovetail.corners import Corner
from nullah.core.joints.kinds import JointGroup
from nullah.core.operations.operation import Operation
from nullah.core.piece.frames import frames_of
from nullah.core.plan import Plan
from nullah.core.reader import Reader
from nullah.core.stations.operation_picture import draw_part, room_above
from nullah.core.wording.joint_steps import check_words, lines_kept_words, overshoot_words, seen_words, step_title
from nullah.core.wording.operations import operation_settings, step_words
from nullah.core.wording.piece import group_words
from nullah.core.work.joint_work import JointWork

#: Between two mates as they are drawn, mm.
_BESIDE = 60.0
#: What of a layout can be seen so far, by role; the waste follows rules of its own.
_SEEN = {
    Role.GAUGE: {JointStage.GAUGED, JointStage.MARKED, JointStage.HATCHED, JointStage.SAWN},
    Role.KNIFE: {JointStage.MARKED, JointStage.HATCHED, JointStage.SAWN},
    Role.HIDDEN: {JointStage.HATCHED, JointStage.SAWN, JointStage.CUT, JointStage.TRIED},
}
_ORDER = list(JointStage)


def stage_before(steps: tuple[Step, ...], number: int, mate: str) -> JointStage:
    """Return how far a mate is once the steps up to a number (from 0) are done."""
    stage = JointStage.BLANK
    for step in steps[: number + 1]:
        if step.at in (mate, "both"):
            stage = step.stage
    return stage


def draw_step(plan: Plan, work: JointWork, number: int, titled: bool = True) -> Drawing:
    """Draw both mates while a step (from 0) is done; what it is done to comes first and is named."""
    if not work.steps:
        return Drawing()
    number = min(max(number, 0), len(work.steps) - 1)
    step = work.steps[number]
    if work.corner is not None:
        shown = _corner(plan, work.corner, [stage_before(work.steps, number, mate) for mate in ("first", "second")])
    else:
        done = [each for before in work.steps[:number] for each in before.operations]
        shown = draw_mates_at(plan, work, step.operations, done)
    if not titled:
        return shown
    title = plan.reader.text(
        "Step {number} of {count}: {what}",
        number=number + 1,
        count=len(work.steps),
        what=_what(work.kind, step, plan.reader),
    )
    left, top = shown.bounds()[:2]
    above = -room_above(shown) - 9
    return shown + drawing(Label((left, top), title, 3.8, Anchor.START, bold=True, nudge_mm=(0, above)))


def draw_mates_at(plan: Plan, work: JointWork, now: Sequence[Operation], done: Sequence[Operation] = ()) -> Drawing:
    """Draw both mates of a joint with what is done to them now hatched, and what was done before gone."""
    frames, shown, x = frames_of(plan.assembly), Drawing(), 0.0
    for mate in (work.kind.first, work.kind.second):
        part = mate.part
        every, here, before = ([each for each in some if each.part == part.id] for some in (_every(work), now, done))
        picture = draw_part(frames[part.id].stock, every, here, before, plan.reader, plan.species_of(part))
        name = Label((0, 0), part.name, 3.0, Anchor.START, Role.FAINT, nudge_mm=(0, -room_above(picture) - 3))
        shown += (picture + drawing(name)).moved(x, 0)
        x += picture.bounds()[2] - picture.bounds()[0] + _BESIDE
    return shown


def _every(work: JointWork) -> list[Operation]:
    return [each for step in work.steps for each in step.operations]


def _what(kind: JointGroup, step: Step, reader: Reader) -> str:
    names = {"first": kind.first.part.name, "second": kind.second.part.name}
    who = names[step.at] if step.at in names else reader.listed(names.values())
    return f"{who}, {reader.text(step.stage.value)}"


def _corner(plan: Plan, corner: Corner, stages: list[JointStage]) -> Drawing:
    tail, pin = plan.part(corner.tail_boards[0]), plan.part(corner.pin_boards[0])
    if tail is None or pin is None:
        return Drawing()
    layout = corner.layout
    show = max(60.0, 3.2 * float(layout.gauge_tail_board))
    levels = corner.groove[:2] if corner.groove else ()
    height, thick = float(layout.spec.width), float(layout.spec.pin_thickness)
    face = views.tail_board_face(layout, show, levels, plan.species_of(tail), tail.id)
    end = views.pin_board_end(layout, plan.species_of(pin), pin.id)
    inside = views.pin_board_face(layout, show, levels, plan.species_of(pin), pin.id)
    shown = drawing(_at_stage(face, stages[0]))
    if stages[0] in (JointStage.MARKED, JointStage.HATCHED):
        shown += drawing(views.divider_pricks(layout, overshoot_words(layout.spec, plan.reader)))
    gap = 0.25 * height + 30
    shown += drawing(_at_stage(end, stages[1])).moved(gap, 0)
    shown += drawing(_at_stage(inside, stages[1])).moved(gap + thick + 20, 0)
    words = [
        Label(
            (-show, height), seen_words(tail.name, False, plan.reader), 3.0, Anchor.START, Role.FAINT, nudge_mm=(0, 5)
        ),
        Label((gap, height), seen_words(pin.name, True, plan.reader), 3.0, Anchor.START, Role.FAINT, nudge_mm=(0, 5)),
    ]
    return shown + drawing(words)


def _at_stage(elements: Iterator[Element], stage: JointStage) -> Iterator[Element]:
    """Show of a layout what is there at a stage."""
    for element in elements:
        if isinstance(element, Dimension):
            if stage in (JointStage.GAUGED, JointStage.MARKED):
                yield element
        elif isinstance(element, Path) and element.fill is Fill.WASTE:
            yield from _waste(element, stage)
        elif not isinstance(element, Path) or stage in _SEEN.get(element.role, _ORDER):
            yield element


def _waste(waste: Path, stage: JointStage) -> Iterator[Element]:
    """Show waste as lines, hatched, sawn along its sides, or gone."""
    if stage is JointStage.MARKED:
        yield waste._replace(fill=Fill.NONE)
    elif stage is JointStage.HATCHED:
        yield waste
    elif stage is JointStage.SAWN:
        yield waste._replace(role=Role.CHALK)
    elif stage in (JointStage.CUT, JointStage.TRIED):
        yield waste._replace(role=Role.OUTLINE, fill=Fill.PAPER)


def step_card(plan: Plan, work: JointWork, number: int) -> Card:
    """Return one step to carry away: its settings, itself, what to check, which lines must survive, and its caution."""
    if not work.steps:
        return Card(group_words(work.kind, plan.reader))
    number = min(max(number, 0), len(work.steps) - 1)
    step = work.steps[number]
    kept = [(line, last + 1) for line, last in lines_to_keep(work.steps, number)]
    mind = [Remark(check_words(step.check, plan.reader))] if step.check else []
    if kept:
        mind.append(Remark(lines_kept_words(kept, plan.reader)))
    if step.care:
        mind.append(Remark(plan.reader.text(step.care)))
    used = operation_settings(step.operations, plan.reader)
    title = step_title(number + 1, len(work.steps), plan.reader)
    return Card(title, used, (step_words(step, plan.reader),), tuple(mind))
