"""Joints on the desk: the figures of the corner in hand, to be typed."""

from __future__ import annotations

from dataclasses import replace

from PySide6.QtWidgets import QComboBox

from nullah.core import actions
from nullah.core.joints.corners import Corner
from nullah.core.ledger import Kind
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import StationDesk, chooser, labelled, show_choice
from nullah.desk.stations.figures import Figure, FigureFields

_FIGURES = (
    Figure("count", "Tails", Kind.COUNT, 52),
    Figure("slope", "slope", Kind.SLOPE, 62),
    Figure("pin", "pin"),
    Figure("half_pin", "half-pin"),
    Figure("proud", "end grain proud"),
)


class JointsDesk(StationDesk):
    """Which corner; number of tails, slope, pins, how proud the end grain stands; the chisels there are."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        row = self.row()
        self.corners: QComboBox = chooser("corner", [], self._take_corner, row, "Corner")
        self._figures = FigureFields(document, bench, row, _FIGURES)
        self.fields = self._figures.fields
        self.chisels = ValueField("chisels there are", width=340)
        self.chisels.line.returnPressed.disconnect()
        self.chisels.line.returnPressed.connect(self._own_chisels)
        labelled("chisels there are", self.chisels, row)

    def _take_corner(self, part: str) -> None:
        self.document.pick_part(part)

    def _own_chisels(self) -> None:
        found = self.chisels.lengths()
        if found is None:
            return
        chisels = tuple(sorted(found, key=lambda chisel: chisel.mm))
        self.chisels.line.setModified(False)
        self.document.do("change the chisels", lambda p: actions.set_shop(p, replace(p.shop, chisels=chisels)))
        self.bench.setFocus()

    def refresh(self) -> None:
        plan = self.document.plan
        wanted = [(corner.tail_boards[0], self._name(corner)) for corner in plan.corners]
        shown = [(str(self.corners.itemData(i)), self.corners.itemText(i)) for i in range(self.corners.count())]
        if wanted != shown:
            self.corners.clear()
            for value, text in wanted:
                self.corners.addItem(text, value)
        corner = plan.corner_of(self.document.hand.part)
        pair = self.corners.parentWidget()
        if pair is not None:
            pair.setVisible(len(wanted) > 1)
        if corner is not None:
            show_choice(self.corners, corner.tail_boards[0])
        self._figures.prefix = f"{corner.prefix}." if corner is not None else "tails."
        self._figures.refresh()
        self.chisels.set_unit(self.document.project.marks.unit)
        # As typed, for a chisel's name is its width: 1/4 in stays 1/4 in whatever is shown.
        self.chisels.show_value(", ".join(chisel.as_text() for chisel in self.document.project.shop.chisels))

    def _name(self, corner: Corner) -> str:
        names = {part.id: part.name for part in self.document.plan.parts}
        return f"{names[corner.tail_boards[0]]} to {names[corner.pin_boards[0]]}"
