"""Labels of the window and of the command line, in the terms of whoever reads them.

What stands on buttons, in menus and in answers belongs to the process and to no piece, so its catalogue does too:
`speak` takes it before the first label is made. What is said of a piece goes through `core.wording` and its `Reader`.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import TypeVar

from nullah.core.catalogue import AMERICAN, Catalogue

Value = TypeVar("Value")

_catalogue = AMERICAN


def speak(catalogue: Catalogue) -> None:
    """Make all labels from here on in the terms of a catalogue; those that are made already stay as they are."""
    global _catalogue
    _catalogue = catalogue


def locale() -> str:
    """Return the locale whose terms are in use, such as ``en_GB``."""
    return _catalogue.locale


def tr(message: str, **values: object) -> str:
    """Return a label in the terms in use, its places filled.

    Examples
    --------
    >>> tr("Open {name}", name="chest.nullah")
    'Open chest.nullah'
    """
    said = _catalogue.text(message)
    return said.format_map(values) if values else said


def tr_count(number: int, one: str, many: str, **values: object) -> str:
    """Return the label for a number, `n` in it; `one` for 1, else `many`, where the catalogue knows no better.

    Examples
    --------
    >>> tr_count(1, "{n} page", "{n} pages"), tr_count(3, "{n} page", "{n} pages")
    ('1 page', '3 pages')
    """
    return _catalogue.count(number, one, many).format_map({"n": number, **values})


def tr_pairs(options: Iterable[tuple[Value, str]]) -> list[tuple[Value, str]]:
    """Return pairs of a value and its label with the labels in the terms in use."""
    return [(value, tr(label)) for value, label in options]
