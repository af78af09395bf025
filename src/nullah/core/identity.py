"""Things told apart by what they are and not by what they are equal to: that would take too long."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator
from functools import lru_cache, update_wrapper
from threading import Lock
from typing import Any, Generic, ParamSpec, TypeVar, TypeVarTuple, Unpack, cast

T = TypeVar("T")
Result = TypeVar("Result")
Given = TypeVarTuple("Given")
Arguments = ParamSpec("Arguments")

#: Held by whoever changes a store by identity: work is kept in a thread of its own, which looks into some of them.
_CHANGING = Lock()
#: What empties every store of results; and the stores by identity.
_EMPTY: list[Callable[[], object]] = []
_STORES: list[_Store[Any]] = []


def let_go() -> None:
    """Let all results go that are kept: they are worked out again when they are wanted.

    Stores are large enough for large pieces; what many changes leave behind in them is wanted no more.
    """
    for empty in _EMPTY:
        empty()


def grow_old() -> None:
    """Let the results by identity go that nobody asked for since this was done last."""
    for store in _STORES:
        store.grow_old()


def kept_by_value(most: int) -> Callable[[Callable[Arguments, Result]], Callable[Arguments, Result]]:
    """Return a decorator that keeps the last results of a pure function, by what it was called with.

    Parameters
    ----------
    most : int
        So many results are kept.
    """

    def keep(function: Callable[Arguments, Result]) -> Callable[Arguments, Result]:
        kept = lru_cache(maxsize=most)(function)
        _EMPTY.append(kept.cache_clear)
        return cast(Callable[Arguments, Result], kept)

    return keep


class IdentityKey(Generic[T]):
    """A key that carries something; it is the same key where all its parts are the very same things.

    Parameters
    ----------
    carried : object
        What is worked with.
    parts : objects
        What it hangs on; none: itself. They are kept as long as the key, so that no other thing takes their place.
    """

    def __init__(self, carried: T, *parts: object) -> None:
        self.carried = carried
        self._parts = parts or (carried,)

    def __eq__(self, other: object) -> bool:
        return (
            isinstance(other, IdentityKey)
            and len(other._parts) == len(self._parts)
            and all(a is b for a, b in zip(self._parts, other._parts, strict=True))
        )

    def __hash__(self) -> int:
        return hash(tuple(map(id, self._parts)))


class LastOfName(Generic[T]):
    """The last thing of each name.

    Parameters
    ----------
    most : int
        Things of so many names are kept.

    Examples
    --------
    >>> last = LastOfName(2)
    >>> for name, thing in (("a", 1), ("b", 2), ("c", 3), ("c", 4)):
    ...     last.keep(name, thing)
    >>> last.found("a"), last.found("b"), last.found("c")
    (None, 2, 4)
    """

    def __init__(self, most: int) -> None:
        self._most = most
        self._last: dict[Hashable, T] = {}
        _EMPTY.append(self._last.clear)

    def found(self, name: Hashable) -> T | None:
        """Return what was kept last under a name, if it is not gone yet."""
        return self._last.get(name)

    def keep(self, name: Hashable, thing: T) -> None:
        """Keep a thing under a name, in place of what was kept under it."""
        while name not in self._last and len(self._last) >= self._most:
            self._last.pop(next(iter(self._last)), None)
        self._last[name] = thing


class SameAgain(Generic[T]):
    """Give back the very thing that was there before, as long as it is equal: all that is kept by it stays kept.

    Parameters
    ----------
    most : int
        Things of so many names are kept.

    Examples
    --------
    >>> same = SameAgain(100)
    >>> first = same("size", (1, 2))
    >>> same("size", tuple([1, 2])) is first, same("size", (1, 3)) is first
    (True, False)
    """

    def __init__(self, most: int) -> None:
        self._last = LastOfName[T](most)

    def __call__(self, name: Hashable, thing: T) -> T:
        """Return what was there of that name if it is equal, else the thing, which is there from now on."""
        before = self._last.found(name)
        if before is not None and (before is thing or before == thing):
            return before
        self._last.keep(name, thing)
        return thing


class RecentResults(Generic[T]):
    """The last results of what takes long, by all that they hang on; keys are looked for by equality, without a hash.

    Parameters
    ----------
    most : int
        So many results are kept.

    Examples
    --------
    >>> orders = RecentResults(2)
    >>> for number in (1, 2, 3):
    ...     orders.keep([number], str(number))
    >>> orders.found([3]), orders.found([1])
    ('3', None)
    """

    def __init__(self, most: int) -> None:
        self._most = most
        self._kept: list[tuple[object, T]] = []
        _EMPTY.append(self._kept.clear)

    def found(self, key: object) -> T | None:
        """Return what was kept under a key that is equal, and is not gone yet."""
        place = next((at for at, (known, _) in enumerate(self._kept) if known == key), None)
        if place is None:
            return None
        self._kept.insert(0, self._kept.pop(place))
        return self._kept[0][1]

    def keep(self, key: object, result: T) -> None:
        """Keep a result, in place of one of that key; the one that was not asked for longest goes."""
        self._kept[:] = [(key, result), *(each for each in self._kept if each[0] != key)][: self._most]


class _Store(Generic[T]):
    """Results by the very things they were worked out of; what was asked for lately is in `young`."""

    def __init__(self, most: int) -> None:
        self._most = most
        self.young: dict[tuple[int, ...], tuple[object, T]] = {}
        self._old: dict[tuple[int, ...], tuple[object, T]] = {}
        _STORES.append(self)
        _EMPTY.append(self._empty)

    def older(self, key: tuple[int, ...]) -> tuple[object, T] | None:
        """Return a result that was not asked for lately; it is young again."""
        known = self._old.pop(key, None)
        if known is not None:
            self.keep(key, known)
        return known

    def keep(self, key: tuple[int, ...], known: tuple[object, T]) -> None:
        with _CHANGING:
            while len(self.young) >= self._most:
                del self.young[next(iter(self.young))]
            self.young[key] = known

    def grow_old(self) -> None:
        with _CHANGING:
            self._old, self.young = self.young, {}

    def _empty(self) -> None:
        with _CHANGING:
            self._old, self.young = {}, {}


def kept_by_identity(most: int) -> Callable[[Callable[[Unpack[Given]], Result]], Callable[[Unpack[Given]], Result]]:
    """Return a decorator that keeps the last results of a pure function, by the very things it was called with.

    Parameters
    ----------
    most : int
        So many results are kept, and what they were worked out of.

    Examples
    --------
    >>> calls = []
    >>> @kept_by_identity(2)
    ... def total(numbers):
    ...     calls.append(numbers)
    ...     return sum(numbers)
    >>> numbers = (1, 2)
    >>> total(numbers), total(numbers), len(calls)
    (3, 3, 1)
    """

    def keep(function: Callable[[Unpack[Given]], Result]) -> Callable[[Unpack[Given]], Result]:
        store = _Store[Result](most)

        def again(*things: *Given) -> Result:
            key = tuple(map(id, things))
            known = store.young.get(key) or store.older(key)
            if known is None:
                known = things, function(*things)
                store.keep(key, known)
            return known[1]

        return update_wrapper(again, function)

    return keep


#: What is kept of many things is kept run by run: to look for each of them takes longer than to go through a run anew.
_RUN = 16


def runs(things: tuple[T, ...]) -> Iterator[tuple[T, ...]]:
    """Yield many things in runs, of which all but those with something new in them are found by identity.

    Examples
    --------
    >>> [len(run) for run in runs(tuple(range(35)))]
    [16, 16, 3]
    """
    for first in range(0, len(things), _RUN):
        yield things[first : first + _RUN]
