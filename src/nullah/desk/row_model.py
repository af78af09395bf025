"""What the tables on the desk have in common: rows of words under headings."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from PySide6.QtCore import QAbstractItemModel, QAbstractTableModel, QModelIndex, QObject, QPersistentModelIndex, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QTableView

from nullah.language import tr
from nullah.paper.palette import DAY, Palette

Index = QModelIndex | QPersistentModelIndex


class RowModel(QAbstractTableModel):
    """A table with fixed `headings`. What stands in its `lines`, and what a cell says, is for each table to tell."""

    headings: tuple[str, ...] = ()

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self.palette_: Palette = DAY

    def lines(self) -> Sequence[object]:
        """Return what stands in the lines."""
        raise NotImplementedError

    def rowCount(self, parent: Index | None = None) -> int:
        return len(self.lines())

    def columnCount(self, parent: Index | None = None) -> int:
        return len(self.headings)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = 0) -> object:
        shown = role == Qt.ItemDataRole.DisplayRole and orientation == Qt.Orientation.Horizontal
        return tr(self.headings[section]) if shown else None


class WholeTable(QTableView):
    """A table that cuts nothing short: what is too long for its column goes on in the next line.

    Parameters
    ----------
    widths : mapping of column to pixels
        Of all columns but one.
    wide : int
        The column that takes what is left, at least `least` pixels.
    """

    def __init__(self, widths: Mapping[int, int], wide: int, least: int = 190) -> None:
        super().__init__()
        self._widths, self._wide, self._least = widths, wide, least
        self.setSelectionBehavior(QTableView.SelectionBehavior.SelectRows)
        self.setShowGrid(False)
        self.setTextElideMode(Qt.TextElideMode.ElideNone)
        self.verticalHeader().hide()
        self.verticalHeader().setMinimumSectionSize(32)
        self.verticalHeader().setDefaultSectionSize(32)
        self.horizontalHeader().setMinimumSectionSize(28)
        self.horizontalHeader().setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)

    def fit(self) -> None:
        """Give the columns their widths and the rows the heights that their words need."""
        left = self.viewport().width() - sum(self._widths.values())
        for column, width in (*self._widths.items(), (self._wide, max(left, self._least))):
            if self.columnWidth(column) != width:
                self.setColumnWidth(column, width)
        self.resizeRowsToContents()

    def setModel(self, model: QAbstractItemModel | None) -> None:
        super().setModel(model)
        if model is not None:
            # What is shown another way or sorted anew wants other heights.
            model.modelReset.connect(self.fit)
            model.layoutChanged.connect(self.fit)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.fit()
