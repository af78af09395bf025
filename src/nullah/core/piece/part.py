"""A part: a board placed in the piece, as an exact box with its grain and its shapings."""

from __future__ import annotations

from enum import Enum

from nullah.core.fraction import Fraction
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.shaping import Shaping
from nullah.core.piece.space import Axis, Box, Corner, Side, sides_of

__all__ = ["INSIDE", "Axis", "Box", "Corner", "Needs", "Part", "Side", "sides_of"]


#: Roles of parts that are not seen on the finished piece.
INSIDE = frozenset({"bottom", "back", "drawer"})


class Needs(Enum):
    """What a part asks of its faces.

    Clear: both faces. One face: the other may show knots and sap. Any: sound wood, knots and
    sap allowed. Hidden: as any, and what stays on one face and does not go deep.
    """

    CLEAR = "clear"
    ONE_FACE = "one face"
    ANY = "any"
    HIDDEN = "hidden"


class Part(NamedTuple):
    """A part of the piece.

    `box` is its finished size with tails and tongues included; `grain` the axis of its
    length, `face` the axis of its thickness. `quantities` are the ledger's names for its
    length, width and thickness; `alike` names the set of equal parts made together.
    `spare` is what its ends are left long, in all, for planing flush after glueing.
    `shows` are the sides seen on the finished piece; `group` the assembly it belongs to
    that moves as one (a drawer, a lid); `own` whether it is a board of one's own. `staves` are
    how many it is usually glued up from, edge to edge, or where it is `laminated` face to face,
    as strips that stand on edge. Of a part with `one_face` only the face side is planed flat.
    `references` are the sides on which its face side, face edge and reference end lie, where that is
    not where they usually are.
    """

    id: str
    number: int
    name: str
    box: Box
    grain: Axis
    face: Axis
    needs: Needs
    quantities: tuple[str, str, str]
    alike: str
    species_role: str = "case"
    spare: Fraction = Fraction(0)
    shows: frozenset[Side] = frozenset()
    shapings: tuple[Shaping, ...] = ()
    group: str = ""
    own: bool = False
    staves: int = 1
    laminated: bool = False
    one_face: bool = False
    references: frozenset[Side] = frozenset()

    def measured_from_high(self, axis: Axis) -> bool:
        """Return whether its reference surface square to an axis lies on the high side, as the part says."""
        return next((side.high for side in self.references if side.axis is axis), False)

    @property
    def across(self) -> Axis:
        """The axis of its width."""
        return next(axis for axis in Axis if axis not in (self.grain, self.face))

    @property
    def length(self) -> Length:
        """Finished length, along the grain."""
        return Length(self.box.size(self.grain))

    @property
    def cut_length(self) -> Length:
        """Length to cut to: the finished length and what is planed flush later."""
        return Length(self.box.size(self.grain) + self.spare)

    @property
    def built(self) -> Box:
        """The box it fills when the piece stands: short of its own where its ends are set inside flush."""
        short = min(self.spare, Fraction(0)) / 2
        axis = self.grain.value
        return self.box.set(self.grain, self.box.low[axis] - short, self.box.high[axis] + short)

    @property
    def width(self) -> Length:
        """Finished width, across the grain."""
        return Length(self.box.size(self.across))

    @property
    def thickness(self) -> Length:
        """Finished thickness."""
        return Length(self.box.size(self.face))
