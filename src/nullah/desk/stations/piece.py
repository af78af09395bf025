"""Piece on the desk: how it is sized, and which boards carry the tails."""

from __future__ import annotations

from functools import partial

from PySide6.QtWidgets import QComboBox

from nullah.core import actions
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.stations.base import StationDesk, chooser, show_choice
from nullah.desk.stations.figures import Figure, FigureFields

# What is too small to be clicked on the drawing.
_FIGURES = (
    Figure("contents.clearance", "round contents", width=56),
    Figure("bottom.clearance", "round bottom", width=56),
)


class PieceDesk(StationDesk):
    """The choices of the form; other figures are typed on the drawing."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        row = self.row()
        self.boxes: dict[str, QComboBox] = {}
        for choice in document.plan.form.choices:
            self.boxes[choice.name] = chooser(
                choice.title, list(choice.options), partial(self._choose, choice.name), row, choice.title
            )
        self._figures = FigureFields(document, bench, row, _FIGURES)
        self.fields = self._figures.fields

    def _choose(self, name: str, value: str) -> None:
        if self.document.plan.choices[name] == value:
            return
        choice = next(c for c in self.document.plan.form.choices if c.name == name)
        text = dict(choice.options)[value]
        self.document.do(f"{choice.title.lower()} {text}", lambda p: actions.choose(p, name, value))

    def refresh(self) -> None:
        self._figures.refresh()
        for name, box in self.boxes.items():
            show_choice(box, self.document.plan.choices[name])
