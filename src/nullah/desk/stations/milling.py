"""Milling on the desk: whether a board is flattened whole or its parts cut out first."""

from __future__ import annotations

from PySide6.QtWidgets import QCheckBox

from nullah.core import actions
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.stations.base import StationDesk, words


class MillingDesk(StationDesk):
    """One tick for each board that has parts on it."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        self._row = self.row()
        words("Cut first, then flatten:", self._row)
        self.ticks: dict[str, QCheckBox] = {}

    def refresh(self) -> None:
        used = {b.board.id: b.board.name for b in self.document.plan.boards if b.placed}
        if list(used) != list(self.ticks):
            for tick in self.ticks.values():
                self._row.removeWidget(tick)
                tick.hide()
                tick.deleteLater()
            self.ticks = {board: self._tick(board, index + 1) for index, board in enumerate(used)}
        for board, tick in self.ticks.items():
            tick.setText(used[board])
            tick.setAccessibleName(f"Cut {used[board]} first")
            tick.setChecked(board in self.document.project.cut_first)

    def _tick(self, board: str, place: int) -> QCheckBox:
        tick = QCheckBox()
        tick.clicked.connect(lambda first: self._cut_first(board, first))
        self._row.insert(place, tick)
        return tick

    def _cut_first(self, board: str, first: bool) -> None:
        name = self.ticks[board].text()
        words_for = f"cut {name} first" if first else f"flatten {name} whole"
        self.document.do(words_for, lambda p: actions.cut_first(p, board, first))
