"""What is said of operations: each from its own fields, the same one on several parts or ends once."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from enum import Enum
from fractions import Fraction
from typing import assert_never

from nullah.core.apprentice.facts import BuildingFact, CutAway, LeftStanding, NotDrawn, PlaneMustStop, SawnClosed
from nullah.core.card import Setting, Step, Trying
from nullah.core.catalogue import N_
from nullah.core.lengths import Length, Slope, write_bought
from nullah.core.operations.dovetails import ChopBlindSockets, CutPins, CutTails, SawBlindPins, SawMitre
from nullah.core.operations.fastening import Bore, BoreSlots, SetOutRow, TracePlaces
from nullah.core.operations.lines import LineKind
from nullah.core.operations.marking import DrawSlopes, Gauge, Marker, SetOff, StepOff, Trace
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ByMate, ByMeasure, ByStepping, OfLine, OfMate, OfTool, Origin, ToolSetting
from nullah.core.operations.shaping import PlaneTaper
from nullah.core.operations.stock import Surface
from nullah.core.operations.taking import Cut, CutToSize, PlaneOff, Take
from nullah.core.operations.tenons import GaugePair, MitreEnd, SawTenon
from nullah.core.reader import Reader, sentence
from nullah.core.refs import quantity_ref

#: Surfaces as they are called in a sentence.
_SURFACES = {
    Surface.REFERENCE_END: N_("reference end"), Surface.FAR_END: N_("far end"), Surface.FACE_EDGE: N_("face edge"),
    Surface.OTHER_EDGE: N_("other edge"), Surface.FACE_SIDE: N_("face side"), Surface.OTHER_FACE: N_("other face"),
}  # fmt: skip


def figure_words(setting: ToolSetting, reader: Reader) -> str:
    """Return what a setting is set to: to the mark what a rule sets, finer what the mate or stepping does."""
    if setting.slope is not None:
        return Slope(setting.slope).as_text()
    if setting.value is None:
        return reader.part(setting.origin.part) if isinstance(setting.origin, OfMate) else ""
    length = Length(setting.value)
    if isinstance(setting.origin, OfTool) and setting.origin.bought is not None:
        return write_bought(setting.origin.bought)
    # What a rule sets stands on its marks; what does not was set by a mate, by stepping, or left proud.
    return reader.length(length) if reader.marks.to_mark(length) == length else reader.fine(length)


def surface_words(surface: Surface, reader: Reader) -> str:
    """Return what a surface is called."""
    return reader.text(_SURFACES[surface])


def setting_note(setting: ToolSetting, reader: Reader) -> str:
    """Return where a setting is measured from, and what sets it, for the card."""
    if isinstance(setting.by, ByMate):
        return reader.text("set to {mate}", mate=reader.part(setting.by.part))
    if isinstance(setting.by, ByMeasure):
        return reader.text("as measured: {quantity}", quantity=reader.title(setting.by.quantity))
    if isinstance(setting.by, ByStepping):
        return reader.text("stepped off")
    if setting.slope is not None:
        return reader.text("{degrees}° from square", degrees=f"{Slope(setting.slope).degrees:.1f}")
    match setting.origin:
        case Surface():
            return reader.text("from the {surface}", surface=surface_words(setting.origin, reader))
        case OfLine(name):
            return reader.text("from the line “{line}”", line=name)
        case _:
            return ""


_TRYING = {
    Trying.STARTED: N_("Try them by hand, a third of the way, and pare what is burnished; they are driven home once."),
    Trying.DRY: N_("Try them together dry, by hand, without force."),
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
    return list(found.values())


#: Lines of which all from one surface are told in one.
_IN_ONE = frozenset({LineKind.MORTISE_END, LineKind.TENON_EDGE, LineKind.PLACE})


def _row(made: Gauge) -> tuple[object, ...]:
    return made.part, made.kind, made.setting.origin, made.end


def _likeness(operation: Operation) -> tuple[object, ...]:
    ways = tuple(
        way
        for name in ("kind", "cut", "pins", "chop_only", "tool", "edge_from")
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
    return type(operation), ways, at_end, blind, stays, settings


def _end_or_surface(origin: object, either: bool) -> object:
    """Return what an origin is alike with: both ends, the mates on either side, lines of one name."""
    if isinstance(origin, Surface):
        return origin.axis if either or origin.axis == 0 else origin
    return type(origin)


def operation_settings(operations: Sequence[Operation], reader: Reader) -> tuple[Setting, ...]:
    """Return what is to be set for some operations, each figure of a tool once, as the card shows it."""
    found: dict[tuple[str, str], Setting] = {}
    notes: dict[tuple[str, str], dict[str, None]] = {}
    for alike in alike_operations(operations):
        first = alike[0]
        told = alike if isinstance(first, Gauge) and first.kind in _IN_ONE else [first]
        for each in (setting for made in told for setting in made.settings):
            figure = figure_words(each, reader)
            if figure and not isinstance(each.origin, OfMate):
                note = setting_note(each, reader)
                made = Setting(sentence(reader.text(each.name)), figure, note, quantity_ref(each.quantity))
                found.setdefault((made.tool, figure), made)
                notes.setdefault((made.tool, figure), {})[note] = None
    return tuple(each._replace(note=reader.listed(filter(None, notes[key]))) for key, each in found.items())


def operation_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return what one operation says, or several that are alike but for the part and the end they are done at."""
    match alike[0]:
        case Gauge():
            return _gauge(alike, _where(alike, reader), reader)
        case StepOff() | SetOff():
            return _laid_out(alike[0], _where(alike, reader), reader)
        case DrawSlopes() | Trace():
            return _drawn(alike, _where(alike, reader), reader)
        case GaugePair():
            return _pair(alike, _where(alike, reader), reader)
        case MitreEnd():
            return _mitred_end(alike[0], _where(alike, reader), reader)
        case SawTenon(shoulders_first=first):
            return reader.text(_TENON[first], where=_where(alike, reader))
        case SawMitre():
            return _mitred(alike[0], _where(alike, reader), reader)
        case CutTails() | CutPins() | SawBlindPins() | ChopBlindSockets():
            return _dovetail(alike[0], _where(alike, reader), reader)
        case Take():
            return _taken(alike[0], _parts(alike, reader), reader)
        case SetOutRow() | TracePlaces() | Bore() | BoreSlots():
            return _fastened(alike, _parts(alike, reader), reader)
        case _:
            return _planed(alike, _parts(alike, reader), reader)


def _parts(alike: Sequence[Operation], reader: Reader) -> str:
    return reader.together(dict.fromkeys(each.part for each in alike))


def _where(alike: Sequence[Operation], reader: Reader) -> str:
    """Return at which ends of which parts."""
    ends = {end for each in alike if (end := getattr(each, "end", None)) is not None}
    parts = _parts(alike, reader)
    if not ends:
        return parts
    if len(ends) == 2:
        return reader.text("both ends of {parts}", parts=parts)
    return reader.text("the {end} of {parts}", end=surface_words(ends.pop(), reader), parts=parts)


#: What is said of a line, by its kind and by whether the mate sets the distance.
_LINES = {
    (LineKind.BASELINE, True): N_(
        "Set the gauge to {mate}, {figure}{over}. From the end, gauge the baseline all round at {where}."
    ),
    (LineKind.BASELINE, False): N_(
        "Set the gauge to {figure}, as long as the tails. Gauge the baseline all round at {where}."
    ),
    (LineKind.LAP, False): N_(
        "With the gauge at {figure}, its fence on the inside face, mark the end grain at {where}: so far the tails go "
        "in; the rest is the lap."
    ),
    (LineKind.BORDER, False): N_("Mark where the edge of the mate comes at {where}: {figure} from the {surface}."),
    (LineKind.WALL, True): N_("Set the gauge to {mate}, {figure}, and mark the wall that it comes to at {where}."),
    (LineKind.WALL, False): N_("Mark the first line {figure} from the {surface} on {where}."),
    (LineKind.SECOND_WALL, True): N_(
        "Hold {mate} against the first line and knife the second from it, {figure} away: tight, on {where}."
    ),
    (LineKind.SECOND_WALL, False): N_("Mark the second wall {figure} from the first on {where}."),
    (LineKind.DEPTH, True): N_(
        "Set the gauge to the channel in {mate}, {figure}, and mark that thickness from the {surface} on {where}."
    ),
    (LineKind.DEPTH, False): N_("Gauge the depth, {figure} from the {surface}, on {where}."),
    (LineKind.NOTCH, True): N_(
        "Set the gauge to {mate} as it goes in there, {figure}, and mark the notch as deep from the {surface} on "
        "{where}."
    ),
    (LineKind.STOP, False): N_("Mark where it stops: {figure} from the {surface}, on {where}."),
    (LineKind.OUTLINE, False): N_("Mark a line of the recess {figure} from the {surface} on {where}."),
    (LineKind.SHOULDER, False): N_(
        "Knife the shoulder all round at {where}, {figure} from the end; all that are alike together."
    ),
    (LineKind.CHEEK, False): N_("Gauge the one cheek of the tenon at {where}, {figure} from the {surface}."),
    (LineKind.TENON_EDGE, False): N_("Gauge edges of the tenon at {where}: {figure} from the {surface}."),
    (LineKind.MORTISE_END, True): N_(
        "Hold {mate} across the end and knife its width, {figure}: the end of the slot in {where}."
    ),
    (LineKind.MORTISE_END, False): N_("Knife the ends of the mortise on {where}: {figure} from the {surface}."),
    (LineKind.TONGUE, False): N_(
        "On both faces mark the end of the tongue, {figure} from the shoulder, at {where}: between the tenons the "
        "panel is cut back to there."
    ),
    (LineKind.TENON_EDGE, True): N_("Lay {mate} on {where} as they will meet, and knife the edges of the tenons over."),
    (LineKind.SLOT_END, False): N_(
        "At tenon {number} knife the ends of the mortise {figure} beyond those edges on {where}, so that the panel can "
        "move."
    ),
    (LineKind.ROW, False): N_("Gauge a row for the pegs on {where}, {figure} from the {surface}."),
    (LineKind.PLACE, False): N_("Mark a peg over the middle of every tenon on {where}: {figure} from the {surface}."),
    (LineKind.DRAWN_ROW, False): N_(
        "Drawbore: move every mark {figure} nearer to the shoulder at {where}, so that the pegs pull it tight."
    ),
    (LineKind.MITRE, False): N_("Gauge the mitre line, {figure} from the {surface}, which is moulded, at {where}."),
}
#: A baseline that is gauged on one face only.
_ONE_FACE = N_(
    "Set the gauge to {mate}, {figure}{over}. From the end, gauge the baseline on the inside face at {where}; nothing "
    "is scribed on the outside."
)
_KNIFED = N_("Knife the first wall {figure} from the {surface}, square across, on {where}.")


def _mates(alike: Sequence[Operation], reader: Reader) -> str:
    """Return what the other parts are called that set or are traced."""
    found: dict[str, None] = {}
    for each in alike:
        for setting in each.settings:
            if isinstance(setting.by, ByMate):
                found[setting.by.part] = None
            if isinstance(setting.origin, OfMate):
                found[setting.origin.part] = None
    return reader.together(found) if found else ""


def _gauge(alike: Sequence[Operation], where: str, reader: Reader) -> str:
    made = alike[0]
    assert isinstance(made, Gauge)
    setting, origin = made.setting, made.setting.origin
    mate = _mates(alike, reader) if isinstance(setting.by, ByMate) else ""
    if made.kind is LineKind.BASELINE and len(made.on) == 1:
        message = _ONE_FACE
    elif made.tool is Marker.KNIFE and made.kind is LineKind.WALL:
        message = _KNIFED
    else:
        message = _LINES[made.kind, bool(mate)]
    surface = surface_words(origin, reader) if isinstance(origin, Surface) else ""
    if made.kind is LineKind.STOP:
        where = _parts(alike, reader)
        surface = _ends({each.setting.origin for each in alike if isinstance(each, Gauge)}, reader)
    over = reader.text(", and {more} more", more=figure_words(made.over, reader)) if made.over is not None else ""
    figures = [figure_words(each.setting, reader) for each in alike if isinstance(each, Gauge)]
    figure = reader.listed(dict.fromkeys(figures))
    number = reader.listed(dict.fromkeys(str((each.number + 1) // 2) for each in alike if isinstance(each, Gauge)))
    return reader.text(message, figure=figure, over=over, where=where, surface=surface, mate=mate, number=number)


def _laid_out(made: StepOff | SetOff, where: str, reader: Reader) -> str:
    if isinstance(made, SetOff):
        figures = reader.listed([figure_words(each, reader) for each in made.settings])
        return reader.text(
            "At {where} set the edges of the tails off from the face edge: {figures}. Square them across the end.",
            where=where,
            figures=figures,
        )
    half, _, step, pin = (figure_words(each, reader) for each in made.settings)
    return reader.count(
        made.count,
        "At {where} mark a half-pin of {half} from either edge; between them is the one tail. Square across the end.",
        "At {where} mark a half-pin of {half} from either edge. Open the dividers to {step}, so that {n} steps from "
        "the one overshoot the other by the pin, {pin}; step off from both. Square the marks across the end.",
        where=where,
        half=half,
        step=step,
        pin=pin,
    )


def _drawn(alike: Sequence[Operation], where: str, reader: Reader) -> str:
    made = alike[0]
    if isinstance(made, DrawSlopes):
        slope = figure_words(made.settings[0], reader)
        message = (
            N_(
                "Bevel at {slope}: at {where} draw the pins on the end grain, narrow at the outside; square them down "
                "both faces to the baseline, and hatch the sockets."
            )
            if made.pins
            else N_("Bevel at {slope}: at {where} draw the tails from the marks to the baseline, and hatch the waste.")
        )
        return reader.text(message, slope=slope, where=where)
    assert isinstance(made, Trace)
    mate = _mates(alike, reader)
    message = (
        N_("Lay the tails of {mate} on {where}, flush at the inside; knife round them, square down, hatch.")
        if made.kind is LineKind.TAILS
        else N_("Stand the pins of {mate} on {where}, flush at the baseline; knife along them, square across, hatch.")
    )
    return reader.text(message, mate=mate, where=where)


def _dovetail(made: CutTails | CutPins | SawBlindPins | ChopBlindSockets, where: str, reader: Reader) -> str:
    match made:
        case CutTails(chop_only=True):
            message = N_(
                "At {where} saw the cheeks in the waste to the baseline, and saw off the half-pins’ shoulders. Chop "
                "the waste half from each face, away from the line first; pare."
            )
        case CutTails():
            message = N_(
                "At {where} saw the cheeks in the waste to the baseline, and saw off the half-pins’ shoulders. Saw the "
                "waste out clear of the baseline, chop half from each face, pare."
            )
        case CutPins(chop_only=True):
            message = N_(
                "At {where} saw the pins plumb in the waste to the baseline, half of the line left. Chop the waste "
                "half from each face; pare."
            )
        case CutPins():
            message = N_(
                "At {where} saw the pins plumb in the waste to the baseline, half of the line left. Saw the waste out, "
                "chop half from each face, pare."
            )
        case SawBlindPins():
            message = N_(
                "At {where} saw the pins on the slant, in the waste, from corner to corner between the baseline and "
                "the lap line, and stop there."
            )
        case ChopBlindSockets():
            message = N_(
                "At {where} chop the sockets from the inside face, and pare them from the end, to the baseline and the "
                "lap line: never from the outside."
            )
    said = reader.text(message, where=where)
    if isinstance(made, CutTails) and any(line.kind is LineKind.MITRE for line in made.needs):
        said += " " + reader.text("At a mitred edge saw the shoulder down to the mitre line only.")
    tools = () if isinstance(made, SawBlindPins) else made.tools
    if not tools:
        return said
    return f"{said} {reader.text('The widest chisel that enters is {chisel}.', chisel=figure_words(tools[0], reader))}"


#: What is said of sawing a tenon, by whether its shoulders are sawn first.
_TENON = {
    True: N_(
        "At {where} saw the shoulders to the knife line, then split or saw the cheeks, half of the gauge line left."
    ),
    False: N_("At {where} saw the cheeks down to the shoulder, half of the gauge line left, then the shoulders."),
}


def _mitred_end(made: MitreEnd, where: str, reader: Reader) -> str:
    return reader.text(
        "Mitre the end of the tenon at {where}: draw the slant on its edges, from {back} back at the {face} to the "
        "end {deep} from there; saw off what lies inside. Nothing is glued to it.",
        where=where,
        back=figure_words(made.back, reader),
        deep=figure_words(made.deep, reader),
        face=_origin(made.deep, reader),
    )


def _pair(alike: Sequence[Operation], where: str, reader: Reader) -> str:
    made = alike[0]
    assert isinstance(made, GaugePair)
    mate = _mates(alike, reader)
    message = (
        N_(
            "Set the pins of the mortise gauge to {mate}, {wide}, the nearer {near} from the fence; gauge the cheeks "
            "from the {surface} on {where}."
        )
        if mate
        else N_(
            "Set the pins of the mortise gauge to the {wide} chisel, the nearer {near} from the fence; gauge the "
            "cheeks from the {surface} on {where}."
        )
        if made.by_chisel
        else N_(
            "Set the pins of the mortise gauge {wide} apart, the nearer {near} from the fence; gauge the cheeks from "
            "the {surface} on {where}."
        )
    )
    surface, wide, near = _origin(made.near, reader), figure_words(made.wide, reader), figure_words(made.near, reader)
    return reader.text(message, wide=wide, near=near, surface=surface, where=where, mate=mate)


def _mitred(made: SawMitre, where: str, reader: Reader) -> str:
    message = (
        N_(
            "At {where}, on the {edge}, draw the mitre from the baseline inside to the outer corner, {proud} from the "
            "end. Saw along it in the waste down to the mitre line, and across at that line; pare. Mould after "
            "gluing, or before and stop at the mitre."
        )
        if made.proud.figure
        else N_(
            "At {where}, on the {edge}, draw the mitre from the baseline inside to the outer corner. Saw along it in "
            "the waste down to the mitre line, and across at that line; pare. Mould after gluing, or before and stop "
            "at the mitre."
        )
    )
    edge = surface_words(made.edge_from, reader)
    return reader.text(message, where=where, edge=edge, proud=figure_words(made.proud, reader))


_TAKEN = {
    Cut.PLOUGH: N_(
        "Plough {parts}: iron {iron}, the fence {fence} from the {edge}, the stop at {depth}. Begin at the far end and "
        "come back."
    ),
    Cut.PLOUGH_TO_LINES: N_(
        "Plough {parts} between the lines with the {iron} iron, in passes, the stop at {depth}; pare to the lines."
    ),
    Cut.CHISEL_GROOVE: N_(
        "On {parts} chop a short length at each stop, then the rest between the lines, {depth} deep; level the floor "
        "with the {floor}."
    ),
    Cut.RABBET: N_("Plane the rabbet on {parts}: the fence at {wide} from the {edge}, the stop at {depth}."),
    Cut.END_RABBET: N_(
        "On {parts} sever the fibers at the shoulder, saw it to the depth line, split the waste off and level with the "
        "{floor}."
    ),
    Cut.STOPPED_RABBET: N_(
        "On {parts} chop the stop first, saw the shoulder from the open edge to the depth line, chop the rest out and "
        "level it."
    ),
    Cut.DADO: N_(
        "On {parts} saw both walls in the waste to the depth line, chop out from both edges, level with the "
        "{floor}."
    ),
    Cut.STOPPED_DADO: N_(
        "On {parts} chop a pocket at the stop to the depth line, saw the walls with the toe in it, chop out, level "
        "with the {floor}."
    ),
    Cut.NOTCH: N_("Saw the corner off {parts} on both lines."),
    Cut.MORTISE: N_(
        "Chop the mortise in {parts} between its lines, {depth} deep and a hair more: from the middle "
        "outwards, the ends last."
    ),
    Cut.THROUGH_MORTISE: N_(
        "Chop the mortise through {parts} between its lines, which are marked on both faces: half from each."
    ),
    Cut.OPEN_MORTISE: N_(
        "Saw the slot in {parts} from its end down both cheeks, in the waste, to its line; chop the waste out there, "
        "half from each face."
    ),
    Cut.PANEL_RABBET: N_(
        "Across the end of {parts} sever the fibers at the shoulder, saw it to the cheek line along a batten, split "
        "the waste off and level with the {floor}: first the one face, then the other."
    ),
    Cut.BETWEEN_TENONS: N_(
        "On {parts} saw beside every tenon to the end of the tongue, saw the waste out clear of it, and pare to the "
        "line from both faces."
    ),
    Cut.RECESS: N_("Chop the recess in {parts} to its lines, the hardware tried in it; pare its floor."),
}  # fmt: skip


def _taken(made: Take, parts: str, reader: Reader) -> str:
    said = {each.name: figure_words(each, reader) for each in made.settings}
    edges = [
        each.origin for each in made.settings if each.name in ("fence", "wide") and isinstance(each.origin, Surface)
    ]
    depth = next((line for line in made.needs if line.kind is LineKind.DEPTH), None)
    return reader.text(
        _TAKEN[made.cut],
        parts=parts,
        floor=reader.text(N_("router plane") if made.router else N_("chisel, bevel down")),
        iron=said.get("iron", ""),
        fence=said.get("fence", ""),
        wide=said.get("wide", ""),
        depth=said.get("depth", "") if depth is None else "",
        edge=surface_words(edges[0], reader) if edges else "",
    )


#: What is said of slots, by whether one place stays put, and by whether they lie along the part.
_SLOTS = {
    (True, True): N_(
        "At place {place} make slots along {parts}: two holes of {bit}, {slot} apart, the wood between chopped out."
    ),
    (True, False): N_(
        "At place {place} make slots across {parts}: two holes of {bit}, {slot} apart, the wood between chopped out."
    ),
    (False, True): N_(
        "At each place make a slot along {parts}: two holes of {bit}, {slot} apart, the wood between chopped out."
    ),
    (False, False): N_(
        "At each place make a slot across {parts}: two holes of {bit}, {slot} apart, the wood between chopped out."
    ),
}


def _ends(surfaces: Collection[Origin], reader: Reader) -> str:
    """Return what a surface is called; both ends together."""
    if len(surfaces) > 1:
        return reader.text("end, at either end")
    (one,) = surfaces
    return surface_words(one, reader) if isinstance(one, Surface) else ""


def _fastened(alike: Sequence[Operation], parts: str, reader: Reader) -> str:
    made = alike[0]
    match made:
        case SetOutRow():
            rows = {each.row.origin for each in alike if isinstance(each, SetOutRow)}
            return reader.count(
                made.count,
                "On {parts} draw a row {row} from the {beside}; mark one place on it, {first} from the {low}.",
                "On {parts} draw a row {row} from the {beside}; mark {n} places on it: the first {first} from the "
                "{low}, the last {last} from the {high}, the others evenly between.",
                parts=parts,
                row=figure_words(made.row, reader),
                beside=_ends(rows, reader),
                first=figure_words(made.first, reader),
                last=figure_words(made.last, reader),
                low=_origin(made.first, reader),
                high=_origin(made.last, reader),
            )
        case TracePlaces():
            mates = {each.mate for each in alike if isinstance(each, TracePlaces)}
            return reader.count(
                len(mates),
                "Hold {mate} where it will be and mark through its holes on {parts}.",
                "Hold {mate} where they will be and mark through their holes on {parts}.",
                mate=_mates(alike, reader),
                parts=parts,
            )
        case Bore():
            said = {each.name: figure_words(each, reader) for each in made.settings}
            message = (
                N_("Bore {bit} at each place, {depth} deep, in {parts}.")
                if made.depth is not None
                else N_("Bore {bit} through {parts} at each place, and countersink to {head}.")
                if made.head is not None
                else N_("Bore {bit} through {parts} at place {place} of the row, where it stays put.")
                if made.stays
                else N_("Bore {bit} through {parts} at each place.")
            )
            return reader.text(
                message,
                bit=said["bit"],
                depth=said.get("depth", ""),
                head=said.get("countersink", ""),
                parts=parts,
                place=reader.listed(str(place.number) for place in made.places),
            )
        case BoreSlots():
            message = _SLOTS[made.stays, made.along == 0]
            bit, slot = (figure_words(each, reader) for each in made.settings)
            place = reader.listed(str(place.number) for place in made.places)
            return reader.text(message, bit=bit, slot=slot, parts=parts, place=place)
    raise TypeError(f"nothing is said of {type(made).__name__}")


def _planed(alike: Sequence[Operation], parts: str, reader: Reader) -> str:
    made = alike[0]
    match made:
        case PlaneOff():
            surfaces = {each.setting.origin for each in alike if isinstance(each, PlaneOff)}
            message = (
                N_("Plane both ends of {parts} flush: {figure} is proud.")
                if len(surfaces) > 1
                else N_("Plane the {surface} of {parts} flush: {figure} is proud.")
            )
            return reader.text(
                message, surface=_origin(made.setting, reader), parts=parts, figure=figure_words(made.setting, reader)
            )
        case CutToSize():
            return reader.text(
                "Cut {parts} to {figure} from the {surface}, as measured.",
                parts=parts,
                figure=figure_words(made.setting, reader),
                surface=_origin(made.setting, reader),
            )
        case PlaneTaper():
            message = (
                N_(
                    "Mark {toe} in from the {surface} at the {end} of {parts}; plane the taper to the line that runs "
                    "out at the other end."
                )
                if made.start is None
                else N_(
                    "Mark {toe} in from the {surface} at the {end} of {parts}, and where the taper begins, {start} "
                    "from the {other}; plane it to the line between them."
                )
            )
            return reader.text(
                message,
                toe=figure_words(made.toe, reader),
                surface=_origin(made.toe, reader),
                end=surface_words(made.end, reader),
                start=figure_words(made.start, reader) if made.start is not None else "",
                other=_origin(made.start, reader) if made.start is not None else "",
                parts=parts,
            )
    raise TypeError(f"nothing is said of {type(made).__name__}")


def _origin(setting: ToolSetting, reader: Reader) -> str:
    return surface_words(setting.origin, reader) if isinstance(setting.origin, Surface) else ""


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
        case LeftStanding(part, thick, operation, _):
            message = N_("Made as it is told, {thick} of wood would be left on the {part}: “{step}”")
        case CutAway(part, thick, operation, _):
            message = N_("Made as it is told, {thick} of wood too much would be cut off the {part}: “{step}”")
        case _:
            assert_never(fact)
    step = _named(operation, reader) if operation is not None else ""
    return reader.text(message, thick=reader.fine(thick), part=reader.part(part), step=step)


def _named(operation: Operation, reader: Reader) -> str:
    return operation_words([operation], reader)
