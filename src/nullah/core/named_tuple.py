"""Named tuples whose classes are quickly made."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from inspect import Signature, get_annotations, signature
from typing import TYPE_CHECKING, Any, Self

if TYPE_CHECKING:
    from typing import NamedTuple as NamedTuple
else:
    from collections import _tuplegetter

    class _Kind(type):
        """Makes the fields of a class that is written directly below `NamedTuple` out of its annotations."""

        def __new__(cls, name: str, bases: tuple[type, ...], body: dict[str, Any]) -> _Kind:
            body.setdefault("__slots__", ())
            made = super().__new__(cls, name, bases, body)
            if bases != (tuple,) and not hasattr(bases[0], "_fields"):
                fields = tuple(get_annotations(made))
                made._field_defaults = {field: body[field] for field in fields if field in body}
                made._fields = made.__match_args__ = fields
                for place, field in enumerate(fields):
                    setattr(made, field, _tuplegetter(place, None))
            return made

        @property
        def __signature__(cls) -> Signature:
            """Return what is given to make a tuple."""
            _, *given = signature(_maker(cls._fields, cls._field_defaults)).parameters.values()
            return Signature(given)

    class NamedTuple(tuple, metaclass=_Kind):
        """A tuple whose places have names: to all who use it, the same as `typing.NamedTuple`.

        That one compiles what makes a tuple, and looks through the types of its fields, where its class is written. A
        start reads two hundred such classes and makes tuples of a tenth of them, so here it is compiled with the first
        tuple that is made; from then on it is the same code.

        Examples
        --------
        >>> class Spot(NamedTuple):
        ...     x: float
        ...     y: float = 0.0
        >>> Spot(3.0), Spot(y=4.0, x=3.0)._replace(x=5.0)
        (Spot(x=3.0, y=0.0), Spot(x=5.0, y=4.0))
        """

        def __new__(cls, *values: Any, **named: Any) -> Self:
            """Make the first tuple of a kind; what it compiles for that makes the others."""
            cls.__new__ = staticmethod(_maker(cls._fields, cls._field_defaults))
            return cls.__new__(cls, *values, **named)

        @classmethod
        def _make(cls, values: Iterable[Any]) -> Self:
            made = tuple.__new__(cls, values)
            if len(made) != len(cls._fields):
                raise TypeError(f"{cls.__name__} takes {', '.join(cls._fields)}")
            return made

        def _replace(self, /, **changes: Any) -> Self:
            made = self._make(map(changes.pop, self._fields, self))
            if changes:
                raise TypeError(f"{type(self).__name__} takes {', '.join(self._fields)}")
            return made

        def _asdict(self) -> dict[str, Any]:
            return dict(zip(self._fields, self, strict=True))

        def __getnewargs__(self) -> tuple[Any, ...]:
            return tuple(self)

        def __repr__(self) -> str:
            fields = ", ".join(f"{name}={value!r}" for name, value in self._asdict().items())
            return f"{type(self).__name__}({fields})"

    def _maker(fields: tuple[str, ...], defaults: dict[str, Any]) -> Callable[..., Any]:
        """Return what makes a tuple, as the standard library writes it."""
        code = f"lambda _kind, {', '.join(fields)}: _tuple(_kind, ({''.join(field + ', ' for field in fields)}))"
        maker = eval(code, {"_tuple": tuple.__new__, "__builtins__": {}})
        maker.__defaults__ = tuple(defaults.values())
        return maker
