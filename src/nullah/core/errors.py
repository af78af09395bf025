"""Errors that carry what is wrong as a fact: `core.wording` says it where a person reads it."""

from __future__ import annotations

from enum import Enum

from nullah.core.frozen_record import FrozenRecord

#: What `wording` can say: a record with its lengths, counts and ids; a member of an enumeration where it has none;
#: a sentence from a room that still writes its own (`tests/sentences_left.txt`).
Fact = FrozenRecord | Enum | str


class FactError(ValueError):
    """Something that a user asked for, and that cannot be; `fact` is why."""

    def __init__(self, fact: Fact) -> None:
        super().__init__(fact)
        self.fact = fact
