"""What is to be minded of nails and screws."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark, Severity
from nullah.core.joints.bench import AtBench
from nullah.core.joints.cautions import EntersLittle, NearEnd, NoBitNear, Resists, TryInScrap
from nullah.core.joints.fasteners import GRAVITY, SAFE_SHARE, Fastening
from nullah.core.lengths import from_float

#: So many times its thickness a nail or a screw should enter (common practice).
_NAIL_ENTERS, _SCREW_ENTERS = 10, 7


def row_cautions(row: Fastening, at: AtBench) -> Iterator[Remark]:
    """Yield what is to be minded of a row of nails or screws."""
    least = (_SCREW_ENTERS if row.screws else _NAIL_ENTERS) * row.thick
    if row.enters < least:
        told = EntersLittle(from_float(round(row.enters, 1)), from_float(round(least, 1)))
        yield Remark(told, Severity.WARNING)
    pilot = from_float(round(row.pilot, 1))
    if at.shop.bit_for(pilot) is None:
        yield Remark(NoBitNear(pilot), Severity.WARNING)
    if row.places[0] < row.from_end_least - 1e-6:
        yield Remark(NearEnd(), Severity.WARNING)
    held = row.holds / GRAVITY
    yield Remark(Resists(held, held * SAFE_SHARE))
    yield Remark(TryInScrap())
