"""Everything a project puts on paper, written into one folder."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from datetime import datetime
from pathlib import Path

from nullah.core.named_tuple import NamedTuple
from nullah.core.plan import Plan, work_out
from nullah.core.project import Project
from nullah.core.sheets.page import A4, Sheet
from nullah.core.sheets.sheets import all_sheets
from nullah.core.work.cut_list import cut_list
from nullah.files.rack_tables import flaws_beside, flaws_text, rack_text
from nullah.files.tables import cut_list_text
from nullah.language import tr
from nullah.paper.dxf import dxf_of
from nullah.paper.files import PaperError, pdf_of, svg_of
from nullah.writing import why, write_file

# What is used at full size is written as DXF too.
_FULL_SIZE = ("corner-template", "stick-", "wrap-", "face-", "shape-")


class Written(NamedTuple):
    """A file of the set that has been written: its path, its number from 1, and of how many."""

    path: Path
    number: int
    of: int


def write_bundle(
    project: Project, folder: Path, paper: tuple[float, float] = A4, now: datetime | None = None
) -> Iterator[Written]:
    """Write the whole set: a PDF of every sheet, each as SVG (templates and sticks as DXF), cut list and rack as CSV.

    Yields
    ------
    Written
        Each file when it is whole on the disk.

    Raises
    ------
    PaperError
        If the folder or a file cannot be written.
    """
    plan = work_out(project)
    contents = _contents(plan, list(all_sheets(plan, now)), paper)
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise PaperError(tr("{folder} cannot be made: {why}.", folder=folder, why=why(error))) from error
    for number, (name, make) in enumerate(contents.items(), start=1):
        path = folder / name
        try:
            write_file(path, make())
        except OSError as error:
            raise PaperError(tr("{path} cannot be written: {why}.", path=path, why=why(error))) from error
        yield Written(path, number, len(contents))


def _contents(plan: Plan, sheets: list[Sheet], paper: tuple[float, float]) -> dict[str, Callable[[], bytes | str]]:
    """Return the name of every file of the set and what makes it."""
    made: dict[str, Callable[[], bytes | str]] = {"sheets.pdf": lambda: pdf_of(sheets, paper=paper)}
    for sheet in sheets:
        made[f"{sheet.name}.svg"] = lambda sheet=sheet: svg_of(sheet)  # type: ignore[misc]
        if sheet.name.startswith(_FULL_SIZE):
            made[f"{sheet.name}.dxf"] = lambda sheet=sheet: dxf_of(sheet)  # type: ignore[misc]
    made["cut-list.csv"] = lambda: cut_list_text(cut_list(plan), plan.marks)
    boards = plan.project.boards
    if boards:
        made["rack.csv"] = lambda: rack_text(boards)
        made[flaws_beside(Path("rack.csv")).name] = lambda: flaws_text(boards)
    return made
