"""What is done at the bench, as steps of the project: a task done, a note, a measurement, a part made again."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import replace
from datetime import datetime

from nullah.core import actions
from nullah.core.bench.book import BookEntry, Event, Timer, added, timed
from nullah.core.bench.rates import minutes_of
from nullah.core.bench.tasks import Task
from nullah.core.breakdown.facts import LiesWrongly
from nullah.core.breakdown.layout import Placement, Rect, complaints, place
from nullah.core.breakdown.rough import RoughPart, WoodRequirement
from nullah.core.catalogue import N_
from nullah.core.errors import Fact
from nullah.core.frozen_record import FrozenRecord
from nullah.core.laying import saw_up
from nullah.core.ledger import Measured
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.plan import Plan, work_out
from nullah.core.project import Project
from nullah.core.refs import BoardRef
from nullah.core.wood.species import same_wood
from nullah.core.work.day_book import task_minutes


class Done(NamedTuple):
    """A project after something was done, and what is to be said of it."""

    project: Project
    said: tuple[Fact, ...] = ()


class OffcutsCame(FrozenRecord):
    """So many offcuts of a board that was sawn came to the rack."""

    offcuts: int


#: No task is more of anything than this: what a file can hold bounds it, not the work.
_MOST_WORK = 999_999_999.0


def _bounded(work: tuple[tuple[str, float], ...]) -> tuple[tuple[str, float], ...]:
    return tuple((name, min(amount, _MOST_WORK)) for name, amount in work)


def stamp(now: datetime) -> str:
    """Write a time as the book keeps it: to the minute."""
    return now.replace(second=0, microsecond=0, tzinfo=None).isoformat(timespec="minutes")


def start_timer(project: Project, task: Task, now: datetime) -> Project:
    """Start the timer for a task; one that ran for another is let go."""
    return replace(project, timer=Timer(task.id, stamp(now)))


def stop_timer(project: Project) -> Project:
    """Let the timer go; nothing is written down."""
    return replace(project, timer=None)


def finish(plan: Plan, task: Task, title: str, now: datetime, minutes: float | None = None) -> Done:
    """Write a task down as done, with the minutes typed or those of its timer; a board that was sawn leaves offcuts.

    Parameters
    ----------
    plan : Plan
    task : Task
        What was done.
    title : str
        What it is called in the book.
    now : datetime
        The time, without a zone.
    minutes : float, optional
        As typed, or None for what its timer says.
    """
    project = plan.project
    guess = task_minutes(plan, task)
    said: list[Fact] = []
    if minutes is None:
        timer = project.timer if project.timer is not None and project.timer.task == task.id else None
        minutes, of_timer = timed(timer, now, guess, project.working.hours)
        said += [of_timer] if of_timer is not None else []
    entry = BookEntry(
        stamp(now), Event.DONE, title, task.id, task.parts, minutes, minutes_of(task.work), _bounded(task.work)
    )
    kept = None if project.timer is None or project.timer.task == task.id else project.timer
    project = replace(project, book=added(project.book, entry), timer=kept)
    # What is cut off before a board is flattened leaves it on the bench.
    if isinstance(task.subject, BoardRef) and task.id == f"saw/{task.subject.board}":
        before = len(project.boards)
        project = saw_up(project, task.subject.board)
        more = len(project.boards) - before
        if more > 0:
            said.append(OffcutsCame(more))
    return Done(project, tuple(said))


def note(
    project: Project, now: datetime, text: str, task: Task | None = None, title: str = "", file: str = ""
) -> Project:
    """Write a note, or put a photograph in, about a task of some title if one is given."""
    event = Event.PHOTO if file else Event.NOTE
    entry = BookEntry(
        stamp(now), event, title, task.id if task else "", task.parts if task else (), text=text, file=file
    )
    return replace(project, book=added(project.book, entry))


def measured(plan: Plan, name: str, value: Length, now: datetime, by: str = N_("with the caliper")) -> Project:
    """Enter what was measured, into the ledger and into the book with what was planned.

    Parameters
    ----------
    plan : Plan
    name : str
        The quantity that was measured.
    value : Length
        What it came to.
    now : datetime
        The time, without a zone.
    by : str, default 'with the calliper'
        With what.
    """
    project = actions.measure(plan.project, name, Measured(value, stamp(now)[:10], by))
    title, told = name, plan.marks.write_fine(value)
    if plan.ledger is not None and name in plan.ledger.quantities:
        quantity = plan.ledger.quantity(name)
        title = plan.reader.title(name)
        planned = quantity.value if quantity.planned is None else quantity.planned
        told = plan.reader.text(
            "{measured}, planned {planned}", measured=told, planned=plan.marks.write_fine(Length(planned))
        )
    entry = BookEntry(stamp(now), Event.MEASURED, title, text=f"{told}, {plan.reader.text(by)}")
    return replace(project, book=added(project.book, entry))


def shim(plan: Plan, name: str, now: datetime) -> Project:
    """Make a figure up with a shim: it is as planned again, and the book says how thick the shim is."""
    project = actions.measure(plan.project, name, None)
    if plan.ledger is None or name not in plan.ledger.quantities:
        return project
    quantity = plan.ledger.quantity(name)
    off = abs(quantity.value - (quantity.planned if quantity.planned is not None else quantity.value))
    text = plan.reader.text(
        "Shim of {thickness} at the {place}.",
        thickness=plan.marks.write_fine(Length(off)),
        place=plan.reader.title(name),
    )
    entry = BookEntry(stamp(now), Event.NOTE, plan.reader.title(name), text=text)
    return replace(project, book=added(project.book, entry))


# --- a part made again ----------------------------------------------------------------------------


class SpareWood(NamedTuple):
    """Where a part could be had again: the board's id and name, its place, and how much of the board is left, mm².

    `other` names the wood where it is another than was chosen.
    """

    board: str
    name: str
    x: float
    y: float
    left: float
    other: str = ""


def wood_for(plan: Plan, part_id: str) -> tuple[SpareWood, ...]:
    """Return where a part could be had once more, the smallest piece of wood that will do first.

    Offcuts and boards that are not sawn yet are looked at, in the corners of what their cuts leave; other wood than was
    chosen where there is none of that.
    """
    rough = plan.rough_part(part_id)
    if rough is None:
        return ()
    return tuple(sorted(_woods(plan, rough), key=lambda wood: (bool(wood.other), wood.left)))


def _woods(plan: Plan, rough: RoughPart) -> Iterator[SpareWood]:
    for board_plan in plan.boards:
        board = board_plan.board
        if board.sawn:
            continue
        whole = Rect(0.0, 0.0, float(board.length), float(board.width))
        for free in [left.rect for left in board_plan.left] if board_plan.placed else [whole]:
            other = "" if same_wood(rough.wood, board.species) else board.species
            spot = _spot(plan, rough._replace(wood=board.species), board.id, free)
            if spot is not None:
                left = free.length * free.width - float(rough.length) * float(rough.width)
                yield SpareWood(board.id, board.name, spot[0], spot[1], left, other)
                break


def _spot(plan: Plan, rough: RoughPart, board_id: str, free: Rect) -> tuple[float, float] | None:
    """Return a corner of what is free where the part can lie, or None."""
    long, wide = float(rough.length), float(rough.width)
    if long > free.length + 1e-6 or wide > free.width + 1e-6:
        return None
    board_plan = next(each for each in plan.boards if each.board.id == board_id)
    others = [item for item in board_plan.placed if item.part.id != rough.id]
    for x in (free.x, free.end - long, free.x + (free.length - long) / 2):
        for y in (free.y, free.top - wide, free.y + (free.width - wide) / 2):
            item = place(rough, Placement(rough.id, board_id, x, y))
            wrong = complaints(board_plan.board, [*others, item], plan.project.shop.kerf)
            if rough.id not in wrong and not set(wrong) - set(board_plan.wrong):
                return x, y
    return None


class NoSuchPart(FrozenRecord):
    """A part that the piece does not have."""

    part: str


class NoWoodForAnother(FrozenRecord):
    """No wood on the rack will do for a part that is made again."""

    part: str


class ComesOutOf(FrozenRecord):
    """A part that is made again comes out of a board; `other` names its wood where that is another than was chosen."""

    part: str
    board: str
    other: str


RecordFact = OffcutsCame | NoSuchPart | NoWoodForAnother | ComesOutOf


def remake(
    plan: Plan, part_id: str, why: str, now: datetime, words: Callable[[RecordFact], str], board: str = ""
) -> Done:
    """Make a part again: find wood for another on the rack, take up what was done to it again, and keep the story.

    Parameters
    ----------
    plan : Plan
    part_id : str
    why : str
        What went wrong.
    now : datetime
    words : function of a fact
        Says what comes of it, for the book.
    board : str
        Where it is to be had; empty for the smallest piece of wood that will do.
    """
    part, rough = plan.part(part_id), plan.rough_part(part_id)
    if part is None or rough is None:
        return Done(plan.project, (NoSuchPart(part_id),))
    lost = float(rough.length) * float(rough.width) * float(rough.thickness)
    woods = wood_for(plan, part_id)
    wood = next((each for each in woods if not board or each.board == board), None)
    found = ComesOutOf(part_id, wood.name, wood.other) if wood is not None else NoWoodForAnother(part_id)
    entry = BookEntry(
        stamp(now),
        Event.REMADE,
        part.name,
        parts=(part_id,),
        work=_bounded((("wood", lost),)),
        text="; ".join(each for each in (why.strip(), words(found)) if each),
    )
    project = replace(plan.project, book=added(plan.project.book, entry))
    project = actions.lift(project, rough.id)
    for name in part.quantities:
        # What was measured of the old one is not so of the new one; equal parts may share the figure.
        alike = [each for each in plan.parts if name in each.quantities and each.id != part_id]
        if not alike and name in dict(project.piece.measured):
            project = actions.measure(project, name, None)
    if wood is None:
        return Done(project, (found,))
    if wood.other:
        ask = dict(project.asks).get(part_id, WoodRequirement())._replace(wood=wood.other)
        project = actions.ask_of_wood(project, part_id, ask)
    project = actions.lay(project, Placement(rough.id, wood.board, wood.x, wood.y))
    after = work_out(project, milling=False, proving=False)
    wrong = next((each.wrong.get(rough.id) for each in after.boards if rough.id in each.wrong), None)
    told = found if wrong is None else LiesWrongly(rough.name, wrong)
    return Done(project, (told,))
