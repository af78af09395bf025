"""Figures of the ledger as fields in a row, to be typed."""

from __future__ import annotations

from PySide6.QtWidgets import QLayout, QWidget

from nullah.core import actions
from nullah.core.ledger import Origin, QuantityKind, Value
from nullah.core.named_tuple import NamedTuple
from nullah.core.wording.ledger import refusal
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.fields import ValueField, written
from nullah.desk.stations.base import labelled
from nullah.language import tr


class FigureField(NamedTuple):
    """A quantity of the ledger, what its field is called, and how wide that is in pixels."""

    name: str
    title: str
    kind: QuantityKind = QuantityKind.LENGTH
    width: int = 84


class FigureFields:
    """Fields for some quantities; each is shown only where the piece has that quantity.

    `prefix` stands before the names: another one, and the same fields show another joint.
    Without `units` figures stand as on drawings.
    """

    def __init__(
        self, document: Document, bench: Bench, row: QLayout, figures: tuple[FigureField, ...], units: bool = True
    ) -> None:
        self._document, self._bench, self._figures = document, bench, figures
        self.prefix, self._units = "", units
        self.fields: dict[str, ValueField] = {}
        self._pairs: dict[str, QWidget] = {}
        for figure in figures:
            field = ValueField(tr(figure.title), figure.kind, width=figure.width)
            field.line.setMaximumWidth(figure.width + 14)
            field.entered.connect(lambda value, f=figure: self._give(f, value))
            self.fields[figure.name] = field
            self._pairs[figure.name] = labelled(tr(figure.title), field, row)

    def refresh(self, shown: bool = True) -> None:
        """Show what the ledger holds now, or nothing."""
        ledger, marks = self._document.plan.ledger, self._document.project.marks
        for short, field in self.fields.items():
            name = self.prefix + short
            there = shown and ledger is not None and name in ledger.quantities
            self._pairs[short].setVisible(there)
            field.set_unit(marks.unit)
            if ledger is not None and there:
                quantity = ledger.quantity(name)
                field.show_value(quantity.write_to_edit(marks, self._units))
                ruled = quantity.origin is Origin.WORKED_OUT
                field.line.setToolTip(
                    tr("worked out; typing another overrules it") if ruled else tr(quantity.origin.value)
                )

    def _give(self, figure: FigureField, value: Value) -> None:
        name = self.prefix + figure.name
        sentence = refusal(name, figure.kind, value, self._document.plan.reader) or self._document.do(
            f"{figure.title.lower()} {written(value)}", lambda p: actions.give(p, name, value)
        )
        if sentence:
            self.fields[figure.name].complain(sentence)
        else:
            self._bench.setFocus()
