"""The banner: a sentence across the window, with what can be done about it."""

from __future__ import annotations

from collections.abc import Callable
from enum import IntEnum
from typing import NamedTuple

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QWidget

from nullah.core.limits import one_sentence


class Weight(IntEnum):
    """How much a sentence matters: a heavier one is shown first, and the lighter waits below it."""

    OFFER = 0
    WORD = 1
    QUESTION = 2
    ERROR = 3


class Way(NamedTuple):
    """A way on from a sentence: the words of a button, and what it does."""

    words: str
    act: Callable[[], object]


class _Message(NamedTuple):
    sentence: str
    ways: tuple[Way, ...]
    dismiss: bool


class Banner(QWidget):
    """Shows the heaviest of what was said; each weight holds one sentence, the last that was said.

    So an error at the start is not covered by an offer, and the offer is still there after it.
    """

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("banner")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(16, 5, 10, 5)
        self.words = QLabel()
        self.words.setTextFormat(Qt.TextFormat.PlainText)
        self.words.setWordWrap(True)
        self._row.addWidget(self.words, 1)
        self._buttons: list[QPushButton] = []
        self._said: dict[Weight, _Message] = {}
        self.hide()

    def say(
        self, sentence: str, *ways: tuple[str, Callable[[], object]], weight: Weight = Weight.WORD, dismiss: bool = True
    ) -> None:
        """Say a sentence.

        Parameters
        ----------
        sentence : str
        ways
            Pairs of a button's words and what it does.
        weight : Weight
        dismiss : bool
            Whether it can be dismissed without doing anything.
        """
        self._said[weight] = _Message(one_sentence(sentence), tuple(Way(*way) for way in ways), dismiss)
        self._show()

    def tell(self, sentence: str, weight: Weight = Weight.WORD) -> None:
        """Change the words of what is being said, and leave its ways."""
        if weight in self._said:
            self._said[weight] = self._said[weight]._replace(sentence=one_sentence(sentence))
            if weight is max(self._said):
                self.words.setText(self._said[weight].sentence)

    def forget(self, weight: Weight = Weight.WORD) -> None:
        """Take back what was said."""
        self._said.pop(weight, None)
        self._show()

    def _show(self) -> None:
        for button in self._buttons:
            self._row.removeWidget(button)
            button.hide()
            button.deleteLater()
        self._buttons = []
        if not self._said:
            self.hide()
            return
        weight = max(self._said)
        message = self._said[weight]
        self.words.setText(message.sentence)
        dismissed = (Way("Dismiss", lambda: None),) if message.dismiss else ()
        for way in (*message.ways, *dismissed):
            button = QPushButton(way.words)
            button.setAccessibleName(way.words)
            button.setMinimumHeight(32)
            button.clicked.connect(lambda _=False, act=way.act: self._do(weight, act))
            self._row.addWidget(button)
            self._buttons.append(button)
            button.show()
        self.show()

    def _do(self, weight: Weight, act: Callable[[], object]) -> None:
        self.forget(weight)
        act()

    def button(self, text: str) -> QPushButton | None:
        """Give the button with these words, if it is there."""
        return next((button for button in self._buttons if button.text() == text), None)
