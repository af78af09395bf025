"""Tables in CSV: boards, flaws and parts in, surveys in, the cut list out."""

from __future__ import annotations

import csv
import io
from collections.abc import Callable, Iterable, Sequence
from pathlib import Path
from typing import TypeVar

from nullah.core.bench.cutlist import CutListRow, grouped
from nullah.core.breakdown.rough import RoughPart
from nullah.core.breakdown.search import MOST_PARTS
from nullah.core.lengths import Length, LengthError, Marks, Unit, read_length
from nullah.core.piece.part import Needs
from nullah.core.rack.board import BoardError, write_price

_T = TypeVar("_T")
Row = dict[str, str]


class TableError(ValueError):
    """A table that cannot be read; the message names the file and the line."""


def read_rows(path: Path, columns: Sequence[str]) -> list[tuple[int, Row]]:
    """Read a CSV file with a heading; give (line number, row) pairs with the headings in lower case.

    Raises
    ------
    TableError
        If it cannot be read or lacks one of `columns`.
    """
    try:
        text = path.read_text(encoding="utf-8-sig")
    except (OSError, UnicodeDecodeError) as error:
        why = getattr(error, "strerror", None) or "it is not text"
        raise TableError(f"{path} cannot be read: {why}.") from error
    reader = csv.DictReader(io.StringIO(text))
    headings = [heading.strip().lower() for heading in reader.fieldnames or []]
    missing = [column for column in columns if column not in headings]
    if missing:
        raise TableError(f"{path.name} lacks the column{'s' if len(missing) > 1 else ''} {', '.join(missing)}.")
    rows = []
    for values in reader:
        row = {(key or "").strip().lower(): _cell(value) for key, value in values.items()}
        if any(row.values()):
            rows.append((reader.line_num, row))
    return rows


def _cell(value: str | list[str] | None) -> str:
    return value.strip() if isinstance(value, str) else ""


def each(path: Path, rows: Iterable[tuple[int, Row]], make: Callable[[Row], _T]) -> list[_T]:
    """Make something of each row; what is wrong with one is told with its line."""
    made = []
    for number, row in rows:
        try:
            made.append(make(row))
        except (LengthError, BoardError, ValueError) as error:
            raise TableError(f"{path.name}, line {number}: {error}") from error
    return made


def size(row: Row, column: str) -> Length:
    """Read a length that must be more than nothing."""
    length = read_length(row[column])
    if length.mm <= 0:
        raise LengthError(f"{column} is {row[column]}; it must be more than nothing.")
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
        if name in seen:
            raise ValueError(f"the part {name} stands in the list twice.")
        seen.add(name)
        count = quantity(row["quantity"])
        if len(made) + count > MOST_PARTS:
            raise ValueError(f"more than {MOST_PARTS} parts are asked for: a slip of the key?")
        needs = row["needs"].lower() or "clear"
        if needs not in ("clear", "any"):
            raise ValueError(f"needs is “{row['needs']}”; it must be clear or any.")
        turn = row.get("turn", "").lower() in ("yes", "y", "true", "1")
        sizes = (size(row, "length"), size(row, "width"), size(row, "thickness"))
        made.extend(RoughPart(f"{name}#{index + 1}", name, *sizes, Needs(needs), turn) for index in range(count))

    each(path, read_rows(path, ("part", "quantity", "length", "width", "thickness", "needs")), make)
    return tuple(made)


def quantity(text: str) -> int:
    """Read how many."""
    if not text.isdigit() or int(text) < 1:
        raise ValueError(f"a quantity of “{text}” cannot be; write 1 or more.")
    return int(text)


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
    lines = [line for line in text.splitlines() if line.strip()]
    # The mark that parts a line into four cells at least: names may hold the others.
    mark = next((mark for mark in "\t;," if lines and len(next(csv.reader(lines[:1], delimiter=mark))) >= 4), ",")
    columns = ["part", "length", "width", "thickness", "quantity"]
    found: list[tuple[str, Length, Length, Length]] = []
    for number, cells in enumerate(csv.reader(lines, delimiter=mark), start=1):
        words = [cell.strip() for cell in cells]
        if number == 1 and {"length", "width", "thickness"} <= {word.lower() for word in words}:
            columns = [word.lower() for word in words]
            continue
        row = dict(zip(columns, words, strict=False))
        try:
            sizes = [read_length(row.get(name, ""), unit) for name in ("length", "width", "thickness")]
            if any(size.mm <= 0 for size in sizes):
                raise LengthError("each size must be more than nothing.")
            count = quantity(row.get("quantity") or "1")
        except (LengthError, ValueError) as error:
            raise TableError(f"Line {number}, “{'  '.join(words)[:40]}”: {error}") from error
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
        try:
            return float(row["x"]), float(row["y"]), float(row["top"]), float(row["bottom"])
        except ValueError as error:
            raise ValueError("x, y, top and bottom must be numbers in mm.") from error

    return each(path, read_rows(path, ("x", "y", "top", "bottom")), make)


def cut_list_text(rows: Sequence[CutListRow], marks: Marks) -> str:
    """Give the cut list as CSV: exact figures in mm, and as the bench reads them."""
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\n")
    shown = "inches" if marks.unit is Unit.INCH else "mm, to the mark"
    writer.writerow(
        ["number", "part", "length_mm", "width_mm", "thickness_mm", "cut_length_mm", "rough_length_mm",
         "rough_width_mm", "rough_thickness_mm", "board", "species", "wait_for", f"finished ({shown})",
         "made_with", "quantity_alike", "shows", "rough_m3", "price"]
    )  # fmt: skip
    alike = {row.number: group for group in grouped(rows) for row in group.rows}
    for row in rows:
        group = alike[row.number]
        sizes = (
            row.length, row.width, row.thickness, row.cut_length,
            row.rough_length, row.rough_width, row.rough_thickness,
        )  # fmt: skip
        finished = " x ".join(marks.write(size, unit=False) for size in (row.length, row.width, row.thickness))
        writer.writerow(
            [row.number, plain(row.part), *(f"{float(size):g}" for size in sizes), plain(row.board),
             plain(row.species), row.waits, finished, plain(group.title), group.quantity, row.shows,
             f"{row.rough_volume / 1e9:.6f}", write_price(row.price)]
        )  # fmt: skip
    return stream.getvalue()


def plain(text: str) -> str:
    """Keep a spreadsheet from taking a name for a formula."""
    return f"'{text}" if text[:1] in "=+-@" and text else text
