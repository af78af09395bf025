"""What types of joint have in common: the usual answers to what a piece, the proof and the bench ask of one."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from nullah.core.card import Remark
from nullah.core.fraction import Fraction
from nullah.core.joints.bench import AtBench
from nullah.core.joints.cutouts import subtract
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.mate_views import Hole
from nullah.core.ledger import Definition, Ledger
from nullah.core.piece.cuts import Removal, block_of
from nullah.core.piece.facts import Note
from nullah.core.piece.faults import Channel, Fault
from nullah.core.piece.joint import Hold, Joint, JointType, Offered, RowInput
from nullah.core.piece.overlap import channel_of, lines, outward
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Side


class JointBase:
    """A type that shares the overlap of two parts out in boxes. Others answer otherwise."""

    id = ""
    #: The message by which it is offered; places: `first`, `second`, `channel`, `hold`.
    offer = ""
    touches = False
    in_boxes = True
    slanted = False
    enters = False
    captures = False
    pegged = False
    holds: tuple[Hold, ...] = ()
    when_glued: Note | None = None

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return what a joint is called."""
        return self.id

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return what the joint takes from one of its parts: from the first its channels, from the second the rest."""
        shared = lines(joint, first, second)
        if is_first:
            return Removal(tuple(block_of(box) for box in shared.first_loses))
        if shared.overlap is None or shared.second_keeps == (shared.overlap,):
            return None
        return Removal((block_of(shared.overlap),), keeps=tuple(block_of(box) for box in shared.second_keeps))

    def frees(self, joint: Joint, first: Part, second: Part) -> frozenset[Side]:
        """Return the ways the first part can go: the opposite of those in which all the second sweeps is cut away."""
        return frozenset(side.opposite for side in Side if _enters_from(joint, first, second, side))

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Yield what does not fit, beyond what is asked of every channel."""
        yield from ()

    def channel(self, host: Part, box: Box) -> Channel:
        """Return what a box cut into the first part is called."""
        return channel_of(host, box)

    def depth_axis(self, host: Part, guest: Part, channel: Box) -> Axis:
        """Return the axis along which a channel is sunk."""
        return outward(host, channel)

    def least_wall(self, channel: Box, third: Fraction) -> Fraction:
        """Return how much must be left beside a channel, mm: a third of the board (common practice).

        Parameters
        ----------
        channel : Box
            What is cut, in the piece, mm.
        third : Fraction
            Of the board's thickness, mm.
        """
        return third

    def least_reach(self, joint: Joint, first: Part, second: Part) -> Fraction:
        """Return how far the second part must go into the first to hold, mm: 2, or half of a thin one (practice)."""
        return min(Fraction(2), second.box.size(second.face) / 2)

    def corner_prefix(self, joint: Joint) -> str:
        """Return the ledger's prefix of the figures of a corner that is laid out with dividers; empty for others."""
        return ""

    def spaced(self, joint: Joint, widths: Mapping[str, tuple[Fraction, ...]]) -> Joint:
        """Return a joint with what its prefix says of how wide its tails are against each other.

        Parameters
        ----------
        joint : Joint
            Any.
        widths : Mapping[str, tuple[Fraction, ...]]
            Of the tails against each other, by prefix.
        """
        return joint

    def where_moulded(self, joint: Joint, first: Part, second: Part) -> Joint:
        """Return a joint as it is made where the edges of both boards are moulded."""
        return joint

    def may_meet(self, guest: Part, other: JointType, other_guest: Part) -> bool:
        """Return whether the channels of two joints in one part may all but meet."""
        return False

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield the ways two parts could be joined so where they overlap, or only touch (no overlap)."""
        yield from ()

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare the figures of one between parts of one's own; none where it needs none."""
        return ()

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return one between two parts of one's own, as it usually is; None while its figures are not known."""
        return Joint(joint_id, self, first.id, second.id, hold)

    def fastened(self, joint: Joint, first: Part, second: Part, chosen: RowInput) -> Joint:
        """Return a joint with the nails or screws that hold it, as woods, bits and rule allow."""
        return joint

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return the operations by which it is made, in their steps; None where they are not told so yet.

        Types load them here: a piece is drawn and the window stands before any are asked for.
        """
        return None

    def cautions(self, at: AtBench) -> Iterator[Remark]:
        """Yield what is to be minded at the bench of one that can be made."""
        yield from ()

    def holes(self, at: AtBench) -> tuple[str, tuple[Hole, ...]]:
        """Return through which part nails or screws go, and where; none where none do."""
        return "", ()


def let_in(joint_type: JointType, joint_id: str, first: Part, second: Part, hold: Hold, share: Box | None) -> Joint:
    """Return a joint whose second part keeps a share of the overlap, which is cut out of the first."""
    shares = (share,) if share is not None else ()
    return Joint(joint_id, joint_type, first.id, second.id, hold, channels=shares, shares=shares)


def _enters_from(joint: Joint, host: Part, guest: Part, side: Side) -> bool:
    """Return whether what enters a channel can go one way: all it sweeps must have been cut away."""
    shared = lines(joint, host, guest)
    if shared.overlap is None:
        return True
    a = side.axis.value
    far = host.box.at(side)
    swept = []
    for share in shared.second_keeps:
        low, high = (share.low[a], max(far, share.high[a])) if side.high else (min(far, share.low[a]), share.high[a])
        swept.append(share.set(side.axis, low, high))
    # The body behind the overlap comes through with its whole section.
    behind = guest.box.at(side.opposite)
    edge = shared.overlap.at(side.opposite)
    if behind != edge:
        swept.append(shared.overlap.set(side.axis, *sorted((edge, far))))
    for box in swept:
        inside = box.overlap(host.box)
        if inside is not None and subtract(inside, shared.first_loses):
            return False
    return True
