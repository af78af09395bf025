"""References: what an element of a drawing, a setting or a remark is of, so that it can be picked or typed."""

from __future__ import annotations

from nullah.core.frozen_record import FrozenRecord


class PartRef(FrozenRecord):
    """A part of the piece."""

    part: str


class PieceRef(FrozenRecord):
    """A rough piece to be sawn out of a board: of a part, a stave of one, or two in one."""

    piece: str


class QuantityRef(FrozenRecord):
    """A quantity of the ledger."""

    name: str


class BoardRef(FrozenRecord):
    """A board on the rack."""

    board: str


class BoardSizeRef(FrozenRecord):
    """A figure of a board that can be typed; `figure` is the name of its field."""

    board: str
    figure: str


class HeartRef(FrozenRecord):
    """Where the heart of the tree lies beside a board's end."""

    board: str


class FlawRef(FrozenRecord):
    """A flaw of a board, by its place in the board's list."""

    board: str
    number: int


class ReadingRef(FrozenRecord):
    """A reading taken of the board in hand, by its place in the board's list."""

    number: int


class WantedReadingRef(FrozenRecord):
    """A reading to take of the board in hand, by its place among the usual ones."""

    number: int


class StepRef(FrozenRecord):
    """A step of the stroke plan."""

    number: int


class TaskRef(FrozenRecord):
    """A task of the Day Book."""

    task: str


Ref = (
    PartRef
    | PieceRef
    | QuantityRef
    | BoardRef
    | BoardSizeRef
    | HeartRef
    | FlawRef
    | ReadingRef
    | WantedReadingRef
    | StepRef
    | TaskRef
)


def quantity_ref(name: str) -> QuantityRef | None:
    """Return a reference to a quantity; None for no name."""
    return QuantityRef(name) if name else None
