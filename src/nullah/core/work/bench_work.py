"""The steps of equal joints, what is cut to fit, and the blanks it is cut from."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from itertools import zip_longest
from types import MappingProxyType

from nullah.core.breakdown.rough import Allowances
from nullah.core.card import JointStage, Moment, Step, Trying
from nullah.core.catalogue import N_
from nullah.core.identity import SameAgain, kept_by_identity
from nullah.core.joints.bench import CHISEL_BITES, KNIFE_BITES, SAW_BITES
from nullah.core.joints.kinds import JointGroup
from nullah.core.joints.making import BenchStep
from nullah.core.joints.steps import joint_steps
from nullah.core.ledger import Ledger, Origin
from nullah.core.lengths import Marks
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.dovetails import ChopBlindSockets, CutPins, CutTails, SawBlindPins, SawMitre
from nullah.core.operations.fastening import Bore, BoreSlots, Pin
from nullah.core.operations.marking import Gauge, StepOff, Trace
from nullah.core.operations.mitres import KeySlot, MitreEnd
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ByMeasure, ToolSetting
from nullah.core.operations.sliding import SawHousing, SlopeTail
from nullah.core.operations.stock import Stock, Surface
from nullah.core.operations.taking import Cut, CutToSize, Take
from nullah.core.operations.tenons import GaugePair, SawTenon
from nullah.core.operations.wedges import ChopWedgeSlot
from nullah.core.piece.form import Assembly
from nullah.core.piece.frame import Frame
from nullah.core.piece.frames import frames_of
from nullah.core.piece.joint import Hold, Joint
from nullah.core.piece.part import Part
from nullah.core.plan import Plan
from nullah.core.shop import Shop
from nullah.core.work.meetings import enters_another


def group_steps(assembly: Assembly, kind: JointGroup, marks: Marks, shop: Shop) -> tuple[Step, ...] | None:
    """Return the steps of equal joints, done to all of them in one go; None where they are not told as operations."""
    frames = frames_of(assembly)
    told = [joint_steps(frames, joint, marks, shop) for joint in kind.all]
    known = [each for each in told if each is not None]
    return _steps_of_all(kind, *known) if len(known) == len(told) else None


@kept_by_identity(512)
def _steps_of_all(kind: JointGroup, *told: tuple[BenchStep, ...]) -> tuple[Step, ...]:
    found = []
    for alike in zip_longest(*told):
        there = [step for step in alike if step is not None]
        found.append(_step(there[0], tuple(dict.fromkeys(each for step in there for each in step.operations))))
    if kind.joint.type.touches:
        return tuple(found) or (_LAID if kind.joint.hold is Hold.DRY else _MET,)
    apart = [step for step in found if step.moment is Moment.APART]
    mortised = any(isinstance(each, Take) and each.cut is Cut.MORTISE for step in found for each in step.operations)
    dry = Trying.SHOULDERED if mortised else Trying.DRY
    how, care = (Trying.STARTED, CHISEL_BITES) if kind.corner_prefix else (dry, "")
    return (*apart, Step(how, JointStage.TRIED, check=_TRIED, care=care), *found[len(apart) :])


def bored_in_place(plan: Plan, joints: Iterable[Joint]) -> tuple[Operation, ...]:
    """Return what is done to joints as their parts are put together: holes bored where a part is held in its place."""
    frames = frames_of(plan.assembly)
    told = (joint_steps(frames, joint, plan.marks, plan.project.shop) or () for joint in joints)
    steps = (step for made in told for step in made if step.moment is Moment.PUT_TOGETHER)
    return tuple(dict.fromkeys(each for step in steps for each in step.operations))


def _step(made: BenchStep, operations: tuple[Operation, ...]) -> Step:
    """Return a step of these operations, with the caution of its tool and what to look at before going on."""
    draws = dict.fromkeys(line.kind.value for each in operations for line in each.draws)
    uses = dict.fromkeys(line.kind.value for each in operations for line in each.needs)
    kinds = {type(each) for each in operations}
    sawn_off = any(isinstance(each, Take) and each.cut is Cut.NOTCH for each in operations)
    check = next((check for kind, check in _CHECKS.items() if kind in kinds), "")
    check = next((_PINS[each.pin] for each in operations if isinstance(each, Bore)), check)
    if sawn_off:
        check = N_("Both cuts meet, square through.")
    elif any(isinstance(each, MitreEnd) and not each.holds for each in operations):
        check = N_("Both shoulders close; between the miters is air.")
    return Step(
        "",
        made.stage,
        made.at,
        check,
        draws=tuple(draws),
        uses=tuple(use for use in uses if use not in draws),
        care=next((care for kind, care in _CARES.items() if kind in kinds), ""),
        operations=operations,
        moment=made.moment,
    )


_LAID = Step(Trying.LAID, JointStage.TRIED)
_MET = Step(Trying.MET, JointStage.TRIED, check=N_("No light, or a hair of it in the middle."))
_TRIED = N_("No light at the shoulders; the boards stand square.")
_CHECKS: dict[type[Operation], str] = {
    StepOff: N_("The outer pins are alike."),
    CutTails: N_("A square’s blade lies in every socket."),
    GaugePair: N_("Both pins touch the chisel’s edges."),
    SawTenon: N_("Half of every gauge line is left; it goes in by hand, the last third with a push."),
    SawMitre: N_("The miter closes with the baseline, not before it."),
    MitreEnd: N_("It closes with its mate all along."),
    ChopWedgeSlot: N_("The wedge bears on the post; the inner wall stays clear of it."),
    SlopeTail: N_("Both slopes are straight all along; the end is as thick as it was."),
    SawHousing: N_("The tail slides in by hand to the last third, then with light taps."),
    KeySlot: N_("The key slides in by hand, to the bottom of its slot."),
    Trace: N_("Letters meet; the boards did not slip."),
    CutPins: N_("Walls are plumb, none leans over its socket."),
    ChopBlindSockets: N_("The lap is whole: nothing shows on the outside."),
    Take: N_("The floor is one depth all along, square to its walls."),
    BoreSlots: N_("The screw slides from end to end of its slot."),
    Gauge: N_("Every line is unbroken, and meets itself where it goes round."),
}
_PINS = {
    Pin.SCREW: N_("A screw or nail in scrap bored so neither bends nor splits it."),
    Pin.DOWEL: N_("A dowel goes in by hand, and air gets out past it: plane a flat along it."),
    Pin.PEG: N_("A peg, split along the grain and tapered at its tip, goes through scrap bored so without bending."),
}
_CARES: dict[type[Operation], str] = {
    CutTails: SAW_BITES,
    SawBlindPins: SAW_BITES,
    SawTenon: SAW_BITES,
    SawMitre: SAW_BITES,
    MitreEnd: SAW_BITES,
    KeySlot: SAW_BITES,
    ChopWedgeSlot: CHISEL_BITES,
    SlopeTail: SAW_BITES,
    SawHousing: SAW_BITES,
    CutPins: CHISEL_BITES,
    ChopBlindSockets: CHISEL_BITES,
    Take: CHISEL_BITES,
    Trace: KNIFE_BITES,
    Gauge: KNIFE_BITES,
}


def fitted(plan: Plan, part: Part) -> tuple[Operation, ...]:
    """Return how a part that was left long or wide is cut to what was measured."""
    moves = any(mover.group == part.group for mover in plan.assembly.movers)
    goes_in = moves or enters_another(plan.assembly, part.id)
    return _fitted(frames_of(plan.assembly)[part.id], blanks_of(plan)[part.id], goes_in)


@kept_by_identity(1024)
def _fitted(frame: Frame, blank: Blank, goes_in: bool) -> tuple[Operation, ...]:
    found, part = [], frame.part
    for surface, size, quantity in zip(
        (Surface.REFERENCE_END, Surface.FACE_EDGE), frame.stock[:2], blank.measured, strict=True
    ):
        if quantity:
            name = part.quantities[surface.axis]
            setting = ToolSetting("size", size, surface, ByMeasure(quantity), quantity=name)
            found.append(CutToSize(part=part.id, stock=frame.stock, setting=setting, goes_in=goes_in))
    return tuple(found)


class Blank(NamedTuple):
    """A part as milled, and the quantities measured for its length and its width; empty where none is."""

    part: Part
    stock: Stock
    measured: tuple[str, str]


def blank_of(plan: Plan, part: Part) -> Stock:
    """Return a part's blank as milled: left long or wide where it is cut to fit later."""
    return blanks_of(plan)[part.id].stock


def blanks_of(plan: Plan) -> Mapping[str, Blank]:
    """Return the blanks of all parts by their ids, in the order of the piece."""
    return _blanks(plan.assembly, plan.ledger, plan.project.allowances)


#: The blanks of the piece that was looked at last.
_SAME: SameAgain[Blank] = SameAgain(2048)


@kept_by_identity(4)
def _blanks(assembly: Assembly, ledger: Ledger | None, allowances: Allowances) -> Mapping[str, Blank]:
    frames = frames_of(assembly)
    found: dict[str, Blank] = {}
    for part in assembly.parts:
        stock, (long, wide) = frames[part.id].stock, measured_for(ledger, part)
        left = Stock(
            stock.length + (allowances.end.mm if long else 0),
            stock.width + (allowances.edge.mm if wide else 0),
            stock.thickness,
        )
        found[part.id] = _SAME(part.id, Blank(part, left, (long, wide)))
    return MappingProxyType(found)


def measured_for(ledger: Ledger | None, part: Part) -> tuple[str, str]:
    """Return the quantities that are measured for a part's length and for its width; empty where none is."""
    if ledger is None:
        return "", ""
    found = []
    for name in part.quantities[:2]:
        quantity = ledger.quantities.get(name)
        fits = quantity.fits if quantity and quantity.origin in (Origin.WAITS, Origin.FITTED) else ()
        # Of several that it waits for, the one that it is worked out from.
        from_ = [each for each in fits if each in ledger.leads_to(name)] if fits else []
        found.append((from_ or [*fits, ""])[0])
    return found[0], found[1]
