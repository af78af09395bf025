"""Many boards at once: typed or pasted, one a line."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QPlainTextEdit, QVBoxLayout, QWidget

from nullah.core import actions
from nullah.core.catalogue import N_
from nullah.core.lengths import style_of
from nullah.core.rack.board import Board
from nullah.core.wording.facts import error_words
from nullah.desk.document import Document
from nullah.desk.stations.base import action
from nullah.desk.text_label import TextLabel
from nullah.language import tr, tr_count
from nullah.paper.lettering import typeface

_SAID = N_(
    "One board a line: length x width x thickness, then if you like a wood, *3 for three of them, and a name. "
    "Width and thickness may be a yard's name: 1x12, 4/4. Lists pasted from a spreadsheet will do."
)


class TypingPage(QWidget):
    """A sheet to type boards on; `done` tells that they are on the rack, or that nobody wants to."""

    done = Signal()

    def __init__(self, document: Document, species: Callable[[], str]) -> None:
        super().__init__()
        self._document, self._species = document, species
        column = QVBoxLayout(self)
        column.setContentsMargins(28, 18, 28, 18)
        column.setSpacing(10)
        title = TextLabel(tr("Boards by the list"))
        title.setFont(typeface(22))
        column.addWidget(title)
        said = TextLabel(tr(_SAID), wraps=True)
        column.addWidget(said)
        self.text = QPlainTextEdit()
        self.text.setAccessibleName(tr("boards, one a line"))
        self.text.setPlaceholderText("\n".join(style_of(document.project.marks.unit).boards))
        self.text.setFont(typeface(18))
        self.text.setTabChangesFocus(True)
        self.text.textChanged.connect(self._read)
        column.addWidget(self.text, 1)
        self.sentence = TextLabel(wraps=True)
        column.addWidget(self.sentence)
        row = QHBoxLayout()
        row.addStretch(1)
        self.put = action(tr("Put them on the rack"), self.put_on, row, main=True)
        column.addLayout(row)
        self.setFocusProxy(self.text)
        self._read()

    def _boards(self) -> tuple[tuple[Board, ...], str]:
        """Read what is typed; give the boards, or the sentence that says what is wrong."""
        from nullah.files.rack_tables import read_typed_boards
        from nullah.files.tables import TableError

        try:
            return read_typed_boards(self.text.toPlainText(), self._document.project.marks.unit, self._species()), ""
        except TableError as error:
            return (), error_words(error)

    def _read(self) -> None:
        """Say, with every key, how many boards that is, or what cannot be read."""
        if not self.text.toPlainText().strip():
            self._say(tr("Nothing typed yet."), wrong=False)
            self.put.setEnabled(False)
            return
        boards, wrong = self._boards()
        self.put.setEnabled(bool(boards))
        self._say(wrong or tr_count(len(boards), "{n} board.", "{n} boards."), wrong=bool(wrong))

    def _say(self, text: str, wrong: bool) -> None:
        self.sentence.setText(text)
        self.sentence.setProperty("weight", "fails" if wrong else "")
        self.sentence.style().unpolish(self.sentence)
        self.sentence.style().polish(self.sentence)

    def put_on(self) -> None:
        """Put the boards on the rack, as one step; names that are taken get the next free number."""
        boards, _ = self._boards()
        if not boards:
            return
        taken = {board.name for board in self._document.project.boards}
        named = []
        for board in boards:
            stem, _, _ = board.name.rpartition(" ")
            name, number = board.name, 1
            while name in taken:
                name, number = f"{stem or board.name} {number}", number + 1
            taken.add(name)
            named.append(replace(board, name=name))
        words = tr("put {count} boards on the rack", count=len(named))
        refused = self._document.do(words, lambda p: actions.add_boards(p, tuple(named)))
        if refused:
            self._say(refused, wrong=True)
            return
        self.text.clear()
        self.done.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.done.emit()
            return
        super().keyPressEvent(event)
