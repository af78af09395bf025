"""A card in words: what desk and paper show."""

from __future__ import annotations

from typing import NamedTuple

from nullah.core.card import Card, Setting, Severity
from nullah.core.fixes import Fix
from nullah.core.reader import Reader
from nullah.core.refs import Ref
from nullah.core.wording.facts import fact_words
from nullah.core.wording.fixes import fix_words


class WordedRemark(NamedTuple):
    """A sentence under *Mind*, with the ways out and what their buttons say."""

    text: str
    weight: Severity
    fixes: tuple[tuple[str, Fix], ...]
    ref: Ref | None


class WordedCard(NamedTuple):
    """All that a card says."""

    title: str
    set: tuple[Setting, ...]
    mark: tuple[str, ...]
    mind: tuple[WordedRemark, ...]
    why: tuple[str, ...]


def worded(card: Card, reader: Reader) -> WordedCard:
    """Return a card in words."""
    return WordedCard(
        card.title,
        card.set,
        card.mark,
        tuple(
            WordedRemark(
                fact_words(each.fact, reader),
                each.weight,
                tuple((fix_words(fix, reader), fix) for fix in each.fixes),
                each.ref,
            )
            for each in card.mind
        ),
        card.why,
    )
