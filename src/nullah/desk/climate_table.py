"""The year of the room as a table: temperature and humidity of every month, to be typed."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHeaderView, QTableWidget, QTableWidgetItem, QVBoxLayout, QWidget

from nullah.core import actions
from nullah.core.catalogue import N_
from nullah.core.limits import quoted, read_number
from nullah.core.wood.climate import MONTHS, climate_of
from nullah.core.wood.moisture import ClimateError
from nullah.core.wording.facts import error_words
from nullah.desk.document import Document
from nullah.desk.text_label import TextLabel
from nullah.language import tr

_TYPED = N_("as typed")


class ClimateTable(QWidget):
    """Twelve rows: month, °C, % humidity, and the moisture wood settles at."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self._document = document
        self._showing = False
        column = QVBoxLayout(self)
        column.setContentsMargins(14, 10, 14, 10)
        self.table = QTableWidget(12, 4)
        self.table.setAccessibleName(tr("the year of the room"))
        self.table.setHorizontalHeaderLabels([tr("Month"), "°C", tr("% humidity"), tr("wood settles at")])
        self.table.verticalHeader().hide()
        self.table.verticalHeader().setDefaultSectionSize(34)
        self.table.horizontalHeader().setSectionResizeMode(QHeaderView.ResizeMode.Stretch)
        self.table.horizontalHeader().setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        self.table.itemChanged.connect(self._typed)
        self.sentence = TextLabel(wraps=True, weight="fails")
        column.addWidget(self.table)
        column.addWidget(self.sentence)

    def refresh(self) -> None:
        """Show the climate of the project."""
        climate = self._document.project.climate
        self._showing = True
        for month, (air, moisture) in enumerate(zip(climate.months, climate.moisture, strict=True)):
            texts = (tr(MONTHS[month]), f"{air.temperature:g}", f"{air.humidity:g}", f"{moisture:.1f} %")
            for at, text in enumerate(texts):
                item = QTableWidgetItem(text)
                if at in (0, 3):
                    item.setFlags(Qt.ItemFlag.ItemIsEnabled)
                self.table.setItem(month, at, item)
        self._showing = False

    def _typed(self, item: QTableWidgetItem) -> None:
        if self._showing:
            return
        climate = self._document.project.climate
        months = [[air.temperature, air.humidity] for air in climate.months]
        try:
            figure = read_number(item.text().strip(" %°C"))
            if figure is None:
                self.sentence.setText(tr("{typed} is not a figure.", typed=quoted(item.text())))
                return
            months[item.row()][item.column() - 1] = figure
            changed = climate_of(_TYPED, [(pair[0], pair[1]) for pair in months])
        except ClimateError as error:
            self.sentence.setText(error_words(error))
            return
        self.sentence.setText("")
        self._document.do(tr("air in {month}", month=tr(MONTHS[item.row()])), lambda p: actions.live_in(p, changed))
