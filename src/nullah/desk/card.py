"""The card: what is carried to the bench. Set, Mark, Mind, Why.

A card is laid out as lines (`_lines`). As long as the lines of the next card are of the same shape, only their words
are changed; otherwise the widgets that are there are placed anew. They are kept: dressing new ones takes longer than
all else.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import groupby, pairwise
from typing import get_args

from PySide6.QtCore import QEvent, Qt, Signal
from PySide6.QtGui import QFontMetricsF
from PySide6.QtWidgets import QApplication, QGridLayout, QPushButton, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from nullah.core.card import Setting, Severity
from nullah.core.drawing import kept_together
from nullah.core.fixes import Fix
from nullah.core.named_tuple import NamedTuple
from nullah.core.refs import Ref
from nullah.core.wording.card import WordedCard, WordedRemark
from nullah.desk.text_label import TextLabel
from nullah.desk.theme import BODY, FIGURE, SMALL, TITLE
from nullah.language import tr
from nullah.paper.lettering import typeface

#: Figures up to this many letters stand two to a row.
_SHORT = 11
#: Room for the words of a button, in pixels.
_ROOM = 240
#: Air round a line, in pixels: left, over, right and under it.
_AIR = {"heading": (0, 10, 0, 0), "line": (0, 0, 0, 4)}
_SIGNS = {Severity.NOTE: "", Severity.WARNING: "◆ ", Severity.FAILURE: "▲ "}
_WEIGHTS = {Severity.NOTE: "", Severity.WARNING: "look", Severity.FAILURE: "fails"}


_Kind = tuple[str, str, bool]


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
    def kind(self) -> _Kind:
        """What must be the same for a widget to show another line: how it looks, and whether it can be clicked."""
        return self.look, self.weight, self.click is not None

    @property
    def shape(self) -> tuple[object, ...]:
        """What must be the same for another line's words to go into this one's place."""
        return *self.kind, self.cell


class _Block(NamedTuple):
    """Widgets that come and go together: a line, or a setting with its figure and its note, in a widget."""

    holder: QWidget
    widgets: tuple[TextLabel | QPushButton, ...]

    def leave(self) -> None:
        """Leave the card, without words that somebody could still read."""
        self.holder.hide()
        for widget in self.widgets:
            widget.setText("")


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
    """Set short figures in two columns, long ones and those that stand alone over both."""
    row, at = 0, 0
    wides = [len(setting.figure) > _SHORT or len(setting.tool) > _SHORT + 6 for setting in settings]
    for setting, wide, alone in zip(settings, wides, [*wides[1:], True], strict=True):
        if wide and at:
            row, at = row + 1, 0
        cell = (row, at, 2 if wide or (alone and at == 0) else 1)
        yield _Line("tool", setting.tool, cell=cell)
        look = "figure" if len(setting.figure) < 20 else "long figure"
        yield _Line(look, setting.figure, f"{setting.tool}: {setting.figure}", cell, click=setting.ref)
        if setting.note:
            yield _Line("note", setting.note, cell=cell)
        row, at = (row, 1) if not wide and at == 0 else (row + 1, 0)


def _blocks(lines: list[_Line]) -> Iterator[list[_Line]]:
    """Return lines that come and go together: those of one cell, and each that stands alone."""
    for cell, together in groupby(lines, key=lambda line: line.cell):
        if cell is not None:
            yield list(together)
        else:
            yield from ([line] for line in together)


def _broken(line: _Line) -> str:
    """Break the words of a button into lines that fit on the card: a button does not do so by itself."""
    size, bold, _ = _LOOKS[line.look]
    metrics = QFontMetricsF(typeface(size, bold))
    lines = [""]
    for word in kept_together(line.text).split(" "):
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
        self._blocks: list[_Block] = []
        self._widgets: list[TextLabel | QPushButton] = []
        self._made: dict[tuple[_Kind, ...], list[_Block]] = {}
        self._body = body = QWidget()
        body.setObjectName("cardBody")
        page = QVBoxLayout(body)
        page.setContentsMargins(18, 14, 14, 14)
        self._column = QVBoxLayout()
        self._column.setSpacing(2)
        page.addLayout(self._column)
        page.addStretch(1)
        self._settings = QWidget(body)
        self._grid = QGridLayout(self._settings)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setHorizontalSpacing(10)
        self._grid.setVerticalSpacing(8)
        self._grid.setColumnStretch(0, 1)
        self._grid.setColumnStretch(1, 1)
        self.setWidget(body)

    def show_card(self, card: WordedCard) -> None:
        """Show another card, keeping the place where it is the same one."""
        if card == self.card and self._widgets:
            return
        lines = list(_lines(card))
        same_card = card.title == self.card.title
        self.card = card
        if [line.shape for line in lines] != [line.shape for line in self._lines]:
            self._place(lines)
        else:
            self._word(lines)
        # At once, lest it is painted before all of it has found its place.
        QApplication.sendPostedEvents(None, QEvent.Type.LayoutRequest.value)
        if not same_card:
            self.verticalScrollBar().setValue(0)

    def _word(self, lines: list[_Line]) -> None:
        self._lines = lines
        for widget, line in zip(self._widgets, lines, strict=True):
            text = _broken(line) if isinstance(widget, QPushButton) else kept_together(line.text)
            if widget.text() != text:
                widget.setText(text)
            if widget.accessibleName() != line.name:
                widget.setAccessibleName(line.name)

    def _place(self, lines: list[_Line]) -> None:
        """Put widgets for all lines in their places; those that are left over are hidden."""
        focused = QApplication.focusWidget()
        focus_name = focused.accessibleName() if focused is not None and self.isAncestorOf(focused) else ""
        for block in self._blocks:
            self._column.removeWidget(block.holder)
            self._grid.removeWidget(block.holder)
        self._column.removeWidget(self._settings)
        left = {kinds: list(made) for kinds, made in self._made.items()}
        before, self._blocks = self._blocks, []
        together = list(_blocks(lines))
        for block_lines in together:
            kinds = tuple(line.kind for line in block_lines)
            self._blocks.append(left[kinds].pop(0) if left.get(kinds) else self._new(block_lines))
        for block in before:
            if block not in self._blocks:
                block.leave()
        self._widgets = [widget for block in self._blocks for widget in block.widgets]
        self._word(lines)
        # Shown first: each that is shown within a layout has all of it laid out.
        self._settings.setVisible(any(line.cell for line in lines))
        for block in self._blocks:
            if block.holder.isHidden():
                block.holder.show()
        for block, block_lines in zip(self._blocks, together, strict=True):
            self._add(block, block_lines[0])
        self._focus_again(focus_name, lines)

    def _add(self, block: _Block, line: _Line) -> None:
        if line.cell is not None:
            if not self._grid.count():
                self._column.addWidget(self._settings)
            row, at, columns = line.cell
            self._grid.addWidget(block.holder, row, at, 1, columns, Qt.AlignmentFlag.AlignTop)
            return
        self._column.addWidget(block.holder)

    def _focus_again(self, name: str, lines: list[_Line]) -> None:
        """Have the keyboard go through the buttons in their order, and on the one of a name, or else on the card."""
        buttons = [widget for widget in self._widgets if isinstance(widget, QPushButton)]
        for one, following in pairwise([self, *buttons]):
            QWidget.setTabOrder(one, following)
        if name:
            named = {line.name: widget for line, widget in zip(lines, self._widgets, strict=True) if line.click}
            named.get(name, self).setFocus()

    def _new(self, lines: list[_Line]) -> _Block:
        if lines[0].cell is None:
            widget = self._widget(lines[0], self._body)
            block = _Block(widget, (widget,))
        else:
            holder = QWidget(self._settings)
            column = QVBoxLayout(holder)
            column.setContentsMargins(0, 0, 0, 0)
            column.setSpacing(0)
            block = _Block(holder, tuple(self._widget(line, holder) for line in lines))
            for widget in block.widgets:
                column.addWidget(widget)
        self._made.setdefault(tuple(line.kind for line in lines), []).append(block)
        return block

    def _widget(self, line: _Line, holder: QWidget) -> TextLabel | QPushButton:
        size, bold, quiet = _LOOKS[line.look]
        widget = (
            TextLabel(wraps=True, quiet=quiet, weight=line.weight, holder=holder)
            if line.click is None
            else QPushButton(holder)
        )
        widget.setFont(typeface(size, bold))
        if isinstance(widget, QPushButton):
            widget.setProperty("fix" if line.look == "fix" else "figure", "true")
            widget.setMinimumHeight(34)
            if line.look != "fix":
                widget.setToolTip(tr("Click to see why, or to type another figure"))
            widget.clicked.connect(lambda: self._clicked(widget))
        else:
            widget.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Minimum)
            widget.setContentsMargins(*_AIR.get(line.look, (0, 0, 0, 0)))
        return widget

    def _clicked(self, button: QPushButton) -> None:
        click = self._lines[self._widgets.index(button)].click
        if isinstance(click, get_args(Ref)):
            self.figure.emit(click)
        elif click is not None:
            self.fix.emit(click)
