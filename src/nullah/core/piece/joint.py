"""A joint: two parts, and the type that says how they share the space where they meet.

What a type is stands in its package in `core/joints`; here is only what a piece asks of one.
"""

from __future__ import annotations

from collections.abc import Hashable, Iterator, Mapping
from enum import Enum
from typing import Protocol

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.ledger import Definition, Ledger
from nullah.core.lengths import Length, Marks
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.cuts import Removal
from nullah.core.piece.facts import Note
from nullah.core.piece.faults import Channel, Fault
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Corner, Side
from nullah.core.shop import Shop


class Hold(Enum):
    """What holds a joint, which decides what may move in it."""

    GLUE = N_("glued")
    NAILS = N_("nailed")
    SCREWS = N_("screwed")
    SLOTS = N_("screwed in slots")
    DRY = N_("left dry")

    @property
    def rigid(self) -> bool:
        """Whether wood held so cannot move: nails bend, slots slide, a dry joint is free."""
        return self in (Hold.GLUE, Hold.SCREWS)

    @property
    def in_a_row(self) -> bool:
        """Whether a row of nails or screws holds it."""
        return self in (Hold.NAILS, Hold.SCREWS, Hold.SLOTS)


class WoodHeld(NamedTuple):
    """What fastening asks of the wood of a part.

    Parameters
    ----------
    hard : bool
        Whether it is a hardwood.
    gravity : float
        Specific gravity, oven-dry.
    moves : float
        By how much of its width it moves across the grain through a year.
    """

    hard: bool = True
    gravity: float = 0.5
    moves: float = 0.01


class RowChoice(NamedTuple):
    """What was chosen of a row of nails or screws; the rest follows from the wood.

    Parameters
    ----------
    long, thick : Length, optional
        Of each, as it is sold.
    number : int
        How many; 0: as many as the length wants.
    from_end : Length, optional
        From either end of the joint to the first of them.
    """

    long: Length | None = None
    thick: Length | None = None
    number: int = 0
    from_end: Length | None = None


class PlannedRow(NamedTuple):
    """What a row of nails or screws was before anything was measured, which a measurement does not change.

    Parameters
    ----------
    through : str
        The part they go through.
    side : Side
        Of it, on which they enter.
    long, thick : Length
        Of each, as it is sold.
    number : int
        How many.
    """

    through: str
    side: Side
    long: Length
    thick: Length
    number: int


class RowInput(NamedTuple):
    """What nails or screws are chosen by.

    Parameters
    ----------
    woods : (WoodHeld, WoodHeld)
        Of the first and the second part.
    shop : Shop
        Whose bits are used.
    marks : Marks
        To which the first place is set off.
    beside : tuple of Box
        What other joints cut out of the two parts: no nail should meet it.
    choice : RowChoice
    planned : PlannedRow, optional
        What it was before something was measured.
    """

    woods: tuple[WoodHeld, WoodHeld]
    shop: Shop
    marks: Marks
    beside: tuple[Box, ...] = ()
    choice: RowChoice = RowChoice()
    planned: PlannedRow | None = None


class JointQuantities(NamedTuple):
    """The ledger's names behind a joint, for fixes; empty where there is none.

    `width`, `depth` and `stop` are of the channel, `guest` the thickness that enters it,
    `reach` how far that goes in, `notch` what is cut off its corner. `choice` is the way of
    making it that would not show, as ``name=option``.
    """

    width: str = ""
    depth: str = ""
    stop: str = ""
    guest: str = ""
    reach: str = ""
    notch: str = ""
    choice: str = ""

    @property
    def quantities(self) -> tuple[str, ...]:
        """All of them that name a quantity of the ledger; empty ones too."""
        return self.width, self.depth, self.stop, self.guest, self.reach, self.notch


class Offered(NamedTuple):
    """A way two parts could be joined: which one is first, and what the other would be let into, if that is it."""

    first: Part
    second: Part
    channel: Channel | None = None
    hold: Hold = Hold.GLUE


class JointType(Protocol):
    """What a piece asks of a type of joint. `JointBase` in `core/joints/base.py` has the usual answers."""

    @property
    def id(self) -> str:
        """How the type is called in files."""

    @property
    def offer(self) -> str:
        """The message by which it is offered: `first`, `second`, `channel` and `hold` are its places."""

    @property
    def touches(self) -> bool:
        """Whether the parts only touch, and share nothing."""

    @property
    def in_boxes(self) -> bool:
        """Whether what each loses is boxes."""

    @property
    def slanted(self) -> bool:
        """Whether they meet on a slant, each keeping half."""

    @property
    def enters(self) -> bool:
        """Whether the second part enters what is cut into the first."""

    @property
    def captures(self) -> bool:
        """Whether what enters is held in its channel by no more than the channel's walls."""

    @property
    def pegged(self) -> bool:
        """Whether pegs hold it too."""

    @property
    def when_glued(self) -> Note | None:
        """What is to be minded when it is glued."""

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return what a joint is called; the geometry tells half-blind from through, dado from groove."""

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return what the joint takes from one of its parts; None where nothing."""

    def frees(self, joint: Joint, first: Part, second: Part) -> frozenset[Side]:
        """Return the ways the first part can go, the second standing still."""

    def faults(self, joint: Joint, first: Part, second: Part) -> Iterator[Fault]:
        """Return what does not fit, beyond what is asked of every channel."""

    def channel(self, host: Part, box: Box) -> Channel:
        """Return what a box cut into the first part is called."""

    def depth_axis(self, host: Part, guest: Part, channel: Box) -> Axis:
        """Return the axis along which a channel is sunk."""

    def least_wall(self, channel: Box, third: Fraction) -> Fraction:
        """Return how much must be left beside a channel, mm; `third` is a third of its board's thickness.

        Parameters
        ----------
        channel : Box
            What is cut, in the piece, mm.
        third : Fraction
            Of its board's thickness, mm.
        """

    def least_reach(self, joint: Joint, first: Part, second: Part) -> Fraction:
        """Return how far the second part must go into the first to hold there, mm; nothing where that is all one."""

    def corner_prefix(self, joint: Joint) -> str:
        """Return the ledger's prefix of the figures of a corner that is laid out with dividers; empty for others."""

    def spaced(self, joint: Joint, widths: Mapping[str, tuple[Fraction, ...]]) -> Joint:
        """Return a joint with what its prefix says of how wide its tails are against each other.

        Parameters
        ----------
        joint : Joint
            Any.
        widths : Mapping[str, tuple[Fraction, ...]]
            Of the tails against each other, by prefix.
        """

    def where_moulded(self, joint: Joint, first: Part, second: Part) -> Joint:
        """Return a joint as it is made where the edges of both boards are moulded."""

    @property
    def holds(self) -> tuple[Hold, ...]:
        """What may hold it, where that can be chosen."""

    def fastened(self, joint: Joint, first: Part, second: Part, chosen: RowInput) -> Joint:
        """Return a joint with the nails or screws that hold it, as woods, bits and rule allow."""

    def may_meet(self, guest: Part, other: JointType, other_guest: Part) -> bool:
        """Return whether the channels of two joints in one part may all but meet."""

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Return the ways two parts could be joined so where they overlap, or only touch (no overlap)."""

    def quantities(self, prefix: str, first: tuple[str, str], second: tuple[str, str]) -> tuple[Definition, ...]:
        """Declare the figures of one between parts of one's own; of each its width and thickness in the ledger."""

    def between(self, joint_id: str, first: Part, second: Part, hold: Hold, ledger: Ledger) -> Joint | None:
        """Return one between two parts of one's own, as it usually is; None while its figures are not known."""


class Over(NamedTuple):
    """What is measured over parts that stand together, or between them, along one axis of the piece.

    Parameters
    ----------
    quantity : str
        What it is called; empty where nothing is measured.
    length : Fraction
        What it comes to, mm.
    low, planned : Fraction
        Where it begins in the piece, and how long it was designed, mm.
    """

    quantity: str = ""
    length: Fraction = Fraction(0)
    low: Fraction = Fraction(0)
    planned: Fraction = Fraction(0)

    def moved(self, at: Fraction) -> Fraction:
        """Return where something comes to lie that was designed at a place, mm: what lies at the far end moves with it.

        Parameters
        ----------
        at : Fraction
            In the piece as designed, mm.

        Examples
        --------
        >>> over = Over("walls.length", Fraction(101), Fraction(0), Fraction(100))
        >>> int(over.moved(Fraction(10))), int(over.moved(Fraction(90)))
        (10, 91)
        """
        # Nothing is added in the usual case: figures in floating point stay the very same.
        more = self.length - self.planned
        return at + more if more and at > self.low + self.planned / 2 else at


class LaidOutBy(NamedTuple):
    """What a channel or a baseline is laid out by where what it fits stands together already.

    Parameters
    ----------
    before : tuple of Joint
        The joints of the same part that are laid out before: one that lies opposite is measured from, and a channel
        stops at one that lies across.
    over : tuple of Over
        Along each axis of the piece.
    """

    before: tuple[Joint, ...]
    over: tuple[Over, Over, Over]

    def moved(self, box: Box) -> Box:
        """Return where a channel comes to lie that was designed as a box."""
        low, high = (
            tuple(each.moved(at) for each, at in zip(self.over, corner, strict=True)) for corner in (box.low, box.high)
        )
        return Box((low[0], low[1], low[2]), (high[0], high[1], high[2]))


class Joint(NamedTuple):
    """Two parts and how they share their overlap.

    For a dovetail `first` carries the tails and `second` the pins; otherwise `first` is cut
    into and `second` enters it.

    Parameters
    ----------
    channels : tuple of Box
        What is cut out of `first`; empty: just what the second keeps of the overlap.
    shares : tuple of Box
        What `second` keeps of the overlap; empty: all of it. The rest is cut off it.
    room : Corner
        Clearance planned on either side of the shares along each axis, mm.
    runs : bool
        Whether a channel may go on beyond what enters it (a groove ploughed through).
    figures : Hashable
        What else its type lays it out by, known to that type alone.
    glued : Fraction, optional
        Over how much of its width it is glued, mm; None: all of it.
    sets_width : str
        The part that the channel's width is taken from, where several enter it; empty: the second.
    level_with : str
        The part that ends level with a wall of the channel: the gauge is set to its width. Empty: there is none.
    laid_out_by : LaidOutBy, optional
        What stands together in this and other channels of the first part.
    held_only : tuple of Hold
        What may hold it where it stands, of what its type allows; empty: all of that.
    """

    id: str
    type: JointType
    first: str
    second: str
    hold: Hold = Hold.GLUE
    channels: tuple[Box, ...] = ()
    shares: tuple[Box, ...] = ()
    room: Corner = (Fraction(0), Fraction(0), Fraction(0))
    runs: bool = False
    figures: Hashable = None
    names: JointQuantities = JointQuantities()
    glued: Fraction | None = None
    sets_width: str = ""
    level_with: str = ""
    laid_out_by: LaidOutBy | None = None
    held_only: tuple[Hold, ...] = ()

    @property
    def ways_to_hold(self) -> tuple[Hold, ...]:
        """What may hold it; none where its type leaves no choice."""
        return self.held_only or self.type.holds
