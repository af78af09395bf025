"""Drawbored tenon: a peg through mortise and tenon, its hole in the tenon a little nearer to the shoulder."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.joints.drawbored.peg import DrawPeg
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.tenon import Tenon
from nullah.core.ledger import Definition, Ledger, Snap, given, ruled
from nullah.core.lengths import Length
from nullah.core.piece.cuts import Removal, RoundHole
from nullah.core.piece.faults import DrawnTooFar, Fault, FaultKind, PegNearEnd
from nullah.core.piece.joint import Hold, Joint
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis

#: So much tenon must be left behind a peg, as a share of its diameter; and a peg finds its way over half of it
#: (practice, no published source).
_BEHIND, _FINDS = Fraction(1), Fraction(1, 2)


class Drawbored(Tenon):
    """A tenon drawn home by a peg."""

    id = N_("drawbored tenon")
    offer = N_("{second} into {first} by a tenon that a peg draws home")
    pegged = True

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return its one name."""
        return self.id

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare the tenon and its peg."""
        return (
            *super().quantities(prefix, first, second),
            ruled(f"{prefix}_peg.diameter", N_("diameter of the peg"), f"{second[1]} / 3", snap=Snap.BIT),
            given(f"{prefix}_peg.inset", N_("shoulder to the peg"), 10),
            given(f"{prefix}_peg.draw", N_("hole in the tenon nearer to the shoulder"), "1.5"),
        )

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return a tenon with its peg; None while its figures are not known."""
        made, prefix = super().between(joint_id, first, second, hold, ledger), f"{joint_id}_peg"
        if made is None or f"{prefix}.draw" not in ledger.quantities:
            return None
        peg = DrawPeg(Length(ledger[f"{prefix}.diameter"]), ledger[f"{prefix}.inset"], ledger[f"{prefix}.draw"], prefix)
        return made._replace(figures=peg)

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return the mortise or the tenon, and the hole of the peg."""
        removal, peg = super().cut(joint, first, second, is_first), joint.figures
        if removal is None or not isinstance(peg, DrawPeg) or not joint.shares:
            return removal
        along, thick = second.grain, second.face
        level, way = _shoulder(joint, second)
        at = level + way * (peg.inset if is_first else peg.inset - peg.draw)
        middle = (joint.shares[0].low[second.across.value] + joint.shares[0].high[second.across.value]) / 2
        box = (first if is_first else second).box
        centre = (float(at), float(middle)) if Axis((thick.value + 1) % 3) is along else (float(middle), float(at))
        wide = float(peg.bit)
        low, high = float(box.low[thick.value]), float(box.high[thick.value])
        return removal._replace(holes=(RoundHole(thick, centre, low, high, wide, wide),))

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield also where too little tenon is behind the peg, or the peg would not find its way."""
        yield from super().faults(joint, first, second)
        peg = joint.figures
        if not isinstance(peg, DrawPeg) or not joint.shares:
            return
        left = joint.shares[0].size(second.grain) - peg.inset - peg.bit.mm / 2
        if left < peg.bit.mm * _BEHIND:
            near = PegNearEnd(second.id, first.id, Length(left), Length(peg.bit.mm * _BEHIND))
            yield Fault(FaultKind.THIN, near, (second.id, first.id), quantity=f"{peg.prefix}.inset")
        if peg.draw > peg.bit.mm * _FINDS:
            far = DrawnTooFar(second.id, first.id, Length(peg.draw), Length(peg.bit.mm * _FINDS))
            yield Fault(FaultKind.FIT, far, (second.id, first.id), quantity=f"{peg.prefix}.draw")

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how mortise and tenon are cut, and bored for the peg."""
        from nullah.core.joints.drawbored.operations import drawbored_steps

        return drawbored_steps(making)


def _shoulder(joint: Joint, guest: Part) -> tuple[Fraction, int]:
    """Return where the shoulder lies along the guest's grain, mm of the piece, and which way the tenon points."""
    tenon, a = joint.shares[0], guest.grain.value
    if tenon.low[a] + tenon.high[a] < guest.box.low[a] + guest.box.high[a]:
        return tenon.high[a], -1
    return tenon.low[a], 1


DRAWBORED = Drawbored()
