"""The rack in CSV: boards and their flaws in and out, and boards as people type them."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable, Sequence
from dataclasses import replace
from pathlib import Path
from typing import TypeVar

from nullah.core.fraction import Fraction
from nullah.core.lengths import Length, LengthError, Unit, read_length
from nullah.core.limits import BOARDS, CELL_TEXT, FLAWS, FLAWS_IN_ALL, quoted, read_number, shown
from nullah.core.rack.board import (
    Board,
    BoardError,
    Faces,
    Flaw,
    FlawKind,
    GrainFigure,
    Reading,
    check_board,
    fitted_flaw,
    read_price,
    write_price,
)
from nullah.core.rack.sizes import SizeNameError, resolve_size
from nullah.core.wood.movement import GrainCut
from nullah.core.wood.species import SpeciesError, find_species
from nullah.core.wording.facts import error_words
from nullah.files.tables import Row, TableError, check_name, each, headings_of, plain, quantity, read_rows, size

BOARD_COLUMNS = (
    "board",
    "length",
    "width",
    "thickness",
    "species",
    "cut",
    "figure",
    "colour",
    "source",
    "price",
    "dressed",
    "cup",
    "bow",
    "twist",
    "moisture",
)
FLAW_COLUMNS = ("board", "from", "to", "low", "high", "kind", "faces", "depth")
_Kind = TypeVar("_Kind", GrainCut, GrainFigure, Faces)


def read_boards(path: Path, species: str = "") -> tuple[Board, ...]:
    """Read ``board,length,width,thickness``; bare numbers are mm, more columns may stand there.

    Of those, the ones of `BOARD_COLUMNS` are taken, the rest left alone.

    Raises
    ------
    TableError
    """

    def make(row: Row) -> Board:
        name = row["board"]
        if not name:
            raise BoardError("the board has no name.")
        for text in (name, row.get("species", ""), row.get("colour", ""), row.get("source", "")):
            check_name(text)
        board = Board(
            name,
            name,
            row.get("species") or species,
            size(row, "length"),
            size(row, "width"),
            size(row, "thickness"),
            _figure(row, "cup"),
            _figure(row, "bow"),
            _figure(row, "twist"),
            cut=_one_of(GrainCut, row.get("cut") or "flat", "cut"),
            figure=_one_of(GrainFigure, row.get("figure") or "plain", "figure"),
            price=read_price(row.get("price") or ""),
            colour=row.get("colour") or "",
            source=row.get("source") or "",
            dressed=_yes(row.get("dressed") or ""),
            readings=_readings(row.get("moisture") or ""),
        )
        check_board(board)
        return board

    rows = read_rows(path, ("board", "length", "width", "thickness"))
    if len(rows) > BOARDS:
        raise TableError(f"{path.name} has {len(rows):,} boards; {BOARDS} at most.")
    boards = each(path, rows, make)
    seen: set[str] = set()
    for board in boards:
        if board.id in seen:
            raise TableError(f"{path.name}: two boards are called {quoted(board.id)}.")
        seen.add(board.id)
    return tuple(boards)


def _one_of(kind: type[_Kind], text: str, column: str) -> _Kind:
    try:
        return kind(text.strip().lower())
    except ValueError:
        known = ", ".join(str(item.value) for item in kind)
        raise BoardError(f"{column} is {quoted(text)}; it must be one of {known}.") from None


def _figure(row: Row, column: str) -> Length:
    return read_length(row.get(column) or "0")


def _yes(text: str) -> bool:
    return text.strip().lower() in ("yes", "y", "true", "1")


def _readings(text: str) -> tuple[Reading, ...]:
    """Read ``2026-11-02 12.5; 2026-11-16 10.8``."""
    found = []
    for item in filter(None, (item.strip() for item in text.split(";"))):
        day, _, words = item.partition(" ")
        percent = read_number(words.strip().rstrip("%"))
        if percent is None:
            raise BoardError(f"a moisture of {quoted(item)} cannot be read; write 2026-11-02 12.5.")
        found.append(Reading(day, Fraction(str(percent))))
    return tuple(sorted(found))


def read_flaws(path: Path, boards: Sequence[Board]) -> tuple[Board, ...]:
    """Read ``board,from,to,low,high,kind`` (and ``faces``, ``depth``) and give the boards with those flaws.

    Raises
    ------
    TableError
        For a board that is not there, a kind nobody knows, or a flaw off its board.
    """
    by_id = {board.id: board for board in boards}

    def make(row: Row) -> None:
        board = by_id.get(row["board"])
        if board is None:
            raise BoardError(f"there is no board {quoted(row['board'])}.")
        if len(board.flaws) >= FLAWS:
            raise BoardError(f"{board.name} has more than {FLAWS} flaws.")
        kinds = [kind.value for kind in FlawKind]
        kind = row["kind"].lower().replace("-", "")
        if kind not in kinds:
            raise BoardError(f"{quoted(row['kind'])} is not a flaw known here: {', '.join(kinds)}.")
        start, end, low, high = (read_length(row[name]) for name in ("from", "to", "low", "high"))
        depth = read_length(row["depth"]) if row.get("depth") else None
        faces = _one_of(Faces, row.get("faces") or "through", "faces")
        flaw = fitted_flaw(board, Flaw(FlawKind(kind), start, end, low, high, faces, depth))
        by_id[board.id] = replace(board, flaws=(*board.flaws, flaw))

    rows = read_rows(path, ("board", "from", "to", "low", "high", "kind"))
    if len(rows) > FLAWS_IN_ALL:
        raise TableError(f"{path.name} has {len(rows):,} flaws; {FLAWS_IN_ALL:,} at most.")
    each(path, rows, make)
    return tuple(by_id[board.id] for board in boards)


def read_rack(path: Path, species: str = "") -> tuple[Board, ...]:
    """Read boards, and their flaws from the table beside it that `flaws_beside` names, if it is there.

    Raises
    ------
    TableError
    """
    boards = read_boards(path, species)
    beside = flaws_beside(path)
    return read_flaws(beside, boards) if beside.is_file() else boards


def columns_passed_over(path: Path) -> tuple[str, ...]:
    """Return the headings of a table of boards of which nothing is taken.

    Raises
    ------
    TableError
    """
    return tuple(heading for heading in headings_of(path) if heading and heading not in BOARD_COLUMNS)


def flaws_beside(path: Path) -> Path:
    """Return the name of the flaws' table beside a table of boards: ``rack.csv`` has ``rack flaws.csv``."""
    return path.with_name(f"{path.stem} flaws{path.suffix or '.csv'}")


def rack_text(boards: Iterable[Board]) -> str:
    """Return the boards as CSV, lengths as typed; what `read_boards` reads."""
    rows = [
        (
            plain(board.name),
            *(length.as_text() for length in (board.length, board.width, board.thickness)),
            plain(board.species),
            board.cut.value,
            board.figure.value,
            plain(board.colour),
            plain(board.source),
            write_price(board.price),
            "yes" if board.dressed else "no",
            *(length.as_text() for length in (board.cup, board.bow, board.twist)),
            "; ".join(f"{reading.day} {float(reading.percent)!r}" for reading in board.readings),
        )
        for board in boards
    ]
    return _table(BOARD_COLUMNS, rows)


def flaws_text(boards: Iterable[Board]) -> str:
    """Return the flaws of boards as CSV; what `read_flaws` reads."""
    rows = [
        (
            plain(board.name),
            *(length.as_text() for length in (flaw.start, flaw.end, flaw.low, flaw.high)),
            flaw.kind.value,
            flaw.faces.value,
            "" if flaw.depth is None else flaw.depth.as_text(),
        )
        for board in boards
        for flaw in board.flaws
    ]
    return _table(FLAW_COLUMNS, rows)


def _table(columns: Sequence[str], rows: Iterable[Sequence[str]]) -> str:
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\n")
    writer.writerow(columns)
    writer.writerows(rows)
    return stream.getvalue()


def read_typed_boards(text: str, unit: Unit, species: str) -> tuple[Board, ...]:
    """Read boards as people type them, one a line: sizes, then in any order a wood, ``x3`` for how many, a name.

    Sizes are parted by ``x``, commas, semicolons or tabs; width and thickness may be a yard's
    name. Bare numbers are in `unit`. A line without a wood is of `species`.

    Raises
    ------
    TableError
        With the line that cannot be read.

    Examples
    --------
    >>> found = read_typed_boards("2400 x 200 x 27 black walnut\\n8' 1x12 *2 shed", Unit.MM, "black cherry")
    >>> [(board.name, board.species, float(board.width)) for board in found[:2]]
    [('Board 1', 'black walnut', 200.0), ('shed 1', 'black cherry', 285.75)]
    """
    found: list[Board] = []
    for number, raw in enumerate(text.splitlines(), start=1):
        line = raw.strip()
        if not line:
            continue
        try:
            if len(line) > CELL_TEXT:
                raise ValueError(f"it has more than {CELL_TEXT:,} characters.")
            found += _typed_line("\t".join(map(shown, line.split("\t"))), unit, species, len(found))
        except ValueError as error:
            raise TableError(f"Line {number}, {quoted(line)}: {error_words(error)}") from error
        if len(found) > BOARDS:
            raise TableError(f"More than {BOARDS} boards: a slip of the key?")
    if not found:
        raise TableError("There is no board in that list. Write a line as: 2400 x 200 x 27 black cherry.")
    return tuple(found)


_HOW_MANY = re.compile(r"(?:^|[\s;,])[*×]([0-9]+)(?=[\s;,]|$)")
_YARD = re.compile(r"(?<![\w/.])((?:5/4|[0-9]{1,4})\s{0,3}[x×]\s{0,3}[0-9]{1,4}|[0-9]{1,3}/4)(?![\w/.\"'])")


def _typed_line(line: str, unit: Unit, species: str, before: int) -> list[Board]:
    count = 1
    many = _HOW_MANY.search(line)
    if many:
        count = quantity(many[1])
        if count > BOARDS:
            raise BoardError(f"More than {BOARDS} boards: a slip of the key?")
        line = (line[: many.start()] + " " + line[many.end() :]).strip()
    sizes, rest = _sizes(line, unit)
    wood, name = _wood(rest, species)
    check_name(name)
    made = []
    for index in range(count):
        called = f"Board {before + index + 1}" if not name else name if count == 1 else f"{name} {index + 1}"
        board = Board(str(before + index + 1), called, wood, *sizes)
        check_board(board)
        made.append(board)
    return made


def _sizes(line: str, unit: Unit) -> tuple[tuple[Length, Length, Length], str]:
    """Take three sizes from the front of a line; a yard's name stands for width and thickness."""
    cells = [cell.strip() for cell in re.split(r"[\t;,]", line)]
    if len(cells) == 1:
        cells = [cell.strip() for cell in re.split(r"\s+[x×]\s+", line)]
    if len(cells) >= 3:
        last, rest = _front(cells[2], unit)
        return (read_length(cells[0], unit), read_length(cells[1], unit), last), " ".join([rest, *cells[3:]]).strip()
    named = _YARD.search(line)
    try:
        yard = resolve_size(named[1] if named is not None else "")
    except SizeNameError:
        named = None
    if named is None:
        raise LengthError("three sizes are needed, such as 2400 x 200 x 27, or a yard's name, such as 8' 1x12.")
    length, between = _front(line[: named.start()].strip().rstrip("x×").strip(), unit)
    rest = f"{between} {line[named.end() :]}".strip()
    if yard.width is None:
        width, rest = _front(rest.lstrip("x× "), unit)
        return (length, width, yard.rough_thickness), rest
    return (length, yard.width, yard.thickness), rest


def _front(text: str, unit: Unit) -> tuple[Length, str]:
    """Take the longest front of some words that reads as a length; give the rest."""
    words = text.split()
    # No length has more words than this; what follows is a name.
    for count in range(min(len(words), 12), 0, -1):
        try:
            return read_length(" ".join(words[:count]), unit), " ".join(words[count:])
        except LengthError:
            continue
    return read_length(text, unit), ""


def _wood(text: str, species: str) -> tuple[str, str]:
    """Find a wood among words; what is left is a name."""
    words = text.split()[:60]
    for count in range(min(4, len(words)), 0, -1):
        for start in range(len(words) - count + 1):
            try:
                wood = find_species(" ".join(words[start : start + count])).name
            except SpeciesError:
                continue
            return wood, " ".join(words[:start] + text.split()[start + count :])
    return species, text
