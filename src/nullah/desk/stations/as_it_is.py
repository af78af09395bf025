"""Entering at a joint what was measured: the actual shelf, the actual mate, the actual opening."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date

from PySide6.QtWidgets import QComboBox

from nullah.core import actions
from nullah.core.catalogue import N_
from nullah.core.joints.kinds import JointGroup
from nullah.core.ledger import Measured, Origin, QuantityKind
from nullah.core.lengths import Length
from nullah.core.plan import Plan
from nullah.core.wording.ledger import refusal
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import Section, chooser, labelled
from nullah.language import tr


def measurable(plan: Plan, kind: JointGroup) -> tuple[str, ...]:
    """Return the ledger's names a joint hangs on that can be measured: what it waits for, then its parts' sizes."""
    if plan.ledger is None:
        return ()
    waits = [name for mate in (kind.first, kind.second) for name in plan.waiting(mate.part)]
    names = kind.joint.names
    sizes = [kind.second.part.quantities[2], kind.first.part.quantities[2], *kind.second.part.quantities[:2]]
    wanted = (*waits, names.guest, *sizes, names.width, names.depth)
    known = plan.ledger.quantities
    return tuple(dict.fromkeys(n for n in wanted if n in known and known[n].definition.kind is QuantityKind.LENGTH))


class AsItIs:
    """A choice of what was measured, and a field for what it is. `today` may be put in the place of the clock."""

    def __init__(self, document: Document, bench: Bench, row: Section) -> None:
        self.today: Callable[[], date] = date.today
        self._document, self._bench = document, bench
        self.what: QComboBox = chooser(tr("what was measured"), [], lambda _: self._show(), row, tr("Measured"))
        self.field = ValueField(tr("as it is"), width=80)
        self.field.entered.connect(self._measure)
        self._pairs = (self.what.parentWidget(), labelled(tr("it measures"), self.field, row))

    def show_kind(self, kind: JointGroup | None) -> None:
        """Show what can be measured of a joint, or nothing."""
        plan = self._document.plan
        names = measurable(plan, kind) if kind is not None else ()
        for pair in self._pairs:
            if pair is not None:
                pair.setVisible(bool(names))
        if plan.ledger is None or not names:
            return
        wanted = [(name, plan.reader.title(name)) for name in names]
        if wanted != [(str(self.what.itemData(i)), self.what.itemText(i)) for i in range(self.what.count())]:
            self.what.clear()
            for name, title in wanted:
                self.what.addItem(title, name)
        self._show()

    def _show(self) -> None:
        name, plan = str(self.what.currentData()), self._document.plan
        self.field.set_unit(self._document.project.marks.unit)
        if plan.ledger is None or name not in plan.ledger.quantities:
            return
        quantity = plan.ledger.quantity(name)
        measured = quantity.origin is Origin.MEASURED
        self.field.show_value(quantity.write(plan.marks) if measured else "")
        self.field.line.setPlaceholderText(quantity.write(plan.marks))

    def _measure(self, value: object) -> None:
        name = str(self.what.currentData())
        if not isinstance(value, Length):
            self.field.complain(tr("A length."))
            return
        reading = Measured(value, self.today().isoformat(), N_("with the caliper"))
        sentence = refusal(name, QuantityKind.LENGTH, value, self._document.plan.reader) or self._document.do(
            tr("measure {what}", what=self.what.currentText()), lambda p: actions.measure(p, name, reading)
        )
        if sentence:
            self.field.complain(sentence)
        else:
            self._bench.setFocus()
