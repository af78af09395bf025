"""The head of the window: the piece, what is unsettled, units, theme, and the menu of papers."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QMenu,
    QPushButton,
    QSizePolicy,
    QToolButton,
    QWidget,
)

from nullah.core.lengths import STYLES, Marks
from nullah.core.limits import NAME_TEXT
from nullah.core.wording.plan import unsettled_words
from nullah.desk.document import Document
from nullah.desk.stations.base import chooser, show_choice, words
from nullah.desk.tips import plain_tip
from nullah.paper.lettering import typeface


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
    """Piece name · what is unsettled; undo, units, day and night, papers."""

    unit_chosen = Signal(object)
    mark_chosen = Signal(object)
    theme_chosen = Signal(bool)
    renamed = Signal(str)
    menu_wanted = Signal(object)

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.setObjectName("header")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._document = document
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 6, 10, 6)
        row.setSpacing(4)
        self.name = QLineEdit()
        self.name.setObjectName("pieceName")
        self.name.setAccessibleName("Name of the piece")
        self.name.setFont(typeface(19, bold=True))
        self.name.setMaxLength(NAME_TEXT)
        self.name.setFixedWidth(210)
        self.name.editingFinished.connect(self.enter_name)
        row.addWidget(self.name)
        self.unsettled = Elided()
        self.unsettled.setObjectName("unsettled")
        self.unsettled.setTextFormat(Qt.TextFormat.PlainText)
        self.unsettled.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        row.addWidget(self.unsettled, 1)
        self.undo = self._button("Undo", document.undo)
        self.redo = self._button("Redo", document.redo)
        row.addWidget(self.undo)
        row.addWidget(self.redo)
        row.addSpacing(8)
        self.units = self._pair("Units", tuple((style.name, unit) for unit, style in STYLES.items()), row)
        words("to", row)
        self.mark = chooser("Smallest mark", [], self._choose_mark, row)
        row.addSpacing(8)
        self.themes = self._pair("Light", (("day", False), ("night", True)), row)
        row.addSpacing(8)
        self.papers = QToolButton()
        self.papers.setText("Papers ▾")
        self.papers.setAccessibleName("Papers: open, save, print")
        self.papers.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.papers.setMinimumHeight(34)
        self.menu = QMenu(self)
        self.menu.aboutToShow.connect(lambda: self.menu_wanted.emit(self.menu))
        self.papers.setMenu(self.menu)
        row.addWidget(self.papers)
        self.units.idClicked.connect(lambda i: self.unit_chosen.emit(list(STYLES)[i]))
        self.themes.idClicked.connect(lambda i: self.theme_chosen.emit(bool(i)))

    def enter_name(self) -> None:
        """Take the name that was typed, if one was: the field only losing the focus names nothing."""
        if self.name.isModified():
            self.name.setModified(False)
            self.renamed.emit(self.name.text().strip() or "Piece")

    def _choose_mark(self, text: str) -> None:
        self.mark_chosen.emit(Fraction(text))

    def _button(self, text: str, action: Callable[[], None]) -> QPushButton:
        button = QPushButton(text)
        button.setMinimumHeight(34)
        button.clicked.connect(lambda: action())
        return button

    def _pair(self, name: str, options: tuple[tuple[str, object], ...], row: QHBoxLayout) -> QButtonGroup:
        group = QButtonGroup(self)
        for index, (text, _) in enumerate(options):
            button = QPushButton(text)
            button.setCheckable(True)
            button.setAccessibleName(f"{name}: {text}")
            button.setMinimumHeight(34)
            group.addButton(button, index)
            row.addWidget(button)
        return group

    def refresh(self) -> None:
        """Show what the document holds now."""
        document = self._document
        if not self.name.isModified():
            self.name.setText(document.project.piece.name)
            self.name.setCursorPosition(0)
        unsettled = unsettled_words(document.plan)
        text = " · ".join(unsettled) if unsettled else "everything settled"
        self.unsettled.setText(text)
        self.unsettled.setToolTip(plain_tip(text))
        self.unsettled.setProperty("settled", "false" if unsettled else "true")
        self.unsettled.style().unpolish(self.unsettled)
        self.unsettled.style().polish(self.unsettled)
        for button, word, name in ((self.undo, "Undo", document.undo_name), (self.redo, "Redo", document.redo_name)):
            button.setEnabled(bool(name))
            button.setAccessibleName(f"{word}: {name}" if name else word)
            button.setToolTip(plain_tip(f"{word}: {name}") if name else f"Nothing to {word.lower()}")
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

    def show_theme(self, night: bool) -> None:
        """Show which theme is on."""
        self.themes.button(1 if night else 0).setChecked(True)
