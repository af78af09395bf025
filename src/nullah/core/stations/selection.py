"""What is selected on the desk: in common, and at each station."""

from __future__ import annotations

from enum import Enum

from nullah.core.named_tuple import NamedTuple
from nullah.core.rack.shape_readings import ShapeReading


class RackSelection(NamedTuple):
    """At the rack: a flaw of the board, by its place in the board's list."""

    flaw: int | None = None


class BreakdownSelection(NamedTuple):
    """In the breakdown: a rough piece, and the cut of the saw order that is shown, from 0."""

    piece: str = ""
    cut: int | None = None


class MillingView(Enum):
    """A way of looking at the milling."""

    FORECAST = "forecast"
    SURVEY = "survey"
    STROKES = "strokes"
    EDGES = "edges"
    PLANING = "planing"
    STICKS = "sticks"


class MillingSelection(NamedTuple):
    """At the milling.

    Parameters
    ----------
    view : MillingView
    upper : bool, optional
        Whether the upper face lies up in the survey; None: the usual one.
    reading : ShapeReading, optional
        The reading that is about to be taken.
    step : int
        The step of the stroke plan, from 0.
    edge : (float, float), optional
        Hump of the edge and light under the square, mm; None: not looked at.
    edge_task : (str, tuple of float), optional
        The shape an edge is to get and its figures, mm and degrees.
    """

    view: MillingView = MillingView.FORECAST
    upper: bool | None = None
    reading: ShapeReading | None = None
    step: int = 0
    edge: tuple[float, float] | None = None
    edge_task: tuple[str, tuple[float, ...]] | None = None


class JointsSelection(NamedTuple):
    """At the joints.

    Parameters
    ----------
    kind : str
        The id of a joint of the piece; empty: the first of the selected part.
    step : int, optional
        The step that is shown, from 0; None: the whole joint.
    """

    kind: str = ""
    step: int | None = None


class DayBookSelection(NamedTuple):
    """At the day book: a task, whether the calendar is shown, and the time (ISO), where something hangs on it."""

    task: str = ""
    calendar: bool = False
    now: str = ""


class Selection(NamedTuple):
    """A part, a quantity and a board, which are selected at all stations alike; and what is at each."""

    part: str = ""
    quantity: str = ""
    board: str = ""
    rack: RackSelection = RackSelection()
    breakdown: BreakdownSelection = BreakdownSelection()
    milling: MillingSelection = MillingSelection()
    joints: JointsSelection = JointsSelection()
    daybook: DayBookSelection = DayBookSelection()
