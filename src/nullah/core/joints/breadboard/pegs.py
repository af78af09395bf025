"""The pegs of a breadboard end: through both cheeks of each mortise and its tenon, which is slotted where it moves."""

from __future__ import annotations

from nullah.core.fraction import Fraction
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.cuts import RoundHole
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis


class Pegs(NamedTuple):
    """How the tenons of a breadboard end are pegged.

    Parameters
    ----------
    bit : Length
        The diameter of a peg, as its bit was bought.
    inset : Fraction
        From the shoulder to the holes in the end, mm.
    draw : Fraction
        How much nearer to the shoulder the holes in the tenons are, mm.
    middle : int
        Which tenon is glued, from 0.
    """

    bit: Length
    inset: Fraction
    draw: Fraction
    middle: int


class Pegged(NamedTuple):
    """A tenon and its mortise, as far as its peg is concerned: where it stands, and how far it may move in all, mm."""

    at: Fraction
    travel: Fraction


def pegged(joint: Joint, across: Axis) -> tuple[Pegged, ...]:
    """Return the middle of every tenon along the end, in the piece, and how much longer its mortise is."""
    found = []
    for tenon, mortise in zip(joint.shares[1:], joint.channels[1:], strict=True):
        middle = (tenon.low[across.value] + tenon.high[across.value]) / 2
        found.append(Pegged(middle, mortise.size(across) - tenon.size(across)))
    return tuple(found)


def shoulder_of(joint: Joint, panel: Part) -> tuple[Fraction, int]:
    """Return where the panel's shoulder lies along its grain, in the piece, and which way its tenons point."""
    tongue = joint.shares[0]
    axis = panel.grain.value
    if tongue.low[axis] + tongue.high[axis] < panel.box.low[axis] + panel.box.high[axis]:
        return tongue.high[axis], -1
    return tongue.low[axis], 1


def holes_of_pegs(joint: Joint, pegs: Pegs, end: Part, panel: Part, in_end: bool) -> tuple[RoundHole, ...]:
    """Return the holes of all pegs in the end, or those in the tenons."""
    thick, across, along = panel.face, panel.across, panel.grain
    shoulder, way = shoulder_of(joint, panel)
    level = shoulder + way * (pegs.inset if in_end else pegs.inset - pegs.draw)
    box = (end if in_end else panel).box
    low, high = float(box.low[thick.value]), float(box.high[thick.value])
    first = Axis((thick.value + 1) % 3)

    def flat(on: float, off: float) -> tuple[float, float]:
        return (on, off) if first is along else (off, on)

    found = []
    for each in pegged(joint, across):
        travel = 0.0 if in_end else float(each.travel)
        centre = flat(float(level), float(each.at))
        found.append(RoundHole(thick, centre, low, high, float(pegs.bit), float(pegs.bit), flat(0.0, travel)))
    return tuple(found)
