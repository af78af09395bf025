"""What the program takes in at most, stated once: `docs/file-format.md` lists these, every reader keeps to them.

The figures are far beyond any piece of furniture, and so small that anything at all is read or refused within a second.
"""

from __future__ import annotations

import re
import unicodedata
from datetime import date, datetime

from nullah.core.errors import FactError
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord

#: The finest and the coarsest mark of a rule, mm.
MARK_LEAST, MARK_MOST = Fraction(1, 100), 10
#: Longest length in mm: nothing of a piece, and no board, is 50 m long.
LONGEST_MM = 50_000
#: Most characters of a length, slope, weight or count as it is typed.
LENGTH_TEXT = 100
#: Most digits in a row of one number, before or behind its point.
DIGITS = 12
#: Most characters of a name, a title or a colour.
NAME_TEXT = 200
#: Most characters of a note.
NOTE_TEXT = 10_000
#: Most characters of one cell of a table.
CELL_TEXT = 10_000
#: Most lines of a table: a survey of so many places, and its heading.
TABLE_LINES = 40_001
#: Most bytes of a table.
TABLE_BYTES = 5_000_000
#: Most bytes of a project file, and most values (texts, numbers, names of fields) in it.
PROJECT_BYTES, PROJECT_VALUES = 5_000_000, 200_000
#: Most bytes of what the program keeps for itself: records, practice, where kept work belongs.
STATE_BYTES = 5_000_000
#: Deepest nesting of a project file's lists and objects.
NESTING = 40
#: Most boards on a rack, boards of one's own in a piece, entries of a day book.
BOARDS, OWN_BOARDS, BOOK_ENTRIES = 500, 300, 5000
#: Most flaws, and most readings of any kind, of one board.
FLAWS, READINGS = 200, 500
#: Most flaws of all boards together in one table.
FLAWS_IN_ALL = 10_000
#: Most places of a survey.
SURVEY_PLACES = 40_000
#: Most of anything else that a list of a project holds.
OTHERS = 5000
#: Largest count of a quantity, such as tails or shelves.
COUNT = 200
#: Heaviest load, kg.
WEIGHT_KG = 1000
#: Most clamps and people that a glue-up can reckon with.
CLAMPS = 999
PEOPLE = 20
#: First and last year of a day in a piece.
YEARS = (1900, 2200)
#: Most characters of a refusal.
SENTENCE = 300


class NotADay(FrozenRecord):
    """Text that is no day."""

    text: str


class NotATime(FrozenRecord):
    """Text that is no time."""

    text: str


class YearOutside(FrozenRecord):
    """A year outside `YEARS`."""

    year: int


DayFact = NotADay | NotATime | YearOutside


class DayError(FactError):
    """A day or a time that is none, or lies too far off."""


def shown(text: str) -> str:
    r"""Return text with whatever cannot be printed as a visible sign: control characters, lone surrogates.

    Examples
    --------
    >>> shown("left\tside\x00"), shown("a\ud800")
    ('left side␀', 'a�')
    """
    if text.isprintable():
        return text
    return "".join(letter if letter.isprintable() else _sign(letter) for letter in text)


def _sign(letter: str) -> str:
    if letter.isspace():
        return " "
    if letter < " ":
        return chr(0x2400 + ord(letter))
    return "" if unicodedata.category(letter) == "Cf" else "\ufffd"


def quoted(text: str, most: int = 40) -> str:
    """Return text as a sentence may quote it: on one line, shortened in the middle to `most` characters.

    Parameters
    ----------
    text : str
        Whatever somebody typed.
    most : int
        Characters.

    Examples
    --------
    >>> quoted("  1 1/2 ells "), quoted("9" * 1000, most=9)
    ('“1 1/2 ells”', '“9999…9999”')
    """
    line = shown(" ".join(text[: 10 * most].split()) if len(text) > 20 * most else " ".join(text.split()))
    if len(text) > 20 * most:
        line += text[-most:]
    if len(line) > most:
        half = (most - 1) // 2
        line = f"{line[:half]}…{shown(line[-half:])}"
    return f"“{line}”"


def one_sentence(text: str) -> str:
    """Return a refusal on one line and of at most `SENTENCE` characters, whatever it quotes."""
    line = shown(" ".join(text[: 4 * SENTENCE].split()))
    return line if len(line) <= SENTENCE else f"{line[: SENTENCE - 2].rstrip()} …"


_COUNT = re.compile(rf"\+?[0-9]{{1,{DIGITS}}}")


def read_count(text: str) -> int | None:
    """Return the whole number that text holds, 0 or more; None where it is none.

    Examples
    --------
    >>> read_count(" 4 "), read_count("²"), read_count("1e3"), read_count("9" * 5000)
    (4, None, None, None)
    """
    return int(text) if len(text) <= LENGTH_TEXT and _COUNT.fullmatch(text.strip()) else None


def read_number(text: str) -> float | None:
    """Return the number that text holds, with a point or a comma; None where it is none, or not finite.

    Examples
    --------
    >>> read_number("8,5"), read_number("1e9999"), read_number("nan"), read_number("x")
    (8.5, None, None, None)
    """
    try:
        number = float(text.strip().replace(",", ".")) if len(text) <= LENGTH_TEXT else float("nan")
    except ValueError:
        return None
    return number if abs(number) < float("inf") else None


def read_day(text: str) -> date:
    """Return the day that text names, such as ``2026-12-05``.

    Raises
    ------
    DayError
        For what is no day, or one outside `YEARS`.
    """
    if len(text) != len("2026-12-05"):
        raise DayError(NotADay(text))
    try:
        return read_time(text).date()
    except DayError as error:
        raise (DayError(NotADay(text)) if isinstance(error.fact, NotATime) else error) from None


def read_time(text: str) -> datetime:
    """Return the time that text names, such as ``2026-12-05T18:30``, by the shop's own clock: a zone is left out.

    Raises
    ------
    DayError
        For what is no time, or one outside `YEARS`.

    Examples
    --------
    >>> read_time("2026-12-05T18:30:00+02:00")
    datetime.datetime(2026, 12, 5, 18, 30)
    """
    try:
        found = datetime.fromisoformat(text).replace(tzinfo=None)
    except ValueError:
        raise DayError(NotATime(text)) from None
    if not YEARS[0] <= found.year <= YEARS[1]:
        raise DayError(YearOutside(found.year))
    return found
