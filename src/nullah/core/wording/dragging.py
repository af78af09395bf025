"""Why a line that is dragged goes no further."""

from __future__ import annotations

from nullah.core.catalogue import N_
from nullah.core.joints.dragged import Held, KeptOut
from nullah.core.reader import Reader, sentence

_HELD = {
    Held.SHY: N_("A millimeter shy is enough."),
    Held.PLANED_OFF: N_("More would only be planed off again."),
    Held.EDGE_BREAKS: N_("Weaker at the edge it breaks off."),
    Held.TAILS_POINTED: N_("The tails would run to a point."),
    Held.TAIL_BESIDE_POINTED: N_("The tail beside it would run to a point."),
    Held.TOO_FINE: N_("Finer than knife and chisel can enter."),
    Held.HOLDS_NOTHING: N_("Less would hold nothing."),
    Held.BREAKS_UNDER: N_("So little is left under it that it breaks."),
    Held.NOTHING_LEFT: N_("Nothing of the channel would be left."),
    Held.NOTHING_ENTERS: N_("Nothing could enter."),
    Held.RATTLES: N_("It would rattle in it."),
}


def held_words(held: Held | KeptOut, reader: Reader) -> str:
    """Return why a line goes no further."""
    if isinstance(held, KeptOut):
        return sentence(reader.text("{part} would not enter.", part=reader.the(held.part)))
    return reader.text(_HELD[held])
