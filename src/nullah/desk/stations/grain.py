"""Grain and edge on the desk: which way the grain rises, what the edge reads."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from PySide6.QtWidgets import QWidget

from nullah.core import actions
from nullah.core.catalogue import N_
from nullah.core.lengths import Marks, mm
from nullah.core.milling.job import EdgeRead
from nullah.core.rack.board import Rise
from nullah.core.stations.stock import selected_board
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import Section, chooser, labelled, show_choice
from nullah.desk.stations.group import Group
from nullah.language import tr, tr_pairs

_RISES = [
    (Rise.UNKNOWN.value, N_("not looked at")),
    (Rise.RIGHT.value, N_("to the right")),
    (Rise.LEFT.value, N_("to the left")),
]

#: What light and what hump are still planed.
_MOST_LIGHT, _MOST_HUMP = mm(10), mm(30)


class StrokeRows(Group):
    """The grain of the board in hand; hump and light at its edge."""

    def __init__(
        self, document: Document, bench: Bench, row: Callable[[str], Section], offer_shop: Callable[[str], QWidget]
    ) -> None:
        super().__init__(document, bench)
        first = row(tr("Grain and edge"))
        self.grain = chooser(
            tr("which way the grain rises"), tr_pairs(_RISES), self._rises, first, tr("Grain rises to the upper face")
        )
        self.hump = self._field(tr("edge: hump in the middle"), self._edge)
        labelled(tr("Edge: hump"), self.hump, first)
        self.light = self._field(tr("edge: light under the square"), self._edge)
        labelled(tr("light under the square"), self.light, first)
        self.keep(first)
        self.widgets.append(offer_shop(tr("Planes")))

    def _field(self, name: str, entered: Callable[[], None]) -> ValueField:
        field = ValueField(name, width=52)
        field.line.setMaximumWidth(64)
        field.entered.connect(lambda _: entered())
        return field

    def refresh(self) -> None:
        document, marks = self.document, self.document.project.marks
        board = selected_board(document.plan, document.selection)
        show_choice(self.grain, board.rises.value if board is not None else Rise.UNKNOWN.value)
        self.grain.setEnabled(board is not None)
        edge = EdgeRead(*document.selection.milling.edge) if document.selection.milling.edge is not None else EdgeRead()
        for field, value in ((self.hump, edge.hump), (self.light, edge.error)):
            field.set_unit(marks.unit)
            field.show_value(marks.write_short(value))

    @property
    def _marks(self) -> Marks:
        return self.document.project.marks

    # --- what is entered ---

    def _rises(self, value: str) -> None:
        board = selected_board(self.document.plan, self.document.selection)
        if board is not None:
            changed = replace(board, rises=Rise(value))
            self.document.do(
                tr("{name}: grain rises {way}", name=board.name, way=tr(dict(_RISES)[value])),
                lambda p: actions.change_board(p, changed),
            )

    def _edge(self) -> None:
        hump, light = self.hump.length(), self.light.length()
        if hump is None or light is None:
            return
        if not 0 <= light.mm <= _MOST_LIGHT.mm:
            self.light.complain(tr("Light of up to {most}.", most=self._marks.write(_MOST_LIGHT)))
            return
        if abs(hump.mm) > _MOST_HUMP.mm:
            self.hump.complain(tr("That wants a saw: up to {most}.", most=self._marks.write(_MOST_HUMP)))
            return
        self.hump.line.setModified(False)
        self.light.line.setModified(False)
        milling = self.document.selection.milling._replace(edge=(float(hump), float(light)))
        self.document.select(self.document.selection._replace(milling=milling))
