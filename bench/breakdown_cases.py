"""Makes cases for the breakdown search: sixty parts over sixteen boards, in several styles.

Each case is three tables as ``nullah breakdown`` reads them. The same seed gives the same case.
"""

from __future__ import annotations

import csv
import random
from collections.abc import Callable
from pathlib import Path
from typing import NamedTuple

Row = tuple[object, ...]


class Case(NamedTuple):
    """Boards, flaws and parts, as rows of their tables (mm)."""

    boards: list[Row]
    flaws: list[Row]
    parts: list[Row]


def _flaws(rng: random.Random, boards: list[Row], most: int) -> list[Row]:
    rows: list[Row] = []
    for name, length, width, _ in boards:
        assert isinstance(length, int) and isinstance(width, int)
        if most and rng.random() < 0.6:
            rows.append((name, 0, rng.randint(20, 60), 0, width, "check"))
        for _ in range(rng.randint(0, most)):
            kind = rng.choice(["knot", "knot", "sap", "split", "runout", "wane"])
            long, high = (rng.randint(30, 90), rng.randint(20, 60))
            if kind in ("sap", "wane"):
                long, high = rng.randint(300, 900), rng.randint(12, 30)
            x = rng.randint(0, max(0, length - long))
            y = rng.choice([0, width - high]) if kind in ("sap", "wane") else rng.randint(0, max(0, width - high))
            rows.append((name, x, x + long, y, min(width, y + high), kind))
    return rows


def _parts(
    rng: random.Random,
    kinds: int,
    lengths: tuple[int, int],
    widths: tuple[int, int],
    thick: list[int],
    turned: float = 0.0,
) -> list[Row]:
    counts = [1] * kinds
    while sum(counts) < 60:
        counts[rng.randrange(kinds)] += 1
    return [
        (
            f"part {index + 1}",
            count,
            rng.randint(*lengths),
            rng.randint(*widths),
            rng.choice(thick),
            rng.choice(["clear", "clear", "any"]),
            "yes" if rng.random() < turned else "no",
        )
        for index, count in enumerate(counts)
    ]


def _boards(rng: random.Random, lengths: tuple[int, int], widths: tuple[int, int], thick: list[int]) -> list[Row]:
    return [(f"b{i + 1}", rng.randint(*lengths), rng.randint(*widths), rng.choice(thick)) for i in range(16)]


def mixed(rng: random.Random) -> Case:
    """Boards and parts of every size, a few flaws."""
    boards = _boards(rng, (1200, 2600), (130, 280), [22, 27, 34])
    return Case(boards, _flaws(rng, boards, 3), _parts(rng, 20, (180, 900), (45, 180), [16, 20, 24]))


def equal_boards(rng: random.Random) -> Case:
    """One size of board, clear, as a yard sells them."""
    boards: list[Row] = [(f"b{i + 1}", 2400, 200, 25) for i in range(16)]
    return Case(boards, [], _parts(rng, 12, (200, 1100), (40, 190), [20]))


def all_different(rng: random.Random) -> Case:
    """Sixty parts, no two alike."""
    boards = _boards(rng, (1500, 3000), (150, 300), [25, 30])
    return Case(boards, _flaws(rng, boards, 2), _parts(rng, 60, (150, 1000), (40, 200), [18, 22]))


def tight(rng: random.Random) -> Case:
    """Hardly more wood than is wanted."""
    boards = _boards(rng, (1000, 1800), (120, 220), [22, 27])
    return Case(boards, _flaws(rng, boards, 2), _parts(rng, 24, (200, 700), (40, 110), [16, 20]))


def flawed(rng: random.Random) -> Case:
    """Flaws everywhere, most parts clear."""
    boards = _boards(rng, (1500, 2800), (160, 320), [24, 30])
    return Case(boards, _flaws(rng, boards, 7), _parts(rng, 30, (150, 650), (40, 130), [18, 22]))


def small_parts(rng: random.Random) -> Case:
    """Many small parts, some across the board, out of wide boards."""
    boards = _boards(rng, (900, 2000), (200, 400), [20, 26])
    return Case(boards, _flaws(rng, boards, 3), _parts(rng, 25, (90, 400), (30, 150), [12, 18], turned=0.2))


STYLES: dict[str, Callable[[random.Random], Case]] = {
    "mixed": mixed, "equal boards": equal_boards, "all different": all_different,
    "tight": tight, "flawed": flawed, "small parts": small_parts,
}  # fmt: skip


def make_case(style: str, seed: int) -> Case:
    """Make a case of a style."""
    return STYLES[style](random.Random(f"{style} {seed}"))


def write_case(case: Case, folder: Path) -> None:
    """Write ``boards.csv``, ``flaws.csv`` and ``parts.csv`` into a folder."""
    folder.mkdir(parents=True, exist_ok=True)
    tables: dict[str, tuple[list[str], list[Row]]] = {
        "boards": (["board", "length", "width", "thickness"], case.boards),
        "flaws": (["board", "from", "to", "low", "high", "kind"], case.flaws),
        "parts": (["part", "quantity", "length", "width", "thickness", "needs", "turn"], case.parts),
    }
    for name, (heading, rows) in tables.items():
        with (folder / f"{name}.csv").open("w", newline="", encoding="utf-8") as stream:
            writer = csv.writer(stream)
            writer.writerow(heading)
            writer.writerows(rows)
