"""What a finished piece has to tell: its wood, its time, how true it came out."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.reader import Reader
from nullah.core.wording.durations import time_words
from nullah.core.work.day_book import PieceRecord


def record_words(record: PieceRecord, reader: Reader) -> tuple[str, ...]:
    """Return what a piece has to tell, a sentence each."""
    return tuple(_sentences(record, reader))


def _sentences(record: PieceRecord, reader: Reader) -> Iterator[str]:
    volume = reader.marks.write_volume
    yield reader.text(
        "Wood: {used} for {planned} of parts, {waste:.0f} % waste.",
        used=volume(record.wood_used),
        planned=volume(record.wood_planned),
        waste=record.waste * 100,
    )
    if record.minutes:
        share = record.minutes / record.guessed if record.guessed else 1.0
        yield reader.text(
            "Time: {spent} where {guessed} were guessed ({share:.2f} times).",
            spent=time_words(record.minutes, reader),
            guessed=time_words(record.guessed, reader),
            share=share,
        )
    if record.untimed:
        yield reader.count(record.untimed, "{n} task done without a time.", "{n} tasks done without a time.")
    if record.remade:
        yield reader.count(record.remade, "{n} part made again.", "{n} parts made again.")
    if record.tolerance is not None:
        yield reader.text(
            "What was measured lay {off} off its plan (standard deviation).",
            off=reader.marks.write_thin(record.tolerance),
        )
