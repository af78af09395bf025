"""What a task is, as a fact, and what is wrong with an order of tasks; `wording/task_titles.py` says it."""

from __future__ import annotations

from enum import Enum, auto

from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length
from nullah.core.piece.form import Hardware
from nullah.core.piece.joint import Hold


class SawBoard(FrozenRecord):
    """A board is sawn apart, in so many cuts."""

    board: str
    cuts: int


class LetDry(FrozenRecord):
    """The parts out of a board come to the room, for about so many days."""

    board: str
    days: int


class FindWood(FrozenRecord):
    """There is no wood yet for some parts."""

    parts: tuple[str, ...]


class FlattenWhole(FrozenRecord):
    """A board is flattened before it is sawn apart."""

    board: str


class ResawParts(FrozenRecord):
    """Parts are resawn out of one blank."""

    parts: tuple[str, ...]


class MillParts(FrozenRecord):
    """Parts are milled; left long or wide where they are cut to fit later."""

    parts: tuple[str, ...]
    long: bool
    wide: bool


class GlueStavesUp(FrozenRecord):
    """The staves of parts are glued up: whole, or into sections."""

    parts: tuple[str, ...]
    sections: bool


class GlueSections(FrozenRecord):
    """The sections of parts are glued to each other."""

    parts: tuple[str, ...]


class MeasureSizes(FrozenRecord):
    """Quantities are measured: on some parts, which may be put together dry for it."""

    quantities: tuple[str, ...]
    on: tuple[str, ...] = ()
    dry: bool = False


class CutToMeasure(FrozenRecord):
    """Parts are cut to fit what was measured; `mover` is the name of what moves as one, where they are all of it."""

    parts: tuple[str, ...]
    mover: str = ""


class JointDone(Enum):
    """What is done to joints in one go."""

    READY = auto()
    GAUGED = auto()
    LAID_OUT = auto()
    HATCHED = auto()
    SAWN = auto()
    CUT = auto()
    TRIED_TOGETHER = auto()
    TRIED_IN = auto()
    TRIED_ON = auto()
    GAUGED_AGAIN = auto()
    LAID_OUT_AGAIN = auto()
    SAWN_AGAIN = auto()
    CUT_AGAIN = auto()
    PLOWED = auto()
    HOLES_MARKED = auto()
    BORED = auto()
    KEYS_MARKED = auto()
    KEYS_SAWN = auto()
    WEDGE_MARKED = auto()
    WEDGE_CHOPPED = auto()
    HAUNCH_MARKED = auto()
    HAUNCH_SAWN = auto()
    HAUNCH_CUT = auto()
    TENONS_PARTED = auto()
    MORTISED = auto()


class MakeJoint(FrozenRecord):
    """A step of equal joints: what kind of joint, what is done, to which parts, and what else has that joint."""

    joint: str
    done: JointDone
    parts: tuple[str, ...]
    others: tuple[str, ...]


class TryOn(FrozenRecord):
    """Parts are tried on others that stand together already."""

    parts: tuple[str, ...]
    others: tuple[str, ...]


class ShapeParts(FrozenRecord):
    """Parts are shaped."""

    parts: tuple[str, ...]


class PlaneInside(FrozenRecord):
    """What will be inside is planed clean."""

    parts: tuple[str, ...]


class BoreInPlace(FrozenRecord):
    """Parts are bored while what is added is held in its place."""

    adds: tuple[str, ...]
    parts: tuple[str, ...]


class GlueUp(FrozenRecord):
    """Parts, and units by their names, are glued up, by themselves or to what is there.

    `brings` are parts that were joined to each other before and go in with them.
    """

    adds: tuple[str, ...]
    joints: int
    clamps: int
    to_more: bool
    brings: tuple[str, ...] = ()


class PutIn(FrozenRecord):
    """Parts, and units by their names, go in without glue; nothing holds what is only laid in.

    `brings` are parts that were joined to each other before and go in with them.
    """

    adds: tuple[str, ...]
    holds: tuple[Hold, ...]
    brings: tuple[str, ...] = ()


class CleanUnit(FrozenRecord):
    """What was made up by itself is cleaned, before it goes in."""

    unit: str


class PlaneLevel(FrozenRecord):
    """Parts that are joined already are planed level with each other, for what is laid on them."""

    parts: tuple[str, ...]
    carried: str


class CleanPiece(FrozenRecord):
    """The piece is cleaned, or what moves as one where it has an opening nowhere; `mover` is its name."""

    mover: str = ""


class FitMover(FrozenRecord):
    """What moves as one is fitted: in its opening, or on top."""

    mover: str
    on_top: bool


class PutOnCoat(FrozenRecord):
    """A coat of finish is put on; on all of the piece, or all over some parts before assembly."""

    finish: str
    coat: int
    coats: int
    parts: tuple[str, ...] = ()


class FitHardware(FrozenRecord):
    """Hardware is fitted to parts."""

    kind: Hardware
    parts: tuple[str, ...]


TaskFact = (
    SawBoard
    | LetDry
    | FindWood
    | FlattenWhole
    | ResawParts
    | MillParts
    | GlueStavesUp
    | GlueSections
    | MeasureSizes
    | CutToMeasure
    | MakeJoint
    | TryOn
    | ShapeParts
    | PlaneInside
    | BoreInPlace
    | GlueUp
    | PutIn
    | CleanUnit
    | PlaneLevel
    | CleanPiece
    | FitMover
    | PutOnCoat
    | FitHardware
)


# --- what is wrong with an order -----------------------------------------------------------------------------------


class LineTakenOff(FrozenRecord):
    """A task needs a line that another has taken off."""

    task: TaskFact
    line: str
    by: TaskFact


class LineNotDrawn(FrozenRecord):
    """A task needs a line before it is drawn."""

    task: TaskFact
    line: str


class CutUnmeasured(FrozenRecord):
    """Something is cut before what it fits is measured."""

    task: TaskFact
    quantity: str


class WorkedWhenGlued(FrozenRecord):
    """A part is worked when it is glued already."""

    task: TaskFact
    after: TaskFact
    part: str


class WaitInCircle(FrozenRecord):
    """Tasks wait for each other."""

    tasks: tuple[TaskFact, ...]


class AfterNothing(FrozenRecord):
    """Something comes after tasks that are not there."""

    names: tuple[str, ...]


OrderFault = LineTakenOff | LineNotDrawn | CutUnmeasured | WorkedWhenGlued | WaitInCircle | AfterNothing


# --- what is to be minded at a task --------------------------------------------------------------------------------


class GlueTakesTooLong(FrozenRecord):
    """A glue-up takes longer than the glue stays open, both in minutes, and cannot be done in parts."""

    minutes: float
    open_minutes: float


class TooFewClamps(FrozenRecord):
    """A glue-up asks for more clamps than there are."""

    wanted: int
    there: int


class NoGlueOn(FrozenRecord):
    """Parts lie in what is glued, and must be free to move."""

    parts: tuple[str, ...]


class ComesOutThin(FrozenRecord):
    """As planned, a part comes out so much too thin."""

    short: Length


class MindAtTask(Enum):
    """What is always to be minded at some tasks."""

    CUT_FROM_WHAT_IS = auto()
    MEASURE_THICKNESS = auto()


TaskCaution = GlueTakesTooLong | TooFewClamps | NoGlueOn | ComesOutThin
