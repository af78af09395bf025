"""A language for tests: ours in other letters, so that what was not looked up stands bare."""

import re
import string
from functools import cache
from pathlib import Path

from babel.messages.pofile import read_po

from nullah.core.catalogue import Catalogue, Name, Phrase

#: What no catalogue says otherwise: names that somebody gave, units and keys, and what joins a list.
GIVEN = re.compile(
    r"\b(Ford|yard|Seed cabinet|Nullah|mm|cm|kg|ml|lb|bd ft|sq ft|and|or|Ctrl|Shift|Letter|PDF|CSV)\b"
    r"|\d in\b|cm³|\bNo\. (?=\d)"
)
#: Other letters in the place of ours.
LETTERS = str.maketrans(string.ascii_letters, "".join(map(chr, (*range(0x430, 0x44A), *range(0x410, 0x42A)))))


#: All that was looked up, as it stands in the source.
ASKED = set()


class Lettered(Catalogue):
    """Says everything as it stands, in other letters."""

    def text(self, message):
        if not isinstance(message, Name | Phrase):
            ASKED.add(message)
        said = Catalogue.text(self, message)
        return said if isinstance(message, Name | Phrase) else lettered(said)

    def count(self, number, one, many):
        ASKED.update((one, many))
        return lettered(Catalogue.count(self, number, one, many))


def lettered(message):
    """Return a message in other letters, its places left."""
    return re.sub(
        r"\{[^}]*\}|[^{]+", lambda part: part[0] if part[0][0] == "{" else part[0].translate(LETTERS), message
    )


def bare(text):
    """Return the words of a text that were not looked up."""
    return " ".join(word for word in re.findall(r"[A-Za-z]{2,}", GIVEN.sub("", text)))


@cache
def known():
    """Return every message of the template."""
    with (Path(__file__).parents[1] / "src/nullah/terms/messages.pot").open("rb") as stream:
        return {text for each in read_po(stream) for text in ((each.id,) if isinstance(each.id, str) else each.id)}


def not_in_the_catalogue():
    """Return what was looked up and no translator is shown; units are the same in every language."""
    return {each for each in ASKED - known() - {"mm", "cm"} if re.search(r"[A-Za-z]", each)}
