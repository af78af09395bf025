"""What is said of joints that would not hold: tails, dowels, pegs, haunches, wedges."""

from __future__ import annotations

from typing import assert_never, get_args

from nullah.core.catalogue import N_
from nullah.core.lengths import write_bought
from nullah.core.piece import faults as facts
from nullah.core.piece.faults import HoldFact
from nullah.core.reader import Reader
from nullah.core.wording.worders import as_sentence, worders


def hold_words(fact: HoldFact, reader: Reader) -> str:
    """Return why a joint would not hold."""
    part, fine = reader.the, reader.fine
    match fact:
        case facts.WeakTail(guest, host, neck, least, slope, steepest):
            return reader.text(
                "The tail of {guest} in {host} has a neck of {neck} at {slope}: less than {least}, or steeper "
                "than {steepest}, breaks. Let it in less deep, or slope it less.",
                guest=part(guest),
                host=part(host),
                neck=fine(neck),
                least=fine(least),
                slope=slope.as_text(),
                steepest=steepest.as_text(),
            )
        case facts.BoredThrough(bored, other, deep, size):
            return reader.text(
                "Holes {deep} deep for the dowels to {other} come out, or nearly, of {part}, which is {size} there.",
                part=part(bored),
                other=part(other),
                deep=fine(deep),
                size=fine(size),
            )
        case facts.DowelsTooMany(first, second, number, apart, diameter):
            return reader.text(
                "{number} dowels of {diameter} stand only {apart} apart between {first} and {second}: what is "
                "left between them splits. Fewer, or thinner.",
                number=number,
                diameter=fine(diameter),
                apart=fine(apart),
                first=part(first),
                second=part(second),
            )
        case facts.PegNearEnd(guest, host, left, least):
            return reader.text(
                "Only {left} of the tenon of {guest} are left behind its peg in {host}: less than {least} "
                "splits off. Bring the peg nearer to the shoulder, or make the tenon longer.",
                guest=part(guest),
                host=part(host),
                left=fine(left),
                least=fine(least),
            )
        case facts.DrawnTooFar(guest, host, draw, most):
            return reader.text(
                "The hole in the tenon of {guest} is {draw} nearer to the shoulder than that in {host}: over "
                "{most} the peg does not find its way.",
                guest=part(guest),
                host=part(host),
                draw=fine(draw),
                most=fine(most),
            )
        case facts.HaunchTooLarge(guest, haunch, left):
            return reader.text(
                "A haunch of {haunch} leaves a tenon of {left} on {guest}: a third of its width is the least, and "
                "the haunch is shorter than the tenon.",
                guest=part(guest),
                haunch=fine(haunch),
                left=fine(left),
            )
        case facts.WedgeShears(guest, left, least):
            return reader.text(
                "Only {left} of the tenon of {guest} are left behind its wedge: less than {least} shears off. Let "
                "it stand out farther, or make the wedge narrower.",
                guest=part(guest),
                left=fine(left),
                least=fine(least),
            )
        case facts.WedgeSlope(guest, slope, steepest, shallowest):
            return reader.text(
                "The wedge of {guest} at {slope} jumps out or never comes out again: from {steepest} to "
                "{shallowest} it holds.",
                guest=part(guest),
                slope=slope.as_text(),
                steepest=steepest.as_text(),
                shallowest=shallowest.as_text(),
            )
        case facts.NothingReaches(first, second, screws, long) if long is not None:
            message = (
                N_("Screws {long} long do not hold {first} and {second}: they are too short, or come out.")
                if screws
                else N_("Nails {long} long do not hold {first} and {second}: they are too short, or come out.")
            )
            return reader.text(message, first=part(first), second=part(second), long=write_bought(long))
        case facts.NothingReaches(first, second, screws):
            message = (
                N_("No screw reaches from {first} into {second} and stays inside it: hold them otherwise.")
                if screws
                else N_("No nail reaches from {first} into {second} and stays inside it: hold them otherwise.")
            )
            return reader.text(message, first=part(first), second=part(second))
        case _:
            assert_never(fact)


#: What says the facts of this room.
WORDERS = worders((get_args(HoldFact), as_sentence(hold_words)))
