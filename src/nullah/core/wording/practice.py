"""What is said of the practice joint: whether it gets better, what helps, and what cannot have been."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.catalogue import N_
from nullah.core.joints.practice import (
    FEW,
    MOST_GAP,
    MOST_MINUTES,
    TIGHT,
    Change,
    JointTry,
    PracticeWrong,
    often_tight,
    progress,
)
from nullah.core.lengths import mm, round_size
from nullah.core.reader import Reader
from nullah.core.wording.worders import worders

#: Offcuts for a practice joint, mm.
_OFFCUT = {"thick": 15, "wide": 50, "long": 75}
#: What helps where it is often tight, in the order of `TIGHT`.
_HELPS = dict(
    zip(
        TIGHT[1:],
        (
            N_("Often tight at one cheek: look which way the saw leans: start it with the line in the light."),
            N_(
                "Often tight at several cheeks: the tails were traced too wide, or the saw left the line in: split the "
                "knife line."
            ),
            N_("Often tight at the baseline: chop a little hollow, and clear the corners of the sockets."),
            N_("Often it did not close: pare only what is burnished, and try by hand before the mallet."),
        ),
        strict=True,
    )
)


def practice_error_words(fact: PracticeWrong, reader: Reader) -> str:
    """Return why a try cannot have been."""
    match fact:
        case PracticeWrong.MINUTES:
            return reader.text("Minutes from 1 to {most}.", most=MOST_MINUTES)
        case PracticeWrong.GAP:
            return reader.text("A gap of up to {most}.", most=reader.length(mm(MOST_GAP)))
        case PracticeWrong.TIGHT:
            return reader.text("It was tight {where}.", where=reader.listed(TIGHT, "or"))


def progress_words(tries: Sequence[JointTry], reader: Reader) -> str:
    """Return how it goes, first tries against last ones.

    Examples
    --------
    >>> progress_words([JointTry("2026-11-25", 50, 0.6, "nowhere")], Reader())
    '1 practice joint: 50 min, widest gap 0.60 mm. Two more and there is something to compare.'
    """
    if not tries:
        return reader.text(
            "No practice joint yet. Two offcuts about {thick} thick, {wide} wide, {long} long do.",
            **{name: reader.length(round_size(mm(size), reader.marks.unit)) for name, size in _OFFCUT.items()},
        )
    last = tries[-1]
    said = reader.count(
        len(tries),
        "{n} practice joint: {minutes} min, widest gap {gap}.",
        "{n} practice joints: {minutes} min, widest gap {gap}.",
        minutes=f"{last.minutes:g}",
        gap=reader.marks.write_thin(last.gap),
    )
    found = progress(tries)
    if found is None:
        message = (
            N_("One more and there is something to compare.")
            if len(tries) == FEW - 1
            else N_("Two more and there is something to compare.")
        )
        return f"{said} {reader.text(message)}"
    thin = reader.marks.write_thin
    gaps = _change(found.gap, (thin(found.gap.before), thin(found.gap.after)), reader)
    minutes = _change(found.minutes, (f"{found.minutes.before:g} min", f"{found.minutes.after:g} min"), reader)
    told = reader.text("Gaps {gaps}, time {minutes}.", gaps=gaps, minutes=minutes)
    often = often_tight(tries)
    return f"{said} {told} {reader.text(_HELPS[often]) if often else ''}".strip()


def _change(change: Change, figures: tuple[str, str], reader: Reader) -> str:
    if change.as_before:
        return reader.text("as before ({now})", now=figures[1])
    message = N_("down from {before} to {now}") if change.after < change.before else N_("up from {before} to {now}")
    return reader.text(message, before=figures[0], now=figures[1])


#: What says the facts of this room.
WORDERS = worders(((PracticeWrong,), practice_error_words))
