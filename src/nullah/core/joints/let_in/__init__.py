"""Let in: a part enters a rabbet, a groove or a dado of another. The geometry decides the name."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import takewhile

from nullah.core.card import Moment, Remark
from nullah.core.catalogue import N_, Phrase
from nullah.core.joints.bench import AtBench
from nullah.core.joints.fastened import Fastened
from nullah.core.joints.let_in.cautions import channel_cautions
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.meeting import enters, leaves_a_wall
from nullah.core.ledger import Ledger
from nullah.core.piece.faults import Channel
from nullah.core.piece.joint import Hold, Joint, Offered
from nullah.core.piece.overlap import channel_of
from nullah.core.piece.part import Part
from nullah.core.piece.space import Box


class LetIn(Fastened):
    """A part let into a channel of another."""

    id = N_("let in")
    offer = N_("{second} into a {channel} in {first}")
    enters = True
    captures = True

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return what the channel is; a dado that does not go through is stopped."""
        overlap = first.box.overlap(second.box)
        if overlap is None:
            return self.id
        channel = joint.channels[0] if joint.channels else overlap
        kind = channel_of(first, channel)
        stopped = kind is Channel.DADO and channel.size(first.across) < first.box.size(first.across)
        return Phrase("stopped {channel}", channel=kind.value) if stopped else kind.value

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield each of the two let into the other, where it enters it."""
        for host, guest in ((first, second), (second, first)):
            if overlap is not None and enters(host, guest, overlap) and leaves_a_wall(host, overlap):
                yield Offered(host, guest, channel_of(host, overlap))

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return the second let into the first as deep as they overlap."""
        overlap = first.box.overlap(second.box)
        return Joint(joint_id, self, first.id, second.id, hold, channels=(overlap,) if overlap else ())

    def bench_steps(self, making: Making) -> tuple[BenchStep, ...] | None:
        """Return how the channel is cut, and what enters it, and how its row is bored."""
        from nullah.core.joints.let_in.operations import channel_steps

        channel, row = channel_steps(making), self.row_steps(making)
        # What is bored in the host is bored before the guest is cut, which may wait until the host is glued.
        hosts = sum(1 for _ in takewhile(lambda step: step.at == "first", channel))
        early = [step for step in row if step.at == "first" and step.moment is Moment.APART]
        rest = [step for step in row if step not in early]
        return (*channel[:hosts], *early, *channel[hosts:], *rest) if channel else None

    def cautions(self, at: AtBench) -> Iterator[Remark]:
        """Yield what is to be minded of its channel, and of its row."""
        yield from channel_cautions(at)
        yield from super().cautions(at)


LET_IN = LetIn()
