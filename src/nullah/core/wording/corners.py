"""What is said of dovetailed corners and of the grooves that come out at them."""

from __future__ import annotations

from typing import assert_never, get_args

from nullah.core.card import Remark
from nullah.core.catalogue import N_
from nullah.core.joints.dovetail import facts
from nullah.core.joints.dovetail.facts import CornerFact, CornerSize, GrooveFact, LayoutRefusal
from nullah.core.joints.dovetail.layout import DovetailFigures
from nullah.core.lengths import Direction, Length
from nullah.core.plan import NoneDovetailed, TailsImpossible
from nullah.core.reader import Reader
from nullah.core.wording.worders import worders

_NO_SIZE = {
    CornerSize.WIDTH: N_("The boards are {size}: that must be more than nothing."),
    CornerSize.TAIL_BOARD: N_("The tail board is {size}: that must be more than nothing."),
    CornerSize.PIN_BOARD: N_("The pin board is {size}: that must be more than nothing."),
}


def layout_words(fact: LayoutRefusal, reader: Reader) -> str:
    """Return why a corner cannot be laid out."""
    match fact:
        case facts.NoTails(tails):
            return reader.text("A corner with {tails} tails cannot be laid out. Use one or more.", tails=tails)
        case facts.TooManyTails(tails):
            return reader.text("{tails} tails in one corner must be a slip of the key.", tails=tails)
        case facts.NoSize(side, size):
            return reader.text(_NO_SIZE[side], size=reader.typed(size))
        case facts.PinBelowNothing():
            return reader.text("A pin cannot be less than nothing wide.")
        case _:
            assert_never(fact)


def corner_words(fact: CornerFact, reader: Reader) -> str:
    """Return what is to be minded at a corner."""
    fine = reader.fine
    match fact:
        case facts.NothingForTails(tails, pin, width, most):
            return reader.text(
                "{tails} tails with pins of {pin} do not go into {width}: nothing is left for the tails.",
                tails=tails,
                pin=fine(pin),
                width=fine(width),
            ) + _most(most, reader)
        case facts.TailsRunToPoint(tail, slope, taken, most):
            return reader.text(
                "The tails run to a point before the baseline: {tail} at the end, and {slope} takes {taken}.",
                tail=fine(tail),
                slope=slope.as_text(),
                taken=fine(taken),
            ) + _most(most, reader)
        case facts.PinsTooFine(pin, finest):
            return reader.text(
                "Pins of {pin} are finer than saw, knife and chisel can make: {finest} at least.",
                pin=fine(pin),
                finest=fine(finest),
            )
        case facts.NoChiselBetween(pin):
            return reader.text("No chisel on the wall enters the {pin} between two tails.", pin=fine(pin))
        case facts.NoChiselForSocket(socket):
            return reader.text("No chisel on the wall enters a socket of {socket}.", socket=fine(socket))
        case facts.TailsBreakOff(tail, base):
            return reader.text(
                "The tails are {tail} at the end but only {base} at the baseline: they will break off. "
                "Fewer tails or a steeper slope (1:8).",
                tail=fine(tail),
                base=fine(base),
            )
        case facts.HalfPinWeak(half_pin, usual):
            return reader.text(
                "A half-pin of {half_pin} is weak at the edge; about half the board's thickness ({usual}) is usual.",
                half_pin=fine(half_pin),
                usual=fine(usual),
            )
        case facts.SlopeCrumbles(slope):
            return reader.text(
                "At {slope} the corners of the tails are short grain and crumble.", slope=slope.as_text()
            )
        case facts.SlopeSlips(slope):
            return reader.text("At {slope} the tails hold little more than straight fingers.", slope=slope.as_text())
        case facts.BaselineInside(by, gauge):
            return reader.text(
                "The baseline lies {by} inside flush: the boards, not the end grain, are planed down "
                "after. Widest gauge {gauge}.",
                by=fine(by),
                gauge=fine(gauge),
            )
        case _:
            assert_never(fact)


def _most(most: int, reader: Reader) -> str:
    if most < 1:
        return " " + reader.text(
            "The boards are too narrow for even one: use thinner stock, a steeper slope or smaller half-pins."
        )
    return " " + reader.text("Up to {most} would go.", most=most)


def groove_words(fact: GrooveFact, reader: Reader) -> str:
    """Return whether a groove shows at a corner, and where to stop it."""
    match fact:
        case facts.GrooveInTail(tail, lapped):
            message = (
                N_(
                    "The groove runs inside tail {tail} (counted from the lower edge); the lap covers its end. "
                    "Run it through in front and sides."
                )
                if lapped
                else N_(
                    "The groove runs inside tail {tail} (counted from the lower edge). On the pin boards run it "
                    "through: the socket it comes out in is filled by the tail."
                )
            )
            return reader.text(message, tail=tail)
        case facts.StopOnTailBoards(stop, past):
            return reader.text(
                "On the tail boards a through groove would show in the end of that tail. Stop it {stop} "
                "from each end ({past} past the baseline).",
                stop=reader.length(stop, Direction.DOWN),
                past=reader.length(past),
            )
        case facts.StopOnPinBoards(stop):
            return reader.text(
                "The groove meets a pin and would show in the pin's end. Stop it on the pin boards "
                "{stop} from each end, or move it inside a tail.",
                stop=reader.length(stop, Direction.DOWN),
            )
        case facts.GrooveCutsSlope():
            return reader.text(
                "The groove cuts the slope between a tail and a pin and shows in both boards at the "
                "corner. Move it inside a tail."
            )
        case _:
            assert_never(fact)


# --- the drawing and the card of a corner ---------------------------------------------------------


def view_titles(tail: str, pin: str, reader: Reader) -> tuple[str, str, str]:
    """Return what the views of a corner show: the tail board's face, the pin board's end and its inside face."""
    return (
        reader.text("{part}: tails, outside face", part=tail),
        reader.text("{part}: end", part=pin),
        reader.text("{part}: pins, inside face", part=pin),
    )


def corner_title(reader: Reader) -> str:
    """Return the title of the card of a corner."""
    return reader.text("The corner")


def sharp_remark(reader: Reader) -> Remark:
    """Return what to beware of with sharp tools."""
    return Remark(reader.text("Sharp chisels, both hands behind the edge; the knife moves away from the hand."))


def traced_remark(traced: float, drawn: float, reader: Reader) -> Remark:
    """Return that traced pins close more often: in what share of corners, traced and laid out from the drawing."""
    return Remark(
        reader.text(
            "Trace the pins from the tails: of 100 corners about {traced} then close at once, laid out from the "
            "drawing about {drawn} (hands as under Ways of working).",
            traced=f"{traced * 100:.0f}",
            drawn=f"{drawn * 100:.0f}",
        )
    )


def why_step(step: Length, reader: Reader) -> str:
    """Return where the step of the dividers comes from."""
    return reader.text(
        "Divider step {step} = (width − 2 half-pins + pin) ÷ tails: from one half-pin line, as many steps as there are "
        "tails overshoot the other by the pin.",
        step=reader.fine(step),
    )


def to_opening_remark(part: str, measured: float, drawn: float, reader: Reader) -> Remark:
    """Return that what is cut to its opening goes in more often: in what share, measured and from the drawing."""
    return Remark(
        reader.text(
            "Cut {part} to its opening as measured: of 100 about {measured} then go in at once without a gap, cut from "
            "the drawing about {drawn} (hands as under Ways of working).",
            part=part,
            measured=f"{measured * 100:.0f}",
            drawn=f"{drawn * 100:.0f}",
        )
    )


# --- how the joints stand -------------------------------------------------------------------------


def cannot_be_made(reader: Reader) -> str:
    """Return that a joint cannot be made yet."""
    return reader.text("cannot be made yet")


def no_joints(parts: bool, reader: Reader) -> str:
    """Return that there is no joint; there may be one where there are no parts yet."""
    return reader.text("no joints") if parts else reader.text("no joints yet")


def tails_words(spec: DovetailFigures, reader: Reader) -> str:
    """Return how many tails a corner has, and their slope."""
    slope = spec.slope.as_text()
    return reader.count(spec.tails, "{n} tail, {slope}", "{n} tails, {slope}", slope=slope)


def no_tails_words(fact: NoneDovetailed | TailsImpossible, reader: Reader) -> str:
    """Return why no tails can be laid out."""
    if isinstance(fact, NoneDovetailed):
        return reader.text("No corner of this piece is dovetailed.")
    return reader.text(
        "A corner with {count} tails cannot be laid out. Use one or more, and pins of at least nothing.",
        count=fact.tails,
    )


#: What says the facts of this room.
WORDERS = worders(
    (get_args(LayoutRefusal), layout_words),
    (get_args(CornerFact), corner_words),
    (get_args(GrooveFact), groove_words),
    ((NoneDovetailed, TailsImpossible), no_tails_words),
)
