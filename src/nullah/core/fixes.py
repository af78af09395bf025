"""Ways out that arithmetic knows, as facts: a closed set of records, matched exhaustively by whoever acts on them.

What a button says of one is written by `core/wording/fixes.py`, from the record's own fields.
"""

from __future__ import annotations

from nullah.core.errors import Fact
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length


class Give(FrozenRecord):
    """Give a quantity another value."""

    quantity: str
    value: Length


class MoveGroove(FrozenRecord):
    """Put a groove elsewhere: `quantity` is its height from the lower edge."""

    quantity: str
    height: Length


class MakeAllThinner(FrozenRecord):
    """Make every part that takes its thickness from a quantity so thick."""

    quantity: str
    thickness: Length


class FollowRule(FrozenRecord):
    """Let an overruled quantity follow its rule again."""

    quantity: str


class StopChannel(FrozenRecord):
    """Choose the option of a choice with which a channel stops where it would show."""

    choice: str
    option: str


class SlotScrews(FrozenRecord):
    """Hold a joint by screws in slots."""

    joint: str


class TakeUsualSize(FrozenRecord):
    """Take nails or screws as the wood wants them wherever ones of that length were chosen."""

    long: Length
    screws: bool


class CutOutFirst(FrozenRecord):
    """Saw a board's parts out before it is flattened; `name` is the board's."""

    board: str
    name: str


class CutThroughFirst(FrozenRecord):
    """Cut a board through once before it is flattened: across it or along it, at a place."""

    board: str
    name: str
    crosswise: bool
    at: Length


class GlueFromStaves(FrozenRecord):
    """Glue parts up, each from so many staves."""

    parts: tuple[str, ...]
    staves: int


class JoinParts(FrozenRecord):
    """Join two parts by one of the joints that their geometry offers, the `offer`-th from 0; `joint` is which."""

    first: str
    second: str
    offer: int
    joint: Fact


class Shim(FrozenRecord):
    """Make up what a measured quantity falls short of with a shim of that thickness."""

    quantity: str
    thickness: Length


class MakeAgain(FrozenRecord):
    """Make a part again because a quantity of it came out so much too small."""

    part: str
    quantity: str
    short: Length


class SetOutTo(FrozenRecord):
    """Put the free sizes of the piece on the marks of another rule."""

    mark: Length


Fix = (
    Give
    | MoveGroove
    | MakeAllThinner
    | FollowRule
    | StopChannel
    | SlotScrews
    | TakeUsualSize
    | CutOutFirst
    | CutThroughFirst
    | GlueFromStaves
    | JoinParts
    | Shim
    | MakeAgain
    | SetOutTo
)
