"""Errors that carry what is wrong as a fact: `core.wording` says it where a person reads it."""

from __future__ import annotations

from nullah.core.reader import Fact


class FactError(ValueError):
    """Something that a user asked for, and that cannot be; `fact` is why."""

    def __init__(self, fact: Fact) -> None:
        super().__init__(fact)
        self.fact = fact
