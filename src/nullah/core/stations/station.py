"""What every station has: a drawing of its matter, a card, and its state in words."""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING, Protocol, cast

from nullah.core.card import Card
from nullah.core.drawing import Drawing
from nullah.core.named_tuple import NamedTuple

if TYPE_CHECKING:
    from nullah.core.plan import Plan
    from nullah.core.stations.selection import Selection


class StationModule(Protocol):
    """What the module of a station has."""

    def draw(self, plan: Plan, selection: Selection) -> Drawing:
        """Return the drawing on the bench."""

    def card(self, plan: Plan, selection: Selection) -> Card:
        """Return what is carried away."""

    def state(self, plan: Plan) -> str:
        """Return a few words for the rod."""


class Station(NamedTuple):
    """A place on the rod, in the order of work; `id` is also the name of its module.

    `invitation` is what an empty bench says, and `to_scale` whether sizes on it are true.
    """

    id: str
    title: str
    invitation: str
    to_scale: bool = True

    def draw(self, plan: Plan, selection: Selection) -> Drawing:
        """Return the drawing on the bench."""
        return self._module().draw(plan, selection)

    def card(self, plan: Plan, selection: Selection) -> Card:
        """Return what is carried away."""
        return self._module().card(plan, selection)

    def state(self, plan: Plan) -> str:
        """Return a few words for the rod."""
        return self._module().state(plan)

    def _module(self) -> StationModule:
        return cast(StationModule, import_module(f"nullah.core.stations.{self.id}"))
