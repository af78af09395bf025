"""What is said of a piece through the year: what has room to move, and what is strained."""

from __future__ import annotations

from collections.abc import Sequence
from typing import assert_never, get_args

from nullah.core.card import Setting
from nullah.core.catalogue import N_
from nullah.core.lengths import Length, from_float
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.joint import Hold
from nullah.core.piece.space import Axis
from nullah.core.reader import Reader, sentence
from nullah.core.refs import QuantityRef
from nullah.core.season import facts
from nullah.core.season.facts import SeasonFact
from nullah.core.season.fits import Fit, Verdict
from nullah.core.season.strain import Strain
from nullah.core.season.swelling import PartYear
from nullah.core.wood.climate import MONTHS, Climate
from nullah.core.wording.laying import SAWN
from nullah.core.wording.worders import worders

VERDICTS = {
    Verdict.FITS: N_("moves freely all year"),
    Verdict.BINDS: N_("binds"),
    Verdict.TIGHT: N_("is tight"),
    Verdict.RATTLES: N_("is loose"),
    Verdict.DROPS: N_("can drop out"),
}
#: What stands under the year's drawing: what its frames mean.
FRAMED = N_("framed: the tightest month")
_WAYS = {
    Axis.X: N_("{mover} in its opening, across"),
    Axis.Y: N_("{mover} in its opening, in depth"),
    Axis.Z: N_("{mover} in its opening, in height"),
}
_SHORT_WAYS = {Axis.X: N_("{mover}, across"), Axis.Y: N_("{mover}, in depth"), Axis.Z: N_("{mover}, in height")}
_ADVICE = {
    Hold.NAILS: N_("nails bend with it"),
    Hold.SCREWS: N_("screws hold it: narrow enough"),
    Hold.SLOTS: N_("slides in its slots: no glue"),
    Hold.DRY: N_("lies dry: no glue"),
}


def fit_title(fit: Fit, reader: Reader, short: bool = False) -> str:
    """Return what has room to move: a part or several, or what moves in its opening and which way."""
    if fit.mover is not None:
        name, axis = fit.mover
        return reader.text((_SHORT_WAYS if short else _WAYS)[axis], mover=name)
    return reader.title(fit.quantity) if fit.shrinks else reader.together(fit.parts)


def fit_words(fit: Fit, reader: Reader) -> str:
    """Return how something with room to move stands through the year."""
    tightest, loosest = reader.text(MONTHS[fit.tightest]), reader.text(MONTHS[fit.loosest])
    values = {"what": sentence(fit_title(fit, reader)), "room": _fine(max(min(fit.rooms), 0.0), reader)}
    match fit.verdict:
        case Verdict.FITS:
            return reader.text(
                "{what}: in {month}, its tightest month, {room} of room is left.", **values, month=tightest
            )
        case Verdict.BINDS:
            return reader.text(
                "{what} binds in {month}: it lacks {short}.",
                **values,
                month=tightest,
                short=_fine(-min(fit.rooms), reader),
            )
        case Verdict.TIGHT:
            return reader.text("{what} is tight in {month}: only {room} of room is left.", **values, month=tightest)
        case Verdict.RATTLES:
            return reader.text(
                "{what} has more room than the year asks: in {month} {most}.",
                **values,
                month=loosest,
                most=_fine(max(fit.rooms), reader),
            )
        case Verdict.DROPS:
            return reader.text(
                "{what} stands only {hold} deep in its groove in {month}: it can drop out. Deepen the groove.",
                **values,
                month=loosest,
                hold=_fine(max(fit.hold or 0.0, 0.0), reader),
            )
        case _:
            assert_never(fit.verdict)


def advice(strain: Strain, reader: Reader) -> str:
    """Return where glue may go, or what lets a joint across the grain move."""
    if strain.cracks:
        return reader.text(
            "splits or bows: glue one end of it only, or slot the screws, or leave it dry in {still}",
            still=reader.with_article(strain.still.name),
        )
    if strain.joint.hold is Hold.GLUE:
        return reader.text("glue all of it: {held} is what wood bears", held=_fine(strain.held, reader))
    return reader.text(_ADVICE[strain.joint.hold])


def strain_words(strain: Strain, reader: Reader) -> str:
    """Return what would crack, by when and how far it would move."""
    return reader.text(
        "{moving} is {hold} across {held} of its grain to {still}; by {month} it would move {moves}: {advice}.",
        **_strained(strain, reader),
        advice=advice(strain, reader),
    )


def strain_line(strain: Strain, reader: Reader) -> str:
    """Return the same beside its names on the bench."""
    return reader.text(
        "{hold} over {held}; free it would move {moves} by {month}: {advice}",
        **_strained(strain, reader),
        advice=advice(strain, reader),
    )


def season_words(fact: SeasonFact, reader: Reader) -> str:
    """Return what is said of a piece through the year as a whole."""
    match fact:
        case facts.NothingMoves():
            return reader.text("There is no piece yet whose wood could move.")
        case facts.MostStrained(strains):
            told = "; ".join(
                reader.text(
                    "{moving} in {still}, {moves} by {month}, {hold}",
                    **_strained(each, reader)
                    | {"moving": each.moving.name, "moves": reader.marks.write_thin(abs(each.moves))},
                )
                for each in strains
            )
            return reader.text("Most strained across the grain: {joints}.", joints=told)
        case facts.GluedAcross(joints, widest):
            return reader.count(
                joints,
                "{n} joint holds wood across its grain over at most {widest}: narrow enough for glue all over.",
                "{n} joints hold wood across its grain over at most {widest}: narrow enough for glue all over.",
                widest=reader.fine(widest),
            )
        case facts.TooWet(parts, moisture):
            return reader.count(
                len(parts),
                "{parts} stands at {moisture:.1f}\u00a0%, more than the room will ever give: let it dry before "
                "it is milled, or all of it shrinks after.",
                "{parts} stand at {moisture:.1f}\u00a0%, more than the room "
                "will ever give: let it dry before it is milled, or all of it shrinks after.",
                parts=sentence(reader.together(parts)),
                moisture=moisture,
            )
        case facts.WoodNotChosen(wood):
            return reader.text(
                "No wood is chosen for all of it yet: worked out as for {wood} where none is.", wood=reader.text(wood)
            )
        case facts.MustMove(parts):
            return reader.text(
                "{parts} must be free to move: never glue them in.", parts=sentence(reader.together(parts))
            )
        case facts.RoomInYear(fit):
            return reader.text(
                "{what} {verdict}: {room} of room is left in {month}; {wanted} in all is what the season asks today.",
                what=sentence(fit_title(fit, reader)),
                verdict=reader.text(VERDICTS[fit.verdict]),
                room=_fine(max(min(fit.rooms), 0.0), reader),
                month=reader.text(MONTHS[fit.tightest]),
                wanted=_fine(fit.wanted, reader),
            )
        case _:
            assert_never(fact)


def _strained(strain: Strain, reader: Reader) -> dict[str, str]:
    return {
        "moving": sentence(strain.moving.name),
        "still": reader.with_article(strain.still.name),
        "hold": reader.text(strain.joint.hold.value),
        "held": _fine(strain.held, reader),
        "moves": _fine(abs(strain.moves), reader),
        "month": reader.text(MONTHS[strain.month]),
    }


def _fine(millimetres: float, reader: Reader) -> str:
    return reader.fine(Length(from_float(millimetres).mm))


# --- the drawing ----------------------------------------------------------------------------------


class YearWords(NamedTuple):
    """What is written beside the moisture of a part and the change of its width through the year."""

    title: str
    air: str
    now: str
    part: str
    width: str
    drawn: str


def year_words(part: PartYear, settled: Sequence[float], times: float, reader: Reader) -> YearWords:
    """Return what is written beside the year of a part; its change of width is drawn so many times as large.

    Parameters
    ----------
    part : PartYear
        The part.
    settled : sequence of float
        What wood settles at in each month's air, %.
    times : float
        How many times as large its change is drawn.
    """
    name, own = part.part.name, part.stock.year
    return YearWords(
        reader.text("Moisture of wood"),
        reader.text("in this air: {low} to {high} %", low=f"{min(settled):.1f}", high=f"{max(settled):.1f}"),
        reader.text("now {percent} %", percent=f"{part.stock.now:.1f}"),
        reader.text("{part}: {low} to {high} %", part=name, low=f"{min(own):.1f}", high=f"{max(own):.1f}"),
        reader.text("{part}, its width", part=name),
        reader.text(
            "{width} now; change drawn {times}×",
            width=reader.length(from_float(part.width)),
            times=f"{times:.0f}" if times >= 3 else f"{times:.1f}",
        ),
    )


def room_now_words(room: Length, reader: Reader) -> str:
    """Return how much room there is today."""
    return reader.text("room now {room}", room=reader.fine(room))


def strain_title(strain: Strain, reader: Reader) -> str:
    """Return which part lies across which."""
    return reader.text("{moving} across {still}", moving=strain.moving.name, still=strain.still.name)


# --- the card -------------------------------------------------------------------------------------


def card_title(reader: Reader) -> str:
    """Return the title of the card."""
    return reader.text("Through the year")


def leave_setting(quantity: str, leave: Length, planned: Length, reader: Reader) -> Setting:
    """Return the clearance to leave today, and what is planned."""
    note = reader.text("at least, if built today; planned {figure}", figure=reader.marks.write_setting(planned))
    title = sentence(reader.title(quantity))
    return Setting(title, reader.marks.write_setting(leave), note, QuantityRef(quantity))


def swing_setting(climate: Climate, reader: Reader) -> Setting:
    """Return by how much the moisture of wood swings in a climate."""
    return Setting(
        reader.text("Swing of the year"),
        reader.text("{points} points", points=f"{climate.swing:.1f}"),
        reader.text(
            "{climate}: {low} to {high} %",
            climate=reader.text(climate.name),
            low=f"{min(climate.moisture):.1f}",
            high=f"{max(climate.moisture):.1f}",
        ),
    )


def why_it_moves(part: PartYear, reader: Reader) -> tuple[str, str]:
    """Return what the year of a part was worked out from."""
    stock = part.stock
    return (
        reader.text(
            "{part}: {now} % now, {low} to {high} % over the year; {width} of {species}, {cut}.",
            cut=reader.text(SAWN[stock.cut]),
            part=sentence(part.part.name),
            now=f"{stock.now:.1f}",
            low=f"{min(stock.year):.1f}",
            high=f"{max(stock.year):.1f}",
            width=reader.fine(from_float(part.width)),
            species=reader.text(stock.species.name),
        ),
        reader.text(
            "Change = width × coefficient × change in moisture (Wood Handbook, ch. 13; coefficients from memory). "
            "Moisture from each month's air (ch. 4), nearing it as wood of that thickness and finish does (a guess)."
        ),
    )


def season_state(known: bool, cracks: int, verdicts: Sequence[Verdict], reader: Reader) -> str:
    """Return how a piece stands through the year: whether anything is known of it, what cracks, what binds."""
    if not known:
        return reader.text("no wood known yet")
    if cracks:
        return reader.count(cracks, "{n} would crack", "{n} would crack")
    wrong = sum(each in (Verdict.BINDS, Verdict.DROPS) for each in verdicts)
    if wrong:
        return reader.count(wrong, "{n} binds", "{n} bind")
    tight = sum(each is Verdict.TIGHT for each in verdicts)
    return reader.count(tight, "{n} tight", "{n} tight") if tight else reader.text("moves freely all year")


#: What says the facts of this room.
WORDERS = worders(((Fit,), fit_words), ((Strain,), strain_words), (get_args(SeasonFact), season_words))
