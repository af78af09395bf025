"""Day Book: what to do next and what was done. Says what it will do; the work is still to come."""

from __future__ import annotations

from nullah.core.card import Card, Remark
from nullah.core.drawing import Drawing
from nullah.core.plan import Plan
from nullah.core.stations.piece import to_measure
from nullah.core.stations.station import Hand, Station


def _draw(plan: Plan, hand: Hand) -> Drawing:
    return Drawing()


def _card(plan: Plan, hand: Hand) -> Card:
    settings = to_measure(plan)
    return Card(
        "Still to measure",
        set=settings,
        mark=() if settings else ("Nothing waits for a measurement.",),
        mind=(Remark("What fits into something is cut after that has been measured, not from the drawing."),),
    )


STATION = Station(
    "daybook", "Day Book", _draw, _card, lambda plan: "still to come",
    "Here the next step will stand in large figures, with its settings and what to measure after, "
    "and the story of the piece as it is made. Until then the card lists what waits for a measurement.",
)  # fmt: skip
