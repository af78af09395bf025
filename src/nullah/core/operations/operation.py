"""What all operations have in common."""

from __future__ import annotations

from dataclasses import dataclass

from nullah.core.fraction import Fraction
from nullah.core.operations.lines import Edge, Line
from nullah.core.operations.regions import Region
from nullah.core.operations.settings import ToolSetting
from nullah.core.operations.stock import Stock


@dataclass(frozen=True, kw_only=True)
class Operation:
    """Something that a hand does to a part.

    Parameters
    ----------
    part : str
        The part's id.
    stock : Stock
        Its blank.
    """

    part: str
    stock: Stock

    def __init_subclass__(cls) -> None:
        # A subclass would be given one that goes through all its figures every time.
        cls.__hash__ = Operation.__hash__  # type: ignore[method-assign]

    def __hash__(self) -> int:
        found = vars(self).get("_hash")
        if found is None:
            found = hash((type(self), *(getattr(self, name) for name in self.__dataclass_fields__)))
            object.__setattr__(self, "_hash", found)
        return found

    def __getstate__(self) -> dict[str, object]:
        # Words hash otherwise in another process.
        return {name: value for name, value in vars(self).items() if name != "_hash"}

    @property
    def settings(self) -> tuple[ToolSetting, ...]:
        """What is set for it."""
        return ()

    @property
    def draws(self) -> tuple[Line, ...]:
        """The lines it draws."""
        return ()

    @property
    def needs(self) -> tuple[Line, ...]:
        """The lines it works to."""
        return ()

    @property
    def takes(self) -> tuple[Region, ...]:
        """The wood it takes away."""
        return ()

    def edge(self, edge: Edge) -> Fraction:
        """Return where an edge of a cut lies along its axis, mm."""
        return edge.at if isinstance(edge, Line) else self.stock.at(edge)
