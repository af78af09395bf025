"""Printing: which sheets, on which paper, looked at before; and the sheets on their way to the printer."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QRectF, QSize, Qt, QTimer
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtPrintSupport import QPrintDialog, QPrinter
from PySide6.QtWidgets import QDialog, QFileDialog, QHBoxLayout, QTreeWidget, QTreeWidgetItem, QVBoxLayout, QWidget

from nullah.core.sheets.page import Sheet, SheetKind
from nullah.core.wording.facts import error_words
from nullah.desk.banner import Banner, Urgency
from nullah.desk.settings import Settings
from nullah.desk.stations.base import action, chooser, show_choice
from nullah.desk.text_label import TextLabel
from nullah.desk.tips import plain_tip
from nullah.language import tr, tr_count
from nullah.paper.files import PAPERS, PaperError, page_layout, paint_sheet, write_pdf
from nullah.paper.palette import DAY

_NUMBER = Qt.ItemDataRole.UserRole


class _Preview(QWidget):
    """A sheet on its paper, as it will be printed."""

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("How the page will look"))
        self.sheet: Sheet | None = None
        self.paper = PAPERS["A4"]

    def sizeHint(self) -> QSize:
        return QSize(420, 560)

    def show_sheet(self, sheet: Sheet | None, paper: tuple[float, float]) -> None:
        """Show a sheet on a paper."""
        self.sheet, self.paper = sheet, paper
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.sheet is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        wide, high = self.paper
        per_mm = min((self.width() - 12) / wide, (self.height() - 12) / high)
        painter.translate((self.width() - wide * per_mm) / 2, (self.height() - high * per_mm) / 2)
        painter.fillRect(QRectF(0, 0, wide * per_mm, high * per_mm), QColor("#ffffff"))
        painter.setPen(QColor(DAY.border))
        painter.drawRect(QRectF(0, 0, wide * per_mm, high * per_mm))
        paint_sheet(painter, self.sheet, self.paper, per_mm)
        painter.end()


class PrintDialog(QDialog):
    """The sheets to choose from, each to be looked at; what is chosen is printed, or written as one PDF.

    `printed` is called with a printer and the sheets that are to go to it; `folder` is where a PDF is offered to go.
    """

    def __init__(
        self,
        over: QWidget,
        sheets: tuple[Sheet, ...],
        settings: Settings,
        printed: Callable[[QPrinter, tuple[Sheet, ...]], None],
        folder: Path,
    ) -> None:
        super().__init__(over)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setWindowTitle(tr("Print"))
        self.resize(900, 660)
        self._sheets, self._settings, self._printed, self._folder = sheets, settings, printed, folder
        self.list = QTreeWidget()
        self.list.setAccessibleName(tr("Sheets to print"))
        self.list.setHeaderHidden(True)
        self.list.setMinimumWidth(380)
        self.items: list[QTreeWidgetItem] = []
        self._fill()
        self.preview = _Preview()
        self.told = TextLabel(quiet=True)
        self._lay_out()
        self.list.itemChanged.connect(lambda _: self._tell())
        self.list.currentItemChanged.connect(lambda *_: self._show())
        self.list.setCurrentItem(self.items[0])
        self._tell()

    def _fill(self) -> None:
        """Put every sheet under its kind; a kind is ticked as a whole."""
        kinds: dict[SheetKind, QTreeWidgetItem] = {}
        for number, sheet in enumerate(self._sheets):
            above = kinds.get(sheet.kind)
            if above is None:
                above = kinds[sheet.kind] = QTreeWidgetItem(self.list, [sheet.kind.value.capitalize()])
                above.setFlags(above.flags() | Qt.ItemFlag.ItemIsAutoTristate | Qt.ItemFlag.ItemIsUserCheckable)
                above.setData(0, _NUMBER, number)
            item = QTreeWidgetItem(above, [f"{sheet.title}: {sheet.of}" if sheet.of else sheet.title])
            item.setCheckState(0, Qt.CheckState.Checked)
            item.setToolTip(0, plain_tip(item.text(0)))
            item.setData(0, _NUMBER, number)
            self.items.append(item)
        next(iter(kinds.values())).setExpanded(True)

    def _lay_out(self) -> None:
        whole = QVBoxLayout(self)
        middle = QHBoxLayout()
        left = QVBoxLayout()
        left.addWidget(self.list, 1)
        marks = QHBoxLayout()
        self.all = action(tr("All"), lambda: self._mark(Qt.CheckState.Checked), marks)
        self.none = action(tr("None"), lambda: self._mark(Qt.CheckState.Unchecked), marks)
        marks.addStretch(1)
        marks.addWidget(self.told)
        left.addLayout(marks)
        papers = [(name, name) for name in PAPERS]
        self.paper = chooser(tr("paper"), papers, self._take_paper, left, tr("Paper"))
        show_choice(self.paper, self._settings.paper)
        middle.addLayout(left)
        middle.addWidget(self.preview, 1)
        whole.addLayout(middle, 1)
        said = TextLabel(
            tr("Every sheet is laid out at full size: print at 100 %, and measure the printed scale with a rule."),
            wraps=True,
        )
        whole.addWidget(said)
        buttons = QHBoxLayout()
        action(tr("Close"), self.reject, buttons)
        buttons.addStretch(1)
        self.pdf = action(tr("Write a PDF …"), self._ask_pdf, buttons)
        self.print = action(tr("Print …"), self._ask_printer, buttons, main=True)
        whole.addLayout(buttons)

    @property
    def chosen(self) -> tuple[Sheet, ...]:
        """The sheets that are ticked, in order."""
        ticked = {item.data(0, _NUMBER) for item in self.items if item.checkState(0) is Qt.CheckState.Checked}
        return tuple(sheet for number, sheet in enumerate(self._sheets) if number in ticked)

    def _mark(self, state: Qt.CheckState) -> None:
        for item in self.items:
            item.setCheckState(0, state)

    def _tell(self) -> None:
        count = len(self.chosen)
        self.told.setText(tr("{count} of {all} pages", count=count, all=len(self._sheets)))
        for button in (self.pdf, self.print):
            button.setEnabled(count > 0)

    def _show(self) -> None:
        item = self.list.currentItem()
        sheet = self._sheets[item.data(0, _NUMBER)] if item is not None else None
        self.preview.show_sheet(sheet, PAPERS[self._settings.paper])

    def _take_paper(self, name: str) -> None:
        self._settings.paper = name
        self._show()

    def _ask_printer(self) -> None:
        printer = QPrinter(QPrinter.PrinterMode.HighResolution)
        printer.setPageLayout(page_layout(PAPERS[self._settings.paper]))
        dialog = QPrintDialog(printer, self)
        dialog.setMinMax(1, len(self.chosen))
        if dialog.exec() == QPrintDialog.DialogCode.Accepted:
            self._printed(printer, pages_of(printer, self.chosen))
            self.accept()

    def _ask_pdf(self) -> None:
        name, _ = QFileDialog.getSaveFileName(
            self, tr("Write a PDF"), str(self._folder / "sheets.pdf"), tr("PDF (*.pdf)")
        )
        if not name:
            return
        try:
            write_pdf(self.chosen, Path(name), PAPERS[self._settings.paper])
        except PaperError as error:
            self.told.setText(error_words(error))
            return
        self.told.setText(tr("{count} pages are in {name}.", count=len(self.chosen), name=Path(name).name))


def pages_of(printer: QPrinter, sheets: tuple[Sheet, ...]) -> tuple[Sheet, ...]:
    """Return the sheets of the pages that were asked for in the printer's own dialog; all, if none were."""
    if printer.printRange() is not QPrinter.PrintRange.PageRange or not printer.fromPage():
        return sheets
    return sheets[printer.fromPage() - 1 : printer.toPage()]


class Printing:
    """Sheets on their way to a printer: a page at a time, with the window's own work between."""

    def __init__(
        self,
        banner: Banner,
        printer: QPrinter,
        painter: QPainter,
        sheets: tuple[Sheet, ...],
        paper: tuple[float, float],
    ) -> None:
        self._banner, self._printer, self._painter = banner, printer, painter
        self._sheets, self._paper = sheets, paper
        self._next = 0
        self.running = True
        self._timer = QTimer()
        self._timer.timeout.connect(self._page)

    def start(self) -> None:
        """Begin."""
        self._banner.say(self._words(), (tr("Stop"), self.abort), urgency=Urgency.QUESTION, dismiss=False)
        self._timer.start(0)

    def _words(self) -> str:
        return tr("Printing page {page} of {count} …", page=self._next + 1, count=len(self._sheets))

    def _page(self) -> None:
        if self._next:
            self._printer.newPage()
        paint_sheet(self._painter, self._sheets[self._next], self._paper, self._printer.resolution() / 25.4)
        self._next += 1
        if self._next < len(self._sheets):
            self._banner.tell(self._words(), Urgency.QUESTION)
            return
        self.stop()
        self._banner.say(
            tr_count(
                self._next,
                "{n} page went to the printer, at full size.",
                "{n} pages went to the printer, at full size.",
            )
        )

    def abort(self) -> None:
        """Stop, and tell the printer to drop what it has."""
        if self.running:
            self._printer.abort()
            self.stop()
            self._banner.say(tr("Stopped after page {page} of {count}.", page=self._next, count=len(self._sheets)))

    def stop(self) -> None:
        """End without a word."""
        if self.running:
            self.running = False
            self._timer.stop()
            self._painter.end()
            self._banner.forget(Urgency.QUESTION)
