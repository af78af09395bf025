"""What reading, keeping and writing cost, on the sample cabinet and on a large project."""

from __future__ import annotations

import json
import tempfile
from dataclasses import replace
from pathlib import Path

from measure import timed, told

from nullah.core.bench.book import BookEntry, Event
from nullah.core.forms.own_boards import OwnBoard
from nullah.core.lengths import mm
from nullah.core.project import Project
from nullah.demo.seed_cabinet import seed_cabinet


def large() -> Project:
    """Return a project of 300 boards of one's own, 80 boards on the rack and 2000 entries in the book."""
    project = seed_cabinet()
    at = (mm(0), mm(-300), mm(0))
    own = tuple(OwnBoard(f"own{n}", f"board {n}", (mm(300 + n), mm(90), mm(18)), at) for n in range(1, 301))
    boards = tuple(replace(project.boards[n % 8], id=str(n), name=f"Ford {n}") for n in range(1, 81))
    note = BookEntry("2026-11-26T18:47", Event.NOTE, "Saw Ford 1", "saw/1", text="it pinches where the knot is")
    return replace(project, piece=replace(project.piece, own=own), boards=boards, layout=(), book=(note,) * 2000)


def files() -> None:
    """Time reading, saving and keeping; measure what the sheets take on the disk."""
    from nullah.core.plan import work_out
    from nullah.core.sheets.sheets import all_sheets
    from nullah.desk.application import application
    from nullah.files.project_file import parse_project, project_text, write_project
    from nullah.files.recovery import Autosave
    from nullah.paper.files import pdf_of, svg_of
    from nullah.writing import write_file

    with tempfile.TemporaryDirectory() as root:
        folder = Path(root)
        for name, project in (("cabinet", seed_cabinet()), ("large project", large())):
            text = project_text(project)
            plain = timed(lambda text=text: (folder / "plain.json").write_text(json.dumps(json.loads(text))), 9)
            print(f"{name}: {len(text) / 1e6:.2f} MB; JSON alone read and written without care {plain[4]:.1f} ms")
            told(f"  {name}, read", timed(lambda text=text: parse_project(text, "x"), 9), 1000.0)
            desk = Autosave(folder / "unsaved")
            told(f"  {name}, kept", timed(lambda p=project, d=desk: d.keep(p, None), 9), 500.0)
            desk.done()
            path = folder / f"{len(text)}.nullah"
            told(f"  {name}, saved", timed(lambda p=project, f=path: write_project(p, f), 9), 500.0)
        data = b"x" * 1_000_000
        bare = timed(lambda: (folder / "bare").write_bytes(data), 9)
        careful = timed(lambda: write_file(folder / "careful", data), 9)
        print(f"a megabyte written with care {careful[4]:.1f} ms, without {bare[4]:.1f} ms")
    application()
    sheets = list(all_sheets(work_out(seed_cabinet())))
    size = sum(len(svg_of(sheet).encode()) for sheet in sheets) / 1e6 * 100 / len(sheets)
    print(
        f"100 sheets as SVG: {size:.2f} MB, {size / 8:.2f} of the 8 MB that are allowed; "
        f"as PDF {len(pdf_of(sheets)) / 1e6 * 100 / len(sheets):.2f} MB"
    )
