"""What is said of edges and tapers: what to set, the steps, what to mind, and why one cannot be planed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import assert_never, get_args

from nullah.core.card import Remark, Setting
from nullah.core.catalogue import N_
from nullah.core.lengths import from_float
from nullah.core.milling import edge_facts as facts
from nullah.core.milling.edge_facts import EdgeFact, EdgeStep, EdgeWork, EdgeWrong, GuideLine
from nullah.core.milling.edge_tasks import Planned
from nullah.core.milling.edges import BevelRip, ShapedEdge
from nullah.core.milling.tapers import TaperFace, TaperPlan
from nullah.core.reader import Reader
from nullah.core.wording.worders import worders

_WRONG = {
    EdgeWrong.NO_EDGE: N_("An edge has a thickness, and a plane takes a shaving: give more than nothing."),
    EdgeWrong.IS_A_BEVEL: N_("An edge that far out of square is a bevel: saw it first."),
    EdgeWrong.NO_LENGTH: N_("An edge has a length, and a plane takes a shaving: give more than nothing."),
    EdgeWrong.NO_CHAMFER: N_("A chamfer takes something off both sides: give more than nothing."),
    EdgeWrong.NO_ROUND: N_("A round needs a radius: give more than nothing."),
    EdgeWrong.NO_THUMBNAIL: N_("A thumbnail has a width, a shoulder and a round: give more than nothing."),
    EdgeWrong.NO_PANEL: N_("A raised panel has a bevel: give more than nothing."),
    EdgeWrong.BEVEL_ANGLE: N_("A bevel stands between 0 and 80 degrees out of square."),
    EdgeWrong.TAPER_BELOW_TOE: N_("The taper would begin below the toe: start it higher."),
    EdgeWrong.NO_TAPER: N_("A taper takes something off: give more than nothing."),
    EdgeWrong.NO_FACES: N_("A taper has at least one face: 1 to 4, going round the leg."),
}
_WORK = {
    EdgeWork.PENCIL: N_("Pencil both lines: a gauge would leave a groove that shows."),
    EdgeWork.ENDS_FIRST: N_("End grain first, then the long edges, so that what breaks out is planed away."),
    EdgeWork.TO_BOTH_LINES: N_(
        "Plane until the flat meets both lines at once; if it runs off one, lean the plane to the other."
    ),
    EdgeWork.ROLL_OVER: N_("A few light strokes rolling over it, then a scrap of cloth-backed abrasive wrapped round."),
    EdgeWork.PLANE_RABBET: N_("Plane the rabbet: the ends first, then the long edges."),
    EdgeWork.ACROSS_ENDS_FIRST: N_("Across the ends first, then the long edges: what breaks out is planed away."),
    EdgeWork.CORNERS_TOGETHER: N_(
        "Stop when the bevel meets both lines; its corners must run together on the diagonal."
    ),
    EdgeWork.TRY_GROOVE: N_("Try the edge in a scrap of the groove: it must enter without force."),
}
_LINES = {
    GuideLine.ON_FACE: N_("on the face"),
    GuideLine.DOWN_EDGE: N_("down the edge"),
    GuideLine.FROM_CORNER: N_("both ways from the corner"),
    GuideLine.RABBET_WIDE: N_("rabbet, in from the edge"),
    GuideLine.RABBET_DEEP: N_("rabbet, deep"),
    GuideLine.ROUND_FROM_CORNER: N_("round, from the corner"),
    GuideLine.FROM_BACK: N_("from the back"),
    GuideLine.IN_ON_FACE: N_("in on the face"),
}


def _fine(figure: float, reader: Reader) -> str:
    return reader.fine(from_float(round(figure, 2)))


def edge_error_words(fact: EdgeFact, reader: Reader) -> str:
    """Return why an edge or a taper cannot be planed so."""
    match fact:
        case EdgeWrong():
            return reader.text(_WRONG[fact])
        case facts.LowsTooDeep(most):
            return reader.text("Lows of up to {most} may stay on a hidden face.", most=reader.length(most))
        case facts.RoundTooWide(radius, rabbet):
            return reader.text(
                "A round of {radius} does not fit into a rabbet {rabbet} wide.",
                radius=_fine(radius, reader),
                rabbet=_fine(rabbet, reader),
            )
        case facts.ThumbnailTooDeep(taken, thickness):
            return reader.text(
                "Shoulder and round take {taken} of a board {thick} thick.",
                taken=_fine(taken, reader),
                thick=_fine(thickness, reader),
            )
        case facts.FallTooDeep(fall, thickness):
            return reader.text(
                "A fall of {fall} leaves nothing of a panel {thick} thick.",
                fall=_fine(fall, reader),
                thick=_fine(thickness, reader),
            )
        case facts.EdgeTooThick(edge, groove):
            return reader.text(
                "The edge is {edge} thick and would not enter a groove of {groove}.",
                edge=_fine(edge, reader),
                groove=_fine(groove, reader),
            )
        case facts.BevelTooWide(degrees, reach, width):
            return reader.text(
                "At {degrees}° the cut would reach {reach} over a board {wide} wide.",
                degrees=f"{degrees:g}",
                reach=_fine(reach, reader),
                wide=_fine(width, reader),
            )
        case facts.TaperTooDeep(most):
            return reader.text(
                "Nothing is left at the toe: less than {most} can come off each face.", most=_fine(most, reader)
            )
        case _:
            assert_never(fact)


def edge_step_words(step: EdgeStep, reader: Reader) -> str:
    """Return a step at a shaped edge."""
    match step:
        case EdgeWork():
            return reader.text(_WORK[step])
        case facts.ChamferToLines(line):
            return reader.text(
                "Chamfer at 45° to lines {line} from the corner on both sides.", line=_fine(line, reader)
            )
        case facts.CornersOff(flats):
            return reader.count(
                flats,
                "Plane the corners off again: {n} flat, equal by eye.",
                "Plane the corners off again: {n} flats, equal by eye.",
            )
        case facts.CutRabbet(wide, deep):
            return reader.text(
                "Knife and gauge a rabbet {wide} in, {deep} deep; across the grain cut the shoulder first.",
                wide=_fine(wide, reader),
                deep=_fine(deep, reader),
            )
        case facts.GaugeBevel(edge, wide):
            return reader.text(
                "Gauge {edge} from the back round all four edges, and {wide} in on the face.",
                edge=_fine(edge, reader),
                wide=_fine(wide, reader),
            )
        case facts.EaseLip(thick, groove):
            return reader.text(
                "At the groove's lip the bevel is {thick} thick: ease it to {groove}.",
                thick=_fine(thick, reader),
                groove=_fine(groove, reader),
            )
        case _:
            assert_never(step)


def shaping_settings(found: Planned, thick: float, reader: Reader) -> tuple[Setting, ...]:
    """Return what to set for an edge or a taper; `thick` is the board or leg before it, mm."""
    match found:
        case ShapedEdge():
            return tuple(_edge_settings(found, reader))
        case TaperPlan():
            return tuple(_taper_settings(found, thick, reader))
        case BevelRip():
            return tuple(_bevel_settings(found, reader))
        case _:
            assert_never(found)


def shaping_steps(found: Planned, reader: Reader) -> tuple[str, ...]:
    """Return the steps of an edge or a taper."""
    match found:
        case ShapedEdge():
            return tuple(edge_step_words(step, reader) for step in found.steps)
        case TaperPlan():
            return tuple(_taper_steps(found, reader))
        case BevelRip():
            return (
                reader.text("Gauge both lines from the face edge, and join them across both ends with the bevel."),
                reader.text("Saw between the lines, turning the board so that both are watched."),
                reader.text("Plane to the lines; lay the halves together and look for light."),
            )
        case _:
            assert_never(found)


def shaping_remarks(found: Planned, reader: Reader) -> tuple[Remark, ...]:
    """Return what to mind at an edge or a taper."""
    said: tuple[str, ...]
    match found:
        case ShapedEdge():
            said = (N_("Fine set and a slight skew across end grain; support the far corner."),)
        case TaperPlan():
            said = (
                N_("Plane no face before its neighbors' lines stand on wood that stays: that is the order above."),
                N_("Hold the leg by its square part; both hands behind the edge."),
            )
        case BevelRip():
            said = (N_("Clamp the board: a slanting cut pulls the saw sideways."),)
        case _:
            assert_never(found)
    return tuple(Remark(reader.text(each)) for each in said)


def shaping_why(found: Planned, reader: Reader) -> tuple[str, ...]:
    """Return where the figures of an edge or a taper come from, where that is not plain."""
    if isinstance(found, TaperPlan):
        return (reader.text("Stroke k of n begins k/n of the taper from the toe, n = off ÷ shaving."),)
    return ()


def line_words(line: GuideLine, reader: Reader) -> str:
    """Return what a guide line is measured from."""
    return reader.text(_LINES[line])


def _edge_settings(found: ShapedEdge, reader: Reader) -> Iterator[Setting]:
    for line, figure in found.gauge:
        yield Setting(reader.text("Pencil"), _fine(figure, reader), line_words(line, reader))
    first = found.rounds[0][0]
    yield Setting(reader.text("Lean"), f"{first.degrees:.0f}°", reader.text("from the face, for the first flat"))
    if len(found.rounds) > 1:
        flats = sum(len(flats) for flats in found.rounds)
        yield Setting(reader.text("Flats"), str(flats), reader.text("before it is rolled over"))


def _taper_settings(found: TaperPlan, thick: float, reader: Reader) -> Iterator[Setting]:
    yield Setting(
        reader.text("Begins"), reader.length(from_float(found.start)), reader.text("below the top, squared round")
    )
    yield Setting(
        reader.text("At the toe"),
        reader.size(*(from_float(round(each, 2)) for each in found.toe)),
        reader.text("of {thick}", thick=_fine(thick, reader)),
    )
    yield Setting(reader.text("Off each face"), _fine(found.off, reader), f"{found.angle:.2f}°")
    strokes = str(len(found.strokes) + found.full)
    yield Setting(reader.text("Strokes"), strokes, reader.text("a face, each begun farther from the toe"))


def _taper_steps(found: TaperPlan, reader: Reader) -> Iterator[str]:
    for number, faces in enumerate(found.rounds):
        yield from _round_steps(found, faces, number == 0, reader)
    half = len(found.strokes) // 2
    if half:
        stroke = found.strokes[half - 1]
        yield reader.text(
            "Half way (stroke {number}, from {start}) the toe has {left} to lose yet.",
            number=half,
            start=reader.length(from_float(stroke.start)),
            left=_fine(stroke.left, reader),
        )
    yield reader.text("Last one over the whole taper, to the line; stop short of the squared line at the top.")


def _round_steps(found: TaperPlan, faces: tuple[TaperFace, ...], first: bool, reader: Reader) -> Iterator[str]:
    names = reader.listed(face.face for face in faces)
    message = (
        N_("Draw the lines of {names} on faces {on}.")
        if first
        else N_("Draw the lines of {names} on faces {on}, fresh, now that those are planed.")
    )
    yield reader.text(message, names=names, on=reader.listed(faces[0].lines_on))
    if not found.strokes:
        yield reader.text("Plane {names} to the line.", names=names)
        return
    yield reader.text(
        "Plane {names}: first stroke from {start} to the toe, the next as much farther back.",
        names=names,
        start=reader.length(from_float(found.strokes[0].start)),
    )


def _bevel_settings(found: BevelRip, reader: Reader) -> Iterator[Setting]:
    yield Setting(reader.text("On the face"), _fine(found.on_face, reader), reader.text("from the face edge"))
    yield Setting(reader.text("On the back"), _fine(found.on_back, reader), reader.text("from the same edge"))
    yield Setting(reader.text("Bevel"), f"{found.degrees:g}°", reader.text("out of square"))


# --- on the drawing -------------------------------------------------------------------------------

STROKES_RINGED = N_("ringed: where strokes begin, each from there off the toe")
TOE_END_ON = N_("the toe end on: A above, B right, C below, D left")
BEVEL_SECTION = N_("in section: the saw enters at one line and leaves at the other; two halves that mate")


def drawn_across_note(times: float, reader: Reader) -> str:
    """Return how many times too large a leg is drawn across its grain."""
    return reader.text("across drawn {times} × too large", times=f"{times:.1f}")


def round_words(faces: Sequence[str], first: bool, reader: Reader) -> str:
    """Return which faces of a taper are planed, in the first round or in a later one."""
    names = reader.listed(faces)
    return reader.text("first {faces}", faces=names) if first else reader.text("then {faces}", faces=names)


def edge_section_note(rounds: int, reader: Reader) -> str:
    """Return what the section of a shaped edge shows."""
    return reader.count(
        rounds,
        "the edge in section, face above · rings: the order of planing, one round",
        "the edge in section, face above · rings: the order of planing, {n} rounds",
    )


def out_of_square_words(degrees: float, reader: Reader) -> str:
    """Return how far a bevel is out of square."""
    return reader.text("{degrees}° out of square", degrees=f"{degrees:g}")


#: What says the facts of this room.
WORDERS = worders((get_args(EdgeFact), edge_error_words))
