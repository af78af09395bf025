"""References: what an element of a drawing, a setting or a remark is of, so that it can be picked or typed."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class PartRef:
    """A part of the piece."""

    part: str


@dataclass(frozen=True)
class PieceRef:
    """A rough piece to be sawn out of a board: of a part, a stave of one, or two in one."""

    piece: str


@dataclass(frozen=True)
class QuantityRef:
    """A quantity of the ledger."""

    name: str


@dataclass(frozen=True)
class BoardRef:
    """A board on the rack."""

    board: str


@dataclass(frozen=True)
class BoardSizeRef:
    """A figure of a board that can be typed; `figure` is the name of its field."""

    board: str
    figure: str


@dataclass(frozen=True)
class HeartRef:
    """Where the heart of the tree lies beside a board's end."""

    board: str


@dataclass(frozen=True)
class FlawRef:
    """A flaw of a board, by its place in the board's list."""

    board: str
    number: int


@dataclass(frozen=True)
class ReadingRef:
    """A reading taken of the board in hand, by its place in the board's list."""

    number: int


@dataclass(frozen=True)
class WantedReadingRef:
    """A reading to take of the board in hand, by its place among the usual ones."""

    number: int


@dataclass(frozen=True)
class StepRef:
    """A step of the stroke plan."""

    number: int


@dataclass(frozen=True)
class TaskRef:
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
