"""Milling on the desk: ways of looking at it, and the choices of each."""

from __future__ import annotations

from PySide6.QtWidgets import QCheckBox, QWidget

from nullah.core.catalogue import N_
from nullah.core.refs import Ref, StepRef
from nullah.core.stations.selection import MillingSelection, MillingView
from nullah.core.stations.stock import selected_board
from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document
from nullah.desk.stations.base import StationDesk, Verb, chooser, show_choice, tabs
from nullah.desk.stations.edge_tasks import EdgeRows
from nullah.desk.stations.forecasting import ForecastRows
from nullah.desk.stations.grain import StrokeRows
from nullah.desk.stations.group import Group, ViewChoices
from nullah.desk.stations.surveying import SurveyRows, SurveyTool
from nullah.language import tr, tr_pairs

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.desk.planing import PlaningPage
    from nullah.desk.sighting import SightingPage

_LOOKS = (
    (MillingView.FORECAST, N_("Forecast")),
    (MillingView.SURVEY, N_("Survey")),
    (MillingView.STROKES, N_("Strokes")),
    (MillingView.EDGES, N_("Edges")),
    (MillingView.PLANING, N_("Plane it")),
    (MillingView.STICKS, N_("Read the sticks")),
)


class MillingDesk(StationDesk):
    """The board in hand, and below it the rows of the way it is looked at."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        self.looks = tabs(self, tr_pairs(_LOOKS), self.show_look, self.line.looks)
        self._board = self.section(tr("Board"))
        self.boards = chooser(tr("board to mill"), [], self._take_board, self._board, tr("Board"))
        self.forecast = ForecastRows(document, bench, self.section)
        self.survey = SurveyRows(document, bench, self.section)
        self.strokes = StrokeRows(document, bench, self.section, self.offer_shop)
        self.edges = EdgeRows(document, bench, self.section)
        self._groups: dict[MillingView, Group] = {
            MillingView.FORECAST: self.forecast,
            MillingView.SURVEY: self.survey,
            MillingView.STROKES: self.strokes,
            MillingView.EDGES: self.edges,
        }
        self._tools = {MillingView.SURVEY: SurveyTool(self.survey)}
        self.planing: PlaningPage | None = None
        self.sighting: SightingPage | None = None
        self._shown = MillingView.FORECAST

    @property
    def ticks(self) -> dict[str, QCheckBox]:
        """The ticks of boards that are cut first."""
        return self.forecast.ticks

    @property
    def look(self) -> MillingView:
        """The way of looking at it."""
        return self.document.selection.milling.view

    def show_look(self, look: MillingView, *_: object) -> None:
        """Look at it another way."""
        self._select(self.document.selection.milling._replace(view=look, step=0, reading=None))

    def _select(self, selection: MillingSelection) -> None:
        self.document.select(self.document.selection._replace(milling=selection))

    def page(self) -> QWidget | None:
        """Return the planing bench or the sticks, in the place of the drawing."""
        if self.look is MillingView.PLANING:
            if self.planing is None:
                from nullah.desk.planing import PlaningPage

                self.planing = PlaningPage(self.document, ViewChoices(self))
            return self.planing
        if self.look is MillingView.STICKS:
            if self.sighting is None:
                from nullah.desk.sighting import SightingPage

                self.sighting = SightingPage(ViewChoices(self), marks=lambda: self.document.project.marks)
            return self.sighting
        return None

    def wants_choices(self) -> bool:
        return self.look in (MillingView.PLANING, MillingView.STICKS)

    def leave(self) -> None:
        if self.planing is not None:
            self.planing.stop()

    def refresh(self) -> None:
        view = self.look
        self.looks[view].setChecked(True)
        self._show_boards()
        for name, group in self._groups.items():
            group.show_group(name == view)
        if view in self._groups:
            self._groups[view].refresh()
        tool = self._tools.get(view) or Tool()
        if self.bench.tool is self.tool:
            self.bench.tool = tool
        self.tool = tool
        if view != self._shown:
            self._shown = view
            if view is not MillingView.PLANING and self.planing is not None:
                self.planing.stop()
            self.page_wanted.emit()
        if self.planing is not None:
            self.planing.choices.show_choices(view is MillingView.PLANING)
            if view is MillingView.PLANING:
                self.planing.refresh()
        if self.sighting is not None:
            self.sighting.choices.show_choices(view is MillingView.STICKS)
        for widget in self._board.widgets():
            widget.setVisible(view is not MillingView.STICKS)

    def _show_boards(self) -> None:
        wanted = [(board.id, board.name) for board in self.document.project.boards]
        shown = [(str(self.boards.itemData(i)), self.boards.itemText(i)) for i in range(self.boards.count())]
        if wanted != shown:
            self.boards.clear()
            for value, text in wanted:
                self.boards.addItem(text, value)
        board = selected_board(self.document.plan, self.document.selection)
        self.boards.setEnabled(board is not None)
        if board is not None:
            show_choice(self.boards, board.id)

    def _take_board(self, board: str) -> None:
        lies_on = {
            part: each.board.id for each in self.document.plan.boards for i in each.placed for part in i.part.parts
        }
        part = self.document.selection.part
        kept = part if lies_on.get(part) == board else next((each for each, at in lies_on.items() if at == board), "")
        milling = self.document.selection.milling._replace(step=0, reading=None)
        self.document.select(self.document.selection._replace(board=board, part=kept, milling=milling))

    def picked(self) -> Ref | None:
        return self.survey.picked() if self.look is MillingView.SURVEY else None

    def verbs(self, ref: Ref) -> tuple[Verb, ...]:
        return self.survey.verbs(ref) if self.look is MillingView.SURVEY else ()

    def clicked(self, ref: Ref | None) -> bool:
        if isinstance(ref, StepRef):
            self._select(self.document.selection.milling._replace(step=ref.number))
            return True
        return self.look is MillingView.SURVEY and self.survey.clicked(ref)
