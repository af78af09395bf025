"""Milling: a board surveyed, planned and brought flat, straight and square; its ways of looking at that."""

from __future__ import annotations

from importlib import import_module

from nullah.core.card import Card
from nullah.core.catalogue import N_
from nullah.core.drawing import Drawing
from nullah.core.named_tuple import NamedTuple
from nullah.core.plan import Plan
from nullah.core.stations.selection import MillingView, Selection
from nullah.core.wording.forecast import milling_state


class ViewModule(NamedTuple):
    """A way of looking at the milling: the module that has it, and what its drawing and its card are called there.

    They are loaded when they are first looked at: most of them want the numerical libraries, which the
    window does not wait for.
    """

    title: str
    module: str
    drawing: str
    card: str


VIEWS = {
    MillingView.FORECAST: ViewModule("Forecast", "forecast", "draw_forecast", "forecast_card"),
    MillingView.SURVEY: ViewModule("Survey", "surveying", "draw_survey", "survey_card"),
    MillingView.STROKES: ViewModule("Strokes", "stroke_plan", "draw_strokes", "strokes_card"),
    MillingView.EDGES: ViewModule("Edges", "edge_work", "draw_edge_work", "edge_card"),
    # These two are shown by the desk itself; what they would be on paper is the nearest drawing.
    MillingView.PLANING: ViewModule("Plane it", "stroke_plan", "draw_strokes", "strokes_card"),
    MillingView.STICKS: ViewModule(N_("Read the sticks"), "surveying", "draw_survey", "sticks_card"),
}


def draw(plan: Plan, selection: Selection) -> Drawing:
    """Return the drawing on the bench."""
    view = VIEWS[selection.milling.view]
    shown = getattr(import_module(f"nullah.core.stations.{view.module}"), view.drawing)(plan, selection)
    assert isinstance(shown, Drawing)
    return shown


def card(plan: Plan, selection: Selection) -> Card:
    """Return what is carried away."""
    view = VIEWS[selection.milling.view]
    card = getattr(import_module(f"nullah.core.stations.{view.module}"), view.card)(plan, selection)
    assert isinstance(card, Card)
    return card


def state(plan: Plan) -> str:
    """Return a few words for the rod."""
    short = {item.part for item in plan.milling or () if item.short.mm > 0}
    return milling_state(None if plan.milling is None else bool(plan.milling), len(short), plan.reader)
