"""A card in words: what desk and paper show."""

from __future__ import annotations

from nullah.core.card import Card, Remark, Setting, Severity
from nullah.core.fixes import Fix
from nullah.core.named_tuple import NamedTuple
from nullah.core.reader import Reader
from nullah.core.refs import Ref
from nullah.core.wording.facts import fact_words
from nullah.core.wording.fixes import fix_words


class WordedRemark(NamedTuple):
    """A sentence under *Mind*, on the desk and as printed, with the ways out and what their buttons say."""

    text: str
    printed: str
    weight: Severity
    fixes: tuple[tuple[str, Fix], ...]
    ref: Ref | None


class Headings(NamedTuple):
    """What stands over the parts of a card."""

    set: str
    mark: str
    mind: str
    why: str


class WordedCard(NamedTuple):
    """All that a card says."""

    title: str
    set: tuple[Setting, ...]
    mark: tuple[str, ...]
    mind: tuple[WordedRemark, ...]
    why: tuple[str, ...]
    headings: Headings = Headings("", "", "", "")


def worded(card: Card, reader: Reader) -> WordedCard:
    """Return a card in words."""
    mind = tuple(_remark(each, reader) for each in card.mind)
    headings = Headings(reader.text("Set"), reader.text("Mark"), reader.text("Mind"), reader.text("Why"))
    return WordedCard(card.title, card.set, card.mark, mind, card.why, headings)


def _remark(remark: Remark, reader: Reader) -> WordedRemark:
    text = fact_words(remark.fact, reader)
    # On paper no color says it.
    failing = remark.weight is Severity.FAILURE
    printed = reader.text("Will not work: {remark}", remark=text) if failing else text
    fixes = tuple((fix_words(fix, reader), fix) for fix in remark.fixes)
    return WordedRemark(text, printed, remark.weight, fixes, remark.ref)
