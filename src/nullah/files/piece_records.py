"""What finished pieces leave behind for the next: kept on this machine, one list for all."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

from nullah.core.bench.rates import RATES, Learned
from nullah.core.fraction import Fraction
from nullah.core.limits import STATE_BYTES
from nullah.core.project import Project
from nullah.core.work.day_book import PieceRecord
from nullah.files.practice import practice_file
from nullah.files.reading import ReadingError, keep_damaged, read_json_file
from nullah.writing import why, write_file

#: So many of the last pieces are asked for their waste.
_LAST = 5


class RecordsError(Exception):
    """Records that cannot be written, in a sentence."""


def records_file() -> Path:
    """Return the file of the records, in the user's own folder."""
    return practice_file().with_name("pieces.json")


def read_records(path: Path) -> tuple[PieceRecord, ...]:
    """Read the records; what cannot be read is left out, an old or broken file is as if there were none."""
    try:
        found = read_json_file(path, STATE_BYTES)
    except ReadingError:
        return ()
    return tuple(record for each in found if (record := _read(each)) is not None) if isinstance(found, list) else ()


def _read(data: Any) -> PieceRecord | None:
    try:
        rates = tuple(
            (str(name), Learned(float(each["factor"]), float(each["spread"]), int(each["records"])))
            for name, each in data["rates"].items()
            if name in RATES
        )
        return PieceRecord(
            str(data["name"]),
            str(data["finished"]),
            float(data["wood_planned"]),
            float(data["wood_used"]),
            float(data["minutes"]),
            float(data["guessed"]),
            int(data["untimed"]),
            int(data["remade"]),
            tuple(float(each) for each in data["off"]),
            rates,
        )
    except (KeyError, TypeError, ValueError, AttributeError, OverflowError):
        return None


def keep_record(path: Path, record: PieceRecord) -> None:
    """Put a record to the others, in the place of one of the same name and day.

    Raises
    ------
    RecordsError
    """
    if path.exists() and not _readable(path):
        keep_damaged(path)
    kept = [each for each in read_records(path) if (each.name, each.finished) != (record.name, record.finished)]
    data = [
        {**each._asdict(), "off": list(each.off), "rates": {name: known._asdict() for name, known in each.rates}}
        for each in (*kept, record)
    ]
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        write_file(path, json.dumps(data, indent=1, ensure_ascii=False) + "\n")
    except OSError as error:
        raise RecordsError(f"The record cannot be kept in {path}: {why(error)}.") from error


def _readable(path: Path) -> bool:
    try:
        return isinstance(read_json_file(path, STATE_BYTES), list)
    except ReadingError:
        return False


def begin_from(project: Project, records: tuple[PieceRecord, ...]) -> Project:
    """Let a new piece start from what the last ones taught: rates, and the share of wood that is wasted."""
    if not records:
        return project
    wasted = [record.waste for record in records[-_LAST:] if 0 < record.waste < 0.9]
    share = Fraction(round(100 * sum(wasted) / len(wasted)), 100) if wasted else project.flawed_share
    return replace(project, working=project.working._replace(rates=records[-1].rates), flawed_share=share)
