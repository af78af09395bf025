"""The project: all that the user gave. Everything else follows from it in `plan`."""

from __future__ import annotations

from dataclasses import dataclass, field

from nullah.core.breakdown.layout import Placement
from nullah.core.breakdown.rough import Allowances
from nullah.core.ledger import Measured, Value
from nullah.core.lengths import Marks
from nullah.core.piece.own import OwnBoard, OwnJoint
from nullah.core.rack.board import Board
from nullah.core.shop import Shop


@dataclass(frozen=True, slots=True)
class Piece:
    """What is to be made: a form, what was chosen of it, and what was given and measured.

    `choices`, `given` and `measured` are pairs of name and value, each name once. `woods`
    are pairs of what is made (``shown``, ``inside``) and its species; `holds` of a joint and
    what holds it, where that was changed. `own` and `own_joints` are boards of one's own.
    """

    form: str = "box"
    name: str = "New piece"
    choices: tuple[tuple[str, str], ...] = ()
    given: tuple[tuple[str, Value], ...] = ()
    measured: tuple[tuple[str, Measured], ...] = ()
    woods: tuple[tuple[str, str], ...] = ()
    holds: tuple[tuple[str, str], ...] = ()
    own: tuple[OwnBoard, ...] = ()
    own_joints: tuple[OwnJoint, ...] = ()


@dataclass(frozen=True, slots=True)
class Project:
    """All input of one piece. Frozen: an action of the user makes a new one.

    `layout` is the breakdown that was accepted; `cut_first` names the boards whose rough
    parts are sawn out before anything is flattened.
    """

    piece: Piece = field(default_factory=Piece)
    boards: tuple[Board, ...] = ()
    allowances: Allowances = field(default_factory=Allowances)
    shop: Shop = field(default_factory=Shop)
    marks: Marks = field(default_factory=Marks)
    layout: tuple[Placement, ...] = ()
    cut_first: frozenset[str] = frozenset()

    def board(self, board_id: str) -> Board | None:
        """Give the board of that id, if it is on the rack."""
        return next((board for board in self.boards if board.id == board_id), None)
