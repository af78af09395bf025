"""The head of the window: the piece, what is unsettled, undo and redo, units."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QLabel, QLineEdit, QPushButton, QSizePolicy, QWidget

from nullah.core.fraction import Fraction
from nullah.core.lengths import STYLES, Marks
from nullah.core.limits import NAME_TEXT
from nullah.core.wording.plan import unsettled_words
from nullah.desk.document import Document
from nullah.desk.stations.base import Chooser, show_choice
from nullah.desk.text_label import TextLabel
from nullah.desk.tips import plain_tip
from nullah.language import tr
from nullah.paper.lettering import typeface

_NAME_LEAST, _NAME_MOST = 160, 420


class Elided(QLabel):
    """Words that are shortened with an ellipsis where there is no room, and whole in the tip."""

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setPen(self.palette().color(self.foregroundRole()))
        painter.setFont(self.font())
        words = self.fontMetrics().elidedText(self.text(), Qt.TextElideMode.ElideRight, self.width())
        painter.drawText(self.rect(), int(Qt.AlignmentFlag.AlignVCenter), words)
        painter.end()


class Header(QWidget):
    """Piece name · what is unsettled; undo, redo; the unit and the smallest mark."""

    unit_chosen = Signal(object)
    mark_chosen = Signal(object)
    renamed = Signal(str)

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.setObjectName("header")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._document = document
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 2, 10, 3)
        row.setSpacing(4)
        self.name = QLineEdit()
        self.name.setObjectName("pieceName")
        self.name.setAccessibleName(tr("Name of the piece"))
        self.name.setFont(typeface(19, bold=True))
        self.name.setMaxLength(NAME_TEXT)
        self.name.setMinimumHeight(32)
        self.name.editingFinished.connect(self.enter_name)
        self.name.textChanged.connect(lambda _: self._fit_name())
        row.addWidget(self.name)
        self.unsettled = Elided()
        self.unsettled.setObjectName("unsettled")
        self.unsettled.setTextFormat(Qt.TextFormat.PlainText)
        self.unsettled.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        row.addWidget(self.unsettled, 1)
        self.undo = self._button(tr("Undo"), document.undo, row)
        self.redo = self._button(tr("Redo"), document.redo, row)
        row.addSpacing(8)
        self.units = QButtonGroup(self)
        for index, style in enumerate(STYLES.values()):
            button = self._button(tr(style.name), lambda: None, row)
            button.setCheckable(True)
            button.setAutoExclusive(True)
            button.setAccessibleName(tr("Units: {name}", name=tr(style.name)))
            self.units.addButton(button, index)
        self.units.idClicked.connect(lambda i: self.unit_chosen.emit(list(STYLES)[i]))
        to = TextLabel(tr("to"), quiet=True)
        row.addWidget(to)
        self.mark = Chooser()
        self.mark.setAccessibleName(tr("Smallest mark"))
        self.mark.currentIndexChanged.connect(lambda _: self.mark.updateGeometry())
        self.mark.activated.connect(lambda _: self.mark_chosen.emit(Fraction(str(self.mark.currentData()))))
        row.addWidget(self.mark)

    def _fit_name(self) -> None:
        """Give the name the room it needs, within reason."""
        wanted = self.name.fontMetrics().horizontalAdvance(self.name.text()) + 30
        self.name.setFixedWidth(min(max(wanted, _NAME_LEAST), _NAME_MOST))

    def enter_name(self) -> None:
        """Take the name that was typed, if one was: the field only losing the focus names nothing."""
        if self.name.isModified():
            self.name.setModified(False)
            self.renamed.emit(self.name.text().strip() or "Piece")

    def _button(self, text: str, act: Callable[[], None], row: QHBoxLayout) -> QPushButton:
        button = QPushButton(text)
        button.setMinimumHeight(32)
        button.clicked.connect(lambda: act())
        row.addWidget(button)
        return button

    def refresh(self) -> None:
        """Show what the document holds now."""
        document = self._document
        if not self.name.isModified():
            self.name.setText(document.project.piece.name)
            self.name.setCursorPosition(0)
        unsettled = unsettled_words(document.plan)
        text = " · ".join(unsettled) if unsettled else tr("everything settled")
        self.unsettled.setText(text)
        self.unsettled.setToolTip(plain_tip(text))
        self.unsettled.setProperty("settled", "false" if unsettled else "true")
        self.unsettled.style().unpolish(self.unsettled)
        self.unsettled.style().polish(self.unsettled)
        for button, word, name in (
            (self.undo, tr("Undo"), document.undo_name),
            (self.redo, tr("Redo"), document.redo_name),
        ):
            button.setEnabled(bool(name))
            button.setAccessibleName(f"{word}: {name}" if name else word)
            button.setToolTip(plain_tip(f"{word}: {name}") if name else tr("Nothing to {word}", word=word.lower()))
        marks = document.project.marks
        self._show_mark(marks)
        self.units.button(list(STYLES).index(marks.unit)).setChecked(True)

    def _show_mark(self, marks: Marks) -> None:
        options = [(str(mark), text) for mark, text in marks.style.marks]
        if self.mark.itemData(0) != options[0][0]:
            self.mark.clear()
            for value, text in options:
                self.mark.addItem(text, value)
        show_choice(self.mark, str(marks.rule_mark))
