"""What is to be minded of parts that only touch: end grain that is glued, nails and screws."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark, Severity
from nullah.core.joints.bench import AtBench
from nullah.core.joints.butt.row import Row
from nullah.core.joints.cautions import EndGrainGlued, EntersLittle, NearEnd, NoBitNear, Resists, TryInScrap
from nullah.core.joints.fasteners import GRAVITY, SAFE_SHARE
from nullah.core.lengths import from_float
from nullah.core.piece.joint import Hold

#: So many times its thickness a nail or a screw should enter, and stay away from an end (common practice).
_NAIL_ENTERS, _SCREW_ENTERS, _FROM_END = 10, 7, 10


def butt_cautions(at: AtBench) -> Iterator[Remark]:
    """Yield what is to be minded of a joint that is only glued, or held by a row."""
    kind = at.kind
    if kind.joint.hold is Hold.GLUE and kind.first.part.grain is not kind.second.part.grain:
        yield Remark(EndGrainGlued(), Severity.WARNING)
    row = kind.joint.figures.fastening if isinstance(kind.joint.figures, Row) else None
    if row is None:
        return
    least = (_SCREW_ENTERS if row.screws else _NAIL_ENTERS) * row.thick
    if row.enters < least:
        told = EntersLittle(from_float(round(row.enters, 1)), from_float(round(least, 1)))
        yield Remark(told, Severity.WARNING)
    pilot = from_float(round(row.pilot, 1))
    if at.shop.bit_for(pilot) is None:
        yield Remark(NoBitNear(pilot), Severity.WARNING)
    if row.places[0] < _FROM_END * row.thick - 1e-6:
        yield Remark(NearEnd(), Severity.WARNING)
    held = row.holds / GRAVITY
    yield Remark(Resists(held, held * SAFE_SHARE))
    yield Remark(TryInScrap())
