"""Figures with their names, as many as are wanted; what is typed stays, what is none is said."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PySide6.QtWidgets import QLabel, QLineEdit, QWidget

from nullah.core.lengths import LengthError, Marks, read_length
from nullah.core.limits import quoted, read_number
from nullah.core.named_tuple import NamedTuple
from nullah.core.wording.facts import error_words
from nullah.desk.stations.base import Section, labelled
from nullah.desk.text_label import TextLabel
from nullah.language import tr


class NumberField(NamedTuple):
    """A figure to show: what it is called, and mm where it is a `length`, else a plain number."""

    name: str
    figure: float
    length: bool = True


class Numbers:
    """Up to `most` fields; `entered` is called with all figures when Enter is pressed in one, lengths in mm."""

    def __init__(self, row: Section, name: str, most: int, entered: Callable[[tuple[float, ...]], None]) -> None:
        self._entered = entered
        self._shown: tuple[NumberField, ...] = ()
        self._marks = Marks()
        self.fields: list[QLineEdit] = []
        self._pairs: list[QWidget] = []
        for number in range(most):
            field = QLineEdit()
            field.setAccessibleName(tr("figure {number} of the {name}", number=number + 1, name=name))
            field.setMaximumWidth(90)
            field.setMinimumHeight(32)
            field.returnPressed.connect(self._enter)
            self.fields.append(field)
            self._pairs.append(labelled("", field, row))
        self.sentence = TextLabel(wraps=True, weight="fails")
        row.addWidget(self.sentence)

    def show_figures(self, figures: Sequence[NumberField], marks: Marks, shown: bool = True) -> None:
        """Show so many figures with their names, in the unit of the marks, or none."""
        self._shown, self._marks = tuple(figures), marks
        self.sentence.setText("")
        self.sentence.setVisible(shown)
        for number, (field, pair) in enumerate(zip(self.fields, self._pairs, strict=True)):
            there = shown and number < len(figures)
            pair.setVisible(there)
            if not there:
                continue
            label = pair.findChild(QLabel)
            if isinstance(label, QLabel):
                label.setText(figures[number].name[:1].upper() + figures[number].name[1:])
            if not (field.hasFocus() and field.isModified()):
                field.setText(self._text(figures[number]))

    def _text(self, shown: NumberField) -> str:
        """Return what a field is to hold; a length with its unit, so that nobody need guess in what it is."""
        if not shown.length:
            return f"{shown.figure:g}"
        return self._marks.write_bare(shown.figure)

    def _enter(self) -> None:
        try:
            figures = tuple(self._read(*pair) for pair in zip(self._shown, self.fields, strict=False))
        except LengthError as error:
            self.sentence.setText(error_words(error))
            return
        for field in self.fields:
            field.setModified(False)
        self._entered(figures)

    def _read(self, shown: NumberField, field: QLineEdit) -> float:
        """Return the figure in a field, or raise `LengthError`; what was not touched is as exact as it was."""
        if field.text() == self._text(shown):
            return shown.figure
        if shown.length:
            return float(read_length(field.text(), self._marks.unit))
        figure = read_number(field.text())
        if figure is None:
            raise LengthError(tr("{name}: {typed} is not a figure.", name=shown.name, typed=quoted(field.text())))
        return figure
