"""A choice whose options are little true drawings of the piece, one of which is chosen."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPoint, QRectF, QSize, Qt
from PySide6.QtGui import QIcon, QImage, QPainter, QPaintEvent, QPen, QPixmap
from PySide6.QtWidgets import QButtonGroup, QRadioButton, QVBoxLayout, QWidget

from nullah.core.drawing import Drawing, wrapped
from nullah.desk.stations.base import Flow
from nullah.desk.text_label import TextLabel
from nullah.desk.theme import palette_of
from nullah.paper.lettering import typeface
from nullah.paper.palette import Palette
from nullah.paper.pictures import fitted_picture

#: Size of a drawing, pixels: three of them stand side by side in the column.
PICTURE = (74, 52)
_WIDE, _HIGH, _LINE = 88, 62, 18
#: So many letters stand in a line under a drawing.
_LETTERS = 13


class DrawnOption(QRadioButton):
    """One of several, as a drawing with its words below; a screen reader is told that it is one of several."""

    def __init__(self, lines: list[str]) -> None:
        super().__init__("\n".join(lines))
        self.setIconSize(QSize(*PICTURE))
        self.setFixedSize(_WIDE, _HIGH + _LINE * len(lines))

    def hitButton(self, pos: QPoint) -> bool:
        return self.rect().contains(pos)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        colours = self.palette()
        strong = self.isChecked() or self.hasFocus()
        line = colours.highlight() if strong or self.underMouse() else colours.mid()
        wide = 2.0 if strong else 1.0
        painter.setPen(QPen(line.color(), wide))
        painter.setBrush(colours.midlight() if self.isChecked() else colours.base())
        painter.drawRoundedRect(QRectF(self.rect()).adjusted(wide / 2, wide / 2, -wide / 2, -wide / 2), 3, 3)
        left = (self.width() - PICTURE[0]) // 2
        painter.drawPixmap(left, 5, self.icon().pixmap(self.iconSize(), self.devicePixelRatioF()))
        painter.setFont(typeface(13))
        painter.setPen(colours.text().color())
        words = self.rect().adjusted(0, PICTURE[1] + 5, 0, -3)
        painter.drawText(words, int(Qt.AlignmentFlag.AlignCenter), self.text())
        painter.end()


class DrawnChoice(QWidget):
    """Options with drawings under a heading; `options` are pairs of value and words, which can be changed later."""

    def __init__(self, title: str, options: list[tuple[str, str]], chosen: Callable[[str], None]) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 4, 0, 2)
        column.setSpacing(3)
        label = TextLabel(title, quiet=True)
        column.addWidget(label)
        self._title, self._chosen = title, chosen
        self._flow = Flow()
        self._flow.setSpacing(4)
        self._group = QButtonGroup(self)
        self._drawn: dict[str, tuple[Drawing, Palette]] = {}
        self._options: list[tuple[str, str]] = []
        self.buttons: dict[str, DrawnOption] = {}
        column.addLayout(self._flow)
        self.set_options(options)

    def set_options(self, options: list[tuple[str, str]]) -> None:
        """Offer these, if they are not there already."""
        if options == self._options:
            return
        self._options = list(options)
        for button in self.buttons.values():
            self._group.removeButton(button)
            self._flow.removeWidget(button)
            button.hide()
            button.deleteLater()
        self.buttons, self._drawn = {}, {}
        # The room of the drawings is kept for them, so that nothing moves when they come.
        empty = QPixmap(*PICTURE)
        empty.fill(Qt.GlobalColor.transparent)
        for value, text in options:
            button = DrawnOption(wrapped(text, _LETTERS))
            button.setIcon(QIcon(empty))
            button.setAccessibleName(f"{self._title}: {text}")
            button.setToolTip(text)
            button.clicked.connect(lambda _=False, value=value: self._chosen(value))
            self._group.addButton(button)
            self.buttons[value] = button
            self._flow.addWidget(button)

    @property
    def value(self) -> str:
        """The value that is chosen."""
        return next((value for value, button in self.buttons.items() if button.isChecked()), "")

    def draw(self, drawn: Callable[[str], Drawing]) -> None:
        """Draw every option, if it looks otherwise than it did."""
        palette = palette_of(self)
        for value in self.buttons:
            shown = drawn(value)
            if self._drawn.get(value) != (shown, palette):
                self._drawn[value] = (shown, palette)
                self.show_picture(value, fitted_picture(shown, PICTURE, palette, 2.6, 3, palette.raised))

    def show_value(self, value: str) -> None:
        """Show which is chosen."""
        if value in self.buttons:
            self.buttons[value].setChecked(True)

    def show_picture(self, value: str, image: QImage) -> None:
        """Show how the piece looks with an option."""
        if value in self.buttons:
            self.buttons[value].setIcon(QIcon(QPixmap.fromImage(image)))
