"""What every family is asked and what it tells, and what they have in common."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from typing import NamedTuple

from nullah.core.card import JointStage, Remark, Setting, Severity, Step
from nullah.core.joints.cutouts import Cutout
from nullah.core.joints.fasteners import Fastening
from nullah.core.joints.kinds import JointGroup
from nullah.core.lengths import Direction, Length, Marks, write_bought
from nullah.core.refs import quantity_ref
from nullah.core.shop import Shop

#: Less wood than this beside a channel breaks, mm (common practice).
THINNEST = 3.0


class AtBench(NamedTuple):
    """A kind of joint, and the shop it is made in.

    `dense` says of both mates whether their wood is hard; `gravities` are their specific gravities.
    """

    kind: JointGroup
    marks: Marks
    shop: Shop
    hard: tuple[bool, bool] = (True, True)
    gravities: tuple[float, float] = (0.5, 0.5)

    def write(self, size: Fraction) -> str:
        """Write what a tool is set to."""
        return self.marks.write_setting(Length(size))

    def setting(
        self, tool: str, size: Fraction, note: str, quantity: str = "", way: Direction = Direction.NEAREST
    ) -> Setting:
        """Make a setting, rounded the safe way; where the mark is not quite true, by how much."""
        off = self.marks.off_true(Length(size), way)
        return Setting(
            tool, self.marks.write_setting(Length(size), way), f"{note}; {off}" if off else note, quantity_ref(quantity)
        )


class Told(NamedTuple):
    """What a family tells of a joint; `row` is the nails or screws of one that is held so."""

    settings: tuple[Setting, ...]
    steps: tuple[Step, ...]
    remarks: tuple[Remark, ...]
    why: tuple[str, ...] = ()
    row: Fastening | None = None


def chisel_settings(at: AtBench, room: Fraction, title: str = "Chisel", quantity: str = "") -> Iterator[Setting]:
    """Yield the chisel that enters and the next smaller one; or that there is none."""
    found = at.shop.chisels_for(Length(room))
    if not found:
        yield Setting(title, "none fits", f"room {at.marks.write_fine(Length(room))}", quantity_ref(quantity))
        return
    names = [write_bought(chisel) for chisel in found]
    note = f"enters {at.marks.write_fine(Length(room))}" + (f"; next {names[1]}" if len(names) > 1 else "")
    yield Setting(title, names[0], note, quantity_ref(quantity))


def how_many(at: AtBench) -> str:
    """Return how many equal ones there are, to be ganged."""
    number = len(at.kind.all)
    return "" if number == 1 else f" Do all {number} with the same settings."


def end_beside(at: AtBench, cut: Cutout) -> Iterator[Remark]:
    """Mind a short end beside a cut across the grain: it splits off."""
    long = at.kind.first.sizes.along
    beside = min(cut.along[0], long - cut.along[1])
    if 0 < beside < 10:
        yield Remark(
            f"Only {at.write(beside)} of end stands beyond it and is likely to split off: leave the end long until it "
            "is glued, and trim it then.",
            Severity.WARNING,
        )


def saw_setting(at: AtBench, deep: Fraction) -> Iterator[Setting]:
    """Yield the fine saw's kerf and how deep it goes; where its back stops it, that."""
    kerf = at.marks.write_fine(at.shop.fine_kerf)
    most = at.shop.saw_deepest
    note = f"in the waste, {at.write(deep)} deep"
    if Length(deep) > most:
        note += f"; its back stops it at {at.marks.write_fine(most)}: split or pare the rest"
    yield Setting("Fine saw", f"kerf {kerf}", note)


def bit_setting(at: AtBench, hole: Fraction, note: str, title: str = "Bit") -> Iterator[Setting]:
    """Yield the bit that bores a hole, or that none is near."""
    bit = at.shop.bit_for(Length(hole))
    wanted = at.marks.write_fine(Length(hole))
    if bit is None:
        yield Setting(title, "none near", f"{wanted}; {note}")
    else:
        yield Setting(title, write_bought(bit), f"for {wanted}; {note}")


def in_order(*texts: str) -> tuple[Step, ...]:
    """Make steps of sentences: laid out first, tried last, and cut between; each with the caution its tool asks for."""
    last = len(texts) - 1
    stages = [
        JointStage.MARKED if n == 0 else JointStage.TRIED if n == last else JointStage.CUT for n in range(len(texts))
    ]
    return tuple(Step(text, stage, care=_caution(text.lower())) for text, stage in zip(texts, stages, strict=True))


def _caution(text: str) -> str:
    for words, care in ((("chisel", "chop", "pare"), CHISEL_BITES), (("saw",), SAW_BITES), (("knife",), KNIFE_BITES)):
        if any(word in text for word in words):
            return care
    return ""


CHISEL_BITES = "Both hands behind the edge; pare towards the bench, never towards the hand that holds."
KNIFE_BITES = "The knife moves away from the hand."
SAW_BITES = "A saw starts with the thumb high and a light pull; hold what falls."
CHISEL_CARE = Remark(CHISEL_BITES)
KNIFE_CARE = Remark("The knife moves away from the hand; a saw starts with the thumb high and a light pull.")
