"""Catalogues of messages: the terms and the language of a reader, loaded elsewhere and handed in.

American English is the source, so the usual catalogue is empty: what it does not hold is said as it stands.
"""

from __future__ import annotations

import gettext
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from nullah.core.identity import kept_by_value


def N_(message: str) -> str:
    """Return a message as it is; marks it for the catalogue where it is looked up later."""
    return message


class Name(str):
    """What somebody called a thing: no catalogue says it otherwise."""


class Phrase(str):
    """A message whose places are filled, with the message and what fills it kept for the catalogue.

    Examples
    --------
    >>> title = Phrase("depth of {what}", what="the dado")
    >>> title, title.message
    ('depth of the dado', 'depth of {what}')
    """

    message: str
    values: Mapping[str, str]

    def __new__(cls, message: str, **values: str) -> Phrase:
        """Return the message filled."""
        made = super().__new__(cls, message.format_map(values))
        made.message, made.values = message, values
        return made


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
        """Return a message, or a phrase with all that fills it, in the terms of this catalogue."""
        if isinstance(message, Name):
            return message
        if isinstance(message, Phrase):
            return self.text(message.message).format_map(
                {name: self.text(each) for name, each in message.values.items()}
            )
        found = self.messages.get(message, ())
        return found[0] if found and found[0] else message

    def count(self, number: int, one: str, many: str) -> str:
        """Return the message for a number: `one` or `many`, or the form that the language has for it."""
        found = self.messages.get(one, ())
        index = _plural(self.plural)(number)
        if index < len(found) and found[index]:
            return found[index]
        return one if number == 1 else many


@kept_by_value(8)
def _plural(expression: str) -> Callable[[int], int]:
    found: Callable[[int], int] = gettext.c2py(expression)
    return found


AMERICAN = Catalogue()
