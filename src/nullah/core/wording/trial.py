"""What is said of a face that was planed for a trial."""

from __future__ import annotations

from nullah.core.milling.strokes import FLAT_WITHIN
from nullah.core.milling.trial import TrialFound
from nullah.core.reader import Reader

#: Thinner than it had to be by less than this is no wood lost, mm.
_NOTHING = 0.05


def trial_words(found: TrialFound, reader: Reader) -> str:
    """Return how a trial compares with the plan."""
    write = reader.marks.write_thin
    if not found.flat:
        off, enough = write(found.off), write(FLAT_WITHIN)
        return reader.text(
            "{off} out of flat, {enough} is enough. The plan has about {planned} strokes.",
            # What is hardly more than enough is written as enough is.
            off=reader.text("A little over {much}", much=off) if off == enough else off,
            enough=enough,
            planned=str(found.planned),
        )
    wood = (
        reader.text("{much} thinner than it had to be, on the whole", much=write(found.over))
        if found.over >= _NOTHING
        else reader.text("with no wood lost beyond the line")
    )
    return reader.text(
        "Flat within {off} after {strokes} strokes (the plan: about {planned}), {wood}.",
        off=write(found.off),
        strokes=str(found.strokes),
        planned=str(found.planned),
        wood=wood,
    )
