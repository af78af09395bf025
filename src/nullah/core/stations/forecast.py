"""What thickness each rough part can reach, against what the piece needs, and the ways out where it will not."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from nullah.core.card import Card, Remark, Setting, Severity
from nullah.core.drawing import Anchor, Drawing, Element, Fill, Label, Path, Role, drawing, line, rectangle
from nullah.core.fixes import CutOutFirst, CutThroughFirst, Fix, MakeAllThinner
from nullah.core.lengths import Length, from_float, mm
from nullah.core.piece.part import Part
from nullah.core.plan import Plan, thinner_throughout
from nullah.core.rack.board import Board
from nullah.core.refs import PieceRef
from nullah.core.stations.selection import Selection

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.core.milling.forecast import Forecast
    from nullah.core.milling.slab import Slab
    from nullah.core.milling.survey import Survey

#: Heights are drawn this many times too large, or nobody could see them.
EXAGGERATION = 5
# More parts than this are not drawn at once.
_MOST = 6


def _in_hand(plan: Plan, selection: Selection) -> Forecast | None:
    found = plan.forecast_of(selection.part)
    return found or (plan.milling[0] if plan.milling else None)


def draw_forecast(plan: Plan, selection: Selection) -> Drawing:
    """Draw the wood in section with the slab in it, and each part's thickness against what it needs."""
    if not plan.milling:
        return Drawing()
    chosen = _in_hand(plan, selection)
    shown = drawing(_bars(plan, _beside(plan, chosen), chosen))
    if chosen is None:
        return shown
    left, top, right, bottom = shown.bounds()
    section = drawing(_sections(plan, chosen))
    s_left, s_top, s_right, s_bottom = section.bounds()
    # As wide as the bars, but half as high: a short part would leave them no room.
    scale = min((right - left) / (s_right - s_left), 0.55 * (bottom - top) / (s_bottom - s_top))
    return section.moved(left - s_left * scale, top - 70 - s_bottom * scale, scale) + shown


def _beside(plan: Plan, chosen: Forecast | None) -> tuple[Forecast, ...]:
    """Return the parts to show: all, or where they are many those out of the same board as the one in hand."""
    found = plan.milling or ()
    if len(found) <= _MOST or chosen is None:
        return found
    same = tuple(item for item in found if item.board == chosen.board)
    first = max(0, min(same.index(chosen), len(same) - _MOST))
    return same[first : first + _MOST]


def _sections(plan: Plan, chosen: Forecast) -> Iterator[Element]:
    """Draw the wood along its length and at both ends, heights enlarged, with the slab in it."""
    from nullah.core.milling.faces import survey_patch
    from nullah.core.milling.slab import thickest_slab

    board_plan = next((each for each in plan.boards if each.board.id == chosen.board), None)
    if board_plan is None:
        return
    board, rect = board_plan.board, next(i.rect for i in board_plan.placed if i.part.id == chosen.piece)
    patch = (rect.x, rect.end, rect.y, rect.top)
    if not chosen.cut_first_chosen:
        patch = (0.0, float(board.length), 0.0, float(board.width))
    survey = survey_patch(board, *patch)
    slab = thickest_slab(survey)
    what = f"{board.name}, whole" if not chosen.cut_first_chosen else f"{_name(plan, chosen)}, cut out of {board.name}"
    yield from _along(plan, board, survey, slab, what)


def _along(plan: Plan, board: Board, survey: Survey, slab: Slab, what: str) -> Iterator[Element]:
    length = float(survey.x[-1] - survey.x[0])
    xs = [float(x - survey.x[0]) for x in survey.x]
    middle = len(survey.y) // 2
    yield from _profile(
        xs,
        survey.top[:, middle].tolist(),
        survey.bottom[:, middle].tolist(),
        [slab.a * float(x) + slab.b * float(survey.y[middle]) + slab.c for x in survey.x],
        slab.thickness,
        board,
        0,
        0,
    )
    # Heights count from the datum of the survey, which may lie in the middle of the board.
    high, deep = EXAGGERATION * float(survey.top.max()), EXAGGERATION * max(0.0, -float(survey.bottom.min()))
    yield Label((0, -high), f"{what}: along its middle", 3.0, Anchor.START, Role.FAINT, nudge_mm=(0, -3))
    width = float(survey.y[-1] - survey.y[0])
    ys = [float(y - survey.y[0]) for y in survey.y]
    gap = max(40.0, length * 0.12)
    for index, (station, title) in enumerate(((0, "left"), (-1, "right"))):
        at = index * (width + gap)
        below = deep + high + 48
        x = float(survey.x[station])
        yield from _profile(
            ys,
            survey.top[station].tolist(),
            survey.bottom[station].tolist(),
            [slab.a * x + slab.b * float(y) + slab.c for y in survey.y],
            slab.thickness,
            board,
            at,
            below,
        )
        yield Label((at + width / 2, below + deep), title, 3.0, role=Role.FAINT, nudge_mm=(0, 4))
    if slab.thickness > 0:
        legend = (2 * (width + gap), deep + 50)
        thick = plan.marks.write_fine(_length(slab.thickness))
        yield Label(legend, f"blue: the flat slab inside, {thick}", 3.2, Anchor.START)
        yield Label(legend, "hatched: shavings", 3.2, Anchor.START, Role.FAINT, nudge_mm=(0, 5))
        words = f"heights drawn {EXAGGERATION} × too large"
        yield Label(legend, words, 2.9, Anchor.START, Role.FAINT, nudge_mm=(0, 10))


def _length(millimetres: float) -> Length:
    return Length(Fraction(int(millimetres * 10 + 1e-6), 10))


def _profile(
    stations: list[float],
    top: list[float],
    bottom: list[float],
    floor: list[float],
    thick: float,
    board: Board,
    x: float,
    y: float,
) -> Iterator[Element]:
    """Draw a cut through the wood: shavings hatched, the slab in wood, its faces in chalk."""

    def curve(heights: list[float]) -> list[tuple[float, float]]:
        return [(x + s, y - EXAGGERATION * h) for s, h in zip(stations, heights, strict=True)]

    ceiling = [height + thick for height in floor]
    outline = (*curve(top), *reversed(curve(bottom)))
    yield Path(outline, Role.OUTLINE, closed=True, fill=Fill.WASTE)
    if thick > 0:
        slab = (*curve(ceiling), *reversed(curve(floor)))
        yield Path(slab, Role.CHALK, closed=True, fill=Fill.WOOD, species=board.species)


def _bars(plan: Plan, forecasts: tuple[Forecast, ...], chosen: Forecast | None) -> Iterator[Element]:
    """Draw, part by part, the thickness wanted against what each way leaves, ten times full size."""
    row, times, left = 76.0, 16.0, 150.0
    for index, item in enumerate(forecasts):
        y = index * row
        short = item.short.mm > 0
        name = _name(plan, item)
        lit = chosen is not None and item.part == chosen.part
        yield Label(
            (0, y + 16), name, 3.8, Anchor.START, Role.CHALK if lit else Role.LABEL, bold=lit, ref=PieceRef(item.part)
        )
        board = plan.project.board(item.board)
        yield Label((0, y + 36), board.name if board else "", 2.9, Anchor.START, Role.FAINT, ref=PieceRef(item.part))
        species, need_long = board.species if board else "", float(item.needs) * times
        for offset, reach, way, used in (
            (0, item.whole, "flattened whole", not item.cut_first_chosen),
            (24, item.cut_first, "cut first", item.cut_first_chosen),
        ):
            long = float(reach) * times
            yield rectangle(
                left,
                y + offset,
                long,
                20,
                Role.OUTLINE if used else Role.PENCIL,
                Fill.WOOD if used else Fill.NONE,
                species,
                PieceRef(item.part),
            )
            words = f"{plan.marks.write_fine(reach)}  {way}" + (" · planned" if used else "")
            # Where the bar ends short of it, the line of what is needed would run through the words.
            beyond = left + max(long, need_long) + 12
            yield Label(
                (beyond, y + offset + 10),
                words,
                3.0,
                Anchor.START,
                Role.LABEL if used else Role.FAINT,
                bold=used,
                ref=PieceRef(item.part),
            )
        need = left + need_long
        yield line((need, y - 5), (need, y + 49), Role.WARN if short else Role.CHALK)
        yield Label(
            (need, y - 12), f"needs {plan.marks.write(item.needs)}", 2.9, role=Role.WARN if short else Role.CHALK
        )


def forecast_card(plan: Plan, selection: Selection) -> Card:
    """Return what the part in hand reaches, who falls short, and the ways out."""
    if plan.milling is None:
        return Card("Flattening", mind=(Remark("Working out what each board can give …"),))
    chosen = _in_hand(plan, selection)
    settings: list[Setting] = []
    if chosen is not None:
        write = plan.marks.write_fine
        settings = [
            Setting("Needs", plan.marks.write(chosen.needs), _name(plan, chosen)),
            Setting("Will reach", write(chosen.reach), _how(plan, chosen)),
            Setting("Gauge", plan.marks.write(chosen.needs), "from the face side, all round"),
        ]
        if chosen.lows.mm > 0:
            settings.append(Setting("Lows may stay", write(chosen.lows), "on its hidden face, counted in already"))
    remarks = list(_shortfalls(plan, plan.milling))
    if not remarks and plan.milling:
        remarks.append(Remark("Every part that is laid reaches its thickness."))
    remarks += _too_little_known(plan, plan.milling)
    remarks.append(Remark("Both hands behind the edge; the work against a stop or in the vice, never in the hand."))
    steps = (
        "Face side flat: hollow and wind out, then mark it.",
        "Face edge straight, and square to the face side; mark it.",
        "Gauge the thickness all round from the face side, plane the other face to the line.",
        "Gauge the width from the face edge, plane to the line. Ends last.",
    )
    least = plan.marks.write_fine(mm("0.1"))
    why = (f"The thickest flat slab that lies inside both faces as surveyed; given down to {least}.",)
    return Card("Flattening", tuple(settings), steps, tuple(remarks), why)


def _too_little_known(plan: Plan, forecasts: tuple[Forecast, ...]) -> Iterator[Remark]:
    """Say of which boards too little is known for what they are to give."""
    for board in plan.project.boards:
        near = [item for item in forecasts if item.board == board.id and 0 <= float(-item.short) < item.doubt]
        if near:
            spare, doubt = min(float(-item.short) for item in near), max(item.doubt for item in near)
            write = plan.marks.write_fine
            yield Remark(
                f"{board.name} has {write(from_float(round(spare, 1)))} to spare and is known to "
                f"{write(from_float(round(doubt, 1)))} only: survey it before you saw.",
                Severity.WARNING,
                ref=PieceRef(near[0].piece),
            )


def _how(plan: Plan, chosen: Forecast) -> str:
    """Return how a part is flattened, and how far off its thickness may be."""
    cut = plan.project.first_cut(chosen.board)
    how = "flattened whole"
    if chosen.cut_first_chosen:
        how = "cut first"
    elif cut is not None:
        how = f"after a cut at {plan.marks.write(from_float(round(cut.at)))}"
    return f"{how}, give or take {plan.marks.write_fine(from_float(round(chosen.doubt, 1)))}"


def _shortfalls(plan: Plan, forecasts: tuple[Forecast, ...]) -> Iterator[Remark]:
    """Say, board by board, which parts will not reach their thickness, with the fixes that are arithmetic."""
    for board in plan.project.boards:
        short = [item for item in forecasts if item.board == board.id and item.short.mm > 0]
        if not short:
            continue
        names = _listed([_name(plan, item) for item in short])
        write = plan.marks.write_fine
        reach = min(item.reach for item in short)
        text = f"Out of {board.name} the {names} will not reach {plan.marks.write(short[0].needs)}, only {write(reach)}"
        fixes: list[Fix] = []
        if not short[0].cut_first_chosen:
            cut_first = min(item.cut_first for item in short)
            text += f"; {write(cut_first)} if cut out before flattening"
            if all(item.cut_first >= item.needs for item in short):
                fixes.append(CutOutFirst(board.id, board.name))
            if short[0].better is not None:
                cut, gives = short[0].better
                at = plan.marks.write(from_float(round(cut.at)))
                verb = "cut" if cut.crosswise else "ripped"
                text += f", or {write(gives)} if {verb} at {at} first"
                fixes.append(CutThroughFirst(board.id, board.name, cut.crosswise, from_float(cut.at)))
        first = plan.part(short[0].part)
        if first is not None:
            fixes += _thinner(plan, first)
        yield Remark(f"{text}.", Severity.FAILURE, tuple(fixes), ref=PieceRef(short[0].piece))


def _listed(names: list[str]) -> str:
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def _thinner(plan: Plan, part: Part) -> list[Fix]:
    """Offer to make every part of that thickness as thin as the thinnest can be had."""
    found = thinner_throughout(plan, part)
    if found is None:
        return []
    name, thinner = found
    return [MakeAllThinner(name, thinner)]


def _name(plan: Plan, forecast: Forecast) -> str:
    """Return the name of a part, or of the stave of it that was forecast."""
    piece, part = plan.rough_part(forecast.piece), plan.part(forecast.part)
    named = piece if piece is not None and piece.stave else part
    return named.name if named is not None else forecast.part
