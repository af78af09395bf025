"""Whether a board can give what a part asks: its wood, its thickness, its grain, and where it is clear."""

from __future__ import annotations

from nullah.core.breakdown.facts import (
    GrainRefusal,
    NotFigured,
    NotStraight,
    OtherWood,
    Refusal,
    SawnOtherwise,
    TooThin,
)
from nullah.core.breakdown.rough import RoughPart
from nullah.core.fraction import Fraction
from nullah.core.lengths import Length, Marks
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.part import Needs
from nullah.core.rack.board import TOLERABLE, Board, Faces, Flaw, FlawKind, GrainFigure
from nullah.core.rack.outline import missing
from nullah.core.wood.movement import GrainCut
from nullah.core.wood.species import same_wood

#: How much wood must stay between a flaw and the surface, mm: 1 to 2 is thin (common practice).
MARGIN = Fraction(1)
#: A flaw on one face of a hidden part may go this deep into what is left of it (common practice).
_HIDDEN_DEPTH = Fraction(1, 3)


class Rect(NamedTuple):
    """A rectangle on a board, mm."""

    x: float
    y: float
    length: float
    width: float

    @property
    def end(self) -> float:
        """Its far end along the board."""
        return self.x + self.length

    @property
    def top(self) -> float:
        """Its far edge across the board."""
        return self.y + self.width

    def meets(self, other: Rect, apart: float = 0.0) -> bool:
        """Return whether the two come closer than `apart` mm in both directions at once.

        Parameters
        ----------
        other : Rect
            The other rectangle.
        apart : float
            mm.
        """
        return (
            self.x < other.end + apart - TOLERANCE
            and other.x < self.end + apart - TOLERANCE
            and self.y < other.top + apart - TOLERANCE
            and other.y < self.top + apart - TOLERANCE
        )


#: mm; below a sawyer's and far below a pencil's accuracy.
TOLERANCE = 0.01


def flaw_rect(flaw: Flaw) -> Rect:
    """Return the rectangle of a flaw in mm."""
    return Rect(float(flaw.start), float(flaw.low), float(flaw.end - flaw.start), float(flaw.high - flaw.low))


def shows(part: RoughPart) -> tuple[Faces, ...]:
    """Return the faces of the board that may become the part's face side, where that matters."""
    return (Faces.UP, Faces.DOWN) if part.needs is Needs.ONE_FACE else (Faces.UP,)


def rules_out(flaw: Flaw, part: RoughPart, board: Board, face: Faces = Faces.UP) -> bool:
    """Return whether a part may not cover a flaw.

    Parameters
    ----------
    flaw : Flaw
    part : RoughPart
    board : Board
    face : Faces
        Which face of the board becomes the part's face side: it matters to parts with one clear face.

    Notes
    -----
    A flaw on one face that is planed away with `MARGIN` to spare spoils nothing: what is over
    is taken from both faces alike.
    """
    tolerable = flaw.kind in TOLERABLE
    if flaw.faces is Faces.THROUGH:
        return part.needs in (Needs.CLEAR, Needs.ONE_FACE) or not tolerable
    left = (part.finished or part.thickness).mm
    planed = (board.thickness.mm - left) / 2
    deep = None if flaw.depth is None else flaw.depth.mm - planed
    if deep is not None and deep + MARGIN <= 0:
        return False
    if part.needs is Needs.CLEAR:
        return True
    if part.needs is Needs.ONE_FACE:
        comes_through = deep is not None and deep + MARGIN > left
        return flaw.faces is face or not tolerable or comes_through
    if part.needs is Needs.HIDDEN and flaw.kind is not FlawKind.SPLIT:
        return not tolerable and (deep is None or deep > left * _HIDDEN_DEPTH)
    return not tolerable


def spoilt(board: Board, part: RoughPart, face: Faces = Faces.UP) -> list[Rect]:
    """Return the rectangles of a board that a part may not cover: flaws, and wood missing at crooked edges."""
    found = [flaw_rect(flaw) for flaw in board.flaws if rules_out(flaw, part, board, face)]
    found += [Rect(start, low, end - start, high - low) for start, low, end, high in missing(board)]
    return found


def refusal(part: RoughPart, board: Board) -> Refusal | None:
    """Return why a board cannot give a part anywhere; None if it may."""
    if not same_wood(part.wood, board.species):
        return OtherWood(part.wood, board.name, board.species)
    if part.thickness.mm > board.thickness.mm:
        return TooThin(part.thickness, board.name, board.thickness)
    return grain_refusal(part, board)


def grain_refusal(part: RoughPart, board: Board) -> GrainRefusal | None:
    """Return why the grain of a board is not what a part asks; None if it is."""
    if part.figure is GrainFigure.STRAIGHT and not (
        board.figure is GrainFigure.STRAIGHT or board.cut is not GrainCut.FLAT
    ):
        return NotStraight(board.name)
    if part.figure is GrainFigure.FIGURED and board.figure is not GrainFigure.FIGURED:
        return NotFigured(board.name)
    if part.rings is not None and board.cut is not part.rings:
        return SawnOtherwise(part.rings, board.name, board.cut)
    return None


def can_supply(part: RoughPart, board: Board) -> bool:
    """Return whether a board may give a part somewhere, as far as wood, thickness and grain go."""
    return (
        part.thickness.mm <= board.thickness.mm
        and same_wood(part.wood, board.species)
        and grain_refusal(part, board) is None
    )


def write_size(part: RoughPart, marks: Marks) -> str:
    """Write a rough part's length and width."""
    return f"{marks.write(part.along, unit=False)} × {marks.write(part.across)}"


def length_of(millimetres: float) -> Length:
    """Return whole millimetres, rounded down: nothing on a rough board is worth more.

    Parameters
    ----------
    millimetres : float
        Of a rough board.
    """
    return Length(Fraction(int(millimetres + 1e-6)))
