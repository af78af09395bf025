"""What frozen records have in common: kinds of fact, references, and what a project is made of."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import Field, dataclass, field
from functools import cache, partial
from inspect import get_annotations
from typing import Any, ClassVar, NoReturn, dataclass_transform


class _LateFields:
    """The fields of a record as those of a dataclass, worked out when they are asked for."""

    def __get__(self, _record: object, kind: Any) -> dict[str, Field[Any]]:
        return _dataclass_fields(kind)


@dataclass_transform(frozen_default=True)
class FrozenRecord:
    """A record of the fields that its class is annotated with; records of one kind are equal by their values.

    To all who use it the same as a frozen dataclass: `dataclasses.replace` and `fields` take it. The class of one of
    those takes up to a millisecond to make, for its functions are compiled one by one. There are more than two hundred
    kinds of fact, of which a start needs hardly one, so what all have in common is written once here, and what makes a
    record is compiled with the first one. A hash is worked out once: records are keys of much that is kept.

    Raises
    ------
    TypeError
        Where a field is not given, or what is given is no field.

    Examples
    --------
    >>> from dataclasses import replace
    >>> class Apart(FrozenRecord):
    ...     first: str
    ...     second: str = "top"
    >>> Apart("left")
    Apart(first='left', second='top')
    >>> Apart("left") == Apart(second="top", first="left"), Apart("left").values
    (True, ('left', 'top'))
    >>> replace(Apart("left"), second="bottom")
    Apart(first='left', second='bottom')
    """

    __slots__ = ("__dict__", "__weakref__", "_hash")

    _hash: int

    _fields: ClassVar[tuple[str, ...]] = ()
    __dataclass_fields__: ClassVar[dict[str, Field[Any]]] = _LateFields()  # type: ignore[assignment]

    def __init_subclass__(cls) -> None:
        cls._fields = (*cls._fields, *(name for name in get_annotations(cls) if name not in cls._fields))
        type.__setattr__(cls, "__match_args__", cls._fields)
        type.__setattr__(cls, "__init__", FrozenRecord.__init__)

    def __init__(self, *values: Any, **named: Any) -> None:
        """Make the first record of a kind; what it compiles for that makes the others."""
        kind = type(self)
        maker = _maker(kind)
        type.__setattr__(kind, "__init__", maker)
        maker(self, *values, **named)

    @property
    def values(self) -> tuple[Any, ...]:
        """Return its values, in the order of its fields; what is kept of it besides is none of them."""
        held = self.__dict__
        return tuple([held[name] for name in self._fields])

    def __setattr__(self, name: str, value: object) -> NoReturn:
        raise AttributeError(f"{type(self).__name__} is frozen")

    def __delattr__(self, name: str) -> NoReturn:
        raise AttributeError(f"{type(self).__name__} is frozen")

    def __getstate__(self) -> dict[str, Any]:
        # Without its hash: the hash of a text is another one in another process.
        return self.__dict__

    def __eq__(self, other: object) -> bool:
        if not isinstance(other, FrozenRecord) or type(other) is not type(self):
            return False
        mine, theirs = self.__dict__, other.__dict__
        if len(mine) == len(theirs) == len(self._fields):
            return mine == theirs
        return self.values == other.values

    def __hash__(self) -> int:
        try:
            return self._hash
        except AttributeError:
            found = hash(self.values)
            object.__setattr__(self, "_hash", found)
            return found

    def __repr__(self) -> str:
        return f"{type(self).__name__}({', '.join(f'{name}={getattr(self, name)!r}' for name in self._fields)})"


def _maker(kind: type[FrozenRecord]) -> Callable[..., None]:
    """Compile what fills a record: all of its fields, in their order."""
    fields = kind._fields
    given = ", ".join(fields)
    kept = ", ".join(f"{name}={name}" for name in fields)
    maker: Any = eval(f"lambda _record, {given}: _record.__dict__.update({kept})", {"__builtins__": {}})
    usual = [getattr(kind, name) for name in fields if hasattr(kind, name)]
    maker.__defaults__, maker.__qualname__ = tuple(usual), f"{kind.__name__}.__init__"
    return maker  # type: ignore[no-any-return]


@cache
def _dataclass_fields(kind: Any) -> dict[str, Field[Any]]:
    """Return the fields of a dataclass with the same annotations and usual values."""
    # By functions, for a dataclass refuses usual values that could be changed, such as a mapping without names.
    usual = {name: partial(getattr, kind, name) for name in kind._fields if hasattr(kind, name)}
    hints = {name: hint for each in reversed(kind.__mro__) for name, hint in get_annotations(each).items()}
    body: dict[str, Any] = {name: field(default_factory=make) for name, make in usual.items()}
    body |= {"__annotations__": {name: hints[name] for name in kind._fields}, "__module__": kind.__module__}
    # Where there is no docstring, a dataclass takes ten milliseconds to find the words for one.
    body["__doc__"] = kind.__doc__ or kind.__name__
    like: Any = dataclass(init=False, repr=False, eq=False)(type(kind.__name__, (), body))
    found: dict[str, Field[Any]] = like.__dataclass_fields__
    return found
