"""Things as a key, told apart by what they are and not by what they are equal to: that would take too long."""

from __future__ import annotations

from typing import Generic, TypeVar

T = TypeVar("T")


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
