"""The order of work as plain data: what ``nullah work`` answers."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from nullah.core.bench.tasks import Task
from nullah.core.bench.trades import Trade
from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.operations.dovetails import ChopBlindSockets, CutPins, CutTails, SawBlindPins, SawMitre
from nullah.core.operations.fastening import Bore, BoreSlots, SetOutRow, TracePlaces
from nullah.core.operations.fingers import StepFingers
from nullah.core.operations.lines import Line
from nullah.core.operations.marking import DrawSlopes, Gauge, SetOff, StepOff, Trace
from nullah.core.operations.milling import (
    FlattenBoard,
    GlueStaves,
    GlueTogether,
    LeaveOver,
    LeaveRough,
    PlaneTrue,
    Resaw,
    WorkTo,
)
from nullah.core.operations.mitres import KeySlot, MitreEnd
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import BeyondRegion, BoreRegion, HullRegion, PrismRegion, Region
from nullah.core.operations.sawing import SawThrough
from nullah.core.operations.settings import (
    By,
    ByMate,
    ByMeasure,
    ByStepping,
    OfLine,
    OfMate,
    OfTool,
    Origin,
    ToolSetting,
)
from nullah.core.operations.shaping import BevelEdge, PlaneTaper, RoundEdge, SawArch, SawCorners, SawOgee, SawOutline
from nullah.core.operations.sliding import SawHousing, SlopeTail
from nullah.core.operations.stock import AXES, Surface
from nullah.core.operations.taking import CutToSize, PlaneOff, Take
from nullah.core.operations.tenons import GaugePair, SawTenon
from nullah.core.operations.wedges import ChopWedgeSlot
from nullah.core.plan import Plan
from nullah.core.work.bench_work import blank_of
from nullah.core.work.day_book import task_minutes
from nullah.core.work.order_of_work import OrderOfWork

#: What a task is called, by its trade.
_KINDS = {
    Trade.DRY: "dry",
    Trade.SAW: "saw",
    Trade.MILL: "mill",
    Trade.JOINT: "joint",
    Trade.MEASURE: "measure",
    Trade.FIT: "fit",
    Trade.SHAPE: "shape",
    Trade.SMOOTH: "clean",
    Trade.GLUE: "join",
    Trade.PUT_IN: "join",
    Trade.CLEAN: "clean",
    Trade.HARDWARE: "hardware",
    Trade.FINISH: "finish",
}


#: What each operation is done with, where it does not say so itself.
_TOOLS: dict[type[Operation], str] = {
    StepOff: N_("dividers"),
    SetOff: N_("rule and square"),
    DrawSlopes: N_("sliding bevel"),
    Trace: N_("knife"),
    CutTails: N_("saw and chisel"),
    CutPins: N_("saw and chisel"),
    SawBlindPins: N_("saw"),
    ChopBlindSockets: N_("chisel"),
    SawMitre: N_("saw"),
    SetOutRow: N_("dividers"),
    TracePlaces: N_("bradawl"),
    Bore: N_("bit"),
    BoreSlots: N_("bit and chisel"),
    GaugePair: N_("mortise gauge"),
    StepFingers: N_("dividers"),
    SawTenon: N_("saw"),
    MitreEnd: N_("saw"),
    KeySlot: N_("saw and chisel"),
    ChopWedgeSlot: N_("chisel"),
    SlopeTail: N_("saw and plane"),
    SawHousing: N_("saw and chisel"),
    PlaneTaper: N_("plane"),
    BevelEdge: N_("plane"),
    RoundEdge: N_("plane"),
    SawArch: N_("saw and spokeshave"),
    SawOgee: N_("saw and spokeshave"),
    SawOutline: N_("saw and spokeshave"),
    SawCorners: N_("saw and chisel"),
    PlaneOff: N_("plane"),
    CutToSize: N_("saw and plane"),
    SawThrough: N_("saw"),
    PlaneTrue: N_("plane"),
    WorkTo: N_("gauge and plane"),
    LeaveOver: N_("none"),
    LeaveRough: N_("scraper"),
    GlueStaves: N_("plane and clamps"),
    GlueTogether: N_("plane and clamps"),
    Resaw: N_("gauge and saw"),
    FlattenBoard: N_("plane"),
}


def work_data(
    plan: Plan, order: OrderOfWork, words: Callable[[Operation], str], titles: Callable[[Task], str]
) -> dict[str, Any]:
    """Return parts and tasks with their operations as data; lengths in mm.

    Parameters
    ----------
    plan : Plan
    order : OrderOfWork
    words : callable
        What an operation says.
    titles : callable
        What a task is called.
    """
    return {
        "mark_mm": _number(plan.marks.smallest.mm),
        "parts": [
            {"id": part.id, "name": part.name, "blank_mm": [_number(size) for size in blank_of(plan, part)]}
            for part in plan.parts
        ],
        "tasks": [_task(plan, task, titles(task), words) for task in order.tasks],
    }


def _task(plan: Plan, task: Task, title: str, words: Callable[[Operation], str]) -> dict[str, Any]:
    found: dict[str, Any] = {
        "id": task.id,
        "title": title,
        "kind": _KINDS[task.trade],
        "parts": list(task.parts),
        "after": list(task.after),
        "minutes": round(task_minutes(plan, task), 1),
        "operations": [_operation(each, words(each)) for each in task.operations],
        "measures": [{"quantity": name, "between": list(task.between)} for name in task.measures],
        "joins": [{"parts": list(join.parts), "how": join.how.value} for join in task.joins],
    }
    if task.on_assembly:
        found["on_assembly"] = True
    return found


def _operation(made: Operation, words: str) -> dict[str, Any]:
    return {
        "part": made.part,
        "op": type(made).__name__,
        "tool": _tool(made),
        "words": words,
        "settings": [_setting(each) for each in made.settings],
        "draws": [_line(each) for each in made.draws],
        "needs": [_line(each) for each in made.needs],
        "takes": [_region(each) for each in made.takes],
    }


def _tool(made: Operation) -> str:
    match made:
        case Gauge():
            return str(made.tool.value)
        case Take():
            return str(made.cut.value)
        case _:
            return _TOOLS[type(made)]


def _setting(made: ToolSetting) -> dict[str, Any]:
    found: dict[str, Any] = {
        "name": made.name,
        "value_mm": None if made.value is None else _number(made.value),
        "from": _origin(made.origin),
        "by": _by(made.by),
    }
    if made.slope is not None:
        found["slope"] = float(made.slope)
    return found


def _origin(origin: Origin) -> str:
    match origin:
        case Surface():
            return origin.value
        case OfTool():
            return "tool"
        case OfLine(name=name):
            return f"line {name}"
        case OfMate(part):
            return f"mate {part}"


def _by(by: By) -> str:
    match by:
        case ByMate(part):
            return f"mate {part}"
        case ByMeasure(quantity):
            return f"measured {quantity}"
        case ByStepping():
            return "stepping"
        case _:
            return "rule"


def _line(line: Line) -> dict[str, Any]:
    found: dict[str, Any] = {"name": line.name, "on": [surface.value for surface in line.on]}
    if line.axis is not None:
        found |= {"axis": AXES[line.axis], "at_mm": _number(line.at)}
    if line.radius is not None:
        found["radius_mm"] = _number(line.radius)
    if line.offsets:
        found["offsets_mm"] = [[_number(at), _number(deep)] for at, deep in line.offsets]
    return found


def _region(region: Region) -> dict[str, Any]:
    match region:
        case PrismRegion(axis, polygon, start, end):
            return {
                "shape": "prism",
                "axis": AXES[axis],
                "polygon_mm": [[_number(a), _number(b)] for a, b in polygon],
                "from_mm": _number(start),
                "to_mm": _number(end),
            }
        case BoreRegion(axis, centre, diameter, start, end, to_diameter):
            found = {
                "shape": "bore",
                "axis": AXES[axis],
                "centre_mm": [_number(each) for each in centre],
                "diameter_mm": _number(diameter),
                "from_mm": _number(start),
                "to_mm": _number(end),
            }
            return found if to_diameter is None else {**found, "to_diameter_mm": _number(to_diameter)}
        case HullRegion(points):
            return {"shape": "hull", "points_mm": _points(points)}
        case BeyondRegion(point, normal):
            return {"shape": "beyond", "point_mm": _points([point])[0], "normal": list(normal)}


def _points(points: Sequence[Sequence[float]]) -> list[list[float]]:
    return [[_number(each) for each in point] for point in points]


def _number(value: Fraction | float) -> float:
    return round(float(value), 6)
