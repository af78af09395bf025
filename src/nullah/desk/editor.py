"""Typing a figure where it stands: a small slip over the drawing for one quantity."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from PySide6.QtCore import QDate, QPointF, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from nullah.core import actions
from nullah.core.catalogue import N_
from nullah.core.frozen_record import FrozenRecord
from nullah.core.ledger import Measured, Origin, Quantity, QuantityKind, Value
from nullah.core.lengths import Length, Marks
from nullah.core.plan import Plan
from nullah.core.project import Project
from nullah.core.refs import BoardSizeRef, QuantityRef, Ref
from nullah.core.wording.facts import fact_words
from nullah.core.wording.ledger import refusal
from nullah.desk.document import Document
from nullah.desk.fields import ValueField, written
from nullah.desk.stations.base import Chooser
from nullah.desk.text_label import TextLabel
from nullah.language import tr
from nullah.paper.lettering import typeface

_ORIGIN_WORDS = {
    Origin.GIVEN: N_("given"),
    Origin.WORKED_OUT: N_("worked out; typing another overrules it"),
    Origin.OVERRULED: N_("overruled by you"),
    Origin.MEASURED: N_("measured at the bench"),
    Origin.WAITS: N_("planned only: waits for a measurement"),
    Origin.FITTED: N_("fitted to what was measured"),
}
MEASURED_BY = (N_("with the caliper"), N_("with the rule"), N_("with the tape"), N_("from the part itself"))


class _Matter(FrozenRecord):
    """What is being typed: its title, kind, text now, and how it is set, measured and taken back."""

    ref: Ref
    title: str
    origin: str
    kind: QuantityKind
    text: str
    set: Callable[[Value], str]
    measure: Callable[[Value], str] | None = None
    take_back: Callable[[], str] | None = None
    preview: Callable[[Value], str] | None = None


class FigureEditor(QFrame):
    """The slip: a field, and what may be done with what is typed in it."""

    def __init__(self, document: Document, over: QWidget) -> None:
        super().__init__(over)
        self.setObjectName("editor")
        self._document, self._over = document, over
        self._matter: _Matter | None = None
        self._field: ValueField | None = None
        self._told: TextLabel | None = None
        self._by: Chooser | None = None
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(12, 8, 12, 10)
        self._column.setSpacing(5)
        self._body: QWidget | None = None
        self.hide()

    @property
    def ref(self) -> Ref | None:
        """What the figure that is open is of; None where none is."""
        return self._matter.ref if self._matter is not None and self.isVisible() else None

    @property
    def field(self) -> ValueField | None:
        """The field that is open, or None."""
        return self._field if self.isVisible() else None

    def open(self, ref: Ref, at: QPointF) -> bool:
        """Open over a point for a figure; False if it is no figure."""
        matter = self._find(ref)
        if matter is None:
            return False
        self._matter = matter
        self._fill(matter)
        self._fit()
        x = min(max(8, int(at.x()) - self.width() // 2), self._over.width() - self.width() - 8)
        y = min(max(8, int(at.y()) + 18), self._over.height() - self.height() - 8)
        self.move(x, y)
        self.show()
        self.raise_()
        if self._field is not None:
            self._field.line.setFocus()
            self._field.line.selectAll()
        return True

    def close_slip(self) -> None:
        """Put the slip away; what was typed and not entered is dropped, as Escape means."""
        if self.isVisible():
            self.hide()
            self._over.setFocus()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        # What is typed here must not reach the bench below, where Enter opens figures.
        if event.key() == Qt.Key.Key_Escape:
            self.close_slip()
        event.accept()

    def _fill(self, matter: _Matter) -> None:
        if self._body is not None:
            self._column.removeWidget(self._body)
            self._body.hide()
            self._body.deleteLater()
        body = QWidget()
        column = QVBoxLayout(body)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        title = TextLabel(matter.title[:1].upper() + matter.title[1:])
        title.setFont(typeface(15, bold=True))
        origin = TextLabel(matter.origin, quiet=True)
        origin.setFont(typeface(13))
        field = ValueField(matter.title, matter.kind, self._document.project.marks.unit, 190)
        field.line.setText(matter.text)
        field.entered.connect(lambda value: self._apply(matter.set, value))
        field.left.connect(self.close_slip)
        told = TextLabel(wraps=True)
        told.setFont(typeface(13))
        told.setMaximumWidth(300)
        told.hide()
        self._told = told
        field.line.textChanged.connect(lambda text: self._tell(text))
        row = QHBoxLayout()
        row.setSpacing(4)
        row.addWidget(self._button(tr("Set it"), True, lambda: self._read(matter.set)))
        if matter.measure is not None:
            measure = matter.measure
            row.addWidget(self._button(tr("Measured"), False, lambda: self._read(measure)))
            self._by = Chooser()
            self._by.setAccessibleName(tr("measured by"))
            for way in MEASURED_BY:
                self._by.addItem(tr(way), way)
            row.addWidget(self._by)
        if matter.take_back is not None:
            row.addWidget(self._button(tr("Take back"), False, matter.take_back))
        row.addStretch(1)
        for widget in (title, origin, field, told):
            column.addWidget(widget)
        column.addLayout(row)
        self._body, self._field = body, field
        self._column.addWidget(body)

    def _tell(self, text: str) -> None:
        """Say what would change, as it is typed."""
        if self._matter is None or self._matter.preview is None or self._field is None or self._told is None:
            return
        value = self._field.reading()
        words = self._matter.preview(value) if value is not None and text != self._matter.text else ""
        self._told.setText(words)
        self._told.setVisible(bool(words))
        # Grow or shrink with the words, and stay on the bench.
        self._fit()
        self.move(self.x(), min(self.y(), max(8, self._over.height() - self.height() - 8)))

    def _fit(self) -> None:
        """Take the size of what stands here: words that wrap are as high as they are at this width."""
        body = self._body.layout() if self._body is not None else None
        if body is None:
            return
        # The outer layout asks the inner one, which would hear of new words only later.
        body.invalidate()
        body.activate()
        self._column.invalidate()
        self._column.activate()
        size = self._column.sizeHint()
        self.resize(size.width(), max(size.height(), self._column.heightForWidth(size.width())))

    def _button(self, text: str, main: bool, action: Callable[[], object]) -> QPushButton:
        button = QPushButton(text)
        button.setProperty("main", "true" if main else "false")
        button.setAccessibleName(text)
        button.setMinimumHeight(32)

        def clicked() -> None:
            sentence = action()
            if sentence == "":
                self.close_slip()

        button.clicked.connect(clicked)
        return button

    def _read(self, use: Callable[[Value], str]) -> str | None:
        value = self._field.value() if self._field else None
        if value is None:
            return None
        sentence = use(value)
        if sentence and self._field:
            self._field.complain(sentence)
            self._fit()
        return sentence

    def _apply(self, use: Callable[[Value], str], value: Value) -> None:
        sentence = use(value)
        if sentence and self._field:
            self._field.complain(sentence)
            self._fit()
        else:
            self.close_slip()

    # --- what can be typed ---

    def _find(self, ref: Ref) -> _Matter | None:
        ledger = self._document.plan.ledger
        match ref:
            case QuantityRef(name) if ledger is not None and name in ledger.quantities:
                return self._quantity(name, ledger.quantity(name))
            case BoardSizeRef(board, figure):
                return self._board_figure(board, figure)
        return None

    def _quantity(self, name: str, quantity: Quantity) -> _Matter:
        title, document = self._document.plan.reader.title(name), self._document

        def change(value: Value) -> str:
            if quantity.origin is Origin.MEASURED:
                # What is given would stand behind the measurement unseen: another figure is another measurement.
                return measured(value)
            wrong = refusal(name, quantity.definition.kind, value, document.plan.reader)
            return wrong or document.do(f"{title} {written(value)}", lambda p: actions.give(p, name, value))

        def measured(value: Value) -> str:
            wrong = refusal(name, quantity.definition.kind, value, document.plan.reader)
            day = QDate.currentDate().toString(Qt.DateFormat.ISODate)
            reading = Measured(value, day, str(self._by.currentData()) if self._by is not None else "")
            return wrong or document.do(
                tr("measure {title} {length}", title=title, length=written(value)),
                lambda p: actions.measure(p, name, reading),
            )

        def preview(value: Value) -> str:
            if refusal(name, quantity.definition.kind, value, document.plan.reader):
                return ""
            if quantity.origin is Origin.MEASURED:
                return self._consequence(name, document.tentative(lambda p: actions.measure(p, name, value)))
            return self._consequence(name, document.tentative(lambda p: actions.give(p, name, value)))

        def back() -> str:
            if quantity.origin is Origin.MEASURED:
                return document.do(
                    tr("take back the measured {title}", title=title), lambda p: actions.measure(p, name, None)
                )
            return document.do(tr("take back the {title}", title=title), lambda p: actions.give(p, name, None))

        can_go_back = quantity.origin in (Origin.MEASURED, Origin.OVERRULED)
        return _Matter(
            QuantityRef(name),
            title,
            tr(_ORIGIN_WORDS[quantity.origin]),
            quantity.definition.kind,
            quantity.write_to_edit(self._document.project.marks),
            change,
            measured if quantity.definition.kind is QuantityKind.LENGTH else None,
            back if can_go_back else None,
            preview,
        )

    def _consequence(self, name: str, after: Plan | None) -> str:
        """Return what else would change, and what could then no longer be made."""
        before, marks = self._document.plan, self._document.project.marks
        if after is None or before.ledger is None:
            return ""
        if after.ledger is None or not after.parts:
            return " ".join(
                [tr("Then it cannot be made."), *(fact_words(each.fact, after.reader) for each in after.remarks[:1])]
            )
        changed = [c for c in before.ledger.changes(after.ledger) if c.name != name]
        if not changed:
            return tr("Nothing else changes.")
        # What reads the same before and after is said last: only its standing changes.
        changed.sort(key=lambda change: change.before.write(marks) == change.after.write(marks))
        told = [f"{after.reader.title(c.name)} {c.before.write(marks)} → {c.after.write(marks)}" for c in changed]
        more = tr("; and {count} more", count=len(told) - 4) if len(told) > 4 else ""
        return tr("Changes with it: {changes}{more}.", changes="; ".join(told[:4]), more=more)

    def _board_figure(self, board_id: str, figure: str) -> _Matter | None:
        board = self._document.project.board(board_id)
        if board is None:
            return None
        old: Length = getattr(board, figure)
        marks: Marks = self._document.project.marks

        def change(value: Value) -> str:
            if not isinstance(value, Length):
                return tr("Type a length.")

            def action(project: Project) -> Project:
                now = project.board(board_id)
                if now is None:
                    return project
                sizes: dict[str, Length] = {figure: value}
                return actions.change_board(project, replace(now, **sizes))  # type: ignore[arg-type]

            return self._document.do(f"{board.name}: {figure} {written(value)}", action)

        ref = BoardSizeRef(board_id, figure)
        return _Matter(
            ref,
            f"{board.name}, {figure}",
            tr("as it stands on the rack"),
            QuantityKind.LENGTH,
            marks.write_to_edit(old),
            change,
        )
