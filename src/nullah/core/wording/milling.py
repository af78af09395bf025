"""What is said of flattening boards."""

from __future__ import annotations

from typing import assert_never

from nullah.core.catalogue import N_
from nullah.core.lengths import from_float
from nullah.core.milling.decide import BoardFace, FaceReason, FaceSide
from nullah.core.reader import Reader


def face_side_words(chosen: FaceSide, reader: Reader) -> str:
    """Return why a face was chosen for the face side, as the end of a sentence."""
    match chosen.reason:
        case FaceReason.CLEAR:
            message = (
                N_("it is clear, and flaws show on the lower face")
                if chosen.face is BoardFace.UPPER
                else N_("it is clear, and flaws show on the upper face")
            )
            return reader.text(message)
        case FaceReason.HOLLOW:
            return reader.text("it is hollow: only its rim is taken off, and once flat it lies steady")
        case FaceReason.LESS_TO_TAKE:
            less, more = (reader.fine(from_float(each)) for each in chosen.takes)
            return reader.text("it has less to come off: {less} on the whole, the other {more}", less=less, more=more)
        case _:
            assert_never(chosen.reason)
