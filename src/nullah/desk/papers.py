"""Papers: opening, saving, printing, and work that was left unsaved."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from pathlib import Path

from PySide6.QtGui import QAction, QKeySequence, QPainter
from PySide6.QtWidgets import QFileDialog, QMainWindow, QMenu

from nullah.core.project import Project
from nullah.core.stations import STATIONS
from nullah.desk.document import Document
from nullah.desk.header import Banner
from nullah.files.errors import ProjectFileError
from nullah.files.recovery import Autosave, Lost

TYPE_CHECKING = False
if TYPE_CHECKING:
    from PySide6.QtPrintSupport import QPrinter

    from nullah.core.sheets.page import Sheet

_FILTER = "Nullah projects (*.nullah)"
_TABLE = "Tables (*.csv)"


class Papers:
    """What is done with files, and the keys for it."""

    def __init__(self, window: QMainWindow, document: Document, autosave: Autosave, banner: Banner) -> None:
        self._window, self._document, self._autosave, self._banner = window, document, autosave, banner
        self._entries: tuple[tuple[str, str, object], ...] = (
            ("New piece", "Ctrl+N", self.new),
            ("Open …", "Ctrl+O", self.ask_open),
            ("Open the sample piece", "", self.open_sample),
            ("", "", None),
            ("Save", "Ctrl+S", self.save),
            ("Save as …", "Ctrl+Shift+S", self.ask_save),
            ("", "", None),
            ("Print …", "Ctrl+P", self.ask_print),
            ("Print what is shown …", "Ctrl+Shift+P", self.ask_print_shown),
            ("Write what is shown …", "", self.ask_write_shown),
            ("Write all sheets into a folder …", "Ctrl+E", self.ask_sheets),
            ("Write the solids …", "", self.ask_solids),
            ("", "", None),
            ("Bring boards in from a list …", "", self.ask_boards),
            ("Bring a survey of the board in hand in …", "", self.ask_survey),
            ("Write the rack as a list …", "", self.ask_rack),
            ("", "", None),
            ("Undo", "Ctrl+Z", document.undo),
            ("Redo", "Ctrl+Shift+Z", document.redo),
            ("", "", None),
            ("Close", "Ctrl+Q", window.close),
        )
        self._actions: list[QAction | None] = []

    def add_shortcuts(self) -> None:
        """Make every entry work from the keyboard, and Ctrl+1 … go to the stations."""
        for text, keys, act in self._entries:
            if act is None:
                self._actions.append(None)
                continue
            action = QAction(text, self._window)
            if keys:
                action.setShortcut(QKeySequence(keys))
            action.triggered.connect(lambda _=False, a=act: a())
            self._window.addAction(action)
            self._actions.append(action)
        for number in range(len(STATIONS)):
            action = QAction(STATIONS[number].title, self._window)
            action.setShortcut(QKeySequence(f"Ctrl+{number + 1}"))
            action.triggered.connect(lambda _=False, n=number: self._window.show_station(n))  # type: ignore[attr-defined]
            self._window.addAction(action)

    def fill_menu(self, menu: QMenu) -> None:
        """Fill the menu with the entries as they stand now."""
        menu.clear()
        names = {"Undo": self._document.undo_name, "Redo": self._document.redo_name}
        for action in self._actions:
            if action is None:
                menu.addSeparator()
                continue
            word = action.text().partition(":")[0]
            if word in names:
                action.setText(f"{word}: {names[word]}" if names[word] else word)
                action.setEnabled(True)
            menu.addAction(action)

    # --- opening ---

    def open_path(self, path: Path) -> bool:
        """Open a project file; on failure say why and leave what is open as it is."""
        from nullah.files.project_file import read_project

        try:
            project = read_project(path)
        except ProjectFileError as error:
            self._banner.say(str(error))
            return False
        self._replace(project, path)
        return True

    def _replace(self, project: Project, file: Path | None, saved: bool = True) -> None:
        """Put another project on the desk; unsaved work of the old one is set aside, not lost."""
        name = self._document.project.piece.name
        aside: Lost | None = None
        if self._document.unsaved:
            aside = self._autosave.set_aside(self._document.project, self._document.file)
            if aside is None:
                self._banner.say(
                    f"{name} is not saved and cannot be set aside: the disk refuses. Save it to a file first.",
                    ("Save it …", self.ask_save),
                )
                return
        self._document.replace_project(project, file, saved)
        if aside is not None:
            kept = aside
            self._banner.say(f"{name} was not saved. It is kept.", ("Take it up again", lambda: self.take_up(kept)))
        else:
            self._banner.hide()

    def new(self) -> None:
        """Begin a new piece, from what the last ones taught."""
        from nullah.files.piece_records import begin_from, read_records, records_file

        fresh = Project(marks=self._document.project.marks)
        self._replace(begin_from(fresh, read_records(records_file())), None)

    def open_sample(self) -> None:
        """Open the sample piece."""
        from nullah.demo.seed_cabinet import seed_cabinet

        self._replace(seed_cabinet(), None)

    def ask_open(self) -> None:
        """Ask for a file and open it."""
        name, _ = QFileDialog.getOpenFileName(self._window, "Open a piece", self._folder(), _FILTER)
        if name:
            self.open_path(Path(name))

    def _folder(self) -> str:
        return str(self._document.file.parent if self._document.file else Path.home())

    # --- saving ---

    def save(self) -> None:
        """Save to the file it came from, or ask for one."""
        if self._document.file is None:
            self.ask_save()
        else:
            self.save_path(self._document.file)

    def ask_save(self) -> None:
        """Ask for a file and save."""
        start = self._document.file or Path(self._folder()) / f"{_file_name(self._document.project.piece.name)}.nullah"
        name, _ = QFileDialog.getSaveFileName(self._window, "Save the piece", str(start), _FILTER)
        if name:
            path = Path(name)
            self.save_path(path if path.suffix else path.with_suffix(".nullah"))

    def save_path(self, path: Path) -> bool:
        """Save to a file; on failure say why. The work stays here either way."""
        try:
            self._document.save(path)
        except ProjectFileError as error:
            self._banner.say(str(error), ("Save elsewhere …", self.ask_save))
            return False
        self._banner.hide()
        return True

    # --- unsaved work of earlier ---

    def offer_lost(self) -> None:
        """Offer work that an earlier desk left unsaved, if there is any."""
        for lost in self._autosave.lost():
            try:
                project = lost.read()
            except ProjectFileError:
                continue
            self._banner.say(
                f"{project.piece.name}, from {lost.when:%d %B %H:%M}, was not saved when the desk closed.",
                ("Take it up", partial(self.take_up, lost)),
                ("Drop it", lost.drop),
            )
            return

    def take_up(self, lost: Lost) -> None:
        """Open work that was left unsaved."""
        try:
            project = lost.read()
        except ProjectFileError as error:
            self._banner.say(str(error))
            return
        self._replace(project, lost.file, saved=False)
        if self._document.keep():
            lost.drop()

    # --- paper ---

    def ask_sheets(self) -> None:
        """Ask for a folder and write every sheet and list into it."""
        folder = QFileDialog.getExistingDirectory(self._window, "Write all sheets into", self._folder())
        if folder:
            self.write_sheets(Path(folder))

    def write_sheets(self, folder: Path) -> None:
        """Write every sheet and list into a folder, and say so."""
        from nullah.desk.bundle import write_bundle
        from nullah.paper.files import PaperError

        try:
            written = write_bundle(self._document.project, folder)
        except PaperError as error:
            self._banner.say(str(error))
            return
        self._banner.say(f"{len(written)} files written to {folder}. Print the template at 100 % and check its scale.")

    def ask_solids(self) -> None:
        """Ask for a file and write the solids into it."""
        start = Path(self._folder()) / f"{_file_name(self._document.project.piece.name)}.glb"
        name, _ = QFileDialog.getSaveFileName(self._window, "Write the solids", str(start), "Solids (*.glb *.stl)")
        if name:
            self.write_solids(Path(name))

    def write_solids(self, path: Path) -> None:
        """Write the solids of the piece, and say so."""
        from nullah.core.plan import work_out
        from nullah.files.solids import SolidsError, write_solids

        try:
            write_solids(work_out(self._document.project), path)
        except SolidsError as error:
            self._banner.say(str(error))
            return
        self._banner.say(f"The solids are in {path}.")

    # --- lists ---

    def ask_boards(self) -> None:
        """Ask for a list of boards and put them on the rack."""
        name, _ = QFileDialog.getOpenFileName(self._window, "Bring boards in", self._folder(), _TABLE)
        if name:
            self.bring_boards(Path(name))

    def bring_boards(self, path: Path) -> bool:
        """Put the boards of a list on the rack, as one step; on failure say why and leave all as it is."""
        from nullah.core import actions
        from nullah.files.rack_tables import read_rack
        from nullah.files.tables import TableError

        try:
            boards = read_rack(path)
        except TableError as error:
            self._banner.say(str(error))
            return False
        if not boards:
            self._banner.say(f"{path.name} has no board in it.")
            return False
        words = f"bring in {len(boards)} boards of {path.name}"
        refused = self._document.do(words, lambda p: actions.add_boards(p, boards))
        self._banner.say(refused or f"{len(boards)} boards of {path.name} are on the rack.")
        return not refused

    def ask_survey(self) -> None:
        """Ask for a survey of the board in hand."""
        name, _ = QFileDialog.getOpenFileName(self._window, "Bring a survey in", self._folder(), _TABLE)
        if name:
            self.bring_survey(Path(name))

    def bring_survey(self, path: Path) -> bool:
        """Give the board in hand the survey of a table (``x,y,top,bottom``); on failure say why."""
        from nullah.core import actions
        from nullah.core.milling.survey import SurveyError, from_points, surface_of
        from nullah.files.tables import TableError, read_survey_points

        board = self._document.project.board(self._document.hand.board)
        if board is None:
            self._banner.say("Take the board in hand first: the survey is of that one.")
            return False
        try:
            surface = surface_of(from_points(read_survey_points(path)))
        except (TableError, SurveyError) as error:
            self._banner.say(str(error))
            return False
        seen = replace(board, surface=surface)
        refused = self._document.do(f"survey of {board.name}", lambda p: actions.change_board(p, seen))
        self._banner.say(refused or f"{board.name} is surveyed at {len(surface.xs) * len(surface.ys)} places.")
        return not refused

    def ask_rack(self) -> None:
        """Ask for a file and write the boards of the rack into it."""
        start = Path(self._folder()) / "rack.csv"
        name, _ = QFileDialog.getSaveFileName(self._window, "Write the rack", str(start), _TABLE)
        if name:
            self.write_rack(Path(name))

    def write_rack(self, path: Path) -> None:
        """Write the boards into one table and their flaws into another beside it, and say so."""
        from nullah.files.project_file import write_whole
        from nullah.files.rack_tables import flaws_beside, flaws_text, rack_text

        boards, beside = self._document.project.boards, flaws_beside(path)
        try:
            write_whole(path, rack_text(boards))
            write_whole(beside, flaws_text(boards))
        except OSError as error:
            self._banner.say(f"{path} cannot be written: {error.strerror or error}.")
            return
        self._banner.say(f"{len(boards)} boards are in {path.name}, their flaws in {beside.name} beside it.")

    def ask_print(self) -> None:
        """Print every sheet at full size."""
        self._ask_printer(self.print_on)

    def ask_print_shown(self) -> None:
        """Print what is on the bench and on the card."""
        self._ask_printer(lambda printer: self.print_on(printer, self.sheets_shown()))

    def _ask_printer(self, then: Callable[[QPrinter], None]) -> None:
        from PySide6.QtPrintSupport import QPrintDialog, QPrinter

        printer = QPrinter(QPrinter.PrinterMode.HighResolution)
        if QPrintDialog(printer, self._window).exec() == QPrintDialog.DialogCode.Accepted:
            then(printer)

    def sheets_shown(self) -> tuple[Sheet, ...]:
        """Give the page, or two, of what is on the bench and on the card."""
        from nullah.core.sheets.as_shown import as_shown

        station = STATIONS[self._window.station]  # type: ignore[attr-defined]
        return as_shown(self._document.plan, station, self._document.hand)

    def ask_write_shown(self) -> None:
        """Ask for a file and write what is shown into it."""
        start = Path(self._folder()) / f"{_file_name(self.sheets_shown()[0].title)}.pdf"
        name, _ = QFileDialog.getSaveFileName(self._window, "Write what is shown", str(start), "Paper (*.pdf *.svg)")
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
            self._banner.say(str(error))
            return
        self._banner.say(f"{sheets[0].title} is in {path}.")

    def print_on(self, printer: QPrinter, sheets: tuple[Sheet, ...] = ()) -> None:
        """Print sheets at full size on a printer; all there are of the piece unless some are given."""
        from nullah.core.plan import work_out
        from nullah.core.sheets.sheets import all_sheets
        from nullah.paper.files import page_layout
        from nullah.paper.painter import Scale, paint
        from nullah.paper.palette import INK

        sheets = sheets or all_sheets(work_out(self._document.project))
        printer.setPageLayout(page_layout(sheets[0]))
        printer.setFullPage(True)
        painter = QPainter()
        if not painter.begin(printer):
            self._banner.say("The printer does not answer. Write the sheets into a folder and print the PDF.")
            return
        per_mm = printer.resolution() / 25.4
        for number, sheet in enumerate(sheets):
            if number:
                printer.newPage()
            paint(painter, sheet.drawing, Scale(per_mm, per_mm), INK)
        painter.end()


def _file_name(name: str) -> str:
    kept = "".join(letter if letter.isalnum() or letter in " -_" else "-" for letter in name)
    return kept.strip().lower().replace(" ", "-") or "piece"
