"""What a button says of a way out."""

from __future__ import annotations

from typing import assert_never

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
    Shim,
    SlotScrews,
    StopChannel,
)
from nullah.core.lengths import Marks, from_float


def fix_words(fix: Fix, marks: Marks) -> str:
    """Return what carrying out a fix is called, on its button and in the history.

    Examples
    --------
    >>> from nullah.core.lengths import mm
    >>> fix_words(Give("groove.depth", "depth of the groove", mm("5.5")), Marks())
    'Make the depth of the groove 5.5 mm'
    >>> fix_words(CutThroughFirst("4", "Ford 4", False, mm(96)), Marks())
    'Rip Ford 4 at 96 mm first'
    """
    match fix:
        case Give(_, title, value):
            return f"Make the {title} {marks.write_fine(value)}"
        case MoveGroove(_, height):
            return f"Put the groove at {marks.write(height)}"
        case MakeAllThinner(_, thickness):
            return f"Make them all {marks.write(thickness)} thick"
        case FollowRule(_, title):
            return f"Let the {title} follow again"
        case StopChannel():
            return "Stop it where it would show"
        case SlotScrews():
            return "Screw it in slots instead"
        case CutOutFirst(_, name):
            return f"Cut {name} first"
        case CutThroughFirst(_, name, crosswise, at):
            # A place to a whole millimetre: nobody flattens closer than that.
            where = marks.write(from_float(round(float(at))))
            return f"{'Cut' if crosswise else 'Rip'} {name} at {where} first"
        case GlueFromStaves(_, count):
            return f"Make it of {count} staves"
        case JoinParts(joint=joint):
            return joint
        case Shim(_, thickness):
            return f"Make it up with a shim of {marks.write_fine(thickness)}"
        case MakeAgain(_, name):
            return f"Make {name} again"
        case _:
            assert_never(fix)


def why_again(fix: MakeAgain, marks: Marks) -> str:
    """Return why a part is made again, as the Day Book keeps it.

    Examples
    --------
    >>> from nullah.core.lengths import mm
    >>> why_again(MakeAgain("left", "left side", "length of the sides", mm("0.8")), Marks())
    'length of the sides 0.8 mm short'
    """
    return f"{fix.title} {marks.write_fine(fix.short)} short"
