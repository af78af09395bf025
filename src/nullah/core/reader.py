"""Who a sentence is written for: the units and terms in use, and what the parts and quantities are called."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import groupby, takewhile
from typing import Literal

from nullah.core.catalogue import N_, Catalogue
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import IdentityKey, kept_by_value
from nullah.core.lengths import Direction, Entry, Length, Marks

Style = Literal["standard", "or", "unit"]


#: How a list goes on, and how two and how many of each style end (Unicode CLDR, list patterns).
_ON = N_("{first}, {last}")
_ENDS: dict[Style, tuple[str, str]] = {
    "standard": (N_("{first} and {last}"), N_("{first}, and {last}")),
    "or": (N_("{first} or {last}"), N_("{first}, or {last}")),
    "unit": (_ON, _ON),
}


@kept_by_value(2048)
def _listed(words: tuple[str, ...], style: Style, catalogue: IdentityKey[Catalogue]) -> str:
    if len(words) < 2:
        return "".join(words)
    text = catalogue.carried.text
    said, on, end = words[0], text(_ON), text(_ENDS[style][len(words) > 2])
    for each in words[1:-1]:
        said = on.format(first=said, last=each)
    return end.format(first=said, last=words[-1])


@kept_by_value(2048)
def _names_together(catalogue: IdentityKey[Catalogue], names: tuple[str, ...]) -> str:
    return Reader(Marks(catalogue=catalogue.carried))._together(names)


_NO_NAMES: Mapping[str, str] = {}


class Reader(FrozenRecord):
    """Whoever reads. `parts` and `titles` are the names of parts and the titles of quantities, by id.

    Examples
    --------
    >>> Reader().listed(["side", "top", "back"]), Reader().listed(["side", "top"], "or")
    ('side, top, and back', 'side or top')
    """

    marks: Marks = Marks()
    parts: Mapping[str, str] = _NO_NAMES
    titles: Mapping[str, str] = _NO_NAMES

    def text(self, message: str, **values: object) -> str:
        """Return a message in the reader's terms, its places filled."""
        said = self.marks.catalogue.text(message)
        return said.format_map(values) if values else said

    def count(self, number: int, one: str, many: str, **values: object) -> str:
        """Return the message for a number, `n` in it; `one` for 1, else `many`, where the catalogue knows no better."""
        return self.marks.catalogue.count(number, one, many).format_map({"n": number, **values})

    def listed(self, words: Iterable[str], style: Style = "standard", most: int = 0) -> str:
        """Return words as the reader's language lists them; those beyond the first `most` only counted (0: all)."""
        said = list(words)
        if most and len(said) > most:
            left = len(said) - most
            said = [*said[:most], self.count(left, "{n} more", "{n} more")]
        return _listed(tuple(said), style, IdentityKey(self.marks.catalogue))

    def part(self, part: str) -> str:
        """Return what a part is called."""
        return self.parts.get(part, part)

    def the(self, part: str) -> str:
        """Return what a part is called within a sentence; what is numbered needs no article.

        Examples
        --------
        >>> reader = Reader(parts={"left": "left side", "divider2": "divider 2"})
        >>> reader.the("left"), reader.the("divider2")
        ('the left side', 'divider 2')
        """
        return self.with_article(self.part(part))

    def with_article(self, name: str) -> str:
        """Return a name of a part within a sentence."""
        return name if _numbered(name)[1] else self.text("the {name}", name=name)

    def together(self, parts: Iterable[str]) -> str:
        """Return what several parts are called together: every one of them, those that are numbered in one.

        Examples
        --------
        >>> names = {"a": "front", "b": "slip 1", "c": "slip 2", "d": "back", "e": "left end"}
        >>> Reader(parts=names).together(names)
        'front, slip 1 and 2, back, and left end'
        >>> Reader().together(["divider 1 left rail", "divider 1 right rail", "divider 2 left rail"])
        'left rail of divider 1 and 2 and divider 1 right rail'
        >>> Reader().together(["drawer 1 front", "drawer 2 front", "drawer 1 back", "drawer 2 back"])
        'front and back of drawer 1 and 2'
        """
        return _names_together(IdentityKey(self.marks.catalogue), tuple(map(self.part, parts)))

    def _together(self, names: Iterable[str]) -> str:
        kinds: dict[tuple[str, str], list[str]] = {}
        for name in names:
            stem, number, rest = _numbered(name)
            kinds.setdefault((stem, rest) if number else (name, ""), []).append(name)
        owners = {(stem, tuple(_numbered(name)[1] for name in alike)) for (stem, _), alike in kinds.items()}
        if len(owners) == 1 and len(kinds) > 1 and all(rest for _, rest in kinds):
            ((stem, numbers),) = owners
            rests = self.listed([rest for _, rest in kinds], most=8)
            of = self.name_together([f"{stem} {number}" for number in numbers])
            return self.text("{rest} of {names}", rest=rests, names=of)
        return self.listed([self._of_one_kind(*kind, alike) for kind, alike in kinds.items()], most=8)

    def _of_one_kind(self, stem: str, rest: str, names: Sequence[str]) -> str:
        """Return several parts of things that are numbered, such as ``front rail of divider 1 to 4``."""
        if not rest or len(names) == 1:
            return self.name_together(names)
        owners = [f"{stem} {_numbered(name)[1]}" for name in names]
        return self.text("{rest} of {names}", rest=rest, names=self.name_together(owners))

    def name_together(self, names: Sequence[str]) -> str:
        """Return several names in one: numbered ones by their numbers, those that follow each other by first and last.

        Examples
        --------
        >>> Reader().name_together(["divider 1", "divider 2", "divider 3"])
        'divider 1 to 3'
        >>> Reader().name_together(["button 5", "button 1", "button 2", "button 3", "button 7"])
        'button 1 to 3, 5, and 7'
        >>> Reader().name_together(["left side", "right side"])
        'left side and right side'
        """
        stems = {name.rpartition(" ")[0] for name in names}
        ends = [name.rpartition(" ")[2] for name in names]
        if len(names) > 1 and len(stems) == 1 and "" not in stems and all(end.isdecimal() for end in ends):
            numbers = self.listed(self._runs(sorted({int(end) for end in ends})))
            return self.text("{name} {numbers}", name=stems.pop(), numbers=numbers)
        if len(names) > 3:
            return self.count(len(names) - 1, "{first} and {n} alike", "{first} and {n} alike", first=names[0])
        return self.listed(names)

    def _runs(self, numbers: Sequence[int]) -> Iterator[str]:
        """Yield numbers, of three or more that follow each other only the first and the last."""
        for _, run in groupby(enumerate(numbers), key=lambda pair: pair[1] - pair[0]):
            found = [number for _, number in run]
            if len(found) < 3:
                yield from map(str, found)
            else:
                yield self.text("{first} to {last}", first=found[0], last=found[-1])

    def name_of_kind(self, names: Sequence[str]) -> str:
        """Return what several equal parts are together: how all their names begin and end, and how many they are.

        Examples
        --------
        >>> Reader().name_of_kind(["drawer 1 left side", "drawer 2 left side", "drawer 1 right side"])
        'drawer side × 3'
        >>> Reader().name_of_kind(["cleat of the rack", "cleat on the wall"])
        'cleat × 2'
        >>> Reader().name_of_kind(["top", "bottom"]), Reader().name_of_kind(["lid"])
        ('top and bottom', 'lid')
        """
        if len(names) < 2:
            return self.name_together(names)
        words = [name.split() for name in names]
        head = _begin_alike(words)
        tail = _begin_alike([each[len(head) :][::-1] for each in words])
        common = [*head, *reversed(tail)]
        while common and common[-1].isdigit():
            common.pop()
        return f"{' '.join(common)} × {len(names)}" if common else self.name_together(names)

    def left_over(self, long: bool, wide: bool, thick: bool) -> str:
        """Return how a part is left that is cut to some of its sizes later.

        Examples
        --------
        >>> Reader().left_over(True, True, False)
        'long and wide'
        """
        ways = ((long, N_("long")), (wide, N_("wide")), (thick, N_("thick")))
        return self.listed([self.text(way) for is_so, way in ways if is_so])

    def title(self, quantity: str) -> str:
        """Return what a quantity is called."""
        return self.text(self.titles.get(quantity, quantity))

    def length(self, length: Length, direction: Direction = Direction.NEAREST) -> str:
        """Return a length to the reader's mark."""
        return self.marks.write(length, direction)

    def typed(self, length: Length) -> str:
        """Return a length as it was typed; one that nobody typed as a small difference."""
        return length.text if isinstance(length, Entry) else self.fine(length)

    def fine(self, length: Length) -> str:
        """Return a small difference, finer than the mark."""
        return self.marks.write_fine(length)

    def size(self, *sizes: Length) -> str:
        """Return sizes as ``340.0 × 12.0 × 9.0 mm``, finer than the mark."""
        return " × ".join(self.marks.write_fine(size, unit=size is sizes[-1]) for size in sizes)


def _begin_alike(rows: Sequence[Sequence[str]]) -> list[str]:
    """Return the words with which all rows of words begin."""
    return [words[0] for words in takewhile(lambda words: len(set(words)) == 1, zip(*rows, strict=False))]


def _numbered(name: str) -> tuple[str, str, str]:
    """Return what a name says before its number, the number, and what it says after; no number where it has none."""
    found = re.fullmatch(r"(.+?) (\d+)(?: (.+))?", name)
    return (found[1], found[2], found[3] or "") if found else (name, "", "")


def sentence(words: str) -> str:
    """Return words with their first letter a capital, the rest as it is.

    Examples
    --------
    >>> sentence("the top of case B")
    'The top of case B'
    """
    return words[:1].upper() + words[1:]
