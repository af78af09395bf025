"""What the plan needs besides wood: tools with their settings gathered, nails and screws, glue, finish, clamps."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from typing import NamedTuple

from nullah.core.bench.working import COATS
from nullah.core.joints.fastened import row_in
from nullah.core.joints.kinds import kinds_of
from nullah.core.lengths import Length, Slope, write_bought
from nullah.core.operations.dovetails import CutPins, CutTails, SawBlindPins
from nullah.core.operations.marking import Gauge, Marker
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ByStepping, OfTool
from nullah.core.operations.taking import Take
from nullah.core.piece.joint import Hold
from nullah.core.piece.overlap import contact
from nullah.core.plan import Plan
from nullah.core.work.clamping import staves_glue_ups
from nullah.core.work.gluing import gluings, go_in_after
from nullah.core.work.joint_work import joint_work
from nullah.core.work.stock_tasks import waits_of

#: Glue spread on both faces of a joint, g/m² of joint, and finish, m² a litre for a coat (common practice).
GLUE_G_BY_M2, FINISH_M2_BY_LITRE = 250.0, 10.0


class Need(NamedTuple):
    """Something to have at hand: what, how much, and what for."""

    what: str
    much: str
    why: str = ""


def shop_list(plan: Plan) -> tuple[tuple[str, tuple[Need, ...]], ...]:
    """Return what is needed, under headings: tools, fastenings, glue and finish."""
    tools = tuple(_tools(plan))
    used = (*_fastenings(plan), *_glue(plan), *_finish(plan))
    return tuple((title, needs) for title, needs in (("Tools", tools), ("Used up", used)) if needs)


def _tools(plan: Plan) -> Iterator[Need]:
    shop = plan.project.shop
    for plane in shop.planes:
        shaving = plan.marks.write_thin(float(plane.shaving))
        yield Need(plane.kind.value.capitalize(), f"shaving {shaving}", "milling")
    if any(board.cuts for board in plan.boards):
        yield Need("Rip saw and crosscut saw", f"kerf {plan.marks.write_fine(shop.kerf)}", "sawing out")
    found: dict[tuple[str, str], dict[str, None]] = {}
    for kind in kinds_of(plan.assembly):
        work = joint_work(plan, kind)
        operations = [each for step in work.steps for each in step.operations]
        for tool, figure in _used(operations):
            found.setdefault((tool, figure), {}).setdefault(kind.name)
    for (tool, figure), kinds in sorted(found.items(), key=lambda item: (item[0][0], len(item[0][1]), item[0][1])):
        yield Need(tool, figure, ", ".join(list(kinds)[:3]) + (" …" if len(kinds) > 3 else ""))
    yield Need("Square, straightedge, winding sticks, marking knife", "", "all of it")


def _used(operations: Iterable[Operation]) -> Iterator[tuple[str, str]]:
    """Yield the tools of operations, each with its size where that matters."""
    for each in operations:
        match each:
            case Gauge():
                yield _MARKERS[each.tool], ""
            case CutTails() | CutPins() | SawBlindPins():
                yield "Fine saw", ""
            case Take(router=True):
                yield "Router plane", ""
        for setting in each.settings:
            if setting.slope is not None:
                yield "Sliding bevel", Slope(setting.slope).as_text()
            elif isinstance(setting.by, ByStepping):
                yield "Dividers", ""
            elif isinstance(setting.origin, OfTool) and setting.name in _BOUGHT:
                yield _BOUGHT[setting.name], write_bought(setting.origin.bought or Length(setting.figure))


_MARKERS = {Marker.GAUGE: "Marking gauge", Marker.KNIFE: "Marking knife", Marker.PENCIL: "Pencil"}
#: Sizes of tools in operations, by the setting's name.
_BOUGHT = {"chisel": "Chisel", "iron": "Plough, iron", "bit": "Bit", "countersink": "Countersink"}


def _fastenings(plan: Plan) -> Iterator[Need]:
    """Count nails and screws of each size, a tenth more for those that bend."""
    counts: dict[tuple[str, str], int] = {}
    for joint in plan.assembly.joints:
        row = row_in(joint)
        if row is not None:
            sold = row.fastening.size
            thick = sold.gauge or f"{write_bought(sold.thick)} thick"
            key = "Screws" if row.fastening.screws else "Nails", f"{write_bought(sold.long)}, {thick}"
            counts[key] = counts.get(key, 0) + len(row.places)
    for (what, size), count in counts.items():
        yield Need(what, f"{math.ceil(count * 1.1)}", size)


def _glue(plan: Plan) -> Iterator[Need]:
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
        yield Need(plan.project.working.glue.capitalize(), f"{grams} g", "a guess; what is spread thin is enough")
    glued = (each.clamps for each in gluings(plan, go_in_after(plan, waits_of(plan))) if each.glues)
    most = max((*glued, *(each.clamps for each in staves_glue_ups(plan))), default=0)
    if most:
        short = most - plan.project.working.clamps
        yield Need("Clamps", str(most), f"{short} more than there are" if short > 0 else "for the largest glue-up")


def _finish(plan: Plan) -> Iterator[Need]:
    coats, _ = COATS.get(plan.project.finish, (0, 0.0))
    area = sum(2 * float(part.length) * float(part.width) for part in plan.parts) / 1e6
    if coats:
        millilitres = math.ceil(area * coats / FINISH_M2_BY_LITRE * 1000 / 50) * 50
        yield Need(
            plan.project.finish.capitalize(),
            f"{millilitres} ml",
            f"{coats} coats on {plan.marks.write_area(area * 1e6)}; a guess",
        )
        yield Need("Rags", "a few", "dry them flat outdoors: soaked with oil they can ignite by themselves")
