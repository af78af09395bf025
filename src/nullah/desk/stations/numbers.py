"""A row of plain numbers with their names, as many as are wanted; what is typed stays, what is none is said."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PySide6.QtWidgets import QLabel, QLineEdit, QWidget

from nullah.core.limits import quoted, read_number
from nullah.desk.stations.base import Section, labelled


class Numbers:
    """Up to `most` fields; `entered` is called with all figures when Enter is pressed in one."""

    def __init__(self, row: Section, name: str, most: int, entered: Callable[[tuple[float, ...]], None]) -> None:
        self._entered = entered
        self._names: tuple[str, ...] = ()
        self.fields: list[QLineEdit] = []
        self._pairs: list[QWidget] = []
        for number in range(most):
            field = QLineEdit()
            field.setAccessibleName(f"figure {number + 1} of the {name}")
            field.setMaximumWidth(70)
            field.setMinimumHeight(32)
            field.returnPressed.connect(self._enter)
            self.fields.append(field)
            self._pairs.append(labelled("", field, row))
        self.sentence = QLabel()
        self.sentence.setProperty("weight", "fails")
        row.addWidget(self.sentence)

    def show_figures(self, names: Sequence[str], figures: Sequence[float], shown: bool = True) -> None:
        """Show so many figures with their names, or none."""
        self._names = tuple(names)
        self.sentence.setText("")
        self.sentence.setVisible(shown)
        for number, (field, pair) in enumerate(zip(self.fields, self._pairs, strict=True)):
            there = shown and number < len(names)
            pair.setVisible(there)
            if not there:
                continue
            label = pair.findChild(QLabel)
            if isinstance(label, QLabel):
                label.setText(names[number][:1].upper() + names[number][1:])
            if not (field.hasFocus() and field.isModified()):
                field.setText(f"{figures[number]:g}")

    def _enter(self) -> None:
        figures = []
        for name, field in zip(self._names, self.fields, strict=False):
            figure = read_number(field.text())
            if figure is None:
                self.sentence.setText(f"{name}: {quoted(field.text())} is not a figure.")
                return
            figures.append(figure)
        for field in self.fields:
            field.setModified(False)
        self._entered(tuple(figures))
