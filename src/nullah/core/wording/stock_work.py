"""What is said of sawing boards apart and of milling blanks."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.catalogue import N_
from nullah.core.lengths import Length
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
from nullah.core.operations.operation import Operation
from nullah.core.operations.sawing import SawThrough
from nullah.core.operations.settings import ByMate
from nullah.core.operations.stock import Surface
from nullah.core.reader import Reader
from nullah.core.wording.tools import figure_words, parts_words

#: Ends and edges of a board as it is drawn.
_BOARD = {
    Surface.REFERENCE_END: N_("left end"),
    Surface.FAR_END: N_("right end"),
    Surface.FACE_EDGE: N_("lower edge"),
    Surface.OTHER_EDGE: N_("upper edge"),
}
_TRUE = {
    Surface.FACE_SIDE: N_(
        "Plane a face of {parts} true, the face side: across where it is high, then along, until sticks show no twist "
        "and a straightedge no light. Mark it."
    ),
    Surface.FACE_EDGE: N_("Shoot an edge of {parts} straight and square to the face side, the face edge. Mark it."),
    Surface.REFERENCE_END: N_(
        "Knife round {parts} near one end, square from face side and face edge; saw in the waste and shoot to the "
        "line: the reference end."
    ),
}
_FIRST_END = N_(
    "Knife round the strip near one end, square from face side and face edge; saw in the waste and shoot to the line: "
    "the reference end of the first."
)
_OFF_STRIP = N_(
    "Knife round the strip {figure} from that end, saw the first off in the waste, and shoot the end that is left on "
    "the strip, the next one’s reference end: {parts}, one after another. Shoot their far ends to the line."
)
_WORK = {
    Surface.OTHER_FACE: N_(
        "Gauge {parts} {figure} thick all round from the face side; plane the other face to the line, across first."
    ),
    Surface.OTHER_EDGE: N_("Gauge {parts} {figure} wide from the face edge; rip in the waste, plane to the line."),
    Surface.FAR_END: N_(
        "Knife round {parts} {figure} from the reference end; saw in the waste and shoot to the line, from both edges "
        "inwards."
    ),
}


_CROSSCUT = {
    True: N_("Crosscut {piece} at {figure} from its {end}, the saw beyond the line."),
    False: N_("Crosscut {piece} at {figure} from its {end}, the saw before the line."),
}
_TO_RIP = {
    True: N_("Crosscut the side with {parts} at {figure} from the {end}, as far as the rip, the saw beyond the line."),
    False: N_("Crosscut the side with {parts} at {figure} from the {end}, as far as the rip, the saw before the line."),
}
_RIP = {
    True: N_("Rip {piece} at {figure} from its {end}, {long} long, the saw beyond the line."),
    False: N_("Rip {piece} at {figure} from its {end}, {long} long, the saw before the line."),
}
_STOPPED = {
    True: N_("Rip {piece} at {figure} from its {end}, the saw beyond the line; stop {long} from the {start}."),
    False: N_("Rip {piece} at {figure} from its {end}, the saw before the line; stop {long} from the {start}."),
}


def sawn_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how a cut is measured on the piece in hand, on which side of the line the saw stays, and what it frees."""
    (made,) = alike
    assert isinstance(made, SawThrough) and isinstance(made.setting.origin, Surface)
    stop = made.stop
    across, along = (_TO_RIP if made.to_rip else _CROSSCUT), (_RIP if stop is None else _STOPPED)
    start = stop.origin if stop is not None and isinstance(stop.origin, Surface) else Surface.REFERENCE_END
    said = reader.text(
        (across if made.across else along)[made.saw_beyond],
        piece=_piece(made, reader),
        parts=reader.together(made.holds),
        figure=figure_words(made.setting, reader),
        end=reader.text(_BOARD[made.setting.origin]),
        long=reader.length(Length(made.long)),
        start=reader.text(_BOARD[start]),
    )
    if not made.frees:
        return said
    return f"{said} {reader.text('That frees {parts}.', parts=reader.together(made.frees))}"


def board_surface_words(made: SawThrough, reader: Reader) -> str:
    """Return the end or edge of the piece in hand from which a cut is measured."""
    assert isinstance(made.setting.origin, Surface)
    return reader.text("from its {end}", end=reader.text(_BOARD[made.setting.origin]))


def _piece(made: SawThrough, reader: Reader) -> str:
    if not made.hand:
        return reader.text("the board")
    return reader.text("the piece with {parts}", parts=reader.together(made.holds))


def _staves_words(made: GlueStaves, parts: str, reader: Reader) -> str:
    """Return how staves are prepared and glued: edge to edge, or face to face, all at once or in parts."""
    trued = (
        N_("Plane the faces of the {count} strips of {parts} flat and number them.")
        if made.laminated
        else N_(
            "Shoot the edges of the {count} staves of {parts}, neighbors together in the vise, so that what is not "
            "square cancels; number them."
        )
    )
    glued = (
        reader.count(
            made.clamps,
            "Glue them into {goes} sections, each by itself: {n} clamp to each.",
            "Glue them into {goes} sections, each by itself: {n} clamps to each, above and below in turn.",
            goes=str(made.goes),
        )
        if made.goes > 1
        else reader.count(
            made.clamps,
            "Glue them all at one go: {n} clamp.",
            "Glue them all at one go: {n} clamps, above and below in turn.",
        )
    )
    return f"{reader.text(trued, count=str(made.count), parts=parts)} {glued}"


def _strip_words(made: PlaneTrue | WorkTo, parts: str, reader: Reader) -> str:
    """Return how a strip is milled from which short parts are sawn, and how they are."""
    strip = reader.text("the strip for {parts}", parts=parts)
    if isinstance(made, PlaneTrue):
        message = _FIRST_END if made.surface is Surface.REFERENCE_END else _TRUE[made.surface]
        return reader.text(message, parts=strip)
    figure = figure_words(made.setting, reader)
    if made.surface is Surface.FAR_END:
        return reader.text(_OFF_STRIP, parts=parts, figure=figure)
    return reader.text(_WORK[made.surface], parts=strip, figure=figure)


def milled_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how surfaces are planed true, and others worked to lines gauged from them."""
    parts, made = parts_words(alike, reader), alike[0]
    match made:
        case PlaneTrue(in_strip=True) | WorkTo(in_strip=True):
            return _strip_words(made, parts, reader)
        case PlaneTrue(surface=surface):
            return reader.text(_TRUE[surface], parts=parts)
        case WorkTo(setting=setting, lows=lows):
            said = reader.text(_WORK[made.surface], parts=parts, figure=figure_words(setting, reader))
            if isinstance(setting.by, ByMate):
                taken = reader.text("Take it from {mate}, not from the rule.", mate=reader.part(setting.by.part))
                said = f"{said} {taken}"
            if not lows:
                return said
            return f"{said} {reader.text('Lows of up to {deep} may stay.', deep=reader.fine(Length(lows)))}"
        case LeaveOver(setting=setting):
            message = (
                N_("Leave {parts} {figure} long or more: what they fit is measured first.")
                if setting.origin is Surface.REFERENCE_END
                else N_("Leave {parts} {figure} wide or more: what they fit is measured first.")
            )
            return reader.text(message, parts=parts, figure=figure_words(setting, reader))
        case LeaveRough(setting=setting):
            return reader.text(
                "Leave the other face of {parts} as it came: scrape the glue off and take down only what stands out. "
                "Gauge {figure} from the face side round the edges and bevel it to there, so that it looks so thick.",
                parts=parts,
                figure=figure_words(setting, reader),
            )
        case GlueStaves():
            return _staves_words(made, parts, reader)
        case GlueTogether(clamps=clamps):
            return reader.count(
                clamps,
                "True the faces where the sections of {parts} meet, and glue them together: {n} clamp.",
                "True the faces where the sections of {parts} meet, and glue them together: {n} clamps, above and "
                "below in turn.",
                parts=parts,
            )
        case Resaw(setting=setting, other=other):
            return reader.text(
                "Plane one face of the blank true, gauge {figure} round it from there and saw along the line from both "
                "edges: {parts} and {other}. Let them lie some days on sticks before they are planed.",
                figure=figure_words(setting, reader),
                parts=parts,
                other=reader.part(other),
            )
        case FlattenBoard(setting=setting, portions=portions):
            message = (
                N_("Plane one face of either piece of the board true, and the other to {figure}, before it is sawn on.")
                if portions
                else N_("Plane one face of the board true, and the other to {figure}, before it is sawn apart.")
            )
            return reader.text(message, figure=figure_words(setting, reader))
    raise TypeError(f"nothing is said of {type(made).__name__}")
