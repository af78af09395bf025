"""What is said of operations that shape a part, or plane it flush."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.catalogue import N_
from nullah.core.lengths import Length
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ToolSetting
from nullah.core.operations.shaping import BevelEdge, PlaneTaper, RoundEdge, SawArch, SawCorners, SawOgee, SawOutline
from nullah.core.operations.stock import surface_at
from nullah.core.operations.taking import CutToSize, PlaneOff
from nullah.core.piece.shaping import (
    Arch,
    Chamfer,
    LongBevel,
    Notch,
    OgeeFoot,
    RaisedPanel,
    RoundOver,
    Shaping,
    Taper,
    Traced,
)
from nullah.core.piece.space import Side
from nullah.core.reader import Reader
from nullah.core.wording.tools import figure_words, origin_words, parts_words, surface_words


def _edges_of(alike: Sequence[Operation], reader: Reader) -> str:
    """Return the edges that are taken off, each by the two surfaces it lies between."""
    found: dict[str, None] = {}
    for each in alike:
        assert isinstance(each, BevelEdge | RoundEdge)
        found[
            reader.text("{one} and {other}", one=origin_words(each.down, reader), other=origin_words(each.over, reader))
        ] = None
    return reader.listed(found)


def edge_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how an edge is bevelled or rounded."""
    parts = parts_words(alike, reader)
    made = alike[0]
    assert isinstance(made, BevelEdge | RoundEdge)
    over, down = figure_words(made.over, reader), figure_words(made.down, reader)
    if isinstance(made, RoundEdge):
        message = N_(
            "Round the edge between {edges} on {parts} to a radius of {radius}: pencil {down} in from the first and "
            "{over} from the second, plane a chamfer, then corner after corner; try it with a gauge cut to that."
        )
    elif made.over.figure == made.down.figure:
        message = N_(
            "Chamfer the edge between {edges} on {parts}: pencil {over} in on the one and {down} on the other; plane "
            "to both lines, ends before edges."
        )
    else:
        message = N_(
            "Bevel the edge between {edges} on {parts}: gauge {over} in on the first and {down} down on the second; "
            "plane to both lines, ends before edges."
        )
    radius = reader.length(Length(made.radius)) if isinstance(made, RoundEdge) else ""
    return reader.text(message, edges=_edges_of(alike, reader), parts=parts, over=over, down=down, radius=radius)


def outline_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how an edge or a face is cut to an outline."""
    made, parts = alike[0], parts_words(alike, reader)
    match made:
        case SawArch():
            return reader.text(
                "Draw the arch on {parts}: its ends {start} from the {low} and {end} from the {high}, its middle "
                "{rise} in from the {edge}. Strike it with a radius of {radius}, or bend a lath through the points. "
                "Saw in the waste; spokeshave to the line, from both ends to the middle.",
                parts=parts,
                start=figure_words(made.start, reader),
                low=origin_words(made.start, reader),
                end=figure_words(made.end, reader),
                high=origin_words(made.end, reader),
                rise=figure_words(made.rise, reader),
                edge=origin_words(made.rise, reader),
                radius=reader.fine(Length(made.radius)),
            )
        case SawOgee():
            feet = (
                reader.text(
                    "{foot} and {top} from the {end}",
                    foot=figure_words(foot, reader),
                    top=figure_words(top, reader),
                    end=origin_words(foot, reader),
                )
                for foot, top in made.feet
            )
            return reader.text(
                "On {parts} gauge a line {rise} in from the {edge}. Mark where the ogee leaves the foot and where it "
                "meets that line: {feet}. Draw it as two equal arcs of radius {radius}, the one out of the foot, the "
                "other out of the line. Saw in the waste; spokeshave and scrape to the line.",
                parts=parts,
                rise=figure_words(made.rise, reader),
                edge=origin_words(made.rise, reader),
                feet=reader.listed(feet),
                radius=reader.fine(Length(made.radius)),
            )
        case SawOutline(side=edge, points=points, along=along):
            told = (
                reader.text("{deep} at {at}", at=reader.length(Length(at)), deep=reader.length(Length(deep)))
                for at, deep in points
            )
            return reader.text(
                "Draw the outline on {parts} by its full-size template, or by points in from the {edge}, measured from "
                "the {end}: {points}. Saw in the waste; pare or spokeshave to the line.",
                parts=parts,
                edge=surface_words(edge, reader),
                end=surface_words(surface_at(along, False), reader),
                points=reader.listed(told),
            )
        case SawCorners():
            return _corners(made, parts, reader)
    raise TypeError(f"nothing is said of {type(made).__name__}")


def _at(setting: ToolSetting, reader: Reader) -> str:
    """Return where a place lies: so far from a surface, or at it."""
    surface = origin_words(setting, reader)
    if not setting.value:
        return reader.text("at the {surface}", surface=surface)
    return reader.text("{figure} from the {surface}", figure=figure_words(setting, reader), surface=surface)


def _corners(made: SawCorners, parts: str, reader: Reader) -> str:
    told = (
        reader.text("{one} and {other}", one=_at(first, reader), other=_at(second, reader))
        for first, second in made.corners
    )
    message = (
        N_("On {parts} mark these points on the {surface} and join them: {points}. Saw off what lies between.")
        if made.depth is None
        else N_(
            "On {parts} mark these points on the {surface} and join them: {points}. Saw beside the lines and chop out "
            "what lies between, {depth} deep; level the floor."
        )
    )
    return reader.text(
        message,
        parts=parts,
        surface=surface_words(made.into, reader),
        points="; ".join(told),
        depth=figure_words(made.depth, reader) if made.depth is not None else "",
    )


def planed_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return what is planed flush, cut to size or tapered."""
    parts = parts_words(alike, reader)
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
                message,
                surface=origin_words(made.setting, reader),
                parts=parts,
                figure=figure_words(made.setting, reader),
            )
        case CutToSize():
            message = (
                N_(
                    "Cut {parts} to {figure} from the {surface}, as measured; "
                    "try it where it goes, and shave it until it goes in."
                )
                if made.goes_in
                else N_("Cut {parts} to {figure} from the {surface}, as measured.")
            )
            return reader.text(
                message,
                parts=parts,
                figure=figure_words(made.setting, reader),
                surface=origin_words(made.setting, reader),
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
                surface=origin_words(made.toe, reader),
                end=surface_words(made.end, reader),
                start=figure_words(made.start, reader) if made.start is not None else "",
                other=origin_words(made.start, reader) if made.start is not None else "",
                parts=parts,
            )
    raise TypeError(f"nothing is said of {type(made).__name__}")


def shaping_name(shaping: Shaping, reader: Reader) -> str:
    """Return a shaping shortly, as on a list: “arch underneath”."""
    sides: tuple[Side, ...] = ()
    match shaping:
        case Taper(faces, end):
            return reader.count(
                len(faces),
                "taper towards {end}, {n} face",
                "taper towards {end}, {n} faces",
                end=reader.text(end.value),
            )
        case Chamfer(edge):
            message, sides = N_("chamfer {sides}"), edge
        case RoundOver(edge):
            message, sides = N_("rounded {sides}"), edge
        case LongBevel(edge):
            message, sides = N_("bevel {sides}"), edge
        case Arch(side):
            message, sides = N_("arch {sides}"), (side,)
        case OgeeFoot(side):
            message, sides = N_("ogee feet {sides}"), (side,)
        case Traced(side):
            message, sides = N_("traced edge {sides}"), (side,)
        case RaisedPanel(face):
            message, sides = N_("raised panel {sides}"), (face,)
        case Notch():
            message = N_("notch")
        case _:
            message = N_("slanted cut")
    return reader.text(message, sides=reader.listed([reader.text(each.value) for each in sides]))
