"""The window: the frame that stays the same at every station."""

from __future__ import annotations

from dataclasses import replace
from importlib import import_module
from pathlib import Path
from typing import Protocol, runtime_checkable

from PySide6.QtCore import QMimeData, QPointF, Qt, Signal, SignalInstance
from PySide6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QResizeEvent
from PySide6.QtWidgets import QApplication, QLineEdit, QWidget
from shiboken6 import isValid

from nullah.core import actions
from nullah.core.apply_fix import action_of
from nullah.core.drawing import Drawing
from nullah.core.fixes import Fix, SetOutTo
from nullah.core.fraction import Fraction
from nullah.core.lengths import Unit
from nullah.core.refs import PartRef, PieceRef, QuantityRef, Ref
from nullah.core.stations import STATIONS
from nullah.core.wording.fixes import fix_words
from nullah.desk.appearance import Appearance, HasPalette
from nullah.desk.banner import Urgency
from nullah.desk.bench_objects import announce
from nullah.desk.column import CARD, CHOOSE
from nullah.desk.document import Document
from nullah.desk.frame import FrameWindow
from nullah.desk.key_pointer import HasPointer
from nullah.desk.menus import Menus
from nullah.desk.over_pages import OverPages
from nullah.desk.papers import Papers
from nullah.desk.picked import Picked
from nullah.desk.settings import Settings
from nullah.desk.showing import Showing
from nullah.desk.stations.base import StationDesk, reach
from nullah.files.recovery import Autosave
from nullah.language import tr
from nullah.paper.palette import DAY

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.desk.editor import FigureEditor

#: Where there is more to choose than to carry away.
_CHOOSE_FIRST = ("piece", "rack")

# Module and class of each station's desk: loaded when the station is first gone to.
_DESKS = {
    "piece": ("piece", "PieceDesk"),
    "rack": ("rack", "RackDesk"),
    "breakdown": ("breakdown", "BreakdownDesk"),
    "milling": ("milling", "MillingDesk"),
    "joints": ("joints", "JointsDesk"),
    "season": ("season", "SeasonDesk"),
    "daybook": ("daybook", "DaybookDesk"),
}


def _dropped(data: QMimeData) -> Path | None:
    """Return the project among what is dropped, if there is one."""
    paths = [Path(url.toLocalFile()) for url in data.urls() if url.isLocalFile()]
    return next((path for path in paths if path.suffix == ".nullah"), None)


@runtime_checkable
class HasFigures(Protocol):
    """What stands in the place of the drawing and shows figures that can be typed."""

    figure: SignalInstance

    def place_of(self, ref: Ref) -> QPointF | None:
        """Return where a figure stands on it."""


@runtime_checkable
class AddsBoards(Protocol):
    """What puts boards of one's own into a piece."""

    def add_own_board(self) -> None:
        """Put one in."""


class Walk(Protocol):
    """A walk through the window."""

    def end(self) -> None:
        """Leave it."""


class Window(FrameWindow):
    """The desk. Everything shown follows from `document`; everything done goes through it."""

    #: Something else is looked at: another station, another page, another side.
    looked = Signal()

    def __init__(self, document: Document, autosave: Autosave, settings: Settings) -> None:
        super().__init__(document, settings)
        self.tour: Walk | None = None
        #: The program is to start again when the window has closed.
        self.start_again = False
        self.station = 0
        self._lose = False
        self.setWindowTitle("Nullah")
        self.setAcceptDrops(True)
        self.appearance = Appearance(document, settings, self.banner, self._wearers)
        self._editor: FigureEditor | None = None
        self._desks: dict[int, StationDesk] = {}
        self.over = OverPages(document, settings, self.frame, lambda: self.appearance.palette)
        self.picked = Picked(self, self._desk_in_hand, self._bench_clicked)
        self.papers = Papers(self, document, autosave, self.banner, settings)
        self.papers.before_replacing = self.enter_typing
        self.menus = Menus(self)
        self.showing = Showing(self, self.picked, self.menus, self._desk_in_hand, lambda: self.station)
        self._wire()
        self.come_back()
        self.appearance.wear(DAY)
        self.show_station(0)
        self.bench.setFocus()

    def _wearers(self) -> list[QWidget | None]:
        """Return all that paints in colours of its own."""
        pages = [self.place.widget(index) for index in range(1, self.place.count())]
        return [self.bench, self.rod, self.strip, self.over, *pages]

    def desk(self, number: int) -> StationDesk:
        """Return a station's desk, made when it is first wanted."""
        if number not in self._desks:
            module, name = _DESKS[STATIONS[number].id]
            kind: type[StationDesk] = getattr(import_module(f"nullah.desk.stations.{module}"), name)
            desk = self._desks[number] = kind(self.document, self.bench)
            desk.page_wanted.connect(self._show_page)
            desk.shop_wanted.connect(self.show_shop)
            desk.station_wanted.connect(
                lambda station: self.show_station([each.id for each in STATIONS].index(station))
            )
            self.lines.addWidget(desk.line)
            desk.notice.setParent(self.place)
        return self._desks[number]

    def _desk_in_hand(self) -> StationDesk:
        return self.desk(self.station)

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
        self.document.changed.connect(lambda: self.showing.refresh())
        self.document.done.connect(lambda name: announce(self.bench, f"{name}. {self.header.unsettled.text()}"))
        self.document.selection_changed.connect(lambda: self.showing.refresh())
        self.document.replaced.connect(self._replaced)
        self.banner.left.connect(lambda: (self.place.currentWidget() or self.bench).setFocus())
        self.document.warned.connect(
            lambda sentence: self.banner.say(sentence, (tr("Save it …"), self.papers.ask_save), urgency=Urgency.ERROR)
        )
        self.rod.chosen.connect(self.show_station)
        self.strip.picked.connect(self.document.pick_part)
        self.column.turned.connect(self.turn_column)
        self.card.fix.connect(self.do_fix)
        self.card.figure.connect(self._figure_clicked)
        self.bench.clicked.connect(self._bench_clicked)
        self.header.unit_chosen.connect(self.show_unit)
        self.header.mark_chosen.connect(self.show_mark)
        self.header.renamed.connect(self._rename)
        self.appearance.worded.connect(lambda: self.show_station(self.station))
        self.appearance.start_wanted.connect(self._start_anew)
        self.over.begun.connect(self._begin)
        self.over.opened.connect(self.papers.open_path)
        self.over.sample.connect(self.papers.open_sample)
        self.over.tour.connect(self.show_tour)
        self.over.left.connect(lambda: (self.place.currentWidget() or self.bench).setFocus())
        application = QApplication.instance()
        if isinstance(application, QApplication):
            application.focusChanged.connect(self._keep_name)

    def _keep_name(self, before: QWidget | None, now: QWidget | None) -> None:
        """Give the keyboard to what is shown where it falls to the name because what had it rests or is gone."""
        if now is not self.header.name or before is None or not isValid(before) or self.header.name.isModified():
            return
        if not (before.isEnabled() and before.isVisible()):
            (self.place.currentWidget() or self.bench).setFocus()

    # --- what is shown ---

    def show_station(self, number: int) -> None:
        """Go to a station."""
        self.over.leave()
        self._put_slip_away()
        self.bench.overlay = Drawing()
        self.bench.pointer.put_away()
        self.station = number
        desk = self.desk(number)
        self.bench.tool = desk.tool
        self.lines.setCurrentWidget(desk.line)
        self.column.show_desk(desk)
        self.column.show_side(self._side())
        self.showing.refresh(station=True)
        self._show_page()

    def _side(self) -> int:
        """Return the side of the column to show at the station in hand."""
        station = STATIONS[self.station].id
        if self.desk(self.station).wants_choices():
            return CHOOSE
        return self.settings.side(station, CHOOSE if station in _CHOOSE_FIRST else CARD)

    def turn_column(self, side: int) -> None:
        """Show the other side of the column, and remember it for this station."""
        if self.column.width() < 1 or not self.split.sizes()[1]:
            self.fold_column()
        self.column.show_side(side)
        self.settings.leave_side(STATIONS[self.station].id, side)

    def take_pointer(self) -> None:
        """Put a pointer that keys move on what is shown, or take it away."""
        page = self.place.currentWidget()
        if isinstance(page, HasPointer):
            page.take_pointer()

    def go_to_choices(self) -> None:
        """Put the keyboard on the first choice of the station; from there, back on the bench."""
        focused = self.focusWidget()
        if focused is not None and self.column.isAncestorOf(focused):
            (self.place.currentWidget() or self.bench).setFocus()
            return
        self.turn_column(CHOOSE)
        first = next(
            (
                widget
                for section in self.desk(self.station).sections
                for pair in section.widgets()
                for widget in (pair, *pair.findChildren(QWidget))
                if widget.isVisible() and widget.isEnabled() and widget.focusPolicy() & Qt.FocusPolicy.TabFocus
            ),
            None,
        )
        if first is not None:
            reach(first)

    def _show_page(self) -> None:
        """Put the drawing, or what the station wants instead of it, into the middle."""
        self._put_slip_away()
        page = self.desk(self.station).page() or self.bench
        if page is self.bench and self.showing.bench_left:
            self.showing.refresh(station=True)
        if self.place.indexOf(page) < 0:
            self.place.addWidget(page)
            if isinstance(page, HasFigures):
                page.figure.connect(self._figure_clicked)
            if isinstance(page, HasPalette):
                page.set_palette(self.appearance.palette)
        self.place.setCurrentWidget(page)
        self.place.setFocusProxy(page)
        desk = self.desk(self.station)
        self.column.show_side(self._side())
        whole = desk.fills_window()
        for each in (self.rod, self.column, self.strip):
            each.setVisible(not whole)
        if page is not self.bench and self.showing.ready():
            self.desk(self.station).refresh()
        self._lay_notices()
        self.looked.emit()

    def _lay_notices(self) -> None:
        for number, desk in self._desks.items():
            if number == self.station:
                desk.notice.lay()
            else:
                desk.notice.hide()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._lay_notices()
        self.over.lay()

    # --- units ---

    def show_unit(self, unit: Unit) -> None:
        """Show figures in another unit; the next new piece begins in it."""
        self._put_slip_away()
        self.settings.unit = unit
        self.document.show_in(replace(self.document.project.marks, unit=unit))

    def show_mark(self, mark: Fraction) -> None:
        """Write figures to another smallest mark; a piece that was set out to the one before is set out to it."""
        project = self.document.project
        marks = project.marks.with_smallest(mark)
        followed = project.set_out_mark.mm == project.marks.smallest.mm
        self.document.show_in(marks)
        if followed:
            self.do_fix(SetOutTo(marks.smallest))

    # --- what is not of one station ---

    def show_start(self) -> None:
        """Show the page from which a piece is begun or opened again."""
        self.over.show_page(self.over.start)

    def show_shop(self) -> None:
        """Show the tools there are and the habits of working."""
        self._put_slip_away()
        self.over.show_page(self.over.shop)

    def _begin(self, form: str, unit: Unit) -> None:
        """Begin a new piece of a form, in a unit."""
        self.settings.unit = unit
        self.papers.new(form, unit)
        self.show_station(0)

    def show_preferences(self) -> None:
        """Show what belongs to the person and is no tool: units, theme, terms."""
        from nullah.desk.preferences import Preferences

        Preferences(self).open()

    def _start_anew(self) -> None:
        self.start_again = True
        self.start_again = self.close()

    def show_manual(self, page: str = "") -> None:
        """Show the manual, at the page of this station or another."""
        from nullah.desk.manual import Manual

        Manual.open_at(self, page or STATIONS[self.station].id)

    def show_tour(self) -> None:
        """Walk through a first box, from its beginning."""
        from nullah.desk.tour import Tour

        if self.tour is not None:
            self.tour.end()
        self.tour = Tour(self)

    def show_about(self) -> None:
        """Say what this is."""
        from nullah.desk.about import show_about

        show_about(self)

    def rename(self) -> None:
        """Put the keyboard on the name of the piece."""
        self.header.name.setFocus()
        self.header.name.selectAll()

    def add_board(self) -> None:
        """Add a board of one's own to the piece."""
        self.show_station(0)
        desk = self.desk(0)
        if isinstance(desk, AddsBoards):
            desk.add_own_board()

    def _replaced(self) -> None:
        self.over.leave()
        self._forget_typing()

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
            self.document.do(tr("name it {name}", name=name), lambda p: actions.rename(p, name))

    def open_path(self, path: Path) -> bool:
        """Open a project file; a sentence on the banner if it cannot be."""
        return self.papers.open_path(path)

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if _dropped(event.mimeData()) is not None:
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        path = _dropped(event.mimeData())
        if path is not None:
            self.open_path(path)

    def closeEvent(self, event: QCloseEvent) -> None:
        self.enter_typing()
        if not self.document.close() and not self._lose:
            self.banner.say(
                tr(
                    "{name} is saved nowhere and cannot be kept: the disk refuses. Closing now loses it.",
                    name=self.document.project.piece.name or "The piece",
                ),
                (tr("Save it …"), self.papers.ask_save),
                (tr("Close and lose it"), self._close_and_lose),
                urgency=Urgency.ERROR,
            )
            event.ignore()
            return
        self.papers.exports.wait()
        self.rest()
        self.settings.leave_window("geometry", self.saveGeometry())
        self.settings.leave_window("column", self.split.saveState())
        event.accept()

    def rest(self) -> None:
        """Stop what the stations and the start page have running aside."""
        for desk in self._desks.values():
            desk.leave()
        self.over.rest()

    def _close_and_lose(self) -> None:
        self._lose = True
        self.close()
