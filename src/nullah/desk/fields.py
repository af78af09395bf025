"""Fields to type in: one for lengths everywhere, which keeps what is wrong and says why."""

from __future__ import annotations

import re

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QLineEdit, QVBoxLayout, QWidget

from nullah.core.ledger import QuantityKind, Value
from nullah.core.lengths import Length, LengthError, Unit, read_length
from nullah.core.values import read_value
from nullah.core.wording.facts import error_words
from nullah.desk.text_label import TextLabel
from nullah.language import tr
from nullah.paper.lettering import typeface


class ValueField(QWidget):
    """A field for a length, count, slope or weight, with a sentence below it when it cannot be read.

    `entered` carries the value on Enter; `left` follows Escape.
    """

    entered = Signal(object)
    left = Signal()

    def __init__(
        self, name: str, kind: QuantityKind = QuantityKind.LENGTH, unit: Unit = Unit.MM, width: int = 130
    ) -> None:
        super().__init__()
        self._kind, self._unit = kind, unit
        self.line = QLineEdit()
        self.line.setAccessibleName(name)
        self.line.setMinimumWidth(width)
        self.line.setFont(typeface(17))
        self.sentence = TextLabel(wraps=True, weight="fails")
        self.sentence.hide()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(3)
        column.addWidget(self.line)
        column.addWidget(self.sentence)
        self.line.returnPressed.connect(self.enter)
        self.line.textEdited.connect(lambda: self.complain(""))
        self.setFocusProxy(self.line)

    def show_value(self, text: str) -> None:
        """Show a value, unless the user is in the middle of typing another."""
        if not (self.line.hasFocus() and self.line.isModified()):
            self.line.setText(text)
            self.line.setCursorPosition(0)
            self.complain("")

    def set_unit(self, unit: Unit) -> None:
        """Say what a bare number is in."""
        self._unit = unit

    def reading(self) -> Value | None:
        """Return what stands in the field, or None, without a word."""
        try:
            return read_value(self.line.text(), self._kind, self._unit)
        except LengthError:
            return None

    def value(self) -> Value | None:
        """Return what stands in the field, or None after saying what is wrong with it."""
        try:
            return read_value(self.line.text(), self._kind, self._unit)
        except LengthError as error:
            self.complain(error_words(error))
            return None

    def lengths(self) -> tuple[Length, ...] | None:
        """Return the lengths in the field, set apart by commas, or None after saying what is wrong."""
        try:
            texts = [text for text in re.split(r";|,\s", self.line.text()) if text.strip()]
            found = tuple(read_length(text, self._unit) for text in texts)
        except LengthError as error:
            self.complain(error_words(error))
            return None
        if any(length.mm <= 0 for length in found):
            self.complain(tr("Each must be more than nothing."))
            return None
        return found

    def length(self) -> Length | None:
        """Return the length in the field, or None after saying what is wrong with it."""
        value = self.value()
        return value if isinstance(value, Length) else None

    def enter(self) -> None:
        """Read the field and tell, as Enter does."""
        value = self.value()
        if value is not None:
            self.line.setModified(False)
            self.entered.emit(value)

    def complain(self, sentence: str) -> None:
        """Show a sentence below the field; an empty one takes it away. What was typed stays."""
        self.sentence.setText(sentence)
        self.sentence.setVisible(bool(sentence))
        self.line.setProperty("wrong", "true" if sentence else "false")
        self.line.style().unpolish(self.line)
        self.line.style().polish(self.line)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
            return
        super().keyPressEvent(event)


def written(value: Value) -> str:
    """Write a value as it is named in the history."""
    return str(value) if isinstance(value, int) else value.as_text()
