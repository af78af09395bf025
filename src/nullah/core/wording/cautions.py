"""What is said of what is to be minded at the bench of a joint."""

from __future__ import annotations

from typing import assert_never, get_args

from nullah.core.joints import cautions as facts
from nullah.core.joints.cautions import ChannelCaution, FasteningCaution, TenonCaution
from nullah.core.lengths import write_bought
from nullah.core.reader import Reader
from nullah.core.wording.worders import as_sentence, worders


def channel_caution_words(fact: ChannelCaution, reader: Reader) -> str:
    """Return what is to be minded of a channel."""
    fine = reader.fine
    match fact:
        case facts.ThinUnder(left):
            return reader.text("Only {left} are left under it: that breaks.", left=fine(left))
        case facts.DeepRabbet(deep, thick):
            return reader.text("{deep} deep is more than half of {thick}.", deep=fine(deep), thick=fine(thick))
        case facts.DeepChannel(deep, thick):
            return reader.text(
                "{deep} deep is more than a third of {thick}: the board grows weak there.",
                deep=fine(deep),
                thick=fine(thick),
            )
        case facts.NoIronEnters(wide, narrowest):
            return reader.text(
                "No iron of the plow enters {wide}; the narrowest is {narrowest}. Make the groove as wide as that, "
                "or saw and chisel it.",
                wide=fine(wide),
                narrowest=write_bought(narrowest),
            )
        case facts.PloughStops(most, deep):
            return reader.text(
                "The plow stops at {most}, the groove goes {deep} deep: finish it with a chisel, or make it shallower.",
                most=fine(most),
                deep=fine(deep),
            )
        case facts.NoChiselEnters(wide):
            return reader.text("No chisel on the wall enters {wide}.", wide=fine(wide))
        case facts.ShortEnd(beside):
            return reader.text(
                "Only {beside} of end stands beyond it and is likely to split off: leave the end long until it is "
                "glued, and trim it then.",
                beside=fine(beside),
            )
        case facts.WouldNotEnter(guest, thick, wide):
            return reader.text(
                "{guest} is {thick} thick and would not enter {wide}: widen it, or leave a shoulder on the mate.",
                guest=reader.the(guest),
                thick=fine(thick),
                wide=fine(wide),
            )
        case _:
            assert_never(fact)


def tenon_caution_words(fact: TenonCaution, reader: Reader) -> str:
    """Return what is to be minded of tenons, laps and mitres."""
    fine = reader.fine
    match fact:
        case facts.ThinTenon(thick, rail):
            return reader.text(
                "A tenon of {thick} in a rail of {rail} is thin; a third is usual.", thick=fine(thick), rail=fine(rail)
            )
        case facts.ThickTenon(thick, rail):
            return reader.text(
                "A tenon of {thick} leaves thin cheeks in a rail of {rail}.", thick=fine(thick), rail=fine(rail)
            )
        case facts.ThinBesideMortise(wall):
            return reader.text("A wall of only {wall} is left beside the mortise: it breaks.", wall=fine(wall))
        case facts.ShortAboveMortise(end):
            return reader.text(
                "Only {end} of end stands above the mortise and is likely to split: leave a horn until it is glued, or "
                "a haunch.",
                end=fine(end),
            )
        case facts.NoChiselAsWide(thick, nearest):
            return reader.text(
                "No chisel is {thick} wide; make the tenon {nearest}, to the nearest there is.",
                thick=fine(thick),
                nearest=write_bought(nearest),
            )
        case facts.WideTenon(wide):
            return reader.text(
                "A tenon {wide} wide moves with the season: part it in two, with a stub between.", wide=fine(wide)
            )
        case facts.ShortTenon(deep):
            return reader.text("A tenon only {deep} long holds little.", deep=fine(deep))
        case facts.WeakMitre():
            return reader.text(
                "A miter is end grain against end grain: alone it holds little. Put keys, splines or a fitted bottom "
                "to it."
            )
        case facts.ThinLap(left):
            return reader.text("Only {left} are left of a mate there: it breaks.", left=fine(left))
        case _:
            assert_never(fact)


def fastening_caution_words(fact: FasteningCaution, reader: Reader) -> str:
    """Return what is to be minded of glue, nails and screws, and of the tools in hand."""
    fine = reader.fine
    match fact:
        case facts.EndGrainGlued():
            return reader.text("End grain glued to a side holds little: let it in, or nail it.")
        case facts.EntersLittle(deep, wanted):
            return reader.text(
                "It enters only {deep}, less than the {wanted} it should for its thickness.",
                deep=fine(deep),
                wanted=fine(wanted),
            )
        case facts.NoBitNear(wanted):
            return reader.text(
                "No bit near {wanted} is on the wall: find one, or take another size of nail.", wanted=fine(wanted)
            )
        case facts.NearEnd():
            return reader.text("So near the end the wood splits without a pilot; leave it over-long and trim after.")
        case facts.Resists(most, safe):
            return reader.text(
                "Pulled straight out, one holds about {most} at the most; hang no more than {safe} on it for good "
                "(Wood Handbook, from memory).",
                most=reader.marks.write_weight(most),
                safe=reader.marks.write_weight(safe),
            )
        case facts.TryInScrap():
            return reader.text("Test nail or screw and its pilot in scrap of the same wood first.")
        case _:
            assert_never(fact)


#: What says the facts of this room.
WORDERS = worders(
    (get_args(ChannelCaution), as_sentence(channel_caution_words)),
    (get_args(TenonCaution), tenon_caution_words),
    (get_args(FasteningCaution), fastening_caution_words),
)
