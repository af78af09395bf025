"""The whole order of work as a table: what is done, what could be done now, when, and how long."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import datetime

from PySide6.QtCore import QModelIndex, QObject, Qt
from PySide6.QtGui import QColor
from PySide6.QtWidgets import QVBoxLayout, QWidget

from nullah.core.bench.tasks import Task
from nullah.core.catalogue import N_
from nullah.core.reader import Reader
from nullah.core.wording.dates import clock, short_day
from nullah.core.wording.durations import time_words
from nullah.core.wording.task_titles import task_title
from nullah.core.work.day_book import WorkState
from nullah.desk.row_model import Index, RowModel, WholeTable
from nullah.desk.tips import plain_tip
from nullah.language import tr
from nullah.paper.palette import Palette


class _Model(RowModel):
    headings = ("", N_("Task"), N_("Sort"), N_("About"), N_("Planned for"))

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self.stand: WorkState | None = None
        self.reader = Reader()
        self._when: dict[str, datetime] = {}
        self._ready: frozenset[str] = frozenset()

    def load(self, stand: WorkState, reader: Reader) -> None:
        """Show how the work stands."""
        self.beginResetModel()
        self.stand, self.reader = stand, reader
        self._ready = frozenset(task.id for task in stand.ready)
        self._when = {}
        for stint in stand.calendar.stints if stand.calendar is not None else ():
            self._when.setdefault(stint.task.id, stint.begin)
        self.endResetModel()

    def lines(self) -> Sequence[object]:
        return self.stand.order.tasks if self.stand is not None else ()

    def task(self, row: int) -> Task | None:
        """Return the task of a row."""
        tasks = self.stand.order.tasks if self.stand is not None else ()
        return tasks[row] if 0 <= row < len(tasks) else None

    def data(self, index: Index, role: int = 0) -> object:
        task, stand = self.task(index.row()), self.stand
        if task is None or stand is None:
            return None
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.ToolTipRole):
            text = self._words(stand, task)[index.column()]
            return text if role == Qt.ItemDataRole.DisplayRole else plain_tip(text)
        if role == Qt.ItemDataRole.ForegroundRole:
            if not stand.progress.open(task):
                return QColor(self.palette_.quiet)
            if task.id in stand.progress.again:
                return QColor(self.palette_.look)
            if task.id in self._ready:
                return QColor(self.palette_.accent)
        return None

    def _words(self, stand: WorkState, task: Task) -> tuple[str, str, str, str, str]:
        if not stand.progress.open(task):
            state = "✓"
        elif task.id in stand.progress.again:
            state = tr("again")
        else:
            state = tr("now") if task.id in self._ready else ""
        minutes = stand.minutes.get(task.id, 0.0)
        about = (
            time_words(minutes, self.reader)
            if minutes
            else tr("waits {hours:g} h", hours=task.waits)
            if task.waits
            else ""
        )
        at = self._when.get(task.id)
        when = f"{short_day(at, self.reader)} {clock(at)}" if at is not None and stand.progress.open(task) else ""
        title, sort = task_title(task, self.reader), self.reader.text(task.trade.value)
        return state, title, sort, about if stand.progress.open(task) else "", when


class OrderTable(QWidget):
    """The table; a click takes a task in hand."""

    def __init__(self, picked: Callable[[str], None]) -> None:
        super().__init__()
        self._picked = picked
        column = QVBoxLayout(self)
        column.setContentsMargins(14, 10, 14, 10)
        self.model = _Model(self)
        self.table = WholeTable({0: 56, 2: 96, 3: 92, 4: 132}, wide=1)
        self.table.setAccessibleName(tr("order of work"))
        self.table.setModel(self.model)
        self.table.clicked.connect(self._clicked)
        self.table.activated.connect(self._clicked)
        column.addWidget(self.table)

    def set_palette(self, palette: Palette) -> None:
        """Take the colours of a theme."""
        self.model.palette_ = palette

    def show_standing(self, stand: WorkState, reader: Reader, in_hand: str) -> None:
        """Show how the work stands, the task in hand in sight."""
        self.model.load(stand, reader)
        row = next((number for number, task in enumerate(stand.order.tasks) if task.id == in_hand), -1)
        if row >= 0:
            self.table.selectRow(row)
            self.table.scrollTo(self.model.index(row, 0))

    def _clicked(self, index: QModelIndex) -> None:
        task = self.model.task(index.row())
        if task is not None:
            self._picked(task.id)
