"""What a form of piece is: it declares choices, quantities, parts and joints."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import NamedTuple

from nullah.core.card import Remark
from nullah.core.ledger import Definition, Ledger
from nullah.core.piece.overlap import Joint
from nullah.core.piece.part import Part

#: What was chosen, by the name of the choice.
Choices = Mapping[str, str]


class Choice(NamedTuple):
    """Something to be chosen: its name, title, and the options with their titles; first is usual."""

    name: str
    title: str
    options: tuple[tuple[str, str], ...]


class Assembly(NamedTuple):
    """Parts and joints of a piece, and what is wrong with it; without parts if it cannot be."""

    parts: tuple[Part, ...] = ()
    joints: tuple[Joint, ...] = ()
    remarks: tuple[Remark, ...] = ()

    def part(self, part_id: str) -> Part | None:
        """Give the part of that id, if there is one."""
        return next((part for part in self.parts if part.id == part_id), None)


class Form(NamedTuple):
    """A form that pieces take.

    `define` gives the quantities for the choices made; `assemble` gives parts and joints
    from the ledger worked out. `sizes` are the names of the three quantities that a person
    gives first, for each set of choices.
    """

    id: str
    title: str
    choices: tuple[Choice, ...]
    define: Callable[[Choices], tuple[Definition, ...]]
    assemble: Callable[[Ledger, Choices], Assembly]

    def settled(self, chosen: Choices) -> dict[str, str]:
        """Give every choice of the form: as chosen, or the usual."""
        return {choice.name: chosen.get(choice.name, choice.options[0][0]) for choice in self.choices}
