"""Season: the piece through a year in its room; what binds, what is loose, and the clearance to leave today."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from nullah.core.card import Card, Remark, Setting, Severity
from nullah.core.drawing import (
    Anchor,
    Drawing,
    Element,
    Fill,
    Label,
    Path,
    Point,
    Role,
    drawing,
    line,
    rectangle,
    wrapped,
)
from nullah.core.fixes import Fix, Give, SlotScrews
from nullah.core.ledger import Origin
from nullah.core.lengths import from_float
from nullah.core.piece.joint import Hold
from nullah.core.plan import Plan
from nullah.core.refs import PartRef, Ref, quantity_ref
from nullah.core.season.facts import GluedAcross, MostStrained, MustMove, NothingMoves, TooWet, WoodNotChosen
from nullah.core.season.fits import Fit, Verdict
from nullah.core.season.strain import Strain
from nullah.core.season.swelling import PartYear
from nullah.core.stations.selection import Selection
from nullah.core.wood.climate import MONTHS
from nullah.core.wood.species import USUAL_WOOD
from nullah.core.wording.season import (
    FRAMED,
    VERDICTS,
    YearWords,
    card_title,
    fit_title,
    leave_setting,
    room_now_words,
    season_state,
    strain_line,
    strain_title,
    swing_setting,
    why_it_moves,
    year_words,
)
from nullah.core.work.seasons import Season, room_to_leave, season_of

# The year on the bench: a column for each month, names at the left; sizes of the drawing are those of paper, mm.
_COLUMN, _NAMES, _CURVE, _ROW = 7.2, 50.0, 26.0, 14.5
_WIDE = 12 * _COLUMN
#: From line to line of a name, mm.
_LINE = 3.4
#: So many letters of a name stand beside its row.
_LETTERS = 27
#: So many fits and joints are drawn; the rest have room enough.
_MOST_FITS, _MOST_STRAINS = 7, 3
#: What changes by no more is not seen, mm.
_MOVES = 0.05
_WEIGHTS = {
    Verdict.BINDS: Severity.FAILURE,
    Verdict.DROPS: Severity.FAILURE,
    Verdict.TIGHT: Severity.WARNING,
    Verdict.RATTLES: Severity.WARNING,
    Verdict.FITS: Severity.NOTE,
}


def shown_fits(season: Season) -> tuple[Fit, ...]:
    """Return the fits worth looking at: what moves, or is not as it should be.

    Of equal ones the worst; equal parts that have as much room as it stand with it.
    """
    alike = {year.part.id: year.part.alike for year in season.parts}
    kinds: dict[tuple[str, object, Verdict], list[Fit]] = {}
    for fit in season.fits:
        if max(fit.rooms) - min(fit.rooms) > _MOVES or fit.verdict is not Verdict.FITS:
            of_kind = fit.mover[1] if fit.mover is not None else tuple(alike.get(part, part) for part in fit.parts)
            kinds.setdefault((fit.quantity, of_kind, fit.verdict), []).append(fit)
    return tuple(_worst(fits) for fits in kinds.values())


def _worst(fits: list[Fit]) -> Fit:
    worst = min(fits, key=lambda fit: min(fit.rooms))
    if worst.mover is not None:
        return worst
    same = [fit for fit in fits if min(fit.rooms) - min(worst.rooms) <= _MOVES]
    return replace(worst, parts=tuple(dict.fromkeys(part for fit in same for part in fit.parts)))


# --- on the bench ---------------------------------------------------------------------------------


def draw(plan: Plan, selection: Selection) -> Drawing:
    """Return the drawing on the bench."""
    season = season_of(plan)
    if not season.parts:
        return Drawing()
    part = season.part(selection.part) or season.parts[0]
    words = year_words(part, season.climate.moisture, _times(part), plan.reader)
    elements = [*_months(season, part, plan, words)]
    y = _CURVE + 11
    elements += _width_row(plan, part, y, words)
    y += _ROW + 1
    fits = shown_fits(season)[:_MOST_FITS]
    for fit in fits:
        y += _LINE * (len(wrapped(fit_title(fit, plan.reader, short=True), _LETTERS)) - 1)
        elements += _fit_row(plan, fit, y, selection.part in fit.parts)
        y += _ROW
    if fits:
        elements.append(Label((_WIDE, y - 1), plan.reader.text(FRAMED), 2.6, Anchor.END, Role.FAINT))
    for strain in [each for each in season.strains if each.cracks][:_MOST_STRAINS]:
        elements += _strain_row(plan, strain, y + 3)
        y += 6
    return drawing(elements)


def _middle(month: int) -> float:
    return (month + 0.5) * _COLUMN


def _months(season: Season, part: PartYear, plan: Plan, words: YearWords) -> Iterator[Element]:
    """Draw the moisture wood would settle at, and that of the part in hand, month by month."""
    settled, own, now = season.climate.moisture, part.stock.year, part.stock.now
    low, high = min(*settled, *own, now) - 1.0, max(*settled, *own, now) + 1.0

    def up(moisture: float) -> float:
        return _CURVE * (1 - (moisture - low) / (high - low))

    yield Label((-_NAMES, 2), words.title, 3.6, Anchor.START, bold=True)
    yield Label((-_NAMES, 8), words.air, 3.0, Anchor.START, Role.PENCIL)
    yield rectangle(0, 0, _WIDE, _CURVE, Role.FAINT)
    for month, name in enumerate(MONTHS):
        yield Label((_middle(month), _CURVE), plan.reader.text(name)[:3], 3.0, role=Role.FAINT, nudge_mm=(0, 3))
        if month:
            yield line((month * _COLUMN, 0), (month * _COLUMN, _CURVE), Role.FAINT)
    room: list[Point] = [(_middle(month), up(each)) for month, each in enumerate(settled)]
    wood: list[Point] = [(_middle(month), up(each)) for month, each in enumerate(own)]
    yield Path(tuple(room), Role.PENCIL)
    yield Path(tuple(wood), Role.CHALK)
    for month, off in ((own.index(min(own)), 2.0), (own.index(max(own)), -2.0)):
        figure = f"{own[month]:.1f} %"
        yield Label((_middle(month), up(own[month])), figure, 2.6, role=Role.CHALK, bold=True, nudge_mm=(0, off))
    yield line((0, up(now)), (_WIDE, up(now)), Role.GAUGE)
    yield Label((_WIDE, up(now)), words.now, 2.6, Anchor.END, nudge_mm=(-1, 2 if up(now) < 4 else -2))
    for number, text in enumerate(wrapped(words.part, _LETTERS + 4)):
        yield Label((-_NAMES, 13.5 + 3.6 * number), text, 3.0, Anchor.START, Role.CHALK, running=True)


def _times(part: PartYear) -> float:
    """Return how many times as large the change of a part's width is drawn."""
    return 2.1 / (max(abs(each) for each in part.change) or 1.0)


def _width_row(plan: Plan, part: PartYear, y: float, words: YearWords) -> Iterator[Element]:
    """Draw the width of the part in hand by month, what changes drawn many times as large, with the true figures."""
    times = _times(part)
    yield from _named((-_NAMES, y + 1.5), words.width, ref=PartRef(part.part.id))
    yield Label((-_NAMES, y + 6), words.drawn, 2.7, Anchor.START, Role.FAINT)
    for month, change in enumerate(part.change):
        half = 2.1 + change * times / 2
        middle = _middle(month)
        wood = part.stock.species.name
        yield rectangle(middle - half, y, 2 * half, 5, fill=Fill.WOOD, species=wood, ref=PartRef(part.part.id))
        figure = _thin(plan, change)
        yield Label((middle, y + 5), f"+{figure}" if change > 0.005 else figure, 2.4, nudge_mm=(0, 2.5))


def _fit_row(plan: Plan, fit: Fit, y: float, in_hand: bool) -> Iterator[Element]:
    """Draw what moves in its opening, month by month, the room drawn many times as large."""
    times = 2.3 / max(max(fit.rooms), 0.5)
    part_id = fit.parts[0] if fit.parts else ""
    ref = PartRef(part_id) if part_id else None
    title = fit_title(fit, plan.reader, short=True)
    yield from _named((-_NAMES, y + 0.5), title, Role.CHALK if in_hand else Role.LABEL, ref)
    mark = {Severity.FAILURE: "▲ ", Severity.WARNING: "◆ ", Severity.NOTE: ""}[_WEIGHTS[fit.verdict]]
    colour = {Severity.FAILURE: Role.WARN, Severity.WARNING: Role.FLAW, Severity.NOTE: Role.FAINT}[
        _WEIGHTS[fit.verdict]
    ]
    verdict = f"{mark}{plan.reader.text(VERDICTS[fit.verdict])}"
    yield Label((-_NAMES, y + 4.5), verdict, 2.8, Anchor.START, colour, running=True)
    words = room_now_words(from_float(fit.room), plan.reader)
    yield Label((-_NAMES, y + 8.5), words, 2.6, Anchor.START, Role.FAINT, running=True)
    species = plan.species_of(part) if (part := plan.part(part_id)) is not None else ""
    inner = 2.8
    yield rectangle(fit.tightest * _COLUMN, y - 1, _COLUMN, 10.2, Role.CHALK)
    for month, room in enumerate(fit.rooms):
        middle = _middle(month)
        for rail in (middle - inner - 0.6, middle + inner):
            yield rectangle(rail, y, 0.6, 5, fill=Fill.WASTE)
        half = inner - max(room * times / 2, -0.5)
        role = Role.WARN if room < 0 else Role.OUTLINE
        yield rectangle(middle - half, y + 0.7, 2 * half, 3.6, role, Fill.WOOD, species, ref)
        told = month in (fit.tightest, fit.loosest)
        colour = Role.WARN if room < 0 else Role.LABEL if told else Role.FAINT
        figure = _thin(plan, room)
        yield Label((middle, y + 5), figure, 2.4, role=colour, bold=told, nudge_mm=(0, 2.5))


def _strain_row(plan: Plan, strain: Strain, y: float) -> Iterator[Element]:
    yield from _named((-_NAMES, y), strain_title(strain, plan.reader), ref=PartRef(strain.moving.id))
    yield Label((0, y), strain_line(strain, plan.reader), 3.0, Anchor.START, Role.WARN if strain.cracks else Role.FAINT)


def _thin(plan: Plan, millimetres: float) -> str:
    """Write a small figure in a narrow column: thousandths of an inch without the nought."""
    return plan.marks.write_narrow(millimetres)


def _named(at: Point, name: str, role: Role = Role.LABEL, ref: Ref | None = None) -> Iterator[Label]:
    """Write the name of a row; a long one in lines that end where a short one stands."""
    lines = wrapped(name, _LETTERS)
    for number, text in enumerate(lines):
        up = _LINE * (len(lines) - 1 - number)
        yield Label((at[0], at[1] - up), text, 3.2, Anchor.START, role, bold=True, ref=ref, running=True)


# --- on the card ----------------------------------------------------------------------------------


def card(plan: Plan, selection: Selection) -> Card:
    """Return what is carried away."""
    season = season_of(plan)
    if not season.parts:
        return Card(card_title(plan.reader), mind=(Remark(NothingMoves()),))
    fits = shown_fits(season)
    own = [fit for fit in fits if selection.part in fit.parts]
    rest = [fit for fit in fits if fit not in own]
    return Card(
        card_title(plan.reader),
        tuple(_settings(plan, season, own or rest)),
        (),
        (*_remarks(plan, season, [*own, *rest]), *_too_wet(season), *_glue(season), *_loose_parts(plan)),
        _why(plan, season, selection),
    )


def _settings(plan: Plan, season: Season, fits: list[Fit]) -> Iterator[Setting]:
    """Yield the clearances to leave if it is built today."""
    seen: set[str] = set()
    for fit in fits:
        leave = room_to_leave(plan, season, fit)
        if leave is None or fit.quantity in seen or plan.ledger is None:
            continue
        seen.add(fit.quantity)
        planned = plan.ledger.quantity(fit.quantity).length
        yield leave_setting(fit.quantity, leave, planned, plan.reader)
    yield swing_setting(season.climate, plan.reader)


def _remarks(plan: Plan, season: Season, fits: list[Fit]) -> Iterator[Remark]:
    offered: set[str] = set()
    for fit in fits:
        weight = _WEIGHTS[fit.verdict]
        fixes = () if fit.verdict is Verdict.FITS or fit.quantity in offered else _fixes(plan, season, fit)
        if fit.verdict is not Verdict.FITS:
            offered.add(fit.quantity)
        yield Remark(fit, weight, fixes, None if fit.verdict is Verdict.FITS else quantity_ref(fit.quantity))


def _fixes(plan: Plan, season: Season, fit: Fit) -> tuple[Fix, ...]:
    """Offer to put the clearance into the ledger: one click."""
    leave = room_to_leave(plan, season, fit)
    if leave is None or plan.ledger is None or fit.verdict is Verdict.DROPS:
        return ()
    quantity = plan.ledger.quantity(fit.quantity)
    if quantity.origin is Origin.MEASURED or quantity.value == leave.mm:
        return ()
    return (Give(fit.quantity, leave),)


def _glue(season: Season) -> Iterator[Remark]:
    """Say where glue may not go, and what holds wood that moves."""
    for strain in season.strains:
        if strain.cracks:
            slots = (SlotScrews(strain.joint.id),) if Hold.SLOTS in strain.joint.ways_to_hold else ()
            yield Remark(strain, Severity.FAILURE, slots)
    # What lies dry, or slides in slots and on buttons, is not strained.
    fast = [each for each in season.strains if each.joint.hold.rigid or each.joint.hold is Hold.NAILS]
    moving = [each for each in fast if abs(each.moves) >= 0.05 and not each.cracks][:_MOST_STRAINS]
    if moving:
        yield Remark(MostStrained(tuple(moving)))
    glued = [each for each in season.strains if each.joint.hold.rigid and not each.cracks]
    if glued:
        yield Remark(GluedAcross(len(glued), from_float(max(each.held for each in glued))))


def _too_wet(season: Season) -> Iterator[Remark]:
    """Say what is wetter now than it will ever be there: built today, it only shrinks."""
    wet = [each for each in season.parts if each.stock.now > max(each.stock.year) + 1]
    if wet:
        worst = max(each.stock.now for each in wet)
        yield Remark(TooWet(tuple(each.part.id for each in wet), worst), Severity.WARNING)


def _loose_parts(plan: Plan) -> Iterator[Remark]:
    if any(not plan.species_of(part) for part in plan.parts):
        yield Remark(WoodNotChosen(USUAL_WOOD))
    loose = tuple(part.id for free in plan.assembly.freedoms for part in plan.parts if part.id in free.parts)
    if loose:
        yield Remark(MustMove(loose))


def _why(plan: Plan, season: Season, selection: Selection) -> tuple[str, ...]:
    part = season.part(selection.part) or season.parts[0]
    return why_it_moves(part, plan.reader)


def state(plan: Plan) -> str:
    """Return a few words for the rod."""
    season = season_of(plan)
    cracks = sum(strain.cracks for strain in season.strains)
    return season_state(bool(season.parts), cracks, [fit.verdict for fit in season.fits], plan.reader)
