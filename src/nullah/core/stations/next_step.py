"""One task at the bench: its picture, its settings, what to do, what to check and measure, and its caution."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.bench.task_facts import ComesOutThin, GlueTakesTooLong, MindAtTask, NoGlueOn, TooFewClamps
from nullah.core.bench.tasks import JointStep, Task
from nullah.core.bench.trades import Trade
from nullah.core.card import Card, Remark, Setting, Severity
from nullah.core.drawing import (
    Anchor,
    Dimension,
    Drawing,
    Element,
    Fill,
    Label,
    Role,
    drawing,
    grain_lines,
    rectangle,
    wrapped,
)
from nullah.core.joints.kinds import JointGroup
from nullah.core.piece.joint import Hold
from nullah.core.piece.part import Part
from nullah.core.plan import LeftOver, PartState, Plan, Stand
from nullah.core.reader import sentence
from nullah.core.refs import BoardRef, PartRef, QuantityRef
from nullah.core.stations.breakdown import draw_one_board
from nullah.core.stations.joint_steps import draw_step, step_card
from nullah.core.stations.operation_picture import draw_operations, room_above
from nullah.core.stations.piece import draw as draw_piece
from nullah.core.stations.selection import Selection
from nullah.core.wording.glue_up import steadied_words
from nullah.core.wording.operations import alike_operations, operation_settings, operation_words
from nullah.core.wording.plan import state_words
from nullah.core.wording.task_titles import task_title
from nullah.core.wording.tasks import (
    again_words,
    find_wood_words,
    gluing_settings,
    idle_words,
    measuring_steps,
    progress_words,
    rough_setting,
    sawing_settings,
    task_cautions,
    usual_steps,
)
from nullah.core.work.day_book import WorkState
from nullah.core.work.joint_work import JointWork, joint_work, kinds_at_work
from nullah.core.work.stock_tasks import waits_of

#: So many letters of a title have room above its picture; the card has all of it.
_ON_BENCH = 44


def _work_of(plan: Plan, task: Task) -> tuple[JointWork, int] | None:
    """Return the work on a joint that a task is a step of, and which step (from 0); it does what the task does."""
    joint = joint_of(plan, task)
    if joint is None:
        return None
    (_kind, number), work = joint, joint_work(plan, joint[0])
    if not task.operations:
        return work, number
    step = work.steps[number]._replace(operations=task.operations)
    return work._replace(steps=(*work.steps[:number], step, *work.steps[number + 1 :])), number


def joint_of(plan: Plan, task: Task) -> tuple[JointGroup, int] | None:
    """Return the kind of joint a task is a step of, and which step (from 0)."""
    if not isinstance(task.subject, JointStep):
        return None
    step = task.subject
    kind = next((each for each in kinds_at_work(plan) if each.id == step.kind), None)
    return (kind, step.number) if kind is not None else None


# --- the picture ----------------------------------------------------------------------------------


def draw_task(plan: Plan, task: Task) -> Drawing:
    """Draw what a task is about."""
    joint = _work_of(plan, task)
    if joint is not None:
        return draw_step(plan, *joint, titled=False)
    # Sawing out is drawn on the board, milling as the sizes it comes to.
    if task.operations and task.trade not in (Trade.SAW, Trade.MILL):
        first = plan.part(task.operations[0].part)
        return draw_operations(task.operations, plan.reader, plan.species_of(first) if first is not None else "")
    match task.subject:
        case BoardRef(name) if board := next((each for each in plan.boards if each.board.id == name), None):
            return draw_one_board(plan, board)
        case PartRef(name) if (part := plan.part(name)) is not None:
            return drawing(_sizes(plan, part, waits=task.trade is Trade.MILL))
    return draw_piece(plan, Selection())


def _sizes(plan: Plan, part: Part, waits: bool) -> Iterator[Element]:
    """Draw a part's face and its edge with the sizes it gets now; what waits is told to be left over."""
    long, wide, thick = float(part.cut_length), float(part.width), float(part.thickness)
    over = plan.left_over(part) if waits else LeftOver()
    species = plan.species_of(part)
    yield rectangle(0, 0, long, wide, fill=Fill.WOOD, species=species, ref=PartRef(part.id))
    yield from grain_lines(0, 0, long, wide, part.name, ref=PartRef(part.id))
    yield rectangle(0, wide + 24, long, thick, fill=Fill.WOOD, species=species, ref=PartRef(part.id))
    write = plan.marks.write
    sides = (
        ((0, 0), (long, 0), part.cut_length, LeftOver(long=over.long)),
        ((0, wide), (0, 0), part.width, LeftOver(wide=over.wide)),
        ((0, wide + 24 + thick), (0, wide + 24), part.thickness, LeftOver(thick=over.thick)),
    )
    for start, end, size, left in sides:
        told = write(size)
        if any(left):
            state = state_words(PartState(Stand.WAITS, over=left), plan.reader)
            told = plan.reader.text("{state}: planned {figure}", state=state, figure=told)
        yield Dimension(start, end, told, 7)
    yield Label((long / 2, wide / 2), part.name, 3.6, bold=True, ref=PartRef(part.id))
    yield Label((long / 2, wide), plan.reader.text("∨ face edge"), 2.8, role=Role.PENCIL, nudge_mm=(0, 3))


def draw_next(plan: Plan, stand: WorkState, task: Task | None) -> Drawing:
    """Draw the next task, its title large above its picture."""
    if task is None:
        idle = idle_words(stand, plan.project.piece.name, plan.reader)
        return drawing([Label((0, 0), idle, 5.0, Anchor.MIDDLE, bold=True)])
    shown = draw_task(plan, task)
    left, top, right, _ = shown.bounds() if shown.elements else (0.0, 0.0, 100.0, 0.0)
    told = progress_words(stand, task, plan.reader)
    # Above the names of mates and their measures, which stand over a joint.
    up = -36 if joint_of(plan, task) is not None else -22 - room_above(shown)
    titles = wrapped(task_title(task, plan.reader), _ON_BENCH)
    words = [
        *(
            Label(
                (left, top),
                text,
                5.2,
                Anchor.START,
                bold=True,
                nudge_mm=(0, up - 7.2 * (len(titles) - 1 - number)),
                running=True,
            )
            for number, text in enumerate(titles)
        ),
        Label((left, top), told, 3.2, Anchor.START, Role.FAINT, nudge_mm=(0, up + 7), running=True),
    ]
    again = stand.progress.again.get(task.id)
    if again:
        words.append(
            Label((right, top), again_words(again, plan.reader), 3.2, Anchor.END, Role.FLAW, nudge_mm=(0, up + 7))
        )
    return shown + drawing(words)


# --- the card -------------------------------------------------------------------------------------


def task_card(plan: Plan, stand: WorkState, task: Task) -> Card:
    """Return all that is carried to the bench for a task."""
    joint = _work_of(plan, task)
    if joint is not None:
        card = step_card(plan, *joint)
        return card._replace(title=task_title(task, plan.reader))
    settings, steps, mind = _told(plan, stand, task)
    cautions = tuple(Remark(text) for text in task_cautions(task.trade, plan.reader))
    return Card(task_title(task, plan.reader), tuple(settings), tuple(steps), (*mind, *cautions))


def _told(plan: Plan, stand: WorkState, task: Task) -> tuple[list[Setting], list[str], list[Remark]]:
    if task.trade is Trade.DRY:
        return [], list(usual_steps(task.trade, plan.reader)), []
    if task.trade is Trade.SAW and not task.operations:
        return [], [find_wood_words(plan.reader)], []
    if task.trade is Trade.MEASURE:
        return _measuring(plan, task)
    if task.trade is Trade.GLUE:
        return _gluing(plan, stand, task)
    steps = [operation_words(alike, plan.reader) for alike in alike_operations(task.operations)]
    if task.trade is Trade.SAW and isinstance(task.subject, BoardRef):
        return list(sawing_settings(len(task.operations), plan.project.shop.kerf, plan.reader)), steps, []
    settings = list(operation_settings(task.operations, plan.reader))
    steps += usual_steps(task.trade, plan.reader)
    part = plan.part(task.subject.part) if isinstance(task.subject, PartRef) else None
    if part is None or task.trade not in (Trade.MILL, Trade.FIT):
        return settings, steps, []
    return (
        [*settings, *_rough(plan, part, task)],
        [*steps, *usual_steps(task.trade, plan.reader)],
        _minded(plan, part, task),
    )


def _rough(plan: Plan, part: Part, task: Task) -> list[Setting]:
    """Return what a part is milled out of."""
    rough, board = plan.rough_part(part.id), plan.board_of(part.id)
    if rough is None or task.trade is not Trade.MILL:
        return []
    return [rough_setting(rough, board.board.name if board else "", plan.reader)]


def _minded(plan: Plan, part: Part, task: Task) -> list[Remark]:
    """Return what is to be minded as a part is milled or cut to fit."""
    forecast = plan.forecast_of(part.id)
    mind = []
    if forecast is not None and forecast.short.mm > 0:
        mind.append(Remark(ComesOutThin(forecast.short), Severity.FAILURE))
    if task.trade is Trade.MILL:
        mind.append(Remark(MindAtTask.MEASURE_THICKNESS))
    return mind


def _measuring(plan: Plan, task: Task) -> tuple[list[Setting], list[str], list[Remark]]:
    ledger = plan.ledger
    settings = [
        Setting(sentence(plan.reader.title(name)), quantity.write(plan.marks), quantity.origin.value, QuantityRef(name))
        for name in task.measures
        if ledger is not None and (quantity := ledger.quantities.get(name)) is not None
    ]
    waits = waits_of(plan)
    places = max(
        (sum(name in waits.get(part.id, ()) and not part.group for part in plan.parts) for name in task.measures),
        default=0,
    )
    steps = measuring_steps(places, _measured_over(plan, task), plan.reader)
    return settings, list(steps), [Remark(MindAtTask.CUT_FROM_WHAT_IS)]


def _measured_over(plan: Plan, task: Task) -> bool:
    """Return whether something is cut to what it lies over, as a nailed bottom over both sides of a drawer."""
    hosts = [part for part in map(plan.part, task.between) if part is not None]
    waiting = [part for part in plan.parts if set(task.measures) & set(waits_of(plan).get(part.id, ()))]
    return len(hosts) > 1 and any(all(_covers(part, host) for host in hosts) for part in waiting)


def _covers(part: Part, host: Part) -> bool:
    """Return whether a part reaches at least as far as another, at either end of its length."""
    along = part.grain.value
    return part.box.low[along] <= host.box.low[along] and host.box.high[along] <= part.box.high[along]


def _gluing(plan: Plan, stand: WorkState, task: Task) -> tuple[list[Setting], list[str], list[Remark]]:
    gluing = next((each for each in stand.order.gluings if each.id == task.id), None)
    if gluing is None:
        return [], [], []
    working = plan.project.working
    mind = []
    if gluing.too_long:
        mind.append(Remark(GlueTakesTooLong(gluing.minutes, gluing.open_minutes), Severity.WARNING))
    if gluing.clamps > working.clamps:
        mind.append(Remark(TooFewClamps(gluing.clamps, working.clamps), Severity.WARNING))
    # What goes into another dry moves there; tenons that only meet in a leg do not.
    dry = dict.fromkeys(each.second for each in gluing.joints if each.hold is Hold.DRY and each.type.enters)
    if dry:
        mind.append(Remark(NoGlueOn(tuple(dry))))
    notes = dict.fromkeys(joint.type.when_glued for joint in gluing.joints)
    mind += [Remark(note) for note in notes if note is not None]
    steadied = [steadied_words(gluing.steadied_by, plan.reader)] if gluing.steadied_by else []
    settings = list(gluing_settings(gluing, working, plan.reader))
    return settings, [*steadied, *usual_steps(task.trade, plan.reader)], mind
