"""A language for tests: ours in other letters, so that what was not looked up stands bare."""

import re
import string
from dataclasses import dataclass

from nullah.core.catalogue import Catalogue, Name, Phrase

#: What no catalogue says otherwise: names that somebody gave, units and keys, and what joins a list.
GIVEN = re.compile(
    r"\b(Ford|yard|Seed cabinet|Nullah|mm|cm|kg|ml|lb|bd ft|sq ft|and|or|Ctrl|Shift|Letter|PDF|CSV)\b"
    r"|\d in\b|cm³|\bNo\. (?=\d)"
)
#: Other letters in the place of ours.
LETTERS = str.maketrans(string.ascii_letters, "".join(map(chr, (*range(0x430, 0x44A), *range(0x410, 0x42A)))))


@dataclass(frozen=True)
class Lettered(Catalogue):
    """Says everything as it stands, in other letters."""

    def text(self, message):
        said = Catalogue.text(self, message)
        return said if isinstance(message, Name | Phrase) else lettered(said)

    def count(self, number, one, many):
        return lettered(Catalogue.count(self, number, one, many))


def lettered(message):
    """Return a message in other letters, its places left."""
    return re.sub(
        r"\{[^}]*\}|[^{]+", lambda part: part[0] if part[0][0] == "{" else part[0].translate(LETTERS), message
    )


def bare(text):
    """Return the words of a text that were not looked up."""
    return " ".join(word for word in re.findall(r"[A-Za-z]{2,}", GIVEN.sub("", text)))
