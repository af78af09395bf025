"""What is said of a plan: where its parts stand and what is not settled."""

from __future__ import annotations

from typing import assert_never

from nullah.core.catalogue import N_
from nullah.core.plan import Issue, PartState, Plan, Stand, Unsettled
from nullah.core.reader import Reader
from nullah.core.wording.facts import fact_words

_STANDS = {
    Stand.WRONGLY_LAID: N_("cannot lie there"),
    Stand.TOO_THIN: N_("{short} too thin"),
    Stand.DOES_NOT_FIT: N_("does not fit"),
    Stand.NO_WOOD: N_("no wood yet"),
    Stand.WAITS: N_("leave {over}"),
    Stand.MEASURED: N_("measured"),
    Stand.PLANNED: N_("planned"),
}


def state_words(state: PartState, reader: Reader) -> str:
    """Return where a part stands, in a few words."""
    return reader.text(_STANDS[state.stand], short=reader.fine(state.short), over=reader.left_over(*state.over))


def unsettled_words(found: Plan) -> tuple[str, ...]:
    """Return what is not settled yet in a plan, a few words each, what stops the work first."""
    return tuple(_unsettled(found, each) for each in found.unsettled())


def _unsettled(found: Plan, each: Unsettled) -> str:
    reader, count = found.reader, each.number
    match each.issue:
        case Issue.RULES:
            return fact_words(found.problem, reader) if found.problem is not None else ""
        case Issue.PIECE:
            return reader.text("the piece cannot be made yet")
        case Issue.MISFITS:
            return reader.count(count, "{n} thing does not go together", "{n} things do not go together")
        case Issue.CORNER:
            return reader.text("the corner cannot be made yet")
        case Issue.LAID_WRONGLY:
            return reader.count(count, "{n} part wrongly laid", "{n} parts wrongly laid")
        case Issue.TOO_THIN:
            return reader.count(count, "{n} part too thin", "{n} parts too thin")
        case Issue.NO_WOOD:
            return reader.count(count, "{n} part without wood", "{n} parts without wood")
        case Issue.TO_MEASURE:
            return reader.count(count, "{n} measurement to take", "{n} measurements to take")
        case _:
            assert_never(each.issue)
