"""Tables in CSV: boards, flaws and parts in, surveys in, the cut list out."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Callable, Iterable, Iterator, Sequence
from pathlib import Path
from typing import TypeVar

from nullah.core.bench.cutlist import CutListRow, grouped
from nullah.core.breakdown.rough import RoughPart
from nullah.core.breakdown.search import MOST_PARTS
from nullah.core.lengths import Length, LengthError, Marks, Unit, read_length
from nullah.core.limits import (
    CELL_TEXT,
    LONGEST_MM,
    NAME_TEXT,
    SURVEY_PLACES,
    TABLE_BYTES,
    TABLE_LINES,
    one_sentence,
    quoted,
    read_count,
    read_number,
    shown,
)
from nullah.core.piece.part import Needs
from nullah.core.rack.board import write_price
from nullah.core.reader import Reader
from nullah.core.wording.facts import error_words
from nullah.files.reading import ReadingError, read_bytes, read_text

_T = TypeVar("_T")
Row = dict[str, str]


class TableError(ValueError):
    """A table that cannot be read; the message names the file and the line."""

    def __init__(self, message: str) -> None:
        super().__init__(one_sentence(message))


def read_table_text(path: Path) -> str:
    """Return the text of a table, in UTF-8.

    Raises
    ------
    TableError
        If it cannot be read, is too large, or is not text.
    """
    try:
        return read_text(read_bytes(path, TABLE_BYTES))
    except ReadingError as error:
        raise TableError(f"{quoted(path.name, 60)[1:-1]} {error}.") from error


def cells_of(text: str, delimiter: str = ",") -> Iterator[tuple[int, list[str]]]:
    """Return the number of each line of a table in CSV and its cells; empty lines are passed over.

    Raises
    ------
    TableError
        For more lines than `TABLE_LINES`, a cell longer than `CELL_TEXT`, or quotes that never end.
    """
    reader = csv.reader(io.StringIO(text), delimiter=delimiter, strict=True)
    try:
        for number, cells in enumerate(reader, start=1):
            if number > TABLE_LINES:
                raise TableError(f"The table has more than {TABLE_LINES:,} lines.")
            if any(len(cell) > CELL_TEXT for cell in cells):
                raise TableError(f"Line {reader.line_num} has a cell of more than {CELL_TEXT:,} characters.")
            cells = [unguarded(shown(cell.strip())).strip() for cell in cells]
            if any(cells):
                yield reader.line_num, cells
    except csv.Error as error:
        raise TableError(f"Line {reader.line_num} cannot be read as a table: {error}.") from error


def headings_of(path: Path) -> tuple[str, ...]:
    """Return the headings of a CSV file, in lower case.

    Raises
    ------
    TableError
        If it cannot be read.
    """
    return tuple(heading.lower() for heading in next(cells_of(read_table_text(path)), (0, []))[1])


def read_rows(path: Path, columns: Sequence[str]) -> list[tuple[int, Row]]:
    """Read a CSV file with a heading; give (line number, row) pairs with the headings in lower case.

    Raises
    ------
    TableError
        If it cannot be read or lacks one of `columns`.
    """
    lines = cells_of(read_table_text(path))
    try:
        headings = [heading.lower() for heading in next(lines, (0, []))[1]]
        missing = [column for column in columns if column not in headings]
        if missing:
            raise TableError(f"it lacks the column{'s' if len(missing) > 1 else ''} {', '.join(missing)}.")
        empty = dict.fromkeys(headings, "")
        return [(number, {**empty, **dict(zip(headings, cells, strict=False))}) for number, cells in lines]
    except TableError as error:
        raise TableError(f"{quoted(path.name, 60)[1:-1]}: {error}") from error


def each(path: Path, rows: Iterable[tuple[int, Row]], make: Callable[[Row], _T]) -> list[_T]:
    """Make something of each row; what is wrong with one is told with its line."""
    made = []
    for number, row in rows:
        try:
            made.append(make(row))
        except ValueError as error:
            raise TableError(f"{quoted(path.name, 60)[1:-1]}, line {number}: {error_words(error)}") from error
    return made


def size(row: Row, column: str) -> Length:
    """Read a length that must be more than nothing."""
    length = read_length(row[column])
    if length.mm <= 0:
        raise LengthError(f"{column} is {length.as_text()}; it must be more than nothing.")
    return length


def read_parts(path: Path) -> tuple[RoughPart, ...]:
    """Read ``part,quantity,length,width,thickness,needs`` (and ``turn``); sizes are rough, as they stand.

    A part wanted more than once becomes ``name#1``, ``name#2`` … inside; its name stays.

    Raises
    ------
    TableError
    """
    made: list[RoughPart] = []
    seen: set[str] = set()

    def make(row: Row) -> None:
        name = row["part"]
        if not name:
            raise ValueError("the part has no name.")
        check_name(name)
        if name in seen:
            raise ValueError(f"the part {quoted(name)} stands in the list twice.")
        seen.add(name)
        count = quantity(row["quantity"])
        if len(made) + count > MOST_PARTS:
            raise ValueError(f"more than {MOST_PARTS} parts are asked for: a slip of the key?")
        needs = row["needs"].lower() or "clear"
        if needs not in ("clear", "any"):
            raise ValueError(f"needs is {quoted(row['needs'])}; it must be clear or any.")
        turn = row.get("turn", "").lower() in ("yes", "y", "true", "1")
        sizes = (size(row, "length"), size(row, "width"), size(row, "thickness"))
        made.extend(RoughPart(f"{name}#{index + 1}", name, *sizes, Needs(needs), turn) for index in range(count))

    each(path, read_rows(path, ("part", "quantity", "length", "width", "thickness", "needs")), make)
    return tuple(made)


def quantity(text: str) -> int:
    """Read how many."""
    count = read_count(text)
    if not count:
        raise ValueError(f"a quantity of {quoted(text)} cannot be; write 1 or more.")
    return count


def check_name(name: str) -> None:
    """Raise `ValueError` for a name that is longer than `NAME_TEXT`."""
    if len(name) > NAME_TEXT:
        raise ValueError(f"the name {quoted(name)} has {len(name):,} characters; {NAME_TEXT} at most.")


def read_own_boards(text: str, unit: Unit) -> tuple[tuple[str, Length, Length, Length], ...]:
    """Read boards as people type and paste them: name, length, width, thickness, and how many.

    Cells are set apart by tabs, semicolons or commas; a heading may name the columns ``part``,
    ``quantity``, ``length``, ``width``, ``thickness`` in any order. Bare numbers are in `unit`.

    Raises
    ------
    TableError
        With the line that cannot be read.

    Examples
    --------
    >>> [name for name, *_ in read_own_boards("shelf,600,200,18,2", Unit.MM)]
    ['shelf 1', 'shelf 2']
    """
    if len(text) > TABLE_BYTES:
        raise TableError("That list is too long.")
    first = next((line for line in text.splitlines() if line.strip()), "")
    # The mark that parts a line into four cells at least: names may hold the others.
    mark = next((mark for mark in "\t;," if first.count(mark) >= 3), ",")
    columns = ["part", "length", "width", "thickness", "quantity"]
    found: list[tuple[str, Length, Length, Length]] = []
    for number, words in cells_of(text, mark):
        if not found and {"length", "width", "thickness"} <= {word.lower() for word in words}:
            columns = [word.lower() for word in words]
            continue
        row = dict(zip(columns, words, strict=False))
        try:
            sizes = [read_length(row.get(name, ""), unit) for name in ("length", "width", "thickness")]
            if any(size.mm <= 0 for size in sizes):
                raise ValueError("each size must be more than nothing.")
            count = quantity(row.get("quantity") or "1")
            check_name(row.get("part", ""))
        except ValueError as error:
            raise TableError(f"Line {number}, {quoted('  '.join(words))}: {error_words(error)}") from error
        name = row.get("part") or "board"
        if len(found) + count > MOST_PARTS:
            raise TableError(f"More than {MOST_PARTS} boards are asked for: a slip of the key?")
        names = [name] if count == 1 else [f"{name} {index + 1}" for index in range(count)]
        found += [(each, sizes[0], sizes[1], sizes[2]) for each in names]
    if not found:
        raise TableError("There is no board in that list. Write a line as: shelf, 600, 200, 18.")
    return tuple(found)


def read_survey_points(path: Path) -> list[tuple[float, float, float, float]]:
    """Read ``x,y,top,bottom`` in mm.

    Raises
    ------
    TableError
    """

    def make(row: Row) -> tuple[float, float, float, float]:
        x, y, top, bottom = (read_number(row[name]) for name in ("x", "y", "top", "bottom"))
        if x is None or y is None or top is None or bottom is None:
            raise ValueError("x, y, top and bottom must be numbers in mm.")
        if max(abs(each) for each in (x, y, top, bottom)) > LONGEST_MM:
            raise ValueError(f"a place more than {LONGEST_MM // 1000} m off is on no board.")
        return x, y, top, bottom

    rows = read_rows(path, ("x", "y", "top", "bottom"))
    if len(rows) > SURVEY_PLACES:
        raise TableError(f"{quoted(path.name, 60)[1:-1]} has more than {SURVEY_PLACES:,} places.")
    return each(path, rows, make)


def cut_list_text(rows: Sequence[CutListRow], marks: Marks) -> str:
    """Return the cut list as CSV: exact figures in mm, and as the bench reads them."""
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\n")
    shown = f"{marks.style.name}, to the mark"
    writer.writerow(
        [
            "number",
            "part",
            "length_mm",
            "width_mm",
            "thickness_mm",
            "cut_length_mm",
            "rough_length_mm",
            "rough_width_mm",
            "rough_thickness_mm",
            "board",
            "species",
            "wait_for",
            f"finished ({shown})",
            "made_with",
            "quantity_alike",
            "shows",
            "rough_m3",
            "price",
            "rough_pieces",
        ]
    )
    alike = {row.number: group for group in grouped(rows) for row in group.rows}
    for row in rows:
        group = alike[row.number]
        alike_names = Reader(marks).name_together(group.names)
        sizes = (
            row.length,
            row.width,
            row.thickness,
            row.cut_length,
            row.rough_length,
            row.rough_width,
            row.rough_thickness,
        )
        finished = " x ".join(marks.write(size, unit=False) for size in (row.length, row.width, row.thickness))
        writer.writerow(
            [
                row.number,
                plain(row.part),
                *(f"{float(size):g}" for size in sizes),
                plain(row.board),
                plain(row.species),
                row.waits,
                finished,
                plain(alike_names),
                group.quantity,
                ", ".join(row.shows),
                f"{row.rough_volume / 1e9:.6f}",
                write_price(row.price),
                row.pieces,
            ]
        )
    return stream.getvalue()


def plain(text: str) -> str:
    """Return a name as a cell that no spreadsheet takes for a formula; `unguarded` takes the sign off again.

    Examples
    --------
    >>> plain("=1+1"), plain("shelf"), unguarded(plain("'=1+1"))
    ("'=1+1", 'shelf', "'=1+1")
    """
    return f"'{text}" if _FORMULA.match(text) else text


def unguarded(cell: str) -> str:
    """Return a cell without the sign that keeps it from being taken for a formula."""
    return cell[1:] if cell.startswith("'") and _FORMULA.match(cell) else cell


# What a spreadsheet takes for a formula, with any guards before it.
_FORMULA = re.compile(r"'*\s*[=+\-@\t\r＝＋－＠]")
