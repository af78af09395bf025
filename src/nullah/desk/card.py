"""The card: what is carried to the bench. Set, Mark, Mind, Why.

A card is laid out as lines (`_lines`). As long as the lines of the next card are of the same
shape, only their words are changed; a new shape is built anew.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple, get_args

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QFontMetricsF
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

from nullah.core.card import Setting, Severity
from nullah.core.fixes import Fix
from nullah.core.refs import Ref
from nullah.core.wording.card import WordedCard, WordedRemark
from nullah.desk.theme import BODY, FIGURE, SMALL, TITLE
from nullah.language import tr
from nullah.paper.lettering import typeface

#: Figures up to this many letters stand two to a row.
_SHORT = 11
#: Room for the words of a button, in pixels.
_ROOM = 240
_SIGNS = {Severity.NOTE: "", Severity.WARNING: "◆ ", Severity.FAILURE: "▲ "}
_WEIGHTS = {Severity.NOTE: "", Severity.WARNING: "look", Severity.FAILURE: "fails"}


class _Line(NamedTuple):
    """One line of the card: how it looks, its words, and where it stands.

    `cell` is (row, column, columns) among the settings, or None below one another. `weight`
    is that of a remark. `click` is what a button tells: a way out, or what a figure is of.
    """

    look: str
    text: str
    name: str = ""
    cell: tuple[int, int, int] | None = None
    weight: str = ""
    click: Fix | Ref | None = None

    @property
    def shape(self) -> tuple[object, ...]:
        """What must be the same for another line's words to go into this one's place."""
        return self.look, self.cell, self.weight, self.click is None


# Size of type and whether it is bold and quiet, by look.
_LOOKS = {
    "title": (TITLE, True, False),
    "heading": (BODY, True, True),
    "line": (BODY, False, False),
    "tool": (SMALL + 1, False, True),
    "figure": (FIGURE, True, False),
    "long figure": (FIGURE - 2, True, False),
    "note": (SMALL, False, True),
    "fix": (BODY, False, False),
}


def _lines(card: WordedCard) -> Iterator[_Line]:
    """Lay a card out. What will not work comes first: nobody should carry the settings away then."""
    if card.title:
        yield _Line("title", card.title)
    yield from _remarks([remark for remark in card.mind if remark.weight is Severity.FAILURE])
    if card.set:
        yield _Line("heading", card.headings.set)
        yield from _settings(card.set)
    if card.mark:
        yield _Line("heading", card.headings.mark)
        for number, text in enumerate(card.mark, start=1):
            yield _Line("line", f"{number}  {text}")
    milder = [remark for remark in card.mind if remark.weight is not Severity.FAILURE]
    if milder:
        yield _Line("heading", card.headings.mind)
        yield from _remarks(sorted(milder, key=lambda remark: remark.weight is Severity.NOTE))
    if card.why:
        yield _Line("heading", card.headings.why)
        for text in card.why:
            yield _Line("line", text)


def _remarks(remarks: list[WordedRemark]) -> Iterator[_Line]:
    for remark in remarks:
        yield _Line("line", _SIGNS[remark.weight] + remark.text, weight=_WEIGHTS[remark.weight])
        for words, fix in remark.fixes:
            yield _Line("fix", words, words, click=fix)


def _settings(settings: tuple[Setting, ...]) -> Iterator[_Line]:
    """Set short figures in two columns and long ones over both."""
    row, at = 0, 0
    for setting in settings:
        wide = len(setting.figure) > _SHORT or len(setting.tool) > _SHORT + 6
        if wide and at:
            row, at = row + 1, 0
        cell = (row, at, 2 if wide else 1)
        yield _Line("tool", setting.tool, cell=cell)
        look = "figure" if len(setting.figure) < 20 else "long figure"
        yield _Line(look, setting.figure, f"{setting.tool}: {setting.figure}", cell, click=setting.ref)
        if setting.note:
            yield _Line("note", setting.note, cell=cell)
        row, at = (row, 1) if not wide and at == 0 else (row + 1, 0)


def _broken(line: _Line) -> str:
    """Break the words of a button into lines that fit on the card: a button does not do so by itself."""
    size, bold, _ = _LOOKS[line.look]
    metrics = QFontMetricsF(typeface(size, bold))
    lines = [""]
    for word in line.text.split(" "):
        longer = f"{lines[-1]} {word}".strip()
        if lines[-1] and metrics.horizontalAdvance(longer) > _ROOM:
            lines.append(word)
        else:
            lines[-1] = longer
    return "\n".join(lines)


class CardView(QScrollArea):
    """Shows a card. `fix` carries a way out that was clicked, `figure` what a setting is of."""

    fix = Signal(object)
    figure = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setAccessibleName(tr("Card"))
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.card = WordedCard("", (), (), (), ())
        self._lines: list[_Line] = []
        self._widgets: list[QLabel | QPushButton] = []

    def show_card(self, card: WordedCard) -> None:
        """Show another card, keeping the place where it is the same one."""
        if card == self.card and self._widgets:
            return
        lines = list(_lines(card))
        same_card = card.title == self.card.title
        self.card = card
        if [line.shape for line in lines] == [line.shape for line in self._lines]:
            self._reword(lines)
        else:
            self._rebuild(lines, self.verticalScrollBar().value() if same_card else 0)
        if not same_card:
            self.verticalScrollBar().setValue(0)

    def _reword(self, lines: list[_Line]) -> None:
        for widget, old, new in zip(self._widgets, self._lines, lines, strict=True):
            if old.text != new.text:
                widget.setText(_broken(new) if isinstance(widget, QPushButton) else new.text)
            if old.name != new.name:
                widget.setAccessibleName(new.name)
        self._lines = lines

    def _rebuild(self, lines: list[_Line], at: int) -> None:
        focused = QApplication.focusWidget()
        focus_name = focused.accessibleName() if focused is not None and self.isAncestorOf(focused) else ""
        # The old body may hold the very button whose click brought us here.
        old = self.takeWidget()
        if old is not None:
            old.deleteLater()
        self._lines, self._widgets = lines, []
        self.setWidget(self._body(lines))
        self.verticalScrollBar().setValue(at)
        if focus_name:
            self._focus_again(focus_name)

    def _focus_again(self, name: str) -> None:
        """Put the keyboard back on the figure or mend of the same name, or else on the card."""
        buttons = [widget for widget in self._widgets if isinstance(widget, QPushButton)]
        again = next((button for button in buttons if button.accessibleName() == name), None)
        (again or self).setFocus()

    def _body(self, lines: list[_Line]) -> QWidget:
        body = QWidget()
        body.setObjectName("cardBody")
        column = QVBoxLayout(body)
        column.setContentsMargins(18, 14, 14, 14)
        column.setSpacing(2)
        grid: QGridLayout | None = None
        cells: dict[tuple[int, int, int], QVBoxLayout] = {}
        for index, line in enumerate(lines):
            widget = self._widget(index, line)
            self._widgets.append(widget)
            if line.cell is None:
                if line.look == "heading":
                    column.addSpacing(10)
                column.addWidget(widget)
                column.addSpacing(4 if line.look in ("line", "mend") else 0)
                continue
            if grid is None:
                grid = self._grid(column)
            if line.cell not in cells:
                cells[line.cell] = self._cell(grid, line.cell)
            cells[line.cell].addWidget(widget)
        column.addStretch(1)
        return body

    def _grid(self, column: QVBoxLayout) -> QGridLayout:
        grid = QGridLayout()
        grid.setHorizontalSpacing(10)
        grid.setVerticalSpacing(8)
        grid.setColumnStretch(0, 1)
        grid.setColumnStretch(1, 1)
        column.addLayout(grid)
        return grid

    def _cell(self, grid: QGridLayout, cell: tuple[int, int, int]) -> QVBoxLayout:
        row, at, columns = cell
        holder = QWidget()
        column = QVBoxLayout(holder)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        grid.addWidget(holder, row, at, 1, columns, Qt.AlignmentFlag.AlignTop)
        return column

    def _widget(self, index: int, line: _Line) -> QLabel | QPushButton:
        size, bold, quiet = _LOOKS[line.look]
        widget = QLabel(line.text) if line.click is None else QPushButton(_broken(line))
        widget.setFont(typeface(size, bold))
        widget.setAccessibleName(line.name)
        if isinstance(widget, QPushButton):
            widget.setProperty("fix" if line.look == "fix" else "figure", "true")
            widget.setMinimumHeight(34)
            if line.look != "fix":
                widget.setToolTip(tr("Click to see why, or to type another figure"))
            widget.clicked.connect(lambda: self._clicked(index))
        else:
            widget.setTextFormat(Qt.TextFormat.PlainText)
            widget.setWordWrap(True)
            widget.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Minimum)
            if quiet:
                widget.setProperty("quiet", "true")
            if line.weight:
                widget.setProperty("weight", line.weight)
        return widget

    def _clicked(self, index: int) -> None:
        click = self._lines[index].click
        if isinstance(click, get_args(Ref)):
            self.figure.emit(click)
        elif click is not None:
            self.fix.emit(click)
