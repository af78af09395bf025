"""What a step of building a piece looks at: where all of it is as it was, the step puts in what it put in before."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Generic, TypeVar

from nullah.core.ledger import Ledger, Quantity
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.part import Part

T = TypeVar("T")


class Watched(Mapping[str, T], Generic[T]):
    """A mapping that notes what is looked at in it.

    Parameters
    ----------
    all_there_is : mapping of str to anything

    Examples
    --------
    >>> sizes = Watched({"width": 3, "height": 5, "depth": 2})
    >>> sizes["width"], "lid" in sizes, sizes.get("depth")
    (3, False, 2)
    >>> sizes.seen, sizes.whole
    ({'width': 3, 'lid': None, 'depth': 2}, False)
    """

    def __init__(self, all_there_is: Mapping[str, T]) -> None:
        self._all = all_there_is
        #: What was looked at, by its name; None where there was nothing of that name.
        self.seen: dict[str, T | None] = {}
        #: Whether it was gone through as a whole: then it hangs on all there is.
        self.whole = False

    def __getitem__(self, name: str) -> T:
        found = self.seen[name] = self._all.get(name)
        if found is None:
            raise KeyError(name)
        return found

    def __iter__(self) -> Iterator[str]:
        self.whole = True
        return iter(self._all)

    def __len__(self) -> int:
        self.whole = True
        return len(self._all)


def _as_before(seen: Mapping[str, T | None], now: Mapping[str, T]) -> bool:
    return all((there := now.get(name)) is was or there == was for name, was in seen.items())


class Step(NamedTuple):
    """What a step looked at, and what it put in; nothing else of the ledger of then is kept.

    `before` is how many parts there were before it, by which its own are numbered; `others` those of them that it
    looked at; `parts` those it put in; `added` what else it put in, list by list.
    """

    before: int
    quantities: dict[str, Quantity | None]
    uses: dict[str, tuple[str, ...] | None]
    others: dict[str, Part | None]
    parts: tuple[Part, ...]
    added: list[tuple[object, ...]]

    def fits(self, ledger: Ledger, parts: Mapping[str, Part]) -> bool:
        """Return whether the step would put in the very same: all that it looked at is as it was."""
        return (
            self.before == len(parts)
            and _as_before(self.quantities, ledger.quantities)
            and _as_before(self.uses, ledger.uses)
            and _as_before(self.others, parts)
        )
