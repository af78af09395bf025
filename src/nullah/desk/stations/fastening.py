"""What holds a joint, and the nails or screws of it, to be chosen and typed."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QComboBox

from nullah.core import actions
from nullah.core.joints.fastened import row_in
from nullah.core.joints.fasteners import SoldSize
from nullah.core.joints.kinds import JointGroup
from nullah.core.joints.rows import sizes_that_hold
from nullah.core.ledger import QuantityKind
from nullah.core.lengths import Length
from nullah.core.piece.joint import RowChoice
from nullah.core.project import Project
from nullah.core.wording.fastening import size_words
from nullah.core.wording.ledger import refusal
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import Section, action, chooser, labelled, show_choice
from nullah.language import tr


class FasteningFields:
    """What holds a joint; of nails and screws their size, how many in a row, and how far from its ends."""

    def __init__(self, document: Document, bench: Bench, row: Section) -> None:
        self._document, self._bench = document, bench
        self._kind: JointGroup | None = None
        self._sizes: dict[str, SoldSize] = {}
        self.hold: QComboBox = chooser(tr("what holds it"), [], self.hold_by, row, tr("Held"))
        self.size: QComboBox = chooser(tr("nails or screws"), [], self._take_size, row, tr("size"))
        self.number = ValueField(tr("number in the row"), QuantityKind.COUNT, width=44)
        self.from_end = ValueField(tr("from the ends"), width=66)
        for field, width in ((self.number, 52), (self.from_end, 80)):
            field.line.setMaximumWidth(width)
        self.number.entered.connect(self._take_number)
        self.from_end.entered.connect(self._take_from_end)
        self._pairs = [
            self.size.parentWidget(),
            labelled(tr("number"), self.number, row),
            labelled(tr("from the ends"), self.from_end, row),
        ]
        self.usual = action(tr("As usual"), self._as_usual, row)
        self.usual.setToolTip(tr("Size, number and distance as the wood wants them"))

    def show_kind(self, kind: JointGroup | None) -> None:
        """Show what holds a joint, where that can be chosen."""
        holds = kind.joint.ways_to_hold if kind is not None else ()
        self._kind = kind if holds else None
        pair = self.hold.parentWidget()
        if pair is not None:
            pair.setVisible(len(holds) > 1)
        if kind is not None and holds:
            _fill(self.hold, [(hold.value, self._document.plan.reader.text(hold.value)) for hold in holds])
            show_choice(self.hold, kind.joint.hold.value)
        self._show_row(self._kind)

    def _show_row(self, kind: JointGroup | None) -> None:
        row, plan = (row_in(kind.joint) if kind is not None else None), self._document.plan
        for pair in self._pairs:
            if pair is not None:
                pair.setVisible(row is not None)
        self.usual.setVisible(self._chosen != RowChoice())
        through, into = (plan.part(row.through), plan.part(row.into)) if row is not None else (None, None)
        if row is None or through is None or into is None:
            return
        sizes = sizes_that_hold(row, through, into, plan.project.set_out_marks)
        self._sizes = {size_words(size, plan.reader): size for size in sizes}
        _fill(self.size, [(text, text) for text in self._sizes])
        show_choice(self.size, size_words(row.fastening.size, plan.reader))
        self.number.show_value(str(len(row.places)))
        self.from_end.set_unit(plan.marks.unit)
        self.from_end.show_value(plan.marks.write(Length(row.from_end)))

    @property
    def _chosen(self) -> RowChoice:
        rows = dict(self._document.project.piece.rows)
        return rows.get(self._kind.joint.id, RowChoice()) if self._kind is not None else RowChoice()

    # --- what is done ---

    def hold_by(self, how: str) -> None:
        """Hold the joint in hand another way."""
        self._do(tr("held: {how}", how=how), lambda project, ids: actions.hold_all(project, ids, how))

    def _take_size(self, text: str) -> None:
        size = self._sizes[text]
        choice = self._chosen._replace(thick=size.thick, long=size.long)
        self._do(text, lambda project, ids: actions.fasten(project, ids, choice))

    def _take_number(self, number: int) -> None:
        self._choose(self._chosen._replace(number=number))

    def _take_from_end(self, from_end: Length) -> None:
        sentence = refusal("from_end", QuantityKind.LENGTH, from_end, self._document.plan.reader)
        if sentence:
            self.from_end.complain(sentence)
        else:
            self._choose(self._chosen._replace(from_end=from_end))

    def _choose(self, choice: RowChoice) -> None:
        self._do(tr("nails and screws"), lambda project, ids: actions.fasten(project, ids, choice))
        self._bench.setFocus()

    def _as_usual(self) -> None:
        self._do(tr("as usual"), lambda project, ids: actions.fasten(project, ids, RowChoice()))

    def _do(self, title: str, change: Callable[[Project, tuple[str, ...]], Project]) -> None:
        if self._kind is not None:
            ids = tuple(joint.id for joint in self._kind.all)
            self._document.do(title, lambda project: change(project, ids))


def _fill(box: QComboBox, options: list[tuple[str, str]]) -> None:
    """Give a choice its options, if they are not there already."""
    if [box.itemData(index) for index in range(box.count())] != [value for value, _ in options]:
        box.clear()
        for value, text in options:
            box.addItem(text, value)
