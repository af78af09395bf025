"""Glance: one step so large that it is read from across the shop, with nothing else in the window."""

from __future__ import annotations

from collections.abc import Iterator

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from nullah.core.card import Severity
from nullah.core.drawing import kept_together
from nullah.core.named_tuple import NamedTuple
from nullah.core.wording.card import WordedCard
from nullah.language import tr
from nullah.paper.lettering import typeface
from nullah.paper.palette import DAY, Palette

#: Type is so large at the most and at the least, pixels: on a screen of 1080 lines the most is read at 3 m.
_MOST, _LEAST = 112, 22
#: Height of type of the title, of a setting's figure and its tool, of steps and cautions, shares of the largest.
_TITLE, _FIGURE, _TOOL, _STEP = 0.8, 1.0, 0.5, 0.62
_WRAP = int(Qt.TextFlag.TextWordWrap)


class _Line(NamedTuple):
    """Words as they are set: their share of the largest type, whether bold, and in which colour."""

    text: str
    share: float
    bold: bool
    colour: str


class GlancePage(QWidget):
    """The title, the settings, and the steps, as large as all of them fit; more steps by Space, a tap or a click."""

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("The next step, read from afar"))
        self._card = WordedCard("", (), (), (), ())
        self._palette: Palette = DAY
        self._first = 0
        self._shown = 0

    def show_card(self, card: WordedCard) -> None:
        """Show what a card says."""
        if card != self._card:
            self._card, self._first = card, 0
            settings = "; ".join(f"{each.tool} {each.figure}" for each in card.set)
            self.setAccessibleDescription("\n".join((card.title, settings, *card.mark)))
        self.update()

    def set_palette(self, palette: Palette) -> None:
        """Take another theme."""
        self._palette = palette
        self.update()

    @property
    def steps_shown(self) -> range:
        """The numbers of the steps that are shown, from 0."""
        return range(self._first, self._first + self._shown)

    def go_on(self) -> None:
        """Show the next steps; after the last ones, the first again."""
        following = self._first + max(self._shown, 1)
        self._first = following if following < len(self._card.mark) else 0
        self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.go_on()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Space, Qt.Key.Key_Right, Qt.Key.Key_Down, Qt.Key.Key_PageDown):
            self.go_on()
        else:
            super().keyPressEvent(event)

    # --- how it is set ---

    def _lines(self, steps: int) -> Iterator[_Line]:
        card, palette = self._card, self._palette
        yield _Line(card.title, _TITLE, True, palette.text)
        for remark in card.mind:
            if remark.weight is Severity.FAILURE:
                yield _Line(f"▲ {remark.text}", _STEP, True, palette.fails)
        for each in card.set:
            yield _Line(f"{each.tool}  {each.figure}", _FIGURE, True, palette.accent)
        for number, text in list(enumerate(card.mark, start=1))[self._first : self._first + steps]:
            yield _Line(f"{number}  {text}", _STEP, False, palette.text)
        left = len(card.mark) - self._first - steps
        if left > 0:
            yield _Line(tr("{count} more: Space, or touch", count=left), _TOOL, False, palette.quiet)
        elif self._first:
            yield _Line(tr("Space, or touch: from the first again"), _TOOL, False, palette.quiet)

    def _set(self, steps: int) -> list[_Line]:
        return [line._replace(text=kept_together(line.text)) for line in self._lines(steps)]

    def _height(self, lines: list[_Line], largest: int, wide: float) -> float:
        high = 0.0
        for line in lines:
            metrics = QFontMetricsF(typeface(largest * line.share, line.bold))
            high += metrics.boundingRect(QRectF(0, 0, wide, 100_000), _WRAP, line.text).height() + largest * 0.24
        return high

    def _fitting(self, wide: float, high: float) -> tuple[list[_Line], int]:
        """Return the lines and the size at which they fit: all steps if they can be read, else as many as can."""
        for steps in range(len(self._card.mark) - self._first, -1, -1):
            lines = self._set(steps)
            # One that is small is no glance: rather fewer steps, and the rest by a key.
            least = _LEAST if steps <= 1 else min(int(high / 16), 40)
            for largest in range(_MOST, max(least, _LEAST) - 1, -2):
                if self._height(lines, largest, wide) <= high:
                    self._shown = steps
                    return lines, largest
        self._shown = 0
        return self._set(0), _LEAST

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(self._palette.sheet))
        edge = min(self.width(), self.height()) * 0.04
        wide, high = self.width() - 2 * edge, self.height() - 2 * edge
        lines, largest = self._fitting(wide, high)
        y = edge
        for line in lines:
            font = typeface(largest * line.share, line.bold)
            box = QFontMetricsF(font).boundingRect(QRectF(0, 0, wide, 100_000), _WRAP, line.text)
            painter.setFont(font)
            painter.setPen(QColor(line.colour))
            painter.drawText(QRectF(edge, y, wide, box.height() + 2), _WRAP, line.text)
            y += box.height() + largest * 0.24
        painter.end()
