"""What is said of a piece by its form."""

from __future__ import annotations

from typing import assert_never, get_args

from nullah.core.catalogue import N_
from nullah.core.forms.own_boards import Offer
from nullah.core.joints.kinds import JointGroup
from nullah.core.joints.types import TYPES
from nullah.core.lengths import write_bought
from nullah.core.piece import facts
from nullah.core.piece.facts import Note, PieceFact
from nullah.core.reader import Reader, sentence
from nullah.core.wording.worders import worders

_NOTES = {
    Note.ANCHOR_TO_WALL: N_("Tall pieces and drawers tip: fix the case to the wall (see ASTM F2057 and local rules)."),
    Note.ARCH_REACHES_DADO: N_("The cut between the feet reaches the bottom's dado."),
    Note.BUTTON_MORTISES_THROUGH: N_("The mortises for the buttons go through the aprons."),
    Note.CLEAT_BEVEL: N_("A cleat's bevel holds from about 15° to 45°; 22° is usual."),
    Note.CLEAT_SHOWS: N_("The cleat on the wall hangs below the rack and would be seen."),
    Note.CLEARANCE_BELOW_NOTHING: N_("A clearance below nothing would force the joints apart."),
    Note.CLEARANCE_TOO_LARGE: N_("The clearance is more than half the groove: the bottom could drop out."),
    Note.WEDGED_NOT_GLUED: N_("A tusk tenon is not glued: its wedge holds it, and is knocked out again."),
    Note.GLUE_MIDDLE_TENON: N_(
        "Glue only the middle tenon of a breadboard end; the others stay dry and move in their "
        "slots. Drive the pegs while it is drawn up, and saw them flush when it is dry."
    ),
    Note.GROOVE_HAS_NO_DEPTH: N_("The groove has no depth, so nothing holds the bottom."),
    Note.GROOVE_TOO_DEEP: N_("The groove takes more than half of the thinnest side. About a third is the limit."),
    Note.HAND_HOLES_LOW: N_("The hand holes reach below the edge of the sides, into the tray."),
    Note.LID_NEEDS_STAY: N_("A lid needs a stay that holds it open, and an air gap where a child could climb in."),
    Note.NO_LOAD_SAID: N_(
        "A stool or a table that someone sits or stands on: this program does not say what it carries."
    ),
    Note.PILOT_FOR_NAILS: N_(
        "Bore a pilot for every nail, wide side along the grain, and try nail and pilot in scrap first."
    ),
    Note.SAW_LONG_OVER_RABBETS: N_(
        "Saw front and back a little long over their rabbets so that the nails do not split the ends; trim after."
    ),
    Note.SCREW_CLEAT_TO_STUDS: N_(
        "Screw the wall cleat into studs or anchors that carry the load; the wall decides which."
    ),
    Note.SCREW_RAIL_TO_STUDS: N_("Screw the rail into studs or anchors that carry the load; the wall decides which."),
    Note.SLOTS_BREAK_OUT: N_("So little wood is left between the slots that it would break off."),
    Note.SLOTS_TOO_DEEP: N_("The slots take more than two thirds of the shelf."),
    Note.STAY_BEFORE_HINGES: N_(
        "Let the stay stop the lid a little past upright, before the hinges have to; leave an "
        "air gap where a child could climb in."
    ),
    Note.STRAIGHT_SEAMS: N_("Straightest grain at the seams; number the staves and mark a triangle across the set."),
    Note.TAPER_AT_APRON: N_("A taper that starts at the apron looks like a mistake: start it a little below."),
    Note.WALLS_TOO_LOW: N_("The walls hold less than a third of what stands in them: it may tip."),
}


def offer_words(offer: Offer, reader: Reader) -> str:
    """Return what a joint that two parts could have is called."""
    joint, channel = offer.joint, offer.channel
    return reader.text(
        TYPES[joint.type].offer,
        first=reader.part(joint.first),
        second=reader.part(joint.second),
        channel=reader.text(channel.value) if channel is not None else "",
        hold=reader.text(joint.hold),
    )


def note_words(note: Note, reader: Reader) -> str:
    """Return what is said of a form without any figure."""
    return reader.text(_NOTES[note])


def piece_words(fact: PieceFact, reader: Reader) -> str:  # noqa: C901 (a case for each kind)
    """Return what is said of a piece by its form."""
    match fact:
        case facts.NothingLeft(quantity, length):
            return reader.text(
                "The {title} comes to {length}: nothing is left of it.",
                title=reader.title(quantity),
                length=reader.typed(length),
            )
        case facts.MustBePositive(quantity, length):
            return reader.text(
                "The {title} is {length}. It must be more than nothing.",
                title=reader.title(quantity),
                length=reader.typed(length),
            )
        case facts.RowsOff(by, more):
            message = (
                N_("Rows and dividers come to {by} more than the inside height.")
                if more
                else N_("Rows and dividers come to {by} less than the inside height.")
            )
            return reader.text(message, by=reader.fine(by))
        case facts.FrontGap(drawer, gap, room):
            return reader.text(
                "The front of {drawer} leaves a gap of {gap} at each side in the {room}.",
                drawer=drawer,
                gap=reader.fine(gap),
                room=reader.title(room),
            )
        case facts.HandHoleLow(least):
            return reader.text("A hand hole under {least} high pinches the fingers.", least=reader.fine(least))
        case facts.GluesTooLong(part, minutes, open_minutes):
            return reader.text(
                N_(
                    "Glueing the staves of {part} takes {minutes} min, and the glue stays open for {open} min, "
                    "in however many goes: get a second pair of hands, or a slower glue."
                ),
                part=reader.part(part),
                minutes=minutes,
                open=open_minutes,
            )
        case facts.GlueInSections(strips, sections, clamps, apart):
            told = reader.text(
                "Glue it in {sections} sections, each by itself, then those to each other: the glue on {strips} pieces "
                "dries before all are in the clamps.",
                sections=str(sections),
                strips=str(strips),
            )
            row = reader.count(
                clamps, "{n} clamp for each.", "{n} clamps for each, about {apart} apart.", apart=reader.length(apart)
            )
            return f"{told} {row}"
        case facts.DrawerTooLarge(drawer, by, room):
            return reader.text(
                "The front of {drawer} is {by} larger than the {room}: it cannot go in.",
                drawer=drawer,
                by=reader.fine(by),
                room=reader.title(room),
            )
        case facts.SidesAboveFront(drawer, by):
            return reader.text(
                "The sides of {drawer} stand {by} above its front: they would catch above the opening.",
                drawer=drawer,
                by=reader.fine(by),
            )
        case facts.HingeTooWide(leaf, edge):
            return reader.text(
                "A leaf {leaf} wide does not fit on the edge of the back, which is {edge}: narrower hinges, or a "
                "thicker back.",
                leaf=reader.fine(leaf),
                edge=reader.fine(edge),
            )
        case facts.HingesTooLong(hinge, length):
            return reader.text(
                "Two hinges of {hinge} and the room at their ends are longer than the back, {length}: shorter hinges, "
                "or nearer to the ends.",
                hinge=reader.fine(hinge),
                length=reader.fine(length),
            )
        case facts.SetOutElsewhere(mark):
            return reader.text(
                "The piece is set out to marks of {mark}: what is shown here may be off by half a mark of this rule.",
                mark=write_bought(mark),
            )
        case facts.Clamps(clamps, apart):
            return reader.count(clamps, "{n} clamp.", "{n} clamps, about {apart} apart.", apart=reader.length(apart))
        case _:
            assert_never(fact)


def kinds_words(number: int, reader: Reader) -> str:
    """Return how many kinds of joint a piece has."""
    return reader.count(number, "one kind of joint", "{n} kinds of joint")


def group_words(kind: JointGroup, reader: Reader) -> str:
    """Return a kind of joint with all parts that have it: what goes in, and what it goes into.

    Examples
    --------
    >>> from nullah.core.joints.kinds import kinds_of
    >>> from nullah.core.plan import work_out
    >>> from nullah.core.project import Piece, Project
    >>> plan = work_out(Project(Piece("box")), milling=False, proving=False)
    >>> group_words(kinds_of(plan.assembly)[0], plan.reader)
    'Through dovetail: left end and right end to front and back'
    """
    first, second = (dict.fromkeys(getattr(joint, which) for joint in kind.all) for which in ("first", "second"))
    return sentence(
        reader.text(
            "{joint}: {second} to {first}",
            joint=reader.text(kind.name),
            second=reader.together(second),
            first=reader.together(first),
        )
    )


#: What says the facts of this room.
WORDERS = worders((get_args(PieceFact), piece_words), ((Note,), note_words), ((Offer,), offer_words))
