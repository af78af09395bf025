"""What is said of operations that saw, plough and chop."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.catalogue import N_
from nullah.core.operations.dovetails import ChopBlindSockets, CutPins, CutTails, SawBlindPins, SawMitre
from nullah.core.operations.fingers import StepFingers
from nullah.core.operations.lines import LineKind
from nullah.core.operations.mitres import KeySlot, MitreEnd
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ByMate
from nullah.core.operations.sliding import SawHousing, SlopeTail
from nullah.core.operations.stock import Surface
from nullah.core.operations.taking import Cut, Take
from nullah.core.operations.tenons import SawTenon
from nullah.core.operations.wedges import ChopWedgeSlot
from nullah.core.reader import Reader
from nullah.core.wording.tools import figure_words, mates_words, origin_words, parts_words, surface_words, where_words


def dovetail_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how tails or pins are cut."""
    made, where = alike[0], where_words(alike, reader)
    assert isinstance(made, CutTails | CutPins | SawBlindPins | ChopBlindSockets)
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
        said += " " + reader.text("At a mitered edge saw the shoulder down to the miter line only.")
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


def mitred_end_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how an end is mitred: to hold, or to make room for another tenon."""
    made, where = alike[0], where_words(alike, reader)
    assert isinstance(made, MitreEnd)
    if made.holds:
        return reader.text(
            "At {where} draw the miter on both edges, from the outer corner, {deep} through the end, to {back} back on "
            "the {face}, and square it across there. Saw in the waste; shoot to the line on a 45° board, what stands "
            "opposite to one length.",
            where=where,
            back=figure_words(made.back, reader),
            deep=figure_words(made.deep, reader),
            face=origin_words(made.deep, reader),
        )
    return reader.text(
        "Miter the end of the tenon at {where}: draw the slant on its edges, from {back} back at the {face} to the "
        "end {deep} from there; saw off what lies inside. The two stay clear of each other; nothing is glued there.",
        where=where,
        back=figure_words(made.back, reader),
        deep=figure_words(made.deep, reader),
        face=origin_words(made.deep, reader),
    )


def mitred_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how the moulded edge of a dovetailed corner is mitred."""
    made, where = alike[0], where_words(alike, reader)
    assert isinstance(made, SawMitre)
    message = (
        N_(
            "At {where}, on the {edge}, draw the miter from the baseline inside to the outer corner, {proud} from the "
            "end. Saw along it in the waste down to the miter line, and across at that line; pare. Mold after "
            "gluing, or before and stop at the miter."
        )
        if made.proud.figure
        else N_(
            "At {where}, on the {edge}, draw the miter from the baseline inside to the outer corner. Saw along it in "
            "the waste down to the miter line, and across at that line; pare. Mold after gluing, or before and stop "
            "at the miter."
        )
    )
    edge = surface_words(made.edge_from, reader)
    return reader.text(message, where=where, edge=edge, proud=figure_words(made.proud, reader))


_TAKEN = {
    Cut.PLOUGH: N_(
        "Plow {parts}: iron {iron}, the fence {fence} from the {edge}, the stop at {depth}. Begin at the far end and "
        "come back."
    ),
    Cut.PLOUGH_TO_LINES: N_(
        "Plow {parts} between the lines with the {iron} iron, in passes, the stop at {depth}; pare to the lines."
    ),
    Cut.CHISEL_GROOVE: N_(
        "On {parts} chop a short length at each stop, then the rest between the lines, {depth} deep; level the floor "
        "with the {floor}."
    ),
    Cut.RABBET: N_("Plane the rabbet on {parts}: the fence at {wide} from the {edge}, the stop at {depth}."),
    Cut.TONGUE: N_(
        "Plane a rabbet beside the tongue of {parts}: the fence at {wide} from the {edge}, down until {tongue} are "
        "left from the {face}, as the groove in {mate} lies. Try the tongue in the groove before the last shavings."
    ),
    Cut.END_RABBET: N_(
        "On {parts} sever the fibers at the shoulder, saw it to the depth line, split the waste off and level with the "
        "{floor}."
    ),
    Cut.STOPPED_RABBET: N_(
        "On {parts} chop the stop first, saw the shoulder from the open edge to the depth line, chop the rest out and "
        "level it."
    ),
    Cut.STOPPED_EDGE_RABBET: N_(
        "On {parts} chop at each stop down to the depth line, chop the waste out between along the grain, a little at "
        "a time, and pare to both lines; level with the {floor}."
    ),
    Cut.DADO: N_(
        "On {parts} saw both walls in the waste to the depth line, chop out from both edges, level with the {floor}."
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
    Cut.BETWEEN_FINGERS: N_(
        "On {parts} saw in the waste beside every finger to the baseline, saw most of the waste out, and chop to the "
        "baseline from both faces."
    ),
    Cut.HAUNCH: N_("Saw the corner off the tenon of {parts} on both lines: the haunch stays."),
    Cut.HAUNCH_SOCKET: N_(
        "From the end of {parts} saw both cheeks of the haunch down to the gauge line, {haunch} and a hair more "
        "deep, as the haunch is long, and chop the waste out to the mortise."
    ),
    Cut.SAW_NOTCH: N_(
        "Saw down both lines of the notch in {parts}, in the waste, and chop it out, half from each face; pare to the "
        "lines."
    ),
    Cut.RECESS: N_("Chop the recess in {parts} to its lines, the hardware tried in it; pare its floor."),
}


_TONGUE_TO_MATE = N_(
    "Plane a rabbet beside the tongue of {parts}: the fence set to the depth of the groove in {mate}, and a hair less; "
    "down until {tongue} are left from the {face}, as that groove lies. Try the tongue in the groove before the last "
    "shavings."
)


def taken_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how a cut with straight walls is made."""
    made, parts = alike[0], parts_words(alike, reader)
    assert isinstance(made, Take)
    said = {each.name: figure_words(each, reader) for each in made.settings}
    edges = [
        each.origin for each in made.settings if each.name in ("fence", "wide") and isinstance(each.origin, Surface)
    ]
    depth = next((line for line in made.needs if line.kind is LineKind.DEPTH), None)
    to_mate = any(each.name == "wide" and isinstance(each.by, ByMate) for each in made.settings)
    told = reader.text(
        _TONGUE_TO_MATE if made.cut is Cut.TONGUE and to_mate else _TAKEN[made.cut],
        parts=parts,
        floor=reader.text(N_("router plane") if made.router else N_("chisel, bevel down")),
        iron=said.get("iron", ""),
        fence=said.get("fence", ""),
        wide=said.get("wide", ""),
        depth=said.get("depth", "") if depth is None else "",
        edge=surface_words(edges[0], reader) if edges else "",
        tongue=said.get("tongue", ""),
        haunch=said.get("haunch", ""),
        face=surface_words(made.into.opposite, reader),
        mate=mates_words(alike, reader),
    )
    mates = dict.fromkeys(
        each.by.part for each in made.settings if each.name == "depth" and isinstance(each.by, ByMate)
    )
    if not mates:
        return told
    taken = reader.text("Take the depth from {mate}, where that came out longest.", mate=reader.together(mates))
    return f"{told} {taken}"


def tenon_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how tenons are sawn: their cheeks, their edges, and what lies between them."""
    made, where = alike[0], where_words(alike, reader)
    assert isinstance(made, SawTenon)
    if made.has_cheeks:
        said = [reader.text(_TENON[made.shoulders_first], where=where)]
        if made.has_edges:
            said.append(reader.text("Saw down the edges in the waste, and pare to their lines."))
    else:
        said = [reader.text("At {where} saw down the edges of the tenons in the waste, to the shoulder.", where=where)]
        if made.has_edges:
            said.append(reader.text("Saw off what lies outside them at the knife line."))
    if len(made.edges) > 1 or len(made.cheeks) > 1:
        said.append(
            reader.text("Chop out what lies between two tenons, half from either side, and pare to the knife line.")
        )
    return " ".join(said)


def fingers_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how fingers are stepped off."""
    made = alike[0]
    assert isinstance(made, StepFingers)
    return reader.text(
        "At {where} open the dividers to {step}, so that {number} steps go from edge to edge, and step the fingers "
        "off; square them to the baseline and hatch every other field, so that one is left at either edge.",
        where=where_words(alike, reader),
        step=figure_words(made.settings[1], reader),
        number=made.number,
    )


def keys_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how the slots of keys are sawn across a glued corner."""
    made = alike[0]
    assert isinstance(made, KeySlot)
    return reader.text(
        "At {where} saw every slot between its lines across the corner, until it is {reach} from the corner on the one "
        "outer face and {deep} on the other; chop the waste out. Glue a key into each, its grain across the corner, "
        "and trim it flush when it is dry.",
        where=where_words(alike, reader),
        reach=figure_words(made.back, reader),
        deep=figure_words(made.deep, reader),
    )


def sliding_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how the tail of a sliding dovetail is sloped, or its housing sawn."""
    made = alike[0]
    bevel = figure_words(made.settings[0], reader)
    if isinstance(made, SlopeTail):
        said = reader.text(
            "At {where} set the bevel to {bevel} and draw the slopes on both edges, from the corners of the end in to "
            "the shoulder. Saw the shoulders to them, and plane or pare both slopes with a sloped guide block: the "
            "housing is cut to this.",
            where=where_words(alike, reader),
            bevel=bevel,
        )
        if made.taper is None or made.leads is None:
            return said
        tapered = reader.text(
            "Then taper the slope on the {face}: {taper} more at the {edge}, which goes in first, to nothing at the "
            "other.",
            face=origin_words(made.taper, reader),
            taper=figure_words(made.taper, reader),
            edge=surface_words(made.leads, reader),
        )
        return f"{said} {tapered}"
    assert isinstance(made, SawHousing)
    message = (
        N_(
            "On {parts} chop a pocket at the stop, as deep as the floor and clean under both slopes. Saw both walls "
            "with a guide block at {bevel}, in the waste, down to the floor; chop the waste out, and level with the "
            "{floor}."
        )
        if any(line.kind is LineKind.STOP for line in made.needs)
        else N_(
            "On {parts} saw both walls with a guide block at {bevel}, in the waste, down to the floor; chop the waste "
            "out clean under both slopes, and level with the {floor}."
        )
    )
    floor = reader.text(N_("router plane") if made.router else N_("chisel, bevel down"))
    said = reader.text(message, parts=parts_words(alike, reader), bevel=bevel, floor=floor)
    if made.taper is None:
        return said
    tapered = reader.text(
        "The wall of the tapered slope runs {taper} nearer to the other one at the end that the tail reaches last: "
        "knife it from the tail there too.",
        taper=figure_words(made.taper, reader),
    )
    return f"{tapered} {said}"


def wedge_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how the slot of a wedge is chopped, and the wedge made for it."""
    made = alike[0]
    assert isinstance(made, ChopWedgeSlot)
    wide, bevel = (figure_words(each, reader) for each in made.settings)
    return reader.text(
        "At {where} mark the slot {wide} long from its inner wall on the {edge}, and draw its outer wall from there at "
        "{bevel}, longer towards the other edge. Chop it through between its cheeks, half from each edge: the inner "
        "wall square, the outer to the slope. Plane a wedge to that slope, a hand longer than the tenon is wide; a tap "
        "tightens it, a tap from below frees it.",
        where=where_words(alike, reader),
        wide=wide,
        edge=surface_words(made.narrow, reader),
        bevel=bevel,
    )
