"""What is said of every task of a kind: what is always done in it, what is to be minded."""

from __future__ import annotations

from collections.abc import Sequence
from typing import get_args

from nullah.core.bench.task_facts import ComesOutThin, GlueTakesTooLong, MindAtTask, NoGlueOn, TaskCaution, TooFewClamps
from nullah.core.bench.tasks import Task
from nullah.core.bench.trades import Trade
from nullah.core.bench.working import GLUES, Working
from nullah.core.breakdown.rough import RoughPart
from nullah.core.card import Setting
from nullah.core.catalogue import N_
from nullah.core.joints.bench import SAW_BITES
from nullah.core.lengths import Direction, Length
from nullah.core.piece.joint import Hold
from nullah.core.reader import Reader
from nullah.core.wording.durations import time_words
from nullah.core.wording.worders import worders
from nullah.core.work.day_book import WorkState
from nullah.core.work.gluing import Gluing

_STEPS = {
    Trade.DRY: (
        N_("Stack it with sticks between, in the room where the piece will live."),
        N_("Read the meter every few days; it is dry within a point of the room's own piece."),
    ),
    Trade.GLUE: (
        N_("Dry fit all of it first, clamps set and laid out in order."),
        N_("Thin and even glue; drive each joint together once."),
        N_("Diagonals equal, no twist: sight across before it takes."),
        N_("Wipe or pare the squeeze-out; leave it alone until it is hard."),
    ),
    Trade.FIT: (
        N_("Hold it to its opening; knife the length from the opening itself where you can."),
        N_("Saw in the waste, shoot to the line: a shaving at a time, tried after each."),
    ),
    Trade.MILL: (N_("The strokes of each face stand at Milling."),),
    Trade.SMOOTH: (
        N_("All joint lines off; a finely set plane, with the grain."),
        N_("Not over the joints’ own faces."),
        N_("It is the last time a plane gets there."),
    ),
    Trade.SHAPE: (N_("End grain first, then along: breakout is planed away."), N_("Stop at the line.")),
    Trade.PUT_IN: (N_("Try it in; ease what binds. Then fasten as planned."),),
    Trade.CLEAN: (N_("Plane end grain flush from the edges inwards."), N_("Ease the arrises; sight along all faces.")),
    Trade.HARDWARE: (
        N_("Bore for every screw; drive an iron one first, and the brass one after it."),
        N_("What carries weight goes into what holds it: studs, anchors, solid wood."),
    ),
    Trade.FINISH: (N_("A scrap first. Thin coats, the surplus wiped off."), N_("Rub down lightly between coats.")),
}
_CAUTIONS = {
    Trade.SAW: (SAW_BITES, N_("Gloves for rough lumber; look for nails in reclaimed wood.")),
    Trade.MILL: (N_("Both hands behind the plane; the board is held, not hand-held. Dust of some woods irritates."),),
    Trade.FIT: (SAW_BITES,),
    Trade.SHAPE: (N_("The tool works away from the hand that holds."),),
    Trade.GLUE: (N_("Never force a joint; squeeze-out makes the floor slippery."),),
    Trade.HARDWARE: (N_("Two people to hang what is heavy; look for pipes and wires behind the wall."),),
    Trade.FINISH: (
        N_("Oil-soaked rags can ignite by themselves: dry them flat outdoors."),
        N_("Fresh air; follow the maker’s sheet."),
    ),
}


def usual_steps(trade: Trade, reader: Reader) -> tuple[str, ...]:
    """Return what is always done in a task of a kind."""
    return tuple(reader.text(step) for step in _STEPS.get(trade, ()))


def task_cautions(trade: Trade, reader: Reader) -> tuple[str, ...]:
    """Return what is to be minded in a task of a kind."""
    return tuple(reader.text(caution) for caution in _CAUTIONS.get(trade, ()))


def days_legend(picked: bool, reader: Reader) -> str:
    """Return what is coloured on the picture of the days: about a task that is picked, or else of all."""
    if picked:
        return reader.text("blue: what it waits for, and what waits for it")
    return reader.text("blue: glue and finish, and what waits for them")


def done_on(day: str, time: str, reader: Reader) -> str:
    """Return when all will be done."""
    return reader.text("done on {day} at {time}", day=day, time=time)


def measuring_steps(places: int, over: bool, reader: Reader) -> tuple[str, ...]:
    """Return how an opening is measured that so many parts go into, each in its place; or what one lies `over`."""
    if over:
        where = N_(
            "Measure over it at front and back: the largest counts, and what is over is planed flush. Enter it here."
        )
    elif places > 1:
        where = N_(
            "Measure at every place where one goes: at each the smallest counts, of all the largest. Enter that; each "
            "is then shot to its own place."
        )
    else:
        where = N_("Measure at front and back, top and bottom: the smallest counts. Enter it here.")
    return reader.text(N_("Check that it is square: the diagonals equal.")), reader.text(where)


def find_wood_words(reader: Reader) -> str:
    """Return what is done for parts that lie on no board."""
    return reader.text(N_("Lay these parts out in Breakdown, or bring boards to the rack."))


def idle_words(stand: WorkState, piece: str, reader: Reader) -> str:
    """Return why there is nothing to do."""
    if not stand.order.tasks:
        return reader.text(N_("There is no piece to work at yet."))
    if stand.finished:
        return reader.text(N_("{name} is made."), name=piece)
    return reader.text(N_("Nothing can be done just now: glue, finish or wood must dry first."))


def progress_words(stand: WorkState, task: Task, reader: Reader) -> str:
    """Return how far the work is, what sort of work is next, and about how long it takes."""
    return reader.text(
        N_("{done} of {total} done · now {sort} · about {time}"),
        done=stand.done,
        total=stand.total,
        sort=reader.text(task.trade.value),
        time=time_words(stand.minutes.get(task.id, 0.0), reader),
    )


def again_words(parts: Sequence[str], reader: Reader) -> str:
    """Return for which parts alone a task is done again."""
    return reader.text(N_("again, for {parts} only"), parts=reader.together(parts))


def sawing_settings(cuts: int, kerf: Length, reader: Reader) -> tuple[Setting, ...]:
    """Return what is set for sawing a board apart."""
    return (
        Setting(reader.text(N_("Cuts")), str(cuts), reader.text(N_("in this order"))),
        Setting(reader.text(N_("Kerf")), reader.fine(kerf), reader.text(N_("in the waste"))),
    )


def rough_setting(rough: RoughPart, board: str, reader: Reader) -> Setting:
    """Return what a part is milled out of; `board` is the name of its board, empty where it lies on none."""
    up, write = Direction.UP, reader.marks.write
    size = (
        f"{write(rough.length, up, unit=False)} × {write(rough.width, up, unit=False)} × {write(rough.thickness, up)}"
    )
    where = reader.text(N_("out of {board}"), board=board) if board else reader.text(N_("no board yet"))
    return Setting(reader.text(N_("Rough")), size, where)


def gluing_settings(made: Gluing, working: Working, reader: Reader) -> tuple[Setting, ...]:
    """Return what a glue-up takes: glue, time, clamps."""
    glue, number = GLUES[working.glue], sum(joint.hold is Hold.GLUE for joint in made.joints)
    told = {"minutes": f"{glue.open_minutes:g}", "hours": f"{glue.clamp_hours:g}", "cure": f"{glue.cure_hours:g}"}
    joints = reader.count(number, "{n} joint", "{n} joints")
    return (
        Setting(
            reader.text(N_("Glue")),
            reader.text(working.glue),
            reader.text(N_("about {minutes} min open; read the label"), **told),
        ),
        Setting(
            reader.text(N_("It takes")),
            time_words(made.minutes, reader),
            reader.text(N_("{joints}, {people} at it"), joints=joints, people=working.people),
        ),
        Setting(
            reader.text(N_("Clamps")), str(made.clamps), reader.text(N_("{number} there are"), number=working.clamps)
        ),
        Setting(
            reader.text(N_("In the clamps")),
            reader.text(N_("{hours} h"), **told),
            reader.text(N_("worked after {cure} h"), **told),
        ),
    )


_MIND = {
    MindAtTask.CUT_FROM_WHAT_IS: N_("What fits into something is cut from what is, not from the drawing."),
    MindAtTask.MEASURE_THICKNESS: N_("Measure its thickness after: the joints follow what it really is."),
}


def mind_words(fact: MindAtTask, reader: Reader) -> str:
    """Return what is always to be minded at some tasks."""
    return reader.text(_MIND[fact])


def task_caution_words(fact: TaskCaution, reader: Reader) -> str:
    """Return what is to be minded at a task as it is planned."""
    match fact:
        case GlueTakesTooLong(minutes, open_minutes):
            return reader.text(
                N_(
                    "It takes longer than the glue stays open ({time} against {open} min) and cannot be done in parts: "
                    "get a second pair of hands, or a slower glue."
                ),
                time=time_words(minutes, reader),
                open=f"{open_minutes:g}",
            )
        case TooFewClamps(wanted, there):
            clamps = reader.count(wanted, "{n} clamp", "{n} clamps")
            return reader.text(N_("It asks for {clamps}; there are {there}."), clamps=clamps, there=there)
        case NoGlueOn(parts):
            return reader.count(
                len(parts),
                "No glue on {parts}: it must be free to move.",
                "No glue on {parts}: they must be free to move.",
                parts=reader.together(parts),
            )
        case ComesOutThin(short):
            return reader.text(N_("As planned it comes out {short} too thin: see Milling."), short=reader.fine(short))


#: What says the facts of this room.
WORDERS = worders((get_args(TaskCaution), task_caution_words), ((MindAtTask,), mind_words))
