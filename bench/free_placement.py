"""The same case given to OR-Tools' CP-SAT with free placement: not even cuts from edge to edge are asked.

Run as ``python bench/free_placement.py FOLDER SECONDS`` on a folder that `breakdown_cases` wrote;
prints unplaced parts, consumed mm² and CP-SAT's own bound. Whole millimetres, kerf 2.
"""

from __future__ import annotations

import csv
import json
import sys
from pathlib import Path
from typing import Any

from ortools.sat.python import cp_model  # type: ignore[import-not-found]

KERF = 2


def _rows(path: Path) -> list[dict[str, str]]:
    with path.open(encoding="utf-8") as stream:
        return list(csv.DictReader(stream))


def _fixed(model: Any, start: str, end: str) -> Any:
    return model.new_fixed_size_interval_var(int(start), int(end) - int(start), "")


def _apart(flaws: list[dict[str, str]]) -> list[list[dict[str, str]]]:
    """Group flaws so that none lies over another of its group: CP-SAT takes a group at once."""
    groups: list[list[dict[str, str]]] = []
    for flaw in flaws:
        for group in groups:
            if not any(
                int(flaw["from"]) < int(other["to"])
                and int(other["from"]) < int(flaw["to"])
                and int(flaw["low"]) < int(other["high"])
                and int(other["low"]) < int(flaw["high"])
                for other in group
            ):
                group.append(flaw)
                break
        else:
            groups.append([flaw])
    return groups


def solve(folder: Path, seconds: float, workers: int = 8) -> dict[str, Any]:
    """Minimise unplaced parts first, then consumed wood, as the contract of the command says."""
    boards, flaws = _rows(folder / "boards.csv"), _rows(folder / "flaws.csv")
    parts = [row for row in _rows(folder / "parts.csv") for _ in range(int(row["quantity"]))]
    model = cp_model.CpModel()
    here: dict[tuple[int, int], Any] = {}
    consumed = []
    for b, board in enumerate(boards):
        length, width = int(board["length"]), int(board["width"])
        end = model.new_int_var(0, length, f"end {b}")
        consumed.append(end * width)
        xs, ys, bare_x, bare_y, clear_x, clear_y = [], [], [], [], [], []
        for p, part in enumerate(parts):
            size = int(part["length"]), int(part["width"])
            long, wide = reversed(size) if part["turn"] == "yes" else size
            if int(part["thickness"]) > int(board["thickness"]) or long > length or wide > width:
                continue
            on = here[p, b] = model.new_bool_var(f"{p} on {b}")
            x, y = model.new_int_var(0, length - long, f"x {p} {b}"), model.new_int_var(0, width - wide, f"y {p} {b}")
            xs.append(model.new_optional_fixed_size_interval_var(x, long + KERF, on, f"{p} {b} x"))
            ys.append(model.new_optional_fixed_size_interval_var(y, wide + KERF, on, f"{p} {b} y"))
            lists = (clear_x, clear_y) if part["needs"] == "clear" else (bare_x, bare_y)
            lists[0].append(model.new_optional_fixed_size_interval_var(x, long, on, f"{p} {b} bare x"))
            lists[1].append(model.new_optional_fixed_size_interval_var(y, wide, on, f"{p} {b} bare y"))
            model.add(end >= x + long).only_enforce_if(on)
        model.add_no_overlap_2d(xs, ys)
        own = [flaw for flaw in flaws if flaw["board"] == board["board"]]
        hard = [flaw for flaw in own if flaw["kind"] not in ("knot", "sap")]
        for kept_x, kept_y, off in ((clear_x, clear_y, own), (bare_x, bare_y, hard)):
            for group in _apart(off):
                model.add_no_overlap_2d(
                    [*kept_x, *(_fixed(model, flaw["from"], flaw["to"]) for flaw in group)],
                    [*kept_y, *(_fixed(model, flaw["low"], flaw["high"]) for flaw in group)],
                )
    unplaced = []
    for p in range(len(parts)):
        spots = [here[p, b] for b in range(len(boards)) if (p, b) in here]
        missing = model.new_bool_var(f"missing {p}")
        model.add(sum(spots) + missing == 1)
        unplaced.append(missing)
    most = sum(int(b["length"]) * int(b["width"]) for b in boards) + 1
    model.minimize(most * sum(unplaced) + sum(consumed))
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.num_workers = workers
    solver.solve(model)
    if not solver.response_proto.solution:
        return {"unplaced": len(parts), "consumed_mm2": 0.0, "bound_mm2": 0.0}
    missing_count = sum(solver.value(item) for item in unplaced)
    bound = solver.best_objective_bound - most * missing_count
    return {
        "unplaced": missing_count,
        "consumed_mm2": solver.objective_value - most * missing_count,
        "bound_mm2": max(0.0, bound),
    }


if __name__ == "__main__":
    print(json.dumps(solve(Path(sys.argv[1]), float(sys.argv[2]))))
