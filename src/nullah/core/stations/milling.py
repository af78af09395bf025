"""Milling: a board surveyed, planned and brought flat, straight and square; its ways of looking at that."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from nullah.core.card import Card
from nullah.core.drawing import Drawing
from nullah.core.plan import Plan
from nullah.core.stations.edge_work import draw_edge_work, edge_card
from nullah.core.stations.forecast import draw_forecast, forecast_card
from nullah.core.stations.station import Hand, Station
from nullah.core.stations.stroke_plan import draw_strokes, strokes_card
from nullah.core.stations.surveying import draw_survey, sticks_card, survey_card


class View(NamedTuple):
    """A way of looking at the milling."""

    title: str
    draw: Callable[[Plan, Hand], Drawing]
    card: Callable[[Plan, Hand], Card]


VIEWS = {
    "": View("Forecast", draw_forecast, forecast_card),
    "survey": View("Survey", draw_survey, survey_card),
    "strokes": View("Strokes", draw_strokes, strokes_card),
    "edges": View("Edges", draw_edge_work, edge_card),
    # These two are shown by the desk itself; what they would be on paper is the nearest drawing.
    "plane": View("Plane it", draw_strokes, strokes_card),
    "sticks": View("Read the sticks", draw_survey, sticks_card),
}


def _view(hand: Hand) -> View:
    return VIEWS.get(hand.view, VIEWS[""])


def _draw(plan: Plan, hand: Hand) -> Drawing:
    return _view(hand).draw(plan, hand)


def _card(plan: Plan, hand: Hand) -> Card:
    return _view(hand).card(plan, hand)


def _state(plan: Plan) -> str:
    if plan.milling is None:
        return "working it out"
    if not plan.milling:
        return "nothing laid yet"
    short = sum(item.short.mm > 0 for item in plan.milling)
    return f"{short} part{'s' if short != 1 else ''} too thin" if short else "all thick enough"


STATION = Station(
    "milling", "Milling", _draw, _card, _state,
    "Nothing lies on a board yet. Lay the parts out in Breakdown; here you will see what flattening leaves of each.",
    to_scale=False,
)  # fmt: skip
