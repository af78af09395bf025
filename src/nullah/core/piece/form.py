"""What a form of piece is: it declares choices, quantities, parts and joints."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from enum import Enum, auto
from fnmatch import fnmatchcase
from types import MappingProxyType

from nullah.core.card import Remark
from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.identity import kept_by_identity
from nullah.core.ledger import Definition, Ledger
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.piece.space import Corner, Side

#: What was chosen, by the name of the choice.
Choices = Mapping[str, str]


class Choice(NamedTuple):
    """Something to be chosen: its name, title, and the options with their titles; first is usual.

    `when` limits it to where another choice (its name) has one of some options. `shape` says that the options
    are told apart by how the piece looks, so that each can be shown as a drawing of it. `parts` are the ids of
    the parts that it is about, as shell patterns (``divider*``): it is offered beside them.
    """

    name: str
    title: str
    options: tuple[tuple[str, str], ...]
    when: tuple[str, tuple[str, ...]] = ("", ())
    shape: bool = False
    parts: tuple[str, ...] = ()

    def concerns(self, part: str) -> bool:
        """Return whether it is about a part, by its id."""
        return any(fnmatchcase(part, pattern) for pattern in self.parts)

    def applies(self, chosen: Choices) -> bool:
        """Return whether there is anything to choose, with the other choices as they are."""
        name, options = self.when
        return not name or chosen.get(name, "") in options


class View(Enum):
    """A drawing of the piece, square to one side; the value is what is written under it."""

    ABOVE = N_("From above")
    FRONT = N_("From the front")
    SECTION = N_("Across the middle")


class ViewDimension(NamedTuple):
    """A dimension on a view: the quantity it shows, and between which two places of the piece, mm.

    `offset` is how far its line stands off, in paper mm, to the left of start → end.
    """

    quantity: str
    view: View
    start: Corner
    end: Corner
    offset: float = 6.0


class Mover(NamedTuple):
    """Parts that must come out of the finished piece together: a drawer, a lid.

    `travel` is how far, mm; `quantities` are to be looked at when it cannot; `room` is the
    quantity that sets the room round it.
    """

    name: str
    group: str
    way: Side
    travel: Fraction
    quantities: tuple[str, ...] = ()
    room: str = ""


class Freedom(NamedTuple):
    """Room for wood to move: these parts, side by side, have so much of it across their grain, mm.

    Where it is for what they hold, which does not move, they need it as they shrink (`shrinks`).
    """

    parts: tuple[str, ...]
    room: Fraction
    quantity: str = ""
    shrinks: bool = False


class Bearing(NamedTuple):
    """A part that carries a load, kg, over a clear span, mm; `quantity` sets the span."""

    part: str
    span: Fraction
    load: Fraction
    quantity: str = ""


class Hardware(Enum):
    """What is fitted to a piece when it stands."""

    HINGES = auto()
    STAY = auto()
    STOPS = auto()
    WALL = auto()


class Fitting(NamedTuple):
    """Hardware, and the parts it is fitted to."""

    kind: Hardware
    parts: tuple[str, ...]


class Unit(NamedTuple):
    """Parts that are made up by themselves before they go in together, such as a frame, and what they are called."""

    name: str
    parts: tuple[str, ...]


@kept_by_identity(8)
def _by_id(parts: tuple[Part, ...]) -> Mapping[str, Part]:
    # Of two of one id, which the proof complains of, the first.
    return MappingProxyType({part.id: part for part in reversed(parts)})


@kept_by_identity(8)
def _by_part(joints: tuple[Joint, ...]) -> Mapping[str, tuple[Joint, ...]]:
    found: dict[str, list[Joint]] = {}
    for joint in joints:
        for part in dict.fromkeys((joint.first, joint.second)):
            found.setdefault(part, []).append(joint)
    return MappingProxyType({part: tuple(of) for part, of in found.items()})


class Assembly(NamedTuple):
    """Parts and joints of a piece, and what is wrong with it; without parts if it cannot be."""

    parts: tuple[Part, ...] = ()
    joints: tuple[Joint, ...] = ()
    remarks: tuple[Remark, ...] = ()
    measures: tuple[ViewDimension, ...] = ()
    movers: tuple[Mover, ...] = ()
    freedoms: tuple[Freedom, ...] = ()
    bearings: tuple[Bearing, ...] = ()
    units: tuple[Unit, ...] = ()
    fittings: tuple[Fitting, ...] = ()

    def part(self, part_id: str) -> Part | None:
        """Return the part of that id, if there is one."""
        return _by_id(self.parts).get(part_id)

    def joints_of(self, part_id: str) -> tuple[Joint, ...]:
        """Return the joints that a part has, in the order of the piece."""
        return _by_part(self.joints).get(part_id, ())


class Form(NamedTuple):
    """A form that pieces take.

    `define` gives the quantities for the choices made; `assemble` gives parts and joints
    from the ledger worked out. `size` names the three quantities that say how large it is.
    """

    id: str
    title: str
    choices: tuple[Choice, ...]
    define: Callable[[Choices], tuple[Definition, ...]]
    assemble: Callable[[Ledger, Choices], Assembly]
    size: tuple[str, str, str] = ("", "", "")

    def settled(self, chosen: Choices) -> dict[str, str]:
        """Return every choice of the form: as chosen where that is an option, or the usual."""
        found = {}
        for choice in self.choices:
            options = [option for option, _ in choice.options]
            given = chosen.get(choice.name, "")
            found[choice.name] = given if given in options else options[0]
        return found
