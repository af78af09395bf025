"""What the tables on the desk have in common: rows of words under headings."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import QAbstractTableModel, QModelIndex, QObject, QPersistentModelIndex, Qt

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
        return self.headings[section] if shown else None
