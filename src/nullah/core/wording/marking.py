"""What is said of operations that draw lines."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.catalogue import N_
from nullah.core.operations.lines import LineKind
from nullah.core.operations.marking import DRAWN_UP, DrawSlopes, Gauge, Marker, SetOff, StepOff, Trace
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ENTERING, ByMate, ByMeasure, ToolSetting
from nullah.core.operations.stock import Surface
from nullah.core.operations.tenons import GaugePair
from nullah.core.reader import Reader
from nullah.core.wording.tools import (
    ends_words,
    figure_words,
    mates_words,
    origin_words,
    parts_words,
    surface_words,
    where_words,
)

#: What is said of what goes in: no figure, since the channel that it goes into has its own.
_AS_DEEP = N_(
    "Set the gauge to the depth of the cut in {mate}, and mark the shoulder so far from the {surface} on {where}."
)
#: So far a marking gauge reaches, mm (common practice).
_REACH = 150
_LEVEL = N_("Hold {mate} on {where}, level with the {surface}, and knife where it ends, {figure} away.")
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
    (LineKind.BORDER, True): N_(
        "Set the gauge to {mate}, {figure}, and mark from the {surface} where its edge comes at {where}."
    ),
    (LineKind.WALL, True): N_(
        "Set the gauge to {mate}, {figure}, and mark the wall so far from the {surface} on {where}."
    ),
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
    (LineKind.NOTCH, False): N_(
        "Gauge how deep the notch goes, {figure} from the {surface}, on both faces of {where}."
    ),
    (LineKind.STOP, False): N_("Mark where it stops: {figure} from the {surface}, on {where}."),
    (LineKind.OUTLINE, False): N_("Mark the lines of what is cut out, {figure} from the {surface}, on {where}."),
    (LineKind.SHOULDER, False): N_(
        "Knife the shoulder all round at {where}, {figure} from the end; all that are alike together."
    ),
    (LineKind.CHEEK, False): N_("Gauge the one cheek of the tenon at {where}, {figure} from the {surface}."),
    (LineKind.TENON_EDGE, False): N_("Gauge edges of the tenon at {where}: {figure} from the {surface}."),
    (LineKind.MORTISE_END, True): N_(
        "Hold {mate} across the end and knife its width, {figure}: the end of the slot in {where}."
    ),
    (LineKind.MORTISE_END, False): N_("Knife the ends of the mortise on {where}: {figure} from the {surface}."),
    (LineKind.FINGER, True): N_(
        "Stand {mate} on the end, edges flush, and knife its fingers at {where}; square them to the baseline and hatch "
        "what they cover."
    ),
    (LineKind.TONGUE, False): N_(
        "On both faces mark the end of the tongue, {figure} from the shoulder, at {where}: between the tenons the "
        "panel is cut back to there."
    ),
    (LineKind.TENON_EDGE, True): N_("Lay {mate} on {where} as they will meet, and knife the edges of the tenons over."),
    (LineKind.SLOT_END, False): N_(
        "At tenon {number} knife the ends of the mortise {figure} beyond those edges on {where}, so that the panel can "
        "move."
    ),
    (LineKind.KEY, False): N_(
        "On the glued corner mark the slots for its keys, {figure} from the {surface}, at {where}."
    ),
    (LineKind.OTHER_KEY, False): N_("Mark the other wall of every slot {figure} from the first, at {where}."),
    (LineKind.ROW, False): N_("Gauge a row for the pegs on {where}, {figure} from the {surface}."),
    (LineKind.PLACE, False): N_("Mark a peg over the middle of every tenon on {where}: {figure} from the {surface}."),
    (LineKind.DRAWN_ROW, False): N_(
        "Drawbore: move every mark {figure} nearer to the shoulder at {where}, so that the pegs pull it tight."
    ),
    (LineKind.HAUNCH, True): N_(
        "Lay the tenon of {where} on {mate} and knife over where the mortise ends: beyond that, {figure} from the "
        "{surface}, is the haunch."
    ),
    (LineKind.HAUNCH_END, False): N_("Square the end of the haunch over {figure} from the shoulder, at {where}."),
    (LineKind.POST_FACE, True): N_(
        "Push the tenon home in {mate} and knife along its face on {where}, {figure} from the shoulder."
    ),
    (LineKind.WEDGE_WALL, False): N_(
        "Draw the inner wall of the slot on both edges of {where}, {figure} inside that line: the wedge is to bear on "
        "the post, not on the slot."
    ),
    (LineKind.TAIL_SHOULDER, False): N_("Knife the shoulder of the tail all round at {where}, {figure} from the end."),
    (LineKind.TAIL_FACE, False): N_(
        "Mark where the face of the other board comes on {where}: {figure} from the {surface}."
    ),
    (LineKind.NECK, True): N_(
        "Hold the tail of {mate} on the edge of {where}, its face on that line; knife its slopes on the edge, and "
        "square across the face from where they come out: the neck of the housing, {figure} from the line."
    ),
    (LineKind.FLOOR, True): N_(
        "Set the gauge to the tail of {mate}, {figure}, and mark the floor of the housing on the edge of {where}."
    ),
    (LineKind.MITRE, False): N_("Gauge the miter line, {figure} from the {surface}, which is molded, at {where}."),
}


#: A baseline that is gauged on one face only.
_ONE_FACE = N_(
    "Set the gauge to {mate}, {figure}{over}. From the end, gauge the baseline on the inside face at {where}; nothing "
    "is scribed on the outside."
)


#: What is set off from a line by what was measured: what is measured over parts that stand, or between them.
_MEASURED = {
    LineKind.WALL: N_(
        "From the first wall of the channel opposite set off {figure} on {where}, as measured ({quantity}), and knife "
        "the outer wall of this one there."
    ),
    LineKind.BASELINE: N_(
        "From the baseline at the other end set off {figure}, as measured ({quantity}), and knife the baseline all "
        "round at {where}."
    ),
}
_HELD = N_(
    "Set the gauge from the edge of {mate} to the nearer wall of the mortise there, {figure}, less a shaving, so that "
    "the screw draws it up; mark so far from the {surface} on {where}."
)
_KNIFED = N_("Knife the first wall {figure} from the {surface}, square across, on {where}.")


def gauge_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how a line is gauged, or several of one kind."""
    where = where_words(alike, reader)
    made = alike[0]
    assert isinstance(made, Gauge)
    setting, origin = made.setting, made.setting.origin
    mate = mates_words(alike, reader) if isinstance(setting.by, ByMate) else ""
    if made.kind is LineKind.BASELINE and len(made.on) == 1:
        message = _ONE_FACE
    elif isinstance(setting.by, ByMeasure):
        quantity = reader.title(setting.by.quantity)
        return reader.text(_MEASURED[made.kind], figure=figure_words(setting, reader), where=where, quantity=quantity)
    elif made.tool is Marker.KNIFE and made.kind is LineKind.WALL:
        message = _KNIFED
    elif setting.name == DRAWN_UP:
        message = _HELD
    elif made.kind is LineKind.WALL and mate and setting.name in ENTERING:
        message = _AS_DEEP
    elif made.kind in (LineKind.WALL, LineKind.BORDER) and mate and setting.figure > _REACH:
        message = _LEVEL
    else:
        message = _LINES[made.kind, isinstance(setting.by, ByMate)]
    origins = {each.setting.origin for each in alike if isinstance(each, Gauge)}
    surface = surface_words(origin, reader) if isinstance(origin, Surface) else ""
    if made.kind is LineKind.STOP:
        where = parts_words(alike, reader)
        surface = ends_words(origins, reader)
    elif len(origins) > 1 and origins <= {Surface.REFERENCE_END, Surface.FAR_END}:
        surface = reader.text("end")
    over = _opened(made.over, reader) if made.over is not None else ""
    figures = [figure_words(each.setting, reader) for each in alike if isinstance(each, Gauge)]
    figure = reader.listed(dict.fromkeys(figures))
    number = reader.listed(dict.fromkeys(str((each.number + 1) // 2) for each in alike if isinstance(each, Gauge)))
    return reader.text(message, figure=figure, over=over, where=where, surface=surface, mate=mate, number=number)


def _opened(over: ToolSetting, reader: Reader) -> str:
    """Return by what a gauge that was set to a mate is opened further, or closed again."""
    if over.figure < 0:
        return reader.text(", less {less}", less=figure_words(over._replace(value=-over.figure), reader))
    return reader.text(", and {more} more", more=figure_words(over, reader))


def laid_out_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how tails are stepped or set off."""
    made, where = alike[0], where_words(alike, reader)
    assert isinstance(made, StepOff | SetOff)
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
        "At {where} mark a half-pin of {half} from {borders}; between them is the one tail. Square across the end.",
        "At {where} mark a half-pin of {half} from {borders}. Open the dividers to {step}, so that {n} steps from "
        "the one overshoot the other by the pin, {pin}; step off from both. Square the marks across the end.",
        where=where,
        half=half,
        borders=_borders(made, reader),
        step=step,
        pin=pin,
    )


def _borders(made: StepOff, reader: Reader) -> str:
    """Return between what tails are stepped off: the board's edges, or lines where the mate is narrower."""
    if isinstance(made.low, Surface) and isinstance(made.high, Surface):
        return reader.text("either edge")
    borders = (made.low, made.high)
    if not any(isinstance(each, Surface) for each in borders):
        return reader.text("either border of the mate")
    (surface,) = (each for each in borders if isinstance(each, Surface))
    return reader.text("the border of the mate and from the {edge}", edge=surface_words(surface, reader))


def drawn_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how slopes are drawn with a bevel, or an outline is traced."""
    where = where_words(alike, reader)
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
    mate = mates_words(alike, reader)
    message = (
        N_("Lay the tails of {mate} on {where}, flush at the inside; knife round them, square down, hatch.")
        if made.kind is LineKind.TAILS
        else N_("Stand the pins of {mate} on {where}, flush at the baseline; knife along them, square across, hatch.")
    )
    return reader.text(message, mate=mate, where=where)


def pair_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how a mortise gauge is set and run."""
    where = where_words(alike, reader)
    made = alike[0]
    assert isinstance(made, GaugePair)
    mate = mates_words(alike, reader)
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
    surface, wide, near = (
        origin_words(made.near, reader),
        figure_words(made.wide, reader),
        figure_words(made.near, reader),
    )
    return reader.text(message, wide=wide, near=near, surface=surface, where=where, mate=mate)
