"""Sliding dovetail: a tail along a board's end, wider at its end, slid into a housing of that shape from an edge."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.joints.base import JointBase
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.meeting import at_end
from nullah.core.joints.sliding.tail import SlidingTail, entry, tail_of
from nullah.core.ledger import Definition, Ledger, QuantityKind, Snap, given
from nullah.core.lengths import Length, Slope
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.cuts import Floats, Removal
from nullah.core.piece.faults import Channel, Fault, FaultKind, NoCorner, WeakTail
from nullah.core.piece.joint import Hold, Joint, Offered
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Prism
from nullah.core.piece.space import Axis, Box, Side, side_at

#: Less neck than this breaks, mm; and no slope is steeper than one in this (practice, no published source).
_LEAST_NECK, _STEEPEST = Fraction(3), Fraction(4)


_Section = tuple[tuple[Fraction, Fraction], ...]


class _Lies(NamedTuple):
    """How a tail lies in its housing: the axes into it, along its thickness, and along which it slides in."""

    deep: Axis
    thick: Axis
    run: Axis


class Sliding(JointBase):
    """A tail on the end of the second board, in the face of the first."""

    id = N_("sliding dovetail")
    offer = N_("{second} slid into {first} by a dovetail")
    enters = True
    captures = True
    in_boxes = False

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield each end that lies in the face of the other and can be slid out over an edge."""
        for host, guest in ((first, second), (second, first)):
            if overlap is not None and _lies(host, guest, overlap) is not None:
                yield Offered(host, guest, Channel.DADO)

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare its slope, and how much narrower it is at the edge that goes in first."""
        slope = Slope(Fraction(7))
        return (
            given(f"{prefix}_tail.slope", N_("slope of the sliding dovetail"), slope, QuantityKind.SLOPE),
            given(f"{prefix}_tail.taper", N_("taper of the sliding dovetail"), 0, snap=Snap.NOTHING),
        )

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return a tail as deep as the two overlap; None while its slope is not known."""
        overlap, name = first.box.overlap(second.box), f"{joint_id}_tail.slope"
        if overlap is None or name not in ledger.quantities:
            return None
        tail = SlidingTail(ledger[name], ledger[f"{joint_id}_tail.taper"], f"{joint_id}_tail")
        return Joint(joint_id, self, first.id, second.id, hold, (overlap,), figures=tail)

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return the housing, or what is sloped off the end."""
        overlap, tail = first.box.overlap(second.box), tail_of(joint)
        lies = None if overlap is None else _lies(first, second, overlap)
        if overlap is None or lies is None or tail is None:
            return None
        floor, face = _levels(second, overlap, lies)
        lean = tail.lean(overlap.size(lies.deep))
        low, high = overlap.low[lies.thick.value], overlap.high[lies.thick.value]
        span = float(overlap.low[lies.run.value]), float(overlap.high[lies.run.value])

        def made(*corners: tuple[Fraction, Fraction]) -> Prism:
            """Return a prism along the run, of corners that are given deep and thick."""
            ahead = lies.deep is Axis((lies.run.value + 1) % 3)
            flat = tuple((float(d), float(t)) if ahead else (float(t), float(d)) for d, t in corners)
            return Prism(lies.run, flat, *span)

        def swept(wide: _Section, narrow: _Section) -> tuple[Floats, ...]:
            """Return the points of what lies between a section where it goes in and one at its other end."""
            into = entry(first, overlap, lies.run)
            places = overlap.at(into), overlap.at(into.opposite)
            found = []
            for corners, place in zip((wide, narrow), places, strict=True):
                for d, t in corners:
                    at = {lies.deep: d, lies.thick: t, lies.run: place}
                    found.append((float(at[Axis.X]), float(at[Axis.Y]), float(at[Axis.Z])))
            return tuple(found)

        straight = ((floor, low), (face, low), (face, low + lean))
        if is_first:
            if not tail.taper:
                return Removal(prisms=(made((face, low + lean), (face, high - lean), (floor, high), (floor, low)),))
            wide, narrow = (
                ((face, low + lean), (face, top - lean), (floor, top), (floor, low))
                for top in (high, high - tail.taper)
            )
            return Removal(hulls=(swept(wide, narrow),))
        if not tail.taper:
            return Removal(prisms=(made(*straight), made((floor, high), (face, high), (face, high - lean))))
        triangle: _Section = ((floor, high), (face, high), (face, high - lean))
        tapered: _Section = ((floor, high), (floor, high - tail.taper), (face, high), (face, high - lean - tail.taper))
        return Removal(prisms=(made(*straight),), hulls=(swept(triangle, tapered),))

    def frees(self, joint: Joint, first: Part, second: Part) -> frozenset[Side]:
        """Return the ways of the first: against those in which the tail slides out over an edge."""
        overlap = first.box.overlap(second.box)
        lies = None if overlap is None else _lies(first, second, overlap)
        if overlap is None or lies is None:
            return frozenset()
        tail = tail_of(joint)
        if tail is not None and tail.taper > 0:
            return frozenset((entry(first, overlap, lies.run).opposite,))
        return frozenset(side.opposite for side in _open_sides(first, overlap, lies.run))

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield it where the boards do not lie so, or where nothing holds: too little neck, too steep."""
        overlap, tail = first.box.overlap(second.box), tail_of(joint)
        if overlap is None or tail is None:
            return
        lies = _lies(first, second, overlap)
        if lies is None:
            fact = NoCorner(first.id, second.id, N_("slid together by a dovetail"))
            yield Fault(FaultKind.COLLISION, fact, (first.id, second.id), place=overlap)
            return
        neck = overlap.size(lies.thick) - 2 * tail.lean(overlap.size(lies.deep)) - tail.taper
        if neck < _LEAST_NECK or tail.slope < _STEEPEST:
            told = WeakTail(second.id, first.id, Length(neck), Length(_LEAST_NECK), Slope(tail.slope), Slope(_STEEPEST))
            yield Fault(FaultKind.THIN, told, (second.id, first.id), place=overlap, quantity=f"{tail.prefix}.slope")

    def channel(self, host: Part, box: Box) -> Channel:
        """Return a dado: the housing goes across the grain."""
        return Channel.DADO

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how the tail is sloped and its housing traced and cut."""
        from nullah.core.joints.sliding.operations import sliding_steps

        overlap = making.first.part.box.overlap(making.second.part.box)
        if overlap is None or _lies(making.first.part, making.second.part, overlap) is None:
            return None
        return sliding_steps(making, overlap)


def _lies(host: Part, guest: Part, overlap: Box) -> _Lies | None:
    """Return how an end lies in the face of a board across it, open at one edge at least; None where it does not."""
    deep, thick, run = guest.grain, guest.face, guest.across
    if not (host.face is deep and host.grain is thick and host.across is run and at_end(guest, overlap)):
        return None
    whole = overlap.size(thick) == guest.box.size(thick) and overlap.size(run) == guest.box.size(run)
    sunk = overlap.size(deep) < host.box.size(deep) and overlap.size(thick) < host.box.size(thick)
    beside = not at_end(host, overlap)
    return _Lies(deep, thick, run) if whole and sunk and beside and _open_sides(host, overlap, run) else None


def _open_sides(host: Part, overlap: Box, run: Axis) -> Iterator[Side] | tuple[Side, ...]:
    """Return the edges of the housed board that the tail comes out over."""
    sides = (side_at(run, high) for high in (False, True))
    return tuple(side for side in sides if overlap.at(side) == host.box.at(side))


def _levels(guest: Part, overlap: Box, lies: _Lies) -> tuple[Fraction, Fraction]:
    """Return where the floor of the housing lies and where its face, along the way the tail points, mm."""
    a = lies.deep.value
    low_end = overlap.low[a] == guest.box.low[a]
    return (overlap.low[a], overlap.high[a]) if low_end else (overlap.high[a], overlap.low[a])


SLIDING = Sliding()
