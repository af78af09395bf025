"""Day Book: what to do next and what was done. Says what it will do; the work is still to come."""

from __future__ import annotations

from nullah.core.card import Card, Remark
from nullah.core.drawing import Drawing
from nullah.core.plan import Plan
from nullah.core.stations.station import Hand, Station


def _draw(plan: Plan, hand: Hand) -> Drawing:
    return Drawing()


def _card(plan: Plan, hand: Hand) -> Card:
    if plan.ledger is None:
        return Card("Still to measure")
    waiting = dict.fromkeys(name for part in plan.parts for name in plan.waiting(part))
    marks = [
        f"Measure {plan.ledger.quantity(name).definition.title} "
        f"(planned {plan.ledger.quantity(name).write(plan.marks)}) before cutting what fits it."
        for name in waiting
    ]
    return Card(
        "Still to measure",
        mark=tuple(marks) or ("Nothing waits for a measurement.",),
        mind=(Remark("Enter a measurement on the drawing in Piece: click the dimension and type."),),
    )


STATION = Station(
    "daybook", "Day Book", _draw, _card, lambda plan: "still to come",
    "Here the next step will stand in large figures, with its settings and what to measure after, "
    "and the story of the piece as it is made. Until then the card lists what waits for a measurement.",
)  # fmt: skip
