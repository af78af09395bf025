"""The card: what is carried from the desk to the bench, as data.

Every station fills one; the desk shows it and paper prints it, both as it stands.
"""

from __future__ import annotations

from collections.abc import Sequence
from enum import Enum, auto

from nullah.core.catalogue import N_
from nullah.core.errors import Fact
from nullah.core.frozen_record import FrozenRecord
from nullah.core.named_tuple import NamedTuple

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.core.fixes import Fix
    from nullah.core.operations.operation import Operation
    from nullah.core.refs import Ref


class Severity(Enum):
    """How much a line under *Mind* matters."""

    NOTE = N_("note")
    WARNING = N_("look at this")
    FAILURE = N_("will not work")


class Setting(NamedTuple):
    """A tool and what to set it to, such as ``Marking gauge · 19.5 mm``.

    `note` says what it is for, `ref` what it is of, where that can be typed.
    """

    tool: str
    figure: str
    note: str = ""
    ref: Ref | None = None


class Remark(NamedTuple):
    """A fact under *Mind*, with the ways out that arithmetic knows."""

    fact: Fact
    weight: Severity = Severity.NOTE
    fixes: tuple[Fix, ...] = ()
    ref: Ref | None = None


class Numbered(FrozenRecord):
    """A fact that is marked on the drawing with a number."""

    number: int
    fact: Fact


class JointStage(Enum):
    """How far a joint is when a step is done; a step's picture shows it so."""

    BLANK = N_("as it comes")
    GAUGED = N_("gauged")
    MARKED = N_("laid out")
    HATCHED = N_("waste hatched")
    SAWN = N_("sawn")
    CUT = N_("cut")
    TRIED = N_("tried together")


class Moment(Enum):
    """When a step of a joint is done: to its parts by themselves, as they are put together, or when it is glued."""

    APART = auto()
    PUT_TOGETHER = auto()
    GLUED = auto()


class Trying(Enum):
    """How parts are tried together."""

    STARTED = "started"
    DRY = "dry"
    SHOULDERED = "shouldered"
    MET = "met"
    LAID = "laid"


class Step(NamedTuple):
    """A step at the bench.

    Parameters
    ----------
    text : Fact
        What to do, short, where no operations say it.
    stage : JointStage
        How far it then is.
    at : str
        Which mates it is done to: ``first``, ``second`` or ``both``.
    check : str
        What to look at before going on.
    draws, uses : tuple of str
        Lines that are made, and lines that must still be there.
    care : str
        A caution, where it bites.
    operations : tuple of Operation
        What is done, to all parts and ends alike.
    moment : Moment
        When it is done.
    """

    text: Fact
    stage: JointStage = JointStage.MARKED
    at: str = "both"
    check: str = ""
    draws: tuple[str, ...] = ()
    uses: tuple[str, ...] = ()
    care: str = ""
    operations: tuple[Operation, ...] = ()
    moment: Moment = Moment.APART


def lines_to_keep(steps: Sequence[Step], number: int) -> tuple[tuple[str, int], ...]:
    """Return the lines that are there after a step (from 0) and are needed later, each with the last step that does.

    Parameters
    ----------
    steps : Sequence[Step]
        All of a joint, in their order.
    number : int
        Of the step, from 0.

    Examples
    --------
    >>> steps = (Step("gauge", draws=("baseline",)), Step("saw", uses=("baseline",)), Step("try"))
    >>> lines_to_keep(steps, 0), lines_to_keep(steps, 1)
    ((('baseline', 1),), ())
    """
    drawn = dict.fromkeys(line for step in steps[: number + 1] for line in step.draws)
    last = {line: place for place, step in enumerate(steps) for line in step.uses}
    return tuple((line, last[line]) for line in drawn if last.get(line, -1) > number)


class Card(NamedTuple):
    """What a station gives to carry away.

    `set` are tools and figures, `mark` the steps in order, `mind` limits and cautions,
    `why` where a figure comes from.
    """

    title: str = ""
    set: tuple[Setting, ...] = ()
    mark: tuple[str, ...] = ()
    mind: tuple[Remark, ...] = ()
    why: tuple[str, ...] = ()
