"""The right column: the card that is carried away, and what can be chosen here. It can be dragged and folded."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QScrollArea, QStackedWidget, QVBoxLayout, QWidget

from nullah.desk.card import CardView
from nullah.desk.stations.base import StationDesk
from nullah.language import tr

CARD, CHOOSE = 0, 1
_LEAST, USUAL = 264, 318


class Column(QWidget):
    """Two sides, of which one is shown; `turned` carries which."""

    turned = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("column")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setMinimumWidth(_LEAST)
        self.card = CardView()
        self.choices = QScrollArea()
        self.choices.setObjectName("chooseSide")
        self.choices.setAccessibleName(tr("Choose"))
        self.choices.setWidgetResizable(True)
        self.choices.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.choices.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._desks: list[StationDesk] = []
        self._sides = QStackedWidget()
        self._sides.addWidget(self.card)
        self._sides.addWidget(self.choices)
        self._group = QButtonGroup(self)
        head = QHBoxLayout()
        head.setContentsMargins(14, 4, 14, 0)
        head.setSpacing(4)
        self.buttons: list[QPushButton] = []
        for side, text in ((CARD, tr("Card")), (CHOOSE, tr("Choose"))):
            button = QPushButton(text)
            button.setCheckable(True)
            button.setAutoExclusive(True)
            button.setProperty("tab", "true")
            button.setMinimumHeight(32)
            button.setAccessibleName(text)
            self._group.addButton(button, side)
            head.addWidget(button)
            self.buttons.append(button)
        head.addStretch(1)
        self._group.idClicked.connect(self.turned.emit)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(head)
        whole.addWidget(self._sides, 1)
        self.show_side(CARD)

    @property
    def side(self) -> int:
        """Which side is shown."""
        return self._sides.currentIndex()

    def show_side(self, side: int) -> None:
        """Show one of the two sides."""
        self.buttons[side].setChecked(True)
        self._sides.setCurrentIndex(side)

    def show_desk(self, desk: StationDesk) -> None:
        """Show the choices of another station."""
        if desk is self.choices.widget():
            return
        # Taken out first, the area would delete what it held; but kept, to go when the column goes.
        before = self.choices.takeWidget()
        if before is not None:
            before.hide()
            before.setParent(self)
        self.choices.setWidget(desk)
        desk.show()
        self.choices.verticalScrollBar().setValue(0)

    def bring_up(self, widget: QWidget) -> None:
        """Show the side on which a widget stands, and it on it."""
        side = CARD if self.card.isAncestorOf(widget) else CHOOSE
        if side != self.side:
            self.turned.emit(side)
        if side == CHOOSE:
            self.choices.ensureWidgetVisible(widget)
        else:
            self.card.ensureWidgetVisible(widget)

    def tell_failures(self, number: int) -> None:
        """Show on the card's button how much of it will not work."""
        self.buttons[CARD].setText(tr("Card ▲ {number}", number=number) if number else tr("Card"))
