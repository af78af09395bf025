"""The card: what is carried to the bench. Set, Mark, Mind, Why."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QFont
from PySide6.QtWidgets import (
    QApplication,
    QGridLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from nullah.core.card import Card, Mend, Remark, Setting, Weight
from nullah.desk.theme import BODY, FIGURE, SMALL, TITLE
from nullah.paper.lettering import typeface

#: Figures up to this many letters stand two to a row.
_SHORT = 11
_SIGNS = {Weight.NOTE: "", Weight.LOOK: "◆ ", Weight.FAILS: "▲ "}


class CardView(QScrollArea):
    """Shows a card. `mend` carries a way out that was clicked, `figure` the quantity of a setting."""

    mend = Signal(object)
    figure = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setAccessibleName("Card")
        self.setWidgetResizable(True)
        self.setFixedWidth(312)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.card = Card()
        self._body: QWidget | None = None

    def show_card(self, card: Card) -> None:
        """Show another card, keeping the place where it is the same one."""
        if card == self.card and self._body is not None:
            return
        at = self.verticalScrollBar().value() if card.title == self.card.title else 0
        focused = QApplication.focusWidget()
        focus_name = focused.accessibleName() if focused is not None and self.isAncestorOf(focused) else ""
        self.card = card
        # The old body may hold the very button whose click brought us here.
        old = self.takeWidget()
        if old is not None:
            old.deleteLater()
        self._body = self._fill(card)
        self.setWidget(self._body)
        self.verticalScrollBar().setValue(at)
        if focus_name:
            self._focus_again(focus_name)

    def _focus_again(self, name: str) -> None:
        """Put the keyboard back on the figure or mend of the same name, or else on the card."""
        buttons = self._body.findChildren(QPushButton) if self._body else []
        again = next((button for button in buttons if button.accessibleName() == name), None)
        (again or self).setFocus()

    def _fill(self, card: Card) -> QWidget:
        body = QWidget()
        body.setObjectName("cardBody")
        column = QVBoxLayout(body)
        column.setContentsMargins(18, 14, 14, 14)
        column.setSpacing(2)
        if card.title:
            column.addWidget(self._words(card.title, typeface(TITLE, bold=True)))
        if card.mind and any(remark.weight is Weight.FAILS for remark in card.mind):
            # What will not work comes before any setting: nobody should carry those away.
            self._mind(column, [r for r in card.mind if r.weight is Weight.FAILS])
        if card.set:
            self._section(column, "Set", [])
            self._settings(column, card.set)
        self._section(column, "Mark", [f"{i}  {text}" for i, text in enumerate(card.mark, start=1)])
        milder = [remark for remark in card.mind if remark.weight is not Weight.FAILS]
        if milder:
            self._section(column, "Mind", [])
            self._mind(column, sorted(milder, key=lambda remark: remark.weight is Weight.NOTE))
        self._section(column, "Why", list(card.why))
        column.addStretch(1)
        return body

    def _words(self, text: str, font: QFont | None = None) -> QLabel:
        label = QLabel(text)
        label.setTextFormat(Qt.TextFormat.PlainText)
        label.setWordWrap(True)
        label.setFont(font or typeface(BODY))
        label.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Minimum)
        return label

    def _section(self, column: QVBoxLayout, title: str, lines: list[str]) -> None:
        if title and (lines or title in ("Set", "Mind")):
            column.addSpacing(10)
            heading = self._words(title, typeface(BODY, bold=True))
            heading.setProperty("quiet", "true")
            column.addWidget(heading)
        for text in lines:
            column.addWidget(self._words(text))
            column.addSpacing(3)

    def _settings(self, column: QVBoxLayout, settings: tuple[Setting, ...]) -> None:
        """Set short figures in two columns and long ones over both."""
        grid = QGridLayout()
        grid.setHorizontalSpacing(10)
        grid.setVerticalSpacing(8)
        grid.setColumnStretch(0, 1)
        grid.setColumnStretch(1, 1)
        row, at = 0, 0
        for setting in settings:
            wide = len(setting.figure) > _SHORT or len(setting.tool) > _SHORT + 6
            if wide and at:
                row, at = row + 1, 0
            grid.addWidget(self._setting(setting), row, at, 1, 2 if wide else 1, Qt.AlignmentFlag.AlignTop)
            row, at = (row, 1) if not wide and at == 0 else (row + 1, 0)
        column.addLayout(grid)

    def _setting(self, setting: Setting) -> QWidget:
        cell = QWidget()
        column = QVBoxLayout(cell)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        tool = self._words(setting.tool, typeface(SMALL + 1))
        tool.setProperty("quiet", "true")
        column.addWidget(tool)
        font = typeface(FIGURE if len(setting.figure) < 20 else FIGURE - 2, bold=True)
        if setting.of:
            button = QPushButton(setting.figure)
            button.setProperty("figure", "true")
            button.setFont(font)
            button.setMinimumHeight(34)
            button.setAccessibleName(f"{setting.tool}: {setting.figure}")
            button.setToolTip("Click to see why, or to type another figure")
            button.clicked.connect(lambda: self.figure.emit(setting.of))
            column.addWidget(button)
        else:
            column.addWidget(self._words(setting.figure, font))
        if setting.note:
            note = self._words(setting.note, typeface(SMALL))
            note.setProperty("quiet", "true")
            column.addWidget(note)
        return cell

    def _mind(self, column: QVBoxLayout, remarks: list[Remark]) -> None:
        for remark in remarks:
            label = self._words(_SIGNS[remark.weight] + remark.text)
            label.setProperty("weight", {Weight.LOOK: "look", Weight.FAILS: "fails"}.get(remark.weight, ""))
            column.addWidget(label)
            for mend in remark.mends:
                column.addWidget(self._mend_button(mend))
            column.addSpacing(4)

    def _mend_button(self, mend: Mend) -> QPushButton:
        button = QPushButton(mend.label)
        button.setProperty("mend", "true")
        button.setAccessibleName(mend.label)
        button.setMinimumHeight(32)
        button.clicked.connect(lambda: self.mend.emit(mend))
        return button
