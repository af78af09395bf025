"""Every figure of the piece in a table: what it is, where it comes from, what hangs on it."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import QModelIndex, QObject, QPointF, QSortFilterProxyModel, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent
from PySide6.QtWidgets import QLineEdit, QVBoxLayout, QWidget

from nullah.core.catalogue import N_
from nullah.core.ledger import Origin, Quantity
from nullah.core.refs import QuantityRef, Ref
from nullah.core.wording.ledger import reading_words
from nullah.desk.document import Document
from nullah.desk.row_model import Index, RowModel, WholeTable
from nullah.desk.stations.base import Flow
from nullah.desk.text_label import TextLabel
from nullah.language import tr
from nullah.paper.lettering import typeface
from nullah.paper.palette import Palette

_COLUMNS = (N_("Figure"), N_("Is"), N_("Where from"), N_("On it hang"))
_SIGNS = {
    Origin.GIVEN: N_("given"),
    Origin.WORKED_OUT: N_("worked out"),
    Origin.OVERRULED: N_("✎ overruled"),
    Origin.MEASURED: N_("✓ measured"),
    Origin.WAITS: N_("… waits"),
    Origin.FITTED: N_("fitted"),
}


class _Model(RowModel):
    headings = _COLUMNS

    def __init__(self, document: Document, parent: QObject) -> None:
        super().__init__(parent)
        self._document = document
        self.rows: list[tuple[str, tuple[str, str, str, str], Quantity]] = []

    def load(self) -> None:
        ledger, marks = self._document.plan.ledger, self._document.project.marks
        rows = []
        for name, quantity in ledger.quantities.items() if ledger is not None else ():
            title = self._document.plan.reader.title(name)
            hangs = len(ledger.hangs_on(name)) if ledger is not None else 0
            origin = tr(_SIGNS[quantity.origin])
            if quantity.reading is not None:
                origin = f"{origin} {reading_words(quantity.reading, self._document.plan.reader)}".rstrip()
            words = (title[:1].upper() + title[1:], quantity.write_to_edit(marks), origin, str(hangs) if hangs else "")
            rows.append((name, words, quantity))
        if [row[0] for row in rows] == [row[0] for row in self.rows]:
            self.rows = rows
            if rows:
                self.dataChanged.emit(self.index(0, 0), self.index(len(rows) - 1, len(_COLUMNS) - 1))
            return
        self.beginResetModel()
        self.rows = rows
        self.endResetModel()

    def lines(self) -> Sequence[object]:
        return self.rows

    def data(self, index: Index, role: int = 0) -> object:
        name, words, quantity = self.rows[index.row()]
        if role == Qt.ItemDataRole.DisplayRole:
            return words[index.column()]
        if role == Qt.ItemDataRole.UserRole:
            return name
        if role == Qt.ItemDataRole.ForegroundRole and index.column() in (1, 2):
            if quantity.origin in (Origin.OVERRULED, Origin.WAITS):
                return QColor(self.palette_.look)
            if quantity.origin in (Origin.WORKED_OUT, Origin.FITTED):
                return QColor(self.palette_.quiet)
        if role == Qt.ItemDataRole.FontRole and index.column() == 1:
            return typeface(15, bold=quantity.origin in (Origin.GIVEN, Origin.MEASURED, Origin.OVERRULED))
        return None


class _Table(WholeTable):
    """A table whose rows open on Enter, F2 or a double click."""

    opened = Signal(QModelIndex)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_F2) and self.currentIndex().isValid():
            self.opened.emit(self.currentIndex())
            return
        super().keyPressEvent(event)


class LedgerTable(QWidget):
    """The figures, found by a word. `figure` carries the name of the one to be typed."""

    figure = Signal(object)

    def __init__(self, document: Document) -> None:
        super().__init__()
        self._document = document
        self.finder = QLineEdit()
        self.finder.setPlaceholderText(tr("find a figure"))
        self.finder.setAccessibleName(tr("Find a figure"))
        self.finder.setMinimumSize(240, 32)
        self.count = TextLabel(quiet=True)
        row = Flow()
        row.setContentsMargins(14, 6, 14, 6)
        row.addWidget(self.finder)
        row.addWidget(self.count)
        self.model = _Model(document, self)
        self.found = QSortFilterProxyModel(self)
        self.found.setSourceModel(self.model)
        self.found.setFilterCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self.table = _Table({1: 110, 2: 230, 3: 90}, wide=0)
        self.table.setModel(self.found)
        self.table.setAccessibleName(tr("Figures of the piece"))
        column_layout = QVBoxLayout(self)
        column_layout.setContentsMargins(0, 0, 0, 0)
        column_layout.setSpacing(0)
        column_layout.addLayout(row)
        column_layout.addWidget(self.table, 1)
        self.finder.textChanged.connect(self._filter)
        self.table.doubleClicked.connect(self._open)
        self.table.opened.connect(self._open)
        self.table.clicked.connect(self._point_at)
        self.refresh()

    def _filter(self, text: str) -> None:
        self.found.setFilterFixedString(text)
        self._tell()

    def _tell(self) -> None:
        shown, whole = self.found.rowCount(), self.model.rowCount()
        self.count.setText(
            tr("{count} figures", count=whole)
            if shown == whole
            else tr("{shown} of {whole} figures", shown=shown, whole=whole)
        )

    def _name(self, index: QModelIndex) -> str:
        return str(self.found.data(index, Qt.ItemDataRole.UserRole))

    def _open(self, index: QModelIndex) -> None:
        self.figure.emit(QuantityRef(self._name(index)))

    def _point_at(self, index: QModelIndex) -> None:
        """Show on the card where the figure comes from."""
        self._document.select(self._document.selection._replace(quantity=self._name(index)))

    def place_of(self, ref: Ref) -> QPointF | None:
        """Return where a figure stands in the table, or None."""
        for row in range(self.found.rowCount()):
            index = self.found.index(row, 1)
            if QuantityRef(self._name(index)) == ref:
                box = self.table.visualRect(index)
                return QPointF(self.table.viewport().mapTo(self, box.bottomLeft()))
        return None

    def refresh(self) -> None:
        """Show what the document holds now."""
        self.model.load()
        self._tell()

    def set_palette(self, palette: Palette) -> None:
        """Take another theme."""
        self.model.palette_ = palette
        self.table.viewport().update()
