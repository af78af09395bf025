"""What a button says of a way out."""

from __future__ import annotations

from typing import assert_never

from nullah.core.catalogue import N_
from nullah.core.fixes import (
    CutOutFirst,
    CutThroughFirst,
    Fix,
    FollowRule,
    Give,
    GlueFromStaves,
    JoinParts,
    MakeAgain,
    MakeAllThinner,
    MoveGroove,
    SetOutTo,
    Shim,
    SlotScrews,
    StopChannel,
    TakeUsualSize,
)
from nullah.core.lengths import from_float
from nullah.core.reader import Reader
from nullah.core.wording.facts import fact_words


def fix_words(fix: Fix, reader: Reader) -> str:  # noqa: C901 (a case for each kind)
    """Return what carrying out a fix is called, on its button and in the history.

    Examples
    --------
    >>> from nullah.core.lengths import mm
    >>> fix_words(Give("groove.depth", mm("5.5")), Reader(titles={"groove.depth": "depth of the groove"}))
    'Make the depth of the groove 5.5 mm'
    >>> fix_words(CutThroughFirst("4", "Ford 4", False, mm(96)), Reader())
    'Rip Ford 4 at 96 mm first'
    """
    text, length, fine = reader.text, reader.length, reader.fine
    match fix:
        case Give(quantity, value):
            return text("Make the {title} {value}", title=reader.title(quantity), value=fine(value))
        case MoveGroove(_, height):
            return text("Put the groove at {height}", height=length(height))
        case MakeAllThinner(_, thickness):
            return text("Make them all {thickness} thick", thickness=length(thickness))
        case FollowRule(quantity):
            return text("Let the {title} follow again", title=reader.title(quantity))
        case StopChannel():
            return text("Stop it where it would show")
        case SlotScrews():
            return text("Screw it in slots instead")
        case TakeUsualSize(_, screws):
            return text("Take the usual screws") if screws else text("Take the usual nails")
        case CutOutFirst(_, name):
            return text("Cut {board} first", board=name)
        case CutThroughFirst():
            return _cut_through(fix, reader)
        case GlueFromStaves(parts, count):
            if len(parts) > 1:
                return reader.count(count, "Make each of {n} stave", "Make each of {n} staves")
            return reader.count(count, "Make it of {n} stave", "Make it of {n} staves")
        case JoinParts(joint=joint):
            return fact_words(joint, reader)
        case Shim(_, thickness):
            return text("Make it up with a shim of {thickness}", thickness=fine(thickness))
        case SetOutTo(mark):
            return text("Set it out to {mark}", mark=length(mark))
        case MakeAgain(part):
            return text("Make {part} again", part=reader.part(part))
        case _:
            assert_never(fix)


def why_again(fix: MakeAgain, reader: Reader) -> str:
    """Return why a part is made again, as the Day Book keeps it.

    Examples
    --------
    >>> from nullah.core.lengths import mm
    >>> why_again(MakeAgain("left", "length", mm("0.8")), Reader(titles={"length": "length of the sides"}))
    'length of the sides 0.8 mm short'
    """
    return reader.text("{title} {by} short", title=reader.title(fix.quantity), by=reader.fine(fix.short))


def _cut_through(fix: CutThroughFirst, reader: Reader) -> str:
    # A place to a whole millimetre: nobody flattens closer than that.
    place = reader.length(from_float(round(float(fix.at))))
    message = N_("Cut {board} at {place} first") if fix.crosswise else N_("Rip {board} at {place} first")
    return reader.text(message, board=fix.name, place=place)
