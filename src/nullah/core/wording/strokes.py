"""What is said of the steps of the milling: the plane and how it is set, the strokes, when to stop and how to test."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import assert_never

from nullah.core.card import Card, Remark, Setting, Severity
from nullah.core.catalogue import N_
from nullah.core.forecasts import Stock
from nullah.core.lengths import from_float
from nullah.core.milling.decide import BoardFace
from nullah.core.milling.grain import grain_of
from nullah.core.milling.job import Job
from nullah.core.milling.steps import MillingStep, StepKind
from nullah.core.milling.strokes import FlatteningStage, StageKind, StrokeDirection
from nullah.core.named_tuple import NamedTuple
from nullah.core.rack.board import Rise
from nullah.core.reader import Reader, sentence
from nullah.core.wording.durations import about_words
from nullah.core.wording.forecast import caution_words

#: More than this over a whole face is better sawn off, mm (common practice).
_RESAW = 4.0
#: So many partial passes are told by their widths.
_MOST_PASSES = 4
#: What is thinner than it needs by less than this reaches it, mm.
_REACHES = 0.05

_STAGES = {
    StageKind.HUMPS: (
        (N_("Face side: humps"), N_("Second face: humps")),
        N_("Straightedge along and on both diagonals: stop when it no longer rocks."),
    ),
    StageKind.TRAVERSE: (
        (N_("Face side: traverse"), N_("Second face: traverse")),
        N_("Winding sticks after each set, straightedge across: stop when the tops are parallel."),
    ),
    StageKind.ALONG: (
        (N_("Face side: along"), N_("Second face: along")),
        N_("Straightedge along and on the diagonals: stop at full shavings from end to end."),
    ),
    StageKind.SMOOTH: (
        (N_("Face side: smooth"), N_("Second face: smooth")),
        N_("No light under the straightedge anywhere; equal strokes everywhere."),
    ),
}
_NAMES = {
    StageKind.HUMPS: N_("Humps"),
    StageKind.TRAVERSE: N_("Traverse"),
    StageKind.ALONG: N_("Along"),
    StageKind.SMOOTH: N_("Smooth"),
}
_DIRECTIONS = {
    StrokeDirection.ACROSS: N_("across the grain"),
    StrokeDirection.SLANT: N_("at 45°"),
    StrokeDirection.BACK: N_("at 45° the other way"),
    StrokeDirection.ALONG: N_("along the grain"),
}
#: Directions in few words, for a list.
_SHORT = {
    (StrokeDirection.ACROSS,): N_("across"),
    (StrokeDirection.SLANT, StrokeDirection.BACK): N_("45° both ways"),
    (StrokeDirection.ALONG,): N_("along"),
}
_WIDTH = (
    N_("Gauge the width from the face edge on both faces."),
    N_("Saw or plane near, then plane to the line, square to the face side."),
    N_("Take a shaving off every part of one width in turn, so that they stay alike."),
)
_ENDS = (
    N_("Knife the length from the face edge and the face side, all round."),
    N_("Saw in the waste; shoot to the line."),
    N_("Square from the face side and from the face edge: no light either way."),
)
#: How a face lies that is worked on, and that it is shimmed where it rocks.
_LIES = {
    (BoardFace.UPPER, False): N_("Lay it with the upper face up."),
    (BoardFace.LOWER, False): N_("Lay it with the lower face up, turned over about its length."),
    (BoardFace.UPPER, True): N_("Lay it with the upper face up; shim it where it rocks."),
    (BoardFace.LOWER, True): N_("Lay it with the lower face up, turned over about its length; shim it where it rocks."),
}


class StepWords(NamedTuple):
    """A step of the milling in words: what it is called, the tool, and what to do, a sentence each; the test last."""

    title: str
    tool: str
    steps: tuple[str, ...]


def stage_words(stage: FlatteningStage, number: int, reader: Reader) -> str:
    """Return which set of a stage is under way, counted from 1."""
    plane = reader.text(stage.plane.kind.value)
    return reader.text("{stage}, {plane}, set {n}:", stage=reader.text(_NAMES[stage.kind]), plane=plane, n=number)


def milling_step_words(step: MillingStep, job: Job, reader: Reader) -> StepWords:
    """Return a step of the milling in words."""
    match step.kind:
        case StepKind.FACE:
            return _face_words(step, reader)
        case StepKind.EDGE:
            return StepWords(reader.text("Face edge"), _edge_tool(step, reader), tuple(_edge_steps(job, reader)))
        case StepKind.GAUGE:
            thick = reader.fine(from_float(round(job.thickness, 1)))
            gauging = (
                reader.text("Set the gauge to {thickness}, stock against the face side.", thickness=thick),
                reader.text("Gauge all round: both edges and both ends."),
                reader.text("Where the line runs out of the wood, that low is what sets the limit."),
            )
            return StepWords(
                reader.text("Gauge the thickness"), reader.text("gauge at {thickness}", thickness=thick), gauging
            )
        case StepKind.WIDTH:
            return StepWords(
                reader.text("Second edge"), reader.text("gauge, saw, jointer"), tuple(map(reader.text, _WIDTH))
            )
        case StepKind.ENDS:
            return StepWords(
                reader.text("Ends"), reader.text("knife, saw, shooting board"), tuple(map(reader.text, _ENDS))
            )
        case _:
            assert_never(step.kind)


def _face_words(step: MillingStep, reader: Reader) -> StepWords:
    assert step.face is not None
    stage = step.stage
    lies = reader.text(_LIES[step.face.face, stage is not None])
    if stage is None:
        title = N_("Second face: as it is") if step.second else N_("Face side: as it is")
        return StepWords(reader.text(title), "", (lies, reader.text("Nothing stands above the line.")))
    titles, test = _STAGES[stage.kind]
    goes = reader.text(
        "{plane} set to {shaving}, {ways}, over what stands more than {leave} above the line.",
        plane=sentence(reader.text(stage.plane.kind.value)),
        shaving=reader.marks.write_short(stage.depth, unit=True),
        ways=ways_words(stage, reader),
        leave=reader.fine(from_float(stage.leave)),
    )
    strokes = reader.count(stage.strokes, "{n} stroke", "{n} strokes")
    many = reader.count(
        stage.sets,
        "About {strokes} in {n} set; the shorter ones come first.",
        "About {strokes} in {n} sets; the shorter ones come first.",
        strokes=strokes,
    )
    return StepWords(
        reader.text(titles[step.second]), _stage_tool(stage, reader), (lies, goes, many, reader.text(test))
    )


def ways_words(stage: FlatteningStage, reader: Reader) -> str:
    """Return which ways the strokes of a stage go."""
    return reader.listed([reader.text(_DIRECTIONS[way]) for way in stage.ways])


def _stage_tool(stage: FlatteningStage, reader: Reader) -> str:
    shaving = reader.marks.write_short(stage.depth, unit=True)
    plane, ways = reader.text(stage.plane.kind.value), reader.text(_SHORT[stage.ways])
    return reader.text("{plane} {shaving}, {ways}", plane=plane, shaving=shaving, ways=ways)


def _edge_tool(step: MillingStep, reader: Reader) -> str:
    if step.plane is None:
        return reader.text("no plane")
    shaving = reader.marks.write_short(float(step.plane.shaving), unit=True)
    return reader.text("{plane} {shaving}", plane=reader.text(step.plane.kind.value), shaving=shaving)


def _edge_steps(job: Job, reader: Reader) -> Iterator[str]:
    straight, square = job.edge
    if straight.stopped:
        start, end = (reader.length(from_float(at)) for at in straight.stopped[0])
        yield reader.text(
            "Stopped strokes where it stands high, the shortest first (from {start} to {end}), {n} in all; then "
            "through, until one shaving is whole.",
            start=start,
            end=end,
            n=len(straight.stopped),
        )
    if square.partial:
        widths = [reader.fine(from_float(round(reach, 1))) for reach in square.partial[:_MOST_PASSES]]
        if len(square.partial) > _MOST_PASSES:
            widths.append("…")
        yield reader.count(
            len(square.partial),
            "Out of square: {n} partial pass from the high side, {widths} wide or so; then one over the whole.",
            "Out of square: {n} partial passes from the high side, {widths} wide or so; then one over the whole.",
            widths=", ".join(widths),
        )
    yield reader.text("Straightedge along, square from the face side at five places: no light. Mark it as face edge.")


# --- how much -------------------------------------------------------------------------------------


def strokes_words(step: MillingStep, reader: Reader) -> str:
    """Return about how many strokes a step takes; empty where none are counted."""
    return reader.count(step.strokes, "{n} stroke", "{n} strokes") if step.strokes else ""


def step_minutes(step: MillingStep, reader: Reader) -> str:
    """Return about how long a step takes."""
    return reader.text("{n} min", n=max(1, round(step.minutes)))


def in_all_words(steps: Sequence[MillingStep], reader: Reader) -> str:
    """Return how long all steps take."""
    total = about_words(sum(step.minutes for step in steps), reader)
    return reader.text("in all about {time}, with testing", time=total)


def sheet_foot(reader: Reader) -> str:
    """Return what stands at the foot of a sheet of steps: a caution, and where the thickness is entered."""
    return reader.text(
        "Both hands behind the edge; the work against a stop or in the vise. Thickness as measured: ______"
    )


# --- the drawing ----------------------------------------------------------------------------------


def tears_words(what: str, reader: Reader) -> str:
    """Return what is written where the grain turns."""
    return reader.text("{what}: tears", what=what)


def grain_words(to_right: bool | None, reader: Reader) -> str:
    """Return which way to plane with the grain; None: nobody has looked."""
    if to_right is None:
        return reader.text("grain: not looked at yet")
    return (
        reader.text("with the grain: left to right →") if to_right else reader.text("with the grain: ← right to left")
    )


def edge_words(passes: int, reader: Reader) -> tuple[str, str]:
    """Return what the two pictures of an edge show: its stopped strokes, and so many partial passes."""
    return (
        reader.text("stopped strokes along the edge, from above, the shortest first"),
        reader.count(
            passes,
            "{n} partial pass from the high side, then one over all",
            "{n} partial passes from the high side, each a little wider, then one over all",
        ),
    )


# --- the card -------------------------------------------------------------------------------------


def no_strokes_card(reader: Reader) -> Card:
    """Return what is told where there is no board."""
    return Card(reader.text("Strokes"), mind=(Remark(reader.text("Put a board on the rack first.")),))


def strokes_card(stock: Stock, name: str, job: Job, step: MillingStep, shop_has_planes: bool, reader: Reader) -> Card:
    """Return a step of the milling in full, and what to mind at it.

    Parameters
    ----------
    stock : Stock
        What is milled.
    name : str
        What that is called.
    job : Job
    step : MillingStep
    shop_has_planes : bool
    reader : Reader
    """
    words = milling_step_words(step, job, reader)
    settings = [Setting(words.title, words.tool or "—")]
    if step.stage is not None:
        stage = step.stage
        sets = reader.count(
            stage.sets, "about, in {n} set {ways}", "about, in {n} sets {ways}", ways=ways_words(stage, reader)
        )
        shaving = reader.marks.write_short(stage.depth, unit=True)
        settings += [
            Setting(reader.text("Set to"), shaving, reader.text("shaving in the middle of the iron")),
            Setting(reader.text("Strokes"), str(stage.strokes), sets),
            Setting(reader.text("Leave"), reader.fine(from_float(stage.leave)), reader.text("above the line")),
        ]
    thick = reader.fine(from_float(round(job.thickness, 1)))
    settings.append(Setting(reader.text("Thickness"), thick, reader.text("gauge it from the face side")))
    return Card(
        reader.text("Milling {what}", what=name),
        tuple(settings),
        words.steps,
        tuple(_remarks(stock, job, step, shop_has_planes, reader)),
        (
            reader.text(
                "Strokes = wood above the line ÷ what a set takes. Times are a guess: 1.2 s a stroke, 2.2 s a meter."
            ),
        ),
    )


def _remarks(stock: Stock, job: Job, step: MillingStep, shop_has_planes: bool, reader: Reader) -> Iterator[Remark]:
    needs = stock.needs
    if not shop_has_planes:
        yield Remark(reader.text("There is no plane in the shop: enter one in the row above."), Severity.FAILURE)
    elif step.face is not None and step.stage is None:
        yield Remark(reader.text("There is nothing to take off this face."))
    if needs is not None and job.thickness < float(needs) - _REACHES:
        reach = reader.fine(from_float(int(job.thickness * 10 + 1e-6) / 10))
        short = reader.text(
            "It needs {needs} and will reach {reach}: see Forecast for the ways out.",
            needs=reader.length(needs),
            reach=reach,
        )
        yield Remark(short, Severity.FAILURE)
    if stock.board.rises is Rise.UNKNOWN:
        look = reader.text(
            "Look at the edge which way the grain rises, and enter it above: planed against it, it tears."
        )
        yield Remark(look, Severity.WARNING)
    if step.face is not None and grain_of(stock.board, step.face.face).turns:
        yield Remark(
            reader.text("Where the grain turns take the finest set, a skewed stroke, or finish with a scraper.")
        )
    if step.face is not None and float(step.face.heights.min()) > _RESAW:
        over = reader.fine(from_float(round(float(step.face.heights.min()), 1)))
        much = N_("{over} come off this face everywhere: resawn, it would leave a thin board and save strokes.")
        yield Remark(reader.text(much, over=over))
    yield Remark(caution_words(reader))
    if step.kind is StepKind.ENDS:
        yield Remark(reader.text("Shoot from both sides, or back the far edge up: end grain breaks out there."))
