"""The row for the contours of a board of one's own: which, where, how large; and taking one off again."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QLabel, QLineEdit, QWidget

from nullah.core.forms.own_boards import OwnBoard
from nullah.core.lengths import LengthError
from nullah.core.piece.contours import CONTOURS, Place, shaping_of, traced, usual
from nullah.core.piece.part import Part
from nullah.core.piece.shaping import Shaping
from nullah.core.wording.facts import error_words
from nullah.core.wording.shaping import shaping_name
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import Section, action, chooser, labelled
from nullah.desk.text_label import TextLabel
from nullah.files.tables import TableError, read_table_text
from nullah.language import tr, tr_pairs

_TRACED = "traced"


class ContourRow:
    """Cuts contours into a board. `changed` is called with what is done, and the board's shapings then."""

    def __init__(self, document: Document, row: Section, changed: Callable[[str, tuple[Shaping, ...]], None]) -> None:
        self._document, self._changed = document, changed
        self._board: OwnBoard | None = None
        self._part: Part | None = None
        kinds = [*tr_pairs((c.id, c.title) for c in CONTOURS.values()), (_TRACED, tr("Edge traced from a template"))]
        self.kind = chooser(tr("contour"), kinds, lambda _: self._fill_places(), row, tr("Shape"))
        self.place = chooser(tr("where the contour goes"), [], lambda _: None, row, tr("where"))
        self.sizes = [ValueField(tr("contour figure {number}", number=number), width=54) for number in (1, 2, 3)]
        for field in self.sizes:
            field.line.setMaximumWidth(68)
            field.line.returnPressed.connect(self._cut)
        self._size_pairs = [labelled("", field, row) for field in self.sizes]
        self.points = QLineEdit()
        self.points.setAccessibleName(tr("points of the template"))
        self.points.setPlaceholderText(tr("along, in; along, in; …"))
        self.points.setMinimumHeight(32)
        row.addWidget(self.points)
        self.template = action(tr("Template …"), self._read_template, row)
        self.cut = action(tr("Cut it so"), self._cut, row, main=True)
        self.off = chooser(tr("take a contour off"), [], self._take_off, row, tr("There are"))
        self.told = TextLabel(weight="fails")
        row.addWidget(self.told)
        self._widgets = [
            self.kind.parentWidget(),
            self.place.parentWidget(),
            *self._size_pairs,
            self.points,
            self.template,
            self.cut,
            self.off.parentWidget(),
            self.told,
        ]
        self._places: tuple[Place, ...] = ()
        self._places_for: tuple[object, ...] = ()

    def refresh(self, board: OwnBoard | None, part: Part | None) -> None:
        """Show the contours of a board, or nothing."""
        self._board, self._part = board, part
        for widget in self._widgets:
            if isinstance(widget, QWidget):
                widget.setVisible(board is not None)
        if board is not None:
            self._fill_places()
            self._fill_off(board)

    def _fill_places(self) -> None:
        part, kind = self._part, str(self.kind.currentData())
        if part is None:
            return
        contour = CONTOURS.get(kind)
        marks = self._document.project.marks
        key = (part.id, part.box, part.grain, part.face, kind, marks.unit)
        if key == self._places_for:
            self._show_sizes(kind)
            return
        self._places_for = key
        self._places = (contour or CONTOURS["notch"]).places(part)
        self.place.clear()
        for index, place in enumerate(self._places):
            self.place.addItem(tr(place.title), index)
        self.place.updateGeometry()
        if contour is not None:
            for field, size in zip(self.sizes, usual(contour, part), strict=False):
                field.set_unit(marks.unit)
                field.line.setText(marks.write(size, unit=False))
        self.told.setText("")
        self._show_sizes(kind)

    def _show_sizes(self, kind: str) -> None:
        contour = CONTOURS.get(kind)
        names = [name for name, _ in contour.figures] if contour is not None else []
        for index, pair in enumerate(self._size_pairs):
            pair.setVisible(index < len(names))
            label = pair.findChild(QLabel)
            if index < len(names) and isinstance(label, QLabel):
                label.setText(names[index])
                label.setMinimumWidth(label.sizeHint().width())
        self.points.setVisible(contour is None)
        self.template.setVisible(contour is None)
        self.told.setVisible(bool(self.told.text()))

    def _name(self, shaping: Shaping) -> str:
        return shaping_name(shaping, self._document.plan.reader)

    def _fill_off(self, board: OwnBoard) -> None:
        self.off.clear()
        self.off.addItem(tr("{count} cut", count=len(board.shapings)) if board.shapings else tr("none"), -1)
        for index, shaping in enumerate(board.shapings):
            self.off.addItem(tr("take off: {name}", name=self._name(shaping)), index)
        self.off.updateGeometry()

    def _cut(self) -> None:
        part, kind, index = self._part, str(self.kind.currentData()), self.place.currentIndex()
        if part is None or not 0 <= index < len(self._places):
            return
        sides = self._places[index].sides
        try:
            contour = CONTOURS.get(kind)
            if contour is None:
                text = self.points.text().replace(";", "\n")
                shaping: Shaping = traced(part, sides[0], text, self._document.project.marks.unit)
            else:
                sizes = [field.length() for field in self.sizes[: len(contour.figures)]]
                if any(size is None for size in sizes):
                    return
                shaping = shaping_of(contour, part, sides, [size for size in sizes if size is not None])
        except LengthError as error:
            self._tell(error_words(error))
            return
        self._tell("")
        if self._board is not None:
            self._changed(f"cut: {self._name(shaping)}", (*self._board.shapings, shaping))

    def _take_off(self, chosen: str) -> None:
        board, index = self._board, int(chosen)
        if board is not None and 0 <= index < len(board.shapings):
            name = tr("take off: {name}", name=self._name(board.shapings[index]))
            self._changed(name, (*board.shapings[:index], *board.shapings[index + 1 :]))

    def _read_template(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self.template, tr("A template's points"), "", tr("Tables (*.csv *.txt)"))
        if name:
            try:
                self.points.setText("; ".join(read_table_text(Path(name)).splitlines()))
                self._tell("")
            except TableError as error:
                self._tell(error_words(error))

    def _tell(self, sentence: str) -> None:
        self.told.setText(sentence)
        self.told.setVisible(bool(sentence))
