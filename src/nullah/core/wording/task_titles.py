"""What every task is called, in few words; and what is wrong with an order of tasks."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any, get_args

from nullah.core.bench.task_facts import (
    AfterNothing,
    BoreInPlace,
    CleanPiece,
    CleanUnit,
    CutToMeasure,
    CutUnmeasured,
    FindWood,
    FitHardware,
    FitMover,
    FlattenWhole,
    GlueSections,
    GlueStavesUp,
    GlueUp,
    JointDone,
    LetDry,
    LineNotDrawn,
    LineTakenOff,
    MakeJoint,
    MeasureSizes,
    MillParts,
    OrderFault,
    PlaneInside,
    PlaneLevel,
    PutIn,
    PutOnCoat,
    ResawParts,
    SawBoard,
    ShapeParts,
    TaskFact,
    TryOn,
    WaitInCircle,
    WorkedWhenGlued,
)
from nullah.core.bench.tasks import Task
from nullah.core.catalogue import N_
from nullah.core.piece.form import Hardware
from nullah.core.reader import Reader, sentence
from nullah.core.wording.worders import worders

#: More parts than this are only counted in a title.
_MOST_NAMED = 8
#: Of tasks that wait for each other, so many are named.
_MOST_IN_CIRCLE = 4


def task_title(task: Task, reader: Reader) -> str:
    """Return what a task is called."""
    return task_words(task.what, reader)


def task_words(fact: TaskFact, reader: Reader) -> str:
    """Return what a task is called, by what it is.

    Examples
    --------
    >>> task_words(SawBoard("board 2", 1), Reader())
    'Saw board 2 apart: 1 cut'
    >>> task_words(GlueUp(("left", "top"), 2, 1, True), Reader())
    'Glue up left and top to what is there: 2 joints, 1 clamp'
    """
    return _TITLES[type(fact)](fact, reader)


def _saw_board(fact: SawBoard, reader: Reader) -> str:
    return reader.count(fact.cuts, "Saw {board} apart: {n} cut", "Saw {board} apart: {n} cuts", board=fact.board)


def _let_dry(fact: LetDry, reader: Reader) -> str:
    return reader.count(
        fact.days,
        "Let the parts out of {board} come to the room: about {n} day",
        "Let the parts out of {board} come to the room: about {n} days",
        board=fact.board,
    )


def _find_wood(fact: FindWood, reader: Reader) -> str:
    number = len(fact.parts)
    if number > _MOST_NAMED:
        return reader.count(number, "Find wood for {n} part", "Find wood for {n} parts")
    return reader.text(N_("Find wood for {parts}"), parts=reader.together(fact.parts))


def _mill(fact: MillParts, reader: Reader) -> str:
    parts = reader.together(fact.parts)
    if not (fact.long or fact.wide):
        return reader.text(N_("Mill {parts}"), parts=parts)
    return reader.text(
        N_("Mill {parts}, left {over}"), parts=parts, over=reader.left_over(fact.long, fact.wide, thick=False)
    )


def _staves(fact: GlueStavesUp, reader: Reader) -> str:
    whole, sections = (
        N_("Joint the staves of {parts} and glue them up"),
        N_("Joint the staves of {parts} and glue them into sections"),
    )
    return reader.text(sections if fact.sections else whole, parts=reader.together(fact.parts))


def _measure(fact: MeasureSizes, reader: Reader) -> str:
    titles = reader.listed([reader.title(name) for name in fact.quantities])
    if fact.dry:
        message = N_("Put {parts} together dry; measure {titles}")
    else:
        message = N_("Measure {titles} on {parts}") if fact.on else N_("Measure {titles}")
    return reader.text(message, titles=titles, parts=reader.together(fact.on))


def _cut_to_measure(fact: CutToMeasure, reader: Reader) -> str:
    if fact.mover and len(fact.parts) > 1:
        return reader.text(N_("Cut the parts of {name} to fit what was measured"), name=fact.mover)
    return reader.text(N_("Cut {parts} to fit what was measured"), parts=reader.together(fact.parts))


_JOINTS = {
    JointDone.READY: N_("{joint}: make {parts} ready"),
    JointDone.GAUGED: N_("{joint}: gauge {parts}"),
    JointDone.LAID_OUT: N_("{joint}: lay out {parts}"),
    JointDone.HATCHED: N_("{joint}: mark the waste on {parts}"),
    JointDone.SAWN: N_("{joint}: saw {parts}"),
    JointDone.CUT: N_("{joint}: cut {parts}"),
    JointDone.TRIED_TOGETHER: N_("{joint}: try {parts} together"),
    # What it goes into may stand already.
    JointDone.TRIED_IN: N_("{joint}: try {parts} in {others}"),
    JointDone.TRIED_ON: N_("{joint}: try {parts} on {others}"),
    JointDone.GAUGED_AGAIN: N_("{joint}: gauge the other side of {parts}"),
    JointDone.LAID_OUT_AGAIN: N_("{joint}: lay out the other side of {parts}"),
    JointDone.SAWN_AGAIN: N_("{joint}: saw the other side of {parts}"),
    JointDone.CUT_AGAIN: N_("{joint}: cut the other side of {parts}"),
    JointDone.PLOWED: N_("{joint}: plow {parts}"),
    JointDone.HOLES_MARKED: N_("{joint}: mark the holes on {parts}"),
    JointDone.BORED: N_("{joint}: bore {parts}"),
    JointDone.KEYS_MARKED: N_("{joint}: mark the slots for keys on {parts}"),
    JointDone.KEYS_SAWN: N_("{joint}: saw the slots for keys in {parts}"),
    JointDone.WEDGE_MARKED: N_("{joint}: mark the slot for the wedge on {parts}"),
    JointDone.WEDGE_CHOPPED: N_("{joint}: chop the slot for the wedge in {parts}"),
    JointDone.HAUNCH_MARKED: N_("{joint}: mark the haunch on {parts}"),
    JointDone.HAUNCH_SAWN: N_("{joint}: saw the haunch of {parts}"),
    JointDone.HAUNCH_CUT: N_("{joint}: cut the haunch into {parts}"),
    JointDone.TENONS_PARTED: N_("{joint}: saw out between the tenons of {parts}"),
    JointDone.MORTISED: N_("{joint}: chop the mortises in {parts}"),
}


def _joint(fact: MakeJoint, reader: Reader) -> str:
    joint, parts = reader.text(fact.joint), reader.together(fact.parts)
    return sentence(reader.text(_JOINTS[fact.done], joint=joint, parts=parts, others=reader.together(fact.others)))


def _glue_up(fact: GlueUp, reader: Reader) -> str:
    message = (
        N_("Glue up {parts} to what is there: {joints}, {clamps}")
        if fact.to_more
        else N_("Glue up {parts}: {joints}, {clamps}")
    )
    return reader.text(
        message,
        parts=_with(fact, reader),
        joints=reader.count(fact.joints, "{n} joint", "{n} joints"),
        clamps=reader.count(fact.clamps, "{n} clamp", "{n} clamps"),
    )


def _put_in(fact: PutIn, reader: Reader) -> str:
    how = [reader.text(hold.value) for hold in fact.holds] or [reader.text(N_("laid in"))]
    return reader.text(N_("Put in {parts}: {how}"), parts=_with(fact, reader), how=reader.listed(how))


def _with(fact: GlueUp | PutIn, reader: Reader) -> str:
    """Return what goes in, and what was joined before and goes in with it."""
    parts = reader.together(fact.adds)
    if not fact.brings:
        return parts
    return reader.text(N_("{parts}, and with them {others}"), parts=parts, others=reader.together(fact.brings))


def _clean_piece(fact: CleanPiece, reader: Reader) -> str:
    if fact.mover:
        return reader.text(N_("Plane the joints of {name} flush, and its outside"), name=fact.mover)
    return reader.text(N_("Plane the joints flush, and the outside"))


def _fit_mover(fact: FitMover, reader: Reader) -> str:
    message = (
        N_("Try {name} on: ease its battens until it goes on and off, and plane its edges true to what it covers")
        if fact.on_top
        else N_("Fit {name} in its opening: plane until it runs, the same gap all round")
    )
    return reader.text(message, name=fact.mover)


def _coat(fact: PutOnCoat, reader: Reader) -> str:
    values = {"finish": reader.text(fact.finish), "n": fact.coat, "coats": fact.coats}
    if not fact.parts:
        return reader.text(N_("Put on {finish}, coat {n} of {coats}"), **values)
    return reader.text(
        N_("Put on {finish}, coat {n} of {coats}, all over {parts}, before assembly"),
        parts=reader.together(fact.parts),
        **values,
    )


_HARDWARE = {
    Hardware.HINGES: N_("Screw the hinges into their gains and hang {parts} by them; off again for the finish"),
    Hardware.STAY: N_("Fix the stay to {parts}, so that it holds a little past upright"),
    Hardware.STOPS: N_("Glue a stop behind {parts}, so that each stands flush when it is shut"),
    Hardware.WALL: N_("Hang it: screw through {parts} into what carries it in the wall"),
}


def _of_parts(message: str) -> Callable[[Any, Reader], str]:
    """Return what says a fact that names its parts and nothing else."""
    return lambda fact, reader: reader.text(message, parts=reader.together(fact.parts))


_TITLES: dict[type, Callable[[Any, Reader], str]] = {
    SawBoard: _saw_board,
    LetDry: _let_dry,
    FindWood: _find_wood,
    FlattenWhole: lambda fact, reader: reader.text(N_("Flatten {board} before it is sawn apart"), board=fact.board),
    ResawParts: _of_parts(N_("Resaw {parts} out of one blank, and let them lie on sticks")),
    MillParts: _mill,
    GlueStavesUp: _staves,
    GlueSections: _of_parts(N_("Glue the sections of {parts} to each other")),
    MeasureSizes: _measure,
    CutToMeasure: _cut_to_measure,
    MakeJoint: _joint,
    TryOn: lambda fact, reader: reader.text(
        N_("Try {parts} on {others}, all at once"),
        parts=reader.together(fact.parts),
        others=reader.together(fact.others),
    ),
    ShapeParts: _of_parts(N_("Shape {parts}")),
    PlaneInside: _of_parts(N_("Plane clean what no plane will reach: {parts}")),
    BoreInPlace: lambda fact, reader: reader.text(
        N_("Hold {adds} in place and bore {parts}"), adds=reader.together(fact.adds), parts=reader.together(fact.parts)
    ),
    GlueUp: _glue_up,
    PutIn: _put_in,
    CleanUnit: lambda fact, reader: reader.text(
        N_("Plane the joints of the {unit} flush, and try for square"), unit=fact.unit
    ),
    PlaneLevel: lambda fact, reader: reader.text(
        N_("Plane {parts} level where {carried} goes on: no light under a straightedge, no twist across sticks"),
        parts=reader.together(fact.parts),
        carried=reader.part(fact.carried),
    ),
    CleanPiece: _clean_piece,
    FitMover: _fit_mover,
    PutOnCoat: _coat,
    FitHardware: lambda fact, reader: reader.text(_HARDWARE[fact.kind], parts=reader.together(fact.parts)),
}


# --- what is wrong with an order -----------------------------------------------------------------------------------


def order_fault_words(fault: OrderFault, reader: Reader) -> str:
    """Return what is wrong with an order, as a sentence."""
    match fault:
        case LineTakenOff(task, line, by):
            message = N_("{task} needs the {line}, which {by} has taken off.")
            return reader.text(message, task=task_words(task, reader), line=line, by=task_words(by, reader))
        case LineNotDrawn(task, line):
            return reader.text(
                N_("{task} needs the {line} before it is drawn."), task=task_words(task, reader), line=line
            )
        case CutUnmeasured(task, quantity):
            message = N_("{task} is cut before {quantity} is measured.")
            return reader.text(message, task=task_words(task, reader), quantity=reader.title(quantity))
        case WorkedWhenGlued(task, after, part):
            message = N_("{task} comes after {after}, where {part} is glued already.")
            titles = {"task": task_words(task, reader), "after": task_words(after, reader)}
            return reader.text(message, part=reader.part(part), **titles)
        case WaitInCircle(tasks):
            return reader.text(N_("These wait for each other in a circle: {tasks}."), tasks=_first_of(tasks, reader))
        case AfterNothing(names):
            return reader.text(N_("Something comes after what is not there: {names}."), names=", ".join(names))


def _first_of(tasks: Sequence[TaskFact], reader: Reader) -> str:
    return "; ".join(task_words(task, reader) for task in tasks[:_MOST_IN_CIRCLE])


#: What says the facts of this room.
WORDERS = worders((get_args(OrderFault), order_fault_words), (get_args(TaskFact), task_words))
