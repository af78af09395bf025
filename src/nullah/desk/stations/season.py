"""Season on the desk: the air of the room through the year, what goes on the wood, and a log brought in."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from pathlib import Path

from PySide6.QtWidgets import QComboBox, QFileDialog, QWidget

from nullah.core import actions
from nullah.core.wood.climate import PRESETS, Climate
from nullah.core.wood.finishes import FINISHES
from nullah.core.wording.facts import error_words
from nullah.desk.bench import Bench
from nullah.desk.climate_table import ClimateTable
from nullah.desk.document import Document
from nullah.desk.stations.base import StationDesk, action, chooser, show_choice, tabs
from nullah.instruments.hygrometer import SimulatedHygrometer
from nullah.language import tr, tr_pairs


class SeasonDesk(StationDesk):
    """Which climate, which finish; months typed in a table; a log from a file or from the hygrometer."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        self.now: Callable[[], datetime] = datetime.now
        self.hygrometer = SimulatedHygrometer()
        row = self.section(tr("Room and finish"))
        self.climate: QComboBox = chooser(
            tr("air of the room"),
            tr_pairs((each.name, each.name) for each in PRESETS),
            self._live_in,
            row,
            tr("It will live in a"),
        )
        self.finish: QComboBox = chooser(
            tr("finish"), tr_pairs((name, name) for name in FINISHES), self._finish_with, row, tr("Finish")
        )
        looks = tabs(
            self, ((False, tr("Through the year")), (True, tr("Air month by month"))), self._look, self.line.looks
        )
        self.months = looks[True]
        looks[False].setChecked(True)
        air = self.section(tr("A log of the air"))
        action(tr("Import a log …"), self._ask_log, air)
        action(tr("Read the hygrometer"), self._read_hygrometer, air)
        self.said = self.notice
        self._table: ClimateTable | None = None

    def _look(self, _: bool) -> None:
        self.page_wanted.emit()

    def page(self) -> QWidget | None:
        if not self.months.isChecked():
            return None
        return self.table

    @property
    def table(self) -> ClimateTable:
        """The table of months, made when it is first wanted."""
        if self._table is None:
            self._table = ClimateTable(self.document)
        return self._table

    # --- what is done ---

    def _live_in(self, name: str) -> None:
        climate = next((each for each in PRESETS if each.name == name), None)
        if climate is not None:
            self._take(climate, ())

    def _finish_with(self, finish: str) -> None:
        self.document.do(tr("finish with {finish}", finish=tr(finish)), lambda p: actions.finish_with(p, finish))

    def _ask_log(self) -> None:
        name, _ = QFileDialog.getOpenFileName(
            self, tr("Bring a hygrometer's log in"), str(Path.home()), tr("Tables (*.csv)")
        )
        if name:
            self.bring_log(Path(name))

    def bring_log(self, path: Path) -> bool:
        """Take the year of a log; on failure say why and leave all as it is."""
        from nullah.files.hygrometer_log import read_hygrometer_log
        from nullah.files.tables import TableError

        try:
            log = read_hygrometer_log(path, self.document.project.climate)
        except TableError as error:
            self._say(error_words(error))
            return False
        self._take(log.climate, log.said)
        return True

    def _read_hygrometer(self) -> None:
        """Take a year of the hygrometer that hangs in the room."""
        from nullah.files.hygrometer_log import year_of_log

        begin = self.now().replace(hour=0, minute=0, second=0, microsecond=0)
        log = year_of_log(self.hygrometer.year(begin), self.hygrometer.name, self.document.project.climate)
        self._take(log.climate, log.said)

    def _take(self, climate: Climate, said: tuple[str, ...]) -> None:
        self.document.do(tr("air of a {room}", room=tr(climate.name)), lambda p: actions.live_in(p, climate))
        self._say(" ".join(said))

    def _say(self, sentence: str) -> None:
        self.said.setText(sentence)

    # --- what is shown ---

    def refresh(self) -> None:
        project = self.document.project
        if self.climate.findData(project.climate.name) < 0:
            while self.climate.count() > len(PRESETS):
                self.climate.removeItem(len(PRESETS))
            self.climate.addItem(tr(project.climate.name), project.climate.name)
        show_choice(self.climate, project.climate.name)
        show_choice(self.finish, project.finish)
        if self._table is not None and self.months.isChecked():
            self._table.refresh()
