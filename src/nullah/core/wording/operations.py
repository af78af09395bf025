"""What is said of operations: each from its own fields, the same one on several parts or ends once."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from enum import Enum
from typing import assert_never, get_args

from nullah.core.apprentice.facts import (
    BuildingFact,
    CutAway,
    LeftStanding,
    NotDrawn,
    NotTold,
    PlaneMustStop,
    SawnClosed,
)
from nullah.core.card import Setting, Step, Trying
from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.operations.dovetails import ChopBlindSockets, CutPins, CutTails, SawBlindPins, SawMitre
from nullah.core.operations.fastening import Bore, BoreSlots, SetOutRow, TracePlaces
from nullah.core.operations.fingers import StepFingers
from nullah.core.operations.lines import LineKind
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
from nullah.core.operations.sawing import SawThrough
from nullah.core.operations.settings import ENTERING, ByMate, OfMate, ToolSetting
from nullah.core.operations.shaping import BevelEdge, PlaneTaper, RoundEdge, SawArch, SawCorners, SawOgee, SawOutline
from nullah.core.operations.sliding import SawHousing, SlopeTail
from nullah.core.operations.stock import Surface
from nullah.core.operations.taking import CutToSize, PlaneOff, Take
from nullah.core.operations.tenons import GaugePair, SawTenon
from nullah.core.operations.wedges import ChopWedgeSlot
from nullah.core.reader import Reader, sentence
from nullah.core.refs import quantity_ref
from nullah.core.wording.cutting import (
    dovetail_words,
    fingers_words,
    keys_words,
    mitred_end_words,
    mitred_words,
    sliding_words,
    taken_words,
    tenon_words,
    wedge_words,
)
from nullah.core.wording.fastening import fastened_words
from nullah.core.wording.marking import drawn_words, gauge_words, laid_out_words, pair_words
from nullah.core.wording.shaping import edge_words, outline_words, planed_words
from nullah.core.wording.stock_work import milled_words, sawn_words
from nullah.core.wording.tools import figure_words, settings_note
from nullah.core.wording.worders import worders

_TRYING = {
    Trying.STARTED: N_("Try them by hand, a third of the way, and pare what is burnished; they are driven home once."),
    Trying.DRY: N_("Try them together dry, by hand, without force; shave what binds."),
    Trying.SHOULDERED: N_(
        "Try them together dry, by hand, without force; shave what binds. Where a tenon touches the bottom before its "
        "shoulders close, shorten it."
    ),
    Trying.MET: N_("Hold what meets together, dry, against a light; shoot it until no light comes through."),
    Trying.LAID: N_("One lies against the other; nothing holds it there."),
}


def step_words(step: Step, reader: Reader) -> str:
    """Return what a step at the bench says."""
    if step.operations:
        return " ".join(operation_words(alike, reader) for alike in alike_operations(step.operations))
    if isinstance(step.text, Trying):
        return reader.text(_TRYING[step.text])
    return str(step.text)


def alike_operations(operations: Sequence[Operation]) -> list[list[Operation]]:
    """Return operations together that are told once: alike but for the part and the end they are done at.

    Several lines of one kind from one surface, as of mortises side by side, are told in one too.
    """
    rows: dict[tuple[object, ...], dict[Fraction, None]] = {}
    for each in operations:
        if isinstance(each, Gauge) and each.kind in _IN_ONE:
            rows.setdefault(_row(each), {})[each.setting.figure] = None
    found: dict[tuple[object, ...], list[Operation]] = {}
    for each in operations:
        if isinstance(each, Gauge) and each.kind in _IN_ONE:
            key: tuple[object, ...] = (each.kind, each.setting.origin, tuple(rows[_row(each)]))
        else:
            key = _likeness(each)
        found.setdefault(key, []).append(each)
    told: list[list[Operation]] = []
    for alike in found.values():
        told.insert(_beside_its_kind(alike[0], told), alike)
    return told


def _beside_its_kind(made: Operation, told: Sequence[Sequence[Operation]]) -> int:
    """Return where lines are told: after others of their kind, if only lines were drawn since; or else last."""
    if isinstance(made, Gauge) and isinstance(made.setting.origin, Surface):
        for number in range(len(told), 0, -1):
            before = told[number - 1][0]
            if not isinstance(before, Gauge):
                break
            if before.kind is made.kind and isinstance(before.setting.origin, Surface):
                return number
    return len(told)


#: Lines of which all from one surface are told in one.
_IN_ONE = frozenset(
    {
        LineKind.MORTISE_END,
        LineKind.TENON_EDGE,
        LineKind.PLACE,
        LineKind.KEY,
        LineKind.FINGER,
        LineKind.OUTLINE,
        LineKind.NECK,
    }
)


def _row(made: Gauge) -> tuple[object, ...]:
    return made.part, made.kind, made.setting.origin, made.end


def _likeness(operation: Operation) -> tuple[object, ...]:
    ways = tuple(
        way
        for name in ("kind", "cut", "pins", "chop_only", "tool", "edge_from", "surface")
        if isinstance(way := getattr(operation, name, None), Enum | bool)
    )
    blind = len(getattr(operation, "on", ()) or ()) if isinstance(operation, Gauge) else 0
    bored = isinstance(operation, Bore)
    settings = tuple(
        (each.name, each.value, each.slope, type(each.by), _end_or_surface(each.origin, bored), each.quantity)
        for each in operation.settings
    )
    stays: tuple[int, ...] = ()
    if isinstance(operation, Bore | BoreSlots) and operation.stays:
        stays = tuple(place.number for place in operation.places)
    at_end = getattr(operation, "end", None) is not None
    one_by_one = operation.order if isinstance(operation, SawThrough) else 0
    return type(operation), ways, at_end, blind, stays, settings, one_by_one


def _end_or_surface(origin: object, either: bool) -> object:
    """Return what an origin is alike with: both ends, the mates on either side, lines of one name."""
    if isinstance(origin, Surface):
        return origin.axis if either or origin.axis == 0 else origin
    return type(origin)


#: So many places of a row are shown one by one.
_MOST = 4


def _set(made: Operation, setting: ToolSetting) -> bool:
    """Return whether a tool is set to it: not what is taken over from the mate, nor what lies at a surface itself."""
    taken_over = (
        isinstance(made, Gauge)
        and isinstance(setting.by, ByMate)
        and (made.kind in _IN_ONE or setting.name in ENTERING)
    )
    return not taken_over and setting.value != 0


def operation_settings(operations: Sequence[Operation], reader: Reader) -> tuple[Setting, ...]:
    """Return what is to be set for some operations, each figure of a tool once, as the card shows it."""
    found: dict[tuple[str, str], Setting] = {}
    alike_set: dict[tuple[str, str], list[ToolSetting]] = {}
    others: dict[tuple[str, str], int] = {}
    for alike in alike_operations(operations):
        first = alike[0]
        rows = isinstance(first, Gauge) and first.kind in _IN_ONE
        told = alike if rows else [first]
        places = len({each.settings[0].value for each in alike}) if rows else 1
        if places > _MOST:
            # A row of places is in the step that marks it.
            told = alike[:1]
        for each in (setting for made in told for setting in made.settings if _set(made, setting)):
            figure = figure_words(each, reader)
            if figure and not isinstance(each.origin, OfMate):
                tool = sentence(reader.text(each.name))
                found.setdefault((tool, figure), Setting(tool, figure, "", quantity_ref(each.quantity)))
                alike_set.setdefault((tool, figure), []).append(each)
                if places > _MOST:
                    others[tool, figure] = places - 1
    return tuple(
        each._replace(note=_settings_note(alike_set[key], others.get(key, 0), reader)) for key, each in found.items()
    )


def _settings_note(settings: Sequence[ToolSetting], others: int, reader: Reader) -> str:
    """Return what sets them, and that a row has other places."""
    note = settings_note(settings, reader)
    if not others:
        return note
    more = reader.count(others, "and {n} more", "and {n} more, as marked below")
    return f"{note}; {more}" if note else more


Worder = Callable[[Sequence[Operation], Reader], str]

#: Which function says which kind of operation.
_WORDERS: dict[type[Operation], Worder] = {
    Gauge: gauge_words,
    StepOff: laid_out_words,
    SetOff: laid_out_words,
    StepFingers: fingers_words,
    DrawSlopes: drawn_words,
    Trace: drawn_words,
    GaugePair: pair_words,
    MitreEnd: mitred_end_words,
    KeySlot: keys_words,
    SawTenon: tenon_words,
    SawMitre: mitred_words,
    ChopWedgeSlot: wedge_words,
    SlopeTail: sliding_words,
    SawHousing: sliding_words,
    CutTails: dovetail_words,
    CutPins: dovetail_words,
    SawBlindPins: dovetail_words,
    ChopBlindSockets: dovetail_words,
    Take: taken_words,
    SetOutRow: fastened_words,
    TracePlaces: fastened_words,
    Bore: fastened_words,
    BoreSlots: fastened_words,
    BevelEdge: edge_words,
    RoundEdge: edge_words,
    SawArch: outline_words,
    SawOgee: outline_words,
    SawOutline: outline_words,
    SawCorners: outline_words,
    PlaneOff: planed_words,
    CutToSize: planed_words,
    PlaneTaper: planed_words,
    SawThrough: sawn_words,
    PlaneTrue: milled_words,
    WorkTo: milled_words,
    LeaveOver: milled_words,
    LeaveRough: milled_words,
    GlueStaves: milled_words,
    GlueTogether: milled_words,
    Resaw: milled_words,
    FlattenBoard: milled_words,
}


def operation_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return what one operation says, or several that are alike but for the part and the end they are done at."""
    return _WORDERS[type(alike[0])](alike, reader)


def building_words(fact: BuildingFact, reader: Reader) -> str:
    """Return what cannot be carried out, or comes out otherwise."""
    match fact:
        case NotDrawn(operation, line):
            return reader.text(
                "“{step}” works to the line “{line}”, which nobody has drawn.",
                step=_named(operation, reader),
                line=line,
            )
        case PlaneMustStop(operation):
            return reader.text("“{step}” asks a plane to stop before the end.", step=_named(operation, reader))
        case SawnClosed(operation):
            return reader.text("“{step}” asks for a saw where no end is open.", step=_named(operation, reader))
        case NotTold(part):
            return reader.text(
                "How {part} is cut cannot be told: something is taken off it where no saw, plane or chisel gets. "
                "Join or shape it otherwise.",
                part=reader.the(part),
            )
        case LeftStanding(part, thick, operation, _):
            message = N_("Made as it is told, {thick} of wood would be left on {part}: “{step}”")
        case CutAway(part, thick, operation, _):
            message = N_("Made as it is told, {thick} of wood too much would be cut off {part}: “{step}”")
        case _:
            assert_never(fact)
    step = _named(operation, reader) if operation is not None else ""
    return reader.text(message, thick=reader.fine(thick), part=reader.the(part), step=step)


def _named(operation: Operation, reader: Reader) -> str:
    return operation_words([operation], reader)


#: What says the facts of this room.
WORDERS = worders((get_args(BuildingFact), building_words))
