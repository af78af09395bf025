"""Catalogues of messages: the terms and the language of a reader, loaded elsewhere and handed in.

American English is the source, so the usual catalogue is empty: what it does not hold is said as it stands.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping

from nullah.core.frozen_record import FrozenRecord
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


_NO_MESSAGES: Mapping[str, tuple[str, ...]] = {}


class Catalogue(FrozenRecord):
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
    messages: Mapping[str, tuple[str, ...]] = _NO_MESSAGES
    plural: str = "(n != 1)"

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Catalogue) and (type(other), other.locale) == (type(self), self.locale)

    def __hash__(self) -> int:
        return hash(self.locale)

    def __repr__(self) -> str:
        return f"Catalogue(locale={self.locale!r})"

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
        found = self.messages.get(one)
        form = _plural(self.plural)(number) if found else 0
        if found and form < len(found) and found[form]:
            return found[form]
        return one if number == 1 else many


@kept_by_value(8)
def _plural(expression: str) -> Callable[[int], int]:
    # Not loaded at a start: American messages are all as they stand.
    import gettext

    found: Callable[[int], int] = gettext.c2py(expression)
    return found


AMERICAN = Catalogue()
