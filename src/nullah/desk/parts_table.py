"""The cut list on the desk: sorted by any column, equal parts together, boards of one's own pasted in."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from PySide6.QtCore import QModelIndex, QObject, QSortFilterProxyModel, Qt
from PySide6.QtGui import QColor, QGuiApplication, QKeyEvent, QKeySequence
from PySide6.QtWidgets import QFileDialog, QVBoxLayout, QWidget

from nullah.core import actions
from nullah.core.bench.cutlist import CutGroup, grouped, price_of, volumes
from nullah.core.catalogue import N_
from nullah.core.forms.own_boards import OwnBoard, next_own_id
from nullah.core.fraction import Fraction
from nullah.core.lengths import Direction, Length, Marks
from nullah.core.plan import LeftOver, PartState, Stand
from nullah.core.project import Project
from nullah.core.rack.board import write_price
from nullah.core.reader import Reader
from nullah.core.wording.facts import error_words
from nullah.core.wording.plan import state_words
from nullah.core.work.cut_list import cut_list
from nullah.desk.document import Document
from nullah.desk.row_model import Index, RowModel, WholeTable
from nullah.desk.stations.base import Flow, action
from nullah.desk.text_label import TextLabel
from nullah.desk.tips import plain_tip
from nullah.files.tables import TableError, cut_list_text, read_own_boards, read_table_text
from nullah.language import tr
from nullah.paper.palette import Palette
from nullah.writing import why, write_file

_COLUMNS = ("×", N_("Part"), N_("Length"), N_("Width"), N_("Thick"), N_("Rough"), N_("Wood"), N_("Seen"), N_("Out of"))
#: More boards than this are only counted.
_MOST_BOARDS = 3


class _Model(RowModel):
    headings = _COLUMNS

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self.groups: list[CutGroup] = []
        self.marks = Marks()

    def load(self, groups: list[CutGroup], marks: Marks) -> None:
        self.beginResetModel()
        self.groups, self.marks = groups, marks
        self.endResetModel()

    def lines(self) -> Sequence[object]:
        return self.groups

    def data(self, index: Index, role: int = 0) -> object:
        group = self.groups[index.row()]
        if role == Qt.ItemDataRole.DisplayRole:
            return self._words(group)[index.column()]
        if role == Qt.ItemDataRole.ToolTipRole:
            seen = tr("seen: {sides}", sides=", ".join(map(tr, group.rows[0].shows)) or tr("nowhere"))
            return plain_tip("\n".join((*self._words(group)[1:7], seen)))
        if role == Qt.ItemDataRole.UserRole:
            return self._value(group, index.column())
        if role == Qt.ItemDataRole.ForegroundRole and index.column() in self._waiting(group):
            return QColor(self.palette_.look)
        return None

    def _waiting(self, group: CutGroup) -> list[int]:
        """Return the columns of the sizes that may not be cut to yet."""
        return [column for column, over in enumerate(group.rows[0].over, start=2) if over]

    def _words(self, group: CutGroup) -> tuple[str, ...]:
        row, write = group.rows[0], self.marks.write
        reader, over = Reader(self.marks), LeftOver(*row.over)
        rough = " × ".join(
            write(size, Direction.UP, unit=False) for size in (row.rough_length, row.rough_width, row.rough_thickness)
        )
        rough = f"{row.pieces} × ({rough})" if row.pieces > 1 else rough
        boards = dict.fromkeys(each.board for each in group.rows if each.board)
        return (
            str(group.quantity),
            reader.name_together(group.names),
            write(row.cut_length, unit=False) + _left(LeftOver(long=over.long), reader),
            write(row.width, unit=False) + _left(LeftOver(wide=over.wide), reader),
            write(row.thickness, unit=False) + _left(LeftOver(thick=over.thick), reader),
            rough,
            tr(row.species) if row.species else "–",
            _sides(row.shows),
            reader.listed(boards, "unit", most=_MOST_BOARDS) or "–",
        )

    def _value(self, group: CutGroup, column: int) -> object:
        """Return what a column is sorted by: sizes by their length, not by their words."""
        row = group.rows[0]
        sizes = {2: row.cut_length, 3: row.width, 4: row.thickness, 5: row.rough_length}
        if column == 0:
            return group.quantity
        return float(sizes[column]) if column in sizes else self._words(group)[column].casefold()


def _left(over: LeftOver, reader: Reader) -> str:
    """Return in a line of its own how a size is left over, if it is."""
    return f"\n{state_words(PartState(Stand.WAITS, over=over), reader)}" if any(over) else ""


def _sides(sides: tuple[str, ...]) -> str:
    """Name the sides that are seen, shortly; the tip has them all."""
    return "–" if not sides else tr(sides[0]) if len(sides) == 1 else tr("{count} sides", count=len(sides))


class PartsTable(QWidget):
    """The cut list, and ways out of and into it."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self._document = document
        self.row = Flow()
        self.row.setContentsMargins(14, 6, 14, 6)
        action(tr("Copy"), self.copy, self.row)
        action(tr("Write CSV …"), self._write, self.row)
        action(tr("Paste boards"), self.paste, self.row)
        action(tr("Boards from a list …"), self._read, self.row)
        self.told = TextLabel(wraps=True, quiet=True)
        self.told.setContentsMargins(14, 0, 14, 6)
        self.model = _Model(self)
        self.sorted = QSortFilterProxyModel(self)
        self.sorted.setSourceModel(self.model)
        self.sorted.setSortRole(Qt.ItemDataRole.UserRole)
        self.table = WholeTable({0: 32, 2: 84, 3: 84, 4: 62, 5: 134, 6: 96, 7: 62, 8: 62}, wide=1, least=130)
        self.table.setModel(self.sorted)
        self.table.setAccessibleName(tr("Cut list"))
        self.table.setSortingEnabled(True)
        self.table.horizontalHeader().setSortIndicator(-1, Qt.SortOrder.AscendingOrder)
        self.table.clicked.connect(self._pick)
        column_layout = QVBoxLayout(self)
        column_layout.setContentsMargins(0, 0, 0, 0)
        column_layout.setSpacing(0)
        column_layout.addLayout(self.row)
        column_layout.addWidget(self.told)
        column_layout.addWidget(self.table, 1)
        self.refresh()

    def _groups(self) -> list[CutGroup]:
        return list(grouped(cut_list(self._document.plan)))

    def refresh(self) -> None:
        """Show what the document holds now."""
        groups, marks = self._groups(), self._document.project.marks
        if groups == self.model.groups and marks == self.model.marks:
            return
        self.model.load(groups, marks)
        finished, rough = volumes(groups)
        parts = sum(group.quantity for group in groups)
        cost = write_price(price_of(groups))
        price = tr(", {cost} of the boards' prices", cost=cost) if cost else ""
        self.told.setText(
            tr(
                "{parts} parts, {sizes} sizes · {finished} finished, {rough} rough{price}",
                parts=parts,
                sizes=len(groups),
                finished=marks.write_volume(finished),
                rough=marks.write_volume(rough),
                price=price,
            )
        )

    def set_palette(self, palette: Palette) -> None:
        """Take another theme."""
        self.model.palette_ = palette
        self.table.viewport().update()

    def _pick(self, index: QModelIndex) -> None:
        group = self.model.groups[self.sorted.mapToSource(index).row()]
        ids = [row.id for row in group.rows]
        now = self._document.selection.part
        # Click again for the next of the same size.
        following = ids[(ids.index(now) + 1) % len(ids)] if now in ids else ids[0]
        self._document.pick_part(following)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Copy):
            self.copy()
        elif event.matches(QKeySequence.StandardKey.Paste):
            self.paste()
        else:
            super().keyPressEvent(event)

    # --- out and in ---

    def copy(self) -> None:
        """Put the list on the clipboard, for a spreadsheet."""
        lines = ["\t".join(map(tr, _COLUMNS))]
        for row in range(self.sorted.rowCount()):
            cells = (self.sorted.index(row, column) for column in range(len(_COLUMNS)))
            lines.append("\t".join(str(self.sorted.data(cell)).replace("\n", ", ") for cell in cells))
        QGuiApplication.clipboard().setText("\n".join(lines))
        self.told.setText(tr("{count} lines are on the clipboard.", count=len(lines) - 1))

    def paste(self) -> None:
        """Add the boards whose list is on the clipboard."""
        self.add(QGuiApplication.clipboard().text())

    def add(self, text: str) -> None:
        """Add boards of one's own from a list; what cannot be read is said, and nothing changes."""
        try:
            rows = read_own_boards(text, self._document.project.marks.unit)
        except TableError as error:
            self.told.setText(error_words(error))
            return
        self._document.do(tr("add {count} boards from a list", count=len(rows)), lambda p: _added(p, rows))

    def _write(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self, tr("Write the cut list"), "cut-list.csv", tr("Tables (*.csv)"))
        if name:
            try:
                write_file(Path(name), cut_list_text(cut_list(self._document.plan), self._document.project.marks))
            except OSError as error:
                self.told.setText(tr("{name} cannot be written: {why}.", name=name, why=why(error)))

    def _read(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("Boards from a list"), "", tr("Tables (*.csv *.tsv *.txt)"))
        if name:
            try:
                self.add(read_table_text(Path(name)))
            except TableError as error:
                self.told.setText(error_words(error))


def _added(project: Project, rows: tuple[tuple[str, Length, Length, Length], ...]) -> Project:
    """Stand the boards side by side in front of the piece, a hand apart."""
    at = Fraction(0)
    for name, length, width, thickness in rows:
        place = (Length(Fraction(0)), Length(-at - width.mm - 200), Length(Fraction(0)))
        board = OwnBoard(next_own_id(project.piece.own), name, (length, width, thickness), place)
        project = actions.add_own(project, board)
        at += width.mm + 40
    return project
