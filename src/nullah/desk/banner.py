"""The banner: a sentence across the window, with what can be done about it."""

from __future__ import annotations

from collections.abc import Callable
from enum import IntEnum

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from nullah.core.limits import one_sentence
from nullah.core.named_tuple import NamedTuple
from nullah.desk.text_label import TextLabel
from nullah.language import tr


class Urgency(IntEnum):
    """How much a sentence matters: the most urgent is shown, and the others wait below it."""

    OFFER = 0
    WORD = 1
    QUESTION = 2
    ERROR = 3


class _Button(NamedTuple):
    """What can be done about a sentence: the words of a button, and what it does."""

    words: str
    act: Callable[[], object]


class _Message(NamedTuple):
    sentence: str
    buttons: tuple[_Button, ...]
    dismiss: bool


class Banner(QWidget):
    """Shows the most urgent of what was said; each urgency holds one sentence, the last that was said.

    So an error at the start is not covered by an offer, and the offer is still there after it. What only tells, with
    nothing to be done about it, gives way to what is told of a later action.
    """

    #: One of its buttons had the focus and goes: somebody else should have it.
    left = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("banner")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(16, 5, 10, 5)
        self.words = TextLabel(wraps=True)
        self._row.addWidget(self.words, 1)
        self._buttons: list[QPushButton] = []
        self._said: dict[Urgency, _Message] = {}
        self.hide()

    def say(
        self,
        sentence: str,
        *ways: tuple[str, Callable[[], object]],
        urgency: Urgency = Urgency.WORD,
        dismiss: bool = True,
    ) -> None:
        """Say a sentence.

        Parameters
        ----------
        sentence : str
        ways
            Pairs of a button's words and what it does.
        urgency : Urgency
        dismiss : bool
            Whether it can be dismissed without doing anything.
        """
        if urgency is not Urgency.OFFER:
            self._said = {held: each for held, each in self._said.items() if each.buttons or held <= urgency}
        self._said[urgency] = _Message(one_sentence(sentence), tuple(_Button(*each) for each in ways), dismiss)
        self._show()

    def tell(self, sentence: str, urgency: Urgency = Urgency.WORD) -> None:
        """Change the words of what is being said, and leave its ways."""
        if urgency in self._said:
            self._said[urgency] = self._said[urgency]._replace(sentence=one_sentence(sentence))
            if urgency is max(self._said):
                self.words.setText(self._said[urgency].sentence)

    def forget(self, urgency: Urgency = Urgency.WORD) -> None:
        """Take back what was said."""
        self._said.pop(urgency, None)
        self._show()

    def _show(self) -> None:
        # A button that is hidden hands the focus on to the next field there is, whatever that is.
        if any(button.hasFocus() for button in self._buttons):
            self.left.emit()
        for button in self._buttons:
            self._row.removeWidget(button)
            button.hide()
            button.deleteLater()
        self._buttons = []
        if not self._said:
            self.hide()
            return
        urgency = max(self._said)
        message = self._said[urgency]
        self.words.setText(message.sentence)
        dismissed = (_Button(tr("Dismiss"), lambda: None),) if message.dismiss else ()
        for each in (*message.buttons, *dismissed):
            button = QPushButton(each.words)
            button.setAccessibleName(each.words)
            button.setMinimumHeight(32)
            button.clicked.connect(lambda _=False, act=each.act: self._do(urgency, act))
            self._row.addWidget(button)
            self._buttons.append(button)
            button.show()
        self.show()

    def _do(self, urgency: Urgency, act: Callable[[], object]) -> None:
        self.forget(urgency)
        act()

    def button(self, text: str) -> QPushButton | None:
        """Return the button with these words, if it is there."""
        return next((button for button in self._buttons if button.text() == text), None)
