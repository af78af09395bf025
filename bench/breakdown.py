"""Compares the breakdown command with OR-Tools' CP-SAT, which may place freely and has twenty-four times as long.

``script/bench breakdown [STYLE …]`` runs the styles of `breakdown_cases` (all of them by default) in turn:
the command for 10 seconds, then CP-SAT for 240 on the same case. Quotes the ratio of the wood consumed, the gap to
the proven bound, the time to the first layout and the memory. Nothing is asserted here.
"""

from __future__ import annotations

import json
import os
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from breakdown_cases import STYLES, make_case, write_case

_SEED = 1
_OURS, _THEIRS = 10.0, 240.0


def ours(folder: Path) -> dict[str, float]:
    """Run the command as a user would."""
    answer = folder / "answer.json"
    words = [sys.executable, "-m", "nullah.cli", "breakdown", "--seconds", str(_OURS), "--json", str(answer)]
    for name in ("boards", "parts", "flaws"):
        words += [f"--{name}", str(folder / f"{name}.csv")]
    start = time.perf_counter()
    command = subprocess.Popen(words)
    _, status, usage = os.wait4(command.pid, 0)
    command.returncode = os.waitstatus_to_exitcode(status)
    if command.returncode:
        raise SystemExit(f"the command ended with {command.returncode}")
    found = json.loads(answer.read_text())
    return {
        "unplaced": len(found["unplaced"]),
        "consumed": found["consumed_mm2"],
        "bound": found["bound_mm2"],
        "seconds": time.perf_counter() - start,
        # The larger of its processes; there is one more for each core, four at most.
        "megabytes": usage.ru_maxrss / 1024,
    }


def first_layout(folder: Path) -> float:
    """Return the seconds from starting Python to the first legal layout of a case."""
    code = f"""
from pathlib import Path
from nullah.core.breakdown.search import LayoutTask, search_task
from nullah.core.lengths import Marks, mm
from nullah.files.rack_tables import read_boards, read_flaws
from nullah.files.tables import read_parts
folder = Path({str(folder)!r})
boards = read_flaws(folder / "flaws.csv", read_boards(folder / "boards.csv"))
next(search_task(LayoutTask(read_parts(folder / "parts.csv"), boards, mm(2)), 1))
"""
    start = time.perf_counter()
    subprocess.run([sys.executable, "-c", code], check=True)
    return time.perf_counter() - start


def theirs(folder: Path, seconds: float) -> dict[str, float]:
    """Return the case to CP-SAT, in a process of its own."""
    words = [sys.executable, str(Path(__file__).with_name("free_placement.py")), str(folder), str(seconds)]
    found = json.loads(subprocess.run(words, check=True, capture_output=True, text=True).stdout)
    return {"unplaced": found["unplaced"], "consumed": found["consumed_mm2"]}


def main(styles: list[str]) -> None:
    """Run each style and print a line for it."""
    for style in styles or list(STYLES):
        with tempfile.TemporaryDirectory() as root:
            folder = Path(root)
            write_case(make_case(style, _SEED), folder)
            first, mine = first_layout(folder), ours(folder)
            line = (
                f"{style}: {mine['consumed'] / 1e6:.3f} m², {mine['unplaced']:.0f} unplaced, {mine['seconds']:.1f} s, "
                f"gap to the bound {100 * (1 - mine['bound'] / mine['consumed']):.1f} %, first layout {first:.2f} s, "
                f"{mine['megabytes']:.0f} MB a process"
            )
            print(line, flush=True)
            other = theirs(folder, _THEIRS)
            if other["unplaced"] or not other["consumed"]:
                print(f"  CP-SAT in {_THEIRS:.0f} s: {other['unplaced']:.0f} unplaced", flush=True)
            else:
                print(
                    f"  CP-SAT in {_THEIRS:.0f} s: {other['consumed'] / 1e6:.3f} m²; ours / theirs "
                    f"{mine['consumed'] / other['consumed']:.3f} (wanted: 1 at most)",
                    flush=True,
                )


if __name__ == "__main__":
    main(sys.argv[1:])
