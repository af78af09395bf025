"""Glance: one step so large that it is read from across the shop."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QVBoxLayout, QWidget

from nullah.core.wording.card import WordedCard
from nullah.desk.theme import FIGURE
from nullah.paper.lettering import typeface

_MOST_SETTINGS, _MOST_STEPS = 4, 2


class GlancePage(QWidget):
    """The title, the settings in figures twice as large as on the card, and what to do."""

    def __init__(self) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(28, 20, 28, 20)
        column.setSpacing(14)
        self.title = self._label(FIGURE + 10, True)
        self.settings = self._label(FIGURE * 2, True)
        self.steps = self._label(FIGURE + 4, False)
        self.mind = self._label(FIGURE, False)
        self.mind.setProperty("weight", "look")
        for label in (self.title, self.settings, self.steps, self.mind):
            column.addWidget(label)
        column.addStretch()

    def _label(self, size: int, bold: bool) -> QLabel:
        label = QLabel()
        label.setTextFormat(Qt.TextFormat.PlainText)
        label.setWordWrap(True)
        label.setFont(typeface(size, bold))
        return label

    def show_card(self, card: WordedCard) -> None:
        """Show what a card says, the most of it that is read from afar."""
        self.title.setText(card.title)
        self.settings.setText("\n".join(f"{each.tool}  {each.figure}" for each in card.set[:_MOST_SETTINGS]))
        self.steps.setText("\n".join(card.mark[:_MOST_STEPS]))
        self.mind.setText("\n".join(remark.text for remark in card.mind[:2]))
        for label in (self.settings, self.steps, self.mind):
            label.setVisible(bool(label.text()))
