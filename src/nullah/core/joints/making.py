"""What a type of joint makes its operations from: both parts in their own frames, the shop, the rule's marks."""

from __future__ import annotations

from nullah.core.card import JointStage, Moment
from nullah.core.fraction import Fraction
from nullah.core.lengths import Length, Marks, entered
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ToolSetting, of_tool
from nullah.core.piece.frame import Frame
from nullah.core.piece.joint import Joint
from nullah.core.shop import Shop


class Making(NamedTuple):
    """A joint that is to be made."""

    joint: Joint
    first: Frame
    second: Frame
    marks: Marks
    shop: Shop

    def chisel(self, room: Fraction) -> tuple[ToolSetting, ...]:
        """Return the widest chisel that enters a room of so many mm; none where none does.

        Parameters
        ----------
        room : Fraction
            mm.
        """
        found = self.shop.largest_chisel(Length(room))
        return () if found is None else (of_tool("chisel", found),)

    def bit(self, diameter: Length) -> Length:
        """Return a bit as it is called where it was bought; in the unit shown where the shop has none of its size.

        Parameters
        ----------
        diameter : Length
            Of the hole.
        """
        owned = (bit for bit in self.shop.bits if bit.mm == diameter.mm)
        return next(owned, entered(diameter, self.marks.unit))


class BenchStep(NamedTuple):
    """Operations that are done in one go: how far the joint then is, and at which of its parts they are done.

    Parameters
    ----------
    stage : JointStage
    at : str
        ``first``, ``second`` or ``both``.
    operations : tuple of Operation
        In their order.
    moment : Moment
        When they are done: apart, as the parts are put together, or when the joint is glued; in that order.
    """

    stage: JointStage
    at: str
    operations: tuple[Operation, ...]
    moment: Moment = Moment.APART
