"""Catalogues of messages: the terms and the language of a reader, loaded elsewhere and handed in.

American English is the source, so the usual catalogue is empty: what it does not hold is said as it stands.
"""

from __future__ import annotations

import gettext
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import lru_cache


def N_(message: str) -> str:
    """Return a message as it is; marks it for the catalogue where it is looked up later."""
    return message


@dataclass(frozen=True, slots=True)
class Catalogue:
    """Messages of a locale.

    Parameters
    ----------
    locale : str
        Such as ``en_GB``; two catalogues of the same locale are equal.
    messages : mapping of str to tuple of str
        The forms of each message, one for each plural the language has.
    plural : str
        Which form a number takes, as a catalogue's head writes it: an expression in ``n``.

    Examples
    --------
    >>> british = Catalogue("en_GB", {"rabbet": ("rebate",)})
    >>> british.text("rabbet"), british.text("groove"), british.count(2, "{n} board", "{n} boards")
    ('rebate', 'groove', '{n} boards')
    """

    locale: str = "en_US"
    messages: Mapping[str, tuple[str, ...]] = field(default_factory=dict, compare=False, repr=False)
    plural: str = field(default="(n != 1)", compare=False, repr=False)

    def text(self, message: str) -> str:
        """Return a message in the terms of this catalogue."""
        found = self.messages.get(message, ())
        return found[0] if found and found[0] else message

    def count(self, number: int, one: str, many: str) -> str:
        """Return the message for a number: `one` or `many`, or the form that the language has for it."""
        found = self.messages.get(one, ())
        index = _plural(self.plural)(number)
        if index < len(found) and found[index]:
            return found[index]
        return one if number == 1 else many


@lru_cache(maxsize=8)
def _plural(expression: str) -> Callable[[int], int]:
    found: Callable[[int], int] = gettext.c2py(expression)
    return found


AMERICAN = Catalogue()
