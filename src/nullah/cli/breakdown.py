"""lay rough parts on boards."""

from __future__ import annotations

import argparse
import os
import time
from pathlib import Path
from typing import Any

from nullah.cli import options as read
from nullah.cli.options import RefusedError
from nullah.core.lengths import Length
from nullah.core.limits import quoted
from nullah.core.wording.facts import error_words, fact_words
from nullah.language import tr

_STARTED = time.monotonic()


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("--boards", type=Path, required=True)
    parser.add_argument("--parts", type=Path, required=True)
    parser.add_argument("--flaws", type=Path)
    parser.add_argument("--kerf", default="2mm")
    parser.add_argument("--seconds", default="10")
    parser.add_argument("--json", required=True)


def run(options: argparse.Namespace) -> int:
    """Answer with places, cuts and what found no wood."""
    from nullah.core.breakdown.search import BreakdownError, LayoutTask
    from nullah.files.rack_tables import read_boards, read_flaws
    from nullah.files.tables import TableError, read_parts

    kerf = read.length(options.kerf, "--kerf", 0)
    seconds = read.number(options.seconds, "--seconds")
    if seconds <= 0:
        raise RefusedError(tr("--seconds: {typed} is no time at all.", typed=quoted(options.seconds)))
    # Leave room for start-up and writing, so that the whole command keeps to the time asked for.
    stop_at = _STARTED + max(0.3, seconds - 0.5)
    try:
        boards = read_boards(options.boards)
        if options.flaws:
            boards = read_flaws(options.flaws, boards)
        parts = read_parts(options.parts)
        if not parts:
            raise RefusedError(tr("There is nothing to lay out."))
        best = _searched(LayoutTask(parts, boards, kerf), stop_at)
    except (TableError, BreakdownError) as error:
        raise RefusedError(error_words(error)) from error
    return read.write_json(options.json, _breakdown_answer(best, parts, boards, kerf))


def _searched(task: Any, stop_at: float) -> Any:
    """Search here and, where there is time and another core for it, beside."""
    from nullah.background import SearchAside
    from nullah.core.breakdown.search import search_task

    start = time.monotonic()
    seconds = max(0.05, stop_at - start)
    cores = min(4, os.cpu_count() or 1)
    beside = SearchAside(task, seconds, cores - 1, first_seed=2) if cores > 1 and seconds > 2 else None
    best = None
    try:
        for layout in search_task(task, 10**9, 1, lambda: (time.monotonic() - start) / seconds):
            best = layout
            if time.monotonic() > stop_at:
                break
        if beside is None:
            return best
        if best is not None:
            beside.offer(best)
        finished = best is not None and not best.unplaced and best.consumed <= best.bound + 1
        while beside.running and not finished and time.monotonic() < stop_at:
            beside.listen(0.05)
        while beside.running and time.monotonic() < stop_at + 0.1:
            beside.listen(0.02)
        return beside.stop().best
    finally:
        if beside is not None:
            beside.stop()


def _breakdown_answer(best: Any, parts: Any, boards: Any, kerf: Length) -> dict[str, Any]:
    from nullah.core.breakdown.cuts import saw_cuts
    from nullah.core.breakdown.layout import Rect, place

    by_id = {part.id: part for part in parts}
    shown = []
    for board in boards:
        placed = [place(by_id[item.part], item) for item in best.placements if item.board == board.id]
        cuts = saw_cuts(Rect(0, 0, float(board.length), float(board.width)), placed, float(kerf))
        shown.append(
            {
                "board": board.id,
                "pieces": [
                    {
                        "part": item.part.name,
                        "x_mm": item.rect.x,
                        "y_mm": item.rect.y,
                        "length_mm": item.rect.length,
                        "width_mm": item.rect.width,
                    }
                    for item in placed
                ],
                "cuts": [
                    {"order": c.order, "kind": c.kind.value, "x_mm": c.x, "y_mm": c.y, "length_mm": c.length}
                    for c in cuts
                ],
            }
        )
    return {
        "boards": shown,
        "unplaced": [{"part": item.part.name, "why": fact_words(item.why, read.reader())} for item in best.unplaced],
        "consumed_mm2": best.consumed,
        "bound_mm2": best.bound,
    }
