"""What thickness each rough part can reach, against what the piece needs, and the ways out where it will not."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Card, Remark, Severity
from nullah.core.drawing import Anchor, Drawing, Element, Fill, Label, Path, Role, drawing, line, rectangle
from nullah.core.fixes import CutOutFirst, CutThroughFirst, Fix, MakeAllThinner
from nullah.core.fraction import Fraction
from nullah.core.lengths import Length, from_float
from nullah.core.piece.part import Part
from nullah.core.plan import Plan, thinner_throughout
from nullah.core.rack.board import Board
from nullah.core.refs import PieceRef
from nullah.core.stations.selection import Selection
from nullah.core.wording import forecast as words

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
    what = words.section_words(board.name, _name(plan, chosen) if chosen.cut_first_chosen else "", plan.reader)
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
    yield Label((0, -high), what, 3.0, Anchor.START, Role.FAINT, nudge_mm=(0, -3))
    width = float(survey.y[-1] - survey.y[0])
    ys = [float(y - survey.y[0]) for y in survey.y]
    gap = max(40.0, length * 0.12)
    for index, (station, title) in enumerate(zip((0, -1), words.end_words(plan.reader), strict=True)):
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
        slab_inside, shavings, enlarged = words.legend_words(_length(slab.thickness), EXAGGERATION, plan.reader)
        yield Label(legend, slab_inside, 3.2, Anchor.START)
        yield Label(legend, shavings, 3.2, Anchor.START, Role.FAINT, nudge_mm=(0, 5))
        yield Label(legend, enlarged, 2.9, Anchor.START, Role.FAINT, nudge_mm=(0, 10))


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
        for offset, reach, cut_first in ((0, item.whole, False), (24, item.cut_first, True)):
            used = item.cut_first_chosen is cut_first
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
            # Where the bar ends short of it, the line of what is needed would run through the words.
            beyond = left + max(long, need_long) + 12
            yield Label(
                (beyond, y + offset + 10),
                words.bar_words(reach, cut_first, used, plan.reader),
                3.0,
                Anchor.START,
                Role.LABEL if used else Role.FAINT,
                bold=used,
                ref=PieceRef(item.part),
            )
        need = left + need_long
        yield line((need, y - 5), (need, y + 49), Role.WARN if short else Role.CHALK)
        said = words.needs_words(item.needs, plan.reader)
        yield Label((need, y - 12), said, 2.9, role=Role.WARN if short else Role.CHALK)


def forecast_card(plan: Plan, selection: Selection) -> Card:
    """Return what the part in hand reaches, who falls short, and the ways out."""
    if plan.milling is None:
        return words.working_card(plan.reader)
    chosen = _in_hand(plan, selection)
    remarks = list(_shortfalls(plan, plan.milling))
    if not remarks and plan.milling:
        remarks.append(Remark(words.all_reach_words(plan.reader)))
    remarks += _too_little_known(plan, plan.milling)
    remarks.append(Remark(words.caution_words(plan.reader)))
    name, cut = ("", None) if chosen is None else (_name(plan, chosen), plan.project.first_cut(chosen.board))
    return words.forecast_card(chosen, name, cut, remarks, plan.reader)


def _too_little_known(plan: Plan, forecasts: tuple[Forecast, ...]) -> Iterator[Remark]:
    """Say of which boards too little is known for what they are to give."""
    for board in plan.project.boards:
        near = [item for item in forecasts if item.board == board.id and 0 <= float(-item.short) < item.doubt]
        if near:
            spare, doubt = min(float(-item.short) for item in near), max(item.doubt for item in near)
            said = words.known_words(board.name, spare, doubt, plan.reader)
            yield Remark(said, Severity.WARNING, ref=PieceRef(near[0].piece))


def _shortfalls(plan: Plan, forecasts: tuple[Forecast, ...]) -> Iterator[Remark]:
    """Say, board by board, which parts will not reach their thickness, with the fixes that are arithmetic."""
    for board in plan.project.boards:
        short = [item for item in forecasts if item.board == board.id and item.short.mm > 0]
        if not short:
            continue
        text = words.shortfall_words(board.name, [_name(plan, item) for item in short], short, plan.reader)
        fixes: list[Fix] = []
        if not short[0].cut_first_chosen:
            if all(item.cut_first >= item.needs for item in short):
                fixes.append(CutOutFirst(board.id, board.name))
            if short[0].better is not None:
                cut, _ = short[0].better
                fixes.append(CutThroughFirst(board.id, board.name, cut.crosswise, from_float(cut.at)))
        first = plan.part(short[0].part)
        if first is not None:
            fixes += _thinner(plan, first)
        yield Remark(text, Severity.FAILURE, tuple(fixes), ref=PieceRef(short[0].piece))


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
