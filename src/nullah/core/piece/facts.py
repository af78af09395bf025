"""What a form, or the maker of its parts, says of a piece, as facts; `core/wording/piece.py` says them."""

from __future__ import annotations

from enum import Enum, auto

from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length


class NothingLeft(FrozenRecord):
    """A size that is worked out comes to nothing."""

    quantity: str
    length: Length


class MustBePositive(FrozenRecord):
    """A size that was given must be more than nothing."""

    quantity: str
    length: Length


class RowsOff(FrozenRecord):
    """Rows and dividers come to more than the inside height, or to less."""

    by: Length
    more: bool


class FrontGap(FrozenRecord):
    """A drawer's front leaves a gap at each side of its opening; `room` is the quantity of the opening."""

    drawer: str
    gap: Length
    room: str


class HandHoleLow(FrozenRecord):
    """A hand hole is lower than fingers need."""

    least: Length


class GluesTooLong(FrozenRecord):
    """Glueing the staves of a part takes longer than the glue stays open, minutes, in however many goes."""

    part: str
    minutes: int
    open_minutes: int


class GlueInSections(FrozenRecord):
    """What is made of many staves or strips is glued in sections first, with so many clamps for each."""

    strips: int
    sections: int
    clamps: int
    apart: Length


class Clamps(FrozenRecord):
    """A slab takes so many clamps, so far apart."""

    clamps: int
    apart: Length


class DrawerTooLarge(FrozenRecord):
    """A drawer's front is so much larger than its opening; `room` is the quantity it must fit."""

    drawer: str
    by: Length
    room: str


class SidesAboveFront(FrozenRecord):
    """The sides of a drawer stand so far above its front."""

    drawer: str
    by: Length


class HingeTooWide(FrozenRecord):
    """A hinge's leaf is wider than the edge it is let into."""

    leaf: Length
    edge: Length


class HingesTooLong(FrozenRecord):
    """Two hinges, each its own length from an end, are longer than what they are to hold."""

    hinge: Length
    length: Length


class SetOutElsewhere(FrozenRecord):
    """Free sizes stand on marks that the rule shown does not have."""

    mark: Length


class Note(Enum):
    """What is said of a form without any figure."""

    ANCHOR_TO_WALL = auto()
    ARCH_REACHES_DADO = auto()
    BUTTON_MORTISES_THROUGH = auto()
    CLEAT_BEVEL = auto()
    CLEAT_SHOWS = auto()
    CLEARANCE_BELOW_NOTHING = auto()
    CLEARANCE_TOO_LARGE = auto()
    GLUE_MIDDLE_TENON = auto()
    WEDGED_NOT_GLUED = auto()
    GROOVE_HAS_NO_DEPTH = auto()
    GROOVE_TOO_DEEP = auto()
    HAND_HOLES_LOW = auto()
    LID_NEEDS_STAY = auto()
    NO_LOAD_SAID = auto()
    PILOT_FOR_NAILS = auto()
    SAW_LONG_OVER_RABBETS = auto()
    SCREW_CLEAT_TO_STUDS = auto()
    SCREW_RAIL_TO_STUDS = auto()
    SLOTS_BREAK_OUT = auto()
    SLOTS_TOO_DEEP = auto()
    STAY_BEFORE_HINGES = auto()
    STRAIGHT_SEAMS = auto()
    TAPER_AT_APRON = auto()
    WALLS_TOO_LOW = auto()


PieceFact = (
    NothingLeft
    | MustBePositive
    | RowsOff
    | FrontGap
    | HandHoleLow
    | GlueInSections
    | GluesTooLong
    | Clamps
    | SetOutElsewhere
    | HingeTooWide
    | HingesTooLong
    | DrawerTooLarge
    | SidesAboveFront
)
