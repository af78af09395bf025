"""Joints on the desk: the figures of the corner, to be typed."""

from __future__ import annotations

from dataclasses import replace

from nullah.core import actions
from nullah.core.ledger import Kind, Origin, Value
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.editor import refuse
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import StationDesk, labelled

_FIGURES = (
    ("tails.count", "Tails", Kind.COUNT, 52), ("tails.slope", "slope", Kind.SLOPE, 62),
    ("tails.pin", "pin", Kind.LENGTH, 84), ("tails.half_pin", "half-pin", Kind.LENGTH, 84),
    ("tails.proud", "end grain proud", Kind.LENGTH, 84),
)  # fmt: skip


class JointsDesk(StationDesk):
    """Number of tails, slope, pins and how proud the end grain stands."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        row = self.row()
        self.fields: dict[str, ValueField] = {}
        for name, title, kind, width in _FIGURES:
            field = ValueField(title, kind, width=width)
            field.line.setMaximumWidth(width + 14)
            field.entered.connect(lambda value, n=name, t=title: self._give(n, t, value))
            labelled(title, field, row)
            self.fields[name] = field

        self.chisels = ValueField("chisels there are", width=250)
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
        ledger = self.document.plan.ledger
        marks = self.document.project.marks
        self.chisels.set_unit(marks.unit)
        # As typed, for a chisel's name is its width: 1/4 in stays 1/4 in whatever is shown.
        self.chisels.show_value(", ".join(chisel.as_text() for chisel in self.document.project.shop.chisels))
        self.chisels.line.setCursorPosition(0)
        for name, field in self.fields.items():
            field.setEnabled(ledger is not None and name in ledger.quantities)
            field.set_unit(self.document.project.marks.unit)
            if ledger is not None and name in ledger.quantities:
                quantity = ledger.quantity(name)
                field.show_value(quantity.write(self.document.project.marks))
                ruled = quantity.origin is Origin.WORKED_OUT
                field.line.setToolTip("worked out; typing another overrules it" if ruled else quantity.origin.value)

    def _give(self, name: str, title: str, value: Value) -> None:
        kind = next(kind for known, _, kind, _ in _FIGURES if known == name)
        sentence = refuse(name, kind, value)
        text = str(value) if isinstance(value, int) else value.as_text()
        sentence = sentence or self.document.do(f"{title.lower()} {text}", lambda p: actions.give(p, name, value))
        if sentence:
            self.fields[name].complain(sentence)
        else:
            self.bench.setFocus()
