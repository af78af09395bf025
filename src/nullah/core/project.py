"""The project: all that the user gave. Everything else follows from it in `plan`."""

from __future__ import annotations

from nullah.core.bench.book import BookEntry, Timer
from nullah.core.bench.working import Working
from nullah.core.breakdown.layout import FirstCut, Placement
from nullah.core.breakdown.rough import Allowances, Resawn, Staves, WoodRequirement
from nullah.core.breakdown.wishes import SearchWeights
from nullah.core.catalogue import N_
from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.ledger import Measured, Value
from nullah.core.lengths import Length, Marks, mm
from nullah.core.piece.joint import RowChoice
from nullah.core.rack.board import Board
from nullah.core.rack.drying import Room
from nullah.core.shop import Shop
from nullah.core.wood.climate import USUAL, Climate
from nullah.core.wood.finishes import USUAL_FINISH


class Piece(FrozenRecord):
    """What is to be made: a form, what was chosen of it, and what was given and measured.

    `choices`, `given` and `measured` are pairs of name and value, each name once. `woods`
    are pairs of what is made (``shown``, ``inside``) and its species; `holds` of a joint and
    what holds it, where that was changed. `own` and `own_joints` are boards of one's own.
    `spacings` are pairs of a corner's prefix and the widths of its tails against each other,
    where they are not equal; `rows` are pairs of a joint and what was chosen of its nails or screws.
    """

    form: str = "box"
    name: str = N_("New piece")
    choices: tuple[tuple[str, str], ...] = ()
    given: tuple[tuple[str, Value], ...] = ()
    measured: tuple[tuple[str, Measured], ...] = ()
    woods: tuple[tuple[str, str], ...] = ()
    holds: tuple[tuple[str, str], ...] = ()
    own: tuple[OwnBoard, ...] = ()
    own_joints: tuple[OwnJoint, ...] = ()
    spacings: tuple[tuple[str, tuple[Fraction, ...]], ...] = ()
    rows: tuple[tuple[str, RowChoice], ...] = ()


class Project(FrozenRecord):
    """All input of one piece. Frozen: an action of the user makes a new one.

    `layout` is the breakdown that was accepted; `cut_first` names the boards whose rough
    parts are sawn out before anything is flattened, `first_cuts` what else is cut before, one for a board;
    `lows_left` how deep lows may stay on faces that are not seen. `asks` are pairs of part and what was asked
    of its wood by hand; `staves` and `resawn` how parts are had other than whole; `wishes`
    what the search is to weigh; `flawed_share` the share of bought wood that flaws will take;
    `room` where the piece will live, `climate` the air there through the year, `finish` what goes on the wood,
    `working` how it is worked at; `book` what was done and noted, `timer` runs for a task. `set_out` is the mark that
    free sizes of the piece stand on, where that is another than the one figures are shown to.
    """

    piece: Piece = Piece()
    boards: tuple[Board, ...] = ()
    allowances: Allowances = Allowances()
    shop: Shop = Shop()
    marks: Marks = Marks()
    set_out: Length | None = None
    layout: tuple[Placement, ...] = ()
    cut_first: frozenset[str] = frozenset()
    first_cuts: tuple[FirstCut, ...] = ()
    lows_left: Length = mm(0)
    asks: tuple[tuple[str, WoodRequirement], ...] = ()
    staves: tuple[Staves, ...] = ()
    resawn: tuple[Resawn, ...] = ()
    wishes: SearchWeights = SearchWeights()
    flawed_share: Fraction = Fraction(1, 5)
    room: Room = Room()
    climate: Climate = USUAL
    finish: str = USUAL_FINISH
    working: Working = Working()
    book: tuple[BookEntry, ...] = ()
    timer: Timer | None = None

    @property
    def set_out_mark(self) -> Length:
        """The mark that free sizes of the piece stand on; showing it in another unit leaves it."""
        return self.set_out or self.marks.smallest

    @property
    def set_out_marks(self) -> Marks:
        """The marks of the rule that the piece is set out with."""
        return self.marks if self.set_out is None else self.marks.of_mark(self.set_out)

    def first_cut(self, board_id: str) -> FirstCut | None:
        """Return the cut a board gets before it is flattened, if one is planned."""
        return next((cut for cut in self.first_cuts if cut.board == board_id), None)

    def board(self, board_id: str) -> Board | None:
        """Return the board of that id, if it is on the rack."""
        return next((board for board in self.boards if board.id == board_id), None)
