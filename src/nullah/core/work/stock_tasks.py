"""Tasks of the stock: sawing boards apart, letting them dry, milling; and what each part is cut to fit."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from datetime import date
from types import MappingProxyType

from nullah.core.bench.task_facts import (
    FindWood,
    FlattenWhole,
    GlueSections,
    GlueStavesUp,
    LetDry,
    MillParts,
    ResawParts,
    SawBoard,
    TaskFact,
)
from nullah.core.bench.tasks import LayoutLine, Task
from nullah.core.bench.trades import Trade
from nullah.core.bench.working import GLUES
from nullah.core.board_plans import BoardPlan, sawing_of
from nullah.core.breakdown.rough import RoughPart
from nullah.core.identity import kept_by_identity
from nullah.core.ledger import Ledger, Origin
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.operation import Operation
from nullah.core.operations.sawing import SawThrough
from nullah.core.operations.stock import Surface
from nullah.core.piece.form import Assembly
from nullah.core.piece.part import Part
from nullah.core.plan import Plan
from nullah.core.rack.drying import readiness
from nullah.core.refs import BoardRef, PartRef
from nullah.core.rules import names_in
from nullah.core.wood.species import SpeciesError, find_species
from nullah.core.work.bench_work import measured_for
from nullah.core.work.clamping import spreading, staves_glue_up
from nullah.core.work.meetings import Meetings, meetings_of
from nullah.core.work.milling import (
    flattened_whole,
    flattening,
    gluing_of_staves,
    gluing_together,
    milled_like,
    milling_operations,
    resawing,
    stripped,
)
from nullah.core.work.sawing import saw_operations

#: Hardness the rates are for, N (of the order of black cherry).
_USUAL_HARDNESS = 4200.0


#: A rip as high as this is sawn as fast as the rates say, mm (of the order of a board's thickness).
_RIP_HIGH = 25.0


def hardness_of(plan: Plan, part: Part) -> float:
    """Return how much harder the wood of a part works than cherry: half of it goes with hardness (a guess)."""
    return hardness_of_species(plan.species_of(part))


def hardness_of_species(species: str) -> float:
    """Return how much harder a wood works than cherry: half of it goes with hardness (a guess)."""
    if not species:
        return 1.0
    try:
        return 0.5 + 0.5 * find_species(species).hardness / _USUAL_HARDNESS
    except SpeciesError:
        return 1.0


#: A resawn blank lies so long on sticks before it is planed, hours (common practice: some days).
_RESAWN_WAITS = 72.0


def saw_tasks(plan: Plan) -> tuple[Task, ...]:
    """Saw every board apart that has parts on it, and let dry what is not dry; find wood for what lies nowhere."""
    found: list[Task] = []
    for board_plan in plan.boards:
        board = board_plan.board
        if not board_plan.placed:
            continue
        parts = tuple(dict.fromkeys(part for item in board_plan.placed for part in item.part.parts))
        if not board.sawn:
            found += _sawn_apart(plan, board_plan, parts)
        last = (found[-1].id,) if found and found[-1].id == f"saw/{board.id}" else ()
        days = _days_to_dry(plan, board.id)
        if days > 0:
            what = LetDry(board.name, days)
            found.append(
                Task(f"dry/{board.id}", what, Trade.DRY, parts, last, waits=24.0 * days, subject=BoardRef(board.id))
            )
            last = (found[-1].id,)
        found += [_resawn(plan, item.part, last) for item in board_plan.placed if _to_resaw(item.part)]
    bare = tuple(part.id for part in plan.parts if not plan.laid(part.id))
    if bare:
        found.append(Task("wood", FindWood(bare), Trade.SAW, bare, (), (("set up", 5.0),)))
    return tuple(found)


def _to_resaw(piece: RoughPart) -> bool:
    """Return whether a blank is resawn for two parts, and not a strip crosscut for more."""
    return len(piece.parts) > 1 and not piece.strip


def _sawn_apart(plan: Plan, board_plan: BoardPlan, parts: tuple[str, ...]) -> list[Task]:
    """Return the sawing of a board, and its flattening before that where the forecast takes it to be flattened."""
    board, cuts = board_plan.board, saw_operations(plan, board_plan)
    ref = BoardRef(board.id)
    if not flattened_whole(plan, board_plan):
        return [_sawing(plan, board_plan, f"saw/{board.id}", parts, (), cuts)]
    found: list[Task] = []
    if plan.project.first_cut(board.id) is not None:
        found.append(_sawing(plan, board_plan, f"saw/{board.id}/first", parts, (), cuts[:1]))
        cuts = cuts[1:]
    flat = flattening(plan, board_plan)
    gone = float(board.thickness.mm - flat.setting.figure) * float(board.length) * float(board.width) / 1000
    before = tuple(task.id for task in found)
    what = FlattenWhole(board.name)
    work = (("plane", gone * hardness_of_species(board.species)), ("set up", 1.0))
    found.append(Task(f"flatten/{board.id}", what, Trade.MILL, parts, before, work, subject=ref, operations=(flat,)))
    found.append(_sawing(plan, board_plan, f"saw/{board.id}", parts, (found[-1].id,), cuts))
    return found


def _sawing(
    plan: Plan,
    board_plan: BoardPlan,
    name: str,
    parts: tuple[str, ...],
    after: tuple[str, ...],
    cuts: tuple[SawThrough, ...],
) -> Task:
    board = board_plan.board
    load = sawing_of(board).load
    metres = {across: sum(float(cut.long) for cut in cuts if cut.across is across) / 1000 for across in (True, False)}
    what = SawBoard(board.name, len(cuts))
    work = (("cross", metres[True] * load), ("rip", metres[False] * load), ("start", float(len(cuts))))
    return Task(name, what, Trade.SAW, parts, after, work, subject=BoardRef(board.id), operations=cuts)


def _resawn(plan: Plan, piece: RoughPart, after: tuple[str, ...]) -> Task:
    """Saw a blank through its thickness, for two parts."""
    made = resawing(plan, piece)
    # Two rips as high as the blank is wide, from either edge.
    work = (("rip", float(piece.length) / 1000 * max(1.0, float(piece.width) / _RIP_HIGH)), ("set up", 1.0))
    return Task(
        f"resaw/{piece.id}",
        ResawParts(piece.parts),
        Trade.SAW,
        piece.parts,
        after,
        work,
        _RESAWN_WAITS,
        subject=PartRef(piece.parts[0]),
        operations=(made,),
    )


#: Wood is dry when it is so near to the room's own, % moisture; what is hardly over that takes a day or two.
_NEARLY_DRY = 1.02


def _days_to_dry(plan: Plan, board_id: str) -> int:
    """Return how many days after its last reading a board, sawn into its parts, is as dry as the room; 0 if it is."""
    board_plan = next(each for each in plan.boards if each.board.id == board_id)
    sizes = [(item.rect.length, item.rect.width) for item in board_plan.placed]
    size = max(sizes, default=None)
    found = readiness(board_plan.board, plan.project.room, size)
    if found is None or found.ready:
        return 0
    gone = (date.fromisoformat(found.last) - date.fromisoformat(found.first)).days
    left = math.ceil(found.days[1] - gone)
    # The last reading may be wetter than its curve, which then says that it should be dry: it is as far off as it is.
    return left if left > 0 else math.ceil(found.time_constant * math.log(max(found.difference, _NEARLY_DRY)))


class MillTasks(NamedTuple):
    """The milling of all parts, and which task mills which part last."""

    tasks: tuple[Task, ...]
    by_part: dict[str, str]


def mill_tasks(plan: Plan, saw: tuple[Task, ...]) -> MillTasks:
    """Mill equal parts together; wide ones out of staves are glued up first."""
    after_of: dict[str, list[str]] = {}
    for sawn in saw:
        for part_id in sawn.parts:
            after_of.setdefault(part_id, []).append(sawn.id)
    tasks: list[Task] = []
    by_part: dict[str, str] = {}
    groups: dict[str, list[Part]] = {}
    for part in plan.parts:
        groups.setdefault(part.alike, []).append(part)
    for alike, parts in groups.items():
        ids = tuple(part.id for part in parts)
        after = tuple(dict.fromkeys(name for each in ids for name in after_of.get(each, ())))
        like = (milled_like(plan, parts[0], each) for each in (Surface.FACE_EDGE, Surface.REFERENCE_END))
        set_from = tuple(dict.fromkeys(by_part[other.id] for other in like if other is not None))
        glued = _glued_up(plan, alike, parts, after)
        tasks += glued
        after = (*((glued[-1].id,) if glued else after), *set_from)
        waiting = any(plan.waiting(part) or _fits(plan.ledger, part) for part in parts)
        ends = 0 if waiting else 2 * len(parts)
        trued = 1 if stripped(plan, parts[0]) else len(parts)
        work = (("plane", _shavings(plan, parts)), ("true", float(trued)), ("end", float(ends)))
        long, wide = map(bool, measured_for(plan.ledger, parts[0]))
        task = Task(
            f"mill/{alike}",
            MillParts(ids, long, wide),
            Trade.MILL,
            ids,
            after,
            work,
            draws=tuple(LayoutLine(each, "face marks", "face") for each in ids),
            removes=tuple((each, "all") for each in ids),
            subject=PartRef(ids[0]),
            operations=_milled(plan, parts),
        )
        tasks.append(task)
        by_part |= dict.fromkeys(ids, task.id)
    return MillTasks(tuple(tasks), by_part)


def _glued_up(plan: Plan, alike: str, parts: list[Part], after: tuple[str, ...]) -> list[Task]:
    """Return the glueing up of equal parts out of staves: none, one go, or several and then all together."""
    pieces = [piece for part in parts for piece in plan.pieces_of(part.id)]
    made = staves_glue_up(plan, parts[0]) if len(pieces) > len(parts) else None
    if made is None:
        return []
    ids = tuple(part.id for part in parts)
    glue = GLUES[plan.project.working.glue]
    # What one seam is to spread, of a part's length and thickness.
    seam = float(parts[0].cut_length) * float(parts[0].thickness)

    def task(
        name: str, what: TaskFact, operations: tuple[Operation, ...], seams: int, trued: int, before: tuple[str, ...]
    ) -> Task:
        work = (("true", float(trued)), ("glue", spreading([seam] * seams * len(parts), seams=True)))
        return Task(
            name,
            what,
            Trade.MILL,
            ids,
            before,
            work,
            glue.cure_hours,
            subject=PartRef(ids[0]),
            whole=True,
            operations=operations,
        )

    staves = tuple(gluing_of_staves(plan, part, made) for part in parts)
    goes = len(made.goes)
    if goes == 1:
        return [task(f"staves/{alike}", GlueStavesUp(ids, sections=False), staves, made.number - 1, len(pieces), after)]
    apart = GlueStavesUp(ids, sections=True)
    first = task(f"staves/{alike}/sections", apart, staves, made.number - goes, len(pieces), after)
    together = tuple(gluing_together(plan, part, made) for part in parts)
    return [first, task(f"staves/{alike}", GlueSections(ids), together, goes - 1, goes * len(parts), (first.id,))]


def _milled(plan: Plan, parts: Iterable[Part]) -> tuple[Operation, ...]:
    """Return the milling of equal parts, each surface of all of them before the next."""
    every = [tuple(milling_operations(plan, part)) for part in parts]
    return tuple(each for alike in zip(*every, strict=True) for each in alike)


def _shavings(plan: Plan, parts: Iterable[Part]) -> float:
    """Return what is planed off some parts, cm³, weighed by how hard they are."""
    gone = 0.0
    for part in parts:
        rough = sum(
            float(piece.length) * float(piece.width) * float(piece.thickness) / len(piece.parts)
            for piece in plan.pieces_of(part.id)
        )
        # What is rough beneath keeps what planing there would have taken.
        thick = float(part.thickness) + (float(plan.project.allowances.thickness) / 2 if part.one_face else 0.0)
        kept = float(part.cut_length) * float(part.width) * thick
        gone += max(rough - kept, 0.0) / 1000 * hardness_of(plan, part)
    return gone


# --- what fits what -------------------------------------------------------------------------------


def _fits(ledger: Ledger | None, part: Part) -> tuple[str, ...]:
    """Return what a part is cut to fit, measured already or not; nothing where its size was given after all."""
    if ledger is None:
        return ()
    names: list[str] = []
    for name in part.quantities:
        if name in ledger.quantities:
            quantity = ledger.quantity(name)
            if quantity.origin in (Origin.WAITS, Origin.FITTED):
                names += quantity.fits
    return tuple(dict.fromkeys(names))


def waits_of(plan: Plan) -> Mapping[str, tuple[str, ...]]:
    """Return what each part is cut to fit, of those that are."""
    return _openings(plan.assembly, plan.ledger).waits


def hosts_of(plan: Plan, part_id: str) -> frozenset[str]:
    """Return the parts that make the opening a part is cut to; none where it is cut to no opening.

    They are those it is joined to that do not wait for the same. Where there are none it goes into the finished piece,
    and fits all of that which waits for nothing of the same. What goes in with it, such as the slips of a drawer, is no
    part of the opening.
    """
    return _openings(plan.assembly, plan.ledger).hosts.get(part_id, frozenset())


class _Openings(NamedTuple):
    """What each part that is cut to fit waits for, and the parts that make its opening."""

    waits: Mapping[str, tuple[str, ...]]
    hosts: Mapping[str, frozenset[str]]


@kept_by_identity(4)
def _openings(assembly: Assembly, ledger: Ledger | None) -> _Openings:
    parts = {part.id: part for part in assembly.parts}
    waits = {part.id: names for part in assembly.parts if (names := _fits(ledger, part))}
    fixed = frozenset(part.id for part in assembly.parts if not part.group)
    same = {
        names: frozenset(part for part, wanted in waits.items() if not set(names).isdisjoint(wanted))
        for names in set(waits.values())
    }
    # A board that was added to a form is no part of its openings.
    added = frozenset(part.id for part in assembly.parts if part.own)
    cut = ((parts[part], same[names] | added) for part, names in waits.items())
    hosts = {part.id: _joined_hosts(assembly, ledger, part, alike) or fixed - alike for part, alike in cut}
    return _Openings(MappingProxyType(waits), MappingProxyType(hosts))


def _joined_hosts(assembly: Assembly, ledger: Ledger | None, part: Part, other: frozenset[str]) -> frozenset[str]:
    """Return what a part is joined to, without `other`, as what waits for the same, nor what goes in with it."""
    met = meetings_of(assembly).get(part.id, Meetings())
    own = [each for each in assembly.parts if part.group and each.group == part.group]
    sizes = {name for each in own for name in each.quantities}
    fitted = _fits(ledger, part)
    # An opening that hangs on its own group is within it, as that for the bottom of a drawer.
    rules = () if ledger is None else (ledger.quantity(name).definition.rule for name in fitted)
    within = any(not sizes.isdisjoint(names_in(rule)) for rule in rules if rule)
    with_it = frozenset() if within else frozenset(each.id for each in own)
    # What enters it, as the runners of a frame do its rails, is no part of the opening either.
    around = (each - other - with_it for each in (met.entered, met.joined))
    return next(filter(None, around), frozenset())
