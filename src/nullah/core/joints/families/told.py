"""What every family is asked and what it tells, and what they have in common."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from typing import NamedTuple

from nullah.core.card import Remark, Setting, Weight
from nullah.core.joints.cutouts import Cutout
from nullah.core.joints.kinds import Kind
from nullah.core.lengths import Length, Marks
from nullah.core.shop import Shop

#: Less wood than this beside a channel breaks, mm (common practice).
THINNEST = 3.0


class AtBench(NamedTuple):
    """A kind of joint, and the shop it is made in.

    `dense` says of both mates whether their wood is hard; `gravities` are their specific gravities.
    """

    kind: Kind
    marks: Marks
    shop: Shop
    hard: tuple[bool, bool] = (True, True)
    gravities: tuple[float, float] = (0.5, 0.5)

    def write(self, size: Fraction) -> str:
        """Write what a tool is set to."""
        return self.marks.write_setting(Length(size))

    def setting(self, tool: str, size: Fraction, note: str, of: str = "") -> Setting:
        """Make a setting; where the mark is not quite true, by how much."""
        off = self.marks.off_true(Length(size))
        return Setting(tool, self.write(size), f"{note}; {off}" if off else note, of)


class Told(NamedTuple):
    """What a family tells of a joint."""

    settings: tuple[Setting, ...]
    steps: tuple[str, ...]
    remarks: tuple[Remark, ...]
    why: tuple[str, ...] = ()


def chisel_settings(at: AtBench, room: Fraction, title: str = "Chisel", of: str = "") -> Iterator[Setting]:
    """Give the chisel that enters and the next smaller one; or that there is none."""
    found = at.shop.chisels_for(Length(room))
    if not found:
        yield Setting(title, "none fits", f"room {at.marks.write_fine(Length(room))}", of)
        return
    names = [chisel.as_text().replace(" in", "″") for chisel in found]
    note = f"enters {at.marks.write_fine(Length(room))}" + (f"; next {names[1]}" if len(names) > 1 else "")
    yield Setting(title, names[0], note, of)


def how_many(at: AtBench) -> str:
    """Say how many equal ones there are, to be ganged."""
    number = len(at.kind.all)
    return "" if number == 1 else f" Do all {number} with the same settings."


def end_beside(at: AtBench, cut: Cutout) -> Iterator[Remark]:
    """Mind a short end beside a cut across the grain: it splits off."""
    long = at.kind.first.sizes.along
    beside = min(cut.along[0], long - cut.along[1])
    if 0 < beside < 10:
        yield Remark(
            f"Only {at.write(beside)} of end stands beyond it and is likely to split off: leave the end long until it "
            "is glued, and trim it then.", Weight.LOOK,
        )  # fmt: skip


CHISEL_CARE = Remark("Both hands behind the edge; pare towards the bench, never towards the hand that holds.")
KNIFE_CARE = Remark("The knife moves away from the hand; a saw starts with the thumb high and a light pull.")
