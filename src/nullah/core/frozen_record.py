"""What small frozen records have in common: every kind of fact, and every reference, is one."""

from __future__ import annotations

from inspect import get_annotations
from typing import Any, ClassVar, NoReturn, Self, dataclass_transform


@dataclass_transform(frozen_default=True)
class FrozenRecord:
    """A record of the fields that its class is annotated with; records of one kind are equal by their values.

    The class of a named tuple or of a dataclass takes up to a millisecond to make: its functions are compiled one by
    one. There are more than two hundred kinds of fact, of which a start needs hardly one, so what all have in common
    is written once here. Making one takes longer: what is made by the thousand is a named tuple.

    Raises
    ------
    TypeError
        Where a field is not given, or what is given is no field.

    Examples
    --------
    >>> class Apart(FrozenRecord):
    ...     first: str
    ...     second: str = "top"
    >>> Apart("left")
    Apart(first='left', second='top')
    >>> Apart("left") == Apart(second="top", first="left"), Apart("left").values
    (True, ('left', 'top'))
    >>> Apart("left").replaced(second="bottom")
    Apart(first='left', second='bottom')
    """

    _fields: ClassVar[tuple[str, ...]] = ()

    def __init_subclass__(cls) -> None:
        cls._fields = (*cls._fields, *get_annotations(cls))
        type.__setattr__(cls, "__match_args__", cls._fields)

    def __init__(self, *values: Any, **named: Any) -> None:
        fields, kind = self._fields, type(self)
        given = dict(zip(fields, values, strict=False))
        wrong = len(values) > len(fields) or given.keys() & named.keys() or named.keys() - set(fields)
        given |= named
        if wrong or any(name not in given and not hasattr(kind, name) for name in fields):
            raise TypeError(f"{kind.__name__} takes {', '.join(fields)}")
        # All of them, in their order: what equality, hash and values go by.
        self.__dict__.update({name: given[name] if name in given else getattr(kind, name) for name in fields})

    @property
    def values(self) -> tuple[Any, ...]:
        """Return its values, in the order of its fields."""
        return tuple(self.__dict__.values())

    def replaced(self, **changes: Any) -> Self:
        """Return the same record with other values in some fields."""
        return type(self)(**{**self.__dict__, **changes})

    def __setattr__(self, name: str, value: object) -> NoReturn:
        raise AttributeError(f"{type(self).__name__} is frozen")

    def __delattr__(self, name: str) -> NoReturn:
        raise AttributeError(f"{type(self).__name__} is frozen")

    def __eq__(self, other: object) -> bool:
        return type(other) is type(self) and self.__dict__ == other.__dict__

    def __hash__(self) -> int:
        return hash(tuple(self.__dict__.values()))

    def __repr__(self) -> str:
        return f"{type(self).__name__}({', '.join(f'{name}={value!r}' for name, value in self.__dict__.items())})"
