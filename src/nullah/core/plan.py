"""The plan: all that follows from a project. One function, `work_out`, pure and cheap.

Its steps keep their last results by their inputs, so a changed dimension works out only
what hangs on it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from types import MappingProxyType
from typing import NamedTuple

from nullah.core.breakdown.cuts import NotSawableError, SawCut, saw_cuts
from nullah.core.breakdown.layout import PlacedPart, Rect, Unplaced, complaints, consumed, place
from nullah.core.breakdown.reasons import why_unplaced
from nullah.core.breakdown.rough import RoughPart, rough_parts
from nullah.core.card import Remark, Weight
from nullah.core.joints import dovetail, runout
from nullah.core.ledger import Ledger, LedgerError, Origin, Value, work_out_ledger
from nullah.core.lengths import Direction, Length, Marks, Slope
from nullah.core.piece.form import Assembly, Form
from nullah.core.piece.forms import FORMS
from nullah.core.piece.overlap import Sharing
from nullah.core.piece.part import Part
from nullah.core.project import Project
from nullah.core.rack.board import Board

TYPE_CHECKING = False
if TYPE_CHECKING:  # the forecast brings numpy: only loaded when milling is asked for
    from nullah.core.milling.forecast import Forecast


class BoardPlan(NamedTuple):
    """One board with what lies on it, its cuts in order, and what is wrong, by part id."""

    board: Board
    placed: tuple[PlacedPart, ...]
    cuts: tuple[SawCut, ...]
    wrong: Mapping[str, str]
    not_sawable: str = ""

    @property
    def consumed(self) -> float:
        """Wood used, mm²."""
        return consumed(self.board, self.placed)


class Corner(NamedTuple):
    """The dovetailed corner: its layout, which boards are which, and all that is to be minded."""

    layout: dovetail.DovetailLayout
    tail_boards: tuple[str, ...]
    pin_boards: tuple[str, ...]
    groove: tuple[Length, Length, Length]
    remarks: tuple[Remark, ...]
    run_out: runout.RunOut


class PartState(NamedTuple):
    """Where a part stands, in a few words."""

    words: str
    weight: Weight = Weight.NOTE


@dataclass(frozen=True)
class Plan:
    """All output. `ledger` is None and `problem` says why if the rules cannot be worked out.

    `milling` is None as long as it was not asked for.
    """

    project: Project
    form: Form
    choices: Mapping[str, str]
    ledger: Ledger | None
    assembly: Assembly
    rough: tuple[RoughPart, ...]
    boards: tuple[BoardPlan, ...]
    unplaced: tuple[Unplaced, ...]
    corner: Corner | None
    milling: tuple[Forecast, ...] | None
    problem: str = ""

    @property
    def marks(self) -> Marks:
        """How figures are written."""
        return self.project.marks

    @property
    def parts(self) -> tuple[Part, ...]:
        """The parts of the piece."""
        return self.assembly.parts

    def part(self, part_id: str) -> Part | None:
        """Give the part of that id, if there is one."""
        return self.assembly.part(part_id)

    def rough_part(self, part_id: str) -> RoughPart | None:
        """Give the rough part of that id, if there is one."""
        return next((rough for rough in self.rough if rough.id == part_id), None)

    def board_of(self, part_id: str) -> BoardPlan | None:
        """Give the board a part lies on, if it lies on one."""
        return next((b for b in self.boards if any(i.part.id == part_id for i in b.placed)), None)

    def forecast_of(self, part_id: str) -> Forecast | None:
        """Give the thickness forecast of a part, if there is one."""
        return next((item for item in self.milling or () if item.part == part_id), None)

    def waiting(self, part: Part) -> tuple[str, ...]:
        """Give the ledger names that must be measured before this part may be cut to size."""
        if self.ledger is None:
            return ()
        names = [other for name in part.quantities for other in self.ledger.waits_for(name)]
        return tuple(dict.fromkeys(names))

    def state_of(self, part: Part) -> PartState:
        """Say where a part stands; what stops it first comes first."""
        board = self.board_of(part.id)
        if board is not None and part.id in board.wrong:
            return PartState("cannot lie there", Weight.FAILS)
        forecast = self.forecast_of(part.id)
        if forecast is not None and forecast.short.mm > 0:
            return PartState(f"{self.marks.write_fine(forecast.short)} too thin", Weight.FAILS)
        if board is None:
            return PartState("no wood yet", Weight.LOOK)
        if self.waiting(part):
            return PartState("leave long", Weight.LOOK)
        if self.ledger is not None and any(
            self.ledger.quantity(name).origin is Origin.MEASURED for name in part.quantities
        ):
            return PartState("measured")
        return PartState("planned")

    def unsettled(self) -> tuple[str, ...]:
        """Say what is not settled yet, a few words each, what stops the work first."""
        if self.problem:
            return (self.problem,)
        found: list[str] = []
        if any(remark.weight is Weight.FAILS for remark in self.assembly.remarks):
            found.append("the piece cannot be made yet")
        corner_fails = self.corner and any(r.weight is Weight.FAILS for r in self.corner.remarks)
        if corner_fails:
            found.append("the corner cannot be made yet")
        wrong = sum(len(board.wrong) + bool(board.not_sawable) for board in self.boards)
        found += _counted(wrong, "part wrongly laid", "parts wrongly laid")
        short = sum(1 for item in self.milling or () if item.short.mm > 0)
        found += _counted(short, "part too thin", "parts too thin")
        found += _counted(len(self.unplaced), "part without wood", "parts without wood")
        waiting = {name for part in self.parts for name in self.waiting(part)}
        found += _counted(len(waiting), "measurement to take", "measurements to take")
        return tuple(found)


def _counted(number: int, one: str, many: str) -> list[str]:
    return [] if number == 0 else [f"{number} {one if number == 1 else many}"]


def work_out(project: Project, milling: bool = True) -> Plan:
    """Work out all that follows from a project.

    Parameters
    ----------
    project : Project
    milling : bool
        Whether to forecast thicknesses, which loads the numerical libraries at its first use.

    Returns
    -------
    Plan
        Never raises for what a user can give: what is wrong stands in the plan, in words.
    """
    form = FORMS[project.piece.form]
    choices = form.settled(dict(project.piece.choices))
    key = (form.id, tuple(choices.items()), project.piece.given, project.piece.measured)
    ledger, assembly, problem = _piece(*key)
    rough = rough_parts(assembly.parts, project.allowances)
    boards = _boards(project, rough)
    laid = {item.part.id for board in boards for item in board.placed}
    unplaced = tuple(
        Unplaced(part, why_unplaced(part, project.boards, project.marks)) for part in rough if part.id not in laid
    )
    return Plan(
        project=project, form=form, choices=MappingProxyType(choices), ledger=ledger, assembly=assembly,
        rough=rough, boards=boards, unplaced=unplaced, corner=_corner(ledger, assembly, project),
        milling=_forecasts(project, assembly, boards) if milling else None, problem=problem,
    )  # fmt: skip


_Pairs = tuple[tuple[str, Value], ...]


@lru_cache(maxsize=64)
def _piece(
    form_id: str, choices: tuple[tuple[str, str], ...], given: _Pairs, measured: _Pairs
) -> tuple[Ledger | None, Assembly, str]:
    form, chosen = FORMS[form_id], dict(choices)
    try:
        ledger = work_out_ledger(form.define(chosen), dict(given), dict(measured))
    except LedgerError as error:
        return None, Assembly(remarks=(Remark(str(error), Weight.FAILS),)), str(error)
    return ledger, form.assemble(ledger, chosen), ""


def _boards(project: Project, rough: tuple[RoughPart, ...]) -> tuple[BoardPlan, ...]:
    by_id = {part.id: part for part in rough}
    plans = []
    for board in project.boards:
        placed = tuple(
            place(by_id[item.part], item) for item in project.layout if item.board == board.id and item.part in by_id
        )
        plans.append(_board_plan(board, placed, project))
    return tuple(plans)


def _board_plan(board: Board, placed: tuple[PlacedPart, ...], project: Project) -> BoardPlan:
    wrong = complaints(board, placed, project.shop.kerf, project.marks)
    if wrong:
        return BoardPlan(board, placed, (), MappingProxyType(wrong))
    whole = Rect(0, 0, float(board.length), float(board.width))
    try:
        return BoardPlan(board, placed, saw_cuts(whole, placed, float(project.shop.kerf)), MappingProxyType({}))
    except NotSawableError as error:
        return BoardPlan(board, placed, (), MappingProxyType({}), str(error))


def _forecasts(project: Project, assembly: Assembly, boards: tuple[BoardPlan, ...]) -> tuple[Forecast, ...]:
    from nullah.core.milling.forecast import Patch, forecast

    found = []
    for board in boards:
        for item in board.placed:
            part = assembly.part(item.part.id)
            if part is not None:
                first = board.board.id in project.cut_first
                patch = Patch(item.rect.x, item.rect.end, item.rect.y, item.rect.top)
                found.append(forecast(part.id, board.board, patch, part.thickness, first))
    return tuple(found)


def _corner(ledger: Ledger | None, assembly: Assembly, project: Project) -> Corner | None:
    dovetails = [joint for joint in assembly.joints if joint.sharing is Sharing.DOVETAIL]
    if ledger is None or not dovetails:
        return None
    tail, pin = assembly.part(dovetails[0].first), assembly.part(dovetails[0].second)
    if tail is None or pin is None:
        return None
    spec = dovetail.Dovetail(
        width=tail.width, tail_thickness=tail.thickness, pin_thickness=pin.thickness,
        tails=int(ledger["tails.count"]), half_pin=ledger.length("tails.half_pin"),
        pin=ledger.length("tails.pin"), slope=Slope(ledger["tails.slope"]),
        proud=ledger.length("tails.proud"),
    )  # fmt: skip
    try:
        layout = dovetail.lay_out(spec)
    except dovetail.DovetailError:
        return None
    low = ledger.length("groove.height")
    high, depth = low + ledger.length("groove.width"), ledger.length("groove.depth")
    found = dovetail.remarks(layout, project.shop, project.marks)
    if layout.tail_base.mm > 0:
        found += runout.remarks(layout, low, high, depth, project.marks)
    return Corner(
        layout,
        tuple(dict.fromkeys(joint.first for joint in dovetails)),
        tuple(dict.fromkeys(joint.second for joint in dovetails)),
        (low, high, depth),
        found,
        runout.run_out(layout, low, high),
    )


def corner_problem(plan: Plan) -> str:
    """Say why there is no corner to lay out, or give an empty sentence."""
    if plan.corner is not None:
        return ""
    if plan.assembly.remarks and not plan.parts:
        return plan.assembly.remarks[0].text
    count = plan.ledger["tails.count"] if plan.ledger else Fraction(0)
    return f"A corner with {count} tails cannot be laid out. Use one or more, and pins of at least nothing."


def thinner_throughout(plan: Plan, part: Part) -> tuple[str, Length] | None:
    """Give the quantity to change, and the thickness every part that follows it could be had at.

    The quantity is the one that was given, on which this part's thickness hangs; the figure
    is rounded down to the mark. None if nothing is left, or no such quantity can be changed.
    """
    if plan.ledger is None:
        return None
    name = _root(plan.ledger, part.quantities[2])
    reaches = [
        forecast.reach
        for other in plan.parts
        if _root(plan.ledger, other.quantities[2]) == name and (forecast := plan.forecast_of(other.id)) is not None
    ]
    if not reaches:
        return None
    thinnest = plan.marks.to_mark(min(reaches), Direction.DOWN)
    return (name, thinnest) if thinnest.mm > 0 else None


def _root(ledger: Ledger, name: str) -> str:
    """Follow a quantity that simply is another one back to the one that was given."""
    quantity = ledger.quantity(name)
    while quantity.origin is Origin.WORKED_OUT and quantity.definition.rule in ledger.quantities:
        quantity = ledger.quantity(quantity.definition.rule)
    return quantity.definition.name
