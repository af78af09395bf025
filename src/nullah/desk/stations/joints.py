"""Joints on the desk: the figures of the corner, to be typed."""

from __future__ import annotations

from dataclasses import replace

from nullah.core import actions
from nullah.core.ledger import Kind
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import StationDesk, labelled
from nullah.desk.stations.figures import Figure, FigureFields

_FIGURES = (
    Figure("tails.count", "Tails", Kind.COUNT, 52),
    Figure("tails.slope", "slope", Kind.SLOPE, 62),
    Figure("tails.pin", "pin"),
    Figure("tails.half_pin", "half-pin"),
    Figure("tails.proud", "end grain proud"),
)


class JointsDesk(StationDesk):
    """Number of tails, slope, pins, how proud the end grain stands, and the chisels there are."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        row = self.row()
        self._figures = FigureFields(document, bench, row, _FIGURES)
        self.fields = self._figures.fields
        self.chisels = ValueField("chisels there are", width=340)
        self.chisels.line.returnPressed.disconnect()
        self.chisels.line.returnPressed.connect(self._own_chisels)
        labelled("chisels there are", self.chisels, row)

    def _own_chisels(self) -> None:
        found = self.chisels.lengths()
        if found is None:
            return
        chisels = tuple(sorted(found, key=lambda chisel: chisel.mm))
        self.chisels.line.setModified(False)
        self.document.do("change the chisels", lambda p: actions.set_shop(p, replace(p.shop, chisels=chisels)))
        self.bench.setFocus()

    def refresh(self) -> None:
        self._figures.refresh()
        self.chisels.set_unit(self.document.project.marks.unit)
        # As typed, for a chisel's name is its width: 1/4 in stays 1/4 in whatever is shown.
        self.chisels.show_value(", ".join(chisel.as_text() for chisel in self.document.project.shop.chisels))
