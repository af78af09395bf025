"""Values whose hash is worked out once: they are keys of much that is kept, and hold many fractions."""

from __future__ import annotations


class KeptHash:
    """What a frozen dataclass inherits that is often a key; it takes its `__hash__` by name, lest it is given another.

    Examples
    --------
    >>> from dataclasses import dataclass
    >>> @dataclass(frozen=True, slots=True)
    ... class Size(KeptHash):
    ...     length: float
    ...     width: float
    ...     __hash__ = KeptHash.__hash__
    >>> hash(Size(2, 3)) == hash(Size(2, 3)), hash(Size(2, 3)) == hash(Size(3, 2))
    (True, False)
    """

    __slots__ = ("_hash",)

    _hash: int
    __match_args__: tuple[str, ...] = ()

    def __hash__(self) -> int:
        try:
            return self._hash
        except AttributeError:
            found = hash(tuple(getattr(self, name) for name in self.__match_args__))
            object.__setattr__(self, "_hash", found)
            return found
