"""The window: the frame that stays the same at every station."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from importlib import import_module
from pathlib import Path
from typing import Protocol, runtime_checkable

from PySide6.QtCore import QPointF, SignalInstance
from PySide6.QtGui import QCloseEvent, QResizeEvent
from PySide6.QtWidgets import QApplication, QGridLayout, QLineEdit, QMainWindow, QStackedWidget, QVBoxLayout, QWidget

from nullah.core import actions
from nullah.core.apply_fix import action_of
from nullah.core.drawing import Drawing
from nullah.core.fixes import Fix, SetOutTo
from nullah.core.lengths import Unit
from nullah.core.refs import FlawRef, PartRef, PieceRef, QuantityRef, Ref
from nullah.core.stations import STATIONS
from nullah.core.wording.card import worded
from nullah.core.wording.facts import fact_words
from nullah.core.wording.fixes import fix_words
from nullah.desk.banner import Banner, Urgency
from nullah.desk.bench import Bench
from nullah.desk.card import CardView
from nullah.desk.document import Document
from nullah.desk.header import Header
from nullah.desk.papers import Papers
from nullah.desk.rod import Rod
from nullah.desk.stations.base import StationDesk
from nullah.desk.strip import PartStrip
from nullah.desk.theme import dress
from nullah.files.recovery import Autosave
from nullah.paper.palette import DAY, NIGHT, Palette

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.desk.editor import FigureEditor

# Module and class of each station's row of choices: loaded when the station is first gone to.
_DESKS = {
    "piece": ("piece", "PieceDesk"),
    "rack": ("rack", "RackDesk"),
    "breakdown": ("breakdown", "BreakdownDesk"),
    "milling": ("milling", "MillingDesk"),
    "joints": ("joints", "JointsDesk"),
    "season": ("season", "SeasonDesk"),
    "daybook": ("daybook", "DaybookDesk"),
}


@runtime_checkable
class HasPalette(Protocol):
    """What takes another theme."""

    def set_palette(self, palette: Palette) -> None:
        """Take it."""


@runtime_checkable
class HasFigures(Protocol):
    """What stands in the place of the drawing and shows figures that can be typed."""

    figure: SignalInstance

    def place_of(self, ref: Ref) -> QPointF | None:
        """Return where a figure stands on it."""


class Window(QMainWindow):
    """The desk. Everything shown follows from `document`; everything done goes through it."""

    def __init__(self, document: Document, autosave: Autosave) -> None:
        super().__init__()
        self.document = document
        self.station = 0
        self.palette_: Palette = DAY
        self._drawn_for: tuple[object, ...] = ()
        self._lose = False
        self.setWindowTitle("Nullah")
        self.resize(1280, 800)
        self.setMinimumSize(1024, 640)
        self._make_frame()
        self.papers = Papers(self, document, autosave, self.banner)
        self.papers.before_replacing = self.enter_typing
        self.header.menu_wanted.connect(self.papers.fill_menu)
        self._wire()
        self.papers.add_shortcuts()
        self._take_palette(DAY)
        self.show_station(0)
        self.bench.setFocus()

    def _make_frame(self) -> None:
        self.header, self.banner = Header(self.document), Banner()
        self.rod, self.bench, self.card, self.strip = Rod(), Bench(), CardView(), PartStrip()
        self._editor: FigureEditor | None = None
        self.tools = QStackedWidget()
        self.tools.setObjectName("tools")
        self._desks: dict[int, StationDesk] = {}
        middle = QVBoxLayout()
        middle.setSpacing(0)
        middle.addWidget(self.tools)
        self.place = QStackedWidget()
        self.place.addWidget(self.bench)
        middle.addWidget(self.place, 1)
        frame = QWidget()
        frame.setObjectName("frame")
        grid = QGridLayout(frame)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(0)
        grid.addWidget(self.header, 0, 0, 1, 3)
        grid.addWidget(self.banner, 1, 0, 1, 3)
        grid.addWidget(self.rod, 2, 0)
        grid.addLayout(middle, 2, 1)
        grid.addWidget(self.card, 2, 2)
        grid.addWidget(self.strip, 3, 0, 1, 3)
        grid.setColumnStretch(1, 1)
        grid.setRowStretch(2, 1)
        self.setCentralWidget(frame)

    def desk(self, number: int) -> StationDesk:
        """Return a station's row of choices, made when it is first wanted."""
        if number not in self._desks:
            module, name = _DESKS.get(STATIONS[number].id, ("base", "StationDesk"))
            kind: type[StationDesk] = getattr(import_module(f"nullah.desk.stations.{module}"), name)
            self._desks[number] = kind(self.document, self.bench)
            self._desks[number].page_wanted.connect(self._show_page)
            self._desks[number].resized.connect(self._fit_tools)
            self.tools.addWidget(self._desks[number])
        return self._desks[number]

    @property
    def editor(self) -> FigureEditor:
        """The slip for typing a figure, made when it is first wanted."""
        if self._editor is None:
            from nullah.desk.editor import FigureEditor

            self._editor = FigureEditor(self.document, self.place)
        return self._editor

    def _put_slip_away(self) -> None:
        if self._editor is not None:
            self._editor.close_slip()

    def _wire(self) -> None:
        self.document.changed.connect(self._refresh_all)
        self.document.selection_changed.connect(self._refresh_all)
        self.document.replaced.connect(self._forget_typing)
        self.banner.left.connect(lambda: (self.place.currentWidget() or self.bench).setFocus())
        self.document.warned.connect(
            lambda sentence: self.banner.say(sentence, ("Save it …", self.papers.ask_save), urgency=Urgency.ERROR)
        )
        self.rod.chosen.connect(self.show_station)
        self.strip.picked.connect(self.document.pick_part)
        self.card.fix.connect(self.do_fix)
        self.card.figure.connect(self._figure_clicked)
        self.bench.clicked.connect(self._bench_clicked)
        self.header.unit_chosen.connect(self.show_unit)
        self.header.mark_chosen.connect(self.show_mark)
        self.header.theme_chosen.connect(lambda night: self.set_theme(NIGHT if night else DAY))
        self.header.renamed.connect(self._rename)

    # --- what is shown ---

    def show_station(self, number: int) -> None:
        """Go to a station."""
        self._put_slip_away()
        self.bench.overlay = Drawing()
        self.station = number
        self.bench.tool = self.desk(number).tool
        self.tools.setCurrentWidget(self.desk(number))
        # A station without choices gives its room to the bench.
        self.tools.setVisible(STATIONS[number].id in _DESKS)
        self._refresh_all()
        self._show_page()

    def _show_page(self) -> None:
        """Put the drawing, or what the station wants instead of it, into the middle."""
        self._put_slip_away()
        page = self.desk(self.station).page() or self.bench
        if self.place.indexOf(page) < 0:
            self.place.addWidget(page)
            if isinstance(page, HasFigures):
                page.figure.connect(self._figure_clicked)
            if isinstance(page, HasPalette):
                page.set_palette(self.palette_)
        self.place.setCurrentWidget(page)
        self.place.setFocusProxy(page)
        if page is not self.bench:
            self.desk(self.station).refresh()
        self._fit_tools_anew()
        if self.header.name.hasFocus() and not self.header.name.isModified():
            # The page that had the focus was put away, and it fell to the first field there is.
            page.setFocus()

    def _refresh_all(self) -> None:
        plan, selection, station = self.document.plan, self.document.selection, STATIONS[self.station]
        piece = PieceRef(selection.breakdown.piece or selection.part)
        lit: set[Ref] = {PartRef(selection.part), piece, QuantityRef(selection.quantity)}
        if station.id == "rack" and selection.rack.flaw is not None:
            lit.add(FlawRef(selection.board, selection.rack.flaw))
        drawing = station.draw(plan, selection)
        # Refit for another station or another size of the drawing, not for every click.
        bounds = tuple(round(b, 1) for b in drawing.bounds()) if drawing.elements else ()
        drawn_for = (self.station, bounds, plan.marks.unit)
        refit, self._drawn_for = drawn_for != self._drawn_for, drawn_for
        self.bench.show_drawing(drawing, station.invitation, frozenset(lit), refit, station.to_scale)
        self.card.show_card(worded(station.card(plan, selection), plan.reader))
        self.rod.show_states([fact_words(each.state(plan), plan.reader) for each in STATIONS], self.station)
        self.strip.show_parts(plan, selection.part)
        self.header.refresh()
        self.desk(self.station).refresh()
        self._fit_tools_anew()
        name = self.document.project.piece.name or "Piece"
        self.setWindowTitle(f"{name}{' *' if self.document.unsaved else ''} · Nullah")

    def _fit_tools_anew(self) -> None:
        """Fit the row of choices after something in it was shown or hidden: its layout is to ask again."""
        self.desk(self.station).rows.invalidate()
        self._fit_tools()

    def _fit_tools(self) -> None:
        """Give the row of choices just the height it needs at this width.

        This follows every layout request of the row, so it must not cause one.
        """
        desk = self.desk(self.station)
        width = self.width() - self.rod.width() - self.card.width()
        self.tools.setFixedHeight(desk.heightForWidth(width) if desk.hasHeightForWidth() else desk.sizeHint().height())

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit_tools()

    def set_theme(self, palette: Palette) -> None:
        """Change between day and night."""
        app = QApplication.instance()
        if isinstance(app, QApplication):
            dress(app, palette)
        self._take_palette(palette)

    def _take_palette(self, palette: Palette) -> None:
        self.palette_ = palette
        pages = [self.place.widget(index) for index in range(1, self.place.count())]
        for part in (self.bench, self.rod, self.strip, *pages):
            if isinstance(part, HasPalette):
                part.set_palette(palette)
        self.header.show_theme(palette is NIGHT)

    def show_unit(self, unit: Unit) -> None:
        """Show figures in another unit."""
        self._put_slip_away()
        self.document.show_in(replace(self.document.project.marks, unit=unit))

    def show_mark(self, mark: Fraction) -> None:
        """Write figures to another smallest mark; a piece that was set out to the one before is set out to it."""
        project = self.document.project
        marks = project.marks.with_smallest(mark)
        followed = project.set_out_mark.mm == project.marks.smallest.mm
        self.document.show_in(marks)
        if followed:
            self.do_fix(SetOutTo(marks.smallest))

    # --- what is done ---

    def _bench_clicked(self, ref: Ref | None, at: QPointF) -> None:
        self._put_slip_away()
        if self.desk(self.station).clicked(ref):
            return
        match ref:
            case None:
                self.document.select(self.document.selection._replace(quantity=""))
            case PartRef(part):
                self.document.pick_part(part)
            case PieceRef(piece):
                rough = self.document.plan.rough_part(piece)
                self.document.pick_part(rough.parts[0] if rough is not None else "")
            case _:
                self._take_figure(ref, at)

    def _figure_clicked(self, ref: Ref) -> None:
        page = self.place.currentWidget()
        at = page.place_of(ref) if isinstance(page, HasFigures) else None
        if at is None and page is self.bench and ref in self.bench.targets():
            at = self.bench.place_of(ref)
        self._take_figure(ref, at or QPointF(self.place.width() - 60, 60))

    def _take_figure(self, ref: Ref, at: QPointF) -> None:
        """Show why a figure is what it is, and open it for typing."""
        if isinstance(ref, QuantityRef):
            self.document.select(self.document.selection._replace(quantity=ref.name))
        self.editor.open(ref, at)

    def do_fix(self, fix: Fix) -> None:
        """Carry out a way out that the card offers."""
        marks = self.document.project.marks
        action = action_of(fix, marks.unit)
        if action is None:
            self.desk([each.id for each in STATIONS].index("daybook")).fix(fix)
        else:
            self.document.do(fix_words(fix, self.document.plan.reader), action)

    def _forget_typing(self) -> None:
        """Let every field show the piece that is opened: what was typed and not entered was of the old one."""
        self._put_slip_away()
        for field in self.findChildren(QLineEdit):
            field.setModified(False)

    def enter_typing(self) -> None:
        """Take what is being typed where leaving the field would take it; what waits for Enter goes on waiting."""
        field = self.focusWidget()
        if isinstance(field, QLineEdit):
            field.editingFinished.emit()

    def keep(self) -> bool:
        """Keep the work, with what is being typed; say whether all is safe."""
        self.enter_typing()
        return self.document.keep()

    def _rename(self, name: str) -> None:
        if name != self.document.project.piece.name:
            self.document.do(f"name it {name}", lambda p: actions.rename(p, name))

    def open_path(self, path: Path) -> bool:
        """Open a project file; a sentence on the banner if it cannot be."""
        return self.papers.open_path(path)

    def closeEvent(self, event: QCloseEvent) -> None:
        self.enter_typing()
        if not self.document.close() and not self._lose:
            self.banner.say(
                f"{self.document.project.piece.name or 'The piece'} is saved nowhere and cannot be kept: "
                "the disk refuses. Closing now loses it.",
                ("Save it …", self.papers.ask_save),
                ("Close and lose it", self._close_and_lose),
                urgency=Urgency.ERROR,
            )
            event.ignore()
            return
        self.papers.exports.wait()
        for desk in self._desks.values():
            desk.leave()
        event.accept()

    def _close_and_lose(self) -> None:
        self._lose = True
        self.close()
