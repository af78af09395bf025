"""Everything a project puts on paper, written into one folder."""

from __future__ import annotations

from pathlib import Path

from nullah.core.plan import cut_list, work_out
from nullah.core.project import Project
from nullah.core.sheets.sheets import all_sheets
from nullah.files.project_file import write_whole
from nullah.files.rack_tables import flaws_beside, flaws_text, rack_text
from nullah.files.tables import cut_list_text
from nullah.paper.dxf import write_dxf
from nullah.paper.files import PaperError, write_pdf, write_svg

# What is used at full size is written as DXF too.
_FULL_SIZE = ("corner-template", "stick-", "wrap-", "face-")


def write_bundle(project: Project, folder: Path) -> list[Path]:
    """Write the whole set: a PDF of every sheet, each as SVG (templates and sticks as DXF), cut list and rack as CSV.

    Returns
    -------
    list of Path
        What was written.

    Raises
    ------
    PaperError
        If the folder or a file cannot be written.
    """
    plan = work_out(project)
    sheets = all_sheets(plan)
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise PaperError(f"{folder} cannot be made: {error.strerror or error}.") from error
    written = [folder / "sheets.pdf"]
    write_pdf(sheets, written[0])
    for sheet in sheets:
        written.append(folder / f"{sheet.name}.svg")
        write_svg(sheet, written[-1])
        if sheet.name.startswith(_FULL_SIZE):
            written.append(folder / f"{sheet.name}.dxf")
            write_dxf(sheet, written[-1])
    tables = {"cut-list.csv": cut_list_text(cut_list(plan), plan.marks)}
    if project.boards:
        tables["rack.csv"] = rack_text(project.boards)
        tables[flaws_beside(Path("rack.csv")).name] = flaws_text(project.boards)
    for name, text in tables.items():
        written.append(folder / name)
        try:
            write_whole(written[-1], text)
        except OSError as error:
            raise PaperError(f"{written[-1]} cannot be written: {error.strerror or error}.") from error
    return written
