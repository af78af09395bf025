"""What the plan needs besides wood: tools with their settings gathered, nails and screws, glue, finish, clamps."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from enum import Enum

from nullah.core.catalogue import N_
from nullah.core.joints.fastened import row_in
from nullah.core.joints.kinds import kinds_of
from nullah.core.lengths import Length, Slope
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.dovetails import CutPins, CutTails, SawBlindPins
from nullah.core.operations.marking import Gauge, Marker
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ByStepping, OfTool
from nullah.core.operations.taking import Take
from nullah.core.piece.joint import Hold
from nullah.core.piece.overlap import contact
from nullah.core.plan import Plan
from nullah.core.wood.finishes import FINISHES, NO_FINISH
from nullah.core.work.clamping import staves_glue_ups
from nullah.core.work.gluing import gluings, go_in_after
from nullah.core.work.joint_work import joint_work
from nullah.core.work.stock_tasks import waits_of

#: Glue spread on both faces of a joint, g/m² of joint, and finish, m² a litre for a coat (common practice).
GLUE_G_BY_M2, FINISH_M2_BY_LITRE = 250.0, 10.0


class PlaneNeeded(NamedTuple):
    """A bench plane, set to a shaving so thick, mm."""

    kind: str
    shaving: float


class SawsNeeded(NamedTuple):
    """The saws that break boards down, and their kerf."""

    kerf: Length


class Tool(Enum):
    """A tool that joints are made with; the value is what it is called."""

    MARKING_GAUGE = N_("marking gauge")
    MARKING_KNIFE = N_("marking knife")
    PENCIL = N_("pencil")
    FINE_SAW = N_("fine saw")
    ROUTER_PLANE = N_("router plane")
    BEVEL = N_("sliding bevel")
    DIVIDERS = N_("dividers")
    CHISEL = N_("chisel")
    IRON = N_("plow iron")
    BIT = N_("bit")
    COUNTERSINK = N_("countersink")


class ToolNeeded(NamedTuple):
    """A tool, its size or slope where that matters, and the kinds of joint it is for."""

    tool: Tool
    size: Length | Slope | None
    joints: tuple[str, ...]


class LayoutTools(NamedTuple):
    """What all work is marked and tested with."""


class FastenersNeeded(NamedTuple):
    """Nails or screws of one size: how many, with a tenth more for those that bend; `gauge` empty for none."""

    screws: bool
    number: int
    long: Length
    thick: Length
    gauge: str


class GlueNeeded(NamedTuple):
    """So many grams of a glue."""

    glue: str
    grams: int


class ClampsNeeded(NamedTuple):
    """As many clamps as the largest glue-up takes, and how many of them are missing."""

    number: int
    short: int


class FinishNeeded(NamedTuple):
    """So many millilitres of a finish, for coats on an area, mm²."""

    finish: str
    millilitres: int
    coats: int
    area: float


class RagsNeeded(NamedTuple):
    """Rags to put a finish on."""


ToolFact = PlaneNeeded | SawsNeeded | ToolNeeded | LayoutTools
UsedFact = FastenersNeeded | GlueNeeded | ClampsNeeded | FinishNeeded | RagsNeeded


class ShopList(NamedTuple):
    """What is needed: tools, and what is used up."""

    tools: tuple[ToolFact, ...]
    used: tuple[UsedFact, ...]


def shop_list(plan: Plan) -> ShopList:
    """Return what is needed besides wood."""
    return ShopList(tuple(_tools(plan)), (*_fastenings(plan), *_glue(plan), *_finish(plan)))


def _tools(plan: Plan) -> Iterator[ToolFact]:
    shop = plan.project.shop
    yield from (PlaneNeeded(plane.kind.value, float(plane.shaving)) for plane in shop.planes)
    if any(board.cuts for board in plan.boards):
        yield SawsNeeded(shop.kerf)
    found: dict[tuple[Tool, Length | Slope | None], dict[str, None]] = {}
    for kind in kinds_of(plan.assembly):
        work = joint_work(plan, kind)
        for used in _used(each for step in work.steps for each in step.operations):
            found.setdefault(used, {}).setdefault(kind.name)
    for (tool, size), kinds in sorted(found.items(), key=lambda item: (item[0][0].value, _large(item[0][1]))):
        yield ToolNeeded(tool, size, tuple(kinds))
    yield LayoutTools()


def _large(size: Length | Slope | None) -> float:
    match size:
        case Length():
            return float(size)
        case Slope():
            return float(size.run)
    return 0.0


def _used(operations: Iterable[Operation]) -> Iterator[tuple[Tool, Length | Slope | None]]:
    """Yield the tools of operations, each with its size where that matters."""
    for each in operations:
        match each:
            case Gauge():
                yield _MARKERS[each.tool], None
            case CutTails() | CutPins() | SawBlindPins():
                yield Tool.FINE_SAW, None
            case Take(router=True):
                yield Tool.ROUTER_PLANE, None
        for setting in each.settings:
            if setting.slope is not None:
                yield Tool.BEVEL, Slope(setting.slope)
            elif isinstance(setting.by, ByStepping):
                yield Tool.DIVIDERS, None
            elif isinstance(setting.origin, OfTool) and setting.name in _BOUGHT:
                yield _BOUGHT[setting.name], setting.origin.bought


_MARKERS = {Marker.GAUGE: Tool.MARKING_GAUGE, Marker.KNIFE: Tool.MARKING_KNIFE, Marker.PENCIL: Tool.PENCIL}
#: Sizes of tools in operations, by the setting's name.
_BOUGHT = {"chisel": Tool.CHISEL, "iron": Tool.IRON, "bit": Tool.BIT, "countersink": Tool.COUNTERSINK}


def _fastenings(plan: Plan) -> Iterator[FastenersNeeded]:
    """Count nails and screws of each size, a tenth more for those that bend."""
    counts: dict[tuple[bool, Length, Length, str], int] = {}
    for joint in plan.assembly.joints:
        row = row_in(joint)
        if row is not None:
            sold = row.fastening.size
            key = row.fastening.screws, sold.long, sold.thick, sold.gauge
            counts[key] = counts.get(key, 0) + len(row.places)
    for (screws, long, thick, gauge), count in counts.items():
        yield FastenersNeeded(screws, math.ceil(count * 1.1), long, thick, gauge)


def _glue(plan: Plan) -> Iterator[GlueNeeded | ClampsNeeded]:
    area = 0.0
    for joint in plan.assembly.joints:
        first, second = plan.part(joint.first), plan.part(joint.second)
        if joint.hold is not Hold.GLUE or first is None or second is None:
            continue
        touching = contact(first, second)
        if touching is not None:
            spans = (float(high - low) for low, high in zip(touching.low, touching.high, strict=True))
            _, middle, longest = sorted(spans)
            area += longest * middle
    if area:
        grams = math.ceil(area / 1e6 * GLUE_G_BY_M2 / 10) * 10
        yield GlueNeeded(plan.project.working.glue, grams)
    glued = (each.clamps for each in gluings(plan, go_in_after(plan, waits_of(plan))) if each.glues)
    most = max((*glued, *(each.clamps for each in staves_glue_ups(plan))), default=0)
    if most:
        yield ClampsNeeded(most, max(0, most - plan.project.working.clamps))


def _finish(plan: Plan) -> Iterator[FinishNeeded | RagsNeeded]:
    coats = FINISHES.get(plan.project.finish, FINISHES[NO_FINISH]).coats
    area = sum(2 * float(part.length) * float(part.width) for part in plan.parts) / 1e6
    if coats:
        millilitres = math.ceil(area * coats / FINISH_M2_BY_LITRE * 1000 / 50) * 50
        yield FinishNeeded(plan.project.finish, millilitres, coats, area * 1e6)
        yield RagsNeeded()
