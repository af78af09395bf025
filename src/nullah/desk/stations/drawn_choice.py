"""A choice whose options are little true drawings of the piece, one of which is chosen."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QIcon, QImage, QPixmap
from PySide6.QtWidgets import QButtonGroup, QLabel, QToolButton, QVBoxLayout, QWidget

from nullah.core.drawing import wrapped
from nullah.desk.stations.base import Flow

#: Size of a drawing, pixels: three of them stand side by side in the column.
PICTURE = (74, 52)
_WIDE, _HIGH, _LINE = 88, 62, 18
#: So many letters stand in a line under a drawing.
_LETTERS = 13


class DrawnChoice(QWidget):
    """Buttons with drawings under a heading; `options` are pairs of value and words."""

    def __init__(self, title: str, options: list[tuple[str, str]], chosen: Callable[[str], None]) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 4, 0, 2)
        column.setSpacing(3)
        label = QLabel(title)
        label.setProperty("quiet", "true")
        label.setTextFormat(Qt.TextFormat.PlainText)
        column.addWidget(label)
        # The room of the drawings is kept for them, so that nothing moves when they come.
        empty = QPixmap(*PICTURE)
        empty.fill(Qt.GlobalColor.transparent)
        flow = Flow()
        flow.setSpacing(4)
        self._group = QButtonGroup(self)
        self.buttons: dict[str, QToolButton] = {}
        for value, text in options:
            button = QToolButton()
            button.setObjectName("drawn")
            button.setCheckable(True)
            button.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
            button.setIconSize(QSize(*PICTURE))
            lines = wrapped(text, _LETTERS)
            button.setFixedSize(_WIDE, _HIGH + _LINE * len(lines))
            button.setText("\n".join(lines))
            button.setIcon(QIcon(empty))
            button.setAccessibleName(f"{title}: {text}")
            button.setToolTip(text)
            button.clicked.connect(lambda _=False, value=value: chosen(value))
            self._group.addButton(button)
            self.buttons[value] = button
            flow.addWidget(button)
        column.addLayout(flow)

    def show_value(self, value: str) -> None:
        """Show which is chosen."""
        if value in self.buttons:
            self.buttons[value].setChecked(True)

    def show_picture(self, value: str, image: QImage) -> None:
        """Show how the piece looks with an option."""
        if value in self.buttons:
            self.buttons[value].setIcon(QIcon(QPixmap.fromImage(image)))
