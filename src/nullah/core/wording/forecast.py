"""What is said of the thickness that parts can reach: what they need, what each way leaves, and the ways out."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.breakdown.layout import FirstCut
from nullah.core.card import Card, Remark, Setting
from nullah.core.catalogue import N_
from nullah.core.lengths import Length, from_float, mm
from nullah.core.reader import Reader

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.core.milling.forecast import Forecast

#: By whether a part is cut out before flattening, and whether it is planned so.
_WAYS = {
    (False, False): N_("{reach}  flattened whole"),
    (False, True): N_("{reach}  flattened whole · planned"),
    (True, False): N_("{reach}  cut first"),
    (True, True): N_("{reach}  cut first · planned"),
}
#: What a card of milling says to do.
_STEPS = (
    N_("Face side flat: hollow and wind out, then mark it."),
    N_("Face edge straight, and square to the face side; mark it."),
    N_("Gauge the thickness all round from the face side, plane the other face to the line."),
    N_("Gauge the width from the face edge, plane to the line. Ends last."),
)


# --- the drawing ----------------------------------------------------------------------------------


def section_words(board: str, part: str, reader: Reader) -> str:
    """Return what is drawn along its middle: a part that was cut out of a board, or, of no part, the whole board."""
    if not part:
        return reader.text("{board}, whole: along its middle", board=board)
    return reader.text("{part}, cut out of {board}: along its middle", part=part, board=board)


def end_words(reader: Reader) -> tuple[str, str]:
    """Return what the sections at both ends are called."""
    return reader.text("left"), reader.text("right")


def legend_words(thickness: Length, times: int, reader: Reader) -> tuple[str, str, str]:
    """Return what is drawn in a section; `times` too large."""
    return (
        reader.text("blue: the flat slab inside, {thickness}", thickness=reader.fine(thickness)),
        reader.text("hatched: shavings"),
        reader.text("heights drawn {n} × too large", n=times),
    )


def bar_words(reach: Length, cut_first: bool, planned: bool, reader: Reader) -> str:
    """Return what a way of milling leaves of the thickness."""
    return reader.text(_WAYS[cut_first, planned], reach=reader.fine(reach))


def needs_words(needs: Length, reader: Reader) -> str:
    """Return what a part needs."""
    return reader.text("needs {thickness}", thickness=reader.length(needs))


# --- the card -------------------------------------------------------------------------------------


def working_card(reader: Reader) -> Card:
    """Return what is told while it is worked out."""
    working = Remark(reader.text("Working out what each board can give …"))
    return Card(reader.text("Flattening"), mind=(working,))


def forecast_card(
    chosen: Forecast | None, name: str, first_cut: FirstCut | None, remarks: Sequence[Remark], reader: Reader
) -> Card:
    """Return what a part reaches, and how boards are flattened.

    Parameters
    ----------
    chosen : Forecast or None
        The part in hand.
    name : str
        What it is called.
    first_cut : FirstCut or None
        Where its board is cut first.
    remarks : sequence of Remark
        Who falls short, and which boards are known too little.
    reader : Reader
    """
    settings: list[Setting] = []
    if chosen is not None:
        settings = [
            Setting(reader.text("Needs"), reader.length(chosen.needs), name),
            Setting(reader.text("Will reach"), reader.fine(chosen.reach), _how(chosen, first_cut, reader)),
            Setting(reader.text("Gauge"), reader.length(chosen.needs), reader.text("from the face side, all round")),
        ]
        if chosen.lows.mm > 0:
            there = reader.text("on its hidden face, counted in already")
            settings.append(Setting(reader.text("Lows may stay"), reader.fine(chosen.lows), there))
    least = reader.fine(mm("0.1"))
    why = reader.text(
        "The thickest flat slab that lies inside both faces as surveyed; given down to {least}.", least=least
    )
    return Card(reader.text("Flattening"), tuple(settings), tuple(map(reader.text, _STEPS)), tuple(remarks), (why,))


def _how(chosen: Forecast, cut: FirstCut | None, reader: Reader) -> str:
    """Return how a part is flattened, and how far off its thickness may be."""
    doubt = reader.fine(from_float(round(chosen.doubt, 1)))
    if chosen.cut_first_chosen:
        return reader.text("cut first, give or take {doubt}", doubt=doubt)
    if cut is None:
        return reader.text("flattened whole, give or take {doubt}", doubt=doubt)
    at = reader.length(from_float(round(cut.at)))
    return reader.text("after a cut at {place}, give or take {doubt}", place=at, doubt=doubt)


def all_reach_words(reader: Reader) -> str:
    """Return what is said where no part falls short."""
    return reader.text("Every part that is laid reaches its thickness.")


def caution_words(reader: Reader) -> str:
    """Return what to mind with edge tools."""
    return reader.text("Both hands behind the edge; the work against a stop or in the vise, never in the hand.")


def known_words(board: str, spare: float, doubt: float, reader: Reader) -> str:
    """Return that a board has so much to spare, mm, and is known less well than that."""
    return reader.text(
        "{board} has {spare} to spare and is known to {doubt} only: survey it before you saw.",
        board=board,
        spare=reader.fine(from_float(round(spare, 1))),
        doubt=reader.fine(from_float(round(doubt, 1))),
    )


def shortfall_words(board: str, names: Sequence[str], short: Sequence[Forecast], reader: Reader) -> str:
    """Return which parts out of a board do not reach their thickness, and what cutting first would give."""
    reach = reader.fine(min(item.reach for item in short))
    said = {"board": board, "names": reader.listed(names), "needs": reader.length(short[0].needs), "reach": reach}
    if short[0].cut_first_chosen:
        return reader.text("Out of {board}, {names} will not reach {needs}, only {reach}.", **said)
    said["out"] = reader.fine(min(item.cut_first for item in short))
    if short[0].better is None:
        return reader.text(
            "Out of {board}, {names} will not reach {needs}, only {reach}; {out} if cut out before flattening.", **said
        )
    cut, gives = short[0].better
    said |= {"place": reader.length(from_float(round(cut.at))), "gives": reader.fine(gives)}
    crosscut = N_(
        "Out of {board}, {names} will not reach {needs}, only {reach}; {out} if cut out before flattening, or {gives} "
        "if cut at {place} first."
    )
    ripped = N_(
        "Out of {board}, {names} will not reach {needs}, only {reach}; {out} if cut out before flattening, or {gives} "
        "if ripped at {place} first."
    )
    return reader.text(crosscut if cut.crosswise else ripped, **said)


def milling_state(laid: bool | None, short: int, reader: Reader) -> str:
    """Return how the thickness stands: whether parts are laid, None while it is worked out; how many come out thin."""
    if laid is None:
        return reader.text("working it out")
    if not laid:
        return reader.text("nothing laid yet")
    return reader.count(short, "{n} part too thin", "{n} parts too thin") if short else reader.text("all thick enough")
