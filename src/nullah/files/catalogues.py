"""The catalogues that ship with the application, and which of them a reader's locale asks for."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache
from pathlib import Path

from nullah.core.catalogue import AMERICAN, N_, Catalogue

_TERMS = Path(__file__).parents[1] / "terms"
#: Where English is written and rebates are cut; everywhere else rabbets are.
_BRITISH = dict.fromkeys(("en_AU", "en_IE", "en_IN", "en_NZ", "en_ZA"), "en_GB")
#: The locale of the source, whose catalogue is empty.
USUAL = AMERICAN.locale
#: What every catalogue says of itself, where one of them is chosen.
OWN_NAME = N_("American: rabbet, dado, clamp")


def catalogue_for(environment: Mapping[str, str]) -> Catalogue:
    """Return the catalogue that an environment asks for, as gettext reads it; American where there is none for it.

    Examples
    --------
    >>> catalogue_for({"LANG": "en_GB.UTF-8"}).text("rabbet"), catalogue_for({"LANG": "en_US.UTF-8"}).text("rabbet")
    ('rebate', 'rabbet')
    >>> catalogue_for({"LANGUAGE": "en_NZ:en", "LANG": "de_DE.UTF-8"}).locale
    'en_GB'
    """
    asked = environment.get("LANGUAGE", "").split(":")
    asked += [environment.get(name, "") for name in ("LC_ALL", "LC_MESSAGES", "LANG")]
    first = next((each for each in asked if each), "").partition(".")[0]
    known = locales()
    return load(next((each for each in (_BRITISH.get(first, first), first.partition("_")[0]) if each in known), USUAL))


def locales() -> tuple[str, ...]:
    """Return the locales that there are catalogues for, the usual one first.

    Examples
    --------
    >>> locales()
    ('en_US', 'en_GB')
    """
    return (USUAL, *sorted(path.stem for path in _TERMS.glob("*.po")))


@lru_cache(maxsize=8)
def load(locale: str) -> Catalogue:
    """Return the catalogue of a locale, or the American one where none ships for it."""
    path = _TERMS / f"{locale}.po"
    if not locale.replace("_", "").isalnum() or not path.is_file():
        return AMERICAN
    from babel.messages.pofile import read_po  # only where other terms are asked for

    with path.open("rb") as stream:
        found = read_po(stream, locale=locale)
    messages: dict[str, tuple[str, ...]] = {}
    for each in found:
        name = each.id if isinstance(each.id, str) else each.id[0]
        forms = (each.string,) if isinstance(each.string, str) else tuple(each.string or ())
        if name and any(forms):
            messages[name] = forms
    return Catalogue(locale, messages, found.plural_expr)
