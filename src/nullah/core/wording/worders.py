"""What says facts: every room has its own, and a fact is looked up by its kind."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from nullah.core.reader import Reader, sentence

Worder = Callable[[Any, Reader], str]
Worders = dict[type, Worder]


def worders(*said: tuple[tuple[type, ...], Worder]) -> Worders:
    """Return which function says which kind of fact.

    Examples
    --------
    >>> say = worders(((int, bool), lambda fact, reader: f"{fact} of them"))
    >>> say[int](3, Reader())
    '3 of them'
    """
    return {kind: worder for kinds, worder in said for kind in kinds}


def as_sentence(worder: Worder) -> Worder:
    """Return what says a fact in a sentence that may begin with what a part is called."""
    return lambda fact, reader: sentence(worder(fact, reader))
