"""What goes out and comes in beside the project file: sheets, print, solids, tables."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from datetime import datetime
from pathlib import Path

from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QFileDialog, QMainWindow

from nullah.core.catalogue import N_
from nullah.core.stations import STATIONS
from nullah.core.wording.facts import error_words
from nullah.desk.banner import Banner, Urgency
from nullah.desk.document import Document
from nullah.desk.errors import report
from nullah.desk.long_work import LongWork
from nullah.desk.settings import Settings
from nullah.desk.state import state_folder
from nullah.language import tr

TYPE_CHECKING = False
if TYPE_CHECKING:
    from PySide6.QtPrintSupport import QPrinter

    from nullah.core.sheets.page import Sheet
    from nullah.desk.printing import Printing

_TABLE = N_("Tables (*.csv)")


class Exports:
    """Files of other kinds, out and in; what takes long is done aside. `clock` may be put in the place of the clock."""

    def __init__(self, window: QMainWindow, document: Document, banner: Banner, settings: Settings) -> None:
        self._window, self._document, self._banner, self._settings = window, document, banner, settings
        self.work = LongWork(banner, lambda details: report(details, self._window, state_folder()))
        self.printing: Printing | None = None
        self.clock: Callable[[], datetime] = datetime.now

    def _folder(self) -> str:
        return str(self._document.file.parent if self._document.file else Path.home())

    def _named(self, ending: str) -> str:
        from nullah.desk.papers import file_name

        return str(Path(self._folder()) / f"{file_name(self._document.project.piece.name)}{ending}")

    def _refuse(self, error: Exception | str) -> None:
        said = error if isinstance(error, str) else error_words(error)
        self._banner.say(said, urgency=Urgency.ERROR)

    def wait(self) -> None:
        """Stop what is under way: for closing the window."""
        self.work.wait()
        if self.printing is not None:
            self.printing.stop()

    # --- paper ---

    def ask_sheets(self) -> None:
        """Ask for a folder and write every sheet and list into it."""
        folder = QFileDialog.getExistingDirectory(self._window, tr("Write all sheets into"), self._folder())
        if folder:
            self.write_sheets(Path(folder))

    def write_sheets(self, folder: Path) -> None:
        """Write every sheet and list into a folder, aside, and say so."""

        from nullah.desk import jobs

        def done(count: int) -> None:
            self._banner.say(
                tr(
                    "{count} files written to {folder}. Print the template at 100 % and check its scale.",
                    count=count,
                    folder=folder,
                )
            )

        self.work.start(
            tr("Laying the sheets out …"),
            tr("Stopped. What is written already is whole, in {folder}.", folder=folder),
            jobs.write_sheets,
            self._document.project,
            folder.absolute(),
            self._settings.paper,
            self.clock(),
            then=done,
        )

    def ask_solids(self) -> None:
        """Ask for a file and write the solids into it."""
        start = self._named(".glb")
        name, _ = QFileDialog.getSaveFileName(self._window, tr("Write the solids"), start, tr("Solids (*.glb *.stl)"))
        if name:
            self.write_solids(Path(name))

    def write_solids(self, path: Path) -> None:
        """Write the solids of the piece, aside, and say so."""
        from nullah.desk import jobs

        self.work.start(
            tr("Building the solids …"),
            tr("Stopped. Nothing was written."),
            jobs.write_solids,
            self._document.project,
            path.absolute(),
            then=lambda _: self._banner.say(tr("The solids are in {path}.", path=path)),
        )

    def ask_print(self) -> None:
        """Lay every sheet of the piece out aside, and ask which are to be printed."""
        from nullah.desk import jobs

        self.work.start(
            tr("Laying the sheets out …"),
            tr("Stopped. Nothing was printed."),
            jobs.all_sheets_of,
            self._document.project,
            self.clock(),
            then=self.choose_sheets,
        )

    def ask_print_shown(self) -> None:
        """Print what is on the bench and on the card."""
        self.choose_sheets(self.sheets_shown())

    def choose_sheets(self, sheets: tuple[Sheet, ...]) -> None:
        """Show sheets, to be looked at, chosen and printed."""
        from nullah.desk.printing import PrintDialog

        PrintDialog(self._window, sheets, self._settings, self.print_on, Path(self._folder())).open()

    def print_on(self, printer: QPrinter, sheets: tuple[Sheet, ...]) -> None:
        """Print sheets at full size on a printer, page by page: the window goes on meanwhile."""
        from nullah.desk.printing import Printing
        from nullah.paper.files import PAPERS, page_layout

        if self.printing is not None and self.printing.running:
            self._refuse(tr("Something is being printed: wait for it, or stop it."))
            return
        paper = PAPERS[self._settings.paper]
        printer.setPageLayout(page_layout(paper))
        printer.setFullPage(True)
        painter = QPainter()
        if not painter.begin(printer):
            self._refuse(tr("The printer does not answer. Write the sheets into a folder and print the PDF."))
            return
        self.printing = Printing(self._banner, printer, painter, sheets, paper)
        self.printing.start()

    def sheets_shown(self) -> tuple[Sheet, ...]:
        """Return the page, or two, of what is on the bench and on the card."""
        from nullah.core.sheets.as_shown import as_shown

        station = STATIONS[self._window.station]  # type: ignore[attr-defined]
        return as_shown(self._document.plan, station, self._document.selection)

    def ask_write_shown(self) -> None:
        """Ask for a file and write what is shown into it."""
        from nullah.desk.papers import file_name

        start = Path(self._folder()) / f"{file_name(self.sheets_shown()[0].title)}.pdf"
        name, _ = QFileDialog.getSaveFileName(
            self._window, tr("Write what is shown"), str(start), tr("Paper (*.pdf *.svg)")
        )
        if name:
            self.write_shown(Path(name))

    def write_shown(self, path: Path) -> None:
        """Write what is on the bench and on the card as PDF, or as SVG by the file's name, and say so."""
        from nullah.paper.files import PaperError, write_pdf, write_svg

        sheets = self.sheets_shown()
        try:
            if path.suffix.lower() == ".svg":
                for number, sheet in enumerate(sheets):
                    write_svg(sheet, path if number == 0 else path.with_stem(f"{path.stem}-{number + 1}"))
            else:
                write_pdf(sheets, path)
        except PaperError as error:
            self._refuse(error)
            return
        self._banner.say(tr("{title} is in {path}.", title=sheets[0].title, path=path))

    # --- lists ---

    def ask_boards(self) -> None:
        """Ask for a list of boards and put them on the rack."""
        name, _ = QFileDialog.getOpenFileName(self._window, tr("Bring boards in"), self._folder(), tr(_TABLE))
        if name:
            self.bring_boards(Path(name))

    def bring_boards(self, path: Path) -> bool:
        """Put the boards of a list on the rack, as one step; on failure say why and leave all as it is."""
        from nullah.core import actions
        from nullah.core.wording.rack import passed_over_words
        from nullah.files.rack_tables import columns_passed_over, read_rack
        from nullah.files.tables import TableError

        try:
            boards, over = read_rack(path), columns_passed_over(path)
        except TableError as error:
            self._refuse(error)
            return False
        if not boards:
            self._refuse(tr("{name} has no board in it.", name=path.name))
            return False
        words = tr("bring in {count} boards of {name}", count=len(boards), name=path.name)
        refused = self._document.do(words, lambda p: actions.add_boards(p, boards))
        done = tr("{count} boards of {name} are on the rack.", count=len(boards), name=path.name)
        if over:
            done = f"{done} {passed_over_words(over, path.name, self._document.plan.reader)}"
        self._banner.say(refused or done)
        return not refused

    def ask_survey(self) -> None:
        """Ask for a survey of the board in hand."""
        name, _ = QFileDialog.getOpenFileName(self._window, tr("Bring a survey in"), self._folder(), tr(_TABLE))
        if name:
            self.bring_survey(Path(name))

    def bring_survey(self, path: Path) -> bool:
        """Return the board in hand the survey of a table (``x,y,top,bottom``); on failure say why."""
        from nullah.core import actions
        from nullah.core.milling.survey import SurveyError, from_points, surface_of
        from nullah.files.tables import TableError, read_survey_points

        board = self._document.project.board(self._document.selection.board)
        if board is None:
            self._banner.say(tr("Take the board in hand first: the survey is of that one."))
            return False
        try:
            surface = surface_of(from_points(read_survey_points(path)))
        except (TableError, SurveyError) as error:
            self._refuse(error)
            return False
        seen = replace(board, surface=surface)
        refused = self._document.do(tr("survey of {name}", name=board.name), lambda p: actions.change_board(p, seen))
        self._banner.say(
            refused
            or tr("{name} is surveyed at {count} places.", name=board.name, count=len(surface.xs) * len(surface.ys))
        )
        return not refused

    def ask_rack(self) -> None:
        """Ask for a file and write the boards of the rack into it."""
        start = Path(self._folder()) / "rack.csv"
        name, _ = QFileDialog.getSaveFileName(self._window, tr("Write the rack"), str(start), tr(_TABLE))
        if name:
            self.write_rack(Path(name))

    def write_rack(self, path: Path) -> None:
        """Write the boards into one table and their flaws into another beside it, and say so."""
        from nullah.files.rack_tables import flaws_beside, flaws_text, rack_text
        from nullah.writing import why, write_file

        boards, beside = self._document.project.boards, flaws_beside(path)
        try:
            write_file(path, rack_text(boards))
            write_file(beside, flaws_text(boards))
        except OSError as error:
            self._refuse(tr("{path} cannot be written: {why}.", path=path, why=why(error)))
            return
        self._banner.say(
            tr(
                "{count} boards are in {name}, their flaws in {flaws} beside it.",
                count=len(boards),
                name=path.name,
                flaws=beside.name,
            )
        )
