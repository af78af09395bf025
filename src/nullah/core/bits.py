"""Work that is done bit by bit, so that a window can answer in between."""

from __future__ import annotations

from collections.abc import Generator
from typing import TypeVar

T = TypeVar("T")

#: Work that rests after every bit, and returns its result at the end.
Bits = Generator[None, None, T]


def at_once(work: Bits[T]) -> T:
    """Do work that can be done bit by bit in one go, and return its result.

    Examples
    --------
    >>> def total(numbers):
    ...     so_far = 0
    ...     for number in numbers:
    ...         so_far += number
    ...         yield
    ...     return so_far
    >>> at_once(total((1, 2, 3)))
    6
    """
    while True:
        try:
            next(work)
        except StopIteration as end:
            result: T = end.value
            return result
