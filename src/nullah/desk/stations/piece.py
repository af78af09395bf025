"""Piece on the desk: how it is sized, and which boards carry the tails."""

from __future__ import annotations

from functools import partial

from PySide6.QtWidgets import QComboBox

from nullah.core import actions
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.stations.base import StationDesk, chooser, show_choice, words


class PieceDesk(StationDesk):
    """The choices of the form; figures are typed on the drawing."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        row = self.row()
        self.boxes: dict[str, QComboBox] = {}
        for choice in document.plan.form.choices:
            self.boxes[choice.name] = chooser(
                choice.title, list(choice.options), partial(self._choose, choice.name), row, choice.title
            )
        words("Click a figure to type another", row)

    def _choose(self, name: str, value: str) -> None:
        if self.document.plan.choices[name] == value:
            return
        choice = next(c for c in self.document.plan.form.choices if c.name == name)
        text = dict(choice.options)[value]
        self.document.do(f"{choice.title.lower()} {text}", lambda p: actions.choose(p, name, value))

    def refresh(self) -> None:
        for name, box in self.boxes.items():
            show_choice(box, self.document.plan.choices[name])
