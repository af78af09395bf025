"""What is said of reading winding sticks for practice."""

from __future__ import annotations

from nullah.core.catalogue import N_
from nullah.core.lengths import from_float
from nullah.core.milling.sighting import HARDEST, Progress
from nullah.core.reader import Reader

_BEGINS = {0.0: N_("at the near end"), 0.5: N_("in the middle")}


def begins_words(share: float, reader: Reader) -> str:
    """Return where the wind begins; `share` is one of `BEGINS`."""
    return reader.text(_BEGINS[share])


def progress_words(progress: Progress | None, reader: Reader) -> str:
    """Return how it has gone."""
    if progress is None:
        return reader.text("Nothing practiced yet.")
    return reader.count(
        progress.read,
        "{n} board read; of the last {last}, {right} right, figures {off} off on the whole. Step {step} of {steps} "
        "reached.",
        "{n} boards read; of the last {last}, {right} right, figures {off} off on the whole. Step {step} of {steps} "
        "reached.",
        last=str(progress.last),
        right=str(progress.right),
        off=reader.fine(from_float(progress.off)),
        step=str(progress.step),
        steps=str(HARDEST + 1),
    )
